package calendar

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// tuesdays is a slot from Tuesday 2026-05-05 on, half past three, half an hour.
func tuesdays() Timetable {
	return Timetable{Slots: []Slot{{ID: "s", Weekday: time.Tuesday, StartsAt: 930, Minutes: 30, Every: 1, From: on("2026-05-04")}}}
}

// told writes lessons as 05-05 15:30 planned.
func told(lessons []Lesson) (out []string) {
	for _, l := range lessons {
		out = append(out, fmt.Sprintf("%s %02d:%02d %s", l.Day.Format("01-02"), l.StartsAt/60, l.StartsAt%60, l.State))
	}
	return out
}

func TestSlotsMakeLessons(t *testing.T) {
	table := tuesdays()
	require.Equal(
		t,
		[]string{"05-05 15:30 planned", "05-12 15:30 planned", "05-19 15:30 planned"},
		told(table.Between(on("2026-05-01"), on("2026-05-25"))),
	)
	table.Slots = append(
		table.Slots,
		Slot{ID: "f", Weekday: time.Friday, StartsAt: 600, Minutes: 45, Every: 2, From: on("2026-05-09"), Until: on("2026-06-12")},
	)
	require.Equal(
		t,
		[]string{"05-15 10:00 planned", "05-19 15:30 planned", "05-26 15:30 planned", "05-29 10:00 planned"},
		told(table.Between(on("2026-05-13"), on("2026-05-31"))),
		"the Friday from 9 May on is the 15th, and then every second",
	)
	require.Equal(
		t,
		[]string{"06-12 10:00 planned", "06-16 15:30 planned"},
		told(table.Between(on("2026-06-10"), on("2026-06-20"))),
		"its last day counts",
	)
	require.Empty(t, tuesdays().Between(on("2026-04-01"), on("2026-05-03")), "nothing was before")
	require.Equal(t, 1.5, table.PerWeek(on("2026-06-01")))
	require.Equal(t, 1.0, table.PerWeek(on("2026-07-01")))
	require.Equal(t, 1.0, Timetable{}.PerWeek(on("2026-07-01")))
	require.Equal(t, []int{9, 9}, []int{table.UsualGap(on("2026-06-01")), Timetable{}.UsualGap(on("2026-07-01"))})
	every := func(weeks int) int {
		return Timetable{Slots: []Slot{{Weekday: time.Monday, Every: weeks, From: on("2026-01-05")}}}.UsualGap(on("2026-06-01"))
	}
	require.Equal(t, []int{9, 16}, []int{every(1), every(2)}, "a lesson may be moved by two days")
}

func TestOneLessonIsMovedCancelledAndMadeUp(t *testing.T) {
	today := on("2026-05-06")
	table, err := tuesdays().Move(LessonID("s", on("2026-05-12")), Time{on("2026-05-15"), 600, 45}, today)
	require.NoError(t, err)
	table, err = table.CancelLesson(LessonID("s", on("2026-05-19")), ByTeacher, false)
	require.NoError(t, err)
	require.Equal(
		t,
		[]string{"05-15 10:00 moved", "05-19 15:30 cancelled", "05-26 15:30 planned"},
		told(table.Between(on("2026-05-11"), on("2026-05-26"))),
	)
	require.Empty(t, table.On(on("2026-05-12")), "it is not there any more")
	require.Len(t, table.Between(on("2026-05-12"), on("2026-05-12")), 1, "but was due")
	require.Len(t, table.Between(on("2026-05-15"), on("2026-05-15")), 1)
	require.Equal(
		t,
		[]Lesson{{ID: "2026-05-19-s", Due: on("2026-05-19"), Day: on("2026-05-19"), StartsAt: 930, Minutes: 30, State: Cancelled, By: ByTeacher}},
		table.ToMakeUp(on("2026-05-01"), on("2026-06-30")),
	)
	table, err = table.Add("x", Time{on("2026-05-21"), 900, 30}, "2026-05-19-s", today)
	require.NoError(t, err)
	require.Empty(t, table.ToMakeUp(on("2026-05-01"), on("2026-06-30")))
	_, err = table.Add("y", Time{on("2026-05-22"), 900, 30}, "2026-05-19-s", today)
	require.ErrorIs(t, err, ErrMadeUp)
	l, ok := table.Find("x")
	require.True(t, ok)
	require.Equal(t, Lesson{ID: "x", Day: on("2026-05-21"), StartsAt: 900, Minutes: 30, State: Added, MakesUp: "2026-05-19-s"}, l)
	lessons := table.From(today)
	require.Equal(
		t,
		[]time.Time{on("2026-05-15"), on("2026-05-21"), on("2026-05-26")},
		[]time.Time{lessons.Day(0), lessons.Day(1), lessons.Day(2)},
	)
	back, err := table.Restore("2026-05-19-s")
	require.NoError(t, err)
	require.Equal(
		t,
		[]string{"05-15 10:00 moved", "05-19 15:30 planned"},
		told(back.Between(on("2026-05-13"), on("2026-05-22"))),
		"what stood for it goes too",
	)
	// A cancelled lesson can be put elsewhere instead: it takes place again.
	again, err := table.Move("2026-05-19-s", Time{on("2026-05-20"), 930, 30}, today)
	require.NoError(t, err)
	l, _ = again.Find("2026-05-19-s")
	require.Equal(t, Moved, l.State)
	late, err := table.CancelLesson("2026-05-26-s", ByStudent, true)
	require.NoError(t, err)
	require.Empty(t, late.ToMakeUp(on("2026-05-22"), on("2026-06-30")), "cancelled too late by the student")
}

