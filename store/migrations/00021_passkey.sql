-- +goose Up
-- Keys of devices that sign somebody in without a password, by a hash of their id.
CREATE TABLE passkey (
  id CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  teacher_id CHAR(26) CHARACTER SET ascii NOT NULL,
  name VARCHAR(80) NOT NULL,
  body TEXT NOT NULL,
  made_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  KEY passkey_teacher (teacher_id),
  FOREIGN KEY (teacher_id) REFERENCES teacher (id) ON DELETE CASCADE
);

-- What a device was asked to sign, until it answers.
CREATE TABLE challenge (
  id CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  body TEXT NOT NULL,
  until_at DATETIME(3) NOT NULL,
  KEY challenge_old (until_at)
);

-- +goose Down
DROP TABLE challenge;
DROP TABLE passkey;
