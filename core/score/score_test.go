package score

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/rational"
)

// Middle C is MIDI 60, the A above it 69, and the lowest and highest keys of a
// piano are 21 and 108 (the MIDI note table, from memory).
func TestPitchesOnTheMIDIScale(t *testing.T) {
	for name, want := range map[Pitch]int{
		{'C', 0, 4}: 60, {'A', 0, 4}: 69, {'A', 0, 0}: 21, {'C', 0, 8}: 108,
		{'B', 1, 3}: 60, {'C', -1, 4}: 59, {'F', 2, 4}: 67, {'E', -2, 4}: 62,
	} {
		require.Equal(t, want, name.Semitone(), name.String())
	}
}

func TestPlacesOnTheStaff(t *testing.T) {
	require.Equal(t, 28, Pitch{'C', 0, 4}.StaffStep())
	require.Equal(t, 29, Pitch{'D', -1, 4}.StaffStep(), "a sign does not move the note")
	require.Equal(t, 27, Pitch{'B', 0, 3}.StaffStep())
	require.Equal(t, 35, Pitch{'C', 0, 5}.StaffStep())
}

func TestNames(t *testing.T) {
	require.Equal(t, "F##4", Pitch{'F', 2, 4}.String())
	require.Equal(t, "Bb", Pitch{'B', -1, 2}.Name())
}

func TestLabels(t *testing.T) {
	plain := &Score{Bars: []Bar{{Label: "1"}, {Label: "2"}}}
	require.Nil(t, plain.Labels())
	pickup := &Score{Bars: []Bar{{Label: "0"}, {Label: "1"}, {}}}
	require.Equal(t, []string{"0", "1", "3"}, pickup.Labels(), "a bar without a number has its position")
	require.Equal(t, "7", pickup.BarLabel(7))
}

func TestLength(t *testing.T) {
	require.True(t, (&Score{}).Length().IsZero())
	s := &Score{Bars: []Bar{{Length: rational.Int(1)}, {Start: rational.Int(1), Length: rational.New(7, 2)}}}
	require.Equal(t, "9/2", s.Length().String())
}

func TestSkipsAreCountedNotListedAgain(t *testing.T) {
	s := &Score{}
	s.AddSkip("cue notes", "bar 1")
	s.AddSkip("pedal", "bar 2")
	s.AddSkip("cue notes", "bar 3")
	require.Equal(t, []Skip{{"cue notes", "bar 1", 2}, {"pedal", "bar 2", 1}}, s.Skipped)
}

// A tied chain through three voices of a file that crosses voices is one sound.
func TestTiesMayChangeTheVoice(t *testing.T) {
	note := func(at int64, voice string, start, stop bool) Note {
		return Note{Onset: rational.Int(at), Duration: rational.Int(1), MIDI: 60, Voice: voice, Staff: 1, Bar: 1, TieStart: start, TieStop: stop}
	}
	s := &Score{Notes: []Note{note(0, "1", true, false), note(1, "2", true, true), note(2, "1", false, true), note(3, "1", false, false)}}
	sounds := s.Sounding()
	require.Len(t, sounds, 2)
	require.Equal(t, "3", sounds[0].Duration.String())
	require.Equal(t, "1", sounds[0].Voice)
}

func TestATieNeedsTheNoteToFollowAtOnce(t *testing.T) {
	s := &Score{Notes: []Note{
		{Duration: rational.Int(1), MIDI: 60, TieStart: true},
		{Onset: rational.Int(2), Duration: rational.Int(1), MIDI: 60, TieStop: true},
	}}
	require.Len(t, s.Sounding(), 2)
}
