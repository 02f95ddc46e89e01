package clearing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
)

// The points of the modest standard are common practice, no source: right
// notes, fingers and rhythm, fair tone and pitch, no stop.
func TestStandardByFamily(t *testing.T) {
	ids := func(f instrument.Family, l Level) (out []string) {
		for _, p := range Standard(f, l) {
			out = append(out, p.ID)
		}
		return out
	}
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "flow"}, ids(instrument.Keyboard, Usual))
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "pitch", "flow"}, ids(instrument.Bowed, Usual))
	require.NotContains(t, ids(instrument.Plucked, Usual), "pitch")
	require.Equal(t, []string{"notes", "rhythm", "flow"}, ids(instrument.Bowed, Light))
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "pitch", "dynamics", "flow"}, ids(instrument.Bowed, Strict))
	require.False(t, Level("loud").Known())
}

func TestJudge(t *testing.T) {
	standard := Standard(instrument.Keyboard, Usual)
	v := Judge(standard, []string{"flow", "notes", "fingers", "tone", "rhythm", "smile"})
	require.Equal(t, Verdict{Cleared: true}, v)
	v = Judge(standard, []string{"notes", "fingers", "tone"})
	require.False(t, v.Cleared)
	require.Equal(t, []Point{{"rhythm", "Right rhythm", "the rhythm did not hold"}, {"flow", "No stop", "it stopped on the way"}}, v.Missed)
	require.Equal(t, standard, Judge(standard, nil).Missed)
}
