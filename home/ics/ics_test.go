package ics

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

func feed(zone *time.Location) Feed {
	holiday := time.Date(2026, 4, 7, 0, 0, 0, 0, time.UTC)
	return Feed{
		ID: "L1", Lesson: "Nell: piano lesson", Practice: "Nell: practice", Page: "http://127.0.0.1/home/abc", Zone: zone,
		First: time.Date(2026, 3, 17, 0, 0, 0, 0, time.UTC), StartsAt: 15*60 + 30, Minutes: 30, Until: time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC),
		Off:  func(day time.Time) bool { return day.Equal(holiday) },
		Days: []Day{{Date: time.Date(2026, 3, 18, 0, 0, 0, 0, time.UTC), Minutes: 12.5, Words: "Small piece: Rowing Home, bars 1–2\nPlay: Low Water"}},
		Made: time.Date(2026, 3, 17, 18, 0, 0, 0, time.UTC),
	}
}

// Lines are at most 75 octets and end in CR LF (RFC 5545, section 3.1).
func TestLinesAreFolded(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	text := Write(feed(zone))
	for _, line := range strings.Split(strings.TrimSuffix(text, "\r\n"), "\r\n") {
		require.LessOrEqual(t, len(line), 75, line)
		require.NotContains(t, line, "\n")
	}
	require.Contains(t, text, "EXDATE;TZID=Europe/Lisbon:20260407T153000")
	require.Contains(t, text, "SUMMARY:Nell: practice\\, 12.5 min")
	require.Equal(t, text, Write(feed(zone)), "the same feed is written the same way")
}

// Summer time in Portugal began on 29 March 2026 at 01:00 UTC, from +00:00 to
// +01:00 (directive 2000/84/EC: the last Sunday of March).
func TestTheTimeZoneIsSpelledOut(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	text := Write(feed(zone))
	require.Contains(t, text, "BEGIN:DAYLIGHT\r\nDTSTART:20260329T010000\r\nTZOFFSETFROM:+0000\r\nTZOFFSETTO:+0100")
	require.Contains(t, text, "BEGIN:STANDARD\r\nDTSTART:20261025T020000\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0000")
	require.NotContains(t, Write(feed(time.UTC)), "VTIMEZONE")
	require.Contains(t, Write(feed(time.UTC)), "DTSTART:20260317T153000Z")
}

func TestOffsets(t *testing.T) {
	for seconds, want := range map[int]string{0: "+0000", 3600: "+0100", -12600: "-0330", 20700: "+0545"} {
		require.Equal(t, want, offsetText(seconds))
	}
}
