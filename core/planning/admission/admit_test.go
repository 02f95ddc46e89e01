package admission

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// An entry is held against the library, the ladder and those that come with it.
func TestWhatIsNotAdmitted(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method), plantest.Piece("never", material.Method), plantest.ExerciseOf("scale", "scale/apart/C/major/-"))
	s.Library["viola"] = material.Material{ID: "viola", Instrument: "viola"}
	plantest.Working(s, "work", 8)
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
	bad := plantest.Cycle("H")
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
		require.Equal(t, x.want, kind(Admit(*s, entry(x.e), nil)), "%+v", x.e)
	}
	// No lesson lies before the student came, else before the student was born, else twenty years back.
	note := func(day time.Time) NotAdmitted {
		return kind(Admit(*s, entry(studentlog.Entry{Kind: studentlog.Note, Text: "x", At: day.Add(10 * time.Hour)}), nil))
	}
	edge := func(day time.Time) {
		t.Helper()
		require.Equal(t, []NotAdmitted{BeforeTheTime, ""}, []NotAdmitted{note(day.AddDate(0, 0, -1)), note(day)})
	}
	edge(s.Born)
	s.Born = plantest.Monday.AddDate(-40, 0, 0)
	edge(plantest.Monday.AddDate(-20, 0, 0))
	s.Since = plantest.Monday.AddDate(-1, 0, 0)
	edge(s.Since)
	require.NoError(
		t,
		Admit(*s, entry(studentlog.Entry{Kind: studentlog.KnownBefore, Material: "never", At: plantest.Monday.AddDate(-30, 0, 0)}), nil),
		"what was learned before is older",
	)
	// What comes in the same batch is there already.
	begun := entry(studentlog.Entry{Kind: studentlog.Cleared, Material: "never"})
	require.NoError(t, Admit(*s, entry(studentlog.Entry{Kind: studentlog.Hearing, Material: "never", Rating: 3}), []studentlog.Entry{begun}))
	own := entry(studentlog.Entry{Kind: studentlog.FocusAdded, Focus: "mine", Text: "x"})
	require.NoError(
		t,
		Admit(*s,
			entry(studentlog.Entry{Kind: studentlog.MarkGiven, Material: "work", Focus: "mine", Mark: studentlog.None}),
			[]studentlog.Entry{own},
		),
	)
}

// A family reports on what was set for a day that has come, two weeks back at the most.
func TestReportsFromHome(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method))
	day := plantest.Monday.AddDate(0, 0, -1)
	weeks := []studentplan.SetWeek{{Start: plantest.Monday.AddDate(0, 0, -14), Plan: week.Plan{Days: []week.Day{
		{Date: plantest.Monday.AddDate(0, 0, -15), Items: []week.Item{{Key: "old"}}},
		{Date: plantest.Monday.AddDate(0, 0, -14), Items: []week.Item{{Key: "fortnight"}}},
		{Date: day, Items: []week.Item{{Key: "chunk", Material: "work"}, {Key: "bite", Material: "skill"}}},
		{Date: plantest.Monday.AddDate(0, 0, 1), Items: []week.Item{{Key: "chunk"}}},
	}}}}
	tick := func(r Report, before ...studentlog.Entry) (studentlog.Entry, NotAdmitted) {
		r.ID = "R"
		if r.At.IsZero() {
			r.At = s.Now
		}
		e, err := Tick(*s, r, weeks, before)
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
		{NotSet, Report{Day: day, Item: "another"}}, {NotSet, Report{Day: plantest.Monday, Item: "chunk"}},
		{NotYet, Report{Day: plantest.Monday.AddDate(0, 0, 1), Item: "chunk"}},
		{TooLongAgo, Report{Day: plantest.Monday.AddDate(0, 0, -15), Item: "old"}}, {"", Report{Day: plantest.Monday.AddDate(0, 0, -14), Item: "fortnight"}},
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
