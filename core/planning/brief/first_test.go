package brief

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
)

// A studio is led until somebody had a lesson and a week was published.
func TestTheFirstSteps(t *testing.T) {
	told := func(list []First) (out []string) {
		for _, f := range list {
			out = append(out, fmt.Sprintf("%s %v %s", f.Step, f.Done, f.Ladder))
		}
		return out
	}
	owner := Beginner{Adds: true, ChoosesWay: true, WayChosen: true}
	require.Equal(
		t,
		[]string{"way false ", "student false ", "pieces false ", "known false ", "lesson false ", "week false "},
		told(FirstSteps(nil, Beginner{Adds: true, ChoosesWay: true}, nil)),
	)
	s := plantest.Pupil(t, plantest.Piece("a", material.Method))
	require.Equal(
		t,
		[]string{"way true L", "student true L", "pieces false L", "known false L", "lesson false L", "week false "},
		told(FirstSteps([]studentplan.Student{*s}, owner, nil)),
	)
	known := plantest.Folded(*s, []studentlog.Entry{plantest.Entry("k", 90, studentlog.KnownBefore, studentlog.Entry{Material: "a"})})
	require.Equal(
		t,
		[]string{"way true L", "student true L", "pieces true L", "known true L", "lesson false L", "week false "},
		told(FirstSteps([]studentplan.Student{known}, owner, nil)),
	)
	taught := plantest.Folded(*s,
		[]studentlog.Entry{
			plantest.Entry("1", 0, studentlog.Assigned, studentlog.Entry{Material: "a"}),
			plantest.Entry("2", 0, studentlog.Cleared, studentlog.Entry{Material: "a"}),
		},
	)
	require.Equal(
		t,
		[]string{"student false ", "pieces false ", "known false ", "lesson false ", "week false "},
		told(FirstSteps(nil, Beginner{Adds: true}, nil)),
		"the way is chosen already where a colleague joins",
	)
	require.Empty(t, FirstSteps(nil, Beginner{ChoosesWay: true}, nil), "an assistant adds nobody")
	require.Equal(
		t,
		[]string{"lesson true L", "week false L"},
		told(FirstSteps([]studentplan.Student{*s, taught}, owner, nil))[4:],
		"the steps stay until the first week is published",
	)
	published := owner
	published.Published = true
	require.Empty(t, FirstSteps([]studentplan.Student{*s, taught}, published, nil))
	require.Len(t, FirstSteps([]studentplan.Student{*s}, published, nil), 6, "a week before any lesson")
	taught.Today = plantest.Monday.AddDate(0, 0, 29)
	require.Empty(t, FirstSteps([]studentplan.Student{*s, taught}, owner, nil), "who sets no weeks is not led for ever")
	require.Empty(t, FirstSteps([]studentplan.Student{*s, *s, *s, *s}, owner, nil))
}
