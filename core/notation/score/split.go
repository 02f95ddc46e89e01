package score

import "patientladder/core/base/rational"

// SplitTies writes notes and rests that no single sign stands for (five
// quavers), or that run over a bar line, as several: notes tied together. What
// sounds does not change.
func (s *Score) SplitTies() {
	out := make([]Note, 0, len(s.Notes))
	var group []Note // the note being split with the others of its chord
	flush := func() {
		for {
			// A chord is split at the same places as its first note.
			rest := false
			var next []Note
			for i, n := range group {
				cut := s.writable(n)
				first := n
				first.Duration = cut
				first.Type, first.Dots = Notated(cut, n.Tuplet)
				if i == 0 {
					first.Chord = false
				}
				if cut.Less(n.Duration) {
					rest = true
					more := n
					more.Onset, more.Duration = n.Onset.Add(cut), n.Duration.Sub(cut)
					more.Bar = s.barAt(n.Bar, more.Onset)
					more.Chord = len(next) > 0
					more.TieStop, more.SlurStart, more.Lyric, more.Fingering, more.Fermata = !n.Rest, false, "", "", n.Fermata
					more.Bow, more.Pluck = "", ""
					more.Articulations, more.Ornaments, more.ShownAccidental = nil, nil, false
					first.TieStart, first.SlurStop, first.Fermata = !n.Rest, false, false
					next = append(next, more)
				}
				out = append(out, first)
			}
			group = next
			if !rest {
				return
			}
		}
	}
	for _, n := range s.Notes {
		if n.Grace || n.Duration.IsZero() {
			flush()
			group = nil
			out = append(out, n)
			continue
		}
		if !n.Chord {
			flush()
			group = nil
		}
		group = append(group, n)
	}
	flush()
	s.Notes = out
}

// barAt is the position of the bar of a time, from a bar onwards.
func (s *Score) barAt(from int, at rational.Rat) int {
	for from < len(s.Bars) && !at.Less(s.Bars[from].Start) {
		from++
	}
	return from
}

// writable is the longest part of a note, from its beginning, that one sign
// stands for within its bar; the whole note when nothing shorter helps.
func (s *Score) writable(n Note) rational.Rat {
	room := n.Duration
	if n.Bar < len(s.Bars) {
		if left := s.Bars[n.Bar].Start.Sub(n.Onset); left.Less(room) && left.Num() > 0 {
			room = left
		}
	}
	if name, dots := Notated(room, n.Tuplet); name != "" && dots < 3 {
		return room
	}
	factor := rational.Int(1)
	if n.Tuplet.Actual > 0 && n.Tuplet.Normal > 0 {
		factor = rational.New(int64(n.Tuplet.Normal), int64(n.Tuplet.Actual))
	}
	value := rational.Int(8)
	for range typeNames {
		if v := value.Mul(factor); !room.Less(v) {
			return v
		}
		value = value.Mul(rational.New(1, 2))
	}
	return room
}
