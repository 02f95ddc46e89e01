package studentplan

import (
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

// FaultNamed is a fault by the name under which it was noted: one of the usual ones of beginners on the student's
// instrument, or one of an exercise; known is false for none.
func (s Student) FaultNamed(id string) (usual setup.Fault, of exercise.Fault, known bool) {
	for _, f := range setup.Faults(s.OnInstrument()) {
		if f.ID == setup.SameFault(id) {
			usual, known = f, true
		}
	}
	for _, t := range s.Exercises.For(s.OnInstrument()) {
		for _, f := range t.Faults {
			if f.ID == id {
				return usual, f, true
			}
		}
	}
	return usual, of, known
}

// FaultText is a fault in words, by the id under which it was noted.
func (s Student) FaultText(focus string) string {
	usual, of, known := s.FaultNamed(strings.TrimPrefix(focus, material.Fault))
	switch {
	case usual.ID != "":
		return usual.Name
	case known:
		return of.Text
	}
	return "one that is not known any more"
}

// WatchedFault is the one fault that is looked after: the one that was seen first of those that are open.
type WatchedFault struct {
	standing.OpenFault
	// Text says what it is, Remedy what to say to a child, Home what to do at home.
	Text, Remedy, Home string
	// Days since it was seen first.
	Days int
}

// Watched is the fault that is looked after now, one at a time; nil for none.
func (s Student) Watched() *WatchedFault {
	for _, f := range s.Standing.Faults {
		usual, of, known := s.FaultNamed(f.Named)
		if !known {
			continue // of an instrument that is played no more
		}
		w := &WatchedFault{
			OpenFault: f,
			Days:      max(0, civil.Between(s.Local(f.Since), s.Today)),
			Text:      usual.Name,
			Remedy:    usual.Remedy,
			Home:      usual.Home,
		}
		if usual.ID == "" {
			w.Text, w.Remedy, w.Home = of.Text, of.Look, of.Look
		}
		return w
	}
	return nil
}

// FaultState is how a usual fault stands with a student.
type FaultState string

// The states of a fault: not seen or gone, seen and waiting, and looked after now.
const (
	NoFault   FaultState = "none"
	FaultOpen FaultState = "open"
	FaultNow  FaultState = "now"
)

// UsualFault is one of the usual faults of beginners on the student's instrument, with its state.
type UsualFault struct {
	setup.Fault
	State FaultState
	// Since is the day on which it was seen first; zero for none.
	Since time.Time
}

// UsualFaults are the usual faults in their order. Of those that are open one is looked after at a time.
func (s Student) UsualFaults() (out []UsualFault) {
	now := s.Watched()
	for _, f := range setup.Faults(s.OnInstrument()) {
		x := UsualFault{Fault: f, State: NoFault}
		if seen, open := s.Standing.Fault(f.ID); open {
			if x.State, x.Since = FaultOpen, s.Local(seen.Since); now != nil && now.ID == f.ID {
				x.State = FaultNow
			}
		}
		out = append(out, x)
	}
	return out
}

// InLesson is a fault as the lesson sees it.
func (w *WatchedFault) InLesson() *lessonplan.Fault {
	if w == nil {
		return nil
	}
	return &lessonplan.Fault{ID: material.Fault + w.Named, Text: w.Text, Remedy: w.Remedy, Days: w.Days}
}
