package ics

import (
	"fmt"
	"time"

	ical "github.com/arran4/golang-ical"
)

// addZone spells the time zone out: the offset at the beginning and every
// change of it until the end, so that no reader needs a table of its own.
func addZone(c *ical.Calendar, zone *time.Location, from, to time.Time) {
	z := c.AddTimezone(zone.String())
	name, offset := from.In(zone).Zone()
	start := from.In(zone).AddDate(0, 0, -1)
	observe(z, start, offset, offset, name, start.IsDST())
	for t := from; t.Before(to); {
		_, end := t.In(zone).ZoneBounds()
		if end.IsZero() || end.After(to) {
			return
		}
		_, before := end.Add(-time.Second).In(zone).Zone()
		name, after := end.In(zone).Zone()
		// A change is written in the local time before it.
		local := end.In(time.FixedZone("", before))
		observe(z, local, before, after, name, end.In(zone).IsDST())
		t = end
	}
}

func observe(z *ical.VTimezone, local time.Time, from, to int, name string, summer bool) {
	standard := z.AddStandard()
	base := &standard.ComponentBase
	if summer {
		z.Components = z.Components[:len(z.Components)-1]
		d := &ical.Daylight{}
		z.Components = append(z.Components, d)
		base = &d.ComponentBase
	}
	base.AddProperty(ical.ComponentPropertyDtStart, local.Format(localTime))
	base.AddProperty(ical.ComponentProperty(ical.PropertyTzoffsetfrom), offsetText(from))
	base.AddProperty(ical.ComponentProperty(ical.PropertyTzoffsetto), offsetText(to))
	base.AddProperty(ical.ComponentProperty(ical.PropertyTzname), name)
}

// offsetText writes an offset in seconds as +0100.
func offsetText(seconds int) string {
	sign := '+'
	if seconds < 0 {
		sign, seconds = '-', -seconds
	}
	return fmt.Sprintf("%c%02d%02d", sign, seconds/3600, seconds/60%60)
}