func TestAllLessonsFromOneOnAreMoved(t *testing.T) {
	today := on("2026-05-06")
	table, err := tuesdays().Move("2026-05-12-s", Time{on("2026-05-13"), 600, 30}, today)
	require.NoError(t, err)
	table, err = table.RescheduleSeries("2026-05-26-s", Time{on("2026-05-28"), 1000, 40}, today, "n")
	require.NoError(t, err)
	require.Equal(t, []string{"05-05 15:30 planned", "05-13 10:00 moved", "05-19 15:30 planned", "05-28 16:40 planned", "06-04 16:40 planned"},
		told(table.Between(on("2026-05-04"), on("2026-06-05"))))
	_, err = table.RescheduleSeries("2026-05-28-n", Time{on("2026-06-04"), 1000, 40}, today, "m")
	require.ErrorIs(t, err, ErrFar)
	_, err = table.RescheduleSeries("2026-05-27-n", Time{on("2026-05-29"), 1000, 40}, today, "m")
	require.ErrorIs(t, err, ErrNoLesson, "the slot puts none on that day")
	// Other slots from a day on.
	table, err = table.SetSlots(
		on("2026-06-01"),
		[]Slot{
			{ID: "a", Weekday: time.Monday, StartsAt: 900, Minutes: 30, Every: 2},
			{ID: "b", Weekday: time.Monday, StartsAt: 930, Minutes: 30, Every: 1},
		},
	)
	require.NoError(t, err)
	require.Equal(
		t,
		[]string{
			"05-28 16:40 planned",
			"06-01 15:00 planned",
			"06-01 15:30 planned",
			"06-08 15:30 planned",
			"06-15 15:00 planned",
			"06-15 15:30 planned",
		},
		told(table.Between(on("2026-05-25"), on("2026-06-15"))),
	)
	s, ok := table.Usual(on("2026-05-20"))
	require.True(t, ok)
	require.Equal(t, "s", s.ID)
	s, _ = table.Usual(on("2026-06-03"))
	require.Equal(t, "a", s.ID)
	last, ok := table.Last(on("2026-06-07"))
	require.True(t, ok)
	require.Equal(t, on("2026-06-01"), last.Day)
	_, ok = table.Last(on("2026-05-04"))
	require.False(t, ok)
}

func TestHolidaysAndPausesTakeLessons(t *testing.T) {
	table := tuesdays()
	table.Holidays = []Break{{on("2026-05-11"), on("2026-05-17")}}
	require.Equal(
		t,
		[]string{"05-05 15:30 planned", "05-12 15:30 break", "05-19 15:30 planned"},
		told(table.Between(on("2026-05-04"), on("2026-05-20"))),
	)
	given, err := table.Move("2026-05-12-s", Time{on("2026-05-13"), 930, 30}, on("2026-05-04"))
	require.NoError(t, err)
	l, _ := given.Find("2026-05-12-s")
	require.True(t, l.Held(), "whoever moves it into a holiday wants it there")
	table.Pauses = []Break{{on("2026-05-18"), NoEnd}}
	require.Equal(t, on("2026-05-05"), table.From(on("2026-05-04")).Day(0))
	open := table.From(on("2026-05-06"))
	require.False(t, open.Any(), "nobody knows when it ends")
	require.Equal(t, 0, open.Until(on("2030-01-01")))
	_, ok := table.Next(on("2026-05-06"))
	require.False(t, ok)
	require.Equal(t, []Break{{on("2026-05-11"), on("2026-05-17")}, {on("2026-05-18"), NoEnd}}, table.Breaks())
}

