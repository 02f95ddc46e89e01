// Package scorefile reads a score from a file of any format that the program
// knows, whatever its name says.
package scorefile

import (
	"bytes"
	"strings"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/midi"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
)

// Format is the format of a file.
type Format string

// The formats.
const (
	MusicXML Format = "MusicXML"
	ABC      Format = "ABC"
	MIDI     Format = "MIDI"
)

// FormatOf tells the format from the first bytes. What is none of the others
// and has a line that only ABC has is ABC; the rest goes to the reader of
// MusicXML, which knows the usual wrong files by name.
func FormatOf(data []byte) Format {
	if bytes.HasPrefix(data, []byte("MThd")) {
		return MIDI
	}
	head := bytes.TrimLeft(bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF")), " \t\r\n")
	for _, other := range []string{"<", "PK\x03\x04", "%PDF", "\xFE\xFF", "\xFF\xFE"} {
		if bytes.HasPrefix(head, []byte(other)) {
			return MusicXML
		}
	}
	for _, line := range strings.SplitAfterN(string(data[:min(len(data), 1<<16)]), "\n", 200) {
		if len(line) > 1 && line[1] == ':' && strings.IndexByte("XTKMLQCV", line[0]) >= 0 || strings.HasPrefix(line, "%abc") {
			return ABC
		}
	}
	if bytes.IndexByte(head, '|') > 0 && len(head) < 1<<16 {
		return ABC // bare notes between bar lines
	}
	return MusicXML
}

// Read reads every piece of a file at its exact times: one, but for ABC with
// several tunes. An error is always a *score.FileError.
func Read(data []byte) (Format, []*score.Score, error) {
	switch f := FormatOf(data); f {
	case MIDI:
		s, err := midi.Read(data)
		return f, []*score.Score{s}, err
	case ABC:
		tunes, err := abc.Read(data)
		return f, tunes, err
	default:
		s, err := musicxml.Read(data)
		return MusicXML, []*score.Score{s}, err
	}
}

// Pieces is Read for engraving and analysis: what was played is written down
// (see midi.Written), and every note can be written with one sign. Keyboard
// says that the pieces are for two hands.
func Pieces(data []byte, keyboard bool) (Format, []*score.Score, error) {
	return pieces(data, keyboard, func(*score.Score) error { return nil })
}

// Brought is Pieces for a file that is brought into a library: one that is longer than a library takes is refused before
// the work on it begins.
func Brought(data []byte, keyboard bool) (Format, []*score.Score, error) {
	return pieces(data, keyboard, (*score.Score).TooLong)
}

func pieces(data []byte, keyboard bool, check func(*score.Score) error) (Format, []*score.Score, error) {
	f, pieces, err := Read(data)
	if err != nil {
		return f, nil, err
	}
	for _, s := range pieces {
		if err := check(s); err != nil {
			return f, nil, err
		}
	}
	for i, s := range pieces {
		switch f {
		case MIDI:
			pieces[i] = midi.Written(s, keyboard)
		case ABC:
			s.SplitTies()
		}
	}
	return f, pieces, nil
}

// Keep returns what has to be kept of a file to read one of its pieces, from
// 0, again: the tune alone of an ABC file, the score inside a compressed file.
func Keep(data []byte, piece int) ([]byte, error) {
	switch FormatOf(data) {
	case ABC:
		return abc.Tune(data, piece)
	case MIDI:
		return data, nil
	}
	return musicxml.Unpack(data, score.DefaultLimits())
}
