package sheet

import (
	"bytes"
	"fmt"
	"time"

	"github.com/go-pdf/fpdf"
)

// Report is a report on one or two upright pages.
type Report struct {
	// Heading is the line at the top, Title the name under it, Days the span in words.
	Heading, Title, Days string
	// Letterhead are lines under the heading.
	Letterhead []string
	Lines      []string
	// Way is drawn where there is room: the pieces against time.
	Way []Stretch
	// Months are the names along the time, each at its place, 0 for the first day and 1 for the last.
	Months []Month
	// Lists are what was achieved, one under another: a repertoire list, technique.
	Lists []List
	Made  time.Time
}

// Stretch is a piece from its beginning to its clearing, both from 0 for the first day of the span to 1 for the last.
type Stretch struct {
	Title    string
	From, To float64
	// Lane is its place from the left, from 0; Wide the effort that it asked for, 0 to 1.
	Lane int
	Wide float64
	// Open says that it is in work still.
	Open bool
}

// Month is the name of a month at its place in the span.
type Month struct {
	At   float64
	Name string
}

// List is a heading with lines under it.
type List struct {
	Title string
	Rows  []Row
}

// Row is a line of a list: what, by whom, when.
type Row struct{ What, By, When string }

// An upright page, in millimetres: A4, with a wider margin for letters that are read, not done.
const (
	uprightWidth  = 210.0
	uprightHeight = 297.0
	border        = 20.0
	// wayHeight is how tall the picture is, wayAxis how wide the names of the months beside it.
	wayHeight, wayAxis = 70.0, 16.0
	// mostRows is how many lines of a list are printed; the rest is counted.
	mostRows = 28
)

var sizeA4 = fpdf.SizeType{Wd: uprightWidth, Ht: uprightHeight}

// sizes of a report, the best first: the first at which it fits on a page, else the first at which it fits on two.
func sizes() []float64 { return []float64{1.25, 1.15, 1.05, 0.95, 0.88} }

// PDF returns the report on one page, or two.
func (r Report) PDF() ([]byte, error) {
	for _, pages := range []int{1, 2} {
		for _, size := range sizes() {
			out, used, err := r.at(size, pages)
			if err != nil {
				return nil, err
			}
			if used <= pages {
				return out, nil
			}
		}
	}
	out, _, err := r.at(0.7, 2)
	return out, err
}

// at draws the report at a size on at most some pages, and says how many it would need.
func (r Report) at(size float64, most int) ([]byte, int, error) {
	p, err := newPen(r.Made)
	if err != nil {
		return nil, 0, err
	}
	p.attempt = attempt{size: size, words: true}
	p.doc.SetTitle(r.Title, true)
	pages := 1
	p.doc.AddPageFormat("P", sizeA4)
	width := uprightWidth - 2*border
	y := border
	room := func(need float64) {
		if y+need <= uprightHeight-border {
			return
		}
		pages, y = pages+1, border
		if pages <= most {
			p.doc.AddPageFormat("P", sizeA4)
		} else {
			p.dry = true
		}
	}
	y = p.letterhead(border, p.text(border, y, width, r.Heading, usual, plain), width, r.Letterhead) + 1
	y = p.text(border, y, width, r.Title, title+4, heading)
	y = p.text(border, y, width, r.Days, day, plain) + 6
	for _, l := range r.Lines {
		room(p.height(l, width, day))
		y = p.text(border, y, width, l, day, plain) + 2.6*size
	}
	if len(r.Way) > 0 {
		y += 3
		room(wayHeight + 6)
		r.way(p, border, y, width)
		y += wayHeight + 6
	}
	for _, list := range r.Lists {
		if len(list.Rows) == 0 {
			continue
		}
		room(20)
		if list.Title != "" {
			y = p.text(border, y+3, width, list.Title, day+1, heading) + 1
		}
		rows := list.Rows[:min(len(list.Rows), mostRows)]
		for _, row := range rows {
			by := 0.33 * width
			tall := max(p.height(row.What, 0.5*width, usual), p.height(row.By, by-3, usual))
			room(tall + 1)
			p.hair(border, y, width)
			p.text(border, y+0.6, 0.5*width, row.What, usual, bold)
			p.text(border+0.51*width, y+0.6, by-3, row.By, usual, plain)
			p.text(border+0.84*width, y+0.6, 0.16*width, row.When, usual, plain)
			y += tall + 1.2
		}
		if more := len(list.Rows) - len(rows); more > 0 {
			y = p.text(border, y+0.6, width, fmt.Sprintf("and %d more", more), usual, plain)
		}
	}
	var out bytes.Buffer
	err = p.doc.Output(&out)
	return out.Bytes(), pages, err
}

// height is how tall a text is in lines of a width.
func (p *pen) height(text string, width, points float64) float64 {
	dry := p.dry
	p.dry = true
	defer func() { p.dry = dry }()
	return p.text(0, 0, width, text, points, plain)
}

// way draws the pieces against time, which climbs, as on the screen: two rails each, and a rung where it was cleared.
func (r Report) way(p *pen, x, y, width float64) {
	lanes := 0
	for _, s := range r.Way {
		lanes = max(lanes, s.Lane+1)
	}
	at := func(t float64) float64 { return y + wayHeight*(1-t) }
	for _, m := range r.Months {
		p.hair(x, at(m.At), width)
		p.text(x, at(m.At)-3.2, wayAxis, m.Name, small/p.size, plain)
	}
	if p.dry {
		return
	}
	lane := (width - wayAxis) / float64(lanes)
	for _, s := range r.Way {
		left := x + wayAxis + lane*float64(s.Lane) + 3
		wide := 1.2 + 3.6*s.Wide
		p.doc.SetLineWidth(0.35)
		p.doc.Line(left-wide/2, at(s.From), left-wide/2, at(s.To))
		p.doc.Line(left+wide/2, at(s.From), left+wide/2, at(s.To))
		if s.Open {
			p.doc.SetDashPattern([]float64{0.8, 0.8}, 0)
		}
		p.doc.SetLineWidth(0.9)
		p.doc.Line(left-wide/2-0.8, at(s.To), left+wide/2+0.8, at(s.To))
		p.doc.SetDashPattern([]float64{}, 0)
		p.doc.SetFont(plain, "", tiny)
		title := printable(s.Title)
		if room := lane - 8; p.doc.GetStringWidth(title) > room && room > 0 {
			title = p.head(title, room-1.5) + "…"
		}
		p.doc.Text(left+wide/2+1.6, at(s.To)+2.4, title)
	}
}
