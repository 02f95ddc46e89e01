-- +goose Up
-- Whose student it is; NULL for the owner's.
ALTER TABLE ladder ADD COLUMN teacher_id CHAR(26) CHARACTER SET ascii NULL, ADD KEY ladder_teacher (studio_id, teacher_id);

-- Who gives a colleague's lessons on a day.
CREATE TABLE cover (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  day DATE NOT NULL,
  teacher_id CHAR(26) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, day),
  KEY cover_teacher (studio_id, teacher_id, day),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE cover;
ALTER TABLE ladder DROP KEY ladder_teacher, DROP COLUMN teacher_id;
