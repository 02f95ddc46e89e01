package abc

import (
	"sort"
	"strings"

	"patientladder/core/notation/score"
)

// lyrics sets a line of words under the music line before it: spaces and
// hyphens part syllables, _ holds one over another note, * leaves a note out, |
// goes on to the next bar, ~ joins words. Only the first verse is kept.
func (t *tune) lyrics(text string, at int) error {
	v := t.cur
	if !t.inBody {
		return nil
	}
	if v.verses++; v.verses > 1 {
		t.skip("further verses", at)
		return nil
	}
	i := v.lineStart
	next := func() *score.Note {
		for ; i < len(v.notes); i++ {
			if n := &v.notes[i]; !n.Rest && !n.Grace && !n.Chord && !strings.Contains(n.Voice, "&") {
				i++
				return n
			}
		}
		return nil
	}
	syllable := ""
	left := 0
	put := func() {
		if syllable == "" {
			return
		}
		if n := next(); n != nil {
			n.Lyric = strings.ReplaceAll(strings.ReplaceAll(syllable, "~", " "), "\u0001", "-")
		} else {
			left++
		}
		syllable = ""
	}
	text = strings.ReplaceAll(unescape(text), `\-`, "\u0001")
	for _, c := range text {
		switch c {
		case ' ', '\t':
			put()
		case '-':
			if syllable == "" {
				next() // a hyphen alone holds the syllable before it
				continue
			}
			put()
		case '_', '*':
			put()
			next()
		case '|':
			put()
			i = v.firstAfter(i)
		default:
			syllable += string(c)
		}
	}
	put()
	if left > 0 {
		t.skip("words beyond the notes of their line", at)
	}
	return nil
}

// firstAfter is the index of the first note of the bar after the one that note i−1 stands in.
func (v *voice) firstAfter(i int) int {
	if i == 0 || i > len(v.notes) {
		return i
	}
	bar := sort.Search(len(v.bars), func(k int) bool { return v.notes[i-1].Onset.Less(v.bars[k].end) })
	if bar == len(v.bars) {
		return len(v.notes)
	}
	end := v.bars[bar].end
	for i < len(v.notes) && v.notes[i].Onset.Less(end) {
		i++
	}
	return i
}
