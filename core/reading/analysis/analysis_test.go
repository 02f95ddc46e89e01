package analysis

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

func typed(t require.TestingT, tune string) *score.Score {
	tunes, err := abc.Read([]byte("X:1\nM:4/4\nL:1/4\n" + tune))
	require.NoError(t, err)
	return tunes[0]
}

func found(p *Piece, name string) []int { return p.Features()[name] }

// Rhythms worked by hand, bar by bar.
func TestRhythm(t *testing.T) {
	p := Of(typed(t, "K:C\nG|C2D2|E/F/G (3A/B/c/ d|e>f e2-|e/ c e/ d2|z C2 D|[M:6/8]C3/2D/E/F/|[M:5/4]CDEFG|"), "piano")
	for name, want := range map[string][]int{
		"pickup": {1}, "value.2": {2, 4, 5, 6}, "cell.1/2+1/2": {3}, "cell.1/3+1/3+1/3": {3}, "value.triplet": {3},
		"value.3/2": {4, 7}, "tie": {4}, "tie.over-bar": {4}, "syncopation": {5}, "rest": {6}, "syncopation.beats": {6},
		"time.compound": {7}, "time.change": {7, 8}, "time.uneven": {8},
	} {
		require.Equal(t, want, found(p, name), name)
	}
}

// Polyrhythms counted by hand: onsets of each hand in the same beat or bar.
func TestPolyrhythm(t *testing.T) {
	for tune, want := range map[string]string{
		"K:C\nV:1\n(3c/d/e/ f2 f|\nV:2 clef=bass\nC,/D,/E,2E,|":                      "polyrhythm.3:2",
		"M:3/4\nK:C\nV:1\ncde|\nV:2 clef=bass\nC,3/2D,3/2|":                          "polyrhythm.3:2",
		"M:3/4\nK:C\nV:1\nc3/4d3/4e3/4f3/4|\nV:2 clef=bass\nC,D,E,|":                 "polyrhythm.4:3",
		"K:C\nV:1\n(5:4:5c/4d/4e/4f/4g/4 c3|\nV:2 clef=bass\nC,/D,/E,3|":             "polyrhythm.5:2",
		"K:C\nV:1\nc/d/ e2 e|\nV:2 clef=bass\nC,/4D,/4E,/4F,/4 G,3|":                 "",
		"K:C\nV:1\n(3c/d/e/ f3|\nV:2 clef=bass\n(6:4:6C,/4D,/4E,/4F,/4G,/4A,/4 C,3|": "",
		"M:3/4\nK:C\nV:1\nc3/2d3/2|\nV:2 clef=bass\nC,/D,/E,/F,/G,/A,/|":             "",
	} {
		p := Of(typed(t, tune), "piano")
		got := ""
		for _, name := range p.Texture.Names() {
			if len(name) > 11 && name[:11] == "polyrhythm." {
				got = name
			}
		}
		require.Equal(t, want, got, tune)
	}
}

// Two hands worked by hand.
func TestTexture(t *testing.T) {
	p := Of(typed(t, "K:C\nV:1\ncdef|c4|cBAG|.c.d.e.f|c2 z2|\nV:2 clef=bass\nC,D,E,F,|C,E,G,E,|C,D,E,F,|(C,D,E,F,)|z2 C,2|"), "piano")
	for name, want := range map[string][]int{
		"hands.parallel": {1, 2, 4}, "hands.moving-against-held": {2}, "hands.contrary": {3, 4}, "hands.different-touch": {4},
		"hands.switch": {5},
	} {
		require.Equal(t, want, found(p, name), name)
	}
}

