package exercise

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/bowed"
)

const mine = `{
 "bows": [
  {"id": "three", "name": "three in a bow", "perBow": 3, "words": "Three notes in a bow, a third of it for each."}
 ],
 "types": [
  {"id": "turns", "like": "five-finger", "name": "Turns", "one": "turn"},
  {"id": "slurred-scale", "like": "string-scale", "name": "Scales in threes", "one": "scale in threes",
   "after": "string-scale/one", "bySkill": {}, "plants": ["slurred-bow"],
   "steps": [{"id": "three", "name": "three in a bow", "octaves": 1, "bow": "three", "tempo": 60, "keys": 3, "order": "few",
    "goals": ["the bow never stops", "a third of it each", "the same loudness"], "why": "the bow learns to wait", "gives": {"slurred-bow": 0.6}}]}
 ]
}`

// known are the skills of these tests.
func known(id string) bool { return id != "juggling" }

// A type of exercises and a way to bow are an entry in a file: nothing else has to be touched.
func TestATypeOfExercisesIsAnEntryInAFile(t *testing.T) {
	before := len(types)
	undo, err := Extend([]byte(mine), known)
	require.NoError(t, err)
	require.Len(t, types, before+2)
	cello, _ := instrument.Of("cello")
	var names []string
	for _, x := range For(cello) {
		if x.ID == "slurred-scale" {
			for _, e := range Places(Exercise{Type: x, Step: x.Steps[0], Instrument: cello})[:1] {
				names = append(names, e.ID())
				b, err := e.Build()
				require.NoError(t, err)
				ups := 0
				for i := range bowed3(t).Strokes(len(b.Notes)) {
					if bowed3(t).Strokes(len(b.Notes))[i].Begins {
						ups++
					}
				}
				require.Equal(t, (len(b.Notes)+2)/3, ups)
			}
		}
	}
	require.Len(t, names, 1)
	turns, ok := TypeOf("turns")
	require.True(t, ok)
	five, _ := TypeOf("five-finger")
	require.Equal(t, []any{"Turns", five.Make, len(five.Steps)}, []any{turns.Name, turns.Make, len(turns.Steps)})
	undo()
	require.Len(t, types, before)
	_, there := bowed.PlanOf("three")
	require.False(t, there)
}

func bowed3(t *testing.T) bowed.Plan {
	p, ok := bowed.PlanOf("three")
	require.True(t, ok)
	return p
}

// A mistake is a sentence with its line; nothing of the file is added.
func TestAMistakeInAFileOfExercises(t *testing.T) {
	before := len(types)
	for text, want := range map[string]string{
		"{\n \"types\": [\n":                                "exercises: the file ends in the middle",
		"{\n \"typs\": []}":                                 `exercises: unknown field "typs"`,
		"{\n\"types\": [],\n\"bows\": [x]}":                 "exercises: line 3: invalid character 'x' looking for beginning of value",
		"{\"types\": [\n{\"id\": \"a\", \"like\": \"b\"}]}": `exercises, line 2: it is like "b", which is not there`,
		"{\"types\": [\n{\"id\": \"a\", \"steps\": 3}]}":    `exercises, line 2 (a): "steps" cannot be a number`,
		"{\"types\": [\n\n{\"id\": \"a\"}]}":                `exercises, line 3 (a): no rule makes ""`,
		"{\"types\": [\n{\"id\": \"a\", \"like\": \"five-finger\", \"make\": \"magic\"}]}":                         `exercises, line 2 (a): no rule makes "magic"`,
		"{\"types\": [\n{\"id\": \"a\", \"like\": \"five-finger\", \"plants\": [\"juggling\"], \"bySkill\": {}}]}": `exercises, line 2 (a): there is no skill "juggling"`,
		"{\"types\": [\n{\"id\": \"a\", \"like\": \"five-finger\", \"families\": []}]}":                            "exercises, line 2 (a): it names no family of instruments",
		"{\"types\": [\n{\"id\": \"a\", \"like\": \"five-finger\", \"colour\": 1}]}":                               `exercises, line 2 (a): unknown field "colour"`,
		"{\"bows\": [\n{\"id\": \"a\", \"name\": \"b\", \"words\": \"c\", \"perBow\": 90}]}":                       "exercises, line 2 (a): a bow holds 1 to 24 notes, not 90",
	} {
		_, err := Extend([]byte(text), known)
		require.EqualError(t, err, want, text)
		require.Len(t, types, before, text)
	}
}
