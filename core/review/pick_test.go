package review

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/material"
)

// The choice is worth as much as the best of all subsets, up to sixteen pieces.
func TestPickIsExact(t *testing.T) {
	p := DefaultPolicy()
	rapid.Check(t, func(t *rapid.T) {
		var list []Piece
		for i := range rapid.IntRange(0, 12).Draw(t, "n") {
			list = append(list, Piece{
				ID: fmt.Sprint("p", i), Minutes: rapid.Float64Range(0.1, 6).Draw(t, "minutes"), Recall: rapid.Float64Range(0, 1).Draw(t, "recall"),
				Days: rapid.IntRange(0, 60).Draw(t, "days"), Useful: rapid.Float64Range(0, 1).Draw(t, "useful"),
			})
		}
		minutes := rapid.Float64Range(0, 20).Draw(t, "room")
		room := int(minutes / step)
		best := 0.0
		for subset := range 1 << len(list) {
			worth, taken := 0.0, 0
			for i := range list {
				if subset&(1<<i) != 0 {
					worth, taken = worth+p.worth(list[i]), taken+size(list[i])
				}
			}
			if taken <= room {
				best = max(best, worth)
			}
		}
		got, taken, last := 0.0, 0, 1e9
		seen := map[string]bool{}
		for _, c := range Pick(list, minutes, p) {
			require.False(t, seen[c.ID])
			seen[c.ID] = true
			got, taken = got+c.Worth, taken+size(c.Piece)
			require.NotEmpty(t, c.Why)
			require.LessOrEqual(t, c.Worth, last, "in the order of their worth")
			last = c.Worth
		}
		require.LessOrEqual(t, taken, room)
		require.InDelta(t, best, got, 1e-9)
	})
}

func TestNothingIsStarved(t *testing.T) {
	list := []Piece{{ID: "fading", Minutes: 2, Recall: 0.2, Days: 30, Useful: 1}, {ID: "forgotten", Minutes: 2, Recall: 0.9, Days: 43}}
	got := Pick(list, 2, DefaultPolicy())
	require.Len(t, got, 1)
	require.Equal(t, "forgotten", got[0].ID)
	require.Equal(t, "90 % sure after 43 days, left for more than 6 weeks", got[0].Why)
	require.Equal(t, "fading", Pick(list[:1], 2, DefaultPolicy())[0].ID)
	require.Empty(t, Pick(list, 0.4, DefaultPolicy()))
}

func TestTheOrderOfArrivalDoesNotMatter(t *testing.T) {
	a := Piece{ID: "a", Minutes: 2, Recall: 0.5}
	b := Piece{ID: "b", Minutes: 2, Recall: 0.5}
	require.Equal(t, Pick([]Piece{a, b}, 2, DefaultPolicy()), Pick([]Piece{b, a}, 2, DefaultPolicy()))
}

func TestUsefulIsTheShareOfWhatIsWorkedAt(t *testing.T) {
	piece := func(skills ...string) (m material.Material) {
		for _, s := range skills {
			m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
		}
		return
	}
	working := []material.Material{piece("ties", "rests"), piece("rests", "accents", "pickup")}
	require.InDelta(t, 0.5, Asked(working).Useful(piece("ties", "pickup", "trills")), 1e-12)
	require.Zero(t, Asked(working).Useful(piece("trills")))
	require.Zero(t, Asked(nil).Useful(piece("ties")))
}
