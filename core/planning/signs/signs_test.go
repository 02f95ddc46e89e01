package signs

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

var day = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func ago(days int) time.Time { return day.AddDate(0, 0, -days) }

// seenIn lays a standing, a library, the defaults and the day under what else is seen.
func seenIn(lib material.Library) func(*standing.Standing, Seen) Seen {
	return func(s *standing.Standing, out Seen) Seen {
		out.Standing, out.Library, out.Policy, out.Day = s, lib, DefaultPolicy(), day
		return out
	}
}

func TestSigns(t *testing.T) {
	lib := material.Library{"w": {Title: "Wave"}, "s": {Title: "Sand"}, "o": {Title: "Old"}, "e": {Title: "Elder"}, "f": {Title: "Fresh"}}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"w": {State: standing.Working, RunDue: true, SinceMark: 2},
		"s": {State: standing.Working, SinceMark: 3, Spots: []standing.Spot{{}, {Mended: true}, {}}},
		"o": {State: standing.Cleared, LastPlayed: ago(49)},
		"e": {State: standing.Polished, LastPlayed: ago(63)},
		"f": {State: standing.Cleared, LastPlayed: ago(42)},
	}}
	seen := seenIn(lib)
	require.Equal(t, []Sign{
		{Kind: Run, Material: "w"}, {Kind: Stuck, Material: "s", Lessons: 3}, {Kind: Spot, Material: "s", Count: 2},
		{Kind: Review, Material: "e", Weeks: 9, Count: 1},
	}, Find(seen(s, Seen{})), "six weeks to the day are not too long")
	require.Equal(t, []Sign{
		{Kind: Run, Material: "w"}, {Kind: Stuck, Material: "s", Lessons: 3}, {Kind: Spot, Material: "s", Count: 2},
		{Kind: Review, Material: "e", Weeks: 9, Count: 1},
	}, Find(seen(s, Seen{Long: map[string]float64{"w": 6.2, "s": 6}})), "Sand is stuck already, and what is ready for a run is not")
	s.Materials["w"].RunDue = false
	require.Equal(
		t,
		[]Sign{{Kind: Stuck, Material: "s", Lessons: 3}, {Kind: Stuck, Material: "w", Weeks: 7}},
		Find(seen(s, Seen{Long: map[string]float64{"w": 6.2, "s": 6}}))[:2],
	)
	s.Materials["w"].RunDue, s.Materials["w"].SinceMark = true, 9
	require.Equal(t, []Sign{{Kind: Run, Material: "w"}, {Kind: Stuck, Material: "s", Lessons: 3}}, Find(seen(s, Seen{}))[:2])
	require.Equal(t, []Sign{{Kind: Choose}}, Find(seen(&standing.Standing{}, Seen{})))
	// Of two left on the same day the first id is named.
	s = &standing.Standing{
		Materials: map[string]*standing.MaterialStanding{
			"o": {State: standing.Cleared, LastPlayed: ago(63)},
			"e": {State: standing.Cleared, LastPlayed: ago(63)},
		},
	}
	require.Equal(t, []Sign{{Kind: Choose}, {Kind: Review, Material: "e", Weeks: 9, Count: 1}}, Find(seen(s, Seen{})))
}

// A scale that a later step keeps alive is not called unplayed, and a scale alone is no working piece.
func TestSignsOfExercises(t *testing.T) {
	lib := material.Library{
		"apart":    {Title: "C, apart", Exercise: "scale/apart/C/major/-"},
		"together": {Title: "C, together", Exercise: "scale/together/C/major/-"},
		"old":      {Title: "Old"},
	}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"apart":    {State: standing.Cleared, LastPlayed: ago(280)},
		"old":      {State: standing.Cleared, LastPlayed: ago(70)},
		"together": {State: standing.Working},
	}}
	seen := seenIn(lib)
	require.Equal(
		t,
		[]Sign{{Kind: Choose}, {Kind: Review, Material: "old", Weeks: 10}},
		Find(seen(s, Seen{Kept: map[string]bool{"old": true}})),
	)
	require.Equal(t, Sign{Kind: Review, Material: "apart", Weeks: 40, Count: 1}, Find(seen(s, Seen{}))[1])
}

// Kinds come by urgency, within a kind by title, then id.
func TestTheOrderOfSigns(t *testing.T) {
	lib := material.Library{"1": {Title: "B"}, "2": {Title: "A"}, "3": {Title: "A"}}
	list := []Sign{
		{Kind: Review},
		{Kind: SetupDue},
		{Kind: Spot, Material: "1"},
		{Kind: Spot, Material: "3"},
		{Kind: Spot, Material: "2"},
		{Kind: Cliff},
		{Kind: Late},
		{Kind: Choose},
		{Kind: Stuck},
		{Kind: Run},
	}
	Sort(list, lib)
	require.Equal(
		t,
		[]Sign{
			{Kind: Run},
			{Kind: Stuck},
			{Kind: Choose},
			{Kind: Late},
			{Kind: Cliff},
			{Kind: Spot, Material: "2"},
			{Kind: Spot, Material: "3"},
			{Kind: Spot, Material: "1"},
			{Kind: SetupDue},
			{Kind: Review},
		},
		list,
	)
}

// Who is stuck needs the teacher more than who is late, and that more than a run; a bench can wait.
func TestUrgency(t *testing.T) {
	of := func(kinds ...Kind) (out []Sign) {
		for _, k := range kinds {
			out = append(out, Sign{Kind: k})
		}
		return out
	}
	for want, kinds := range map[int][]Kind{8: {Stuck}, 5: {Late}, 4: {Run}, 3: {Cliff}, 2: {Review}, 1: {Spot}, 0: {SetupDue}, 16: {Stuck, Stuck}, 12: {Choose, Run, Cliff}} {
		require.Equal(t, want, Urgency(of(kinds...)), "%v", kinds)
	}
	require.Equal(t, 5, Urgency(of(Choose)))
	students := [][]Sign{of(Spot), of(Run), nil, of(Stuck), of(Late), of(Choose), of(Run)}
	require.Equal(t, []int{3, 4, 5, 1, 6, 0, 2}, ByUrgency(students))
	require.True(t, Has(of(Run, Spot), Spot))
	require.False(t, Has(of(Run), Spot))
	require.Equal(t, 2, Count(of(Run, Spot, Run), Run))
}
