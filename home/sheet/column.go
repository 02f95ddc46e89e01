package sheet

import (
	"strconv"

	"patientladder/core/wording/tongue"
)

// draw draws a day and returns where it ends.
func (d Day) draw(p *pen, t tongue.Tongue, x, y, width float64) float64 {
	p.rule(x, y, width, d.Rest)
	y = p.text(x, y+1.2, width, d.Name, day, heading)
	if d.Rest {
		return p.text(x, y, width, t.Say("sheet.rest"), small, plain)
	}
	y = p.text(x, y, width, d.Minutes, small, plain)
	if d.Focus != "" {
		y = p.text(x, y+0.4, width, t.Say("sheet.focus", "focus", d.Focus), small, bold)
	}
	if len(d.Items) == 0 {
		return p.text(x, y, width, t.Say("sheet.nothing"), small, plain)
	}
	said := ""
	for i, it := range d.Items {
		if it.Words == said { // the same words twice in a row say nothing more
			it.Words = ""
		} else {
			said = it.Words
		}
		if p.most > 0 && i == p.most {
			return p.text(x, y+0.6, width, t.Say("sheet.more", "n", strconv.Itoa(len(d.Items)-i)), small, bold)
		}
		y = it.draw(p, t, x, y+0.8, width)
	}
	return y
}

// draw draws a thing to do: what it is in bold letters, its boxes with what kind of thing it is beside them, and what stands only here.
// What is done once is a line with a box before it.
func (it Item) draw(p *pen, t tongue.Tongue, x, y, width float64) float64 {
	top := y
	right := 0.0
	if it.Card != nil { // how it goes stands on the back under this letter
		right = letterSide*p.size + 1
	}
	indent := 0.0
	if it.Boxes == 1 {
		side := boxSide * p.size
		p.box(x, y+0.5, side)
		indent = side + 1.2
	}
	head := it.Title
	if it.Where != "" {
		head += ", " + it.Where
	}
	y = p.text(x+indent, y, width-indent-right, head, usual, bold)
	if it.Card != nil {
		p.letter(x+width-letterSide*p.size, top+0.3, it.Card.letter)
		y = max(y, top+letterSide*p.size+0.4)
	}
	if it.Only != "" {
		y = p.text(x, y, width, it.Only, tiny, plain)
	}
	switch {
	case it.Boxes > 1:
		y = it.counted(p, t, x, y+0.4, width)
	case it.Boxes == 0 && it.Label != "":
		y = p.text(x, y, width, it.Label, tiny, plain)
	}
	for _, goal := range it.Goals {
		if it.Card != nil { // they stand on the back
			break
		}
		y = p.text(x+1.6, y+0.1, width-1.6, "– "+goal, tiny, plain)
	}
	if it.Words != "" && p.words {
		y = p.text(x, y+0.2, width, it.Words, tiny, plain)
	}
	p.hair(x, y+0.5, width)
	return y + 0.6
}

// counted draws the boxes of a thing, with its kind beside them where it fits and under them where it does not.
func (it Item) counted(p *pen, t tongue.Tongue, x, y, width float64) float64 {
	label := it.Label
	if it.Joined {
		label = t.Say("sheet.row")
	}
	across := (boxSide+0.9)*p.size*float64(it.Boxes) + 1
	p.doc.SetFont(plain, "", tiny*p.size)
	beside := across+p.doc.GetStringWidth(label) <= width
	end := p.boxes(x, y, width, it.Boxes)
	if beside {
		return max(end, p.text(x+across, y-0.4, width-across, label, tiny, plain))
	}
	return p.text(x, end-0.4, width, label, tiny, plain)
}

// letterSide is the side of the square in which the letter of a card stands, in millimetres.
const letterSide = 4.6

// letter draws the letter of a card, white on black.
func (p *pen) letter(x, y float64, letter string) {
	if p.dry {
		return
	}
	side := letterSide * p.size
	p.doc.SetFont(bold, "", usual*p.size)
	wide := max(side, p.doc.GetStringWidth(letter)+1.6)
	x -= wide - side
	p.doc.SetFillColor(0, 0, 0)
	p.doc.Rect(x, y, wide, side, "F")
	p.doc.SetTextColor(255, 255, 255)
	p.doc.Text(x+(wide-p.doc.GetStringWidth(letter))/2, y+side*0.76, letter)
	p.doc.SetTextColor(0, 0, 0)
}

// boxSide is the side of a box to tick, in millimetres.
const boxSide = 3.0

// boxes draws boxes to tick, as many to a row as the column holds.
func (p *pen) boxes(x, y, width float64, n int) float64 {
	side := boxSide * p.size
	step := side + 0.9*p.size
	perRow := max(1, int((width-side)/step)+1)
	for i := range n {
		p.box(x+step*float64(i%perRow), y+(side+0.8)*float64(i/perRow), side)
	}
	return y + (side+0.8)*float64((n+perRow-1)/perRow)
}
