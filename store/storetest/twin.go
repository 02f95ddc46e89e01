package storetest

import (
	"context"
	"fmt"
	"strings"

	"patientladder/store"
)

// Twin copies everything that the studio of a teacher has into another one, of a teacher with another address, under the same
// ids, and changes what is in it: names, titles, how long pieces are, marks, ratings. As many rows and entries stay.
func Twin(ctx context.Context, st *store.Store, email, twin string) error {
	other, err := Copy(ctx, st, email, twin)
	if err != nil {
		return err
	}
	for _, change := range []string{
		"UPDATE student SET name = CONCAT('Twin ', name) WHERE studio_id = ?",
		"UPDATE material SET title = CONCAT('Other ', title), distinct_bars = distinct_bars + 3 WHERE studio_id = ?",
		"UPDATE source SET title = CONCAT('Book of others ', title) WHERE studio_id = ?",
		"UPDATE studio SET name = 'Twin studio' WHERE id = ?",
		`UPDATE entry SET body = REPLACE(body, '"full"', '"none"') WHERE studio_id = ?`,
		`UPDATE entry SET body = REPLACE(body, '"rating":4', '"rating":1') WHERE studio_id = ?`,
		"UPDATE holiday SET name = CONCAT('Twin ', name) WHERE studio_id = ?",
		"UPDATE ladder SET teacher_id = NULL WHERE studio_id = ?",
	} {
		if _, err := st.DB().ExecContext(ctx, change, other); err != nil {
			return fmt.Errorf("%s: %w", change, err)
		}
	}
	return nil
}

// Copy copies everything that the studio of a teacher has into another one, of a teacher with another address and the same
// password, under the same ids, and returns the id of that studio.
func Copy(ctx context.Context, st *store.Store, email, as string) (string, error) {
	var studio, teacher, other = "", "", ID()
	if err := st.DB().QueryRowContext(ctx, "SELECT studio_id, id FROM teacher WHERE email = ?", email).Scan(&studio, &teacher); err != nil {
		return "", err
	}
	return other, copied(ctx, st, studio, other, teacher, map[string]string{"id": ID(), "email": as})
}

// Book puts some materials into a book of their own, in their order.
func Book(ctx context.Context, st *store.Store, id, title string, materials ...string) error {
	const made = "INSERT INTO source (studio_id, id, title, instrument) SELECT studio_id, ?, ?, instrument FROM material WHERE id = ?"
	if _, err := st.DB().ExecContext(ctx, made, id, title, materials[0]); err != nil {
		return err
	}
	for i, m := range materials {
		if _, err := st.DB().ExecContext(ctx, "UPDATE material SET source_id = ?, unit = ? WHERE id = ?", id, i+1, m); err != nil {
			return err
		}
	}
	return nil
}

// DropKept forgets all that was computed and kept in tables.
func DropKept(ctx context.Context, st *store.Store) error {
	for _, table := range []string{"snapshot", "brief"} {
		if _, err := st.DB().ExecContext(ctx, "DELETE FROM "+table); err != nil {
			return err
		}
	}
	return nil
}

// copied copies the rows of a studio; the columns of its only teacher in as are others.
func copied(ctx context.Context, st *store.Store, studio, other, teacher string, as map[string]string) error {
	tables, err := tablesOf(ctx, st)
	if err != nil {
		return err
	}
	c, err := st.DB().Conn(ctx)
	if err != nil {
		return err
	}
	defer c.Close()
	if _, err := c.ExecContext(ctx, "SET foreign_key_checks = 0"); err != nil {
		return err
	}
	defer c.ExecContext(ctx, "SET foreign_key_checks = 1")
	for _, t := range tables {
		mine := "studio_id"
		if t.name == "studio" {
			mine = "id"
		}
		var into, from []string
		var values []any
		for _, c := range t.columns {
			into = append(into, c.name)
			value, given := as[c.name]
			switch {
			case c.name == mine:
				from, values = append(from, "?"), append(values, other)
			case t.name == "teacher" && given:
				from, values = append(from, "?"), append(values, value)
			case c.name == "teacher_id":
				from, values = append(from, "IF(teacher_id = ?, ?, teacher_id)"), append(values, teacher, as["id"])
			case c.name == "token_hash": // a link opens one page only
				from = append(from, "NULL")
			case c.name == "token":
				from = append(from, "''")
			case t.name == "audit" && c.name == "id":
				from = append(from, "CONCAT('7', SUBSTRING(id, 2))")
			default:
				from = append(from, c.name)
			}
		}
		copying := fmt.Sprintf(
			"INSERT INTO %s (%s) SELECT %s FROM %s WHERE %s = ?",
			t.name,
			strings.Join(into, ", "),
			strings.Join(from, ", "),
			t.name,
			mine,
		)
		if _, err := c.ExecContext(ctx, copying, append(values, studio)...); err != nil {
			return fmt.Errorf("%s: %w", t.name, err)
		}
	}
	return nil
}
