// Package placing says where a student starts: what is believed of somebody who was somewhere else before, which book and which
// way into it fit, what was known before and what an answer about it changes. It decides from what was said, played and
// recorded; a belief carries its doubt.
package placing

import (
	"patientladder/core/base/sorting"

	"cmp"
	"slices"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/placement"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

// Placement is what is believed of a student from elsewhere, and what could be done with it.
type Placement struct {
	Belief placement.Belief
	// Question is the next one; nil where Over says why there is none.
	Question *placement.Question
	Over     placement.Ends
	// Holes are missing skills beneath where the student plays, the one that hurts most first.
	Holes []Hole
	// Entries are where each book of the instrument would be entered.
	Entries []BookEntry
}

// Hole is a missing skill that pieces before the entry ask for, and soon again after it.
type Hole struct {
	Skill skill.Skill
	// Known is how likely it is there after all.
	Known float64
	// Soon are the pieces after an entry that ask for it, the nearest first; Hurts adds up how much, the nearer the more.
	Soon  []string
	Hurts float64
}

// BookEntry is a book with the piece at which the student would begin.
type BookEntry struct {
	Book curriculum.Source
	// Pieces of the book, by id, and the place of the entry among them, from 0; as many as there are where all is known.
	Pieces []string
	At     int
	// Low and High are the places between which the right entry lies four times of five.
	Low, High int
	// Chosen says that the teacher moved the entry.
	Chosen bool
	// Leaps are those of the first pieces from the entry on.
	Leaps []curriculum.Line
	// Needed are the skills that the book asks for before its entry; There of them are believed to be there.
	Needed, There int
	// Granted are the skills that it takes for granted when it begins, as it says; Lacking those that are not believed to be
	// there, and Open those of which nobody knows yet.
	Granted, Lacking, Open []string
	Routes                 []Route
}

// RouteKind is a way to begin.
type RouteKind string

// The ways: fill the holes with earlier pieces first, beside the new ones, or go on.
const (
	FillFirst  RouteKind = "first"
	FillBeside RouteKind = "beside"
	GoOn       RouteKind = "on"
)

// Route is a way to begin with a book.
type Route struct {
	Kind RouteKind
	// Fill are earlier pieces that fill holes, in the order of the book.
	Fill []string
	// Low and High are the lessons that they take.
	Low, High int
	// Filled are the skills that they teach, Open those that stay holes.
	Filled, Open []string
	// Largest is the largest leap among the first pieces that follow.
	Largest float64
}

const (
	// fillMost is how many earlier pieces a student goes back at the most (default): a little back, on purpose.
	fillMost = 6
	// surelyMissing and surelyThere are how likely a skill is there when it is said to be missing, and to be there (default).
	surelyMissing, surelyThere = 0.2, 0.8
	// looked is how many pieces after the entry are looked at.
	looked = 6
)

// Of believes what the log says of a student: what is secure by pieces or was known before, and the answers to
// questions. Entries say where the teacher moved the entry of a book, by the id of a piece.
func Of(s studentplan.Student, books []curriculum.Source, model *forecast.Model, entries map[string]string) Placement {
	b := Believed(s, books)
	out := Placement{Belief: b, Over: b.Over()}
	if out.Over == "" {
		if q, ok := b.Next(nil); ok {
			out.Question = &q
		} else {
			out.Over = placement.Nothing
		}
	}
	ability := believedAbility(s, b)
	for _, book := range books {
		if e, ok := entry(s, book, b, ability, entries[book.ID]); ok {
			compareRequirements(s, &e, b, books)
			out.Entries = append(out.Entries, e)
		}
	}
	out.Holes = holes(s, b, out.Entries)
	for i := range out.Entries {
		out.Entries[i].Routes = routes(s, out.Entries[i], out.Holes, ability, model)
	}
	// A book of which nothing is too new any more is not where one begins.
	slices.SortStableFunc(out.Entries, func(a, b BookEntry) int { return sorting.FalseFirst(a.through(), b.through()) })
	return out
}

// through says that no piece of a book would be too new.
func (e BookEntry) through() bool { return e.At >= len(e.Pieces) }

// enoughPieces is from how many learned pieces on they say how far a student has come (default).
const enoughPieces = 3

// beyondBy is how much further than the furthest skill a skill lies at the least that a book asks for later (default).
const beyondBy = 0.04

// Believed is what is believed of the student's skills.
func Believed(s studentplan.Student, books []curriculum.Source) placement.Belief {
	first := firstUses(s, books)
	skills := placement.Of(s.Skills, string(s.Family()), first)
	asked := map[string]bool{}
	for _, a := range s.Standing.Asked {
		asked[a.Skill] = true
	}
	var brought placement.Brought
	furthest := 0.0
	for _, x := range skills {
		e := s.Standing.Ability.Skills[x.ID]
		switch level := s.Policy.Standing.Leap.Level(e); {
		case asked[x.ID]:
		case level == leap.Secure && e.Cleared > 0:
			brought.Learned = append(brought.Learned, x.ID)
		case level == leap.Secure:
			brought.Before = append(brought.Before, x.ID)
		case level == leap.Rusty:
			brought.Faded = append(brought.Faded, x.ID)
		}
		if e.Cleared > 0 || e.Working > 0 {
			furthest = max(furthest, x.Level)
		}
	}
	// Of somebody whose pieces are known it is known as well how far they went: what comes beyond them was not met.
	if len(s.Standing.In(standing.Cleared, standing.Polished)) >= enoughPieces {
		beyond := beyond(s, books)
		for i, x := range skills {
			if beyond[x.ID] { // for this student it lies further on, however deep it lies for others
				skills[i].Level = max(x.Level, min(1, furthest+beyondBy))
			}
			if _, used := first[x.ID]; used && (x.Level > furthest || beyond[x.ID]) && !asked[x.ID] &&
				s.Standing.Ability.Skills[x.ID] == (leap.Evidence{}) {
				brought.Unmet = append(brought.Unmet, x.ID)
			}
		}
	}
	b := placement.New(skills, brought, placement.DefaultPolicy())
	given := make([]placement.Given, len(s.Standing.Asked))
	for i, a := range s.Standing.Asked {
		given[i] = placement.Given{Skill: a.Skill, Answer: placement.Answer(a.Answer)}
	}
	return b.After(given...)
}

// beyond are the skills that books ask for only after the last piece of them that the student has had.
func beyond(s studentplan.Student, books []curriculum.Source) map[string]bool {
	out := map[string]bool{}
	for _, book := range books {
		list := offered(s, book.ID)
		last := lastBegun(s, list)
		if last < 0 {
			continue
		}
		passed := map[string]bool{}
		for i, m := range list {
			for _, d := range m.Demands {
				if i <= last {
					passed[d.Skill] = true
				} else if !passed[d.Skill] {
					out[d.Skill] = true
				}
			}
		}
	}
	return out
}

// lastBegun is the place of the last of some pieces that the student has had; −1 for none.
func lastBegun(s studentplan.Student, list []material.Material) int {
	for i := len(list) - 1; i >= 0; i-- {
		if s.Begun(list[i].ID) {
			return i
		}
	}
	return -1
}

// firstUses says where skills come first in the books: a book lies between how deep its first and its last third are.
func firstUses(s studentplan.Student, books []curriculum.Source) map[string]float64 {
	flat := map[string]float64{}
	for _, x := range placement.Of(s.Skills, string(s.Family()), nil) {
		flat[x.ID] = x.Level
	}
	out := map[string]float64{}
	for _, book := range books {
		list := offered(s, book.ID)
		n := len(list)
		if n < 6 {
			continue
		}
		depth := func(list []material.Material) float64 {
			sum, k := 0.0, 0
			for _, m := range list {
				for _, d := range m.Demands {
					if at, there := flat[d.Skill]; there {
						sum, k = sum+at, k+1
					}
				}
			}
			return sum / float64(max(1, k))
		}
		low, high := depth(list[:n/3]), depth(list[n-n/3:])
		for i, m := range list {
			at := low/2 + (min(1, high*1.6)-low/2)*float64(i)/float64(n-1)
			for _, d := range m.Demands {
				if was, there := out[d.Skill]; !there || at < was {
					out[d.Skill] = max(0, min(1, at))
				}
			}
		}
	}
	return out
}

// offered are the pieces of a book for the student's instrument, in its order.
func offered(s studentplan.Student, book string) []material.Material {
	return slices.DeleteFunc(
		curriculum.Book(s.Library, book),
		func(m material.Material) bool { return m.Instrument != s.Instrument || m.Retired },
	)
}

// believedAbility is what the student brings if everything is there that is more likely there than not.
func believedAbility(s studentplan.Student, b placement.Belief) leap.Ability {
	a := s.Standing.Ability.Copy()
	for _, x := range b.Skills() {
		e := a.Skills[x.ID]
		if b.Known(x.ID) >= 0.5 {
			e.Shown, e.Missing, e.Faded = true, false, false
		} else if e.Shown || e.Missing {
			e.Shown, e.Missing = false, true
		}
		a.Skills[x.ID] = e
	}
	return a
}

// entry finds where a book would be entered; ok is false where it has too little for the instrument.
func entry(s studentplan.Student, book curriculum.Source, b placement.Belief, ability leap.Ability, moved string) (BookEntry, bool) {
	list := offered(s, book.ID)
	if len(list) < 2 {
		return BookEntry{}, false
	}
	asks := make([][]placement.Asked, len(list))
	for i, m := range list {
		for _, d := range m.Demands {
			asks[i] = append(asks[i], placement.Asked{Skill: d.Skill, Weight: d.Weight})
		}
	}
	found := b.Entry(asks, s.Standing.Reach(s.Library, "", s.Policy.Standing.Leap).Size)
	// What was learned of the book is not begun again.
	from := 1 + lastBegun(s, list)
	e := BookEntry{Book: book, At: max(from, found.At), Low: max(from, found.Low), High: max(from, found.High)}
	for i, m := range list {
		e.Pieces = append(e.Pieces, m.ID)
		if m.ID == moved {
			e.At, e.Chosen = i, true
		}
	}
	needed := map[string]bool{}
	for _, m := range list[:e.At] {
		for _, d := range m.Demands {
			needed[d.Skill] = true
		}
	}
	e.Needed = len(needed)
	for id := range needed {
		if b.Known(id) >= 0.5 {
			e.There++
		}
	}
	e.Leaps = curriculum.Profile(list[e.At:min(len(list), e.At+looked)], ability, s.Policy.Standing.Leap).Lines
	return e, true
}

// compareRequirements holds a student against what a book takes for granted.
func compareRequirements(s studentplan.Student, e *BookEntry, b placement.Belief, books []curriculum.Source) {
	for _, r := range curriculum.NeedsOf(s.Library, e.Book, books).List {
		e.Granted = append(e.Granted, r.Skill)
		switch known := b.Known(r.Skill); {
		case known < surelyMissing:
			e.Lacking = append(e.Lacking, r.Skill)
		case known < surelyThere:
			e.Open = append(e.Open, r.Skill)
		}
	}
}

// holes are the missing skills that pieces before an entry ask for and pieces soon after one as well.
func holes(s studentplan.Student, b placement.Belief, entries []BookEntry) []Hole {
	found := map[string]*Hole{}
	for _, e := range entries {
		for _, id := range e.Pieces[:e.At] {
			for _, d := range s.Library[id].Demands {
				if x, known := s.Skills.Get(d.Skill); known && b.Known(d.Skill) < 0.5 &&
					slices.ContainsFunc(b.Skills(), func(k placement.Skill) bool { return k.ID == d.Skill }) &&
					found[d.Skill] == nil {
					found[d.Skill] = &Hole{Skill: x, Known: b.Known(d.Skill)}
				}
			}
		}
	}
	for _, e := range entries {
		for i, id := range e.Pieces[e.At:min(len(e.Pieces), e.At+2*looked)] {
			for _, d := range s.Library[id].Demands {
				if h := found[d.Skill]; h != nil {
					h.Soon = append(h.Soon, id)
					h.Hurts += d.Weight / float64(1+i)
				}
			}
		}
	}
	out := []Hole{}
	for _, h := range found {
		if h.Hurts > 0 { // what nothing asks for soon waits until it comes
			out = append(out, *h)
		}
	}
	slices.SortFunc(out, func(a, b Hole) int {
		return cmp.Or(cmp.Compare(b.Hurts, a.Hurts), cmp.Compare(a.Skill.ID, b.Skill.ID))
	})
	return out
}

// routes compares the ways to begin with a book.
func routes(s studentplan.Student, e BookEntry, holes []Hole, ability leap.Ability, model *forecast.Model) []Route {
	open := map[string]float64{}
	for _, h := range holes {
		open[h.Skill.ID] = h.Hurts
	}
	if e.At >= len(e.Pieces) {
		return nil // nothing is left to begin with
	}
	fill := fill(s, e, open)
	on := Route{Kind: GoOn, Largest: largest(first(s, e, ability))}
	for _, h := range holes {
		if open[h.Skill.ID] > 0 {
			on.Open = append(on.Open, h.Skill.ID)
		}
	}
	if len(fill) == 0 {
		return []Route{on}
	}
	after := ability.Copy()
	var low, high float64
	taught := map[string]bool{}
	for _, id := range fill {
		m := s.Library[id]
		size := s.Policy.Standing.Leap.Of(m, after).Size
		r := model.Weeks(s.Ladder, size, m.DistinctBars)
		low, high = low+r.Low, high+r.High
		for _, d := range m.Demands {
			taught[d.Skill] = true
			x := after.Skills[d.Skill]
			x.Shown, x.Missing = true, false
			after.Skills[d.Skill] = x
		}
		after.Clear(m)
	}
	first := Route{Kind: FillFirst, Fill: fill, Low: max(1, int(low+0.5)), High: max(1, int(high+0.99)), Largest: largest(first(s, e, after))}
	for _, h := range holes {
		switch {
		case taught[h.Skill.ID]:
			first.Filled = append(first.Filled, h.Skill.ID)
		case open[h.Skill.ID] > 0:
			first.Open = append(first.Open, h.Skill.ID)
		}
	}
	beside := first
	beside.Kind, beside.Largest = FillBeside, on.Largest
	return []Route{first, beside, on}
}

// fill are the earlier pieces that teach most of the open holes, the fewest and the latest: a little back, not to the start.
func fill(s studentplan.Student, e BookEntry, holes map[string]float64) []string {
	left := map[string]float64{}
	for id, hurts := range holes {
		left[id] = hurts
	}
	taken := map[int]bool{}
	for len(taken) < fillMost {
		best, worth := -1, 0.0
		for i := e.At - 1; i >= 0; i-- {
			if taken[i] {
				continue
			}
			w := 0.0
			for _, d := range s.Library[e.Pieces[i]].Demands {
				w += left[d.Skill]
			}
			if w > worth+1e-9 {
				best, worth = i, w
			}
		}
		if best < 0 {
			break
		}
		taken[best] = true
		for _, d := range s.Library[e.Pieces[best]].Demands {
			delete(left, d.Skill)
		}
	}
	var out []string
	for i, id := range e.Pieces[:e.At] {
		if taken[i] {
			out = append(out, id)
		}
	}
	return out
}

// first are the leaps of the first pieces from an entry on.
func first(s studentplan.Student, e BookEntry, ability leap.Ability) []curriculum.Line {
	var list []material.Material
	for _, id := range e.Pieces[e.At:min(len(e.Pieces), e.At+looked)] {
		list = append(list, s.Library[id])
	}
	return curriculum.Profile(list, ability, s.Policy.Standing.Leap).Lines
}

func largest(lines []curriculum.Line) float64 {
	most := 0.0
	for _, l := range lines {
		most = max(most, l.Leap.Size)
	}
	return most
}

// Accepted is what is kept when the teacher accepts a way to begin: skills that count as known before, and rungs in order.
type Accepted struct {
	Known []Known
	Rungs []ladder.Placed
}

// Accept is what a route into a book keeps. Where the holes are filled first their pieces come before the entry, beside it
// they alternate with what is new. ok is false where the book has no such entry or route.
func Accept(s studentplan.Student, p Placement, book string, kind RouteKind) (Accepted, bool) {
	i := slices.IndexFunc(p.Entries, func(e BookEntry) bool { return e.Book.ID == book })
	if i < 0 {
		return Accepted{}, false
	}
	e := p.Entries[i]
	r := slices.IndexFunc(e.Routes, func(r Route) bool { return r.Kind == kind })
	if r < 0 {
		return Accepted{}, false
	}
	var out Accepted
	asked := map[string]bool{}
	for _, g := range p.Belief.Given() {
		asked[g.Skill] = true
	}
	for _, x := range p.Belief.Skills() {
		// Of a strand that nobody looked at nothing is kept.
		if !asked[x.ID] && p.Belief.Known(x.ID) >= sureToKeep && p.Belief.Seen(x.Strand) {
			out.Known = append(out.Known, Known{Skill: x.ID, When: ThisTerm})
		}
	}
	fill := e.Routes[r].Fill
	rest := slices.DeleteFunc(slices.Clone(e.Pieces[e.At:]), s.Begun)
	var order []string
	switch kind {
	case FillFirst:
		order = append(append(order, fill...), rest...)
	case FillBeside:
		for k := range max(len(fill), len(rest)) {
			if k < len(rest) {
				order = append(order, rest[k])
			}
			if k < len(fill) {
				order = append(order, fill[k])
			}
		}
	default:
		order = rest
	}
	for _, id := range order {
		out.Rungs = append(out.Rungs, ladder.Whole(s.Library, s.Library[id])...)
	}
	return out, true
}

// sureToKeep is how sure a skill must be that nobody asked for to count as known (default).
const sureToKeep = 0.7

// Task is a question as it is asked: something concrete, with notes where it has some.
type Task struct {
	How placement.How
	// Say is what the teacher says; empty where the name of the skill has to do.
	Say string
	// Score is what is drawn and played; nil for words alone. Heard says that it is played and not shown.
	Score *score.Score
	Heard bool
	// Until is where it ends, in quarter notes: a few bars are enough. 0 without notes.
	Until float64
	// Exercise is the one whose notes it has; empty otherwise.
	Exercise string
}

// taskBars is how many bars of an exercise a question has (default).
const taskBars = 4

// ends is where the first bars of a score end.
func ends(s *score.Score) float64 {
	last := s.Bars[min(taskBars, len(s.Bars))-1]
	return last.Start.Float() + last.Length.Float()
}

// TaskFor finds how to ask for a skill on the student's instrument: a task of the data, else the exercise by which the skill is
// planted, else words.
func TaskFor(s studentplan.Student, id string) Task {
	if t, known := placement.TaskOf(id); known {
		out := Task{How: t.How, Say: t.Say, Heard: t.Heard}
		if tunes, err := abc.Read([]byte("X:1\n" + t.ABC)); t.ABC != "" && err == nil && len(tunes) > 0 {
			out.Score = onInstrument(tunes[0], s.OnInstrument())
			out.Until = ends(out.Score)
		}
		return out
	}
	x := s.OnInstrument()
	if e, ok := exercise.ForBite(x, id, 1, nil); ok {
		if sc, err := e.Score(s.Words); err == nil {
			return Task{How: placement.Play, Score: sc, Until: ends(sc), Exercise: e.ID()}
		}
	}
	return Task{How: placement.Show}
}

// onInstrument writes a line where an instrument plays it: in its clef, as low as it lies easily.
func onInstrument(s *score.Score, x instrument.Instrument) *score.Score {
	if x.Family == instrument.Keyboard || x.Family == "" || len(s.Parts) == 0 {
		return s
	}
	lowest := 1 << 20
	for _, n := range s.Notes {
		if !n.Rest {
			lowest = min(lowest, n.Pitch.Semitone())
		}
	}
	bottom := 0
	switch {
	case len(x.Ranges) > 1:
		bottom = x.Ranges[1].Low.Semitone()
	case len(x.Open) > 0:
		bottom = 1 << 20
		for _, p := range x.Open {
			bottom = min(bottom, p.Semitone()-12*x.Octave)
		}
		if x.Family == instrument.Bowed {
			bottom += 5 // a line lies better on the middle strings
		}
	default:
		return s
	}
	octaves := 0
	for lowest+12*octaves >= bottom+12 {
		octaves--
	}
	for lowest+12*octaves < bottom {
		octaves++
	}
	if x.Clef != "" && x.Clef != "G" {
		s.Parts[0].Clefs = []score.Clef{{Sign: x.Clef, Line: map[string]int{"F": 4, "C": 3}[x.Clef]}}
	}
	for i := range s.Notes {
		if n := &s.Notes[i]; !n.Rest {
			n.Pitch.Octave += octaves
			n.MIDI = n.Pitch.Semitone() + 12*x.Octave + x.Transposes
		}
	}
	return s
}
