package keycycle

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/calendar"
	"patientladder/core/technique/scale"
)

func named(keys []scale.Tonic) string {
	var out []string
	for _, k := range keys {
		out = append(out, k.String())
	}
	return strings.Join(out, " ")
}

// The circle of fifths (standard theory).
func TestOrders(t *testing.T) {
	for want, c := range map[string]struct {
		first string
		order Order
	}{
		"C G D A E B Gb Db Ab Eb Bb F": {"C", Fifths},
		"B Gb Db Ab Eb Bb F C G D A E": {"B", Fifths},
		"C Db D Eb E F Gb G Ab A Bb B": {"C", Semitones},
		"Gb Db Ab Eb Bb F C G D A E B": {"F#", Fifths},
	} {
		first, err := scale.Parse(c.first, scale.Major)
		require.NoError(t, err)
		keys, err := Keys(first, c.order)
		require.NoError(t, err)
		require.Equal(t, want, named(keys))
	}
	_, err := Keys(scale.Tonic{Step: 'C'}, "by taste")
	require.ErrorContains(t, err, `no order "by taste"`)
}

func on(date string) time.Time {
	t, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	return t
}

// Twelve weeks from B with a half-term break of one week: begun on Mondays from 7
// September 2026, the break from 26 to 30 October (by the calendar of that year).
// weekly is a lesson a week since 2020.
func weekly(day time.Weekday, breaks []calendar.Break) calendar.Timetable {
	t := calendar.Weekly(day, 900, 30, on("2020-01-01"))
	t.Holidays = breaks
	return t
}

// A lesson that is moved by a day or two takes its key along; the second lesson of a week begins none;
// where lessons are every second week the next is a fortnight later, and only a break is one.
func TestACycleFollowsTheCalendar(t *testing.T) {
	keys, err := Keys(scale.Tonic{Step: 'C'}, Fifths)
	require.NoError(t, err)
	table := weekly(time.Monday, nil)
	table.Slots[0].ID = "s"
	table, err = table.Move("2026-09-14-s", calendar.Time{Day: on("2026-09-16"), StartsAt: 900, Minutes: 30}, on("2026-09-01"))
	require.NoError(t, err)
	table, err = table.CancelLesson("2026-09-28-s", calendar.ByTeacher, false)
	require.NoError(t, err)
	first := func(p Plan) (out []string) {
		for _, w := range p.Weeks[:4] {
			out = append(out, w.Key.String()+" "+w.Day.Format("01-02"))
		}
		return out
	}
	p, err := Build(keys, on("2026-09-07"), table, nil, true, nil)
	require.NoError(t, err)
	require.Equal(t, []string{"C 09-07", "G 09-16", "D 09-21", "A 10-05"}, first(p))
	p, err = Build(keys, on("2026-09-07"), table, nil, false, nil)
	require.NoError(t, err)
	require.Equal(t, []time.Time{on("2026-09-21")}, p.Held, "the next lesson is a fortnight later")
	twice := weekly(time.Monday, nil)
	twice.Slots = append(twice.Slots, calendar.Slot{ID: "t", Weekday: time.Thursday, Every: 1, Minutes: 30, From: on("2020-01-01")})
	p, err = Build(keys, on("2026-09-07"), twice, nil, false, nil)
	require.NoError(t, err)
	require.Equal(t, []string{"C 09-07", "G 09-14", "D 09-21", "A 09-28"}, first(p))
	second := weekly(time.Monday, nil)
	second.Slots[0].Every, second.Slots[0].From = 2, on("2026-09-07")
	p, err = Build(keys, on("2026-09-07"), second, nil, false, nil)
	require.NoError(t, err)
	require.Equal(t, []string{"C 09-07", "G 09-21", "D 10-05", "A 10-19"}, first(p))
	require.Empty(t, p.Held)
}

