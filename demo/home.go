package demo

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	mathrand "math/rand/v2"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/scorefile"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/naming"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// habit is how a family practises and reports.
type habit struct {
	// keeps is the chance that a day of practice is kept, all that the whole of it is done.
	keeps, all float64
	// joyful and hard are the chances that a thing felt so; the rest felt fine.
	joyful, hard float64
	// email is where messages go.
	email string
}

// habits are those of the families that report; the others have no link yet.
var habits = map[string]habit{
	"Ivo":     {0.8, 0.7, 0.55, 0.1, "sandgate@harbour.example"},
	"Maren":   {0.95, 0.9, 0.05, 0.55, "quill@harbour.example"},
	"Tobias":  {0.3, 0.5, 0.7, 0.05, ""},
	"Caspian": {0.6, 0.6, 0.3, 0.3, ""},
}

// homeWeeks is for how many weeks back practice was published and reported.
const homeWeeks = 7

// atHome publishes the weeks of a student's practice up to a day, and lets the
// family report on them. It draws its chances apart from the lessons, so that
// these stay the same.
func atHome(
	ctx context.Context,
	st *store.Store,
	studio string,
	s student,
	l store.Ladder,
	day time.Time,
	sim *simulation,
	seed uint64,
) error {
	first, _, _ := strings.Cut(s.Name, " ")
	h, reports := habits[first]
	if !reports {
		return nil
	}
	token := make([]byte, 32)
	rand.Read(token)
	if err := st.SetFamilyToken(ctx, store.Family{Studio: studio, Ladder: l.ID, Token: base64.RawURLEncoding.EncodeToString(token), Expires: day.AddDate(0, 0, 120)}); err != nil {
		return err
	}
	if err := st.SetFamilyEmail(ctx, studio, l.ID, h.email); err != nil {
		return err
	}
	read := reader(ctx, st, studio, sim.lib)
	chance := mathrand.New(mathrand.NewPCG(seed, 99))
	for back := min(homeWeeks, s.Weeks); back > 0; back-- {
		lesson := day.AddDate(0, 0, s.DayOffset-7*back)
		start := lesson.AddDate(0, 0, 1)
		plan, err := week.Make(practice(s, l, start, sim, read))
		if err != nil {
			return err
		}
		w := store.PracticeWeek{
			Ladder:      l.ID,
			Start:       start,
			Published:   &plan,
			PublishedAt: civil.At(lesson, l.Lessons.Slots[0].StartsAt+l.Lessons.Slots[0].Minutes, sim.zone),
		}
		if err := st.SavePracticeWeek(ctx, studio, w, nil); err != nil {
			return err
		}
		if _, err := st.Append(ctx, studio, l.ID, h.report(plan, day, sim, chance)); err != nil {
			return err
		}
	}
	return nil
}

// practice is what a week is made from as it stood on its first day.
func practice(s student, l store.Ladder, start time.Time, sim *simulation, read func(id string) *analysis.Piece) week.Input {
	var log []studentlog.Entry
	for _, e := range sim.log {
		if civil.Of(e.At, sim.zone) < civil.On(start) {
			log = append(log, e)
		}
	}
	now := standing.Fold(
		log,
		standing.Context{Library: sim.lib, Skills: sim.skills, Family: sim.family, Policy: standing.DefaultPolicy(), Day: start, Zone: sim.zone},
	)
	in := week.Input{Start: start, Practises: l.PracticeDays, Minutes: l.PracticeMinutes, Age: l.Profile().Age(start), ReviewShare: 0.45}
	for _, id := range now.In(standing.Working) {
		ms := now.Materials[id]
		w := week.Work{Material: sim.lib[id], RunDue: ms.RunDue, WeeksOn: int(civil.On(start)-now.Day(ms.Assigned)) / 7, HandsApart: l.HandsApart}
		if ms.Points > 0 {
			w.Progress = float64(ms.Full) / float64(ms.Points)
		}
		if o := read(id); o != nil {
			tree := o.Chunks(o.LeafBars(chunk.LeafBars(in.Age), nil), nil)
			w.Tree = &tree
			w.Opening = o.Opening(naming.Words{}.Note)
			for _, b := range o.Score.Bars {
				w.Quarters = append(w.Quarters, b.Length.Float())
			}
		}
		in.Works = append(in.Works, w)
	}
	learned := now.In(standing.Cleared, standing.Polished)
	slices.SortFunc(learned, func(a, b string) int {
		return now.Materials[a].LastPlayed.Compare(now.Materials[b].LastPlayed)
	})
	for _, id := range learned[:min(4, len(learned))] {
		in.Reviews = append(in.Reviews, sim.lib[id])
	}
	return in
}

// reader reads scores of the studio; nil for a material without one.
func reader(ctx context.Context, st *store.Store, studio string, lib material.Library) func(id string) *analysis.Piece {
	return func(id string) *analysis.Piece {
		m := lib[id]
		file, err := st.ScoreFile(ctx, studio, id)
		if err != nil {
			return nil
		}
		family, _ := instrument.FamilyOf(m.Instrument)
		_, pieces, err := scorefile.Pieces(file.Data, family == instrument.Keyboard)
		if err != nil {
			return nil
		}
		return analysis.Of(pieces[0], m.Instrument)
	}
}

// report is what a family ticks on the days of a week before a day.
func (h habit) report(p week.Plan, before time.Time, sim *simulation, chance *mathrand.Rand) []studentlog.Entry {
	var out []studentlog.Entry
	for _, d := range p.Days {
		if d.Rest || len(d.Items) == 0 || !d.Date.Before(before) || chance.Float64() > h.keeps {
			continue
		}
		at := civil.At(d.Date, 17*60+chance.IntN(90), sim.zone)
		add := func(e studentlog.Entry) {
			at = at.Add(time.Duration(1+chance.IntN(4)) * time.Minute)
			e.ID, e.At, e.Actor = sim.ids.next(at), at, studentlog.Family
			out = append(out, e)
		}
		if last := d.Items[len(d.Items)-1]; last.Kind == week.Review && chance.Float64() < h.joyful/2 {
			add(studentlog.Entry{Kind: studentlog.Liking, Material: last.Material, Sign: studentlog.PlayedFirst})
		}
		for _, it := range d.Items {
			if chance.Float64() > h.all {
				break
			}
			felt := studentlog.Fine
			switch x := chance.Float64(); {
			case x < h.joyful:
				felt = studentlog.Joyful
			case x < h.joyful+h.hard:
				felt = studentlog.Hard
			}
			add(studentlog.Entry{Kind: studentlog.Practised, Day: d.Date.Format(time.DateOnly), Item: it.Key, Times: it.Times, Felt: felt})
		}
	}
	return out
}
