package inweek

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/athome"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
)

func TestWhatStandsInWordsOnPaper(t *testing.T) {
	read, hands := &analysis.Piece{}, athome.Card{Hands: []athome.Hand{{}}}
	require.True(t, Shown{Piece: read, Card: hands}.InWords(week.Item{Kind: week.Listen}), "it is only heard")
	require.True(t, Shown{}.InWords(week.Item{Kind: week.Whole}))
	require.False(t, Shown{Piece: read}.InWords(week.Item{Kind: week.Whole}))
	require.False(t, Shown{Card: hands}.InWords(week.Item{Kind: week.Whole}), "a game on the keys")
}
