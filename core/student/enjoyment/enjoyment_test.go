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
	require.Equal(
		t,
		[]int{2, 1, 0, 0, 0, 0},
		[]int{Quiet.Notice(), Away.Notice(), Glowing.Notice(), Playing.Notice(), Between.Notice(), Unknown.Notice()},
	)
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

func TestTheKindsHaveTheirLines(t *testing.T) {
	for _, c := range []struct {
		practises, enjoys float64
		want              Kind
	}{
		{0.8, 0.2, Quiet}, {0.8, 0.8, Glowing}, {0.2, 0.8, Playing}, {0.2, 0.2, Away},
		{0.8, 0.5, Between}, {0.2, 0.36, Between}, {0.5, 0.2, Between}, {0.64, 0.8, Between},
		{0.8, 0.35, Unknown}, {0.8, 0.65, Unknown}, {0.35, 0.8, Unknown}, {0.65, 0.2, Unknown}, {0.5, 0.5, Unknown}, {0.79, 0.5, Unknown},
		{0.5, 0.21, Unknown},
	} {
		require.Equal(t, c.want, kind(c.practises, c.enjoys), "%+v", c)
	}
}

func TestWhatSpeaksForJoyAndAgainstIt(t *testing.T) {
	b := Of(Evidence{Set: 10, Practised: 7, Joyful: 3, Liked: 2, Fine: 4, Hard: 1, Disliked: 1})
	require.InDelta(t, 8.0/12, b.Practice.Middle, 1e-12)
	require.InDelta(t, 8.0/13, b.Enjoyment.Middle, 1e-12, "3 + 2 + half of 4 for it, 1 + 1 + half of 4 against")
	require.InDelta(t, 12.0/13, Of(Evidence{Set: 5, Practised: 11}).Practice.Middle, 1e-12, "more than was set is no evidence against")
}
