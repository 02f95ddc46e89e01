// Package sheet draws a week of practice on both sides of one sheet of A4, as PDF: readable in black and white, with
// boxes to tick. In front are the days, on the back how each thing goes: its notes, where the hands begin, what is said.
//
//	sheet.go   what stands on it, and how it is made to fit
//	column.go  a day
//	back.go    how each thing goes
//	foot.go    what stands under the days: not yet, what did not fit, the hand, the cautions
//	exercise.go  an exercise on a page of its own
//	pen.go     text and shapes on paper
package sheet

import (
	"bytes"
	"slices"
	"time"

	"patientladder/core/wording/tongue"
)

// Sheet is what stands on the sheet. All texts are in the words of the family.
type Sheet struct {
	// Tongue says what the sheet itself says.
	Tongue tongue.Tongue
	// Heading is the line at the top, Title the sentence under it.
	Heading, Title string
	// Watch is the one fault that is looked after; empty for none. Dose says how often; Words are the teacher's own, Caution the usual ones.
	Watch, Dose, Words, Caution string
	Days                        []Day
	// NotYet must not be done yet, LeftOut did not fit.
	NotYet, LeftOut []string
	// Hands are the hands whose fingers are drawn with their numbers.
	Hands []Hand
	// Page is where the same is found on a phone; empty for nowhere.
	Page string
	// Made is the time that stands in the file.
	Made time.Time
}

// Day is one column.
type Day struct {
	Name string
	// Minutes in words: "12 of 15 min".
	Minutes string
	Rest    bool
	Focus   string
	Items   []Item
}

// Item is one thing to do.
type Item struct {
	// Label is the line over the title: "Small piece, 3 min".
	Label, Title string
	// Where are the bars, Only the hand that plays alone; both may be empty.
	Where, Only string
	// Boxes to tick; joined ones ask for right ones in a row.
	Boxes  int
	Joined bool
	// Words say how it goes where it has no card.
	Words string
	// Goals of an exercise are read before it.
	Goals []string
	// Card is how it goes, on the back; nil for none.
	Card *Card
}

// Hand is a hand and its finger numbers, thumb first; an empty one is not written.
type Hand struct {
	Name    string
	Left    bool
	Fingers [5]string
}

// The page, in millimetres: A4 on its side.
const (
	pageWidth  = 297.0
	pageHeight = 210.0
	margin     = 10.0
	gap        = 2.5 // between columns
	rise       = 1.6 // from one step of the staircase to the next
)

// attempt is one way of making everything fit.
type attempt struct {
	// size is that of the letters against the usual.
	size float64
	// words are written.
	words bool
	// most is how many items a day shows, 0 for all.
	most int
}

// attempts are tried in turn, the best first: rather no words than small letters, and rather fewer things than letters that nobody can
// read at arm's length.
func attempts() []attempt {
	var out []attempt
	for _, words := range []bool{true, false} {
		for _, size := range []float64{1.1, 1.05, 1} {
			out = append(out, attempt{size, words, 0})
		}
	}
	for most := 12; most > 0; most-- {
		out = append(out, attempt{1, false, most})
	}
	return out
}

// PDF returns the sheet: one page, and a second one where there is anything to show how it goes.
func (s Sheet) PDF() ([]byte, error) {
	p, err := newPen(s.Made)
	if err != nil {
		return nil, err
	}
	back := back{s.Tongue, s.Heading, s.cards()}
	back.fit(p)
	s.letter(back.cards)
	size := p.attempt
	s.fit(p)
	p.doc.SetTitle(s.Heading, true)
	p.doc.AddPage()
	s.draw(p)
	if len(back.cards) > 0 {
		p.attempt = size
		p.doc.AddPage()
		back.draw(p)
	}
	var out bytes.Buffer
	err = p.doc.Output(&out)
	return out.Bytes(), err
}

// cards are how each thing goes that is on the sheet, once each, in the order in which they come.
func (s Sheet) cards() (out []*Card) {
	at := map[string]*Card{}
	for d := range s.Days {
		for i := range s.Days[d].Items {
			it := &s.Days[d].Items[i]
			if it.Card == nil {
				continue
			}
			if first, there := at[it.Card.Key]; there {
				it.Card = first
				continue
			}
			at[it.Card.Key] = it.Card
			out = append(out, it.Card)
		}
	}
	return out
}

// letter gives each card that stands on the back a letter; what has none there has none in front.
func (s Sheet) letter(cards []*Card) {
	for i, c := range cards {
		c.letter = letterOf(i)
	}
	for d := range s.Days {
		for i := range s.Days[d].Items {
			if it := &s.Days[d].Items[i]; it.Card != nil && !slices.Contains(cards, it.Card) {
				it.Card = nil
			}
		}
	}
}

// letterOf counts in letters: A to Z, then AA.
func letterOf(n int) string {
	if n >= 26 {
		return letterOf(n/26-1) + letterOf(n%26)
	}
	return string(rune('A' + n))
}

// fit makes the front fit: by the first attempt that does, or by the last one.
func (s Sheet) fit(p *pen) {
	for _, a := range attempts() {
		p.attempt = a
		if s.height(p) <= pageHeight-margin {
			return
		}
	}
}

// height is where the front would end as the pen would draw it.
func (s Sheet) height(p *pen) float64 {
	p.dry = true
	defer func() { p.dry = false }()
	return s.draw(p)
}

// draw draws the front and returns its height.
func (s Sheet) draw(p *pen) float64 {
	y := margin
	y = p.text(margin, y, pageWidth-2*margin, s.Heading, small, plain)
	y = p.text(margin, y, pageWidth-2*margin, s.Title, title, heading) + 0.5
	if s.Watch != "" {
		y = p.text(margin, y, pageWidth-2*margin, s.Watch, usual, bold)
	}
	if s.Words != "" {
		y = p.text(margin, y, pageWidth-2*margin, "“"+s.Words+"”", usual, bold)
	}
	if s.Dose != "" {
		y = p.text(margin, y, pageWidth-2*margin, s.Dose, usual, plain)
	}
	y += 1.5
	width := (pageWidth - 2*margin - 6*gap) / 7
	practised := 0
	for _, d := range s.Days {
		if !d.Rest {
			practised++
		}
	}
	bottom, step := y, 0
	for i, d := range s.Days {
		if i == columns { // a week that goes on repeats its days
			break
		}
		if !d.Rest {
			step++
		}
		x := margin + float64(i)*(width+gap)
		bottom = max(bottom, d.draw(p, s.Tongue, x, y+rise*float64(max(0, practised-step))*p.size, width))
	}
	return s.foot(p, bottom+2.5)
}

// columns are the days in front; what a longer week has beyond them are the same days again.
const columns = 7
