package civil

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func zone(t require.TestingT, name string) *time.Location {
	z, err := time.LoadLocation(name)
	require.NoError(t, err)
	return z
}

// The days of instants around midnight and around both changes of clocks. Offsets and changes are those of the IANA tables:
// Los Angeles went to summer time on 8 March 2026 at two, Auckland left it on 5 April 2026 at three.
func TestDayOfAnInstant(t *testing.T) {
	for _, c := range []struct{ at, zone, day string }{
		{"2026-05-05T00:15:00Z", "America/Los_Angeles", "2026-05-04"},
		{"2026-05-04T23:45:00Z", "America/Los_Angeles", "2026-05-04"},
		{"2026-05-05T06:59:59Z", "America/Los_Angeles", "2026-05-04"},
		{"2026-05-05T07:00:00Z", "America/Los_Angeles", "2026-05-05"},
		{"2026-05-04T11:59:59Z", "Pacific/Auckland", "2026-05-04"},
		{"2026-05-04T12:00:00Z", "Pacific/Auckland", "2026-05-05"},
		{"2026-03-08T07:59:59Z", "America/Los_Angeles", "2026-03-07"},
		{"2026-03-08T08:00:00Z", "America/Los_Angeles", "2026-03-08"},
		{"2026-03-09T07:00:00Z", "America/Los_Angeles", "2026-03-09"},
		{"2026-04-05T11:00:00Z", "Pacific/Auckland", "2026-04-05"},
		{"2026-04-05T12:00:00Z", "Pacific/Auckland", "2026-04-06"},
		{"2026-05-05T00:15:00Z", "UTC", "2026-05-05"},
		{"1969-12-31T23:59:59Z", "UTC", "1969-12-31"},
	} {
		at, err := time.Parse(time.RFC3339, c.at)
		require.NoError(t, err)
		require.Equal(t, c.day, Of(at, zone(t, c.zone)).String(), "%s in %s", c.at, c.zone)
	}
	at, err := time.Parse(time.RFC3339, "2026-05-05T00:15:00Z")
	require.NoError(t, err)
	require.Equal(t, Of(at, time.UTC), Of(at, nil))
}

// A day is found again from its date, its text, and from any instant in it, and the days between are those that AddDate counts.
func TestDaysAreThoseOfTheCalendar(t *testing.T) {
	names := []string{"UTC", "America/Los_Angeles", "Pacific/Auckland", "Europe/Lisbon", "Asia/Kathmandu", "Pacific/Apia"}
	rapid.Check(t, func(r *rapid.T) {
		z := zone(r, rapid.SampledFrom(names).Draw(r, "zone"))
		at := time.Unix(rapid.Int64Range(-3e9, 7e9).Draw(r, "at"), 0)
		d := Of(at, z)
		require.Equal(r, at.In(z).Format(time.DateOnly), d.String())
		require.Equal(r, d, On(d.Date()))
		again, err := Parse(d.String())
		require.NoError(r, err)
		require.Equal(r, d, again)
		n := rapid.IntRange(-5000, 5000).Draw(r, "days")
		require.Equal(r, n, Between(d.Date(), d.Date().AddDate(0, 0, n)))
		require.Equal(r, d.Date().AddDate(0, 0, n), (d + Day(n)).Date())
	})
}

func TestWhatIsNoDay(t *testing.T) {
	_, err := Parse("2026-02-30")
	require.EqualError(t, err, `"2026-02-30" is not a day such as 2026-05-04`)
}
