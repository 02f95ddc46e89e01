package lessonplan

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/review"
)

// working is a piece in work with so many of three points.
func working(id string, full int) Piece {
	return Piece{Material: material.Material{ID: id, Strand: material.Method}, Full: full, Points: 3}
}

// One working piece has its quarter of the lesson: what was hard at home, else what is stuck, else what has the fewest marks; what
// is ready for its run needs none, and neither does a scale.
func TestWhoHasItsQuarter(t *testing.T) {
	scale := working("scale", 0)
	scale.Material.Strand = material.Technique
	ready, stuck := working("ready", 3), working("stuck", 2)
	ready.RunDue, stuck.Stuck = true, true
	for _, c := range []struct {
		pieces []Piece
		home   map[string]AtHome
		want   string
	}{
		{[]Piece{working("a", 2), working("b", 1), working("c", 1), scale}, nil, "b"},
		{[]Piece{working("a", 0), stuck}, nil, "stuck"},
		{[]Piece{stuck, working("a", 2)}, map[string]AtHome{"a": {Hard: []Stretch{{1, 2}}}}, "a"},
		{[]Piece{stuck, working("a", 2)}, map[string]AtHome{"a": {Left: true}}, "stuck"},
		{[]Piece{ready, scale}, nil, ""},
	} {
		var got []string
		for _, s := range Candidates(Input{Age: 9, Minutes: 30, Pieces: c.pieces, Home: c.home}) {
			if s.Quarter {
				got = append(got, s.Material)
			}
		}
		require.Equal(t, c.want, fmt.Sprint(join(got)))
	}
}

func join(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return list[0]
}

// A lesson with eight learned pieces to hear: at most four, those of the highest value; the piece that is not secure keeps a quarter
// of the minutes, of a longer lesson and where most of it is for review too; what the teacher wants stays.
func TestFewReviewsAndAQuarterForThePiece(t *testing.T) {
	in := Input{Age: 12, Minutes: 30, Pieces: []Piece{working("fog", 1)}}
	for i := range 8 {
		in.Reviews = append(in.Reviews, review.Chosen{Piece: review.Piece{ID: fmt.Sprint("r", i), Minutes: 1}, Worth: 0.5 + 0.1*float64(i), Why: review.Reason{Recall: 0.6}})
	}
	for _, c := range []struct {
		minutes int
		share   float64
		hand    Hand
		want    []string
		least   int
	}{
		{30, 0.45, Hand{}, []string{"r4", "r5", "r6", "r7"}, 8},
		{60, 0.45, Hand{}, []string{"r4", "r5", "r6", "r7"}, 15},
		{30, 0.45, Hand{Pins: map[string]int{"hear r0": 0}}, []string{"r0", "r5", "r6", "r7"}, 8},
		{30, 0.45, Hand{Minutes: 44}, []string{"r4", "r5", "r6", "r7"}, 11},
	} {
		in.Minutes = c.minutes
		plan, err := Make(Candidates(in), LimitsFor(12, c.minutes, c.share), c.hand)
		require.NoError(t, err)
		var heard []string
		for _, s := range plan.Segments {
			switch s.Kind {
			case Review:
				heard = append(heard, s.Material)
			case Working:
				require.GreaterOrEqual(t, s.Minutes, c.least, "%+v", c)
			}
		}
		require.ElementsMatch(t, c.want, heard, "%+v", c)
		require.Empty(t, onlyReviews(plan.Waiting()), "what is not heard is played at home: it waits for no lesson")
		left := plan.Left[0]
		for _, l := range plan.Left {
			if l.Kind == Review {
				left = l
			}
		}
		require.Equal(t, Waiting{Kind: EnoughHeard, Count: 4}, left.Reason)
	}
	in.Minutes = 30
	plan, err := Make(Candidates(in), LimitsFor(12, 30, 0.75), Hand{})
	require.NoError(t, err)
	reviews, piece := 0, 0
	for _, s := range plan.Segments {
		switch s.Kind {
		case Review:
			reviews++
		case Working:
			piece = s.Minutes
		}
	}
	require.GreaterOrEqual(t, piece, 8)
	require.GreaterOrEqual(t, reviews, 4, "as the share asks")
}

func onlyReviews(list []Left) (out []Left) {
	for _, l := range list {
		if l.Kind == Review {
			out = append(out, l)
		}
	}
	return out
}

// Of a piece that is ready for its run the run says what was hard at home, and its other minutes do not say it again.
func TestARunSaysWhatWasHard(t *testing.T) {
	p := working("ready", 3)
	p.RunDue = true
	home := map[string]AtHome{"ready": {Hard: []Stretch{{1, 2}}}}
	got := map[string]bool{}
	for _, s := range Candidates(Input{Age: 9, Minutes: 30, Pieces: []Piece{p}, Home: home}) {
		got[s.ID] = s.because(HardAtHome)
	}
	require.True(t, got["run ready"])
	require.False(t, got["working ready"])
}
