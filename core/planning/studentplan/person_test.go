package studentplan_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/studentplan"
)

func TestWhoeverLeftIsGone(t *testing.T) {
	p := studentplan.Profile{Until: plantest.Monday.AddDate(0, 0, 7)}
	require.False(t, p.Gone(plantest.Monday))
	require.True(t, p.Gone(plantest.Monday.AddDate(0, 0, 7)))
	require.False(t, studentplan.Profile{}.Gone(plantest.Monday))
}

func TestHowAStudentIsCalled(t *testing.T) {
	require.Equal(t, "Nell", studentplan.Profile{Name: "Nell Farrow"}.First())
	require.Equal(t, "Nelly", studentplan.Profile{Name: "Nell Farrow", Called: "Nelly"}.First())
	require.Equal(t, "李", studentplan.Profile{Name: "李 小龙"}.First())
}

// Where no lesson is in sight there are no dates: nobody knows when lessons go on.
func TestNoDatesWithoutLessons(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", "method", "plain"), plantest.Piece("next", "method", "pulse", "ties"))
	plantest.Working(s, "work", 7)
	require.NotEmpty(t, plantest.Ahead(s, "work", "next").When)
	s.Profile.Lessons.Pauses = []calendar.Break{{From: plantest.Monday, To: calendar.NoEnd}}
	a := plantest.Ahead(s, "work", "next")
	require.Empty(t, a.When)
	require.Empty(t, planting.Of(a))
	require.Empty(t, a.NextBites())
	s.Profile.Lessons.Pauses[0].To = plantest.Monday.AddDate(0, 0, 20)
	low, _, _ := plantest.Ahead(s, "work", "next").Days(plantest.Ahead(s, "work", "next").When["work"].Clear)
	require.False(t, low.Before(plantest.Monday.AddDate(0, 0, 21)), "after the pause")
}

// Two lessons a week and one every second week: the forecast in lessons follows, the dates stay about where they were.
func TestForecastsGoByTheCalendar(t *testing.T) {
	clears := func(slots ...calendar.Slot) time.Time {
		s := plantest.Pupil(t, plantest.Piece("work", "method", "plain"), plantest.Piece("next", "method", "pulse"))
		plantest.Working(s, "work", 7)
		s.Profile.Lessons.Slots = slots
		a := plantest.Ahead(s, "work", "next")
		_, median, _ := a.Days(a.When["next"].Clear)
		return median
	}
	slot := func(day time.Weekday, every int) calendar.Slot {
		return calendar.Slot{ID: day.String(), Weekday: day, StartsAt: 900, Minutes: 30, Every: every, From: plantest.Monday.AddDate(0, 0, -28)}
	}
	weekly, twice, second := clears(slot(time.Monday, 1)), clears(slot(time.Monday, 1), slot(time.Thursday, 1)), clears(slot(time.Monday, 2))
	require.LessOrEqual(t, civil.Between(twice, weekly), 7)
	require.GreaterOrEqual(t, civil.Between(twice, weekly), -7)
	require.GreaterOrEqual(t, civil.Between(weekly, second), 0)
	require.LessOrEqual(t, civil.Between(weekly, second), 14)
	require.Equal(t, time.Monday, second.Weekday())
}

func TestAge(t *testing.T) {
	p := studentplan.Profile{Born: time.Date(2016, 5, 5, 0, 0, 0, 0, time.UTC)}
	require.Equal(t, 9, p.Age(plantest.Monday))
	require.Equal(t, 10, p.Age(plantest.Monday.AddDate(0, 0, 1)), "the birthday")
	require.Equal(t, 10, p.Age(plantest.Monday.AddDate(0, 1, -3)), "another month, an earlier day")
	require.Equal(t, 0, p.Age(plantest.Monday.AddDate(-30, 0, 0)), "not born yet")
}

func TestFirstPractice(t *testing.T) {
	wednesdays := []calendar.Slot{{Weekday: time.Wednesday}}
	days, minutes := studentplan.FirstPractice(6, wednesdays)
	require.Equal(t, [7]bool{true, true, true, false, true, true, true}, days, "the lesson day is for the lesson")
	require.Equal(t, 10, minutes)
	_, minutes = studentplan.FirstPractice(7, wednesdays)
	require.Equal(t, 20, minutes)
	require.Equal(t, 6, studentplan.Profile{Practises: days}.PracticeDays())
}
