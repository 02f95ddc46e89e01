// Package studentplan is the small context of all questions about one student on one day: who it is, what was folded of the log, by
// which policies, when the lessons are, what lies ahead on the ladder, and what follows from these at once. The questions
// that a page asks stand beside it, each in a package of its own: proposing, planting, intechnique, placing, inlesson, inweek,
// withfamily, lookback, whatif, admission, brief. Each question has its answer in one place and as facts; words are made of them
// in core/wording.
//
//	student.go      the student and the policies
//	timetable.go    when lessons are: the slots with what was changed, the holidays and the pauses
//	ahead.go        the outlook of a student
//	kept.go         which learned pieces stay alive
//	points.go       the focus points of a piece, and what a lesson works on
//	due.go          what is due in the next lesson
//	faults.go       the fault that is looked after, and those that are usual
//	named.go        which texts of the library name a student
package studentplan

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/review"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/naming"
	"patientladder/core/student/leap"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
	"patientladder/core/student/taste"
	"patientladder/core/technique/exercise"
)

// Studio is what planning knows of a studio; all its students share it.
type Studio struct {
	Library material.Library
	// Skills is the catalogue in the studio's words.
	Skills skill.Catalogue
	Words  naming.Words
	// Pool are the activities of the studio.
	Pool lessonplan.Pool
	// Meetings are the activities of a first meeting in the studio.
	Meetings meeting.Set
	// Exercises are the goals and faults of exercises in the studio's words.
	Exercises exercise.Forms
	// RetentionScale is how many times as long as the published memory says the learned pieces of the studio stay; 0 for once.
	RetentionScale float64
	// Zone is that of the lessons.
	Zone *time.Location
	// Now is the time, Today the local day as midnight in UTC of its date.
	Now, Today time.Time
	// Holidays are those of the studio and of its students.
	Holidays []calendar.Holiday
	// Units are the materials that are split into sections, by id.
	Units map[string]bool
}

// Local returns the local day of a time, as midnight in UTC of that date.
func (s Studio) Local(t time.Time) time.Time {
	return civil.Of(t, s.Zone).Date()
}

// Profile is who is taught and when.
type Profile struct {
	// Ladder is the id of the ladder, Student that of whoever climbs it.
	Ladder, Student string
	// Called is how the student is called; empty for the first name.
	Name, Called string
	Born         time.Time
	Instrument   string
	// Lessons are the slots, what was done with single lessons, and the pauses; the holidays are the studio's.
	Lessons calendar.Timetable
	// Since is the first day in the studio; zero where nobody said.
	Since time.Time
	// Added is when the student was entered here; zero where it is not known.
	Added time.Time
	// Until is the first day without lessons, because the student left or stopped; zero for none.
	Until time.Time
	// Practises says for each weekday (Sunday is 0) whether there is practice, PracticeMinutes for how long.
	Practises       [week.Days]bool
	PracticeMinutes int
	// HandsApart keeps the hands apart at first.
	HandsApart bool
	// NoName says that somebody refused that the student is named on what others read.
	NoName bool
}

// Printed is the student's name on what others read, such as a programme.
func (p Profile) Printed() string {
	if p.NoName {
		return "a student"
	}
	return p.Name
}

// First is how the student is called, else the first word of the name.
func (p Profile) First() string {
	if p.Called != "" {
		return p.Called
	}
	first, _, _ := strings.Cut(p.Name, " ")
	return first
}

// Age is the age in whole years on a day.
func (p Profile) Age(day time.Time) int {
	age := day.Year() - p.Born.Year()
	if day.Month() < p.Born.Month() || day.Month() == p.Born.Month() && day.Day() < p.Born.Day() {
		age--
	}
	return max(0, age)
}

// PracticeDays counts the days of practice in a week.
func (p Profile) PracticeDays() (n int) {
	for _, practises := range p.Practises {
		if practises {
			n++
		}
	}
	return n
}

// FirstPractice is how a new student practises until something else is set (default): every day
// but those of lessons, twenty minutes, and ten for the youngest, under seven.
func FirstPractice(age int, slots []calendar.Slot) (days [week.Days]bool, minutes int) {
	for d := range days {
		days[d] = !slices.ContainsFunc(slots, func(s calendar.Slot) bool { return s.Weekday == time.Weekday(d) })
	}
	if age < 7 {
		return days, 10
	}
	return days, 20
}

// Policy is what a way of teaching asks of planning.
type Policy struct {
	// HomeCounts says that what home showed changes the week after.
	HomeCounts bool
	Standing   standing.Policy
	Preview    preview.Policy
	Review     review.Policy
	Signs      signs.Policy
	// ReviewShare of the minutes is meant for learned pieces, 0 to 0.9.
	ReviewShare float64
	// ReadingAfter is how many weeks of lessons come before the reading strand begins.
	ReadingAfter int
	// EaseAfterLeap proposes an easy piece after a leap over the comfortable size.
	EaseAfterLeap bool
	// HearFirst lets pieces be heard before they are read.
	HearFirst bool
	Approach  naming.Approach
	// FirstChunk is the size of the smallest chunk in bars; 0 by age.
	FirstChunk int
	Dose       week.Dose
	DoseRow    int
	// PolishWeeks lie between clearing a piece and performing it; Sure is the chance that a target should have.
	PolishWeeks int
	Sure        float64
}

// Student is one student on the day of the studio.
type Student struct {
	Studio
	Profile
	Policy   Policy
	Standing *standing.Standing
}

