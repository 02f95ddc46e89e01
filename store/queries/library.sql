-- name: AddSource :exec
INSERT INTO source (studio_id, id, title, instrument) VALUES (?, ?, ?, ?);

-- name: AddMaterial :exec
INSERT INTO material (studio_id, id, source_id, title, composer, strand, instrument, unit, page, position,
  tempo, bars, distinct_bars, quarters, texture, bar_labels, notes, music, rules, tags, exercise, part_of, loads)
VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: Materials :many
SELECT m.*, COALESCE(s.title, '') AS source_title, f.material_id IS NOT NULL AS has_score
FROM material m
LEFT JOIN source s ON s.studio_id = m.studio_id AND s.id = m.source_id
LEFT JOIN score_file f ON f.studio_id = m.studio_id AND f.material_id = m.id
WHERE m.studio_id = ? AND m.merged_into = ''
ORDER BY m.position, m.id;

-- name: MaterialExists :one
SELECT COUNT(*) FROM material WHERE studio_id = ? AND id = ?;

-- name: AddDemand :exec
INSERT INTO demand (studio_id, material_id, skill, weight, bars, origin) VALUES (?, ?, ?, ?, ?, ?);

-- name: Demands :many
SELECT * FROM demand WHERE studio_id = ? ORDER BY material_id, skill;

-- name: AddFocusPoint :exec
INSERT INTO focus_point (studio_id, id, material_id, position, words) VALUES (?, ?, ?, ?, ?);

-- name: FocusPoints :many
SELECT * FROM focus_point WHERE studio_id = ? ORDER BY material_id, position, id;

-- name: AddScoreFile :exec
INSERT INTO score_file (studio_id, material_id, file_name, data) VALUES (?, ?, ?, ?);

-- name: ScoreFile :one
SELECT file_name, data FROM score_file WHERE studio_id = ? AND material_id = ?;

-- name: LibraryChanged :exec
UPDATE studio SET library_version = library_version + 1 WHERE id = ?;

-- name: LockMaterial :one
SELECT id FROM material WHERE studio_id = ? AND id = ? FOR UPDATE;

-- name: UpdateMaterial :exec
UPDATE material SET title = ?, composer = ?, tempo = ?, bars = ?, distinct_bars = ?, quarters = ?, texture = ?,
  bar_labels = ?, notes = ?, music = ?, rules = ?, tags = ?, loads = ?
WHERE studio_id = ? AND id = ?;

-- name: DropFocusPoints :exec
DELETE FROM focus_point WHERE studio_id = ? AND material_id = ?;

-- name: Sources :many
SELECT * FROM source WHERE studio_id = ? ORDER BY title, id;

-- name: OutdatedStudios :many
SELECT DISTINCT m.studio_id FROM material m
JOIN score_file f ON f.studio_id = m.studio_id AND f.material_id = m.id
WHERE m.rules < ? ORDER BY m.studio_id;

-- name: DropDemands :exec
DELETE FROM demand WHERE studio_id = ? AND material_id = ?;

-- name: ReplaceScoreFile :exec
REPLACE INTO score_file (studio_id, material_id, file_name, data) VALUES (?, ?, ?, ?);

-- name: Overrulings :many
SELECT body FROM overruling WHERE studio_id = ? AND material_id = ? ORDER BY what;

-- name: SetOverruling :exec
REPLACE INTO overruling (studio_id, material_id, what, body) VALUES (?, ?, ?, ?);

-- name: RemoveOverruling :execrows
DELETE FROM overruling WHERE studio_id = ? AND material_id = ? AND what = ?;

-- name: Skills :many
SELECT body FROM skill WHERE studio_id = ? ORDER BY id;

-- name: AddSkill :exec
INSERT INTO skill (studio_id, id, body) VALUES (?, ?, ?);

-- name: SkillWords :many
SELECT word, skill_id FROM skill_word WHERE studio_id = ? ORDER BY word;

-- name: SetSkillWord :exec
INSERT INTO skill_word (studio_id, word, skill_id) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE skill_id = VALUES(skill_id);

-- name: Aliases :many
SELECT id, merged_into FROM material WHERE studio_id = ? AND merged_into <> '';

