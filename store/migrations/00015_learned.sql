-- +goose Up
-- What a studio uses of what it has learned.
CREATE TABLE learned (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  body MEDIUMTEXT NOT NULL,
  PRIMARY KEY (studio_id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE learned;
