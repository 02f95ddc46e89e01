package abc

import (
	"bytes"
	"fmt"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"

	"patientladder/core/notation/score"
)

// Read reads every tune of an ABC file, in the order of the file. A file with
// notes but no X: field is taken as one tune. An error is always a
// *score.FileError. What a tune holds beyond the model is listed in its Skipped.
func Read(data []byte) ([]*score.Score, error) { return ReadWithin(data, score.DefaultLimits()) }

// ReadWithin is Read with limits of the caller's own; notes and bars count
// over all tunes of the file together.
func ReadWithin(data []byte, limits score.Limits) ([]*score.Score, error) {
	blocks, head, err := split(data, limits)
	if err != nil {
		return nil, err
	}
	f := &file{limits: limits, head: head}
	var tunes []*score.Score
	for _, b := range blocks {
		s, err := f.tune(b)
		if err != nil {
			return nil, err
		}
		tunes = append(tunes, s)
	}
	return tunes, nil
}

// Tune returns the text of one tune, from 0, with the head of its file, so that
// it can be kept and read by itself. An error is a *score.FileError.
func Tune(data []byte, index int) ([]byte, error) {
	blocks, head, err := split(data, score.DefaultLimits())
	if err != nil {
		return nil, err
	}
	if index < 0 || index >= len(blocks) {
		return nil, &score.FileError{What: fmt.Sprintf("the file holds %d tunes; there is no number %d", len(blocks), index+1)}
	}
	var b strings.Builder
	for _, l := range head {
		b.WriteString(l.text + "\n")
	}
	if len(head) > 0 {
		b.WriteString("\n")
	}
	for _, l := range blocks[index] {
		b.WriteString(l.text + "\n")
	}
	return []byte(b.String()), nil
}

// line is a line of the file with its number, from 1.
type line struct {
	number int
	text   string
}

// file is what the tunes of one file share.
type file struct {
	limits score.Limits
	head   []line
	// notes and bars count what was read so far.
	notes, bars int
}

// split cuts a file into its head and its tunes. A tune begins with X: and
// ends at an empty line; text outside tunes is free text.
func split(data []byte, limits score.Limits) (tunes [][]line, head []line, err error) {
	if len(data) > limits.Bytes {
		return nil, nil, &score.FileError{
			What: fmt.Sprintf(
				"the file has %.1f MB; a file of tunes may have %.1f MB at most",
				float64(len(data))/(1<<20),
				float64(limits.Bytes)/(1<<20),
			),
		}
	}
	data = bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF"))
	if !utf8.Valid(data) {
		data, _ = charmap.ISO8859_1.NewDecoder().Bytes(data) // every byte is a character there
	}
	if bytes.IndexByte(data, 0) >= 0 {
		return nil, nil, &score.FileError{What: "this is not an ABC file: it is not text"}
	}
	if len(bytes.TrimSpace(data)) == 0 {
		return nil, nil, &score.FileError{What: "the file is empty"}
	}
	text := strings.ReplaceAll(strings.ReplaceAll(string(data), "\r\n", "\n"), "\r", "\n")
	lines := strings.Split(text, "\n")
	marked := false
	for _, l := range lines {
		marked = marked || strings.HasPrefix(l, "X:")
	}
	var tune []line
	inText, begun := false, false
	for i, l := range lines {
		if strings.HasPrefix(l, "%%begin") || strings.HasPrefix(l, "%%end") {
			inText = strings.HasPrefix(l, "%%begin")
			continue
		}
		if inText {
			continue
		}
		begins := strings.HasPrefix(l, "X:") || !marked && !begun && isStart(l)
		switch {
		case begins:
			if len(tune) > 0 {
				tunes = append(tunes, tune)
			}
			tune, begun = []line{{i + 1, l}}, true
		case strings.TrimSpace(l) == "" && marked:
			if len(tune) > 0 {
				tunes = append(tunes, tune)
			}
			tune = nil
		case len(tune) > 0:
			tune = append(tune, line{i + 1, l})
		case !begun && (field(l) != 0 || strings.HasPrefix(l, "%%")):
			head = append(head, line{i + 1, l})
		}
		if len(tunes) >= limits.Tunes {
			return nil, nil, &score.FileError{What: fmt.Sprintf("the file holds more than %d tunes", limits.Tunes), Line: i + 1}
		}
	}
	if len(tune) > 0 {
		tunes = append(tunes, tune)
	}
	if len(tunes) == 0 {
		return nil, nil, &score.FileError{What: "this is not an ABC file: no tune begins with X:, and nothing in it looks like a tune"}
	}
	return tunes, head, nil
}

// isStart says that a line can begin a tune that has no X: field.
func isStart(l string) bool {
	switch field(l) {
	case 'T', 'K', 'M', 'L', 'Q', 'C', 'V':
		return true
	}
	l = strings.TrimSpace(l)
	return l != "" && strings.Trim(l, "ABCDEFGabcdefgzxy^_=,'/0123456789|:[]() <>-\\\"") == "" && strings.ContainsAny(l, "ABCDEFGabcdefg")
}

// field returns the letter of a field line such as "K:G", or 0.
func field(l string) byte {
	if len(l) < 2 || l[1] != ':' || !letter(l[0]) && l[0] != '+' {
		return 0
	}
	if len(l) > 2 && (l[2] == '|' || l[2] == ':') && strings.IndexByte("ABCDEFGabcdefgz", l[0]) >= 0 {
		return 0 // a note before a repeat sign
	}
	return l[0]
}

func letter(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }

func digit(c byte) bool { return c >= '0' && c <= '9' }
