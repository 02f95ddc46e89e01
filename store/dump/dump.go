// Package dump writes everything that the tables hold as lines of JSON, and reads it again. A backup is the whole database, an
// export one studio. docs/formats.md describes the lines.
package dump

import (
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"slices"
	"strings"
	"time"
)

const (
	// Format and Version name what is written.
	Format  = "patient-ladder tables"
	Version = 1
	// longestLine bounds a line that is read: a score has ten megabytes at the most, and a third more in base64.
	longestLine = 64 << 20
)

// Header is the first line.
type Header struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	Schema  int64     `json:"schema"`
	Made    time.Time `json:"made"`
	// Studio is the one that is written; empty for all.
	Studio string `json:"studio,omitempty"`
}

// table is the line before the rows of a table.
type table struct {
	Table   string   `json:"table"`
	Columns []string `json:"columns"`
}

// end is the last line: how many rows there were, and the hash of every line before.
type end struct {
	Rows   int    `json:"rows"`
	SHA256 string `json:"sha256"`
}

// Scope says which rows are written.
type Scope struct {
	// Studio is one studio; empty for all.
	Studio string
	// Rows says which rows of a table are written, as a condition with its value; nil for the rows of the studio, or all.
	Rows func(table string, columns []string) (condition string, args []any, ok bool)
	// Blank are columns, as table.column, that are written empty.
	Blank []string
	// Change says what is written for the text of a column, as table.column.
	Change map[string]func(text string) (string, error)
}

// passing are tables of which nothing is kept: what happens while a server runs. own is what goose keeps.
var (
	passing = []string{"sessions", "attempt", "login_failure", "account_letter", "once_link", "challenge"}
	own     = "goose_db_version"
)

// ForStudio is the scope of the export of one studio: no password, no second factor, no device.
func ForStudio(id string) Scope {
	return Scope{
		Studio: id, Blank: []string{"teacher.password_hash", "teacher.second_secret", "teacher.second_step"},
		Rows: func(table string, columns []string) (string, []any, bool) {
			switch {
			case slices.Contains(passing, table) || table == "device" || table == "recovery_code":
				return "", nil, false
			case table == "studio":
				return "id = ?", []any{id}, true
			case slices.Contains(columns, "studio_id"):
				return "studio_id = ?", []any{id}, true
			}
			return "", nil, false
		},
	}
}

// Everything is the scope of a backup.
func Everything() Scope {
	return Scope{Rows: func(table string, _ []string) (string, []any, bool) { return "", nil, !slices.Contains(passing, table) }}
}

type column struct{ name, kind string }

// tables are those of the database with their columns and the columns of their keys, by name.
func tables(ctx context.Context, q querier) (names []string, columns map[string][]column, keys map[string][]string, err error) {
	columns, keys = map[string][]column{}, map[string][]string{}
	rows, err := q.QueryContext(ctx, `SELECT c.table_name, c.column_name, c.data_type, c.column_key FROM information_schema.columns c
JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name AND t.table_type = 'BASE TABLE'
WHERE c.table_schema = DATABASE() ORDER BY c.table_name, c.ordinal_position`)
	if err != nil {
		return nil, nil, nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var t, c, kind, key string
		if err := rows.Scan(&t, &c, &kind, &key); err != nil {
			return nil, nil, nil, err
		}
		if t == own {
			continue
		}
		if len(columns[t]) == 0 {
			names = append(names, t)
		}
		columns[t] = append(columns[t], column{c, strings.ToLower(kind)})
		if key == "PRI" {
			keys[t] = append(keys[t], c)
		}
	}
	return names, columns, keys, rows.Err()
}

type querier interface {
	QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error)
}

// sealed writes lines and hashes them.
type sealed struct {
	w    *bufio.Writer
	sum  hash.Hash
	rows int
}

func (s *sealed) line(v any) error {
	data, err := json.Marshal(v)
	if err != nil {
		return err
	}
	data = append(data, '\n')
	s.sum.Write(data)
	_, err = s.w.Write(data)
	return err
}

// still is a connection that sees the database as it stands at one moment; leave gives it back.
func still(ctx context.Context, db *sql.DB) (conn *sql.Conn, leave func(), err error) {
	if conn, err = db.Conn(ctx); err != nil {
		return nil, nil, err
	}
	for _, s := range []string{"SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ", "START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY"} {
		if _, err := conn.ExecContext(ctx, s); err != nil {
			conn.Close()
			return nil, nil, err
		}
	}
	return conn, func() {
		conn.ExecContext(context.WithoutCancel(ctx), "ROLLBACK")
		conn.Close()
	}, nil
}

