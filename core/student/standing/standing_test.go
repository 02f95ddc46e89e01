package standing

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

var monday = time.Date(2026, 3, 2, 15, 0, 0, 0, time.UTC)

// lib has pieces p1 to p4 with two points each; all ask for "rests", p4 also for "ties".
func lib() material.Library {
	l := material.Library{}
	for i := 1; i <= 4; i++ {
		id := fmt.Sprintf("p%d", i)
		l[id] = material.Material{
			ID: id, Title: id, Strand: material.Method, Instrument: "piano", DistinctBars: 4 * i, Tempo: float64(60 + 10*i),
			Texture:     material.OneLine,
			Loads:       []material.Load{{Dimension: dimension.Speed, Value: float64(2 * i)}},
			Demands:     []material.Demand{{Skill: "rests", Weight: 1}},
			FocusPoints: []material.FocusPoint{{ID: "a", Text: "pulse"}, {ID: "b", Text: "tone"}},
		}
	}
	p := l["p4"]
	p.Demands = append(p.Demands, material.Demand{Skill: "ties", Weight: 0.5})
	l["p4"] = p
	return l
}

func context(t require.TestingT) Context {
	skills, err := skill.Standard()
	require.NoError(t, err)
	return Context{Library: lib(), Skills: skills, Family: instrument.Keyboard, Policy: DefaultPolicy(), Day: monday.AddDate(0, 0, 70)}
}

// tell writes entries a minute apart, beginning a given number of weeks after the first lesson.
type tell struct {
	log []studentlog.Entry
	at  time.Time
}

func (w *tell) week(n int) *tell { w.at = monday.AddDate(0, 0, 7*n); return w }

func (w *tell) write(e studentlog.Entry) studentlog.Entry {
	w.at = w.at.Add(time.Minute)
	e.ID, e.At = fmt.Sprintf("E%03d", len(w.log)), w.at
	w.log = append(w.log, e)
	return e
}

func (w *tell) assign(m string) {
	w.write(studentlog.Entry{Kind: studentlog.Assigned, Material: m})
}

func (w *tell) mark(m, focus string, mark studentlog.Mark) {
	w.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: m, Focus: focus, Mark: mark})
}

var all = []string{"notes", "fingers", "rhythm", "tone", "flow"}

func (w *tell) run(m string, met ...string) studentlog.Entry {
	return w.write(studentlog.Entry{Kind: studentlog.RunTried, Material: m, Met: met})
}

func TestRunIsDueWhenEveryPointIsFull(t *testing.T) {
	w := (&tell{}).week(0)
	w.assign("p1")
	w.mark("p1", "a", studentlog.Full)
	w.mark("p1", "b", studentlog.Part)
	m := Fold(w.log, context(t)).Materials["p1"]
	require.False(t, m.RunDue)
	require.Equal(t, PointsOpen, m.Why)
	require.Equal(t, []int{1, 2}, []int{m.Full, m.Points})
	w.mark("p1", "b", studentlog.Full)
	require.True(t, Fold(w.log, context(t)).Materials["p1"].RunDue)
	// A spot counts as one more point until it is wiped (common practice, no source).
	spot := w.write(studentlog.Entry{Kind: studentlog.SpotAdded, Material: "p1", From: 2, To: 3})
	require.False(t, Fold(w.log, context(t)).Materials["p1"].RunDue)
	w.write(studentlog.Entry{Kind: studentlog.SpotMended, Material: "p1", Spot: spot.ID})
	require.True(t, Fold(w.log, context(t)).Materials["p1"].RunDue)
}

func TestSpotsTogetherAreOneMark(t *testing.T) {
	w := (&tell{}).week(0)
	w.assign("p1")
	one := w.write(studentlog.Entry{Kind: studentlog.SpotAdded, Material: "p1", From: 1, To: 1})
	two := w.write(studentlog.Entry{Kind: studentlog.SpotAdded, Material: "p1", From: 2, To: 2})
	mark := func() studentlog.Mark {
		m, ok := Fold(w.log, context(t)).Materials["p1"].SpotsMark()
		require.True(t, ok)
		return m
	}
	require.Equal(t, studentlog.None, mark())
	w.write(studentlog.Entry{Kind: studentlog.SpotMended, Material: "p1", Spot: two.ID})
	require.Equal(t, studentlog.Part, mark())
	w.write(studentlog.Entry{Kind: studentlog.SpotMended, Material: "p1", Spot: one.ID})
	require.Equal(t, studentlog.Full, mark())
}

