package sheet

import (
	"slices"

	"patientladder/core/notation/engrave"
	"patientladder/core/wording/tongue"
)

// Card is how a thing to do goes.
type Card struct {
	// Key is the same for what is the same: one card stands for all days.
	Key string
	// Title, Where, Book and Only say what it is and where it stands on paper.
	Title, Where, Book, Only string
	// Hands are where each begins.
	Hands []CardHand
	// Tempo says how fast, Say is said aloud, Parent and Swap what the parent does, Good by what it is good enough, Gap what is missing.
	Tempo, Say, Parent, Swap, Good, Gap string
	// Excerpt are the notes; nil for none. Signs are directions over them.
	Excerpt *engrave.Drawing
	Signs   []Sign

	// Marks say the dynamics that stand in the notes.
	Marks string
	// Goals of an exercise are read before it; Good is the first of them.
	Goals []string
	// Learned says that it is a learned piece: where there is no room, its card is left out before others.
	Learned bool

	letter string
}

// CardHand is where a hand begins: in words, and on its keys or strings.
type CardHand struct {
	Start string
	Board Board
	Neck  Neck
}

// Sign is a direction over a note, in staff spaces from the upper left corner of the notes.
type Sign struct {
	X, Y float64
	// Turn is 1 for up, −1 for down, 0 for the same.
	Turn int
}

// back is the second page: how each thing goes.
type back struct {
	tongue  tongue.Tongue
	heading string
	cards   []*Card
}

const (
	lanes     = 4
	laneGap   = 6.0
	laneWidth = (pageWidth - 2*margin - (lanes-1)*laneGap) / lanes
	// letterEvery is what stands under a card, in millimetres.
	underCard = 3.2
)

// ExcerptWidth is how wide an excerpt may be in staff spaces before it goes on in a second system: a lane at a size
// that can be read from the stand.
const ExcerptWidth = 42.0

// largestSpace is a staff space in millimetres at the usual size of letters: what small print for the music stand has.
const largestSpace = 1.5

// fit finds the largest letters with which all cards stand in the lanes. Where none are small enough to read, what is said to the parent
// goes, and then cards: those of learned pieces first, the last before the others.
func (b *back) fit(p *pen) {
	for {
		for _, words := range []bool{true, false} {
			for size := 1.12; size >= 1; size -= 0.04 {
				p.attempt = attempt{size: size, words: words}
				if b.fits(p) {
					return
				}
			}
		}
		drop := len(b.cards) - 1
		for i := drop; i >= 0; i-- {
			if b.cards[i].Learned {
				drop = i
				break
			}
		}
		b.cards = slices.Delete(slices.Clone(b.cards), drop, drop+1)
	}
}

func (b back) fits(p *pen) bool {
	p.dry = true
	defer func() { p.dry = false }()
	return b.draw(p)
}

// draw draws the page and says whether all of it stood in the lanes.
func (b back) draw(p *pen) bool {
	top := p.text(margin, margin, pageWidth-2*margin, b.heading+" · "+b.tongue.Say("sheet.notes"), small, plain) + 2
	lane, y := 0, top
	for _, c := range b.cards {
		dry := p.dry
		p.dry = true
		height := c.draw(p, b.tongue, 0, 0)
		p.dry = dry
		if y > top && y+height > pageHeight-margin {
			lane, y = lane+1, top
		}
		if lane == lanes || y+height > pageHeight-margin {
			return false
		}
		y = c.draw(p, b.tongue, margin+float64(lane)*(laneWidth+laneGap), y)
		p.hair(margin+float64(lane)*(laneWidth+laneGap), y, laneWidth)
		y += underCard * p.size
	}
	return true
}

func (c *Card) draw(p *pen, t tongue.Tongue, x, y float64) float64 {
	side := letterSide * p.size
	p.letter(x, y+0.3, c.letter)
	head := c.Title
	if c.Where != "" {
		head += ", " + c.Where
	}
	y = max(y+side+0.6, p.text(x+side+1.8, y, laneWidth-side-1.8, head, usual, bold))
	if line := joined(c.Book, c.Only, c.Tempo); line != "" {
		y = p.text(x, y, laneWidth, line, small, plain)
	}
	if c.Gap != "" {
		y = p.text(x, y, laneWidth, c.Gap, small, plain)
	}
	y = c.hands(p, x, y)
	if c.Excerpt != nil {
		y = p.excerpt(*c.Excerpt, c.Signs, x, y+1, laneWidth) + 0.6
	}
	if c.Marks != "" {
		y = p.text(x, y, laneWidth, c.Marks, small, plain)
	}
	if len(c.Goals) > 1 {
		for _, goal := range c.Goals[1:] {
			y = p.text(x, y, laneWidth, "– "+goal, small, plain)
		}
	}
	if c.Say != "" && p.words {
		y = p.text(x, y, laneWidth, t.Say("page.say")+": "+c.Say, small, bold)
	}
	if p.words {
		for _, line := range []string{c.Swap, c.Parent} {
			y = p.text(x, y, laneWidth, line, small, plain)
		}
	}
	if c.Good != "" {
		y = p.text(x, y, laneWidth, t.Say("page.good")+" "+c.Good, small, bold)
	}
	return y
}

