-- +goose Up
-- The words with which rhythms are spoken: walking, sea or syllables.
ALTER TABLE studio ADD COLUMN rhythm_words VARCHAR(20) CHARACTER SET ascii NOT NULL DEFAULT 'walking';

-- +goose Down
ALTER TABLE studio DROP COLUMN rhythm_words;
