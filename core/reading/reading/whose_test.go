package reading

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

func TestWhosePart(t *testing.T) {
	part := func(name, clef string, staves int) score.Part {
		p := score.Part{Name: name, Staves: staves}
		for range staves {
			p.Clefs = append(p.Clefs, score.Clef{Sign: clef})
		}
		return p
	}
	violin, violin2, cello := part("Violin I", "G", 1), part("Violin II", "G", 1), part("Violoncello", "F", 1)
	piano, voice := part("", "G", 2), part("Voice", "G", 1)
	for name, c := range map[string]struct {
		parts  []score.Part
		player string
		silent int // a part without notes, −1 for none
		own    int
		want   []bool
		ask    bool
	}{
		"alone":                       {[]score.Part{violin}, "cello", -1, -1, []bool{true}, false},
		"by its name":                 {[]score.Part{violin, violin2, cello}, "cello", -1, -1, []bool{false, false, true}, false},
		"two of a name":               {[]score.Part{violin, violin2, cello}, "violin", -1, -1, []bool{true, false, false}, true},
		"by its clef":                 {[]score.Part{violin, part("Lower", "F", 1)}, "cello", -1, -1, []bool{false, true}, true},
		"as the teacher says":         {[]score.Part{violin, violin2, cello}, "violin", -1, 1, []bool{false, true, false}, false},
		"a chosen part that is gone":  {[]score.Part{violin, cello}, "cello", -1, 7, []bool{false, true}, false},
		"two staves beside a voice":   {[]score.Part{voice, piano}, "piano", -1, -1, []bool{false, true}, false},
		"two pianos":                  {[]score.Part{piano, piano}, "piano", -1, -1, []bool{true, false}, true},
		"a hand on each of two parts": {[]score.Part{part("R", "G", 1), part("L", "F", 1)}, "piano", -1, -1, []bool{true, true}, false},
		"an ensemble on keys":         {[]score.Part{violin, violin2, cello}, "piano", -1, -1, []bool{true, false, false}, true},
		"a part without notes":        {[]score.Part{violin, violin2, cello}, "violin", 0, -1, []bool{false, true, false}, false},
	} {
		t.Run(name, func(t *testing.T) {
			s := &score.Score{Parts: c.parts, Bars: []score.Bar{{Length: rational.Int(4)}}}
			for i := range c.parts {
				if i != c.silent {
					s.Notes = append(s.Notes, score.Note{Part: i, Staff: 1, Bar: 1, Duration: rational.Int(4), MIDI: 60, Pitch: score.Pitch{Step: 'C', Octave: 4}})
				}
			}
			got := Whose(s, c.player, c.own)
			require.Equal(t, c.want, got.Plays)
			require.Equal(t, c.ask, got.Ask)
		})
	}
}

// A hundred parts of one name: the first, and it is asked.
func TestAHundredPartsOfOneName(t *testing.T) {
	s := &score.Score{Bars: []score.Bar{{Length: rational.Int(4)}}}
	for i := range 100 {
		s.Parts = append(s.Parts, score.Part{Name: "Violin", Staves: 1})
		s.Notes = append(s.Notes, score.Note{Part: i, Bar: 1, Duration: rational.Int(1), MIDI: 60})
	}
	got := Whose(s, "violin", -1)
	require.True(t, got.Plays[0] && got.Ask)
	require.NotContains(t, got.Plays[1:], true)
}
