package inlesson

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/plantest"
	"patientladder/core/student/standing"
)

// A lesson has the line of ear and rhythm that was tried longest ago; what the studio switched off is left out, and the very
// young have games.
func TestTheStepOfALesson(t *testing.T) {
	s := plantest.Pupil(t)
	a := plantest.Ahead(s)
	due := stairDue(a, a.Today, 8)
	require.Equal(
		t,
		&lessonplan.Stair{Line: "ear", Stair: "match", At: 1, Of: 5, Goals: []string{"echo-pitch", "hidden-pitch", "echo-rhythm"}},
		due,
	)
	require.Nil(t, stairDue(a, a.Today, 4))

	a.Standing.Met = []standing.Met{{At: a.Now.Add(-7 * 24 * time.Hour), Activity: "echo-pitch", Level: 1, Outcome: "matched"}}
	require.Equal(t, "rhythm", stairDue(a, a.Today, 8).Line)
	p, climbed := Climbed(a.Student, lessonplan.Segment{ID: "stair ear", Kind: lessonplan.Climb})
	require.True(t, climbed)
	require.Equal(t, []any{meeting.Ear, "echo-pitch", 1, 1}, []any{p.Line, p.Activity.ID, p.Level, p.Days})
	_, climbed = Climbed(a.Student, lessonplan.Segment{ID: "stair ear", Kind: lessonplan.Activity})
	require.False(t, climbed)

	pool := slices.Clone(a.Pool)
	i := slices.IndexFunc(pool, func(g lessonplan.Goal) bool { return g.ID == "echo-rhythm" })
	pool[i].Off = true
	a.Pool = pool
	require.Equal(t, "ear", stairDue(a, a.Today, 8).Line, "nobody claps here")
}
