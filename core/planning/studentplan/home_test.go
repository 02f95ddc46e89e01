package studentplan

import (
	"errors"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/week"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// set is a published week with practice on so many days from its first on.
func set(daysAgo, days int) week.SetDays {
	w := week.SetDays{Start: monday.AddDate(0, 0, -daysAgo)}
	for i := range days {
		w.Days = append(w.Days, w.Start.AddDate(0, 0, i))
	}
	return w
}

func practised(daysAgo int, felt studentlog.Feeling) standing.Report {
	return standing.Report{ID: "r", At: on(daysAgo), Day: monday.AddDate(0, 0, -daysAgo).Format(time.DateOnly), Felt: felt, FromHome: true}
}

// Only days that were set and have passed count, once each; signs of liking count wherever they come from.
func TestEvidenceFromHome(t *testing.T) {
	s := pupil(t)
	s.Standing.Home = []standing.Report{
		practised(6, studentlog.Joyful), practised(6, studentlog.Fine), practised(5, studentlog.Hard), practised(20, studentlog.Hard),
		{Sign: studentlog.PlayedFirst, At: on(4), FromHome: true}, {Sign: studentlog.AskedFor}, {Sign: studentlog.Unasked},
		{Sign: studentlog.Liked}, {Sign: studentlog.Disliked},
	}
	weeks := []week.SetDays{set(60, 6), set(13, 7), set(6, 7)}
	require.Equal(
		t,
		enjoyment.Evidence{Set: 2 + 7 + 6, Practised: 3, Joyful: 1, Fine: 1, Hard: 2, Liked: 4, Disliked: 1},
		s.HomeEvidence(weeks),
		"eight weeks back, up to yesterday",
	)
}

func TestTheQuietOneComesFirst(t *testing.T) {
	of := func(name string, practisedDays int, felt studentlog.Feeling) Student {
		s := pupil(t)
		s.Ladder, s.Name = name, name
		for i := range practisedDays {
			s.Standing.Home = append(s.Standing.Home, practised(40-i, felt))
		}
		return *s
	}
	weeks := map[string][]week.SetDays{}
	for _, name := range []string{"glowing", "away", "quiet", "set only"} {
		weeks[name] = []week.SetDays{set(40, 40)}
	}
	away := of("away", 0, "")
	away.Standing.Home = append(
		away.Standing.Home,
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
	)
	var got []string
	for _, b := range Balance([]Student{of("glowing", 38, studentlog.Joyful), of("nothing", 0, ""), away, of("set only", 0, ""), of("quiet", 38, studentlog.Hard)}, weeks) {
		got = append(got, b.Name+": "+string(b.Kind))
	}
	require.Equal(
		t,
		[]string{"quiet: quiet", "away: away", "glowing: glowing", "set only: between"},
		got,
		"of whom nothing is known is left out",
	)
}

func TestWhatCameFromHome(t *testing.T) {
	s := pupil(t, piece("a", material.Method), piece("b", material.Method))
	s.Standing.Home = []standing.Report{
		practised(9, studentlog.Hard), practised(6, studentlog.Joyful), practised(6, studentlog.Fine), practised(4, studentlog.Hard),
		{At: on(5), Sign: studentlog.PlayedFirst, Material: "b", FromHome: true},
		{At: on(4), Sign: studentlog.PlayedFirst, Material: "a", FromHome: true},
		{At: on(3), Sign: studentlog.PlayedFirst, Material: "b", FromHome: true}, {At: on(3), Sign: studentlog.Liked, Material: "a"},
	}
	weeks := []week.SetDays{set(13, 6), set(6, 6), set(0, 6)}
	got, ok := s.Home(s.Standing.Home, weeks, nil, monday)
	require.True(t, ok)
	require.Equal(t, Home{Days: 6, Practised: 4, Joyful: 1, Fine: 1, Hard: 1, First: []string{"b", "a"}}, got)
	// Seen ahead of its day a lesson knows what has come so far.
	got, _ = s.Home(s.Standing.Home, []week.SetDays{set(6, 7), set(-7, 7)}, nil, monday.AddDate(0, 0, 7))
	require.Equal(t, 7, got.Days)
	_, ok = s.Home(s.Standing.Home, []week.SetDays{set(15, 6)}, nil, monday)
	require.False(t, ok, "longer ago than two weeks")
	_, ok = s.Home(s.Standing.Home, []week.SetDays{set(14, 6)}, nil, monday)
	require.True(t, ok)
	_, ok = s.Home(s.Standing.Home, []week.SetDays{set(0, 6)}, nil, monday)
	require.False(t, ok, "the week that begins today is not behind")
}

// Two lessons fall out: the week before them goes on for three. Its further days are set, what is done on them counts, and
// the lesson that comes at last knows of it.
func TestAWeekThatACancellationStretchedCounts(t *testing.T) {
	s := pupil(t, piece("a", material.Method))
	s.Holidays = []calendar.Holiday{holiday("half", -14, 14)}
	weeks := []week.SetDays{set(27, 6), set(20, 6)}
	s.Standing.Home = []standing.Report{
		practised(15, studentlog.Fine),
		practised(14, studentlog.Fine),
		practised(13, studentlog.Hard),
		practised(2, studentlog.Fine),
		{Sign: studentlog.Liked, FromHome: true, At: on(2), Material: "a"},
	}
	got, ok := s.Home(s.Standing.Home, weeks, nil, monday)
	require.True(t, ok)
	require.Equal(
		t,
		Home{Days: 18, Practised: 3, More: 1, Fine: 3, Hard: 1},
		got,
		"the rest day of the lesson that fell out was practised on, and not set",
	)
	require.Equal(t, enjoyment.Evidence{Set: 6 + 18, Practised: 3, Fine: 3, Hard: 1, Liked: 1}, s.HomeEvidence(weeks))
	_, ok = s.Home(s.Standing.Home, weeks, nil, monday.AddDate(0, 0, 8))
	require.True(t, ok, "the week was over eight days ago")
	_, ok = s.Home(s.Standing.Home, weeks, nil, monday.AddDate(0, 0, 9))
	require.False(t, ok)
}

// The notes written most often, at least twice, the latest of those written as often first; no long ones, and four at the most.
func TestUsualObservations(t *testing.T) {
	var live []*studentlog.Entry
	long := strings.Repeat("x", 61)
	for _, text := range []string{"a", "b", "b", "a", "c", "d", "d", "d", long, long, "e", "e", "f", "f", strings.Repeat("y", 60), strings.Repeat("y", 60)} {
		live = append(live, &studentlog.Entry{Kind: studentlog.Note, Text: text})
	}
	live = append(live, &studentlog.Entry{Kind: studentlog.WentWell, Text: "c"})
	require.Equal(t, []string{"d", strings.Repeat("y", 60), "f", "e"}, UsualObservations(live))
	require.Equal(t, []string{}, UsualObservations(nil))
}

func TestTheWaySoFar(t *testing.T) {
	s := pupil(
		t,
		piece("late", material.Method),
		piece("early", material.Technique),
		piece("work", material.Reading),
		piece("begun", material.Method),
	)
	s.learned("late", 3, 9)
	s.learned("early", 30, 9)
	w := s.working("work", 8)
	w.Full, w.Points = 1, 4
	s.working("begun", 1)
	require.Equal(t, []PathStep{
		{Material: "early", Learned: monday.AddDate(0, 0, -30)}, {Material: "late", Learned: monday.AddDate(0, 0, -3)},
		{Material: "begun", Points: 3}, {Material: "work", Full: 1, Points: 4},
	}, s.Path())
}

func TestTheDayOfAFamily(t *testing.T) {
	s := pupil(t)
	plan := &week.Plan{}
	for i := range 7 {
		d := week.Day{Date: monday.AddDate(0, 0, i), Minutes: 12}
		if i > 0 && i < 6 {
			d.Items = []week.Item{{}, {}}
		}
		d.Rest = i == 6
		plan.Days = append(plan.Days, d)
	}
	at := func(day int) AtHome {
		s.Today = monday.AddDate(0, 0, day)
		return s.AtHome(monday, plan)
	}
	next := monday.AddDate(0, 0, 7)
	require.Equal(t, AtHome{Kind: LessonDay, Begins: monday, NextLesson: monday}, at(0), "nothing is set on it, for it is the lesson's")
	require.Equal(t, AtHome{Kind: Practice, Things: 2, Minutes: 12, Begins: monday, NextLesson: next}, at(1))
	require.Equal(t, AtHome{Kind: Rest, Begins: monday, NextLesson: next}, at(6))
	require.Equal(t, AtHome{Kind: Over, Begins: monday, NextLesson: next}, at(7))
	require.Equal(t, AtHome{Kind: LiesAhead, Begins: monday, NextLesson: monday}, at(-1))
	require.Equal(t, NothingSet, s.AtHome(monday, nil).Kind)
	starts := []time.Time{monday.AddDate(0, 0, -7), monday, next}
	for day, want := range map[int]int{-20: 0, -1: 0, 0: 1, 6: 1, 7: 2, 30: 2} {
		require.Equal(t, want, Current(starts, monday.AddDate(0, 0, day)), "%d days after", day)
		require.Equal(t, starts[want:], Readable(starts, monday.AddDate(0, 0, day)), "%d days after", day)
	}
	require.Empty(t, Readable(nil, monday))
}

// An entry is held against the library, the ladder and those that come with it.
func TestWhatIsNotAdmitted(t *testing.T) {
	s := pupil(t, piece("work", material.Method), piece("never", material.Method), exerciseOf("scale", "scale/apart/C/major/-"))
	s.Library["viola"] = material.Material{ID: "viola", Instrument: "viola"}
	s.working("work", 8)
	m := s.Library["work"]
	m.FocusPoints = []material.FocusPoint{{ID: "a"}}
	s.Library["work"] = m
	entry := func(e studentlog.Entry) studentlog.Entry {
		e.ID, e.Actor = "E", "T"
		if e.At.IsZero() {
			e.At = s.Now
		}
		return e
	}
	kind := func(err error) NotAdmitted {
		var why EntryError
		if err == nil {
			return ""
		}
		require.True(t, errors.As(err, &why), "%v", err)
		return why.Kind
	}
	bad := cycle("H")
	for _, x := range []struct {
		want NotAdmitted
		e    studentlog.Entry
	}{
		{Malformed, studentlog.Entry{Kind: "dance"}},
		{InTheFuture, studentlog.Entry{Kind: studentlog.Note, Text: "x", At: s.Now.Add(ClockAhead + time.Second)}},
		{"", studentlog.Entry{Kind: studentlog.Note, Text: "x", At: s.Now.Add(ClockAhead)}},
		{NoSuchMaterial, studentlog.Entry{Kind: studentlog.Assigned, Material: "gone"}},
		{WrongPlayer, studentlog.Entry{Kind: studentlog.Assigned, Material: "viola"}},
		{"", studentlog.Entry{Kind: studentlog.Assigned, Material: "never"}},
		{BeyondTheEnd, studentlog.Entry{Kind: studentlog.SpotAdded, Material: "work", From: 12, To: 13}},
		{"", studentlog.Entry{Kind: studentlog.SpotAdded, Material: "work", From: 12, To: 12}},
		{NeverHad, studentlog.Entry{Kind: studentlog.Hearing, Material: "never", Rating: 3}},
		{NeverHad, studentlog.Entry{Kind: studentlog.GateSet, Material: "never", Gate: studentlog.Together}},
		{"", studentlog.Entry{Kind: studentlog.Hearing, Material: "work", Rating: 3}},
		{NoSuchPoint, studentlog.Entry{Kind: studentlog.MarkGiven, Material: "work", Focus: "b", Mark: studentlog.Full}},
		{"", studentlog.Entry{Kind: studentlog.MarkGiven, Material: "work", Focus: "a", Mark: studentlog.Full}},
		{NotOfStandard, studentlog.Entry{Kind: studentlog.RunTried, Material: "work", Met: []string{"notes", "smile"}}},
		{"", studentlog.Entry{Kind: studentlog.RunTried, Material: "work", Met: []string{"notes"}}},
		{NoSuchActivity, studentlog.Entry{Kind: studentlog.Activity, Goal: "juggling", Step: 1}},
		{NoSuchCycle, studentlog.Entry{Kind: studentlog.CycleKept, Cycle: &bad}},
		{"", studentlog.Entry{Kind: studentlog.CycleKept, Cycle: &studentlog.Cycle{}}},
		{NoSuchSkill, studentlog.Entry{Kind: studentlog.StepDone, Skill: "flying", Step: 1}},
		{NoSuchSkill, studentlog.Entry{Kind: studentlog.Probe, Skill: "flying"}},
		{"", studentlog.Entry{Kind: studentlog.StepDone, Skill: "ties", Step: 1}},
	} {
		require.Equal(t, x.want, kind(s.Admit(entry(x.e), nil)), "%+v", x.e)
	}
	// No lesson lies before the student came, else before the student was born, else twenty years back.
	note := func(day time.Time) NotAdmitted {
		return kind(s.Admit(entry(studentlog.Entry{Kind: studentlog.Note, Text: "x", At: day.Add(10 * time.Hour)}), nil))
	}
	edge := func(day time.Time) {
		t.Helper()
		require.Equal(t, []NotAdmitted{BeforeTheTime, ""}, []NotAdmitted{note(day.AddDate(0, 0, -1)), note(day)})
	}
	edge(s.Born)
	s.Born = monday.AddDate(-40, 0, 0)
	edge(monday.AddDate(-20, 0, 0))
	s.Since = monday.AddDate(-1, 0, 0)
	edge(s.Since)
	require.NoError(
		t,
		s.Admit(entry(studentlog.Entry{Kind: studentlog.KnownBefore, Material: "never", At: monday.AddDate(-30, 0, 0)}), nil),
		"what was learned before is older",
	)
	// What comes in the same batch is there already.
	begun := entry(studentlog.Entry{Kind: studentlog.Cleared, Material: "never"})
	require.NoError(t, s.Admit(entry(studentlog.Entry{Kind: studentlog.Hearing, Material: "never", Rating: 3}), []studentlog.Entry{begun}))
	own := entry(studentlog.Entry{Kind: studentlog.FocusAdded, Focus: "mine", Text: "x"})
	require.NoError(
		t,
		s.Admit(
			entry(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "work", Focus: "mine", Mark: studentlog.None}),
			[]studentlog.Entry{own},
		),
	)
}

