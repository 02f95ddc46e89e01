package load_test

import (
	_ "embed"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/load"
	"patientladder/core/reading/reading"
)

//go:embed testdata/graded.abc
var gradedScores []byte

//go:embed testdata/grades.json
var grades []byte

// graded is an opening of an old piece with the grade at which it is usually set, 0 for the first lessons, 1 to 8 for the
// grades of common syllabuses and up to 12 for what comes after (from memory).
type graded struct {
	title string
	grade float64
	score *score.Score
	loads []material.Load
}

func gradedPieces(t testing.TB) []graded {
	_, pieces, err := scorefile.Pieces(gradedScores, true)
	require.NoError(t, err)
	var of map[string]float64
	require.NoError(t, json.Unmarshal(grades, &of))
	require.Len(t, pieces, len(of))
	var out []graded
	for _, s := range pieces {
		grade, known := of[s.Title]
		require.True(t, known, s.Title)
		out = append(out, graded{s.Title, grade, s, loadsOf(s, 0)})
	}
	return out
}

// loadsOf are the loads of a keyboard piece, without its proposed fingers, which keyboards do not ask for.
func loadsOf(s *score.Score, tempo float64) []material.Load {
	var lines []load.Line
	for _, l := range reading.Lines(s, true) {
		if reading.Plays(s, l.Part, true) {
			lines = append(lines, load.Line{Line: l})
		}
	}
	return load.Of(s, lines, instrument.Keyboard, load.PaceOf(s, tempo))
}

// What is entered is music: every bar is full in every hand, and nothing was left out in reading.
func TestGradedPiecesAreWhole(t *testing.T) {
	for _, p := range gradedPieces(t) {
		require.Empty(t, p.score.Skipped, p.title)
		for i, b := range p.score.Bars {
			if i > 0 && i < len(p.score.Bars)-1 && b.BeatUnit > 0 {
				require.False(t, b.Short, "%s bar %d: %s quarters", p.title, i+1, b.Length)
			}
		}
	}
}
