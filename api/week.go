package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/review"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/reading/reading"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/way"
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
	w, err := s.weekly(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	out, err := s.weekView(ctx, w)
	return contract.GetWeek200JSONResponse(out), err
}

// SetWeek keeps what the teacher set by hand, and solves the rest again.
func (s *Server) SetWeek(ctx context.Context, r contract.SetWeekRequestObject) (contract.SetWeekResponseObject, error) {
	w, err := s.weekly(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	if w.kept.Start.AddDate(0, 0, weekplan.Days).Before(w.today) {
		return nil, invalid("That week is over: it stays as it was.")
	}
	w.kept.Version, w.kept.Hand = r.Body.Version, weekHand(*r.Body)
	for _, id := range w.kept.Hand.Adds {
		if _, known := w.lib[id]; !known {
			return nil, errNoMaterial
		}
	}
	if err := w.solve(); err != nil {
		return nil, err
	}
	if err := s.store.SavePracticeWeek(ctx, w.studio.ID, w.kept, nil); err != nil {
		return nil, err
	}
	w.kept.Version++
	out, err := s.weekView(ctx, w)
	return contract.SetWeek200JSONResponse(out), err
}

// PublishWeek shows the week to the family, and puts a message with the link
// into the mailbox where there is an address.
func (s *Server) PublishWeek(ctx context.Context, r contract.PublishWeekRequestObject) (contract.PublishWeekResponseObject, error) {
	w, err := s.weekly(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	if w.kept.Start.AddDate(0, 0, weekplan.Days).Before(w.today) {
		return nil, invalid("That week is over: publish the one that comes.")
	}
	family, err := s.openLink(ctx, w.studio.ID, r.Ladder, w.today)
	if err != nil {
		return nil, err
	}
	message, err := s.announcement(ctx, w, family)
	if err != nil {
		return nil, err
	}
	w.kept.Version, w.kept.Published, w.kept.PublishedAt = r.Body.Version, &w.plan, w.now
	if err := s.store.SavePracticeWeek(ctx, w.studio.ID, w.kept, message); err != nil {
		return nil, err
	}
	w.kept.Version++
	out, err := s.weekView(ctx, w)
	return contract.PublishWeek200JSONResponse(out), err
}

// weekly is the week of a ladder with what it is made from.
type weekly struct {
	ahead
	kept store.PracticeWeek
	in   weekplan.Input
	plan weekplan.Plan
}

// weekly opens the week that begins on a day; a zero day is the one after the latest lesson day.
func (s *Server) weekly(ctx context.Context, ladder string, start time.Time) (weekly, error) {
	a, err := s.ahead(ctx, ladder, lens{near: true})
	if err != nil {
		return weekly{}, err
	}
	w := weekly{ahead: a}
	if start.IsZero() {
		sinceLesson := (int(a.today.Weekday()) - int(a.ladder.Weekday) + 7) % 7
		start = a.today.AddDate(0, 0, 1-sinceLesson)
	}
	if w.kept, err = s.store.PracticeWeek(ctx, a.studio.ID, ladder, start); err != nil {
		return w, err
	}
	if w.in, err = s.weekInput(ctx, a, start); err != nil {
		return w, err
	}
	return w, w.solve()
}

// solve lays the week out by what is set by hand.
func (w *weekly) solve() (err error) {
	in := w.in
	in.Hand = w.kept.Hand
	for _, id := range in.Hand.Adds {
		if m, known := w.lib[id]; known && !slices.ContainsFunc(in.Reviews, func(r material.Material) bool { return r.ID == id }) {
			in.Reviews = append(in.Reviews, m)
		}
	}
	if w.plan, err = weekplan.Make(in); err != nil {
		return invalid(capital(err.Error()) + ".")
	}
	return nil
}

func (s *Server) weekView(ctx context.Context, w weekly) (contract.Week, error) {
	sh, plan := w.shelf, w.plan
	me, err := s.store.Teacher(ctx, actor(ctx).teacher)
	if err != nil {
		return contract.Week{}, err
	}
	family, err := s.store.Family(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return contract.Week{}, err
	}
	out := contract.Week{
		Student: student(sh.ladder, sh.today), Studio: sh.studio.Name, Teacher: me.Name, Start: date(w.kept.Start),
		Days: []contract.WeekDay{}, LeftOut: weekItems(sh, plan.LeftOut), Dropped: weekItems(sh, plan.Dropped), Reviews: []reviewReason{},
		NotYet: append([]string{}, plan.NotYet...), Dose: plan.Dose, Estimate: plan.Estimate, Caution: caution,
		Review:   w.reviewState(share(plan)),
		Practice: contract.Practice{Days: sh.ladder.PracticeDays[:], Minutes: sh.ladder.PracticeMinutes, HandsApart: sh.ladder.HandsApart, Version: sh.ladder.Version},
		Hand:     byHand(w.kept), Gates: []contract.WeekGate{}, Learned: []contract.Titled{}, Minutes: w.in.Minutes,
		Published: w.kept.Published != nil, PublishedAt: w.kept.PublishedAt, Family: familyWay(family, sh.today),
	}
	if w.kept.Hand.Minutes > 0 {
		out.Minutes = w.kept.Hand.Minutes
	}
	out.Changed = out.Published && !same(*w.kept.Published, plan)
	for _, d := range plan.Days {
		out.Days = append(out.Days, contract.WeekDay{Date: date(d.Date), Rest: d.Rest, Items: weekItems(sh, d.Items), Minutes: d.Minutes, Focus: d.Focus})
	}
	for _, c := range w.pick() {
		out.Reviews = append(out.Reviews, reviewReason{Material: c.ID, Title: sh.lib[c.ID].Title, Why: c.Why})
	}
	for _, work := range w.in.Works {
		gate := contract.Gate(work.Gate)
		if gate == "" {
			gate = contract.Automatic
		}
		out.Gates = append(out.Gates, contract.WeekGate{Material: work.Material.ID, Title: work.Material.Title, Gate: gate, Hand: work.Hand()})
	}
	for _, id := range sh.learned() {
		out.Learned = append(out.Learned, contract.Titled{Material: id, Title: sh.lib[id].Title})
	}
	out.Sentence = weekSentence(w.in, plan)
	return out, nil
}

// same says whether two plans are the same as they are kept.
func same(a, b weekplan.Plan) bool {
	one, err := json.Marshal(a)
	if err != nil {
		return false
	}
	other, err := json.Marshal(b)
	return err == nil && bytes.Equal(one, other)
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
	in.Bites = a.planted()
	in.Listen = a.toHear()
	return in, nil
}

// planted are the preview steps of the last lesson, to be done again at home.
func (a ahead) planted() []weekplan.Bite {
	sh := a.shelf
	var out []weekplan.Bite
	last := sh.standing.LastLesson
	for _, id := range slices.Sorted(maps.Keys(sh.standing.Planted)) {
		skill, known := sh.skills.Get(id)
		step := sh.standing.Ability.Skills[id].StepsDone
		if known && step > 0 && step <= len(skill.Steps) && sh.day(sh.standing.Planted[id]).Equal(sh.day(last)) {
			words := skill.Steps[step-1]
			if e, ok := a.biteExercise(id, step, a.needing(id)); ok {
				words += fmt.Sprintf(" (%s)", e.Title(sh.studio.Words))
			}
			out = append(out, weekplan.Bite{Skill: id, Name: skill.Name, Words: words})
		}
	}
	return out
}

// needing is the first piece ahead that asks for a skill; empty for none.
func (a ahead) needing(skill string) string {
	for _, p := range a.placed {
		asks := func(d material.Demand) bool { return d.Skill == skill }
		if !begun(a.shelf, p.Material) && slices.ContainsFunc(a.lib[p.Material].Demands, asks) {
			return p.Material
		}
	}
	return ""
}

// toHear are the next pieces of method and repertoire, where pieces are heard
// before they are read.
func (a ahead) toHear() []material.Material {
	var out []material.Material
	if a.way.FirstView != way.Sound {
		return out
	}
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			if r.Layer == ladder.Ahead && r.Aside == "" && r.Material.HasScore && (r.Material.Strand == material.Method || r.Material.Strand == material.Repertoire) {
				out = append(out, r.Material)
				break // only the next of each strand
			}
		}
	}
	return out
}

