-- +goose Up
-- Who a student is: what is asked is little, and all of it but the name may stay empty.
ALTER TABLE student
  ADD COLUMN called VARCHAR(100) NOT NULL DEFAULT '',
  -- born_about says that only the age was given: the day is made of it.
  ADD COLUMN born_about BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN notes TEXT NOT NULL DEFAULT '',
  ADD COLUMN since DATE NULL,
  -- left_on is the first day without the student.
  ADD COLUMN left_on DATE NULL,
  ADD COLUMN version BIGINT NOT NULL DEFAULT 1;

CREATE TABLE contact (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  student_id CHAR(26) CHARACTER SET ascii NOT NULL,
  position SMALLINT NOT NULL,
  name VARCHAR(200) NOT NULL,
  relation VARCHAR(60) NOT NULL,
  email VARCHAR(254) NOT NULL,
  -- messages says that they agreed to be written to.
  messages BOOLEAN NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id)
);

CREATE TABLE pause (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  student_id CHAR(26) CHARACTER SET ascii NOT NULL,
  first_day DATE NOT NULL,
  last_day DATE NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id)
);

-- ended_on is the first day without lessons on this instrument.
ALTER TABLE ladder ADD COLUMN ended_on DATE NULL;

CREATE TABLE slot (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  weekday TINYINT UNSIGNED NOT NULL,
  -- starts_at is in minutes after midnight, local time of the studio.
  starts_at SMALLINT NOT NULL,
  minutes SMALLINT NOT NULL,
  -- every is how many weeks lie between two lessons.
  every TINYINT NOT NULL,
  from_day DATE NOT NULL,
  until_day DATE NULL,
  PRIMARY KEY (studio_id, ladder_id, id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);
-- Nobody wrote down since when: they held for all that was.
INSERT INTO slot SELECT studio_id, ladder_id, ladder_id, weekday, starts_at, minutes, 1, '2000-01-01', NULL FROM lesson_slot;
DROP TABLE lesson_slot;

CREATE TABLE lesson_change (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  -- lesson is the day that its slot puts it on, a hyphen and the slot, or an id of its own.
  lesson VARCHAR(40) CHARACTER SET ascii NOT NULL,
  kind VARCHAR(10) NOT NULL,
  day DATE NULL,
  starts_at SMALLINT NOT NULL DEFAULT 0,
  minutes SMALLINT NOT NULL DEFAULT 0,
  cancelled_by VARCHAR(10) NOT NULL DEFAULT '',
  late BOOLEAN NOT NULL DEFAULT FALSE,
  makes_up VARCHAR(40) CHARACTER SET ascii NOT NULL DEFAULT '',
  PRIMARY KEY (studio_id, ladder_id, lesson),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- A holiday belongs to the studio, or to one student.
ALTER TABLE holiday ADD COLUMN student_id CHAR(26) CHARACTER SET ascii NOT NULL DEFAULT '';

-- A batch is what was entered together, and is undone together.
CREATE TABLE batch (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  made_at DATETIME(3) NOT NULL,
  undone_at DATETIME(3) NULL,
  body MEDIUMTEXT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- A section is a stretch of a unit that is cleared by itself; what is retired is kept and not offered any more.
ALTER TABLE material
  ADD COLUMN part_of CHAR(26) CHARACTER SET ascii NOT NULL DEFAULT '',
  -- merged_into is the piece that stands in its place: entries that name it mean that one.
  ADD COLUMN merged_into CHAR(26) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN retired BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE source ADD COLUMN retired BOOLEAN NOT NULL DEFAULT FALSE;

CREATE TABLE treat (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  words VARCHAR(200) NOT NULL,
  -- material_id is the piece that earns it; else pieces more than base cleared ones.
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  pieces SMALLINT NOT NULL,
  base SMALLINT NOT NULL,
  made_on DATE NOT NULL,
  given_on DATE NULL,
  PRIMARY KEY (studio_id, ladder_id, id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- The teacher's own calendar is opened by a link that nobody can guess.
CREATE TABLE studio_feed (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  token VARCHAR(64) CHARACTER SET ascii NOT NULL,
  token_hash CHAR(64) CHARACTER SET ascii NULL,
  UNIQUE KEY studio_feed_token (token_hash),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- +goose Down
DROP TABLE studio_feed;
DROP TABLE treat;
ALTER TABLE source DROP COLUMN retired;
ALTER TABLE material DROP COLUMN part_of, DROP COLUMN merged_into, DROP COLUMN retired;
DROP TABLE batch;
ALTER TABLE holiday DROP COLUMN student_id;
DROP TABLE lesson_change;
CREATE TABLE lesson_slot (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  weekday TINYINT UNSIGNED NOT NULL,
  starts_at SMALLINT NOT NULL,
  minutes SMALLINT NOT NULL,
  PRIMARY KEY (studio_id, ladder_id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);
INSERT INTO lesson_slot SELECT studio_id, ladder_id, MIN(weekday), MIN(starts_at), MIN(minutes) FROM slot GROUP BY studio_id, ladder_id;
DROP TABLE slot;
ALTER TABLE ladder DROP COLUMN ended_on;
DROP TABLE pause, contact;
ALTER TABLE student DROP COLUMN called, DROP COLUMN born_about, DROP COLUMN notes, DROP COLUMN since, DROP COLUMN left_on, DROP COLUMN version;
