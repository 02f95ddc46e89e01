package wording

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
)

var numbers = []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

// Counted writes "no lessons", "one lesson", "three lessons", "40 lessons".
func Counted(n int, what string) string {
	word := fmt.Sprint(n)
	if n >= 0 && n < len(numbers) {
		word = numbers[n]
	}
	return word + " " + plural(n, what)
}

// Numbered writes "none", "one", "three", "40".
func Numbered(n int) string {
	switch {
	case n == 0:
		return "none"
	case n > 0 && n < len(numbers):
		return numbers[n]
	}
	return fmt.Sprint(n)
}

// Figures writes "1 cliff", "3 cliffs".
func Figures(n int, what string) string { return fmt.Sprintf("%d %s", n, plural(n, what)) }

// plural adds an s but for one, and turns a last y behind a consonant into ies.
func plural(n int, what string) string {
	if n == 1 {
		return what
	}
	if k := len(what); k > 1 && what[k-1] == 'y' && !strings.ContainsRune("aeiou", rune(what[k-2])) {
		return what[:k-1] + "ies"
	}
	return what + "s"
}

// is writes "is" for one, "are" otherwise.
func is(n int) string {
	if n == 1 {
		return "is"
	}
	return "are"
}

// List writes "a", "a and b", "a, b and c".
func List(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " and " + words[n-1]
	}
	return strings.Join(words, "")
}

// Capital writes the first letter large.
func Capital(s string) string {
	if s == "" {
		return s
	}
	r := []rune(s)
	return strings.ToUpper(string(r[0])) + string(r[1:])
}

// Sentence writes the first letter large and a full stop at the end.
func Sentence(s string) string {
	if s == "" || strings.HasSuffix(s, ".") || strings.HasSuffix(s, "?") {
		return Capital(s)
	}
	return Capital(s) + "."
}

// Percent writes a share from 0 to 1 as "36 %".
func Percent(p float64) string { return fmt.Sprintf("%.0f %%", math.Round(100*p)) }

// over writes a jump over the comfortable size, "2.1 (comfortable 1.5)": with a second decimal where the
// first does not tell them apart.
func over(leap, reach float64) string {
	if fmt.Sprintf("%.1f", leap) == fmt.Sprintf("%.1f", reach) {
		return fmt.Sprintf("%.2f (comfortable %.2f)", leap, reach)
	}
	return fmt.Sprintf("%.1f (comfortable %.1f)", leap, reach)
}

// sortedKeys are the keys of a map in alphabetical order, so that sentences keep theirs.
func sortedKeys[V any](m map[string]V) []string { return slices.Sorted(maps.Keys(m)) }
