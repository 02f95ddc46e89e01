package exercise

// Under are the notes of an exercise at which each place is met first, in order: what lies under the left hand on strings. None
// for a roll, which is held by chords.
func (e Exercise) Under(b Built) (out []Note) {
	if e.Type.What == rolling {
		return nil
	}
	seen := map[[2]int]bool{}
	for _, n := range b.Notes {
		if at := [2]int{n.String, n.Above}; !seen[at] {
			seen[at] = true
			out = append(out, n)
		}
	}
	return out
}

// rolling is what a roll is called.
const rolling = "roll"

// Round are the plucked notes of one round of a roll, two to a beat; none for what is no roll.
func (e Exercise) Round(b Built) (out []Note) {
	if e.Type.What != rolling {
		return nil
	}
	for _, n := range b.Notes {
		if n.Pluck != "" && len(out) < 2*b.Beats {
			out = append(out, n)
		}
	}
	return out
}

// Hand are the notes of a hand on a keyboard at which each key is met first, in order.
func (b Built) Hand(hand string) (out []Note) {
	seen := map[int]bool{}
	for _, n := range b.Notes {
		if midi := n.Pitch.Semitone(); n.Hand == hand && !seen[midi] {
			seen[midi] = true
			out = append(out, n)
		}
	}
	return out
}
