package wording

import (
	"encoding/json"
	"maps"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Every kind of entry has words: those of the log that holds all of them are said, and no two alike.
func TestEveryKindOfEntryHasWords(t *testing.T) {
	require.Equal(t, studentlog.Kinds(), slices.Sorted(maps.Keys(entryWords)))
	text, err := os.ReadFile("../student/standing/testdata/every-kind.json")
	require.NoError(t, err)
	var log struct{ Entries []studentlog.Entry }
	require.NoError(t, json.Unmarshal(text, &log))
	kinds, said := map[studentlog.Kind]bool{}, map[string]studentlog.Kind{}
	n, s := names(t), studentplan.Student{Standing: &standing.Standing{}}
	for _, e := range log.Entries {
		words := n.Entry(&e, s)
		require.NotEmpty(t, words, e.Kind)
		require.NotEqual(t, string(e.Kind), words)
		require.NotContains(t, words, "%!", e.Kind)
		other, again := said[words]
		require.True(t, !again || other == e.Kind, "%s and %s are both %q", e.Kind, other, words)
		kinds[e.Kind], said[words] = true, e.Kind
	}
	require.Len(t, kinds, len(studentlog.Kinds()))
	require.Equal(t, "no such kind", n.Entry(&studentlog.Entry{Kind: "no such kind"}, s))
}
