package outside_test

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/home/ics"
)

type event struct {
	Title, Start, Words string
	Minutes             float64
}

// read by ical.js (npm), with the time zones as the file spells them out.
func shown(t *testing.T, f ics.Feed, from, to string) []event {
	file := filepath.Join(t.TempDir(), "feed.ics")
	require.NoError(t, os.WriteFile(file, []byte(ics.Write(f)), 0o600))
	out, err := exec.Command("node", "calendar.mjs", file, from, to).Output()
	require.NoError(t, err)
	var events []event
	require.NoError(t, json.Unmarshal(out, &events))
	return events
}

func on(date string) time.Time {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	return d
}

// weekly is a feed of lessons at half past three from a day on.
func weekly(zone *time.Location, first time.Time, minutes int) ics.Feed {
	t := calendar.Weekly(first.Weekday(), 15*60+30, minutes, first)
	t.Slots[0].ID = "s"
	return ics.Feed{
		Name:     "Nell: piano lesson",
		Zone:     zone,
		From:     first,
		Made:     first,
		Students: []ics.Student{{ID: "L", Title: "Nell: piano lesson", Lessons: t}},
	}
}

// Whatever is moved, cancelled, added, taken by a holiday or a pause, over both changes of clocks of the year
// (29 March and 25 October 2026 in Lisbon): a reader of the calendar sees the lessons that take place, at their
// local times.
func TestAReaderSeesTheLessonsThatTakePlace(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	f := weekly(zone, on("2026-03-03"), 45)
	table := f.Students[0].Lessons
	table.Slots = append(
		table.Slots,
		calendar.Slot{ID: "f", Weekday: time.Friday, StartsAt: 600, Minutes: 30, Every: 2, From: on("2026-03-06"), Until: on("2026-11-20")},
	)
	must := func(next calendar.Timetable, err error) {
		require.NoError(t, err)
		table = next
	}
	today := on("2026-03-01")
	must(table.RescheduleSeries("2026-06-09-s", calendar.Time{Day: on("2026-06-11"), StartsAt: 14 * 60, Minutes: 30}, today, "t"))
	must(table.Move("2026-03-24-s", calendar.Time{Day: on("2026-03-30"), StartsAt: 17 * 60, Minutes: 60}, today))
	must(table.Move("2026-10-29-t", calendar.Time{Day: on("2026-10-23"), StartsAt: 8 * 60, Minutes: 45}, today))
	must(table.CancelLesson("2026-03-31-s", calendar.ByStudent, true))
	must(table.CancelLesson("2026-10-22-t", calendar.ByTeacher, false))
	must(table.Add("extra", calendar.Time{Day: on("2026-10-26"), StartsAt: 9*60 + 15, Minutes: 20}, "2026-10-22-t", today))
	table.Holidays = []calendar.Break{{From: on("2026-04-01"), To: on("2026-04-12")}}
	table.Pauses = []calendar.Break{{From: on("2026-07-01"), To: on("2026-08-31")}, {From: on("2026-12-01"), To: calendar.NoEnd}}
	f.Students[0].Lessons = table
	var want []string
	for _, l := range table.Held(on("2026-03-01"), on("2027-02-01")) {
		want = append(
			want,
			time.Date(l.Day.Year(), l.Day.Month(), l.Day.Day(), l.StartsAt/60, l.StartsAt%60, 0, 0, zone).UTC().Format("2006-01-02T15:04"),
		)
	}
	var got []string
	for _, e := range shown(t, f, "2026-01-01", "2027-02-01") {
		got = append(got, e.Start[:16])
	}
	slices.Sort(got)
	require.Len(t, want, 42)
	require.Equal(t, want, got)
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
		f := weekly(zone, first, 45)
		f.Students[0].Lessons.Holidays = []calendar.Break{{From: on("2026-04-07"), To: on("2026-04-07")}}
		var got []string
		for _, e := range shown(t, f, "2026-01-01", "2026-04-20") {
			require.Equal(t, 45.0, e.Minutes, name)
			require.Equal(t, "Nell: piano lesson", e.Title)
			got = append(got, e.Start[:16])
		}
		require.Equal(t, want, got, name)
	}
}

func TestDaysOfPracticeAreDays(t *testing.T) {
	day := time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)
	f := weekly(time.UTC, day, 30)
	f.Practice, f.PracticeID = "Nell: practice", "L"
	f.Days = []ics.Day{{Date: day, Minutes: 12, Words: "Listen for: a long line; and “commas, too”\nPlay: Low Water"}}
	events := shown(t, f, "2026-05-06", "2026-05-07")
	require.Equal(t, []event{{Title: "Nell: practice, 12 min", Start: "2026-05-05", Minutes: 24 * 60, Words: f.Days[0].Words}}, events)
}
