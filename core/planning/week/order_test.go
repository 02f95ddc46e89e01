package week

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/studentlog"
	"patientladder/golden"
)

// named is a piece of 2^depth bars with an id of its own.
func named(id string, depth int) Work {
	w := work(depth)
	w.Material.ID, w.Material.Title = id, "Tune "+id
	return w
}

// scale is an exercise for each hand alone.
func scale(id string) Work {
	return Work{Material: material.Material{ID: id, Title: "Scale " + id, Tempo: 60, Texture: material.Together},
		Drill: &Drill{Apart: true, Goals: []string{"even", "thumb ready", "quiet"}, Quarters: 16}}
}

func learned(n int, quarters float64) (out []material.Material) {
	for i := range n {
		out = append(out, material.Material{ID: fmt.Sprintf("old%d", i), Title: fmt.Sprintf("Old %d", i), Quarters: quarters, Tempo: 90})
	}
	return out
}

// sheet writes a week as one reads it.
func sheet(p Plan) string {
	var out strings.Builder
	line := func(it Item) {
		fmt.Fprintf(&out, "  %s", it.Key)
		if it.Times > 0 {
			fmt.Fprintf(&out, " ×%d", it.Times)
		}
		if it.InRow {
			out.WriteString(" in a row")
		}
		fmt.Fprintf(&out, ", %g min, %g to %g", it.Minutes, it.Start, it.End)
		if it.Pinned {
			out.WriteString(", pinned")
		}
		fmt.Fprintf(&out, ": %s %s\n", it.Words, strings.Join(it.Goals, "; "))
	}
	for _, d := range p.Days {
		fmt.Fprintf(&out, "%s %g min, rest %t, listen for %q\n", d.Date.Format("Mon"), d.Minutes, d.Rest, d.Focus)
		for _, it := range d.Items {
			line(it)
		}
	}
	out.WriteString("left out\n")
	for _, it := range p.LeftOut {
		line(it)
	}
	out.WriteString("dropped\n")
	for _, it := range p.Dropped {
		line(it)
	}
	share, planned := p.ReviewShare()
	fmt.Fprintf(&out, "not yet %v\n%v\n%s\nreview %.3f %t\n", p.NotYet, p.Often, p.Estimate, share, planned)
	return out.String()
}

// anyWeek invents what a week is made from.
func anyWeek(random *rand.Rand) Input {
	in := Input{
		Start:       start.AddDate(0, 0, random.IntN(7)),
		Minutes:     5 + random.IntN(30),
		Age:         4 + random.IntN(12),
		ReviewShare: float64(random.IntN(9)) / 10,
	}
	in.Dose = Doses()[random.IntN(len(Doses()))]
	in.BySound = random.IntN(4) == 0
	for d := range in.Practises {
		in.Practises[d] = random.IntN(5) > 0
	}
	for i := range random.IntN(4) {
		w := named(fmt.Sprintf("p%d", i), random.IntN(4))
		w.WeeksOn, w.HandsApart = random.IntN(4), random.IntN(2) == 0
		w.Gate = []Gate{"", "", studentlog.RightOnly, studentlog.LeftOnly, studentlog.Apart, studentlog.Together}[random.IntN(6)]
		if random.IntN(3) == 0 {
			w.Progress = float64(random.IntN(5)) / 4
			w.RunDue = w.Progress == 1
		}
		if random.IntN(3) == 0 {
			w.Tree = nil
		}
		if w.Tree != nil && random.IntN(2) == 0 {
			from := 1 + random.IntN(w.Material.Bars)
			w.Spots = []Bars{{From: from, To: min(w.Material.Bars, from+random.IntN(2))}}
		}
		w.Plays = map[string][]bool{}
		for _, hand := range []string{rightHand, leftHand} {
			for range w.Quarters {
				w.Plays[hand] = append(w.Plays[hand], random.IntN(4) > 0)
			}
		}
		w.Focus = []string{"steady", "soft"}[:random.IntN(3)]
		in.Works = append(in.Works, w)
	}
	for i := range random.IntN(3) {
		w := scale(fmt.Sprintf("s%d", i))
		w.HandsApart, w.WeeksOn = random.IntN(2) == 0, random.IntN(4)
		w.Drill.Apart, w.Drill.Quarters = random.IntN(2) == 0, float64(8*random.IntN(4))
		in.Works = append(in.Works, w)
	}
	in.Reviews = learned(random.IntN(10), float64(8+random.IntN(150)))
	for i := range random.IntN(3) {
		in.Bites = append(in.Bites, Bite{Skill: fmt.Sprintf("b%d", i), Name: "bite", Words: "tap it"})
	}
	if random.IntN(3) == 0 {
		in.Listen = learned(1, 60)
		in.Listen[0].ID = "next"
	}
	for i := range random.IntN(3) {
		if len(in.Works) == 0 {
			in.Activities = append(in.Activities, Activity{ID: fmt.Sprintf("game %d", i), Title: "Game", Words: "Copy her.", Minutes: 2})
		}
	}
	return in
}

