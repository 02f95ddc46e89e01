-- name: LessonPlans :many
SELECT * FROM lesson_plan WHERE studio_id = ? AND ladder_id = ? AND day <= ? ORDER BY day DESC LIMIT 2;

-- name: DayPlans :many
SELECT * FROM lesson_plan WHERE studio_id = ? AND day = ?;

-- name: AddLessonPlan :exec
INSERT INTO lesson_plan (studio_id, ladder_id, day, hand, body) VALUES (?, ?, ?, ?, ?);

-- name: ChangeLessonPlan :execrows
UPDATE lesson_plan SET hand = ?, body = ?, version = version + 1 WHERE studio_id = ? AND ladder_id = ? AND day = ? AND version = ?;
