package sheet

import (
	"fmt"

	"patientladder/core/notation/engrave"
)

// draw draws a day and returns where it ends. An excerpt that stands on the
// sheet already is not drawn again.
func (d Day) draw(p *pen, x, y, width float64, seen map[string]bool) float64 {
	p.rule(x, y, width, d.Rest)
	y = p.text(x, y+1.2, width, d.Name, day, heading)
	if d.Rest {
		return p.text(x, y, width, "A day of rest.", small, plain)
	}
	y = p.text(x, y, width, d.Minutes, small, plain)
	if d.Focus != "" {
		y = p.text(x, y+0.4, width, "Listen for: "+d.Focus, small, bold)
	}
	if len(d.Items) == 0 {
		return p.text(x, y, width, "Nothing fits into the minutes of this day.", small, plain)
	}
	said := ""
	for i, it := range d.Items {
		if it.Words == said { // the same words twice in a row say nothing more
			it.Words = ""
		} else {
			said = it.Words
		}
		if p.most > 0 && i == p.most {
			return p.text(x, y+0.6, width, fmt.Sprintf("and %d more, on the page for the phone", len(d.Items)-i), small, bold)
		}
		y = it.draw(p, x, y+0.8, width, seen)
	}
	return y
}

func (it Item) draw(p *pen, x, y, width float64, seen map[string]bool) float64 {
	y = p.text(x, y, width, it.Label, tiny, plain)
	indent := 0.0
	if it.Boxes == 1 { // one box stands before the title
		side := boxSide * p.size
		p.box(x, y+0.5, side)
		indent = side + 1.2
	}
	y = p.text(x+indent, y, width-indent, it.Title, usual, bold)
	if it.Where != "" {
		y = p.text(x, y, width, it.Where, usual, plain)
	}
	if it.Only != "" {
		y = p.text(x, y, width, it.Only+" only", usual, bold)
	}
	if it.Excerpt != nil && p.excerpts {
		// The same bars by the same hand.
		key := it.Title + it.Where + it.Only
		if !seen[key] {
			seen[key] = true
			y = p.excerpt(*it.Excerpt, x, y+0.8, width) + 0.8
		}
	}
	if it.Boxes > 1 {
		y = p.boxes(x, y+0.5, width, it.Boxes, it.Joined)
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

// ExcerptWidth is how wide an excerpt may be in staff spaces before it goes on
// in a second system: a column at a size that can be read from the stand.
const ExcerptWidth = 32.0

// largestSpace is a staff space in millimetres at the usual size of letters:
// what small print for the music stand has.
const largestSpace = 1.2

// excerpt draws bars as wide as the column, but never larger than print.
func (p *pen) excerpt(d engrave.Drawing, x, y, width float64) float64 {
	if d.Width == 0 {
		return y
	}
	space := min(largestSpace*p.size, width/d.Width)
	p.shapes(d.Shapes, space, x, y)
	return y + space*d.Height
}

// boxSide is the side of a box to tick, in millimetres.
const boxSide = 3.0

// boxes draws boxes to tick, as many to a row as the column holds.
func (p *pen) boxes(x, y, width float64, n int, joined bool) float64 {
	side := boxSide * p.size
	step := side + 0.9*p.size
	if joined {
		step = side
	}
	perRow := max(1, int((width-side)/step)+1)
	for i := range n {
		p.box(x+step*float64(i%perRow), y+(side+0.8)*float64(i/perRow), side)
	}
	y += (side + 0.8) * float64((n+perRow-1)/perRow)
	if joined {
		y = p.text(x, y-0.4, width, "right in a row", tiny, plain)
	}
	return y
}