func TestARunClearsOrSaysWhyNot(t *testing.T) {
	w := (&tell{}).week(0)
	w.assign("p1")
	missed := w.run("p1", "notes", "fingers", "tone", "flow")
	m := Fold(w.log, context(t)).Materials["p1"]
	require.Equal(t, Working, m.State)
	require.Equal(t, RunMissed, m.Why)
	require.Equal(t, []string{"rhythm"}, m.Runs[len(m.Runs)-1].Missed)
	// A wrong tap is corrected, and the run counts no more.
	w.write(studentlog.Entry{Kind: studentlog.Correction, Corrects: missed.ID})
	require.Empty(t, Fold(w.log, context(t)).Materials["p1"].Runs)
	w.run("p1", all...)
	s := Fold(w.log, context(t))
	require.Equal(t, Cleared, s.Materials["p1"].State)
	require.Equal(t, 4, s.Ability.LongestBars)
	require.Equal(t, 70.0, s.Ability.Tempo[material.OneLine])
}

func TestLevelsOfASkill(t *testing.T) {
	policy := DefaultPolicy().Leap
	level := func(w *tell, skill string) leap.Level {
		return policy.Level(Fold(w.log, context(t)).Ability.Skills[skill])
	}
	w := (&tell{}).week(0)
	require.Equal(t, leap.New, level(w, "rests"))
	w.write(studentlog.Entry{Kind: studentlog.StepDone, Skill: "rests", Step: 1})
	require.Equal(t, leap.Planted, level(w, "rests"))
	w.write(studentlog.Entry{Kind: studentlog.StepDone, Skill: "rests", Step: 1})
	require.Equal(t, 1, Fold(w.log, context(t)).Ability.Skills["rests"].StepsDone, "the same step twice is one step")
	w.assign("p1")
	require.Equal(t, leap.Planted, level(w, "rests"), "assigned is not known")
	w.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "p1", Focus: "f1", Mark: studentlog.None})
	require.Equal(t, leap.Learning, level(w, "rests"), "a lesson heard it")
	w.run("p1", all...)
	require.Equal(t, leap.Learning, level(w, "rests"))
	w.assign("p2")
	w.run("p2", all...)
	require.Equal(t, leap.Secure, level(w, "rests"))
	later := context(t)
	later.Day = monday.AddDate(0, 0, 210)
	require.Equal(t, leap.Rusty, policy.Level(Fold(w.log, later).Ability.Skills["rests"]))
	// Heard again and again, one of its pieces keeps the skill for years.
	v := (&tell{log: append([]studentlog.Entry{}, w.log...)}).week(3)
	for _, week := range []int{3, 6, 12, 24} {
		v.week(week).write(studentlog.Entry{Kind: studentlog.Hearing, Material: "p1", Rating: 4})
	}
	later.Day = monday.AddDate(2, 0, 0)
	require.Equal(t, leap.Secure, policy.Level(Fold(v.log, later).Ability.Skills["rests"]))
	w.write(studentlog.Entry{Kind: studentlog.Probe, Skill: "rests", Shown: false})
	require.Equal(t, leap.Learning, level(w, "rests"))
}

