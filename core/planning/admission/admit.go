// Package admission holds what may be recorded of a student: entries of a lesson against the library, the ladder and those that come
// with them, and ticks from home against what was set. What is refused has its kind; core/wording has the sentence.
package admission

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/clearing"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// ClockAhead is how far a device's clock may run ahead (default).
const ClockAhead = 24 * time.Hour

// OldestTick is for how many days practice at home can still be reported (default).
const OldestTick = 14

// NotAdmitted is why an entry cannot be added to a log.
type NotAdmitted string

// The reasons.
const (
	InTheFuture    NotAdmitted = "future"     // it lies in the future
	BeforeTheTime  NotAdmitted = "before"     // it lies before Day, from which on there can have been lessons
	NoSuchMaterial NotAdmitted = "material"   // it names a material that is not there
	WrongPlayer    NotAdmitted = "instrument" // the material is for another instrument
	BeyondTheEnd   NotAdmitted = "bars"       // a spot reaches beyond the last bar
	NeverHad       NotAdmitted = "neverHad"   // the student never had the material
	NoSuchPoint    NotAdmitted = "point"      // the material has no such focus point
	NoSuchFault    NotAdmitted = "fault"      // it is no fault of the instrument
	NotOfStandard  NotAdmitted = "standard"   // Name is not a point of the clearing standard
	NoSuchActivity NotAdmitted = "activity"   // the goal has no such option
	NoSuchSkill    NotAdmitted = "skill"      // Name is not a skill of the catalogue
	NoSuchCycle    NotAdmitted = "cycle"      // Err says what of the cycle is not there
	NotMine        NotAdmitted = "notMine"    // only what was reported from home is taken back from home
	TooLongAgo     NotAdmitted = "tooLongAgo" // practice on Day is too long ago to be reported
	NotYet         NotAdmitted = "notYet"     // Day has not come yet
	NotSet         NotAdmitted = "notSet"     // this was not set for Day
	NoPiece        NotAdmitted = "noPiece"    // only a piece can be played first
	EmptyNote      NotAdmitted = "emptyNote"  // nothing is written
	LongNote       NotAdmitted = "longNote"   // more than LongestNote letters
	NoSuchNote     NotAdmitted = "note"       // there is no such kind of note
	NoSuchLesson   NotAdmitted = "lesson"     // the lesson is not among those to come
	Malformed      NotAdmitted = "malformed"  // Err says what is wrong with it by itself
)

// EntryError says why an entry cannot be added.
type EntryError struct {
	Kind  NotAdmitted
	Entry studentlog.Entry
	Name  string
	Day   time.Time
	Err   error
}

func (e EntryError) Error() string { return "the entry cannot be added: " + string(e.Kind) }

// Admit checks what an entry names against the library and the ladder; before are those that are
// added with it. Corrections and mended spots may name what has not arrived yet.
func Admit(s studentplan.Student, e studentlog.Entry, before []studentlog.Entry) error {
	refuse := func(kind NotAdmitted, name string, err error) error {
		return EntryError{Kind: kind, Entry: e, Name: name, Err: err}
	}
	if err := e.Validate(); err != nil {
		return refuse(Malformed, "", err)
	}
	if e.At.After(s.Now.Add(ClockAhead)) {
		return refuse(InTheFuture, "", nil)
	}
	if first := earliest(s); e.Kind != studentlog.KnownBefore && s.Local(e.At).Before(first) {
		return EntryError{Kind: BeforeTheTime, Entry: e, Day: first}
	}
	m, known := s.Library[e.Material]
	switch {
	case e.Material != "" && !known:
		return refuse(NoSuchMaterial, "", nil)
	case known && m.Instrument != s.Instrument:
		return refuse(WrongPlayer, "", nil)
	}
	if admit := admissions[e.Kind]; admit != nil {
		if kind, name, err := admit(s, e, before); kind != "" {
			return refuse(kind, name, err)
		}
	}
	return nil
}

