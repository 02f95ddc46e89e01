package clock

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

func TestAClockGoesOnFromItsBeginning(t *testing.T) {
	start := time.Date(2026, 5, 4, 23, 58, 0, 0, time.UTC)
	slow := From(start, 0.01)
	first := slow()
	require.False(t, first.Before(start))
	require.Less(t, first.Sub(start), time.Second)
	require.Equal(t, start, From(start, 0)(), "it stands still")
}

func TestALocalTimeIsThatOfItsZone(t *testing.T) {
	at, err := Parse("2026-10-25T00:30", "Europe/Lisbon")
	require.NoError(t, err)
	require.Equal(t, time.Date(2026, 10, 24, 23, 30, 0, 0, time.UTC), at.UTC(), "summer time until two o'clock")
	require.Equal(t, time.Date(2026, 10, 25, 0, 0, 0, 0, time.UTC), Day(at, "Europe/Lisbon"))
	require.Equal(t, time.Date(2026, 10, 24, 0, 0, 0, 0, time.UTC), Day(at, "America/St_Johns"))
	require.Equal(t, time.Date(2026, 10, 24, 0, 0, 0, 0, time.UTC), Day(at, "Nowhere"))
	_, err = Parse("2026-10-25T00:30", "Nowhere")
	require.EqualError(t, err, `"Nowhere" is not a time zone such as Europe/Lisbon`)
	_, err = Parse("tomorrow", "UTC")
	require.EqualError(t, err, `"tomorrow" is not a time such as 2026-05-04T15:30`)
}
