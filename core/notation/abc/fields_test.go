package abc

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Keys and modes by their signatures: the table of ABC 2.1, section 3.1.14.
func TestKeyField(t *testing.T) {
	for field, want := range map[string]struct {
		fifths int
		mode   string
	}{
		"C": {0, "major"}, "G": {1, "major"}, "F#": {6, "major"}, "Cb": {-7, "major"}, "Am": {0, "minor"}, "A min": {0, "minor"},
		"Eb": {-3, "major"}, "Ebm": {-6, "minor"}, "G#m": {5, "minor"}, "Dmaj": {2, "major"}, "DMajor": {2, "major"}, "D Mix": {1, "mixolydian"},
		"Edor": {2, "dorian"}, "E phrygian": {0, "phrygian"}, "Flyd": {0, "lydian"}, "Bloc": {0, "locrian"}, "Aaeo": {0, "aeolian"},
		"C ion": {0, "ionian"},
		"none":  {0, ""}, "HP": {2, "mixolydian"}, "Hp": {2, "mixolydian"}, "D exp ^f": {0, ""}, "": {0, ""}, "clef=bass": {0, ""},
		"bass": {0, ""},
	} {
		s := one(t, "X:1\nL:1/4\nK:"+field+"\nC|")
		require.Equal(t, want.fifths, s.Bars[0].Fifths, field)
		require.Equal(t, want.mode, s.Bars[0].Mode, field)
	}
	s := one(t, "X:1\nL:1/4\nK:Dphr ^F\nFB|")
	require.Equal(t, "0+1 66, 1+1 70", sounds(s), "the sign of its own counts beside the mode")
	require.NotEmpty(t, s.Skipped)
}

// Tempi in the forms of ABC 2.1, section 3.1.8, in quarter notes a minute.
func TestTempoField(t *testing.T) {
	for field, want := range map[string]float64{
		"1/4=120": 120, "1/8=120": 60, "3/8=60": 90, "1/2 = 50": 100, "\"Allegro\" 1/4=132": 132, "1/4=100 \"Andante\"": 100, "1/4 1/8=40": 60,
		"120": 60, "C=100": 50, "\"Slowly\"": 0, "fast": 0, "1/4=99999": 0, "1/0=60": 30,
	} {
		require.InDelta(t, want, one(t, "X:1\nL:1/8\nQ:"+field+"\nK:C\nC|").Tempo, 1e-9, field)
	}
}

// Metres, and the unit length that follows from them where none is given.
func TestMeterField(t *testing.T) {
	for field, want := range map[string]struct {
		time  string
		first string
	}{
		"4/4": {"4/4", "1/2"}, "C": {"4/4", "1/2"}, "C|": {"2/2", "1/2"}, "2/4": {"2/4", "1/4"}, "3/4": {"3/4", "1/2"}, "6/8": {"6/8", "1/2"},
		"5/16": {"5/16", "1/4"}, "2+3/8": {"5/8", "1/4"}, "(2+2+3)/8": {"7/8", "1/2"}, "none": {"", "1/2"}, "4/5": {"", "1/2"}, "x": {"", "1/2"},
	} {
		s := one(t, "X:1\nM:"+field+"\nK:C\nC|")
		require.Equal(t, want.time, s.Bars[0].TimeName(), field)
		require.Equal(t, want.first, s.Notes[0].Duration.String(), field)
	}
}

// Properties of voices, in the header and where they are used.
func TestVoiceField(t *testing.T) {
	s := one(t, "X:1\nL:1/4\nV:T name=\"First Fiddle\" clef=treble\nV:B clef=bass octave=-1 wobble=3\nK:G\n[V:T]F|[V:B]F|\n")
	require.Len(t, s.Parts, 1, "a treble and a bass voice are two hands")
	require.Equal(t, "First Fiddle", s.Parts[0].Name)
	require.Equal(t, "0+1 54, 0+1 66", sounds(s))
	require.Equal(t, "“wobble=3” in a voice or key", s.Skipped[0].What)
	s = one(t, "X:1\nL:1/4\nK:C\nV:1\nC|\nV:2\nK:G\nF|\nV:1\nF|\n")
	require.Equal(t, "0+1 60, 0+1 66, 1+1 65", sounds(s), "a key inside a voice is that voice's own")
}

// Letters that stand for decorations, the old spelling, and ends of lines.
func TestSymbolsAndOldSpellings(t *testing.T) {
	s := one(t, "X:1\nL:1/4\nU:k = !tenuto!\nK:C\nkC +accent+D HE !\n.F|")
	require.Equal(t, []string{"tenuto"}, s.Notes[0].Articulations)
	require.Equal(t, []string{"accent"}, s.Notes[1].Articulations)
	require.True(t, s.Notes[2].Fermata)
	require.Equal(t, []string{"staccato"}, s.Notes[3].Articulations)
	require.Empty(t, s.Skipped)
}

// Words under the notes: the signs of ABC 2.1, section 5.1.
func TestAlignedWords(t *testing.T) {
	for words, want := range map[string][]string{
		"a b c d":      {"a", "b", "c", "d"},
		"sy-lla-ble x": {"sy", "lla", "ble", "x"},
		"a_ b c":       {"a", "", "b", "c"},
		"a * c":        {"a", "", "c", ""},
		"of~the day":   {"of the", "day", "", ""},
		"re\\-do x":    {"re-do", "x", "", ""},
		"a | b c":      {"a", "", "b", "c"},
		"a--b":         {"a", "", "b", ""},
	} {
		s := one(t, "X:1\nL:1/4\nM:2/4\nK:C\nCD|EF|\nw: "+words+"\n")
		var got []string
		for _, n := range s.Notes {
			got = append(got, n.Lyric)
		}
		require.Equal(t, want, got, words)
	}
	s := one(t, "X:1\nL:1/4\nK:C\n{d}C z [EG] D|\nw: one two three four\n")
	require.Equal(t, "one", s.Notes[1].Lyric, "an ornament and a rest have no words")
	require.Equal(t, "words beyond the notes of their line", s.Skipped[0].What)
}
