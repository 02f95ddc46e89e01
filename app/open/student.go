package open

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/way"
	"patientladder/core/wording/tongue"
	"patientladder/store"
)

// Student is a student of a studio.
type Student struct {
	studentplan.Student
	Tenant store.Studio
	Row    store.Ladder
	// Way is the student's: the studio's with what differs for this student.
	Way way.Way

	desk    *Loader
	aliases map[string]string
	table   material.Library
}

// Of is the studio of the student.
func (s Student) Of() Studio { return Studio{s.Student.Studio, s.Tenant, s.aliases, s.table} }

// For opens a student of a studio without the standing.
func (d *Loader) For(s Studio, l store.Ladder) (Student, error) {
	w, err := s.Tenant.WayOf(l.Teacher)
	if err == nil {
		w, err = w.With(l.Own)
	}
	if err != nil {
		return Student{}, fmt.Errorf("the way of ladder %s is damaged: %w", l.ID, err)
	}
	if l.Approach != "" {
		w.Approach = l.Approach
	}
	out := Student{
		Student: studentplan.Student{Studio: s.Studio, Profile: l.Profile()},
		Tenant:  s.Tenant,
		Row:     l,
		desk:    d,
		aliases: s.aliases,
		table:   s.table,
	}
	return out.Under(w), nil
}

// Under is the student under another way of teaching; the standing stays.
func (s Student) Under(w way.Way) Student {
	s.Way, s.Policy = w, w.Planning()
	if s.RetentionScale > 0 {
		s.Policy.Standing.Memory = s.Policy.Standing.Memory.Scaled(s.RetentionScale)
	}
	return s
}

// Student opens one student.
func (d *Loader) Student(ctx context.Context, ladder string) (Student, error) {
	s, err := d.Studio(ctx)
	if err != nil {
		return Student{}, err
	}
	l, err := d.Ladder(ctx, ladder)
	if err != nil {
		return Student{}, err
	}
	return d.Open(ctx, s, l)
}

// Open opens a student of a studio, with the standing as it was kept or folded anew.
func (d *Loader) Open(ctx context.Context, s Studio, l store.Ladder) (Student, error) {
	out, err := d.For(s, l)
	if err != nil {
		return out, err
	}
	key := out.standingKey()
	var ok bool
	if out.Standing, ok = d.kept.standings.Get(key); ok {
		return out, nil
	}
	body, ok, err := d.Store.Snapshot(ctx, s.Tenant.ID, l.ID, key.String())
	if err != nil {
		return out, err
	}
	if ok {
		if out.Standing, err = standing.Decode(body); err == nil {
			d.kept.standings.Add(ctx, key, out.Standing)
			return out, nil
		}
	}
	return out, d.fold(ctx, &out)
}

// Students opens the students of a studio for one instrument ("" for all), in the
// order of their lessons; those who are gone are not among them. What is kept and not in memory comes in one query for all of them.
func (d *Loader) Students(ctx context.Context, s Studio, instrument string) ([]Student, error) {
	ladders, err := d.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	var out []Student
	missing := false
	for _, l := range ladders {
		if instrument != "" && l.Instrument != instrument || l.Profile().Gone(s.Today) {
			continue
		}
		x, err := d.For(s, l)
		if err != nil {
			return nil, err
		}
		var ok bool
		x.Standing, ok = d.kept.standings.Get(x.standingKey())
		missing = missing || !ok
		out = append(out, x)
	}
	if !missing {
		return out, nil
	}
	kept, err := d.Store.Snapshots(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	// After a change of the library or the way every standing is folded anew: side by side.
	errs := make([]error, len(out))
	each(ctx, len(out), func(i int) {
		x := &out[i]
		if x.Standing != nil {
			return
		}
		if k := kept[x.Ladder]; k.Key == x.standingKey().String() {
			if x.Standing, _ = standing.Decode(k.Body); x.Standing != nil { // a damaged one is folded anew
				d.kept.standings.Add(ctx, x.standingKey(), x.Standing)
				return
			}
		}
		errs[i] = d.fold(ctx, x)
	})
	return out, errors.Join(errs...)
}

// standingKey names everything that the standing of a ladder is folded from: the rules of the fold, the log, which only
// grows, the library with the skills, the instrument's family, the policy, the zone of its days, and the day.
func (s Student) standingKey() Key {
	return keyOf(
		s.Tenant.ID,
		keptStanding,
		s.Ladder,
		standing.FoldVersion,
		s.desk.catalogue,
		s.Row.Entries,
		s.Tenant.LibraryVersion,
		s.Family(),
		s.policyKey(),
		s.Zone,
		s.Today.Format(time.DateOnly),
	)
}

// fold folds the standing of a student anew from the log, and keeps it.
func (d *Loader) fold(ctx context.Context, s *Student) error {
	log, err := d.Log(ctx, *s)
	if err != nil {
		return err
	}
	s.Standing = standing.Fold(
		log,
		standing.Context{Library: s.Library, Skills: s.Skills, Family: s.Family(), Policy: s.Policy.Standing, Day: s.Today, Zone: s.Zone},
	)
	d.kept.standings.Add(ctx, s.standingKey(), s.Standing)
	body, err := s.Standing.Encode()
	if err != nil {
		return err
	}
	return d.Store.SaveSnapshot(ctx, s.Tenant.ID, s.Ladder, store.Kept{Key: s.standingKey().String(), Body: body})
}

// Tongue is the language in which a family is spoken to: its own choice, else the studio's.
func (s Student) Tongue(f store.Family) tongue.Tongue {
	return tongue.Of(cmp.Or(f.Language, s.Tenant.Language))
}

// Plain are opened students as the rules know them, in their order.
func Plain(opened []Student) []studentplan.Student {
	out := make([]studentplan.Student, len(opened))
	for i, x := range opened {
		out[i] = x.Student
	}
	return out
}

// ByLadder are opened students by the ids of their ladders.
func ByLadder(opened []Student) map[string]Student {
	out := make(map[string]Student, len(opened))
	for _, x := range opened {
		out[x.Ladder] = x
	}
	return out
}