// Two pieces are assigned and nothing of them is taught: what they ask for stays as new as it was, and no leap of
// another piece shrinks. From the first time that a lesson hears one of them, it is being learned.
func TestToAssignIsNotToKnow(t *testing.T) {
	w := (&tell{}).week(0)
	ctx := context(t)
	ctx.Day = monday
	size := func() float64 {
		p, brought := ctx.Library["p4"], leap.Brought{}
		ability := Fold(w.log, ctx).Ability
		for _, d := range p.Demands {
			brought.Skills = append(brought.Skills, ability.Skills[d.Skill])
		}
		return ctx.Policy.Leap.Size(&p, brought)
	}
	before := size()
	w.assign("p1")
	w.assign("p3")
	require.Empty(t, Fold(w.log, ctx).Ability.Skills)
	require.Equal(t, before, size())
	for _, heard := range []studentlog.Entry{
		{Kind: studentlog.MarkGiven, Material: "p1", Focus: "a", Mark: studentlog.None},
		{Kind: studentlog.SpotAdded, Material: "p1", From: 1, To: 2},
		{Kind: studentlog.RunTried, Material: "p1", Met: []string{}},
		{Kind: studentlog.TempoPlayed, Material: "p1", Tempo: 60, Held: true},
		{Kind: studentlog.Hearing, Material: "p1", Rating: 1},
	} {
		v := &tell{log: append([]studentlog.Entry{}, w.log...), at: w.at}
		v.write(heard)
		require.Equal(t, map[string]leap.Evidence{"rests": {Working: 1}}, Fold(v.log, ctx).Ability.Skills, heard.Kind)
		v.write(heard)
		require.Equal(t, 1, Fold(v.log, ctx).Ability.Skills["rests"].Working, "a second time counts no more")
		v.run("p1", all...)
		require.Equal(t, leap.Evidence{Cleared: 1}, Fold(v.log, ctx).Ability.Skills["rests"])
	}
	// What was learned without a lesson on it takes nothing away from what another piece is teaching.
	w.mark("p1", "a", studentlog.None)
	w.write(studentlog.Entry{Kind: studentlog.Cleared, Material: "p3"})
	require.Equal(t, leap.Evidence{Cleared: 1, Working: 1}, Fold(w.log, ctx).Ability.Skills["rests"])
}

func TestLeapIsKeptAsItWasWhenAssigned(t *testing.T) {
	w := (&tell{}).week(0)
	w.assign("p1")
	w.run("p1", all...)
	w.assign("p2")
	w.run("p2", all...)
	s := Fold(w.log, context(t))
	require.InDelta(t, 1, s.Materials["p1"].Before.Size, 1e-9)
	// learning 0.3 × weight 1, 8 bars after 4 is one doubling × 0.4, speed 4 after 2 above a base of 2, at 0.67 a doubling.
	require.InDelta(t, 0.3+0.4+0.67*math.Log2(6.0/4), s.Materials["p2"].Before.Size, 1e-5)
}

func TestHabits(t *testing.T) {
	w := (&tell{}).week(0)
	w.write(studentlog.Entry{Kind: studentlog.FocusAdded, Focus: "own", Text: "loose shoulders"})
	for _, m := range []string{"p1", "p2", "p3"} {
		w.assign(m)
		w.mark(m, "own", studentlog.Full)
	}
	s := Fold(w.log, context(t))
	require.True(t, s.Focus[0].Habit)
	require.Empty(t, s.Travelling())
	w.mark("p3", "own", studentlog.None)
	s = Fold(w.log, context(t))
	require.False(t, s.Focus[0].Habit)
	require.Len(t, s.Travelling(), 1)

	// A full mark at the second try breaks the row.
	v := (&tell{}).week(0)
	v.write(studentlog.Entry{Kind: studentlog.FocusAdded, Focus: "own", Text: "x"})
	for _, m := range []string{"p1", "p2", "p3"} {
		v.mark(m, "own", studentlog.Part)
		v.mark(m, "own", studentlog.Full)
	}
	require.Equal(t, 0, Fold(v.log, context(t)).Focus[0].Streak)
}

func TestStuckCountsLessonsSinceTheLastGain(t *testing.T) {
	w := (&tell{}).week(0)
	w.assign("p1")
	w.mark("p1", "a", studentlog.Part)
	for week := 1; week <= 3; week++ {
		w.week(week).mark("p1", "a", studentlog.Part)
	}
	require.Equal(t, 3, Fold(w.log, context(t)).Materials["p1"].SinceMark)
	w.mark("p1", "a", studentlog.Full)
	require.Equal(t, 0, Fold(w.log, context(t)).Materials["p1"].SinceMark)
}