// Write writes what a scope holds, as it stands at one moment. It returns how many rows there are.
func Write(ctx context.Context, db *sql.DB, w io.Writer, scope Scope, schema int64, made time.Time) (int, error) {
	conn, leave, err := still(ctx, db)
	if err != nil {
		return 0, err
	}
	defer leave()
	names, columns, keys, err := tables(ctx, conn)
	if err != nil {
		return 0, err
	}
	out := &sealed{w: bufio.NewWriterSize(w, 1<<20), sum: sha256.New()}
	if err := out.line(Header{Format, Version, schema, made.UTC(), scope.Studio}); err != nil {
		return 0, err
	}
	for _, name := range names {
		if err := out.table(ctx, conn, scope, name, columns[name], keys[name]); err != nil {
			return 0, fmt.Errorf("table %s: %w", name, err)
		}
	}
	if err := out.line(end{out.rows, hex.EncodeToString(out.sum.Sum(nil))}); err != nil {
		return 0, err
	}
	return out.rows, out.w.Flush()
}

func (s *sealed) table(ctx context.Context, q querier, scope Scope, name string, columns []column, keys []string) error {
	begun := false
	return each(ctx, q, scope, name, columns, keys, func(t table, row []any) error {
		if !begun { // a table without rows says nothing
			if err := s.line(t); err != nil {
				return err
			}
			begun = true
		}
		s.rows++
		return s.line(row)
	})
}

// each hands over the rows of a table that a scope holds, in the order of its key.
func each(
	ctx context.Context,
	q querier,
	scope Scope,
	name string,
	columns []column,
	keys []string,
	row func(t table, cells []any) error,
) error {
	t := table{Table: name}
	for _, c := range columns {
		t.Columns = append(t.Columns, c.name)
	}
	condition, args, ok := scope.Rows(name, t.Columns)
	if !ok {
		return nil
	}
	var asked []string
	for _, c := range columns {
		switch {
		case slices.Contains(scope.Blank, name+"."+c.name) && c.isNumber():
			asked = append(asked, "0")
		case slices.Contains(scope.Blank, name+"."+c.name):
			asked = append(asked, "''")
		case c.isTime():
			asked = append(asked, "CAST("+quoted(c.name)+" AS CHAR)")
		default:
			asked = append(asked, quoted(c.name))
		}
	}
	query := "SELECT " + strings.Join(asked, ", ") + " FROM " + quoted(name)
	if condition != "" {
		query += " WHERE " + condition
	}
	if len(keys) > 0 {
		for i := range keys {
			keys[i] = quoted(keys[i])
		}
		query += " ORDER BY " + strings.Join(keys, ", ")
	}
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return err
	}
	defer rows.Close()
	cells, into := make([]sql.RawBytes, len(columns)), make([]any, len(columns))
	for i := range cells {
		into[i] = &cells[i]
	}
	for rows.Next() {
		if err := rows.Scan(into...); err != nil {
			return err
		}
		line := make([]any, len(columns))
		for i, c := range columns {
			switch {
			case cells[i] == nil:
			case c.isBytes():
				line[i] = base64.StdEncoding.EncodeToString(cells[i])
			case c.isNumber():
				line[i] = json.Number(string(cells[i]))
			case scope.Change[name+"."+c.name] != nil:
				text, err := scope.Change[name+"."+c.name](string(cells[i]))
				if err != nil {
					return fmt.Errorf("%s: %w", c.name, err)
				}
				line[i] = text
			default:
				line[i] = string(cells[i])
			}
		}
		if err := row(t, line); err != nil {
			return err
		}
	}
	return rows.Err()
}

func quoted(name string) string { return "`" + strings.ReplaceAll(name, "`", "``") + "`" }

func (c column) isTime() bool {
	return slices.Contains([]string{"date", "datetime", "timestamp", "time"}, c.kind)
}

func (c column) isBytes() bool {
	return strings.HasSuffix(c.kind, "blob") || strings.HasSuffix(c.kind, "binary")
}

func (c column) isNumber() bool {
	return strings.HasSuffix(c.kind, "int") || c.kind == "double" || c.kind == "float"
}

// ErrDamaged is what is cut short, was changed, or is something else.
var ErrDamaged = errors.New("this is not whole")

func damaged(why string, a ...any) error {
	return fmt.Errorf("%w: %s; nothing was changed", ErrDamaged, fmt.Sprintf(why, a...))
}

