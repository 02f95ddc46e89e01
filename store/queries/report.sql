-- name: Report :one
SELECT id, ladder_id, body, last_day, version, made_at, published, published_at FROM report WHERE studio_id = ? AND ladder_id = ? AND id = ?;

-- name: Reports :many
SELECT id, ladder_id, body, last_day, version, made_at, published, published_at FROM report
WHERE studio_id = ? AND ladder_id = ? ORDER BY made_at DESC, id;

-- name: StudioReports :many
SELECT id, ladder_id, last_day, published_at FROM report WHERE studio_id = ? ORDER BY made_at, id;

-- name: AddReport :exec
INSERT INTO report (studio_id, id, ladder_id, body, last_day, made_at, published, pdf) VALUES (?, ?, ?, ?, ?, ?, '', '');

-- name: ChangeReport :execrows
UPDATE report SET body = ?, last_day = ?, version = version + 1 WHERE studio_id = ? AND ladder_id = ? AND id = ? AND version = ?;

-- name: PublishReport :execrows
UPDATE report SET published = ?, pdf = ?, published_at = ?, version = version + 1 WHERE studio_id = ? AND ladder_id = ? AND id = ? AND version = ?;

-- name: ReportPDF :one
SELECT pdf FROM report WHERE studio_id = ? AND ladder_id = ? AND id = ? AND published_at IS NOT NULL;

-- name: DropReport :execrows
DELETE FROM report WHERE studio_id = ? AND ladder_id = ? AND id = ?;
