package midi

import "patientladder/core/notation/score"

// Spell names a MIDI pitch in a key of so many sharps (flats negative): the
// notes of the key by their own names, others by the nearest names on the line
// of fifths (three places to the flat side of the tonic, eight to the sharp
// side: in C the signs are F#, C#, G#, Bb and Eb, common practice).
func Spell(midi, fifths int) score.Pitch {
	const line = "FCGDAEB"
	for place := fifths - 3; place <= fifths+8; place++ {
		if (((7*place)%12)+12)%12 != midi%12 {
			continue
		}
		i := place + 1 // from F
		alter := 0
		for ; i < 0; i += 7 {
			alter--
		}
		alter += i / 7
		p := score.Pitch{Step: line[i%7], Alter: alter}
		p.Octave = (midi - p.Semitone()) / 12
		return p
	}
	return score.Pitch{Step: 'C'} // twelve places on the line of fifths hold every pitch: not reached
}
