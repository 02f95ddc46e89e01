package sheet

import (
	"bytes"
	"fmt"
	"time"

	"patientladder/core/notation/engrave"
)

// Exercise is an exercise on a page to print: engraved, on its instrument, with its goals.
type Exercise struct {
	// Heading is the line at the top, Title the name, Step what is done with it now.
	Heading, Title, Step string
	// Sentence says what makes it learnable, Tempo what counts as done, Caution the usual ones.
	Sentence, Tempo, Caution string
	Goals                    []string
	Faults                   []Fault
	Music                    engrave.Drawing
	Boards                   []Board
	Necks                    []Neck
	// Strokes are one round of a roll over strings.
	Strokes Neck
	// Chart is how the notes are fingered: by holes, or by the signs of valves and slides.
	Chart []Fingering
	Made  time.Time
}

// Fault is a usual fault with what to look and to listen for.
type Fault struct{ Text, Look string }

// Fingering is how one note is fingered.
type Fingering struct {
	Note string
	// Holes are from the thumb down, 1 for closed, 0.5 for half closed, 0 for open; nil where Signs say it.
	Holes []float64
	Signs string
}

// Board is the keyboard under one hand.
type Board struct {
	Name string
	Keys []Key
}

// Key is a pressed key with its finger.
type Key struct {
	// MIDI is the pitch, 60 for middle C.
	MIDI  int
	Label string
	// Meets says that the other hand meets it here: its finger stands in a ring. First says that the hand begins here.
	Meets, First bool
}

// Neck is what lies on strings: under the left hand, or plucked one after the other.
type Neck struct {
	Name string
	// Strings are named, string 1 first.
	Strings []string
	Dots    []Dot
	// Frets draws a line at every semitone.
	Frets bool
}

// Dot is a finger on a string: At counts semitones above the open string, or strokes.
type Dot struct {
	String, At int
	Label      string
	// First says that the hand begins here.
	First bool
}

// ExerciseWidth is how wide a system may be in staff spaces.
const ExerciseWidth = 78.0

const asideWidth = 78.0

// PDF returns the exercise on one page.
func (e Exercise) PDF() ([]byte, error) {
	p, err := newPen(e.Made)
	if err != nil {
		return nil, err
	}
	p.attempt = attempt{size: 1.1, words: true}
	p.doc.SetTitle(e.Title, true)
	p.doc.AddPage()
	e.draw(p)
	var out bytes.Buffer
	err = p.doc.Output(&out)
	return out.Bytes(), err
}

func (e Exercise) draw(p *pen) {
	y := margin
	whole := pageWidth - 2*margin
	y = p.text(margin, y, whole, e.Heading, small, plain)
	y = p.text(margin, y, whole, e.Title, title, heading)
	y = p.text(margin, y, whole, e.Step+" · "+e.Tempo, day, bold)
	y = p.text(margin, y+0.8, whole, e.Sentence, usual, plain) + 4
	left := whole - asideWidth - 8
	e.aside(p, margin+left+8, y)
	if e.Music.Width > 0 {
		pictures := e.pictures(p, 0, 0, left, true)
		space := min(2.4, left/e.Music.Width, (pageHeight-margin-y-pictures-6)/e.Music.Height)
		p.music(e.Music, space, margin, y)
		y += space*e.Music.Height + 6
	}
	e.pictures(p, margin, y, left, false)
}

// aside are the goals to tick, the faults and the cautions.
func (e Exercise) aside(p *pen, x, y float64) {
	y = p.text(x, y, asideWidth, "Three goals", day, heading) + 0.5
	for _, g := range e.Goals {
		for i := range 7 {
			p.box(x+float64(i)*(boxSide+1), y+1, boxSide)
		}
		y = p.text(x, y+boxSide+1.6, asideWidth, g, usual, bold) + 1.2
	}
	y = p.text(x, y+2, asideWidth, "Watch for", day, heading) + 0.5
	for _, f := range e.Faults {
		y = p.text(x, y, asideWidth, f.Text, usual, bold)
		y = p.text(x, y, asideWidth, f.Look, small, plain) + 1
	}
	y = p.text(x, y+2, asideWidth, "Take care", day, heading)
	p.text(x, y, asideWidth, e.Caution, small, plain)
}

// pictures draws the instrument and returns where it ends; dry measures only.
func (e Exercise) pictures(p *pen, x, y, width float64, dry bool) float64 {
	p.dry = dry
	defer func() { p.dry = false }()
	for _, b := range e.Boards {
		y = b.draw(p, x, y, width) + 2
	}
	y = e.chart(p, x, y, width)
	at, bottom := x, y
	for _, n := range e.Necks {
		w := n.width()
		if at > x && at+w > x+width {
			at, y = x, bottom+3
		}
		bottom = max(bottom, n.draw(p, at, y))
		at += w + 8
	}
	if len(e.Strokes.Dots) > 0 {
		bottom = e.Strokes.draw(p, x, bottom+3)
	}
	return bottom
}

