package lesson

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/planning/lookback"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/clearing"
	"patientladder/core/student/studentlog"
)

// GetLesson returns what the lesson needs: the working pieces, method first, and
// those cleared today, with focus points, spots, runs, and today's entries for undoing.
func (h *Handlers) GetLesson(ctx context.Context, r contract.GetLessonRequestObject) (contract.GetLessonResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Near: true, InLesson: true})
	if err != nil {
		return nil, err
	}
	s, n := a.Opened, a.Of().Names()
	log, err := h.Log(ctx, s)
	if err != nil {
		return nil, err
	}
	live := studentlog.Live(log)
	due := a.Due(s.Today)
	out := contract.Lesson{
		Student: answer.Student(s.Row, s.Today), Pieces: []contract.LessonPiece{}, Standard: []contract.StandardPoint{},
		Signs: answer.Signs(n, due), Level: contract.LessonLevel(s.Way.Standard), Log: []contract.LogLine{}, Sentence: n.Lesson(s.Student, due),
		Reviews: reviews(s, h.toHear(ctx, a)), Bites: bites(a), Usual: lookback.UsualObservations(live),
	}
	for _, p := range clearing.Standard(s.Family(), s.Way.Standard) {
		out.Standard = append(out.Standard, contract.StandardPoint{Id: p.ID, Name: p.Name})
	}
	for _, id := range s.LessonPieces() {
		piece, err := Piece(ctx, h.Loader, s, id, live)
		if err != nil {
			return nil, err
		}
		out.Pieces = append(out.Pieces, piece)
	}
	out.Taken = takenBack(s, log, live)
	home, err := h.fromHome(ctx, s)
	if err != nil {
		return nil, err
	}
	out.Last = lastTime(s, live, home)
	for _, e := range lookback.EnteredToday(s.Student, live) {
		out.Log = append(out.Log, contract.LogLine{Id: e.ID, At: e.At, Kind: string(e.Kind), Text: n.Entry(e, s.Student)})
	}
	return contract.GetLesson200JSONResponse(out), nil
}

// fromHome says what came from home since the last lesson; empty for nothing.
func (h *Handlers) fromHome(ctx context.Context, s open.Student) (string, error) {
	weeks, err := h.Store.StudioWeeks(ctx, s.Tenant.ID, week.Reaching(s.Today, week.Days))
	if err != nil {
		return "", err
	}
	notes, err := h.Store.Notes(ctx, s.Tenant.ID, s.Ladder, s.Now.AddDate(0, 0, -withfamily.NoteDays))
	if err != nil {
		return "", err
	}
	home, ok := withfamily.HomeOf(s.Student, s.Standing.Home, weeks[s.Ladder], notes, s.Today)
	if !ok {
		return "", nil
	}
	before, err := h.Before(ctx, s, s.Standing.Home, s.Today)
	if err != nil {
		return "", err
	}
	home.Shown = before.Shown
	return s.Of().Names().Home(home), nil
}

// bites are the preview steps that are left for the lesson, in words.
func bites(a open.Ahead) []contract.Bite {
	why := map[string]string{}
	for _, p := range ladder.Plantings(a) {
		why[p.Skill] = p.Why
	}
	out := []contract.Bite{}
	for _, b := range planting.Bites(&a.StudentOutlook) {
		s, _ := a.Skills.Get(b.Skill)
		bite := contract.Bite{
			Skill: b.Skill,
			Name:  s.Name,
			Step:  b.Step,
			Of:    len(s.Steps),
			Text:  s.Steps[b.Step-1],
			For:   a.Library[b.For].Title,
			Why:   why[b.Skill],
		}
		if b.Exercise != nil {
			bite.Exercise = contract.Choice{Id: b.Exercise.ID(), Name: b.Exercise.Full(a.Words)}
		}
		out = append(out, bite)
	}
	return out
}

// toHear are the learned pieces that the plan of today's lesson has; none where it cannot be made any more.
func (h *Handlers) toHear(ctx context.Context, a open.Ahead) []string {
	p, err := app.PlanOf(ctx, h.Loader, a, a.Today)
	if err != nil {
		return nil
	}
	live, err := p.Live()
	if err != nil {
		return nil
	}
	return live.Plan.Reviews()
}

func reviews(s open.Student, planned []string) []contract.ReviewPiece {
	out := []contract.ReviewPiece{}
	for _, heard := range s.ToHear(planned) {
		ms := s.Standing.Materials[heard.Material]
		out = append(out, contract.ReviewPiece{
			Material: heard.Material, Title: s.Library[heard.Material].Title, LastPlayed: ms.LastPlayed, HeardToday: heard.Today,
			Rating: ms.LastRating, Recall: answer.Thousandths(s.Recall(heard.Material)),
		})
	}
	return out
}
