-- +goose Up
-- How a family is spoken to, and what it wishes to be sent: each week as it is published, one message on Monday, or nothing.
ALTER TABLE family
  ADD COLUMN language VARCHAR(8) CHARACTER SET ascii NOT NULL DEFAULT 'en',
  ADD COLUMN mail VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'week',
  ADD COLUMN remind BOOLEAN NOT NULL DEFAULT FALSE;

-- What a message is about; a reminder is for a day.
ALTER TABLE message
  ADD COLUMN kind VARCHAR(10) CHARACTER SET ascii NOT NULL DEFAULT 'week',
  ADD COLUMN day DATE NULL,
  ADD COLUMN stop VARCHAR(300) NOT NULL DEFAULT '',
  ADD KEY message_waiting (studio_id, ladder_id, kind, sent_at);

-- What a family writes to the teacher beside what it ticks, and what the teacher answers.
CREATE TABLE family_note (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  kind VARCHAR(10) CHARACTER SET ascii NOT NULL,
  text VARCHAR(1000) NOT NULL,
  -- about is the lesson that is asked to be moved.
  about VARCHAR(80) NOT NULL DEFAULT '',
  day DATE NOT NULL,
  at DATETIME(3) NOT NULL,
  answer VARCHAR(2000) NOT NULL DEFAULT '',
  answered_at DATETIME(3) NULL,
  PRIMARY KEY (studio_id, id),
  KEY family_note_ladder (studio_id, ladder_id, at),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id)
);

-- +goose Down
DROP TABLE family_note;
ALTER TABLE message DROP KEY message_waiting, DROP COLUMN kind, DROP COLUMN day, DROP COLUMN stop;
ALTER TABLE family DROP COLUMN language, DROP COLUMN mail, DROP COLUMN remind;