// chart draws the fingerings in rows.
func (e Exercise) chart(p *pen, x, y, width float64) float64 {
	const column, hole, gap, row = 11.0, 1.7, 4.2, 48.0
	if len(e.Chart) == 0 {
		return y
	}
	at := x
	for _, f := range e.Chart {
		if at+column > x+width {
			at, y = x, y+row
		}
		if !p.dry {
			p.doc.SetFont(bold, "", usual)
			p.doc.Text(at+column/2-p.doc.GetStringWidth(f.Note)/2, y+4, f.Note)
			if f.Signs != "" {
				p.doc.Text(at+column/2-p.doc.GetStringWidth(f.Signs)/2, y+10, f.Signs)
			}
			p.doc.SetLineWidth(0.3)
			for i, closed := range f.Holes {
				cx, cy := at+column/2, y+8+gap*float64(i)
				if i == 0 {
					cx -= 2.5 // the thumb's lies behind
				}
				if i > 3 {
					cy += 1.6
				}
				p.doc.Circle(cx, cy, hole, "D")
				if closed > 0 {
					p.doc.Circle(cx, cy, hole*closed, "F")
				}
			}
		}
		at += column
	}
	if e.Chart[0].Signs != "" {
		return y + 14
	}
	return y + row
}

// black says whether a key is a black one.
func black(midi int) bool {
	switch midi % 12 {
	case 1, 3, 6, 8, 10:
		return true
	}
	return false
}

// whites counts the white keys below a key.
func whites(midi int) int {
	n := 0
	for m := range midi {
		if !black(m) {
			n++
		}
	}
	return n
}

// reach is from which key to which a board is drawn: a white one on either side.
func (b Board) reach() (low, high int) {
	low, high = b.Keys[0].MIDI, b.Keys[0].MIDI
	for _, k := range b.Keys {
		low, high = min(low, k.MIDI), max(high, k.MIDI)
	}
	for low--; black(low); low-- {
	}
	for high++; black(high); high++ {
	}
	return low, high
}

// keyAt is the left side and the width of a key on a board that begins with a key at x, white keys w wide.
func keyAt(midi, low int, x, w float64) (left, wide float64) {
	side := x + w*float64(whites(midi)-whites(low))
	if black(midi) {
		return side - 0.3*w, 0.6 * w
	}
	return side, w
}

// keys draws the keys from one to another.
func (b Board) keys(p *pen, low, high int, x, y, w, tall float64) {
	p.doc.SetLineWidth(0.2)
	for _, dark := range []bool{false, true} {
		for m := low; m <= high; m++ {
			if black(m) != dark {
				continue
			}
			left, wide := keyAt(m, low, x, w)
			if dark {
				p.doc.SetFillColor(70, 70, 70)
				p.doc.Rect(left, y, wide, tall*0.62, "F")
				p.doc.SetFillColor(0, 0, 0)
			} else {
				p.doc.Rect(left, y, wide, tall, "D")
			}
		}
	}
}

func (b Board) draw(p *pen, x, y, width float64) float64 {
	if len(b.Keys) == 0 {
		return y
	}
	low, high := b.reach()
	y = p.text(x, y, width, b.Name, small, plain) + 0.6
	const tall = 25.0
	w := min(12.0, width/float64(whites(high+1)-whites(low)))
	if p.dry {
		return y + tall
	}
	b.keys(p, low, high, x, y, w, tall)
	for _, k := range b.Keys {
		left, wide := keyAt(k.MIDI, low, x, w)
		at := y + tall - 3.6
		if black(k.MIDI) {
			at = y + tall*0.62 - 3.2
		}
		p.disc(left+wide/2, at, k.Label, k.Meets)
	}
	return y + tall
}

// disc is a finger: a white disc with its number, in a second ring where the hands meet.
func (p *pen) disc(x, y float64, label string, ring bool) {
	if p.dry {
		return
	}
	const r = 2.6
	p.doc.SetFillColor(255, 255, 255)
	p.doc.SetLineWidth(0.3)
	p.doc.Circle(x, y, r, "FD")
	p.doc.SetFillColor(0, 0, 0)
	if ring {
		p.doc.SetLineWidth(0.5)
		p.doc.Circle(x, y, r+0.8, "D")
	}
	p.doc.SetFont(bold, "", usual)
	p.doc.Text(x-p.doc.GetStringWidth(label)/2, y+1.15, label)
}

const (
	stringGap = 8.0
	fretGap   = 13.0
	nameWidth = 9.0
)

func (n Neck) last() int {
	last := 5
	for _, d := range n.Dots {
		last = max(last, d.At+1)
	}
	return last
}

func (n Neck) width() float64 { return nameWidth + fretGap*float64(n.last()) }

func (n Neck) draw(p *pen, x, y float64) float64 {
	y = p.text(x, y, n.width(), n.Name, day, bold) + 3
	bottom := y + stringGap*float64(len(n.Strings)-1)
	if p.dry {
		return bottom + 3
	}
	left, right := x+nameWidth, x+n.width()
	p.doc.SetLineWidth(0.2)
	if n.Frets {
		for i := range n.last() {
			at := left + fretGap*float64(i) + fretGap/2
			p.doc.SetLineWidth(map[bool]float64{true: 0.8, false: 0.15}[i == 0])
			p.doc.Line(at, y, at, bottom)
		}
	}
	for i, name := range n.Strings {
		at := y + stringGap*float64(i)
		p.doc.SetLineWidth(0.2 + 0.08*float64(i))
		p.doc.Line(left, at, right, at)
		p.doc.SetFont(bold, "", small)
		p.doc.Text(x, at+1, name)
	}
	for _, d := range n.Dots {
		p.disc(left+fretGap*float64(d.At), y+stringGap*float64(d.String-1), d.Label, false)
	}
	return bottom + 3
}

// Name is a name for the file.
func (e Exercise) Name() string { return fmt.Sprintf("exercise-%s.pdf", e.Made.Format(time.DateOnly)) }
