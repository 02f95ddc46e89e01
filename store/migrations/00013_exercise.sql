-- +goose Up
-- The studio's own goals and faults of types of exercises.
CREATE TABLE exercise_form (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id VARCHAR(40) CHARACTER SET ascii NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE exercise_form;
