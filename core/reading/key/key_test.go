package key_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/key"
)

// The openings of package load with the keys in which they stand (facts of the trade), found from notes and signature alone:
// what the files say of the mode is taken away.
func TestKeysOfOldPieces(t *testing.T) {
	data, err := os.ReadFile("../load/testdata/graded.abc")
	require.NoError(t, err)
	_, pieces, err := scorefile.Pieces(data, true)
	require.NoError(t, err)
	all, right, minor, minorRight := 0, 0, 0, 0
	for _, s := range pieces {
		want := s.Bars[0].KeyName()
		isMinor := s.Bars[0].Mode == "minor"
		for i := range s.Bars {
			s.Bars[i].Mode = ""
		}
		k := key.Of(s)
		all++
		if isMinor {
			minor++
		}
		if k.Name() == want {
			right++
			if isMinor {
				minorRight++
			}
		} else {
			t.Logf("%s stands in %s, found %+v", s.Title, want, k)
		}
	}
	t.Logf("%d of %d keys, %d of %d minor ones", right, all, minorRight, minor)
	require.GreaterOrEqual(t, float64(right), 0.9*float64(all))
	require.GreaterOrEqual(t, float64(minorRight), 0.9*float64(minor))
}

func read(t *testing.T, abc string) key.Key {
	_, pieces, err := scorefile.Pieces([]byte(abc), true)
	require.NoError(t, err)
	return key.Of(pieces[0])
}

func TestReasonsAndDoubt(t *testing.T) {
	// Durations from A: 7 0 3 2 0 1 0 2 0 0 0 1; their correlation with the profile by Python’s statistics.correlation is 0.82.
	k := read(t, "X:1\nM:4/4\nL:1/4\nK:Am\nA B c A | d c B A | E ^G B e | A4 |]\n")
	require.Equal(t, "A minor", k.Name())
	require.Equal(t, []string{
		"the notes lie as in this key (0.82 of 1)", "the signature is its own", "the last bass note is its home", "its seventh is raised in bar 3",
	}, k.Why)
	require.Zero(t, k.Doubt)
	require.True(t, k.Minor())

	// A file that says nothing but a signature of one flat, and whose notes are those of D minor with a raised seventh.
	k = read(t, "X:1\nM:4/4\nL:1/4\nK:F\nd e f d | g f e d | A ^c e a | d4 |]\n")
	require.Equal(t, "D minor", k.Name())

	k = read(t, "X:1\nM:4/4\nL:1/4\nK:C\nC C G G | C C G G |]\n")
	require.Equal(t, "C major", k.Name())
	require.Equal(t, "C minor", k.Second, "without a third there is doubt")

	k = read(t, "X:1\nM:4/4\nL:1/4\nK:C\nz4 |]\n")
	require.Equal(t, key.Key{Doubt: 1, Why: []string{}}, k)
	require.Empty(t, k.Name())
}
