package musicxml

import (
	"bytes"
	"fmt"

	"patientladder/core/notation/score"
)

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
	text, err := decoded(data)
	if err != nil {
		return nil, err
	}
	r := &reader{tokens: newTokens(text, limits.Depth), limits: limits, score: &score.Score{}}
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
		k, root, _, err := r.next()
		if err != nil {
			return err
		}
		if k != opens {
			continue
		}
		switch root.name {
		case "score-partwise":
			return r.partwise()
		case "score-timewise":
			return r.timewise()
		default:
			return &Error{What: fmt.Sprintf("this is not a MusicXML score: it begins with <%s>", short(root.name)), Line: r.line()}
		}
	}
}

// partwise reads a score ordered by part: each part with all its bars.
func (r *reader) partwise() error {
	played := map[int]bool{}
	return r.music("part", func(el element) error { return r.part(el, played) })
}

// timewise reads a score ordered by time: each bar with all its parts.
func (r *reader) timewise() error {
	parts := map[int]*partState{}
	bar := -1
	return r.music("measure", func(el element) error {
		bar++
		in := map[int]bool{}
		return r.children(func(inner element) error {
			if inner.name != "part" {
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
func (r *reader) music(name string, f func(el element) error) error {
	r.parts = map[string]int{}
	r.lcm = 1
	err := r.children(func(el element) error {
		switch el.name {
		case name:
			return f(el)
		case "part-list":
			return r.partList()
		case "work", "movement-title", "identification", "credit":
			return r.heading(el)
		case "defaults", "movement-number":
			return r.skip() // page layout and catalogue numbers are not music
		}
		r.score.AddSkip("<"+short(el.name)+">", "the head of the file")
		return r.skip()
	})
	if err != nil {
		return err
	}
	if len(r.ends) == 0 {
		return &Error{What: "the file holds no part with music in it"}
	}
	r.settleBars()
	return nil
}
