package progress_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// monday is the day of the studio: a Monday with a lesson, as every Monday for three years.
var monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func day(weeksAgo int) time.Time { return monday.AddDate(0, 0, -7*weeksAgo) }

// told is a log in the making; its entries are named e1, e2 and so on.
type told struct{ entries []studentlog.Entry }

func (l *told) say(weeksAgo int, kind studentlog.Kind, e studentlog.Entry) string {
	e.Kind, e.ID = kind, fmt.Sprint("e", len(l.entries)+1)
	if e.Actor == "" {
		e.Actor = "T"
	}
	if e.At.IsZero() {
		e.At = day(weeksAgo).Add(15*time.Hour + time.Duration(len(l.entries))*time.Second)
	}
	l.entries = append(l.entries, e)
	return e.ID
}

func piece(id string, strand material.Strand, bars int, skills ...string) material.Material {
	m := material.Material{
		ID:           id,
		Title:        "The " + id,
		Strand:       strand,
		Instrument:   "piano",
		Quarters:     48,
		Tempo:        80,
		DistinctBars: bars,
		Bars:         bars,
		HasScore:     true,
		FocusPoints:  []material.FocusPoint{{ID: id + "1", Text: "one"}},
	}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

// all is the standard of the easiest run, met in full.
func clears(id string) studentlog.Entry { return studentlog.Entry{Material: id} }

// look looks back on a log over some weeks until today.
func look(t *testing.T, l told, weeks int, change func(*progress.Input)) progress.Progress {
	t.Helper()
	skills, err := skill.Parse([]byte(`[
		{"id":"pulse","name":"steady pulse","steps":["walk","clap"]},
		{"id":"ties","name":"ties","needs":["pulse"],"steps":["hold hands","say it"]},
		{"id":"thumb","name":"thumb under","steps":["tap"]},
		{"id":"plain","name":"plain"}]`))
	require.NoError(t, err)
	lib := material.Library{}
	for _, m := range []material.Material{
		piece("fog", material.Method, 8, "pulse"), piece("tide", material.Method, 8, "pulse", "ties"),
		piece("gull", material.Repertoire, 16, "thumb", "ties", "plain", "wide", "low"),
		piece("mole", material.Method, 8, "plain"), piece("old", material.Method, 4, "plain"),
	} {
		lib[m.ID] = m
	}
	in := progress.Input{Span: progress.Span{From: day(weeks), To: monday}}
	in.Studio = studentplan.Studio{Library: lib, Skills: skills, Zone: time.UTC, Now: monday.Add(20 * time.Hour), Today: monday}
	in.Profile = studentplan.Profile{
		Ladder:     "L",
		Name:       "Nell Farrow",
		Instrument: "piano",
		Lessons:    calendar.Weekly(time.Monday, 900, 30, monday.AddDate(-3, 0, 0)),
	}
	in.Policy = studentplan.Policy{Standing: standing.DefaultPolicy()}
	if change != nil {
		change(&in)
	}
	in.Standing = standing.Fold(
		l.entries,
		standing.Context{Library: lib, Skills: skills, Family: in.Family(), Policy: in.Policy.Standing, Day: monday},
	)
	in.Live = studentlog.Live(l.entries)
	return progress.Of(in)
}

// year is a student of twenty weeks: Fog in two weeks, Tide in four with "ties" planted for it and a week's rest, the
// Gull for nine and not done; Old was known before.
func year() (l told) {
	l.say(40, studentlog.KnownBefore, clears("old")) // e1
	l.say(20, studentlog.Assigned, clears("fog"))    // e2
	l.say(19, studentlog.StepDone, studentlog.Entry{Skill: "ties", Step: 1})
	l.say(18, studentlog.Cleared, clears("fog")) // e4
	l.say(18, studentlog.StepDone, studentlog.Entry{Skill: "ties", Step: 2})
	l.say(17, studentlog.Assigned, clears("tide")) // e6
	l.say(16, studentlog.Paused, clears("tide"))   // e7
	l.say(15, studentlog.Resumed, clears("tide"))  // e8
	l.say(14, studentlog.LessonMissed, studentlog.Entry{Day: day(14).Format(time.DateOnly)})
	l.say(13, studentlog.Cleared, clears("tide")) // e10
	l.say(12, studentlog.Hearing, studentlog.Entry{Material: "fog", Rating: 3})
	l.say(10, studentlog.Hearing, studentlog.Entry{Material: "fog", Rating: 1})
	l.say(10, studentlog.Polished, clears("tide")) // e13
	l.say(9, studentlog.Assigned, clears("gull"))  // e14
	l.say(8, studentlog.Probe, studentlog.Entry{Skill: "thumb", Shown: true})
	l.say(0, studentlog.Hearing, studentlog.Entry{Material: "old", Rating: 4})
	return l
}

func TestTheWayOfAStudent(t *testing.T) {
	p := look(t, year(), 20, nil)
	type line struct {
		id, from, to string
		weeks        float64
		rests, heard int
		begin, clear string
	}
	date := func(d time.Time) string {
		if d.IsZero() {
			return ""
		}
		return d.Format("01-02")
	}
	var got []line
	for _, x := range p.Way {
		got = append(got, line{x.Material, date(x.From), date(x.To), x.Weeks, len(x.Rests), len(x.Heard), x.BeginEntry, x.ClearEntry})
	}
	require.Equal(t, []line{
		{"fog", "12-15", "12-29", 2, 0, 2, "e2", "e4"},
		{"tide", "01-05", "02-02", 3, 1, 0, "e6", "e10"},
		{"gull", "03-02", "", 9, 0, 0, "e14", ""},
	}, got)
	require.Equal(t, progress.Span{From: day(16), To: day(15)}, p.Way[1].Rests[0])
	require.Equal(t, []string{"fog", "tide"}, ids(p.Cleared))
	require.Equal(t, []string{"tide"}, ids(p.Polished))
	require.Equal(
		t,
		[]time.Time{day(20), day(19), day(18), day(17), day(16), day(15), day(13), day(12), day(10), day(9), day(8), day(0)},
		p.Lessons,
	)
	require.Equal(t, 1, p.Missed)
	require.Equal(t, progress.Review{Heard: 3, Solid: 2, Entries: []string{"e11", "e12", "e16"}, Learned: 3, Alive: 2,
		Hearings: []progress.Hearing{{"fog", day(12), true}, {"fog", day(10), false}, {"old", day(0), true}}}, p.Review)

	// Pulse by two cleared pieces; the thumb by showing it. What was known before counts, and is no gain.
	require.Equal(t, []progress.Gain{{"pulse", day(13), "tide", "e10"}, {"thumb", day(8), "", "e15"}}, p.Secure)
	// Tide has asked for ties after both steps; it took three weeks where nobody could say how many.
	require.Equal(
		t,
		[]progress.Planting{
			{Skill: "ties", Done: 2, Steps: 2, Days: []time.Time{day(19), day(18)}, Entries: []string{"e3", "e5"}, For: "tide", Needed: day(17)},
		},
		p.Plantings,
	)
	require.True(t, p.Plantings[0].InTime())

	// The last eight weeks only: nothing was cleared, and the Gull was in hand throughout.
	late := look(t, year(), 8, nil)
	require.Equal(t, []string{"gull"}, ids(late.Way))
	require.Nil(t, late.Cleared)
	require.Equal(t, []progress.Gain{{"thumb", day(8), "", "e15"}}, late.Secure)
	require.Nil(t, late.Plantings)
	require.Zero(t, late.Missed)
}

func ids(list []progress.Piece) (out []string) {
	for _, p := range list {
		out = append(out, p.Material)
	}
	return out
}

// A span that ended before today has the learned pieces of its last day.
func TestTheEndOfASpanIsWhatWasThere(t *testing.T) {
	p := look(t, year(), 20, func(in *progress.Input) { in.Span.To = day(13) })
	require.Equal(t, 2, p.Review.Learned, "fog and tide, which was cleared on that day")
	require.Equal(t, 1, p.Review.Unheard, "the old one was never heard here")
	require.Equal(t, []string{"fog", "tide"}, ids(p.Cleared))
	require.Nil(t, p.Polished)
	require.Equal(t, []string{"fog", "tide"}, ids(p.Way), "the Gull was not begun")
	p = look(t, year(), 20, func(in *progress.Input) { in.Span.To = day(14) })
	require.Equal(t, 1, p.Review.Learned)
	require.Equal(t, 1, p.Missed, "the last day is in it")
	require.Equal(t, 3.0, p.Way[1].Weeks, "what is known now of how long it took")
}

// “Begun” is taken back, and the piece was cleared all the same: it is drawn from the lesson that heard it first, so that
// the picture shows each piece that the sentence counts.
func TestAPieceWhoseBeginningWasTakenBack(t *testing.T) {
	l := year()
	l.say(1, studentlog.Correction, studentlog.Entry{Corrects: "e2"})
	p := look(t, l, 20, nil)
	lanes, _ := progress.Lanes(p.Way, material.Library{}, monday)
	for _, w := range p.Way {
		_, drawn := lanes[w.Material]
		require.Equal(t, !w.Before, drawn, w.Material)
		if w.Material == "fog" {
			require.Equal(t, []any{day(18), day(18), 0.0, ""}, []any{w.From, w.To, w.Weeks, w.BeginEntry})
		}
	}
}

func TestPracticeAgainstWhatWasSet(t *testing.T) {
	l := year()
	home := func(daysAgo int, felt studentlog.Feeling, minutes int) string {
		d := monday.AddDate(0, 0, -daysAgo)
		return l.say(
			0,
			studentlog.Practised,
			studentlog.Entry{
				At:      d.Add(17*time.Hour + time.Duration(len(l.entries))*time.Second),
				Day:     d.Format(time.DateOnly),
				Felt:    felt,
				Minutes: minutes,
				Actor:   studentlog.Family,
			},
		)
	}
	a, b, c := home(6, studentlog.Joyful, 10), home(6, studentlog.Fine, 0), home(3, studentlog.Hard, 12)
	home(10, "", 5) // before the span
	d := home(2, "", 0)
	set := func(in *progress.Input) {
		in.Weeks = []week.SetDays{
			{Start: day(1), Days: []time.Time{monday.AddDate(0, 0, -6), monday.AddDate(0, 0, -5), monday.AddDate(0, 0, -3), monday}},
		}
	}
	p := look(t, l, 1, set)
	require.Equal(
		t,
		progress.Practice{Set: 3, Practised: 2, Minutes: 22, Joyful: 1, Fine: 1, Hard: 1, Entries: []string{a, b, c, d}},
		p.Practice,
		"today is not over",
	)
	require.Equal(t, []time.Time{monday}, p.Lessons, "what comes from home is no lesson")

	// Two phones that answer for one thing of one day give one answer, the last.
	twice := func(item string, felt studentlog.Feeling) string {
		d := monday.AddDate(0, 0, -5)
		return l.say(
			0,
			studentlog.Practised,
			studentlog.Entry{
				At:    d.Add(18*time.Hour + time.Duration(len(l.entries))*time.Second),
				Day:   d.Format(time.DateOnly),
				Item:  item,
				Felt:  felt,
				Actor: studentlog.Family,
			},
		)
	}
	twice("fog", studentlog.Hard)
	e, f := twice("fog", studentlog.Joyful), twice("tide", studentlog.Fine)
	p = look(t, l, 1, set)
	require.Equal(
		t,
		progress.Practice{Set: 3, Practised: 3, Minutes: 22, Joyful: 2, Fine: 2, Hard: 1, Entries: []string{a, b, e, f, c, d}},
		p.Practice,
	)
}

// Ranges are those of the day on which a piece was begun, learned from what had been cleared before.
func TestRangesAreThoseOfTheirDay(t *testing.T) {
	var seen []progress.Seen
	for i := range 24 { // twenty-four pieces of others, two and a half weeks each, long ago; and as many since, ten weeks each
		seen = append(
			seen,
			progress.Seen{Observation: forecast.Observation{Student: "M", Leap: 1, DistinctBars: 8, Weeks: 2.5}, Day: day(60 + i)},
			progress.Seen{Observation: forecast.Observation{Student: "M", Leap: 1, DistinctBars: 8, Weeks: 10}, Day: day(2)},
		)
	}
	p := look(t, year(), 20, func(in *progress.Input) { in.Seen = seen })
	require.Equal(t, []string{"tide", "fog"}, []string{p.Pace.Ranges[0].Material, p.Pace.Ranges[1].Material}, "the latest first")
	require.Equal(
		t,
		[]bool{true, false, true, false},
		[]bool{p.Pace.Ranges[0].Held, p.Pace.Ranges[0].Late, p.Pace.Ranges[1].Held, p.Pace.Ranges[1].Late},
	)
	require.Equal(t, 2, p.Pace.Held)
	var before []forecast.Observation
	for _, s := range seen {
		if s.Weeks == 2.5 {
			before = append(before, s.Observation)
		}
	}
	fog := p.Pace.Ranges[1]
	low, high := forecast.Fit(before, forecast.DefaultPrior()).Weeks("L", fog.Leap, 8).Whole()
	require.Equal(t, []int{low, high, 2}, []int{fog.Low, fog.High, fog.Took})
	require.Less(t, fog.High, 6)
	require.Equal(t, 3, p.Pace.Ranges[0].Took)

	// The Mole has had thirty weeks, over what was usual, and nothing says why; the Gull asked for much. Tide and Fog took
	// no longer than was to be expected.
	l := year()
	l.say(30, studentlog.Assigned, clears("mole"))
	p = look(t, l, 20, func(in *progress.Input) { in.Seen = seen })
	require.Equal(t, []string{"mole", "gull"}, []string{p.Stays[0].Material, p.Stays[1].Material})
	require.Equal(t, []progress.StayWhy{progress.NotSeen, progress.GreatLeap}, []progress.StayWhy{p.Stays[0].Why, p.Stays[1].Why})
	require.Equal(t, []float64{30, 9}, []float64{p.Stays[0].Weeks, p.Stays[1].Weeks})
	require.Len(t, p.Stays, 2)
	kind, stay := p.Care()
	require.Equal(t, progress.StuckPiece, kind)
	require.Equal(t, "mole", stay.Material)
	require.Greater(t, stay.Weeks, float64(stay.Usual))

	l.say(1, studentlog.Cleared, clears("mole"))
	p = look(t, l, 20, func(in *progress.Input) { in.Seen = seen })
	require.Equal(
		t,
		[]any{"mole", 29, false, true},
		[]any{p.Pace.Ranges[0].Material, p.Pace.Ranges[0].Took, p.Pace.Ranges[0].Held, p.Pace.Ranges[0].Late},
	)
	require.Equal(t, 2, p.Pace.Held)
	kind, _ = p.Care()
	require.Equal(t, progress.Nothing, kind, "it is cleared")

	require.Empty(t, look(t, year(), 20, nil).Pace.Ranges, "too early to say, and nothing was said")
}

func TestWhyAPieceTookLong(t *testing.T) {
	long := func(change func(l *told), in func(*progress.Input)) progress.Stay {
		var l told
		l.say(10, studentlog.Assigned, clears("mole"))
		if change != nil {
			change(&l)
		}
		p := look(t, l, 12, in)
		require.Len(t, p.Stays, 1)
		return p.Stays[0]
	}
	require.Equal(t, progress.NotSeen, long(nil, nil).Why)
	rest := long(func(l *told) {
		l.say(8, studentlog.Paused, clears("mole"))
		l.say(5, studentlog.Resumed, clears("mole"))
	}, nil)
	require.Equal(t, []any{progress.LongRest, 21.0, 7.0}, []any{rest.Why, rest.Number, rest.Weeks})
	missed := func(n int) func(l *told) {
		return func(l *told) {
			for i := range n {
				l.say(0, studentlog.LessonMissed, studentlog.Entry{Day: day(i + 2).Format(time.DateOnly)})
			}
		}
	}
	require.Equal(t, progress.NotSeen, long(missed(2), nil).Why, "two of ten")
	stay := long(missed(3), nil)
	require.Equal(t, progress.Missed, stay.Why)
	require.Equal(t, 3.0, stay.Number)
	set := func(in *progress.Input) {
		for i := range 6 {
			in.Weeks = append(in.Weeks, week.SetDays{Start: day(9 - i), Days: []time.Time{day(9-i).AddDate(0, 0, 1)}})
		}
	}
	practised := func(n int) func(l *told) {
		return func(l *told) {
			for i := range n {
				d := day(9-i).AddDate(0, 0, 1)
				l.say(0, studentlog.Practised, studentlog.Entry{At: d.Add(time.Hour), Day: d.Format(time.DateOnly), Actor: studentlog.Family})
			}
		}
	}
	stay = long(practised(2), set)
	require.Equal(t, []any{progress.Unpractised, 2.0, 6}, []any{stay.Why, stay.Number, stay.Of})
	require.Equal(t, progress.NotSeen, long(practised(3), set).Why, "half is not little")
}

func TestWhatGrewAndWhatNeedsCare(t *testing.T) {
	lib := material.Library{"drill": {Strand: material.Technique}}
	cleared := func(ids ...string) (out []progress.Piece) {
		for _, id := range ids {
			out = append(out, progress.Piece{Material: id})
		}
		return out
	}
	lessons := func(n int) []time.Time { return make([]time.Time, n) }
	report := func(p progress.Progress) (r progress.Report) {
		r.Progress, r.Student.Library = p, lib
		return r
	}
	for _, c := range []struct {
		name  string
		p     progress.Progress
		grown []progress.Kind
		care  progress.Kind
	}{
		{"nothing is known", progress.Progress{}, nil, progress.Nothing},
		{"everything grew: three are named", progress.Progress{Cleared: cleared("a", "drill"), Secure: make([]progress.Gain, 1), Habits: make([]progress.Habit, 1), Practice: progress.Practice{Set: 10, Practised: 10}},
			[]progress.Kind{progress.PiecesCleared, progress.SkillsSecure, progress.HabitsFormed}, progress.Nothing},
		{"a drill is technique", progress.Progress{Cleared: cleared("drill")}, []progress.Kind{progress.KeysPlayed}, progress.Nothing},
		{"known before is no growth", progress.Progress{Cleared: []progress.Piece{{Material: "a", Before: true}}}, nil, progress.Nothing},
		{"practised well from seven of ten", progress.Progress{Practice: progress.Practice{Set: 10, Practised: 7}}, []progress.Kind{progress.PractisedWell}, progress.Nothing},
		{"six of ten is neither", progress.Progress{Practice: progress.Practice{Set: 10, Practised: 6}}, nil, progress.Nothing},
		{"four of ten needs care", progress.Progress{Practice: progress.Practice{Set: 10, Practised: 4}}, nil, progress.LittleAtHome},
		{"five days tell nothing", progress.Progress{Practice: progress.Practice{Set: 5}}, nil, progress.Nothing},
		{"kept alive", progress.Progress{Review: progress.Review{Learned: 5, Alive: 4, Heard: 1}}, []progress.Kind{progress.KeptAlive}, progress.Nothing},
		{"not heard here", progress.Progress{Review: progress.Review{Learned: 5, Alive: 5}}, nil, progress.Nothing},
		{"fades", progress.Progress{Review: progress.Review{Learned: 10, Alive: 5, Heard: 3}}, nil, progress.ReviewFades},
		{"three pieces tell nothing", progress.Progress{Review: progress.Review{Learned: 3, Heard: 3}}, nil, progress.Nothing},
		{"lessons fell out: the first thing to say", progress.Progress{Lessons: lessons(6), Missed: 4, Practice: progress.Practice{Set: 10}}, nil, progress.FewLessons},
		{"a third is not often", progress.Progress{Lessons: lessons(6), Missed: 3}, nil, progress.Nothing},
		{"two of three tell nothing", progress.Progress{Lessons: lessons(1), Missed: 2}, nil, progress.Nothing},
		{"ready for a run", progress.Progress{Stays: []progress.Stay{{Piece: progress.Piece{State: standing.Working, Weeks: 9}, Usual: 6, Ready: true}}}, nil, progress.Nothing},
		{"stuck before home", progress.Progress{Practice: progress.Practice{Set: 10}, Stays: []progress.Stay{{Piece: progress.Piece{State: standing.Working, Weeks: 9}, Usual: 6}}}, nil, progress.StuckPiece},
		{"cleared is not stuck", progress.Progress{Stays: []progress.Stay{{Piece: progress.Piece{State: standing.Cleared, Weeks: 9}, Usual: 6}}}, nil, progress.Nothing},
		{"in its range", progress.Progress{Stays: []progress.Stay{{Piece: progress.Piece{State: standing.Working, Weeks: 6}, Usual: 6}}}, nil, progress.Nothing},
	} {
		require.Equal(t, c.grown, report(c.p).Grown(), c.name)
		care, _ := c.p.Care()
		require.Equal(t, c.care, care, c.name)
	}
}

func TestHabitsAndDates(t *testing.T) {
	var l told
	l.say(20, studentlog.FocusAdded, studentlog.Entry{Focus: "f", Text: "soft thumb"})
	var last string
	for i, id := range []string{"fog", "tide", "gull"} {
		l.say(20-i, studentlog.Assigned, clears(id))
		last = l.say(18-i, studentlog.MarkGiven, studentlog.Entry{Material: id, Focus: "f", Mark: studentlog.Full})
	}
	l.say(10, studentlog.Cleared, clears("fog"))
	l.say(9, studentlog.Polished, clears("fog"))
	target := func(id, name string, d time.Time) whatif.Target {
		return whatif.Target{ID: id, Name: name, Day: d, Material: id}
	}
	targets := func(in *progress.Input) {
		in.Targets = []whatif.Target{
			target("tide", "Recital", day(-1)),
			target("fog", "Summer", day(9)),
			target("fog", "Before", day(10)),
			target("gull", "Long ago", day(50)),
		}
		in.Span.To = day(-2)
	}
	p := look(t, l, 20, targets)
	require.Equal(t, []progress.Habit{{Text: "soft thumb", Day: day(16), Entry: last}}, p.Habits)
	require.Equal(t, []progress.Plan{
		{Target: target("fog", "Before", day(10)), Cleared: true, Over: true},
		{Target: target("fog", "Summer", day(9)), Cleared: true, Ready: true, Over: true},
		{Target: target("tide", "Recital", day(-1))},
	}, p.Plans)
	require.Empty(t, look(t, l, 15, nil).Habits, "it was one before the span")
}

func TestSpans(t *testing.T) {
	today := monday
	require.EqualError(
		t,
		progress.Span{From: today, To: day(1)}.Check(today),
		"the span ends before it begins: from 4 May 2026 to 27 April 2026",
	)
	require.EqualError(
		t,
		progress.Span{From: day(-1), To: day(-2)}.Check(today),
		"11 May 2026 is still ahead; there is nothing to look back at",
	)
	require.EqualError(t, progress.Span{From: today.AddDate(-61, 0, 0), To: today}.Check(today), "a span is at most 60 years long")
	require.NoError(t, progress.Span{From: today, To: today}.Check(today))
	require.Equal(t, 1, progress.Span{From: today, To: today}.Days())

	breaks := []calendar.Break{
		{From: day(30), To: day(28)},
		{From: day(6), To: day(5).AddDate(0, 0, -1)},
		{From: day(3), To: day(3).AddDate(0, 0, 2)},
	}
	require.Equal(t, progress.Span{From: day(5), To: today}, progress.Term(today, breaks), "three days off part no term")
	require.Equal(t, progress.Span{From: day(28).AddDate(0, 0, 1), To: day(10)}, progress.Term(day(10), breaks))
	require.Equal(t, progress.Span{From: day(13).AddDate(0, 0, 1), To: today}, progress.Term(today, nil))
	spans := func(first time.Time) (out []progress.Offer) { return progress.Offered(first, today, breaks) }
	month, term, year := progress.Span{
		From: day(4).AddDate(0, 0, 1),
		To:   today,
	}, progress.Span{
		From: day(5),
		To:   today,
	}, progress.Span{
		From: today.AddDate(-1, 0, 1),
		To:   today,
	}
	all := func(weeks int) progress.Offer {
		return progress.Offer{Kind: progress.All, Span: progress.Span{From: day(weeks), To: today}}
	}
	require.Equal(
		t,
		[]progress.Offer{{Kind: progress.Month, Span: month}, {Kind: progress.ThisTerm, Span: term}, {Kind: progress.Year, Span: year}, all(200)},
		spans(day(200)),
	)
	require.Equal(
		t,
		[]progress.Offer{{Kind: progress.Month, Span: month}, {Kind: progress.ThisTerm, Span: term}, all(20)},
		spans(day(20)),
		"a year is no more than all",
	)
	require.Equal(t, []progress.Offer{{Kind: progress.Month, Span: month}}, spans(day(2)), "four weeks are all")
	require.Equal(t, []progress.Offer{{Kind: progress.Month, Span: month}}, spans(time.Time{}))
}

// By a second path: for random logs the figures are counted again from the raw entries, and in any order of arrival
// they are the same.
func TestFiguresAreThoseOfTheLog(t *testing.T) {
	for seed := range uint64(60) {
		r := rand.New(rand.NewPCG(seed, 16))
		var l told
		names := []string{"fog", "tide", "gull", "mole"}
		for w := 30; w >= 0; w-- {
			for range r.IntN(4) {
				id := names[r.IntN(len(names))]
				switch r.IntN(6) {
				case 0:
					l.say(w, studentlog.Assigned, clears(id))
				case 1:
					l.say(w, studentlog.Cleared, clears(id))
				case 2:
					l.say(w, studentlog.Hearing, studentlog.Entry{Material: id, Rating: 1 + r.IntN(4)})
				case 3:
					l.say(w, studentlog.MarkGiven, studentlog.Entry{Material: id, Focus: id + "1", Mark: studentlog.Full})
				case 4:
					l.say(w, studentlog.StepDone, studentlog.Entry{Skill: "ties", Step: 1 + r.IntN(2)})
				default:
					l.say(w, studentlog.Probe, studentlog.Entry{Skill: "thumb", Shown: r.IntN(2) == 0})
				}
			}
		}
		weeks := 1 + r.IntN(30)
		p := look(t, l, weeks, nil)
		from := day(weeks)
		first, lessons, heard := map[string]time.Time{}, map[string]bool{}, 0
		learned := map[string]bool{}
		for _, e := range l.entries {
			in := !e.At.Before(from)
			if in {
				lessons[e.At.Format(time.DateOnly)] = true
			}
			switch e.Kind {
			case studentlog.Cleared:
				learned[e.Material] = true
			case studentlog.Assigned:
				delete(learned, e.Material) // taken up again
			}
			if e.Kind == studentlog.Hearing && in {
				heard++
			}
			if _, had := first[e.Material]; e.Kind == studentlog.Cleared && !had {
				first[e.Material] = e.At
			}
		}
		cleared := 0
		demanded := map[string]int{}
		for id, at := range first {
			if !at.Before(from) {
				cleared++
			}
			for _, d := range map[string][]string{"fog": {"pulse"}, "tide": {"pulse", "ties"}, "gull": {"thumb", "ties", "plain"}, "mole": {"plain"}}[id] {
				demanded[d]++
			}
		}
		require.Len(t, p.Cleared, cleared, seed)
		require.Len(t, p.Lessons, len(lessons), seed)
		require.Equal(t, heard, p.Review.Heard, seed)
		require.Equal(t, len(learned), p.Review.Learned, seed)
		whole := look(t, l, 40, nil)
		for _, g := range whole.Secure {
			require.True(t, demanded[g.Skill] >= leap.DefaultPolicy().SecureAfter || g.Skill == "thumb", "%d %s", seed, g.Skill)
		}
		for s, n := range demanded {
			if n >= leap.DefaultPolicy().SecureAfter {
				require.Contains(t, gained(whole.Secure), s, seed)
			}
		}
		r.Shuffle(len(l.entries), func(i, k int) { l.entries[i], l.entries[k] = l.entries[k], l.entries[i] })
		require.Equal(t, p, look(t, l, weeks, nil), "in another order")
	}
}

func gained(list []progress.Gain) (out []string) {
	for _, g := range list {
		out = append(out, g.Skill)
	}
	return out
}

// A piece that was put away and not taken up again rests until the last day; the weeks before that are its own. What
// cleared a piece is its entry: a run, the teacher's word, or that it is ready to be performed.
func TestRestsAndWhatClearedAPiece(t *testing.T) {
	var l told
	l.say(10, studentlog.Assigned, clears("mole"))
	l.say(6, studentlog.Paused, clears("mole"))
	l.say(9, studentlog.Assigned, clears("fog"))
	l.say(7, studentlog.MarkGiven, studentlog.Entry{Material: "fog", Focus: "fog1", Mark: studentlog.Full})
	polished := l.say(7, studentlog.Polished, clears("fog"))
	p := look(t, l, 12, nil)
	require.Equal(t, []string{"mole", "fog"}, ids(p.Way))
	require.Equal(t, 4.0, p.Way[0].Weeks)
	require.Equal(t, []progress.Span{{From: day(6), To: monday}}, p.Way[0].Rests)
	require.Equal(t, polished, p.Way[1].ClearEntry)
	require.Empty(t, p.Stays, "what rests does not stay long")
}

// A preview paid where its piece took no longer than was in the middle of what had been expected.
func TestPreviewsThatPaid(t *testing.T) {
	with := func(weeks float64) progress.Planting {
		var seen []progress.Seen
		for i := range 24 {
			seen = append(
				seen,
				progress.Seen{Observation: forecast.Observation{Student: "M", Leap: 1, DistinctBars: 8, Weeks: weeks}, Day: day(60 + i)},
			)
		}
		return look(t, year(), 20, func(in *progress.Input) { in.Seen = seen }).Plantings[0]
	}
	require.True(t, with(4).Paid)
	require.False(t, with(1).Paid, "three weeks where one was usual")
}

// What others do changes nothing of a student but what was expected of the pieces.
func TestFiguresAreTheStudentsOwn(t *testing.T) {
	var seen []progress.Seen
	for i := range 30 {
		seen = append(
			seen,
			progress.Seen{
				Observation: forecast.Observation{Student: fmt.Sprint("other", i%3), Leap: 1, DistinctBars: 8, Weeks: 2},
				Day:         day(60 + i),
			},
		)
	}
	with := look(t, year(), 20, func(in *progress.Input) { in.Seen = seen })
	without := look(t, year(), 20, nil)
	with.Pace, without.Pace = progress.Pace{}, progress.Pace{}
	with.Stays, without.Stays = nil, nil
	for i := range with.Plantings {
		with.Plantings[i].Paid, without.Plantings[i].Paid = false, false
	}
	require.Equal(t, without, with)
}

// BenchmarkTenYears looks back on ten years of 5,000 entries among sixty students.
func BenchmarkTenYears(b *testing.B) {
	r := rand.New(rand.NewPCG(3, 4))
	lib := material.Library{}
	var l told
	for i := range 500 {
		m := piece(fmt.Sprint("p", i), material.Method, 8+r.IntN(24), fmt.Sprint("skill", r.IntN(80)), fmt.Sprint("skill", r.IntN(80)))
		lib[m.ID] = m
		w := 520 - i
		l.say(w, studentlog.Assigned, clears(m.ID))
		for k := range 6 {
			l.say(max(0, w-k), studentlog.MarkGiven, studentlog.Entry{Material: m.ID, Focus: m.ID + "1", Mark: studentlog.Part})
		}
		l.say(max(0, w-3), studentlog.Cleared, clears(m.ID))
		l.say(max(0, w-9), studentlog.Hearing, studentlog.Entry{Material: m.ID, Rating: 3})
		l.say(max(0, w-20), studentlog.Hearing, studentlog.Entry{Material: m.ID, Rating: 2})
	}
	in := progress.Input{Span: progress.Span{From: day(520), To: monday}, Live: studentlog.Live(l.entries)}
	in.Studio = studentplan.Studio{Library: lib, Zone: time.UTC, Now: monday.Add(20 * time.Hour), Today: monday}
	in.Profile = studentplan.Profile{
		Ladder:     "L",
		Instrument: "piano",
		Lessons:    calendar.Weekly(time.Monday, 900, 30, monday.AddDate(-11, 0, 0)),
	}
	in.Policy = studentplan.Policy{Standing: standing.DefaultPolicy()}
	in.Standing = standing.Fold(l.entries, standing.Context{Library: lib, Family: in.Family(), Policy: in.Policy.Standing, Day: monday})
	for i := range 60 * 80 {
		in.Seen = append(
			in.Seen,
			progress.Seen{
				Observation: forecast.Observation{Student: fmt.Sprint("s", i%60), Leap: 1 + r.Float64(), DistinctBars: 8, Weeks: 1 + 4*r.Float64()},
				Day:         day(r.IntN(520)),
			},
		)
	}
	b.ReportMetric(float64(len(l.entries)), "entries")
	for b.Loop() {
		progress.Of(in)
	}
}
