package instrument

import "patientladder/core/notation/engrave"

// Fretted says that its music is read from tablature as well as from the staff.
func (x Instrument) Fretted() bool { return x.Family == Plucked && len(x.Open) > 0 }

// Drawn says that its notes are drawn by our own engraver on the screen as well as on paper: tablature under the staff, or
// strokes on the middle line.
func (x Instrument) Drawn() bool { return x.Fretted() || x.Family == Percussion }

// Look adds to how something is drawn what the instrument's players read: the tablature of a fretted one.
func (x Instrument) Look(l engrave.Look) engrave.Look {
	if !x.Fretted() {
		return l
	}
	l.Strings, l.Pluck = len(x.Open), map[string]string{}
	for _, finger := range Plucking() {
		l.Pluck[finger] = x.Sign(finger)
	}
	return l
}

// Sign is how its players write a plucking finger: "p" is the thumb's, "T" where they say thumb, index and middle.
func (x Instrument) Sign(finger string) string {
	if s := x.Signs[finger]; s != "" {
		return s
	}
	return finger
}
