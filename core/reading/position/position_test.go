package position

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// line reads the first line of a tune typed in ABC.
func line(t require.TestingT, tune string, keyboard bool) (*score.Score, reading.Line) {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\n" + tune))
	require.NoError(t, err)
	lines := reading.Lines(tunes[0], keyboard)
	require.NotEmpty(t, lines)
	return tunes[0], lines[0]
}

func fingers(r Result) []int {
	var out []int
	for _, f := range r.Fingers {
		out = append(out, f.Finger)
	}
	return out
}

// C position (common practice): the right thumb on middle C, the left thumb on
// the G below, two white keys between the thumbs.
func TestTheTwoHandsOfCPosition(t *testing.T) {
	s, l := line(t, "K:C\nCDEF|G4|", true)
	r := Of(s, l, "piano")
	require.Equal(t, "C position", r.Positions[0].Name)
	require.Equal(t, []int{60, 62, 64, 65, 67}, r.Positions[0].Keys)
	require.Equal(t, []int{1, 2, 3, 4, 5}, fingers(r))
	require.True(t, r.Sure)
	s, l = line(t, "K:C clef=bass\nC,D,E,F,|G,4|", true)
	r = Of(s, l, "piano")
	require.Equal(t, []int{5, 4, 3, 2, 1}, fingers(r))
	leftThumb, rightThumb := r.Positions[0].Keys[4], 60
	white := 0
	for k := leftThumb + 1; k < rightThumb; k++ {
		if !score.BlackKey(k) {
			white++
		}
	}
	require.Equal(t, 2, white)
}

// The usual fingering of one octave of C major, both hands, up and down
// (common practice, as in any book of scales): it is what the fewest shifts give.
func TestOneOctaveOfCMajor(t *testing.T) {
	s, l := line(t, "K:C\nCDEF|GABc|cBAG|FEDC|", true)
	r := Of(s, l, "piano")
	require.Equal(t, []int{1, 2, 3, 1, 2, 3, 4, 5, 5, 4, 3, 2, 1, 3, 2, 1}, fingers(r))
	require.Equal(t, []string{"thumb under", "over the thumb"}, []string{r.Shifts[0].How, r.Shifts[1].How})
	require.False(t, r.Sure)
	s, l = line(t, "K:C clef=bass\nC,D,E,F,|G,A,B,C|CB,A,G,|F,E,D,C,|", true)
	require.Equal(t, []int{5, 4, 3, 2, 1, 3, 2, 1, 1, 2, 3, 1, 2, 3, 4, 5}, fingers(Of(s, l, "piano")))
}

// Where several positions would do, the one on the tonic comes to mind first
// (common practice: a tune of E, D and C lies in C position).
func TestThePositionThatComesToMind(t *testing.T) {
	for tune, want := range map[string]string{
		"K:C\nEDCD|EEE2|": "C position", "K:C\nDEFD|": "C position", "K:G\nBAGA|": "G position", "K:Am\nABcA|": "A position",
		"K:F\nAGFG|": "F position", "K:C\nA4|": "A position",
	} {
		s, l := line(t, tune, true)
		require.Equal(t, want, Of(s, l, "piano").Positions[0].Name, tune)
	}
}

// Worked by hand: the fewest positions for a line, and where the hand moves.
func TestShiftsAndStretches(t *testing.T) {
	for name, c := range map[string]struct {
		tune      string
		positions []string
		how       []string
		stretches []int
	}{
		"a leap of an octave at a rest": {"K:C\nCEGz|cegz|", []string{"C position", "C position"}, []string{"at a rest"}, []int{}},
		"a chord of an octave":          {"K:C\n[Cc]4|", []string{"C position"}, nil, []int{1}},
		"held below, moving above":      {"K:C\nC4 & zEGE|", []string{"C position"}, nil, []int{}},
		"held below, out of reach":      {"K:C\nC4 & zEAE|", []string{"C position"}, nil, []int{1}},
		"a printed finger moves it":     {"K:C\n!1!CDE!1!F|", []string{"C position", "F position"}, []string{"thumb under"}, []int{}},
		"named by its lowest key":       {"K:D\n!2!F GAB|", []string{"E position"}, nil, []int{}},
	} {
		t.Run(name, func(t *testing.T) {
			s, l := line(t, c.tune, true)
			r := Of(s, l, "piano")
			var names, how []string
			for _, p := range r.Positions {
				names = append(names, p.Name)
			}
			for _, x := range r.Shifts {
				how = append(how, x.How)
			}
			require.Equal(t, c.positions, names)
			require.Equal(t, c.how, how)
			require.Equal(t, c.stretches, r.Stretches)
		})
	}
}

