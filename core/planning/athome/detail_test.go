package athome

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/reading"
	"patientladder/core/technique/exercise"
)

// From thirteen on a student practises alone; under seven something is said aloud and hands change place in turn.
func TestWhatAgesMean(t *testing.T) {
	it := week.Item{Kind: week.Join, Start: 0, End: 8, Times: 2}
	of := func(age int) Card { return Of(it, Source{Piece: twoHands(t), Age: age}) }
	require.Equal(t, []Voice{ToBoth, ToOne}, []Voice{of(12).Voice, of(13).Voice})
	require.Equal(t, []bool{true, false}, []bool{of(6).Swaps, of(7).Swaps})
	require.Equal(t, []bool{true, false}, []bool{len(of(6).Say) > 0, len(of(7).Say) > 0})
}

// A game has its keys and no more, whatever the student can read.
func TestAGameLooksForItsKeys(t *testing.T) {
	src := Source{Piece: twoHands(t), Age: 5, Keys: []int{60, 64}, Cue: "clap"}
	c := Of(week.Item{Kind: week.Game, Start: 0, End: 4}, src)
	require.Equal(
		t,
		[]Hand{{Hand: reading.Either, Finger: -1, Touches: []Touch{{MIDI: 60, Finger: -1, First: true}, {MIDI: 64, Finger: -1, First: true}}}},
		c.Hands,
	)
	require.Equal(t, []any{Tempo{}, Enough, Time}, []any{c.Tempo, c.Good, c.End})
	require.Empty(t, c.Gaps)
	src.Keys = nil
	require.Nil(t, Of(week.Item{Kind: week.Game}, src).Hands)
	require.NotEqual(t, "clap", string(Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 5}, src).Cue), "the cue is the game's")
}

func TestWhenToStop(t *testing.T) {
	for _, x := range []struct {
		it   week.Item
		want End
	}{
		{week.Item{Kind: week.Whole, Times: 1}, Once}, {week.Item{Kind: week.Whole, Times: 2}, Boxes}, {week.Item{Kind: week.Look}, Time},
		{week.Item{Kind: week.Hear}, Time},
		{week.Item{Kind: week.Game}, Time}, {week.Item{Kind: week.Game, Times: 3}, Boxes}, {week.Item{Kind: week.Listen}, Once},
		{week.Item{Kind: week.Review, Times: 1}, Once},
	} {
		require.Equal(t, x.want, endOf(x.it), "%v", x.it)
	}
}

// A note at the first of each hand's, rests between, and thirty-two words at the most; hands that play at once are said one after
// the other.
func TestWhatIsSaidInOrder(t *testing.T) {
	of := func(tune string, approach naming.Approach, end float64) Card {
		src := Source{Age: 5, Approach: approach, Piece: read(t, "X:1\nL:1/4\nM:4/4\nK:C\n"+tune, "piano")}
		return Of(week.Item{Kind: week.Chunk, Start: 0, End: end, Times: 5}, src)
	}
	require.Equal(t, []string{"C4", "rest", "E4", "E4"}, says(of("Cz EE|", naming.ByName, 4).Say))
	require.Equal(t, []string{"C4", "rest", "up", "same"}, says(of("Cz EE|", naming.ByDirection, 4).Say))
	require.Equal(t, Say{Start: true, Pitch: "C4", Finger: 1}, of("Cz EE|", naming.ByDirection, 4).Say[0].Words[0])
	long := of(strings.Repeat("CDEF|", 9), naming.ByName, 36)
	require.Equal(t, []any{32, true}, []any{len(long.Say[0].Words), long.More})
	full := of(strings.Repeat("CDEF|", 8), naming.ByName, 32)
	require.Equal(t, []any{32, false}, []any{len(full.Say[0].Words), full.More})

	at := Of(week.Item{Kind: week.Join, Start: 8, End: 12, Times: 5}, Source{Age: 5, Approach: naming.ByName, Piece: twoHands(t)})
	require.Equal(t, []string{"E4", "left:", "C4"}, says(at.Say))
}

// Open strings are said as fingers too: nought.
func TestAnOpenStringIsSaid(t *testing.T) {
	p := read(t, "X:1\nL:1/4\nM:4/4\nK:D\nD,E,D,F,|", "cello")
	c := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 5}, Source{Age: 5, Approach: naming.ByPosition, Piece: p})
	require.Equal(t, []string{"0", "1", "0", "3"}, says(c.Say))
	require.NotContains(t, c.Gaps, NoFinger)
	require.Equal(t, []int{2, 0}, []int{c.Hands[0].Touches[0].String, c.Hands[0].Touches[0].Above})
}

// The lowest string of all is a string like the others.
func TestTheLowestString(t *testing.T) {
	p := read(t, "X:1\nL:1/4\nM:4/4\nK:C\nC,,D,,E,,C,,|", "cello")
	c := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 5}, Source{Age: 9, Piece: p})
	require.Equal(t, "C2 0", touches(c.Hands[0])[0][1:])
	require.Equal(t, []int{4, 0}, []int{c.Hands[0].Touches[0].String, c.Hands[0].Touches[0].Above})
	require.Equal(t, []int{4, 2}, []int{c.Hands[0].Touches[1].String, c.Hands[0].Touches[1].Above})
}

