package musicxml

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// partState is what carries on from bar to bar within one part.
// mostStaves is how many staves a part can have.
const mostStaves = 16

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

	clefs map[int]score.Clef // in force, by staff

	repeatStart bool
	repeatEnd   int
	endings     []int // of the ending that is open
	endingStops bool
}

func (p *partState) where() string { return score.Place(p.id, p.label) }

// mend goes on with something that a rule puts right, and lists it with its bar.
func (r *reader) mend(p *partState, what string) { r.score.Mend(what, p.where(), p.label) }

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
	return &partState{id: id, index: index, bar: -1, transpose: map[int]int{}, clefs: map[int]score.Clef{}}, nil
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
			r.mend(p, "a step back beyond the beginning of the bar (taken to its beginning)")
			d = p.cursor
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
		at := sign{staff: 1}
		r.sound(p, el, &at)
		r.settle(p, at)
		return r.skip()
	case "barline":
		return r.barline(p)
	case "print", "bookmark", "link", "grouping":
		return r.skip() // page layout
	case "harmony":
		return r.harmony(p)
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
