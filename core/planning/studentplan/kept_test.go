package studentplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/review"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
)

// The one most faded comes first; of those that are as sure the one played longest ago.
func TestLearnedPiecesTheMostFadedFirst(t *testing.T) {
	s := pupil(
		t,
		piece("fresh", material.Method),
		piece("faded", material.Method),
		piece("same", material.Method),
		piece("work", material.Method),
	)
	s.learned("fresh", 3, 50)
	s.learned("faded", 40, 5)
	s.learned("same", 3, 50).LastPlayed = on(5)
	s.working("work", 8)
	require.Equal(t, []string{"faded", "same", "fresh"}, s.Learned())
	require.Greater(t, s.Recall("fresh"), 0.95)
	require.Less(t, s.Recall("faded"), 0.75)
}

// Of exercises of a type only the most faded is kept, of steps only the last; one that was played today stays
// the one of its type.
func TestScalesAreKeptByGoingRound(t *testing.T) {
	s := pupil(
		t,
		exerciseOf("c", "scale/apart/C/major/-"),
		exerciseOf("g", "scale/apart/G/major/-"),
		exerciseOf("d", "scale/apart/D/major/-"),
		exerciseOf(
			"c together",
			"scale/together/C/major/-",
		),
		exerciseOf("five", "five-finger/parallel/C/major-five-finger/-"),
		piece("song", material.Method),
	)
	s.learned("c", 60, 5)
	s.learned("g", 30, 5)
	s.learned("d", 20, 5)
	s.learned("c together", 10, 30)
	s.learned("five", 10, 30)
	s.learned("song", 1, 30)
	require.Equal(t, []string{"g", "five", "song"}, s.Learned(), "c is kept by its next step")
	s.Standing.Materials["d"].LastPlayed = on(0)
	require.Equal(t, []string{"d", "five", "song"}, s.Learned(), "played today: not asked for another")
}

func TestWhatALessonHears(t *testing.T) {
	s := pupil(
		t,
		piece("a", material.Method),
		piece("b", material.Method),
		piece("c", material.Method),
		piece("d", material.Method),
		piece("e", material.Method),
		piece("new", material.Method),
	)
	for i, id := range []string{"a", "b", "c", "d", "e"} {
		s.learned(id, 50-10*i, 20)
	}
	require.Equal(t, []Heard{{"a", false}, {"b", false}, {"c", false}}, s.ToHear(nil))
	require.Equal(t, []Heard{{"e", false}, {"c", false}, {"a", false}}, s.ToHear([]string{"e", "c"}), "the plan's come first")
	require.Equal(
		t,
		[]Heard{{"e", false}, {"d", false}, {"c", false}, {"b", false}},
		s.ToHear([]string{"e", "d", "c", "b", "gone"}),
		"all of them",
	)
	s.Standing.Materials["d"].LastPlayed = on(0)
	require.Equal(t, []Heard{{"a", false}, {"b", false}, {"c", false}, {"d", true}}, s.ToHear(nil), "heard today stays in view beside them")
	s.learned("new", 0, 2)
	require.Equal(t, 4, len(s.ToHear([]string{"new"})), "cleared today is not heard again")
}

func TestStarvedPieces(t *testing.T) {
	s := pupil(t, piece("a", material.Method), piece("b", material.Method), piece("c", material.Method))
	s.learned("a", 42, 90)
	s.learned("b", 43, 90)
	s.learned("c", 90, 90)
	require.Equal(t, []string{"c", "b"}, s.Starved(), "six weeks to the day are allowed")
}

// The week has the minutes of its days for review, the lesson twice what it holds.
func TestMinutesForReview(t *testing.T) {
	var lib []material.Material
	for i := range 60 {
		m := piece(string(rune('A'+i)), material.Method)
		m.Quarters, m.Tempo = 80, 80 // 2.5 minutes at practice tempo with breath
		lib = append(lib, m)
	}
	s := pupil(t, lib...)
	for i, m := range lib {
		s.learned(m.ID, 10+i%7, 20)
	}
	a := s.ahead()
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
	s := pupil(
		t,
		piece("read", material.Reading),
		piece("late", material.Method),
		piece("early", material.Method),
		piece("scale", material.Technique),
	)
	s.working("read", 30)
	s.working("late", 8)
	s.working("early", 20)
	s.working("scale", 25)
	require.Equal(t, []string{"early", "late", "scale", "read"}, s.In(standing.Working))
	require.True(t, s.Begun("read"))
	s.Standing.Materials["heard"] = &standing.MaterialStanding{State: standing.Heard}
	require.False(t, s.Begun("heard"))
	require.False(t, s.Begun("nothing"))
}
