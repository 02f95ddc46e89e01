package withfamily

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/week"
)

// What a note names that may be about pain rests at home from that day on, until the note is answered; the rest of the day stays.
func TestWhatMayHurtRests(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("rope", material.Method),
		plantest.Piece("ladder", material.Method),
		plantest.Piece("ahead", material.Method),
	)
	plantest.Working(s, "rope", 8)
	plantest.Learned(s, "ladder", 30, 9)
	day := func(n int) time.Time { return plantest.Monday.AddDate(0, 0, n) }
	notes := []Note{
		{Kind: Question, Text: "The rope: her thumb hurts", Day: day(3)},
		{Kind: AlsoPlayed, Text: "the rope until it ached. Her hand is sore", Day: day(2)},
		{Kind: Question, Text: "The ladder hurts", Day: day(1), AnsweredAt: day(2)},
		{Kind: Question, Text: "Her thumb hurts in the ahead", Day: day(1)},
		{Kind: Question, Text: "How fast is the ladder?", Day: day(1)},
	}
	resting := Resting(*s, notes)
	require.Equal(t, map[string]time.Time{"rope": day(2)}, resting, "the day of the first note; what she has not is not hers to rest")
	plan := week.Plan{NotYet: []week.Held{{Kind: week.UpToSpeed, Title: "The rope"}}}
	for i := range 4 {
		plan.Days = append(plan.Days, week.Day{
			Date: day(i), Minutes: 5, Focus: "soft", Items: []week.Item{{Key: "a", Material: "rope", Minutes: 3}, {Key: "b", Material: "ladder", Minutes: 2}},
		})
	}
	got := Rested(*s, plan, resting)
	var items []int
	var minutes []float64
	for _, d := range got.Days {
		items, minutes = append(items, len(d.Items)), append(minutes, d.Minutes)
	}
	require.Equal(t, []int{2, 2, 1, 1}, items)
	require.Equal(t, []float64{5, 5, 2, 2}, minutes)
	require.Equal(t, []week.Held{{Kind: week.UpToSpeed, Title: "The rope"}, {Kind: week.MayHurt, Title: "The rope"}}, got.NotYet)
	require.Len(t, plan.Days[3].Items, 2, "what was published stays as it was")
	require.Equal(t, plan, Rested(*s, plan, Resting(*s, notes[2:])))
}
