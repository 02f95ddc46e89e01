package metronome

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// The traditional scale, from memory: by twos to 60, by threes to 72, by fours to
// 120, by sixes to 144, by eights to 208.
func TestTheMarksAreTheTraditionalOnes(t *testing.T) {
	var want []int
	for at, step := 40, 0; at <= 208; at += step {
		want = append(want, at)
		switch {
		case at < 60:
			step = 2
		case at < 72:
			step = 3
		case at < 120:
			step = 4
		case at < 144:
			step = 6
		default:
			step = 8
		}
	}
	require.Equal(t, want, Marks())
	require.Len(t, Marks(), 39)
}

// From 60 to 96 in five weeks: equal ratios of the fifth root of 1.6 (1.0986)
// are 65.9, 72.4, 79.6, 87.4 and 96.
func TestFromSixtyToNinetySixInFiveWeeks(t *testing.T) {
	got, err := Ladder(60, 96, 5)
	require.NoError(t, err)
	require.Equal(t, []int{66, 72, 80, 88, 96}, got)
}

func TestAClimbRisesOnMarksToItsGoal(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := rapid.IntRange(40, 207).Draw(t, "from")
		to := rapid.IntRange(from+1, 208).Draw(t, "to")
		weeks := rapid.IntRange(1, 104).Draw(t, "weeks")
		got, err := Ladder(from, to, weeks)
		require.NoError(t, err)
		require.Len(t, got, weeks)
		require.True(t, slices.IsSorted(got))
		require.Equal(t, Nearest(float64(to)), got[weeks-1])
		for _, m := range got {
			require.Contains(t, Marks(), m)
		}
		week := rapid.IntRange(0, weeks-1).Draw(t, "bad")
		eased, err := Eased(got, from, week)
		require.NoError(t, err)
		require.LessOrEqual(t, eased[0], got[week], "it goes back")
		require.Equal(t, got[weeks-1], eased[len(eased)-1], "and still reaches the goal")
	})
}

func TestAfterABadWeek(t *testing.T) {
	eased, err := Eased([]int{66, 72, 80, 88, 96}, 60, 2)
	require.NoError(t, err)
	require.Equal(t, []int{72, 80, 88, 96}, eased)
	first, err := Eased([]int{66, 72}, 60, 0)
	require.NoError(t, err)
	require.Equal(t, []int{60, 66, 72}, first)
}

func TestClimbsThatAreNone(t *testing.T) {
	for _, c := range []struct {
		from, to, weeks int
		says            string
	}{
		{96, 60, 5, "a tempo ladder rises: 60 does not lie above 96"},
		{60, 60, 5, "a tempo ladder rises: 60 does not lie above 60"},
		{60, 96, 0, "a climb takes 1 to 104 weeks, not 0"},
		{60, 300, 5, "the metronome goes from 40 to 208; 60 to 300 leaves it"},
		{10, 96, 5, "the metronome goes from 40 to 208; 10 to 96 leaves it"},
	} {
		_, err := Ladder(c.from, c.to, c.weeks)
		require.EqualError(t, err, c.says)
	}
	_, err := Eased([]int{66}, 60, 1)
	require.Error(t, err)
}
