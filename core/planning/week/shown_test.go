package week

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
)

// What came easily is there and the next join comes earlier; what was hard comes first, in halves, also where the marks would
// leave it out; of anything else the week goes on as it was.
func TestAWeekGoesOnWhereHomeEnded(t *testing.T) {
	w := work(3) // eight bars, in leaves of one bar
	w.Quarters = []float64{4, 4, 4, 4, 4, 4, 4, 4}
	steps := func(progress float64, shown ...Shown) (out []string) {
		w := w
		w.Progress, w.Shown, w.WeeksOn = progress, shown, 1
		for _, it := range staircase(w, Input{Age: 9}) {
			out = append(out, fmt.Sprintf("%s %d-%d", it.Kind, it.Bars.From, it.Bars.To))
		}
		return out
	}
	plain := steps(0)
	require.Equal(t, plain, steps(0, Shown{Bars: Bars{From: 3, To: 7}, Outcome: WasHard}), "bars that are no step change nothing")
	easy := steps(0, Shown{Bars: Bars{From: 1, To: 1}, Outcome: CameEasily}, Shown{Bars: Bars{From: 2, To: 2}, Outcome: CameEasily})
	require.Equal(t, plain[2:], easy)
	var join Bars
	for _, s := range plain {
		if _, err := fmt.Sscanf(s, "join %d-%d", &join.From, &join.To); err == nil {
			break
		}
	}
	hard := steps(0, Shown{Bars: join, Outcome: WasHard})
	require.Equal(t, fmt.Sprintf("chunk %d-%d", join.From, (join.From+join.To)/2), hard[0])
	require.Contains(t, hard, fmt.Sprintf("join %d-%d", join.From, join.To), "it is joined again after its halves")
	back := steps(1, Shown{Bars: join, Outcome: WasHard})
	require.Equal(t, hard[0], back[0], "marks do not hide what was hard")
}

// A half that is hard again is halved again and a mark slower still, in place of the step that it is of; one that went well lets the
// step come back. Every day begins with it, as often as it was set.
func TestAHalfThatIsHardAgain(t *testing.T) {
	w := named("a", 3)
	w.WeeksOn = 1
	hard := func(from, to, slower int) Shown {
		return Shown{Bars: Bars{From: from, To: to}, Outcome: WasHard, Slower: slower}
	}
	first := func(shown ...Shown) (out []string) {
		w.Shown = shown
		for _, it := range w.hard(Input{Age: 9}) {
			out = append(out, fmt.Sprintf("%d-%d slower %d", it.Bars.From, it.Bars.To, it.Slower))
		}
		return out
	}
	require.Equal(t, []string{"1-2 slower 1", "3-4 slower 1"}, first(hard(1, 4, 0)))
	require.Equal(t, []string{"3-3 slower 2", "4-4 slower 2"}, first(hard(1, 4, 0), hard(3, 4, 1)))
	require.Equal(t, []string{"4-4 slower 3"}, first(hard(4, 4, 2), hard(3, 4, 1)))
	require.Equal(t, []string{"2-2 slower 1", "5-6 slower 2", "7-8 slower 2"}, first(hard(5, 8, 1), hard(2, 2, 0)), "from the beginning of the piece")
	require.Empty(t, first(hard(2, 6, 0)), "it lies in no step")

	w.Shown = []Shown{hard(4, 4, 0)}
	p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 12, Age: 9, Works: []Work{w}})
	require.NoError(t, err)
	var days []string
	for _, d := range p.Days {
		days = append(days, fmt.Sprintf("%s ×%d, slower %d", d.Items[0].Key, d.Items[0].Times, d.Items[0].Slower))
	}
	require.Equal(t, []string{
		"chunk a 4-4 ×9, slower 1", "again a 4-4 ×9, slower 1", "again a 4-4 ×9, slower 1", "again a 4-4 ×9, slower 1",
		"again a 4-4 ×9, slower 1", "again a 4-4 ×9, slower 1", "again a 4-4 ×9, slower 1",
	}, days)
	require.Equal(t, hardWords, p.Days[1].Items[0].Words)
}
