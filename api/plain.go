package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"patientladder/app/refusal"
)

// aDay is a day as the contract writes it; firstYear and lastYear bound what a calendar is asked about.
var aDay = regexp.MustCompile(`^\d{4}-\d{2}-\d{2}$`)

const firstYear, lastYear = "1900", "2200"

// plain refuses what no keyboard types and what no calendar knows, before a handler sees it: control characters and those that
// turn the direction of writing, which make a name look like another one, and days far from any lesson.
func (s *Server) plain(c *gin.Context) {
	for name, values := range c.Request.URL.Query() {
		for _, v := range values {
			if err := plainText(name, v); err != nil {
				s.fail(c, err)
				return
			}
		}
	}
	for _, p := range c.Params {
		if err := plainText(p.Key, p.Value); err != nil {
			s.fail(c, err)
			return
		}
	}
	// What a family writes on a phone is cleaned where it is taken, and never sent back for a character nobody sees.
	if strings.HasPrefix(c.Request.URL.Path, "/api/family/") {
		return
	}
	if c.Request.Body == nil || !strings.HasPrefix(c.ContentType(), "application/json") {
		return
	}
	body, err := io.ReadAll(c.Request.Body)
	var large *http.MaxBytesError
	switch {
	case errors.As(err, &large):
		s.fail(c, tooLarge(large.Limit))
		return
	case err != nil:
		s.fail(c, refusal.Invalid("What was sent did not arrive whole; nothing was changed."))
		return
	}
	c.Request.Body = io.NopCloser(bytes.NewReader(body))
	if err := plainJSON(body); err != nil {
		s.fail(c, err)
	}
}

// plainJSON looks at every string of a body; what is no JSON is left to the contract.
func plainJSON(body []byte) error {
	in := json.NewDecoder(bytes.NewReader(body))
	// within holds what is open: objects and lists, with the name under which each stands.
	var within []struct {
		list bool
		name string
	}
	name := ""
	for named := false; ; { // named says that the name of the next value was read
		t, err := in.Token()
		if err != nil {
			return nil
		}
		switch t := t.(type) {
		case json.Delim:
			if t == '{' || t == '[' {
				within = append(within, struct {
					list bool
					name string
				}{t == '[', name})
			} else {
				name = within[len(within)-1].name
				within = within[:len(within)-1]
			}
		case string:
			if n := len(within); n > 0 && !within[n-1].list && !named {
				name, named = t, true
				continue
			}
			if err := plainText(name, t); err != nil {
				return err
			}
		}
		named = false
	}
}

// line are the fields that name something, on one line; nothing in them is unseen, so that no two names look the same.
var line = map[string]bool{"name": true, "called": true, "title": true, "composer": true, "relation": true, "email": true}

// unseen says that a character shows nothing: those of formatting, and letters and marks that are blank.
func unseen(r rune) bool {
	return unicode.Is(unicode.Cf, r) || strings.ContainsRune("\u034f\u115f\u1160\u17b4\u17b5\u2800\u3164\uffa0", r)
}

// joins says that a character joins its neighbours or keeps them apart, as Persian, Indian scripts and emoji need it.
func joins(r rune) bool { return r == 0x200C || r == 0x200D }

func plainText(name, text string) error {
	for _, r := range text {
		if unicode.IsControl(r) && !strings.ContainsRune("\t\n\r", r) || r >= 0x202A && r <= 0x202E || r >= 0x2066 && r <= 0x2069 {
			return refusal.Invalid(fmt.Sprintf("“%s” has a character that cannot be seen (U+%04X). Take it out; nothing was changed.", name, r))
		}
	}
	if line[name] {
		for i, r := range text {
			switch {
			case strings.ContainsRune("\t\n\r\u2028\u2029", r):
				return refusal.Invalid(
					fmt.Sprintf("“%s” is written on one line: it has a line break or a tab. Take it out; nothing was changed.", name),
				)
			case unseen(r) && !(joins(r) && i > 0 && i < len(text)-utf8.RuneLen(r)):
				return refusal.Invalid(fmt.Sprintf("“%s” has a character that cannot be seen (U+%04X). Take it out; nothing was changed.", name, r))
			}
		}
	}
	if aDay.MatchString(text) && (text[:4] < firstYear || text[:4] > lastYear) {
		return refusal.Invalid(fmt.Sprintf("“%s”: no calendar plans for the day %s. Nothing was changed.", name, text))
	}
	return nil
}
