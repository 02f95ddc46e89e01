package scorefile

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/midi"
)

func TestFormats(t *testing.T) {
	for text, want := range map[string]Format{
		"X:1\nK:C\nC|":              ABC,
		"%abc-2.1\n\nX:1\nK:C\nC|":  ABC,
		"My tunes\n\nX:1\nK:C\nC|":  ABC,
		"\xEF\xBB\xBFT:a\nK:C\nC|":  ABC,
		"CDE|FGA|":                  ABC,
		"MThd\x00\x00":              MIDI,
		"  <?xml version=\"1.0\"?>": MusicXML,
		"PK\x03\x04":                MusicXML,
		"Dear teacher":              MusicXML,
		"":                          MusicXML,
	} {
		require.Equal(t, want, FormatOf([]byte(text)), text)
	}
}

func TestOneTuneOfSeveralIsKept(t *testing.T) {
	file := []byte("X:1\nT:One\nK:C\nC5|\n\nX:2\nT:Two\nK:C\nD|\n")
	f, pieces, err := Pieces(file, true)
	require.NoError(t, err)
	require.Equal(t, ABC, f)
	require.Len(t, pieces, 2)
	require.Len(t, pieces[0].Notes, 2, "five quavers are written as two notes tied")
	require.Len(t, pieces[0].Sounding(), 1)
	kept, err := Keep(file, 1)
	require.NoError(t, err)
	_, again, err := Pieces(kept, true)
	require.NoError(t, err)
	require.Equal(t, pieces[1], again[0])
	_, played, err := Pieces(midi.Write(pieces[0]), true)
	require.NoError(t, err)
	require.Equal(t, pieces[0].Sounding()[0].MIDI, played[0].Sounding()[0].MIDI)
}

func TestErrorsAreHandedOn(t *testing.T) {
	for _, text := range []string{"", "Dear teacher", "MThd", "X:1\nK:C\n"} {
		_, _, err := Pieces([]byte(text), true)
		require.Error(t, err)
	}
}
