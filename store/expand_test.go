package store_test

import (
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// firstExpanding is from which migration on each must leave an older server running: it adds, and what it adds has a value by
// itself.
const firstExpanding = 17

// wider is a column that becomes wider: of that an older server knows nothing.
var wider = regexp.MustCompile(`(?i)MODIFY COLUMN (\w+) (VARCHAR\(\d+\)|MEDIUMTEXT)[^,;]*`)

// widens says that every column of a name was narrower in the migrations before.
func widens(before, column, kind string) bool {
	if strings.EqualFold(kind, "MEDIUMTEXT") {
		return regexp.MustCompile(`(?i)\b` + column + ` TEXT\b`).MatchString(before)
	}
	number := regexp.MustCompile(`\d+`)
	n, _ := strconv.Atoi(number.FindString(kind))
	was := regexp.MustCompile(`(?i)\b`+column+` VARCHAR\(\d+\)`).FindAllString(before, -1)
	for _, w := range was {
		if m, _ := strconv.Atoi(number.FindString(w)); m >= n {
			return false
		}
	}
	return len(was) > 0
}

// A migration only expands: an older server that runs on the new tables inserts and reads as before. So nothing is dropped,
// renamed or changed, and a new column may be left out.
func TestMigrationsOnlyExpand(t *testing.T) {
	files, err := filepath.Glob("migrations/*.sql")
	require.NoError(t, err)
	slices.Sort(files)
	looked := 0
	before := "" // what stood in the migrations so far
	for _, file := range files {
		n, err := strconv.Atoi(filepath.Base(file)[:5])
		require.NoError(t, err)
		data, err := os.ReadFile(file)
		require.NoError(t, err)
		if n < firstExpanding {
			before += string(data)
			continue
		}
		up, _, found := strings.Cut(string(data), "-- +goose Down")
		require.True(t, found, file)
		up = regexp.MustCompile(`(?m)--.*$`).ReplaceAllString(up, "")
		for _, statement := range strings.Split(up, ";") {
			statement = wider.ReplaceAllStringFunc(statement, func(s string) string {
				m := wider.FindStringSubmatch(s)
				require.True(t, widens(before, m[1], m[2]), "%s: %s is not wider than it was", file, s)
				return ""
			})
			require.NotRegexp(t, `(?i)\b(DROP|RENAME|MODIFY|CHANGE|TRUNCATE)\b`, statement, file)
			if !regexp.MustCompile(`(?i)^\s*ALTER TABLE`).MatchString(statement) {
				continue
			}
			for _, added := range regexp.MustCompile(`(?i)ADD COLUMN ([^,]+(\([^)]*\)[^,]*)?)`).FindAllString(statement, -1) {
				looked++
				require.Regexp(t, `(?i)DEFAULT|\sNULL\s*$`, strings.TrimSpace(added), "%s: an older server leaves it out", file)
				require.False(
					t,
					regexp.MustCompile(`(?i)NOT NULL`).MatchString(added) && !strings.Contains(strings.ToUpper(added), "DEFAULT"),
					"%s: %s",
					file,
					added,
				)
			}
			require.NotRegexp(t, `(?i)ADD (UNIQUE|CONSTRAINT|FOREIGN)`, statement, file)
		}
		before += string(data)
	}
	require.GreaterOrEqual(t, looked, 10)
}

// What the server before these migrations wrote and read goes on working on the new tables: its own statements, word for word.
func TestAnOlderServerOnNewTables(t *testing.T) {
	st, teacher, src, student := id(), id(), id(), id()
	for _, c := range []struct {
		query string
		args  []any
	}{
		{"INSERT INTO studio (id, name, timezone) VALUES (?, ?, ?)", []any{st, "Old", "UTC"}},
		{"INSERT INTO teacher (id, studio_id, email, name, password_hash) VALUES (?, ?, ?, ?, ?)", []any{teacher, st, teacher + "@example.org", "T", "x"}},
		{"INSERT INTO sessions (token, data, expiry) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE data = VALUES(data), expiry = VALUES(expiry)", []any{teacher, "x", now.AddDate(5, 0, 0)}},
		{"INSERT INTO login_failure (subject, failed_at) VALUES (?, ?)", []any{strings.Repeat("a", 64), now}},
		{"INSERT INTO source (studio_id, id, title, instrument) VALUES (?, ?, ?, ?)", []any{st, src, "Book", "piano"}},
		{"INSERT INTO student (studio_id, id, name, called, born, born_about, notes, since) VALUES (?, ?, ?, ?, ?, ?, ?, ?)", []any{st, student, "Nell", "", now, false, "", nil}},
		{"UPDATE student SET left_on = ?, version = version + 1 WHERE studio_id = ? AND id = ?", []any{now, st, student}},
	} {
		_, err := db.DB().ExecContext(ctx, c.query, c.args...)
		require.NoError(t, err, c.query)
	}
	got, err := db.Teacher(ctx, teacher)
	require.NoError(t, err)
	require.Equal(t, []string{"owner", ""}, []string{got.Role, got.SecondSecret}, "who was there owns the studio")
	sessions, err := db.SessionsOf(ctx, teacher)
	require.NoError(t, err)
	require.Empty(t, sessions, "a session of the older server goes on, and is nobody's in the list")
	_, there, err := db.Sessions(func() time.Time { return now }).FindCtx(ctx, teacher)
	require.NoError(t, err)
	require.True(t, there)
	require.NoError(t, db.MarkErase(ctx, st, student, now))
	_, err = db.Sweep(ctx, now, 0)
	require.NoError(t, err)
}
