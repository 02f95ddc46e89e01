package calendar

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func on(date string) time.Time {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	return d
}

// 2026-11-24 is a Tuesday (Gregorian calendar).
func TestLessonsFallOnTheirWeekdayOutsideBreaks(t *testing.T) {
	l := New(on("2026-11-24"), time.Tuesday, []Break{{on("2026-12-21"), on("2027-01-03")}})
	require.Equal(t, on("2026-11-24"), l.Day(0), "today's lesson counts")
	require.Equal(t, on("2026-12-15"), l.Day(3))
	require.Equal(t, on("2027-01-05"), l.Day(4), "22 and 29 December fall into the break")
	require.Equal(t, 4, l.Until(on("2027-01-04")))
	require.Equal(t, 5, l.Until(on("2027-01-05")), "the day itself counts")
	require.Equal(t, 0, l.Until(on("2026-11-23")))
	require.Equal(t, on("2026-11-26"), New(on("2026-11-24"), time.Thursday, nil).Day(0))
	require.Equal(t, 2, WeeksOff(on("2026-12-15"), on("2027-01-05"), l.table.Breaks()))
}

// Counting lessons and naming their days agree, and breaks only take away.
func TestDaysAndCountsAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		day := on("2026-01-01").AddDate(0, 0, rapid.IntRange(0, 400).Draw(t, "day"))
		weekday := time.Weekday(rapid.IntRange(0, 6).Draw(t, "weekday"))
		var breaks []Break
		for range rapid.IntRange(0, 4).Draw(t, "breaks") {
			from := day.AddDate(0, 0, rapid.IntRange(-30, 300).Draw(t, "from"))
			breaks = append(breaks, Break{from, from.AddDate(0, 0, rapid.IntRange(0, 40).Draw(t, "days"))})
		}
		l, plain := New(day, weekday, breaks), New(day, weekday, nil)
		for n := range 40 {
			d := l.Day(n)
			require.Equal(t, weekday, d.Weekday())
			require.Equal(t, n+1, l.Until(d))
			require.Equal(t, n, l.Until(d.AddDate(0, 0, -1)))
			require.False(t, d.Before(plain.Day(n)))
		}
	})
}

func TestAnEndlessBreakEnds(t *testing.T) {
	l := New(on("2026-11-24"), time.Tuesday, []Break{{on("2026-01-01"), on("9999-12-31")}})
	require.False(t, l.Day(3).IsZero())
	require.Zero(t, l.Until(on("2030-01-01")))
}

func TestAWeekBeginsOnItsFirstDay(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2026, 5, d, 0, 0, 0, 0, time.UTC) }
	for d, want := range map[int][3]int{2: {-3, -4, 2}, 3: {-3, 3, 2}, 4: {4, 3, 2}, 9: {4, 3, 9}, 10: {4, 10, 9}} { // 4 May 2026 was a Monday
		require.Equal(
			t,
			[3]time.Time{day(want[0]), day(want[1]), day(want[2])},
			[3]time.Time{WeekStart(day(d), time.Monday), WeekStart(day(d), time.Sunday), WeekStart(day(d), time.Saturday)},
			"%d May",
			d,
		)
	}
}

func TestWhatAHolidayIs(t *testing.T) {
	day := func(n int) time.Time { return time.Date(2026, 1, 1+n, 0, 0, 0, 0, time.UTC) }
	require.NoError(t, Holiday{Name: "Regatta", First: day(3), Last: day(3)}.Check())
	require.NoError(t, Holiday{Name: "A year away", First: day(0), Last: day(366)}.Check())
	require.Equal(t, ErrLong, Holiday{Name: "Longer", First: day(0), Last: day(367)}.Check())
	require.Equal(t, ErrReversed, Holiday{Name: "Regatta", First: day(3), Last: day(2)}.Check())
	require.Equal(t, ErrUnnamed, Holiday{First: day(3), Last: day(2)}.Check())
}
