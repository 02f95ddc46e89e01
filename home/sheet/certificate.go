package sheet

import (
	"bytes"
	"time"
)

// Certificate says on a page of its own that something was gone through to its end.
type Certificate struct {
	// Name of the student, What was gone through, Says the sentence between them, When and By whom at the foot.
	Name, Says, What, When, By string
	Made                       time.Time
}

// PDF returns the certificate on one page: a ladder of ink in the margins, and the rest is space.
func (c Certificate) PDF() ([]byte, error) {
	p, err := newPen(c.Made)
	if err != nil {
		return nil, err
	}
	p.attempt = attempt{size: 1, words: true}
	p.doc.SetTitle(c.What, true)
	p.doc.AddPage()
	for _, x := range []float64{24, pageWidth - 40} {
		p.doc.SetLineWidth(1.1)
		p.doc.Line(x, margin+6, x, pageHeight-margin-6)
		p.doc.Line(x+16, margin+6, x+16, pageHeight-margin-6)
		p.doc.SetLineWidth(0.8)
		for y := margin + 18.0; y < pageHeight-margin-10; y += 17 {
			p.doc.Line(x, y, x+16, y)
		}
	}
	const left = 60.0
	width := pageWidth - 2*left
	y := p.centred(left, 52, width, c.Name, 40, heading)
	y = p.centred(left, y+8, width, c.Says, 15, plain)
	y = p.centred(left, y+6, width, c.What, 28, heading)
	p.centred(left, max(y+14, 150), width, c.When, 13, plain)
	p.centred(left, 160, width, c.By, 13, plain)
	var out bytes.Buffer
	err = p.doc.Output(&out)
	return out.Bytes(), err
}

// centred writes a text in the middle of a width, in smaller letters where it would take more than two lines.
func (p *pen) centred(x, y, width float64, text string, points float64, style string) float64 {
	for ; points > 12; points -= 2 {
		p.doc.SetFont(style, "", points)
		if len(p.lines(text, width)) <= 2 {
			break
		}
	}
	p.doc.SetFont(style, "", points)
	for _, l := range p.lines(text, width) {
		p.doc.Text(x+(width-p.doc.GetStringWidth(l))/2, y+points*millimetres*0.92, l)
		y += points * millimetres * 1.2
	}
	return y
}
