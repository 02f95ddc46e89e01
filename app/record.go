package app

import (
	"context"
	"errors"
	"slices"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/admission"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

// Happened is an entry of a lesson with what it brings along.
type Happened struct {
	studentlog.Entry
	// Exercise is the id of the one that is taken up; empty for none. InLesson says that it was entered in the lesson itself.
	Exercise string
	InLesson bool
}

// Record adds entries to the log of a student, all or none, with what they bring along: the lesson that has begun, exercises that
// are new in the library, the studio's bench. It says how many were new.
func Record(ctx context.Context, d *open.Loader, ladder string, list []Happened) (added int, err error) {
	s, err := d.Student(ctx, ladder)
	if err != nil {
		return 0, err
	}
	err = d.Store.Together(ctx, func(ctx context.Context) (err error) {
		added, err = recorded(ctx, d, s, slices.Clone(list))
		return err
	})
	return added, err
}

func recorded(ctx context.Context, d *open.Loader, s open.Student, list []Happened) (int, error) {
	if slices.ContainsFunc(list, func(e Happened) bool { return e.InLesson && s.Local(e.At).Equal(s.Today) }) {
		if err := begin(ctx, d, s); err != nil {
			return 0, err
		}
	}
	taken := false
	for i, e := range list {
		if e.Exercise == "" || e.Kind != studentlog.Assigned {
			continue
		}
		m, err := d.TakeExercise(ctx, s, e.Exercise)
		if err != nil {
			return 0, err
		}
		list[i].Material, taken = m.ID, true
	}
	if taken { // it may be new in the library
		var err error
		if s, err = d.Student(ctx, s.Ladder); err != nil {
			return 0, err
		}
	}
	entries := make([]studentlog.Entry, len(list))
	for i, e := range list {
		entries[i] = admission.Filled(s.Student.Studio, e.Entry)
		entries[i].Material = s.Of().Meant(entries[i].Material)
		if err := admission.Admit(s.Student, entries[i], entries[:i]); err != nil {
			return 0, notAdmitted(s, err)
		}
	}
	added, err := d.Store.Append(ctx, s.Tenant.ID, s.Ladder, entries)
	if err != nil {
		return 0, err
	}
	for _, e := range entries { // what the studio's own bench measures is asked once
		if e.Setup != nil && e.Setup.At() == setup.Studio {
			if err := d.Store.SetBench(ctx, s.Tenant.ID, setup.AskedFor(s.OnInstrument()), e.Setup.Bench()); err != nil {
				return 0, err
			}
		}
	}
	return added, nil
}

// notAdmitted says why something cannot be recorded.
func notAdmitted(s open.Student, err error) error {
	var why admission.EntryError
	switch {
	case !errors.As(err, &why):
		return err
	case why.Kind == admission.NoSuchMaterial:
		return refusal.NoMaterial
	}
	return refusal.Invalid(s.Of().Names().NotAdmitted(why, s.Student))
}
