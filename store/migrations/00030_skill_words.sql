-- +goose Up
-- A teacher's own words for skills, as they stand in spreadsheets; an empty skill is that of a word that names none.
CREATE TABLE skill_word (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  word VARCHAR(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  skill_id VARCHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '',
  PRIMARY KEY (studio_id, word),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE skill_word;
