package ladder

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

var day = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func piece(id string, skills ...string) material.Material {
	m := material.Material{ID: id, Title: id, Strand: material.Method}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

func TestRungsAheadAreProjectedOneUponTheOther(t *testing.T) {
	lib := material.Library{"a": piece("a", "x"), "b": piece("b", "x"), "c": piece("c", "x", "y")}
	s := &standing.Standing{
		Materials: map[string]*standing.MaterialStanding{},
		Ability:   leap.Ability{Skills: map[string]leap.Evidence{"y": {StepsDone: 1, Steps: 2}}},
	}
	placed := []Placed{{"a", material.Method, ""}, {"b", material.Method, ""}, {"c", material.Method, ""}}
	v := Draw(s, lib, placed, leap.DefaultPolicy(), day, 0)
	require.Len(t, v.Rails, 1)
	rungs := v.Rails[0].Rungs
	// x is new, then cleared once (0.3), then secure; y is half planted (0.7).
	require.InDeltaSlice(t, []float64{1, 0.3, 0.7}, []float64{rungs[0].Leap.Size, rungs[1].Leap.Size, rungs[2].Leap.Size}, 1e-9)
	require.Equal(t, []Layer{Ahead, Ahead, Preview}, []Layer{rungs[0].Layer, rungs[1].Layer, rungs[2].Layer})
	require.True(t, rungs[1].Plateau)
}

func TestBegunRungsComeInTheOrderOfTheirBeginning(t *testing.T) {
	lib := material.Library{"a": piece("a", "x"), "b": piece("b", "y", "z", "v", "w"), "c": piece("c")}
	before := func(e ...leap.Evidence) *standing.Before { return &standing.Before{Brought: leap.Brought{Skills: e}} }
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{
		"b": {
			State:     standing.Cleared,
			Assigned:  day.AddDate(0, 0, -30),
			ClearedAt: day.AddDate(0, 0, -9),
			Before:    before(leap.Evidence{}, leap.Evidence{}, leap.Evidence{}, leap.Evidence{}),
		},
		"a": {State: standing.Working, Assigned: day.AddDate(0, 0, -8), RunDue: true, Before: before(leap.Evidence{Cleared: 1})},
	}}
	v := Draw(
		s,
		lib,
		[]Placed{{"a", material.Method, ""}, {"b", material.Method, ""}, {"c", material.Method, ""}},
		leap.DefaultPolicy(),
		day,
		0,
	)
	rungs := v.Rails[0].Rungs
	require.Equal(t, []string{"b", "a", "c"}, []string{rungs[0].Material.ID, rungs[1].Material.ID, rungs[2].Material.ID})
	require.True(t, rungs[0].Cliff)
	require.InDeltaSlice(t, []float64{4, 0.3}, []float64{rungs[0].Leap.Size, rungs[1].Leap.Size}, 1e-9, "as they were when they were begun")
	require.Equal(t, 3, rungs[0].Weeks)
	require.Equal(t, 2, rungs[1].Weeks)
	require.Equal(t, Summary{RunDue: []string{"a"}}, v.Summary())
	s.Materials["a"].RunDue = false
	require.Equal(t, Summary{Working: []string{"a"}}, v.Summary())
}

func TestAnEmptyLadderSaysHowToBegin(t *testing.T) {
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{}}
	require.Equal(t, Summary{Empty: true}, Draw(s, material.Library{}, nil, leap.DefaultPolicy(), day, 0).Summary())
}

// The next rung beyond a comfortable leap is a big jump; the first of a strand, what lies further up and what
// is set aside are none.
func TestOnlyTheNextRungIsABigJump(t *testing.T) {
	lib := material.Library{"a": piece("a", "x"), "b": piece("b", "y", "z"), "c": piece("c", "v", "w"), "first": piece("first", "p", "q")}
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{"a": {State: standing.Cleared, Assigned: day}}}
	placed := []Placed{{"a", material.Method, ""}, {"b", material.Method, ""}, {"c", material.Method, ""}, {"first", material.Ear, ""}}
	require.Equal(t, Summary{Cliffs: []string{"b"}}, Draw(s, lib, placed, leap.DefaultPolicy(), day, 0).Summary())
	placed[1].Aside = Paused
	require.Equal(
		t,
		Summary{},
		Draw(s, lib, placed, leap.DefaultPolicy(), day, 0).Summary(),
		"c comes after one that is set aside: not the next yet",
	)
}

func TestAMaterialThatLeftTheLibraryIsLeftOut(t *testing.T) {
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{"gone": {State: standing.Working}}}
	require.Empty(t, Draw(s, material.Library{}, []Placed{{"gone", material.Method, ""}}, leap.DefaultPolicy(), day, 0).Rails)
}

