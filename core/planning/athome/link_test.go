package athome

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

func TestALinkOpensToTheEndOfItsLastDay(t *testing.T) {
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	l := Link{Token: "t", Expires: day}
	require.Equal(t, []bool{true, true, false}, []bool{l.Opens(day.AddDate(0, 0, -1)), l.Opens(day), l.Opens(day.AddDate(0, 0, 1))})
	require.False(t, Link{Expires: day}.Opens(day), "no link opens nothing")
}

// A letter about a week has a link that still opens on the day after the next lesson, be it four weeks away.
func TestALinkInALetterOutlastsItsWeek(t *testing.T) {
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	for days, want := range map[int]bool{28: false, 29: true, 60: true, 7: false, -1: false} {
		require.Equal(t, want, Link{Token: "t", Expires: day.AddDate(0, 0, days)}.Lasts(day), "%d", days)
	}
	require.False(t, Link{Expires: day.AddDate(1, 0, 0)}.Lasts(day))
}
