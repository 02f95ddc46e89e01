package plucked

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/instrument"
)

func open(t require.TestingT, id string) instrument.Instrument {
	x, ok := instrument.Of(id)
	require.True(t, ok)
	return x
}

func letters(list []Stroke) string {
	var b strings.Builder
	for _, s := range list {
		b.WriteString(s.Finger)
	}
	return b.String()
}

// Right-hand fingers as players of each instrument name them (common practice,
// from memory): thumb, first and second finger in a banjo's forward, backward and rocking rolls;
// p i m a over four strings of guitar and ukulele; a string that comes twice is
// played by two fingers.
func TestRollsAgreeWithCommonPractice(t *testing.T) {
	for _, c := range []struct {
		player  string
		strings []int
		want    string
	}{
		{"banjo", []int{3, 2, 1, 5, 2, 1, 5, 1}, "pimpimpm"},
		{"banjo", []int{1, 2, 5, 1, 2, 5, 1, 2}, "mipmipmi"},
		{"banjo", []int{3, 2, 5, 1, 4, 2, 5, 1}, "pipmpipm"},
		{"banjo", []int{3, 2, 1, 5, 1, 2, 3, 1}, "pimpmipm"},
		{"guitar", []int{5, 3, 2, 1}, "pima"},
		{"guitar", []int{6, 3, 2, 1, 2, 3}, "pimami"},
		{"guitar", []int{5, 1, 2, 3}, "pami"},
		{"guitar", []int{1, 1}, "ma"},
		{"ukulele", []int{4, 3, 2, 1}, "pima"},
		{"ukulele", []int{3, 2, 1, 2}, "pimi"},
	} {
		got, err := Fingers(open(t, c.player), c.strings)
		require.NoError(t, err)
		if c.strings[0] == c.strings[1] {
			require.NotEqual(t, got[0].Finger, got[1].Finger)
			continue
		}
		require.Equal(t, c.want, letters(got), "%s %v", c.player, c.strings)
	}
}

// Whatever the roll: neighbours differ, around the end too, and nothing cheaper exists
// (every way is tried).
func TestNoCheaperFingersExist(t *testing.T) {
	names := instrument.Plucking()
	rapid.Check(t, func(t *rapid.T) {
		x := open(t, rapid.SampledFrom([]string{"ukulele", "guitar", "banjo"}).Draw(t, "player"))
		strs := rapid.SliceOfN(rapid.IntRange(1, len(x.Open)), 2, 6).Draw(t, "strings")
		got, err := Fingers(x, strs)
		require.NoError(t, err)
		at := func(f string) int { return strings.Index("pima", f) }
		cost := func(fingers []int) int {
			sum := 0
			for i, f := range fingers {
				k := (i + 1) % len(fingers)
				if fingers[k] == f {
					return 1 << 20
				}
				sum += abs(f - at(x.Pluck[strs[i]-1]))
				up, over := fingers[k] > f, strs[k] > strs[i] // to a string further on the thumb's side
				if strs[k] != strs[i] && up == over {
					sum += 3
				}
			}
			return sum
		}
		var mine []int
		for i, s := range got {
			require.Equal(t, strs[i], s.String)
			mine = append(mine, at(s.Finger))
		}
		best := 1 << 20
		var try func(sofar []int)
		try = func(sofar []int) {
			if len(sofar) == len(strs) {
				best = min(best, cost(sofar))
				return
			}
			for f := range names {
				try(append(sofar[:len(sofar):len(sofar)], f))
			}
		}
		try(nil)
		require.Equal(t, best, cost(mine), "%v: %s", strs, letters(got))
	})
}

// Shapes as beginners' chord charts print them (common practice, from memory),
// string by string from the highest number on. Charts differ for E and E minor on
// the ukulele (0432 is printed where 0402 does with a finger less).
func TestChordShapesAgreeWithTheCharts(t *testing.T) {
	for player, chords := range map[string]map[string]string{
		"ukulele": {"C": "0003", "F": "2010", "G": "0232", "Am": "2000", "G7": "0212", "C7": "0001", "Dm": "2210", "A": "2100", "D": "2220", "A7": "0100", "Bb": "3211", "D7": "2223", "E7": "1202", "Gm": "0231"},
		"guitar":  {"C": "x32010", "G": "320003", "D": "xx0232", "Em": "022000", "Am": "x02210", "E": "022100", "A": "x02220", "Dm": "xx0231", "D7": "xx0212", "A7": "x02020", "F": "xx3211", "G7": "320001", "C7": "x32310", "E7": "020100", "B7": "x21202"},
	} {
		for name, want := range chords {
			s, err := Chord(open(t, player), name)
			require.NoError(t, err)
			var b strings.Builder
			for i := len(s.Frets) - 1; i >= 0; i-- {
				b.WriteString(strings.Replace(fmt.Sprint(s.Frets[i]), "-1", "x", 1))
			}
			require.Equal(t, want, b.String(), "%s, %s", player, name)
		}
	}
	g, err := Chord(open(t, "ukulele"), "G")
	require.NoError(t, err)
	for player, chords := range map[string]map[string][]int{ // fingers by string, string 1 first
		"guitar":  {"C": {0, 1, 0, 2, 3, 0}, "F": {1, 1, 2, 3, 0, 0}, "D": {2, 3, 1, 0, 0, 0}, "Am": {0, 1, 3, 2, 0, 0}, "E": {0, 0, 1, 3, 2, 0}, "Dm": {1, 3, 2, 0, 0, 0}, "G7": {1, 0, 0, 0, 2, 3}},
		"ukulele": {"F": {0, 1, 0, 2}, "Bb": {1, 1, 2, 3}, "G7": {3, 1, 2, 0}, "A": {0, 0, 1, 2}, "Dm": {0, 1, 3, 2}},
		"banjo":   {"C": {3, 1, 0, 2, 0}, "F": {4, 1, 2, 3, 0}},
	} {
		for name, want := range chords {
			s, err := Chord(open(t, player), name)
			require.NoError(t, err)
			require.Equal(t, want, s.Fingers, "%s %s", player, name)
		}
	}
	require.Equal(t, []int{2, 3, 1, 0}, g.Fingers, "G: the first finger on the third string, 2 and 3 on the others")
}

