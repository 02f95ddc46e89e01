package musicxml

import (
	"fmt"
	"strconv"
	"strings"
)

// kind is what a token is.
type kind int

const (
	ends kind = iota
	opens
	chars
)

// element is an opened element. Its strings are parts of the file's own text.
type element struct {
	name string
	// attrs is the unparsed text between the name and the end of the tag.
	attrs string
}

// tokens walks the XML as a stream over the text in memory: no tree is built
// and nothing is copied, so that time grows with the text and memory with the
// notes alone. It reads the XML that scores are written in; a document type
// may be named, but it defines nothing.
type tokens struct {
	text  string
	pos   int
	stack []string
	depth int
	// closing says that the element just opened was empty: <rest/>.
	closing bool
	// seen and seenLine are a place whose line is known.
	seen, seenLine int
}

func newTokens(text string, maxDepth int) *tokens {
	return &tokens{text: text, depth: maxDepth, seenLine: 1, stack: make([]string, 0, 16)}
}

// line is the line being read, from 1. It counts on from where it was asked last.
func (t *tokens) line() int {
	at := min(t.pos, len(t.text))
	t.seenLine += strings.Count(t.text[t.seen:at], "\n")
	t.seen = at
	return t.seenLine
}

func (t *tokens) damaged(format string, args ...any) error {
	return &Error{What: "the XML is damaged: " + fmt.Sprintf(format, args...), Line: t.line()}
}

func (t *tokens) cutOff() error {
	t.pos = len(t.text)
	return &Error{What: "the file stops in the middle; it was cut off, so export or copy it again", Line: t.line()}
}

// next returns the next opened element, end of an element or text; comments
// and instructions are passed over.
func (t *tokens) next() (kind, element, string, error) {
	for {
		if t.closing {
			t.closing = false
			t.stack = t.stack[:len(t.stack)-1]
			return ends, element{}, "", nil
		}
		if t.pos >= len(t.text) {
			return 0, element{}, "", t.cutOff()
		}
		if t.text[t.pos] != '<' {
			rest := t.text[t.pos:]
			if i := strings.IndexByte(rest, '<'); i >= 0 {
				rest = rest[:i]
			}
			t.pos += len(rest)
			plain, err := t.plain(rest)
			return chars, element{}, plain, err
		}
		rest := t.text[t.pos:]
		switch {
		case len(rest) < 2:
			return 0, element{}, "", t.cutOff()
		case rest[1] == '/':
			return ends, element{}, "", t.close(rest)
		case rest[1] == '!' || rest[1] == '?':
			data, isData, err := t.aside(rest)
			if err != nil || isData {
				return chars, element{}, data, err
			}
		default:
			el, err := t.open(rest)
			return opens, el, "", err
		}
	}
}

// close reads "</name>".
func (t *tokens) close(rest string) error {
	end := strings.IndexByte(rest, '>')
	if end < 0 {
		return t.cutOff()
	}
	name := local(strings.TrimRight(rest[2:end], " \t\r\n"))
	if len(t.stack) == 0 || t.stack[len(t.stack)-1] != name {
		return &Error{What: fmt.Sprintf("the file is damaged: </%s> closes nothing that is open", short(name)), Line: t.line()}
	}
	t.stack = t.stack[:len(t.stack)-1]
	t.pos += end + 1
	return nil
}

// aside passes over what is neither an element nor text; isData for a CDATA section.
func (t *tokens) aside(rest string) (data string, isData bool, err error) {
	begin, stop := "<?", "?>"
	switch {
	case strings.HasPrefix(rest, "<!--"):
		begin, stop = "<!--", "-->"
	case strings.HasPrefix(rest, "<![CDATA["):
		begin, stop = "<![CDATA[", "]]>"
	case strings.HasPrefix(rest, "<!"):
		return "", false, t.doctype(rest)
	}
	end := strings.Index(rest[len(begin):], stop)
	if end < 0 {
		return "", false, t.cutOff()
	}
	t.pos += len(begin) + end + len(stop)
	return rest[len(begin) : len(begin)+end], begin == "<![CDATA[", nil
}

// doctype passes over a document type; one with definitions of its own is refused.
func (t *tokens) doctype(rest string) error {
	for i := 2; i < len(rest); i++ {
		switch rest[i] {
		case '>':
			t.pos += i + 1
			return nil
		case '"', '\'':
			end := strings.IndexByte(rest[i+1:], rest[i])
			if end < 0 {
				return t.cutOff()
			}
			i += end + 1
		case '[':
			return &Error{What: "the file defines entities of its own, which a score never needs; it is refused for safety", Line: t.line()}
		}
	}
	return t.cutOff()
}

