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
	require.Equal(t, plain, steps(0, Shown{Bars{From: 3, To: 7, Upbeat: false}, "", WasHard}), "bars that are no step change nothing")
	easy := steps(0, Shown{Bars{From: 1, To: 1}, "", CameEasily}, Shown{Bars{From: 2, To: 2}, "", CameEasily})
	require.Equal(t, plain[2:], easy)
	var join Bars
	for _, s := range plain {
		if _, err := fmt.Sscanf(s, "join %d-%d", &join.From, &join.To); err == nil {
			break
		}
	}
	hard := steps(0, Shown{join, "", WasHard})
	require.Equal(t, fmt.Sprintf("chunk %d-%d", join.From, (join.From+join.To)/2), hard[0])
	require.Contains(t, hard, fmt.Sprintf("join %d-%d", join.From, join.To), "it is joined again after its halves")
	back := steps(1, Shown{join, "", WasHard})
	require.Equal(t, hard[0], back[0], "marks do not hide what was hard")
}
