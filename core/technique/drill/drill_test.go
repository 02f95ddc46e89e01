package drill

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
)

// Every exercise that the data can make becomes a material whose skills exist, and another time
// the same one.
func TestEveryExerciseBecomesAMaterial(t *testing.T) {
	skills, table, err := demand.Shipped()
	require.NoError(t, err)
	seen := map[string]string{}
	for _, x := range instrument.All() {
		for _, kind := range exercise.For(x) {
			for _, step := range kind.Steps {
				places := exercise.Places(exercise.Exercise{Type: kind, Step: step, Instrument: x})
				require.NotEmpty(t, places, "%s %s/%s", x.ID, kind.ID, step.ID)
				e := places[len(places)-1]
				d, err := Of(e, naming.Words{}, table)
				require.NoError(t, err, e.ID())
				m := d.Material
				require.Empty(t, seen[m.ID], "%s and %s", seen[m.ID], e.ID())
				seen[m.ID] = e.ID()
				require.Len(t, m.FocusPoints, 3)
				require.Equal(t, material.Technique, m.Strand)
				require.Positive(t, m.Bars, e.ID())
				require.NotEmpty(t, m.Notes, e.ID())
				given := 0
				for _, dm := range m.Demands {
					_, known := skills.Get(dm.Skill)
					require.True(t, known, "%s asks for %q", e.ID(), dm.Skill)
					if dm.Origin == "teacher" {
						given++
					}
				}
				require.Equal(t, len(step.Gives), given, e.ID())
				again, err := Of(e, naming.Words{}, table)
				require.NoError(t, err)
				require.Equal(t, d, again)
				require.Regexp(t, "^[0-7][0-9A-HJKMNP-TV-Z]{25}$", m.ID)
			}
		}
	}
}

// What the page says is what the rules read from it: the five flats of D flat, and the thumb that
// passes under is asked for in both hands (common practice).
func TestAScaleAsksForItsKey(t *testing.T) {
	_, table, err := demand.Shipped()
	require.NoError(t, err)
	piano, _ := instrument.Of("piano")
	e, err := exercise.Parse("scale/together/Db/major/-", piano)
	require.NoError(t, err)
	d, err := Of(e, naming.Words{}, table)
	require.NoError(t, err)
	asks := map[string]bool{}
	for _, x := range d.Material.Demands {
		asks[x.Skill] = true
	}
	require.Subset(t, asks, map[string]bool{"thumb-under": true, "hands-together": true, "black-keys": true})
	require.Equal(t, material.Together, d.Material.Texture)
	require.EqualValues(t, 60, d.Material.Tempo)
}

// A goal as it came is said in the studio's words; one that was changed on the piece itself stays.
func TestTheGoalsOfAMaterialAreTheStudios(t *testing.T) {
	_, table, err := demand.Shipped()
	require.NoError(t, err)
	piano, _ := instrument.Of("piano")
	e, err := exercise.Parse("five-finger/parallel/C/major-five-finger/-", piano)
	require.NoError(t, err)
	d, err := Of(e, naming.Words{}, table)
	require.NoError(t, err)
	m := d.Material
	m.FocusPoints[1].Text = "by hand"
	form, err := exercise.Written("five-finger", map[string][]string{"parallel": {"tips firm", "even", "together"}}, nil)
	require.NoError(t, err)
	texts := func(m material.Material) (out []string) {
		for _, p := range m.FocusPoints {
			out = append(out, p.Text)
		}
		return out
	}
	require.Equal(t, []string{"tips firm", "by hand", "together"}, texts(WithForms(m, exercise.Forms{form})))
	require.Equal(
		t,
		[]string{"round fingers, every tip firm", "by hand", "both hands land together"},
		texts(m),
		"the material was not written over",
	)
	require.Equal(t, m, WithForms(m, nil))
	other := material.Material{ID: "01A", Exercise: "five-finger/none/C", FocusPoints: []material.FocusPoint{{ID: "1", Text: "x"}}}
	require.Equal(t, other, WithForms(other, exercise.Forms{form}))
	piece := material.Material{ID: "01B", FocusPoints: []material.FocusPoint{{ID: "1", Text: "x"}}}
	require.Equal(t, piece, WithForms(piece, exercise.Forms{form}))
}
