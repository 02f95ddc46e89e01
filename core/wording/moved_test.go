package wording

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Who was told is not told again, a studio in UTC is not told of days, and the changes are numbered in their order.
func TestWhichFiguresMoved(t *testing.T) {
	require.Equal(t, moves, MovedSince(0, "America/Los_Angeles"))
	require.Empty(t, MovedSince(LastMove(), "America/Los_Angeles"))
	require.Equal(t, moves[1:], MovedSince(0, "UTC"))
	require.Equal(t, moves[1:], MovedSince(1, "America/Los_Angeles"))
	for i, m := range moves {
		require.Equal(t, i+1, m.Number)
	}
}
