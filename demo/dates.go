package demo

import (
	"context"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/store"
)

// contacts are whom a family named; the adults have none.
var contacts = map[string]store.Contact{
	"Wren Tolliver": {Name: "Isolde Tolliver", Relation: "mother", Email: "tolliver@harbour.example", Messages: true},
	"Ivo Sandgate":  {Name: "Marten Sandgate", Relation: "father"},
	"Maren Quill":   {Name: "Jory Quill", Relation: "grandfather"},
}

// people gives students their contacts, and the weeks ahead what is usual in them: one lesson that the
// teacher cancelled and still owes, and one that was moved.
func people(ctx context.Context, st *store.Store, studio string, day time.Time, ids *ids) error {
	ladders, err := st.Ladders(ctx, studio)
	if err != nil {
		return err
	}
	for _, l := range ladders {
		if c, ok := contacts[l.Name]; ok {
			p, err := st.Person(ctx, studio, l.StudentID)
			if err != nil {
				return err
			}
			c.ID = ids.next(day)
			p.Contacts = []store.Contact{c}
			if err := st.SetPerson(ctx, studio, p); err != nil {
				return err
			}
		}
		change := func(f func(t calendar.Timetable) (calendar.Timetable, error)) error {
			return st.ChangeTimetable(ctx, studio, l.ID, f)
		}
		slot := l.Lessons.Slots[0]
		lesson := func(days int) string { return calendar.LessonID(slot.ID, day.AddDate(0, 0, days)) }
		switch l.Name {
		case "Tobias Lund-Harker":
			err = change(func(t calendar.Timetable) (calendar.Timetable, error) {
				return t.CancelLesson(lesson(14), calendar.ByTeacher, false)
			})
		case "Henrik Osterby":
			err = change(func(t calendar.Timetable) (calendar.Timetable, error) {
				return t.Move(lesson(17), calendar.Time{Day: day.AddDate(0, 0, 18), StartsAt: slot.StartsAt + 60, Minutes: slot.Minutes}, day)
			})
		}
		if err != nil {
			return err
		}
	}
	return nil
}
