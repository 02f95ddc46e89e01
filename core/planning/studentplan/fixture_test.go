package studentplan

import (
	"fmt"
	"time"

	"patientladder/core/library/instrument"
	"patientladder/core/student/studentlog"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/review"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/week"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
)

// monday is the day of the studio in these tests: a Monday, on which the lesson is.
var monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

// on is a time in the afternoon so many days before the day of the studio; below 0 after it.
func on(daysAgo int) time.Time { return monday.AddDate(0, 0, -daysAgo).Add(15 * time.Hour) }

// piece is a material that asks for some skills with weight 1.
func piece(id string, strand material.Strand, skills ...string) material.Material {
	m := material.Material{ID: id, Title: "The " + id, Strand: strand, Instrument: "piano", Quarters: 48, Tempo: 80, DistinctBars: 8, Bars: 12}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

// mondays is a lesson of thirty minutes on every Monday for years.
func mondays() calendar.Timetable {
	return calendar.Weekly(time.Monday, 900, 30, monday.AddDate(-3, 0, 0))
}

// pupil is a student of nine with a lesson of thirty minutes on Mondays, who practises twenty
// minutes on the six other days, in a balanced way of teaching.
func pupil(t require.TestingT, lib ...material.Material) *Student {
	skills, err := skill.Parse([]byte(`[
		{"id":"pulse","name":"steady pulse","steps":["walk","clap"]},
		{"id":"ties","name":"ties","needs":["pulse"],"steps":["hold hands","say it"]},
		{"id":"thumb","name":"thumb under","steps":["tap"]},
		{"id":"plain","name":"plain"}]`))
	require.NoError(t, err)
	s := &Student{
		Studio: Studio{
			Library:  material.Library{},
			Pool:     lessonplan.Shipped(),
			Meetings: meeting.Shipped(),
			Skills:   skills,
			Zone:     time.UTC,
			Now:      monday.Add(15 * time.Hour),
			Today:    monday,
		},
		Profile: Profile{
			Ladder:          "L",
			Name:            "Nell Farrow",
			Born:            monday.AddDate(-9, 0, 0),
			Instrument:      "piano",
			Lessons:         mondays(),
			PracticeMinutes: 20,
		},
		Policy: Policy{
			Standing: standing.DefaultPolicy(), Preview: preview.DefaultPolicy(), Review: review.DefaultPolicy(), Signs: signs.DefaultPolicy(),
			ReviewShare: 0.45, EaseAfterLeap: true, PolishWeeks: 2, Sure: 0.8, Dose: week.ByYears, DoseRow: 3,
		},
		Standing: &standing.Standing{
			Materials: map[string]*standing.MaterialStanding{}, Planted: map[string]time.Time{},
			Ability: leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}},
		},
	}
	s.Practises, _ = FirstPractice(9, mondays().Slots)
	for _, m := range lib {
		s.Library[m.ID] = m
	}
	return s
}

// working gives the student a piece in work.
func (s *Student) working(id string, daysAgo int) *standing.MaterialStanding {
	m := &standing.MaterialStanding{State: standing.Working, Assigned: on(daysAgo), Before: before(s.Library[id]), Points: 3}
	s.Standing.Materials[id] = m
	return m
}

// learned gives the student a piece that was cleared and heard so many days ago, with a stability in days.
func (s *Student) learned(id string, daysAgo int, stability float64) *standing.MaterialStanding {
	m := &standing.MaterialStanding{
		State: standing.Cleared, Assigned: on(daysAgo + 14), ClearedAt: on(daysAgo), LastPlayed: on(daysAgo), HeardOn: civil.On(on(daysAgo)),
		Before: before(s.Library[id]), Memory: memory.State{Stability: stability, Difficulty: 5},
	}
	s.Standing.Materials[id] = m
	return m
}

func before(m material.Material) *standing.Before {
	return &standing.Before{Size: 1, Brought: leap.Brought{Skills: make([]leap.Evidence, len(m.Demands))}}
}

// place is the order of some materials on the ladder.
func (s *Student) place(ids ...string) []ladder.Placed {
	var out []ladder.Placed
	for _, id := range ids {
		out = append(out, ladder.Placed{Material: id, Strand: s.Library[id].Strand})
	}
	return out
}

func (s *Student) ahead(placed ...string) *StudentOutlook {
	return s.aheadIn(Options{}, placed...)
}

func (s *Student) aheadIn(o Options, placed ...string) *StudentOutlook {
	a := s.Ahead(Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, s.place(placed...), o)
	return &a
}

// holiday is a break of the studio, from so many days after the day of the studio on.
func holiday(id string, from, days int) calendar.Holiday {
	return calendar.Holiday{ID: id, Name: "Holiday " + id, First: monday.AddDate(0, 0, from), Last: monday.AddDate(0, 0, from+days-1)}
}

// kinds lists the signs as kind and material.
func kinds(found []signs.Sign) (out []string) {
	for _, s := range found {
		out = append(out, fmt.Sprintf("%s %s", s.Kind, s.Material))
	}
	return out
}

func exerciseOf(id, exercise string) material.Material {
	m := piece(id, material.Technique)
	m.Exercise = exercise
	return m
}

func cycle(first string) studentlog.Cycle {
	return studentlog.Cycle{Type: "scale", Step: "apart", Kind: "major", First: first, Order: "fifths", From: "2026-04-20"}
}

// folded is the student with the standing of a log.
func (s Student) folded(log []studentlog.Entry) Student {
	s.Standing = standing.Fold(
		log,
		standing.Context{Library: s.Library, Skills: s.Skills, Family: instrument.Keyboard, Policy: s.Policy.Standing, Day: s.Today},
	)
	return s
}

// counter makes ids x1, x2 …
func counter() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("x", n) }
}

func entry(id string, daysAgo int, kind studentlog.Kind, e studentlog.Entry) studentlog.Entry {
	e.ID, e.At, e.Actor, e.Kind = id, on(daysAgo), "t", kind
	return e
}

func inBook(id string, order int, skills ...string) material.Material {
	m := piece(id, material.Method, skills...)
	m.SourceID, m.Source, m.Order = "book", "A book", order
	return m
}
