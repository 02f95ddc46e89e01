package progress

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/planning/forecast"
	"patientladder/core/student/leap"
	"patientladder/core/student/studentlog"
)

// Gain is a skill that became secure.
type Gain struct {
	Skill string
	Day   time.Time
	// Material is the piece with which it did; empty where it was shown when asked for. Entry says so.
	Material, Entry string
}

// secure are the skills that became secure in the span, by day and then id. What was known before the log began was
// no gain of a lesson.
func (in Input) secure() []Gain {
	type event struct {
		at   time.Time
		gain Gain
		add  func(*leap.Evidence)
		here bool
	}
	var events []event
	for _, p := range in.way() {
		m := in.Standing.Materials[p.Material]
		if m.ClearedAt.IsZero() {
			continue
		}
		for _, d := range in.Library[p.Material].Demands {
			events = append(
				events,
				event{m.ClearedAt, Gain{d.Skill, p.To, p.Material, p.ClearEntry}, func(e *leap.Evidence) { e.Cleared++ }, !p.Before},
			)
		}
	}
	for _, e := range in.Live {
		day := in.Local(e.At)
		switch {
		case e.Kind == studentlog.Probe:
			events = append(
				events,
				event{e.At, Gain{e.Skill, day, "", e.ID}, func(x *leap.Evidence) { x.Shown, x.Missing = e.Shown, !e.Shown }, true},
			)
		case e.Kind == studentlog.KnownBefore && e.Skill != "":
			events = append(events, event{e.At, Gain{e.Skill, day, "", e.ID}, func(x *leap.Evidence) { x.Shown, x.Missing = true, false }, false})
		}
	}
	slices.SortStableFunc(events, func(a, b event) int { return a.at.Compare(b.at) })
	evidence, had := map[string]*leap.Evidence{}, map[string]bool{}
	var out []Gain
	for _, e := range events {
		x := evidence[e.gain.Skill]
		if x == nil {
			x = &leap.Evidence{}
			evidence[e.gain.Skill] = x
		}
		e.add(x)
		if had[e.gain.Skill] || in.Policy.Standing.Leap.Level(*x) != leap.Secure {
			continue
		}
		had[e.gain.Skill] = true
		if e.here && in.Span.Has(e.gain.Day) {
			out = append(out, e.gain)
		}
	}
	slices.SortStableFunc(out, func(a, b Gain) int { return cmp.Or(a.Day.Compare(b.Day), strings.Compare(a.Skill, b.Skill)) })
	return out
}

// Planting is a skill that was planted before a piece needed it.
type Planting struct {
	Skill string
	// Done of Steps were done by the beginning of the piece.
	Done, Steps int
	// Days of the steps, in order, and their Entries.
	Days    []time.Time
	Entries []string
	// For is the piece that was the first to need it, Needed the day on which it was begun.
	For    string
	Needed time.Time
	// Paid says that all was planted and that the piece took no longer than the middle of what had been foreseen; Open
	// that it is in work.
	Paid, Open bool
}

// InTime says that all steps were done.
func (p Planting) InTime() bool { return p.Done >= p.Steps }

// plantings are the skills that were planted for a piece begun in the span.
func (in Input) plantings(pieces []Piece) []Planting {
	type step struct {
		at    time.Time
		day   time.Time
		entry string
	}
	steps := map[string][]step{}
	for _, e := range in.Live {
		if e.Kind == studentlog.StepDone {
			steps[e.Skill] = append(steps[e.Skill], step{e.At, in.Local(e.At), e.ID})
		}
	}
	if len(steps) == 0 {
		return nil
	}
	seen := map[string]bool{}
	var out []Planting
	for _, p := range pieces {
		m := in.Standing.Materials[p.Material]
		if p.From.IsZero() || m.Before == nil {
			continue
		}
		for i, d := range in.Library[p.Material].Demands {
			if i >= len(m.Before.Brought.Skills) || seen[d.Skill] || len(steps[d.Skill]) == 0 {
				continue
			}
			brought := m.Before.Brought.Skills[i]
			if in.Policy.Standing.Leap.Level(brought) != leap.Planted {
				continue
			}
			seen[d.Skill] = true
			if !in.Span.Has(p.From) {
				continue
			}
			x := Planting{Skill: d.Skill, Done: brought.StepsDone, Steps: brought.Steps, For: p.Material, Needed: p.From, Open: p.To.IsZero()}
			for _, s := range steps[d.Skill] {
				if s.at.Before(m.Assigned) {
					x.Days, x.Entries = append(x.Days, s.day), append(x.Entries, s.entry)
				}
			}
			out = append(out, x)
		}
	}
	return out
}

// halfLesson is how many weeks a piece may take over the middle and still count as in it: lessons are a week apart.
const halfLesson = 0.5

// pay says of each planting whether it paid.
func pay(list []Planting, pieces []Piece, expected map[string]forecast.Range) {
	for i, x := range list {
		p := pieces[slices.IndexFunc(pieces, func(p Piece) bool { return p.Material == x.For })]
		if r, known := expected[x.For]; known && !x.Open && x.InTime() {
			list[i].Paid = max(1, p.Weeks) <= r.Median+halfLesson
		}
	}
}
