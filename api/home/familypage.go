package home

import (
	"cmp"
	"context"
	"slices"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/app/open"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
	"patientladder/store"
)

// GetFamilyPage returns what a family sees: the published week, how it sounds,
// and the way so far. Of the child it holds a first name and nothing else.
func (h *Handlers) GetFamilyPage(ctx context.Context, r contract.GetFamilyPageRequestObject) (contract.GetFamilyPageResponseObject, error) {
	f, sh, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	f = spokenTo(f, r.Params.Language)
	w, weeks, err := h.familyWeek(ctx, sh, r.Params.Week.Time)
	if err != nil {
		return nil, err
	}
	if w.Published != nil {
		plan, err := h.ForFamily(ctx, sh, w)
		if err != nil {
			return nil, err
		}
		w.Published = &plan
	}
	t := sh.Tongue(f)
	out, err := h.aboutFamily(ctx, f, sh, t)
	if err != nil {
		return nil, err
	}
	out.Start, out.Sentence = answer.Date(w.Start), wording.AtHome(t, withfamily.AtHomeOf(sh.Student, w.Start, w.Published))
	for _, start := range weeks {
		out.Weeks = append(out.Weeks, contract.FamilyWeek{Start: answer.Date(start), Name: wording.FamilyWeek(t, start, sh.Today)})
	}
	if w.Published == nil {
		return contract.GetFamilyPage200JSONResponse(out), nil
	}
	out.NotYet, out.Dose, out.Watch = wording.Held(
		t,
		w.Published.NotYet,
	), wording.Often(
		t,
		w.Published.Often,
	), wording.Watched(
		t,
		w.Published.Watch,
	)
	out.Words = w.Hand.Words
	if tune, ok := withfamily.Tune(sh.Student, *w.Published); ok {
		out.Tune = tune.Key
	}
	e := h.excerpts(ctx, sh, phoneWidth)
	for _, d := range w.Published.Days {
		day := contract.FamilyDay{Date: answer.Date(d.Date), Rest: d.Rest, Focus: d.Focus, Items: []contract.FamilyItem{}}
		for _, it := range d.Items {
			item, err := e.familyItem(it, t)
			if err != nil {
				return nil, err
			}
			day.Items = append(day.Items, item)
		}
		out.Days = append(out.Days, day)
	}
	return contract.GetFamilyPage200JSONResponse(out), nil
}

// spokenTo lets a family that has chosen no language be spoken to in that of its phone, where it is one of ours.
func spokenTo(f store.Family, phone string) store.Family {
	f.Language = cmp.Or(f.Language, tongue.Match(phone))
	return f
}

// GetFamilyScores returns the notes and the sound of what is to be done on a day of a published week.
func (h *Handlers) GetFamilyScores(ctx context.Context, r contract.GetFamilyScoresRequestObject) (contract.GetFamilyScoresResponseObject, error) {
	_, sh, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	out := contract.FamilyScores{Excerpts: []contract.Excerpt{}, Music: []contract.FamilyMusic{}}
	w, _, err := h.familyWeek(ctx, sh, r.Params.Week.Time)
	if err != nil || w.Published == nil {
		return contract.GetFamilyScores200JSONResponse(out), err
	}
	plan, err := h.ForFamily(ctx, sh, w)
	if err != nil {
		return nil, err
	}
	e := h.excerpts(ctx, sh, phoneWidth)
	for _, it := range plan.On(r.Day.Time) {
		x, err := e.shown(it)
		if err != nil {
			return nil, err
		}
		e.draw(it, x)
	}
	out.Excerpts = append(out.Excerpts, e.seen...)
	for _, key := range e.order {
		out.Music = append(out.Music, music(key, e.music[key]))
	}
	return contract.GetFamilyScores200JSONResponse(out), nil
}

