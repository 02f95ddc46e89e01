package brief

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/plantest"
	"patientladder/core/student/standing"
)

// A brief says what the pages say that look at one student alone, and comes back from JSON as it was.
func TestABriefSaysWhatTheStudentsOwnPagesSay(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("run", material.Method, "plain"),
		plantest.Piece("slow", material.Repertoire, "plain"),
		plantest.Piece("old", material.Repertoire),
		plantest.Piece("next", material.Method, "pulse"),
	)
	plantest.Working(s, "run", 8).RunDue = true
	plantest.Working(s, "slow", 22).Full = 1
	plantest.Learned(s, "old", 50, 400)
	s.Standing.LastLesson = plantest.On(7)
	s.Standing.Home = []standing.Report{{ID: "long ago", At: plantest.On(22)}, {ID: "three weeks ago", At: plantest.On(21)}, {ID: "yesterday", At: plantest.On(1)}}
	a := plantest.Ahead(s, "run", "next")
	w := inweek.Week{}
	b := Of(a, w)
	require.Equal(t, a.Due(plantest.Monday), b.Due)
	require.Equal(t, inweek.ReviewOf(a.Student, w), b.Review)
	require.Equal(t, plantest.On(7), b.LastLesson)
	require.Len(t, b.Home, 2, "as long as a lesson looks back")
	require.Equal(t, []string{"three weeks ago", "yesterday"}, []string{b.Home[0].ID, b.Home[1].ID})

	var ids []string
	for _, x := range b.Working {
		ids = append(ids, x.Material)
		low, median, high := a.Days(a.When[x.Material].Clear)
		require.Equal(t, []any{low, median, high}, []any{x.Low, x.Median, x.High})
		require.Equal(t, s.Standing.Materials[x.Material].Where(), x.Where)
	}
	require.Equal(t, []string{"run", "slow"}, ids, "strand by strand")
	require.Equal(t, 3.0, b.Working[1].Weeks, "22 days: three full weeks")
	require.Equal(
		t,
		[]any{a.When["slow"].Usual, a.When["slow"].Long, a.Foreseen()["slow"]},
		[]any{b.Working[1].Usual, b.Working[1].Long, b.Working[1].Foreseen},
	)
	require.Len(t, s.Standing.Home, 3, "the standing is not touched")

	data, err := json.Marshal(b)
	require.NoError(t, err)
	var back Brief
	require.NoError(t, json.Unmarshal(data, &back))
	require.Equal(t, b, back)
}
