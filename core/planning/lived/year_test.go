package lived_test

import (
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/inweek"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/week"
)

// lives is how many students of each family are lived through, and for how many weeks: 360 weeks in all, or ten thousand.
func lives() (students uint64, weeks int) {
	if os.Getenv("LADDER_LONG") != "" {
		return 60, 42
	}
	return 3, 30
}

// steps are those of pieces that are learned step by step, on the first day of a week.
func steps(w inweek.Week) (out []string) {
	for _, d := range w.Plan.Days {
		for _, it := range d.Items {
			if !d.Rest && slices.Contains([]week.Kind{week.Look, week.Chunk, week.Join}, it.Kind) {
				out = append(out, fmt.Sprint(it.Key, " ×", it.Times, " slower ", it.Slower))
			}
		}
		if len(out) > 0 {
			return out
		}
	}
	return append(out, "nothing new "+w.Input.Start.String())
}

// A year of four families. What must hold of each week holds; what comes of it in minutes is held to bounds, and was with the week as
// it was before December 2026: 57 of 100 minutes filled, 38 of 100 days under half, 44 of 100 with ten minutes free.
func TestAYearOfWeeks(t *testing.T) {
	students, weeks := lives()
	for _, f := range families {
		var filled, minutes float64
		days, under, free, over, starved, lessons := 0, 0, 0, 0, 0, 0
		for seed := range students {
			l := born(t, f, seed)
			var before inweek.Week
			for n, w := range l.live(weeks) {
				l.holds(w)
				l.goesOn(w)
				if n > 0 && showed(w, steps(before)) {
					require.NotEqual(t, steps(before), steps(w), "seed %d, week %d: the same days again", seed, n)
				}
				before = w
				for _, d := range w.Plan.Days {
					if d.Rest {
						continue
					}
					days++
					filled, minutes = filled+d.Minutes, minutes+float64(w.Input.Minutes)
					if 2*d.Minutes < float64(w.Input.Minutes) {
						under++
					}
					if float64(w.Input.Minutes)-d.Minutes >= 10 {
						free++
					}
				}
			}
			for _, p := range l.lessons {
				lessons++
				reviews, heard, quarter := 0, 0, true
				for _, c := range p.Segments {
					if c.Kind == lessonplan.Review {
						reviews, heard = reviews+1, heard+c.Minutes
					}
					if c.Kind == lessonplan.Working && c.Quarter {
						quarter = 4*c.Minutes >= p.Minutes
					}
				}
				require.LessOrEqual(t, reviews, 4)
				if 2*heard > p.Minutes {
					over++
				}
				if !quarter {
					starved++
				}
			}
		}
		t.Logf("%s: %.0f %% of the minutes filled, %d of %d days under half, %d with ten minutes free", f.name, 100*filled/minutes, under, days, free)
		require.Greater(t, filled/minutes, 0.65, f.name)
		require.Less(t, float64(under)/float64(days), 0.25, f.name)
		require.Less(t, float64(free)/float64(days), 0.27, f.name)
		require.Zero(t, over, "review takes half of no lesson")
		require.LessOrEqual(t, starved*20, lessons, "the working piece has its quarter")
	}
}

// holds is what holds of every week.
func (l *life) holds(w inweek.Week) {
	learned := map[string]bool{} // each section is learned once
	for _, d := range w.Plan.Days {
		minutes, today := 0.0, map[string]bool{}
		for _, it := range d.Items {
			require.False(l.t, today[it.Key], "%s twice on %s", it.Key, d.Date)
			today[it.Key] = true
			minutes += it.Minutes
			if it.Kind == week.Chunk && it.Bars.From > 0 {
				require.False(l.t, learned[it.Key], "%s is learned twice in one week", it.Key)
				learned[it.Key] = true
			}
		}
		require.InDelta(l.t, d.Minutes, minutes, 1e-9)
		require.LessOrEqual(l.t, minutes, float64(w.Input.Minutes))
		if wanting := float64(w.Input.Minutes) - minutes; !d.Rest && wanting >= 10 {
			for _, m := range w.Input.Reviews {
				if d.Minutes >= 0.75*float64(w.Input.Minutes) || week.ReviewMinutes(m) > wanting {
					continue
				}
				require.True(l.t, today["review "+m.ID], "ten minutes are free on %s, and %s is not played", d.Date, m.ID)
			}
			for _, it := range w.Plan.LeftOut {
				require.Greater(l.t, it.Minutes, wanting, "%s is left out and fits on %s", it.Key, d.Date)
			}
		}
	}
	for _, m := range w.Input.Settling { // four of six days, where there are minutes
		on := 0
		for _, d := range w.Plan.Days {
			if slices.ContainsFunc(d.Items, func(it week.Item) bool { return it.Key == "review "+m.ID }) {
				on++
			}
		}
		require.GreaterOrEqual(l.t, on, 2, "%s was just cleared", m.ID)
	}
}

// showed says that home showed something of what stood on a day.
func showed(w inweek.Week, day []string) bool {
	return slices.ContainsFunc(w.Home, func(h inweek.AfterHome) bool {
		return slices.ContainsFunc(day, func(s string) bool { return strings.HasPrefix(s, h.Item.Key+" ") })
	})
}

// goesOn is what holds of two weeks running where home was not empty: what came easily is not set again, what was hard comes first and
// slower, on each day on which the piece is practised after it.
func (l *life) goesOn(w inweek.Week) {
	for _, h := range w.Home {
		for _, d := range w.Plan.Days {
			for _, it := range d.Items {
				same := it.Material == h.Item.Material && it.Bars == h.Item.Bars && it.Hand == h.Item.Hand
				step := it.Kind == week.Chunk || it.Kind == week.Join
				require.False(l.t, h.Effect == inweek.LeftOutOfWeek && same && step && it.Slower == 0, "%s came easily", it.Key)
			}
		}
	}
}

// What home shows lets no piece take longer, and those with hard bars less long, in families of all kinds; whoever ticks everything
// does no harm.
func TestWhatHomeShowsHelps(t *testing.T) {
	students, weeks := lives()
	all := map[bool][]int{}
	for _, f := range families {
		took := map[bool][]int{}
		for seed := range students {
			for _, counts := range []bool{true, false} {
				l := born(t, f, seed)
				l.s.Policy.HomeCounts = counts
				l.live(weeks)
				took[counts] = append(took[counts], len(l.cleared))
				all[counts] = append(all[counts], l.hardest()...)
			}
		}
		t.Logf("%s: %.2f pieces cleared in a year, %.2f without", f.name, mean(took[true]), mean(took[false]))
		require.GreaterOrEqual(t, mean(took[true]), 0.93*mean(took[false]), f.name)
	}
	t.Logf("a piece with a hard bar takes %.2f lessons, %.2f without", mean(all[true]), mean(all[false]))
	if os.Getenv("LADDER_LONG") != "" { // among few students that is chance
		require.Less(t, mean(all[true]), mean(all[false]))
	}
}
