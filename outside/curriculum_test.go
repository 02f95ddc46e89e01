package outside_test

import (
	"bytes"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
)

// What is written is valid by the published schema, and what the schema refuses
// is refused by the program too. The judge is the Go module jsonschema
// (JSON Schema, draft 2020-12).
func TestCurriculaFollowTheirSchema(t *testing.T) {
	schema, err := jsonschema.NewCompiler().Compile("../docs/curriculum.schema.json")
	require.NoError(t, err)
	skills, err := skill.Standard()
	require.NoError(t, err)
	valid := func(data []byte) error {
		doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
		require.NoError(t, err)
		return schema.Validate(doc)
	}
	lib := material.Library{}
	for i, s := range skills.All() {
		lib[s.ID] = material.Material{
			ID: s.ID, Title: "Study of " + s.Name, Strand: material.Strands()[i%5], Instrument: "piano", SourceID: "B", Order: i + 1, Page: i,
			Tempo: 60.5,
			Bars:  8, DistinctBars: 4, Texture: material.InTurn,
			Demands:     []material.Demand{{Skill: s.ID, Weight: 0.5, Bars: []int{1, 2}, Origin: "score"}},
			FocusPoints: []material.FocusPoint{{ID: "f", Text: "steady"}}, Tags: material.Tags(),
		}
	}
	own := []skill.Skill{{ID: "own", Name: "Own", Family: "rhythm", Needs: []string{"steady-beat"}, Steps: []string{"walk"}, Exposures: 2}}
	data, err := curriculum.Write(curriculum.Of(lib, []curriculum.Source{{ID: "B", Title: "Book", Instrument: "piano"}}, own))
	require.NoError(t, err)
	require.NoError(t, valid(data))

	for old, wrong := range map[string]string{
		`"strand": "method"`: `"strand": "sideways"`, `"weight": 0.5`: `"weight": 3`, `"version": 1`: `"version": 2`, `"page": 3`: `"page": -3`,
		`"instrument": "piano"`: `"instrument": "B3"`, `"title": "Study of `: `"titel": "Study of `,
	} {
		require.Contains(t, string(data), old)
		faulty := bytes.Replace(data, []byte(old), []byte(wrong), 1)
		require.Error(t, valid(faulty), wrong)
		c, err := curriculum.Read(faulty)
		if err == nil {
			_, said := curriculum.Check(c, skills)
			require.NotEmpty(t, said, wrong)
		}
	}
}
