package reading

import (
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
)

// Proposal says which parts of a score are the student's.
type Proposal struct {
	// Plays says of each part whether it is the student's own.
	Plays []bool
	// Ask says that it is a guess: another part could be meant.
	Ask bool
}

// mostHands is how many parts of one staff each are the hands of one keyboard player at the most.
const mostHands = 2

// Whose proposes the student's part of a score for an instrument: on a keyboard what stands on two staves, or both of two
// single staves; elsewhere the part that bears the name of the instrument, else the first that stands in its clef, else the first
// with notes. The others play along. A part that the teacher chose (own, −1 for none) is the student's alone.
func Whose(s *score.Score, player string, own int) Proposal {
	p := Proposal{Plays: make([]bool, len(s.Parts))}
	if own >= 0 && own < len(s.Parts) {
		p.Plays[own] = true
		return p
	}
	sounding := make([]bool, len(s.Parts))
	for i := range s.Notes {
		if n := &s.Notes[i]; !n.Rest {
			sounding[n.Part] = true
		}
	}
	var parts []int
	for i, sounds := range sounding {
		if sounds {
			parts = append(parts, i)
		}
	}
	choose := func(list []int) Proposal {
		p.Plays[list[0]] = true
		p.Ask = len(list) > 1
		return p
	}
	with := func(is func(part *score.Part) bool) []int {
		var out []int
		for _, i := range parts {
			if is(&s.Parts[i]) {
				out = append(out, i)
			}
		}
		return out
	}
	named := with(func(part *score.Part) bool { return bears(part.Name, player) })
	family, _ := instrument.FamilyOf(player)
	if family == instrument.Keyboard {
		grand := with(func(part *score.Part) bool { return part.Staves >= 2 })
		switch {
		case len(parts) <= 1 || len(grand) == 0 && len(parts) <= mostHands:
			for i := range p.Plays {
				p.Plays[i] = len(parts) == 0 || slices.Contains(parts, i)
			}
			return p
		case len(grand) > 0:
			return choose(grand)
		}
	}
	switch x, _ := instrument.Of(player); {
	case len(parts) == 0:
		for i := range p.Plays {
			p.Plays[i] = true
		}
		return p
	case len(parts) == 1:
		return choose(parts)
	case len(named) > 0:
		return choose(named)
	default:
		clef := x.Clef
		if list := with(func(part *score.Part) bool { return len(part.Clefs) > 0 && part.Clefs[0].Sign == clef }); len(list) > 0 {
			parts = list
		}
		p = choose(parts)
		p.Ask = true
		return p
	}
}

// alsoCalled are other names that parts bear (common practice): of an instrument, in lower case.
var alsoCalled = map[string][]string{
	"piano": {"pianoforte", "klavier"}, "cello": {"violoncello", "vc."}, "violin": {"violine", "vln"}, "viola": {"bratsche", "vla"},
	"double bass": {"contrabass", "kontrabass"}, "flute": {"flöte"}, "guitar": {"gitarre"}, "recorder": {"blockflöte"},
}

// bears says that the name of a part is that of an instrument.
func bears(name, player string) bool {
	name = strings.ToLower(name)
	return slices.ContainsFunc(append([]string{strings.ToLower(player)}, alsoCalled[player]...), func(called string) bool {
		return called != "" && strings.Contains(name, called)
	})
}