func TestWhatCannotBeDoneWithLessons(t *testing.T) {
	table, today := tuesdays(), on("2026-05-13")
	for _, c := range []struct {
		to   Time
		want error
	}{
		{Time{on("2026-05-12"), 930, 30}, ErrPast},
		{Time{on("2026-05-20"), 930, 0}, ErrMinutes},
		{Time{on("2026-05-20"), 930, 241}, ErrMinutes},
		{Time{on("2026-05-20"), 1430, 30}, ErrTime},
		{Time{on("2026-05-20"), -1, 30}, ErrTime},
		{Time{on("2036-05-20"), 930, 30}, ErrFar},
		{Time{on("2026-05-20"), 1410, 30}, nil},
		{Time{today, 0, 5}, nil},
	} {
		_, err := table.Move("2026-05-19-s", c.to, today)
		require.ErrorIs(t, err, c.want, c.to)
	}
	_, err := table.Move("2026-05-12-s", Time{on("2026-05-20"), 930, 30}, today)
	require.ErrorIs(t, err, ErrGiven)
	_, err = table.Move("2026-05-20-s", Time{on("2026-05-21"), 930, 30}, today)
	require.ErrorIs(t, err, ErrNoLesson)
	_, err = table.CancelLesson("nonsense", ByStudent, false)
	require.ErrorIs(t, err, ErrNoLesson)
	_, err = table.RescheduleSeries("2026-05-05-s", Time{on("2026-05-20"), 930, 30}, today, "n")
	require.ErrorIs(t, err, ErrPast)
	for _, c := range []struct {
		slots []Slot
		want  error
	}{
		{[]Slot{{Minutes: 0, Every: 1}}, ErrMinutes},
		{[]Slot{{Minutes: 30, Every: 3}}, ErrEvery},
		{[]Slot{{Minutes: 30, Every: 1, Until: on("2026-05-01")}}, ErrBackwards},
		{[]Slot{{Minutes: 30, Every: 1}, {StartsAt: 29, Minutes: 30, Every: 1}}, ErrOverlap},
		{[]Slot{{Minutes: 30, Every: 2}, {StartsAt: 29, Minutes: 30, Every: 1}}, ErrOverlap},
		{[]Slot{{Minutes: 30, Every: 2}, {StartsAt: 29, Minutes: 30, Every: 2}}, ErrOverlap},
		{[]Slot{{Minutes: 30, Every: 1}, {Weekday: 1, Minutes: 30, Every: 1}}, nil},
		{[]Slot{{Minutes: 30, Every: 1}, {StartsAt: 30, Minutes: 30, Every: 1}}, nil},
		{nil, nil},
	} {
		_, err := table.SetSlots(today, c.slots)
		require.ErrorIs(t, err, c.want, c.slots)
	}
}

// Who leaves on a day has no lesson from then on, wherever it came from; those before it stay.
func TestATimetableEnds(t *testing.T) {
	table := Weekly(time.Monday, 930, 30, on("2026-05-04"))
	table.Slots[0].ID = "s"
	table.Slots = append(table.Slots, Slot{ID: "later", Weekday: time.Friday, StartsAt: 600, Minutes: 30, Every: 1, From: on("2026-06-01")})
	table, err := table.Move("2026-05-11-s", Time{on("2026-05-20"), 930, 30}, on("2026-05-04"))
	require.NoError(t, err)
	table, err = table.Add("extra", Time{on("2026-05-21"), 930, 30}, "", on("2026-05-04"))
	require.NoError(t, err)
	require.Equal(t, table, table.Ended(time.Time{}))
	ended := table.Ended(on("2026-05-18"))
	require.Equal(
		t,
		[]Slot{{ID: "s", Weekday: time.Monday, StartsAt: 930, Minutes: 30, Every: 1, From: on("2026-05-04"), Until: on("2026-05-17")}},
		ended.Slots,
	)
	held := ended.Held(on("2026-05-01"), on("2027-05-01"))
	require.Len(t, held, 1)
	require.Equal(t, "2026-05-04-s", held[0].ID)
	_, ok := ended.Next(on("2026-05-05"))
	require.False(t, ok)
}

