package outlook

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/preview"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

// Previews look as far as the policy says, or as far as a skill that stands on the ladder and is new has to begin.
func TestHowFarPreviewsLook(t *testing.T) {
	in := student(t)
	require.Equal(t, in.Preview.Lessons, in.horizon())
	early, err := skill.Parse(
		[]byte(`[{"id":"a","name":"A","steps":["1","2"],"ahead":40},{"id":"b","name":"B","ahead":24},{"id":"c","name":"C","ahead":60}]`),
	)
	require.NoError(t, err)
	in.Skills = early
	require.Equal(t, 40, in.horizon(), "c is being learned")
	in.Standing.Ability.Skills["a"] = leap.Evidence{Shown: true}
	require.Equal(t, 24, in.horizon())
	in.Placed = in.Placed[:4]
	require.Equal(t, in.Preview.Lessons, in.horizon(), "nothing on the ladder asks for b")

	require.Zero(t, in.most(9), "the whole ladder")
	in.Near, in.Preview.Rungs = true, 4
	require.Equal(t, []int{10, 4}, []int{in.most(9), in.most(2)})
}

func TestEverythingMovesByLessons(t *testing.T) {
	w := When{
		Begin:  forecast.Span{Low: 1, Median: 2, High: 4},
		Clear:  forecast.Span{Low: 3, Median: 5, High: 9},
		Course: forecast.Course{Begin: []int32{1, 4}, Clear: []int32{3, 9}},
	}
	require.Equal(t, When{
		Begin: forecast.Span{Low: 4, Median: 5, High: 7}, Clear: forecast.Span{Low: 6, Median: 8, High: 12},
		Course: forecast.Course{Begin: []int32{4, 7}, Clear: []int32{6, 12}},
	}, w.later(3))
}

// What takes weeks is heard in the first lesson after them, and what begins in a lesson is cleared in the next at the earliest.
func TestLessonsOfWeeks(t *testing.T) {
	course := forecast.Course{Begin: []int32{0, 1, 2, 3}, Clear: []int32{1, 1, 5, 4}}
	require.Equal(t, course, Input{}.inLessons(course))
	require.Equal(t, forecast.Course{Begin: []int32{0, 2, 4, 6}, Clear: []int32{2, 2, 10, 8}}, Input{PerWeek: 2}.inLessons(course))
	require.Equal(
		t,
		forecast.Course{Begin: []int32{0, 1, 1, 2}, Clear: []int32{1, 1, 3, 3}},
		Input{PerWeek: 0.5}.inLessons(course),
		"every second week",
	)
}

func TestReadingBeginsInALessonNotInAWeek(t *testing.T) {
	first := func(perWeek float64) int {
		in := student(t)
		for id, m := range in.Library {
			m.Strand = material.Reading
			in.Library[id] = m
		}
		for i := range in.Placed {
			in.Placed[i].Strand = material.Reading
		}
		in.Standing, in.Preview.PerLesson = &standing.Standing{}, 0
		in.ReadingFrom, in.PerWeek = 8, perWeek
		return Of(in).When["m0"].Begin.Low
	}
	require.Equal(t, []int{8, 8, 8}, []int{first(0), first(2), first(0.5)}, "the eighth lesson, however many a week there are")
}

func TestTheWeeksAPieceHasHadBeforeADay(t *testing.T) {
	o := &Outlook{in: student(t)}
	had := func(days int) float64 {
		return o.had(ladder.Rung{Standing: &standing.MaterialStanding{Assigned: day.AddDate(0, 0, -days)}})
	}
	require.Equal(
		t,
		[]float64{0, 0, 1, 2, 3},
		[]float64{had(0), had(7), had(14), had(21), had(22)},
		"today's lesson counts when the day is over",
	)
}

// The rungs ahead in their order, planted or not; what stands aside and what is in work are none.
func TestWhatIsAhead(t *testing.T) {
	in := student(t)
	in.Placed[3].Aside = ladder.Skipped
	in.Standing.Ability.Skills["a"] = leap.Evidence{StepsDone: 1, Steps: 2}
	o := Of(in)
	require.Equal(t, ladder.Preview, o.View.Rails[0].Rungs[2].Layer)
	rungs, ability := o.ahead()
	var ids []string
	for i, r := range rungs {
		ids = append(ids, r.Material.ID)
		require.Equal(t, i, r.Place)
		require.Equal(t, o.When[r.Material.ID].Begin.Median, r.Begin)
	}
	require.Equal(t, []string{"m1", "m2", "m4", "m5"}, ids)
	require.Equal(t, in.Standing.Ability.Skills, ability.Skills)
}

// What a beginning asks for counts as being learned from then on: a later piece that asks for it too needs no preview.
func TestABeginningTeachesWhatItAsksFor(t *testing.T) {
	in := student(t)
	in.Standing = &standing.Standing{}
	in.Placed = []ladder.Placed{in.Placed[2], in.Placed[0]}
	m := in.Library["m0"]
	m.Demands = []material.Demand{{Skill: "a", Weight: 1}}
	in.Library["m0"] = m
	o := Of(in)
	require.Empty(t, o.Needs)
	_, ability := o.ahead()
	require.Equal(t, map[string]leap.Evidence{"a": {Working: 1}}, ability.Skills)
	require.Empty(t, in.Standing.Ability.Skills, "the standing stays as it is")
}

func TestChancesOfATarget(t *testing.T) {
	in := student(t)
	o := Of(in)
	v, err := o.Target(Target{Material: "m4", Date: day.AddDate(0, 0, 9*7), Polish: 2, Sure: 0.8})
	require.NoError(t, err)
	clear := o.When["m4"].Course.Clear
	require.Equal(t, forecast.Ready(clear, 2, 9), v.Chance, "the last of ten lessons is the ninth after today's")
	require.Equal(t, forecast.Ready(clear, 2, 7), v.WithoutTwo)

	// With all the time in the world it does not matter which is left out: they keep their order.
	v, err = o.Target(Target{Material: "m4", Date: day.AddDate(5, 0, 0), Sure: 0.8})
	require.NoError(t, err)
	require.Equal(t, []Drop{{"m1", 1}, {"m2", 1}, {"m3", 1}}, v.Drops)
	_, err = o.Target(Target{Material: "m4", Date: day})
	require.NoError(t, err, "today is not past")

	in.Standing.Materials["m0"].ClearedAt, in.Standing.Materials["m0"].State = day.AddDate(0, 0, -1), standing.Cleared
	done := Of(in)
	_, err = done.Target(Target{Material: "m0", Date: day.AddDate(0, 1, 0)})
	require.EqualError(t, err, "“Piece m0” is learned already: keep it in review")
}

func TestBitesOfTheNextLessonAlone(t *testing.T) {
	o := Outlook{
		Plan: preview.Plan{
			Steps: []preview.Step{{Skill: "a", Step: 1, Lesson: 0}, {Skill: "b", Step: 1, Lesson: 0}, {Skill: "a", Step: 2, Lesson: 1}},
		},
	}
	require.Equal(t, o.Plan.Steps[:2], o.NextBites())
	o.Plan.Steps = o.Plan.Steps[:1]
	require.Equal(t, o.Plan.Steps, o.NextBites())
	o.Plan.Steps = nil
	require.Empty(t, o.NextBites())
}

func TestASkillIsRecentUntilTheSameDayOfTheNextWeek(t *testing.T) {
	in := student(t)
	in.Standing.Planted = map[string]time.Time{"a": day.AddDate(0, 0, -7)}
	require.Empty(t, (&Outlook{in: in}).recent())
}
