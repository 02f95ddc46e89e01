-- +goose Up
-- The plan of a week as a teacher saw it last, so that exactly this one can be published. It may be
-- thrown away at any time: then the teacher looks once more.
CREATE TABLE shown_week (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  start DATE NOT NULL,
  print CHAR(64) CHARACTER SET ascii NOT NULL,
  body MEDIUMTEXT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, start),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE shown_week;
