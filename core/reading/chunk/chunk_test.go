package chunk

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/reading/pattern"
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
		root := Tree(s, pattern.Of(s), leaf, nil)
		require.Equal(t, 1, root.From)
		require.Equal(t, bars, root.To)
		at := 1
		for _, c := range root.Leaves() {
			require.Equal(t, at, c.From)
			require.GreaterOrEqual(t, c.To, c.From)
			at = c.To + 1
		}
		require.Equal(t, bars+1, at)
		covered := 0
		for _, c := range root.Leaves() {
			covered += c.Notes
		}
		require.Equal(t, len(s.Notes), covered, "every note is in exactly one chunk")
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
	root := Tree(s, pattern.Of(s), 4, nil)
	require.Equal(t, 3, root.Leaves()[0].To)
}

func TestPickupBelongsToTheBarAfterIt(t *testing.T) {
	s := piece(5, nil)
	s.Bars[0].Short = true
	require.Equal(t, 2, Tree(s, pattern.Of(s), 1, nil).Leaves()[0].To)
}

func TestEqualChunksAreKnown(t *testing.T) {
	s := piece(6, nil) // bars repeat every three
	leaves := Tree(s, pattern.Of(s), 1, nil).Leaves()
	require.Equal(
		t,
		[]int{0, 0, 0, 1, 2, 3},
		[]int{leaves[0].SameAs, leaves[1].SameAs, leaves[2].SameAs, leaves[3].SameAs, leaves[4].SameAs, leaves[5].SameAs},
	)
}

func typed(t *testing.T, tune string) *score.Score {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\nK:C\n" + tune))
	require.NoError(t, err)
	return tunes[0]
}

// Phrases that begin on an upbeat stay whole (common practice; cut by hand).
func TestAnUpbeatBelongsToThePhraseThatItBegins(t *testing.T) {
	s := typed(t, "G|cccd|e2z G|cccd|e2z G|fedc|B3|]")
	leaves := Tree(s, pattern.Of(s), 2, nil).Leaves()
	require.Equal(t, []int{1, 4, 6}, []int{leaves[0].From, leaves[1].From, leaves[2].From})
	require.True(t, leaves[1].Upbeat)
	require.Equal(t, "8", leaves[1].Start.String(), "the G before the third full bar")
	require.Equal(t, "a rest", leaves[0].Why)
	require.Equal(t, 1, leaves[1].SameAs, "the second phrase is the first, upbeat and all")
}

func TestTheTeachersBordersHold(t *testing.T) {
	s := typed(t, "CDEF|GABc|CDEF|GABc|CDEF|GABc|CDEF|GABc|")
	froms := func(own Borders) (list []int) {
		for _, c := range Tree(s, pattern.Of(s), 4, own).Leaves() {
			list = append(list, c.From)
		}
		return
	}
	require.Equal(t, []int{1, 5}, froms(nil))
	require.Equal(t, []int{1, 2, 6}, froms(Borders{1: true, 5: true}))
	require.NotContains(t, froms(Borders{4: false}), 5)
	require.Equal(t, []int{1}, froms(Borders{1: false, 2: false, 3: false, 4: false, 5: false, 6: false, 7: false}))
}

// Whatever tune, whatever the teacher's borders: every note that begins is in
// exactly one smallest chunk, chunks follow each other without a gap, and the
// borders hold.
func TestDrawnTunesAreCoveredOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text, bars := "X:1\nL:1/4\nM:4/4\nK:C\n"+rapid.SampledFrom([]string{"", "G|", "zG|"}).
			Draw(t, "pickup"),
			rapid.IntRange(1, 12).
				Draw(t, "bars")
		for range bars {
			text += rapid.SampledFrom([]string{"CDEF", "C2z2", "C4", "(CD)(EF)", "CDz/E/F", "C2E!breath!F", "[CE]2G2", "z4", "C3D-", "DEF!fermata!G", "(3CDEF2", "CD & E2"}).
				Draw(t, "bar") +
				rapid.SampledFrom([]string{"|", "|", "|", ":|", "||"}).
					Draw(t, "line")
		}
		tunes, err := abc.Read([]byte(text))
		if err != nil {
			return // only rests
		}
		s := tunes[0]
		own := Borders{}
		for b := 1; b < len(s.Bars); b++ {
			if rapid.IntRange(0, 5).Draw(t, "own") == 0 {
				own[b] = rapid.Bool().Draw(t, "ends")
			}
		}
		root := Tree(s, pattern.Of(s), rapid.IntRange(1, 4).Draw(t, "leaf"), own)
		leaves := root.Leaves()
		in := make([]int, len(s.Notes))
		for i, c := range leaves {
			if i > 0 {
				require.Zero(t, c.Start.Cmp(leaves[i-1].End), text)
				require.Equal(t, leaves[i-1].To+1, c.From)
			}
			for k, n := range s.Notes {
				if !n.Onset.Less(c.Start) && n.Onset.Less(c.End) {
					in[k]++
				}
			}
			require.NotEmpty(t, c.Why)
		}
		for k, n := range s.Notes {
			if !n.Rest {
				require.Equal(t, 1, in[k], "%s: note %d", text, k)
			}
		}
		ends := map[int]bool{}
		for _, c := range leaves {
			ends[c.To] = true
		}
		for b, must := range own {
			require.Equal(t, must, ends[b], "%s: border after bar %d", text, b)
		}
		require.Zero(t, root.End.Cmp(s.Length()))
	})
}

// What a chunk ends with, told by hand.
func TestWhyAChunkEnds(t *testing.T) {
	for tune, why := range map[string]string{
		"CDEF|GABz|CDEF|GABc|":          "a rest",
		"CDEF|G4|CDEF|GABc|":            "a long note",
		"CDEF|(GABc)|CDEF|GABc|":        "the end of a slur",
		"CDEF|GAB!breath!c|DEFG|GABc|":  "a breath mark",
		"CDEF|GAB!fermata!c|DEFG|GABc|": "a fermata",
		"CDEF|GABc:|DEFG|GABc|":         "the end of a section",
		"CDEF|GABc|CDEF|GABd|":          "the beginning comes back",
	} {
		s := typed(t, tune)
		require.Equal(t, why, Tree(s, pattern.Of(s), 2, nil).Leaves()[0].Why, tune)
	}
	s := typed(t, "CDEF|GABc|DEFG|GABc|")
	require.Equal(t, "the teacher’s border", Tree(s, pattern.Of(s), 2, Borders{2: true}).Leaves()[0].Why)
}

// Bottom up: what is practised alone comes first, then what it joins into.
func TestATreeLevelByLevel(t *testing.T) {
	leaf := func(bar int) Chunk { return Chunk{From: bar, To: bar} }
	pair := Chunk{From: 1, To: 2, Parts: []Chunk{leaf(1), leaf(2)}}
	tree := Chunk{From: 1, To: 3, Parts: []Chunk{pair, leaf(3)}}
	var got [][3]int
	for _, c := range tree.ByLevel() {
		got = append(got, [3]int{c.Level, c.From, c.To})
	}
	require.Equal(t, [][3]int{{0, 1, 1}, {0, 2, 2}, {0, 3, 3}, {1, 1, 2}, {2, 1, 3}}, got)
	require.Equal(t, []Levelled{{leaf(7), 0}}, leaf(7).ByLevel())
}

func TestAChunkBeginsWithItsUpbeat(t *testing.T) {
	require.Equal(t, 4, Chunk{From: 5, Upbeat: true}.Begins())
	require.Equal(t, 5, Chunk{From: 5}.Begins())
}
