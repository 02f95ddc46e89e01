package curriculum_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
)

func TestPiecesOfNoBook(t *testing.T) {
	lib := material.Library{
		"a": {Instrument: "piano", SourceID: "book"}, "b": {Instrument: "ukulele"}, "c": {Instrument: "cello"}, "d": {Instrument: "cello"},
		"e": {Instrument: "violin", Exercise: "string-scale/one/D/major/-"}, "f": {Instrument: "flute", SourceID: "book", Exercise: "x"},
	}
	require.Equal(t, []curriculum.Source{{Instrument: "cello"}, {Instrument: "ukulele"}}, curriculum.Loose(lib))
	require.Empty(t, curriculum.Loose(nil))
}

// A book goes out with those of the studio's own skills that it asks for, and with those on which they stand.
func TestOwnSkillsThatABookNeeds(t *testing.T) {
	own := []skill.Skill{{ID: "base", Name: "base"}, {ID: "bell", Name: "bell", Needs: []string{"base"}}, {ID: "other", Name: "other"}}
	skills, err := skill.Catalogue{}.With(own)
	require.NoError(t, err)
	book := []material.Material{{Demands: []material.Demand{{Skill: "bell"}}}}
	require.Equal(t, own[:2], curriculum.Needed(own, book, skills))
	require.Empty(t, curriculum.Needed(own, nil, skills))
}
