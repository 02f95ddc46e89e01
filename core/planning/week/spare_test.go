package week

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
)

// told are the days of a plan, each thing as key × times.
func told(t *testing.T, in Input) (days []string) {
	p, err := Make(in)
	require.NoError(t, err)
	for _, d := range p.Days {
		var items []string
		for _, it := range d.Items {
			items = append(items, fmt.Sprintf("%s×%d", it.Key, it.Times))
		}
		days = append(days, strings.Join(items, ", "))
	}
	return days
}

// A piece that goes but for its joins: days with minutes left play its sections in full, two or four bars as one and in turn, and
// then the whole; learned pieces have what is left after that.
func TestMinutesThatAreLeftGoToTheWorkingPiece(t *testing.T) {
	w := named("a", 3)
	w.WeeksOn, w.Progress = 2, 1
	in := Input{Start: start, Practises: everyDay(), Minutes: 16, Age: 8, Works: []Work{w}, Reviews: learned(2, 60)}
	require.Equal(t, []string{
		"again a 1-4×8, again a 5-8×8, whole a 1-8×2, review old0×1, review old1×1",
		"again a 1-4×8, again a 5-8×8, again a 1-8×2, review old0×1, review old1×1",
	}, told(t, in)[:2])
	in.Minutes = 4 // a short day keeps the whole, and one learned piece
	require.Equal(t, "whole a 1-8×2, review old0×1, review old1×1", told(t, in)[0])
	in.Hand.Drops = []string{"again a 1-4"}
	in.Minutes = 16
	require.Equal(t, "again a 5-8×8, whole a 1-8×2, review old0×1, review old1×1", told(t, in)[0])
	p, err := Make(in)
	require.NoError(t, err)
	require.Equal(t, "again a 1-4", p.Dropped[0].Key, "what was taken out can be put back")
	require.Len(t, p.Dropped, 1)
}

// What was cleared a short while ago is played on two days of three, before other learned pieces and never twice on a day.
func TestWhatWasJustClearedIsPlayedOnMostDays(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 2, Age: 8, ReviewShare: 0.3, Reviews: learned(3, 60)}
	in.Settling = []material.Material{in.Reviews[1]}
	require.Equal(t, []string{
		"review old1×1, review old0×1", "review old1×1, review old2×1", "review old0×1, review old2×1",
		"review old1×1, review old0×1", "review old1×1, review old2×1", "review old0×1, review old2×1",
		"review old1×1, review old0×1",
	}, told(t, in))
	p, err := Make(in)
	require.NoError(t, err)
	require.Equal(t, "Just learned: once on most days, so that it stays.", p.Days[0].Items[0].Words)
}

// As for a run a piece is played as it is, every day, and its minutes are those of its own tempo.
func TestWhatIsDueForItsRunIsPlayedTheSameEveryDay(t *testing.T) {
	w := named("a", 3)
	w.WeeksOn, w.Progress, w.RunDue = 2, 1, true
	in := Input{Start: start, Practises: everyDay(), Minutes: 2, Age: 8, Works: []Work{w}}
	for _, d := range told(t, in) {
		require.Equal(t, "whole a 1-8×2", d)
	}
	p, err := Make(in)
	require.NoError(t, err)
	for _, d := range p.Days {
		require.Equal(t, "From start to end without a stop, as for a run.", d.Items[0].Words)
		require.InDelta(t, 1.5, d.Items[0].Minutes, 1e-9, "32 crotchets at 80, twice, and half as long again")
	}
}

// A piece whose notes only the family has is found first, then its beginning, then a line more, then the whole; never at once all the
// way through as often as the dose says.
func TestAPieceInABookBeginsWithFindingIt(t *testing.T) {
	m := material.Material{ID: "m", Title: "Tune", Source: "Harbour Book", Page: 7}
	in := Input{Start: start, Practises: everyDay(), Minutes: 5, Age: 7, Works: []Work{{Material: m}}}
	days := told(t, in)
	require.Equal(t, []string{
		"look m×0, chunk m×7", "again m×2, join m×7", "again m×2, whole m×2", "again m×2", "again m×2", "again m×2", "again m×2",
	}, days)
	p, err := Make(in)
	require.NoError(t, err)
	require.Equal(
		t,
		"Play nothing yet. Find it in the book “Harbour Book” on page 7. Find where it begins, where it rises, falls and stays, and what comes back.",
		p.Days[0].Items[0].Words,
	)
	in.Works[0].Progress = 0.5
	require.Equal(t, "whole m×2", told(t, in)[0])
	in.Works[0].Progress, in.Works[0].RunDue = 1, true
	require.Equal(t, "whole m×2", told(t, in)[0])
}

// A long scale takes a third of the day where there is something else, and no more than the day where there is nothing.
func TestALongScaleLeavesMinutesToTheNewPiece(t *testing.T) {
	long := scale("s")
	long.Drill.Quarters = 64
	long.Drill.Apart = false
	in := Input{Start: start, Practises: everyDay(), Minutes: 20, Age: 9, Works: []Work{long}}
	times := func() int {
		p, err := Make(in)
		require.NoError(t, err)
		for _, it := range p.Days[0].Items {
			if it.Kind == Drilled {
				return it.Times
			}
		}
		return 0
	}
	require.Equal(t, 7, times())
	in.Works = append(in.Works, named("a", 2))
	require.Equal(t, 2, times())
}

// Of many games a day has five, and the next goes on by two: each comes on two or three days and gives way.
func TestGamesRotate(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 15, Age: 4}
	for i := range 12 {
		in.Activities = append(in.Activities, Activity{ID: fmt.Sprint(i), Minutes: 2})
	}
	require.Equal(t, []string{
		"game 0×1, game 1×1, game 2×1, game 3×1, game 4×1", "game 2×1, game 3×1, game 4×1, game 5×1, game 6×1",
		"game 4×1, game 5×1, game 6×1, game 7×1, game 8×1", "game 6×1, game 7×1, game 8×1, game 9×1, game 10×1",
		"game 8×1, game 9×1, game 10×1, game 11×1, game 0×1", "game 10×1, game 11×1, game 0×1, game 1×1, game 2×1",
		"game 0×1, game 1×1, game 2×1, game 3×1, game 4×1",
	}, told(t, in))
	p, err := Make(in)
	require.NoError(t, err)
	require.Empty(t, p.LeftOut, "a game that has no turn is not left out")
}
