package app

import (
	"context"
	"time"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/store"
)

// Week is a week of practice with the student that it is laid out for.
type Week struct {
	open.Ahead
	open.Week
}

// WeekOn opens the week of a ladder that begins on a day; a zero day is the one that is practised now.
func WeekOn(ctx context.Context, d *open.Loader, ladder string, start time.Time) (Week, error) {
	a, err := d.Ahead(ctx, ladder, studentplan.Options{Near: true})
	if err != nil {
		return Week{}, err
	}
	w, err := d.Week(ctx, a, start)
	if err != nil {
		return Week{}, refusal.Because(err)
	}
	return Week{a, w}, nil
}

// Show notes a week as it was shown to the teacher, so that exactly this one can be published.
func (w Week) Show(ctx context.Context, d *open.Loader) error {
	return d.Store.NoteShownWeek(ctx, w.Tenant.ID, w.Ladder, w.Kept.Start, w.Plan.Fingerprint(), w.Plan)
}

// SetWeek keeps what the teacher set by hand in a week, and solves the rest again; version is that of the week that was seen.
func SetWeek(ctx context.Context, d *open.Loader, ladder string, start time.Time, h week.Hand, version int64) (Week, error) {
	w, err := WeekOn(ctx, d, ladder, start)
	if err != nil {
		return w, err
	}
	kept := w.Kept
	if w.IsOver(kept.Start, w.Today) {
		return w, refusal.Invalid("That week is over: it stays as it was.")
	}
	kept.Hand, kept.Version = h, version
	for _, id := range h.Adds {
		if _, known := w.Library[id]; !known {
			return w, refusal.NoMaterial
		}
	}
	if w.Week, err = d.Solve(ctx, w.Ahead, kept); err != nil {
		return w, refusal.Because(err)
	}
	if err := d.Store.SavePracticeWeek(ctx, w.Tenant.ID, kept, nil); err != nil {
		return w, err
	}
	w.Kept.Version = kept.Version + 1
	return w, nil
}

// Otherwise says that a week would be planned otherwise by now than it was shown: nothing was published.
type Otherwise struct {
	Shown week.Plan
	// Known says that what was shown is still known and can be published as it was.
	Known bool
}

func (Otherwise) Error() string { return "the week would be planned otherwise by now" }

// Publishing is what is published of a week: the print of the plan that the teacher saw, and whether it is to be that one
// though it would be planned otherwise by now.
type Publishing struct {
	Print   string
	AsShown bool
	Version int64
}

// PublishWeek shows the family exactly the plan that the teacher saw, and puts a message with the link into the mailbox where
// there is an address. It fails with Otherwise where the week would be planned otherwise by now.
func PublishWeek(ctx context.Context, d *open.Loader, ladder string, start time.Time, p Publishing) (Week, error) {
	w, err := WeekOn(ctx, d, ladder, start)
	if err != nil {
		return w, err
	}
	if w.IsOver(w.Kept.Start, w.Today) {
		return w, refusal.Invalid("That week is over: publish the one that comes.")
	}
	plan := w.Plan
	if p.Print != plan.Fingerprint() {
		shown, known, err := d.Store.ShownWeek(ctx, w.Tenant.ID, ladder, w.Kept.Start, p.Print)
		if err != nil {
			return w, err
		}
		if !known || !p.AsShown {
			return w, Otherwise{shown, known}
		}
		plan = shown
	}
	err = d.Store.Together(ctx, func(ctx context.Context) error {
		family, err := d.OpenLink(ctx, w.Tenant.ID, ladder, w.Today)
		if err != nil {
			return err
		}
		message, err := d.WeekMessages(ctx, w.Opened, family, w.Kept.Start, plan, w.Kept.Hand.Words)
		if err != nil {
			return err
		}
		kept := w.Kept
		kept.Version, kept.Published, kept.PublishedAt = p.Version, &plan, w.Now
		if err := d.Store.SavePracticeWeek(ctx, w.Tenant.ID, kept, message); err != nil {
			return err
		}
		kept.Version++
		w.Kept = kept
		return nil
	})
	return w, err
}

// SetFamilyEmail says where messages to a family go; an empty address is none.
func SetFamilyEmail(ctx context.Context, d *open.Loader, studio, ladder, email string) (f store.Family, err error) {
	err = d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.SetFamilyEmail(ctx, studio, ladder, email); err != nil {
			return err
		}
		f, err = d.Store.Family(ctx, studio, ladder)
		return err
	})
	return f, err
}
