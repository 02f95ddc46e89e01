package api

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Every string of a body is looked at, wherever it stands, and named as the field that holds it. Names themselves
// are the contract's, and what is no JSON is left to it.
func TestEveryStringOfABodyIsLookedAt(t *testing.T) {
	for body, field := range map[string]string{
		`{"a":"x\u0000"}`: "a", `{"a":"x","b":"\u202e"}`: "b", `{"a":["x","y","z\u0007"]}`: "a", `{"a":[["x"],["y","z\u0007"]]}`: "a",
		`{"a":{"b":"x"},"c":"\u0007"}`: "c", `{"a":[{"b":"x"},{"b":1,"c":"\u2066"}]}`: "c", `{"a":[{"b":"x"},"\u2066"]}`: "a", `["x","\u0007"]`: "", `"\u0007"`: "",
		`{"a":{"b":["x"],"c":{"d":"x","e":"\u0007"}}}`: "e", `{"a":true,"b":null,"c":[1,"\u0007"]}`: "c",
	} {
		err := plainJSON([]byte(body))
		require.ErrorContains(t, err, "“"+field+"” has a character that cannot be seen", body)
	}
	for _, body := range []string{``, `{`, `{"a":"b"`, `{"a\u0007":"b"}`, `{"a":["b","c\n"],"d":{"e":"f"}}`, `]`} {
		require.NoError(t, plainJSON([]byte(body)), body)
	}
	require.Error(t, plainJSON([]byte(`{"a":"\u202d"`)), "what was read of it until it broke off")
}

// What turns a line around or is not seen is refused, to the edge of each range; a day must be one that a calendar plans for.
func TestWhatATextMayHold(t *testing.T) {
	for r, refused := range map[rune]bool{
		'\t': false, '\n': false, '\r': false, 0x1F: true, 0x7F: true, 0x2029: false, 0x202A: true, 0x202E: true, 0x202F: false,
		0x2065: false, 0x2066: true, 0x2069: true, 0x206A: false, 'ü': false,
	} {
		require.Equal(t, refused, plainText("notes", "a"+string(r)+"b") != nil, "U+%04X", r)
	}
	for text, refused := range map[string]bool{
		"a\nb": true, "a\tb": true, "a\u2028b": true, "a\u200bb": true, "a\ufeffb": true, "a\u00adb": true, "a\u3164b": true, "\u2800": true,
		"a\u200eb": true,
		"\u200da":  true, "a\u200d": true, "\u0645\u06cc\u200c\u0634\u0648\u062f": false, "\U0001F469\u200D\U0001F3A4 Ada": false,
		"Zoë Nuñez": false,
	} {
		require.Equal(t, refused, plainText("title", text) != nil, "%q", text)
	}
	require.NoError(t, plainText("notes", "one\ntwo\u200b"), "free words have lines")
	for day, refused := range map[string]bool{
		"1899-12-31": true, "1900-01-01": false, "2200-12-31": false, "2201-01-01": true, "on 2201-01-01": false,
	} {
		require.Equal(t, refused, plainText("day", day) != nil, day)
	}
}
