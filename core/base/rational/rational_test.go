package rational

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// The reference is math/big, which shares no code with this package.
func TestAgreesWithMathBig(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		draw := func(name string) (Rat, *big.Rat) {
			n := rapid.Int64Range(-1_000_000, 1_000_000).Draw(t, name+"n")
			d := rapid.Int64Range(1, 10_000).Draw(t, name+"d")
			return New(n, d), big.NewRat(n, d)
		}
		a, ba := draw("a")
		b, bb := draw("b")
		same := func(got Rat, want *big.Rat) {
			require.Equal(t, want.Num().Int64(), got.Num())
			require.Equal(t, want.Denom().Int64(), got.Den())
		}
		same(a.Add(b), new(big.Rat).Add(ba, bb))
		same(a.Sub(b), new(big.Rat).Sub(ba, bb))
		same(a.Mul(b), new(big.Rat).Mul(ba, bb))
		require.Equal(t, ba.Cmp(bb), a.Cmp(b))

		text, err := a.MarshalText()
		require.NoError(t, err)
		var back Rat
		require.NoError(t, back.UnmarshalText(text))
		require.Equal(t, 0, a.Cmp(back))
	})
}

func TestRefusesWhatIsNoFraction(t *testing.T) {
	for _, bad := range []string{"", "1/0", "1/-2", "x", "1/2/3", "1.5"} {
		var r Rat
		require.Error(t, r.UnmarshalText([]byte(bad)), bad)
	}
}

func TestLCMRefusesWhatDoesNotFit(t *testing.T) {
	got, ok := LCM(480, 384)
	require.True(t, ok)
	require.EqualValues(t, 1920, got)
	_, ok = LCM(1_000_003, 999_983)
	require.False(t, ok)
}
