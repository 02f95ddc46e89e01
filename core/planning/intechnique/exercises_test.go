package intechnique

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
)

// The exercise of the cycle comes first, then the staircases on which the student stands, then new ones; what
// stands ahead already is not proposed again, and no more than three are.
func TestWhichExercisesAreProposed(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.ExerciseOf("five", "five-finger/parallel/C/major-five-finger/-"),
		plantest.ExerciseOf("ahead", "five-finger/parallel/G/major-five-finger/-"),
	)
	plantest.Learned(s, "five", 30, 30)
	kept := plantest.Cycle("C")
	s.Standing.Cycle = &kept
	ids := func(a *studentplan.StudentOutlook) (out []string) {
		stairs, _, _ := Stairs(a)
		for _, p := range ProposedExercises(a, stairs) {
			out = append(out, p.Exercise.ID())
		}
		return out
	}
	all := ids(plantest.Ahead(s))
	require.Equal(
		t,
		[]string{"scale/apart/C/major/-", "five-finger/parallel/G/major-five-finger/-", "rhythm-study/right/-/-/walk"},
		all,
		"C was not begun in two lessons and is the key of this week; then the staircase that was begun, then a new one",
	)
	a := plantest.Ahead(s, "ahead")
	require.Equal(t, []Placed{{"ahead", ExercisesAhead(a)[0].Exercise}}, ExercisesAhead(a))
	require.NotContains(t, ids(a), "five-finger/parallel/G/major-five-finger/-")
	s.Standing.Cycle = nil
	able := plantest.Pupil(t)
	for _, skill := range []string{"contrary-motion", "hands-together", "beyond-five", "hands-in-turn", "scale-runs", "thumb-under", "over-the-thumb"} {
		able.Standing.Ability.Skills[skill] = leap.Evidence{Shown: true}
	}
	open := 0
	stairs, _, _ := Stairs(plantest.Ahead(able))
	for _, st := range stairs {
		if st.Next != nil {
			open++
		}
	}
	require.Greater(t, open, 3)
	require.Len(t, ids(plantest.Ahead(able)), 3, "no more than three at once")
	require.Equal(t, "five-finger/parallel/G/major-five-finger/-", ids(plantest.Ahead(s))[0])
}

// An exercise that cannot be heard in the week after its lesson says so.
func TestAnExerciseThatIsHeardLater(t *testing.T) {
	s := plantest.Pupil(t)
	p := exercise.Proposal{Reasons: []exercise.Reason{{Kind: exercise.FirstStep}}}
	require.Equal(t, p, Propose(plantest.Ahead(s), p))
	s.Holidays = []calendar.Holiday{plantest.Holiday("half", 7, 7)}
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, nil, studentplan.Options{})
	require.Equal(
		t,
		[]exercise.Reason{{Kind: exercise.FirstStep}, {Kind: exercise.HeardLater, Day: plantest.Monday.AddDate(0, 0, 14)}},
		Propose(&a, p).Reasons,
	)
	require.Len(t, p.Reasons, 1, "the proposal itself stays as it is")
}

