-- name: LockLadder :one
SELECT id FROM ladder WHERE studio_id = ? AND id = ? FOR UPDATE;

-- name: Rungs :many
SELECT * FROM rung WHERE studio_id = ? AND ladder_id = ? ORDER BY strand, position, material_id;

-- name: LastRung :one
SELECT CAST(COALESCE(MAX(position), 0) AS SIGNED) AS position FROM rung
WHERE studio_id = ? AND ladder_id = ? AND strand = ?;

-- name: AddRung :execrows
INSERT INTO rung (studio_id, ladder_id, material_id, strand, position) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE material_id = rung.material_id;

-- name: AllRungs :many
SELECT * FROM rung WHERE studio_id = ? ORDER BY ladder_id, strand, position, material_id;

-- name: DropRungs :exec
DELETE FROM rung WHERE studio_id = ? AND ladder_id = ? AND strand = ?;

-- name: InsertRung :exec
INSERT INTO rung (studio_id, ladder_id, material_id, strand, position, aside) VALUES (?, ?, ?, ?, ?, ?);

-- name: RungsChanged :execrows
UPDATE ladder SET rungs_version = rungs_version + 1 WHERE studio_id = ? AND id = ? AND rungs_version = ?;

-- name: RungsTouched :exec
UPDATE ladder SET rungs_version = rungs_version + 1 WHERE studio_id = ? AND id = ?;

-- name: Targets :many
SELECT * FROM target WHERE studio_id = ? AND ladder_id = ? ORDER BY day, id;

-- name: AllTargets :many
SELECT * FROM target WHERE studio_id = ? ORDER BY ladder_id, day, id;

-- name: SetTarget :exec
INSERT INTO target (studio_id, ladder_id, id, name, day, material_id) VALUES (?, ?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE name = VALUES(name), day = VALUES(day), material_id = VALUES(material_id);

-- name: RemoveTarget :execrows
DELETE FROM target WHERE studio_id = ? AND ladder_id = ? AND id = ?;

-- name: RemoveRung :execrows
DELETE FROM rung WHERE studio_id = ? AND ladder_id = ? AND material_id = ?;

-- name: AddEntry :execrows
INSERT INTO entry (studio_id, ladder_id, id, body, material_id) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE id = entry.id;

-- name: EntryBody :one
SELECT body FROM entry WHERE studio_id = ? AND ladder_id = ? AND id = ?;

-- name: Snapshot :one
SELECT body FROM snapshot WHERE studio_id = ? AND ladder_id = ? AND fingerprint = ?;

-- name: DropSnapshot :exec
DELETE FROM snapshot WHERE studio_id = ? AND ladder_id = ?;

-- name: Snapshots :many
SELECT ladder_id, fingerprint, body FROM snapshot WHERE studio_id = ?;

-- name: LogGrew :exec
UPDATE ladder SET entries = entries + ? WHERE studio_id = ? AND id = ?;

-- name: SaveSnapshot :exec
INSERT INTO snapshot (studio_id, ladder_id, fingerprint, body) VALUES (?, ?, ?, ?)
ON DUPLICATE KEY UPDATE fingerprint = VALUES(fingerprint), body = VALUES(body);

-- name: SaveObserved :exec
UPDATE snapshot SET observed_key = ?, observed = ? WHERE studio_id = ? AND ladder_id = ?;

-- name: Observed :many
SELECT ladder_id, observed_key, observed FROM snapshot WHERE studio_id = ?;

-- name: Briefs :many
SELECT ladder_id, fingerprint, body FROM brief WHERE studio_id = ?;

-- name: SaveBrief :exec
INSERT INTO brief (studio_id, ladder_id, fingerprint, body) VALUES (?, ?, ?, ?)
ON DUPLICATE KEY UPDATE fingerprint = VALUES(fingerprint), body = VALUES(body);

-- name: EntriesAfter :many
SELECT seq, body FROM entry FORCE INDEX (entry_log) WHERE studio_id = ? AND ladder_id = ? AND seq > ? ORDER BY seq;

-- name: AddBatch :exec
INSERT INTO batch (studio_id, ladder_id, id, made_at, body) VALUES (?, ?, ?, ?, ?);

-- name: Batches :many
SELECT * FROM batch WHERE studio_id = ? AND ladder_id = ? AND undone_at IS NULL ORDER BY made_at DESC, id DESC;

-- name: Batch :one
SELECT * FROM batch WHERE studio_id = ? AND ladder_id = ? AND id = ? FOR UPDATE;

-- name: UndoBatch :exec
UPDATE batch SET undone_at = ? WHERE studio_id = ? AND ladder_id = ? AND id = ?;

-- name: Treats :many
SELECT * FROM treat WHERE studio_id = ? AND ladder_id = ? ORDER BY made_on, id;

-- name: SetTreat :exec
REPLACE INTO treat (studio_id, ladder_id, id, words, material_id, pieces, base, made_on, given_on) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: RemoveTreat :execrows
DELETE FROM treat WHERE studio_id = ? AND ladder_id = ? AND id = ?;
