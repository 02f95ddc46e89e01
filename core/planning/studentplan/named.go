package studentplan

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"patientladder/core/library/material"
)

// NamedIn are the titles and composers of pieces in which a word is the name of a student, or how the student is called: they
// stay when everything about the student goes, because they belong to the library. In order of title, each once.
func NamedIn(lib material.Library, p Profile) []string {
	own := map[string]bool{}
	for _, w := range strings.Fields(p.Name + " " + p.Called) {
		if r, _ := utf8.DecodeRuneInString(w); unicode.IsLower(r) {
			continue // van, de, da: a part of many names
		}
		for _, part := range words(w) {
			own[part] = true
		}
	}
	var out []string
	for _, m := range lib {
		for _, text := range []string{m.Title, m.Composer} {
			if slices.ContainsFunc(words(text), func(w string) bool { return own[w] }) {
				out = append(out, text)
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// words are the words of a text in small letters; one of a single letter is none.
func words(text string) []string {
	all := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsMark(r) })
	return slices.DeleteFunc(all, func(w string) bool { return len([]rune(w)) < 2 })
}
