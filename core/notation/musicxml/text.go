package musicxml

import (
	"bytes"
	"fmt"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/htmlindex"
	"golang.org/x/text/encoding/unicode"
)

// decoded returns the file as UTF-8 text, by its byte order mark or the
// encoding that it declares.
func decoded(data []byte) (string, error) {
	enc, err := encodingOf(data)
	if err != nil {
		return "", err
	}
	if enc != nil {
		if data, err = enc.NewDecoder().Bytes(data); err != nil {
			return "", &Error{What: "the file is damaged: its text does not fit its encoding"}
		}
	}
	data = bytes.TrimPrefix(data, []byte("\xEF\xBB\xBF"))
	if !utf8.Valid(data) {
		return "", &Error{
			What: "the XML is damaged: it holds bytes that are not UTF-8 text",
			Line: 1 + bytes.Count(data[:firstInvalid(data)], []byte("\n")),
		}
	}
	text := string(data)
	if strings.IndexByte(text, '\r') >= 0 { // XML 1.0, 2.11: every end of a line is one line feed
		text = strings.ReplaceAll(strings.ReplaceAll(text, "\r\n", "\n"), "\r", "\n")
	}
	return text, nil
}

func firstInvalid(data []byte) int {
	for i := 0; i < len(data); {
		r, size := utf8.DecodeRune(data[i:])
		if r == utf8.RuneError && size == 1 {
			return i
		}
		i += size
	}
	return len(data)
}

// encodingOf returns nil for UTF-8.
func encodingOf(data []byte) (encoding.Encoding, error) {
	if bytes.HasPrefix(data, []byte{0xFE, 0xFF}) || bytes.HasPrefix(data, []byte{0xFF, 0xFE}) {
		return unicode.UTF16(unicode.BigEndian, unicode.UseBOM), nil
	}
	head, _, found := strings.Cut(string(data[:min(len(data), 200)]), "?>")
	_, label, declared := strings.Cut(head, "encoding=")
	if !found || !declared || len(label) < 2 {
		return nil, nil
	}
	label, _, _ = strings.Cut(label[1:], label[:1])
	lower := strings.ToLower(label)
	if lower == "utf-8" || strings.HasPrefix(lower, "utf-16") {
		return nil, nil // UTF-16 without a byte order mark is no XML and is found damaged
	}
	enc, err := htmlindex.Get(label)
	if err != nil {
		return nil, &Error{What: fmt.Sprintf("the text encoding %q is not known; save the file as UTF-8", short(label))}
	}
	return enc, nil
}
