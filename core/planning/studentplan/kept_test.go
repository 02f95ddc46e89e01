package studentplan_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/review"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
)

// The one most faded comes first; of those that are as sure the one played longest ago.
func TestLearnedPiecesTheMostFadedFirst(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("fresh", material.Method),
		plantest.Piece("faded", material.Method),
		plantest.Piece("same", material.Method),
		plantest.Piece("work", material.Method),
	)
	plantest.Learned(s, "fresh", 3, 50)
	plantest.Learned(s, "faded", 40, 5)
	plantest.Learned(s, "same", 3, 50).LastPlayed = plantest.On(5)
	plantest.Working(s, "work", 8)
	require.Equal(t, []string{"faded", "same", "fresh"}, s.Learned())
	require.Greater(t, s.Recall("fresh"), 0.95)
	require.Less(t, s.Recall("faded"), 0.75)
}

// Of exercises of a type only the most faded is kept, of steps only the last; one that was played today stays
// the one of its type.
func TestScalesAreKeptByGoingRound(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.ExerciseOf("c", "scale/apart/C/major/-"),
		plantest.ExerciseOf("g", "scale/apart/G/major/-"),
		plantest.ExerciseOf("d", "scale/apart/D/major/-"),
		plantest.ExerciseOf(
			"c together",
			"scale/together/C/major/-",
		),
		plantest.ExerciseOf("five", "five-finger/parallel/C/major-five-finger/-"),
		plantest.Piece("song", material.Method),
	)
	plantest.Learned(s, "c", 60, 5)
	plantest.Learned(s, "g", 30, 5)
	plantest.Learned(s, "d", 20, 5)
	plantest.Learned(s, "c together", 10, 30)
	plantest.Learned(s, "five", 10, 30)
	plantest.Learned(s, "song", 1, 30)
	require.Equal(t, []string{"g", "five", "song"}, s.Learned(), "c is kept by its next step")
	s.Standing.Materials["d"].LastPlayed = plantest.On(0)
	require.Equal(t, []string{"d", "five", "song"}, s.Learned(), "played today: not asked for another")
}

// A piece that was cleared less than two weeks ago settles, the latest first; an exercise, a card, a piece from before and a section of
// what is learned do not.
func TestWhatSettles(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("today", material.Method),
		plantest.Piece("song", material.Repertoire),
		plantest.Piece("last", material.Method),
		plantest.Piece("over", material.Method),
		plantest.Piece("card", material.Reading),
		plantest.ExerciseOf("c", "scale/apart/C/major/-"),
		plantest.Piece("before", material.Method),
		plantest.Piece("part", material.Method),
	)
	for id, ago := range map[string]int{"today": 0, "song": 6, "last": 13, "over": 14, "card": 2, "c": 2, "before": 3, "part": 3} {
		plantest.Learned(s, id, ago, 30)
	}
	s.Standing.Materials["before"].LastPlayed = time.Time{}
	part := s.Library["part"]
	part.PartOf = "song"
	s.Library["part"] = part
	require.Equal(t, []string{"today", "song", "last"}, s.Settling(plantest.Monday))
	require.Equal(t, []string{"today", "song"}, s.Settling(plantest.Monday.AddDate(0, 0, 1)))
	require.Empty(t, s.Settling(plantest.Monday.AddDate(0, 0, -20)), "nothing was cleared by then")
}

func TestWhatALessonHears(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("a", material.Method),
		plantest.Piece("b", material.Method),
		plantest.Piece("c", material.Method),
		plantest.Piece("d", material.Method),
		plantest.Piece("e", material.Method),
		plantest.Piece("new", material.Method),
	)
	for i, id := range []string{"a", "b", "c", "d", "e"} {
		plantest.Learned(s, id, 50-10*i, 20)
	}
	require.Equal(t, []studentplan.Heard{{"a", false}, {"b", false}, {"c", false}}, s.ToHear(nil))
	require.Equal(t, []studentplan.Heard{{"e", false}, {"c", false}, {"a", false}}, s.ToHear([]string{"e", "c"}), "the plan's come first")
	require.Equal(
		t,
		[]studentplan.Heard{{"e", false}, {"d", false}, {"c", false}, {"b", false}},
		s.ToHear([]string{"e", "d", "c", "b", "gone"}),
		"all of them",
	)
	s.Standing.Materials["d"].LastPlayed = plantest.On(0)
	require.Equal(t, []studentplan.Heard{{"a", false}, {"b", false}, {"c", false}, {"d", true}}, s.ToHear(nil), "heard today stays in view beside them")
	plantest.Learned(s, "new", 0, 2)
	require.Equal(t, 4, len(s.ToHear([]string{"new"})), "cleared today is not heard again")
}

func TestStarvedPieces(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method), plantest.Piece("b", material.Method), plantest.Piece("c", material.Method))
	plantest.Learned(s, "a", 42, 90)
	plantest.Learned(s, "b", 43, 90)
	plantest.Learned(s, "c", 90, 90)
	require.Equal(t, []string{"c", "b"}, s.Starved(), "six weeks to the day are allowed")
}

// The week has the minutes of its days for review, the lesson twice what it holds.
func TestMinutesForReview(t *testing.T) {
	var lib []material.Material
	for i := range 60 {
		m := plantest.Piece(string(rune('A'+i)), material.Method)
		m.Quarters, m.Tempo = 80, 80 // 2.5 minutes at practice tempo with breath
		lib = append(lib, m)
	}
	s := plantest.Pupil(t, lib...)
	for i, m := range lib {
		plantest.Learned(s, m.ID, 10+i%7, 20)
	}
	a := plantest.Ahead(s)
	minutes := func(list []review.Chosen) (sum float64) {
		for _, c := range list {
			sum += c.Minutes
		}
		return sum
	}
	one := week.ReviewMinutes(lib[0])
	require.InDelta(t, 0.45*20*6, minutes(a.ForWeek()), one)
	require.LessOrEqual(t, minutes(a.ForWeek()), 0.45*20*6)
	require.InDelta(t, 2*(0.45*30+2), minutes(a.ForLesson()), one)
	require.LessOrEqual(t, minutes(a.ForLesson()), 2*(0.45*30+2))
}

func TestInIsByStrandThenByBeginning(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("read", material.Reading),
		plantest.Piece("late", material.Method),
		plantest.Piece("early", material.Method),
		plantest.Piece("scale", material.Technique),
	)
	plantest.Working(s, "read", 30)
	plantest.Working(s, "late", 8)
	plantest.Working(s, "early", 20)
	plantest.Working(s, "scale", 25)
	require.Equal(t, []string{"early", "late", "scale", "read"}, s.In(standing.Working))
	require.True(t, s.Begun("read"))
	s.Standing.Materials["heard"] = &standing.MaterialStanding{State: standing.Heard}
	require.False(t, s.Begun("heard"))
	require.False(t, s.Begun("nothing"))
}