// Family is that of the student's instrument; "" where it is not known.
func (s Student) Family() instrument.Family {
	family, _ := instrument.FamilyOf(s.Instrument)
	return family
}

// TwoHands says that each hand has its own notes on the instrument, so that they can be learned apart.
func (s Student) TwoHands() bool { return s.Family() == instrument.Keyboard }

// SoundFamily is the family whose sound is played for the instrument; that of any other where it is not known.
func (s Student) SoundFamily() instrument.Family {
	if f := s.Family(); f != "" {
		return f
	}
	return instrument.Other
}

// OnInstrument is the instrument of the student; the zero one where it is not known any more.
func (s Student) OnInstrument() instrument.Instrument {
	x, _ := instrument.Of(s.Instrument)
	return x
}

// In returns the materials in one of the states, by strand in drawing order,
// then in the order in which they were assigned.
func (s Student) In(states ...standing.State) []string {
	// A unit that is split is worked at by its sections.
	ids := slices.DeleteFunc(s.Standing.In(states...), func(id string) bool {
		return s.Units[id] && s.Standing.Materials[id].State == standing.Working
	})
	strand := func(id string) int { return slices.Index(material.Strands(), s.Library[id].Strand) }
	slices.SortStableFunc(ids, func(a, b string) int { return strand(a) - strand(b) })
	return ids
}

// Begun says that a material is no longer ahead.
func (s Student) Begun(id string) bool {
	m := s.Standing.Materials[id]
	return m != nil && m.State != standing.Heard
}

// GivenToday says that today's lesson has been recorded already, so that the next one is a week away.
func (s Student) GivenToday() bool {
	last := s.Standing.LastLesson
	return !last.IsZero() && s.Local(last).Equal(s.Today)
}

// SetupDue says that bench and feet are to be measured: at keys from the beginning, on a chair again after a first
// time.
func (s Student) SetupDue() bool {
	switch setup.AskedFor(s.OnInstrument()) {
	case setup.Standing:
		return false
	case setup.OnChair:
		if s.Standing.SetupAt().IsZero() {
			return false
		}
	}
	return setup.Due(s.Standing.SetupAt(), s.Today, s.Age(s.Today), setup.Months)
}

// AsksToMeasure says that a lesson asks for what is due to be measured; who never measures is not asked in every lesson.
func (s Student) AsksToMeasure() bool { return s.SetupDue() && s.askedToMeasure() < mostAsked }

// mostAsked is in how many lessons it is asked for a measure before it is left for some months (default).
const mostAsked = 3

// askedToMeasure is in how many lessons it was asked for since it fell due, or was asked for anew.
func (s Student) askedToMeasure() (n int) {
	// The days of lessons are kept for some weeks only: who was never measured is asked from the first entry on.
	due := s.Standing.FirstLesson
	if at := s.Standing.SetupAt(); !at.IsZero() {
		due = at.AddDate(0, setup.Months, 0)
	}
	if due.IsZero() {
		return 0
	}
	due = s.Local(due)
	for next := due; !next.After(s.Today); next = next.AddDate(0, setup.Months, 0) {
		due = next
	}
	for _, d := range s.Standing.Given {
		if !d.Date().Before(due) && d.Date().Before(s.Today) {
			n++
		}
	}
	return n
}

// Taste is what the student likes, learned from all that was had.
func (s Student) Taste() taste.Profile {
	return taste.Learn(s.Standing.Likings, s.Standing.In(standing.Working, standing.Resting, standing.Cleared, standing.Polished), s.Library)
}

// LeafBarsOf is the size of the smallest chunks in which the student learns a piece: as the teacher has it, else by age, and
// smaller where the piece is made of patterns.
func (s Student) LeafBarsOf(p *analysis.Piece, own chunk.Borders) int {
	if s.Policy.FirstChunk > 0 {
		return s.Policy.FirstChunk
	}
	return p.LeafBars(s.LeafBars(), own)
}

// LeafBars is the size of the student's smallest chunks in bars.
func (s Student) LeafBars() int {
	if s.Policy.FirstChunk > 0 {
		return s.Policy.FirstChunk
	}
	return chunk.LeafBars(s.Age(s.Today))
}

// KnownNotes are the written pitches of every piece but one that the student has cleared.
func (s Student) KnownNotes(except string) map[string]bool {
	known := map[string]bool{}
	for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
		if id == except {
			continue
		}
		for _, n := range s.Library[id].Notes {
			known[n] = true
		}
	}
	return known
}

// GamePool are the activities of the studio that are not behind the student.
func (s Student) GamePool() lessonplan.Pool {
	return s.Pool.Beyond(func(skill string) bool {
		return s.Policy.Standing.Leap.Level(s.Standing.Ability.Skills[skill]) == leap.Secure
	})
}

// Progress is what of the exercises stands on the ladder.
func (s Student) Progress() exercise.Progress {
	ids := func(states ...standing.State) []string {
		var out []string
		for _, id := range s.Standing.In(states...) {
			if x := s.Library[id].Exercise; x != "" {
				out = append(out, x)
			}
		}
		return out
	}
	p := s.Policy.Standing.Leap
	return exercise.Progress{
		Cleared: ids(standing.Cleared, standing.Polished), Working: ids(standing.Working, standing.Resting),
		Secure: func(skill string) bool { return p.Level(s.Standing.Ability.Skills[skill]) == leap.Secure },
	}
}
