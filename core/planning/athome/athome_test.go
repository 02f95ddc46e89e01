package athome

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/reading"
)

func read(t require.TestingT, tune, player string) *analysis.Piece {
	pieces, err := abc.Read([]byte(tune))
	require.NoError(t, err)
	return analysis.Of(pieces[0], player)
}

// twoHands is a tune in which the right hand begins on E with finger 3, then the left on C with finger 1, and both at last.
func twoHands(t require.TestingT) *analysis.Piece {
	note := func(step string, octave, duration, staff int, finger string) string {
		f := ""
		if finger != "" {
			f = "<notations><technical><fingering>" + finger + "</fingering></technical></notations>"
		}
		return fmt.Sprintf(
			"<note><pitch><step>%s</step><octave>%d</octave></pitch><duration>%d</duration><voice>%d</voice><type>quarter</type><staff>%d</staff>%s</note>",
			step,
			octave,
			duration,
			staff,
			staff,
			f,
		)
	}
	rest := func(duration, staff int) string {
		return fmt.Sprintf("<note><rest/><duration>%d</duration><voice>%d</voice><staff>%d</staff></note>", duration, staff, staff)
	}
	back := "<backup><duration>4</duration></backup>"
	xml := `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">` +
		`<measure number="1"><attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>` +
		note("E", 4, 1, 1, "3") + note("F", 4, 1, 1, "") + note("F", 4, 1, 1, "") + note("D", 4, 1, 1, "") + back + rest(4, 2) + `</measure>` +
		`<measure number="2">` + rest(4, 1) + back + note("C", 4, 1, 2, "1") + note("B", 3, 1, 2, "") + note("A", 3, 2, 2, "") + `</measure>` +
		`<measure number="3">` + note("E", 4, 4, 1, "3") + back + note("C", 4, 4, 2, "1") + `</measure></part></score-partwise>`
	s, err := musicxml.Read([]byte(xml))
	require.NoError(t, err)
	return analysis.Of(s, "piano")
}

func starts(c Card) (out []string) {
	for _, h := range c.Hands {
		out = append(out, fmt.Sprint(h.Hand, " ", h.Finger, " ", strings.Join(h.Keys, "+")))
	}
	return out
}

func touches(h Hand) (out []string) {
	for _, x := range h.Touches {
		first := ""
		if x.First {
			first = "!"
		}
		out = append(out, fmt.Sprintf("%s%s %d", first, x.Pitch, x.Finger))
	}
	return out
}

func says(lines []SayLine) (out []string) {
	var list []Say
	for i, l := range lines {
		if i > 0 || l.Hand == reading.Left {
			list = append(list, Say{Pitch: string(l.Hand) + ":"})
		}
		list = append(list, l.Words...)
	}
	for _, x := range list {
		switch {
		case x.Rest:
			out = append(out, "rest")
		case x.Pitch != "":
			out = append(out, x.Pitch)
		case x.Direction != "":
			out = append(out, strings.TrimSpace(string(x.Direction)+" "+string(x.Kind)))
		default:
			out = append(out, fmt.Sprint(x.Finger))
		}
	}
	return out
}

// A section is about its own bars: who begins in it, with which finger on which key, and what lies under the hand.
func TestASectionSaysItsOwnBeginning(t *testing.T) {
	src := Source{Material: material.Material{ID: "m", Tempo: 80, Page: 7}, Piece: twoHands(t), Age: 6}
	first := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 6, Bars: week.Bars{From: 1, To: 1}}, src)
	require.Equal(t, []string{"right 3 E4"}, starts(first))
	require.Equal(t, []string{"D4 2", "!E4 3", "F4 4"}, touches(first.Hands[0]))
	require.False(t, first.Hands[0].Moves)
	require.Equal(t, []string{"E4", "up", "same", "down"}, says(first.Say))
	require.Equal(t, []Sign{{1, reading.Up, 0}, {2, reading.Same, 0}, {3, reading.Down, 0}}, first.Signs)
	require.Equal(t, []any{7, Same, Boxes, ToBoth}, []any{first.Page, first.Good, first.End, first.Voice})
	require.Empty(t, first.Gaps)
	second := Of(week.Item{Kind: week.Chunk, Start: 4, End: 8, Times: 6}, src)
	require.Equal(t, []string{"left 1 C4"}, starts(second))
	require.Equal(t, []Sign{{5, reading.Down, 1}, {6, reading.Down, 1}}, second.Signs, "on the lower staff")
	both := Of(week.Item{Kind: week.Join, Start: 0, End: 8, Times: 6}, src)
	require.Equal(t, []string{"right 3 E4", "left 1 C4"}, starts(both), "the one that begins stands in front")
	require.True(t, both.Swaps, "one hand after the other")
	require.Equal(t, NoGap, both.Good)
	require.Equal(t, []string{"E4", "up", "same", "down", "left:", "C4", "down", "down"}, says(both.Say), "in the order in which they play")
	require.False(t, Of(week.Item{Kind: week.Whole, Start: 0, End: 12, Times: 2}, src).Swaps, "at last they play at once")
	alone := Of(week.Item{Kind: week.Whole, Start: 0, End: 12, Hand: "left hand", Times: 2}, src)
	require.Equal(t, []string{"left 1 C4"}, starts(alone))
}

