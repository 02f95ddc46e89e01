-- +goose Up
-- In what the ways of teachers differ from the studio's: an object by the id of the teacher; NULL where nobody's does.
ALTER TABLE studio ADD COLUMN teacher_ways MEDIUMTEXT NULL;

-- +goose Down
ALTER TABLE studio DROP COLUMN teacher_ways;
