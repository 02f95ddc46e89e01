package open

import (
	"context"
	"slices"

	"patientladder/account"
	"patientladder/store"
)

// Ladders are those of the studio that whoever is signed in sees in lists: one's own, those of a colleague whose lesson is
// covered today, for an owner those that nobody else has. A family and the program itself see all.
func (d *Desk) Ladders(ctx context.Context) ([]store.Ladder, error) {
	who := Actor(ctx)
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil || who.Role == "" {
		return all, err
	}
	covered, err := d.covered(ctx, who, slices.ContainsFunc(all, func(l store.Ladder) bool { return !who.Role.Teaches(who.Teacher, l.Teacher, false) }))
	return slices.DeleteFunc(all, func(l store.Ladder) bool { return !who.Role.Teaches(who.Teacher, l.Teacher, covered[l.ID]) }), err
}

// covered are the ladders that somebody covers today; asked only where it makes a difference.
func (d *Desk) covered(ctx context.Context, who Who, matters bool) (map[string]bool, error) {
	if !matters {
		return nil, nil
	}
	day, err := d.Day(ctx)
	if err != nil {
		return nil, err
	}
	return d.Store.CoveredBy(ctx, who.Studio, who.Teacher, day.Today)
}

// Ladder is one that whoever is signed in may open; another one is not found.
func (d *Desk) Ladder(ctx context.Context, id string) (store.Ladder, error) {
	who := Actor(ctx)
	l, err := d.Store.Ladder(ctx, who.Studio, id)
	if err != nil || who.Role == "" || who.Role.Opens(who.Teacher, l.Teacher, false) {
		return l, err
	}
	covered, err := d.covered(ctx, who, true)
	if err == nil && !who.Role.Opens(who.Teacher, l.Teacher, covered[id]) {
		err = store.ErrNotFound
	}
	return l, err
}

// Person is a student whom whoever is signed in may open: who has one of the ladders, or somebody without any. Notes are for
// the own teacher.
func (d *Desk) Person(ctx context.Context, id string) (store.Person, error) {
	who := Actor(ctx)
	p, err := d.Store.Person(ctx, who.Studio, id)
	if err != nil || who.Role == "" {
		return p, err
	}
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil {
		return p, err
	}
	all = slices.DeleteFunc(all, func(l store.Ladder) bool { return l.StudentID != id })
	covered, err := d.covered(ctx, who, who.Role == account.Teacher)
	if err != nil {
		return p, err
	}
	opens := func(l store.Ladder) bool { return who.Role.Opens(who.Teacher, l.Teacher, covered[l.ID]) }
	if len(all) > 0 && !slices.ContainsFunc(all, opens) {
		return store.Person{}, store.ErrNotFound
	}
	if len(all) > 0 && !slices.ContainsFunc(all, func(l store.Ladder) bool {
		return l.Teacher == who.Teacher || l.Teacher == "" && who.Role == account.Owner
	}) {
		p.Notes = ""
	}
	return p, nil
}

// Openable are the ladders that whoever is signed in may open, of one student ("" for all).
func (d *Desk) Openable(ctx context.Context, student string) ([]store.Ladder, error) {
	who := Actor(ctx)
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil {
		return nil, err
	}
	all = slices.DeleteFunc(all, func(l store.Ladder) bool { return student != "" && l.StudentID != student })
	if who.Role == "" {
		return all, nil
	}
	covered, err := d.covered(ctx, who, who.Role == account.Teacher)
	return slices.DeleteFunc(all, func(l store.Ladder) bool { return !who.Role.Opens(who.Teacher, l.Teacher, covered[l.ID]) }), err
}

// Notes are those about a student that the own teacher keeps, whoever asks.
func (d *Desk) Notes(ctx context.Context, student string) (string, error) {
	p, err := d.Store.Person(ctx, Actor(ctx).Studio, student)
	return p.Notes, err
}

// OfThese are the notes of families of these ladders.
func OfThese(notes []store.Note, ladders []store.Ladder) []store.Note {
	have := map[string]bool{}
	for _, l := range ladders {
		have[l.ID] = true
	}
	return slices.DeleteFunc(notes, func(n store.Note) bool { return !have[n.Ladder] })
}
