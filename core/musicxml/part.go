package musicxml

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/rational"
	"patientladder/core/score"
)

// partState is what carries on from bar to bar within one part.
type partState struct {
	id        string
	index     int
	divisions int64
	// transpose is the number of semitones added per staff (index staff−1); staff 0 is for all.
	transpose map[int]int

	beats, beatUnit int
	fifths          int
	mode            string

	bar   int    // position from 0
	label string // printed number
	// The cursor and the furthest points are in divisions from the start of the bar.
	cursor, furthest int64
	lastOnset        int64
	voiceEnds        map[string]int64
	first            int // index of the bar's first note in the score

	repeatStart bool
	repeatEnd   int
	endings     []int // of the ending that is open
	endingStops bool
}

func (p *partState) where() string { return score.Place(p.id, p.label) }

func (r *reader) fail(p *partState, format string, args ...any) error {
	return &Error{What: fmt.Sprintf(format, args...), Where: p.where(), Line: r.line()}
}

// open looks a part up in the part list and notes that it was played.
func (r *reader) open(el element, played map[int]bool) (*partState, error) {
	id := attr(el, "id")
	index, known := r.parts[id]
	if !known {
		return nil, &Error{What: fmt.Sprintf("part %q is not in the part list", short(id)), Line: r.line()}
	}
	if played[index] {
		return nil, &Error{What: fmt.Sprintf("part %q comes twice", short(id)), Line: r.line()}
	}
	played[index] = true
	return &partState{id: id, index: index, bar: -1, transpose: map[int]int{}}, nil
}

func (r *reader) part(el element, played map[int]bool) error {
	p, err := r.open(el, played)
	if err != nil {
		return err
	}
	return r.children(func(el element) error {
		if el.name != "measure" {
			return r.skip()
		}
		return r.measure(p, el)
	})
}

func (r *reader) measure(p *partState, el element) error {
	p.bar++
	if p.bar >= r.limits.Bars {
		return &Error{What: fmt.Sprintf("the score has more than %d bars", r.limits.Bars), Line: r.line()}
	}
	p.label = attr(el, "number")
	if p.label == "" {
		p.label = strconv.Itoa(p.bar + 1)
	}
	p.cursor, p.furthest, p.lastOnset = 0, 0, 0
	p.repeatStart, p.repeatEnd, p.endingStops = false, 0, false
	p.voiceEnds = map[string]int64{}
	p.first = len(r.score.Notes)
	line := r.line()
	err := r.children(func(el element) error { return r.musicData(p, el) })
	if err != nil {
		return err
	}
	r.closeBar(p, attr(el, "implicit") == "yes", line)
	return nil
}

func (r *reader) musicData(p *partState, el element) error {
	switch el.name {
	case "note":
		return r.note(p)
	case "backup":
		d, err := r.duration(p)
		if err != nil {
			return err
		}
		if d > p.cursor {
			return r.fail(p, "a backup goes back before the start of the bar")
		}
		p.cursor -= d
		return nil
	case "forward":
		d, err := r.duration(p)
		if err != nil {
			return err
		}
		p.cursor += d
		p.furthest = max(p.furthest, p.cursor)
		return nil
	case "attributes":
		return r.attributes(p)
	case "direction":
		return r.direction(p)
	case "sound":
		r.sound(p, el)
		return r.skip()
	case "barline":
		return r.barline(p)
	case "print", "bookmark", "link", "grouping":
		return r.skip() // page layout
	case "harmony":
		r.score.AddSkip("chord symbols", p.where())
	case "figured-bass":
		r.score.AddSkip("figured bass", p.where())
	default:
		r.score.AddSkip("<"+short(el.name)+">", p.where())
	}
	return r.skip()
}

// duration reads the duration child of backup and forward.
func (r *reader) duration(p *partState) (int64, error) {
	var d int64
	err := r.children(func(el element) error {
		if el.name != "duration" {
			return r.skip()
		}
		var err error
		d, err = r.divisionsLong(p)
		return err
	})
	return d, err
}

