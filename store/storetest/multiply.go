package storetest

import (
	"context"
	"fmt"
	"strings"

	"patientladder/store"
)

// Multiply fills the database with copies of everything that a studio has, so
// that it stands among so many of its kind. The copies have ids of their own;
// inside the bodies of their logs the old ids stay.
func Multiply(ctx context.Context, st *store.Store, studio string, times int) error {
	tables, err := tablesOf(ctx, st)
	if err != nil {
		return err
	}
	c, err := st.DB().Conn(ctx)
	if err != nil {
		return err
	}
	defer c.Close()
	// The tables come in no order; what is copied refers to what is copied.
	if _, err := c.ExecContext(ctx, "SET foreign_key_checks = 0, unique_checks = 0"); err != nil {
		return err
	}
	defer c.ExecContext(ctx, "SET foreign_key_checks = 1, unique_checks = 1")
	for k := range times {
		for _, t := range tables {
			mine := "studio_id"
			if t.name == "studio" {
				mine = "id"
			}
			var into, from []string
			for _, c := range t.columns {
				into = append(into, c.name)
				switch {
				case c.id:
					from = append(from, fmt.Sprintf("CONCAT('7', LPAD(%d, 4, '0'), SUBSTRING(%s, 6))", k, c.name))
				case c.name == "email":
					from = append(from, fmt.Sprintf("CONCAT('copy-%d-', email)", k))
				case c.name == "token_hash": // a link opens one page only
					from = append(from, "NULL")
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
			if _, err := c.ExecContext(ctx, copying, studio); err != nil {
				return fmt.Errorf("%s, copy %d: %w", t.name, k, err)
			}
		}
	}
	return nil
}

type table struct {
	name    string
	columns []column
}

type column struct {
	name string
	// id says that it holds an id of this program.
	id bool
}

// tablesOf lists the tables that belong to studios.
func tablesOf(ctx context.Context, st *store.Store) ([]table, error) {
	rows, err := st.DB().QueryContext(ctx, `
		SELECT c.table_name, c.column_name, c.character_maximum_length = 26 AND c.column_name REGEXP '(^|_)id$' FROM information_schema.columns c
		WHERE c.table_schema = DATABASE() AND c.extra NOT LIKE '%auto_increment%'
		  AND (c.table_name = 'studio' OR c.table_name IN (SELECT table_name FROM information_schema.columns WHERE table_schema = DATABASE() AND column_name = 'studio_id'))
		ORDER BY c.table_name, c.ordinal_position`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []table
	for rows.Next() {
		var name, col string
		var id *bool
		if err := rows.Scan(&name, &col, &id); err != nil {
			return nil, err
		}
		if n := len(out); n == 0 || out[n-1].name != name {
			out = append(out, table{name: name})
		}
		t := &out[len(out)-1]
		t.columns = append(t.columns, column{col, id != nil && *id})
	}
	return out, rows.Err()
}
