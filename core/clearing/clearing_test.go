package clearing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/material"
)

// The points of the modest standard are common practice, no source: right
// notes, fingers and rhythm, fair tone and pitch, no stop.
func TestStandardByFamily(t *testing.T) {
	ids := func(f material.Family, l Level) (out []string) {
		for _, p := range Standard(f, l) {
			out = append(out, p.ID)
		}
		return out
	}
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "flow"}, ids(material.Keyboard, Usual))
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "pitch", "flow"}, ids(material.Bowed, Usual))
	require.NotContains(t, ids(material.Plucked, Usual), "pitch")
	require.Equal(t, []string{"notes", "rhythm", "flow"}, ids(material.Bowed, Light))
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "pitch", "dynamics", "flow"}, ids(material.Bowed, Strict))
	require.False(t, Level("loud").Known())
}

func TestJudge(t *testing.T) {
	standard := Standard(material.Keyboard, Usual)
	v := Judge(standard, []string{"flow", "notes", "fingers", "tone", "rhythm", "smile"})
	require.True(t, v.Cleared)
	v = Judge(standard, []string{"notes", "fingers", "tone"})
	require.False(t, v.Cleared)
	require.Equal(t, "It stays a working piece: the rhythm did not hold; it stopped on the way.", v.Why)
	require.Len(t, Judge(standard, nil).Missed, 5)
}
