package studentplan

import (
	"slices"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Rough is about when something was known.
type Rough string

// The rough times.
const (
	ThisTerm Rough = "this-term"
	LastTerm Rough = "last-term"
	LastYear Rough = "last-year"
	LongAgo  Rough = "long-ago"
)

// ago is how many days before today a rough time is taken to lie (default).
var ago = map[Rough]int{ThisTerm: 30, LastTerm: 110, LastYear: 365, LongAgo: 3 * 365}

// Roughs are the rough times, the latest first.
func Roughs() []Rough { return []Rough{ThisTerm, LastTerm, LastYear, LongAgo} }

// Known is one thing that was there before: a material or a skill.
type Known struct {
	Material, Skill string
	When            Rough
}

// KnownEntries are the entries by which things are known before, each at its rough time, and apart so that
// their order is that of the list. id makes their ids. What is known already is left out.
func (s Student) KnownEntries(list []Known, actor string, id func() string) []studentlog.Entry {
	var out []studentlog.Entry
	seen := map[[2]string]bool{}
	for i, k := range list {
		key := [2]string{k.Material, k.Skill}
		if seen[key] || s.knows(k) {
			continue
		}
		seen[key] = true
		days, ok := ago[k.When]
		if !ok {
			days = ago[LastTerm]
		}
		at := s.Now.AddDate(0, 0, -days).Add(time.Duration(i) * time.Second)
		out = append(out, studentlog.Entry{ID: id(), At: at.UTC().Truncate(time.Millisecond), Actor: actor, Kind: studentlog.KnownBefore, Material: k.Material, Skill: k.Skill})
	}
	return out
}

// knows says that a thing is learned already.
func (s Student) knows(k Known) bool {
	if k.Skill != "" {
		return s.Standing.Ability.Skills[k.Skill].Shown
	}
	m := s.Standing.Materials[k.Material]
	return m != nil && (m.State == standing.Cleared || m.State == standing.Polished)
}

// UpTo are the materials of a book for the student's instrument up to one, in the book's order; all of
// them where that one is empty.
func (s Student) UpTo(book, last string) []string {
	var out []string
	for _, m := range curriculum.Book(s.Library, book) {
		if m.Instrument != s.Instrument || m.PartOf != "" {
			continue
		}
		out = append(out, m.ID)
		if m.ID == last {
			return out
		}
	}
	if last != "" {
		return nil // it is not in the book
	}
	return out
}

// Rest are the materials of a book that the student has not begun, in the book's order: what goes onto the ladder.
func (s Student) Rest(book string) []material.Material {
	var out []material.Material
	for _, m := range curriculum.Book(s.Library, book) {
		if m.Instrument == s.Instrument && !s.Begun(m.ID) && !m.Retired && m.PartOf == "" {
			out = append(out, m)
		}
	}
	return out
}

// KnownEffect is what entering things that were known before changes.
type KnownEffect struct {
	// Pieces, and Skills by their ids, count as learned; Secure of the skills are secure, Rusty have faded since.
	Pieces        []string
	Skills        []string
	Secure, Rusty int
	// Review is how many of the pieces are kept in review.
	Review int
	// Next are the first rungs of each strand that were not begun, before and after.
	NextBefore, NextAfter []string
}

// KnownEffect compares a student with the same one who knows more.
func (s Student) KnownEffect(then Student, before, after []string) KnownEffect {
	out := KnownEffect{NextBefore: before, NextAfter: after}
	kept := then.Learned()
	for _, id := range then.Standing.In(standing.Cleared, standing.Polished) {
		if m := s.Standing.Materials[id]; m == nil || m.State != standing.Cleared && m.State != standing.Polished {
			out.Pieces = append(out.Pieces, id)
			if slices.Contains(kept, id) {
				out.Review++
			}
		}
	}
	policy := s.Policy.Standing.Leap
	for id, e := range then.Standing.Ability.Skills {
		was, is := policy.Level(s.Standing.Ability.Skills[id]), policy.Level(e)
		if was == is || is != leap.Secure && is != leap.Rusty {
			continue
		}
		out.Skills = append(out.Skills, id)
		if is == leap.Secure {
			out.Secure++
		} else {
			out.Rusty++
		}
	}
	slices.Sort(out.Skills)
	return out
}