// The same log gives the same bytes in any order of arrival, repeated or not.
func TestStandingDependsOnTheSetOfEntriesOnly(t *testing.T) {
	ctx := context(t)
	rapid.Check(t, func(t *rapid.T) {
		w := (&tell{}).week(0)
		kinds := []studentlog.Kind{
			studentlog.Assigned, studentlog.MarkGiven, studentlog.SpotAdded, studentlog.SpotMended, studentlog.RunTried,
			studentlog.Cleared, studentlog.Polished, studentlog.Hearing, studentlog.StepDone, studentlog.Probe, studentlog.FocusAdded,
			studentlog.Correction,
		}
		for range rapid.IntRange(0, 60).Draw(t, "n") {
			w.at = monday.Add(time.Duration(rapid.IntRange(0, 5000).Draw(t, "at")) * time.Hour)
			w.write(studentlog.Entry{
				Kind:     rapid.SampledFrom(kinds).Draw(t, "kind"),
				Material: rapid.SampledFrom([]string{"p1", "p2", "p3", "p4", "gone"}).Draw(t, "material"),
				Focus:    rapid.SampledFrom([]string{"a", "b", "own"}).Draw(t, "focus"),
				Mark:     rapid.SampledFrom([]studentlog.Mark{studentlog.None, studentlog.Part, studentlog.Full}).Draw(t, "mark"),
				From:     1, To: 2, Spot: fmt.Sprintf("E%03d", rapid.IntRange(0, 60).Draw(t, "spot")), Met: all[:rapid.IntRange(0, 5).Draw(t, "met")],
				Rating: 3, Skill: rapid.SampledFrom([]string{"rests", "ties"}).Draw(t, "skill"), Step: rapid.IntRange(1, 3).Draw(t, "step"),
				Shown: rapid.Bool().Draw(t, "shown"), Text: "x", Corrects: fmt.Sprintf("E%03d", rapid.IntRange(0, 60).Draw(t, "corrects")),
			})
		}
		want, err := Fold(w.log, ctx).Encode()
		require.NoError(t, err)
		mixed := append(append([]studentlog.Entry{}, w.log...), w.log...)
		rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 2)).Shuffle(len(mixed), func(a, b int) { mixed[a], mixed[b] = mixed[b], mixed[a] })
		got, err := Fold(mixed, ctx).Encode()
		require.NoError(t, err)
		require.Equal(t, string(want), string(got))
		back, err := Decode(got)
		require.NoError(t, err)
		again, err := back.Encode()
		require.NoError(t, err)
		require.Equal(t, string(want), string(again), "a snapshot read back is the same")
		for _, m := range back.Materials {
			require.GreaterOrEqual(t, m.SinceMark, 0)
		}
		for id, e := range back.Ability.Skills {
			require.GreaterOrEqual(t, e.Working, 0, id)
		}
	})
}

func TestWhatWasShownFadesAfterItsDays(t *testing.T) {
	w := (&tell{}).week(0)
	shown := w.write(studentlog.Entry{Kind: studentlog.Probe, Skill: "rests", Shown: true})
	ctx := context(t)
	faded := func(after time.Duration) bool {
		ctx.Day = shown.At.Add(after)
		return Fold(w.log, ctx).Ability.Skills["rests"].Faded
	}
	days := time.Duration(ctx.Policy.RustyAfterDays) * 24 * time.Hour
	require.False(t, faded(days))
	require.True(t, faded(days+24*time.Hour))
}

func TestSpotsTogetherAreOneMorePoint(t *testing.T) {
	mark := func(mended ...bool) studentlog.Mark {
		m := MaterialStanding{}
		for _, x := range mended {
			m.Spots = append(m.Spots, Spot{Mended: x})
		}
		mark, ok := m.SpotsMark()
		require.Equal(t, len(mended) > 0, ok)
		return mark
	}
	require.Equal(
		t,
		[]studentlog.Mark{"", studentlog.None, studentlog.Part, studentlog.Full, studentlog.Full},
		[]studentlog.Mark{mark(), mark(false, false), mark(true, false), mark(true, true), mark(true)},
	)
}

