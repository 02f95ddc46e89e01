package score

import "strconv"

// KeyName names the key of a bar: "D major", "E flat minor". Where the file
// gives no mode it says the signature: "2 sharps", "1 flat", "no sharps or
// flats". The tonic is found on the line of fifths, three places further for a
// minor key (standard theory).
func (b Bar) KeyName() string {
	const fifths = "FCGDAEB"
	tonic := b.Fifths + 1 // index of the major tonic on the line of fifths from F
	switch b.Mode {
	case "major":
	case "minor":
		tonic += 3
	default:
		return signature(b.Fifths)
	}
	sign := ""
	for ; tonic > 6; tonic -= 7 {
		sign += " sharp"
	}
	for ; tonic < 0; tonic += 7 {
		sign += " flat"
	}
	return string(fifths[tonic]) + sign + " " + b.Mode
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
