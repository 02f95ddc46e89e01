package studentplan

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/next"
	"patientladder/core/planning/signs"
	"patientladder/core/student/leap"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
)

// What is due, the most urgent first: of late previews one, of each strand only the next rung, and no cliff where
// a strand begins.
func TestWhatIsDue(t *testing.T) {
	s := pupil(
		t,
		piece("run", material.Method, "plain"),
		piece("hard", material.Method, "pulse", "ties", "thumb"),
		piece("beyond", material.Method, "a", "b", "c", "d"),
		piece("start", material.Ear, "e", "f", "g"),
		piece("old", material.Repertoire),
		piece("scale", material.Technique),
	)
	s.working("run", 8).RunDue = true
	s.working("scale", 8).SinceMark = 3
	s.learned("old", 50, 400)
	a := s.ahead("run", "hard", "beyond", "start", "scale")
	require.Equal(t, []string{"run run", "stuck scale", "late hard", "cliff hard", "bench ", "review old"}, kinds(a.Due(monday)))
	due := a.Due(monday)
	require.Equal(t, "pulse", due[2].Skill)
	require.Equal(t, 3.0, due[3].Leap)
	require.Equal(t, 1.5, due[3].Reach)
	require.Equal(t, signs.Sign{Kind: signs.SetupDue}, due[4])
	require.Equal(t, signs.Sign{Kind: signs.Review, Material: "old", Weeks: 7}, due[5])

	measured := func(daysAgo int) {
		s.Standing.Setups = map[setup.Place]standing.Measured{setup.Studio: {At: on(daysAgo)}}
	}
	measured(300)
	require.Equal(t, signs.Sign{Kind: signs.SetupDue, Measured: true}, s.ahead("run", "hard").Due(monday)[4])
	measured(10)
	require.NotContains(t, kinds(s.ahead("run").Due(monday)), "bench ")
	// Who does not measure is asked in three lessons, and again after some months.
	measured(300)
	for i, daysAgo := range []int{330, 24, 17, 10} {
		s.Standing.Given = append(s.Standing.Given, civil.On(on(daysAgo)))
		require.Equal(t, i < 3, s.AsksToMeasure(), daysAgo)
	}
	s.Standing.Given, s.Standing.Setups = nil, nil
	s.Standing.FirstLesson = on(21)
	for i, daysAgo := range []int{21, 14, 7} {
		s.Standing.Given = append(s.Standing.Given, civil.On(on(daysAgo)))
		require.Equal(t, i < 2, s.AsksToMeasure(), "never measured")
	}
	s.Standing.FirstLesson = on(110)
	s.Standing.Given = []civil.Day{civil.On(on(40)), civil.On(on(33)), civil.On(on(26)), civil.On(on(12))}
	require.True(t, s.AsksToMeasure(), "asked anew after three months")
	s.Standing.Given = append(s.Standing.Given, civil.On(on(8)), civil.On(on(5)))
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
	placed := s.place("run", "hard", "beyond")
	placed[1].Aside = "paused"
	b := s.Ahead(a.Horizon, placed, Options{})
	require.Contains(t, kinds(b.Due(monday)), "cliff beyond")
}

// A piece that takes longer than nine of ten such pieces do is stuck, though it gets its marks.
func TestAPieceThatTakesTooLongIsStuck(t *testing.T) {
	s := pupil(t, piece("long", material.Method, "plain"))
	s.working("long", 7*30)
	a := s.ahead("long")
	require.Equal(t, []any{false, 0.0}, []any{a.When["long"].Long, a.When["long"].Usual}, "nothing was cleared yet: too early to say")
	require.Equal(t, []string{"bench "}, kinds(a.Due(monday)))
	seen := slices.Repeat([]forecast.Observation{{Student: "L", Leap: 1, DistinctBars: 8, Weeks: 3}}, 5)
	later := s.Ahead(Horizon{Model: forecast.Fit(seen, forecast.DefaultPrior())}, s.place("long"), Options{})
	a = &later
	require.Equal(t, []any{true, 29.0}, []any{a.When["long"].Long, a.When["long"].Had}, "today's lesson counts when the day is over")
	due := a.Due(monday)
	require.Equal(t, signs.Stuck, due[0].Kind)
	require.Zero(t, due[0].Lessons)
	require.Equal(t, int(a.When["long"].Usual)+1, due[0].Weeks)
}

func TestTheNextRung(t *testing.T) {
	s := pupil(t, piece("a", material.Method, "plain"), piece("b", material.Method, "ties"), piece("c", material.Reading, "thumb"))
	placed := s.place("a", "b", "c")
	p, in := s.Next(material.Method, placed)
	require.Equal(t, "a", p.Chosen.Material.ID, "a strand begins where its book begins")
	require.Equal(t, []next.Reason{{Kind: next.Beginning, Leap: 1, Reach: 1.5}, {Kind: next.New, Skills: []string{"plain"}}}, p.Reasons)
	require.Len(t, in.Candidates, 2)
	s.working("a", 8)
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
	s := pupil(t, piece("card", material.Reading, "plain"))
	s.Policy.ReadingAfter = 4
	p, _ := s.Next(material.Reading, s.place("card"))
	require.Nil(t, p.Chosen)
	require.Equal(
		t,
		[]next.Reason{{Kind: next.Later, Weeks: 4, From: monday.AddDate(0, 0, 28)}},
		p.Reasons,
		"counted from today, as there was no lesson yet",
	)
	require.Empty(t, s.ahead("card").Fresh())
	s.Standing.FirstLesson = on(27)
	p, _ = s.Next(material.Reading, s.place("card"))
	require.Equal(t, next.Later, p.Reasons[0].Kind)
	require.Equal(t, 1, s.readingFrom(s.ahead("card").Lessons), "it begins tomorrow, so in the lesson after today's")
	s.Standing.FirstLesson = on(28)
	p, _ = s.Next(material.Reading, s.place("card"))
	require.Equal(t, "card", p.Chosen.Material.ID, "four weeks to the day")
	p, _ = s.Next(material.Method, s.place("card"))
	require.Equal(t, next.Nothing, p.Reasons[0].Kind)
}

