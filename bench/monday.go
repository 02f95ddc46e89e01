package main

import (
	"fmt"
	"io"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/parallel"
	"patientladder/core/library/instrument"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/outlook"
	"patientladder/core/student/standing"
	"patientladder/core/way"
)

// monday prints what it costs to compute the week of a whole studio from its
// logs: every standing, what the forecasts learn, dates, previews and review.
func monday(w io.Writer, skills skill.Catalogue) {
	s := invent(skills, 4)
	entries := 0
	for _, p := range s.students {
		entries += len(p.log)
	}
	var st []*standing.Standing
	var model *forecast.Model
	ahead := 0
	fold := cost(func() error { st = s.standings(skills); return nil })
	learn := cost(func() error { model = s.learn(st); return nil })
	look := cost(func() error { ahead = s.look(skills, st, model); return nil })
	fmt.Fprintln(w, "Monday plan\tentries\tstandings\tlearn\tdates, previews, review\tall\taim\t")
	fmt.Fprintf(
		w,
		"%d students, 3 years\t%d\t%s\t%s\t%s\t%s\tunder 50 ms\t\n",
		len(s.students),
		entries,
		ms(fold),
		ms(learn),
		ms(look),
		ms(fold+learn+look),
	)
	fmt.Fprintf(w, "rungs ahead with dates\t%d\t\t\t\t\t\t\t\t\n", ahead)
}

func (s invented) standings(skills skill.Catalogue) []*standing.Standing {
	out := make([]*standing.Standing, len(s.students))
	parallel.Each(len(out), func(i int) {
		p := s.students[i]
		out[i] = standing.Fold(
			p.log,
			standing.Context{Library: s.lib, Skills: skills, Family: instrument.Keyboard, Policy: way.Default().Standing(), Day: s.day},
		)
	})
	return out
}

func (s invented) learn(st []*standing.Standing) *forecast.Model {
	of := make([]forecast.Moments, len(s.students)) // kept a student in the server, here made anew
	parallel.Each(len(of), func(i int) {
		of[i] = forecast.MomentsOf(
			outlook.Observed(s.students[i].id, st[i].Clearings(), s.lib, nil, func(t time.Time) time.Time { return t.Truncate(24 * time.Hour) }),
		)
	})
	all := make(map[string]forecast.Moments, len(of))
	for i, p := range s.students {
		all[p.id] = of[i]
	}
	return forecast.Learn(all, forecast.DefaultPrior())
}

// look makes every outlook and the review of the week; it returns how many rungs have dates.
func (s invented) look(skills skill.Catalogue, st []*standing.Standing, model *forecast.Model) int {
	wy := way.Default()
	policy := wy.Standing()
	dated := make([]int, len(s.students))
	parallel.Each(len(s.students), func(i int) {
		p := s.students[i]
		o := outlook.Of(outlook.Input{
			Student: p.id, Standing: st[i], Library: s.lib, Placed: s.placed, Skills: skills, Leap: policy.Leap, Preview: wy.Preview(),
			Model: model, Lessons: calendar.New(s.day, time.Monday, nil), Day: s.day, Near: true,
		})
		o.Review(st[i].In(standing.Cleared, standing.Polished), wy.ReviewShare*20*6, wy.Review(), policy.Memory)
		dated[i] = len(o.When)
	})
	all := 0
	for _, n := range dated {
		all += n
	}
	return all
}
