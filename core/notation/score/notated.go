package score

import "patientladder/core/base/rational"

// typeNames are the names of the note values, from 8 quarter notes by halves (MusicXML's own names).
var typeNames = []string{"breve", "whole", "half", "quarter", "eighth", "16th", "32nd", "64th", "128th", "256th"}

// Notated returns the written value of a duration in quarter notes inside a
// tuplet (the zero Ratio outside one): its name and up to three dots. The name
// is empty when one note cannot be written for it.
func Notated(d rational.Rat, tuplet Ratio) (name string, dots int) {
	if d.Num() <= 0 {
		return "", 0
	}
	if tuplet.Actual > 0 && tuplet.Normal > 0 {
		d = d.Mul(rational.New(int64(tuplet.Actual), int64(tuplet.Normal)))
	}
	value := rational.Int(8)
	for _, name := range typeNames {
		if !d.Less(value) {
			rest, half := d.Sub(value), value
			for dots := 0; dots <= 3; dots++ {
				if rest.IsZero() {
					return name, dots
				}
				half = half.Mul(rational.New(1, 2))
				rest = rest.Sub(half)
			}
			return "", 0
		}
		value = value.Mul(rational.New(1, 2))
	}
	return "", 0
}