// A rung is proposed on each strand where nothing is in work; repertoire is taken up by choice.
func TestFreshRungs(t *testing.T) {
	s := pupil(
		t,
		piece("work", material.Method, "plain"),
		piece("method", material.Method, "ties"),
		piece("scale", material.Technique, "thumb"),
		piece("song", material.Repertoire, "pulse"),
		piece("card", material.Reading, "pulse"),
	)
	s.working("work", 8)
	fresh := s.ahead("work", "method", "scale", "song", "card").Fresh()
	require.Len(t, fresh, 2)
	require.Equal(t, []string{"scale", "card"}, []string{fresh[0].Material.ID, fresh[1].Material.ID})
	require.Equal(t, next.Reason{Kind: next.Beginning, Leap: 1, Reach: 1.5}, fresh[0].Why)
	s.Standing.Materials["work"].State = "resting"
	fresh = s.ahead("work", "method", "scale").Fresh()
	require.Equal(t, "method", fresh[0].Material.ID, "a piece that rests leaves its strand idle")
}

func TestWhatFits(t *testing.T) {
	s := pupil(
		t,
		piece("work", material.Method, "plain"),
		piece("a", material.Method, "pulse"),
		piece("b", material.Ear, "pulse"),
		piece("big", material.Method, "u", "v", "w", "x"),
	)
	s.Library["cello"] = material.Material{ID: "cello", Instrument: "cello", Strand: material.Method}
	s.working("work", 8)
	ranked, in := s.Fit("", s.place("work", "a"))
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
	ranked, in = s.Fit(material.Method, s.place("work", "a"))
	require.Len(t, ranked, 2)
	require.False(t, in.Ease)
	s.Standing.Materials["work"].Before.Size = 1.6
	_, in = s.Fit(material.Method, s.place("work"))
	require.True(t, in.Ease, "the last was beyond the comfortable leap")
	s.Standing.Materials["work"].Before.Size = 1.5
	_, in = s.Fit(material.Method, s.place("work"))
	require.False(t, in.Ease, "as large as the reach is no stretch")
	s.Standing.Materials["work"].Before.Size, s.Policy.EaseAfterLeap = 1.6, false
	_, in = s.Fit(material.Method, s.place("work"))
	require.False(t, in.Ease)
}

func TestWhoIsReady(t *testing.T) {
	m := piece("m", material.Method, "ties", "plain")
	names := func(list []Ready) (out []string) {
		for _, r := range list {
			out = append(out, r.Name+" "+string(r.Kind))
		}
		return out
	}
	at := func(name string, skills ...string) Student {
		s := pupil(t, m)
		s.Name = name
		for _, skill := range skills {
			s.Standing.Ability.Skills[skill] = leap.Evidence{Shown: true}
		}
		return *s
	}
	begun, cleared, blocked := at("Begun"), at("Cleared"), at("Blocked")
	begun.working("m", 8)
	cleared.learned("m", 8, 20)
	asked := m
	asked.Demands = append(asked.Demands, material.Demand{Skill: "pulse", Weight: 0.1})
	blocked.Library["m"] = asked
	require.Equal(t, []string{"Ready ready", "Half ready", "Reach reach", "Begun begun", "Cleared begun"},
		names(WhoIsReady([]Student{begun, at("Reach"), at("Half", "plain"), cleared, at("Ready", "plain", "ties")}, m)))
	r := cleared.ReadyFor(m)
	require.True(t, r.Cleared)
	require.False(t, begun.ReadyFor(m).Cleared)
	require.Equal(t, []any{2.0, 1.5, Reaching}, []any{at("X").ReadyFor(m).Leap.Size, at("X").ReadyFor(m).Reach, at("X").ReadyFor(m).Kind})
	r = blocked.ReadyFor(asked)
	require.Equal(t, Blocked, r.Kind)
	require.Equal(t, []string{"ties"}, r.First, "ties stand on the pulse, which is new in it as well")
}

func TestWhatWasClearedOutsideABook(t *testing.T) {
	in, out := piece("in", material.Method, "ties"), piece("out", material.Method, "plain")
	in.SourceID, out.SourceID = "book", "other"
	s := pupil(t, in, out, piece("work", material.Method, "pulse"))
	s.learned("in", 9, 9)
	s.learned("out", 9, 9)
	s.working("work", 9)
	s.Standing.Ability.Skills["thumb"] = leap.Evidence{Shown: true, Cleared: 4}
	s.Standing.Ability.Skills["ties"] = leap.Evidence{Cleared: 1}
	a := s.Outside([]string{"book"})
	require.Equal(t, map[string]leap.Evidence{"plain": {Cleared: 1}, "thumb": {Shown: true}}, a.Skills)
	require.Equal(t, 8, a.LongestBars)
}
