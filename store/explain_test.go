package store_test

import (
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
	"patientladder/store"
	"patientladder/store/storetest"
)

var (
	named    = regexp.MustCompile(`(?m)^-- name: (\w+) :(\w+)\n`)
	question = regexp.MustCompile(`(?:(\w+)\s*(?:=|<>|<=|>=|<|>|LIKE|IN)\s*)?(?:\?|\(sqlc\.slice\('?\w+'?\)\)|sqlc\.\w+\('?\w+'?\))`)
)

// sought are the values that queries ask for, by the column they are compared with.
func sought(query string, ids map[string]string) string {
	return question.ReplaceAllStringFunc(query, func(found string) string {
		column := question.FindStringSubmatch(found)[1]
		value := "1"
		switch {
		case ids[column] != "":
			value = "'" + ids[column] + "'"
		case column == "id" || strings.HasSuffix(column, "_id"):
			value = "'" + ids["other"] + "'"
		case strings.HasSuffix(column, "at") || strings.HasSuffix(column, "day") || column == "start" || column == "expires" || column == "not_before":
			value = "'2026-05-04'"
		case strings.Contains(found, "IN"), column != "":
			value = "'x'"
		}
		if strings.Contains(found, "(") && strings.Contains(found, "slice") {
			value = "(" + value + ", 'y')"
		}
		if before, _, ok := strings.Cut(found, "?"); ok {
			return before + value
		}
		before, _, _ := strings.Cut(found, "sqlc")
		return strings.TrimSuffix(before, "(") + value
	})
}

// whole are queries that go through a table, with the reason why that is right.
var whole = map[string]string{
	"DropChallenges": "once an hour", "DropOldAccountLetters": "once an hour", "DropOldSessions": "once an hour",
	"DropOnceLinks": "once an hour",
	"MarkLeft":      "once a day, over all studios", "Going": "once a day, over all studios",
	"OutdatedStudios": "once at the start, over all studios",
	"Materials":       "a library is read whole, and kept in memory",
}

// few are things of which a student, a teacher or a studio has few: they are sorted as they come.
var few = []string{
	"batch", "contact", "cover", "holiday", "passkey", "pause", "report", "rung", "sessions", "slot", "source", "student", "target", "teacher",
	"treat",
}

// No query of a page goes through a table or sorts in a file where two hundred studios have their things in it.
func TestEveryQueryFindsItsRowsByAKey(t *testing.T) {
	other := storetest.Another(t, db)
	require.NoError(t, other.Migrate(ctx))
	st, l, m := studio(t, other)
	var log []studentlog.Entry
	for i := range 40 {
		log = append(
			log,
			studentlog.Entry{ID: id(), At: now.Add(time.Duration(i) * time.Hour), Kind: studentlog.Hearing, Material: m.ID, Rating: 3},
		)
	}
	_, err := other.Append(ctx, st, l.ID, log)
	require.NoError(t, err)
	p, err := other.Person(ctx, st, l.StudentID)
	require.NoError(t, err)
	p.Contacts = []store.Contact{{ID: id(), Name: "A", Email: "a@harbour.example", Messages: true}}
	require.NoError(t, other.SetPerson(ctx, st, p))
	for i := range 30 {
		week := store.PracticeWeek{Ladder: l.ID, Start: date("2025-09-01").AddDate(0, 0, 7*i)}
		message := store.Message{ID: id(), Ladder: l.ID, To: "a@harbour.example", Subject: "s", Body: "b", MadeAt: now}
		require.NoError(t, other.SavePracticeWeek(ctx, st, week, []store.Message{message}))
	}
	require.NoError(t, storetest.Multiply(ctx, other, st, 200))
	tables, err := other.DB().QueryContext(ctx, "SELECT table_name FROM information_schema.tables WHERE table_schema = DATABASE()")
	require.NoError(t, err)
	var names []string
	for tables.Next() {
		var name string
		require.NoError(t, tables.Scan(&name))
		names = append(names, name)
	}
	require.NoError(t, tables.Close())
	_, err = other.DB().ExecContext(ctx, "ANALYZE TABLE "+strings.Join(names, ", "))
	require.NoError(t, err)
	ids := map[string]string{"studio_id": st, "ladder_id": l.ID, "student_id": l.StudentID, "material_id": m.ID, "other": id()}
	files, err := filepath.Glob("queries/*.sql")
	require.NoError(t, err)
	looked, bad := 0, []string{}
	for _, file := range files {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		at := named.FindAllSubmatchIndex(text, -1)
		for i, x := range at {
			end := len(text)
			if i+1 < len(at) {
				end = at[i+1][0]
			}
			name, query := string(text[x[2]:x[3]]), strings.TrimSpace(string(text[x[1]:end]))
			if !strings.HasPrefix(query, "SELECT") && !strings.HasPrefix(query, "UPDATE") && !strings.HasPrefix(query, "DELETE") {
				continue
			}
			looked++
			for _, why := range explained(t, other.DB(), name, sought(query, ids)) {
				if whole[name] == "" {
					bad = append(bad, name+": "+why)
				}
			}
		}
	}
	require.Greater(t, looked, 100)
	slices.Sort(bad)
	require.Empty(t, bad, strings.Join(bad, "\n"))
}

// real is the table that a short name stands for in a query.
func real(query, short string) string {
	if m := regexp.MustCompile(`(?i)\b(?:FROM|JOIN)\s+(\w+)(?:\s+AS)?\s+` + short + `\b`).FindStringSubmatch(query); m != nil {
		return m[1]
	}
	return short
}

// explained says what is wrong with how a query is done.
func explained(t *testing.T, on *sql.DB, name, query string) (out []string) {
	t.Helper()
	rows, err := on.QueryContext(ctx, "EXPLAIN "+query)
	require.NoError(t, err, "%s: %s", name, query)
	defer rows.Close()
	columns, err := rows.Columns()
	require.NoError(t, err)
	for rows.Next() {
		values, to := make([]sql.NullString, len(columns)), make([]any, len(columns))
		for i := range values {
			to[i] = &values[i]
		}
		require.NoError(t, rows.Scan(to...))
		get := func(column string) string { return values[slices.Index(columns, column)].String }
		if get("type") == "ALL" || get("type") == "index" {
			out = append(out, fmt.Sprintf("goes through %s (%s rows)", get("table"), get("rows")))
		}
		if strings.Contains(get("Extra"), "filesort") && !slices.Contains(few, real(query, get("table"))) {
			out = append(out, fmt.Sprintf("sorts %s in a file (%s rows)", get("table"), get("rows")))
		}
	}
	return out
}