// Nothing that is listed as left out fits into any day of the week, in ten thousand weeks of all kinds; no day is
// longer than its minutes, no item stands twice on a day, and a hand has no bar in which it rests.
func TestWhatIsLeftOutFitsIntoNoDay(t *testing.T) {
	random := rand.New(rand.NewPCG(15, 1))
	for n := range 10000 {
		in := anyWeek(random)
		p, err := Make(in)
		require.NoError(t, err)
		for _, d := range p.Days {
			sum, seen := 0.0, map[string]bool{}
			for _, it := range d.Items {
				sum += it.Minutes
				if seen[it.Key] {
					t.Fatalf("week %d: %s stands twice on %s", n, it.Key, d.Date.Format("Monday"))
				}
				seen[it.Key] = true
			}
			if sum != d.Minutes || sum > float64(in.Minutes) || d.Rest && len(d.Items) > 0 {
				t.Fatalf("week %d: %s has %g of %d minutes", n, d.Date.Format("Monday"), sum, in.Minutes)
			}
			for _, m := range in.Reviews { // many minutes are left only where nothing learned fits
				free := float64(in.Minutes) - d.Minutes
				if it := reviewOf(m, ""); !d.Rest && !seen[it.Key] && wanting(free, float64(in.Minutes)) && it.Minutes <= free {
					t.Fatalf("week %d: %s has %g of %d minutes, and %s fits", n, d.Date.Format("Monday"), sum, in.Minutes, it.Key)
				}
			}
			for _, it := range p.LeftOut {
				if !d.Rest && d.Minutes+it.Minutes <= float64(in.Minutes) {
					t.Fatalf("week %d: %s is left out and fits on %s", n, it.Key, d.Date.Format("Monday"))
				}
			}
		}
		for _, w := range in.Works {
			for _, d := range p.Days {
				for _, it := range d.Items {
					if plays := w.Plays[it.Hand]; it.Material == w.Material.ID && it.Hand != "" && it.Bars.From > 0 {
						if i := slices.Index(plays[it.Bars.From-1:it.Bars.To], false); i >= 0 && it.Kind != Again {
							t.Fatalf("week %d: %s, and the %s rests in bar %d", n, it.Key, it.Hand, it.Bars.From+i)
						}
					}
				}
			}
		}
	}
}

// Twenty-four weeks of all kinds, held to the value and in order.
func TestWeeksOfAllKindsAreHeldToTheValue(t *testing.T) {
	var out strings.Builder
	random := rand.New(rand.NewPCG(15, 2))
	for n := range 24 {
		in := anyWeek(random)
		if n%4 == 3 { // with the teacher's hand
			plain, err := Make(in)
			require.NoError(t, err)
			in.Hand = Hand{Minutes: in.Minutes + 3, Pins: map[string]string{}, Times: map[string]int{}}
			for i, d := range plain.Days {
				for k, it := range d.Items {
					switch (i + k) % 5 {
					case 0:
						in.Hand.Drops = append(in.Hand.Drops, it.Key)
					case 1:
						in.Hand.Pins[it.Key] = in.Start.AddDate(0, 0, 6-i).Format("2006-01-02")
					case 2:
						in.Hand.Times[it.Key] = 3
					}
				}
			}
		}
		p, err := Make(in)
		require.NoError(t, err)
		fmt.Fprintf(
			&out,
			"### week %d: age %d, %d minutes, review %g, dose %s, by sound %t\n%s",
			n,
			in.Age,
			in.Minutes,
			in.ReviewShare,
			in.Dose,
			in.BySound,
			sheet(p),
		)
	}
	golden.Equal(t, "weeks.txt", out.String())
}

