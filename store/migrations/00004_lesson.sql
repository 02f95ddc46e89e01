-- +goose Up
CREATE TABLE lesson_plan (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  day DATE NOT NULL,
  -- hand is what the teacher set by hand, body the plan that came of it, both JSON.
  hand TEXT NOT NULL,
  body MEDIUMTEXT NOT NULL,
  version BIGINT NOT NULL DEFAULT 1,
  PRIMARY KEY (studio_id, ladder_id, day),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE lesson_plan;
