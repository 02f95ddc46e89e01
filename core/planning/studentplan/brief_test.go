package studentplan

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

// A brief says what the pages say that look at one student alone, and comes back from JSON as it was.
func TestABriefSaysWhatTheStudentsOwnPagesSay(t *testing.T) {
	s := pupil(
		t,
		piece("run", material.Method, "plain"),
		piece("slow", material.Repertoire, "plain"),
		piece("old", material.Repertoire),
		piece("next", material.Method, "pulse"),
	)
	s.working("run", 8).RunDue = true
	s.working("slow", 22).Full = 1
	s.learned("old", 50, 400)
	s.Standing.LastLesson = on(7)
	s.Standing.Home = []standing.Report{{ID: "long ago", At: on(22)}, {ID: "three weeks ago", At: on(21)}, {ID: "yesterday", At: on(1)}}
	a := s.ahead("run", "next")
	w := Week{}
	b := a.Brief(w)
	require.Equal(t, a.Due(monday), b.Due)
	require.Equal(t, a.ReviewState(w), b.Review)
	require.Equal(t, on(7), b.LastLesson)
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
