package analysis

import (
	"testing"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// read runs the whole analysis; a run that does not end is ended by the test's own limit.
func read(s *score.Score) {
	for _, instrument := range []string{"piano", "cello", "ukulele"} {
		p := Of(s, instrument)
		p.Chunks(2, nil)
		p.Loads(0)
	}
}

// Files that hold together but that no musician wrote: everything ends all the same.
func TestScoresThatNobodyWrote(t *testing.T) {
	const many = 30_000
	grand := func(length int64) *score.Score {
		return &score.Score{
			Parts: []score.Part{{Staves: 2, Clefs: []score.Clef{{Sign: "G"}, {Sign: "F"}}}},
			Bars:  []score.Bar{{Length: rational.Int(length), Beats: 128, BeatUnit: 128}},
		}
	}
	note := func(at rational.Rat, staff, midi int) score.Note {
		return score.Note{
			Onset:    at,
			Duration: rational.New(1, 32),
			Staff:    staff,
			Voice:    "1",
			Bar:      1,
			MIDI:     midi,
			Pitch:    score.Pitch{Step: 'C', Octave: midi/12 - 1},
			SlurStop: true,
			Type:     "128th",
		}
	}
	t.Run("one endless bar", func(t *testing.T) {
		s := grand(many)
		for i := range int64(many) {
			s.Notes = append(s.Notes, note(rational.Int(i), 1, 60), note(rational.New(2*i+1, 2), 2, 48))
		}
		read(s)
	})
	t.Run("everything at once", func(t *testing.T) {
		s := grand(4)
		for i := range many {
			n := note(rational.Rat{}, 1+i%2, 24+12*(i%7))
			n.TieStart, n.TieStop = true, true
			s.Notes = append(s.Notes, n)
		}
		read(s)
	})
	t.Run("bars that last for hours", func(t *testing.T) {
		s := grand(1 << 20)
		for i := range 1000 {
			b := s.Bars[0]
			b.Start = rational.Int(int64(i+1) << 20)
			s.Bars = append(s.Bars, b)
		}
		s.Notes = []score.Note{note(rational.Rat{}, 1, 60), note(rational.Int(5), 2, 48)}
		read(s)
	})
}
