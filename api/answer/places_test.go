package answer_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/answer"
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// The staves of a page are counted through all parts: a song over a piano has the voice on the first.
func TestStavesAreCountedThroughTheParts(t *testing.T) {
	p := answer.PlacesOf(&score.Score{
		Parts: []score.Part{{Staves: 1}, {Staves: 2}, {Staves: 1}},
		Bars:  []score.Bar{{Start: rational.Int(0)}, {Start: rational.New(3, 1)}},
		Notes: []score.Note{{Part: 2, Staff: 1, Bar: 2, Onset: rational.New(9, 2), Pitch: score.Pitch{Step: 'C', Octave: 4}}},
	})
	got := []int{p.Staff(0, 1), p.Staff(1, 1), p.Staff(1, 2), p.Staff(2, 1)}
	require.Equal(t, []int{0, 1, 2, 3}, got)
	bar, staff, at, pitch := p.Note(0)
	require.Equal(t, []any{2, 3, 1.5, 60}, []any{bar, staff, at, pitch})
}
