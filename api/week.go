package api

import (
	"context"
	"slices"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/reading"
	"patientladder/core/review"
	"patientladder/core/standing"
	"patientladder/core/studentlog"
	weekplan "patientladder/core/week"
	"patientladder/store"
)

// mostGuides is how many new notes a practice sheet explains.
const mostGuides = 4

// reviewReason is a learned piece of the week and why it was picked, as the contract has it.
type reviewReason = struct {
	Material contract.Id `json:"material"`
	Title    string      `json:"title"`
	Why      string      `json:"why"`
}

// caution stands on every sheet with a dose on it.
const caution = "Pain, tingling or numbness means stop and rest; if it stays, see a doctor or physiotherapist. Short and often is better than long and rare."

// GetWeek returns the practice from the given day on; by default from the day
// after the latest lesson day.
func (s *Server) GetWeek(ctx context.Context, r contract.GetWeekRequestObject) (contract.GetWeekResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{near: true})
	if err != nil {
		return nil, err
	}
	sh := a.shelf
	start := r.Params.Day.Time
	if start.IsZero() {
		sinceLesson := (int(sh.today.Weekday()) - int(sh.ladder.Weekday) + 7) % 7
		start = sh.today.AddDate(0, 0, 1-sinceLesson)
	}
	in, err := s.weekInput(ctx, a, start)
	if err != nil {
		return nil, err
	}
	plan, err := weekplan.Make(in)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	me, err := s.store.Teacher(ctx, actor(ctx).teacher)
	if err != nil {
		return nil, err
	}
	out := contract.Week{
		Student: student(sh.ladder, sh.today), Studio: sh.studio.Name, Teacher: me.Name, Start: openapi_types.Date{Time: start},
		Days: []contract.WeekDay{}, LeftOut: []contract.WeekItem{}, Reviews: []reviewReason{}, NotYet: append([]string{}, plan.NotYet...), Dose: plan.Dose, Estimate: plan.Estimate, Caution: caution,
		Review:   a.reviewState(share(plan)),
		Practice: contract.Practice{Days: sh.ladder.PracticeDays[:], Minutes: sh.ladder.PracticeMinutes, HandsApart: sh.ladder.HandsApart, Version: sh.ladder.Version},
	}
	for _, d := range plan.Days {
		day := contract.WeekDay{Date: openapi_types.Date{Time: d.Date}, Rest: d.Rest, Items: []contract.WeekItem{}, Minutes: d.Minutes, Focus: d.Focus}
		for _, it := range d.Items {
			day.Items = append(day.Items, weekItem(sh, it))
		}
		out.Days = append(out.Days, day)
	}
	for _, it := range plan.LeftOut {
		out.LeftOut = append(out.LeftOut, weekItem(sh, it))
	}
	for _, c := range a.pick() {
		out.Reviews = append(out.Reviews, reviewReason{Material: c.ID, Title: sh.lib[c.ID].Title, Why: c.Why})
	}
	out.Sentence = weekSentence(in, plan)
	return contract.GetWeek200JSONResponse(out), nil
}

func (s *Server) weekInput(ctx context.Context, a ahead, start time.Time) (weekplan.Input, error) {
	sh := a.shelf
	in := sh.practice(start)
	for _, f := range sh.standing.Travelling() {
		in.Own = append(in.Own, f.Text)
	}
	for _, id := range sh.in(standing.Working) {
		w, err := s.work(ctx, sh, id)
		if err != nil {
			return in, err
		}
		in.Works = append(in.Works, w)
	}
	for _, c := range a.pick() {
		in.Reviews = append(in.Reviews, sh.lib[c.ID])
	}
	return in, nil
}

// pick chooses the learned pieces for the minutes of the week that are kept for review.
func (a ahead) pick() []review.Chosen {
	days := 0
	for _, practises := range a.ladder.PracticeDays {
		if practises {
			days++
		}
	}
	return a.Review(a.way.ReviewShare*float64(a.ladder.PracticeMinutes*days), a.way.Review(), a.policy.Memory)
}

// reviewShare is the share of the coming week that review takes.
func (a ahead) reviewShare() float64 {
	in := a.practice(a.today)
	for _, c := range a.pick() {
		in.Reviews = append(in.Reviews, a.lib[c.ID])
	}
	return weekplan.ReviewShareOf(in)
}

