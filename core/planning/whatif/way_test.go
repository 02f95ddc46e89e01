package whatif

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

// What another way of teaching does to one student, in the order in which it is said.
func TestWhatAnotherWayDoes(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("soon", material.Method, "pulse", "ties", "thumb"),
		plantest.Piece("old", material.Method),
		plantest.Piece("older", material.Method),
	)
	plantest.Working(s, "work", 8).SinceMark = 3
	plantest.Learned(s, "old", 29, 9)
	plantest.Learned(s, "older", 39, 9)
	glance := func(s studentplan.Student) Glance {
		a := s.Ahead(plantest.Ahead(&s).Horizon, plantest.Place(&s, "work", "soon"), studentplan.Options{})
		w, err := inweek.Lay(&a, plantest.Monday.AddDate(0, 0, 1), week.Hand{}, inweek.Before{}, nil)
		require.NoError(t, err)
		return Glance{&a, w}
	}
	was := glance(*s)
	require.Empty(t, WayChanges(was, was))
	other := *s
	other.Policy.ReviewShare, other.Policy.HearFirst, other.Policy.Approach, other.Policy.FirstChunk = 0.01, true, "names", 1
	other.Policy.Preview.PerLesson, other.Policy.Standing.Leap.Comfortable, other.Policy.Signs.StuckLessons = 1, 4, 4
	then := glance(other)
	require.Equal(t, []WayChange{
		{Kind: ReviewMinutes, From: was.reviewMinutes(), To: then.reviewMinutes()}, {Kind: ReviewPieces, From: 2, To: 1},
		{Kind: FirstView, HearFirst: true}, {Kind: HowReading, Approach: "names"}, {Kind: FirstChunks, From: 4, To: 1},
		{Kind: LessonBites, From: 2, To: 1},
		{Kind: LatePreviews, From: 2, To: 3}, {Kind: CliffsAhead, From: 1, To: 0}, {Kind: StuckPieces, From: 1, To: 0},
	}, WayChanges(was, then))
	require.Greater(t, was.reviewMinutes(), then.reviewMinutes())
}
