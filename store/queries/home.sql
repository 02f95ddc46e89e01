-- name: PracticeWeek :one
SELECT * FROM practice_week WHERE studio_id = ? AND ladder_id = ? AND start = ?;

-- name: PublishedWeeks :many
SELECT start, published, published_at FROM practice_week
WHERE studio_id = ? AND ladder_id = ? AND published <> '' AND start > ? ORDER BY start;

-- name: StudioWeeks :many
SELECT ladder_id, start, days FROM practice_week WHERE studio_id = ? AND published <> '' AND start > ? ORDER BY start;

-- name: LadderWeeks :many
SELECT ladder_id, start, days FROM practice_week WHERE studio_id = ? AND ladder_id = ? AND published <> '' ORDER BY start;

-- name: AddPracticeWeek :exec
INSERT INTO practice_week (studio_id, ladder_id, start, hand, published, days, published_at) VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: ChangePracticeWeek :execrows
UPDATE practice_week SET hand = ?, published = ?, days = ?, published_at = ?, version = version + 1
WHERE studio_id = ? AND ladder_id = ? AND start = ? AND version = ?;

-- name: Family :one
SELECT * FROM family WHERE studio_id = ? AND ladder_id = ?;

-- name: FamilyByToken :one
SELECT * FROM family WHERE token_hash = ?;

-- name: EnsureFamily :exec
INSERT INTO family (studio_id, ladder_id) VALUES (?, ?) ON DUPLICATE KEY UPDATE ladder_id = VALUES(ladder_id);

-- name: SetFamilyEmail :exec
UPDATE family SET email = ? WHERE studio_id = ? AND ladder_id = ?;

-- name: SetFamilyToken :exec
UPDATE family SET token = ?, token_hash = ?, expires = ? WHERE studio_id = ? AND ladder_id = ?;

-- name: AddMessage :exec
INSERT INTO message (studio_id, id, ladder_id, recipient, subject, body, made_at, not_before) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: Messages :many
SELECT m.*, s.name FROM message m
JOIN ladder l ON l.studio_id = m.studio_id AND l.id = m.ladder_id
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
WHERE m.studio_id = ? ORDER BY m.made_at DESC, m.id DESC LIMIT 100;

-- name: DueMessage :one
SELECT * FROM message WHERE sent_at IS NULL AND not_before <= ? AND tries < ? ORDER BY not_before LIMIT 1 FOR UPDATE SKIP LOCKED;

-- name: HoldMessage :exec
UPDATE message SET tries = tries + 1, not_before = ? WHERE studio_id = ? AND id = ?;

-- name: MessageSent :exec
UPDATE message SET sent_at = ?, failure = '' WHERE studio_id = ? AND id = ?;

-- name: MessageFailed :exec
UPDATE message SET failure = ?, not_before = ? WHERE studio_id = ? AND id = ?;

-- name: RetryMessage :execrows
UPDATE message SET tries = 0, not_before = ?, failure = '' WHERE studio_id = ? AND id = ? AND sent_at IS NULL;

-- name: ShownPrint :one
SELECT print FROM shown_week WHERE studio_id = ? AND ladder_id = ? AND start = ?;

-- name: ShownWeek :one
SELECT body FROM shown_week WHERE studio_id = ? AND ladder_id = ? AND start = ? AND print = ?;

-- name: NoteShownWeek :exec
INSERT INTO shown_week (studio_id, ladder_id, start, print, body) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE print = VALUES(print), body = VALUES(body);

-- name: WeekVersions :many
SELECT ladder_id, start, version FROM practice_week WHERE studio_id = ? AND start > ?;