// aboutFamily is what a family sees whatever the week is.
func (h *Handlers) aboutFamily(ctx context.Context, f store.Family, sh open.Student, t tongue.Tongue) (contract.FamilyPage, error) {
	out := contract.FamilyPage{
		Name: sh.First(), Instrument: t.Shipped(sh.Instrument), Tone: contract.FamilyPageTone(sh.SoundFamily()), Studio: sh.Tenant.Name,
		Today: answer.Date(sh.Today), Days: []contract.FamilyDay{}, NotYet: []string{}, Caution: t.Say("caution"),
		Ticks: ticks(sh), Path: path(sh, t), Weeks: []contract.FamilyWeek{},
		Expires: answer.Date(f.Expires),
		Texts:   t.Texts("page"), Language: t.ID, Locale: t.Locale(), Languages: []contract.FamilyLanguage{}, Notes: []contract.FamilyNote{},
		Lessons: []contract.FamilyLesson{}, Others: []contract.FamilyOther{},
		Wishes: contract.FamilyWishes{Language: t.ID, Mail: contract.FamilyWishesMail(f.Wish()), Remind: f.Remind},
	}
	for _, l := range tongue.All() {
		out.Languages = append(out.Languages, contract.FamilyLanguage{Id: l.ID, Name: l.Name()})
	}
	teacher, err := h.Store.StudioTeacher(ctx, f.Studio)
	if err != nil {
		return out, err
	}
	out.Teacher = teacher.Name
	to, err := h.Recipients(ctx, f.Studio, f.Ladder, f)
	if err != nil {
		return out, err
	}
	out.Mailed = len(to) > 0
	treats, err := ladder.Treats(ctx, h.Loader, sh)
	if err != nil {
		return out, err
	}
	out.Treats = slices.DeleteFunc(treats, func(t contract.Treat) bool { return t.Given })
	if out.Reports, err = h.reports(ctx, sh); err != nil {
		return out, err
	}
	notes, err := h.Store.Notes(ctx, f.Studio, f.Ladder, sh.Now.AddDate(0, 0, -withfamily.NoteDays))
	if err != nil {
		return out, err
	}
	slices.Reverse(notes)
	for _, n := range notes {
		out.Notes = append(
			out.Notes,
			contract.FamilyNote{
				Id:     n.ID,
				Kind:   contract.FamilyNoteKind(n.Kind),
				Text:   n.Text,
				At:     n.At,
				Said:   wording.NoteSaid(t, n, teacher.Name),
				Answer: n.Answer,
			},
		)
	}
	for _, l := range withfamily.Movable(sh.Student) {
		out.Lessons = append(out.Lessons, contract.FamilyLesson{Lesson: l.ID, Name: t.WeekdayAndDay(l.Day) + ", " + wording.Clock(l.StartsAt)})
	}
	others, err := h.Store.Others(ctx, f.Studio, f.Ladder, sh.Today)
	for _, o := range others {
		out.Others = append(out.Others, contract.FamilyOther{Name: wording.OtherPage(o.Name, o.Instrument), Link: open.FamilyPath(o.Token)})
	}
	return out, err
}

// familyWeek is the published week that a family reads: the one that begins on a day, where it can be read, else that of
// today; with the first days of all that can be read.
func (h *Handlers) familyWeek(ctx context.Context, s open.Student, wanted time.Time) (store.PracticeWeek, []time.Time, error) {
	weeks, err := h.Store.PublishedWeeks(ctx, s.Tenant.ID, s.Ladder, week.Ago(s.Today, 6))
	if err != nil || len(weeks) == 0 {
		return store.PracticeWeek{}, nil, err
	}
	starts := make([]time.Time, len(weeks))
	for i, w := range weeks {
		starts[i] = w.Start
	}
	readable := withfamily.Readable(starts, s.Today)
	start := readable[0]
	if slices.ContainsFunc(readable, wanted.Equal) {
		start = wanted
	}
	w, err := h.Store.PracticeWeek(ctx, s.Tenant.ID, s.Ladder, start)
	return w, readable, err
}

// ticks are what was reported from home.
func ticks(s open.Student) []contract.FamilyTick {
	out := []contract.FamilyTick{}
	for _, x := range withfamily.Ticks(s.Student) {
		t := contract.FamilyTick{Id: x.ID, At: x.At, Kind: contract.FamilyTickKindDone, Item: x.Item, Times: x.Times, Felt: contract.Felt(x.Felt)}
		if x.First {
			t.Kind = contract.FamilyTickKindFirst
		}
		if !x.Day.IsZero() {
			t.Day = answer.Date(x.Day)
		}
		out = append(out, t)
	}
	return out
}

// path is the way so far.
func path(s open.Student, t tongue.Tongue) []contract.PathStep {
	out := []contract.PathStep{}
	for _, step := range withfamily.Path(s.Student) {
		state := contract.PathStepStateWorking
		if !step.Learned.IsZero() {
			state = contract.PathStepStateLearned
		}
		out = append(out, contract.PathStep{State: state, Title: s.Library[step.Material].Title, Words: wording.Path(t, step)})
	}
	return out
}