// hands says and draws where the hands begin.
func (c *Card) hands(p *pen, x, y float64) float64 {
	for _, h := range c.Hands {
		y = p.text(x, y, laneWidth, h.Start, small, bold)
		switch {
		case len(h.Board.Keys) > 0:
			y = h.Board.small(p, x, y+0.6, laneWidth) + 1
		case len(h.Neck.Dots) > 0:
			y = h.Neck.small(p, x, y+2.2*p.size, laneWidth) + 1
		}
	}
	return y
}

func joined(parts ...string) string {
	out := ""
	for _, part := range parts {
		switch {
		case part == "":
		case out == "":
			out = part
		default:
			out += " · " + part
		}
	}
	return out
}

// excerpt draws bars as wide as the lane, but never larger than print, with the directions over them.
func (p *pen) excerpt(d engrave.Drawing, signs []Sign, x, y, width float64) float64 {
	if d.Width == 0 {
		return y
	}
	space := min(largestSpace*p.size, width/d.Width)
	if len(signs) > 0 {
		y += 2 * space
	}
	p.music(d, space, x, y)
	for _, s := range signs {
		p.arrow(x+space*s.X, y+space*s.Y, 1.5*space, s.Turn)
	}
	return y + space*d.Height
}

// arrow draws a direction: rising, falling or level.
func (p *pen) arrow(x, y, length float64, turn int) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.35 * p.size)
	rise := length * 0.5 * float64(turn)
	x1, y1, x2, y2 := x-length/2, y+rise/2, x+length/2, y-rise/2
	p.doc.Line(x1, y1, x2, y2)
	if turn == 0 {
		return
	}
	tip := length * 0.42
	p.doc.Line(x2, y2, x2-tip, y2)
	p.doc.Line(x2, y2, x2, y2+tip*float64(turn))
}

// small draws a keyboard as a strip, the keys that are played with their fingers; the first one is black.
func (b Board) small(p *pen, x, y, width float64) float64 {
	tall := 11 * p.size
	low, high := b.wide()
	w := b.across(p.size, width) / float64(whites(high+1)-whites(low))
	if p.dry {
		return y + tall
	}
	b.keys(p, low, high, x, y, w, tall)
	for _, k := range b.Keys {
		left, wide := keyAt(k.MIDI, low, x, w)
		at := y + tall - 2.2*p.size
		if black(k.MIDI) {
			at = y + tall*0.62 - 2*p.size
		}
		p.dot(left+wide/2, at, dotRadius*p.size, k.Label, k.First)
	}
	return y + tall
}

// across is how wide a small board is, in millimetres, within a width.
func (b Board) across(size, width float64) float64 {
	low, high := b.wide()
	return min(5*size*float64(whites(high+1)-whites(low)), width)
}

// wide is from which key to which a small board is drawn: from the C or F below what is played, so that whole groups of
// black keys are seen by which a key is found, at least an octave and a half.
func (b Board) wide() (low, high int) {
	low, high = b.reach()
	for low%12 != 0 && low%12 != 5 {
		low--
	}
	for high = max(high, low+17); high%12 != 4 && high%12 != 11; high++ {
	}
	return low, high
}

// dotRadius is that of a finger, in millimetres.
const dotRadius = 1.9

// dot is a finger: black where it begins, white elsewhere.
func (p *pen) dot(x, y, r float64, label string, first bool) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.2)
	p.doc.SetFillColor(255, 255, 255)
	if first {
		p.doc.SetFillColor(0, 0, 0)
		p.doc.SetTextColor(255, 255, 255)
	}
	p.doc.Circle(x, y, r, "FD")
	p.doc.SetFillColor(0, 0, 0)
	style := bold
	if label == "0" { // without the stroke through it, which reads as a letter
		style = heading
	}
	p.doc.SetFont(style, "", tiny*p.size)
	p.doc.Text(x-p.doc.GetStringWidth(label)/2, y+1.1*p.size, label)
	p.doc.SetTextColor(0, 0, 0)
}

// small draws strings as a strip.
func (n Neck) small(p *pen, x, y, width float64) float64 {
	step := 4 * p.size
	name := 5.5 * p.size
	bottom := y + step*float64(len(n.Strings)-1)
	if p.dry {
		return bottom + 2*p.size
	}
	fret := min(11*p.size, (width-name-4)/float64(n.last()+1))
	left := x + name + 3*p.size
	right := left + fret*(float64(n.last())+0.5)
	if n.Frets {
		for i := range n.last() + 1 {
			p.doc.SetLineWidth(map[bool]float64{true: 0.7, false: 0.12}[i == 0])
			p.doc.Line(left+fret*float64(i), y, left+fret*float64(i), bottom)
		}
	} else {
		p.doc.SetLineWidth(0.7)
		p.doc.Line(left, y, left, bottom)
	}
	for i, s := range n.Strings {
		at := y + step*float64(i)
		p.doc.SetLineWidth(0.15 + 0.06*float64(i))
		p.doc.Line(left, at, right, at)
		p.doc.SetFont(bold, "", tiny*p.size)
		p.doc.Text(x, at+0.9*p.size, s)
	}
	for _, d := range n.Dots {
		at := left + fret*float64(d.At)
		switch {
		case d.At == 0:
			at = left - 2.3*p.size
		case n.Frets: // a finger stands just behind its fret
			at -= fret / 2
		}
		p.dot(at, y+step*float64(d.String-1), dotRadius*p.size, d.Label, d.First)
	}
	return bottom + 2*p.size
}
