package signs

import (
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

// plain speaks in the barest words.
type plain struct{}

func (plain) Title(id string) string            { return "“" + id + "”" }
func (plain) SkillFirst(id string) string       { return "Skill " + id }
func (plain) Counted(_ int, what string) string { return "many " + what }
func (plain) Figures(_ int, what string) string { return "many " + what }
func (plain) Over(float64, float64) string      { return "far" }

// No kind of sign is half there: each is found where everything is due, weighs something or says that it can wait, has words for
// itself and for students, and is known to the contract, in its order. Every number behind them has a default.
func TestEveryKindOfSignIsWhole(t *testing.T) {
	lib := material.Library{}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"run":  {State: standing.Working, RunDue: true},
		"slow": {State: standing.Working, SinceMark: 3, Spots: []standing.Spot{{}}},
		"old":  {State: standing.Cleared, LastPlayed: ago(50)},
	}}
	all := seenIn(lib)(s, Seen{Late: &Sign{Skill: "ties", Lessons: 2}, Cliffs: []Sign{{Material: "tall", Leap: 3, Reach: 1}}, Measure: true, Dry: []material.Strand{material.Reading}})
	nothing := seenIn(lib)(&standing.Standing{}, Seen{})
	var kinds []string
	for _, r := range Rules() {
		kinds = append(kinds, string(r.Kind))
		found := r.Find(all)
		if r.Kind == Choose { // it is due where nothing else can be
			require.Empty(t, found)
			found = r.Find(nothing)
		}
		require.Len(t, found, 1, r.Kind)
		require.Equal(t, r.Kind, found[0].Kind)
		require.Equal(t, r.CanWait, r.Weight == 0, "%s weighs something, or can wait", r.Kind)
		says := r.Says(found[0], plain{})
		require.Greater(t, len(says), 10, r.Kind)
		require.NotContains(t, says, "%!", r.Kind)
		require.False(t, strings.HasSuffix(says, "."), r.Kind)
		require.NotEmpty(t, r.One, r.Kind)
		require.NotEmpty(t, r.Many, r.Kind)
		again, known := Of(r.Kind)
		require.True(t, known)
		require.Equal(t, r.One, again.One, "each kind once")
	}
	_, known := Of("no such kind")
	require.False(t, known)

	text, err := os.ReadFile("../../../api/openapi.yaml")
	require.NoError(t, err)
	_, sign, _ := strings.Cut(string(text), "\n    Sign:\n")
	_, enum, _ := strings.Cut(sign, "kind: {type: string, enum: [")
	enum, _, _ = strings.Cut(enum, "]")
	require.Equal(t, kinds, strings.Split(enum, ", "))
	require.Equal(t, kinds, slices.Compact(slices.Clone(kinds)))

	policy := reflect.ValueOf(DefaultPolicy())
	for i := range policy.NumField() {
		require.False(t, policy.Field(i).IsZero(), policy.Type().Field(i).Name)
	}
}
