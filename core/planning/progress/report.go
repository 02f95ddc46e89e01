package progress

import (
	"fmt"
	"slices"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
)

// Ahead is what comes next.
type Ahead struct {
	// Working are the pieces in work, with the days between which each is expected to be cleared where that is said.
	Working []Expected
	// Then is the piece that follows, of the method before the others; empty for none.
	Then string
	// Keep are the learned pieces that fade first, at most three.
	Keep []string
}

// Expected is a piece with the days between which it is expected to be cleared; zero where nothing is said.
type Expected struct {
	Material  string
	Low, High time.Time
}

// mostKept is how many learned pieces a report asks to be kept.
const mostKept = 3

// Next is what comes next on a ladder, seen from the end of a span; nothing where that is behind.
func Next(a *studentplan.Ahead, s Span) Ahead {
	var out Ahead
	if s.To.Before(a.Today) {
		return out
	}
	foreseen := a.Foreseen()
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			id := r.Material.ID
			switch {
			case r.Aside != "" || r.Layer == ladder.Review:
			case r.Layer == ladder.Now:
				x := Expected{Material: id}
				if foreseen[id] {
					x.Low, _, x.High = a.Days(a.When[id].Clear)
				}
				out.Working = append(out.Working, x)
			case out.Then == "":
				out.Then = id
			}
		}
	}
	for _, id := range a.Learned() {
		if a.Library[id].Exercise == "" && len(out.Keep) < mostKept {
			out.Keep = append(out.Keep, id)
		}
	}
	return out
}

// Purpose is whom a report is for.
type Purpose string

// The purposes.
const (
	ForFamily  Purpose = "family"
	ForExam    Purpose = "exam"
	ForTeacher Purpose = "teacher"
)

// Length is how much a report says.
type Length string

// The lengths.
const (
	Short Length = "short"
	Full  Length = "full"
)

// Part is one thing that a report can say. Its name is that of its sentence, so that a sentence the teacher has changed
// is found again when the facts have grown.
type Part string

// The parts, in the order in which they are said.
const (
	Opening    Part = "opening"
	Cleared    Part = "cleared"
	Polished   Part = "polished"
	Secure     Part = "secure"
	Habits     Part = "habits"
	Technique  Part = "technique"
	Reading    Part = "reading"
	Reviewed   Part = "review"
	AtHome     Part = "practice"
	Plans      Part = "plans"
	Stayed     Part = "stay"
	NeedsCare  Part = "care"
	Then       Part = "next"
	OnHolidays Part = "holidays"
)

// parts are those of each purpose; those of the short form are marked.
var parts = map[Purpose][]struct {
	Part
	short bool
}{
	ForFamily: {{Opening, true}, {Cleared, true}, {Polished, false}, {Secure, true}, {Habits, false}, {Technique, false}, {Reading, false}, {Reviewed, false},
		{AtHome, false}, {Plans, false}, {NeedsCare, true}, {Then, true}, {OnHolidays, true}},
	ForExam: {{Opening, true}, {Cleared, true}, {Polished, true}, {Technique, true}, {Reading, false}, {Reviewed, false}, {Plans, true}, {Stayed, false}, {Then, true}},
	ForTeacher: {{Opening, true}, {Cleared, true}, {Polished, false}, {Secure, true}, {Technique, true}, {Reading, true}, {Reviewed, true}, {Habits, false},
		{Stayed, true}, {AtHome, false}, {NeedsCare, true}, {Then, true}},
}

// Report is what a report is drafted from.
type Report struct {
	Progress
	Ahead   Ahead
	Purpose Purpose
	Length  Length
	// Student is whom it is about.
	Student studentplan.Student
}

// Check says in a sentence what is wrong with the choices of a report, or returns nil.
func (r Report) Check() error {
	if parts[r.Purpose] == nil {
		return fmt.Errorf("a report is for the family, an exam or a new teacher, not %q", r.Purpose)
	}
	if r.Length != Short && r.Length != Full {
		return fmt.Errorf("a report is short or full, not %q", r.Length)
	}
	return nil
}

// Parts are those of which there is something to say, in their order.
func (r Report) Parts() []Part {
	var out []Part
	for _, p := range parts[r.Purpose] {
		if (r.Length == Full || p.short) && r.has(p.Part) {
			out = append(out, p.Part)
		}
	}
	return out
}

func (r Report) has(p Part) bool {
	care, _ := r.Care()
	switch p {
	case Cleared:
		return len(r.Pieces()) > 0
	case Polished:
		return len(r.Polished) > 0
	case Secure:
		return len(r.Secure) > 0
	case Habits:
		return len(r.Habits) > 0
	case Technique:
		return len(r.Drills()) > 0
	case Reading:
		return len(r.ReadingStages()) > 0
	case Reviewed:
		return r.Review.Learned > 0
	case AtHome:
		return r.Practice.Set >= leastSet
	case Plans:
		return len(r.Plans) > 0
	case Stayed:
		return len(r.Stays) > 0
	case NeedsCare:
		return care != Nothing
	case Then:
		return len(r.Ahead.Working) > 0 || r.Ahead.Then != ""
	case OnHolidays:
		return len(r.Ahead.Keep) > 0 || len(r.Ahead.Working) > 0
	}
	return true
}

func (r Report) of(wanted func(material.Material) bool) []Piece {
	return slices.DeleteFunc(slices.Clone(r.Cleared), func(p Piece) bool { return p.Before || !wanted(r.Student.Library[p.Material]) })
}

// Pieces are the cleared ones that are neither technique nor stages of reading.
func (r Report) Pieces() []Piece {
	return r.of(func(m material.Material) bool { return m.Strand != material.Technique && m.Strand != material.Reading })
}

// Drills are the cleared exercises of technique, those of a book among them.
func (r Report) Drills() []Piece {
	return r.of(func(m material.Material) bool { return m.Strand == material.Technique })
}

// ReadingStages are the cleared ones.
func (r Report) ReadingStages() []Piece {
	return r.of(func(m material.Material) bool { return m.Strand == material.Reading })
}

// Edit is what a teacher made of a sentence.
type Edit struct {
	// Text is what is said instead; empty leaves the sentence out.
	Text string
	// Was is the sentence as it was drafted then.
	Was string
}

// Sentence is one of a report.
type Sentence struct {
	Part Part
	// Text is what the report says, Drafted what the facts say now, Entries the entries that it comes from.
	Text, Drafted string
	Entries       []string
	// Edited says that the teacher changed it or left it out; Newer that the facts have changed since.
	Edited, Newer bool
}

// Edited lays what the teacher changed over the sentences as they are drafted now: what was changed stays, and says
// where the facts have become others since. A changed sentence whose facts are gone stays as well, at its place.
func Edited(order []Part, drafted []Sentence, edits map[Part]Edit) []Sentence {
	var out []Sentence
	for _, part := range order {
		i := slices.IndexFunc(drafted, func(s Sentence) bool { return s.Part == part })
		edit, changed := edits[part]
		switch {
		case i < 0 && !changed:
		case i < 0:
			out = append(out, Sentence{Part: part, Text: edit.Text, Edited: true, Newer: edit.Was != ""})
		default:
			s := drafted[i]
			s.Drafted = s.Text
			if changed {
				s.Text, s.Edited, s.Newer = edit.Text, true, edit.Was != s.Drafted
			}
			out = append(out, s)
		}
	}
	return out
}

// Order are all parts of a purpose in their order, also those of which there is nothing to say.
func (r Report) Order() []Part {
	var out []Part
	for _, p := range parts[r.Purpose] {
		out = append(out, p.Part)
	}
	return out
}
