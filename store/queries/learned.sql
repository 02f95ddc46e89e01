-- name: Learned :one
SELECT body FROM learned WHERE studio_id = ?;

-- name: SetLearned :exec
INSERT INTO learned (studio_id, body) VALUES (?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body);

-- name: DropLearned :exec
DELETE FROM learned WHERE studio_id = ?;