func (r *reader) divisionsLong(p *partState) (int64, error) {
	d, err := r.whole("a duration")
	if err != nil {
		return 0, err
	}
	if d < 0 {
		return 0, r.fail(p, "a duration is negative (%d)", d)
	}
	if p.divisions == 0 {
		p.divisions = 1
		r.score.AddSkip("missing divisions (one per quarter note was taken)", p.where())
	}
	if d/p.divisions > r.limits.Quarters {
		return 0, r.fail(p, "a duration is longer than %d quarter notes", r.limits.Quarters)
	}
	return d, nil
}

func (r *reader) quarters(p *partState, d int64) rational.Rat {
	return rational.New(d, max(p.divisions, 1))
}

func (r *reader) attributes(p *partState) error {
	part := &r.score.Parts[p.index]
	return r.children(func(el element) error {
		switch el.name {
		case "divisions":
			return r.divisions(p)
		case "key":
			return r.key(p)
		case "time":
			return r.time(p)
		case "staves":
			n, err := r.whole("the number of staves")
			if err == nil && (n < 1 || n > 16) {
				return r.fail(p, "a part cannot have %d staves", n)
			}
			part.Staves = int(n)
			return err
		case "clef":
			return r.clef(p, el)
		case "transpose":
			return r.transpose(p, el)
		case "staff-details", "instruments", "part-symbol":
			return r.skip()
		}
		r.score.AddSkip("<"+short(el.name)+">", p.where())
		return r.skip()
	})
}

func (r *reader) divisions(p *partState) error {
	n, err := r.whole("divisions")
	if err != nil {
		return err
	}
	if n <= 0 {
		return r.fail(p, "divisions must be above zero, not %d", n)
	}
	if p.cursor != 0 || len(r.score.Notes) > p.first {
		return r.fail(p, "divisions change in the middle of a bar, which cannot be read safely")
	}
	lcm, ok := rational.LCM(r.lcm, n)
	if n > 1<<20 || !ok {
		return r.fail(p, "divisions of %d cut time too finely to be counted", n)
	}
	r.lcm, p.divisions = lcm, n
	return nil
}

func (r *reader) key(p *partState) error {
	return r.children(func(el element) error {
		switch el.name {
		case "fifths":
			n, err := r.whole("the key signature")
			if err == nil && (n < -14 || n > 14) {
				return r.fail(p, "a key signature of %d sharps or flats does not exist", n)
			}
			p.fifths = int(n)
			return err
		case "mode":
			s, err := r.value()
			p.mode = short(s)
			return err
		case "key-step":
			r.score.AddSkip("key signatures beyond the usual ones", p.where())
		}
		return r.skip()
	})
}

func (r *reader) time(p *partState) error {
	p.beats, p.beatUnit = 0, 0
	beats := 0
	return r.children(func(el element) error {
		switch el.name {
		case "beats":
			s, err := r.value()
			if err != nil {
				return err
			}
			beats = 0
			for _, term := range strings.Split(strings.ReplaceAll(s, " ", ""), "+") {
				n, err := strconv.Atoi(term)
				if err != nil || n < 1 || n > 128 {
					return r.fail(p, "%q is not a number of beats", short(s))
				}
				beats += n
			}
			return nil
		case "beat-type":
			n, err := r.whole("the lower number of the time signature")
			if err != nil {
				return err
			}
			if n < 1 || n > 128 || n&(n-1) != 0 {
				return r.fail(p, "the lower number of a time signature cannot be %d", n)
			}
			if p.beatUnit != 0 {
				r.score.AddSkip("a second time signature at once (the first was taken)", p.where())
				return nil
			}
			p.beats, p.beatUnit = beats, int(n)
			return nil
		case "interchangeable":
			r.score.AddSkip("interchangeable time signatures", p.where())
		}
		return r.skip()
	})
}

