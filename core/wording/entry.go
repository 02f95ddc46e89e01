package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/clearing"
	"patientladder/core/student/studentlog"
)

// faultMarks say how a usual fault stands.
var faultMarks = map[studentlog.Mark]string{studentlog.None: "seen", studentlog.Part: "less", studentlog.Full: "gone"}

// gates say which hand may play at home.
var gates = map[studentlog.Gate]string{
	studentlog.Automatic: "hands by the way of teaching", studentlog.RightOnly: "right hand only until the left is taught",
	studentlog.LeftOnly: "left hand only until the right is taught",
	studentlog.Apart:    "each hand by itself", studentlog.Together: "both hands",
}

// logLine is an entry that is put into words.
type logLine struct {
	n Names
	e *studentlog.Entry
	s studentplan.Student
	// m is the material of the entry, title its title in quotation marks.
	m     material.Material
	title string
}

// entryWords are the words of each kind of entry; a test sees that none is missing.
var entryWords = map[studentlog.Kind]func(logLine) string{
	studentlog.Assigned: func(x logLine) string { return x.title + " is now a working piece" },
	studentlog.MarkGiven: func(x logLine) string {
		if strings.HasPrefix(x.e.Focus, material.Fault) {
			return fmt.Sprintf("Fault: %s, %s", focus(x.e, x.m, x.s), faultMarks[x.e.Mark])
		}
		return fmt.Sprintf("%s: %s", Capital(focus(x.e, x.m, x.s)), x.e.Mark)
	},
	studentlog.FaultSeen: func(x logLine) string { return "Fault: " + x.s.FaultText(x.e.Focus) + ", seen" },
	studentlog.FaultGone: func(x logLine) string { return "Fault: " + x.s.FaultText(x.e.Focus) + ", gone" },
	studentlog.CycleKept: func(x logLine) string {
		if x.e.Cycle.First == "" {
			return "The cycle of keys is ended"
		}
		return fmt.Sprintf("A cycle of keys from %s begins", x.n.Words.Key(x.e.Cycle.First))
	},
	studentlog.LessonMissed: func(x logLine) string { return "No lesson on " + x.e.Day },
	studentlog.ClimbBegun: func(x logLine) string {
		if x.e.Climb.Weeks == 0 {
			return "The tempo ladder is put away"
		}
		return fmt.Sprintf("%s goes from %d to %d in %s", x.title, x.e.Climb.From, x.e.Climb.To, Counted(x.e.Climb.Weeks, "week"))
	},
	studentlog.TempoPlayed: func(x logLine) string {
		if x.e.Held {
			return fmt.Sprintf("%s held at %d", x.title, x.e.Tempo)
		}
		return fmt.Sprintf("%s did not hold at %d", x.title, x.e.Tempo)
	},
	studentlog.SpotAdded:  func(x logLine) string { return "Hard spot at " + x.m.Span(x.e.From, x.e.To) },
	studentlog.SpotMended: func(x logLine) string { return "A hard spot is mended" },
	studentlog.RunTried: func(x logLine) string {
		if v := clearing.Judge(clearing.Standard(x.s.Family(), clearing.Level(x.e.Standard)), x.e.Met); !v.Cleared {
			return fmt.Sprintf("Run of %s: it stays", x.title)
		}
		return fmt.Sprintf("Run of %s: cleared", x.title)
	},
	studentlog.Cleared:  func(x logLine) string { return x.title + " cleared" },
	studentlog.Polished: func(x logLine) string { return x.title + " polished" },
	studentlog.Hearing:  func(x logLine) string { return fmt.Sprintf("%s heard: %d of 4", x.title, x.e.Rating) },
	studentlog.StepDone: func(x logLine) string {
		return fmt.Sprintf("Preview step %d: %s", x.e.Step, x.n.Skills.Name(x.e.Skill))
	},
	studentlog.Meeting: func(x logLine) string { return "First meeting: " + x.n.tried(x.e.Goal) + ", " + Outcome(x.e.Outcome) },
	studentlog.Probe: func(x logLine) string {
		switch x.e.Outcome {
		case "nearly":
			return "Asked for, and nearly there: " + x.n.Skills.Name(x.e.Skill)
		case "left":
			return "Asked for, and passed over: " + x.n.Skills.Name(x.e.Skill)
		}
		if x.e.Shown {
			return "Asked for, and there: " + x.n.Skills.Name(x.e.Skill)
		}
		return "Asked for, and missing: " + x.n.Skills.Name(x.e.Skill)
	},
	studentlog.TakeMeasured: func(x logLine) string { return "A take was measured" },
	studentlog.FocusAdded:   func(x logLine) string { return "Own focus point: " + x.e.Text },
	studentlog.Paused:       func(x logLine) string { return x.title + " is set aside" },
	studentlog.Resumed:      func(x logLine) string { return x.title + " is taken up again" },
	studentlog.GateSet:      func(x logLine) string { return fmt.Sprintf("%s at home: %s", x.title, gates[x.e.Gate]) },
	studentlog.Practised:    func(x logLine) string { return "Practised at home" },
	studentlog.Liking: func(x logLine) string {
		for _, s := range signsOfLiking {
			if s.sign == x.e.Sign {
				return x.title + ": " + s.words
			}
		}
		return x.title
	},
	studentlog.SetupChecked: func(x logLine) string { return "Bench, feet and hands checked" },
	studentlog.Activity: func(x logLine) string {
		if g, known := x.n.Pool.Get(x.e.Goal); known {
			return "Done: " + g.Name
		}
		return "Done: " + x.e.Goal
	},
	studentlog.WentWell: func(x logLine) string { return "Went well: " + x.e.Text },
	studentlog.Bring:    func(x logLine) string { return "To bring: " + x.e.Text },
	studentlog.KnownBefore: func(x logLine) string {
		if x.e.Material != "" {
			return x.title + " was known before"
		}
		return "Known before: " + x.n.Skills.Name(x.e.Skill)
	},
	studentlog.Note:       func(x logLine) string { return x.e.Text },
	studentlog.Correction: func(logLine) string { return "Taken back" },
}

