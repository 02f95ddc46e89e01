-- +goose Up
-- Every table that belongs to a studio begins its primary key with studio_id
-- and refers to others by (studio_id, id), so that no row can point into
-- another studio.
CREATE TABLE studio (
  id CHAR(26) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  name VARCHAR(200) NOT NULL,
  timezone VARCHAR(64) NOT NULL,
  -- library_version grows with every change of materials, so that snapshots know that they are stale.
  library_version BIGINT NOT NULL DEFAULT 1
);

CREATE TABLE teacher (
  id CHAR(26) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  email VARCHAR(254) NOT NULL,
  name VARCHAR(200) NOT NULL,
  password_hash VARCHAR(255) NOT NULL,
  UNIQUE KEY teacher_email (email),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

CREATE TABLE sessions (
  token CHAR(43) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  data BLOB NOT NULL,
  expiry TIMESTAMP(6) NOT NULL,
  KEY sessions_expiry (expiry)
);

CREATE TABLE login_failure (
  id BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY,
  -- subject is a hash of the address that was typed, or of the network address.
  subject CHAR(64) CHARACTER SET ascii NOT NULL,
  failed_at DATETIME(3) NOT NULL,
  KEY login_failure_subject (subject, failed_at)
);

CREATE TABLE student (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  name VARCHAR(200) NOT NULL,
  born DATE NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

CREATE TABLE ladder (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  student_id CHAR(26) CHARACTER SET ascii NOT NULL,
  instrument VARCHAR(40) NOT NULL,
  -- practice_days has a bit for each weekday, Sunday the lowest.
  practice_days TINYINT UNSIGNED NOT NULL,
  practice_minutes SMALLINT NOT NULL,
  hands_apart BOOLEAN NOT NULL,
  -- version guards the practice settings against a stale form.
  version BIGINT NOT NULL DEFAULT 1,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id)
);

CREATE TABLE lesson_slot (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  weekday TINYINT UNSIGNED NOT NULL,
  -- starts_at is in minutes after midnight, local time of the studio.
  starts_at SMALLINT NOT NULL,
  minutes SMALLINT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

CREATE TABLE source (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  title VARCHAR(200) NOT NULL,
  instrument VARCHAR(40) NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

CREATE TABLE material (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  source_id CHAR(26) CHARACTER SET ascii NULL,
  title VARCHAR(200) NOT NULL,
  composer VARCHAR(200) NOT NULL,
  strand VARCHAR(20) NOT NULL,
  instrument VARCHAR(40) NOT NULL,
  unit VARCHAR(100) NOT NULL,
  page SMALLINT NOT NULL,
  position SMALLINT NOT NULL,
  tempo DOUBLE NOT NULL,
  bars INT NOT NULL,
  distinct_bars INT NOT NULL,
  quarters DOUBLE NOT NULL,
  texture VARCHAR(40) NOT NULL,
  -- bar_labels is a JSON array of the printed bar numbers, null when they simply count from 1.
  bar_labels TEXT NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, source_id) REFERENCES source (studio_id, id)
);

CREATE TABLE score_file (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  file_name VARCHAR(255) NOT NULL,
  data MEDIUMBLOB NOT NULL,
  PRIMARY KEY (studio_id, material_id),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

CREATE TABLE demand (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  skill VARCHAR(64) NOT NULL,
  weight DOUBLE NOT NULL,
  -- bars is a JSON array of positions from 1.
  bars TEXT NOT NULL,
  origin VARCHAR(10) NOT NULL,
  PRIMARY KEY (studio_id, material_id, skill),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

CREATE TABLE focus_point (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  position SMALLINT NOT NULL,
  words VARCHAR(300) NOT NULL,
  PRIMARY KEY (studio_id, id),
  KEY focus_point_material (studio_id, material_id, position),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

CREATE TABLE rung (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  strand VARCHAR(20) NOT NULL,
  position INT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, material_id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

CREATE TABLE entry (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id VARCHAR(26) CHARACTER SET ascii NOT NULL,
  -- seq is the order of arrival; it only serves to notice that something new arrived.
  seq BIGINT NOT NULL AUTO_INCREMENT,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, id),
  UNIQUE KEY entry_seq (seq),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

CREATE TABLE snapshot (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  fingerprint CHAR(64) CHARACTER SET ascii NOT NULL,
  body MEDIUMBLOB NOT NULL,
  PRIMARY KEY (studio_id, ladder_id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE snapshot, entry, rung, focus_point, demand, score_file, material, source,
  lesson_slot, ladder, student, login_failure, sessions, teacher, studio;
