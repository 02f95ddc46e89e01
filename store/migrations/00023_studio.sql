-- +goose Up
-- The language in which families are spoken to that have chosen none (empty for English), the day on which a week begins on
-- screen (0 for Sunday), and the lines under the studio's name on papers and letters.
ALTER TABLE studio
  ADD COLUMN language VARCHAR(8) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN first_day TINYINT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN letterhead VARCHAR(400) NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE studio DROP COLUMN language, DROP COLUMN first_day, DROP COLUMN letterhead;