// First position on the cello (common practice): on the D string E, F, F#, G
// lie under 1, 2, 3, 4; open strings are C, G, D, A.
func TestCello(t *testing.T) {
	s, l := line(t, "K:C clef=bass\nD,E,F,^F,|G,A,B,C|", false)
	r := Of(s, l, "cello")
	require.Len(t, r.Positions, 1)
	require.Equal(t, "first position", r.Positions[0].Name)
	require.Equal(t, []int{0, 1, 2, 3, 4, 0, 1, 2}, fingers(r))
	require.Equal(t, 2, r.Fingers[1].String)
	require.Equal(t, 1, r.Fingers[7].String)
	s, l = line(t, "K:C clef=bass\nA,B,CD|E4|", false)
	r = Of(s, l, "cello")
	require.NotEmpty(t, r.Shifts, "E above the fourth finger needs another position")
	s, l = line(t, "K:E clef=bass\nE,^G,E,2|", false) // E 1 and G# on the D string: the hand opens
	require.Equal(t, []int{1}, Of(s, l, "cello").Stretches)
}

// The ukulele in G C E A with the high G (common practice): C on the open
// third string, the C chord with one finger on the third fret of the first.
func TestUkulele(t *testing.T) {
	s, l := line(t, "K:C\nCDEF|[GCEc]4|", false)
	r := Of(s, l, "ukulele")
	require.Equal(t, []int{0, 2, 0, 1, 0, 0, 0, 3}, fingers(r))
	strs := []int{}
	for _, f := range r.Fingers {
		strs = append(strs, f.String)
	}
	require.Equal(t, []int{3, 3, 2, 2, 3, 2, 4, 1}, strs)
}

// fretted writes a tune as strings with their frets: "3: 0 2".
func fretted(t *testing.T, tune, player string) string {
	s, l := line(t, tune, false)
	open := instrument.Tuning(player)
	out, last := "", 0
	for _, f := range Of(s, l, player).Fingers {
		if f.String != last {
			out += fmt.Sprintf(" %d:", f.String)
			last = f.String
		}
		out += fmt.Sprint(" ", s.Notes[f.Note].MIDI-open[f.String-1])
	}
	return strings.TrimSpace(out)
}

// Scales lie in open position, over the strings in their turn (common handbooks, from memory): on a ukulele the high G
// string beside the lowest is not used for a melody. For one high note the hand goes up and comes back.
func TestScalesInOpenPosition(t *testing.T) {
	for tune, want := range map[[2]string]string{
		{"K:C\nCDEF|GABc|", "ukulele"}:                   "3: 0 2 2: 0 1 3 1: 0 2 3",
		{"K:F\nFGA_B|cBAG|", "ukulele"}:                  "2: 1 3 1: 0 1 3 1 0 2: 3",
		{"K:G\nDEFG|ABcd|", "ukulele"}:                   "3: 2 2: 0 2 3 1: 0 2 3 5",
		{"K:C\nCDEF|GABc|dcBA|", "ukulele"}:              "3: 0 2 2: 0 1 3 1: 0 2 3 5 3 2 0",
		{"K:C\nC,D,E,F,|G,A,B,C|", "guitar"}:             "5: 3 4: 0 2 3 3: 0 2 2: 0 1",
		{"K:G\nG,,A,,B,,C,|D,E,F,G,|", "guitar"}:         "6: 3 5: 0 2 3 4: 0 2 4 3: 0",
		{"K:E minor\nE,,F,,G,,A,,|B,,C,D,E,|", "guitar"}: "6: 0 2 3 5: 0 2 3 4: 0 2",
	} {
		require.Equal(t, want, fretted(t, tune[0], tune[1]), tune)
	}
}

// Whatever is played within an octave, no finger is needed that a hand has
// not, printed fingers are kept, and no other cover of single notes has fewer
// shifts: the exact search agrees with trying every way.
func TestPositionsAreFewestAndFiveFingersSuffice(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 9).Draw(t, "notes")
		text, steps := "", []int{}
		for range n {
			k := rapid.IntRange(0, 13).Draw(t, "step")
			steps = append(steps, k)
			text += []string{"C", "D", "E", "F", "G", "A", "B", "c", "d", "e", "f", "g", "a", "b"}[k]
		}
		s, l := line(t, "K:C\n"+text+"|", true)
		r := Of(s, l, "piano")
		for _, f := range r.Fingers {
			require.True(t, f.Finger >= 1 && f.Finger <= 5)
		}
		for _, p := range r.Positions {
			require.Len(t, p.Keys, 5)
		}
		require.Equal(t, fewest(steps), len(r.Shifts))
	})
}

// fewest covers single notes greedily: each position lasts as long as its
// notes lie within five steps, which is optimal for intervals.
func fewest(steps []int) int {
	shifts, low, high := 0, steps[0], steps[0]
	for _, x := range steps[1:] {
		low, high = min(low, x), max(high, x)
		if high-low > 4 {
			shifts++
			low, high = x, x
		}
	}
	return shifts
}

