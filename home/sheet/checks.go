package sheet

import (
	"bytes"
	"time"
)

// Checks is a list to tick on one page: what a book takes for granted, one line a skill.
type Checks struct {
	Heading, Title, Says string
	// Letterhead are lines under the heading.
	Letterhead []string
	Lines      []Check
	Made       time.Time
}

// Check is one line to tick, with what stands under it.
type Check struct{ Text, Under string }

// checkWidth is how wide a column of checks is.
const checkWidth = 120.0

// PDF returns the list on one page, in two columns.
func (c Checks) PDF() ([]byte, error) {
	p, err := newPen(c.Made)
	if err != nil {
		return nil, err
	}
	p.attempt = attempt{size: 1, words: true}
	p.doc.SetTitle(c.Title, true)
	p.doc.AddPage()
	y := margin
	whole := pageWidth - 2*margin
	y = p.letterhead(margin, p.text(margin, y, whole, c.Heading, small, plain), whole, c.Letterhead)
	y = p.text(margin, y, whole, c.Title, title, heading)
	y = p.text(margin, y+0.8, whole, c.Says, usual, plain) + 4
	top, x := y, margin
	for _, l := range c.Lines {
		if y > pageHeight-margin-14 {
			if x > margin {
				break // two columns are a page: what stands last is asked for least
			}
			x, y = margin+checkWidth+12, top
		}
		p.box(x, y+1, boxSide)
		end := p.text(x+boxSide+3, y, checkWidth-boxSide-3, l.Text, usual, bold)
		y = p.text(x+boxSide+3, end, checkWidth-boxSide-3, l.Under, small, plain) + 2
	}
	var out bytes.Buffer
	err = p.doc.Output(&out)
	return out.Bytes(), err
}
