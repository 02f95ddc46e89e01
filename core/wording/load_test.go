package wording

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/reading/key"
	"patientladder/core/reading/load"
	"patientladder/core/student/leap"
)

// Every dimension of every family has its words.
func TestDimensionsInWords(t *testing.T) {
	for _, d := range dimension.Names() {
		require.NotEmpty(t, Dimension(d), d)
		require.NotEmpty(t, Names{}.LeapName(leap.Part{Kind: leap.OfLoad, Dimension: d}), d)
	}
	for _, x := range []struct {
		d     dimension.ID
		value float64
		f     instrument.Family
		want  string
	}{
		{dimension.Speed, 6.24, instrument.Keyboard, "6.2 notes a second"},
		{dimension.Speed, 1, instrument.Keyboard, "1 note a second"},
		{dimension.Rhythm, 1.58, instrument.Keyboard, "beats in 3 parts"},
		{dimension.Variety, 3, instrument.Keyboard, "4 different notes in a bar"},
		{dimension.Shifts, 0.25, instrument.Bowed, "2.5 changes of place in ten seconds"},
		{dimension.Endurance, 11.6, instrument.Wind, "12 seconds without a breath"},
		{dimension.Endurance, 32, instrument.Keyboard, "32 notes without a rest"},
		{dimension.Span, 2, instrument.Bowed, "2 stretches in four bars"},
		{dimension.BlackKeys, 1, instrument.Keyboard, "1 black key in a bar"},
	} {
		require.Equal(t, x.want, HowMuch(x.d, x.value, x.f))
	}
	part := leap.Part{Kind: leap.OfLoad, Dimension: dimension.Speed, Load: 6, Best: 4}
	require.Equal(t, "6 notes a second; 4 so far", LeapPart(part, material.Material{Instrument: "piano"}, 2))
}

func TestPaceInWords(t *testing.T) {
	require.Equal(t, "at crotchet 88", AtTempo(load.Pace{Quarters: 88, Given: true}))
	require.Equal(t, "at about crotchet 152, as “Vivace” is usually meant", AtTempo(load.Pace{Quarters: 152, Word: "Vivace"}))
	require.Equal(t, "no tempo is written: measured at crotchet 92, which is a guess", AtTempo(load.Pace{Quarters: 92}))
}

func TestKeysInWords(t *testing.T) {
	same := func(name string) string { return name }
	require.Empty(t, Key(key.Key{Doubt: 1}, same))
	require.Equal(t, "C major, perhaps A minor", Key(key.Key{Tonic: "C", Mode: "major", Doubt: 0.5, Second: "A minor"}, same))
}
