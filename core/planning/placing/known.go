package placing

import (
	"maps"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/base/parallel"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/library/titles"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
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

// RoughOf is about when a day was, seen from another: the rough time that lies nearest, by how many times as long ago it is.
func RoughOf(day, today time.Time) Rough {
	n := max(1, civil.Between(day, today))
	best := ThisTerm
	for _, r := range Roughs() {
		if off(n, ago[r]) < off(n, ago[best]) {
			best = r
		}
	}
	return best
}

func off(a, b int) float64 { return math.Abs(math.Log(float64(a) / float64(b))) }

// Roughs are the rough times, the latest first.
func Roughs() []Rough { return []Rough{ThisTerm, LastTerm, LastYear, LongAgo} }

// Known is one thing that was there before: a material or a skill.
type Known struct {
	Material, Skill string
	When            Rough
}

// Entries are the entries by which things are known before, each at its rough time, and apart so that
// their order is that of the list. id makes their ids. What is known already is left out.
func Entries(s studentplan.Student, list []Known, actor string, id func() string) []studentlog.Entry {
	var out []studentlog.Entry
	seen := map[[2]string]bool{}
	for i, k := range list {
		key := [2]string{k.Material, k.Skill}
		if seen[key] || knows(s, k) {
			continue
		}
		seen[key] = true
		days, ok := ago[k.When]
		if !ok {
			days = ago[LastTerm]
		}
		at := s.Now.AddDate(0, 0, -days).Add(time.Duration(i) * time.Second)
		out = append(
			out,
			studentlog.Entry{
				ID:       id(),
				At:       at.UTC().Truncate(time.Millisecond),
				Actor:    actor,
				Kind:     studentlog.KnownBefore,
				Material: k.Material,
				Skill:    k.Skill,
			},
		)
	}
	return out
}

// knows says that a thing is learned already.
func knows(s studentplan.Student, k Known) bool {
	if k.Skill != "" {
		return s.Standing.Ability.Skills[k.Skill].Shown
	}
	m := s.Standing.Materials[k.Material]
	return m != nil && (m.State == standing.Cleared || m.State == standing.Polished)
}

// UpTo are the materials of a book for the student's instrument up to one, in the book's order; all of
// them where that one is empty.
func UpTo(s studentplan.Student, book, last string) []string {
	var out []string
	for _, m := range curriculum.Book(s.Library, book) {
		if m.Instrument != s.Instrument {
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

// OfBook are the rungs that a book makes for an instrument, in its order: what is offered of it, sections in
// the place of their units.
func OfBook(lib material.Library, book, instrument string) []ladder.Placed {
	var out []ladder.Placed
	for _, m := range curriculum.Book(lib, book) {
		if m.Instrument == instrument && !m.Retired {
			out = append(out, ladder.Whole(lib, m)...)
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

// EffectOf compares a student with the same one who knows more.
func EffectOf(s studentplan.Student, then studentplan.Student, before, after []string) KnownEffect {
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

// RestFrom is what was not begun of a book, from a piece on, as rungs.
func RestFrom(s studentplan.Student, book, from string) []ladder.Placed {
	return rest(s, book, func(id string) bool { return from == "" || id == from })
}

// RestAfter is what was not begun of a book after a piece, as rungs.
func RestAfter(s studentplan.Student, book, last string) []ladder.Placed {
	passed := false
	return rest(s, book, func(id string) bool {
		was := passed
		passed = passed || id == last
		return was
	})
}

// rest is what was not begun of a book from the first piece on that begins says.
func rest(s studentplan.Student, book string, begins func(id string) bool) []ladder.Placed {
	var out []ladder.Placed
	on := false
	for _, m := range curriculum.Book(s.Library, book) {
		if on = on || begins(m.ID); on && m.Instrument == s.Instrument && !m.Retired && !s.Begun(m.ID) {
			out = append(out, ladder.Whole(s.Library, m)...)
		}
	}
	return out
}

// With is the student as with some more entries in the log, and some more materials in the library.
func With(s studentplan.Student, log, more []studentlog.Entry, made []material.Material) studentplan.Student {
	if len(made) > 0 {
		s.Library = maps.Clone(s.Library)
		for _, m := range made {
			s.Library[m.ID] = m
		}
	}
	s.Standing = standing.Fold(
		slices.Concat(log, more),
		standing.Context{Library: s.Library, Skills: s.Skills, Family: s.Family(), Policy: s.Policy.Standing, Day: s.Today, Zone: s.Zone},
	)
	return s
}

// NextRungs are the first rungs of each strand that were not begun and stand in no other's shadow.
func NextRungs(s studentplan.Student, placed []ladder.Placed) []string {
	var out []string
	seen := map[material.Strand]bool{}
	for _, p := range placed {
		if p.Aside == "" && !seen[p.Strand] && !s.Begun(p.Material) {
			seen[p.Strand] = true
			out = append(out, p.Material)
		}
	}
	return out
}

// Secure says that a skill is secure.
func Secure(s studentplan.Student, id string) bool {
	return s.Policy.Standing.Leap.Level(s.Standing.Ability.Skills[id]) == leap.Secure
}

// SkillFamily are the skills of a family.
type SkillFamily struct {
	Family skill.Family
	Skills []skill.Skill
}

// SkillFamilies are the skills of the catalogue by family, in its order, without those of other instruments.
func SkillFamilies(s studentplan.Student) []SkillFamily {
	var out []SkillFamily
	for _, x := range s.Skills.All() {
		if len(x.Instruments) > 0 && !slices.Contains(x.Instruments, string(s.Family())) {
			continue
		}
		i := slices.IndexFunc(out, func(f SkillFamily) bool { return f.Family == x.Family })
		if i < 0 {
			i = len(out)
			out = append(out, SkillFamily{Family: x.Family})
		}
		out[i].Skills = append(out[i].Skills, x)
	}
	return out
}

// Match finds what the lines of a list mean among the pieces for the student's instrument.
func Match(s studentplan.Student, lines []titles.Entry) []titles.Match {
	var among []titles.Title
	for _, m := range s.Library {
		if m.Instrument == s.Instrument && m.Exercise == "" && m.PartOf == "" && !m.Retired {
			among = append(among, titles.Title{ID: m.ID, Title: m.Title, Composer: m.Composer})
		}
	}
	slices.SortFunc(among, func(a, b titles.Title) int { return strings.Compare(a.ID, b.ID) })
	out := make([]titles.Match, len(lines))
	parallel.Each(len(lines), func(i int) { out[i] = titles.Find(lines[i].Title, among) })
	return out
}
