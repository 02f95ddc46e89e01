package signs

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

func TestSigns(t *testing.T) {
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	ago := func(weeks int) time.Time { return day.AddDate(0, 0, -7*weeks) }
	lib := material.Library{"w": {Title: "Wave"}, "s": {Title: "Sand"}, "o": {Title: "Old"}, "e": {Title: "Elder"}, "f": {Title: "Fresh"}}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"w": {State: standing.Working, RunDue: true},
		"s": {State: standing.Working, SinceMark: 3, Spots: []standing.Spot{{}, {Mended: true}}},
		"o": {State: standing.Cleared, LastPlayed: ago(7)},
		"e": {State: standing.Cleared, LastPlayed: ago(9)},
		"f": {State: standing.Cleared, LastPlayed: ago(1)},
	}}
	var got []string
	for _, sign := range Find(s, lib, DefaultPolicy(), day) {
		got = append(got, sign.Kind+": "+sign.Text)
	}
	require.Equal(t, []string{
		"run: “Wave” is ready for a run",
		"stuck: “Sand” has had no new mark for 3 lessons",
		"spot: 1 open spot in “Sand”",
		"review: “Elder” unheard for 9 weeks, and 1 more in review",
	}, got)
	p := DefaultPolicy()
	p.Long = map[string]float64{"w": 6.2, "s": 6}
	require.Equal(t, Sign{"stuck", "w", "“Wave” takes longer than the 7 weeks within which nine of ten such pieces are cleared"}, Find(s, lib, p, day)[2], "Sand is stuck already")
	require.Equal(t, "choose", Find(&standing.Standing{}, lib, DefaultPolicy(), day)[0].Kind)
}

// A scale that a later step keeps alive is not called unheard, and a scale alone is no working piece.
func TestSignsOfExercises(t *testing.T) {
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	lib := material.Library{"apart": {Title: "C, apart", Exercise: "scale/apart/C/major/-"}, "together": {Title: "C, together", Exercise: "scale/together/C/major/-"}, "old": {Title: "Old"}}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"apart":    {State: standing.Cleared, LastPlayed: day.AddDate(0, 0, -280)},
		"old":      {State: standing.Cleared, LastPlayed: day.AddDate(0, 0, -70)},
		"together": {State: standing.Working},
	}}
	p := DefaultPolicy()
	p.Kept = map[string]bool{"old": true}
	require.Equal(t, []Sign{
		{"choose", "", "No working piece: choose the next rung"},
		{"review", "old", "“Old” unheard for 10 weeks"},
	}, Find(s, lib, p, day))
	p.Kept = nil
	require.Equal(t, "“C, apart” unheard for 40 weeks, and 1 more in review", Find(s, lib, p, day)[1].Text)
}
