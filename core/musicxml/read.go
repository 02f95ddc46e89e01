package musicxml

import (
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"unicode/utf8"

	"golang.org/x/text/encoding/unicode"

	"patientladder/core/score"
)

// Limits bound what a file may ask of the reader.
type Limits struct {
	// Bytes is the largest file. Default 12 MiB; a long orchestral movement is about 5.
	Bytes int
	// Depth is the deepest nesting of elements. MusicXML itself needs about 12. Default 64.
	Depth int
	// Notes is the largest number of notes and rests. Default 200,000.
	Notes int
	// Bars is the largest number of bars in a part. Default 20,000.
	Bars int
	// Parts is the largest number of parts. Default 100.
	Parts int
	// Quarters is the longest single duration in quarter notes. Default 4,096.
	Quarters int64
}

// DefaultLimits are the limits Read uses.
func DefaultLimits() Limits {
	return Limits{Bytes: 12 << 20, Depth: 64, Notes: 200_000, Bars: 20_000, Parts: 100, Quarters: 4096}
}

// Read reads a MusicXML file, partwise or timewise, plain or compressed. An error is always an *Error: one
// sentence that says what is wrong and where. What the file holds beyond the
// model is listed in Score.Skipped.
func Read(data []byte) (*score.Score, error) { return ReadWithin(data, DefaultLimits()) }

// ReadWithin is Read with limits of the caller's own.
func ReadWithin(data []byte, limits Limits) (*score.Score, error) {
	if len(data) > limits.Bytes {
		return nil, tooBig(len(data), limits)
	}
	data, err := Unpack(data, limits)
	if err != nil {
		return nil, err
	}
	if err := looksLikeSomethingElse(data); err != nil {
		return nil, err
	}
	var in io.Reader = bytes.NewReader(data)
	if bytes.HasPrefix(data, []byte{0xFE, 0xFF}) || bytes.HasPrefix(data, []byte{0xFF, 0xFE}) {
		in = unicode.UTF16(unicode.BigEndian, unicode.UseBOM).NewDecoder().Reader(in)
	} else {
		in = bytes.NewReader(bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF")))
	}
	r := &reader{tokens: newTokens(in, limits.Depth), limits: limits, score: &score.Score{}}
	if err := r.document(); err != nil {
		return nil, err
	}
	return r.score, nil
}

func mb(n int) float64 { return float64(n) / (1 << 20) }

// looksLikeSomethingElse names the usual wrong files, so that the message helps.
func looksLikeSomethingElse(data []byte) error {
	head := bytes.TrimLeft(bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF")), " \t\r\n")
	is := func(prefix string) bool { return bytes.HasPrefix(head, []byte(prefix)) }
	switch {
	case len(head) == 0:
		return &Error{What: "the file is empty"}
	case is("PK\x03\x04"):
		return &Error{What: "the archive holds another archive, not a score"}
	case is("MThd"):
		return &Error{What: "this is a MIDI file, not MusicXML; export the piece as MusicXML"}
	case is("%PDF"):
		return &Error{What: "this is a PDF, a picture of a score; export the piece itself as MusicXML"}
	case is("X:") || is("%abc"):
		return &Error{What: "this is an ABC tune, not MusicXML; export the piece as MusicXML"}
	case bytes.HasPrefix(data, []byte{0xFE, 0xFF}), bytes.HasPrefix(data, []byte{0xFF, 0xFE}):
		return nil
	case head[0] != '<':
		return &Error{What: "this is not a MusicXML file: it does not begin like XML"}
	}
	return nil
}

// reader holds what one reading has found so far.
type reader struct {
	*tokens
	limits Limits
	score  *score.Score
	parts  map[string]int // part id → index
	// ends collects, per bar position from 0, what its length is decided from.
	ends []barEnds
	// lcm of all divisions seen keeps exact time within 64 bits.
	lcm int64
}

func (r *reader) document() error {
	for {
		tok, err := r.next()
		if err != nil {
			return notMusic(err)
		}
		root, ok := tok.(xml.StartElement)
		if !ok {
			continue
		}
		switch root.Name.Local {
		case "score-partwise":
			return r.partwise()
		case "score-timewise":
			return r.timewise()
		default:
			return &Error{What: fmt.Sprintf("this is not a MusicXML score: it begins with <%s>", short(root.Name.Local)), Line: r.line()}
		}
	}
}

// notMusic turns "the file stops" into the better sentence when no element was ever seen.
func notMusic(err error) error {
	var e *Error
	if errors.As(err, &e) && !utf8.ValidString(e.What) {
		return &Error{What: "this is not a MusicXML file: it is not text"}
	}
	return err
}

// partwise reads a score ordered by part: each part with all its bars.
func (r *reader) partwise() error {
	played := map[int]bool{}
	return r.music("part", func(el xml.StartElement) error { return r.part(el, played) })
}

// timewise reads a score ordered by time: each bar with all its parts.
func (r *reader) timewise() error {
	parts := map[int]*partState{}
	bar := -1
	return r.music("measure", func(el xml.StartElement) error {
		bar++
		in := map[int]bool{}
		return r.children(func(inner xml.StartElement) error {
			if inner.Name.Local != "part" {
				return r.skip()
			}
			p, err := r.open(inner, in)
			if err != nil {
				return err
			}
			if known := parts[p.index]; known != nil {
				p = known
			} else {
				parts[p.index] = p
			}
			p.bar = bar - 1
			return r.measure(p, el)
		})
	})
}

// music reads the head of a score and hands its body, the elements of one
// name, to f. A score without any is an error.
func (r *reader) music(name string, f func(el xml.StartElement) error) error {
	r.parts = map[string]int{}
	r.lcm = 1
	err := r.children(func(el xml.StartElement) error {
		switch el.Name.Local {
		case name:
			return f(el)
		case "part-list":
			return r.partList()
		case "work", "movement-title", "identification", "credit":
			return r.heading(el)
		case "defaults", "movement-number":
			return r.skip() // page layout and catalogue numbers are not music
		}
		r.score.AddSkip("<"+short(el.Name.Local)+">", "the head of the file")
		return r.skip()
	})
	if err != nil {
		return err
	}
	if len(r.ends) == 0 {
		return &Error{What: "the file holds no part with music in it"}
	}
	return r.settleBars()
}