func TestWhyAPieceStandsWhereItStands(t *testing.T) {
	for _, c := range []struct {
		m    MaterialStanding
		due  bool
		want Why
	}{
		{MaterialStanding{}, false, NoPoints},
		{MaterialStanding{Points: 2, Full: 1}, false, PointsOpen},
		{MaterialStanding{Points: 2, Full: 2}, true, RunIsDue},
		{MaterialStanding{Points: 2, Full: 2, Runs: []Run{{Cleared: false}}}, true, RunMissed},
		{MaterialStanding{Points: 2, Full: 1, Runs: []Run{{Cleared: true}, {Cleared: false}}}, false, RunMissed},
		{MaterialStanding{Points: 2, Full: 1, Runs: []Run{{Cleared: false}, {Cleared: true}}}, false, PointsOpen},
	} {
		due, why := c.m.due()
		require.Equal(t, c.due, due)
		require.Equal(t, c.want, why)
	}
}

// A focus point of one student on one piece counts there until its full mark, and does not travel.
func TestAPointOfOneStudentOnOnePiece(t *testing.T) {
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	lib := material.Library{
		"a": {ID: "a", FocusPoints: []material.FocusPoint{{ID: "p", Text: "pulse"}}},
		"b": {ID: "b", FocusPoints: []material.FocusPoint{{ID: "q", Text: "pulse"}}},
	}
	var log []studentlog.Entry
	note := func(e studentlog.Entry) *Standing {
		at = at.Add(time.Minute)
		e.ID, e.At, e.Actor = at.Format(time.RFC3339), at, "t"
		require.NoError(t, e.Validate())
		log = append(log, e)
		return Fold(log, Context{Library: lib, Policy: DefaultPolicy(), Day: at})
	}
	note(studentlog.Entry{Kind: studentlog.Assigned, Material: "a"})
	note(studentlog.Entry{Kind: studentlog.Assigned, Material: "b"})
	note(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "a", Focus: "p", Mark: studentlog.Full})
	s := note(studentlog.Entry{Kind: studentlog.FocusAdded, Material: "a", Focus: "own", Text: "the left wrist in bar 4"})
	require.Equal(t, []material.FocusPoint{{ID: "own", Text: "the left wrist in bar 4"}}, s.Materials["a"].Own)
	require.Equal(
		t,
		[]any{2, 1, false, 1},
		[]any{s.Materials["a"].Points, s.Materials["a"].Full, s.Materials["a"].RunDue, s.Materials["b"].Points},
	)
	require.Empty(t, s.Focus)
	require.True(
		t,
		note(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "a", Focus: "own", Mark: studentlog.Full}).Materials["a"].RunDue,
	)
}

// A fault that was seen is open until it is gone, wherever it was noted: a mark on an exercise and the list of beginners
// are one thing.
func TestAFaultStaysUntilItIsGone(t *testing.T) {
	w := (&tell{}).week(0)
	w.write(studentlog.Entry{Kind: studentlog.Assigned, Material: "p2"})
	w.write(studentlog.Entry{Kind: studentlog.FaultSeen, Focus: "fault.too-close"})
	w.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "p2", Focus: "fault.wrist-drop", Mark: studentlog.None})
	first := w.log[1].At
	s := Fold(w.log, context(t))
	require.Equal(t, []string{"too-close", "wrist-low"}, faultsOf(s))
	require.Equal(t, first, s.Faults[0].Since)
	require.Equal(t, OpenFault{ID: "wrist-low", Since: w.log[2].At, Seen: w.log[2].At, Material: "p2", Named: "wrist-drop"}, s.Faults[1])
	_, open := s.Fault("wrist-drop")
	require.True(t, open)
	w.week(1)
	w.write(studentlog.Entry{Kind: studentlog.FaultSeen, Focus: "fault.too-close"})
	s = Fold(w.log, context(t))
	require.Equal(t, first, s.Faults[0].Since, "since the first time")
	require.Equal(t, w.log[3].At, s.Faults[0].Seen)
	w.write(studentlog.Entry{Kind: studentlog.FaultGone, Focus: "fault.wrist-low"})
	s = Fold(w.log, context(t))
	require.Equal(t, []string{"too-close"}, faultsOf(s))
	require.Equal(t, studentlog.Full, s.Materials["p2"].Marks["fault.wrist-drop"], "gone on the exercise as well")
	w.write(studentlog.Entry{Kind: studentlog.FaultGone, Focus: "fault.never-noted"})
	require.Equal(t, []string{"too-close"}, faultsOf(Fold(w.log, context(t))))
	w.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "p2", Focus: "fault.too-close", Mark: studentlog.Full})
	require.Empty(t, faultsOf(Fold(w.log, context(t))))
}

