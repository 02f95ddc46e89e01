package home

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/engrave"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/week"
	"patientladder/core/reading/reading"
	"patientladder/home/sheet"
)

// A direction stands over the head that sounds with it, on its staff, and once.
func TestDirectionsStandOverTheirHeads(t *testing.T) {
	d := engrave.Drawing{
		Heads: []engrave.Head{
			{At: 1, X: 10, Y: 5, Below: 2},
			{At: 1, X: 10, Y: 15, Staff: 1},
			{At: 2, X: 20, Y: 4, Below: 1},
			{At: 2, X: 20, Y: 6, Below: 3},
		},
	}
	got := signsOn(
		d,
		[]athome.Sign{
			{At: 1, Direction: reading.Up, Staff: 1},
			{At: 2 + 1e-9, Direction: reading.Down},
			{At: 2, Direction: reading.Same, Staff: 0},
			{At: 9, Direction: reading.Up},
		},
	)
	require.Equal(t, []sheet.Sign{{X: 10, Y: 15 - signAbove, Turn: 1}, {X: 20, Y: 3 - signAbove, Turn: -1}, {X: 20, Y: 3 - signAbove}}, got)
}

// The beginning of a piece and the whole of it are two pictures; sections of the same bars are one.
func TestThingsThatShareAPicture(t *testing.T) {
	for kind, want := range map[week.Kind]week.Kind{week.Look: week.Look, week.Hear: week.Look, week.Whole: week.Whole, week.Review: week.Whole, week.Chunk: "", week.Join: ""} {
		require.Equal(t, want, wholeness(kind), kind)
	}
}
