package musicxml

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	"golang.org/x/text/encoding/htmlindex"
)

// tokens walks the XML as a stream: no tree is built, so that memory and time
// grow with the notes alone. It checks nesting itself, which lets it use
// RawToken, the cheaper half of encoding/xml.
type tokens struct {
	dec   *xml.Decoder
	stack []string
	depth int
}

func newTokens(r io.Reader, maxDepth int) *tokens {
	dec := xml.NewDecoder(r)
	dec.CharsetReader = func(label string, in io.Reader) (io.Reader, error) {
		if strings.HasPrefix(strings.ToLower(label), "utf-16") {
			return in, nil // decoded by its byte order mark before it came here
		}
		enc, err := htmlindex.Get(label)
		if err != nil {
			return nil, &Error{What: fmt.Sprintf("the text encoding %q is not known; save the file as UTF-8", label)}
		}
		return enc.NewDecoder().Reader(in), nil
	}
	return &tokens{dec: dec, depth: maxDepth}
}

func (t *tokens) line() int {
	line, _ := t.dec.InputPos()
	return line
}

// next returns the next start element, end element or text; everything else is
// passed over. It hands the decoder's own value on: boxing it again would cost
// an allocation for each token.
func (t *tokens) next() (xml.Token, error) {
	for {
		raw, err := t.dec.RawToken()
		if err != nil {
			return nil, t.explain(err)
		}
		switch tok := raw.(type) {
		case xml.StartElement:
			if len(t.stack) >= t.depth {
				return nil, &Error{What: fmt.Sprintf("elements are nested more than %d deep; this is no score", t.depth), Line: t.line()}
			}
			t.stack = append(t.stack, tok.Name.Local)
			return raw, nil
		case xml.EndElement:
			if len(t.stack) == 0 || t.stack[len(t.stack)-1] != tok.Name.Local {
				return nil, &Error{What: fmt.Sprintf("the file is damaged: </%s> closes nothing that is open", tok.Name.Local), Line: t.line()}
			}
			t.stack = t.stack[:len(t.stack)-1]
			return raw, nil
		case xml.CharData:
			return raw, nil
		case xml.Directive:
			if strings.Contains(strings.ToUpper(string(tok)), "<!ENTITY") {
				return nil, &Error{What: "the file defines entities of its own, which a score never needs; it is refused for safety", Line: t.line()}
			}
		}
	}
}

func (t *tokens) explain(err error) error {
	var own *Error
	var syntax *xml.SyntaxError
	switch {
	case errors.As(err, &own):
		return own
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return t.cutOff()
	case errors.As(err, &syntax):
		if strings.Contains(syntax.Msg, "unexpected EOF") {
			return t.cutOff()
		}
		if strings.Contains(syntax.Msg, "entity") {
			return &Error{What: "the file uses an entity that is not part of XML (" + syntax.Msg + "); it is refused for safety", Line: syntax.Line}
		}
		return &Error{What: "the XML is damaged: " + syntax.Msg, Line: syntax.Line}
	}
	return &Error{What: "the file cannot be read: " + err.Error(), Line: t.line()}
}

func (t *tokens) cutOff() error {
	return &Error{What: "the file stops in the middle; it was cut off, so export or copy it again", Line: t.line()}
}

// children calls f for each child of the element just opened, until its end.
// f must consume the child: with children, text or skip.
func (t *tokens) children(f func(el xml.StartElement) error) error {
	for {
		tok, err := t.next()
		if err != nil {
			return err
		}
		switch tok := tok.(type) {
		case xml.StartElement:
			if err := f(tok); err != nil {
				return err
			}
		case xml.EndElement:
			return nil
		}
	}
}

// skip passes over the element just opened.
func (t *tokens) skip() error {
	for open := len(t.stack); len(t.stack) >= open; {
		if _, err := t.next(); err != nil {
			return err
		}
	}
	return nil
}

// text returns the trimmed text of the element just opened, to its end.
func (t *tokens) text() (string, error) {
	var s string
	for open := len(t.stack); len(t.stack) >= open; {
		tok, err := t.next()
		if err != nil {
			return "", err
		}
		if data, ok := tok.(xml.CharData); ok && len(t.stack) == open {
			if s == "" {
				s = string(data)
			} else {
				s += string(data)
			}
		}
	}
	return strings.TrimSpace(s), nil
}

// whole reads a whole number; what names it in the message.
func (t *tokens) whole(what string) (int64, error) {
	s, err := t.text()
	if err != nil {
		return 0, err
	}
	n, err := strconv.ParseInt(s, 10, 64)
	if err == nil {
		return n, nil
	}
	// Some programs write "4.0" where a whole number is meant.
	f, ferr := strconv.ParseFloat(s, 64)
	if ferr != nil || f != float64(int64(f)) || f > 1e15 || f < -1e15 {
		return 0, &Error{What: fmt.Sprintf("%s should be a whole number, not %q", what, short(s)), Line: t.line()}
	}
	return int64(f), nil
}

func attr(el xml.StartElement, name string) string {
	for _, a := range el.Attr {
		if a.Name.Local == name {
			return a.Value
		}
	}
	return ""
}

// short keeps a quoted piece of a hostile file from filling the message.
func short(s string) string {
	if r := []rune(s); len(r) > 24 {
		return string(r[:24]) + "…"
	}
	return s
}
