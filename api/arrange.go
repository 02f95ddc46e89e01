package api

import (
	"context"
	"fmt"
	"sort"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// Arrange sets the order of everything that was not begun, or shows what it would do.
func (s *Server) Arrange(ctx context.Context, r contract.ArrangeRequestObject) (contract.ArrangeResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{})
	if err != nil {
		return nil, err
	}
	if r.Body.Version != a.ladder.RungsVersion {
		return nil, store.ErrConflict
	}
	placed, err := arranged(a, r.Body.Rungs)
	if err != nil {
		return nil, err
	}
	then := look(a.shelf, a.horizon, placed, lens{})
	targets, err := s.store.Targets(ctx, a.studio.ID, a.ladder.ID)
	if err != nil {
		return nil, err
	}
	out := contract.Arranged{Changes: consequences(a, then, targets)}
	if !r.Params.Try {
		if err := s.store.Arrange(ctx, a.studio.ID, a.ladder.ID, r.Body.Version, placed); err != nil {
			return nil, err
		}
		then.ladder.RungsVersion++
	}
	out.Ladder, err = s.ladderView(ctx, then)
	return contract.Arrange200JSONResponse(out), err
}

// begun says that a material is no longer ahead.
func begun(sh shelf, id string) bool {
	m := sh.standing.Materials[id]
	return m != nil && m.State != standing.Heard
}

// arranged is the new order: what was begun as it was, then what is wanted.
func arranged(a ahead, wanted []contract.PlacedRung) ([]ladder.Placed, error) {
	var out []ladder.Placed
	for _, p := range a.placed {
		if begun(a.shelf, p.Material) {
			out = append(out, p)
		}
	}
	seen := map[string]bool{}
	for i, w := range wanted {
		m, known := a.lib[w.Material]
		switch {
		case !known:
			return nil, errNoMaterial
		case seen[w.Material]:
			return nil, invalid(fmt.Sprintf("“%s” stands there twice, at place %d.", m.Title, i+1))
		case m.Instrument != a.ladder.Instrument:
			return nil, invalid(fmt.Sprintf("“%s” is for %s, and this ladder is for %s.", m.Title, m.Instrument, a.ladder.Instrument))
		case begun(a.shelf, w.Material):
			return nil, invalid(fmt.Sprintf("“%s” has been begun; its place is history.", m.Title))
		}
		seen[w.Material] = true
		out = append(out, ladder.Placed{Material: w.Material, Strand: material.Strand(w.Strand), Aside: ladder.Aside(w.Aside)})
	}
	return out, nil
}

// mostConsequences is how many changes are listed.
const mostConsequences = 8

// consequences says what another order changes: leaps that become cliffs or
// cease to be, previews that become late or in time, dates that move, chances
// of targets. What becomes worse comes first.
func consequences(was, will ahead, targets []store.Target) []contract.Consequence {
	out := []contract.Consequence{}
	add := func(kind contract.ConsequenceKind, id string, worse bool, format string, args ...any) {
		out = append(out, contract.Consequence{Kind: kind, Material: id, Worse: worse, Text: fmt.Sprintf(format, args...)})
	}
	before := rungsOf(was)
	for _, r := range rungsAhead(will) {
		id, title := r.Material.ID, r.Material.Title
		old, there := before[id]
		switch {
		case r.Cliff && (!there || !old.Cliff):
			add("leap", id, true, "“%s” becomes a cliff: a leap of %.1f, over the comfortable %.1f.", title, r.Leap.Size, will.View.Reach.Size)
		case there && old.Cliff && !r.Cliff && r.Aside == "":
			add("leap", id, false, "“%s” is no longer a cliff: %.1f instead of %.1f.", title, r.Leap.Size, old.Leap.Size)
		}
	}
	late := map[string]int{}
	for _, o := range was.Plan.Outcomes {
		late[o.Skill] = o.Late()
	}
	for _, o := range will.Plan.Outcomes {
		name, piece := will.skills.Name(o.Skill), will.lib[o.For].Title
		switch now := o.Late(); {
		case now > late[o.Skill]:
			add("preview", o.For, true, "The preview of %s turns late: ready %s after “%s” begins.", name, counted(now, "lesson"), piece)
		case now == 0 && late[o.Skill] > 0:
			add("preview", o.For, false, "%s is ready in time for “%s”.", capital(name), piece)
		}
	}
	for _, t := range targets {
		a, errA := was.Target(was.target(t.Material, t.Day))
		b, errB := will.Target(will.target(t.Material, t.Day))
		if errA == nil && errB == nil && percent(a.Chance) != percent(b.Chance) {
			add("target", t.Material, b.Chance < a.Chance, "%s: the chance of “%s” goes from %s to %s.", t.Name, will.lib[t.Material].Title, percent(a.Chance), percent(b.Chance))
		}
	}
	for _, r := range rungsAhead(will) {
		x, was_ := was.When[r.Material.ID]
		y, is := will.When[r.Material.ID]
		if moved := y.Begin.Median - x.Begin.Median; was_ && is && moved != 0 {
			add("date", r.Material.ID, false, "“%s” begins about %s instead of %s.", r.Material.Title,
				will.lessons.Day(y.Begin.Median).Format("2 January"), was.lessons.Day(x.Begin.Median).Format("2 January"))
		}
	}
	sort.SliceStable(out, func(i, k int) bool { return rankOf(out[i]) < rankOf(out[k]) })
	return out[:min(len(out), mostConsequences)]
}

// rankOf puts what is worse first, and dates last.
func rankOf(c contract.Consequence) int {
	switch {
	case c.Kind == "date":
		return 2
	case c.Worse:
		return 0
	}
	return 1
}

func rungsOf(a ahead) map[string]ladder.Rung {
	out := map[string]ladder.Rung{}
	for _, r := range rungsAhead(a) {
		out[r.Material.ID] = r
	}
	return out
}

// rungsAhead lists the rungs that were not begun, strand by strand.
func rungsAhead(a ahead) []ladder.Rung {
	var out []ladder.Rung
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			if !begun(a.shelf, r.Material.ID) {
				out = append(out, r)
			}
		}
	}
	return out
}
