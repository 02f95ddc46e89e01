-- +goose Up
-- How hard a piece is in each dimension, as measured from its score, as a JSON array; null where nothing was measured.
ALTER TABLE material ADD COLUMN loads TEXT NOT NULL DEFAULT 'null';

-- +goose Down
ALTER TABLE material DROP COLUMN loads;
