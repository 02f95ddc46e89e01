package sheet

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestALetterheadHasFewShortLines(t *testing.T) {
	lines, err := Letterhead("  Quay 4 \n\n Gullhaven\n")
	require.NoError(t, err)
	require.Equal(t, []string{"Quay 4", "Gullhaven"}, lines)
	lines, err = Letterhead("")
	require.NoError(t, err)
	require.Empty(t, lines)
	_, err = Letterhead("a\nb\nc\nd")
	require.NoError(t, err)
	_, err = Letterhead("a\nb\nc\nd\ne")
	require.EqualError(t, err, "the letterhead has 5 lines; at most 4 fit")
	_, err = Letterhead(strings.Repeat("é", 80))
	require.NoError(t, err)
	_, err = Letterhead(strings.Repeat("é", 81))
	require.EqualError(t, err, "a line of the letterhead has 81 letters; at most 80 fit")
}
