package studentplan

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/review"
	"patientladder/core/student/standing"
)

// Fading is the chance under which a learned piece is called fading (default).
const Fading = 0.8

// Recall is the chance, 0 to 1, that a learned material still goes today.
func (s Student) Recall(id string) float64 {
	return s.Standing.Materials[id].Recall(s.Today, s.Policy.Standing.Memory)
}

// Learned returns the cleared materials that are kept in review, the one most faded first; of
// those that are as sure the one played longest ago.
//
// Of exercises those count that no later step keeps alive, and of each type only the most faded:
// scales are kept by going round, a key at a time. One that was heard today stays the one of its
// type, so that not all are asked for one after the other.
func (s Student) Learned() []string {
	over := s.Progress().Superseded(s.OnInstrument())
	ids := slices.DeleteFunc(s.Standing.In(standing.Cleared, standing.Polished), func(id string) bool {
		return over[s.Library[id].Exercise] || s.longAgo(id) || s.isSection(id)
	})
	type kept struct {
		id   string
		sure float64
		last time.Time
	}
	list := make([]kept, len(ids))
	curve := s.Policy.Standing.Memory.Curve()
	for i, id := range ids {
		m := s.Standing.Materials[id]
		list[i] = kept{id, curve.Recall(m.Memory, float64(m.Unheard(s.Today))), m.LastPlayed}
	}
	slices.SortStableFunc(list, func(a, b kept) int { return cmp.Or(cmp.Compare(a.sure, b.sure), a.last.Compare(b.last)) })
	for i, k := range list {
		ids[i] = k.id
	}
	turn := map[string]string{}
	kind := func(id string) string {
		kind, _, _ := strings.Cut(s.Library[id].Exercise, "/")
		return kind
	}
	for _, id := range ids {
		if k := kind(id); k != "" && (turn[k] == "" || s.playedToday(id)) {
			turn[k] = id
		}
	}
	return slices.DeleteFunc(ids, func(id string) bool { return kind(id) != "" && turn[kind(id)] != id })
}

// reviewFromBefore is for how many days what was known before is kept in review without being played here
// (default): what is older comes back when it is played.
const reviewFromBefore = 120

// longAgo says that a material was known before, and so long ago that nobody asks for it.
func (s Student) longAgo(id string) bool {
	m := s.Standing.Materials[id]
	return !m.Played() && m.Unheard(s.Today) > reviewFromBefore
}

// isSection says that a material is a section of a unit that is learned: the unit is reviewed.
func (s Student) isSection(id string) bool {
	unit := s.Standing.Materials[s.Library[id].PartOf]
	return unit != nil && (unit.State == standing.Cleared || unit.State == standing.Polished)
}

// settlingDays is for how many days after it was cleared a piece is played on most days (default).
const settlingDays = 14

// Settling are the pieces that were cleared less than two weeks before a day, the latest first. Exercises and cards are none: they
// come back by the turn of their kind.
func (s Student) Settling(day time.Time) []string {
	cleared := func(id string) time.Time { return s.Local(s.Standing.Materials[id].ClearedAt) }
	ids := slices.DeleteFunc(s.Standing.In(standing.Cleared, standing.Polished), func(id string) bool {
		strand := s.Library[id].Strand
		ago := civil.Between(cleared(id), day)
		return strand != material.Method && strand != material.Repertoire || !s.Standing.Materials[id].Played() ||
			ago < 0 || ago >= settlingDays || s.isSection(id)
	})
	slices.SortStableFunc(ids, func(a, b string) int { return cleared(b).Compare(cleared(a)) })
	return ids
}

func (s Student) playedToday(id string) bool {
	return s.Local(s.Standing.Materials[id].LastPlayed).Equal(s.Today)
}

// mostHeard is how many learned pieces a lesson offers to be heard at the least, where its plan has fewer (default).
const mostHeard = 3

// Heard is a learned piece that a lesson offers.
type Heard struct {
	Material string
	// Today says that it was heard today already.
	Today bool
}

// ToHear are the learned pieces that a lesson offers: those that are planned for it in the order of the plan, then the most
// faded; those heard today stay in view beside them. What was cleared today is not heard again.
func (s Student) ToHear(planned []string) []Heard {
	var out []Heard
	waiting := 0
	learned := s.Learned()
	planned = slices.DeleteFunc(slices.Clone(planned), func(id string) bool { return !s.Begun(id) })
	rest := slices.DeleteFunc(learned, func(id string) bool { return slices.Contains(planned, id) })
	for i, id := range slices.Concat(planned, rest) {
		today := s.playedToday(id)
		if s.Local(s.Standing.Materials[id].ClearedAt).Equal(s.Today) || !today && waiting >= mostHeard && i >= len(planned) {
			continue
		}
		if !today {
			waiting++
		}
		out = append(out, Heard{id, today})
	}
	return out
}

// StarvedAfter is for how many days a learned piece may go without being played.
func (s Student) StarvedAfter() int { return s.Policy.Review.StarvedAfterDays }

// Starved are the learned pieces that were not played for too long, the most faded first.
func (s Student) Starved() []string {
	return slices.DeleteFunc(s.Learned(), func(id string) bool { return !s.LeftTooLong(id) })
}

func (s Student) LeftTooLong(id string) bool {
	m := s.Standing.Materials[id]
	return m.Played() && m.Unheard(s.Today) > s.StarvedAfter()
}

// ForWeek chooses the learned pieces for the minutes of the week that are meant for review.
func (a *StudentOutlook) ForWeek() []review.Chosen {
	return a.pick(a.Policy.ReviewShare * float64(a.PracticeMinutes*a.PracticeDays()))
}

// ForLesson are the learned pieces that a lesson could hear, twice as many as its minutes of
// review hold, as the week would pick them.
func (a *StudentOutlook) ForLesson() []review.Chosen {
	return a.pick(2 * (a.Policy.ReviewShare*float64(a.LessonMinutes(a.Lessons.Day(0))) + lessonplan.ReviewPlay))
}

func (a *StudentOutlook) pick(minutes float64) []review.Chosen {
	return a.Review(a.Learned(), minutes, a.Policy.Review, a.Policy.Standing.Memory)
}
