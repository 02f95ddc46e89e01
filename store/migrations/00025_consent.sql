-- +goose Up
-- What a contact said to the student's name on programmes: yes, no, or nothing where nobody asked.
ALTER TABLE contact ADD COLUMN named VARCHAR(3) CHARACTER SET ascii NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE contact DROP COLUMN named;
