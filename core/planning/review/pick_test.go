package review

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
)

// bestOfAll is the largest worth of any subset that fits, by trying every one.
func bestOfAll(list []Piece, room int, p Policy) float64 {
	sizes, worths := make([]int, len(list)), make([]float64, len(list))
	for i, x := range list {
		sizes[i], worths[i] = size(x), p.worth(x)
	}
	best := 0.0
	for subset := range 1 << len(list) {
		worth, taken := 0.0, 0
		for i := range list {
			if subset>>i&1 == 1 {
				worth, taken = worth+worths[i], taken+sizes[i]
			}
		}
		if taken <= room {
			best = max(best, worth)
		}
	}
	return best
}

func somePieces(t *rapid.T, least, most int) (list []Piece) {
	for i := range rapid.IntRange(least, most).Draw(t, "n") {
		list = append(list, Piece{
			ID: fmt.Sprint("p", i), Minutes: rapid.Float64Range(0.1, 6).Draw(t, "minutes"), Recall: rapid.Float64Range(0, 1).Draw(t, "recall"),
			Days: rapid.IntRange(0, 60).Draw(t, "days"), Useful: rapid.Float64Range(0, 1).Draw(t, "useful"),
			Favourite: rapid.Bool().Draw(t, "favourite"),
		})
	}
	return list
}

func exact(t *rapid.T, list []Piece) {
	p := DefaultPolicy()
	minutes := rapid.Float64Range(0, 30).Draw(t, "room")
	room := int(minutes / step)
	got, taken, last := 0.0, 0, 1e9
	seen := map[string]bool{}
	for _, c := range Pick(list, minutes, p) {
		require.False(t, seen[c.ID])
		seen[c.ID] = true
		got, taken = got+c.Worth, taken+size(c.Piece)
		require.Equal(t, c.Days > p.StarvedAfterDays, c.Why.LeftWeeks > 0)
		require.LessOrEqual(t, c.Worth, last, "in the order of their worth")
		last = c.Worth
	}
	require.LessOrEqual(t, taken, room)
	require.InDelta(t, bestOfAll(list, room, p), got, 1e-9)
}

// The choice is worth as much as the best of all subsets.
func TestPickIsExact(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) { exact(t, somePieces(t, 0, 11)) })
}

// The same with twenty pieces: over a million subsets, so only a few times.
func TestPickIsExactForTwentyPieces(t *testing.T) {
	for seed := range 4 {
		list := rapid.Custom(func(t *rapid.T) []Piece { return somePieces(t, 20, 20) }).Example(seed)
		p := DefaultPolicy()
		room := 16 + 12*seed
		got := 0.0
		for _, c := range Pick(list, float64(room)*step, p) {
			got += c.Worth
		}
		require.InDelta(t, bestOfAll(list, room, p), got, 1e-9)
	}
}

func TestNothingIsStarved(t *testing.T) {
	list := []Piece{{ID: "fading", Minutes: 2, Recall: 0.2, Days: 30, Useful: 1}, {ID: "forgotten", Minutes: 2, Recall: 0.9, Days: 43}}
	got := Pick(list, 2, DefaultPolicy())
	require.Len(t, got, 1)
	require.Equal(t, "forgotten", got[0].ID)
	require.Equal(t, Reason{Recall: 0.9, Days: 43, LeftWeeks: 6}, got[0].Why)
	require.Equal(t, "fading", Pick(list[:1], 2, DefaultPolicy())[0].ID)
	require.Empty(t, Pick(list, 0.4, DefaultPolicy()))
}

// A piece that was learned elsewhere and never heard here was left by nobody: it does not come before all others, and the
// reason says what it is instead of a number.
func TestWhatWasLearnedElsewhereIsNotStarved(t *testing.T) {
	p := DefaultPolicy()
	here := Piece{ID: "here", Minutes: 2, Recall: 0.5, Days: 110}
	elsewhere := here
	elsewhere.ID, elsewhere.Elsewhere = "elsewhere", true
	require.InDelta(t, starved, p.worth(here)-p.worth(elsewhere), 1e-12)
	chosen := Pick([]Piece{here, elsewhere}, 4, p)
	require.Equal(
		t,
		[]Reason{{Recall: 0.5, Days: 110, LeftWeeks: 6}, {Recall: 0.5, Days: 110, Elsewhere: true}},
		[]Reason{chosen[0].Why, chosen[1].Why},
	)
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

func TestAPieceIsWorthWhatItsPartsAre(t *testing.T) {
	p := Policy{StarvedAfterDays: 42, UsefulWeight: 0.5, Favourite: 0.25, Variety: 0.125}
	require.Equal(t, 0.25+0.25+0.125, p.worth(Piece{Recall: 0.75, Useful: 0.5, Days: 42}))
	require.Equal(t, 0.25+0.125+0.25, p.worth(Piece{Recall: 0.75, Favourite: true}))
	require.Equal(t, 100.375, p.worth(Piece{Recall: 0.75, Days: 43}))
	require.Equal(t, Reason{Recall: 0.75, Days: 42}, p.why(Piece{Recall: 0.75, Useful: 0.49, Days: 42}))
	require.Equal(
		t,
		Reason{Recall: 0.75, Days: 43, LeftWeeks: 6, Refines: true, Favourite: true},
		p.why(Piece{Recall: 0.75, Useful: 0.5, Days: 43, Favourite: true}),
	)
}

func TestMinutesGoByHalves(t *testing.T) {
	for minutes, want := range map[float64]int{0: 1, 0.3: 1, 0.5: 1, 0.6: 2, 1: 2, 1.01: 3, 2.5: 5} {
		require.Equal(t, want, size(Piece{Minutes: minutes}), "%g", minutes)
	}
}

func TestOfEqualPiecesTheEarlierIsPicked(t *testing.T) {
	p := DefaultPolicy()
	list := []Piece{
		{ID: "c", Minutes: 1, Recall: 0.5},
		{ID: "a", Minutes: 1, Recall: 0.5},
		{ID: "b", Minutes: 1, Recall: 0.5},
		{ID: "d", Minutes: 1, Recall: 0.25},
	}
	ids := func(minutes float64) (out []string) {
		for _, c := range Pick(list, minutes, p) {
			out = append(out, c.ID)
		}
		return out
	}
	require.Equal(t, []string{"d"}, ids(1))
	require.Equal(t, []string{"d", "a"}, ids(2))
	require.Equal(t, []string{"d", "a", "b"}, ids(3.4))
	require.Equal(t, []string{"d", "a", "b", "c"}, ids(1e9))
	require.Empty(t, ids(-1))
	require.Empty(t, ids(0.9), "none fits")
	require.Empty(t, Pick([]Piece{{ID: "a", Minutes: 1, Recall: 1}}, 9, Policy{StarvedAfterDays: 42}), "what is worth nothing is not played")
}
