-- name: FindSession :one
SELECT data FROM sessions WHERE token = ? AND expiry > ?;

-- name: KeepSession :exec
UPDATE sessions SET data = ?, expiry = ?, seen_at = ? WHERE token = ?;

-- name: BeginSession :exec
INSERT INTO sessions (token, data, expiry, id, teacher_id, device, began_at, seen_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: EndSession :exec
DELETE FROM sessions WHERE token = ?;

-- name: SessionsOf :many
SELECT token, id, device, began_at, seen_at FROM sessions WHERE teacher_id = ? AND expiry > ? ORDER BY seen_at DESC, id;

-- name: EndSessionOf :execrows
DELETE FROM sessions WHERE teacher_id = ? AND id = ?;

-- name: EndOtherSessions :execrows
DELETE FROM sessions WHERE teacher_id = ? AND token <> ?;

-- name: DropOldSessions :exec
DELETE FROM sessions WHERE expiry < ?;

-- name: Attempt :one
SELECT * FROM attempt WHERE subject = ?;

-- name: LockAttempt :one
SELECT * FROM attempt WHERE subject = ? FOR UPDATE;

-- name: MakeAttempt :exec
INSERT IGNORE INTO attempt (subject, tries, passed, last_at, free_at) VALUES (?, 0, 0, ?, ?);

-- name: KeepAttempt :exec
UPDATE attempt SET tries = ?, passed = ?, last_at = ?, free_at = ? WHERE subject = ?;

-- name: ForgetAttempt :exec
DELETE FROM attempt WHERE subject = ?;

-- name: DropOldAttempts :exec
DELETE FROM attempt WHERE last_at < ?;

-- name: KnowDevice :exec
INSERT INTO device (token, teacher_id, seen_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE teacher_id = VALUES(teacher_id), seen_at = VALUES(seen_at);

-- name: IsDeviceOf :one
SELECT COUNT(*) FROM device WHERE token = ? AND teacher_id = ?;

-- name: ForgetDevices :exec
DELETE FROM device WHERE teacher_id = ? AND token <> ?;

-- name: SetPassword :exec
UPDATE teacher SET password_hash = ? WHERE id = ?;

-- name: SetSecond :exec
UPDATE teacher SET second_secret = ?, second_step = ? WHERE id = ?;

-- name: UseSecond :execrows
UPDATE teacher SET second_step = ? WHERE id = ? AND second_step < ?;

-- name: AddRecoveryCode :exec
INSERT INTO recovery_code (teacher_id, code) VALUES (?, ?);

-- name: DropRecoveryCodes :exec
DELETE FROM recovery_code WHERE teacher_id = ?;

-- name: UseRecoveryCode :execrows
DELETE FROM recovery_code WHERE teacher_id = ? AND code = ?;

-- name: CountRecoveryCodes :one
SELECT COUNT(*) FROM recovery_code WHERE teacher_id = ?;

-- name: AddOnceLink :exec
INSERT INTO once_link (token, kind, studio_id, teacher_id, email, name, role, made_at, until_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: OnceLink :one
SELECT * FROM once_link WHERE token = ? AND kind = ? AND until_at > ?;

-- name: UseOnceLink :execrows
DELETE FROM once_link WHERE token = ?;

-- name: DropOnceLinks :exec
DELETE FROM once_link WHERE teacher_id = ? OR until_at < ?;

-- name: AddAccountLetter :exec
INSERT INTO account_letter (id, recipient, subject, body, made_at, not_before) VALUES (?, ?, ?, ?, ?, ?);

-- name: DueAccountLetter :one
SELECT * FROM account_letter WHERE not_before <= ? AND tries < ? ORDER BY not_before LIMIT 1 FOR UPDATE SKIP LOCKED;

-- name: HoldAccountLetter :exec
UPDATE account_letter SET tries = tries + 1, not_before = ? WHERE id = ?;

-- name: DropAccountLetter :exec
DELETE FROM account_letter WHERE id = ?;

-- name: DropOldAccountLetters :exec
DELETE FROM account_letter WHERE made_at < ?;

-- name: AddAudit :exec
INSERT INTO audit (id, studio_id, teacher_id, at, kind, detail) VALUES (?, ?, ?, ?, ?, ?);

-- name: AuditOf :many
SELECT a.id, a.at, a.kind, a.detail, a.teacher_id, COALESCE(t.name, '') AS name FROM audit a LEFT JOIN teacher t ON t.id = a.teacher_id
WHERE a.studio_id = ? ORDER BY a.at DESC, a.id DESC LIMIT 100;

-- name: Teachers :many
SELECT * FROM teacher WHERE studio_id = ? AND left_at IS NULL ORDER BY name, id;

-- name: SetRole :execrows
UPDATE teacher SET role = ? WHERE studio_id = ? AND id = ? AND left_at IS NULL;

-- name: TeacherInStudio :one
SELECT COUNT(*) FROM teacher WHERE studio_id = ? AND id = ? AND left_at IS NULL;

-- name: EndAccount :execrows
UPDATE teacher SET left_at = ?, email = CONCAT(id, '@left.invalid'), password_hash = '', second_secret = '' WHERE studio_id = ? AND id = ? AND left_at IS NULL;

-- name: MarkErase :execrows
UPDATE student SET erase_at = ? WHERE studio_id = ? AND id = ?;

-- name: EraseAt :one
SELECT erase_at FROM student WHERE studio_id = ? AND id = ?;

-- name: DueErasures :many
SELECT studio_id, id FROM student WHERE erase_at IS NOT NULL AND erase_at <= ? ORDER BY erase_at LIMIT 50;

-- name: MarkLeft :exec
UPDATE student s JOIN studio t ON t.id = s.studio_id SET s.erase_at = sqlc.arg(at)
WHERE s.erase_at IS NULL AND s.left_on IS NOT NULL AND t.keep_years > 0 AND s.left_on < DATE_SUB(CAST(sqlc.arg(day) AS DATE), INTERVAL t.keep_years YEAR);

-- name: CountErased :one
SELECT COUNT(*) AS ladders, CAST(COALESCE(SUM(entries), 0) AS SIGNED) AS entries FROM ladder WHERE studio_id = ? AND student_id = ?;

-- name: AddErased :exec
INSERT INTO erased (studio_id, id, at, ladders, entries) VALUES (?, ?, ?, ?, ?);

-- name: SetStudio :exec
UPDATE studio SET name = ?, timezone = ?, keep_years = ?, language = ?, first_day = ?, letterhead = ?, quiet_from = ?, quiet_to = ?, words_version = words_version + 1 WHERE id = ?;

-- name: GiveLadder :exec
UPDATE ladder SET teacher_id = ? WHERE studio_id = ? AND id = ?;

-- name: SetCover :exec
INSERT INTO cover (studio_id, ladder_id, day, teacher_id) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE teacher_id = VALUES(teacher_id);

-- name: DropCover :exec
DELETE FROM cover WHERE studio_id = ? AND ladder_id = ? AND day = ?;

-- name: CoveredBy :many
SELECT ladder_id FROM cover WHERE studio_id = ? AND teacher_id = ? AND day = ?;

-- name: CoversOf :many
SELECT day, teacher_id FROM cover WHERE studio_id = ? AND ladder_id = ? AND day >= ? ORDER BY day;

-- name: GiveBack :exec
UPDATE ladder SET teacher_id = NULL WHERE studio_id = ? AND teacher_id = ?;

-- name: AddPasskey :exec
INSERT INTO passkey (id, teacher_id, name, body, made_at) VALUES (?, ?, ?, ?, ?);

-- name: Passkeys :many
SELECT * FROM passkey WHERE teacher_id = ? ORDER BY made_at, id;

-- name: UsePasskey :exec
UPDATE passkey SET body = ?, used_at = ? WHERE id = ? AND teacher_id = ?;

-- name: DropPasskey :execrows
DELETE FROM passkey WHERE id = ? AND teacher_id = ?;

-- name: AddChallenge :exec
INSERT INTO challenge (id, body, until_at) VALUES (?, ?, ?);

-- name: Challenge :one
SELECT body FROM challenge WHERE id = ? AND until_at > ? FOR UPDATE;

-- name: DropChallenges :exec
DELETE FROM challenge WHERE id = ? OR until_at < ?;

-- name: DropPasskeys :exec
DELETE FROM passkey WHERE teacher_id = ?;

-- name: Going :many
SELECT l.id, s.id AS student_id, s.name, s.called, s.erase_at FROM student s JOIN ladder l ON l.studio_id = s.studio_id AND l.student_id = s.id
WHERE s.studio_id = ? AND s.erase_at IS NOT NULL ORDER BY s.erase_at, l.id;
