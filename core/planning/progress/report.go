package progress

import (
	"fmt"
	"slices"
	"time"
	"unicode/utf8"

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
func Next(a *studentplan.StudentOutlook, s Span) Ahead {
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
		if a.Library[id].Strand != material.Technique && len(out.Keep) < mostKept {
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
	Ear        Part = "ear"
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
	ForFamily: {
		{Opening, true},
		{Cleared, true},
		{Polished, false},
		{Secure, true},
		{Habits, false},
		{Technique, false},
		{Reading, false},
		{Ear, false},
		{Reviewed, false},
		{AtHome, false},
		{Plans, false},
		{NeedsCare, true},
		{Then, true},
		{OnHolidays, true},
	},
	ForExam: {
		{Opening, true},
		{Cleared, true},
		{Polished, true},
		{Technique, true},
		{Reading, false},
		{Ear, false},
		{Reviewed, false},
		{Plans, true},
		{Stayed, false},
		{Then, true},
	},
	ForTeacher: {
		{Opening, true},
		{Cleared, true},
		{Polished, false},
		{Secure, true},
		{Technique, true},
		{Reading, true},
		{Ear, true},
		{Reviewed, true},
		{Habits, false},
		{Stayed, true},
		{AtHome, false},
		{NeedsCare, true},
		{Then, true},
	},
}

// Report is what a report is drafted from.
type Report struct {
	Progress
	Ahead Ahead
	// Written says for whom it is and how long.
	Written Written
	// Student is whom it is about.
	Student studentplan.Student
}

// Tone is how a report speaks.
type Tone string

// The tones.
const (
	Warm  Tone = "warm"
	Plain Tone = "plain"
)

// Written is a report as the teacher has it: what it is about, and what was made of the sentences.
type Written struct {
	Purpose Purpose
	Length  Length
	Tone    Tone
	Span    Span
	// Edits are the sentences that were changed or left out.
	Edits map[Part]Edit
	// Own is what the teacher adds at the end.
	Own string
}

// First is the report that is offered for a student: to the family, short, warm, over the term until today.
func First(term Span) Written {
	return Written{Purpose: ForFamily, Length: Short, Tone: Warm, Span: term}
}

// longestSentence and longestOwn are how many letters a changed sentence and the teacher's own words may have.
const longestSentence, longestOwn = 600, 2000

// Check says in a sentence what is wrong with a report, or returns nil.
func (w Written) Check(today time.Time) error {
	switch {
	case parts[w.Purpose] == nil:
		return fmt.Errorf("a report is for the family, an exam or a new teacher, not %q", w.Purpose)
	case w.Length != Short && w.Length != Full:
		return fmt.Errorf("a report is short or full, not %q", w.Length)
	case w.Tone != Warm && w.Tone != Plain:
		return fmt.Errorf("a report speaks warmly or plainly, not %q", w.Tone)
	case utf8.RuneCountInString(w.Own) > longestOwn:
		return fmt.Errorf("your own words are longer than %d letters", longestOwn)
	}
	for part, e := range w.Edits {
		if !slices.Contains(w.Order(), part) {
			return fmt.Errorf("a report of this kind has no sentence %q", part)
		}
		if utf8.RuneCountInString(e.Text) > longestSentence {
			return fmt.Errorf("a sentence is longer than %d letters", longestSentence)
		}
	}
	return w.Span.Check(today)
}

// Order are all parts of the purpose in their order, also those of which there is nothing to say.
func (w Written) Order() []Part {
	var out []Part
	for _, p := range parts[w.Purpose] {
		out = append(out, p.Part)
	}
	return out
}

// Parts are those of which there is something to say, in their order.
func (r Report) Parts() []Part {
	var out []Part
	for _, p := range parts[r.Written.Purpose] {
		if (r.Written.Length == Full || p.short) && r.has(p.Part) {
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
	case Ear:
		return len(r.Ear) > 0
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
func (w Written) Edited(drafted []Sentence) []Sentence {
	var out []Sentence
	for _, part := range w.Order() {
		i := slices.IndexFunc(drafted, func(s Sentence) bool { return s.Part == part })
		edit, changed := w.Edits[part]
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

// Published is what a published report says, as it was on that day.
type Published struct {
	Title string
	// Days is the span in words.
	Days  string
	Lines []string
}

// Sent are the sentences of a report that are said, in order, with the teacher's own words at the end.
func (w Written) Sent(sentences []Sentence) []string {
	out := []string{}
	for _, s := range sentences {
		if s.Text != "" {
			out = append(out, s.Text)
		}
	}
	if w.Own != "" {
		out = append(out, w.Own)
	}
	return out
}

// Picture says that the way is drawn in a printed report, Lists that what was learned is listed.
func (w Written) Picture() bool { return w.Length == Full }

// Lists says that what was learned is listed in a printed report.
func (w Written) Lists() bool { return w.Length == Full || w.Purpose != ForFamily }
