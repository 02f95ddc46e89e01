package clearing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/material"
)

// The points of the modest standard are common practice, no source: right
// notes, fingers and rhythm, fair tone and pitch, no stop.
func TestStandardByFamily(t *testing.T) {
	ids := func(f material.Family) (out []string) {
		for _, p := range Standard(f) {
			out = append(out, p.ID)
		}
		return out
	}
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "flow"}, ids(material.Keyboard))
	require.Equal(t, []string{"notes", "fingers", "rhythm", "tone", "pitch", "flow"}, ids(material.Bowed))
	require.NotContains(t, ids(material.Plucked), "pitch")
}

func TestJudge(t *testing.T) {
	standard := Standard(material.Keyboard)
	v := Judge(standard, []string{"flow", "notes", "fingers", "tone", "rhythm", "smile"})
	require.True(t, v.Cleared)
	v = Judge(standard, []string{"notes", "fingers", "tone"})
	require.False(t, v.Cleared)
	require.Equal(t, "It stays a working piece: the rhythm did not hold; it stopped on the way.", v.Why)
	require.Len(t, Judge(standard, nil).Missed, 5)
}
