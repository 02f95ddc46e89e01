package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
)

// GetTechnique returns where a student stands on the staircases of exercises.
func (s *Server) GetTechnique(ctx context.Context, r contract.GetTechniqueRequestObject) (contract.GetTechniqueResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{near: true, lesson: true})
	if err != nil {
		return nil, err
	}
	sh := a.shelf
	log, err := s.store.Log(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	x, err := instrumentOf(sh.ladder.Instrument)
	if err != nil {
		return nil, err
	}
	out := contract.Technique{
		Dose: sh.practice(sh.today).DoseWords(), Ladder: sh.ladder.ID, Name: sh.ladder.Name, Instrument: x.ID, Now: []contract.TechniqueNow{}, Ahead: []contractAhead{}, Stairs: []contract.Stair{},
		Proposed: []contract.NextExercise{}, CycleTypes: cycleTypes(x),
	}
	stairs, err := s.stairs(a, x, &out)
	if err != nil {
		return nil, err
	}
	live := studentlog.Live(log)
	for _, id := range sh.standing.In(standing.Working) {
		m := sh.lib[id]
		if m.Exercise == "" {
			continue
		}
		e, err := exercise.Parse(m.Exercise, x)
		if err != nil {
			continue // made by data that have changed since
		}
		piece, err := s.lessonPiece(ctx, sh, id, live)
		if err != nil {
			return nil, err
		}
		ms := sh.standing.Materials[id]
		now := contract.TechniqueNow{
			Material: id, Exercise: m.Exercise, Title: e.Title(sh.studio.Words), Step: e.Step.Name, Goals: piece.Points, Faults: piece.Faults, RunDue: ms.RunDue,
			Why: ms.Why, Gate: piece.Gate, Hand: piece.Hand, Tempo: ms.Tempo, GoalTempo: e.Step.Tempo, Begun: date(sh.day(ms.Assigned)),
		}
		if c := ms.Climb; c != nil {
			now.Climb = contract.Climb{From: c.From, To: c.To, Marks: c.Marks, At: c.At, Mark: c.Mark(), Eased: c.Eased, Sentence: climbSentence(c)}
		}
		out.Now = append(out.Now, now)
	}
	for _, p := range a.placed {
		if e, err := exercise.Parse(a.lib[p.Material].Exercise, x); err == nil && !begun(sh, p.Material) {
			out.Ahead = append(out.Ahead, contractAhead{Material: p.Material, Exercise: e.ID(), Title: e.Title(sh.studio.Words), Step: e.Step.Name})
		}
	}
	out.Proposed = a.proposed(stairs, out.Ahead)
	for _, st := range stairs {
		out.Stairs = append(out.Stairs, a.stairOut(st))
	}
	out.Sentence = techniqueSentence(out)
	return contract.GetTechnique200JSONResponse(out), nil
}

// stairs climbs the staircases of a student, with the key of the week as a wish; it lays
// out the cycle that is kept on the way.
func (s *Server) stairs(a ahead, x instrument.Instrument, out *contract.Technique) ([]exercise.Stair, error) {
	words := a.studio.Words
	progress := a.progress()
	stairs := exercise.Climb(x, progress, exercise.Wish{}, words)
	kept := a.standing.Cycle
	if kept == nil {
		return stairs, nil
	}
	c, list, err := a.cycle(*kept, stairs)
	if err != nil {
		// The lessons or the data changed so that the cycle cannot go on; it says so and stays ended.
		out.Sentence = capital(err.Error()) + "."
		return stairs, nil
	}
	out.Cycle, out.CycleEntry = c, contract.KeptCycle{
		Type: kept.Type, Step: kept.Step, Kind: kept.Kind, First: kept.First, Order: contract.KeptCycleOrder(kept.Order), From: kept.From, Before: kept.Before,
	}
	for i, w := range c.Weeks {
		if w.State == contract.CycleWeeksStateNow {
			wish := exercise.Wish{Type: kept.Type, Place: list[i].Place(), Why: fmt.Sprintf("It is the key of the week in the cycle: begun on %s.", w.Day.Format("2 January"))}
			return exercise.Climb(x, progress, wish, words), nil
		}
	}
	return stairs, nil
}

// progress is what of the exercises stands on the ladder.
func (sh shelf) progress() exercise.Progress {
	ids := func(states ...standing.State) []string {
		var out []string
		for _, id := range sh.standing.In(states...) {
			if x := sh.lib[id].Exercise; x != "" {
				out = append(out, x)
			}
		}
		return out
	}
	return exercise.Progress{
		Cleared: ids(standing.Cleared, standing.Polished), Working: ids(standing.Working, standing.Resting),
		Secure: func(skill string) bool { return sh.policy.Leap.Level(sh.standing.Ability.Skills[skill]) == leap.Secure },
	}
}

type contractAhead = struct {
	Exercise string      `json:"exercise"`
	Material contract.Id `json:"material"`
	Step     string      `json:"step"`
	Title    string      `json:"title"`
}

// mostProposed is how many exercises are proposed at once.
const mostProposed = 3

