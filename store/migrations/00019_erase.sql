-- +goose Up
-- When everything about a student goes for good; NULL for never. It can be taken back until then.
ALTER TABLE student ADD COLUMN erase_at DATETIME(3) NULL, ADD KEY student_erase (erase_at);

-- How many years after leaving a student's data stay; 0 for ever.
ALTER TABLE studio ADD COLUMN keep_years TINYINT UNSIGNED NOT NULL DEFAULT 2;

-- What stays of those who were erased: counts without names.
CREATE TABLE erased (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  at DATETIME(3) NOT NULL,
  ladders INT NOT NULL,
  entries INT NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE erased;
ALTER TABLE studio DROP COLUMN keep_years;
ALTER TABLE student DROP KEY student_erase, DROP COLUMN erase_at;
