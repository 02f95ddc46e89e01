package demo_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// Families report only what was set, on days that have passed and are days of
// practice; and each as it was published.
func TestFamiliesReportWhatWasSet(t *testing.T) {
	st, ladders, lib := studio(t)
	families, ticks := 0, 0
	for _, l := range ladders {
		weeks, err := db.PublishedWeeks(ctx, st, l.ID, day.AddDate(-1, 0, 0))
		require.NoError(t, err)
		log, err := db.Log(ctx, st, l.ID)
		require.NoError(t, err)
		family, err := db.Family(ctx, st, l.ID)
		require.NoError(t, err)
		if family.Token == "" {
			require.Empty(t, weeks, l.Name)
			for _, e := range log {
				require.NotEqual(t, studentlog.Family, e.Actor, l.Name)
			}
			continue
		}
		families++
		require.GreaterOrEqual(t, len(family.Token), 43, "nobody guesses it")
		require.Len(t, weeks, 7, l.Name)
		set := map[string]bool{}
		for _, w := range weeks {
			for _, d := range w.Published.Days {
				require.Equal(t, d.Rest, !l.PracticeDays[d.Date.Weekday()], "%s, %s", l.Name, d.Date)
				require.LessOrEqual(t, d.Minutes, float64(l.PracticeMinutes))
				for _, it := range d.Items {
					set[d.Date.Format(time.DateOnly)+" "+it.Key] = true
				}
			}
		}
		for _, e := range log {
			if e.Actor != studentlog.Family {
				continue
			}
			require.NoError(t, e.Validate())
			require.True(t, e.At.Before(day), "%s: a tick for a day to come", l.Name)
			if e.Kind == studentlog.Liking {
				require.Contains(t, lib, e.Material)
				continue
			}
			ticks++
			require.True(t, set[e.Day+" "+e.Item], "%s: %s was not set for %s", l.Name, e.Item, e.Day)
		}
	}
	require.Equal(t, 4, families)
	require.Greater(t, ticks, 100)
}