func faultsOf(s *Standing) (out []string) {
	for _, f := range s.Faults {
		out = append(out, f.ID)
	}
	return out
}

// Where reading begins after a year, skills of reading weigh nothing until then, or until a stage of reading is begun.
func TestSkillsOfReadingWeighNothingBeforeReadingBegins(t *testing.T) {
	ctx := context(t)
	ctx.Policy.ReadingAfter = 52
	skills, err := ctx.Skills.With([]skill.Skill{{ID: "page", Name: "reading a page", Family: skill.OfReading}})
	require.NoError(t, err)
	ctx.Skills = skills
	m := material.Material{
		ID:      "song",
		Strand:  material.Method,
		Demands: []material.Demand{{Skill: "page", Weight: 1}, {Skill: "ties", Weight: 1}},
	}
	stage := material.Material{ID: "stage", Strand: material.Reading, Demands: []material.Demand{{Skill: "page", Weight: 1}}}
	ctx.Library[m.ID], ctx.Library[stage.ID] = m, stage
	size := func(log []studentlog.Entry, weeks int) (float64, bool) {
		ctx.Day = monday.AddDate(0, 0, 7*weeks)
		s := Fold(log, ctx)
		return ctx.Policy.Leap.Of(m, s.Ability).Size, s.ByEar
	}
	w := (&tell{}).week(0)
	w.write(studentlog.Entry{Kind: studentlog.Note, Text: "first lesson"})
	at, by := size(w.log, 1)
	require.Equal(t, 1.0, at)
	require.True(t, by)
	at, by = size(w.log, 53)
	require.Equal(t, 2.0, at, "then they enter")
	require.False(t, by)
	w.write(studentlog.Entry{Kind: studentlog.Assigned, Material: "song"})
	require.Equal(t, 1.0, Fold(w.log, ctx).Materials["song"].Before.Size, "begun by ear")
	w.write(studentlog.Entry{Kind: studentlog.Assigned, Material: "stage"})
	_, by = size(w.log, 1)
	require.False(t, by, "who has begun a stage of reading reads")
	at, by = size(nil, 0)
	require.Equal(t, 1.0, at, "before the first lesson")
	require.True(t, by)
}

// A fault that was seen elsewhere is not gone on this piece; one that was marked on it keeps its mark.
func TestAFaultIsOneThing(t *testing.T) {
	s := &Standing{Faults: []OpenFault{{ID: setup.SameFault("fly")}}}
	m := &MaterialStanding{Marks: map[string]studentlog.Mark{material.Fault + "fly": studentlog.Full, material.Fault + "low": studentlog.Full}}
	require.Equal(t, studentlog.None, s.FaultMark(m, material.Fault+"fly"))
	require.Equal(t, studentlog.Full, s.FaultMark(m, material.Fault+"low"))
	delete(m.Marks, material.Fault+"fly")
	require.Equal(t, studentlog.None, s.FaultMark(m, material.Fault+"fly"))
	m.Marks[material.Fault+"fly"] = studentlog.Part
	require.Equal(t, studentlog.Part, s.FaultMark(m, material.Fault+"fly"))
	require.Equal(t, studentlog.Mark(""), s.FaultMark(m, material.Fault+"high"))
}

