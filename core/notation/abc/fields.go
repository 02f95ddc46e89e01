package abc

import (
	"math"
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// setMeter reads the value of an M: field; a metre that cannot be read is listed and none taken.
func (t *tune) setMeter(v *voice, value string, at int) {
	value = strings.NewReplacer("(", "", ")", "", " ", "").Replace(value)
	v.beats, v.beatUnit = 0, 0
	switch value {
	case "C":
		v.beats, v.beatUnit = 4, 4
	case "C|":
		v.beats, v.beatUnit = 2, 2
	case "none", "":
	default:
		top, bottom, _ := strings.Cut(value, "/")
		unit, err := strconv.Atoi(bottom)
		beats := 0
		for _, term := range strings.Split(top, "+") {
			n, err := strconv.Atoi(term)
			if err != nil || n < 1 || n > 128 {
				beats = -1000
			}
			beats += n
		}
		if err != nil || unit < 1 || unit > 128 || unit&(unit-1) != 0 || beats < 1 {
			t.skip("metre "+score.Short(value)+" (none was taken)", at)
			return
		}
		v.beats, v.beatUnit = beats, unit
	}
	if v.unit.IsZero() || !v.unitGiven {
		v.unit = unitOf(v.beats, v.beatUnit)
	}
}

// unitOf is the unit length where no L: says it: a semiquaver in metres below three quarters, else a quaver.
func unitOf(beats, beatUnit int) rational.Rat {
	if beatUnit > 0 && 4*beats < 3*beatUnit {
		return rational.New(1, 4)
	}
	return rational.New(1, 2)
}

// setUnit reads the value of an L: field.
func (t *tune) setUnit(v *voice, value string, at int) {
	num, den, ok := fraction(value)
	if !ok || num > 16 || den > 512 || den&(den-1) != 0 {
		t.skip("unit length "+score.Short(value)+" (the one before was kept)", at)
		return
	}
	v.unit, v.unitGiven = rational.New(4*num, den), true
}

// fraction reads "1/8" or "1".
func fraction(s string) (num, den int64, ok bool) {
	a, b, found := strings.Cut(strings.TrimSpace(s), "/")
	if !found {
		b = "1"
	}
	num, err1 := strconv.ParseInt(strings.TrimSpace(a), 10, 32)
	den, err2 := strconv.ParseInt(strings.TrimSpace(b), 10, 32)
	return num, den, err1 == nil && err2 == nil && num > 0 && den > 0
}

// setTempo reads the value of a Q: field: 1/4=120, "Lively" 3/8=60, or 120 unit lengths a minute.
func (t *tune) setTempo(v *voice, value string, at int) {
	for {
		a := strings.IndexByte(value, '"')
		b := strings.LastIndexByte(value, '"')
		if a < 0 || a == b {
			break
		}
		if words := strings.TrimSpace(value[a+1 : b]); words != "" {
			v.sign(score.Sign{Kind: score.Words, Text: score.Short(words)})
		}
		value = value[:a] + value[b+1:]
	}
	value = strings.TrimSpace(value)
	if value == "" {
		return
	}
	lengths, count, found := strings.Cut(value, "=")
	beat := v.unit
	if !found {
		count = value
	} else {
		beat = rational.Rat{}
		for _, w := range strings.Fields(lengths) {
			if num, den, ok := fraction(w); ok && den <= 512 && num <= 512 {
				beat = beat.Add(rational.New(4*num, den))
			}
		}
		if beat.IsZero() { // "C=100": of the unit length
			beat = v.unit
		}
	}
	perMinute, err := strconv.ParseFloat(strings.TrimSpace(count), 64)
	tempo := perMinute * beat.Float()
	if err != nil || math.IsNaN(tempo) || tempo < 1 || tempo > 1000 {
		t.skip("tempo "+score.Short(value), at)
		return
	}
	if t.score.Tempo == 0 {
		t.score.Tempo = tempo
	}
	v.sign(score.Sign{Kind: score.TempoMark, Value: tempo})
}

// toVoice turns to the voice of a V: field, which is made where it is new.
func (t *tune) toVoice(value string, at int) {
	words := strings.Fields(quotedWhole(value))
	if len(words) == 0 {
		return
	}
	id := score.Short(words[0])
	v := t.voices[id]
	if v == nil {
		if t.bare() {
			v = t.cur // the first voice was made before it had a name
			delete(t.voices, v.id)
			v.id = id
			t.voices[id] = v
		} else {
			v = t.newVoice(id)
		}
	}
	if v == nil {
		return
	}
	for _, w := range words[1:] {
		t.voiceWord(v, w, at)
	}
	t.cur = v
	v.lineStart = len(v.notes)
}

// bare says that only the unnamed voice exists and nothing was written in it.
func (t *tune) bare() bool {
	return len(t.order) == 1 && t.order[0].id == "" && len(t.order[0].notes) == 0
}

// quotedWhole puts a sign of its own in the place of spaces in quoted values, so that they stay one word.
func quotedWhole(s string) string {
	in := false
	return strings.Map(func(c rune) rune {
		if c == '"' {
			in = !in
		}
		if c == ' ' && in {
			return '\u0001'
		}
		return c
	}, s)
}

// voiceWord reads one property of a voice or a key: clef=bass, octave=-1, name="Alto".
func (t *tune) voiceWord(v *voice, w string, at int) {
	name, value, found := strings.Cut(w, "=")
	value = strings.Trim(strings.ReplaceAll(value, "\u0001", " "), "\"")
	n, err := strconv.Atoi(value)
	switch {
	case !found && v.setClef(w):
	case name == "clef" && v.setClef(value):
	case name == "octave" && err == nil && n >= -4 && n <= 4:
		v.octave = n
	case (name == "transpose" || name == "t") && err == nil && n >= -48 && n <= 48:
		v.transpose = n
	case name == "name" || name == "nm":
		v.name = value
	case name == "snm" || name == "sname" || name == "subname", name == "stem" || name == "stems" || name == "gstem",
		name == "merge" || name == "up" || name == "down", name == "brace", name == "bracket", name == "stafflines", name == "staffscale":
		// looks only
	default:
		t.skip("“"+score.Short(w)+"” in a voice or key", at)
	}
}

// setStaves reads %%score or %%staves: which voices share a part or a staff.
// Braces make one part on several staves, round brackets one staff.
func (t *tune) setStaves(value string) {
	var groups [][][]string // parts of staves of voices
	depth := ""
	for _, w := range strings.Fields(strings.NewReplacer("{", " { ", "}", " } ", "(", " ( ", ")", " ) ", "[", " ", "]", " ", "|", " ", "*", " ").Replace(value)) {
		switch w {
		case "{", "(":
			if w == "{" || depth == "" {
				groups = append(groups, nil)
			}
			depth += w
			if w == "(" {
				groups[len(groups)-1] = append(groups[len(groups)-1], nil)
			}
		case "}", ")":
			if depth != "" {
				depth = depth[:len(depth)-1]
			}
		default:
			switch {
			case depth == "":
				groups = append(groups, [][]string{{w}})
			case depth[len(depth)-1] == '(':
				part := &groups[len(groups)-1]
				(*part)[len(*part)-1] = append((*part)[len(*part)-1], w)
			default:
				groups[len(groups)-1] = append(groups[len(groups)-1], []string{w})
			}
		}
	}
	t.staves = groups
}
