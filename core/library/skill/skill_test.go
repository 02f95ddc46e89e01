package skill

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestStandardCatalogueHoldsTogether(t *testing.T) {
	c, err := Standard()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(c.All()), 60)
	require.Contains(t, c.Beneath("dotted-quarter-notes"), "steady-beat")
	require.Equal(t, "rests-of-mine", c.Name("rests-of-mine"), "an unknown skill is named by its id")
}

func TestFaultyCataloguesAreRefused(t *testing.T) {
	for says, data := range map[string]string{
		"not in it":  `[{"id":"a","name":"A","needs":["b"]}]`,
		"circle":     `[{"id":"a","name":"A","needs":["b"]},{"id":"b","name":"B","needs":["c"]},{"id":"c","name":"C","needs":["a"]}]`,
		"twice":      `[{"id":"a","name":"A"},{"id":"a","name":"B"}]`,
		"no id":      `[{"name":"A"}]`,
		"unexpected": `[`,
	} {
		_, err := Parse([]byte(data))
		require.ErrorContains(t, err, says)
	}
}