// Entry says an entry of a student's log, for the list that undo works on.
func (n Names) Entry(e *studentlog.Entry, s studentplan.Student) string {
	m := n.Library[e.Material]
	words, known := entryWords[e.Kind]
	if !known {
		return string(e.Kind)
	}
	return words(logLine{n, e, s, m, Quoted(m.Title)})
}

// focus is what a mark was given for, in the teacher's words.
func focus(e *studentlog.Entry, m material.Material, s studentplan.Student) string {
	if x, err := s.Exercises.Parse(m.Exercise, s.OnInstrument()); err == nil {
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
func (n Names) NotAdmitted(e admission.EntryError, s studentplan.Student) string {
	m := n.Library[e.Entry.Material]
	title := Quoted(m.Title)
	day := e.Day.Format("Monday, 2 January")
	switch e.Kind {
	case admission.InTheFuture:
		return fmt.Sprintf("This happened on %s, which has not come yet. Check the clock of this device.", DayAndYear(e.Entry.At))
	case admission.BeforeTheTime:
		if !s.Since.IsZero() {
			return fmt.Sprintf(
				"%s comes since %s; this was before, on %s. What was learned before goes under “Known before”.",
				s.First(),
				DayAndYear(e.Day),
				DayAndYear(s.Local(e.Entry.At)),
			)
		}
		return fmt.Sprintf(
			"%s is too long ago for a lesson with %s. Check the date; what was learned before goes under “Known before”.",
			Capital(DayAndYear(s.Local(e.Entry.At))),
			s.First(),
		)
	case admission.NoSuchMaterial:
		return "This does not exist in your studio."
	case admission.WrongPlayer:
		return OtherInstrument(m.Title, m.Instrument, s.Instrument)
	case admission.BeyondTheEnd:
		return fmt.Sprintf("%s has %s; the spot reaches to bar %d.", title, Figures(m.Bars, "bar"), e.Entry.To)
	case admission.NeverHad:
		return fmt.Sprintf("%s has never had %s: nothing was recorded.", s.Name, title)
	case admission.NoSuchPoint:
		return fmt.Sprintf("The mark is for a focus point that %s does not have. Open the lesson again.", title)
	case admission.NoSuchFault:
		return fmt.Sprintf("This is not a fault of the %s.", s.Instrument)
	case admission.NotOfStandard:
		return fmt.Sprintf("%q is not a point of the clearing standard.", e.Name)
	case admission.NoSuchActivity:
		return fmt.Sprintf("There is no way %d to practise %q.", e.Entry.Step, e.Name)
	case admission.NoSuchSkill:
		return fmt.Sprintf("%q is not a skill of the catalogue.", e.Name)
	case admission.NotMine:
		return "Only what was ticked here can be taken back."
	case admission.NotYet:
		return day + " has not come yet: practice is ticked when it is done."
	case admission.TooLongAgo:
		return day + " is too long ago to be ticked; tell the teacher in the lesson."
	case admission.NotSet:
		return "This was not set for " + day + ". Open the page again."
	case admission.EmptyNote:
		return "Nothing is written yet."
	case admission.LongNote:
		return fmt.Sprintf("This is too long: at most %d letters. Nothing was sent.", withfamily.LongestNote)
	case admission.NoSuchNote:
		return "This cannot be sent from here. Open the page again."
	case admission.NoSuchLesson:
		return "This lesson is not among those to come. Open the page again."
	case admission.NoPiece:
		return "Only a piece can be chosen to be played first."
	}
	return Sentence(e.Err.Error()) // Malformed, NoSuchCycle
}