// A family reports on what was set for a day that has come, two weeks back at the most.
func TestReportsFromHome(t *testing.T) {
	s := pupil(t, piece("work", material.Method))
	day := monday.AddDate(0, 0, -1)
	weeks := []SetWeek{{Start: monday.AddDate(0, 0, -14), Plan: week.Plan{Days: []week.Day{
		{Date: monday.AddDate(0, 0, -15), Items: []week.Item{{Key: "old"}}},
		{Date: monday.AddDate(0, 0, -14), Items: []week.Item{{Key: "fortnight"}}},
		{Date: day, Items: []week.Item{{Key: "chunk", Material: "work"}, {Key: "bite", Material: "skill"}}},
		{Date: monday.AddDate(0, 0, 1), Items: []week.Item{{Key: "chunk"}}},
	}}}}
	tick := func(r Report, before ...studentlog.Entry) (studentlog.Entry, NotAdmitted) {
		r.ID = "R"
		if r.At.IsZero() {
			r.At = s.Now
		}
		e, err := s.Tick(r, weeks, before)
		var why EntryError
		if errors.As(err, &why) {
			return studentlog.Entry{}, why.Kind
		}
		require.NoError(t, err)
		return e, ""
	}
	e, why := tick(Report{Day: day, Item: "chunk", Times: 3, Felt: studentlog.Joyful})
	require.Empty(t, why)
	require.Equal(
		t,
		studentlog.Entry{
			ID:    "R",
			At:    s.Now,
			Actor: studentlog.Family,
			Kind:  studentlog.Practised,
			Day:   "2026-05-03",
			Item:  "chunk",
			Times: 3,
			Felt:  studentlog.Joyful,
		},
		e,
	)
	e, why = tick(Report{Day: day, Item: "chunk", First: true})
	require.Empty(t, why)
	require.Equal(
		t,
		studentlog.Entry{ID: "R", At: s.Now, Actor: studentlog.Family, Kind: studentlog.Liking, Material: "work", Sign: studentlog.PlayedFirst},
		e,
	)
	for _, x := range []struct {
		want NotAdmitted
		r    Report
	}{
		{NoPiece, Report{Day: day, Item: "bite", First: true}},
		{NotSet, Report{Day: day, Item: "another"}}, {NotSet, Report{Day: monday, Item: "chunk"}},
		{NotYet, Report{Day: monday.AddDate(0, 0, 1), Item: "chunk"}},
		{TooLongAgo, Report{Day: monday.AddDate(0, 0, -15), Item: "old"}}, {"", Report{Day: monday.AddDate(0, 0, -14), Item: "fortnight"}},
		{InTheFuture, Report{Day: day, Item: "chunk", At: s.Now.Add(ClockAhead + time.Second)}},
		{Malformed, Report{Day: day, Item: "chunk", Times: 1000}},
		{NotMine, Report{Undoes: "teacher's"}},
	} {
		_, why := tick(x.r)
		require.Equal(t, x.want, why, "%+v", x.r)
	}
	_, why = tick(Report{Undoes: "now"}, studentlog.Entry{ID: "now"})
	require.Empty(t, why)
	s.Standing.Home = []standing.Report{{ID: "mine", FromHome: true}, {ID: "teacher's"}}
	e, why = tick(Report{Undoes: "mine"})
	require.Empty(t, why)
	require.Equal(t, []any{studentlog.Correction, "mine"}, []any{e.Kind, e.Corrects})
	_, why = tick(Report{Undoes: "teacher's"})
	require.Equal(t, NotMine, why)
}

