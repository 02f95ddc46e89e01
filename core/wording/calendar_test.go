package wording

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/agenda"
	"patientladder/core/student/person"
)

func TestLessonTimesInWords(t *testing.T) {
	today := day(time.May, 4)
	weekly := calendar.Slot{Weekday: time.Monday, StartsAt: 15*60 + 5, Minutes: 30, Every: 1, From: day(time.January, 1)}
	second := calendar.Slot{Weekday: time.Friday, StartsAt: 540, Minutes: 45, Every: 2, From: day(time.June, 1), Until: day(time.July, 31)}
	require.Equal(t, "Mondays 15:05, 30 min", Slots(calendar.Timetable{Slots: []calendar.Slot{weekly, second}}, today))
	require.Equal(
		t,
		"Fridays 09:00, 45 min, every second week, from 1 June 2026, until 31 July 2026",
		Slots(calendar.Timetable{Slots: []calendar.Slot{second}}, today),
	)
	second.From = day(time.March, 1)
	require.Equal(
		t,
		"Mondays 15:05, 30 min and Fridays 09:00, 45 min, every second week",
		Slots(calendar.Timetable{Slots: []calendar.Slot{weekly, second}}, today),
	)
	require.Equal(t, "No lesson time yet", Slots(calendar.Timetable{}, today))
	require.Equal(t, "Tue 5 May, 15:30", FreeTime(calendar.Time{Day: day(time.May, 5), StartsAt: 930}))
}

func TestWhatIsSpecialAboutALesson(t *testing.T) {
	for want, l := range map[string]agenda.Lesson{
		"": {Lesson: calendar.Lesson{State: calendar.Planned}},
		"Moved from Mon 4 May, at the same time as Ivo and Rosa": {Lesson: calendar.Lesson{State: calendar.Moved, Due: day(time.May, 4)}, Clashes: []string{"Ivo", "Rosa"}},
		"At the same time as Ivo":                                {Lesson: calendar.Lesson{State: calendar.Planned}, Clashes: []string{"Ivo"}},
		"Extra lesson":                                           {Lesson: calendar.Lesson{State: calendar.Added}},
		"Makes up for Mon 4 May":                                 {Lesson: calendar.Lesson{State: calendar.Added, MakesUp: "2026-05-04-s"}},
		"Cancelled by you, to be made up":                        {Lesson: calendar.Lesson{State: calendar.Cancelled, By: calendar.ByTeacher}, ToMakeUp: true},
		"Cancelled in time":                                      {Lesson: calendar.Lesson{State: calendar.Cancelled, By: calendar.ByStudent}},
		"Cancelled late":                                         {Lesson: calendar.Lesson{State: calendar.Cancelled, By: calendar.ByStudent, Late: true}},
		"No lesson: holiday or pause":                            {Lesson: calendar.Lesson{State: calendar.OnBreak}},
	} {
		require.Equal(t, want, LessonDate(l))
	}
	require.Equal(t, "Moved to Fri 8 May, 10:00", MovedAway(agenda.Lesson{Lesson: calendar.Lesson{Day: day(time.May, 8), StartsAt: 600}}))
}

func TestSomeDaysInOneSentence(t *testing.T) {
	lesson := func(state calendar.State, clashes ...string) agenda.Lesson {
		return agenda.Lesson{Lesson: calendar.Lesson{State: state}, Clashes: clashes}
	}
	days := []agenda.Day{
		{Day: day(time.May, 3), Lessons: []agenda.Lesson{lesson(calendar.Planned), lesson(calendar.Cancelled)}},
		{
			Day:     day(time.May, 4),
			Lessons: []agenda.Lesson{lesson(calendar.Planned, "Ivo"), lesson(calendar.Moved, "Nell"), lesson(calendar.Cancelled)},
		},
	}
	require.Equal(t, "Three lessons; two at the same time as another; one cancelled; two to make up.", Agenda(days, 2, day(time.May, 4)))
	require.Equal(t, "No lessons.", Agenda(nil, 0, day(time.May, 4)))
	require.Equal(t, "Two holidays added; one event not taken.", HolidaysFound(2, 1, false))
	require.Equal(t, "One holiday to add.", HolidaysFound(1, 0, true))
}

func TestWhoAStudentIsInOneSentence(t *testing.T) {
	today := day(time.May, 4)
	piano := Taught{"piano", "Mondays 15:30, 30 min"}
	require.Equal(
		t,
		"Piano, Mondays 15:30, 30 min; cello, No lesson time yet.",
		Person("Nell", []Taught{piano, {"cello", "No lesson time yet"}}, time.Time{}, today, false),
	)
	require.Equal(
		t,
		"Lessons are paused. Piano, Mondays 15:30, 30 min. Leaves on 30 June 2026.",
		Person("Nell", []Taught{piano}, day(time.June, 30), today, true),
	)
	require.Equal(t, "Nell left on 1 May 2026. Everything is kept.", Person("Nell", nil, day(time.May, 1), today, false))
	require.Equal(t, "Nell has no lessons now.", Person("Nell", nil, time.Time{}, today, false))
	require.Equal(t, "No lessons from 1 May 2026 to 10 May 2026", Pause(day(time.May, 1), day(time.May, 10), today))
	require.Equal(t, "No lessons since 1 May 2026, until further notice", Pause(day(time.May, 1), time.Time{}, today))
	require.Equal(t, "No lessons from 8 May 2026 until further notice", Pause(day(time.May, 8), time.Time{}, today))
}

// Each refusal of the calendar and of a student's form has its own sentence.
func TestEveryRefusalSaysWhatIsWrong(t *testing.T) {
	said := map[string]bool{}
	for _, err := range []error{
		calendar.ErrNoLesson, calendar.ErrPast, calendar.ErrMinutes, calendar.ErrTime, calendar.ErrEvery, calendar.ErrBackwards,
		calendar.ErrGiven, calendar.ErrOverlap,
		calendar.ErrMadeUp, calendar.ErrFar, person.ErrNoName, person.ErrBornAhead, person.ErrBornLong, person.ErrSince,
		person.ErrPauseEnds,
		person.ErrPauseLong, person.ErrLeavesLate,
	} {
		says := NotDone(err)
		require.NotEmpty(t, says, err)
		require.False(t, said[says], says)
		said[says] = true
	}
	require.Equal(t, "A lesson lasts 5 to 240 minutes.", NotDone(calendar.ErrMinutes))
	require.Empty(t, NotDone(errors.New("another")))
}
