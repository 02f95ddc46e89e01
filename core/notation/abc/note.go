package abc

import (
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// length reads a length: "", "2", "/", "//", "3/2".
func (c *scanner) length() rational.Rat {
	num, den := int64(1), int64(1)
	if digit(c.peek(0)) {
		num = c.number64()
	}
	for slashes := 0; c.peek(0) == '/'; slashes++ {
		c.i++
		switch {
		case digit(c.peek(0)):
			den *= max(c.number64(), 1)
		case den <= 1<<10:
			den *= 2
		}
		if den > 1<<16 {
			den = 1 << 16
		}
	}
	return rational.New(num, den)
}

func (c *scanner) number64() int64 {
	n := int64(0)
	for digit(c.peek(0)) {
		if n < 1<<20 {
			n = 10*n + int64(c.s[c.i]-'0')
		}
		c.i++
	}
	return n
}

// pitch reads an accidental, a note name and octave marks. ok is false when there is no name.
func (t *tune) pitch(v *voice, c *scanner) (p score.Pitch, shown, ok bool) {
	alter := 0
	for strings.IndexByte("^_=", c.peek(0)) >= 0 && c.peek(0) != 0 {
		switch c.s[c.i] {
		case '^':
			alter++
		case '_':
			alter--
		}
		shown = true
		c.i++
	}
	if shown && (c.peek(0) == '/' || digit(c.peek(0))) { // ^/f, _3/2e: parts of a semitone
		size := c.length().Float() * float64(alter)
		t.skip("quarter tones (the nearest semitone was taken)", c.number)
		alter = 0
		if size > 0.5 {
			alter = 1
		} else if size < -0.5 {
			alter = -1
		}
	}
	b := c.peek(0)
	switch {
	case b >= 'A' && b <= 'G':
		p = score.Pitch{Step: b, Octave: 4}
	case b >= 'a' && b <= 'g':
		p = score.Pitch{Step: b - 'a' + 'A', Octave: 5}
	default:
		return p, shown, false
	}
	c.i++
	for c.peek(0) == ',' || c.peek(0) == '\'' {
		if c.s[c.i] == ',' {
			p.Octave--
		} else {
			p.Octave++
		}
		c.i++
	}
	p.Octave = max(-20, min(p.Octave, 20)) + v.octave + v.clef.Octave
	p.Alter = v.sounding(p, shown, max(-2, min(alter, 2)), t.spread)
	return p, shown, true
}

// sounding decides the alteration of a note: its own sign, one before it in
// the bar, a tie into it, or the key.
func (v *voice) sounding(p score.Pitch, shown bool, alter int, spread string) int {
	near, far := [2]int{int(p.Step), p.Octave}, [2]int{int(p.Step), 1000}
	if shown {
		if spread != "not" {
			v.accidentals[near] = alter
		}
		if spread == "pitch" {
			v.accidentals[far] = alter
		}
		return alter
	}
	for _, tied := range v.pending.tied {
		if tied.Step == p.Step && tied.Octave == p.Octave {
			return tied.Alter
		}
	}
	if spread == "pitch" {
		near = far
	}
	if a, ok := v.accidentals[near]; ok {
		return a
	}
	return v.key.alter[p.Step]
}

// single reads one note.
func (t *tune) single(v *voice, c *scanner) error {
	p, shown, ok := t.pitch(v, c)
	if !ok {
		t.skip("an accidental without a note", c.number)
		return nil
	}
	return t.add(v, c, score.Note{Pitch: p, ShownAccidental: shown}, c.length(), true)
}

func (t *tune) rest(v *voice, c *scanner) error {
	b := c.s[c.i]
	c.i++
	if b == 'z' || b == 'x' {
		return t.add(v, c, score.Note{Rest: true}, c.length(), true)
	}
	count := int64(1)
	if digit(c.peek(0)) {
		count = c.number64()
	}
	if v.beatUnit == 0 || count < 1 || count > 500 {
		t.skip("rests of several bars that cannot be counted", c.number)
		return nil
	}
	whole := rational.New(4*int64(v.beats), int64(v.beatUnit))
	for i := int64(0); i < count; i++ {
		if i > 0 {
			if err := t.closeBar(v, c.number); err != nil {
				return err
			}
		}
		n := score.Note{Rest: true, Duration: whole}
		if err := t.place(v, c, n, true); err != nil {
			return err
		}
	}
	return nil
}

// add gives a note its length: unit, tuplet and broken rhythm.
func (t *tune) add(v *voice, c *scanner, n score.Note, length rational.Rat, takesTime bool) error {
	p := &v.pending
	n.Duration = length.Mul(v.unit)
	if p.grace {
		n.Grace, n.Duration = true, rational.Rat{}
		return t.place(v, c, n, false)
	}
	if p.tuplet.left > 0 {
		n.Duration = n.Duration.Mul(rational.New(int64(p.tuplet.Normal), int64(p.tuplet.Actual)))
		n.Tuplet = p.tuplet.Ratio
		if takesTime {
			p.tuplet.left--
		}
	}
	if !p.broken.IsZero() {
		n.Duration = n.Duration.Mul(p.broken)
		if takesTime {
			p.broken = rational.Rat{}
		}
	}
	return t.place(v, c, n, takesTime)
}

// place writes a note into the voice. The first note of a chord and a single
// note take time; the others of a chord sound with it.
func (t *tune) place(v *voice, c *scanner, n score.Note, takesTime bool) error {
	p := &v.pending
	if t.notes++; t.notes > t.limits.Notes {
		return t.fail(c.number, "the file has more than %d notes", t.limits.Notes)
	}
	if t.limits.Quarters < n.Duration.Num()/n.Duration.Den() {
		return t.fail(c.number, "a note is longer than %d quarter notes", t.limits.Quarters)
	}
	lcm, ok := rational.LCM(t.lcm, n.Duration.Den())
	if !ok || lcm > 1<<26 {
		return t.fail(c.number, "the lengths of the notes cut time too finely to be counted")
	}
	t.lcm = lcm
	n.Voice = v.voiceName()
	n.Onset = v.now
	if takesTime {
		p.into, p.tied = p.tied, nil
	}
	if p.chord {
		n.Chord = true
		if p.last >= 0 && !n.Grace {
			n.Onset = v.notes[p.last].Onset
		}
	}
	if !n.Rest {
		n.MIDI = n.Pitch.Semitone() + v.transpose
		if n.MIDI < 0 || n.MIDI > 127 {
			return t.fail(c.number, "the note %s lies outside every instrument", n.Pitch)
		}
		for i, tied := range p.into {
			if !n.Grace && tied.Step == n.Pitch.Step && tied.Octave == n.Pitch.Octave {
				n.TieStop = true
				p.into = append(p.into[:i:i], p.into[i+1:]...)
				break
			}
		}
	}
	if takesTime || n.Grace && !n.Chord {
		t.decorate(v, &n, c.number)
	}
	if takesTime && !n.Rest {
		n.SlurStart = p.slurs > 0
		p.slurs = 0
	}
	v.notes = append(v.notes, n)
	if takesTime {
		p.last = len(v.notes) - 1
		v.now = v.now.Add(n.Duration)
		if v.now.Num()/v.now.Den() > 1<<20 {
			return t.fail(c.number, "the tune is longer than a million quarter notes")
		}
	}
	return nil
}

func (v *voice) voiceName() string {
	id := v.id
	if id == "" {
		id = "1"
	}
	if v.overlay > 0 {
		id += "&" + strconv.Itoa(v.overlay)
	}
	return id
}

// chord reads [CEG]2. The chord lasts as long as its first note.
func (t *tune) chord(v *voice, c *scanner) error {
	c.i++
	p := &v.pending
	type member struct {
		note   score.Note
		length rational.Rat
		tied   bool
	}
	var members []member
	slurs, decorations := p.slurs, p.decorations
	for {
		switch b := c.peek(0); {
		case b == 0:
			t.skip("a chord without its end", c.number)
			c.i = len(c.s)
			return nil
		case b == ']':
			c.i++
			outer := c.length()
			p.slurs, p.decorations = slurs, decorations
			defer func() { p.chord = false }()
			first := len(v.notes)
			for k, m := range members {
				p.chord = k > 0
				if err := t.add(v, c, m.note, m.length.Mul(outer), k == 0 && !p.grace); err != nil {
					return err
				}
				if k > 0 && !p.grace { // the tuplet and the broken rhythm of the first note hold for all
					last := &v.notes[len(v.notes)-1]
					last.Tuplet = v.notes[first].Tuplet
					last.Duration = v.notes[first].Duration
				}
				if m.tied {
					v.tie()
				}
			}
			return nil
		case b == '!' || b == '+':
			t.decoration(v, c)
		case b == '"':
			c.i++
			t.quoted(v, c)
		case b == '-' && len(members) > 0:
			members[len(members)-1].tied = true
			c.i++
		case strings.IndexByte("^_=", b) >= 0 || b >= 'A' && b <= 'G' || b >= 'a' && b <= 'g':
			if len(members) >= 64 {
				return t.fail(c.number, "a chord has more than 64 notes")
			}
			given := p.decorations[len(decorations):]
			p.decorations = decorations
			pitch, shown, ok := t.pitch(v, c)
			if !ok {
				continue
			}
			n := score.Note{Pitch: pitch, ShownAccidental: shown}
			fingerOf(given, &n)
			members = append(members, member{note: n, length: c.length()})
		case b == 'z' || b == 'x':
			c.i++
			c.length()
		default:
			c.i++ // slurs, spaces and short decorations inside a chord
		}
	}
}

// fingerOf takes a fingering out of decorations.
func fingerOf(decorations []string, n *score.Note) {
	for _, d := range decorations {
		if len(d) == 1 && d[0] >= '0' && d[0] <= '5' {
			n.Fingering = d
		}
	}
}

// closeBar ends the bar of a voice at its time.
func (t *tune) closeBar(v *voice, at int) error {
	v.now = rational.Max(v.now, v.furthest)
	v.furthest, v.overlay = rational.Rat{}, 0
	clear(v.accidentals)
	b := v.open
	if v.now.Cmp(b.start) == 0 {
		return nil // nothing was written: the signs go to the next bar
	}
	if t.bars++; t.bars > t.limits.Bars {
		return t.fail(at, "the file has more than %d bars", t.limits.Bars)
	}
	b.end, b.line = v.now, at
	v.bars = append(v.bars, b)
	v.open = bar{start: v.now, key: v.key, beats: v.beats, beatUnit: v.beatUnit, endings: b.endings}
	return nil
}
