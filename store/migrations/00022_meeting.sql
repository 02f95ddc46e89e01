-- +goose Up
-- The studio's own activities of a first meeting, and those of the program that it has changed or left out.
CREATE TABLE meeting_activity (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id VARCHAR(40) CHARACTER SET ascii NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE meeting_activity;
