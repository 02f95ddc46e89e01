package technique

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
	"patientladder/home/sheet"
)

func onPaper(t *testing.T, player, id string) (list []sheet.Neck, strokes sheet.Neck) {
	x, known := instrument.Of(player)
	require.True(t, known)
	e, err := exercise.Parse(id, x)
	require.NoError(t, err)
	b, err := e.Build()
	require.NoError(t, err)
	return necks(e, b, naming.Words{})
}

// A roll is drawn as one round of the right hand; what is no roll has no such picture.
func TestTheRoundOfARollOnPaper(t *testing.T) {
	_, strokes := onPaper(t, "ukulele", "roll/open/-/-/thumb-out")
	require.Equal(t, "right hand, one round", strokes.Name)
	require.Len(t, strokes.Dots, 8)
	for i, d := range strokes.Dots {
		require.Equal(t, i+1, d.At)
		require.NotEmpty(t, d.Label)
	}
	list, none := onPaper(t, "ukulele", "fret-scale/one/C/major/-")
	require.Equal(t, sheet.Neck{}, none)
	require.Len(t, list, 1)
	require.Equal(t, "left hand", list[0].Name)
	require.Len(t, list[0].Strings, 4)
}
