package studentplan_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/next"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
)

// What is due, the most urgent first: of late previews one, of each strand only the next rung, and no cliff where
// a strand begins.
func TestWhatIsDue(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("run", material.Method, "plain"),
		plantest.Piece("hard", material.Method, "pulse", "ties", "thumb"),
		plantest.Piece("beyond", material.Method, "a", "b", "c", "d"),
		plantest.Piece("start", material.Ear, "e", "f", "g"),
		plantest.Piece("old", material.Repertoire),
		plantest.Piece("scale", material.Technique),
	)
	plantest.Working(s, "run", 8).RunDue = true
	plantest.Working(s, "scale", 8).SinceMark = 3
	plantest.Learned(s, "old", 50, 400)
	a := plantest.Ahead(s, "run", "hard", "beyond", "start", "scale")
	require.Equal(t, []string{"run run", "stuck scale", "late hard", "cliff hard", "bench ", "review old"}, plantest.Kinds(a.Due(plantest.Monday)))
	due := a.Due(plantest.Monday)
	require.Equal(t, "pulse", due[2].Skill)
	require.Equal(t, 3.0, due[3].Leap)
	require.Equal(t, 1.5, due[3].Reach)
	require.Equal(t, signs.Sign{Kind: signs.SetupDue}, due[4])
	require.Equal(t, signs.Sign{Kind: signs.Review, Material: "old", Weeks: 7}, due[5])

	measured := func(daysAgo int) {
		s.Standing.Setups = map[setup.Place]standing.Measured{setup.Studio: {At: plantest.On(daysAgo)}}
	}
	measured(300)
	require.Equal(t, signs.Sign{Kind: signs.SetupDue, Measured: true}, plantest.Ahead(s, "run", "hard").Due(plantest.Monday)[4])
	measured(10)
	require.NotContains(t, plantest.Kinds(plantest.Ahead(s, "run").Due(plantest.Monday)), "bench ")
	// Who does not measure is asked in three lessons, and again after some months.
	measured(300)
	for i, daysAgo := range []int{330, 24, 17, 10} {
		s.Standing.Given = append(s.Standing.Given, civil.On(plantest.On(daysAgo)))
		require.Equal(t, i < 3, s.AsksToMeasure(), daysAgo)
	}
	s.Standing.Given, s.Standing.Setups = nil, nil
	s.Standing.FirstLesson = plantest.On(21)
	for i, daysAgo := range []int{21, 14, 7} {
		s.Standing.Given = append(s.Standing.Given, civil.On(plantest.On(daysAgo)))
		require.Equal(t, i < 2, s.AsksToMeasure(), "never measured")
	}
	s.Standing.FirstLesson = plantest.On(110)
	s.Standing.Given = []civil.Day{civil.On(plantest.On(40)), civil.On(plantest.On(33)), civil.On(plantest.On(26)), civil.On(plantest.On(12))}
	require.True(t, s.AsksToMeasure(), "asked anew after three months")
	s.Standing.Given = append(s.Standing.Given, civil.On(plantest.On(8)), civil.On(plantest.On(5)))
	require.False(t, s.AsksToMeasure())
	s.Standing.FirstLesson, s.Standing.Given = time.Time{}, nil
	require.True(t, s.AsksToMeasure(), "nobody was asked yet")
	require.True(t, s.SetupDue())
	measured(300)
	s.Instrument = "cello"
	require.True(t, s.SetupDue(), "a chair that was measured once is measured again")
	s.Standing.Setups = nil
	require.False(t, s.SetupDue(), "and nobody is asked to begin with it")
	s.Instrument = "violin"
	measured(300)
	require.False(t, s.SetupDue(), "who stands has no seat")

	// A rung that is set aside does not count; then the next one does.
	s.Instrument = "piano"
	placed := plantest.Place(s, "run", "hard", "beyond")
	placed[1].Aside = "paused"
	b := s.Ahead(a.Horizon, placed, studentplan.Options{})
	require.Contains(t, plantest.Kinds(b.Due(plantest.Monday)), "cliff beyond")
}

