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

-- name: RemoveRung :execrows
DELETE FROM rung WHERE studio_id = ? AND ladder_id = ? AND material_id = ?;

-- name: AddEntry :execrows
INSERT INTO entry (studio_id, ladder_id, id, body) VALUES (?, ?, ?, ?)
ON DUPLICATE KEY UPDATE id = entry.id;

-- name: EntryBody :one
SELECT body FROM entry WHERE studio_id = ? AND ladder_id = ? AND id = ?;

-- name: Entries :many
SELECT body FROM entry WHERE studio_id = ? AND ladder_id = ? ORDER BY seq;

-- name: EntryMark :one
SELECT COUNT(*) AS entries, CAST(COALESCE(MAX(seq), 0) AS SIGNED) AS last FROM entry
WHERE studio_id = ? AND ladder_id = ?;

-- name: Snapshot :one
SELECT body FROM snapshot WHERE studio_id = ? AND ladder_id = ? AND fingerprint = ?;

-- name: SaveSnapshot :exec
REPLACE INTO snapshot (studio_id, ladder_id, fingerprint, body) VALUES (?, ?, ?, ?);

-- name: DropSnapshot :exec
DELETE FROM snapshot WHERE studio_id = ? AND ladder_id = ?;

-- name: EntryMarks :many
SELECT ladder_id, COUNT(*) AS entries, CAST(COALESCE(MAX(seq), 0) AS SIGNED) AS last FROM entry
WHERE studio_id = ? GROUP BY ladder_id;

-- name: Snapshots :many
SELECT ladder_id, fingerprint, body FROM snapshot WHERE studio_id = ?;