func TestACycleOfTwelveWeeksWithABreak(t *testing.T) {
	keys, err := Keys(scale.Tonic{Step: 'B'}, Fifths)
	require.NoError(t, err)
	breaks := []calendar.Break{{From: on("2026-10-26"), To: on("2026-10-30")}}
	p, err := Build(keys, on("2026-09-07"), weekly(time.Monday, breaks), nil, true, nil)
	require.NoError(t, err)
	require.Len(t, p.Weeks, 12)
	require.Equal(t, on("2026-09-07"), p.Weeks[0].Day)
	require.Equal(t, on("2026-10-19"), p.Weeks[6].Day)
	require.Equal(t, on("2026-11-02"), p.Weeks[7].Day, "after the break")
	require.Equal(t, on("2026-11-02"), p.Weeks[6].Heard)
	require.Equal(t, on("2026-12-07"), p.End)
	// A lesson that was missed slides the rest by a week.
	slid, err := Build(keys, on("2026-09-07"), weekly(time.Monday, breaks), []time.Time{on("2026-09-21")}, true, nil)
	require.NoError(t, err)
	require.Equal(t, on("2026-12-14"), slid.End)
	require.Equal(t, []time.Time{on("2026-09-21")}, slid.Missed)
	require.Equal(t, p.Weeks[0], slid.Weeks[0])
	require.Equal(t, on("2026-09-28"), slid.Weeks[1].Heard, "what was begun before is heard a week later")

	// A key is begun only where it is heard the week after: not in the lesson before the break
	// (common practice).
	held, err := Build(keys, on("2026-09-07"), weekly(time.Monday, breaks), nil, false, nil)
	require.NoError(t, err)
	require.Equal(t, []time.Time{on("2026-10-19")}, held.Held)
	require.Equal(t, on("2026-10-12"), held.Weeks[5].Day)
	require.Equal(t, on("2026-10-19"), held.Weeks[5].Heard, "which hears what was begun before")
	require.Equal(t, on("2026-11-02"), held.Weeks[6].Day)
	require.Equal(t, on("2026-12-14"), held.End)
}

func TestCyclesThatAreNone(t *testing.T) {
	_, err := Build(nil, on("2026-09-07"), weekly(time.Monday, nil), nil, false, nil)
	require.EqualError(t, err, "a cycle without keys is none")
	_, err = Build(
		circle,
		on("2026-09-07"),
		weekly(time.Monday, []calendar.Break{{From: on("2026-01-01"), To: on("2099-01-01")}}),
		nil,
		false,
		nil,
	)
	require.ErrorContains(t, err, "there are no lessons for this cycle: from 7 September 2026 on all fall into breaks")
}

// A key that its lesson had no room for comes in the next, and all that follow with it.
func TestAKeyWithoutRoomSlides(t *testing.T) {
	keys := circle[:3]
	p, err := Build(keys, on("2026-09-07"), weekly(time.Monday, nil), nil, false, func(key int, day time.Time) bool {
		return key == 1 && day.Before(on("2026-09-28"))
	})
	require.NoError(t, err)
	require.Equal(t, []time.Time{on("2026-09-14"), on("2026-09-21")}, p.Slid)
	require.Equal(t, []Week{
		{keys[0], on("2026-09-07"), on("2026-09-14")}, {keys[1], on("2026-09-28"), on("2026-10-05")},
		{keys[2], on("2026-10-05"), on("2026-10-12")},
	}, p.Weeks)
	require.Equal(t, on("2026-10-12"), p.End)
}

// Every key once, a lesson each, none in a break or when it was missed.
func TestEveryKeyOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := on("2026-01-01").AddDate(0, 0, rapid.IntRange(0, 400).Draw(t, "from"))
		weekday := time.Weekday(rapid.IntRange(0, 6).Draw(t, "weekday"))
		var breaks []calendar.Break
		for range rapid.IntRange(0, 3).Draw(t, "breaks") {
			start := from.AddDate(0, 0, rapid.IntRange(0, 120).Draw(t, "start"))
			breaks = append(breaks, calendar.Break{From: start, To: start.AddDate(0, 0, rapid.IntRange(0, 20).Draw(t, "days"))})
		}
		keys, err := Keys(circle[rapid.IntRange(0, 11).Draw(t, "first")], Fifths)
		require.NoError(t, err)
		before := rapid.Bool().Draw(t, "before")
		p, err := Build(keys, from, weekly(weekday, breaks), nil, before, nil)
		require.NoError(t, err)
		seen := map[scale.Tonic]bool{}
		for i, w := range p.Weeks {
			require.False(t, seen[w.Key])
			seen[w.Key] = true
			require.Equal(t, weekday, w.Day.Weekday())
			require.False(t, calendar.InBreak(w.Day, breaks))
			require.True(t, w.Heard.After(w.Day))
			if i > 0 && before {
				require.Equal(t, p.Weeks[i-1].Heard, w.Day)
			}
			if i > 0 {
				require.False(t, w.Day.Before(p.Weeks[i-1].Heard))
			}
			if !before {
				require.Equal(t, 7*24*time.Hour, w.Heard.Sub(w.Day), "heard the week after")
			}
		}
		require.Len(t, seen, 12)
	})
}