// One key has had its week, one slid because it was not begun and is this week's, one is worked at already; a missed lesson
// and a holiday slide the rest.
func TestACycleOverTheLessons(t *testing.T) {
	s := plantest.Pupil(t, plantest.ExerciseOf("c", "scale/apart/C/major/-"), plantest.ExerciseOf("a", "scale/apart/A/major/-"))
	plantest.Learned(s, "c", 9, 9)
	plantest.Working(s, "a", 1)
	s.Standing.Missed = []string{"2026-05-18", "nonsense", "2027-12-06"}
	s.Holidays = []calendar.Holiday{plantest.Holiday("half", 28, 7)}
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, nil, studentplan.Options{})
	stairs := exercise.Climb(s.OnInstrument(), s.Progress(), exercise.Wish{})
	c, err := CycleOf(&a, plantest.Cycle("C"), stairs)
	require.NoError(t, err)
	var got []string
	for _, w := range c.Weeks[:6] {
		got = append(
			got,
			fmt.Sprintf("%s %s %s missed %d held %d off %d", w.Day.Format("01-02"), w.Exercise.Key, w.State, len(w.Missed), len(w.Held), w.Off),
		)
	}
	require.Equal(t, []string{
		"04-20 C through missed 0 held 0 off 0", "05-04 G now missed 0 held 0 off 0", "05-11 D ahead missed 0 held 0 off 0",
		"06-08 A begun missed 1 held 1 off 2", "06-15 E ahead missed 0 held 0 off 0", "06-22 B ahead missed 0 held 0 off 0",
	}, got)
	require.Equal(t, []int{2, 1, 1, 1, 0}, []int{c.Off, c.Held, c.Missed, c.Slid, c.Pass})
	require.Equal(t, []time.Time{time.Date(2026, 4, 27, 0, 0, 0, 0, time.UTC)}, c.Weeks[1].Slid, "G was not begun then, and slid by a week")
	require.Equal(t, time.Date(2026, 8, 10, 0, 0, 0, 0, time.UTC), c.End)
	require.True(t, c.Weeks[2].Late, "D is heard two weeks later")
	require.False(t, c.Weeks[1].Late)
	now, ok := c.Now()
	require.True(t, ok)
	require.Equal(t, "scale/apart/G/major/-", now.Exercise.ID())
	s.Today = plantest.Monday.AddDate(1, 0, 0)
	c, err = CycleOf((&studentplan.StudentOutlook{Student: *s, Horizon: a.Horizon}), plantest.Cycle("C"), stairs)
	require.NoError(t, err)
	_, ok = c.Now()
	require.False(t, ok, "it is over")
}

func TestACycleThatCannotBe(t *testing.T) {
	s := plantest.Pupil(t)
	for says, c := range map[string]studentlog.Cycle{
		`"song" is not taken through the keys on the piano`: {Type: "song"},
		`there is no pass "blind"`:                          {Type: "scale", Step: "blind"},
		`there is no kind "blue" to take through the keys`:  {Type: "scale", Step: "apart", Kind: "blue"},
	} {
		_, err := Round(*s, c)
		require.EqualError(t, err, says)
	}
	_, err := Round(*s, plantest.Cycle("H"))
	require.ErrorContains(t, err, "is not a key")
	broken := plantest.Cycle("C")
	broken.From = "today"
	s.Standing.Cycle = &broken
	stairs, c, err := Stairs(plantest.Ahead(s))
	require.EqualError(t, err, `"today" is not a day`)
	require.Nil(t, c)
	require.NotEmpty(t, stairs, "the staircases stand all the same")
	require.Equal(
		t,
		studentlog.Cycle{Type: "scale", Step: "apart", Kind: "major", From: "2026-05-04", First: "B"},
		WholeCycle(*s, studentlog.Cycle{First: "B"}),
	)
	require.Equal(t, plantest.Cycle("C"), WholeCycle(*s, plantest.Cycle("C")), "what is set stays")
}

// The keys of the atlas: through, worked at, and what comes next in each.
func TestKeysOfAStudent(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.ExerciseOf("c", "scale/apart/C/major/-"),
		plantest.ExerciseOf("c2", "scale/together/C/major/-"),
		plantest.ExerciseOf("g", "scale/apart/G/major/-"),
	)
	plantest.Learned(s, "c", 9, 9)
	plantest.Working(s, "c2", 3)
	plantest.Working(s, "g", 2)
	scales, _ := exercise.TypeOf("scale")
	places, err := Round(*s, plantest.Cycle("C"))
	require.NoError(t, err)
	cells := Cells(*s, scales, places[:3])
	var got []string
	for _, c := range cells {
		got = append(got, fmt.Sprintf("%d %d %s", c.Through, c.Working, c.Next.ID()))
	}
	require.Equal(t, []string{"0 2 scale/together/C/major/-", "-1 0 scale/apart/G/major/-", "-1 -1 scale/apart/D/major/-"}, got)
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, []ladder.Placed{{Material: "g"}, {Material: "x"}}, studentplan.Options{})
	require.Equal(t, []Placed(nil), ExercisesAhead(&a), "what was begun lies not ahead, and a piece is no exercise")
}

func TestWhoKnowsKeys(t *testing.T) {
	none := KeyCell{Through: -1, Working: -1}
	begun, through := KeysOf([][]KeyCell{
		{none, none}, {{Through: 0, Working: -1}, {Through: 2, Working: 3}, none}, {{Through: -1, Working: 0}}, {},
	})
	require.Equal(t, []int{2, 2}, []int{begun, through})
}
