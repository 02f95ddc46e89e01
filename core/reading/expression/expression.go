// Package expression finds what a score says about how it is to sound:
// dynamics, hairpins, touches, slurs, pedal, ornaments, changes of tempo.
package expression

import (
	"strings"

	"patientladder/core/base/finding"
	"patientladder/core/notation/score"
)

// levels orders the dynamics from the softest.
var levels = map[string]int{"pppp": 0, "ppp": 1, "pp": 2, "p": 3, "mp": 4, "mf": 5, "f": 6, "ff": 7, "fff": 8, "ffff": 9}

// Find returns the findings of the parts that the student plays:
//
//	dynamic.mf, dynamic.sudden (fp, sf and the like)
//	dynamics.contrast     from soft to loud: three levels or more apart
//	hairpin.crescendo, hairpin.diminuendo
//	touch.staccato        an articulation by its MusicXML name
//	slur, slur.two-note, slur.long (five notes and more)
//	pedal, fermata, breath, rolled, grace
//	ornament.trill-mark   an ornament by its MusicXML name
//	tempo.change, tempo.slowing (rit. and the like), tempo.hastening
func Find(s *score.Score, plays []bool) finding.Set {
	f := finding.Set{}
	signs(s, plays, f)
	type voice struct {
		part, staff int
		name        string
	}
	open := map[voice]int{} // notes under the slur that is open
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest || !plays[n.Part] {
			continue
		}
		if n.Grace {
			f.Add("grace", n.Bar)
			continue
		}
		marks(n, f)
		if n.Chord || n.TieStop && !n.SlurStart && !n.SlurStop {
			continue
		}
		v := voice{n.Part, n.Staff, n.Voice}
		if open[v] > 0 {
			open[v]++
		}
		if n.SlurStop && open[v] > 0 {
			switch length := open[v]; {
			case length == 2:
				f.Add("slur.two-note", n.Bar)
			case length >= 5:
				f.Add("slur.long", n.Bar)
			}
			open[v] = 0
		}
		if n.SlurStart {
			open[v] = 1
		}
	}
	return f.Settle()
}

func marks(n *score.Note, f finding.Set) {
	if n.SlurStart || n.SlurStop {
		f.Add("slur", n.Bar)
	}
	for _, a := range n.Articulations {
		if a == "breath-mark" || a == "caesura" {
			f.Add("breath", n.Bar)
		} else {
			f.Add("touch."+a, n.Bar)
		}
	}
	for _, o := range n.Ornaments {
		f.Add("ornament."+o, n.Bar)
	}
	if n.Fermata {
		f.Add("fermata", n.Bar)
	}
	if n.Rolled {
		f.Add("rolled", n.Bar)
	}
}

func signs(s *score.Score, plays []bool, f finding.Set) {
	low, high := 99, -1
	lowBar, highBar := 0, 0
	for _, x := range s.Signs {
		if !plays[x.Part] && x.Kind != score.TempoMark {
			continue
		}
		switch x.Kind {
		case score.Dynamic:
			level, plain := levels[x.Text]
			if !plain {
				f.Add("dynamic.sudden", x.Bar)
				continue
			}
			f.Add("dynamic."+x.Text, x.Bar)
			if level < low {
				low, lowBar = level, x.Bar
			}
			if level > high {
				high, highBar = level, x.Bar
			}
		case score.Crescendo:
			f.Add("hairpin.crescendo", x.Bar)
		case score.Diminuendo:
			f.Add("hairpin.diminuendo", x.Bar)
		case score.PedalDown:
			f.Add("pedal", x.Bar)
		case score.TempoMark:
			if x.At.Num() > 0 {
				f.Add("tempo.change", x.Bar)
			}
		case score.Words:
			words(x, f)
		}
	}
	if high-low >= 3 {
		f.Add("dynamics.contrast", lowBar)
		f.Add("dynamics.contrast", highBar)
	}
}

// words reads the usual Italian words (common practice).
func words(x score.Sign, f finding.Set) {
	text := strings.ToLower(x.Text)
	for word, name := range map[string]string{
		"rit": "tempo.slowing", "rall": "tempo.slowing", "allarg": "tempo.slowing", "accel": "tempo.hastening", "string": "tempo.hastening",
		"cresc": "hairpin.crescendo", "dim": "hairpin.diminuendo", "decresc": "hairpin.diminuendo", "ped": "pedal",
	} {
		if strings.HasPrefix(text, word) {
			f.Add(name, x.Bar)
		}
	}
}