func (r *reader) clef(p *partState, el element) error {
	staff := 1
	if n, err := strconv.Atoi(attr(el, "number")); err == nil && n >= 1 && n <= 16 {
		staff = n
	}
	part := &r.score.Parts[p.index]
	return r.children(func(el element) error {
		if el.name != "sign" {
			return r.skip()
		}
		s, err := r.value()
		for len(part.Clefs) < staff {
			part.Clefs = append(part.Clefs, "")
		}
		if part.Clefs[staff-1] == "" {
			part.Clefs[staff-1] = short(s)
		}
		return err
	})
}

func (r *reader) transpose(p *partState, el element) error {
	staff, _ := strconv.Atoi(attr(el, "number"))
	semitones := 0
	err := r.children(func(el element) error {
		switch el.name {
		case "chromatic", "octave-change":
			n, err := r.whole("a transposition")
			if err != nil {
				return err
			}
			if n < -48 || n > 48 {
				return r.fail(p, "a transposition by %d is out of range", n)
			}
			if el.name == "octave-change" {
				n *= 12
			}
			semitones += int(n)
			return nil
		case "double":
			r.score.AddSkip("doubling at the octave", p.where())
		}
		return r.skip()
	})
	p.transpose[staff] = semitones
	return err
}

// direction keeps the first tempo; words, dynamics and wedges are listed until they are read.
func (r *reader) direction(p *partState) error {
	return r.children(func(el element) error {
		switch el.name {
		case "sound":
			r.sound(p, el)
			return r.skip()
		case "direction-type":
			return r.children(func(el element) error {
				if el.name == "metronome" {
					return r.metronome()
				}
				r.score.AddSkip("directions: "+short(el.name), p.where())
				return r.skip()
			})
		}
		return r.skip()
	})
}

// sound keeps the first tempo and lists the jumps, which are not played out.
func (r *reader) sound(p *partState, el element) {
	r.tempo(attr(el, "tempo"))
	for _, jump := range []string{"dacapo", "dalsegno", "tocoda"} {
		if attr(el, jump) != "" {
			r.score.AddSkip("jumps such as da capo (the piece is read once through)", p.where())
		}
	}
}

// barline reads repeats and endings. The ending that is open carries on from
// bar to bar until it stops.
func (r *reader) barline(p *partState) error {
	return r.children(func(el element) error {
		switch el.name {
		case "repeat":
			if attr(el, "direction") == "forward" {
				p.repeatStart = true
				break
			}
			p.repeatEnd = 2
			if n, err := strconv.Atoi(attr(el, "times")); err == nil && n > 2 {
				p.repeatEnd = min(n, 100)
			}
		case "ending":
			if attr(el, "type") == "start" {
				p.endings = p.endings[:0:0]
				for _, s := range strings.FieldsFunc(attr(el, "number"), func(c rune) bool { return c == ',' || c == ' ' }) {
					if n, err := strconv.Atoi(s); err == nil && n > 0 && n < 100 && len(p.endings) < 20 {
						p.endings = append(p.endings, n)
					}
				}
			} else {
				p.endingStops = true
			}
		}
		return r.skip()
	})
}

func (r *reader) tempo(s string) {
	if f, err := strconv.ParseFloat(s, 64); err == nil && f >= 1 && f <= 1000 && r.score.Tempo == 0 {
		r.score.Tempo = f
	}
}

// unitQuarters is the length of a note type in quarter notes.
var unitQuarters = map[string]float64{"breve": 8, "whole": 4, "half": 2, "quarter": 1, "eighth": 0.5, "16th": 0.25, "32nd": 0.125}

func (r *reader) metronome() error {
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
	if f, ferr := strconv.ParseFloat(perMinute, 64); ferr == nil && unit > 0 {
		r.tempo(strconv.FormatFloat(f*unit*dots, 'f', -1, 64))
	}
	return err
}
