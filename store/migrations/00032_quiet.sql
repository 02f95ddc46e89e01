-- +goose Up
-- The hours in which nothing is sent to families, in minutes from midnight; none where both are the same.
ALTER TABLE studio
  ADD COLUMN quiet_from SMALLINT UNSIGNED NOT NULL DEFAULT 1200,
  ADD COLUMN quiet_to SMALLINT UNSIGNED NOT NULL DEFAULT 420;

-- +goose Down
ALTER TABLE studio DROP COLUMN quiet_from, DROP COLUMN quiet_to;