func TestWeeksOfAPieceAreThoseBegun(t *testing.T) {
	weeks := func(state standing.State, days, rested int) int {
		m := &standing.MaterialStanding{State: state, Assigned: day.AddDate(0, 0, -days), ClearedAt: day, PausedOn: civil.On(day), Rested: rested}
		return learned(m, piece("a"), leap.DefaultPolicy(), day, civil.On).Weeks
	}
	require.Equal(
		t,
		[]int{1, 1, 1, 2, 2, 3},
		[]int{
			weeks(standing.Working, 0, 0),
			weeks(standing.Working, 1, 0),
			weeks(standing.Working, 7, 0),
			weeks(standing.Working, 8, 0),
			weeks(standing.Cleared, 14, 0),
			weeks(standing.Cleared, 15, 0),
		},
	)
	require.Equal(t, 2, weeks(standing.Resting, 21, 7), "weeks of rest are none")
	r := learned(&standing.MaterialStanding{State: standing.Resting, PausedOn: civil.On(day)}, piece("a"), leap.DefaultPolicy(), day, civil.On)
	require.Equal(t, []any{Now, Paused, 0}, []any{r.Layer, r.Aside, r.Weeks})
}

func TestBigAndSmallJumpsHaveTheirLines(t *testing.T) {
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{}, Ability: leap.Ability{Skills: map[string]leap.Evidence{}}}
	lib := material.Library{"one": piece("one", "x")}
	drawn := func(reach float64, aside Aside) Rung {
		b := &batch{ahead: []Placed{{"one", material.Method, aside}}}
		return b.rungs(s, lib, leap.DefaultPolicy(), day, reach, 0)[0]
	}
	require.Equal(t, 1.0, drawn(1, "").Leap.Size)
	require.False(t, drawn(1, "").Cliff, "as large as the reach is within it")
	require.False(t, drawn(0.96, "").Cliff, "written the same it is within it")
	require.True(t, drawn(0.9, "").Cliff)
	require.True(t, drawn(0.9, Paused).Cliff)
	require.False(t, drawn(0.9, Skipped).Cliff, "what is skipped is no jump")
	require.False(t, drawn(4, "").Plateau, "a quarter of the reach is not small")
	require.True(t, drawn(4.1, "").Plateau)
}

// A piece that nobody knows is drawn as its neighbours in its book are, and is no cliff and no plateau.
// What was learned elsewhere was never begun here: how large its jump was then nobody knows, and it is no small one.
func TestTheJumpOfWhatWasLearnedElsewhereIsNotKnown(t *testing.T) {
	lib := material.Library{"a": piece("a", "x")}
	s := &standing.Standing{
		Materials: map[string]*standing.MaterialStanding{"a": {State: standing.Cleared, Why: standing.FromBefore}},
		Ability:   leap.Ability{Skills: map[string]leap.Evidence{}},
	}
	r := Draw(s, lib, nil, leap.DefaultPolicy(), day, 0).Rails[0].Rungs[0]
	require.Equal(t, []any{Review, true, false, false}, []any{r.Layer, r.Leap.Unknown, r.Plateau, r.Cliff})
}

func TestAnUnknownRungIsGuessedFromItsBook(t *testing.T) {
	lib := material.Library{}
	var placed []Placed
	for i, skills := range [][]string{{"x"}, {"x", "y", "z"}, nil, {"v", "w"}, nil} {
		m := piece(string(rune('a'+i)), skills...)
		m.SourceID, m.Order = "book", i+1
		lib[m.ID] = m
		placed = append(placed, Placed{m.ID, material.Method, ""})
	}
	e := lib["e"]
	e.SourceID = ""
	lib["e"] = e
	s := &standing.Standing{Materials: map[string]*standing.MaterialStanding{}, Ability: leap.Ability{Skills: map[string]leap.Evidence{}}}
	rungs := Draw(s, lib, placed, leap.DefaultPolicy(), day, 0).Rails[0].Rungs
	var got []float64
	for _, r := range rungs {
		got = append(got, r.Leap.Size)
	}
	require.InDeltaSlice(t, []float64{1, 2.3, 2, 2, 2}, got, 1e-9, "the middle one of 1, 2.3 and 2; without a book that of its rail")
	require.True(t, rungs[2].Leap.Unknown && rungs[4].Leap.Unknown)
	require.Equal(
		t,
		[]bool{false, true, false, true, false},
		[]bool{rungs[0].Cliff, rungs[1].Cliff, rungs[2].Cliff, rungs[3].Cliff, rungs[4].Cliff},
	)
	require.Equal(t, 3.0, rungs[2].Leap.High)

	// Looked at from near it is guessed from the same neighbours: those that lie farther off, and those learned before.
	for id, state := range map[string]standing.State{"a": standing.Cleared, "b": standing.Cleared, "c": standing.Working} {
		m := lib[id]
		had := leap.Ability{Skills: map[string]leap.Evidence{"x": {Shown: true}, "y": {Shown: true}, "z": {Shown: true}}}
		s.Materials[id] = &standing.MaterialStanding{State: state, Before: &standing.Before{Brought: leap.BroughtTo(&m, had)}}
	}
	whole := Draw(s, lib, placed, leap.DefaultPolicy(), day, 0).Rails[0].Rungs
	near := Draw(s, lib, placed, leap.DefaultPolicy(), day, 1).Rails[0].Rungs
	require.Equal(t, []string{"c", "d"}, []string{near[0].Material.ID, near[1].Material.ID})
	require.Equal(t, whole[2:4], near)
}
