package open

import (
	"context"
	"slices"

	"patientladder/account"
	"patientladder/store"
)

// Ladders are those of the studio that whoever is signed in sees in lists: one's own, those of a colleague whose lesson is
// covered today, for an owner those that nobody else has. A family and the program itself see all.
func (d *Loader) Ladders(ctx context.Context) ([]store.Ladder, error) {
	who := Actor(ctx)
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil || who.Role == "" {
		return all, err
	}
	covered, err := d.covered(
		ctx,
		who,
		slices.ContainsFunc(all, func(l store.Ladder) bool { return !who.Role.Teaches(who.Teacher, l.Teacher, false) }),
	)
	return slices.DeleteFunc(all, func(l store.Ladder) bool { return !who.Role.Teaches(who.Teacher, l.Teacher, covered[l.ID]) }), err
}

// covered are the ladders that somebody covers today; asked only where it makes a difference.
func (d *Loader) covered(ctx context.Context, who Who, matters bool) (map[string]bool, error) {
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
func (d *Loader) Ladder(ctx context.Context, id string) (store.Ladder, error) {
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

// Person is a student whom whoever is signed in may open: who has one of the ladders, or somebody without any. Private says
// that the notes are another teacher's: they are left out.
func (d *Loader) Person(ctx context.Context, id string) (p store.Person, private bool, err error) {
	who := Actor(ctx)
	if p, err = d.Store.Person(ctx, who.Studio, id); err != nil || who.Role == "" {
		return p, false, err
	}
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil {
		return p, false, err
	}
	all = slices.DeleteFunc(all, func(l store.Ladder) bool { return l.StudentID != id })
	may, err := d.opens(ctx, who)
	if err != nil || len(all) == 0 {
		return p, false, err
	}
	if !slices.ContainsFunc(all, may) {
		return store.Person{}, false, store.ErrNotFound
	}
	if private = !slices.ContainsFunc(all, func(l store.Ladder) bool { return who.Role.Keeps(who.Teacher, l.Teacher) }); private {
		p.Notes = ""
	}
	return p, private, nil
}

// opens says which ladders somebody may open.
func (d *Loader) opens(ctx context.Context, who Who) (func(l store.Ladder) bool, error) {
	covered, err := d.covered(ctx, who, who.Role == account.Teacher)
	return func(l store.Ladder) bool { return who.Role.Opens(who.Teacher, l.Teacher, covered[l.ID]) }, err
}

// Openable are the ladders that whoever is signed in may open, of one student ("" for all).
func (d *Loader) Openable(ctx context.Context, student string) ([]store.Ladder, error) {
	who := Actor(ctx)
	all, err := d.Store.Ladders(ctx, who.Studio)
	if err != nil {
		return nil, err
	}
	all = slices.DeleteFunc(all, func(l store.Ladder) bool { return student != "" && l.StudentID != student })
	if who.Role == "" {
		return all, nil
	}
	may, err := d.opens(ctx, who)
	return slices.DeleteFunc(all, func(l store.Ladder) bool { return !may(l) }), err
}

// OfThese are the notes of families of these ladders.
func OfThese(notes []store.Note, ladders []store.Ladder) []store.Note {
	have := map[string]bool{}
	for _, l := range ladders {
		have[l.ID] = true
	}
	return slices.DeleteFunc(notes, func(n store.Note) bool { return !have[n.Ladder] })
}
