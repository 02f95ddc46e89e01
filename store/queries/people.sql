-- name: AddStudio :exec
INSERT INTO studio (id, name, timezone, told) VALUES (?, ?, ?, ?);

-- name: Told :exec
UPDATE studio SET told = ? WHERE id = ? AND told < ?;

-- name: Studio :one
SELECT * FROM studio WHERE id = ?;

-- name: AddTeacher :exec
INSERT INTO teacher (id, studio_id, email, name, password_hash, role) VALUES (?, ?, ?, ?, ?, ?);

-- name: TeacherByEmail :one
SELECT * FROM teacher WHERE email = ? AND left_at IS NULL;

-- name: Teacher :one
SELECT * FROM teacher WHERE id = ?;

-- name: AddStudent :exec
INSERT INTO student (studio_id, id, name, called, born, born_about, notes, since) VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: StudentExists :one
SELECT COUNT(*) FROM student WHERE studio_id = ? AND id = ?;

-- name: AddLadder :exec
INSERT INTO ladder (studio_id, id, student_id, instrument, practice_days, practice_minutes, hands_apart, teacher_id)
VALUES (?, ?, ?, ?, ?, ?, ?, ?);

-- name: Ladder :one
SELECT l.*, s.name, s.called, s.born, s.left_on, s.since,
  EXISTS (SELECT 1 FROM contact c WHERE c.studio_id = s.studio_id AND c.student_id = s.id AND c.named = 'no') AS no_name
FROM ladder l
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
WHERE l.studio_id = ? AND l.id = ?;

-- name: Ladders :many
SELECT l.*, s.name, s.called, s.born, s.left_on, s.since,
  EXISTS (SELECT 1 FROM contact c WHERE c.studio_id = s.studio_id AND c.student_id = s.id AND c.named = 'no') AS no_name
FROM ladder l
JOIN student s ON s.studio_id = l.studio_id AND s.id = l.student_id
WHERE l.studio_id = ?;

-- name: Slots :many
SELECT * FROM slot WHERE studio_id = ? AND ladder_id = ? ORDER BY from_day, id;

-- name: AllSlots :many
SELECT * FROM slot WHERE studio_id = ? ORDER BY ladder_id, from_day, id;

-- name: AddSlot :exec
INSERT INTO slot (studio_id, ladder_id, id, weekday, starts_at, minutes, every, from_day, until_day) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: DropSlots :exec
DELETE FROM slot WHERE studio_id = ? AND ladder_id = ?;

-- name: LessonChanges :many
SELECT * FROM lesson_change WHERE studio_id = ? AND ladder_id = ? ORDER BY lesson;

-- name: AllLessonChanges :many
SELECT * FROM lesson_change WHERE studio_id = ? ORDER BY ladder_id, lesson;

-- name: AddLessonChange :exec
INSERT INTO lesson_change (studio_id, ladder_id, lesson, kind, day, starts_at, minutes, cancelled_by, late, makes_up) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: DropLessonChanges :exec
DELETE FROM lesson_change WHERE studio_id = ? AND ladder_id = ?;

-- name: Pauses :many
SELECT * FROM pause WHERE studio_id = ? AND student_id = ? ORDER BY first_day, id;

-- name: AllPauses :many
SELECT * FROM pause WHERE studio_id = ? ORDER BY student_id, first_day, id;

-- name: SetPause :exec
INSERT INTO pause (studio_id, id, student_id, first_day, last_day) VALUES (?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE first_day = VALUES(first_day), last_day = VALUES(last_day);

-- name: RemovePause :execrows
DELETE FROM pause WHERE studio_id = ? AND student_id = ? AND id = ?;

-- name: Student :one
SELECT * FROM student WHERE studio_id = ? AND id = ?;

-- name: StudentLadders :many
SELECT id FROM ladder WHERE studio_id = ? AND student_id = ?;

-- name: SetStudent :execrows
UPDATE student SET name = ?, called = ?, born = ?, born_about = ?, notes = ?, since = ?, version = version + 1
WHERE studio_id = ? AND id = ? AND version = ?;

-- name: SetLeft :execrows
UPDATE student SET left_on = ?, version = version + 1 WHERE studio_id = ? AND id = ?;

-- name: SetEnded :execrows
UPDATE ladder SET ended_on = ? WHERE studio_id = ? AND id = ?;

-- name: SetInstrument :execrows
UPDATE ladder SET instrument = ? WHERE studio_id = ? AND id = ?;

-- name: Contacts :many
SELECT * FROM contact WHERE studio_id = ? AND student_id = ? ORDER BY position, id;

-- name: AddContact :exec
INSERT INTO contact (studio_id, id, student_id, position, name, relation, email, messages, named) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?);

