package app

import (
	"context"
	"slices"
	"time"

	"patientladder/account"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/placing"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/person"
	"patientladder/store"
)

// Regret is how long a deletion can be taken back (default).
const Regret = 24 * time.Hour

// Enrolment is a student on an instrument with lesson times from a day on.
type Enrolment struct {
	// Ladder is the id that it gets, Instrument as it was typed; Sure says that it is meant though it looks like a slip.
	Ladder, Instrument string
	Sure               bool
	Slots              []calendar.Slot
	// From is the first day; zero for today. Book is put on the ladder; empty for none.
	From time.Time
	Book string
}

// Teaches is the teacher under whose name a student is added: a teacher's are their own; the owner's need no name.
func Teaches(ctx context.Context) string {
	if who := open.Actor(ctx); who.Role == account.Teacher {
		return who.Teacher
	}
	return ""
}

// AddStudent adds a student with a ladder and the lesson times, and puts the materials of a book on the ladder where one is named.
func AddStudent(ctx context.Context, d *open.Loader, p store.Person, e Enrolment) (s open.Studio, l store.Ladder, err error) {
	if s, err = d.Studio(ctx); err != nil {
		return s, l, err
	}
	if err := person.Check(p.Name, p.Born, p.Since, s.Today); err != nil {
		return s, l, refusal.Because(err)
	}
	e.From = s.Today
	if l, err = newLadder(ctx, s, p, e); err != nil {
		return s, l, err
	}
	return s, l, d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.AddPerson(ctx, s.Tenant.ID, p, l); err != nil || e.Book == "" {
			return err
		}
		return d.Store.PlaceRungs(ctx, s.Tenant.ID, l.ID, placing.OfBook(s.Library, e.Book, l.Instrument))
	})
}

// newLadder is a student on an instrument, who practises as new students do.
func newLadder(ctx context.Context, s open.Studio, p store.Person, e Enrolment) (l store.Ladder, err error) {
	l = store.Ladder{
		ID: e.Ladder, Teacher: Teaches(ctx), StudentID: p.ID, Name: p.Name, Called: p.Called, Born: p.Born, HandsApart: true,
	}
	if l.Instrument, err = open.Taught(e.Instrument, e.Sure); err != nil {
		return l, err
	}
	if l.Lessons, err = l.Lessons.SetSlots(e.From, e.Slots); err != nil {
		return l, refusal.Because(err)
	}
	l.PracticeDays, l.PracticeMinutes = studentplan.FirstPractice(l.Profile().Age(s.Today), l.Lessons.Slots)
	return l, nil
}

// AddInstrument adds an instrument to a student.
func AddInstrument(ctx context.Context, d *open.Loader, student string, e Enrolment) (s open.Studio, l store.Ladder, err error) {
	if s, err = d.Day(ctx); err != nil {
		return s, l, err
	}
	p, _, err := d.Person(ctx, student)
	if err != nil {
		return s, l, err
	}
	if l, err = newLadder(ctx, s, p, e); err != nil {
		return s, l, err
	}
	return s, l, d.Store.AddLadder(ctx, s.Tenant.ID, l)
}

// ChangeInstrument gives a ladder another instrument: the same ladder where nothing was recorded on it, else a new one, with the id
// of e and the same lesson times, and the old one ends today.
func ChangeInstrument(ctx context.Context, d *open.Loader, ladder string, e Enrolment) (s open.Studio, l store.Ladder, err error) {
	if s, err = d.Day(ctx); err != nil {
		return s, l, err
	}
	instrument, err := open.Taught(e.Instrument, e.Sure)
	if err != nil {
		return s, l, err
	}
	if l, err = d.Ladder(ctx, ladder); err != nil {
		return s, l, err
	}
	placed, err := d.Store.Rungs(ctx, s.Tenant.ID, l.ID)
	if err != nil {
		return s, l, err
	}
	if l.Entries == 0 && len(placed) == 0 {
		l.Instrument = instrument
		return s, l, d.Store.SetInstrument(ctx, s.Tenant.ID, l.ID, instrument)
	}
	next := l
	next.ID, next.Instrument, next.Entries, next.Own = e.Ladder, instrument, 0, nil
	next.Lessons = l.Lessons.CarriedOn(s.Today, e.Ladder)
	return s, next, d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.AddLadder(ctx, s.Tenant.ID, next); err != nil {
			return err
		}
		return d.Store.SetEnded(ctx, s.Tenant.ID, l.ID, s.Today)
	})
}

// GiveStudent hands a student on an instrument over to a colleague, for a day or, with a zero day, for good; nobody is the owner.
// The owner and the student's own teacher may.
func GiveStudent(ctx context.Context, d *open.Loader, ladder, to string, day time.Time) error {
	who := open.Actor(ctx)
	l, err := d.Ladder(ctx, ladder)
	if err != nil {
		return err
	}
	if !who.Role.Owns() && l.Teacher != who.Teacher {
		return refusal.Deny("Only the student’s own teacher or the owner hands a student over.")
	}
	if to != "" {
		list, err := d.Store.Teachers(ctx, who.Studio)
		if err != nil {
			return err
		}
		if !slices.ContainsFunc(list, func(t store.Teacher) bool { return t.ID == to && account.Role(t.Role).Publishes() }) {
			return refusal.Invalid("Nobody of this studio who teaches was named. Nothing was changed.")
		}
	}
	return d.Store.Together(ctx, func(ctx context.Context) (err error) {
		kind := "student-given"
		if day.IsZero() {
			err = d.Store.Give(ctx, who.Studio, l.ID, to)
		} else {
			kind, err = "lesson-covered", d.Store.Cover(ctx, who.Studio, l.ID, day, to)
		}
		if err != nil {
			return err
		}
		return noted(ctx, d, kind)
	})
}

// EraseStudent lets everything about a student go after the time of regret, and says when.
func EraseStudent(ctx context.Context, d *open.Loader, student string) (store.Person, time.Time, error) {
	p, _, err := d.Person(ctx, student)
	if err != nil {
		return p, time.Time{}, err
	}
	at := d.Now().Add(Regret)
	return p, at, marked(ctx, d, p.ID, at, "student-deleted")
}

// KeepStudent takes a deletion back.
func KeepStudent(ctx context.Context, d *open.Loader, student string) error {
	return marked(ctx, d, student, time.Time{}, "student-kept")
}

// marked sets when everything about a student goes, zero for never, and notes who said so.
func marked(ctx context.Context, d *open.Loader, student string, at time.Time, kind string) error {
	return d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.MarkErase(ctx, open.Actor(ctx).Studio, student, at); err != nil {
			return err
		}
		return noted(ctx, d, kind)
	})
}
