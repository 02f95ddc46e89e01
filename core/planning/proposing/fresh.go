// Package proposing says what could come next on each strand of a student, what fits there of the library, and who is ready for a piece.
// The weighing itself is in core/planning/next and fit.
package proposing

import (
	"slices"
	"sort"

	"patientladder/core/library/material"
	"patientladder/core/planning/fit"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/next"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
)

// drawnOf is the whole ladder, without dates.
func drawnOf(s studentplan.Student, placed []ladder.Placed) ladder.View {
	return ladder.Draw(s.Standing, s.Library, placed, s.Policy.Standing.Leap, s.Today, 0)
}

// mostToBegin is how many rungs of a strand are offered where one was begun (default).
const mostToBegin = 4

// CouldBegin are the materials that stand next on each strand and are not begun.
func CouldBegin(s studentplan.Student, placed []ladder.Placed) (out []string) {
	for _, rail := range drawnOf(s, placed).Rails {
		n := 0
		for _, r := range rail.Rungs {
			if r.IsAhead() && r.Aside == "" && n < mostToBegin {
				out = append(out, r.Material.ID)
				n++
			}
		}
	}
	return out
}

// Next proposes the next rung of a strand. Where the strand begins only later it says from when.
func Next(s studentplan.Student, strand material.Strand, placed []ladder.Placed) (next.Proposal, next.Input) {
	v := drawnOf(s, placed)
	in := proposal(s, strand, v)
	if later, waits := waitsToRead(s, strand); waits {
		in.Candidates = nil
		p := next.Propose(in)
		p.Reasons = []next.Reason{later}
		return p, in
	}
	return next.Propose(in), in
}

// proposal is what a proposal on a strand is made from.
func proposal(s studentplan.Student, strand material.Strand, v ladder.View) next.Input {
	in := next.Input{
		Ability: s.Standing.Ability, Policy: s.Policy.Standing.Leap, Reach: v.ReachOn(strand), Skills: s.Skills,
		Last: s.Standing.Leaps(s.Library, strand), Straight: !s.Policy.EaseAfterLeap,
	}
	for _, rail := range v.Rails {
		for _, r := range rail.Rungs {
			if rail.Strand == strand && r.IsAhead() && r.Aside == "" {
				in.Candidates = append(in.Candidates, r.Material)
			}
		}
	}
	// A stage of reading whose every skill is secure already is not begun; where all are, the last is as good as any.
	if strand == material.Reading {
		if open := slices.DeleteFunc(slices.Clone(in.Candidates), func(m material.Material) bool { return proven(s, m) }); len(open) > 0 {
			in.Candidates = open
		}
	}
	return in
}

// proven says that all that a material asks for is secure.
func proven(s studentplan.Student, m material.Material) bool {
	return len(m.Demands) > 0 && !slices.ContainsFunc(m.Demands, func(d material.Demand) bool {
		return s.Policy.Standing.Leap.Level(s.Standing.Ability.Skills[d.Skill]) != leap.Secure
	})
}

// waitsToRead says from when on the reading strand may begin, where it may not yet.
func waitsToRead(s studentplan.Student, strand material.Strand) (next.Reason, bool) {
	begins := s.ReadingBegins()
	if strand != material.Reading || !begins.After(s.Today) {
		return next.Reason{}, false
	}
	return next.Reason{Kind: next.Later, Weeks: s.Policy.ReadingAfter, From: begins}, true
}

// Fresh are the rungs that are proposed on the strands where nothing is in work. Repertoire
// is taken up by choice, not because its strand is idle.
func Fresh(a studentplan.StudentOutlook) []lessonplan.Fresh {
	var out []lessonplan.Fresh
	for _, rail := range a.View.Rails {
		_, waits := waitsToRead(a.Student, rail.Strand)
		if waits || rail.Strand == material.Repertoire || !idle(rail) {
			continue
		}
		if p := next.Propose(proposal(a.Student, rail.Strand, a.View)); p.Chosen != nil {
			out = append(
				out,
				lessonplan.Fresh{Material: p.Chosen.Material, Leap: p.Chosen.Leap.Size, Why: p.Reasons[0], Gestures: Gestures(a.Student, p.Chosen.Material)},
			)
		}
	}
	return out
}

// Beside are the rungs of method and repertoire that could be begun beside those in work: nothing they ask for is
// missing, and the leap is within the reach.
func Beside(a studentplan.StudentOutlook) []lessonplan.Fresh {
	var out []lessonplan.Fresh
	for _, rail := range a.View.Rails {
		if rail.Strand != material.Method && rail.Strand != material.Repertoire || rail.Strand == material.Method && idle(rail) {
			continue
		}
		p := next.Propose(proposal(a.Student, rail.Strand, a.View))
		if c := p.Chosen; c != nil && len(c.Blocked) == 0 && c.Leap.Size <= rail.Reach.Size {
			out = append(out, lessonplan.Fresh{Material: c.Material, Leap: c.Leap.Size, Why: p.Reasons[0], Gestures: Gestures(a.Student, c.Material)})
		}
	}
	return out
}

// idle says that nothing is in work on a rail.
func idle(rail ladder.Rail) bool {
	return !slices.ContainsFunc(rail.Rungs, func(r ladder.Rung) bool { return r.Layer == ladder.Now && r.Aside == "" })
}

// Fit ranks everything that could come next, on one strand or on all (""), best first.
func Fit(s studentplan.Student, strand material.Strand, placed []ladder.Placed) ([]fit.Candidate, fit.Input) {
	v := drawnOf(s, placed)
	in := fit.Input{
		Library: material.Library{}, Ability: s.Standing.Ability, Policy: s.Policy.Standing.Leap, Reach: v.ReachOn(strand), Skills: s.Skills,
		Taste: s.Taste(),
		Idle:  map[material.Strand]bool{}, PerLesson: s.Policy.Preview.PerLesson,
	}
	for _, strand := range material.Strands() {
		in.Idle[strand] = true
	}
	for _, rail := range v.Rails {
		in.Idle[rail.Strand] = idle(rail)
	}
	if taken := s.Standing.Leaps(s.Library, strand); s.Policy.EaseAfterLeap && strand != "" && len(taken) > 0 {
		in.Ease = leap.Beyond(taken[len(taken)-1], in.Reach.Size)
	}
	for id, m := range s.Library {
		if m.Instrument != s.Instrument || m.PartOf != "" {
			continue
		}
		in.Library[id] = m
		if !m.Retired && !s.Units[id] && !s.Begun(id) && (strand == "" || m.Strand == strand) {
			in.Candidates = append(in.Candidates, m)
		}
	}
	sort.Slice(in.Candidates, func(i, k int) bool { return in.Candidates[i].ID < in.Candidates[k].ID })
	return fit.Rank(in), in
}
