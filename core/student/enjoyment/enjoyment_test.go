package enjoyment

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Gelman et al., Bayesian Data Analysis, section 2.4 (from memory): 437 girls of
// 980 births with placenta previa give, under a uniform prior, a posterior mean of
// 0.446 and a central interval of 95 % from 0.415 to 0.477.
func TestThePosteriorAgreesWithTheTextbook(t *testing.T) {
	b := posterior(437, 980-437)
	require.InDelta(t, 0.446, b.Mean(), 0.0005)
	require.InDelta(t, 0.415, b.Quantile(0.025), 0.0005)
	require.InDelta(t, 0.477, b.Quantile(0.975), 0.0005)
}

// Laplace's rule of succession: after n of n the next comes with (n+1)/(n+2).
func TestTheRuleOfSuccession(t *testing.T) {
	for n := range 20 {
		require.InDelta(t, float64(n+1)/float64(n+2), Of(Evidence{Set: n, Practised: n}).Practice.Middle, 1e-12)
	}
}

func TestTheQuietOneIsNoticed(t *testing.T) {
	require.Equal(t, Quiet, Of(Evidence{Set: 40, Practised: 36, Hard: 10, Fine: 4}).Kind)
	require.Equal(t, Glowing, Of(Evidence{Set: 40, Practised: 36, Joyful: 10, Liked: 2}).Kind)
	require.Equal(t, Playing, Of(Evidence{Set: 40, Practised: 5, Joyful: 3, Liked: 4}).Kind)
	require.Equal(t, Away, Of(Evidence{Set: 40, Practised: 5, Hard: 6}).Kind)
	require.Equal(t, Between, Of(Evidence{Set: 40, Practised: 36, Joyful: 6, Hard: 6}).Kind)
	require.Equal(t, []int{2, 1, 0, 0, 0, 0}, []int{Quiet.Notice(), Away.Notice(), Glowing.Notice(), Playing.Notice(), Between.Notice(), Unknown.Notice()})
}

// One bad day labels nobody.
func TestLittleEvidenceSaysNothing(t *testing.T) {
	require.Equal(t, Unknown, Of(Evidence{}).Kind)
	require.Equal(t, Unknown, Of(Evidence{Set: 1, Practised: 1, Hard: 1}).Kind)
	require.Equal(t, Share{Low: 0.1, Middle: 0.5, High: 0.9}, roundedShare(Of(Evidence{}).Practice))
}

func roundedShare(s Share) Share {
	round := func(x float64) float64 { return float64(int(x*1e6+0.5)) / 1e6 }
	return Share{round(s.Low), round(s.Middle), round(s.High)}
}

func TestMoreEvidenceIsSurer(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 50).Draw(t, "set")
		k := rapid.IntRange(0, n).Draw(t, "practised")
		little, much := Of(Evidence{Set: n, Practised: k}).Practice, Of(Evidence{Set: 10 * n, Practised: 10 * k}).Practice
		require.Less(t, much.High-much.Low, little.High-little.Low)
		require.True(t, much.Low <= much.Middle && much.Middle <= much.High)
	})
}
