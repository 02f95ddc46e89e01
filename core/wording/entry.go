package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/clearing"
	"patientladder/core/student/studentlog"
)

// faultMarks say how a usual fault stands.
var faultMarks = map[studentlog.Mark]string{studentlog.None: "seen", studentlog.Part: "less", studentlog.Full: "gone"}

// gates say which hand may play at home.
var gates = map[studentlog.Gate]string{
	studentlog.Automatic: "hands by the way of teaching", studentlog.RightOnly: "right hand only until the left is taught", studentlog.LeftOnly: "left hand only until the right is taught",
	studentlog.Apart: "each hand by itself", studentlog.Together: "both hands",
}

// Entry says an entry of a student's log, for the list that undo works on.
func (n Names) Entry(e *studentlog.Entry, s studentplan.Student) string {
	m := n.Library[e.Material]
	title := Quoted(m.Title)
	switch e.Kind {
	case studentlog.Assigned:
		return title + " is now a working piece"
	case studentlog.MarkGiven:
		if strings.HasPrefix(e.Focus, material.Fault) {
			return fmt.Sprintf("Fault: %s, %s", focus(e, m, s), faultMarks[e.Mark])
		}
		return fmt.Sprintf("%s: %s", Capital(focus(e, m, s)), e.Mark)
	case studentlog.FaultSeen:
		return "Fault: " + s.FaultText(e.Focus) + ", seen"
	case studentlog.FaultGone:
		return "Fault: " + s.FaultText(e.Focus) + ", gone"
	case studentlog.CycleKept:
		if e.Cycle.First == "" {
			return "The cycle of keys is ended"
		}
		return fmt.Sprintf("A cycle of keys from %s begins", n.Words.Key(e.Cycle.First))
	case studentlog.LessonMissed:
		return "No lesson on " + e.Day
	case studentlog.ClimbBegun:
		if e.Climb.Weeks == 0 {
			return "The tempo ladder is put away"
		}
		return fmt.Sprintf("%s goes from %d to %d in %s", title, e.Climb.From, e.Climb.To, Counted(e.Climb.Weeks, "week"))
	case studentlog.TempoPlayed:
		if e.Held {
			return fmt.Sprintf("%s held at %d", title, e.Tempo)
		}
		return fmt.Sprintf("%s did not hold at %d", title, e.Tempo)
	case studentlog.SpotAdded:
		return "Hard spot at " + m.Span(e.From, e.To)
	case studentlog.SpotMended:
		return "A hard spot is mended"
	case studentlog.RunTried:
		if v := clearing.Judge(clearing.Standard(s.Family(), clearing.Level(e.Standard)), e.Met); !v.Cleared {
			return fmt.Sprintf("Run of %s: it stays", title)
		}
		return fmt.Sprintf("Run of %s: cleared", title)
	case studentlog.Cleared:
		return title + " cleared"
	case studentlog.Polished:
		return title + " polished"
	case studentlog.Hearing:
		return fmt.Sprintf("%s heard: %d of 4", title, e.Rating)
	case studentlog.StepDone:
		return fmt.Sprintf("Preview step %d: %s", e.Step, n.Skills.Name(e.Skill))
	case studentlog.Meeting:
		return "First meeting: " + n.tried(e.Goal) + ", " + Outcome(e.Outcome)
	case studentlog.Probe:
		switch e.Outcome {
		case "nearly":
			return "Asked for, and nearly there: " + n.Skills.Name(e.Skill)
		case "left":
			return "Asked for, and passed over: " + n.Skills.Name(e.Skill)
		}
		if e.Shown {
			return "Asked for, and there: " + n.Skills.Name(e.Skill)
		}
		return "Asked for, and missing: " + n.Skills.Name(e.Skill)
	case studentlog.TakeMeasured:
		return "A take was measured"
	case studentlog.FocusAdded:
		return "Own focus point: " + e.Text
	case studentlog.Paused:
		return title + " is set aside"
	case studentlog.Resumed:
		return title + " is taken up again"
	case studentlog.GateSet:
		return fmt.Sprintf("%s at home: %s", title, gates[e.Gate])
	case studentlog.Practised:
		return "Practised at home"
	case studentlog.Liking:
		for _, s := range signsOfLiking {
			if s.sign == e.Sign {
				return title + ": " + s.words
			}
		}
		return title
	case studentlog.SetupChecked:
		return "Bench, feet and hands checked"
	case studentlog.Activity:
		if g, known := n.Pool.Get(e.Goal); known {
			return "Done: " + g.Name
		}
		return "Done: " + e.Goal
	case studentlog.WentWell:
		return "Went well: " + e.Text
	case studentlog.Bring:
		return "To bring: " + e.Text
	case studentlog.KnownBefore:
		if e.Material != "" {
			return title + " was known before"
		}
		return "Known before: " + n.Skills.Name(e.Skill)
	case studentlog.Note:
		return e.Text
	}
	return string(e.Kind)
}

