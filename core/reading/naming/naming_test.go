package naming

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/reading/reading"
)

// The names are common practice in the countries that use them.
func TestNotes(t *testing.T) {
	for pitch, want := range map[string][3]string{
		"C4": {"C4", "C4", "do4"}, "F#3": {"F#3", "Fis3", "fa#3"}, "B2": {"B2", "H2", "si2"}, "Bb2": {"Bb2", "B2", "sib2"},
		"Eb": {"Eb", "Es", "mib"}, "Ab5": {"Ab5", "As5", "lab5"}, "Db": {"Db", "Des", "reb"}, "C##4": {"C##4", "Cisis4", "do##4"},
		"Bbb3": {"Bbb3", "Heses3", "sibb3"},
	} {
		for i, notes := range []Notes{Letters, LettersWithH, Solfege} {
			require.Equal(t, want[i], Words{Notes: notes}.Note(pitch))
		}
	}
	require.Equal(t, "middle C", Words{Notes: Solfege}.Note("middle C"))
}

func TestMovesAndValues(t *testing.T) {
	require.Equal(t, "leap", Words{}.Kind(reading.Leap))
	require.Equal(t, "skip", Words{Steps: AllSkips}.Kind(reading.Leap))
	require.Equal(t, "step", Words{Steps: AllSkips}.Kind(reading.Step))
	w := Words{Values: QuarterNotes}
	require.Equal(
		t,
		"dotted quarter note and eighth note; sixteenth notes; Half notes",
		w.Text("dotted crotchet and quaver; semiquavers; Minims"),
	)
	require.Equal(t, "crotchets", Words{}.Text("crotchets"))
}

// Keys are printed with their signs; where the names of a country say them in letters they stay.
func TestKeysAsTheyArePrinted(t *testing.T) {
	for key, want := range map[string][3]string{
		"Db": {"D♭", "Des", "re♭"}, "F#": {"F♯", "Fis", "fa♯"}, "B": {"B", "H", "si"}, "Bb": {"B♭", "B", "si♭"}, "C##": {"C♯♯", "Cisis", "do♯♯"},
		"C": {"C", "C", "do"},
	} {
		for i, notes := range []Notes{Letters, LettersWithH, Solfege} {
			require.Equal(t, want[i], Words{Notes: notes}.Key(key), "%s in %v", key, notes)
		}
	}
}

func TestKeysInTheStudiosNames(t *testing.T) {
	for _, c := range []struct {
		notes      Notes
		name, want string
	}{
		{Letters, "B flat major", "B flat major"}, {"", "B flat major", "B flat major"}, {LettersWithH, "B flat major", "B major"},
		{LettersWithH, "B minor", "H minor"},
		{LettersWithH, "F sharp minor", "Fis minor"}, {LettersWithH, "C major", "C major"}, {LettersWithH, "no key", "no key"},
		{LettersWithH, "", ""},
	} {
		require.Equal(t, c.want, Words{Notes: c.notes}.KeyOf(c.name), "%s %s", c.notes, c.name)
	}
}
