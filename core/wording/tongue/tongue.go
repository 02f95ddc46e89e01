// Package tongue holds all that is said to families, by language: their page, the week on paper and the messages. A
// language is one file; a new one needs no line of code but its entry in the list.
package tongue

import (
	"embed"
	"encoding/json"
	"strconv"
	"strings"
	"time"
)

//go:embed *.json
var files embed.FS

// Tongue is a language in which a family is spoken to.
type Tongue struct {
	// ID is its short name by ISO 639-1: "en".
	ID    string
	texts map[string]string
}

// English is the language of whoever has chosen none.
const English = "en"

// ids are all languages, the default first.
var ids = []string{English, "de"}

var tongues = func() map[string]Tongue {
	out := map[string]Tongue{}
	for _, id := range ids {
		data, err := files.ReadFile(id + ".json")
		t := Tongue{ID: id}
		if err == nil {
			err = json.Unmarshal(data, &t.texts)
		}
		if err != nil {
			panic("tongue: " + id + ".json: " + err.Error()) // it ships with the program, and a test reads it
		}
		out[id] = t
	}
	return out
}()

// All are the languages, the default first.
func All() []Tongue {
	out := make([]Tongue, len(ids))
	for i, id := range ids {
		out[i] = tongues[id]
	}
	return out
}

// Known says whether there is such a language.
func Known(id string) bool { _, ok := tongues[id]; return ok }

// Of returns a language; English for one that is not there.
func Of(id string) Tongue {
	if t, ok := tongues[id]; ok {
		return t
	}
	return tongues[English]
}

// Name is what the language calls itself.
func (t Tongue) Name() string { return t.texts["language"] }

// Locale is what dates and numbers follow on a device: "en-GB".
func (t Tongue) Locale() string { return t.texts["locale"] }

// Say says a text; with holds names and what stands for them, in turn: Say("good.row", "n", "3"). A key that is not
// there says nothing.
func (t Tongue) Say(key string, with ...string) string {
	text := t.texts[key]
	for i := 0; i+1 < len(with); i += 2 {
		text = strings.ReplaceAll(text, "{"+with[i]+"}", with[i+1])
	}
	return text
}

// Texts are all texts whose keys begin with a word and a dot, without that word.
func (t Tongue) Texts(group string) map[string]string {
	out := map[string]string{}
	for key, text := range t.texts {
		if rest, ok := strings.CutPrefix(key, group+"."); ok {
			out[rest] = text
		}
	}
	return out
}

// Weekday names the day of the week: "Monday".
func (t Tongue) Weekday(d time.Time) string {
	return strings.Split(t.texts["weekdays"], " ")[d.Weekday()]
}

// Month names the month: "January".
func (t Tongue) Month(d time.Time) string { return strings.Split(t.texts["months"], " ")[d.Month()-1] }

// Number writes a small number as a word, another one in figures.
func (t Tongue) Number(n int) string {
	if words := strings.Split(t.texts["numbers"], " "); n >= 0 && n < len(words) {
		return words[n]
	}
	return strconv.Itoa(n)
}

// Day writes a date without its year: "2 January".
func (t Tongue) Day(d time.Time) string {
	return t.Say("date", "day", d.Format("2"), "month", t.Month(d))
}

// WeekdayAndDay writes "Monday 2 January".
func (t Tongue) WeekdayAndDay(d time.Time) string {
	return t.Say("date.long", "weekday", t.Weekday(d), "date", t.Day(d))
}

// List writes "a", "a and b", "a, b and c".
func (t Tongue) List(words []string) string {
	if n := len(words); n > 1 {
		return strings.Join(words[:n-1], ", ") + " " + t.texts["and"] + " " + words[n-1]
	}
	return strings.Join(words, "")
}
