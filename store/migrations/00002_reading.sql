-- +goose Up
-- notes is a JSON array of the written pitches that the student plays; music
-- is a print of the notes, so that another file of the same piece is known;
-- rules says by which version of the rules the score was read.
ALTER TABLE material
  ADD COLUMN rules SMALLINT NOT NULL DEFAULT 0,
  ADD COLUMN notes TEXT NOT NULL DEFAULT '[]',
  ADD COLUMN music CHAR(32) CHARACTER SET ascii NOT NULL DEFAULT '';

-- What a teacher says against the findings in a score. what names the finding,
-- so that a later overruling of it replaces the earlier one.
CREATE TABLE overruling (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  what VARCHAR(160) CHARACTER SET ascii NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, material_id, what),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

-- The studio's words and its usual way of reading.
ALTER TABLE studio
  ADD COLUMN note_names VARCHAR(20) NOT NULL DEFAULT 'letters',
  ADD COLUMN step_names VARCHAR(20) NOT NULL DEFAULT 'skips-and-leaps',
  ADD COLUMN value_names VARCHAR(20) NOT NULL DEFAULT 'crotchets',
  ADD COLUMN approach VARCHAR(20) NOT NULL DEFAULT 'direction',
  ADD COLUMN words_version BIGINT NOT NULL DEFAULT 1;

-- The student's own way of reading; empty for the studio's.
ALTER TABLE ladder ADD COLUMN approach VARCHAR(20) NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE ladder DROP COLUMN approach;
ALTER TABLE studio DROP COLUMN note_names, DROP COLUMN step_names, DROP COLUMN value_names, DROP COLUMN approach, DROP COLUMN words_version;
DROP TABLE overruling;
ALTER TABLE material DROP COLUMN rules, DROP COLUMN notes, DROP COLUMN music;
