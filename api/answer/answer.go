// Package answer turns facts of core into the contract's answers, with their words.
//
//	answer.go  students, materials, leaps, days
//	due.go     what is due, how review stands
package answer

import (
	"fmt"
	"math"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/lookback"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/wording"
	"patientladder/store"
)

// Date is a day of the contract.
func Date(t time.Time) openapi_types.Date { return openapi_types.Date{Time: t} }

// Student is a student on a day.
func Student(l store.Ladder, day time.Time) contract.Student {
	out := contract.Student{
		Ladder: l.ID, Student: l.StudentID, Name: l.Name, Called: l.Called, Age: l.Profile().Age(day),
		Instrument: contract.Instrument(l.Instrument),
		Weekday:    -1, Approach: contract.StudentApproach(l.Approach), Lessons: wording.Slots(l.Lessons, day),
		State: contract.StudentState(State(l.Profile(), day)),
	}
	if slot, ok := l.Lessons.Usual(day); ok {
		out.Weekday, out.StartsAt, out.Minutes = int(slot.Weekday), wording.Clock(slot.StartsAt), slot.Minutes
	}
	return out
}

// State says whether lessons take place, rest or have ended.
func State(p studentplan.Profile, day time.Time) string {
	switch {
	case p.Gone(day):
		return "gone"
	case p.Paused(day):
		return "paused"
	}
	return "active"
}

// LessonDate is a dated lesson.
// Became is a dated lesson with what became of it.
func Became(l agenda.Lesson, became lookback.Became) contract.LessonDate {
	out := LessonDate(l)
	out.Became = contract.LessonDateBecame(became)
	return out
}

// LessonDate is a dated lesson.
func LessonDate(l agenda.Lesson) contract.LessonDate {
	out := contract.LessonDate{
		Lesson: l.ID, Ladder: l.Pupil.Ladder, Student: l.Pupil.Student, Name: l.Name, Instrument: contract.Instrument(l.Instrument),
		Day:      Date(l.Day),
		StartsAt: wording.Clock(l.StartsAt), Minutes: l.Minutes, State: contract.LessonDateState(l.State), Words: wording.LessonDate(l),
		Clashes: append([]string{}, l.Clashes...), ToMakeUp: l.ToMakeUp,
	}
	if !l.Due.IsZero() {
		out.Due = Date(l.Due)
	}
	return out
}

// mostHeaviest is how many dimensions are named in which a piece is hard.
const mostHeaviest = 3

// Brief is a material in a list.
func Brief(m material.Material) contract.MaterialBrief {
	difficulty, _ := m.Difficulty()
	return contract.MaterialBrief{
		Difficulty: difficulty, Heaviest: wording.Heaviest(m.Heaviest(mostHeaviest)),
		Id: m.ID, Title: m.Title, Composer: m.Composer, Strand: contract.Strand(m.Strand),
		Instrument: contract.Instrument(m.Instrument), Source: m.SourceID, From: From(m), Bars: m.Bars, Exercise: m.Exercise, Retired: m.Retired,
	}
}

// From says where a material stands: source, unit and page, or the composer.
func From(m material.Material) string {
	var parts []string
	for _, p := range []string{m.Source, m.Unit} {
		if p != "" {
			parts = append(parts, p)
		}
	}
	if m.Page > 0 {
		parts = append(parts, fmt.Sprintf("page %d", m.Page))
	}
	if len(parts) == 0 {
		return m.Composer
	}
	return strings.Join(parts, ", ")
}

// Leap is a leap with its parts in words.
func Leap(n wording.Names, m material.Material, l leap.Leap, secureAfter int) contract.Leap {
	out := contract.Leap{
		Unknown: l.Unknown,
		Words:   wording.LeapSize(l),
		Size:    Thousandths(l.Size),
		Ready:   Thousandths(l.Ready),
		Parts:   make([]contract.LeapPart, 0, len(l.Parts)),
	}
	for _, p := range l.Parts {
		out.Parts = append(out.Parts, contract.LeapPart{
			Kind: contract.LeapPartKind(p.Kind), Skill: p.Skill, Name: n.LeapName(p), Level: contract.LeapPartLevel(p.Level),
			Weight: p.Weight, Novelty: Thousandths(p.Novelty), Amount: Thousandths(p.Amount), Bars: append([]int{}, p.Bars...),
			Where: m.BarsName(p.Bars), Why: wording.LeapPart(p, m, secureAfter),
		})
	}
	return out
}

// Thousandths rounds what goes over the wire: nobody reads more.
func Thousandths(x float64) float64 { return math.Round(1000*x) / 1000 }

// Days turns a range of lessons into one of dates.
func Days(a *studentplan.StudentOutlook, s forecast.Span) contract.Days {
	low, median, high := a.Days(s)
	return contract.Days{Low: Date(low), Median: Date(median), High: Date(high), Words: wording.Between(low, high, a.Today)}
}
