package taste

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/student/studentlog"
)

var lib = material.Library{
	"jig": {Tags: []string{"comic", "rhythmic"}}, "air": {Tags: []string{"lyrical"}}, "march": {Tags: []string{"rhythmic"}}, "plain": {},
}

func TestTasteIsLearnedFromWhatIsDone(t *testing.T) {
	p := Learn(map[string]map[studentlog.Reaction]int{
		"jig": {studentlog.PlayedFirst: 2, studentlog.Liked: 1}, "march": {studentlog.Disliked: 1}, "plain": {studentlog.AskedFor: 4},
	}, []string{"jig", "air", "march"}, lib)
	require.InDelta(t, 4.0/6, p["comic"].Score, 1e-12, "2 × 1.5 + 1 for, none against, a doubt of 2")
	require.InDelta(t, 2.5/7.5, p["rhythmic"].Score, 1e-12)
	require.InDelta(t, -0.2/2.2, p["lyrical"].Score, 1e-12, "had and never chosen")
	require.Equal(t, map[studentlog.Reaction]int{studentlog.PlayedFirst: 2, studentlog.Liked: 1}, p["comic"].By)
	fit, of := p.Fit(lib["jig"])
	require.InDelta(t, (4.0/6+2.5/7.5)/2, fit, 1e-12)
	require.Equal(t, "comic", of.Tag)
	fit, _ = p.Fit(lib["plain"])
	require.Zero(t, fit)
	list := p.List()
	require.Len(t, list, 2, "no signs of the lyrical")
	require.Equal(t, "comic", list[0].Tag)
}

// One more sign for a tag never makes it less liked, one against never more.
func TestSignsPullTheirWay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := func(name string) int { return rapid.IntRange(0, 9).Draw(t, name) }
		signs := map[studentlog.Reaction]int{studentlog.PlayedFirst: n("first"), studentlog.Liked: n("liked"), studentlog.Disliked: n("not")}
		score := func() float64 {
			s := Learn(map[string]map[studentlog.Reaction]int{"air": signs}, nil, lib)["lyrical"].Score
			require.LessOrEqual(t, s*s, 1.0)
			return s
		}
		before := score()
		signs[studentlog.Unasked]++
		more := score()
		require.GreaterOrEqual(t, more, before)
		signs[studentlog.Disliked]++
		require.LessOrEqual(t, score(), more)
	})
}

func TestTagsOfOneScoreComeByTheirNames(t *testing.T) {
	p := Profile{
		"slow":  {Tag: "slow", Score: 0.5, Signs: 1},
		"comic": {Tag: "comic", Score: 0.5, Signs: 1},
		"fast":  {Tag: "fast", Score: -0.5, Signs: 2},
		"had":   {Tag: "had", Score: -0.1},
	}
	var tags []string
	for _, l := range p.List() {
		tags = append(tags, l.Tag)
	}
	require.Equal(t, []string{"comic", "slow", "fast"}, tags)
	fit, of := p.Fit(material.Material{Tags: []string{"slow", "fast", "comic"}})
	require.InDelta(t, 0.5/3, fit, 1e-12)
	require.Equal(t, "slow", of.Tag, "of those that say as much, the first")
}