// Trying every place at every moment finds no way with fewer shifts, chords,
// printed fingers and all.
func TestNoOtherWayHasFewerShifts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "K:C\n"
		for range rapid.IntRange(1, 7).Draw(t, "n") {
			text += rapid.SampledFrom([]string{"C", "E", "G", "c", "e", "g", "[CE]", "[CG]", "[Gc]", "!1!E", "!5!c", "!3!G", "z"}).Draw(t, "note")
		}
		tunes, err := abc.Read([]byte("X:1\nL:1/4\n" + text + "|"))
		if err != nil {
			return // rests only
		}
		lines := reading.Lines(tunes[0], true)
		if len(lines) == 0 {
			return
		}
		k := newKeyboard(tunes[0], lines[0])
		fewest := map[int]int{} // place → shifts so far
		for i := range lines[0].Onset {
			now := map[int]int{}
			for _, g := range k.grips(i) {
				best := 0
				if i > 0 {
					best = 1 << 20
					for place, shifts := range fewest {
						if place != g.place {
							shifts++
						}
						best = min(best, shifts)
					}
				}
				now[g.place] = best
			}
			fewest = now
		}
		best := 1 << 20
		for _, shifts := range fewest {
			best = min(best, shifts)
		}
		r := Of(tunes[0], lines[0], "piano")
		require.Len(t, r.Shifts, best)
		for _, f := range r.Fingers {
			if g := Given(&tunes[0].Notes[f.Note]); g >= 0 {
				require.Equal(t, g, f.Finger, "a printed finger is kept")
				require.True(t, f.Given)
			}
		}
	})
}

// On strings every finger stands where its note is: the open string, or the
// place of the hand and so many semitones on; two notes at once have two strings.
func TestStopsSoundTheirNotes(t *testing.T) {
	for _, player := range []string{"cello", "ukulele", "violin"} {
		rapid.Check(t, func(t *rapid.T) {
			names := []string{"C", "D", "E", "F", "G", "A", "c", "d", "^F", "_B"}
			if player == "cello" {
				names = []string{"C,,", "D,,", "G,,", "A,,", "C,", "D,", "F,", "^F,", "A,", "B,", "C", "D"}
			}
			text := "K:C\n"
			for range rapid.IntRange(1, 8).Draw(t, "n") {
				text += rapid.SampledFrom(names).Draw(t, "note")
			}
			s, l := line(t, text+"|", false)
			r := Of(s, l, player)
			open := instrument.Tuning(player)
			for _, f := range r.Fingers {
				n := s.Notes[f.Note]
				require.Positive(t, f.String, n.Pitch.String())
				up := n.MIDI - open[f.String-1]
				if f.Finger == 0 {
					require.Zero(t, up)
					continue
				}
				place := 0
				for _, p := range r.Positions {
					if !n.Onset.Less(p.From) && len(p.Keys) > 0 {
						place = p.Keys[0]
					}
				}
				if player == "violin" { // each finger a half or a whole step above the one below
					from := max(0, 2*f.Finger-3)
					require.True(
						t,
						up-place == from || f.Finger > 1 && up-place == from+1,
						"%s: finger %d at %d with the hand at %d",
						n.Pitch,
						f.Finger,
						up,
						place,
					)
					continue
				}
				off := up - place - (f.Finger - 1)
				require.True(
					t,
					off == 0 || off == 1 && player == "cello",
					"%s %s: finger %d at %d with the hand at %d",
					player,
					n.Pitch,
					f.Finger,
					up,
					place,
				)
			}
		})
	}
}

func TestOtherInstrumentsAndPartsHaveNoPositions(t *testing.T) {
	s, l := line(t, "K:C\nCDEF|", true)
	require.Empty(t, Of(s, l, "theremin").Positions)
	l.Hand = reading.Whole
	require.Empty(t, Of(s, l, "piano").Positions)
	require.Empty(t, Of(s, reading.Line{Hand: reading.Right}, "piano").Fingers)
}

func TestUntilWhenAPositionIsHeld(t *testing.T) {
	r := Result{Positions: []Position{{From: rational.Int(0)}, {From: rational.Int(8)}, {From: rational.Int(12)}}}
	require.Equal(t, []rational.Rat{rational.Int(8), rational.Int(12), rational.Int(20)}, r.Until(rational.Int(20)))
	require.Equal(t, []rational.Rat{rational.Int(20)}, Result{Positions: r.Positions[:1]}.Until(rational.Int(20)))
	require.Empty(t, Result{}.Until(rational.Int(20)))
}

// What is printed and what the teacher set stay; an open string is a 0, and what cannot be told is not written.
func TestProposedFingersAreWritten(t *testing.T) {
	s := &score.Score{Notes: []score.Note{{}, {Fingering: "4"}, {}, {}, {}}}
	r := Result{
		Fingers: []Finger{{Note: 0, Finger: 3}, {Note: 1, Finger: 2}, {Note: 2, Finger: 1}, {Note: 3, Finger: -1}, {Note: 4, Finger: 0}},
	}
	r.Write(s, map[int]bool{2: true})
	var got []string
	for _, n := range s.Notes {
		got = append(got, n.Fingering)
	}
	require.Equal(t, []string{"3", "4", "", "", "0"}, got)
}
