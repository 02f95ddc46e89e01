package score

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
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
	require.Equal(t, []Skip{{What: "cue notes", Where: "bar 1", Count: 2}, {What: "pedal", Where: "bar 2", Count: 1}}, s.Skipped)
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

// bars writes a form: "|:" begins a repeat and ":|" ends one (":3|" is played
// three times), "1[" to "9[" begins an ending that lasts to the next bar line
// sign, and every letter is a bar.
func bars(form string) *Score {
	s := &Score{}
	var start bool
	var ending []int
	for i := 0; i < len(form); i++ {
		switch c := form[i]; {
		case c >= 'A' && c <= 'Z':
			s.Bars = append(s.Bars, Bar{Label: string(c), RepeatStart: start, Endings: ending})
			start = false
		case c == '|' && i+1 < len(form) && form[i+1] == ':':
			start = true
			i++
		case c == ':':
			last := &s.Bars[len(s.Bars)-1]
			last.RepeatEnd = 2
			if form[i+1] != '|' {
				last.RepeatEnd = int(form[i+1] - '0')
				i++
			}
			ending = nil
		case c >= '1' && c <= '9':
			ending = append(append([]int{}, ending...), int(c-'0'))
		case c == ']':
			ending = nil
		}
	}
	return s
}

// The forms and how they are played are common practice, worked by hand.
func TestTheOrderInWhichBarsArePlayed(t *testing.T) {
	for form, want := range map[string]string{
		"AB":               "AB",
		"AB:|C":            "ABABC",
		"A|:BC:|D":         "ABCBCD",
		"A:|B:|":           "AABB",
		"|:A:||:B:|":       "AABB",
		"|:AB:3|C":         "ABABABC",
		"|:A1[B:|2[C]D":    "ABACD",
		"|:A1[B:|2[C]D:|":  "ABACDD",
		"|:A12[B:|3[C]D":   "ABABACD",
		"A1[B:|2[C]|:D:|E": "ABACDDE",
		"|:A1[B:|2[C:|D":   "ABACD",
		"|:AB|:CD:|":       "ABCDCD",
		"1[A:|2[B]":        "AB",
	} {
		s := bars(form)
		got := ""
		for _, bar := range s.Order(1000) {
			got += s.BarLabel(bar)
		}
		require.Equal(t, want, got, form)
	}
}

func TestTheOrderEndsWhateverTheFileSays(t *testing.T) {
	s := bars("|:AB:9|")
	s.Bars[1].RepeatEnd = 1 << 30
	require.Len(t, s.Order(1<<30), 2*mostPasses)
	require.Len(t, s.Order(7), 7)
	require.Empty(t, (&Score{}).Order(5))
}

func TestUnfoldedSoundsMoveInTime(t *testing.T) {
	s := bars("|:AB:|")
	for i := range s.Bars {
		s.Bars[i].Start, s.Bars[i].Length = rational.Int(int64(2*i)), rational.Int(2)
		s.Notes = append(s.Notes, Note{Onset: rational.Int(int64(2*i + 1)), Duration: rational.Int(1), MIDI: 60 + i, Bar: i + 1})
	}
	var onsets []string
	for _, n := range s.Unfolded(100) {
		onsets = append(onsets, n.Onset.String())
	}
	require.Equal(t, []string{"1", "3", "5", "7"}, onsets)
}

// The circle of fifths, as every theory primer has it (from memory).
func TestKeysByTheCircleOfFifths(t *testing.T) {
	major := map[int]string{0: "C", 1: "G", 2: "D", 3: "A", 4: "E", 5: "B", 6: "F sharp", 7: "C sharp",
		-1: "F", -2: "B flat", -3: "E flat", -4: "A flat", -5: "D flat", -6: "G flat", -7: "C flat"}
	minor := map[int]string{0: "A", 1: "E", 2: "B", 3: "F sharp", 4: "C sharp", 5: "G sharp", 6: "D sharp", 7: "A sharp",
		-1: "D", -2: "G", -3: "C", -4: "F", -5: "B flat", -6: "E flat", -7: "A flat"}
	for fifths := -7; fifths <= 7; fifths++ {
		require.Equal(t, major[fifths]+" major", Bar{Fifths: fifths, Mode: "major"}.KeyName())
		require.Equal(t, minor[fifths]+" minor", Bar{Fifths: fifths, Mode: "minor"}.KeyName())
	}
	require.Equal(t, "no sharps or flats", Bar{}.KeyName())
	require.Equal(t, "1 flat", Bar{Fifths: -1}.KeyName())
	require.Equal(t, "3 sharps", Bar{Fifths: 3, Mode: "dorian"}.KeyName())
}

func TestBlackKeys(t *testing.T) {
	black := 0
	for midi := 21; midi <= 108; midi++ {
		if BlackKey(midi) {
			black++
		}
	}
	require.Equal(t, 36, black, "a piano has 36 black keys among its 88 (common practice)")
}

// What is heard lasts: ornaments take no time of their own, and a note of no length is none.
func TestWhatIsHeard(t *testing.T) {
	s := &Score{Notes: []Note{
		{MIDI: 60, Duration: rational.Int(1), Bar: 1}, {MIDI: 62, Grace: true, Onset: rational.Int(1), Bar: 1},
		{MIDI: 64, Grace: true, Duration: rational.Int(1), Onset: rational.Int(1), Bar: 1},
		{MIDI: 65, Onset: rational.Int(1), Bar: 1}, {Rest: true, Duration: rational.Int(1), Bar: 1},
		{MIDI: 67, Onset: rational.Int(1), Duration: rational.New(1, 2), Bar: 1},
	}}
	var heard []int
	for _, x := range s.Heard() {
		heard = append(heard, x.MIDI)
	}
	require.Equal(t, []int{60, 67}, heard)
}
