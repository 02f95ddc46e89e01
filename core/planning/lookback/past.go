// Package lookback tells what happened to a student: which lessons of the calendar were, what was entered in each, what was set
// then, and what is often noted. It reads the log and the calendar and changes nothing.
package lookback

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// PastLesson is a day on which something was recorded in a lesson, or on which there was one by the calendar.
type PastLesson struct {
	Day   time.Time
	State Became
	// Dated is the lesson of the calendar on that day; its ID is empty where there was none.
	Dated calendar.Lesson
	// Pieces are the materials that were played, in the order in which they came; Cleared those that were cleared.
	Pieces, Cleared []string
	// Notes are the words of observation, WentWell what went well, Bring what was to be brought to the next one.
	Notes, WentWell, Bring []string
	// Entries are all of the day as they count, in their order.
	Entries []*studentlog.Entry
}

// Past are the lessons that were, the latest first; live is the log as it counts.
func Past(s studentplan.Student, live []*studentlog.Entry) []PastLesson {
	byDay := map[time.Time]*PastLesson{}
	on := func(day time.Time) *PastLesson {
		if byDay[day] == nil {
			byDay[day] = &PastLesson{Day: day, State: OnlyPlanned}
		}
		return byDay[day]
	}
	for _, e := range live {
		if e.InLesson() {
			here := on(s.Local(e.At))
			here.add(e)
			if here.State != Taught && ofLesson(s, e) {
				here.State = Taught
			}
		}
	}
	for _, l := range s.Timetable().Between(s.Timetable().Begin(), s.Today) {
		if l.Day.After(s.Today) {
			continue
		}
		here, state := byDay[l.Day], BecameOf(s, l)
		if here == nil {
			if state != WasCanceled && state != WasMissed && state != NotEntered {
				continue
			}
			here = &PastLesson{Day: l.Day, State: state}
			byDay[l.Day] = here
		}
		if here.State != Taught && state == NotEntered {
			here.State = state // what was arranged that day is no lesson
		}
		here.Dated = l
	}
	out := make([]PastLesson, 0, len(byDay))
	for _, p := range byDay {
		out = append(out, *p)
	}
	slices.SortFunc(out, func(a, b PastLesson) int { return b.Day.Compare(a.Day) })
	return out
}

func (p *PastLesson) add(e *studentlog.Entry) {
	p.Entries = append(p.Entries, e)
	if e.Material != "" && !slices.Contains(p.Pieces, e.Material) {
		p.Pieces = append(p.Pieces, e.Material)
	}
	switch e.Kind {
	case studentlog.Cleared:
		p.Cleared = append(p.Cleared, e.Material)
	case studentlog.Note:
		p.Notes = append(p.Notes, e.Text)
	case studentlog.WentWell:
		p.WentWell = append(p.WentWell, e.Text)
	case studentlog.Bring:
		p.Bring = append(p.Bring, e.Text)
	}
}

// Around are the days of the lessons before and after a day, of the lessons that were, the latest first; zero
// for none.
func Around(past []PastLesson, day time.Time) (before, after time.Time) {
	for _, p := range past {
		switch {
		case p.Day.After(day):
			after = p.Day // the last one seen is the nearest
		case p.Day.Before(day):
			return p.Day, after
		}
	}
	return before, after
}

// Matching are the lessons in which all words of a search come up: in what was recorded, as said says it,
// or in the title of a piece.
func Matching(s studentplan.Student, past []PastLesson, search string, said func(*studentlog.Entry) string) []PastLesson {
	words := strings.Fields(strings.ToLower(search))
	if len(words) == 0 {
		return past
	}
	return slices.DeleteFunc(slices.Clone(past), func(p PastLesson) bool {
		var text strings.Builder
		for _, e := range p.Entries {
			text.WriteString(strings.ToLower(said(e) + "\n" + s.Library[e.Material].Title + "\n"))
		}
		return slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(text.String(), w) })
	})
}

// LastTime is what a lesson opens with.
type LastTime struct {
	// Day of the last lesson in which something was recorded; zero for none.
	Day time.Time
	PastLesson
	// OpenSpots counts the hard spots that are still open, by material, of the pieces in work.
	OpenSpots map[string]int
}

// LastTimeOf is the last lesson before a day; ok is false where there was none.
func LastTimeOf(s studentplan.Student, live []*studentlog.Entry, day time.Time) (LastTime, bool) {
	for _, p := range Past(s, live) {
		if p.Day.Before(day) && p.State == Taught {
			out := LastTime{Day: p.Day, PastLesson: p, OpenSpots: map[string]int{}}
			for _, id := range s.LessonPieces() {
				if n := s.Standing.Materials[id].OpenSpots(); n > 0 {
					out.OpenSpots[id] = n
				}
			}
			return out, true
		}
	}
	return LastTime{}, false
}

// EntryTime is when an entry is put that is added to a lesson that was: after the last one of its day, else
// at the beginning of the lesson of the calendar, else at noon.
func EntryTime(s studentplan.Student, live []*studentlog.Entry, day time.Time) time.Time {
	last := time.Time{}
	for _, e := range live {
		if e.InLesson() && s.Local(e.At).Equal(day) && e.At.After(last) {
			last = e.At
		}
	}
	begins := civil.At(day, 12*60, s.Zone)
	for _, l := range s.Timetable().On(day) {
		if l.Held() {
			begins = civil.At(day, l.StartsAt, s.Zone)
			if last.Before(begins) {
				last = time.Time{} // what was arranged before the lesson
			}
		}
	}
	if last.IsZero() {
		return begins
	}
	if next := last.Add(time.Second); s.Local(next).Equal(day) {
		return next
	}
	return last
}

// Had are the pieces that an entry on a day could be about: those in hand now, then those that were assigned
// or learned by that day, in their order.
func Had(s studentplan.Student, day time.Time) []string {
	out := s.LessonPieces()
	for _, id := range s.In(standing.Working, standing.Resting, standing.Cleared, standing.Polished) {
		m := s.Standing.Materials[id]
		begun := m.Assigned
		if begun.IsZero() {
			begun = m.ClearedAt
		}
		if !slices.Contains(out, id) && !s.Local(begun).After(day) {
			out = append(out, id)
		}
	}
	return out
}
