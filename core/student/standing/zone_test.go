package standing

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/civil"
	"patientladder/core/student/studentlog"
)

// in writes marks at local times of a zone, after an assignment of p1 in the first minute.
func in(t *testing.T, zone string, times ...string) ([]studentlog.Entry, Context) {
	ctx := context(t)
	ctx.Zone = civil.Zone(zone)
	require.Equal(t, zone, ctx.Zone.String())
	w := &tell{}
	for i, text := range times {
		at, err := time.ParseInLocation("2006-01-02 15:04", text, ctx.Zone)
		require.NoError(t, err)
		if w.at = at; i == 0 {
			w.assign("p1")
		}
		w.mark("p1", "a", studentlog.Part)
	}
	return w.log, ctx
}

// A lesson is one day of the studio wherever the studio is: in Los Angeles midnight in UTC falls into the afternoon, in
// Auckland before noon; clocks change in both.
func TestALessonIsOneDayOfTheStudio(t *testing.T) {
	for _, c := range []struct {
		zone    string
		times   []string
		lessons int
	}{
		{"America/Los_Angeles", []string{"2026-05-04 16:45", "2026-05-04 17:01", "2026-05-04 17:20"}, 1},
		{"America/Los_Angeles", []string{"2026-05-04 16:45", "2026-05-04 17:15", "2026-05-11 16:45", "2026-05-11 17:15"}, 2},
		{"America/Los_Angeles", []string{"2026-03-07 23:50", "2026-03-08 00:10", "2026-03-08 23:50"}, 2}, // clocks go forward
		{"Pacific/Auckland", []string{"2026-05-04 11:50", "2026-05-04 12:10"}, 1},
		{"Pacific/Auckland", []string{"2026-04-05 00:10", "2026-04-05 23:50", "2026-04-06 00:10"}, 2}, // clocks go back
		{"UTC", []string{"2026-05-04 23:50", "2026-05-05 00:10"}, 2},
	} {
		log, ctx := in(t, c.zone, c.times...)
		m := Fold(log, ctx).Materials["p1"]
		require.Equal(t, []int{c.lessons, c.lessons - 1}, []int{m.Lessons, m.SinceMark}, "%s %v", c.zone, c.times)
	}
}

// What fades and rests is counted from day to day in the studio, and what is kept of it knows its zone.
func TestDaysSinceAreDaysOfTheStudio(t *testing.T) {
	log, ctx := in(t, "America/Los_Angeles", "2026-05-04 16:40")
	w := &tell{log: log, at: time.Date(2026, 5, 4, 17, 30, 0, 0, ctx.Zone)}
	w.write(studentlog.Entry{Kind: studentlog.Paused, Material: "p1"})
	w.at = time.Date(2026, 5, 7, 16, 0, 0, 0, ctx.Zone)
	w.write(studentlog.Entry{Kind: studentlog.Resumed, Material: "p1"})
	w.at = time.Date(2026, 5, 7, 17, 30, 0, 0, ctx.Zone)
	w.run("p1", all...)
	ctx.Day = time.Date(2026, 5, 17, 0, 0, 0, 0, time.UTC)
	s := Fold(w.log, ctx)
	m := s.Materials["p1"]
	require.Equal(t, 3, m.Rested)
	require.Equal(t, "2026-05-07", m.HeardOn.String())
	require.Equal(t, 10, m.Unheard(ctx.Day))
	require.Equal(t, "2026-05-07", s.Day(s.LastLesson).String())
	body, err := s.Encode()
	require.NoError(t, err)
	again, err := Decode(body)
	require.NoError(t, err)
	require.Equal(t, s.Day(s.LastLesson), again.Day(s.LastLesson))
	ctx.Zone = nil
	require.Equal(t, "2026-05-08", Fold(w.log, ctx).Materials["p1"].HeardOn.String(), "in UTC it was the next day")
}

// Whenever and wherever marks were given: lessons are the days of the studio on which there were some.
func TestAnyMarksInAnyZoneFoldByTheStudiosDays(t *testing.T) {
	zones := []string{"UTC", "America/Los_Angeles", "Pacific/Auckland", "Europe/Lisbon", "Asia/Kathmandu", "America/St_Johns"}
	rapid.Check(t, func(r *rapid.T) {
		ctx := context(r)
		ctx.Zone = civil.Zone(rapid.SampledFrom(zones).Draw(r, "zone"))
		from := time.Date(2026, 2, 20, 0, 0, 0, 0, time.UTC)
		minutes := rapid.SliceOfN(rapid.IntRange(0, 60*24*60), 1, 30).Draw(r, "minutes")
		var log []studentlog.Entry
		days := map[string]bool{}
		for i, m := range minutes {
			at := from.Add(time.Duration(m) * time.Minute)
			log = append(
				log,
				studentlog.Entry{ID: fmt.Sprintf("E%03d", i), At: at, Kind: studentlog.MarkGiven, Material: "p1", Focus: "a", Mark: studentlog.None},
			)
			days[at.In(ctx.Zone).Format(time.DateOnly)] = true
		}
		got := Fold(log, ctx)
		require.Equal(r, len(days), got.Materials["p1"].Lessons)
		slices.Reverse(log)
		a, err := got.Encode()
		require.NoError(r, err)
		b, err := Fold(log, ctx).Encode()
		require.NoError(r, err)
		require.Equal(r, a, b, "in whatever order they arrive")
	})
}
