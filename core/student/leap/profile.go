package leap

import (
	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
)

// Height is how high a material lies in one dimension, beside what a student has there.
type Height struct {
	material.Load
	// Worth is what the load is worth in the leap of a beginner.
	Worth float64
	// Secure is the load that is at hand and SecureWorth what that is worth; Known says that something is known of it.
	Secure, SecureWorth float64
	Known               bool
	// Above says that it is a part of the leap.
	Above bool
}

// Profile is how high a material lies in each of its dimensions, in their order, for what a student brings to it.
func (p Policy) Profile(m *material.Material, b Brought) []Height {
	family, _ := instrument.FamilyOf(m.Instrument)
	out := make([]Height, 0, len(m.Loads))
	for i, l := range m.Loads {
		d, ok := dimension.By(family, l.Dimension)
		if !ok {
			continue
		}
		h := Height{Load: l, Worth: d.Worth(l.Value)}
		if i < len(b.Loads) {
			h.Known, h.Secure, h.SecureWorth = true, b.Loads[i], d.Worth(b.Loads[i])
			_, weight := p.load(m, l, b, i)
			h.Above = weight > 0
		}
		out = append(out, h)
	}
	return out
}

// Hardest are the bars in which the highest loads of the material come together, one or more of its three heaviest dimensions: by
// how many of them stand in each bar, indexed from bar 1 at 0.
func Hardest(profile []Height, bars int) []int {
	out := make([]int, bars)
	for range hardestOf {
		best := -1
		for i, h := range profile {
			// What lies everywhere marks no place.
			if h.Worth > 0 && len(h.Bars) > 0 && 2*len(h.Bars) <= bars && (best < 0 || h.Worth > profile[best].Worth) {
				best = i
			}
		}
		if best < 0 {
			break
		}
		for _, bar := range profile[best].Bars {
			if bar >= 1 && bar <= bars {
				out[bar-1]++
			}
		}
		profile = append(append([]Height{}, profile[:best]...), profile[best+1:]...)
	}
	return out
}

// hardestOf is how many dimensions say where a piece is hard (default).
const hardestOf = 3
