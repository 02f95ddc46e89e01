package studentplan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
)

func TestWhoeverLeftIsGone(t *testing.T) {
	p := Profile{Until: monday.AddDate(0, 0, 7)}
	require.False(t, p.Gone(monday))
	require.True(t, p.Gone(monday.AddDate(0, 0, 7)))
	require.False(t, Profile{}.Gone(monday))
}

func TestHowAStudentIsCalled(t *testing.T) {
	require.Equal(t, "Nell", Profile{Name: "Nell Farrow"}.First())
	require.Equal(t, "Nelly", Profile{Name: "Nell Farrow", Called: "Nelly"}.First())
	require.Equal(t, "李", Profile{Name: "李 小龙"}.First())
}

// Where no lesson is in sight there are no dates: nobody knows when lessons go on.
func TestNoDatesWithoutLessons(t *testing.T) {
	s := pupil(t, piece("work", "method", "plain"), piece("next", "method", "pulse", "ties"))
	s.working("work", 7)
	require.NotEmpty(t, s.ahead("work", "next").When)
	s.Profile.Lessons.Pauses = []calendar.Break{{From: monday, To: calendar.NoEnd}}
	a := s.ahead("work", "next")
	require.Empty(t, a.When)
	require.Empty(t, a.Plantings())
	require.Empty(t, a.NextBites())
	s.Profile.Lessons.Pauses[0].To = monday.AddDate(0, 0, 20)
	low, _, _ := s.ahead("work", "next").Days(s.ahead("work", "next").When["work"].Clear)
	require.False(t, low.Before(monday.AddDate(0, 0, 21)), "after the pause")
}

// Two lessons a week and one every second week: the forecast in lessons follows, the dates stay about where they were.
func TestForecastsGoByTheCalendar(t *testing.T) {
	clears := func(slots ...calendar.Slot) time.Time {
		s := pupil(t, piece("work", "method", "plain"), piece("next", "method", "pulse"))
		s.working("work", 7)
		s.Profile.Lessons.Slots = slots
		a := s.ahead("work", "next")
		_, median, _ := a.Days(a.When["next"].Clear)
		return median
	}
	slot := func(day time.Weekday, every int) calendar.Slot {
		return calendar.Slot{ID: day.String(), Weekday: day, StartsAt: 900, Minutes: 30, Every: every, From: monday.AddDate(0, 0, -28)}
	}
	weekly, twice, second := clears(slot(time.Monday, 1)), clears(slot(time.Monday, 1), slot(time.Thursday, 1)), clears(slot(time.Monday, 2))
	require.LessOrEqual(t, civil.Between(twice, weekly), 7)
	require.GreaterOrEqual(t, civil.Between(twice, weekly), -7)
	require.GreaterOrEqual(t, civil.Between(weekly, second), 0)
	require.LessOrEqual(t, civil.Between(weekly, second), 14)
	require.Equal(t, time.Monday, second.Weekday())
}

func TestAge(t *testing.T) {
	p := Profile{Born: time.Date(2016, 5, 5, 0, 0, 0, 0, time.UTC)}
	require.Equal(t, 9, p.Age(monday))
	require.Equal(t, 10, p.Age(monday.AddDate(0, 0, 1)), "the birthday")
	require.Equal(t, 10, p.Age(monday.AddDate(0, 1, -3)), "another month, an earlier day")
	require.Equal(t, 0, p.Age(monday.AddDate(-30, 0, 0)), "not born yet")
}

func TestFirstPractice(t *testing.T) {
	wednesdays := []calendar.Slot{{Weekday: time.Wednesday}}
	days, minutes := FirstPractice(6, wednesdays)
	require.Equal(t, [7]bool{true, true, true, false, true, true, true}, days, "the lesson day is for the lesson")
	require.Equal(t, 10, minutes)
	_, minutes = FirstPractice(7, wednesdays)
	require.Equal(t, 20, minutes)
	require.Equal(t, 6, Profile{Practises: days}.PracticeDays())
}
