package abc

import (
	"regexp"
	"strings"

	"patientladder/core/notation/score"
)

// key is a key signature with what it does to each step.
type key struct {
	fifths int
	mode   string
	alter  map[byte]int
	// own says that signs were added beyond the usual signature.
	own bool
}

const sharpOrder, flatOrder = "FCGDAEB", "BEADGCF"

func signature(fifths int, mode string) key {
	k := key{fifths: fifths, mode: mode, alter: map[byte]int{}}
	for i := 0; i < fifths; i++ {
		k.alter[sharpOrder[i%7]]++
	}
	for i := 0; i < -fifths; i++ {
		k.alter[flatOrder[i%7]]--
	}
	return k
}

// modes are the steps on the line of fifths from the major key of the same tonic.
var modes = map[string]struct {
	shift int
	name  string
}{
	"": {0, "major"}, "maj": {0, "major"}, "ion": {0, "ionian"}, "mix": {-1, "mixolydian"}, "dor": {-2, "dorian"},
	"m": {-3, "minor"}, "min": {-3, "minor"}, "aeo": {-3, "aeolian"}, "phr": {-4, "phrygian"}, "loc": {-5, "locrian"}, "lyd": {1, "lydian"},
}

// setKey reads the value of a K: field: tonic, mode, signs of its own, clef.
func (t *tune) setKey(v *voice, value string, at int) {
	value = strings.ReplaceAll(value, "clef=", " clef=")
	if first, _, _ := strings.Cut(value, " "); !strings.Contains(first, "clef=") && strings.IndexAny(first, "^_") > 0 {
		value = ownSigns.ReplaceAllString(value, " $1") // "C^f^c": some files leave the spaces out
	}
	words := strings.Fields(value)
	if len(words) == 0 {
		return
	}
	rest := words
	switch w := words[0]; {
	case w == "HP" || w == "Hp":
		v.key = signature(2, "mixolydian")
		rest = words[1:]
	case w == "none":
		v.key = signature(0, "")
		rest = words[1:]
	case w[0] >= 'A' && w[0] <= 'G' && tonicEnds(w):
		k, used := t.tonic(words, at)
		v.key = k
		rest = words[used:]
	}
	for _, w := range rest {
		switch {
		case w == "exp":
			v.key = signature(0, "")
			v.key.own = true
		case strings.ContainsRune("^_=", rune(w[0])):
			t.ownSign(v, w, at)
		default:
			t.voiceWord(v, w, at)
		}
	}
}

var ownSigns = regexp.MustCompile(`([\^_]+[A-Ga-g])`)

// tonicEnds says that a word is a tonic with or without a mode, not a clef such as "C3" or a word such as "Bass".
func tonicEnds(w string) bool {
	m := strings.TrimLeft(w[1:], "#b")
	_, ok := modes[modeWord(m)]
	return ok
}

func modeWord(m string) string {
	m = strings.ToLower(m)
	if len(m) > 3 {
		m = m[:3]
	}
	return m
}

// tonic reads "Ebm", "Eb min", "F#", "D phr"; used is the number of words.
func (t *tune) tonic(words []string, at int) (k key, used int) {
	w := words[0]
	fifths := strings.IndexByte("FCGDAEB", w[0]) - 1
	rest := w[1:]
	switch {
	case strings.HasPrefix(rest, "#"):
		fifths, rest = fifths+7, rest[1:]
	case strings.HasPrefix(rest, "b"):
		fifths, rest = fifths-7, rest[1:]
	}
	used = 1
	if rest == "" && len(words) > 1 && letter(words[1][0]) && len(modeWord(words[1])) > 0 {
		if _, ok := modes[modeWord(words[1])]; ok && words[1] != "exp" {
			rest, used = words[1], 2
		}
	}
	m, ok := modes[modeWord(rest)]
	if !ok {
		t.skip("mode "+score.Short(rest)+" (major was taken)", at)
		m = modes[""]
	}
	fifths += m.shift
	if fifths < -7 || fifths > 7 {
		t.skip("keys beyond seven sharps or flats", at)
	}
	return signature(fifths, m.name), used
}

// ownSign reads a sign of a key's own: "^f", "_b", "=c".
func (t *tune) ownSign(v *voice, w string, at int) {
	n := 0
	for len(w) > 0 && strings.IndexByte("^_=", w[0]) >= 0 {
		switch w[0] {
		case '^':
			n++
		case '_':
			n--
		}
		w = w[1:]
	}
	step := strings.ToUpper(w)
	if len(step) != 1 || step[0] < 'A' || step[0] > 'G' || n > 2 || n < -2 {
		t.skip("signs in a key that cannot be read", at)
		return
	}
	own := key{fifths: v.key.fifths, mode: v.key.mode, own: true, alter: map[byte]int{}}
	for s, a := range v.key.alter {
		own.alter[s] = a
	}
	own.alter[step[0]] = n
	v.key = own
	t.skip("key signatures with signs of their own (the notes carry them)", at)
}

// clefs are the names of clefs.
var clefs = map[string]score.Clef{
	"treble": {Sign: "G", Line: 2}, "bass": {Sign: "F", Line: 4}, "bass3": {Sign: "F", Line: 3}, "alto": {Sign: "C", Line: 3},
	"tenor": {Sign: "C", Line: 4}, "alto1": {Sign: "C", Line: 1}, "alto2": {Sign: "C", Line: 2}, "perc": {Sign: "percussion"},
	"none": {Sign: "G", Line: 2},
	"tab":  {Sign: "TAB", Line: 5}, "G": {Sign: "G", Line: 2}, "F": {Sign: "F", Line: 4}, "C": {Sign: "C", Line: 3},
}

// setClef reads "bass", "treble-8", "alto+8"; ok is false when it is no clef.
func (v *voice) setClef(name string) bool {
	octave := 0
	for _, o := range []struct {
		mark  string
		shift int
	}{{"-8", -1}, {"+8", 1}, {"-15", -2}, {"+15", 2}} {
		if strings.HasSuffix(name, o.mark) {
			name, octave = strings.TrimSuffix(name, o.mark), o.shift
			break
		}
	}
	c, ok := clefs[name]
	if !ok {
		return false
	}
	c.Octave = octave
	if len(v.notes) > 0 && c != v.clef {
		v.sign(score.Sign{Kind: score.ClefChange, Clef: c})
	} else {
		v.firstClef = c
	}
	v.clef = c
	return true
}
