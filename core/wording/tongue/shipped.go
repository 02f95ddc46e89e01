package tongue

import (
	"embed"
	"encoding/json"
	"maps"
	"strings"
	"unicode"
	"unicode/utf8"

	"patientladder/core/reading/naming"
)

//go:embed shipped/*.json
var shippedFiles embed.FS

var quarterNotes = naming.Words{Values: naming.QuarterNotes}

// shipped is what ships with the program in English — games, goals, skills, usual faults — in the other languages, by its English text.
var shipped = func() map[string]map[string]string {
	out := map[string]map[string]string{}
	for _, id := range ids[1:] {
		texts := map[string]string{}
		data, err := shippedFiles.ReadFile("shipped/" + id + ".json")
		if err == nil {
			err = json.Unmarshal(data, &texts)
		}
		if err != nil {
			panic("tongue: shipped/" + id + ".json: " + err.Error()) // it ships with the program, and a test reads it
		}
		for text, said := range maps.Clone(texts) { // a studio that says quarter notes has the same texts in its words
			texts[quarterNotes.Text(text)] = said
		}
		out[id] = texts
	}
	return out
}()

// Shipped says a text that ships with the program in the language; what a studio wrote itself stays as it is. Of a text that begins with a
// capital where the shipped one does not, the other begins with one too.
func (t Tongue) Shipped(text string) string {
	if said, known := shipped[t.ID][text]; known {
		return said
	}
	if first, n := utf8.DecodeRuneInString(text); unicode.IsUpper(first) {
		if said, known := shipped[t.ID][string(unicode.ToLower(first))+text[n:]]; known {
			first, n := utf8.DecodeRuneInString(said)
			return string(unicode.ToUpper(first)) + said[n:]
		}
	}
	return text
}

// ShippedOf is Shipped for a text in which a name stands where the shipped one has {name}, or behind which something stands in brackets.
func (t Tongue) ShippedOf(text, name string) string {
	if i := strings.LastIndex(text, " ("); i > 0 && strings.HasSuffix(text, ")") {
		return t.Shipped(text[:i]) + text[i:]
	}
	if name == "" {
		return t.Shipped(text)
	}
	if said, known := shipped[t.ID][strings.ReplaceAll(text, name, "{name}")]; known {
		return strings.ReplaceAll(said, "{name}", name)
	}
	return t.Shipped(text)
}

// Match is the language that a device asks for (RFC 5646, such as de-AT); empty where it is none of these.
func Match(asked string) string {
	id, _, _ := strings.Cut(strings.ToLower(strings.TrimSpace(asked)), "-")
	if Known(id) {
		return id
	}
	return ""
}
