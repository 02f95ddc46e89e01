package fromhome

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

var tuesday = time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)

func on(day int) string { return tuesday.AddDate(0, 0, day).Format(time.DateOnly) }

// plan sets each thing on the days that are marked in its row.
func plan(rows map[string]string, order ...string) week.Plan {
	var p week.Plan
	for d := range 6 {
		day := week.Day{Date: tuesday.AddDate(0, 0, d)}
		for _, key := range order {
			if rows[key][d] == 'o' {
				kind := week.Chunk
				if key == "listen" {
					kind = week.Listen
				}
				day.Items = append(day.Items, week.Item{Key: key, Kind: kind, Times: 8})
			}
		}
		p.Days = append(p.Days, day)
	}
	return p
}

func told(t *testing.T, p week.Plan, reports []standing.Report, until int) (out []string) {
	t.Helper()
	for _, x := range Of(p, reports, tuesday.AddDate(0, 0, until)) {
		out = append(out, fmt.Sprintf("%s %s: %d of %d days, %d hard, %d short", x.Item.Key, x.Outcome, x.Done, x.Days, x.Hard, x.Short))
	}
	return out
}

// What was hard on two days, short on two, left alone or easy is told apart; one bad day says nothing, and what is listened to
// is not judged. What stands first is what a teacher hears first.
func TestWhatHomeShowed(t *testing.T) {
	p := plan(
		map[string]string{
			"easy":   "oo----",
			"hard":   "oooo--",
			"once":   "oooo--",
			"short":  "oooo--",
			"left":   "-o-o--",
			"listen": "oooooo",
			"new":    "---o--",
		},
		"easy",
		"hard",
		"once",
		"short",
		"left",
		"listen",
		"new",
	)
	r := func(day int, item string, times int, felt studentlog.Feeling) standing.Report {
		return standing.Report{Day: on(day), Item: item, Times: times, Felt: felt, FromHome: true}
	}
	reports := []standing.Report{
		r(0, "easy", 8, studentlog.Fine), r(1, "easy", 0, studentlog.Joyful),
		r(0, "hard", 8, studentlog.Hard), r(2, "hard", 4, studentlog.Hard),
		r(0, "once", 3, studentlog.Hard), r(1, "once", 4, studentlog.Fine),
		r(1, "short", 3, ""), r(3, "short", 1, ""),
		r(5, "easy", 1, studentlog.Hard), // it was not set for that day
		{Day: on(0), Item: "of another week", Felt: studentlog.Hard}, {Sign: studentlog.PlayedFirst, Material: "m"},
	}
	require.Equal(t, []string{
		"hard hard: 2 of 4 days, 2 hard, 0 short", "short short: 2 of 4 days, 0 hard, 2 short", "left left: 0 of 2 days, 0 hard, 0 short",
		"once going: 2 of 4 days, 1 hard, 1 short", "new going: 0 of 1 days, 0 hard, 0 short", "easy easy: 2 of 2 days, 0 hard, 0 short",
	}, told(t, p, reports, 6))
	require.Equal(
		t,
		[]string{
			"easy going: 1 of 1 days, 0 hard, 0 short",
			"hard going: 1 of 1 days, 1 hard, 0 short",
			"once going: 1 of 1 days, 1 hard, 1 short",
			"short going: 0 of 1 days, 0 hard, 0 short",
		},
		told(t, p, reports, 1),
		"of days that have not passed nothing is said",
	)
}

// Where nothing was reported nothing is known: nobody left anything alone.
func TestAWeekOfSilenceSaysNothing(t *testing.T) {
	p := plan(map[string]string{"a": "oooooo"}, "a")
	require.Nil(t, Of(p, nil, tuesday.AddDate(0, 0, 6)))
	require.Nil(t, Of(p, []standing.Report{{Day: on(0), Item: "b"}}, tuesday.AddDate(0, 0, 6)))
	require.Len(t, Of(p, []standing.Report{{Day: on(0), Item: "a"}}, tuesday.AddDate(0, 0, 6)), 1)
}

