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
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
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
	p, in := s.Next(material.Method, placed)
	require.Equal(t, "a", p.Chosen.Material.ID, "a strand begins where its book begins")
	require.Equal(t, []next.Reason{{Kind: next.Beginning, Leap: 1, Reach: 1.5}, {Kind: next.New, Skills: []string{"plain"}}}, p.Reasons)
	require.Len(t, in.Candidates, 2)
	plantest.Working(s, "a", 8)
	p, in = s.Next(material.Method, placed)
	require.Equal(t, "b", p.Chosen.Material.ID)
	require.Equal(t, []float64{1}, in.Last)
	placed[1].Aside = "paused"
	p, _ = s.Next(material.Method, placed)
	require.Equal(t, []next.Reason{{Kind: next.Nothing}}, p.Reasons)
	s.Policy.EaseAfterLeap = false
	_, in = s.Next(material.Method, placed)
	require.True(t, in.Straight)
}

// Where reading begins later nothing is proposed on its strand until then.
func TestReadingBeginsLater(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("card", material.Reading, "plain"))
	s.Policy.ReadingAfter = 4
	p, _ := s.Next(material.Reading, plantest.Place(s, "card"))
	require.Nil(t, p.Chosen)
	require.Equal(
		t,
		[]next.Reason{{Kind: next.Later, Weeks: 4, From: plantest.Monday.AddDate(0, 0, 28)}},
		p.Reasons,
		"counted from today, as there was no lesson yet",
	)
	require.Empty(t, plantest.Ahead(s, "card").Fresh())
	s.Standing.FirstLesson = plantest.On(27)
	p, _ = s.Next(material.Reading, plantest.Place(s, "card"))
	require.Equal(t, next.Later, p.Reasons[0].Kind)
	require.Equal(t, 1, s.ReadingFrom(plantest.Ahead(s, "card").Lessons), "it begins tomorrow, so in the lesson after today's")
	s.Standing.FirstLesson = plantest.On(28)
	p, _ = s.Next(material.Reading, plantest.Place(s, "card"))
	require.Equal(t, "card", p.Chosen.Material.ID, "four weeks to the day")
	p, _ = s.Next(material.Method, plantest.Place(s, "card"))
	require.Equal(t, next.Nothing, p.Reasons[0].Kind)
}

// A rung is proposed on each strand where nothing is in work; repertoire is taken up by choice.
func TestFreshRungs(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("method", material.Method, "ties"),
		plantest.Piece("scale", material.Technique, "thumb"),
		plantest.Piece("song", material.Repertoire, "pulse"),
		plantest.Piece("card", material.Reading, "pulse"),
	)
	plantest.Working(s, "work", 8)
	fresh := plantest.Ahead(s, "work", "method", "scale", "song", "card").Fresh()
	require.Len(t, fresh, 2)
	require.Equal(t, []string{"scale", "card"}, []string{fresh[0].Material.ID, fresh[1].Material.ID})
	require.Equal(t, next.Reason{Kind: next.Beginning, Leap: 1, Reach: 1.5}, fresh[0].Why)
	s.Standing.Materials["work"].State = "resting"
	fresh = plantest.Ahead(s, "work", "method", "scale").Fresh()
	require.Equal(t, "method", fresh[0].Material.ID, "a piece that rests leaves its strand idle")
}