-- name: MergeMaterial :exec
UPDATE material SET merged_into = ? WHERE studio_id = ? AND id = ?;

-- name: MergeAgain :exec
UPDATE material SET merged_into = ? WHERE studio_id = ? AND merged_into = ?;

-- name: MoveRungs :exec
UPDATE IGNORE rung SET material_id = ? WHERE studio_id = ? AND material_id = ?;

-- name: DropRungsOf :exec
DELETE FROM rung WHERE studio_id = ? AND material_id = ?;

-- name: MoveTargets :exec
UPDATE target SET material_id = ? WHERE studio_id = ? AND material_id = ?;

-- name: MoveTreats :exec
UPDATE treat SET material_id = ? WHERE studio_id = ? AND material_id = ?;

-- name: RungsOf :many
SELECT * FROM rung WHERE studio_id = ? AND material_id = ?;

-- name: CountHanging :one
SELECT CAST((SELECT COUNT(*) FROM rung r WHERE r.studio_id = sqlc.arg(studio) AND r.material_id = sqlc.arg(material))
  + (SELECT COUNT(*) FROM target t WHERE t.studio_id = sqlc.arg(studio) AND t.material_id = sqlc.arg(material))
  + (SELECT COUNT(*) FROM treat g WHERE g.studio_id = sqlc.arg(studio) AND g.material_id = sqlc.arg(material))
  + (SELECT COUNT(*) FROM material p WHERE p.studio_id = sqlc.arg(studio) AND (p.part_of = sqlc.arg(material) OR p.merged_into = sqlc.arg(material)))
  + (SELECT COUNT(*) FROM entry e WHERE e.studio_id = sqlc.arg(studio) AND e.material_id = sqlc.arg(about))
  + (SELECT COUNT(*) FROM entry e WHERE e.studio_id = sqlc.arg(studio) AND e.material_id IS NULL AND e.body LIKE sqlc.arg(mentions)) AS SIGNED) AS n;

-- name: CountOnOtherLadders :one
SELECT CAST((SELECT COUNT(*) FROM rung r WHERE r.studio_id = sqlc.arg(studio) AND r.material_id = sqlc.arg(material) AND r.ladder_id <> sqlc.arg(ladder))
  + (SELECT COUNT(*) FROM entry e WHERE e.studio_id = sqlc.arg(studio) AND e.ladder_id <> sqlc.arg(ladder) AND e.material_id = sqlc.arg(about))
  + (SELECT COUNT(*) FROM entry e WHERE e.studio_id = sqlc.arg(studio) AND e.ladder_id <> sqlc.arg(ladder) AND e.material_id IS NULL AND e.body LIKE sqlc.arg(mentions)) AS SIGNED) AS n;

-- name: RetireMaterial :exec
UPDATE material SET retired = ? WHERE studio_id = ? AND id = ?;

-- name: RetireSource :execrows
UPDATE source SET retired = ? WHERE studio_id = ? AND id = ?;

-- name: RequireOfSource :execrows
UPDATE source SET requires = ? WHERE studio_id = ? AND id = ?;

-- name: RenameSource :execrows
UPDATE source SET title = ? WHERE studio_id = ? AND id = ?;

-- name: MaterialsOfSource :many
SELECT id FROM material WHERE studio_id = ? AND source_id = ?;

-- name: DropMaterial :execrows
DELETE FROM material WHERE studio_id = ? AND id = ?;

-- name: DropScoreFile :exec
DELETE FROM score_file WHERE studio_id = ? AND material_id = ?;

-- name: DropOverrulings :exec
DELETE FROM overruling WHERE studio_id = ? AND material_id = ?;

-- name: DropSource :execrows
DELETE FROM source WHERE studio_id = ? AND id = ?;

-- name: SetSkill :exec
REPLACE INTO skill (studio_id, id, body) VALUES (?, ?, ?);

-- name: DropSkill :execrows
DELETE FROM skill WHERE studio_id = ? AND id = ?;

-- name: PartOf :exec
UPDATE material SET part_of = ? WHERE studio_id = ? AND id = ?;
