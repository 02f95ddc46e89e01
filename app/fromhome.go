package app

import (
	"context"

	"patientladder/app/open"
	"patientladder/core/base/civil"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// Told is one thing that a family reports: a note, or what was done.
type Told struct {
	Note *withfamily.Note
	Done admission.Report
}

// Tell takes what a family reports about its student, all or none, and says how much of it was new.
func Tell(ctx context.Context, d *open.Loader, f store.Family, s open.Student, list []Told) (added int, err error) {
	published, err := d.Store.PublishedWeeks(ctx, f.Studio, f.Ladder, week.Reaching(s.Today, admission.OldestTick))
	if err != nil {
		return 0, err
	}
	entries, notes, err := told(s, open.SetWeeks(s.Student, published), list)
	if err != nil {
		return 0, notAdmitted(s, err)
	}
	err = d.Store.Together(ctx, func(ctx context.Context) error {
		ticks, err := d.Store.Append(ctx, f.Studio, f.Ladder, entries)
		if err != nil {
			return err
		}
		written, err := d.Store.AddNotes(ctx, f.Studio, f.Ladder, notes)
		if err != nil {
			return err
		}
		added = ticks + written
		for _, e := range entries {
			if day, none := civil.Parse(e.Day); none == nil { // what is practised needs no reminder
				if err := d.Store.DropReminder(ctx, f.Studio, f.Ladder, day.Date()); err != nil {
					return err
				}
			}
		}
		return nil
	})
	return added, err
}

// told makes entries and notes of what was told, in order; what was also played and is known by its title is liked.
func told(s open.Student, weeks []studentplan.SetWeek, list []Told) (entries []studentlog.Entry, notes []withfamily.Note, err error) {
	for _, t := range list {
		if t.Note == nil {
			e, err := admission.Tick(s.Student, t.Done, weeks, entries)
			if err != nil {
				return nil, nil, err
			}
			entries = append(entries, e)
			continue
		}
		note, err := withfamily.Noted(s.Student, *t.Note)
		if err != nil {
			return nil, nil, err
		}
		notes = append(notes, note)
		if liked, ok := withfamily.Liked(s.Student, note); ok && note.Kind == withfamily.AlsoPlayed {
			entries = append(entries, liked)
		}
	}
	return entries, notes, nil
}

// Answer keeps what the teacher answers to a note, empty for one that was seen; the family reads it on its page, and a message says
// that it is there. Answering alike again changes nothing.
func Answer(ctx context.Context, d *open.Loader, id, text string) error {
	s, err := d.Day(ctx)
	if err != nil {
		return err
	}
	n, err := d.Store.Note(ctx, s.Tenant.ID, id)
	if err != nil {
		return err
	}
	if _, err := d.Ladder(ctx, n.Ladder); err != nil {
		return err
	}
	if !n.AnsweredAt.IsZero() && text == n.Answer {
		return nil
	}
	return d.Store.Together(ctx, func(ctx context.Context) error {
		var messages []store.Message
		if text != "" {
			st, err := d.Student(ctx, n.Ladder)
			if err != nil {
				return err
			}
			f, err := d.OpenLink(ctx, s.Tenant.ID, n.Ladder, s.Today)
			if err != nil {
				return err
			}
			t := st.Tongue(f)
			letter := open.Letter{Kind: store.AboutAnswer, Subject: t.Say("mail.answer", "name", st.First()), Says: t.Say("mail.answer.body")}
			if messages, err = d.Announce(ctx, st, f, letter); err != nil {
				return err
			}
		}
		return d.Store.AnswerNote(ctx, s.Tenant.ID, id, text, s.Now, messages)
	})
}
