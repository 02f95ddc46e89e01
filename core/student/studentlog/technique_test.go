package studentlog

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// What belongs to an entry of technique, and what is said of one that is not whole.
func TestEntriesOfTechnique(t *testing.T) {
	whole := Cycle{Type: "scale", Step: "apart", Kind: "major", First: "C", Order: "fifths", From: "2026-09-07"}
	for _, c := range []struct {
		entry Entry
		says  string
	}{
		{Entry{Kind: CycleKept, Cycle: &whole}, ""},
		{Entry{Kind: CycleKept, Cycle: &Cycle{}}, ""},
		{Entry{Kind: CycleKept}, "needs a type, step, kind, order, first key"},
		{Entry{Kind: CycleKept, Cycle: &Cycle{Type: "scale", Step: "apart", Kind: "major", First: "C", Order: "fifths", From: "soon"}}, "the day from which it goes"},
		{Entry{Kind: LessonMissed, Day: "2026-09-14"}, ""},
		{Entry{Kind: LessonMissed}, "needs the day of the lesson"},
		{Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{From: 60, To: 96, Weeks: 5}}, ""},
		{Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{}}, ""},
		{Entry{Kind: ClimbBegun, Climb: &Climb{From: 60, To: 96, Weeks: 5}}, "needs a material and a tempo ladder"},
		{Entry{Kind: ClimbBegun, Material: "m"}, "needs a material and a tempo ladder"},
		{Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{From: 60, To: 300, Weeks: 5}}, "leaves it"},
		{Entry{Kind: TempoPlayed, Material: "m", Tempo: 72}, ""},
		{Entry{Kind: TempoPlayed, Material: "m", Tempo: 5}, "a tempo from 20 to 400"},
		{Entry{Kind: TempoPlayed, Tempo: 72}, "needs a material"},
	} {
		c.entry.ID, c.entry.At = "x", time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
		err := c.entry.Validate()
		if c.says == "" {
			require.NoError(t, err)
			continue
		}
		require.ErrorContains(t, err, c.says)
	}
}
