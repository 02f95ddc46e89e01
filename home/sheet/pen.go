package sheet

import (
	_ "embed"
	"strings"
	"time"

	"github.com/go-pdf/fpdf"
	qrcode "github.com/skip2/go-qrcode"

	"patientladder/core/notation/engrave"
)

// The fonts are under the SIL Open Font License (fonts/OFL.txt).
var (
	//go:embed fonts/AtkinsonHyperlegibleNext_400Regular.ttf
	plainFont []byte
	//go:embed fonts/AtkinsonHyperlegibleNext_700Bold.ttf
	boldFont []byte
	//go:embed fonts/Brygada1918_700Bold.ttf
	headingFont []byte
)

// Sizes of letters in points, and the styles.
const (
	tiny  = 9.0 // nothing is written smaller
	small = 9.0
	usual = 10.0
	day   = 11.5
	title = 16.0

	plain   = "plain"
	bold    = "bold"
	heading = "heading"
)

const millimetres = 25.4 / 72 // a point

// pen draws on the page; a dry one only measures.
type pen struct {
	doc *fpdf.Fpdf
	attempt
	dry bool
}

func newPen(made time.Time) (*pen, error) {
	doc := fpdf.New("L", "mm", "A4", "")
	doc.SetMargins(0, 0, 0)
	doc.SetAutoPageBreak(false, 0)
	doc.SetCreationDate(made)
	doc.SetModificationDate(made)
	doc.SetCatalogSort(true)
	for name, data := range map[string][]byte{plain: plainFont, bold: boldFont, heading: headingFont} {
		doc.AddUTF8FontFromBytes(name, "", data)
	}
	return &pen{doc: doc}, doc.Error()
}

// text writes a text in lines of a width and returns where it ends.
func (p *pen) text(x, y, width float64, text string, points float64, style string) float64 {
	if text == "" {
		return y
	}
	points *= p.size
	p.doc.SetFont(style, "", points)
	line := points * millimetres * 1.16
	for _, l := range p.lines(text, width) {
		if !p.dry {
			p.doc.Text(x, y+points*millimetres*0.92, l)
		}
		y += line
	}
	return y
}

// lines breaks a text at spaces, and a word that is too long by itself inside.
func (p *pen) lines(text string, width float64) []string {
	var out []string
	line := ""
	for _, word := range strings.Fields(printable(text)) {
		for {
			with := strings.TrimPrefix(line+" "+word, " ")
			if p.doc.GetStringWidth(with) <= width {
				line = with
				break
			}
			if line != "" {
				out, line = append(out, line), ""
				continue
			}
			head := p.head(word, width)
			out, word = append(out, head), word[len(head):]
			if word == "" {
				break
			}
		}
	}
	if line != "" {
		out = append(out, line)
	}
	return out
}

// head is as much of a word as fits, and at least one letter.
func (p *pen) head(word string, width float64) string {
	end := 0
	for i, r := range word {
		next := i + len(string(r))
		if end > 0 && p.doc.GetStringWidth(word[:next]) > width {
			break
		}
		end = next
	}
	return word[:end]
}

// printable writes what the fonts cannot hold otherwise, and leaves out letters beyond the basic plane.
func printable(text string) string {
	text = strings.NewReplacer("♭", "b", "♯", "#").Replace(text) // the fonts have no such signs
	return strings.Map(func(r rune) rune {
		if r > 0xFFFF || r < ' ' && r != '\n' && r != '\t' {
			return -1
		}
		return r
	}, text)
}

// rule is the step of a day; dashed for a day of rest.
func (p *pen) rule(x, y, width float64, dashed bool) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.9)
	if dashed {
		p.doc.SetLineWidth(0.4)
		p.doc.SetDashPattern([]float64{1.2, 1.2}, 0)
	}
	p.doc.Line(x, y, x+width, y)
	p.doc.SetDashPattern([]float64{}, 0)
}

func (p *pen) hair(x, y, width float64) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.1)
	p.doc.SetDrawColor(120, 120, 120)
	p.doc.Line(x, y, x+width, y)
	p.doc.SetDrawColor(0, 0, 0)
}

func (p *pen) box(x, y, side float64) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.25)
	p.doc.Rect(x, y, side, side, "D")
}