// Pitches worked by hand, bar by bar.
func TestPitch(t *testing.T) {
	p := Of(typed(t, "K:D\nDEFG|ABcd|^GAaf|[DF][DA][Dd]2|D^DE=F|D/A/F/A/ D/A/F/A/|A,DFA|d'd'D,2|[K:Gm]B4|"), "piano")
	for name, want := range map[string][]int{
		"key.sharps-2": {1, 2, 3, 4, 5, 6, 7, 8}, "key.flats-2": {9}, "key.change": {9}, "key.minor": {9},
		"accidental": {3, 5}, "scale-run": {2}, "chromatic-run": {5}, "chord.2": {4}, "chord.octave": {4},
		"chord.number-3": {4}, "chord.number-5": {4}, "alberti": {6}, "broken-chord": {7}, "ledger.below": {7, 8},
		"ledger.above": {3, 8}, "move.wide": {3, 4, 5, 7, 8, 9}, // octaves and more, within or into the bar
	} {
		require.Equal(t, want, found(p, name), name)
	}
	require.Equal(t, []int{7}, found(p, "arpeggio"), "from A up to A")
	up := Of(typed(t, "K:C\nCEGc|eg z2|"), "piano")
	require.Equal(t, []int{1, 2}, found(up, "arpeggio"), "the octave is reached at the fourth note")
}

func TestExpression(t *testing.T) {
	p := Of(typed(t, "K:C\n!pp!(CD)EF|!ff!.C!>!DEF|!<(!(CDEF|G!<)!)!fermata!G2 TA|{c}B !ped!C !ped-up!D2|\"^rit.\"C4|"), "piano")
	for name, want := range map[string][]int{
		"dynamics.contrast": {1, 2}, "slur.two-note": {1}, "touch.staccato": {2}, "touch.accent": {2}, "hairpin.crescendo": {3},
		"slur.long": {4}, "fermata": {4}, "ornament.trill-mark": {4}, "grace": {5}, "pedal": {5}, "tempo.slowing": {6},
	} {
		require.Equal(t, want, found(p, name), name)
	}
}

func TestPlayingTimeFollowsRepeatsAndTempo(t *testing.T) {
	p := Of(typed(t, "Q:1/4=60\nK:C\n|:C4|D4:|[Q:1/4=120]E4|"), "piano")
	require.InDelta(t, 20, p.Time.Quarters, 1e-9)
	require.InDelta(t, 12, p.Time.Once, 1e-9)
	require.InDelta(t, 18/1.1, p.Time.Low, 1, "16 quarters at 60 and 4 at 120 are 18 seconds")
	require.InDelta(t, 18/0.9, p.Time.High, 1)
	free := Of(typed(t, "K:C\nC4|"), "piano")
	require.Less(t, free.Time.Low, free.Time.High)
	require.Contains(t, free.Time.Why, "no tempo is written")
}

// Transposing a piece moves every pitch and changes no direction, no size of
// an interval, no pattern and no rhythm.
func TestTranspositionMovesOnlyPitches(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "K:C\n"
		for range rapid.IntRange(1, 5).Draw(t, "bars") {
			for range 4 {
				text += rapid.SampledFrom([]string{"C", "D", "E", "G", "[CE]", "z", "c/d/"}).Draw(t, "note")
			}
			text += "|"
		}
		low, high := typed(t, text), typed(t, text)
		by := rapid.SampledFrom([]int{-12, 12, 24}).Draw(t, "by")
		for i := range high.Notes {
			if n := &high.Notes[i]; !n.Rest {
				n.Pitch.Octave += by / 12
				n.MIDI += by
			}
		}
		a, b := Of(low, "piano"), Of(high, "piano")
		require.Equal(t, a.Load, b.Load)
		require.Equal(t, a.Rhythm, b.Rhythm)
		if len(a.Lines) == 0 {
			return
		}
		strip := func(moves []reading.Move) (out []reading.Move) { return append(out, moves...) }
		require.Equal(t, strip(a.Lines[0].Moves), strip(b.Lines[0].Moves))
		require.Equal(t, len(a.Lines[0].Position.Shifts), len(b.Lines[0].Position.Shifts))
	})
}

func TestReportIsJSONWithNoEmptyHoles(t *testing.T) {
	p := Of(typed(t, "T:Reeds\nK:C\nCDEF|C4|"), "piano")
	data, err := json.Marshal(p.Report(1, nil, nil))
	require.NoError(t, err)
	var back map[string]any
	require.NoError(t, json.Unmarshal(data, &back))
	for _, key := range []string{"title", "bars", "parts", "lines", "texture", "findings", "patterns", "learningLoad", "motifs", "chunks", "time", "skipped"} {
		require.NotNil(t, back[key], key)
	}
}

