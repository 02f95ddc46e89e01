package instrument

import (
	"slices"
	"strings"
	"unicode"

	"patientladder/core/library/titles"
)

// others are instruments that are taught often and have no data of their own: whatever needs no drawn hand works for them.
var others = []string{"bagpipes", "double bass", "harmonica", "mandolin", "percussion", "zither"}

// Others returns names of instruments without data of their own, in alphabetical order; any other can be taught as well.
func Others() []string { return append([]string{}, others...) }

// Any is an instrument by its name, without data of its own where there are none.
func Any(name string) Instrument {
	if x, ok := Of(name); ok {
		return x
	}
	return Instrument{ID: name}
}

// Plain are the instruments without data of their own that are usual, or are played among some, in alphabetical order.
func Plain(played []string) []string {
	out := Others()
	for _, name := range played {
		if _, known := Of(name); !known {
			out = append(out, name)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// meant is how alike a name must be to that of a known instrument to be taken for a slip (default): a letter in five.
const meant = 0.75

// Meant is the instrument with data of its own, or one of the usual others, that an unknown name is probably meant for; ok is
// false where the name is known itself, or like none.
func Meant(name string) (known string, ok bool) {
	best := 0.0
	for _, x := range All() {
		if alike := titles.Alike(name, x.ID); alike > best {
			known, best = x.ID, alike
		}
	}
	for _, other := range Others() {
		if alike := titles.Alike(name, other); alike > best {
			known, best = other, alike
		}
	}
	if best < meant || best == 1 {
		return "", false
	}
	return known, true
}

// longestName of an instrument in letters.
const longestName = 40

// Named is the name of an instrument as it is kept: in lower case, without spaces around it. ok is false for
// what cannot be one: it is made of letters, with spaces, hyphens and apostrophes between them.
func Named(name string) (string, bool) {
	name = strings.ToLower(strings.Join(strings.Fields(name), " "))
	letters := 0
	for _, r := range name {
		switch {
		case unicode.IsLetter(r) || unicode.IsMark(r):
			letters++
		case !strings.ContainsRune(" -’'", r):
			return name, false
		}
	}
	return name, letters >= 2 && len([]rune(name)) <= longestName
}