// pick chooses the learned pieces for the minutes of the week that are kept for review.
func (a ahead) pick() []review.Chosen {
	days := 0
	for _, practises := range a.ladder.PracticeDays {
		if practises {
			days++
		}
	}
	return a.Review(a.learned(), a.way.ReviewShare*float64(a.ladder.PracticeMinutes*days), a.way.Review(), a.policy.Memory)
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
		Age: sh.ladder.Age(sh.today), ReviewShare: sh.way.ReviewShare, Approach: sh.way.Approach, Dose: sh.way.Dose, DoseRow: sh.way.DoseRow,
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

// gated is a working piece as far as the hands go.
func (sh shelf) gated(id string) weekplan.Work {
	m, ms := sh.lib[id], sh.standing.Materials[id]
	return weekplan.Work{
		Material: m, Gate: ms.Gate, RunDue: ms.RunDue, WeeksOn: int(sh.today.Sub(sh.day(ms.Assigned)).Hours() / 24 / 7),
		HandsApart: weekplan.KeepApart(sh.ladder.HandsApart, sh.standing.Ability, sh.policy.Leap),
	}
}

func (s *Server) work(ctx context.Context, sh shelf, id string) (weekplan.Work, error) {
	w := sh.gated(id)
	m, ms := w.Material, sh.standing.Materials[id]
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

func weekItems(sh shelf, items []weekplan.Item) []contract.WeekItem {
	out := []contract.WeekItem{}
	for _, it := range items {
		out = append(out, weekItem(sh, it))
	}
	return out
}

func weekItem(sh shelf, it weekplan.Item) contract.WeekItem {
	return contract.WeekItem{
		Key: it.Key, Kind: contract.WeekItemKind(it.Kind), Material: it.Material, Title: it.Title, Where: whereItem(sh.lib, it), Hand: it.Hand,
		Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: sh.studio.Words.Text(it.Words), Pinned: it.Pinned,
	}
}

// whereItem says which bars an item is about.
func whereItem(lib material.Library, it weekplan.Item) string {
	if it.Kind == weekplan.Preview {
		return ""
	}
	if m := lib[it.Material]; it.Bars.From > 0 && (it.Bars.From > 1 || it.Bars.To < m.Bars) {
		return whereOf(m, it.Bars.From, it.Bars.To, it.Bars.Upbeat)
	}
	return "the whole piece"
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
