-- +goose Up
-- A week of practice: hand is what the teacher set by hand, published what the
-- family sees (empty until it was published), both JSON; days are the dates on
-- which something is set in it, for those who only count.
CREATE TABLE practice_week (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  start DATE NOT NULL,
  hand TEXT NOT NULL,
  published MEDIUMTEXT NOT NULL DEFAULT '',
  days VARCHAR(120) NOT NULL DEFAULT '',
  published_at DATETIME(3) NULL,
  version BIGINT NOT NULL DEFAULT 1,
  PRIMARY KEY (studio_id, ladder_id, start),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- The link by which a family opens its page, and where messages go. A link is
-- looked up by its hash; it is kept itself so that the teacher can show it again.
CREATE TABLE family (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  email VARCHAR(254) NOT NULL DEFAULT '',
  token VARCHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '',
  token_hash CHAR(64) CHARACTER SET ascii NULL,
  expires DATE NULL,
  PRIMARY KEY (studio_id, ladder_id),
  UNIQUE KEY family_token (token_hash),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- Messages to families. Without a mail server they stay here, to be looked at.
CREATE TABLE message (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  recipient VARCHAR(254) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  body TEXT NOT NULL,
  made_at DATETIME(3) NOT NULL,
  sent_at DATETIME(3) NULL,
  tries INT NOT NULL DEFAULT 0,
  -- not_before holds the next try back; failure is what the mail server said last.
  not_before DATETIME(3) NOT NULL,
  failure VARCHAR(300) NOT NULL DEFAULT '',
  PRIMARY KEY (studio_id, id),
  KEY message_due (sent_at, not_before),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE message, family, practice_week;
