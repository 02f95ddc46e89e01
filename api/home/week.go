// Package home answers what is asked about practice at home: the week, the sheet, the family's page and what
// comes back from it.
//
//	week.go        the week of practice, shown and published
//	weekhand.go    what is set by hand in it
//	family.go      links and messages to families, and what they report
//	familypage.go  what a family sees
//	excerpt.go     the bars of an item, drawn
//	sheet.go       the week to print
//	feed.go        the calendar to subscribe to
//	balance.go     practice against enjoyment
package home

import (
	"context"
	"errors"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/library/material"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
	"patientladder/store"
)

// english is what the teacher reads.
var english = tongue.Of(tongue.English)

// Handlers answer the calls about practice at home.
type Handlers struct{ *open.Loader }

// GetWeek returns the practice from the given day on; by default from the day
// after the latest lesson day.
func (h *Handlers) GetWeek(ctx context.Context, r contract.GetWeekRequestObject) (contract.GetWeekResponseObject, error) {
	w, err := app.WeekOn(ctx, h.Loader, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	out, err := h.show(ctx, w)
	return contract.GetWeek200JSONResponse(out), err
}

// SetWeek keeps what the teacher set by hand, and solves the rest again.
func (h *Handlers) SetWeek(ctx context.Context, r contract.SetWeekRequestObject) (contract.SetWeekResponseObject, error) {
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.Week, error) {
		w, err := app.SetWeek(ctx, h.Loader, r.Ladder, r.Params.Day.Time, weekHand(*r.Body), r.Body.Version)
		if err != nil {
			return contract.Week{}, err
		}
		return h.show(ctx, w)
	})
	return contract.SetWeek200JSONResponse(out), err
}

// PublishWeek shows the family exactly the plan that the teacher saw. Where it would be planned otherwise by now it says
// what changed and publishes nothing, unless the teacher wants what was shown.
func (h *Handlers) PublishWeek(ctx context.Context, r contract.PublishWeekRequestObject) (contract.PublishWeekResponseObject, error) {
	var otherwise *contract.WeekChanged
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.Week, error) {
		w, err := app.PublishWeek(ctx, h.Loader, r.Ladder, r.Params.Day.Time, app.Publishing{
			Print: r.Body.Plan, AsShown: r.Body.AsShown, Version: r.Body.Version,
		})
		var x app.Otherwise
		if errors.As(err, &x) {
			said := changed(w, x.Shown, x.Known)
			otherwise = &said
		}
		if err != nil {
			return contract.Week{}, err
		}
		return h.show(ctx, w)
	})
	if otherwise != nil {
		return contract.PublishWeek409JSONResponse(*otherwise), nil
	}
	return contract.PublishWeek200JSONResponse(out), err
}

// changed says what would be planned otherwise than it was shown.
func changed(w app.Week, shown week.Plan, known bool) contract.WeekChanged {
	out := contract.WeekChanged{Detail: wording.WeekChanged(known), Changes: []string{}, CanPublish: known}
	if known {
		out.Changes = append(out.Changes, w.Of().Names().WeekChanges(week.Differences(shown, w.Plan))...)
	}
	return out
}

