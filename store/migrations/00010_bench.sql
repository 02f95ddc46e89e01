-- +goose Up
-- What the studio's own bench and keys (or chairs) measure is asked once.
CREATE TABLE bench (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  -- asked is "keys" or "chair".
  asked VARCHAR(10) CHARACTER SET ascii NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, asked),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE bench;
