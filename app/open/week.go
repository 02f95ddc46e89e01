package open

import (
	"context"
	"slices"
	"time"

	"patientladder/core/planning/inweek"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// Week is a week of practice with what was kept of it.
type Week struct {
	inweek.Week
	Kept store.PracticeWeek
}

// Week opens the week that begins on a day; a zero day is the one that is practised now.
func (d *Loader) Week(ctx context.Context, a Ahead, start time.Time) (Week, error) {
	if start.IsZero() {
		start = a.WeekStart(a.Today)
	}
	kept, err := d.Store.PracticeWeek(ctx, a.Tenant.ID, a.Ladder, start)
	if err != nil {
		return Week{Kept: kept}, err
	}
	return d.Solve(ctx, a, kept)
}

// Solve lays a week out by what was set by hand in it, and by what home showed of the week before.
func (d *Loader) Solve(ctx context.Context, a Ahead, kept store.PracticeWeek) (Week, error) {
	before, err := d.Before(ctx, a.Opened, a.Standing.Home, kept.Start)
	if err != nil {
		return Week{Kept: kept}, err
	}
	return d.Lay(ctx, a, kept, before)
}

// Lay lays a week out by what was set by hand in it and by what the week before it left.
func (d *Loader) Lay(ctx context.Context, a Ahead, kept store.PracticeWeek, before inweek.Before) (Week, error) {
	w, err := inweek.Lay(&a.StudentOutlook, kept.Start, kept.Hand, before, d.Reader(ctx, a.Tenant))
	return Week{w, kept}, err
}

// Before is what the latest week before a day left, and what these reports show of it.
func (d *Loader) Before(ctx context.Context, s Student, reports []standing.Report, day time.Time) (inweek.Before, error) {
	resting, err := d.Resting(ctx, s)
	if err != nil {
		return inweek.Before{}, err
	}
	if !slices.ContainsFunc(reports, func(r standing.Report) bool { return r.FromHome }) {
		return inweek.Before{Resting: resting}, nil // nothing was reported within the weeks that count
	}
	published, err := d.Store.WeekBefore(ctx, s.Tenant.ID, s.Ladder, day)
	out := inweek.BeforeOf(s.Student, SetWeeks(s.Student, published), reports, day)
	out.Resting = resting
	return out, err
}

// Resting are the materials that rest at home until a note that may be about pain is answered.
func (d *Loader) Resting(ctx context.Context, s Student) (map[string]time.Time, error) {
	notes, err := d.Store.Notes(ctx, s.Tenant.ID, s.Ladder, s.Now.AddDate(0, 0, -withfamily.NoteDays))
	return withfamily.Resting(s.Student, notes), err
}

// ForFamily is a published week as a family reads it now: as its days fall, and without what rests.
func (d *Loader) ForFamily(ctx context.Context, s Student, w store.PracticeWeek) (week.Plan, error) {
	resting, err := d.Resting(ctx, s)
	return withfamily.Rested(s.Student, week.Stretched(*w.Published, s.WeekDays(w.Start)), resting), err
}

// Review says how learned pieces are kept, with the share of review of the week that is practised now.
func (d *Loader) Review(ctx context.Context, a Ahead) (inweek.ReviewState, error) {
	w, err := d.Week(ctx, a, time.Time{})
	return inweek.ReviewOf(a.StudentOutlook.Student, w.Week), err
}

// SetWeeks are published weeks as their days fall now.
func SetWeeks(s studentplan.Student, published []store.PracticeWeek) (out []studentplan.SetWeek) {
	for _, w := range published {
		out = append(out, studentplan.SetWeek{Start: w.Start, Plan: week.Stretched(*w.Published, s.WeekDays(w.Start))})
	}
	return out
}
