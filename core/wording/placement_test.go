package wording

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/skill"
	"patientladder/core/planning/placing"
	"patientladder/core/student/placement"
)

func TestHowFarAPlacementIs(t *testing.T) {
	skills, err := skill.Catalogue{}.With([]skill.Skill{{ID: "a", Name: "A", Family: "hands"}, {ID: "b", Name: "B", Family: "hands"}})
	require.NoError(t, err)
	b := placement.New(placement.Of(skills, "keyboard", nil), placement.Brought{}, placement.DefaultPolicy())
	entries := []placing.BookEntry{{}}
	const noBook = " It cannot say where to begin: the library offers no book of two pieces or more for this instrument."
	require.Equal(
		t,
		"Nothing was asked yet: of two skills nobody knows whether Ida has them.",
		Placement(placing.Placement{Belief: b, Entries: entries}, "Ida"),
	)
	require.Equal(
		t,
		"Nothing was asked yet: of two skills nobody knows whether Ida has them."+noBook,
		Placement(placing.Placement{Belief: b}, "Ida"),
	)
	require.Equal(t, "There is nothing to ask for on this instrument.", Placement(placing.Placement{}, "Ida"))
	b = b.After(placement.Given{Skill: "a", Answer: placement.Left})
	require.Equal(
		t,
		"Nothing was asked yet: of two skills nobody knows whether Ida has them.",
		Placement(placing.Placement{Belief: b, Entries: entries}, "Ida"),
		"left out is no answer",
	)
	b = b.After(placement.Given{Skill: "b", Answer: placement.Yes})
	require.Equal(t, "One answer so far; two skills are still open.", Placement(placing.Placement{Belief: b, Entries: entries}, "Ida"))
	b = b.After(placement.Given{Skill: "b", Answer: placement.Yes}).After(placement.Given{Skill: "b", Answer: placement.Yes})
	require.Equal(t, "Three answers so far; no skills are still open.", Placement(placing.Placement{Belief: b, Entries: entries}, "Ida"))
	require.Equal(
		t,
		"Enough is known: after three answers no skills are still open.",
		Placement(placing.Placement{Belief: b, Entries: entries, Over: placement.Sure}, "Ida"),
	)
	require.Equal(
		t,
		"That is enough for one sitting: three answers, no skills are still open.",
		Placement(placing.Placement{Belief: b, Entries: entries, Over: placement.Enough}, "Ida"),
	)
}
