package meeting

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/notation/engrave"
	"patientladder/core/planning/placing"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/placement"
	"patientladder/core/wording"
)

// placement is what is believed of a student, with the entry of one book moved by the teacher.
func (h *Handlers) placement(ctx context.Context, s open.Student, book, entry string) (placing.Placement, error) {
	books, err := h.Books(ctx, s.Tenant.ID)
	if err != nil {
		return placing.Placement{}, err
	}
	horizon, err := h.Horizon(ctx, s.Of())
	if err != nil {
		return placing.Placement{}, err
	}
	return placing.Of(s.Student, books, horizon.Model, map[string]string{book: entry}), nil
}

func placementOut(s open.Student, p placing.Placement) contract.Placement {
	out := contract.Placement{
		Sentence: wording.Placement(p, s.First()), Over: contract.PlacementOver(p.Over), Strands: []contract.PlacementStrand{},
		Contradictions: []string{},
		Holes:          []contract.PlacementHole{}, Entries: []contract.PlacementEntry{}, Answered: len(p.Belief.Given()),
	}
	if n := len(s.Standing.Asked); n > 0 {
		last := s.Standing.Asked[n-1]
		out.Last = contract.Choice{Id: last.ID, Name: wording.Answered(last, s.Skills)}
	}
	if p.Question != nil {
		out.Question = question(s, p.Belief.Ahead(*p.Question, ahead))
	}
	for _, x := range p.Belief.Strands() {
		out.Strands = append(
			out.Strands,
			contract.PlacementStrand{Name: wording.Capital(x.Strand), There: x.There, Missing: x.Missing, Open: x.Open, Sure: x.Sure},
		)
	}
	for _, c := range p.Belief.Contradictions() {
		out.Contradictions = append(out.Contradictions, wording.Contradiction(c, s.Skills))
	}
	for _, x := range p.Holes {
		out.Holes = append(
			out.Holes,
			contract.PlacementHole{Skill: x.Skill.ID, Name: x.Skill.Name, Known: x.Known, Soon: wording.HoleSoon(x, s.Library)},
		)
	}
	for _, e := range p.Entries {
		x := contract.PlacementEntry{
			Book: e.Book.ID, Title: e.Book.Title, Words: wording.Entry(e, p.Over, s.Library),
			Needs: wording.Needs(e, len(p.Belief.Given()), s.Skills), At: e.At, Chosen: e.Chosen, Pieces: []contract.Choice{},
			Leaps: []contract.PlacementLeap{}, Routes: []contract.PlacementRoute{},
		}
		for _, id := range e.Pieces {
			x.Pieces = append(x.Pieces, contract.Choice{Id: id, Name: s.Library[id].Title})
		}
		for _, l := range e.Leaps {
			leap := contract.PlacementLeap{
				Title:  l.Material.Title,
				Size:   answer.Thousandths(l.Leap.Size),
				Words:  wording.LeapSize(l.Leap),
				Firsts: []string{},
			}
			for _, id := range l.Enters {
				leap.Firsts = append(leap.Firsts, s.Skills.Name(id))
			}
			x.Leaps = append(x.Leaps, leap)
		}
		for _, r := range e.Routes {
			route := contract.PlacementRoute{
				Kind:  contract.PlacementRouteKind(r.Kind),
				Name:  wording.RouteName(r.Kind),
				Words: wording.Route(r, s.Library, s.Skills),
				Fill:  []string{},
			}
			for _, id := range r.Fill {
				route.Fill = append(route.Fill, s.Library[id].Title)
			}
			x.Routes = append(x.Routes, route)
		}
		out.Entries = append(out.Entries, x)
	}
	return out
}

const (
	// ahead is how many questions a device gets beyond the next, so that it can go on without a connection.
	ahead = 2
	// questionWidth is how wide the notes of a question are in staff spaces, questionTempo how fast they are played.
	questionWidth, questionTempo = 60, 72
)

func question(s open.Student, q placement.Tree) contract.PlacementQuestion {
	x, _ := s.Skills.Get(q.Skill.ID)
	task := placing.TaskFor(s.Student, q.Skill.ID)
	out := contract.PlacementQuestion{
		Skill: x.ID, Name: x.Name, How: contract.PlacementQuestionHow(task.How), Say: s.Words.Text(wording.Asks(task, x)),
		Why: wording.WhyAsked(q.Question), Heard: task.Heard, Following: []contract.PlacementThen{},
	}
	if task.Score != nil {
		out.Excerpt = answer.Excerpt(
			x.ID,
			engrave.Stretch(task.Score, 0, task.Until, s.OnInstrument().Look(engrave.Look{Width: questionWidth, Lyrics: true})),
		)
		out.Music = answer.Music(x.ID, task.Score, questionTempo)
		out.Until = task.Until
	}
	for _, then := range q.Following {
		out.Following = append(
			out.Following,
			contract.PlacementThen{Answer: contract.PlacementThenAnswer(then.Answer), Question: question(s, then.Tree)},
		)
	}
	return out
}

// AcceptPlacement keeps what is believed and puts a way into a book onto the ladder.
func (h *Handlers) AcceptPlacement(
	ctx context.Context,
	r contract.AcceptPlacementRequestObject,
) (contract.AcceptPlacementResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Near: true})
	if err != nil {
		return nil, err
	}
	s := a.Opened
	p, err := h.placement(ctx, s, r.Body.Book, r.Body.Entry)
	if err != nil {
		return nil, err
	}
	accepted, ok := placing.Accept(s.Student, p, r.Body.Book, placing.RouteKind(r.Body.Route))
	if !ok {
		return nil, refusal.Invalid("There is no such way into this book any more. Look at the ways again.")
	}
	out, err := ladder.Entered{ID: r.Body.Batch, Known: accepted.Known, Rungs: accepted.Rungs}.Into(ctx, h.Loader, a, false)
	return contract.AcceptPlacement200JSONResponse(out), err
}
