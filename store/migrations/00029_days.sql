-- +goose Up
-- The days of a published week: one before a holiday, or of a student who comes every other week, has more than eleven.
ALTER TABLE practice_week MODIFY COLUMN days VARCHAR(2000) NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE practice_week MODIFY COLUMN days VARCHAR(120) NOT NULL DEFAULT '';
