package open

import (
	"fmt"
	"time"

	"patientladder/app/refusal"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/agenda"
	"patientladder/store"
)

// Pupils are the students of a studio as its calendar knows them.
func (s Studio) Pupils(ladders []store.Ladder) []agenda.Pupil {
	out := make([]agenda.Pupil, len(ladders))
	for i, l := range ladders {
		t := l.Lessons.Ended(l.Profile().Until)
		t.Holidays = calendar.Breaks(s.Holidays, l.StudentID, nil)
		out[i] = agenda.Pupil{
			Ladder:     l.ID,
			Student:    l.StudentID,
			Name:       l.Name,
			Instrument: l.Instrument,
			Lessons:    t,
			Gone:       l.Profile().Gone(s.Today),
		}
	}
	return out
}

// Clock is a time of day such as 15:30 in minutes after midnight.
func Clock(text string) (int, error) {
	t, err := time.Parse("15:04", text)
	if err != nil {
		return 0, refusal.Invalid(fmt.Sprintf("%q is not a time of day such as 15:30.", text))
	}
	return t.Hour()*60 + t.Minute(), nil
}
