-- +goose Up
-- What a book takes for granted in the teacher's words: ids of skills as a list; NULL as the program proposes it.
ALTER TABLE source ADD COLUMN requires TEXT NULL;

-- +goose Down
ALTER TABLE source DROP COLUMN requires;