// admissions say of each kind of entry why it cannot be added, "" where it can, with the name or the error that goes with the
// reason; before are those that are added with it. A test sees that none is missing.
var admissions = map[studentlog.Kind]func(s studentplan.Student, e studentlog.Entry, before []studentlog.Entry) (NotAdmitted, string, error){
	studentlog.SpotAdded: func(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
		return when(e.To > s.Library[e.Material].Bars, BeyondTheEnd, "")
	},
	studentlog.Hearing: onlyIfHad, studentlog.Paused: onlyIfHad, studentlog.Resumed: onlyIfHad, studentlog.GateSet: onlyIfHad,
	studentlog.MarkGiven: func(s studentplan.Student, e studentlog.Entry, before []studentlog.Entry) (NotAdmitted, string, error) {
		given := slices.ContainsFunc(before, func(b studentlog.Entry) bool { return b.Kind == studentlog.FocusAdded && b.Focus == e.Focus })
		return when(!given && !s.HasPoint(e.Material, e.Focus), NoSuchPoint, "")
	},
	studentlog.FaultSeen: onlyOfInstrument, studentlog.FaultGone: onlyOfInstrument,
	studentlog.RunTried: func(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
		standard := clearing.Standard(s.Family(), clearing.Level(e.Standard))
		for _, id := range e.Met {
			if !slices.ContainsFunc(standard, func(p clearing.Point) bool { return p.ID == id }) {
				return NotOfStandard, id, nil
			}
		}
		return "", "", nil
	},
	studentlog.Activity: func(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
		return when(!s.Pool.Has(e.Goal, e.Step), NoSuchActivity, e.Goal)
	},
	studentlog.CycleKept: func(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
		if e.Cycle.First == "" {
			return "", "", nil
		}
		if _, err := intechnique.Round(s, *e.Cycle); err != nil {
			return NoSuchCycle, "", err
		}
		return "", "", nil
	},
	studentlog.Meeting: func(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
		a, known := s.Meetings.Of(e.Goal)
		return when(!known || !a.Came(e.Outcome), NoSuchActivity, e.Goal)
	},
	studentlog.StepDone: onlySkills, studentlog.Probe: onlySkills, studentlog.KnownBefore: onlySkills,
	// What they name was looked at already, or may not have arrived yet.
	studentlog.Assigned: always, studentlog.Cleared: always, studentlog.Polished: always, studentlog.SpotMended: always,
	studentlog.Practised:    always,
	studentlog.SetupChecked: always, studentlog.TakeMeasured: always, studentlog.WentWell: always, studentlog.Liking: always,
	studentlog.FocusAdded:   always,
	studentlog.LessonMissed: always, studentlog.ClimbBegun: always, studentlog.TempoPlayed: always, studentlog.Note: always,
	studentlog.Bring:      always,
	studentlog.Correction: always,
}

func always(studentplan.Student, studentlog.Entry, []studentlog.Entry) (NotAdmitted, string, error) {
	return "", "", nil
}

func when(refused bool, kind NotAdmitted, name string) (NotAdmitted, string, error) {
	if !refused {
		return "", "", nil
	}
	return kind, name, nil
}

func onlyIfHad(s studentplan.Student, e studentlog.Entry, before []studentlog.Entry) (NotAdmitted, string, error) {
	had := s.Begun(e.Material) ||
		slices.ContainsFunc(before, func(b studentlog.Entry) bool { return b.Material == e.Material && begins(b.Kind) })
	return when(!had, NeverHad, "")
}

func onlyOfInstrument(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
	_, _, known := s.FaultNamed(strings.TrimPrefix(e.Focus, material.Fault))
	return when(!known, NoSuchFault, "")
}

func onlySkills(s studentplan.Student, e studentlog.Entry, _ []studentlog.Entry) (NotAdmitted, string, error) {
	_, known := s.Skills.Get(e.Skill)
	return when(e.Skill != "" && !known, NoSuchSkill, e.Skill)
}

// oldestYears is how long ago a lesson can have been at the most, where nobody said since when the student comes (default).
const oldestYears = 20

