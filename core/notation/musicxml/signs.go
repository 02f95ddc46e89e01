package musicxml

import (
	"math"
	"slices"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// sign is what one direction says about the place and the tempo of its marks.
type sign struct {
	staff  int
	offset rational.Rat
	tempo  float64
	marks  []score.Sign
}

// sign adds a sign at the cursor; its time counts from the bar until settleBars.
func (r *reader) sign(p *partState, at sign, s score.Sign) {
	s.At = r.quarters(p, p.cursor).Add(at.offset)
	if s.At.Num() < 0 {
		s.At = rational.Rat{}
	}
	s.Bar, s.Part, s.Staff = p.bar+1, p.index, at.staff
	if len(r.score.Signs) < r.limits.Notes {
		r.score.Signs = append(r.score.Signs, s)
	}
}

// settle adds the marks of a direction once its staff and offset are known.
func (r *reader) settle(p *partState, at sign) {
	if at.tempo > 0 {
		at.marks = append(at.marks, score.Sign{Kind: score.TempoMark, Value: at.tempo})
		if r.score.Tempo == 0 {
			r.score.Tempo = at.tempo
		}
	}
	for _, m := range at.marks {
		r.sign(p, at, m)
	}
}

func (r *reader) direction(p *partState) error {
	at := sign{staff: 1}
	err := r.children(func(el element) error {
		switch el.name {
		case "sound":
			r.sound(p, el, &at)
			return r.skip()
		case "direction-type":
			return r.children(func(el element) error { return r.directionType(p, el, &at) })
		case "staff":
			n, err := r.whole("a staff number")
			at.staff = int(max(1, min(n, int64(r.score.Parts[p.index].Staves))))
			return err
		case "offset":
			return r.offset(p, &at)
		}
		return r.skip()
	})
	r.settle(p, at)
	return err
}

func (r *reader) offset(p *partState, at *sign) error {
	s, err := r.value()
	if f, ferr := strconv.ParseFloat(s, 64); ferr == nil && math.Abs(f) < 1e6 {
		at.offset = r.quarters(p, int64(f))
	}
	return err
}

func (r *reader) directionType(p *partState, el element, at *sign) error {
	add := func(kind score.SignKind, text string) {
		at.marks = append(at.marks, score.Sign{Kind: kind, Text: text})
	}
	switch el.name {
	case "metronome":
		tempo, err := r.metronome()
		if tempo > 0 {
			at.tempo = tempo
		}
		return err
	case "dynamics":
		return r.children(func(el element) error {
			text := short(el.name)
			if el.name == "other-dynamics" {
				other, err := r.value()
				add(score.Dynamic, short(other))
				return err
			}
			add(score.Dynamic, text)
			return r.skip()
		})
	case "wedge":
		switch attr(el, "type") {
		case "crescendo":
			add(score.Crescendo, "")
		case "diminuendo":
			add(score.Diminuendo, "")
		case "stop":
			add(score.HairpinEnd, "")
		}
	case "pedal":
		switch attr(el, "type") {
		case "start", "resume":
			add(score.PedalDown, "")
		case "change":
			add(score.PedalUp, "")
			add(score.PedalDown, "")
		case "stop", "discontinue":
			add(score.PedalUp, "")
		}
	case "words":
		s, err := r.value()
		if s != "" {
			add(score.Words, shortWords(s))
		}
		return err
	case "rehearsal":
		s, err := r.value()
		if s != "" {
			add(score.Rehearsal, short(s))
		}
		return err
	default:
		r.score.AddSkip("directions: "+short(el.name), p.where())
	}
	return r.skip()
}

// shortWords keeps printed words to a line.
func shortWords(s string) string {
	if words := []rune(s); len(words) > 120 {
		return string(words[:119]) + "…"
	}
	return s
}

// sound reads the tempo and lists the jumps, which are not played out.
func (r *reader) sound(p *partState, el element, at *sign) {
	if el.attrs == "" {
		return
	}
	if f, err := strconv.ParseFloat(attr(el, "tempo"), 64); err == nil && f >= 1 && f <= 1000 {
		at.tempo = f
	}
	for _, jump := range []string{"dacapo", "dalsegno", "tocoda"} {
		if attr(el, jump) != "" {
			r.score.AddSkip("jumps such as da capo (the piece is read once through)", p.where())
		}
	}
}

// unitQuarters is the length of a note type in quarter notes.
var unitQuarters = map[string]float64{"breve": 8, "whole": 4, "half": 2, "quarter": 1, "eighth": 0.5, "16th": 0.25, "32nd": 0.125}

// metronome returns the quarter notes a minute; 0 when it says none.
func (r *reader) metronome() (float64, error) {
	unit, dots, perMinute := 0.0, 1.0, ""
	err := r.children(func(el element) error {
		var err error
		var s string
		switch el.name {
		case "beat-unit":
			if s, err = r.value(); unit == 0 {
				unit = unitQuarters[s]
			}
			return err
		case "beat-unit-dot":
			dots = 1.5
		case "per-minute":
			perMinute, err = r.value()
			return err
		}
		return r.skip()
	})
	f, ferr := strconv.ParseFloat(perMinute, 64)
	if tempo := f * unit * dots; ferr == nil && tempo >= 1 && tempo <= 1000 {
		return tempo, err
	}
	return 0, err
}

// chordKinds are the kinds of chord symbols and their short forms (the names
// are MusicXML's own, the short forms common practice).
var chordKinds = [][2]string{
	{"major", ""}, {"minor", "m"}, {"augmented", "+"}, {"diminished", "dim"}, {"dominant", "7"}, {"major-seventh", "maj7"},
	{"minor-seventh", "m7"}, {"diminished-seventh", "dim7"}, {"augmented-seventh", "+7"}, {"half-diminished", "m7b5"},
	{"major-minor", "m(maj7)"}, {"major-sixth", "6"}, {"minor-sixth", "m6"}, {"dominant-ninth", "9"}, {"major-ninth", "maj9"},
	{"minor-ninth", "m9"}, {"suspended-second", "sus2"}, {"suspended-fourth", "sus4"}, {"power", "5"},
}

// harmony reads a chord symbol.
func (r *reader) harmony(p *partState) error {
	text, bass := "", ""
	at := sign{staff: 1}
	note := func(into *string) error {
		return r.children(func(el element) error {
			s, err := r.value()
			switch {
			case len(s) == 1 && s[0] >= 'A' && s[0] <= 'G':
				*into += s
			case s == "1":
				*into += "#"
			case s == "-1":
				*into += "b"
			}
			return err
		})
	}
	err := r.children(func(el element) error {
		switch el.name {
		case "root":
			return note(&text)
		case "bass":
			bass = "/"
			return note(&bass)
		case "kind":
			shown := attr(el, "text")
			s, err := r.value()
			i := slices.IndexFunc(chordKinds, func(k [2]string) bool { return k[0] == s })
			switch {
			case i >= 0:
				text += chordKinds[i][1]
			case s == "none":
				text = short(shown)
				if text == "" {
					text = "N.C."
				}
			default:
				text += short(shown)
			}
			return err
		case "offset":
			return r.offset(p, &at)
		}
		return r.skip()
	})
	if text != "" {
		r.sign(p, at, score.Sign{Kind: score.Chord, Text: text + bass})
	}
	return err
}