-- name: DropContacts :exec
DELETE FROM contact WHERE studio_id = ? AND student_id = ?;

-- name: Recipients :many
SELECT c.email FROM contact c
JOIN ladder l ON l.studio_id = c.studio_id AND l.student_id = c.student_id
WHERE l.studio_id = ? AND l.id = ? AND c.messages AND c.email <> '' ORDER BY c.position, c.id;

-- name: SetPractice :execrows
UPDATE ladder SET practice_days = ?, practice_minutes = ?, hands_apart = ?, version = version + 1
WHERE studio_id = ? AND id = ? AND version = ?;

-- name: SetWords :execrows
UPDATE studio SET note_names = ?, step_names = ?, value_names = ?, rhythm_words = ?, approach = ?, words_version = words_version + 1
WHERE id = ? AND words_version = ?;

-- name: SetApproach :exec
UPDATE ladder SET approach = ? WHERE studio_id = ? AND id = ?;

-- name: SetTeacherWays :execrows
UPDATE studio SET teacher_ways = ?, way_version = way_version + 1, words_version = words_version + 1
WHERE id = ? AND way_version = ?;

-- name: SetWay :execrows
UPDATE studio SET way = ?, approach = ?, way_version = way_version + 1, words_version = words_version + 1
WHERE id = ? AND way_version = ?;

-- name: SetLadderWay :exec
UPDATE ladder SET way = ?, approach = ? WHERE studio_id = ? AND id = ?;

-- name: Holidays :many
SELECT * FROM holiday WHERE studio_id = ? ORDER BY first_day, id;

-- name: SetHoliday :exec
INSERT INTO holiday (studio_id, id, name, first_day, last_day, student_id) VALUES (?, ?, ?, ?, ?, ?)
ON DUPLICATE KEY UPDATE name = VALUES(name), first_day = VALUES(first_day), last_day = VALUES(last_day);

-- name: RemoveHoliday :execrows
DELETE FROM holiday WHERE studio_id = ? AND id = ?;

-- name: StudioTeacher :one
SELECT * FROM teacher WHERE studio_id = ? ORDER BY id LIMIT 1;

-- name: Feed :one
SELECT token FROM studio_feed WHERE studio_id = ?;

-- name: SetFeed :exec
INSERT INTO studio_feed (studio_id, token, token_hash) VALUES (?, ?, ?)
ON DUPLICATE KEY UPDATE token = VALUES(token), token_hash = VALUES(token_hash);

-- name: DropFeed :exec
DELETE FROM studio_feed WHERE studio_id = ?;

-- name: FeedStudio :one
SELECT studio_id FROM studio_feed WHERE token_hash = ?;

-- name: Bench :one
SELECT body FROM bench WHERE studio_id = ? AND asked = ?;

-- name: SetBench :exec
INSERT INTO bench (studio_id, asked, body) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body);

-- name: Activities :many
SELECT body FROM activity WHERE studio_id = ? ORDER BY id;

-- name: SetActivity :exec
INSERT INTO activity (studio_id, id, body) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body);

-- name: DropActivity :execrows
DELETE FROM activity WHERE studio_id = ? AND id = ?;

-- name: MeetingActivities :many
SELECT body FROM meeting_activity WHERE studio_id = ? ORDER BY id;

-- name: SetMeetingActivity :exec
INSERT INTO meeting_activity (studio_id, id, body) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body);

-- name: DropMeetingActivity :execrows
DELETE FROM meeting_activity WHERE studio_id = ? AND id = ?;

-- name: ExerciseForms :many
SELECT body FROM exercise_form WHERE studio_id = ? ORDER BY id;

-- name: SetExerciseForm :exec
INSERT INTO exercise_form (studio_id, id, body) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE body = VALUES(body);

-- name: DropExerciseForm :execrows
DELETE FROM exercise_form WHERE studio_id = ? AND id = ?;
