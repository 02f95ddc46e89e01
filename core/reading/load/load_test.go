package load_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/load"
	"patientladder/core/reading/reading"
)

// tune reads one keyboard piece from ABC.
func tune(t testing.TB, abc string) *score.Score {
	_, pieces, err := scorefile.Pieces([]byte(abc), true)
	require.NoError(t, err)
	return pieces[0]
}

func valueOf(loads []material.Load, d dimension.ID) material.Load {
	for _, l := range loads {
		if l.Dimension == d {
			return l
		}
	}
	return material.Load{Dimension: d}
}

// Counted by hand at a crotchet a second: quavers in four of twelve beats, one crotchet a beat in the others.
func TestLoadsCountedByHand(t *testing.T) {
	s := tune(t, `X:1
M:2/4
L:1/4
Q:1/4=60
%%score {1 2}
V:1 clef=treble
V:2 clef=bass
K:C
V:1
C D | E F | G/A/G/A/ | G/F/E/D/ | C c' | C c' |]
V:2
C,2 | C,2 | [C,E,G,]2 | [C,E,G,]2 | C,2 | C,2 |]
`)
	loads := loadsOf(s, 0)
	require.Equal(t, material.Load{Dimension: dimension.Speed, Value: 2, Bars: []int{3, 4}}, valueOf(loads, dimension.Speed))
	require.Equal(t, material.Load{Dimension: dimension.Rhythm, Value: 1, Bars: []int{2, 3, 4}}, valueOf(loads, dimension.Rhythm), "quavers halve the beat")
	// Two octaves between two beats: 24 − 12 semitones in two seconds.
	require.Equal(t, material.Load{Dimension: dimension.Jumps, Value: 6, Bars: []int{5, 6}}, valueOf(loads, dimension.Jumps))
	require.Equal(t, 3.0, valueOf(loads, dimension.Variety).Value, "G F E D in a bar: three more than one")
	require.Zero(t, valueOf(loads, dimension.Voices).Value)
	require.Zero(t, valueOf(loads, dimension.BlackKeys).Value)
	require.Zero(t, valueOf(loads, dimension.Span).Value, "a fifth lies under the hand")
	require.Equal(t, 2.0, valueOf(loads, dimension.Density).Value, "the quavers: three notes in two seconds are fewer")

	twice := loadsOf(s, 120)
	require.Equal(t, 4.0, valueOf(twice, dimension.Speed).Value, "twice as fast")
	require.Equal(t, 12.0, valueOf(twice, dimension.Jumps).Value)
	require.Equal(t, 1.0, valueOf(twice, dimension.Rhythm).Value, "the same rhythm")
}

// Both hands in octaves say one thing; in contrary motion they say two.
func TestHandsThatGoTogetherAreNotIndependent(t *testing.T) {
	write := func(left string) float64 {
		s := tune(t, "X:1\nM:4/4\nL:1/4\nQ:1/4=60\n%%score {1 2}\nV:1 clef=treble\nV:2 clef=bass\nK:C\nV:1\nCDEF | GFED | C4 |]\nV:2\n"+left+" |]\n")
		return valueOf(loadsOf(s, 0), dimension.Independence).Value
	}
	require.Zero(t, write("C,D,E,F, | G,F,E,D, | C,4"))
	require.Equal(t, 1.0, write("C,B,,A,,G,, | F,,G,,A,,B,, | C,4"), "one move in two beats, all of it apart")
	require.Zero(t, write("C,4 | C,4 | C,4"), "a held note asks for little")
}

// Two hands, two to six bars of four, of random notes.
func drawScore(t *rapid.T) *score.Score {
	s := &score.Score{Tempo: float64(rapid.IntRange(40, 200).Draw(t, "tempo"))}
	s.Parts = []score.Part{{Staves: 2, Clefs: []score.Clef{{Sign: "G"}, {Sign: "F"}}}}
	bars := rapid.IntRange(2, 6).Draw(t, "bars")
	for b := range bars {
		s.Bars = append(s.Bars, score.Bar{Start: rational.Int(int64(4 * b)), Length: rational.Int(4), Beats: 4, BeatUnit: 4})
	}
	for staff := 1; staff <= 2; staff++ {
		for b := range bars {
			for at := 0; at < 16; {
				length := rapid.SampledFrom([]int{1, 2, 4, 8}).Draw(t, "length")
				addNote(s, staff, b, at, min(length, 16-at), rapid.IntRange(36, 84).Draw(t, "pitch"))
				at += length
			}
		}
	}
	return s
}

