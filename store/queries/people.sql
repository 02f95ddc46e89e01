-- name: AddStudio :exec
INSERT INTO studio (id, name, timezone) VALUES (?, ?, ?);

-- name: Studio :one
SELECT * FROM studio WHERE id = ?;

-- name: AddTeacher :exec
INSERT INTO teacher (id, studio_id, email, name, password_hash) VALUES (?, ?, ?, ?, ?);

-- name: TeacherByEmail :one
SELECT * FROM teacher WHERE email = ?;

-- name: Teacher :one
SELECT * FROM teacher WHERE id = ?;

-- name: AddLoginFailure :exec
INSERT INTO login_failure (subject, failed_at) VALUES (?, ?);

-- name: CountLoginFailures :one
SELECT COUNT(*) FROM login_failure WHERE subject = ? AND failed_at > ?;

-- name: ForgetLoginFailures :exec
DELETE FROM login_failure WHERE subject = ? OR failed_at < ?;

-- name: AddStudent :exec
INSERT INTO student (studio_id, id, name, born) VALUES (?, ?, ?, ?);

-- name: StudentExists :one
SELECT COUNT(*) FROM student WHERE studio_id = ? AND id = ?;

-- name: AddLadder :exec
INSERT INTO ladder (studio_id, id, student_id, instrument, practice_days, practice_minutes, hands_apart)
VALUES (?, ?, ?, ?, ?, ?, ?);

-- name: AddLessonSlot :exec
INSERT INTO lesson_slot (studio_id, ladder_id, weekday, starts_at, minutes) VALUES (?, ?, ?, ?, ?);

-- name: Ladder :one
SELECT l.*, s.name, s.born, p.weekday, p.starts_at, p.minutes
FROM ladder l
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
JOIN lesson_slot p ON p.studio_id = l.studio_id AND p.ladder_id = l.id
WHERE l.studio_id = ? AND l.id = ?;

-- name: Ladders :many
SELECT l.*, s.name, s.born, p.weekday, p.starts_at, p.minutes
FROM ladder l
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
JOIN lesson_slot p ON p.studio_id = l.studio_id AND p.ladder_id = l.id
WHERE l.studio_id = ?
ORDER BY p.weekday, p.starts_at, l.id;

-- name: SetPractice :execrows
UPDATE ladder SET practice_days = ?, practice_minutes = ?, hands_apart = ?, version = version + 1
WHERE studio_id = ? AND id = ? AND version = ?;

-- name: SetWords :execrows
UPDATE studio SET note_names = ?, step_names = ?, value_names = ?, approach = ?, words_version = words_version + 1
WHERE id = ? AND words_version = ?;

-- name: SetApproach :exec
UPDATE ladder SET approach = ? WHERE studio_id = ? AND id = ?;

-- name: SetWay :execrows
UPDATE studio SET way = ?, approach = ?, way_version = way_version + 1, words_version = words_version + 1
WHERE id = ? AND way_version = ?;

-- name: SetLadderWay :exec
UPDATE ladder SET way = ?, approach = ? WHERE studio_id = ? AND id = ?;

-- name: Holidays :many
SELECT * FROM holiday WHERE studio_id = ? ORDER BY first_day, id;

-- name: SetHoliday :exec
INSERT INTO holiday (studio_id, id, name, first_day, last_day) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE name = VALUES(name), first_day = VALUES(first_day), last_day = VALUES(last_day);

-- name: RemoveHoliday :execrows
DELETE FROM holiday WHERE studio_id = ? AND id = ?;

-- name: StudioTeacher :one
SELECT * FROM teacher WHERE studio_id = ? ORDER BY id LIMIT 1;
