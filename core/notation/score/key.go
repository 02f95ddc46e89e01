package score

import (
	"strconv"
	"strings"
)

// KeyName names the key of a bar: "D major", "E flat minor". Where the file
// gives no mode it says the signature: "2 sharps", "1 flat", "no sharps or
// flats". The tonic is found on the line of fifths, three places further for a
// minor key (standard theory).
func (b Bar) KeyName() string {
	if b.Mode != "major" && b.Mode != "minor" {
		return signature(b.Fifths)
	}
	tonic, alter := b.Tonic()
	sign := ""
	if alter > 0 {
		sign = strings.Repeat(" sharp", alter)
	} else if alter < 0 {
		sign = strings.Repeat(" flat", -alter)
	}
	return string(tonic) + sign + " " + b.Mode
}

// Tonic is the step of the tonic and its alteration; of the major key where no mode is given.
func (b Bar) Tonic() (step byte, alter int) {
	at := b.Fifths + 1 // on the line of fifths from F
	if b.Mode == "minor" {
		at += 3
	}
	for ; at > 6; at -= 7 {
		alter++
	}
	for ; at < 0; at += 7 {
		alter--
	}
	return "FCGDAEB"[at], alter
}

// TonicStep is the letter of the tonic, of the major key where no mode is given.
func (b Bar) TonicStep() byte {
	step, _ := b.Tonic()
	return step
}

func signature(fifths int) string {
	word, n := "sharp", fifths
	if fifths < 0 {
		word, n = "flat", -fifths
	}
	switch n {
	case 0:
		return "no sharps or flats"
	case 1:
		return "1 " + word
	}
	return strconv.Itoa(n) + " " + word + "s"
}

// TimeName names the time signature of a bar: "3/4"; empty without one.
func (b Bar) TimeName() string {
	if b.BeatUnit == 0 {
		return ""
	}
	return strconv.Itoa(b.Beats) + "/" + strconv.Itoa(b.BeatUnit)
}

// KeyAlter returns the alteration that a key signature of so many sharps
// (flats negative) gives to a step.
func KeyAlter(step byte, fifths int) int {
	const sharps, flats = "FCGDAEB", "BEADGCF"
	for i := 0; i < fifths && i < 7; i++ {
		if sharps[i] == step {
			return 1
		}
	}
	for i := 0; i < -fifths && i < 7; i++ {
		if flats[i] == step {
			return -1
		}
	}
	return 0
}