func addNote(s *score.Score, staff, bar, sixteenth, length, midi int) {
	steps := []score.Pitch{
		{Step: 'C'}, {Step: 'C', Alter: 1}, {Step: 'D'}, {Step: 'D', Alter: 1}, {Step: 'E'}, {Step: 'F'}, {Step: 'F', Alter: 1}, {Step: 'G'},
		{Step: 'G', Alter: 1}, {Step: 'A'}, {Step: 'A', Alter: 1}, {Step: 'B'},
	}
	p := steps[midi%12]
	p.Octave = midi/12 - 1
	s.Notes = append(s.Notes, score.Note{
		Onset: rational.New(int64(16*bar+sixteenth), 4), Duration: rational.New(int64(length), 4), Pitch: p, MIDI: midi, Staff: staff, Voice: "1",
		Bar: bar + 1,
	})
}

func TestFasterIsNeverEasier(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawScore(t)
		slow, quick := loadsOf(s, 60), loadsOf(s, float64(rapid.IntRange(61, 240).Draw(t, "to")))
		for _, d := range dimension.Names() {
			require.GreaterOrEqual(t, valueOf(quick, d).Value, valueOf(slow, d).Value, d)
		}
	})
}

// A note more in a hand never lowers what is measured of that hand.
func TestANoteMoreIsNeverLess(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawScore(t)
		hand := func(s *score.Score) []material.Load {
			lines := reading.Lines(s, true)
			return load.Of(s, []load.Line{{Line: lines[0]}}, instrument.Keyboard, load.PaceOf(s, 0))
		}
		before := hand(s)
		at := rapid.IntRange(0, 15).Draw(t, "at")
		addNote(s, 1, rapid.IntRange(0, len(s.Bars)-1).Draw(t, "bar"), at, rapid.IntRange(1, 16-at).Draw(t, "length"), rapid.IntRange(36, 84).Draw(t, "pitch"))
		after := hand(s)
		for _, d := range dimension.Names() {
			require.GreaterOrEqual(t, valueOf(after, d).Value, valueOf(before, d).Value, d)
		}
	})
}

// In another key nothing changes but black keys and what there is to read.
func TestAnotherKeyChangesKeysAndReadingAlone(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawScore(t)
		before := loadsOf(s, 0)
		by := rapid.IntRange(1, 11).Draw(t, "by")
		moved := *s
		moved.Notes = nil
		for _, n := range s.Notes {
			at := n.Onset.Sub(s.Bars[n.Bar-1].Start).Mul(rational.Int(4)).Num()
			addNote(&moved, n.Staff, n.Bar-1, int(at), int(n.Duration.Mul(rational.Int(4)).Num()), n.MIDI+by)
		}
		after := loadsOf(&moved, 0)
		for _, d := range dimension.Names() {
			// Which moves of the hands are parallel is read from the staff.
			if d != dimension.BlackKeys && d != dimension.Signs && d != dimension.Independence {
				require.Equal(t, valueOf(before, d).Value, valueOf(after, d).Value, d)
			}
		}
	})
}

// A part of somebody else's adds nothing.
func TestWhatOthersPlayIsNoLoad(t *testing.T) {
	s := tune(t, "X:1\nM:4/4\nL:1/4\nQ:1/4=60\n%%score {1 2}\nV:1 clef=treble\nV:2 clef=bass\nK:C\nV:1\nCDEF | GFED |]\nV:2\nC,4 | C,4 |]\n")
	alone := loadsOf(s, 0)
	s.Parts = append(s.Parts, score.Part{Staves: 1, Clefs: []score.Clef{{Sign: "G"}}})
	for k := range 16 {
		addNote(s, 1, k/8, k%8*2, 1, 60+k)
		s.Notes[len(s.Notes)-1].Part = 1
	}
	require.Equal(t, alone, loadsOf(s, 0))
}

// Tempo words as they are usual (common practice), by the beat of the metre.
func TestPace(t *testing.T) {
	s := &score.Score{Bars: []score.Bar{{Beats: 6, BeatUnit: 8, Length: rational.Int(3)}}}
	require.Equal(t, load.Pace{Quarters: 92 * 1.5}, load.PaceOf(s, 0), "nothing is written")
	s.Signs = []score.Sign{{Kind: score.Words, Text: "dolce", Bar: 1}, {Kind: score.Words, Text: "Allegretto", Bar: 1}}
	require.Equal(t, load.Pace{Quarters: 112 * 1.5, Word: "Allegretto"}, load.PaceOf(s, 0))
	s.Tempo = 80
	require.Equal(t, load.Pace{Quarters: 80, Given: true}, load.PaceOf(s, 0))
	require.Equal(t, load.Pace{Quarters: 50, Given: true}, load.PaceOf(s, 50))
}
