package progress

import (
	"time"

	"patientladder/core/library/material"
)

// Drawn is a piece as it is drawn against time: From and To from 0 for the first day of a span to 1 for the last.
type Drawn struct {
	Material string
	From, To float64
	// Lane is its place from the left, from 0, over all strands; Wide the effort that it asked for, 0 to 1.
	Lane int
	Wide float64
	// Open says that it is in work still at the end of the span.
	Open bool
}

// widest is the leap from which a piece is drawn as wide as it can be.
const widest = 5

// Drawn are the pieces of the way, strand by strand.
func (p Progress) Drawn(lib material.Library) []Drawn {
	lanes, widths := Lanes(p.Way, lib, p.Span.To)
	first := map[material.Strand]int{}
	n := 0
	for _, s := range material.Strands() {
		first[s] = n
		n += widths[s]
	}
	var out []Drawn
	for _, x := range p.Way {
		d := Drawn{
			Material: x.Material,
			From:     p.Span.Share(x.From),
			To:       1,
			Lane:     first[lib[x.Material].Strand] + lanes[x.Material],
			Wide:     min(1, x.Leap/widest),
			Open:     true,
		}
		if !x.To.IsZero() && !x.To.After(p.Span.To) {
			d.To, d.Open = p.Span.Share(x.To), false
		}
		out = append(out, d)
	}
	return out
}

// Share is the place of a day in the span, 0 for its first day or before, 1 for its last or after.
func (s Span) Share(day time.Time) float64 {
	return min(1, max(0, day.Sub(s.From).Hours()/max(24, s.To.Sub(s.From).Hours())))
}

// Months are the first days of the months that begin in the span.
func (s Span) Months() (out []time.Time) {
	for d := time.Date(s.From.Year(), s.From.Month()+1, 1, 0, 0, 0, 0, time.UTC); !d.After(s.To); d = d.AddDate(0, 1, 0) {
		out = append(out, d)
	}
	return out
}
