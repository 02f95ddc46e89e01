-- +goose Up
-- The number of the last change of figures that a studio was told of (core/wording/moved.go).
ALTER TABLE studio ADD COLUMN told INT NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE studio DROP COLUMN told;
