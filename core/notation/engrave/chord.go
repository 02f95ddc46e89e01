package engrave

import (
	"math"
	"sort"
	"strings"

	"patientladder/core/notation/score"
)

// chord is the notes, or the rest, of one voice at one time, the lowest first.
type chord struct {
	notes []*score.Note
	// accidentals are drawn before some of the notes.
	accidentals map[*score.Note]string
	// up says that the stem points up; x and tip are where it stands and ends.
	up     bool
	x, tip float64
}

func (c *chord) first() *score.Note { return c.notes[0] }
func (c *chord) at() float64        { return c.first().Onset.Float() }
func (c *chord) rest() bool         { return c.first().Rest }
func (c *chord) grace() bool        { return c.first().Grace }

// value is how often a quarter note is halved: 1 for an eighth; negative for longer ones.
func (c *chord) value() int {
	for i, name := range []string{"whole", "half", "quarter", "eighth", "16th", "32nd", "64th"} {
		if c.first().Type == name {
			return i - 2
		}
	}
	if c.first().Type == "breve" {
		return -2
	}
	name, _ := score.Notated(c.first().Duration, c.first().Tuplet)
	if name == "" || name == c.first().Type {
		return int(math.Round(-math.Log2(max(c.first().Duration.Float(), 1.0/16))))
	}
	return (&chord{notes: []*score.Note{{Type: name}}}).value()
}

func (c *chord) dots() int {
	if c.first().Type != "" {
		return c.first().Dots
	}
	_, dots := score.Notated(c.first().Duration, c.first().Tuplet)
	return dots
}

// chords are the chords and rests of a bar that lie in the stretch, in the order of the file.
func (s *system) chords(bar int) []*chord {
	type key struct {
		staff Staff
		voice string
		at    float64
		grace int
	}
	shown := map[Staff]bool{}
	for _, st := range s.staves {
		shown[st.Staff] = true
	}
	var out []*chord
	found := map[key]*chord{}
	altered := s.alterations(bar)
	graces := 0
	for i := range s.score.Notes {
		n := &s.score.Notes[i]
		at, st := n.Onset.Float(), Staff{n.Part, n.Staff}
		if n.Bar != bar || !shown[st] || at < s.from-epsilon || at >= s.to-epsilon {
			continue
		}
		k := key{staff: st, voice: n.Voice, at: at}
		if n.Grace {
			if !n.Chord {
				graces++
			}
			k.grace = graces
		}
		c := found[k]
		if c == nil {
			c = &chord{accidentals: map[*score.Note]string{}}
			found[k] = c
			out = append(out, c)
		}
		if c.notes != nil && (n.Rest || c.rest()) {
			continue // a rest beside notes of the same voice says nothing
		}
		c.notes = append(c.notes, n)
		if name := altered[n]; name != "" {
			c.accidentals[n] = name
		}
	}
	for _, c := range out {
		sort.SliceStable(c.notes, func(i, k int) bool { return c.notes[i].Pitch.StaffStep() < c.notes[k].Pitch.StaffStep() })
	}
	return out
}

var signOf = map[int]string{-2: "double flat", -1: "flat", 0: "natural", 1: "sharp", 2: "double sharp"}

// alterations are the accidentals of a bar: where a note differs from the key
// and from what stood before it in the bar, or where the file shows one.
func (s *system) alterations(bar int) map[*score.Note]string {
	key := map[byte]int{}
	fifths := s.score.Bars[bar-1].Fifths
	for i, step := range []byte("FCGDAEB") {
		if i < fifths {
			key[step] = 1
		}
		if 7-i <= -fifths {
			key[step] = -1
		}
	}
	type place struct {
		staff Staff
		step  int
	}
	var order []*score.Note
	for i := range s.score.Notes {
		if n := &s.score.Notes[i]; n.Bar == bar && !n.Rest {
			order = append(order, n)
		}
	}
	sort.SliceStable(order, func(i, k int) bool { return order[i].Onset.Less(order[k].Onset) })
	last := map[place]int{}
	out := map[*score.Note]string{}
	for _, n := range order {
		p := place{Staff{n.Part, n.Staff}, n.Pitch.StaffStep()}
		now, seen := last[p]
		if !seen {
			now = key[n.Pitch.Step]
		}
		if n.Pitch.Alter != now && !n.TieStop || n.ShownAccidental {
			out[n] = signOf[n.Pitch.Alter]
		}
		last[p] = n.Pitch.Alter
	}
	return out
}

// voices draws what one staff has in a bar.
func (s *system) voices(bar, staff int, places map[float64]float64) {
	st := s.staves[staff]
	byVoice := map[string][]*chord{}
	var names []string
	for _, c := range s.chords(bar) {
		if n := c.first(); (Staff{n.Part, n.Staff}) == st.Staff {
			if byVoice[n.Voice] == nil {
				names = append(names, n.Voice)
			}
			byVoice[n.Voice] = append(byVoice[n.Voice], c)
		}
	}
	sounding := 0
	for _, name := range names {
		for _, c := range byVoice[name] {
			if !c.rest() {
				sounding++
				break
			}
		}
	}
	for v, name := range names {
		list := byVoice[name]
		sort.SliceStable(list, func(i, k int) bool { return list[i].at() < list[k].at() })
		for _, c := range list {
			c.x = s.x + places[c.at()]
			c.up = s.stemUp(c, staff)
			if sounding > 1 {
				c.up = v == 0
			}
		}
		s.beamed(bar, staff, list, sounding > 1)
	}
}