// A tune in A major whose second fingers are all high asks for no low one; in G the C on the A string is low; with C sharp and
// C in one tune both are asked for, and said so. A cello's second finger is always the low one of its pattern.
func TestTheSecondFingerIsLowOrHigh(t *testing.T) {
	second := func(player, tune string) map[string][]int {
		pieces, err := abc.Read([]byte(tune))
		require.NoError(t, err)
		out := map[string][]int{}
		for name, bars := range Of(pieces[0], player).Technique {
			if len(name) > 8 && name[:8] == "finger.2" {
				out[name] = bars
			}
		}
		return out
	}
	require.Equal(t, map[string][]int{"finger.2.high": {1, 2}}, second("violin", "X:1\nL:1/4\nM:4/4\nK:A\nABcd|ecBA|\n"))
	require.Equal(t, map[string][]int{"finger.2.low": {1, 2}}, second("violin", "X:1\nL:1/4\nM:4/4\nK:G\nABcd|dcBA|\n"))
	require.Equal(
		t,
		map[string][]int{"finger.2.low": {2}, "finger.2.high": {1}, "finger.2.both": {2}},
		second("violin", "X:1\nL:1/4\nM:4/4\nK:D\nABcd|dB=cA|\n"),
	)
	require.Equal(t, map[string][]int{"finger.2.low": {1}}, second("cello", "X:1\nL:1/4\nM:4/4\nK:C clef=bass\nD,E,F,G,|\n"))
	require.Empty(t, second("cello", "X:1\nL:1/4\nM:4/4\nK:D clef=bass\nD,E,F,G,|\n"))
}

// A line that leaves its five fingers by step is a crossing, by which hand it goes: the right passes its thumb under on the
// way up and over it on the way down, the left the other way round. After a rest, or by a leap, it is none.
func TestALineThatLeavesTheHandByStepIsACrossing(t *testing.T) {
	crossings := func(tune string) map[string][]int {
		pieces, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\n" + tune))
		require.NoError(t, err)
		out := map[string][]int{}
		for name, bars := range Of(pieces[0], "piano").Technique {
			if name != "shift" && len(name) > 6 && name[:6] == "shift." {
				out[name] = bars
			}
		}
		return out
	}
	require.Equal(t, map[string][]int{"shift.thumb-under": {1}}, crossings("K:C\nCDEF|GABc|\n"))
	require.Equal(t, map[string][]int{"shift.over-the-thumb": {2}}, crossings("K:C\ncBAG|FEDC|\n"))
	require.Equal(t, map[string][]int{"shift.over-the-thumb": {2}}, crossings("K:C clef=bass\nC,D,E,F,|G,A,B,C|\n"))
	require.Equal(t, map[string][]int{"shift.thumb-under": {1}}, crossings("K:C clef=bass\nCB,A,G,|F,E,D,C,|\n"))
	require.Empty(t, crossings("K:C\nCDEF|G4|\n"), "five fingers suffice")
	require.Empty(t, crossings("K:C\n[CG][DA][EB][Fc]|[Gd][Ae][Bf][cg]|\n"), "held fifths are carried")
	require.Equal(t, map[string][]int{"shift.at-a-rest": {2}}, crossings("K:C\nCDEz|GABc|\n"))
}

// A piece whose bars come again is cut as small as what comes again; one in which everything is new keeps its phrases, and no
// chunk is larger than asked for.
func TestChunksAreAsSmallAsThePatterns(t *testing.T) {
	for tune, want := range map[string]int{
		"CDEF|GFED|CDEF|GFEC|CDEF|GFED|CDEF|GFEC|": 1, // A, B, A, C, and all of it again
		"CDEF|CDEF|GFED|CDEF|GFED|GFED|CDEF|GFED|": 1, // two bars, in an order of their own
		"CDEF|G2E2|AGFE|D4|EEFG|c2G2|FDB,D|C4|":    4,
		"CDEF|GFED|CCDD|EEFF|CDEF|GFED|GGAA|C4|":   2, // a pair that comes again between others
	} {
		list, err := abc.Read([]byte("X:1\nT:T\nM:4/4\nL:1/4\nK:C\n" + tune + "]\n"))
		require.NoError(t, err)
		require.Equal(t, want, Of(list[0], "piano").LeafBars(4, nil), tune)
	}
}
