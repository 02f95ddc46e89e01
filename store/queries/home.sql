-- name: PracticeWeek :one
SELECT * FROM practice_week WHERE studio_id = ? AND ladder_id = ? AND start = ?;

-- name: PublishedWeeks :many
SELECT start, published, published_at FROM practice_week
WHERE studio_id = ? AND ladder_id = ? AND published <> '' AND start > ? ORDER BY start;

-- name: StudioHands :many
SELECT ladder_id, start, hand, version FROM practice_week WHERE studio_id = ? AND start > ?;

-- name: WeekBefore :one
SELECT start, published, published_at FROM practice_week
WHERE studio_id = ? AND ladder_id = ? AND published <> '' AND start < ? ORDER BY start DESC LIMIT 1;

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
INSERT INTO message (studio_id, id, ladder_id, recipient, subject, body, made_at, not_before, kind, day, stop) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: DropWaiting :exec
DELETE FROM message WHERE studio_id = ? AND ladder_id = ? AND kind = ? AND sent_at IS NULL AND tries = 0 AND not_before > ?;

-- name: DropReminder :exec
DELETE FROM message WHERE studio_id = ? AND ladder_id = ? AND kind = 'remind' AND day = ? AND sent_at IS NULL AND tries = 0;

-- name: SetFamilyWishes :exec
UPDATE family SET language = ?, mail = ?, remind = ? WHERE studio_id = ? AND ladder_id = ?;

-- name: OthersOfFamily :many
SELECT f.ladder_id, f.token, f.expires, o.instrument, s.name FROM family f
JOIN ladder o ON o.studio_id = f.studio_id AND o.id = f.ladder_id
JOIN student s ON s.studio_id = o.studio_id AND s.id = o.student_id
WHERE f.studio_id = sqlc.arg(studio_id) AND f.ladder_id <> sqlc.arg(ladder_id) AND f.token <> '' AND f.expires >= sqlc.arg(day) AND (
  o.student_id = (SELECT me.student_id FROM ladder me WHERE me.studio_id = sqlc.arg(studio_id) AND me.id = sqlc.arg(ladder_id))
  OR EXISTS (
    SELECT 1 FROM contact c JOIN contact d ON d.studio_id = c.studio_id AND d.email = c.email AND d.messages
    JOIN ladder me ON me.studio_id = d.studio_id AND me.student_id = d.student_id
    WHERE c.studio_id = o.studio_id AND c.student_id = o.student_id AND c.messages AND c.email <> '' AND me.id = sqlc.arg(ladder_id)))
ORDER BY s.name, o.instrument, f.ladder_id;

-- name: AddFamilyNote :execrows
INSERT IGNORE INTO family_note (studio_id, id, ladder_id, kind, text, about, day, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: FamilyNotes :many
SELECT * FROM family_note WHERE studio_id = ? AND ladder_id = ? AND at >= ? ORDER BY at, id;

-- name: FamilyNote :one
SELECT * FROM family_note WHERE studio_id = ? AND id = ?;

-- name: StudioNotes :many
SELECT n.*, s.name, l.instrument FROM family_note n
JOIN ladder l ON l.studio_id = n.studio_id AND l.id = n.ladder_id
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
WHERE n.studio_id = ? AND n.at >= ? ORDER BY n.at, n.id;

-- name: AnswerFamilyNote :execrows
UPDATE family_note SET answer = ?, answered_at = ? WHERE studio_id = ? AND id = ?;

-- name: Messages :many
SELECT m.*, s.name FROM message m FORCE INDEX (message_made)
STRAIGHT_JOIN ladder l ON l.studio_id = m.studio_id AND l.id = m.ladder_id
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