// By the way in which a student reads, something else is said aloud; from seven on nothing is.
func TestWhatIsSaidAloud(t *testing.T) {
	it := week.Item{Kind: week.Look, Start: 0, End: 4}
	for approach, want := range map[naming.Approach][]string{
		naming.ByDirection: {"E4", "up", "same", "down"}, naming.ByInterval: {"E4", "up step", "same same", "down skip"},
		naming.ByName: {"E4", "F4", "F4", "D4"}, naming.ByPosition: {"3", "4", "4", "2"},
	} {
		src := Source{Piece: twoHands(t), Age: 6, Approach: approach}
		require.Equal(t, want, says(Of(it, src).Say), approach)
		src.Age = 7
		require.Empty(t, Of(it, src).Say, approach)
		require.Empty(t, Of(it, src).Signs, approach)
		src.Age, src.BySound = 6, true
		require.Empty(t, Of(it, src).Say, "nothing is read yet")
	}
	long := Source{Piece: read(t, "X:1\nL:1/8\nM:4/4\nK:C\nCDEFGABc|", "piano"), Age: 5}
	c := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 5}, long)
	require.Len(t, c.Say[0].Words, 8)
	require.False(t, c.More)
	long.Piece = read(t, "X:1\nL:1/8\nM:4/4\nK:C\nCDEFGABc|cBAGFEDC|", "piano")
	c = Of(week.Item{Kind: week.Join, Start: 0, End: 8, Times: 5}, long)
	require.Len(t, c.Say[0].Words, 16)
	require.False(t, c.More)
	require.Empty(t, Of(week.Item{Kind: week.Whole, Start: 0, End: 8, Times: 2}, long).Say, "a whole piece is not spoken")
}

// What is learned has its own tempo, what is being learned six tenths of it, on a mark of the metronome; a tempo ladder
// holds before both. Beats, not quarter notes, are clicked: in six-eight two of them to a bar.
func TestHowFast(t *testing.T) {
	src := Source{Material: material.Material{Tempo: 80}, Piece: twoHands(t), Age: 8}
	require.Equal(t, Tempo{48, 48, Slow, false}, Of(week.Item{Kind: week.Chunk, End: 4, Times: 3}, src).Tempo)
	require.Equal(t, Tempo{80, 80, Walking, true}, Of(week.Item{Kind: week.Review, End: 12, Times: 1}, src).Tempo)
	src.RunDue = true
	require.Equal(t, Tempo{80, 80, Walking, true}, Of(week.Item{Kind: week.Whole, End: 12, Times: 2}, src).Tempo)
	require.Equal(t, AsARun, Of(week.Item{Kind: week.Whole, End: 12, Times: 2}, src).Good)
	src.RunDue, src.Mark = false, 72
	require.Equal(t, Tempo{72, 72, Walking, false}, Of(week.Item{Kind: week.Drilled, End: 12, Times: 3, Goals: []string{"even"}}, src).Tempo)
	require.Equal(t, Tempo{}, Of(week.Item{Kind: week.Look, End: 4}, src).Tempo, "nothing is played")
	jig := Source{Material: material.Material{Tempo: 120}, Piece: read(t, "X:1\nL:1/8\nM:6/8\nK:C\nCDE FGA|c3 C3|", "piano"), Age: 8}
	require.Equal(t, Tempo{80, 120, Walking, true}, Of(week.Item{Kind: week.Review, End: 6, Times: 1}, jig).Tempo)
	for beats, want := range map[int]Feel{45: Resting, 46: Slow, 65: Slow, 66: Walking, 99: Walking, 100: Striding, 131: Striding, 132: Running} {
		require.Equal(t, want, FeelOf(beats), beats)
	}
}

// On strings the string and the place are known: a cello's D string, first finger on E; an open string has none.
func TestStrings(t *testing.T) {
	cello := Source{Piece: read(t, "X:1\nL:1/4\nM:4/4\nK:D clef=bass\nE,F,G,A,|", "cello"), Age: 9}
	c := Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 3}, cello)
	require.Len(t, c.Hands, 1)
	h := c.Hands[0]
	require.Equal(t, []any{reading.Whole, 1, 2, []string{"E3"}}, []any{h.Hand, h.Finger, h.String, h.Keys})
	var got []string
	for _, x := range h.Touches {
		got = append(got, fmt.Sprintf("%s string %d +%d finger %d", x.Pitch, x.String, x.Above, x.Finger))
	}
	require.Equal(
		t,
		[]string{"E3 string 2 +2 finger 1", "F#3 string 2 +4 finger 3", "G3 string 2 +5 finger 4", "A3 string 1 +0 finger 0"},
		got,
	)
	uke := Source{Piece: read(t, "X:1\nL:1/4\nM:4/4\nK:C\nCEGc|", "ukulele"), Age: 40}
	c = Of(week.Item{Kind: week.Chunk, Start: 0, End: 4, Times: 3, InRow: true}, uke)
	require.Equal(t, []any{0, 3, ToOne, InRow}, []any{c.Hands[0].Finger, c.Hands[0].String, c.Voice, c.Good})
}

