package api

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/outlook"
	"patientladder/store"
)

// targets are the targets of a ladder with what comes out for each. One whose
// piece is learned by now, or whose day has passed, says so instead.
func (a ahead) targets(list []store.Target) []contract.TargetBrief {
	out := []contract.TargetBrief{}
	for _, t := range list {
		brief := contract.TargetBrief{Id: t.ID, Name: t.Name, Day: date(t.Day), Material: t.Material, Title: a.lib[t.Material].Title}
		v, err := a.Target(a.target(t.Material, t.Day))
		if err != nil {
			brief.Verdict = contract.Verdict{Sentence: capital(err.Error()) + ".", Why: []string{}, Drops: []contractDrop{}, Holidays: []contractHoliday{}}
		} else {
			brief.Verdict = a.verdict(t.Material, t.Day, v, nil)
		}
		out = append(out, brief)
	}
	return out
}

func (a ahead) target(material string, day time.Time) outlook.Target {
	return outlook.Target{Material: material, Date: day, Polish: a.way.PolishWeeks, Sure: a.way.Sure}
}

type contractDrop = struct {
	Chance   float64     `json:"chance"`
	Material contract.Id `json:"material"`
	Title    string      `json:"title"`
}

type contractHoliday = struct {
	Given   bool        `json:"given"`
	Id      contract.Id `json:"id"`
	Lessons int         `json:"lessons"`
	Name    string      `json:"name"`
}

// verdict puts a target's outcome into words.
func (a ahead) verdict(material string, day time.Time, v outlook.Verdict, given []string) contract.Verdict {
	title := a.lib[material].Title
	out := contract.Verdict{
		Lessons: v.Lessons, Chance: v.Chance, Straight: v.Straight, WithoutTwo: v.WithoutTwo, Begun: v.Begun, Possible: v.Possible,
		Sure: a.way.Sure, Polish: a.way.PolishWeeks, Drops: []contractDrop{}, Holidays: []contractHoliday{}, Why: []string{},
	}
	out.Sentence = fmt.Sprintf("“%s” is ready on %s with a chance of about %s", title, day.Format("2 January"), percent(v.Chance))
	switch {
	case v.Begun && v.Chance >= a.way.Sure:
		out.Sentence += "; it is in work and in time."
	case v.Begun:
		out.Sentence += "; it is in work already."
	case !v.Possible:
		out.Sentence += fmt.Sprintf("; even begun in the next lesson it would be %s: choose another piece or another day.", percent(v.Straight))
	default:
		out.LatestStart = date(a.lessons.Day(v.LatestStart))
		out.Sentence += fmt.Sprintf("; to be %s sure it begins on %s at the latest.", percent(a.way.Sure), out.LatestStart.Format("2 January"))
	}
	out.Why = append(out.Why, fmt.Sprintf("%s up to the day, of which the last %s are for polishing what is cleared.", capital(counted(v.Lessons, "lesson")), counted(a.way.PolishWeeks, "week")))
	if !v.Begun {
		began := a.days(v.Begins)
		out.Why = append(out.Why, fmt.Sprintf("As the ladder stands it begins %s, after %s before it.", began.Words, counted(len(v.Drops), "rung")))
	}
	out.Why = append(out.Why,
		"Chances come from 256 simulated courses with what is known of this student and this studio: an estimate.",
		fmt.Sprintf("If the lessons of two more weeks fall out: %s.", percent(v.WithoutTwo)))
	for _, d := range v.Drops[:min(len(v.Drops), 4)] {
		if d.Chance > v.Chance+0.005 {
			out.Drops = append(out.Drops, contractDrop{Material: d.Material, Title: a.lib[d.Material].Title, Chance: d.Chance})
		}
	}
	in := map[string]bool{}
	for _, id := range given {
		in[id] = true
	}
	plain := calendar.New(a.lessons.Day(0), a.ladder.Weekday, nil)
	for _, h := range a.holidays {
		lost := plain.Until(h.Last) - plain.Until(h.First.AddDate(0, 0, -1))
		if lost > 0 && !h.First.After(day) {
			out.Holidays = append(out.Holidays, contractHoliday{Id: h.ID, Name: h.Name, Lessons: lost, Given: in[h.ID]})
		}
	}
	return out
}

// TryTarget works a date backwards; nothing is kept.
func (s *Server) TryTarget(ctx context.Context, r contract.TryTargetRequestObject) (contract.TryTargetResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{})
	if err != nil {
		return nil, err
	}
	given := append([]string{}, r.Body.Given...)
	if len(given) > 0 {
		a = look(a.shelf, a.horizon, a.placed, lens{given: given})
	}
	if _, known := a.lib[r.Body.Material]; !known {
		return nil, errNoMaterial
	}
	v, err := a.Target(a.target(r.Body.Material, r.Body.Day.Time))
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.TryTarget200JSONResponse(a.verdict(r.Body.Material, r.Body.Day.Time, v, given)), nil
}

// SetTarget keeps a target.
func (s *Server) SetTarget(ctx context.Context, r contract.SetTargetRequestObject) (contract.SetTargetResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{})
	if err != nil {
		return nil, err
	}
	if _, known := a.lib[r.Body.Material]; !known {
		return nil, errNoMaterial
	}
	name := strings.TrimSpace(r.Body.Name)
	if name == "" {
		return nil, invalid("The target needs a name, such as “Spring recital”.")
	}
	if _, err := a.Target(a.target(r.Body.Material, r.Body.Day.Time)); err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.SetTarget204Response{}, s.store.SetTarget(ctx, a.studio.ID, a.ladder.ID, store.Target{ID: r.Target, Name: name, Day: r.Body.Day.Time, Material: r.Body.Material})
}

// RemoveTarget takes a target away.
func (s *Server) RemoveTarget(ctx context.Context, r contract.RemoveTargetRequestObject) (contract.RemoveTargetResponseObject, error) {
	return contract.RemoveTarget204Response{}, s.store.RemoveTarget(ctx, actor(ctx).studio, r.Ladder, r.Target)
}