// frame is a double border.
func (p *pen) frame(x, y, width, height float64) {
	if p.dry {
		return
	}
	p.doc.SetLineWidth(0.6)
	p.doc.Rect(x, y, width, height, "D")
	p.doc.SetLineWidth(0.2)
	p.doc.Rect(x+0.9, y+0.9, width-1.8, height-1.8, "D")
}

// music draws engraved bars; space is a staff space in millimetres.
func (p *pen) music(d engrave.Drawing, space, x, y float64) {
	p.shapes(d.Shapes, space, x, y)
	if p.dry {
		return
	}
	for _, t := range d.Texts {
		p.doc.SetFont(bold, "", space*t.Size*72/25.4)
		p.doc.Text(x+space*t.X-p.doc.GetStringWidth(t.Text)/2, y+space*t.Y, t.Text)
	}
}

// shapes fills engraved shapes; space is a staff space in millimetres.
func (p *pen) shapes(list []engrave.Shape, space, x, y float64) {
	if p.dry {
		return
	}
	for _, s := range list {
		for _, c := range s {
			q := c.P
			for i := range 3 {
				q[2*i], q[2*i+1] = x+space*q[2*i], y+space*q[2*i+1]
			}
			switch c.Op {
			case 'M':
				p.doc.MoveTo(q[0], q[1])
			case 'L':
				p.doc.LineTo(q[0], q[1])
			case 'C':
				p.doc.CurveBezierCubicTo(q[0], q[1], q[2], q[3], q[4], q[5])
			case 'Z':
				p.doc.ClosePath()
			}
		}
		p.doc.DrawPath("f")
	}
}

// code draws a square code (QR, ISO/IEC 18004) that a phone reads as an address.
func (p *pen) code(address string, x, y float64) {
	if p.dry {
		return
	}
	q, err := qrcode.New(address, qrcode.Low)
	if err != nil {
		return // longer than a code can hold: the sheet says the same without it
	}
	q.DisableBorder = true
	modules := q.Bitmap()
	side := codeSide / float64(len(modules))
	for i, row := range modules {
		for k := 0; k < len(row); k++ {
			run := k
			for run < len(row) && row[run] {
				run++
			}
			if run > k {
				p.doc.Rect(x+side*float64(k), y+side*float64(i), side*float64(run-k), side, "F")
				k = run
			}
		}
	}
}

// hand draws the outline of a hand, palm down, with the numbers of its fingers.
func (p *pen) hand(h Hand, x, y float64) float64 {
	const width, height = 24.0, 24.0
	if !p.dry {
		p.doc.SetLineWidth(0.3)
		place := func(fx float64) float64 { // the thumb of a right hand lies to the left
			if h.Left {
				fx = 1 - fx
			}
			return x + width*fx
		}
		p.doc.SetFont(bold, "", usual)
		for i, f := range []struct{ x, top, tilt float64 }{{0.12, 0.62, -0.10}, {0.34, 0.24, -0.03}, {0.50, 0.16, 0}, {0.66, 0.24, 0.03}, {0.81, 0.42, 0.06}} {
			half := 0.06 * width
			tip, root := place(f.x+f.tilt/2), place(f.x-f.tilt/2)
			top, low := y+height*f.top, y+height*0.66
			if i == 0 {
				low = y + height*0.86
				root = place(f.x + 0.16)
			}
			p.doc.MoveTo(root-half, low)
			p.doc.LineTo(tip-half, top)
			p.doc.CurveBezierCubicTo(tip-half, top-2.2, tip+half, top-2.2, tip+half, top)
			p.doc.LineTo(root+half, low)
			p.doc.DrawPath("D")
			if h.Fingers[i] != "" {
				p.doc.Text(tip-p.doc.GetStringWidth(h.Fingers[i])/2, top-2.4, h.Fingers[i])
			}
		}
		left, right := place(0.26), place(0.89)
		p.doc.MoveTo(left, y+height*0.66)
		p.doc.CurveBezierCubicTo(left, y+height, right, y+height, right, y+height*0.66)
		p.doc.DrawPath("D")
	}
	p.doc.SetFont(plain, "", tiny*p.size)
	if !p.dry {
		p.doc.Text(x+(width-p.doc.GetStringWidth(h.Name))/2, y+height+1.5, h.Name)
	}
	return y + height + 2.5
}
