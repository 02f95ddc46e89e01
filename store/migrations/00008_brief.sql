-- +goose Up
-- What the pages of a whole studio need of each student, computed ahead: a cache under a key that names everything it
-- came from. It may be thrown away at any time.
CREATE TABLE brief (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  fingerprint CHAR(64) CHARACTER SET ascii NOT NULL,
  body MEDIUMBLOB NOT NULL,
  PRIMARY KEY (studio_id, ladder_id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE brief;