// proposed are the next exercises: that of the cycle first, then those of staircases on
// which the student stands already, then new ones. What stands ahead already is not proposed again.
func (a ahead) proposed(stairs []exercise.Stair, placed []contractAhead) []contract.NextExercise {
	rank := func(st exercise.Stair) int {
		wished := a.standing.Cycle != nil && a.standing.Cycle.Type == st.Type.ID
		begun := slices.ContainsFunc(st.Steps, func(s exercise.StairStep) bool { return len(s.Cleared) > 0 })
		switch {
		case wished:
			return 0
		case begun:
			return 1
		}
		return 2
	}
	var next []exercise.Stair
	for _, st := range stairs {
		if st.Next != nil && !slices.ContainsFunc(placed, func(p contractAhead) bool { return p.Exercise == st.Next.Exercise.ID() }) {
			next = append(next, st)
		}
	}
	slices.SortStableFunc(next, func(x, y exercise.Stair) int { return cmp.Compare(rank(x), rank(y)) })
	out := []contract.NextExercise{}
	for _, st := range next[:min(len(next), mostProposed)] {
		out = append(out, a.nextOut(*st.Next))
	}
	return out
}

// nextOut says a proposal; one that cannot be heard in the week after its lesson says that, too.
func (a ahead) nextOut(p exercise.Proposal) contract.NextExercise {
	words := a.studio.Words
	out := contract.NextExercise{Exercise: p.Exercise.ID(), Title: p.Exercise.Title(words), Step: p.Exercise.Step.Name, Reasons: append([]string{}, p.Reasons...)}
	if gap := int(a.lessons.Day(1).Sub(a.lessons.Day(0)).Hours() / 24); gap > 7 {
		out.Reasons = append(out.Reasons, fmt.Sprintf("It would be heard only on %s, after a break: better begin it then.", a.lessons.Day(1).Format("2 January")))
	}
	return out
}

func (a ahead) stairOut(st exercise.Stair) contract.Stair {
	words := a.studio.Words
	out := contract.Stair{Type: st.Type.ID, Name: st.Type.Name, At: st.At, Waits: st.Waits}
	named := func(list []exercise.Exercise) []contract.Choice {
		out := []contract.Choice{}
		for _, e := range list {
			out = append(out, contract.Choice{Id: e.ID(), Name: e.Title(words)})
		}
		return out
	}
	for _, step := range st.Steps {
		out.Steps = append(out.Steps, contractStair{Name: step.Step.Name, Of: step.Of, Known: step.Known, Through: named(step.Cleared), Working: named(step.Working)})
	}
	if st.Next != nil {
		out.Next = a.nextOut(*st.Next)
	}
	return out
}

type contractStair = struct {
	Known   bool              `json:"known"`
	Name    string            `json:"name"`
	Of      int               `json:"of"`
	Through []contract.Choice `json:"through"`
	Working []contract.Choice `json:"working"`
}

func techniqueSentence(t contract.Technique) string {
	first, _, _ := strings.Cut(t.Name, " ")
	switch {
	case t.Sentence != "":
		return t.Sentence
	case len(t.Now) == 1:
		return fmt.Sprintf("%s is on %s: %s.", first, t.Now[0].Title, t.Now[0].Step)
	case len(t.Now) > 1:
		return fmt.Sprintf("%s has %s; begin with %s.", first, counted(len(t.Now), "exercise"), t.Now[0].Title)
	case len(t.Ahead) > 0:
		return fmt.Sprintf("Next for %s: %s, %s.", first, t.Ahead[0].Title, t.Ahead[0].Step)
	case len(t.Proposed) > 0:
		return fmt.Sprintf("Next for %s: %s, %s.", first, t.Proposed[0].Title, t.Proposed[0].Step)
	}
	return fmt.Sprintf("%s has climbed every staircase there is.", first)
}

func climbSentence(c *standing.Climb) string {
	var out string
	switch left := len(c.Marks) - c.At; {
	case left == 0:
		return fmt.Sprintf("%d is reached.", c.To)
	case left == 1:
		out = fmt.Sprintf("%d this week, and that is the goal", c.Mark())
	default:
		out = fmt.Sprintf("%d this week; %d in %s", c.Mark(), c.Marks[len(c.Marks)-1], counted(left, "week"))
	}
	if c.Eased > 0 {
		out += fmt.Sprintf("; eased back %s", map[bool]string{true: "once", false: counted(c.Eased, "time")}[c.Eased == 1])
	}
	return out + "."
}

// cycleTypes are what an instrument can take through the keys.
func cycleTypes(x instrument.Instrument) []contract.CycleType {
	out := []contract.CycleType{}
	t, ok := exercise.CycleType(x.Family)
	if !ok {
		return out
	}
	c := contract.CycleType{Id: t.ID, Name: t.Name, Steps: []contract.Choice{}, Kinds: []contract.Choice{}}
	for _, s := range t.Steps {
		c.Steps = append(c.Steps, contract.Choice{Id: s.ID, Name: capital(s.Name)})
	}
	for _, k := range t.Kinds {
		c.Kinds = append(c.Kinds, contract.Choice{Id: string(k), Name: kindName(string(k))})
	}
	return append(out, c)
}
