package musicxml

import (
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

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
			if err == nil && (n < 1 || n > mostStaves) {
				return r.fail(p, "a part cannot have %d staves", n)
			}
			part.Staves = max(part.Staves, int(n))
			return err
		case "clef":
			return r.clef(p, el)
		case "transpose":
			return r.transpose(p, el)
		case "staff-details":
			return r.tuning(part)
		case "instruments", "part-symbol":
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
	if (p.cursor != 0 || len(r.score.Notes) > p.first) && n != p.divisions {
		if !p.scale(n) {
			return r.fail(p, "divisions change in the middle of a bar where that cuts a note")
		}
		r.mend(p, "divisions that change within a bar (what came before was counted anew)")
	}
	lcm, ok := rational.LCM(r.lcm, n)
	if n > 1<<20 || !ok {
		return r.fail(p, "divisions of %d cut time too finely to be counted", n)
	}
	r.lcm, p.divisions = lcm, n
	return nil
}

// scale counts what was read of the bar in other divisions; false where they do not fit.
func (p *partState) scale(to int64) bool {
	all := []*int64{&p.cursor, &p.furthest, &p.lastOnset}
	for _, x := range all {
		if *x*to%max(p.divisions, 1) != 0 {
			return false
		}
	}
	ends := make(map[string]int64, len(p.voiceEnds))
	for voice, end := range p.voiceEnds {
		if end*to%max(p.divisions, 1) != 0 {
			return false
		}
		ends[voice] = end * to / max(p.divisions, 1)
	}
	for _, x := range all {
		*x = *x * to / max(p.divisions, 1)
	}
	p.voiceEnds = ends
	return true
}

func (r *reader) key(p *partState) error {
	return r.children(func(el element) error {
		switch el.name {
		case "fifths":
			n, err := r.whole("the key signature")
			if err == nil && (n < -14 || n > 14) {
				r.mend(p, "a key signature that does not exist (none was taken)")
				n = 0
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
					r.mend(p, "a time signature that does not exist (none was taken)")
					beats = 0
					break
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
				r.mend(p, "a time signature that does not exist (none was taken)")
				return nil
			}
			if beats == 0 {
				return nil
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
	var c score.Clef
	err := r.children(func(el element) error {
		switch el.name {
		case "sign":
			s, err := r.value()
			c.Sign = short(s)
			return err
		case "line":
			n, err := r.whole("the line of a clef")
			c.Line = int(max(-9, min(n, 9)))
			return err
		case "clef-octave-change":
			n, err := r.whole("the octave of a clef")
			c.Octave = int(max(-4, min(n, 4)))
			return err
		}
		return r.skip()
	})
	part := &r.score.Parts[p.index]
	for len(part.Clefs) < staff {
		part.Clefs = append(part.Clefs, score.Clef{})
	}
	if part.Clefs[staff-1].Sign == "" {
		part.Clefs[staff-1] = c
	} else if p.clefs[staff] != c {
		r.sign(p, sign{staff: staff}, score.Sign{Kind: score.ClefChange, Clef: c})
	}
	p.clefs[staff] = c
	return err
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

// tuning reads the strings of a tablature; other details are the engraver's.
func (r *reader) tuning(part *score.Part) error {
	return r.children(func(el element) error {
		if el.name != "staff-tuning" {
			return r.skip()
		}
		var p score.Pitch
		err := r.children(func(el element) error {
			s, err := r.value()
			n, _ := strconv.Atoi(s)
			switch el.name {
			case "tuning-step":
				if len(s) == 1 && s[0] >= 'A' && s[0] <= 'G' {
					p.Step = s[0]
				}
			case "tuning-alter":
				p.Alter = n
			case "tuning-octave":
				p.Octave = n
			}
			return err
		})
		if m := p.Semitone(); p.Step != 0 && m >= 0 && m <= 127 && len(part.Strings) < 12 {
			part.Strings = append(part.Strings, m)
		}
		return err
	})
}
