package lookback

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// The notes written most often, at least twice, the latest of those written as often first; no long ones, and four at the most.
func TestUsualObservations(t *testing.T) {
	var live []*studentlog.Entry
	long := strings.Repeat("x", 61)
	for _, text := range []string{"a", "b", "b", "a", "c", "d", "d", "d", long, long, "e", "e", "f", "f", strings.Repeat("y", 60), strings.Repeat("y", 60)} {
		live = append(live, &studentlog.Entry{Kind: studentlog.Note, Text: text})
	}
	live = append(live, &studentlog.Entry{Kind: studentlog.WentWell, Text: "c"})
	require.Equal(t, []string{"d", strings.Repeat("y", 60), "f", "e"}, UsualObservations(live))
	require.Equal(t, []string{}, UsualObservations(nil))
}