func TestWhatCameOfOneActivity(t *testing.T) {
	met := []Met{{ID: "1", Activity: "echo"}, {ID: "2", Activity: "walk"}, {ID: "3", Activity: "echo"}}
	require.Equal(t, []Met{met[0], met[2]}, MetOf(met, "echo"))
	require.Empty(t, MetOf(met, "sing"))
}

// A load is secure two thirds of the way from the second highest to the highest of the learned pieces, each faded by half in
// four years since it was played last: 4 and 6 notes a second, on the day and four years later.
func TestSecureLoadsAreLearnedAndFade(t *testing.T) {
	var w tell
	w.week(0)
	w.assign("p2")
	w.write(studentlog.Entry{Kind: studentlog.Cleared, Material: "p2"})
	w.week(1)
	w.assign("p3")
	w.write(studentlog.Entry{Kind: studentlog.Cleared, Material: "p3"})
	w.week(2)
	w.assign("p4")
	c := context(t)
	c.Day = monday.AddDate(0, 0, 7)
	st := Fold(w.log, c)
	require.Nil(t, st.Materials["p2"].Before.Brought.Loads, "nothing was known before the first")
	require.InDeltaSlice(t, []float64{4}, st.Materials["p3"].Before.Brought.Loads, 0.02, "one alone is taken as it is")
	require.InDeltaSlice(t, []float64{4 + 2.0*2/3}, st.Materials["p4"].Before.Brought.Loads, 0.03)
	require.InDelta(t, 4+2.0*2/3, st.Ability.Loads[dimension.Speed].Secure(), 0.02)
	c.Day = monday.AddDate(4, 0, 7)
	require.InDelta(t, (4+2.0*2/3)/2, Fold(w.log, c).Ability.Loads[dimension.Speed].Secure(), 0.02)
	// What p4 asked for then: 8 notes a second against what was at hand, worth 0.67 a doubling above 2.
	require.InDelta(t, 0.67*math.Log2((2+8)/(2+4+4.0/3)), partOfLoad(c, st, "p4"), 0.01)
}

func partOfLoad(c Context, st *Standing, id string) float64 {
	m := c.Library[id]
	for _, p := range c.Policy.Leap.Over(&m, st.Materials[id].Before.Brought).Parts {
		if p.Kind == leap.OfLoad {
			return p.Amount
		}
	}
	return 0
}

// The comfortable leap comes from what were steps: a drill counts among drills alone, and what was easy on purpose nowhere.
func TestReachComesFromSteps(t *testing.T) {
	lib, materials := material.Library{}, map[string]*MaterialStanding{}
	s := &Standing{Materials: materials}
	for i, x := range []struct {
		strand material.Strand
		drill  string
		size   float64
	}{
		{material.Method, "", 9}, {material.Repertoire, "", 9}, {material.Technique, "scale", 9}, // every beginning is large
		{material.Method, "", 1}, {material.Method, "", 2}, {material.Method, "", 3}, {material.Method, "", 0.2}, {material.Repertoire, "", 5},
		{material.Repertoire, "", 6}, {material.Technique, "scale", 0.6}, {material.Technique, "scale", 0.7}, {material.Technique, "scale", 0.8},
		{material.Technique, "scale", 0.9}, {material.Technique, "scale", 1},
	} {
		id := fmt.Sprint("m", i)
		lib[id] = material.Material{ID: id, Strand: x.strand, Exercise: x.drill, HasScore: true}
		materials[id] = &MaterialStanding{State: Cleared, Assigned: monday.AddDate(0, 0, i), Before: &Before{Size: x.size}}
	}
	p := leap.DefaultPolicy()
	require.Equal(t, leap.Reach{Size: (5*5 + 5*1.5) / 10, From: 5}, s.Reach(lib, "", p), "the fourth of 1 2 3 5 6, and the default for five more")
	require.Equal(t, leap.Reach{Size: (5*5 + 5*1.5) / 10, From: 5}, s.Reach(lib, material.Method, p), "three are too few")
	require.Equal(t, leap.Reach{Size: (5*0.9 + 5*1.5) / 10, From: 5}, s.Reach(lib, material.Technique, p), "the fourth of the drills")
}
