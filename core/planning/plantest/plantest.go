// Package plantest makes the student, the pieces and the calendar of planning's tests: a child of nine with a lesson on Mondays, on
// Monday, 4 May 2026. Only tests import it.
package plantest

import (
	"fmt"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/review"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// monday is the day of the studio in these tests: a Monday, on which the lesson is.
var Monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

// On is a time in the afternoon so many days before the day of the studio; below 0 after it.
func On(daysAgo int) time.Time { return Monday.AddDate(0, 0, -daysAgo).Add(15 * time.Hour) }

// Piece is a material that asks for some skills with weight 1.
func Piece(id string, strand material.Strand, skills ...string) material.Material {
	m := material.Material{ID: id, Title: "The " + id, Strand: strand, Instrument: "piano", Quarters: 48, Tempo: 80, DistinctBars: 8, Bars: 12}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

// Mondays is a lesson of thirty minutes on every Monday for years.
func Mondays() calendar.Timetable {
	return calendar.Weekly(time.Monday, 900, 30, Monday.AddDate(-3, 0, 0))
}

// Pupil is a student of nine with a lesson of thirty minutes on Mondays, who practises twenty
// minutes on the six other days, in a balanced way of teaching.
func Pupil(t require.TestingT, lib ...material.Material) *studentplan.Student {
	skills, err := skill.Parse([]byte(`[
		{"id":"pulse","name":"steady pulse","steps":["walk","clap"]},
		{"id":"ties","name":"ties","needs":["pulse"],"steps":["hold hands","say it"]},
		{"id":"thumb","name":"thumb under","steps":["tap"]},
		{"id":"plain","name":"plain"}]`))
	require.NoError(t, err)
	s := &studentplan.Student{
		Studio: studentplan.Studio{
			Library:  material.Library{},
			Pool:     lessonplan.Shipped(),
			Meetings: meeting.Shipped(),
			Skills:   skills,
			Zone:     time.UTC,
			Now:      Monday.Add(15 * time.Hour),
			Today:    Monday,
		},
		Profile: studentplan.Profile{
			Ladder:          "L",
			Name:            "Nell Farrow",
			Born:            Monday.AddDate(-9, 0, 0),
			Instrument:      "piano",
			Lessons:         Mondays(),
			PracticeMinutes: 20,
		},
		Policy: studentplan.Policy{
			Standing: standing.DefaultPolicy(), Preview: preview.DefaultPolicy(), Review: review.DefaultPolicy(), Signs: signs.DefaultPolicy(),
			ReviewShare: 0.45, EaseAfterLeap: true, PolishWeeks: 2, Sure: 0.8, Dose: week.ByYears, DoseRow: 3,
		},
		Standing: &standing.Standing{
			Materials: map[string]*standing.MaterialStanding{}, Planted: map[string]time.Time{},
			Ability: leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}},
		},
	}
	s.Practises, _ = studentplan.FirstPractice(9, Mondays().Slots)
	for _, m := range lib {
		s.Library[m.ID] = m
	}
	return s
}

// Working gives the student a piece in work.
func Working(s *studentplan.Student, id string, daysAgo int) *standing.MaterialStanding {
	m := &standing.MaterialStanding{State: standing.Working, Assigned: On(daysAgo), Before: before(s.Library[id]), Points: 3}
	s.Standing.Materials[id] = m
	return m
}

// Learned gives the student a piece that was cleared and heard so many days ago, with a stability in days.
func Learned(s *studentplan.Student, id string, daysAgo int, stability float64) *standing.MaterialStanding {
	m := &standing.MaterialStanding{
		State: standing.Cleared, Assigned: On(daysAgo + 14), ClearedAt: On(daysAgo), LastPlayed: On(daysAgo), HeardOn: civil.On(On(daysAgo)),
		Before: before(s.Library[id]), Memory: memory.State{Stability: stability, Difficulty: 5},
	}
	s.Standing.Materials[id] = m
	return m
}

func before(m material.Material) *standing.Before {
	return &standing.Before{Size: 1, Brought: leap.Brought{Skills: make([]leap.Evidence, len(m.Demands))}}
}

// Place is the order of some materials on the ladder.
func Place(s *studentplan.Student, ids ...string) []ladder.Placed {
	var out []ladder.Placed
	for _, id := range ids {
		out = append(out, ladder.Placed{Material: id, Strand: s.Library[id].Strand})
	}
	return out
}

func Ahead(s *studentplan.Student, placed ...string) *studentplan.StudentOutlook {
	return AheadIn(s, studentplan.Options{}, placed...)
}

func AheadIn(s *studentplan.Student, o studentplan.Options, placed ...string) *studentplan.StudentOutlook {
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, Place(s, placed...), o)
	return &a
}

// Holiday is a break of the studio, from so many days after the day of the studio on.
func Holiday(id string, from, days int) calendar.Holiday {
	return calendar.Holiday{ID: id, Name: "Holiday " + id, First: Monday.AddDate(0, 0, from), Last: Monday.AddDate(0, 0, from+days-1)}
}

// Kinds lists the signs as kind and material.
func Kinds(found []signs.Sign) (out []string) {
	for _, s := range found {
		out = append(out, fmt.Sprintf("%s %s", s.Kind, s.Material))
	}
	return out
}

func ExerciseOf(id, exercise string) material.Material {
	m := Piece(id, material.Technique)
	m.Exercise = exercise
	return m
}

func Cycle(first string) studentlog.Cycle {
	return studentlog.Cycle{Type: "scale", Step: "apart", Kind: "major", First: first, Order: "fifths", From: "2026-04-20"}
}

// Folded is the student with the standing of a log.
func Folded(s studentplan.Student, log []studentlog.Entry) studentplan.Student {
	s.Standing = standing.Fold(
		log,
		standing.Context{Library: s.Library, Skills: s.Skills, Family: instrument.Keyboard, Policy: s.Policy.Standing, Day: s.Today},
	)
	return s
}

// Counter makes ids x1, x2 …
func Counter() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("x", n) }
}

func Entry(id string, daysAgo int, kind studentlog.Kind, e studentlog.Entry) studentlog.Entry {
	e.ID, e.At, e.Actor, e.Kind = id, On(daysAgo), "t", kind
	return e
}

func InBook(id string, order int, skills ...string) material.Material {
	m := Piece(id, material.Method, skills...)
	m.SourceID, m.Source, m.Order = "book", "A book", order
	return m
}