// lines reads a dump line by line and checks it to its end. row is nil to check only.
func lines(r io.Reader, header func(Header) error, row func(t table, cells []json.RawMessage) error) error {
	in := bufio.NewScanner(r)
	in.Buffer(make([]byte, 1<<20), longestLine)
	sum := sha256.New()
	var current table
	n, rows := 0, 0
	for in.Scan() {
		n++
		line := in.Bytes()
		if n == 1 {
			var h Header
			if err := json.Unmarshal(line, &h); err != nil || h.Format != Format {
				return damaged("its first line is not that of a backup or an export")
			}
			if h.Version != Version {
				return damaged("it is of version %d, and this program reads %d", h.Version, Version)
			}
			if err := header(h); err != nil {
				return err
			}
		} else if bytes.HasPrefix(line, []byte(`{"rows"`)) {
			var e end
			if err := json.Unmarshal(line, &e); err != nil || e.Rows != rows || e.SHA256 != hex.EncodeToString(sum.Sum(nil)) {
				return damaged("its lines were changed")
			}
			if in.Scan() {
				return damaged("something follows its end")
			}
			return in.Err()
		} else if bytes.HasPrefix(line, []byte("{")) {
			current = table{}
			if err := json.Unmarshal(line, &current); err != nil || current.Table == "" || len(current.Columns) == 0 {
				return damaged("line %d is no table", n)
			}
		} else {
			var cells []json.RawMessage
			if err := json.Unmarshal(line, &cells); err != nil || len(cells) != len(current.Columns) {
				return damaged("line %d is no row of the table %s", n, current.Table)
			}
			rows++
			if err := row(current, cells); err != nil {
				return err
			}
		}
		sum.Write(line)
		sum.Write([]byte{'\n'})
	}
	if err := in.Err(); err != nil {
		return damaged("after line %d: %v", n, err)
	}
	return damaged("it ends after line %d, before its end", n)
}

// Check reads a dump to its end and returns its header; what is cut short or changed is ErrDamaged.
func Check(r io.Reader) (Header, error) {
	var out Header
	err := lines(r, func(h Header) error { out = h; return nil }, func(table, []json.RawMessage) error { return nil })
	return out, err
}

// batch is how many rows go to the database at once, bytes how long such a batch grows.
const (
	batch = 200
	much  = 4 << 20
)

// Load puts the rows of a dump into tables that are there, in one transaction; on a mistake nothing stays.
func Load(ctx context.Context, db *sql.DB, r io.Reader) (int, error) {
	conn, err := db.Conn(ctx)
	if err != nil {
		return 0, err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "SET foreign_key_checks = 0"); err != nil {
		return 0, err
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "SET foreign_key_checks = 1")
	tx, err := conn.BeginTx(ctx, nil)
	if err != nil {
		return 0, err
	}
	defer tx.Rollback()
	_, columns, _, err := tables(ctx, tx)
	if err != nil {
		return 0, err
	}
	l := &loader{ctx: ctx, tx: tx, columns: columns}
	if err := lines(r, func(Header) error { return nil }, l.row); err != nil {
		return 0, err
	}
	if err := l.flush(); err != nil {
		return 0, err
	}
	return l.rows, tx.Commit()
}

type loader struct {
	ctx     context.Context
	tx      *sql.Tx
	columns map[string][]column
	now     table
	args    []any
	bytes   int
	held    int
	rows    int
}

func (l *loader) row(t table, cells []json.RawMessage) error {
	if t.Table != l.now.Table || l.held >= batch || l.bytes >= much {
		if err := l.flush(); err != nil {
			return err
		}
		l.now = t
	}
	known := l.columns[t.Table]
	if known == nil {
		return damaged("there is no table %s", t.Table)
	}
	for i, cell := range cells {
		at := slices.IndexFunc(known, func(c column) bool { return c.name == t.Columns[i] })
		if at < 0 {
			return damaged("the table %s has no column %s", t.Table, t.Columns[i])
		}
		value, err := known[at].value(cell)
		if err != nil {
			return damaged("a row of the table %s: %v", t.Table, err)
		}
		l.args = append(l.args, value)
		l.bytes += len(cell)
	}
	l.held++
	l.rows++
	return nil
}

func (c column) value(cell json.RawMessage) (any, error) {
	if string(cell) == "null" {
		return nil, nil
	}
	if c.isNumber() {
		return string(cell), nil
	}
	var text string
	if err := json.Unmarshal(cell, &text); err != nil {
		return nil, err
	}
	if c.isBytes() {
		return base64.StdEncoding.DecodeString(text)
	}
	return text, nil
}

func (l *loader) flush() error {
	if l.held == 0 {
		return nil
	}
	names := make([]string, len(l.now.Columns))
	for i, c := range l.now.Columns {
		names[i] = quoted(c)
	}
	one := "(" + strings.TrimSuffix(strings.Repeat("?,", len(names)), ",") + ")"
	query := "INSERT INTO " + quoted(
		l.now.Table,
	) + " (" + strings.Join(
		names,
		",",
	) + ") VALUES " + strings.TrimSuffix(
		strings.Repeat(one+",", l.held),
		",",
	)
	_, err := l.tx.ExecContext(l.ctx, query, l.args...)
	if err != nil {
		return fmt.Errorf("table %s: %w", l.now.Table, err)
	}
	l.args, l.bytes, l.held = l.args[:0], 0, 0
	return nil
}

// DropTables takes all tables of a database away.
func DropTables(ctx context.Context, db *sql.DB) error {
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, "SET foreign_key_checks = 0"); err != nil {
		return err
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), "SET foreign_key_checks = 1")
	names, _, _, err := tables(ctx, conn)
	for _, name := range append(names, own) {
		if err == nil {
			_, err = conn.ExecContext(ctx, "DROP TABLE IF EXISTS "+quoted(name))
		}
	}
	return err
}
