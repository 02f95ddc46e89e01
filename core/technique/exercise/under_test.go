package exercise

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
)

// Each place stands once, where it is met first; a roll has its round of two to a beat instead.
func TestWhatLiesUnderTheHands(t *testing.T) {
	note := func(str, above int, pluck string) Note {
		return Note{String: str, Above: above, Pluck: pluck, Finger: above}
	}
	b := Built{Beats: 2, Notes: []Note{note(1, 0, "p"), note(1, 2, "i"), note(1, 0, "m"), note(2, 0, ""), note(2, 0, "a"), note(3, 0, "p")}}
	melody, roll := Exercise{}, Exercise{Type: Type{What: "roll"}}
	require.Equal(t, []Note{note(1, 0, "p"), note(1, 2, "i"), note(2, 0, ""), note(3, 0, "p")}, melody.Under(b))
	require.Empty(t, roll.Under(b))
	require.Equal(t, []Note{note(1, 0, "p"), note(1, 2, "i"), note(1, 0, "m"), note(2, 0, "a")}, roll.Round(b))
	require.Empty(t, melody.Round(b))

	key := func(hand string, step byte, finger int, meet string) Note {
		return Note{Hand: hand, Finger: finger, Meet: meet, Pitch: score.Pitch{Step: step, Octave: 4}}
	}
	two := Built{
		Notes: []Note{
			key("left", 'C', 5, ""),
			key("right", 'C', 1, ""),
			key("right", 'E', 3, "thumbs"),
			key("right", 'D', 2, ""),
			key("right", 'C', 3, "thumbs"),
		},
	}
	require.Equal(t, []Board{
		{Hand: "right", Keys: []Key{{MIDI: 60, Finger: 1}, {MIDI: 64, Finger: 3, Meets: true}, {MIDI: 62, Finger: 2}}},
		{Hand: "left", Keys: []Key{{MIDI: 60, Finger: 5}}},
	}, two.Boards())
	require.Empty(t, Built{Notes: []Note{note(1, 0, "p")}}.Boards())
}

// The chord of C on a ukulele is the third finger on the third fret of the first string (common practice).
func TestWhatLiesUnderTheLeftHand(t *testing.T) {
	x, ok := instrument.Of("ukulele")
	require.True(t, ok)
	e := Exercise{Instrument: x}
	places := Built{Notes: []Note{{String: 1, Above: 2, Finger: 2}, {String: 2}, {String: 1, Above: 2, Finger: 2}}}
	require.Equal(t, []Neck{{Dots: []Dot{{1, 2, 2}, {2, 0, 0}}}}, e.Necks(places))
	chord := Built{Notes: places.Notes, Chords: []ChordAt{{Name: "C"}}}
	require.Equal(t, []Neck{{Chord: "C", Dots: []Dot{{1, 3, 3}, {2, 0, 0}, {3, 0, 0}, {4, 0, 0}}}}, e.Necks(chord))
	require.Empty(t, e.Necks(Built{}))
}