// What is learned goes at its own tempo, what is due for its run too; a drill goes where its tempo ladder stands.
func TestWhichTempo(t *testing.T) {
	four := read(t, "X:1\nL:1/4\nM:4/4\nK:C\nCDEF|GABc|", "piano")
	beats := func(kind week.Kind, due bool, mark int) (int, bool) {
		x := tempoOf(
			week.Item{Kind: kind, Start: 0, End: 8},
			Source{Material: material.Material{Tempo: 100}, Piece: four, RunDue: due, Mark: mark},
		)
		return x.Beats, x.Full
	}
	for _, x := range []struct {
		kind  week.Kind
		due   bool
		mark  int
		beats int
		full  bool
	}{
		{week.Review, false, 0, 100, true}, {week.Whole, false, 0, 60, false}, {week.Whole, true, 0, 100, true},
		{week.Drilled, true, 0, 100, true},
		{week.Drilled, false, 0, 60, false}, {week.Chunk, true, 0, 60, false}, {week.Drilled, false, 72, 72, false},
		{week.Drilled, true, 72, 72, false}, {week.Chunk, false, 72, 60, false},
	} {
		got, full := beats(x.kind, x.due, x.mark)
		require.Equal(t, []any{x.beats, x.full}, []any{got, full}, "%v", x)
	}
	require.Equal(t, Tempo{}, tempoOf(week.Item{Kind: week.Whole}, Source{}), "nobody knows")
	require.Equal(t, Tempo{}, tempoOf(week.Item{Kind: week.Whole}, Source{Material: material.Material{Tempo: 0}, Piece: four}))
}

// In six eight the beat is a dotted crotchet, from the bar on in which the metre changes.
func TestTheBeatWhereAThingBegins(t *testing.T) {
	p := read(t, "X:1\nL:1/8\nM:4/4\nK:C\nC2D2E2F2|[M:6/8]CDEFGA|", "piano")
	require.Equal(t, []float64{1, 1, 1.5, 1.5}, []float64{beatAt(p, 0), beatAt(p, 3.5), beatAt(p, 4), beatAt(p, 6)})
	x := tempoOf(week.Item{Kind: week.Drilled, Start: 4}, Source{Piece: p, Mark: 60})
	require.Equal(t, Tempo{Beats: 60, Quarters: 90, Feel: Slow}, x)
	whole := tempoOf(week.Item{Kind: week.Review, Start: 4}, Source{Piece: p, Material: material.Material{Tempo: 90}})
	require.Equal(t, Tempo{Beats: 60, Quarters: 90, Feel: Slow, Full: true}, whole)
}

// A stretch holds what begins in it; without a stretch it is everything.
func TestWhatBeginsInAStretch(t *testing.T) {
	p := read(t, "X:1\nL:1/4\nM:4/4\nK:C\nCDEF|GABc|", "piano")
	n := func(from, to float64) int { return len(within(p.Lines[0], week.Item{Start: from, End: to})) }
	require.Equal(t, []int{4, 8, 8, 3, 1}, []int{n(0, 4), n(0, 8), n(2, 2), n(1, 4), n(7, 8)})
}

// Touches lie from low to high; the same pitch on two strings from the higher string to the lower.
func TestTouchesFromLowToHigh(t *testing.T) {
	p := read(t, "X:1\nL:1/4\nM:4/4\nK:C\ncGAE|", "piano")
	c := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 5}, Source{Age: 9, Piece: p})
	var midi []int
	for _, x := range c.Hands[0].Touches {
		midi = append(midi, x.MIDI)
	}
	require.Equal(t, []int{64, 67, 69, 72}, midi)
	require.Equal(
		t,
		[]bool{false, false, false, true},
		[]bool{c.Hands[0].Touches[0].First, c.Hands[0].Touches[1].First, c.Hands[0].Touches[2].First, c.Hands[0].Touches[3].First},
	)
}

// Chords on strings are drawn one by one, each with its own fingers: of C and G7 on a ukulele no finger stands on two strings.
func TestAChordChangeHasAPictureAChord(t *testing.T) {
	player, known := instrument.Of("ukulele")
	require.True(t, known)
	e, err := exercise.Parse("changes/four/-/-/C-G7", player)
	require.NoError(t, err)
	s, err := e.Score(naming.Words{})
	require.NoError(t, err)
	c := Of(week.Item{Kind: week.Drilled, Times: 3, Goals: []string{"a", "b"}}, Source{Age: 40, Piece: analysis.Of(s, "ukulele"), Material: material.Material{Tempo: 60}})
	var got []string
	for _, h := range c.Hands {
		shape := h.Chord
		for _, x := range h.Touches {
			shape += fmt.Sprintf(" %d:%d/%d", x.String, x.Above, x.Finger)
		}
		got = append(got, shape)
	}
	require.Equal(t, []string{"C 4:0/0 3:0/0 2:0/0 1:3/3", "G7 4:0/0 3:2/2 2:1/1 1:2/3"}, got)
	require.Empty(t, c.Gaps)
	require.False(t, c.Swaps)
}

// What is loud or soft is told of the bars: what holds from before, each once, in its order.
func TestTheMarksOfAStretch(t *testing.T) {
	p := read(t, "X:1\nL:1/4\nM:4/4\nK:C\n!p!CDEF|GA!f!Bc|!p!CDEF|GABc|", "piano")
	of := func(from, to float64) []string {
		return Of(week.Item{Kind: week.Chunk, Start: from, End: to, Times: 3}, Source{Age: 9, Piece: p}).Marks
	}
	require.Equal(t, []string{"p"}, of(0, 4))
	require.Equal(t, []string{"p", "f"}, of(4, 8))
	require.Equal(t, []string{"p"}, of(12, 16))
	require.Equal(t, []string{"p", "f"}, of(0, 0))
	require.Empty(t, Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 3}, Source{Age: 9, Piece: p, BySound: true}).Marks)
}
