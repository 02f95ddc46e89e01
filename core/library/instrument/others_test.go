package instrument

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestAnyInstrumentCanBeNamed(t *testing.T) {
	for given, want := range map[string]string{"Voice": "voice", "  Double   Bass ": "double bass", "Hackbrett": "hackbrett", "箏琴": "箏琴", "cor anglais": "cor anglais", "piano": "piano"} {
		got, ok := Named(given)
		require.True(t, ok, given)
		require.Equal(t, want, got)
	}
	for _, bad := range []string{"", " ", "x", "b3", "flute!", "<b>", strings.Repeat("x", 41), "-'"} {
		_, ok := Named(bad)
		require.False(t, ok, bad)
	}
	plain := Plain([]string{"piano", "zurna", "voice", "zurna"})
	require.Equal(t, append(Others(), "zurna"), plain)
	require.Equal(t, Instrument{ID: "zurna"}, Any("zurna"))
	require.Equal(t, Keyboard, Any("piano").Family)
	require.True(t, slices.IsSorted(Others()))
	for _, name := range Others() {
		got, ok := Named(name)
		require.True(t, ok)
		require.Equal(t, name, got)
		_, known := Of(name)
		require.False(t, known, "%s has data of its own", name)
	}
}

// A name that is a letter off a known one is asked about; one that is known, or like none, is not.
func TestWhatANameIsMeantFor(t *testing.T) {
	for name, want := range map[string]string{
		"pinao": "piano", "Celo": "cello", "ukelele": "ukulele", "violine": "violin", "doublebass": "double bass", "mandolino": "mandolin",
		"piano": "", "double bass": "", "nyckelharpa": "", "kora": "",
	} {
		known, ok := Meant(name)
		require.Equal(t, []any{want, want != ""}, []any{known, ok}, name)
	}
}
