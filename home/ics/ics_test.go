package ics

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
)

func on(date string) time.Time {
	d, err := time.Parse(time.DateOnly, date)
	if err != nil {
		panic(err)
	}
	return d
}

func feed(zone *time.Location) Feed {
	t := calendar.Weekly(time.Tuesday, 15*60+30, 30, on("2020-01-01"))
	t.Slots[0].ID = "s"
	t.Holidays = []calendar.Break{{From: on("2026-04-07"), To: on("2026-04-07")}}
	return Feed{
		Name: "Nell: piano lesson", Practice: "Nell: practice", PracticeID: "L1", Page: "http://127.0.0.1/home/abc", Zone: zone,
		From:     on("2026-03-17"),
		Students: []Student{{ID: "L1", Title: "Nell: piano lesson", Lessons: t}},
		Days:     []Day{{Date: on("2026-03-18"), Minutes: 12.5, Words: "Small piece: Rowing Home, bars 1–2\nPlay: Low Water"}},
		Made:     time.Date(2026, 3, 17, 18, 0, 0, 0, time.UTC),
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

// A slot that ends says so in UTC, also where its start is in a zone (RFC 5545, section 3.3.10); a pause
// without an end ends it, too.
func TestASlotThatEnds(t *testing.T) {
	zone, err := time.LoadLocation("Europe/Lisbon")
	require.NoError(t, err)
	f := feed(zone)
	f.Students[0].Lessons.Slots[0].Until = on("2026-06-30")
	require.Contains(t, Write(f), "RRULE:FREQ=WEEKLY;INTERVAL=1;UNTIL=20260630T143000Z")
	f.Students[0].Lessons.Pauses = []calendar.Break{{From: on("2026-06-01"), To: calendar.NoEnd}}
	require.Contains(t, Write(f), "UNTIL=20260531T143000Z")
}

func TestOffsets(t *testing.T) {
	for seconds, want := range map[int]string{0: "+0000", 3600: "+0100", -12600: "-0330", 20700: "+0545"} {
		require.Equal(t, want, offsetText(seconds))
	}
}

func TestHolidaysOfAFile(t *testing.T) {
	file := strings.ReplaceAll(`BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//test//
BEGIN:VEVENT
UID:1
SUMMARY:May week
DTSTART;VALUE=DATE:20260511
DTEND;VALUE=DATE:20260516
END:VEVENT
BEGIN:VEVENT
UID:2
SUMMARY:Harbour day
DTSTART;VALUE=DATE:20260520
END:VEVENT
BEGIN:VEVENT
UID:3
SUMMARY:Last winter
DTSTART;VALUE=DATE:20251220
DTEND;VALUE=DATE:20260105
END:VEVENT
BEGIN:VEVENT
UID:4
SUMMARY:Staff meeting
DTSTART:20260512T160000Z
DTEND:20260512T170000Z
END:VEVENT
BEGIN:VEVENT
UID:5
SUMMARY:Every Friday
DTSTART;VALUE=DATE:20260515
RRULE:FREQ=WEEKLY
END:VEVENT
END:VCALENDAR
`, "\n", "\r\n")
	found, err := Holidays([]byte(file), on("2026-05-04"))
	require.NoError(t, err)
	require.Equal(
		t,
		[]calendar.Holiday{
			{Name: "May week", First: on("2026-05-11"), Last: on("2026-05-15")},
			{Name: "Harbour day", First: on("2026-05-20"), Last: on("2026-05-20")},
		},
		found.Holidays,
	)
	require.Equal(
		t,
		[]string{"Last winter: it is over", "Staff meeting: it has a time of day", "Every Friday: it repeats; add each by hand"},
		found.Skipped,
	)
	for _, bad := range []string{"", "hello", "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", "BEGIN:VEVENT"} {
		_, err := Holidays([]byte(bad), on("2026-05-04"))
		require.ErrorIs(t, err, ErrNoCalendar, bad)
	}
}

func FuzzHolidays(f *testing.F) {
	f.Add([]byte("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20260511\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		found, err := Holidays(data, on("2026-05-04"))
		if err != nil {
			return
		}
		for _, h := range found.Holidays {
			require.False(t, h.Last.Before(h.First))
		}
	})
}
