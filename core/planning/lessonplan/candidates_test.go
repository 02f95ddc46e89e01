package lessonplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/review"
)

func usual() Input {
	piece := func(id string, s material.Strand) Piece {
		return Piece{Material: material.Material{ID: id, Title: id, Strand: s, Quarters: 64, Tempo: 80}, Points: 3}
	}
	return Input{
		Age: 8, Instrument: "piano", Gap: 7, Pieces: []Piece{piece("fog", material.Method), piece("scale", material.Technique), piece("card", material.Reading)},
		Bites:   []Bite{{Skill: "ties", Name: "ties", Text: "hold hands", For: "Rope", Slack: 2}},
		Reviews: []Learned{{Chosen: review.Chosen{Piece: review.Piece{ID: "old", Minutes: 1.2}, Worth: 0.6, Why: "60 % sure"}, Title: "Old"}, {Chosen: review.Chosen{Piece: review.Piece{ID: "lost", Minutes: 1}, Worth: 100.2, Why: "left"}, Title: "Lost"}},
	}
}

func find(t *testing.T, list []Segment, id string) Segment {
	for _, s := range list {
		if s.ID == id {
			return s
		}
	}
	t.Fatalf("no segment %s", id)
	return Segment{}
}

func TestCandidatesSayWhy(t *testing.T) {
	in := usual()
	list := Candidates(in)
	seen := map[string]bool{}
	for _, s := range list {
		require.False(t, seen[s.ID], s.ID)
		seen[s.ID] = true
		require.NotEmpty(t, s.Why, s.ID)
		require.True(t, 1 <= s.Least && s.Least <= s.Usual && s.Usual <= s.Most && s.Value > 0, s.ID)
	}
	require.True(t, find(t, list, "opening").Must && find(t, list, "closing").Must)
	require.LessOrEqual(t, find(t, list, "hear lost").Value, 1.0, "a starved piece does not push everything else out")

	in.Pieces[0].RunDue, in.Pieces[0].Stuck, in.Pieces[0].Spots = true, true, 2
	in.Bites[0].Slack = -1
	in.Waited = map[string]bool{"hear old": true}
	list2 := Candidates(in)
	require.Equal(t, "2 spots are open", find(t, list2, "spots fog").Why)
	require.Greater(t, find(t, list2, "run fog").Value, find(t, list2, "working fog").Value, "the run comes before more work at it")
	require.Greater(t, find(t, list2, "bite ties").Value, find(t, list, "bite ties").Value)
	require.Contains(t, find(t, list2, "hear old").Why, "it had to wait last time")
}

// A new exercise is begun only with the minutes to teach it and a lesson the
// week after to hear it (common practice).
func TestNewTechniqueNeedsTimeAndAHearing(t *testing.T) {
	in := usual()
	in.Fresh = []Fresh{{Material: material.Material{ID: "b", Title: "B major", Strand: material.Technique}, Leap: 1, Why: "next in order"}}
	planned := func(minutes int) bool {
		p, err := Make(Candidates(in), LimitsFor(in.Age, minutes, 0.3), Hand{Pins: map[string]int{"working fog": 8}})
		require.NoError(t, err)
		for _, c := range p.Segments {
			if c.ID == "begin b" {
				require.GreaterOrEqual(t, c.Minutes, 8)
				return true
			}
		}
		return false
	}
	require.True(t, planned(45))
	require.False(t, planned(15))
	in.Gap = 21
	require.False(t, planned(60))
	require.Contains(t, find(t, Candidates(in), "begin b").Blocked, "21 days away")
}

func TestLimitsByAge(t *testing.T) {
	require.Equal(t, Limits{Minutes: 15, ReviewShare: 0.3, OneNew: true, Longest: 1}, LimitsFor(3, 15, 0.3))
	require.Equal(t, Limits{Minutes: 45, ReviewShare: 0.3}, LimitsFor(30, 45, 0.3))
}

// Whatever the age and the minutes, a piece in work is in the lesson, and review
// keeps its share where there is enough of it.
func TestAPieceInWorkIsAlwaysHeard(t *testing.T) {
	for _, age := range []int{4, 6, 8, 14, 60} {
		for _, minutes := range []int{20, 30, 45} {
			in := usual()
			in.Age = age
			for i := range 12 {
				in.Reviews = append(in.Reviews, Learned{Chosen: review.Chosen{Piece: review.Piece{ID: string(rune('a' + i)), Minutes: 1}, Worth: 0.7, Why: "fading"}, Title: "T"})
			}
			p, err := Make(Candidates(in), LimitsFor(age, minutes, 0.45), Hand{})
			require.NoError(t, err)
			heard := false
			for _, c := range p.Segments {
				heard = heard || c.ID == "working fog"
			}
			require.True(t, heard, "age %d, %d minutes", age, minutes)
			require.LessOrEqual(t, abs(p.Review-p.Aim), ReviewPlay)
		}
	}
}
