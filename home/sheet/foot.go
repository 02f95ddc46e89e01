package sheet

import (
	"strconv"
	"strings"
)

// codeSide is the side of the square code, in millimetres: large enough for any phone.
const codeSide = 22.0

// foot draws what stands under the days and returns where it ends.
func (s Sheet) foot(p *pen, y float64) float64 {
	whole := pageWidth - 2*margin
	hands := 0.0
	if len(s.Hands) > 0 {
		hands = 26 * float64(len(s.Hands))
	}
	code := 0.0
	if s.Page != "" {
		code = codeSide + gap
	}
	column := (whole - hands - code - 3*gap) / 3
	x := margin
	// “Not yet” has a border of its own: it must not be missed on a copy in grey.
	inner := p.text(x+3, y+1.2, column-6, s.Tongue.Say("sheet.not-yet"), day, heading)
	if len(s.NotYet) == 0 {
		inner = p.text(x+3, inner, column-6, s.Tongue.Say("sheet.not-yet.none"), usual, plain)
	}
	for _, n := range s.NotYet {
		inner = p.text(x+3, inner, column-6, "× "+n, usual, bold)
	}
	p.frame(x, y, column, inner+1.2-y)
	bottom := inner + 1.2
	x += column + gap
	at := p.text(x, y+1.2, column, s.Tongue.Say("sheet.left"), day, heading)
	if len(s.LeftOut) == 0 {
		at = p.text(x, at, column, s.Tongue.Say("sheet.left.none"), small, plain)
	} else {
		at = p.text(x, at, column, s.shortList(s.LeftOut, 6), small, plain)
	}
	bottom = max(bottom, at)
	x += column + gap
	at = p.text(x, y+1.2, column, s.Tongue.Say("sheet.care"), day, heading)
	at = p.text(x, at, column, s.Caution, small, plain)
	bottom = max(bottom, at)
	x += column + gap
	if s.Page != "" {
		p.code(s.Page, x, y+1.5)
		bottom = max(bottom, p.text(x, y+codeSide+1.8, codeSide, s.Tongue.Say("sheet.phone"), tiny, plain))
		x += codeSide + gap
	}
	for _, h := range s.Hands {
		bottom = max(bottom, p.hand(h, x, y+1))
		x += 26
	}
	return bottom
}

// shortList writes the first of a list, and how many more there are.
func (s Sheet) shortList(list []string, most int) string {
	if len(list) <= most {
		return strings.Join(list, "; ") + "."
	}
	return strings.Join(list[:most], "; ") + " " + s.Tongue.Say("sheet.others", "n", strconv.Itoa(len(list)-most))
}
