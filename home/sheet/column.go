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

func (it Item) draw(p *pen, t tongue.Tongue, x, y, width float64) float64 {
	top := y
	right := 0.0
	if it.Card != nil { // how it goes stands on the back under this letter
		right = letterSide*p.size + 1
	}
	y = p.text(x, y, width-right, it.Label, tiny, plain)
	indent := 0.0
	if it.Boxes == 1 { // one box stands before the title
		side := boxSide * p.size
		p.box(x, y+0.5, side)
		indent = side + 1.2
	}
	y = p.text(x+indent, y, width-indent-right, it.Title, usual, bold)
	if it.Card != nil {
		p.letter(x+width-letterSide*p.size, top+0.3, it.Card.letter)
	}
	if it.Where != "" {
		y = p.text(x, y, width, it.Where, usual, plain)
	}
	if it.Only != "" {
		y = p.text(x, y, width, it.Only, usual, bold)
	}
	if it.Boxes > 1 {
		y = p.boxes(x, y+0.5, width, it.Boxes)
		if it.Joined {
			y = p.text(x, y-0.4, width, t.Say("sheet.row"), tiny, plain)
		}
	}
	for _, goal := range it.Goals {
		y = p.text(x+1.6, y+0.1, width-1.6, "– "+goal, tiny, plain)
	}
	if it.Words != "" && p.words {
		y = p.text(x, y+0.2, width, it.Words, tiny, plain)
	}
	p.hair(x, y+0.7, width)
	return y + 0.9
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
