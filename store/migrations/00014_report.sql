-- +goose Up
-- Reports to families, for exams, to new teachers. A published one keeps what was said, and the page as it was printed.
CREATE TABLE report (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  body MEDIUMTEXT NOT NULL,
  last_day DATE NOT NULL,
  version BIGINT NOT NULL DEFAULT 1,
  made_at DATETIME(3) NOT NULL,
  published TEXT NOT NULL,
  pdf MEDIUMBLOB NOT NULL,
  published_at DATETIME(3) NULL,
  PRIMARY KEY (studio_id, id),
  KEY report_ladder (studio_id, ladder_id, made_at),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE report;