// A family that ticks everything alike does not say what came easily; one answer that is missing, or that something was hard, and it
// does. The last answer of a day holds.
func TestWhoTicksEverything(t *testing.T) {
	p := plan(map[string]string{"a": "oooooo", "b": "o-o-o-"}, "a", "b")
	var reports []standing.Report
	for d := range 6 {
		for _, key := range []string{"a", "b"} {
			reports = append(
				reports,
				standing.Report{Day: on(d), Item: key, Felt: studentlog.Hard},
				standing.Report{Day: on(d), Item: key, Times: 8, Felt: studentlog.Fine},
			)
		}
	}
	require.Equal(t, []string{"a going: 6 of 6 days, 0 hard, 0 short", "b going: 3 of 3 days, 0 hard, 0 short"}, told(t, p, reports, 6))
	missing := slices.DeleteFunc(slices.Clone(reports), func(r standing.Report) bool { return r.Item == "b" && r.Day == on(4) })
	require.Equal(t, []string{"b going: 2 of 3 days, 0 hard, 0 short", "a easy: 6 of 6 days, 0 hard, 0 short"}, told(t, p, missing, 6))
	hard := append(slices.Clone(reports), standing.Report{Day: on(4), Item: "b", Felt: studentlog.Hard})
	require.Equal(t, []string{"b going: 3 of 3 days, 1 hard, 0 short", "a easy: 6 of 6 days, 0 hard, 0 short"}, told(t, p, hard, 6))
}

// A step is set for one day, and the day after begins with it again: that is one more day of it where it was reported, and
// nothing where it was not. A piece of which nothing was touched was left alone, though each of its steps had only one day.
func TestStepsOfOneDay(t *testing.T) {
	step := func(kind week.Kind, id string, from, to int) week.Item {
		return week.Item{Key: fmt.Sprint(kind, id, from, to), Kind: kind, Material: id, Bars: week.Bars{From: from, To: to}, Times: 8}
	}
	a, b, c := step(week.Chunk, "m", 1, 2), step(week.Chunk, "m", 3, 4), step(week.Chunk, "m", 5, 6)
	again, more := step(week.Again, "m", 1, 4), step(week.Again, "m", 5, 6)
	new1, new2 := step(week.Chunk, "new", 1, 2), step(week.Chunk, "new", 3, 4)
	var p week.Plan
	for d, items := range [][]week.Item{{a, b, new1}, {again, c, new2}, {more}} {
		p.Days = append(p.Days, week.Day{Date: tuesday.AddDate(0, 0, d), Items: items})
	}
	r := func(day int, it week.Item, felt studentlog.Feeling) standing.Report {
		return standing.Report{Day: on(day), Item: it.Key, Times: 8, Felt: felt}
	}
	require.Equal(t, []string{
		b.Key + " hard: 2 of 2 days, 2 hard, 0 short", new1.Key + " left: 0 of 1 days, 0 hard, 0 short", new2.Key + " left: 0 of 1 days, 0 hard, 0 short",
		a.Key + " going: 2 of 2 days, 0 hard, 0 short", c.Key + " easy: 1 of 1 days, 0 hard, 0 short",
	}, told(t, p, []standing.Report{
		r(0, a, studentlog.Fine), r(0, b, studentlog.Hard), r(1, again, studentlog.Hard), r(1, c, studentlog.Joyful),
	}, 6))
	require.Equal(t, []string{
		a.Key + " going: 1 of 1 days, 0 hard, 0 short", b.Key + " going: 0 of 1 days, 0 hard, 0 short", new1.Key + " going: 0 of 1 days, 0 hard, 0 short",
	}, told(t, p, []standing.Report{r(0, a, "")}, 1), "ticked, and nobody said how it was")
}

// What was hard is told once and where it is: a part before what holds it, and the whole piece only where no bars are known.
func TestWhatWasHardIsToldOnce(t *testing.T) {
	of := func(id string, from, to int, o Outcome) Thing {
		return Thing{Item: week.Item{Material: id, Bars: week.Bars{From: from, To: to}}, Outcome: o}
	}
	told := func(list ...Thing) (out []string) {
		for _, x := range Narrowed(list) {
			out = append(out, fmt.Sprintf("%s %d-%d %s", x.Item.Material, x.Item.Bars.From, x.Item.Bars.To, x.Outcome))
		}
		return out
	}
	require.Equal(t, []string{"a 0-0 hard"}, told(of("a", 0, 0, Hard), of("a", 0, 0, Hard)))
	require.Equal(t, []string{"a 1-4 hard"}, told(of("a", 0, 0, Hard), of("a", 1, 4, Hard), of("a", 1, 8, Hard), of("a", 1, 4, Hard)))
	require.Equal(t, []string{"a 1-4 hard", "a 7-8 hard"}, told(of("a", 1, 8, Hard), of("a", 1, 4, Hard), of("a", 7, 8, Hard), of("a", 5, 8, Hard)))
	all := []Thing{of("a", 1, 8, Hard), of("b", 1, 4, Hard), of("a", 1, 4, Short), of("c", 1, 8, Easy), of("c", 1, 4, Easy)}
	require.Equal(t, all, Narrowed(all), "another piece, another outcome, and what was easy")
}