// A day's choice is the best of all that fit: held against every combination, of small days.
func TestTheChoiceOfADayIsTheBestOfAll(t *testing.T) {
	random := rand.New(rand.NewPCG(15, 3))
	for range 3000 {
		room := float64(1+random.IntN(16)) / 2
		var offers []offer
		for range random.IntN(5) {
			o := offer{before: random.IntN(5)}
			for range random.IntN(4) {
				o.ways = append(
					o.ways,
					way{items: []Item{{Minutes: float64(1+random.IntN(8)) / 2}}, serves: random.IntN(2) == 0, again: random.IntN(2) == 0,
						step: random.IntN(2) == 0, spots: random.IntN(2) == 0, due: random.IntN(2) == 0, both: random.IntN(2) == 0},
				)
			}
			offers = append(offers, o)
		}
		value := func(picked []int) (worth int64, minutes float64) {
			for i, k := range picked {
				if k >= 0 {
					worth += offers[i].ways[k].worth(offers[i].before)
					minutes += offers[i].ways[k].minutes()
				}
			}
			return worth, minutes
		}
		best, least := int64(-1), 0.0
		picked := make([]int, len(offers))
		var every func(i int)
		every = func(i int) {
			if i == len(offers) {
				if worth, minutes := value(picked); minutes <= room && (worth > best || worth == best && minutes < least) {
					best, least = worth, minutes
				}
				return
			}
			for k := -1; k < len(offers[i].ways); k++ {
				picked[i] = k
				every(i + 1)
			}
		}
		every(0)
		worth, minutes := value(choose(offers, room))
		require.Equal(t, best, worth)
		require.InDelta(t, least, minutes, 1e-9)
	}
}

// Review of three quarters and sixteen minutes a day: the working piece goes on every day all the same, and what
// was left of its staircase before is in.
func TestTheWorkingPieceNeverStarves(t *testing.T) {
	in := Input{
		Start:       start,
		Practises:   everyDay(),
		Minutes:     16,
		Age:         6,
		ReviewShare: 0.75,
		Works:       []Work{named("a", 2), named("b", 1)},
		Reviews:     learned(16, 60),
	}
	p, err := Make(in)
	require.NoError(t, err)
	require.Empty(t, p.LeftOut)
	for _, d := range p.Days {
		for _, id := range []string{"a", "b"} {
			require.True(t, slices.ContainsFunc(d.Items, func(it Item) bool { return it.Material == id }), "%s on %s", id, d.Date.Format("Monday"))
		}
	}
	share, _ := p.ReviewShare()
	require.InDelta(t, 0.75, share, 0.1, "as near to three quarters as the pieces allow")
}

// Where a day cannot hold all, the pieces take turns, each three days at least.
func TestPiecesTakeTurnsWhereADayIsTooShort(t *testing.T) {
	in := Input{
		Start:       start,
		Practises:   everyDay(),
		Minutes:     3,
		Age:         8,
		Works:       []Work{named("a", 1), named("b", 1)},
		Reviews:     learned(3, 60),
		ReviewShare: 0.3,
	}
	p, err := Make(in)
	require.NoError(t, err)
	on := map[string]int{}
	for _, d := range p.Days {
		had := map[string]bool{}
		for _, it := range d.Items {
			had[it.Material] = true
		}
		for id := range had {
			on[id]++
		}
	}
	require.GreaterOrEqual(t, on["a"], 3)
	require.GreaterOrEqual(t, on["b"], 3)
}