// Whatever is done, each lesson that a slot makes is there once, and nothing but an end of its slot loses one.
func TestEachLessonIsThereOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		today := on("2026-03-02")
		day := func(label string) time.Time { return today.AddDate(0, 0, rapid.IntRange(0, 90).Draw(t, label)) }
		table := Timetable{
			Slots: []Slot{
				{
					ID:       "s0",
					Weekday:  time.Weekday(rapid.IntRange(0, 6).Draw(t, "weekday")),
					StartsAt: 900,
					Minutes:  30,
					Every:    rapid.IntRange(1, 2).Draw(t, "every"),
					From:     today,
				},
			},
		}
		from, to := today, today.AddDate(0, 0, 200)
		for n := range rapid.IntRange(0, 12).Draw(t, "changes") {
			all := table.Between(from, to)
			var id string
			if len(all) > 0 {
				id = all[rapid.IntRange(0, len(all)-1).Draw(t, "lesson")].ID
			}
			next, err := table, error(nil)
			at := Time{day("to"), rapid.IntRange(0, 1400).Draw(t, "at"), 30}
			what := rapid.IntRange(0, 6).Draw(t, "what")
			switch what {
			case 0:
				next, err = table.Move(id, at, today)
			case 1:
				next, err = table.CancelLesson(id, ByTeacher, false)
			case 2:
				next, err = table.Restore(id)
			case 3:
				next, err = table.Add(fmt.Sprint("x", n), at, "", today)
			case 4:
				next, err = table.RescheduleSeries(id, at, today, fmt.Sprint("s", n+1))
			case 5:
				next.Pauses = append(slices.Clone(table.Pauses), Break{day("from"), day("until")})
			case 6:
				next, err = table.SetSlots(
					day("slots"),
					[]Slot{{ID: fmt.Sprint("s", n+1), Weekday: at.Day.Weekday(), StartsAt: 900, Minutes: 30, Every: 1}},
				)
			}
			if err != nil {
				require.Equal(t, table, next, "a refusal changes nothing")
				continue
			}
			if what < 4 && what != 2 {
				for _, l := range table.Between(from, to) {
					if _, still := next.Find(l.ID); !still && !(what == 1 && l.Due.IsZero()) {
						t.Fatalf("%s is lost", l.ID)
					}
				}
			}
			table = next
		}
		seen := map[string]bool{}
		whole := table.Between(from.AddDate(0, 0, -30), to)
		for _, l := range whole {
			require.False(t, seen[l.ID], l.ID)
			seen[l.ID] = true
			found, ok := table.Find(l.ID)
			require.True(t, ok)
			require.Equal(t, l, found)
		}
		// Asked day by day, it is the same.
		var daily []Lesson
		for d := from.AddDate(0, 0, -30); !d.After(to); d = d.AddDate(0, 0, 1) {
			daily = append(daily, table.On(d)...)
		}
		inside := slices.DeleteFunc(whole, func(l Lesson) bool { return l.Day.After(to) })
		require.Equal(t, inside, daily)
		// One after another they are those that are held.
		lessons, n := table.From(from), 0
		var before time.Time
		for _, l := range inside {
			if l.Held() && !l.Day.Equal(before) {
				require.Equal(t, l.Day, lessons.Day(n))
				before, n = l.Day, n+1
			}
		}
		require.Equal(t, n, lessons.Until(to))
	})
}

func TestClashesAndFreeTimes(t *testing.T) {
	mon, tue := on("2026-05-04"), on("2026-05-05")
	busy := []Busy{
		{Day: mon, Starts: 900, Ends: 930}, {Day: mon, Starts: 930, Ends: 960}, {Day: mon, Starts: 955, Ends: 1000},
		{Day: tue, Starts: 900, Ends: 930},
		{Day: mon, Starts: 1020, Ends: 1080},
	}
	require.Equal(t, [][]int{nil, {2}, {1}, nil, nil}, Clashes(busy), "end to end is no clash")
	require.Equal(
		t,
		[]Time{{tue, 870, 30}, {tue, 930, 30}, {mon, 870, 30}, {mon, 1080, 30}, {on("2026-05-06"), 900, 30}, {on("2026-05-06"), 930, 30}},
		Free(
			busy,
			nil,
			30,
			mon,
			on("2026-05-06"),
			tue,
			9,
		),
		"near Tuesday first, two a day, beside the hours of the day; between 16:40 and 17:00 there is no room",
	)
	require.Equal(t, []Time{{mon, 870, 30}}, Free(busy, []Break{{tue, tue}}, 30, mon, tue, tue, 1), "no lessons in a break")
	require.Equal(t, []Time{{mon, 900, 45}}, Free(nil, nil, 45, mon, mon, mon, 5)[:1:1], "from three on where there are no lessons yet")
	require.Empty(t, Free(nil, nil, 45, on("2026-05-09"), on("2026-05-10"), mon, 5), "no lessons on days off")
}
