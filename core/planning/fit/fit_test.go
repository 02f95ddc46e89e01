package fit

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
	"patientladder/core/student/studentlog"
	"patientladder/core/student/taste"
)

func skills(t require.TestingT) skill.Catalogue {
	c, err := skill.Parse([]byte(`[
		{"id":"pulse","name":"Pulse"}, {"id":"pairs","name":"Pairs","needs":["pulse"],"steps":["clap","say"]},
		{"id":"three","name":"Threes","needs":["pulse"],"steps":["say"]},
		{"id":"cross","name":"Two against three","needs":["pairs","three"],"steps":["one key","two keys","a scale"],"exposures":3}]`))
	require.NoError(t, err)
	return c
}

func piece(id string, strand material.Strand, asks ...string) material.Material {
	m := material.Material{ID: id, Title: id, Strand: strand}
	for _, s := range asks {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

func input(t require.TestingT, ms ...material.Material) Input {
	lib := material.Library{}
	for _, m := range ms {
		lib[m.ID] = m
	}
	return Input{
		Candidates: ms,
		Library:    lib,
		Ability:    leap.Ability{Skills: map[string]leap.Evidence{}},
		Policy:     leap.DefaultPolicy(),
		Reach:      leap.Reach{Size: 2},
		Skills:     skills(t),
		PerLesson:  2,
	}
}

func TestABlockedPieceSaysTheShortestWay(t *testing.T) {
	in := input(
		t,
		piece("show", material.Repertoire, "cross"),
		piece("drum", material.Method, "pulse"),
		piece("long drum", material.Method, "pulse", "three"),
	)
	require.Equal(t, "drum", Rank(in)[0].Material.ID, "the others are blocked")
	b := in.candidate(in.Candidates[0]).Blocks[0]
	require.Equal(t, Block{Skill: "cross", Exposures: 3, Way: b.Way, Lessons: b.Lessons}, b, "met 0 of 3 times")
	require.Equal(
		t,
		[]Step{{Skill: "pulse", Material: "drum"}, {Skill: "pairs", Bites: 2}, {Skill: "three", Bites: 1}, {Skill: "cross", Bites: 3}},
		b.Way,
	)
	require.Equal(t, 5, b.Lessons, "pairs and threes side by side, then three of the cross, one a lesson")

	in.Ability.Skills["cross"] = leap.Evidence{StepsDone: 2, Steps: 3, Cleared: 1}
	require.Empty(t, in.candidate(in.Candidates[0]).Blocks, "met three times")
	in.Candidates[0] = piece("study", material.Technique, "pairs", "pulse")
	require.Equal(t, "pulse", in.candidate(in.Candidates[0]).Blocks[0].Under)
}

func TestTasteAndBalanceAndSizeRank(t *testing.T) {
	a, b, c := piece("a", material.Method, "pulse"), piece("b", material.Method, "pulse"), piece("c", material.Ear, "pulse")
	b.Tags = []string{"comic"}
	in := input(t, a, b, c)
	in.Taste = taste.Learn(map[string]map[studentlog.Reaction]int{"b": {studentlog.PlayedFirst: 3}}, nil, in.Library)
	in.Idle = map[material.Strand]bool{material.Ear: true}
	ranked := Rank(in)
	require.Equal(t, []string{"b", "c", "a"}, []string{ranked[0].Material.ID, ranked[1].Material.ID, ranked[2].Material.ID})
	require.Equal(
		t,
		[]Reason{
			{Kind: Known},
			{Kind: Within, Leap: 1, Reach: 2},
			{
				Kind:   Liked,
				Liking: taste.Liking{Tag: "comic", Score: 4.5 / 6.5, Signs: 3, By: map[studentlog.Reaction]int{studentlog.PlayedFirst: 3}},
			},
		},
		ranked[0].Reasons,
	)
	require.Equal(t, []Reason{{Kind: Known}, {Kind: Within, Leap: 1, Reach: 2}, {Kind: IdleStrand}}, ranked[1].Reasons)
	in.Ease = true
	require.InDelta(t, 1.0, in.candidate(a).Size, 1e-12, "a leap of 1 where under 1 is wanted is just over")
	in.Reach.Size = 1
	require.InDelta(t, 0.5, in.candidate(a).Size, 1e-12)
	for _, x := range []struct {
		reach, size float64
		ease        bool
		why         Why
	}{{1, 0.5, true, NotEasy}, {3, 1, true, EasyWanted}, {0.5, 0.5, false, Beyond}, {1, 1, false, Within}, {4, 1, false, Within}, {4.5, 0.7, false, Plateau}} {
		in.Reach.Size, in.Ease = x.reach, x.ease
		c := in.candidate(a)
		require.InDelta(t, x.size, c.Size, 1e-12, "a leap of 1 against a reach of %v", x.reach)
		require.Equal(t, x.why, c.Reasons[1].Kind)
		require.InDelta(t, 2*c.Ready+1.5*x.size+0.4*c.Balance, c.Score, 1e-12)
	}
}

// Whatever the student likes, nothing blocked stands above what is open.
func TestNothingBlockedIsRankedAboveWhatIsOpen(t *testing.T) {
	all := []string{"pulse", "pairs", "three", "cross"}
	rapid.Check(t, func(t *rapid.T) {
		var ms []material.Material
		for i := range rapid.IntRange(1, 8).Draw(t, "pieces") {
			m := piece(
				fmt.Sprint(i),
				rapid.SampledFrom(material.Strands()).Draw(t, "strand"),
				rapid.SliceOfNDistinct(rapid.SampledFrom(all), 0, 4, rapid.ID).Draw(t, "asks")...)
			m.Tags = rapid.SliceOfN(rapid.SampledFrom(material.Tags()), 0, 2).Draw(t, "tags")
			ms = append(ms, m)
		}
		in := input(t, ms...)
		for _, s := range all {
			in.Ability.Skills[s] = leap.Evidence{
				Cleared:   rapid.IntRange(0, 3).Draw(t, "cleared"),
				StepsDone: rapid.IntRange(0, 1).Draw(t, "steps"),
				Steps:     3,
			}
		}
		in.Taste = taste.Learn(map[string]map[studentlog.Reaction]int{"0": {studentlog.Liked: 5}, "1": {studentlog.Disliked: 5}}, nil, in.Library)
		blocked := false
		last := 0.0
		for i, c := range Rank(in) {
			if len(c.Blocks) == 0 {
				require.False(t, blocked, "an open one after a blocked one")
				require.True(t, i == 0 || c.Score <= last)
				last = c.Score
			}
			blocked = blocked || len(c.Blocks) > 0
		}
	})
}

func TestHowWellALeapFits(t *testing.T) {
	in := Input{Reach: leap.Reach{Size: 2}}
	for _, c := range []struct {
		leap float64
		ease bool
		fits float64
		why  Why
	}{
		{0.49, false, 0.7, Plateau}, {0.5, false, 1, Within}, {2, false, 1, Within}, {4, false, 0.5, Beyond},
		{0.99, true, 1, EasyWanted}, {1, true, 1, NotEasy}, {4, true, 0.25, NotEasy},
	} {
		in.Ease = c.ease
		fits, why := in.size(c.leap)
		require.Equal(t, c.fits, fits, "%+v", c)
		require.Equal(t, c.why, why, "%+v", c)
	}
}

func TestOfEqualCandidatesTheEarlierInItsBook(t *testing.T) {
	late, early := piece("late", material.Method), piece("early", material.Method)
	late.Order, early.Order = 2, 1
	in := input(t, late, early)
	ranked := Rank(in)
	require.Equal(t, []string{"early", "late"}, []string{ranked[0].Material.ID, ranked[1].Material.ID})
	require.Equal(t, ranked[0].Score, ranked[1].Score)
}

// The easiest piece for a skill: the smallest leap, of equal ones the first by its id, never the piece itself.
func TestTheEasiestPieceForASkill(t *testing.T) {
	in := input(
		t,
		piece("hard", material.Method, "pulse", "three"),
		piece("same b", material.Method, "pulse"),
		piece("same a", material.Method, "pulse"),
		piece("other", material.Method, "three"),
	)
	for range 20 { // the library is a map
		require.Equal(t, "same a", in.easiest("pulse", ""))
		require.Equal(t, "same b", in.easiest("pulse", "same a"))
		require.Equal(t, "other", in.easiest("three", ""))
		require.Empty(t, in.easiest("cross", ""))
	}
}

// Steps that were taken shorten the way, and a skill that is known is no part of it.
func TestTheWayIsWhatIsLeft(t *testing.T) {
	in := input(t, piece("show", material.Repertoire, "cross"), piece("drum", material.Method, "pulse"))
	in.Ability.Skills["pairs"] = leap.Evidence{StepsDone: 1, Steps: 2}
	in.Ability.Skills["pulse"] = leap.Evidence{Cleared: 5}
	steps, lessons := in.way("cross", "show")
	require.Equal(t, []Step{{Skill: "pairs", Bites: 1}, {Skill: "three", Bites: 1}, {Skill: "cross", Bites: 3}}, steps)
	require.Equal(t, 4, lessons)
	steps, lessons = in.way("pulse", "")
	require.Empty(t, steps)
	require.Zero(t, lessons)
}

// Shown is met; and what is met three times of three is met.
func TestWhatAPerformancePieceMayAskFor(t *testing.T) {
	show := piece("show", material.Repertoire, "cross")
	blocks := func(e leap.Evidence, m material.Material) int {
		in := input(t, m)
		in.Ability.Skills["cross"] = e
		return len(in.blocks(m))
	}
	require.Equal(t, 1, blocks(leap.Evidence{Cleared: 2}, show))
	require.Equal(t, 0, blocks(leap.Evidence{Cleared: 3}, show))
	require.Equal(t, 0, blocks(leap.Evidence{Cleared: 2, Shown: true}, show))
	require.Equal(t, 0, blocks(leap.Evidence{Cleared: 2}, piece("study", material.Technique, "cross")), "only where it is performed")
}