// earliest is the first day on which there can have been a lesson.
func earliest(s studentplan.Student) time.Time {
	if !s.Since.IsZero() {
		return s.Since
	}
	first := s.Today.AddDate(-oldestYears, 0, 0)
	if s.Born.After(first) {
		return s.Born
	}
	return first
}

// Filled is an entry with what follows from it: what came of an activity of a first meeting shows a skill.
func Filled(s studentplan.Studio, e studentlog.Entry) studentlog.Entry {
	if a, known := s.Meetings.Of(e.Goal); known && e.Kind == studentlog.Meeting {
		e.Skill, e.Shown = a.Skills[e.Outcome], a.Skills[e.Outcome] != ""
	}
	return e
}

// begins says that an entry makes a material one that the student has had.
func begins(k studentlog.Kind) bool {
	return k == studentlog.Assigned || k == studentlog.Cleared || k == studentlog.Polished || k == studentlog.KnownBefore
}

// Report is what a family reports.
type Report struct {
	ID string
	At time.Time
	// Undoes is the id of an earlier report that is taken back; empty otherwise.
	Undoes string
	// Day and Item name what was set; First says that it was chosen to be played first.
	Day   time.Time
	Item  string
	First bool
	Times int
	Felt  studentlog.Feeling
}

// Tick turns a report into an entry of the log, if it is about something that was set for a day
// that has come, not too long ago; before are those that are added with it.
func Tick(s studentplan.Student, r Report, weeks []studentplan.SetWeek, before []studentlog.Entry) (studentlog.Entry, error) {
	e := studentlog.Entry{ID: r.ID, At: r.At.UTC().Truncate(time.Millisecond), Actor: studentlog.Family}
	refuse := func(kind NotAdmitted, err error) (studentlog.Entry, error) {
		return e, EntryError{Kind: kind, Entry: e, Day: r.Day, Err: err}
	}
	if e.At.After(s.Now.Add(ClockAhead)) {
		return refuse(InTheFuture, nil)
	}
	if r.Undoes != "" {
		mine := slices.ContainsFunc(s.Standing.Home, func(h standing.Report) bool { return h.FromHome && h.ID == r.Undoes }) ||
			slices.ContainsFunc(before, func(b studentlog.Entry) bool { return b.ID == r.Undoes })
		if !mine {
			return refuse(NotMine, nil)
		}
		e.Kind, e.Corrects = studentlog.Correction, r.Undoes
		return valid(s, e, refuse)
	}
	switch {
	case r.Day.After(s.Today):
		return refuse(NotYet, nil)
	case civil.Between(r.Day, s.Today) > OldestTick:
		return refuse(TooLongAgo, nil)
	}
	item, ok := find(weeks, r.Day, r.Item)
	if !ok {
		return refuse(NotSet, nil)
	}
	if r.First {
		if !inweek.CanBeFirst(s, item) {
			return refuse(NoPiece, nil)
		}
		e.Kind, e.Material, e.Sign = studentlog.Liking, item.Material, studentlog.PlayedFirst
		return valid(s, e, refuse)
	}
	e.Kind, e.Day, e.Item, e.Times, e.Felt = studentlog.Practised, r.Day.Format(time.DateOnly), r.Item, r.Times, r.Felt
	return valid(s, e, refuse)
}

func valid(s studentplan.Student, e studentlog.Entry, refuse func(NotAdmitted, error) (studentlog.Entry, error)) (studentlog.Entry, error) {
	if err := e.Validate(); err != nil {
		return refuse(Malformed, err)
	}
	return e, nil
}

// find finds an item among what was set for a day.
func find(weeks []studentplan.SetWeek, day time.Time, key string) (week.Item, bool) {
	for _, w := range weeks {
		for _, d := range w.Plan.Days {
			if !d.Date.Equal(day) {
				continue
			}
			for _, it := range d.Items {
				if it.Key == key {
					return it, true
				}
			}
		}
	}
	return week.Item{}, false
}
