package placement

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/engrave"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
)

// Every task asks for a skill of the catalogue, can be read and drawn; and what is found in its notes is the skill that it
// asks for, wherever a rule finds that skill in scores at all.
func TestEveryTaskAsksForItsSkill(t *testing.T) {
	c, table, err := demand.Shipped()
	require.NoError(t, err)
	for id, task := range tasks {
		s, known := c.Get(id)
		require.True(t, known, id)
		require.NotEmpty(t, task.Say, id)
		require.Contains(t, []How{Clap, Play, Sing, Find, Show}, task.How, id)
		if task.ABC == "" {
			continue
		}
		tunes, err := abc.Read([]byte("X:1\n" + task.ABC))
		require.NoError(t, err, id)
		require.Empty(t, tunes[0].Skipped, id)
		require.Positive(t, engrave.Stretch(tunes[0], 0, tunes[0].Length().Float(), engrave.Look{}).Width, id)
		if s.Set == "teacher" || !table.Finds(id) {
			continue
		}
		found := false
		for _, player := range []string{"piano", "cello", "flute"} {
			for _, d := range table.Find(analysis.Of(tunes[0], player)) {
				found = found || d.Skill == id
			}
		}
		require.True(t, found, "the notes for %q do not ask for it: %s", id, task.ABC)
	}
}
