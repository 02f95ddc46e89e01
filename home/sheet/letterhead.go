package sheet

import (
	"fmt"
	"strings"
	"unicode/utf8"
)

const (
	// mostLines is how many lines a letterhead has, longestLine how many letters one.
	mostLines, longestLine = 4, 80
)

// Letterhead are the lines of a letterhead as they are kept: trimmed, without empty ones. It refuses more than four lines, and
// lines of more than eighty letters.
func Letterhead(text string) ([]string, error) {
	var out []string
	for _, l := range strings.Split(text, "\n") {
		l = strings.TrimSpace(l)
		if n := utf8.RuneCountInString(l); n > longestLine {
			return nil, fmt.Errorf("a line of the letterhead has %d letters; at most %d fit", n, longestLine)
		}
		if l != "" {
			out = append(out, l)
		}
	}
	if len(out) > mostLines {
		return nil, fmt.Errorf("the letterhead has %d lines; at most %d fit", len(out), mostLines)
	}
	return out, nil
}

// letterhead writes the lines under a heading.
func (p *pen) letterhead(x, y, width float64, lines []string) float64 {
	for _, l := range lines {
		y = p.text(x, y, width, l, small, plain)
	}
	return y
}