// practice is what a week of practice is made from before any piece.
func (sh shelf) practice(start time.Time) weekplan.Input {
	return weekplan.Input{
		Start: start, Practises: sh.ladder.PracticeDays, Minutes: sh.ladder.PracticeMinutes,
		Age: sh.ladder.Age(sh.today), ReviewShare: sh.way.ReviewShare, Approach: sh.way.Approach,
	}
}

// share is the part of a plan's minutes that review takes, 0 to 1.
func share(p weekplan.Plan) float64 {
	review, all := 0.0, 0.0
	for _, d := range p.Days {
		all += d.Minutes
		for _, it := range d.Items {
			if it.Kind == weekplan.Review {
				review += it.Minutes
			}
		}
	}
	if all == 0 {
		return 0
	}
	return review / all
}

func (s *Server) work(ctx context.Context, sh shelf, id string) (weekplan.Work, error) {
	m, ms := sh.lib[id], sh.standing.Materials[id]
	w := weekplan.Work{Material: m, RunDue: ms.RunDue, WeeksOn: int(sh.today.Sub(sh.day(ms.Assigned)).Hours() / 24 / 7)}
	w.HandsApart = weekplan.KeepApart(sh.ladder.HandsApart, sh.standing.Ability, sh.policy.Leap)
	if ms.Points > 0 {
		w.Progress = float64(ms.Full) / float64(ms.Points)
	}
	for _, p := range m.FocusPoints {
		if ms.Marks[p.ID] != studentlog.Full {
			w.Focus = append(w.Focus, p.Text)
		}
	}
	for _, spot := range ms.Spots {
		if !spot.Mended {
			w.Spots = append(w.Spots, weekplan.Bars{From: spot.From, To: spot.To})
		}
	}
	o, err := s.read(ctx, sh.studio.ID, m)
	if err != nil || o == nil {
		return w, err
	}
	tree := o.Chunks(sh.leafBars(), o.set.Borders)
	w.Tree = &tree
	w.Opening = o.Opening(sh.studio.Words.Note)
	known := sh.knows(m.ID)
	var places []string
	for i := range o.Lines {
		l := &o.Lines[i]
		if len(l.Position.Positions) > 0 {
			places = append(places, positionName(sh.studio.Words, l.Position.Positions[0].Name))
		}
		for _, g := range reading.Guides(o.Score, l.Line, known.note) {
			w.Guides = append(w.Guides, guideWords(sh.studio.Words, g))
		}
	}
	w.Position = joined(slices.Compact(places))
	w.Guides = w.Guides[:min(len(w.Guides), mostGuides)]
	for _, b := range o.Score.Bars {
		w.Quarters = append(w.Quarters, b.Length.Float())
	}
	return w, nil
}

func weekItem(sh shelf, it weekplan.Item) contract.WeekItem {
	where := "the whole piece"
	if m := sh.lib[it.Material]; it.Bars.From > 0 && (it.Bars.From > 1 || it.Bars.To < m.Bars) {
		where = whereOf(m, it.Bars.From, it.Bars.To, it.Bars.Upbeat)
	}
	return contract.WeekItem{
		Kind: contract.WeekItemKind(it.Kind), Material: it.Material, Title: it.Title, Where: where, Hand: it.Hand,
		Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: sh.studio.Words.Text(it.Words),
	}
}

func weekSentence(in weekplan.Input, p weekplan.Plan) string {
	if len(in.Works) == 0 {
		return "There is no working piece: choose one on the ladder, then come back."
	}
	days := 0
	for _, d := range p.Days {
		if !d.Rest {
			days++
		}
	}
	if days == 0 {
		return "No day of practice is chosen: pick at least one below."
	}
	out := capital(counted(days, "day")) + ", never more than " + counted(in.Minutes, "minute")
	if n := len(p.LeftOut); n > 0 {
		return out + "; what did not fit (" + counted(n, "step") + ") waits for next week."
	}
	return out + "; small pieces first, joined later in the week."
}

// SetPractice changes the days and minutes of practice.
func (s *Server) SetPractice(ctx context.Context, r contract.SetPracticeRequestObject) (contract.SetPracticeResponseObject, error) {
	studio := actor(ctx).studio
	if _, err := s.store.Ladder(ctx, studio, r.Ladder); err != nil {
		return nil, err
	}
	l := store.Ladder{ID: r.Ladder, PracticeMinutes: r.Body.Minutes, HandsApart: r.Body.HandsApart, Version: r.Body.Version}
	copy(l.PracticeDays[:], r.Body.Days)
	return contract.SetPractice204Response{}, s.store.SetPractice(ctx, studio, l)
}