// open reads a start tag.
func (t *tokens) open(rest string) (element, error) {
	end := tagEnd(rest)
	if end < 0 {
		return element{}, t.cutOff()
	}
	tag := rest[1:end]
	empty := strings.HasSuffix(tag, "/")
	tag = strings.TrimSuffix(tag, "/")
	n := 0
	for n < len(tag) && !space(tag[n]) {
		n++
	}
	el := element{name: local(tag[:n]), attrs: tag[n:]}
	if el.name == "" || strings.ContainsAny(el.name, "<=\"'&") {
		return element{}, t.damaged("a tag has no name")
	}
	if len(t.stack) >= t.depth {
		return element{}, &Error{What: fmt.Sprintf("elements are nested more than %d deep; this is no score", t.depth), Line: t.line()}
	}
	t.stack = append(t.stack, el.name)
	t.closing = empty
	t.pos += end + 1
	return el, nil
}

// tagEnd finds the end of a tag, past a ">" in a quoted value; −1 when there is none.
func tagEnd(rest string) int {
	for i := 1; i < len(rest); i++ {
		switch rest[i] {
		case '>':
			return i
		case '"', '\'':
			end := strings.IndexByte(rest[i+1:], rest[i])
			if end < 0 {
				return -1
			}
			i += end + 1
		}
	}
	return -1
}

func space(c byte) bool { return c == ' ' || c == '\t' || c == '\n' || c == '\r' }

// local drops the prefix of a name.
func local(name string) string {
	if i := strings.IndexByte(name, ':'); i >= 0 {
		return name[i+1:]
	}
	return name
}

// plain puts the characters in the place of XML's own entities.
func (t *tokens) plain(s string) (string, error) {
	amp := strings.IndexByte(s, '&')
	if amp < 0 {
		return s, nil
	}
	var b strings.Builder
	for amp >= 0 {
		b.WriteString(s[:amp])
		end := strings.IndexByte(s[amp:], ';')
		if end < 0 {
			return "", t.damaged("an entity has no end")
		}
		c, ok := entity(s[amp+1 : amp+end])
		if !ok {
			return "", &Error{
				What: fmt.Sprintf("the file uses an entity that is not part of XML (&%s;); it is refused for safety", short(s[amp+1:amp+end])),
				Line: t.line(),
			}
		}
		b.WriteRune(c)
		s = s[amp+end+1:]
		amp = strings.IndexByte(s, '&')
	}
	b.WriteString(s)
	return b.String(), nil
}

func entity(name string) (rune, bool) {
	switch name {
	case "lt":
		return '<', true
	case "gt":
		return '>', true
	case "amp":
		return '&', true
	case "apos":
		return '\'', true
	case "quot":
		return '"', true
	}
	digits, base := strings.TrimPrefix(name, "#"), 10
	if digits == name {
		return 0, false
	}
	if strings.HasPrefix(digits, "x") {
		digits, base = digits[1:], 16
	}
	n, err := strconv.ParseUint(digits, base, 21)
	if err != nil || n == 0 || n > 0x10FFFF || n >= 0xD800 && n < 0xE000 {
		return 0, false
	}
	return rune(n), true
}

// children calls f for each child of the element just opened, until its end.
// f must consume the child: with children, value or skip.
func (t *tokens) children(f func(el element) error) error {
	for {
		k, el, _, err := t.next()
		if err != nil {
			return err
		}
		switch k {
		case opens:
			if err := f(el); err != nil {
				return err
			}
		case ends:
			return nil
		}
	}
}

// skip passes over the element just opened.
func (t *tokens) skip() error {
	for open := len(t.stack); len(t.stack) >= open; {
		if _, _, _, err := t.next(); err != nil {
			return err
		}
	}
	return nil
}

// value returns the trimmed text of the element just opened, to its end.
func (t *tokens) value() (string, error) {
	var s string
	for open := len(t.stack); len(t.stack) >= open; {
		k, _, data, err := t.next()
		if err != nil {
			return "", err
		}
		if k == chars && len(t.stack) == open {
			if s == "" {
				s = data
			} else {
				s += data
			}
		}
	}
	return strings.TrimSpace(s), nil
}

// whole reads a whole number; what names it in the message.
func (t *tokens) whole(what string) (int64, error) {
	s, err := t.value()
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

// attr returns the value of an attribute; empty when it is not there.
func attr(el element, name string) string {
	rest := el.attrs
	for {
		eq := strings.IndexByte(rest, '=')
		if eq < 0 {
			return ""
		}
		key := local(strings.TrimSpace(rest[:eq]))
		rest = strings.TrimLeft(rest[eq+1:], " \t\r\n")
		if rest == "" || rest[0] != '"' && rest[0] != '\'' {
			return ""
		}
		end := strings.IndexByte(rest[1:], rest[0])
		if end < 0 {
			return ""
		}
		if key == name {
			value := rest[1 : 1+end]
			if plain, err := (&tokens{}).plain(value); err == nil {
				return plain
			}
			return value
		}
		rest = rest[end+2:]
	}
}