// focus is what a mark was given for, in the teacher's words.
func focus(e *studentlog.Entry, m material.Material, s studentplan.Student) string {
	if x, err := s.Exercises.Parse(m.Exercise, s.Player()); err == nil {
		for _, f := range x.Type.Faults {
			if material.Fault+f.ID == e.Focus {
				return f.Text
			}
		}
	}
	for _, p := range m.FocusPoints {
		if p.ID == e.Focus {
			return p.Text
		}
	}
	if ms := s.Standing.Materials[e.Material]; ms != nil {
		for _, p := range ms.Own {
			if p.ID == e.Focus {
				return p.Text
			}
		}
	}
	for _, f := range s.Standing.Focus {
		if f.ID == e.Focus {
			return f.Text
		}
	}
	return "a focus point"
}

// NotAdmitted says why an entry was not added.
func (n Names) NotAdmitted(e studentplan.EntryError, s studentplan.Student) string {
	m := n.Library[e.Entry.Material]
	title := Quoted(m.Title)
	day := e.Day.Format("Monday, 2 January")
	switch e.Kind {
	case studentplan.InTheFuture:
		return fmt.Sprintf("This happened on %s, which has not come yet. Check the clock of this device.", DayAndYear(e.Entry.At))
	case studentplan.BeforeTheTime:
		if !s.Since.IsZero() {
			return fmt.Sprintf("%s comes since %s; this was before, on %s. What was learned before goes under “Known before”.", s.First(), DayAndYear(e.Day), DayAndYear(s.Local(e.Entry.At)))
		}
		return fmt.Sprintf("%s is too long ago for a lesson with %s. Check the date; what was learned before goes under “Known before”.", Capital(DayAndYear(s.Local(e.Entry.At))), s.First())
	case studentplan.NoSuchMaterial:
		return "This does not exist in your studio."
	case studentplan.WrongPlayer:
		return OtherInstrument(m.Title, m.Instrument, s.Instrument)
	case studentplan.BeyondTheEnd:
		return fmt.Sprintf("%s has %s; the spot reaches to bar %d.", title, Figures(m.Bars, "bar"), e.Entry.To)
	case studentplan.NeverHad:
		return fmt.Sprintf("%s has never had %s: nothing was recorded.", s.Name, title)
	case studentplan.NoSuchPoint:
		return fmt.Sprintf("The mark is for a focus point that %s does not have. Open the lesson again.", title)
	case studentplan.NoSuchFault:
		return fmt.Sprintf("This is not a fault of the %s.", s.Instrument)
	case studentplan.NotOfStandard:
		return fmt.Sprintf("%q is not a point of the clearing standard.", e.Name)
	case studentplan.NoSuchActivity:
		return fmt.Sprintf("There is no way %d to practise %q.", e.Entry.Step, e.Name)
	case studentplan.NoSuchSkill:
		return fmt.Sprintf("%q is not a skill of the catalogue.", e.Name)
	case studentplan.NotMine:
		return "Only what was ticked here can be taken back."
	case studentplan.NotYet:
		return day + " has not come yet: practice is ticked when it is done."
	case studentplan.TooLongAgo:
		return day + " is too long ago to be ticked; tell the teacher in the lesson."
	case studentplan.NotSet:
		return "This was not set for " + day + ". Open the page again."
	case studentplan.EmptyNote:
		return "Nothing is written yet."
	case studentplan.LongNote:
		return fmt.Sprintf("This is too long: at most %d letters. Nothing was sent.", studentplan.LongestNote)
	case studentplan.NoSuchNote:
		return "This cannot be sent from here. Open the page again."
	case studentplan.NoSuchLesson:
		return "This lesson is not among those to come. Open the page again."
	case studentplan.NoPiece:
		return "Only a piece can be chosen to be played first."
	}
	return Sentence(e.Err.Error()) // Malformed, NoSuchCycle
}