func TestWhatFits(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("a", material.Method, "pulse"),
		plantest.Piece("b", material.Ear, "pulse"),
		plantest.Piece("big", material.Method, "u", "v", "w", "x"),
	)
	s.Library["cello"] = material.Material{ID: "cello", Instrument: "cello", Strand: material.Method}
	plantest.Working(s, "work", 8)
	ranked, in := s.Fit("", plantest.Place(s, "work", "a"))
	var ids []string
	for _, c := range ranked {
		ids = append(ids, c.Material.ID)
	}
	require.Equal(t, []string{"b", "a", "big"}, ids, "b is on an idle strand")
	require.Equal(
		t,
		map[material.Strand]bool{
			material.Method:     false,
			material.Technique:  true,
			material.Reading:    true,
			material.Repertoire: true,
			material.Ear:        true,
		},
		in.Idle,
	)
	require.Len(t, in.Library, 4, "of this instrument")
	require.Equal(t, 2, in.PerLesson)
	ranked, in = s.Fit(material.Method, plantest.Place(s, "work", "a"))
	require.Len(t, ranked, 2)
	require.False(t, in.Ease)
	s.Standing.Materials["work"].Before.Size = 1.6
	_, in = s.Fit(material.Method, plantest.Place(s, "work"))
	require.True(t, in.Ease, "the last was beyond the comfortable leap")
	s.Standing.Materials["work"].Before.Size = 1.5
	_, in = s.Fit(material.Method, plantest.Place(s, "work"))
	require.False(t, in.Ease, "as large as the reach is no stretch")
	s.Standing.Materials["work"].Before.Size, s.Policy.EaseAfterLeap = 1.6, false
	_, in = s.Fit(material.Method, plantest.Place(s, "work"))
	require.False(t, in.Ease)
}

func TestWhoIsReady(t *testing.T) {
	m := plantest.Piece("m", material.Method, "ties", "plain")
	names := func(list []studentplan.Ready) (out []string) {
		for _, r := range list {
			out = append(out, r.Name+" "+string(r.Kind))
		}
		return out
	}
	at := func(name string, skills ...string) studentplan.Student {
		s := plantest.Pupil(t, m)
		s.Name = name
		for _, skill := range skills {
			s.Standing.Ability.Skills[skill] = leap.Evidence{Shown: true}
		}
		return *s
	}
	begun, cleared, blocked := at("Begun"), at("Cleared"), at("Blocked")
	plantest.Working(&begun, "m", 8)
	plantest.Learned(&cleared, "m", 8, 20)
	asked := m
	asked.Demands = append(asked.Demands, material.Demand{Skill: "pulse", Weight: 0.1})
	blocked.Library["m"] = asked
	require.Equal(t, []string{"Ready ready", "Half ready", "Reach reach", "Begun begun", "Cleared begun"},
		names(studentplan.WhoIsReady([]studentplan.Student{begun, at("Reach"), at("Half", "plain"), cleared, at("Ready", "plain", "ties")}, m)))
	r := cleared.ReadyFor(m)
	require.True(t, r.Cleared)
	require.False(t, begun.ReadyFor(m).Cleared)
	require.Equal(t, []any{2.0, 1.5, studentplan.Reaching}, []any{at("X").ReadyFor(m).Leap.Size, at("X").ReadyFor(m).Reach, at("X").ReadyFor(m).Kind})
	r = blocked.ReadyFor(asked)
	require.Equal(t, studentplan.Blocked, r.Kind)
	require.Equal(t, []string{"ties"}, r.First, "ties stand on the pulse, which is new in it as well")
}

func TestWhatWasClearedOutsideABook(t *testing.T) {
	in, out := plantest.Piece("in", material.Method, "ties"), plantest.Piece("out", material.Method, "plain")
	in.SourceID, out.SourceID = "book", "other"
	s := plantest.Pupil(t, in, out, plantest.Piece("work", material.Method, "pulse"))
	plantest.Learned(s, "in", 9, 9)
	plantest.Learned(s, "out", 9, 9)
	plantest.Working(s, "work", 9)
	s.Standing.Ability.Skills["thumb"] = leap.Evidence{Shown: true, Cleared: 4}
	s.Standing.Ability.Skills["ties"] = leap.Evidence{Cleared: 1}
	a := s.Outside([]string{"book"})
	require.Equal(t, map[string]leap.Evidence{"plain": {Cleared: 1}, "thumb": {Shown: true}}, a.Skills)
	require.Equal(t, 8, a.LongestBars)
}