// show is a week as the contract has it; the plan is noted as shown, so that exactly this one can be published.
func (h *Handlers) show(ctx context.Context, w app.Week) (contract.Week, error) {
	me, err := h.Store.Teacher(ctx, open.Actor(ctx).Teacher)
	if err != nil {
		return contract.Week{}, err
	}
	family, err := h.Store.Family(ctx, w.Tenant.ID, w.Ladder)
	if err != nil {
		return contract.Week{}, err
	}
	reached, err := h.familyWay(ctx, family, w.Today)
	if err != nil {
		return contract.Week{}, err
	}
	plan := w.Plan
	if err := w.Show(ctx, h.Loader); err != nil {
		return contract.Week{}, err
	}
	out := contract.Week{
		Student: answer.Student(w.Row, w.Today), Studio: w.Tenant.Name, Teacher: me.Name, Start: answer.Date(w.Kept.Start),
		Sentence: wording.Week(w.Week.Week),
		Days:     []contract.WeekDay{}, LeftOut: weekItems(w.Opened, plan.LeftOut), Dropped: weekItems(w.Opened, plan.Dropped),
		Reviews: []contract.ReviewPicked{}, Home: []contract.AfterHome{},
		NotYet: wording.Held(english, plan.NotYet), Dose: wording.Often(english, plan.Often), Watch: wording.Watched(english, plan.Watch),
		Estimate: plan.Estimate, Caution: wording.Caution,
		Review:   answer.Review(inweek.ReviewOf(w.Ahead.StudentOutlook.Student, w.Week.Week)),
		Practice: contract.Practice{Days: w.Practises[:], Minutes: w.PracticeMinutes, HandsApart: w.HandsApart, TwoHands: w.TwoHands(), Version: w.Row.Version},
		Hand:     byHand(w.Kept), Gates: []contract.WeekGate{}, Learned: []contract.Titled{}, Minutes: w.Input.MinutesADay(),
		Plan:      plan.Fingerprint(),
		Published: w.Kept.Published != nil, PublishedAt: w.Kept.PublishedAt, Family: reached, Messages: []contract.MessagePreview{},
	}
	messages, err := h.WeekMessages(ctx, w.Opened, family, w.Kept.Start, plan, w.Kept.Hand.Words)
	if err != nil {
		return contract.Week{}, err
	}
	for _, m := range messages {
		out.Messages = append(
			out.Messages,
			contract.MessagePreview{To: m.To, Subject: m.Subject, Body: m.Body, When: wording.SentWhen(m.NotBefore.In(w.Zone), w.Now)},
		)
	}
	out.Changed = out.Published && w.Kept.Published.Fingerprint() != plan.Fingerprint()
	for _, d := range plan.Days {
		out.Days = append(
			out.Days,
			contract.WeekDay{Date: answer.Date(d.Date), Rest: d.Rest, Items: weekItems(w.Opened, d.Items), Minutes: d.Minutes, Focus: d.Focus},
		)
	}
	names := w.Opened.Of().Names()
	for _, a := range w.Week.Home {
		out.Home = append(out.Home, contract.AfterHome{Key: a.Item.Key, Showed: names.HomeShowed(a.Thing), Then: wording.AfterHome(a), Aside: a.Aside})
	}
	for _, c := range w.Picked {
		out.Reviews = append(out.Reviews, contract.ReviewPicked{Material: c.ID, Title: w.Library[c.ID].Title, Why: wording.Picked(c.Why)})
	}
	for _, work := range w.Input.Works {
		gate := contract.Gate(work.Gate)
		if gate == "" {
			gate = contract.GateAutomatic
		}
		out.Gates = append(out.Gates, contract.WeekGate{Material: work.Material.ID, Title: work.Material.Title, Gate: gate, Hand: work.Hand()})
	}
	for _, id := range w.Learned() {
		out.Learned = append(out.Learned, contract.Titled{Material: id, Title: w.Library[id].Title})
	}
	return out, nil
}

func weekItems(s open.Student, items []week.Item) []contract.WeekItem {
	out := []contract.WeekItem{}
	for _, it := range items {
		out = append(out, contract.WeekItem{
			Key: it.Key, Kind: contract.WeekItemKind(it.Kind), Material: it.Material, Title: it.Title, Where: where(s.Library, it), Hand: it.Hand,
			Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: s.Words.Text(it.Words), Goals: append([]string{}, it.Goals...),
			Pinned: it.Pinned,
		})
	}
	return out
}

// where says which bars an item is about.
func where(lib material.Library, it week.Item) string {
	m := lib[it.Material]
	switch piece, all := it.Covers(m.Bars); {
	case !piece:
		return ""
	case all:
		return "the whole piece"
	}
	return wording.Bars(m, it.Bars.From, it.Bars.To, it.Bars.Upbeat)
}

// SetPractice changes the days and minutes of practice.
func (h *Handlers) SetPractice(ctx context.Context, r contract.SetPracticeRequestObject) (contract.SetPracticeResponseObject, error) {
	studio := open.Actor(ctx).Studio
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	l := store.Ladder{ID: r.Ladder, PracticeMinutes: r.Body.Minutes, HandsApart: r.Body.HandsApart, Version: r.Body.Version}
	copy(l.PracticeDays[:], r.Body.Days)
	return contract.SetPractice204Response{}, h.Store.SetPractice(ctx, studio, l)
}
