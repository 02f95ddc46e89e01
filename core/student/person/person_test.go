package person

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// monday is a day like others.
var monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func TestWhatCannotBeAboutAStudent(t *testing.T) {
	year := func(n int) time.Time { return monday.AddDate(n, 0, 0) }
	for _, c := range []struct {
		name        string
		born, since time.Time
		want        error
	}{
		{"Nell", monday, time.Time{}, nil},
		{"  ", monday, time.Time{}, ErrNoName},
		{"Nell", monday.AddDate(0, 0, 1), time.Time{}, ErrBornAhead},
		{"Nell", year(-120), time.Time{}, nil},
		{"Nell", year(-120).AddDate(0, 0, -1), time.Time{}, ErrBornLong},
		{"Nell", year(-5), year(-5), nil},
		{"Nell", year(-5), year(-6), ErrSince},
	} {
		require.ErrorIs(t, Check(c.name, c.born, c.since, monday), c.want)
	}
	require.NoError(t, CheckPause(monday, time.Time{}, monday))
	require.NoError(t, CheckPause(monday, monday, monday))
	require.ErrorIs(t, CheckPause(monday, monday.AddDate(0, 0, -1), monday), ErrPauseEnds)
	require.ErrorIs(t, CheckPause(monday.AddDate(0, 0, 733), time.Time{}, monday), ErrPauseLong)
	require.ErrorIs(t, CheckPause(monday.AddDate(-11, 0, 0), time.Time{}, monday), ErrPauseLong)
	require.NoError(t, CheckLeaving(monday.AddDate(0, 0, 732), monday))
	require.ErrorIs(t, CheckLeaving(monday.AddDate(0, 0, 733), monday), ErrLeavesLate)
}

// Whoever comes back after a while was away for it, as in a pause; whoever never went was not.
func TestComingBack(t *testing.T) {
	first, last, ok := Away(monday.AddDate(0, 0, -30), monday)
	require.True(t, ok)
	require.Equal(t, []time.Time{monday.AddDate(0, 0, -30), monday.AddDate(0, 0, -1)}, []time.Time{first, last})
	for _, left := range []time.Time{{}, monday, monday.AddDate(0, 0, 3)} {
		_, _, ok = Away(left, monday)
		require.False(t, ok)
	}
}
