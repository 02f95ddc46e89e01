package chunk

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/pattern"
	"patientladder/core/rational"
	"patientladder/core/score"
)

func piece(bars int, long map[int]bool) *score.Score {
	s := &score.Score{Parts: []score.Part{{Staves: 1}}}
	for i := range bars {
		start := rational.Int(int64(4 * i))
		s.Bars = append(s.Bars, score.Bar{Start: start, Length: rational.Int(4)})
		last := rational.Int(1)
		if long[i+1] {
			last = rational.Int(3)
		}
		s.Notes = append(s.Notes,
			score.Note{Onset: start, Duration: rational.Int(4).Sub(last), Bar: i + 1, Staff: 1, Pitch: score.Pitch{Step: 'C', Octave: 4 + i%3}},
			score.Note{Onset: start.Add(rational.Int(4)).Sub(last), Duration: last, Bar: i + 1, Staff: 1, Pitch: score.Pitch{Step: 'D', Octave: 4}})
	}
	return s
}

func TestTreeCoversEveryBarOnceAndJoinsTwoByTwo(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := rapid.IntRange(1, 70).Draw(t, "bars")
		long := map[int]bool{}
		for b := 1; b <= bars; b++ {
			long[b] = rapid.Bool().Draw(t, "long")
		}
		s := piece(bars, long)
		leaf := rapid.IntRange(1, 6).Draw(t, "leaf")
		root := Tree(s, pattern.Of(s), leaf)
		require.Equal(t, 1, root.From)
		require.Equal(t, bars, root.To)
		at := 1
		for _, c := range root.Leaves() {
			require.Equal(t, at, c.From)
			require.GreaterOrEqual(t, c.To, c.From)
			at = c.To + 1
		}
		require.Equal(t, bars+1, at)
		var check func(Chunk)
		check = func(c Chunk) {
			if len(c.Parts) == 0 {
				return
			}
			require.Len(t, c.Parts, 2)
			require.Equal(t, c.Parts[0].To+1, c.Parts[1].From)
			for _, p := range c.Parts {
				check(p)
			}
		}
		check(root)
	})
}

// The sizes by age are common practice, no source.
func TestLeafBarsByAge(t *testing.T) {
	require.Equal(t, []int{1, 1, 2, 2, 4, 4}, []int{LeafBars(4), LeafBars(6), LeafBars(7), LeafBars(8), LeafBars(9), LeafBars(60)})
}

func TestChunksEndWhereTheMusicBreathes(t *testing.T) {
	s := piece(8, map[int]bool{3: true, 8: true})
	root := Tree(s, pattern.Of(s), 4)
	require.Equal(t, 3, root.Leaves()[0].To)
}

func TestPickupBelongsToTheBarAfterIt(t *testing.T) {
	s := piece(5, nil)
	s.Bars[0].Short = true
	require.Equal(t, 2, Tree(s, pattern.Of(s), 1).Leaves()[0].To)
}

func TestEqualChunksAreKnown(t *testing.T) {
	s := piece(6, nil) // bars repeat every three
	leaves := Tree(s, pattern.Of(s), 1).Leaves()
	require.Equal(t, []int{0, 0, 0, 1, 2, 3}, []int{leaves[0].SameAs, leaves[1].SameAs, leaves[2].SameAs, leaves[3].SameAs, leaves[4].SameAs, leaves[5].SameAs})
}