func (s *system) y(n *score.Note, staff int) float64 {
	return s.top(staff) + height(n.Pitch, s.staves[staff].clef)
}

// stemUp is the usual rule: up where the note furthest from the middle line lies below it.
func (s *system) stemUp(c *chord, staff int) bool {
	if c.rest() {
		return false
	}
	middle := s.top(staff) + 2
	low, high := s.y(c.notes[0], staff)-middle, s.y(c.notes[len(c.notes)-1], staff)-middle
	return low+high > epsilon
}

const headWidth = 1.18

// heads draws the heads, dots, accidentals and ledger lines of a chord.
func (s *system) drawHeads(c *chord, staff int) {
	scale := 1.0
	x := c.x
	if c.grace() {
		scale, x = 0.62, c.x-1.3
	}
	name := "head black"
	switch v := c.value(); {
	case v <= -2:
		name = "head whole"
	case v == -1:
		name = "head half"
	}
	top := s.top(staff)
	s.mark(c, x+scale*headWidth/2)
	s.lyric(c, x+scale*headWidth/2, staff)
	aside := false
	for i, n := range c.notes {
		y := s.y(n, staff)
		hx := x
		// Of two heads a step apart one stands on the other side of the stem.
		if i > 0 && n.Pitch.StaffStep()-c.notes[i-1].Pitch.StaffStep() == 1 && !aside {
			aside = true
			if c.up {
				hx += scale * (headWidth - thin)
			} else {
				hx -= scale * (headWidth - thin)
			}
		} else {
			aside = false
		}
		for l := top - 1; l >= y-epsilon; l-- {
			s.add(box(hx-0.4, l-thin/2, scale*headWidth+0.8, thin))
		}
		for l := top + 5; l <= y+epsilon; l++ {
			s.add(box(hx-0.4, l-thin/2, scale*headWidth+0.8, thin))
		}
		s.scaled(name, scale, hx, y)
		if !c.grace() {
			s.heads = append(s.heads, Head{At: c.at(), X: hx + headWidth/2, Y: y, Staff: staff, Below: y - top, Up: c.up, Stem: c.value() > -2})
		}
		if sign := c.accidentals[n]; sign != "" {
			s.scaled(sign, scale, x-scale*(glyphs()[sign].advance+0.25), y)
		}
		dotY := y
		if math.Abs(math.Remainder(y-top, 1)) < epsilon {
			dotY -= 0.5 // a dot never stands on a line
		}
		for d := range c.dots() {
			s.glyph("dot", x+headWidth+0.35+0.6*float64(d), dotY)
		}
		for _, a := range n.Articulations {
			switch {
			case a == "staccato" && i == 0:
				s.glyph("staccato", x+headWidth/2-0.17, s.beside(c, staff))
			case a == "breath-mark" && i == 0:
				s.texts = append(s.texts, Text{x + headWidth + 1, top - 0.4, 2.6, ","})
			case a == "accent" && i == 0:
				s.texts = append(s.texts, Text{x + headWidth/2, s.beside(c, staff) + 0.6, 1.6, ">"})
			}
		}
	}
}

// lyric writes the word of a chord under its staff, under what hangs below it.
func (s *system) lyric(c *chord, x float64, staff int) {
	if text := c.first().Lyric; s.look.Lyrics && text != "" {
		lowest := max(s.top(staff)+4, s.y(c.notes[0], staff))
		if !c.up && c.value() > -2 {
			lowest = max(lowest, s.y(c.notes[0], staff)+3.5)
		}
		s.texts = append(s.texts, Text{x, lowest + 2, letter, text})
	}
}

// beside is the y of a sign on the side of the heads.
func (s *system) beside(c *chord, staff int) float64 {
	if c.up {
		return s.y(c.notes[0], staff) + 1.1
	}
	return s.y(c.notes[len(c.notes)-1], staff) - 1.1
}

// restAt draws a rest.
func (s *system) restAt(c *chord, bar, staff int, moved bool) {
	y := s.top(staff) + 2
	if moved {
		y += 2 * float64(1-2*one(c.up))
	}
	name := map[int]string{-2: "rest whole", -1: "rest half", 0: "rest quarter", 1: "rest eighth", 2: "rest 16th", 3: "rest 32nd"}[min(c.value(), 3)]
	b := s.score.Bars[bar-1]
	if c.first().Duration.Cmp(b.Length) == 0 {
		name = "rest whole" // a whole bar of rest, whatever its length
	}
	if name == "rest whole" {
		y-- // it hangs from the line above the middle
	}
	s.glyph(name, c.x, y)
}

// fingers writes the fingers of a chord, above the upper staff and below the lower one.
func (s *system) fingers(c *chord, staff int) {
	below := staff > 0
	y := min(s.top(staff)-0.9, s.y(c.notes[len(c.notes)-1], staff)-1.2)
	if c.up && c.tip != 0 {
		y = min(y, c.tip-0.6)
	}
	if below {
		y = max(s.top(staff)+5.6, s.y(c.notes[0], staff)+2)
		if !c.up && c.tip != 0 {
			y = max(y, c.tip+1.4)
		}
	}
	for _, n := range c.notes {
		finger := strings.TrimSpace(n.Fingering)
		if len(finger) != 1 || finger[0] < '0' || finger[0] > '5' || n.TieStop {
			continue
		}
		s.glyph("finger "+finger, c.x+0.2, y)
		if below {
			y += 1.5
		} else {
			y -= 1.5
		}
	}
}
