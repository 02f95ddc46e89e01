package outside_test

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/home/ics"
)

type event struct {
	Title, Start, Words string
	Minutes             float64
}

// read by ical.js (npm), with the time zones as the file spells them out.
func calendar(t *testing.T, f ics.Feed, from, to string) []event {
	file := filepath.Join(t.TempDir(), "feed.ics")
	require.NoError(t, os.WriteFile(file, []byte(ics.Write(f)), 0o600))
	out, err := exec.Command("node", "calendar.mjs", file, from, to).Output()
	require.NoError(t, err)
	var events []event
	require.NoError(t, json.Unmarshal(out, &events))
	return events
}

// Lessons at half past three stay at half past three on the wall when the clocks
// change: an hour earlier in UTC from the last Sunday of March on in Lisbon
// (29 March 2026), from the second Sunday of March on in Halifax (8 March 2026),
// and in Adelaide half an hour off the hour, back on the first Sunday of April.
func TestLessonsStayWhereTheyAreWhenTheClocksChange(t *testing.T) {
	for name, want := range map[string][]string{
		"Europe/Lisbon":      {"2026-03-17T15:30", "2026-03-24T15:30", "2026-03-31T14:30", "2026-04-14T14:30"},
		"America/Halifax":    {"2026-03-03T19:30", "2026-03-10T18:30", "2026-03-17T18:30", "2026-03-24T18:30", "2026-03-31T18:30", "2026-04-14T18:30"},
		"Australia/Adelaide": {"2026-03-31T05:00", "2026-04-14T06:00"},
		"UTC":                {"2026-03-31T15:30", "2026-04-14T15:30"},
	} {
		zone, err := time.LoadLocation(name)
		require.NoError(t, err)
		first, err := time.Parse("2006-01-02", want[0][:10])
		require.NoError(t, err)
		f := ics.Feed{
			ID: "L", Lesson: "Nell: piano lesson", Practice: "Nell: practice", Zone: zone, First: first, StartsAt: 15*60 + 30, Minutes: 45,
			Until: time.Date(2026, 6, 1, 0, 0, 0, 0, time.UTC), Made: first,
			Off: func(day time.Time) bool { return day.Equal(time.Date(2026, 4, 7, 0, 0, 0, 0, time.UTC)) },
		}
		var got []string
		for _, e := range calendar(t, f, "2026-01-01", "2026-04-20") {
			require.Equal(t, 45.0, e.Minutes, name)
			require.Equal(t, "Nell: piano lesson", e.Title)
			got = append(got, e.Start[:16])
		}
		require.Equal(t, want, got, name)
	}
}

func TestDaysOfPracticeAreDays(t *testing.T) {
	day := time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)
	f := ics.Feed{
		ID: "L", Lesson: "Lesson", Practice: "Nell: practice", Zone: time.UTC, First: day, Minutes: 30, Until: day, Made: day, Off: func(time.Time) bool { return false },
		Days: []ics.Day{{Date: day, Minutes: 12, Words: "Listen for: a long line; and “commas, too”\nPlay: Low Water"}},
	}
	events := calendar(t, f, "2026-05-06", "2026-05-07")
	require.Equal(t, []event{{Title: "Nell: practice, 12 min", Start: "2026-05-05", Minutes: 24 * 60, Words: f.Days[0].Words}}, events)
}
