package withfamily

import (
	"maps"
	"slices"
	"time"

	"patientladder/core/library/titles"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

// Resting are the materials that a student has and that notes name which may be about pain and wait for the teacher: until she has
// answered they are not practised at home. Each has the day from which it rests.
func Resting(s studentplan.Student, notes []Note) map[string]time.Time {
	var among []titles.Title
	for _, id := range slices.Sorted(maps.Keys(s.Standing.Materials)) {
		among = append(among, titles.Title{ID: id, Title: s.Library[id].Title})
	}
	out := map[string]time.Time{}
	for _, n := range notes {
		if !n.Open() || !n.Hurts() {
			continue
		}
		for _, t := range titles.Named(n.Text, among) {
			if day, known := out[t.ID]; !known || n.Day.Before(day) {
				out[t.ID] = n.Day
			}
		}
	}
	return out
}

// Rested is a published week without what rests, from the day on from which it does; what rests is told among what is left for later.
func Rested(s studentplan.Student, p week.Plan, resting map[string]time.Time) week.Plan {
	if len(resting) == 0 {
		return p
	}
	p.Days, p.NotYet = slices.Clone(p.Days), slices.Clone(p.NotYet)
	rested := map[string]bool{}
	for i, d := range p.Days {
		left := week.Day{Date: d.Date, Rest: d.Rest, Focus: d.Focus}
		for _, it := range d.Items {
			if from, rests := resting[it.Material]; rests && !d.Date.Before(from) {
				rested[it.Material] = true
				continue
			}
			left.Items = append(left.Items, it)
			left.Minutes += it.Minutes
		}
		p.Days[i] = left
	}
	for _, id := range slices.Sorted(maps.Keys(rested)) {
		p.NotYet = append(p.NotYet, week.Held{Kind: week.MayHurt, Title: s.Library[id].Title})
	}
	return p
}
