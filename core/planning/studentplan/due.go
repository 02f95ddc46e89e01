package studentplan

import (
	"time"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/signs"
	"patientladder/core/student/standing"
)

// Due are the signs of what is due on a day, the most urgent first: what the standing shows,
// with what the outlook adds. Of the previews that will be late one is named, and of each
// strand only the next rung.
func (a StudentOutlook) Due(day time.Time) []signs.Sign {
	seen := signs.Seen{
		Standing: a.Standing, Library: a.Library, Policy: a.Policy.Signs, Day: day, Long: map[string]float64{}, Kept: map[string]bool{},
		Measure: a.AsksToMeasure(), Measured: !a.Standing.SetupAt().IsZero(),
	}
	for id, w := range a.When {
		if w.Long {
			seen.Long[id] = w.Usual
		}
	}
	for _, id := range a.Learned() {
		seen.Kept[id] = true
	}
	for _, o := range a.Plan.Outcomes {
		if o.Late() > 0 {
			seen.Late = &signs.Sign{Material: o.For, Skill: o.Skill, Lessons: o.Late()}
			break
		}
	}
	for _, rail := range a.View.Rails {
		if i, ok := nextRung(rail); ok && i > 0 && rail.Rungs[i].Cliff {
			r := rail.Rungs[i]
			seen.Cliffs = append(seen.Cliffs, signs.Sign{Material: r.Material.ID, Leap: r.Leap.Size, Reach: rail.Reach.Size})
		}
	}
	seen.Dry = a.dry()
	return signs.Find(seen)
}

// dry are the strands of reading, and of technique on an instrument that no exercises are known for, on which something was learned
// and nothing is in work, resting or ahead; none of reading before it begins. Where exercises are known the lesson proposes the
// next one.
func (a StudentOutlook) dry() (out []material.Strand) {
	for _, strand := range []material.Strand{material.Technique, material.Reading} {
		_, known := instrument.Of(a.Instrument)
		if strand == material.Technique && known || strand == material.Reading && a.BySound() {
			continue
		}
		learned, open := false, false
		for id, m := range a.Standing.Materials {
			if a.Library[id].Strand != strand {
				continue
			}
			switch m.State {
			case standing.Cleared, standing.Polished:
				learned = learned || !m.Elsewhere()
			case standing.Working, standing.Resting:
				open = true
			}
		}
		for _, rail := range a.View.Rails {
			if _, ahead := nextRung(rail); rail.Strand == strand && ahead {
				open = true
			}
		}
		if learned && !open {
			out = append(out, strand)
		}
	}
	return out
}

// nextRung is the place of the next rung of a rail that is not begun and not aside.
func nextRung(rail ladder.Rail) (int, bool) {
	for i, r := range rail.Rungs {
		if r.IsAhead() && r.Aside == "" {
			return i, true
		}
	}
	return 0, false
}