// What another way of teaching does to one student, in the order in which it is said.
func TestWhatAnotherWayDoes(t *testing.T) {
	s := pupil(
		t,
		piece("work", material.Method, "plain"),
		piece("soon", material.Method, "pulse", "ties", "thumb"),
		piece("old", material.Method),
		piece("older", material.Method),
	)
	s.working("work", 8).SinceMark = 3
	s.learned("old", 9, 9)
	s.learned("older", 19, 9)
	glance := func(s Student) Glance {
		a := s.Ahead(s.ahead().Horizon, s.place("work", "soon"), Options{})
		w, err := a.Week(monday.AddDate(0, 0, 1), week.Hand{}, Before{}, noScores)
		require.NoError(t, err)
		return Glance{&a, w}
	}
	was := glance(*s)
	require.Empty(t, WayChanges(was, was))
	other := *s
	other.Policy.ReviewShare, other.Policy.HearFirst, other.Policy.Approach, other.Policy.FirstChunk = 0.01, true, "names", 1
	other.Policy.Preview.PerLesson, other.Policy.Standing.Leap.Comfortable, other.Policy.Signs.StuckLessons = 1, 4, 4
	then := glance(other)
	require.Equal(t, []WayChange{
		{Kind: ReviewMinutes, From: was.reviewMinutes(), To: then.reviewMinutes()}, {Kind: ReviewPieces, From: 2, To: 1},
		{Kind: FirstView, HearFirst: true}, {Kind: HowReading, Approach: "names"}, {Kind: FirstChunks, From: 4, To: 1},
		{Kind: LessonBites, From: 2, To: 1},
		{Kind: LatePreviews, From: 2, To: 3}, {Kind: CliffsAhead, From: 1, To: 0}, {Kind: StuckPieces, From: 1, To: 0},
	}, WayChanges(was, then))
	require.Greater(t, was.reviewMinutes(), then.reviewMinutes())
}

// The family's own ticks: what was done on which day, and what was played first.
func TestWhatAFamilyTicked(t *testing.T) {
	s := pupil(t)
	done := standing.Report{ID: "a", At: on(2), Day: "2026-05-01", Item: "fog/1", Times: 3, Felt: studentlog.Hard, FromHome: true}
	unsaid := standing.Report{ID: "b", At: on(2), Item: "fog/2", FromHome: true}
	first := standing.Report{ID: "c", At: on(1), Material: "fog", Sign: studentlog.PlayedFirst, FromHome: true}
	seen, asked := first, first
	seen.FromHome, asked.Sign = false, studentlog.AskedFor
	s.Standing.Home = []standing.Report{done, unsaid, seen, first, asked}
	require.Equal(t, []HomeTick{
		{ID: "a", At: on(2), Day: time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC), Item: "fog/1", Times: 3, Felt: studentlog.Hard},
		{ID: "b", At: on(2), Item: "fog/2"},
		{ID: "c", At: on(1), Day: monday.AddDate(0, 0, -1), Item: "fog", First: true},
	}, s.HomeTicks())
}