// What nobody knows is said to be unknown; a game, a listening and a bite ask for nothing more than their words.
func TestWhatCannotBeKnown(t *testing.T) {
	src := Source{Material: material.Material{ID: "m", Title: "Tune"}, Age: 8}
	c := Of(week.Item{Kind: week.Whole, Times: 5}, src)
	require.Equal(t, []Gap{NoScore, NoHand, NoTempo}, c.Gaps)
	require.Equal(t, Even, c.Good)
	src.Material.Tempo = 90
	require.Equal(t, []Gap{NoScore, NoHand}, Of(week.Item{Kind: week.Whole, Times: 5}, src).Gaps)
	for kind, good := range map[week.Kind]Good{week.Game: Enough, week.Listen: Hummed, week.Preview: Shown} {
		c := Of(week.Item{Kind: kind, Times: 1}, Source{Age: 8})
		require.Empty(t, c.Gaps, kind)
		require.Equal(t, good, c.Good)
	}
	require.Equal(t, Time, Of(week.Item{Kind: week.Game, Times: 1}, src).End)
	require.Equal(t, Once, Of(week.Item{Kind: week.Review, Times: 1, End: 4}, src).End)
	require.Equal(t, []any{Pointed, Hummed, Level, Goal, Kept}, []any{
		goodOf(week.Item{Kind: week.Look}, src), goodOf(week.Item{Kind: week.Hear}, src), goodOf(week.Item{Kind: week.Spot}, src),
		goodOf(week.Item{Kind: week.Drilled, Goals: []string{"x"}}, src), goodOf(week.Item{Kind: week.Review}, src),
	})
}

// Whatever the stretch is: each hand begins in it, every key that it begins with is lit as the first, none twice, and none
// from outside it.
func TestACardIsAboutItsStretch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		notes := rapid.SliceOfN(rapid.SampledFrom([]string{"C", "D", "E", "F", "G", "A", "B", "c", "d", "e"}), 8, 24).Draw(t, "notes")
		notes = notes[:len(notes)/4*4]
		tune := "X:1\nL:1/4\nM:4/4\nK:C\n"
		for i, n := range notes {
			tune += n
			if i%4 == 3 {
				tune += "|"
			}
		}
		p := read(t, tune, rapid.SampledFrom([]string{"piano", "cello", "ukulele", "violin"}).Draw(t, "player"))
		from := rapid.IntRange(0, len(notes)/4-1).Draw(t, "from")
		it := week.Item{Kind: week.Chunk, Start: float64(4 * from), End: float64(4*from + 4), Times: 3}
		c := Of(it, Source{Piece: p, Age: 6})
		require.Len(t, c.Hands, 1)
		h := c.Hands[0]
		require.Equal(t, it.Start, h.At)
		lit := map[string]bool{}
		for _, x := range h.Touches {
			key := fmt.Sprint(x.Pitch, x.String)
			require.False(t, lit[key], key)
			lit[key] = true
			require.Equal(t, x.First, x.Pitch == h.Keys[0] && x.String == h.String, x.Pitch)
		}
		require.LessOrEqual(t, len(h.Touches), 4)
		for _, s := range c.Signs {
			require.True(t, s.At > it.Start && s.At < it.End)
		}
	})
}

// On a neck stands what is played on a string, on a keyboard what a hand plays on keys; of an undivided part without
// strings nobody knows where it lies.
func TestWhereATouchIsDrawn(t *testing.T) {
	key, open, dot := Touch{MIDI: 60, Finger: 1}, Touch{MIDI: 57, Finger: 0, String: 1}, Touch{MIDI: 59, Finger: -1, String: 1, Above: 2}
	all := []Touch{key, open, dot}
	require.Equal(t, []Touch{open, dot}, Hand{Hand: reading.Right, Touches: all}.OnStrings())
	require.Equal(t, []Touch{key}, Hand{Hand: reading.Right, Touches: all}.OnKeys())
	require.Equal(t, []Touch{open, dot}, Hand{Hand: reading.Whole, Touches: all}.OnStrings())
	require.Empty(t, Hand{Hand: reading.Whole, Touches: all}.OnKeys())
	require.Equal(t, []string{"1", "0", ""}, []string{key.Sign(), open.Sign(), dot.Sign()})
}