// All that was new yesterday begins the next day, neighbouring sections in one go; where minutes are left what goes already is played
// in one go at the end of the day, and before it what was new some days ago.
func TestWhatWasNewYesterdayIsPlayedAgainAllOfIt(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 30, Age: 6, Works: []Work{named("a", 3)}}
	p, err := Make(in)
	require.NoError(t, err)
	var days []string
	for _, d := range p.Days {
		var keys []string
		for _, it := range d.Items {
			keys = append(keys, it.Key)
		}
		days = append(days, strings.Join(keys, ", "))
	}
	require.Equal(t, []string{
		"look a 1-8, chunk a 1-1, chunk a 2-2, chunk a 3-3",
		"again a 1-3, chunk a 4-4, chunk a 5-5, again a 1-5",
		"again a 4-5, chunk a 6-6, chunk a 7-7, again a 1-4, again a 1-7",
		"again a 6-7, chunk a 8-8, join a 1-2, join a 3-4, again a 1-8",
		"again a 8-8, again a 1-4, join a 5-6, join a 7-8, again a 1-8",
		"again a 5-8, join a 1-4, join a 5-8, again a 1-8",
		"again a 5-8, again a 1-4, again a 1-8, whole a 1-8",
	}, days)
}

// A scale is practised whole, each hand alone: right a week, left a week, then both, with its three goals every day
// (common practice, no source). It is never cut into bars.
func TestADrillIsPractisedWhole(t *testing.T) {
	for weeks, want := range [][]string{{"drill s r"}, {"drill s l"}, {"drill s r", "drill s l"}} {
		w := scale("s")
		w.HandsApart, w.WeeksOn = true, weeks
		p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 20, Age: 7, Works: []Work{w}})
		require.NoError(t, err)
		for _, d := range p.Days {
			var keys []string
			for _, it := range d.Items {
				keys = append(keys, it.Key)
				require.Equal(t, []string{"even", "thumb ready", "quiet"}, it.Goals)
				require.Equal(t, 7, it.Times)
				require.Zero(t, it.Bars)
			}
			require.Equal(t, want, keys)
		}
	}
	w := scale("s")
	w.Gate, w.WeeksOn = studentlog.LeftOnly, 5
	p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 20, Age: 12, Dose: Once, Works: []Work{w}})
	require.NoError(t, err)
	require.Equal(t, "drill s l", p.Days[0].Items[0].Key, "the gate holds")
	require.Equal(t, 1, p.Days[0].Items[0].Times)
	require.Equal(t, "Read the goals first. Play it whole, slowly and evenly; no faster until it is even.", p.Days[0].Items[0].Words)
}

// A week for the right hand holds only bars in which it plays.
func TestAWeekForOneHandLeavesOutTheBarsInWhichItRests(t *testing.T) {
	w := named("a", 3)
	w.Gate = studentlog.RightOnly
	w.Plays = map[string][]bool{rightHand: {true, true, false, false, true, true, true, false}}
	var keys []string
	for _, it := range staircase(w, Input{Age: 8}) {
		keys = append(keys, it.Key)
	}
	require.Equal(t, []string{
		"look a 1-2 r", "chunk a 1-1 r", "chunk a 2-2 r", "chunk a 5-5 r", "chunk a 6-6 r", "chunk a 7-7 r", "join a 1-2 r", "join a 5-6 r",
		"join a 5-7 r",
	}, keys)
}

// Where reading begins later a week begins with listening, and nothing in it is read (common practice, no source).
func TestAWeekBySoundBeginsWithListening(t *testing.T) {
	w := named("a", 1)
	w.Guides = []string{"A is a second above G"}
	p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 12, Age: 4, BySound: true, Works: []Work{w}})
	require.NoError(t, err)
	require.Equal(t, "hear a 1-2", p.Days[0].Items[0].Key)
	require.Equal(
		t,
		"Play nothing yet. Listen to it together, then sing or hum it. It begins with the right hand, finger 2 on E.",
		p.Days[0].Items[0].Words,
	)
	require.Equal(t, "Listen to it, sing it, then play it slowly.", p.Days[0].Items[1].Words)
}

// Before the first piece a week holds games with words for the parent, as many as the minutes do.
func TestAWeekWithoutAPiece(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 5, Age: 3}
	for i := range 3 {
		in.Activities = append(in.Activities, Activity{ID: fmt.Sprintf("g%d", i), Title: "Game", Words: "Copy her.", Minutes: 2})
	}
	p, err := Make(in)
	require.NoError(t, err)
	var days []string
	for _, d := range p.Days[:3] {
		var keys []string
		for _, it := range d.Items {
			keys = append(keys, it.Key)
		}
		days = append(days, strings.Join(keys, ", "))
	}
	require.Equal(t, []string{"game g0, game g1", "game g2, game g0", "game g1, game g2"}, days)
}