// Going from F to A minor the second finger stays; from C to F none does.
func TestWhatStaysInAChange(t *testing.T) {
	shape := func(name string) Shape {
		s, err := Chord(open(t, "ukulele"), name)
		require.NoError(t, err)
		return s
	}
	c := ChangeOf(shape("F"), shape("Am"))
	require.Equal(t, "Finger 2 stays down; the others move around it.", c.Words)
	require.Equal(
		t,
		[]Move{
			{Finger: 1, How: "lifts", FromString: 2, FromFret: 1},
			{Finger: 2, How: "stays", FromString: 4, FromFret: 2, ToString: 4, ToFret: 2},
		},
		c.Moves,
	)
	require.Contains(t, ChangeOf(shape("C"), shape("F")).Words, "No finger stays")
	require.Contains(t, ChangeOf(Shape{Frets: []int{1}, Fingers: []int{1}}, Shape{Frets: []int{3}, Fingers: []int{1}}).Words, "slides")
}

func TestWhatCannotBePlucked(t *testing.T) {
	uke := open(t, "ukulele")
	for want, f := range map[string]func() error{
		"no string 9":      func() error { _, err := Fingers(uke, []int{1, 9}); return err },
		"2 to 64 strokes":  func() error { _, err := Fingers(uke, []int{1}); return err },
		"plucked strings":  func() error { _, err := Fingers(open(t, "cello"), []int{1, 2}); return err },
		"is not a chord":   func() error { _, err := Chord(uke, "Hx"); return err },
		`"" is not a`:      func() error { _, err := Chord(uke, ""); return err },
		"for plucked stri": func() error { _, err := Chord(open(t, "piano"), "C"); return err },
	} {
		require.ErrorContains(t, f(), want)
	}
}

// What no hand can do is in no shape: a finger lies on one fret, higher fingers lie on higher frets, the
// first frets are not left, and a shape without the root of its chord is none.
func TestEveryShapeLiesUnderOneHand(t *testing.T) {
	shapes := 0
	for _, player := range []string{"ukulele", "guitar", "banjo"} {
		x := open(t, player)
		for _, root := range []string{"C", "C#", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"} {
			for _, kind := range []string{"", "m", "7"} {
				s, err := Chord(x, root+kind)
				if err != nil {
					continue
				}
				shapes++
				name := player + " " + root + kind
				notes, class, err := chordNotes(root + kind)
				require.NoError(t, err)
				fretOf := map[int]int{}
				has := map[int]bool{}
				for i, fret := range s.Frets {
					if fret < 0 {
						continue
					}
					pitch := (x.Open[i].Semitone() + fret) % 12
					require.True(t, notes[pitch], "%s: string %d is not in the chord", name, i+1)
					has[pitch] = true
					finger := s.Fingers[i]
					require.Equal(t, fret > 0, finger > 0, "%s: string %d", name, i+1)
					if finger > 0 {
						if before, there := fretOf[finger]; there {
							require.Equal(t, before, fret, "%s: finger %d lies on two frets", name, finger)
						}
						fretOf[finger] = fret
						require.LessOrEqual(t, fret, 5, name)
					}
				}
				require.True(t, has[class], "%s has no root", name)
				for a, fa := range fretOf {
					for b, fb := range fretOf {
						if a < b {
							require.LessOrEqual(t, fa, fb, "%s: finger %d lies beyond finger %d", name, a, b)
						}
					}
				}
			}
		}
	}
	require.Greater(t, shapes, 80)
}

// A change accounts for every finger of both shapes once; to change to the same chord nothing moves.
func TestAChangeAccountsForEveryFinger(t *testing.T) {
	names := []string{"C", "F", "G7", "Am", "G", "Dm", "A", "D"}
	for _, player := range []string{"ukulele", "guitar"} {
		for _, a := range names {
			for _, b := range names {
				from, err := Chord(open(t, player), a)
				require.NoError(t, err)
				to, err := Chord(open(t, player), b)
				require.NoError(t, err)
				c := ChangeOf(from, to)
				require.NotEmpty(t, c.Words)
				fingers := map[int]int{}
				for _, m := range c.Moves {
					fingers[m.Finger]++
					require.Contains(t, []string{"stays", "slides", "moves", "lifts", "sets"}, m.How)
					require.Equal(t, m.How == "sets", m.FromString == 0, "%s to %s", a, b)
					require.Equal(t, m.How == "lifts", m.ToString == 0, "%s to %s", a, b)
					if a == b {
						require.Equal(t, "stays", m.How)
					}
				}
				for _, shape := range []Shape{from, to} {
					for _, f := range shape.Fingers {
						if f > 0 {
							require.Equal(t, 1, fingers[f], "finger %d from %s to %s", f, a, b)
						}
					}
				}
			}
		}
	}
}

// A row of chords has each shape once, in the order in which they come; what is no chord is left out.
func TestEachShapeOnce(t *testing.T) {
	var names []string
	for _, s := range Shapes(open(t, "ukulele"), []string{"C", "G", "nonsense", "C", "Am", "G"}) {
		names = append(names, s.Name)
	}
	require.Equal(t, []string{"C", "G", "Am"}, names)
	require.Empty(t, Shapes(open(t, "ukulele"), nil))
}
