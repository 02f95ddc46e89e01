-- +goose Up
-- The language in which families are spoken to that have chosen none (empty for English), the day on which a week begins on
-- screen (0 for Sunday), and the lines under the studio's name on papers and letters.
ALTER TABLE studio
  ADD COLUMN language VARCHAR(8) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN first_day TINYINT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN letterhead VARCHAR(400) NOT NULL DEFAULT '';

-- English was kept for whoever chose nothing.
ALTER TABLE family ALTER COLUMN language SET DEFAULT '';
UPDATE family SET language = '' WHERE language = 'en';

-- +goose Down
UPDATE family SET language = 'en' WHERE language = '';
ALTER TABLE family ALTER COLUMN language SET DEFAULT 'en';
ALTER TABLE studio DROP COLUMN language, DROP COLUMN first_day, DROP COLUMN letterhead;
