package wording

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/week"
)

// What home showed is named with its bars; a piece that came out alike as a whole is named once.
func TestWhatHomeShowedInWords(t *testing.T) {
	n := names(t)
	thing := func(material string, from, to int, o fromhome.Outcome, hard, days int) fromhome.Thing {
		return fromhome.Thing{
			Item:    week.Item{Material: material, Title: "as it was called", Bars: week.Bars{From: from, To: to}},
			Hard:    hard,
			Days:    days,
			Outcome: o,
		}
	}
	for want, things := range map[string][]fromhome.Thing{
		"": {thing("fog", 1, 2, fromhome.Going, 0, 2)},
		"hard: “Fog” bars 7–8, on two of four days":               {thing("fog", 7, 8, fromhome.Hard, 2, 4), thing("fog", 1, 2, fromhome.Easy, 0, 2)},
		"hard: “Fog”, on two of four days; “The Net” not touched": {thing("fog", 7, 8, fromhome.Hard, 2, 4), thing("net", 1, 2, fromhome.Left, 0, 3), thing("net", 3, 4, fromhome.Left, 0, 3)},
		"“The Net” bar 3 not touched; easy: “Fog”":                {thing("net", 3, 3, fromhome.Left, 0, 3), thing("net", 1, 2, fromhome.Going, 0, 3), thing("fog", 1, 2, fromhome.Easy, 0, 2)},
		"played less than was set: “Fog” bars 1–2, “Fog” bars 3–4 and 1 more": {
			thing("fog", 1, 2, fromhome.Short, 0, 2), thing("fog", 3, 4, fromhome.Short, 0, 2), thing("fog", 5, 6, fromhome.Short, 0, 2), thing("fog", 7, 8, fromhome.Going, 0, 2)},
		"“as it was called” not touched": {thing("gone", 1, 2, fromhome.Left, 0, 2)},
	} {
		require.Equal(t, want, n.Showed(things))
	}
}
