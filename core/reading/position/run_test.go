package position_test

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
)

// fingersOf are the fingers proposed for a hand, as a row of digits.
func fingersOf(t *testing.T, text string) string {
	t.Helper()
	tunes, err := abc.Read([]byte(text))
	require.NoError(t, err)
	s := tunes[0]
	out := ""
	for _, f := range position.Of(s, reading.Lines(s, true)[0], "piano").Fingers {
		out += strconv.Itoa(f.Finger)
	}
	return out
}

// A run over an octave takes the fingers of its scale (handbook tables of scales, from memory): C 1231 2345, F 1234 1234 in
// the right hand, B flat from the second finger; the left hand C 54321 321; A harmonic minor with its raised note.
func TestRunsTakeTheFingersOfTheirScale(t *testing.T) {
	for text, want := range map[string]string{
		"K:C\nCDEF GABc|":                          "12312345",
		"K:C\nCDEF GABc|dedc BAGF|":                "1231234123214321", // past the octave the groups go on
		"K:F\nFGAB cdef|":                          "12341234",
		"K:C clef=bass\nC,,D,,E,,F,, G,,A,,B,,C,|": "54321321",
		"K:Am\nABcd ef^ga|":                        "12312345",
		"K:D\ndcBA GFED|":                          "54321321",
		"K:C\nCDEF GABz|":                          fingersOf(t, "X:1\nL:1/8\nM:4/4\nK:C\nCDEF GABz|"), // seven notes are no octave: left to the hand
	} {
		require.Equal(t, want, fingersOf(t, "X:1\nL:1/8\nM:4/4\n"+text), text)
	}
}
