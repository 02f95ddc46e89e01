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