// A piece that takes longer than nine of ten such pieces do is stuck, though it gets its marks.
func TestAPieceThatTakesTooLongIsStuck(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("long", material.Method, "plain"))
	plantest.Working(s, "long", 7*30)
	a := plantest.Ahead(s, "long")
	require.Equal(t, []any{false, 0.0}, []any{a.When["long"].Long, a.When["long"].Usual}, "nothing was cleared yet: too early to say")
	require.Equal(t, []string{"bench "}, plantest.Kinds(a.Due(plantest.Monday)))
	seen := slices.Repeat([]forecast.Observation{{Student: "L", Leap: 1, DistinctBars: 8, Weeks: 3}}, 5)
	later := s.Ahead(studentplan.Horizon{Model: forecast.Fit(seen, forecast.DefaultPrior())}, plantest.Place(s, "long"), studentplan.Options{})
	a = &later
	require.Equal(t, []any{true, 29.0}, []any{a.When["long"].Long, a.When["long"].Had}, "today's lesson counts when the day is over")
	due := a.Due(plantest.Monday)
	require.Equal(t, signs.Stuck, due[0].Kind)
	require.Zero(t, due[0].Lessons)
	require.Equal(t, int(a.When["long"].Usual)+1, due[0].Weeks)
}

func TestTheNextRung(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method, "plain"), plantest.Piece("b", material.Method, "ties"), plantest.Piece("c", material.Reading, "thumb"))
	placed := plantest.Place(s, "a", "b", "c")
	p, in := proposing.Next(*s, material.Method, placed)
	require.Equal(t, "a", p.Chosen.Material.ID, "a strand begins where its book begins")
	require.Equal(t, []next.Reason{{Kind: next.Beginning, Leap: 1, Reach: 1.5}, {Kind: next.New, Skills: []string{"plain"}}}, p.Reasons)
	require.Len(t, in.Candidates, 2)
	plantest.Working(s, "a", 8)
	p, in = proposing.Next(*s, material.Method, placed)
	require.Equal(t, "b", p.Chosen.Material.ID)
	require.Equal(t, []float64{1}, in.Last)
	placed[1].Aside = "paused"
	p, _ = proposing.Next(*s, material.Method, placed)
	require.Equal(t, []next.Reason{{Kind: next.Nothing}}, p.Reasons)
	s.Policy.EaseAfterLeap = false
	_, in = proposing.Next(*s, material.Method, placed)
	require.True(t, in.Straight)
}

// Where reading begins later nothing is proposed on its strand until then.
func TestReadingBeginsLater(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("card", material.Reading, "plain"))
	s.Policy.ReadingAfter = 4
	p, _ := proposing.Next(*s, material.Reading, plantest.Place(s, "card"))
	require.Nil(t, p.Chosen)
	require.Equal(
		t,
		[]next.Reason{{Kind: next.Later, Weeks: 4, From: plantest.Monday.AddDate(0, 0, 28)}},
		p.Reasons,
		"counted from today, as there was no lesson yet",
	)
	require.Empty(t, proposing.Fresh(*plantest.Ahead(s, "card")))
	s.Standing.FirstLesson = plantest.On(27)
	p, _ = proposing.Next(*s, material.Reading, plantest.Place(s, "card"))
	require.Equal(t, next.Later, p.Reasons[0].Kind)
	require.Equal(t, 1, s.ReadingFrom(plantest.Ahead(s, "card").Lessons), "it begins tomorrow, so in the lesson after today's")
	s.Standing.FirstLesson = plantest.On(28)
	p, _ = proposing.Next(*s, material.Reading, plantest.Place(s, "card"))
	require.Equal(t, "card", p.Chosen.Material.ID, "four weeks to the day")
	p, _ = proposing.Next(*s, material.Method, plantest.Place(s, "card"))
	require.Equal(t, next.Nothing, p.Reasons[0].Kind)
}

// A strand on which something was learned does not dry up in silence: after the last card it is said, unless something waits on the
// ladder, is in work or rests, or reading has not begun; of technique only where no exercises are known that the lesson proposes.
func TestAStrandThatDriesUpIsSaid(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("song", material.Method), plantest.Piece("scale", material.Technique),
		plantest.Piece("card", material.Reading), plantest.Piece("next", material.Reading))
	plantest.Working(s, "song", 8)
	dry := func(placed ...string) (out []string) {
		for _, x := range plantest.Ahead(s, placed...).Due(plantest.Monday) {
			if x.Kind == signs.Dry {
				out = append(out, string(x.Strand))
			}
		}
		return out
	}
	require.Empty(t, dry("song"), "nobody began it")
	plantest.Learned(s, "scale", 9, 30)
	plantest.Learned(s, "card", 9, 30)
	require.Equal(t, []string{"reading"}, dry("song"))
	require.Empty(t, dry("song", "next"), "something is ahead")
	plantest.Working(s, "next", 1)
	require.Empty(t, dry("song"))
	s.Standing.Materials["next"].State = standing.Resting
	require.Empty(t, dry("song"))
	delete(s.Standing.Materials, "next")
	s.Instrument = "zither"
	require.Equal(t, []string{"technique", "reading"}, dry("song"))
	s.Standing.ByEar = true
	require.Equal(t, []string{"technique"}, dry("song"))
}
