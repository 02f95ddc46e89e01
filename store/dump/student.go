package dump

import (
	"context"
	"database/sql"
	"encoding/json"
	"io"
	"slices"
	"time"
)

// made are tables that the program makes from others.
var derived = []string{"snapshot", "brief"}

// ofStudent says which rows of a table are about one student: of the student, or of a ladder of the student.
func ofStudent(studio, student string) func(table string, columns []string) (string, []any, bool) {
	return func(table string, columns []string) (string, []any, bool) {
		switch {
		case table == "student":
			return "studio_id = ? AND id = ?", []any{studio, student}, true
		case !slices.Contains(columns, "studio_id"):
			return "", nil, false
		case slices.Contains(columns, "student_id"):
			return "studio_id = ? AND student_id = ?", []any{studio, student}, true
		case slices.Contains(columns, "ladder_id"):
			return "studio_id = ? AND ladder_id IN (SELECT id FROM ladder WHERE studio_id = ? AND student_id = ?)", []any{
				studio,
				studio,
				student,
			}, true
		}
		return "", nil, false
	}
}

// StudentFormat names what Student writes.
const StudentFormat = "patient-ladder student"

// student is everything about one student.
type student struct {
	Format  string                      `json:"format"`
	Version int                         `json:"version"`
	Made    time.Time                   `json:"made"`
	Tables  map[string][]map[string]any `json:"tables"`
}

// Student writes everything that is kept about one student as one JSON document: of every table its rows, each with the names
// of its columns. What opens something (the token of a family's page) is left out.
func Student(ctx context.Context, db *sql.DB, w io.Writer, studio, id string, at time.Time) error {
	conn, leave, err := still(ctx, db)
	if err != nil {
		return err
	}
	defer leave()
	names, columns, keys, err := tables(ctx, conn)
	if err != nil {
		return err
	}
	out := student{StudentFormat, 1, at.UTC(), map[string][]map[string]any{}}
	scope := Scope{Rows: ofStudent(studio, id), Blank: []string{"family.token", "family.token_hash"}}
	for _, name := range names {
		if slices.Contains(derived, name) {
			continue
		}
		err := each(ctx, conn, scope, name, columns[name], keys[name], func(t table, cells []any) error {
			row := map[string]any{}
			for i, c := range t.Columns {
				row[c] = cells[i]
			}
			out.Tables[name] = append(out.Tables[name], row)
			return nil
		})
		if err != nil {
			return err
		}
	}
	to := json.NewEncoder(w)
	to.SetIndent("", " ")
	return to.Encode(out)
}

// Erase takes every row about one student away, in a transaction that do can add to.
func Erase(ctx context.Context, db *sql.DB, studio, id string, do func(tx *sql.Tx) error) error {
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "SET foreign_key_checks = 0"); err != nil {
		return err
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "SET foreign_key_checks = 1")
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback()
	if err := do(tx); err != nil {
		return err
	}
	names, columns, _, err := tables(ctx, tx)
	if err != nil {
		return err
	}
	// What hangs on a ladder goes before the ladders, and those before the student.
	place := func(name string) int { return slices.Index([]string{"ladder", "student"}, name) }
	slices.SortStableFunc(names, func(a, b string) int { return place(a) - place(b) })
	rows := ofStudent(studio, id)
	for _, name := range names {
		var list []string
		for _, c := range columns[name] {
			list = append(list, c.name)
		}
		condition, args, ok := rows(name, list)
		if !ok {
			continue
		}
		if _, err := tx.ExecContext(ctx, "DELETE FROM "+quoted(name)+" WHERE "+condition, args...); err != nil {
			return err
		}
	}
	return tx.Commit()
}
