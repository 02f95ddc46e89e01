-- +goose Up
-- A session knows whose it is, so that it can be listed and ended; one that an older server began does not.
ALTER TABLE sessions
  ADD COLUMN id CHAR(26) CHARACTER SET ascii NULL,
  ADD COLUMN teacher_id CHAR(26) CHARACTER SET ascii NULL,
  ADD COLUMN device VARCHAR(80) NOT NULL DEFAULT '',
  ADD COLUMN began_at DATETIME(3) NULL,
  ADD COLUMN seen_at DATETIME(3) NULL,
  ADD KEY sessions_teacher (teacher_id, seen_at);

-- Tries at a secret, by a hash of who tries at what.
CREATE TABLE attempt (
  subject CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  -- tries are all since the last quiet hour, passed those that were let through to the secret.
  tries INT NOT NULL,
  passed INT NOT NULL,
  last_at DATETIME(3) NOT NULL,
  free_at DATETIME(3) NOT NULL,
  KEY attempt_old (last_at)
);

-- Devices on which somebody signed in before, by the hash of what they keep.
CREATE TABLE device (
  token CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  teacher_id CHAR(26) CHARACTER SET ascii NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  KEY device_teacher (teacher_id),
  FOREIGN KEY (teacher_id) REFERENCES teacher (id) ON DELETE CASCADE
);

-- Links that open something once: a new password, or an account of one's own.
CREATE TABLE once_link (
  token CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  kind VARCHAR(10) CHARACTER SET ascii NOT NULL,
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  -- teacher_id is whose password it is; NULL for an invitation.
  teacher_id CHAR(26) CHARACTER SET ascii NULL,
  email VARCHAR(254) NOT NULL,
  name VARCHAR(200) NOT NULL DEFAULT '',
  role VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT '',
  made_at DATETIME(3) NOT NULL,
  until_at DATETIME(3) NOT NULL,
  KEY once_link_teacher (teacher_id),
  FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
);

-- Letters about an account; each goes when it is sent.
CREATE TABLE account_letter (
  id CHAR(26) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  recipient VARCHAR(254) NOT NULL,
  subject VARCHAR(200) NOT NULL,
  body TEXT NOT NULL,
  made_at DATETIME(3) NOT NULL,
  not_before DATETIME(3) NOT NULL,
  tries INT NOT NULL DEFAULT 0,
  KEY account_letter_due (not_before)
);

-- The second factor: its secret, empty for none, and the last step that was used, so that no code works twice.
ALTER TABLE teacher
  ADD COLUMN role VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'owner',
  ADD COLUMN second_secret VARCHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN second_step BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN left_at DATETIME(3) NULL;

CREATE TABLE recovery_code (
  teacher_id CHAR(26) CHARACTER SET ascii NOT NULL,
  code CHAR(64) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (teacher_id, code),
  FOREIGN KEY (teacher_id) REFERENCES teacher (id) ON DELETE CASCADE
);

-- What was done with accounts and data, for the owner to read: no names of students, no addresses.
CREATE TABLE audit (
  id CHAR(26) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  teacher_id CHAR(26) CHARACTER SET ascii NULL,
  at DATETIME(3) NOT NULL,
  kind VARCHAR(20) CHARACTER SET ascii NOT NULL,
  detail VARCHAR(200) NOT NULL DEFAULT '',
  KEY audit_studio (studio_id, at),
  FOREIGN KEY (studio_id) REFERENCES studio (id) ON DELETE CASCADE
);

-- +goose Down
DROP TABLE audit;
DROP TABLE recovery_code;
ALTER TABLE teacher DROP COLUMN role, DROP COLUMN second_secret, DROP COLUMN second_step, DROP COLUMN left_at;
DROP TABLE account_letter;
DROP TABLE once_link;
DROP TABLE device;
DROP TABLE attempt;
ALTER TABLE sessions DROP KEY sessions_teacher, DROP COLUMN id, DROP COLUMN teacher_id, DROP COLUMN device, DROP COLUMN began_at, DROP COLUMN seen_at;
