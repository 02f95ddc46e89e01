-- +goose Up
-- way is the studio's way of teaching as JSON; empty for the default. approach,
-- one of its switches, keeps its own column.
ALTER TABLE studio
  ADD COLUMN way TEXT NOT NULL DEFAULT '',
  ADD COLUMN way_version BIGINT NOT NULL DEFAULT 1;

-- way holds the switches in which a student differs, as JSON; empty for none.
-- rungs_version guards the order of the rungs against a stale screen.
ALTER TABLE ladder
  ADD COLUMN way TEXT NOT NULL DEFAULT '',
  ADD COLUMN rungs_version BIGINT NOT NULL DEFAULT 1,
  -- entries counts the log, which only grows: nobody has to count it to see whether it did.
  ADD COLUMN entries BIGINT NOT NULL DEFAULT 0;
UPDATE ladder l SET entries = (SELECT COUNT(*) FROM entry e WHERE e.studio_id = l.studio_id AND e.ladder_id = l.id);

-- observed is what the forecasts learn from a ladder, a small part of its
-- standing that does not change with the day.
ALTER TABLE snapshot
  ADD COLUMN observed_key CHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '',
  ADD COLUMN observed TEXT NOT NULL DEFAULT '[]';

-- aside is empty, 'skipped' or 'paused'; only for what was not begun.
ALTER TABLE rung ADD COLUMN aside VARCHAR(10) NOT NULL DEFAULT '';

-- tags is a JSON array of what a piece is like.
ALTER TABLE material ADD COLUMN tags TEXT NOT NULL DEFAULT '[]';

-- Skills of the studio's own, beyond the catalogue that ships; body is JSON.
CREATE TABLE skill (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id VARCHAR(64) CHARACTER SET ascii NOT NULL,
  body TEXT NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- Days without lessons, both ends included.
CREATE TABLE holiday (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  name VARCHAR(100) NOT NULL,
  first_day DATE NOT NULL,
  last_day DATE NOT NULL,
  PRIMARY KEY (studio_id, id),
  FOREIGN KEY (studio_id) REFERENCES studio (id)
);

-- A piece that should be ready on a day: a recital, an exam.
CREATE TABLE target (
  studio_id CHAR(26) CHARACTER SET ascii NOT NULL,
  ladder_id CHAR(26) CHARACTER SET ascii NOT NULL,
  id CHAR(26) CHARACTER SET ascii NOT NULL,
  name VARCHAR(100) NOT NULL,
  day DATE NOT NULL,
  material_id CHAR(26) CHARACTER SET ascii NOT NULL,
  PRIMARY KEY (studio_id, ladder_id, id),
  FOREIGN KEY (studio_id, ladder_id) REFERENCES ladder (studio_id, id),
  FOREIGN KEY (studio_id, material_id) REFERENCES material (studio_id, id)
);

-- +goose Down
DROP TABLE target, holiday, skill;
ALTER TABLE material DROP COLUMN tags;
ALTER TABLE rung DROP COLUMN aside;
ALTER TABLE ladder DROP COLUMN way, DROP COLUMN rungs_version, DROP COLUMN entries;
ALTER TABLE snapshot DROP COLUMN observed_key, DROP COLUMN observed;
ALTER TABLE studio DROP COLUMN way, DROP COLUMN way_version;
