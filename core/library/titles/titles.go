// Package titles finds the pieces of a library that somebody means by a line of a list: a title as it was
// typed from memory, with a number before it, a composer behind it, or a letter wrong.
package titles

import (
	"cmp"
	"regexp"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// Title is a piece that a line could mean.
type Title struct {
	ID, Title, Composer string
}

// Match is what a line means.
type Match struct {
	// Line is the line without what stands around the title.
	Line string
	// Best is the piece that it is most like; its ID is empty for none. Alike is how much, 0 to 1.
	Best  Title
	Alike float64
	// Sure says that it is that piece; a match that is not sure is doubtful and to be asked about.
	Sure bool
}

// How alike a line and a title must be to be the same, or perhaps the same (default).
const (
	sure     = 0.92
	doubtful = 0.55
	// clearly is by how much the best must be better than the next to be sure.
	clearly = 0.05
)

// number is what stands before a title in a list: "12.", "3)", "- ".
var number = regexp.MustCompile(`^\s*(?:[-*•–]+|\(?\d{1,3}[.):]|\d{1,3}\s+-)\s*`)

// Find says which of some pieces a line means. A line may name the composer after the title or before it.
func Find(line string, among []Title) Match {
	m := Match{Line: line}
	wanted := plain(line)
	second := 0.0
	for _, t := range among {
		title, composer := plain(t.Title), plain(t.Composer)
		alike := similar(wanted, title)
		if composer != "" {
			alike = max(alike, similar(wanted, title+" "+composer), similar(wanted, composer+" "+title), similar(wanted, title+" "+last(composer)))
		}
		switch {
		case alike > m.Alike:
			second, m.Alike, m.Best = m.Alike, alike, t
		case alike > second:
			second = alike
		}
	}
	if m.Alike < doubtful {
		return Match{Line: line}
	}
	m.Sure = m.Alike >= sure && m.Alike-second >= clearly || m.Alike == 1 && second < 1
	return m
}

// plain is a text in small letters without marks and signs, its words apart by single spaces.
func plain(s string) string {
	var b strings.Builder
	gap := false
	for _, r := range norm.NFD.String(strings.ToLower(s)) {
		switch {
		case unicode.Is(unicode.Mn, r) || r == '\'' || r == '’':
		case unicode.IsLetter(r) || unicode.IsDigit(r):
			if gap && b.Len() > 0 {
				b.WriteByte(' ')
			}
			gap = false
			b.WriteRune(r)
		default:
			gap = true
		}
	}
	return b.String()
}

func last(words string) string { return words[strings.LastIndex(words, " ")+1:] }

// similar is how alike two plain texts are, 0 to 1: the mean of how alike they are letter by letter, as they
// stand and with their words in order, so that words that changed places cost little.
func similar(a, b string) float64 {
	if a == b {
		return 1
	}
	if a == "" || b == "" {
		return 0
	}
	return max(ratio(a, b), 0.98*ratio(ordered(a), ordered(b)))
}

// Alike is how alike two names are, 0 to 1, whatever their case and marks.
func Alike(a, b string) float64 { return similar(plain(a), plain(b)) }

func ordered(s string) string {
	w := strings.Fields(s)
	slices.SortFunc(w, func(a, b string) int { return cmp.Compare(a, b) })
	return strings.Join(w, " ")
}

// ratio is one less the edit distance (Levenshtein 1966, with neighbours that change places as one edit:
// Damerau 1964) by the length of the longer text.
func ratio(a, b string) float64 {
	x, y := []rune(a), []rune(b)
	before, row, next := make([]int, len(y)+1), make([]int, len(y)+1), make([]int, len(y)+1)
	for j := range row {
		row[j] = j
	}
	for i := 1; i <= len(x); i++ {
		next[0] = i
		for j := 1; j <= len(y); j++ {
			cost := 1
			if x[i-1] == y[j-1] {
				cost = 0
			}
			next[j] = min(row[j]+1, next[j-1]+1, row[j-1]+cost)
			if i > 1 && j > 1 && x[i-1] == y[j-2] && x[i-2] == y[j-1] {
				next[j] = min(next[j], before[j-2]+1)
			}
		}
		before, row, next = row, next, before
	}
	return 1 - float64(row[len(y)])/float64(max(len(x), len(y)))
}

// Holds says that a text holds all words of a search, whatever their case and marks.
func Holds(text, search string) bool {
	here := plain(text)
	for _, w := range strings.Fields(plain(search)) {
		if !strings.Contains(here, w) {
			return false
		}
	}
	return true
}

// shortestNamed is how many letters and digits a title has at the least to be found within other words (default): “Up” is a word.
const shortestNamed = 4

// Named are those of some titles that a text has among its words, in their order: each as whole words, and none that is only a part
// of a longer one that stands there.
func Named(text string, among []Title) (out []Title) {
	words := " " + plain(text) + " "
	var found []string
	for _, t := range among {
		title := plain(t.Title)
		if utf8.RuneCountInString(title) >= shortestNamed && strings.Contains(words, " "+title+" ") {
			out, found = append(out, t), append(found, title)
		}
	}
	return slices.DeleteFunc(out, func(t Title) bool {
		title := plain(t.Title)
		return slices.ContainsFunc(found, func(f string) bool {
			return f != title && strings.Contains(" "+f+" ", " "+title+" ") && strings.Count(words, " "+title+" ") <= strings.Count(words, " "+f+" ")
		})
	})
}
