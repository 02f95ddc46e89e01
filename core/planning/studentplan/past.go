package studentplan

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Became says what became of a lesson of the calendar.
type Became string

// What became of a lesson.
const (
	ToCome      Became = "ahead"      // it is still to come, or goes on
	Taught      Became = "taught"     // something was entered on its day
	NotEntered  Became = "notEntered" // it took place by the calendar, and nothing was entered
	WasMissed   Became = "missed"     // it was entered that it did not take place
	WasCanceled Became = "cancelled"
	Forgotten   Became = "" // it was too long ago, or before the student was entered here: nobody asks
)

// Became says what became of a lesson.
func (s Student) Became(l calendar.Lesson) Became {
	over := l.Day.Before(s.Today) || l.Day.Equal(s.Today) && s.minuteNow() >= l.Ends()
	switch _, given := slices.BinarySearch(s.Standing.Given, civil.On(l.Day)); {
	case l.State == calendar.Cancelled:
		return WasCanceled
	case given && (over || s.GivenToday()):
		return Taught
	case slices.Contains(s.Standing.Missed, l.Day.Format(time.DateOnly)):
		return WasMissed
	case !over:
		return ToCome
	case !l.Held() || days(l.Day, s.Today) > standing.HomeDays || s.before(l, s.Profile.Added) || s.neverEntered():
		return Forgotten
	}
	return NotEntered
}

// newFor is for how many days a student is a new one of whom the first lesson may have been forgotten (default).
const newFor = 28

// neverEntered says that nothing was entered of the student's lessons for weeks, although the student is no new one: then they
// are not entered here, and nobody asks for each of them.
func (s Student) neverEntered() bool {
	if len(s.Standing.Given) > 0 {
		return false
	}
	return s.Profile.Added.IsZero() || s.Profile.Added.After(s.Now) || days(s.Local(s.Profile.Added), s.Today) > newFor
}

// before says that a lesson was over by a moment that has come.
func (s Studio) before(l calendar.Lesson, at time.Time) bool {
	return !at.After(s.Now) && !civil.At(l.Day, l.Ends(), s.Zone).After(at)
}

// LessonOn is the lesson of a day: one that takes place before one that does not; ok is false where there is none.
func (s Student) LessonOn(day time.Time) (out calendar.Lesson, ok bool) {
	for _, l := range s.Timetable().On(day) {
		if !ok || l.Held() && !out.Held() {
			out, ok = l, true
		}
	}
	return out, ok
}

// minuteNow is the time of day in the studio, in minutes after midnight.
func (s Studio) minuteNow() int {
	now := s.Now.In(s.Zone)
	return 60*now.Hour() + now.Minute()
}

// Unentered is a lesson of which nothing was entered.
type Unentered struct {
	Student Student
	Lesson  calendar.Lesson
}

// AllUnentered are the lessons of some students that took place by the calendar, and of which nothing was entered, the
// oldest first.
func AllUnentered(students []Student) (out []Unentered) {
	for _, s := range students {
		for _, l := range s.Timetable().Held(s.Today.AddDate(0, 0, -standing.HomeDays), s.Today) {
			if s.Became(l) == NotEntered {
				out = append(out, Unentered{s, l})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Unentered) int {
		return cmp.Or(a.Lesson.Day.Compare(b.Lesson.Day), a.Lesson.StartsAt-b.Lesson.StartsAt, strings.Compare(a.Student.Name, b.Student.Name))
	})
	return out
}

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
func (s Student) Past(live []*studentlog.Entry) []PastLesson {
	byDay := map[time.Time]*PastLesson{}
	on := func(day time.Time) *PastLesson {
		if byDay[day] == nil {
			byDay[day] = &PastLesson{Day: day, State: Taught}
		}
		return byDay[day]
	}
	for _, e := range live {
		if e.InLesson() {
			on(s.Local(e.At)).add(e)
		}
	}
	for _, l := range s.Timetable().Between(s.Timetable().Begin(), s.Today) {
		if l.Day.After(s.Today) {
			continue
		}
		if here := byDay[l.Day]; here != nil {
			here.Dated = l
			continue
		}
		switch state := s.Became(l); state {
		case WasCanceled, WasMissed, NotEntered:
			byDay[l.Day] = &PastLesson{Day: l.Day, State: state, Dated: l}
		}
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
func (s Student) Matching(past []PastLesson, search string, said func(*studentlog.Entry) string) []PastLesson {
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

// LastTime is the last lesson before a day; ok is false where there was none.
func (s Student) LastTime(live []*studentlog.Entry, day time.Time) (LastTime, bool) {
	for _, p := range s.Past(live) {
		if p.Day.Before(day) && p.State == Taught {
			out := LastTime{Day: p.Day, PastLesson: p, OpenSpots: map[string]int{}}
			for _, id := range s.InHand() {
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
func (s Student) EntryTime(live []*studentlog.Entry, day time.Time) time.Time {
	last := time.Time{}
	for _, e := range live {
		if e.InLesson() && s.Local(e.At).Equal(day) && e.At.After(last) {
			last = e.At
		}
	}
	if !last.IsZero() {
		if next := last.Add(time.Second); s.Local(next).Equal(day) {
			return next
		}
		return last
	}
	minutes := 12 * 60
	for _, l := range s.Timetable().On(day) {
		if l.Held() {
			minutes = l.StartsAt
		}
	}
	y, m, d := day.Date()
	return time.Date(y, m, d, minutes/60, minutes%60, 0, 0, s.Zone)
}

// Had are the pieces that an entry on a day could be about: those in hand now, then those that were assigned
// or learned by that day, in their order.
func (s Student) Had(day time.Time) []string {
	out := s.InHand()
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
