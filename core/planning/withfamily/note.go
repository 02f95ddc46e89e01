package withfamily

import (
	"errors"
	"maps"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"patientladder/core/base/calendar"
	"patientladder/core/library/titles"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/studentlog"
)

// NoteKind says what a family writes about.
type NoteKind string

// The kinds of notes from home.
const (
	AlsoPlayed NoteKind = "also" // something that was not set
	Question   NoteKind = "ask"
	MoveLesson NoteKind = "reschedule" // a wish that a lesson be moved
)

// Note is what a family wrote to the teacher beside what it ticked.
type Note struct {
	ID   string
	Kind NoteKind
	Text string
	// About is the lesson that is asked to be moved; empty otherwise.
	About string
	// Day it was written on, At the moment.
	Day, At time.Time
	// Answer of the teacher, given at AnsweredAt; an empty one says that it was seen.
	Answer     string
	AnsweredAt time.Time
}

// Open says that it waits for the teacher; what was also played asks for nothing, unless it may be about pain.
func (n Note) Open() bool { return n.AnsweredAt.IsZero() && (n.Kind != AlsoPlayed || n.Hurts()) }

// Waiting is how many of some notes wait for the teacher.
func Waiting(notes []Note) (n int) {
	for _, x := range notes {
		if x.Open() {
			n++
		}
	}
	return n
}

const (
	// LongestNote is how many letters a note may have.
	LongestNote = 1000
	// NoteDays is for how long notes are shown (default).
	NoteDays = 60
)

// Noted checks a note before it is kept: its text, its time and, where a lesson is asked to be moved, that it is one of those to come.
func Noted(s studentplan.Student, n Note) (Note, error) {
	n.Text = strings.TrimSpace(strings.ToValidUTF8(strings.ReplaceAll(n.Text, "\x00", ""), ""))
	refuse := func(why admission.NotAdmitted) error { return admission.EntryError{Kind: why} }
	switch {
	case n.Kind != AlsoPlayed && n.Kind != Question && n.Kind != MoveLesson:
		return n, refuse(admission.NoSuchNote)
	case n.Text == "":
		return n, refuse(admission.EmptyNote)
	case utf8.RuneCountInString(n.Text) > LongestNote:
		return n, refuse(admission.LongNote)
	}
	// A clock that runs ahead is not believed.
	if n.At.IsZero() || n.At.After(s.Now) {
		n.At = s.Now
	}
	n.Day = s.Local(n.At)
	if n.Kind != MoveLesson {
		n.About = ""
	} else if !slices.ContainsFunc(Movable(s), func(l calendar.Lesson) bool { return l.ID == n.About }) {
		return n, refuse(admission.NoSuchLesson)
	}
	return n, nil
}

// mostComing is how many lessons to come a family may ask to be moved (default).
const mostComing = 4

// Movable are the next lessons.
func Movable(s studentplan.Student) (out []calendar.Lesson) {
	for _, l := range s.Timetable().Between(s.Today, s.Today.AddDate(0, 0, NoteDays)) {
		if l.Held() && len(out) < mostComing {
			out = append(out, l)
		}
	}
	return out
}

// Liked is the entry of the log for what was also played: practised unasked, so it counts as taste. It has one only
// where its title surely means a piece of the library for the same instrument.
func Liked(s studentplan.Student, n Note) (studentlog.Entry, bool) {
	var among []titles.Title
	for _, id := range slices.Sorted(maps.Keys(s.Library)) {
		if m := s.Library[id]; m.Instrument == s.Instrument && m.Exercise == "" {
			among = append(among, titles.Title{ID: id, Title: m.Title, Composer: m.Composer})
		}
	}
	match := titles.Find(n.Text, among)
	e := studentlog.Entry{
		ID:       n.ID,
		At:       n.At.UTC().Truncate(time.Millisecond),
		Actor:    studentlog.Family,
		Kind:     studentlog.Liking,
		Material: match.Best.ID,
		Sign:     studentlog.Unasked,
	}
	return e, match.Sure && e.Validate() == nil
}

// InTurn puts notes in the order in which a teacher reads them: what may be about pain and is not answered; questions and wishes
// that wait, the oldest first; then all others, the newest first.
func InTurn[T any](list []T, note func(T) Note) []T {
	out := slices.Clone(list)
	slices.SortStableFunc(out, func(a, b T) int {
		x, y := note(a), note(b)
		hurts := func(n Note) bool { return n.Open() && n.Hurts() }
		switch {
		case hurts(x) != hurts(y):
			if hurts(x) {
				return -1
			}
			return 1
		case x.Open() && y.Open():
			return x.At.Compare(y.At)
		case x.Open():
			return -1
		case y.Open():
			return 1
		}
		return y.At.Compare(x.At)
	})
	return out
}

// Mail says what a family wishes to be sent.
type Mail string

// What is sent.
const (
	EachWeek Mail = "week"   // each week when it is published
	OnMonday Mail = "digest" // one message on Monday
	NoMail   Mail = "none"
)

// Quiet are the hours in which nothing is sent, from and to in minutes from midnight, over it where From is later; none where
// both are the same.
type Quiet struct{ From, To int }

// UsualQuiet are the quiet hours of a studio that set none (default): from eight in the evening to seven.
var UsualQuiet = Quiet{From: 20 * 60, To: 7 * 60}

// Check says in a sentence what is wrong with quiet hours, or returns nil.
func (q Quiet) Check() error {
	const day = 24 * 60
	if q.From < 0 || q.From >= day || q.To < 0 || q.To >= day {
		return errors.New("quiet hours begin and end between 00:00 and 23:59")
	}
	return nil
}

// hold says that a minute of the day is quiet.
func (q Quiet) hold(minute int) bool {
	if q.From <= q.To {
		return minute >= q.From && minute < q.To
	}
	return minute >= q.From || minute < q.To
}

// remindAt is when a reminder is sent, in minutes from midnight (default).
const remindAt = 15 * 60

// monday is when a message on Monday is sent at the earliest, in minutes from midnight (default).
const monday = 7 * 60

// SendAt is when a message may be sent that is ready at a moment: at once, when the quiet hours end, or on Monday.
func SendAt(ready time.Time, wish Mail, quiet Quiet) time.Time {
	on := func(days, minute int) time.Time {
		return time.Date(ready.Year(), ready.Month(), ready.Day()+days, 0, minute, 0, 0, ready.Location())
	}
	if wish == OnMonday {
		days, at := (8-int(ready.Weekday()))%7, monday
		if quiet.hold(monday) {
			at = quiet.To
		}
		if on(days, at).Before(ready) {
			days += 7
		}
		return on(days, at)
	}
	minute := 60*ready.Hour() + ready.Minute()
	switch {
	case !quiet.hold(minute):
		return ready
	case minute < quiet.To:
		return on(0, quiet.To)
	}
	return on(1, quiet.To)
}

// Reminder reminds a family of a day of practice.
type Reminder struct {
	Day, At time.Time
	AtHome  AtHome
}

// Reminders are those of a week of practice that are still to come, one for each day on which something is set.
func Reminders(s studentplan.Studio, p week.Plan) (out []Reminder) {
	for _, d := range p.Days {
		at := time.Date(d.Date.Year(), d.Date.Month(), d.Date.Day(), 0, remindAt, 0, 0, s.Zone)
		if !d.Rest && len(d.Items) > 0 && !at.Before(s.Now) {
			out = append(out, Reminder{d.Date, at, AtHome{Kind: Practice, Things: len(d.Items), Minutes: d.Minutes, Left: len(d.Items), LeftMinutes: d.Minutes}})
		}
	}
	return out
}
