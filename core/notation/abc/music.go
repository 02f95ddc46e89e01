package abc

import (
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// pending is what waits for the next note.
type pending struct {
	// broken is the factor that a broken rhythm leaves for the next note; zero for none.
	broken rational.Rat
	tuplet struct {
		score.Ratio
		left int
	}
	slurs       int
	decorations []string
	// tied are the notes of the last note or chord that are tied onwards, into
	// those of the one before that its notes may end.
	tied, into []score.Pitch
	// last is the index of the first note of the last note or chord that took time, −1 for none.
	last  int
	chord bool // inside [ ]
	grace bool // inside { }
}

// scanner walks through one line.
type scanner struct {
	s      string
	i      int
	number int
}

func (c *scanner) peek(ahead int) byte {
	if c.i+ahead < len(c.s) {
		return c.s[c.i+ahead]
	}
	return 0
}

// until returns the text up to a closing character and passes it; ok is false when there is none.
func (c *scanner) until(end byte) (string, bool) {
	n := strings.IndexByte(c.s[c.i:], end)
	if n < 0 {
		return "", false
	}
	out := c.s[c.i : c.i+n]
	c.i += n + 1
	return out, true
}

// music reads a line of music.
func (t *tune) music(text string, at int) error {
	c := &scanner{s: text, number: at}
	for c.i < len(c.s) {
		v := t.cur
		switch b := c.s[c.i]; {
		case b == ' ' || b == '\t' || b == '`':
			c.i++
		case b == '\\' || b == '$' || b == '*' || b == ';' || b == '?' || b == '@' || b == '#' || b == '&' && c.peek(1) == ')':
			c.i++ // line ends and what the standard keeps for later
		case b == '&':
			c.i++
			v.overlay++
			v.furthest = rational.Max(v.furthest, v.now)
			v.now = v.open.start
			v.pending = pending{last: -1}
		case b == '"':
			c.i++
			t.quoted(v, c)
		case b == '!' || b == '+':
			t.decoration(v, c)
		case b == '.' && c.peek(1) != '|' && c.peek(1) != '(' && c.peek(1) != '-':
			c.i++
			v.pending.decorations = append(v.pending.decorations, "staccato")
		case b == '.':
			c.i++ // a dotted bar line, slur or tie
		case b == '{':
			c.i++
			if c.peek(0) == '/' {
				c.i++
			}
			v.pending.grace = true
		case b == '}':
			c.i++
			v.pending.grace = false
		case b == '(':
			t.openBracket(v, c)
		case b == ')':
			c.i++
			v.closeSlur()
		case b == '[' && (letter(c.peek(1)) && c.peek(2) == ':'):
			if err := t.inline(c); err != nil {
				return err
			}
		case b == '|' || b == ':' || b == '[' && (c.peek(1) == '|' || digit(c.peek(1)) || c.peek(1) == '"') || b == ']' && !v.pending.chord:
			if err := t.barline(v, c); err != nil {
				return err
			}
		case b == '[':
			if err := t.chord(v, c); err != nil {
				return err
			}
		case b == '-':
			c.i++
			v.tie()
		case b == '>' || b == '<':
			t.broken(v, c)
		case b == 'y':
			c.i++
			c.length()
		case b == 'z' || b == 'x' || b == 'Z' || b == 'X':
			if err := t.rest(v, c); err != nil {
				return err
			}
		case strings.IndexByte("^_=", b) >= 0 || b >= 'A' && b <= 'G' || b >= 'a' && b <= 'g':
			if err := t.single(v, c); err != nil {
				return err
			}
		case t.symbols[b] != "":
			c.i++
			v.pending.decorations = append(v.pending.decorations, t.symbols[b])
		default:
			t.skip("the sign “"+string(rune(b))+"”", at)
			c.i++
		}
	}
	return nil
}

// openBracket reads the start of a slur or of a tuplet: "(", "(3", "(3:2:4".
func (t *tune) openBracket(v *voice, c *scanner) {
	c.i++
	if !digit(c.peek(0)) {
		v.pending.slurs++
		return
	}
	number := func() int {
		n := 0
		for digit(c.peek(0)) && n < 1000 {
			n = 10*n + int(c.s[c.i]-'0')
			c.i++
		}
		return n
	}
	p, q, r := number(), 0, 0
	if c.peek(0) == ':' {
		c.i++
		q = number()
		if c.peek(0) == ':' {
			c.i++
			r = number()
		}
	}
	if q == 0 {
		q = usualTime(p, v.beats, v.beatUnit)
	}
	if r == 0 {
		r = p
	}
	if p < 2 || p > 64 || q > 64 || r > 256 {
		t.skip("tuplets that cannot be read", c.number)
		return
	}
	v.pending.tuplet.Ratio, v.pending.tuplet.left = score.Ratio{Actual: p, Normal: q}, r
}

// usualTime is how many units p notes of a tuplet take (ABC 2.1, 4.13).
func usualTime(p, beats, beatUnit int) int {
	switch p {
	case 2, 4, 8:
		return 3
	case 3, 6:
		return 2
	}
	if beatUnit == 8 && beats%3 == 0 {
		return 3
	}
	return 2
}

// inline reads a field inside a line: [K:D].
func (t *tune) inline(c *scanner) error {
	c.i++
	text, ok := c.until(']')
	if !ok {
		t.skip("an inline field without its end", c.number)
		c.i = len(c.s)
		return nil
	}
	if text[0] == 'w' || text[0] == 'X' {
		t.skip("inline fields that only stand on lines of their own", c.number)
		return nil
	}
	return t.field(text[0], strings.TrimSpace(text[2:]), c.number)
}

// tie marks the last note or chord, or the chord note just written, as tied.
func (v *voice) tie() {
	p := &v.pending
	if p.last < 0 || p.grace {
		return
	}
	first := p.last
	if p.chord {
		first = len(v.notes) - 1
	}
	for i := first; i < len(v.notes); i++ {
		n := &v.notes[i]
		if !n.Rest && !n.Grace && !n.TieStart {
			n.TieStart = true
			p.tied = append(p.tied, n.Pitch)
		}
	}
}

func (v *voice) closeSlur() {
	if v.pending.slurs > 0 {
		v.pending.slurs--
		return
	}
	if v.pending.last >= 0 {
		v.notes[v.pending.last].SlurStop = true
	}
}

// broken reads a run of > or <: the longer note takes what the shorter one loses.
func (t *tune) broken(v *voice, c *scanner) {
	sign, n := c.s[c.i], 0
	for c.peek(0) == sign {
		c.i++
		n++
	}
	if n > 3 || v.pending.last < 0 {
		t.skip("broken rhythms that cannot be read", c.number)
		return
	}
	part := rational.New(1, 1<<n)
	rest := rational.Int(2).Sub(part)
	if sign == '<' {
		part, rest = rest, part
	}
	v.pending.broken = part
	before := v.notes[v.pending.last].Duration
	after := before.Mul(rest)
	for i := v.pending.last; i < len(v.notes); i++ {
		if m := &v.notes[i]; !m.Grace {
			m.Duration = m.Duration.Mul(rest)
		}
	}
	v.now = v.now.Add(after.Sub(before))
}
