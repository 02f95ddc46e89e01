-- +goose Up
-- A log is read in its order without sorting it, and what is said of a piece is found without reading every body. The material
-- is NULL where an older program wrote the entry: there the body tells.
ALTER TABLE entry ADD KEY entry_log (studio_id, ladder_id, seq);
ALTER TABLE entry ADD COLUMN material_id VARCHAR(26) CHARACTER SET ascii NULL;
ALTER TABLE entry ADD KEY entry_material (studio_id, material_id);
UPDATE entry SET material_id = LEFT(COALESCE(JSON_VALUE(body, '$.material'), ''), 26);
-- The mailbox and the notes from home are read from the newest on.
ALTER TABLE message ADD KEY message_made (studio_id, made_at, id);
ALTER TABLE family_note ADD KEY family_note_at (studio_id, at, id);
-- What the families of a studio are to practise now.
ALTER TABLE practice_week ADD KEY practice_week_start (studio_id, start);

-- +goose Down
ALTER TABLE practice_week DROP KEY practice_week_start;
ALTER TABLE family_note DROP KEY family_note_at;
ALTER TABLE message DROP KEY message_made;
ALTER TABLE entry DROP KEY entry_material, DROP COLUMN material_id, DROP KEY entry_log;
