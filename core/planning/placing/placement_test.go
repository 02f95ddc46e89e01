package placing

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/placement"
	"patientladder/core/student/standing"
)

// elsewhere is a student of nine from another book, with two books of the studio: the first asks for s0 to s5 one after the
// other, the second for s4 to s9, two pieces each.
func elsewhere(t *testing.T, answers map[string]string) (*studentplan.Student, []curriculum.Source) {
	s := plantest.Pupil(t)
	var list []skill.Skill
	for i := range 10 {
		list = append(list, skill.Skill{ID: fmt.Sprint("s", i), Name: fmt.Sprint("skill ", i), Family: "hands"})
	}
	var err error
	s.Skills, err = skill.Catalogue{}.With(list)
	require.NoError(t, err)
	add := func(book string, from int) {
		for i := range 12 {
			m := plantest.Piece(fmt.Sprintf("%s%02d", book, i), material.Method, fmt.Sprint("s", from+i/2))
			m.SourceID, m.Order = book, i+1
			m.Demands[0].Weight = 2 // alone beyond a comfortable leap
			s.Library[m.ID] = m
		}
	}
	add("one", 0)
	add("two", 4)
	for i := range 10 {
		id := fmt.Sprint("s", i)
		for range 4 {
			if a := answers[id]; a != "" {
				s.Standing.Asked = append(s.Standing.Asked, standing.Asked{Skill: id, Answer: a})
			}
		}
	}
	return s, []curriculum.Source{{ID: "one", Title: "One", Instrument: "piano"}, {ID: "two", Title: "Two", Instrument: "piano"}}
}

// Somebody who has all of the first book but one hole begins in the second, which comes first in the answer; a little back is
// the piece that fills the hole.
func TestAPlacementNamesTheBookInWhichOneBegins(t *testing.T) {
	s, books := elsewhere(
		t,
		map[string]string{
			"s0": "yes",
			"s1": "yes",
			"s2": "yes",
			"s3": "yes",
			"s4": "no",
			"s5": "yes",
			"s6": "yes",
			"s7": "no",
			"s8": "no",
			"s9": "no",
		},
	)
	p := Of(*s, books, forecast.Fit(nil, forecast.DefaultPrior()), nil)
	require.Len(t, p.Entries, 2)
	two, one := p.Entries[0], p.Entries[1]
	require.Equal(t, []string{"two", "one"}, []string{two.Book.ID, one.Book.ID}, "the book that is through comes last")
	require.Equal(t, []int{6, 6, 6}, []int{two.At, two.Low, two.High}, "before s7")
	require.Equal(t, 12, one.At)
	require.Empty(t, one.Routes)
	require.Equal(t, []int{3, 2}, []int{two.Needed, two.There})
	require.Empty(t, p.Holes, "nothing soon asks for s4, and s7 comes now")

	kinds := []RouteKind{}
	for _, r := range two.Routes {
		kinds = append(kinds, r.Kind)
	}
	require.Equal(t, []RouteKind{GoOn}, kinds)
}

// A hole that the next pieces ask for is filled with the last earlier piece that teaches it.
func TestALittleBackFillsWhatIsAskedForSoon(t *testing.T) {
	s, books := elsewhere(
		t,
		map[string]string{
			"s0": "yes",
			"s1": "yes",
			"s2": "yes",
			"s3": "no",
			"s4": "yes",
			"s5": "no",
			"s6": "no",
			"s7": "no",
			"s8": "no",
			"s9": "no",
		},
	)
	m := s.Library["one10"] // asks for s5, and now for the hole as well
	m.Demands = append(m.Demands, material.Demand{Skill: "s3", Weight: 1})
	s.Library["one10"] = m
	p := Of(*s, books[:1], forecast.Fit(nil, forecast.DefaultPrior()), nil)
	e := p.Entries[0]
	require.Equal(t, 10, e.At)
	require.Equal(t, []Hole{{Skill: p.Holes[0].Skill, Known: p.Holes[0].Known, Soon: []string{"one10"}, Hurts: 1}}, p.Holes)
	require.Equal(t, "s3", p.Holes[0].Skill.ID)
	require.Less(t, p.Holes[0].Known, 0.1)
	require.Len(t, e.Routes, 3)
	first, beside, on := e.Routes[0], e.Routes[1], e.Routes[2]
	require.Equal(t, []RouteKind{FillFirst, FillBeside, GoOn}, []RouteKind{first.Kind, beside.Kind, on.Kind})
	require.Equal(t, []string{"one07"}, first.Fill, "the later of the two that teach it")
	require.Equal(t, [][]string{{"s3"}, nil, {"s3"}}, [][]string{first.Filled, first.Open, on.Open})
	require.Equal(
		t,
		[]float64{2, 3, 3},
		[]float64{round(first.Largest), round(beside.Largest), round(on.Largest)},
		"s5 alone, or with the hole",
	)
	require.Positive(t, first.Low)
	require.LessOrEqual(t, first.Low, first.High)

	accepted, ok := Accept(*s, p, "one", FillFirst)
	require.True(t, ok)
	require.Equal(
		t,
		[]ladder.Placed{
			{Material: "one07", Strand: material.Method},
			{Material: "one10", Strand: material.Method},
			{Material: "one11", Strand: material.Method},
		},
		accepted.Rungs,
	)
	accepted, _ = Accept(*s, p, "one", FillBeside)
	require.Equal(
		t,
		[]string{"one10", "one07", "one11"},
		[]string{accepted.Rungs[0].Material, accepted.Rungs[1].Material, accepted.Rungs[2].Material},
	)
	_, ok = Accept(*s, p, "three", GoOn)
	require.False(t, ok)
	_, ok = Accept(*s, p, "one", "elsewhere")
	require.False(t, ok)
}

// The teacher moves the entry: what is needed before it and the leaps after it follow.
func TestAnEntryIsMoved(t *testing.T) {
	s, books := elsewhere(
		t,
		map[string]string{
			"s0": "yes",
			"s1": "yes",
			"s2": "yes",
			"s3": "no",
			"s4": "no",
			"s5": "no",
			"s6": "no",
			"s7": "no",
			"s8": "no",
			"s9": "no",
		},
	)
	model := forecast.Fit(nil, forecast.DefaultPrior())
	e := Of(*s, books[:1], model, nil).Entries[0]
	require.Equal(t, []any{6, false}, []any{e.At, e.Chosen})
	moved := Of(*s, books[:1], model, map[string]string{"one": "one02"}).Entries[0]
	require.Equal(t, []any{2, true, 1, 1}, []any{moved.At, moved.Chosen, moved.Needed, moved.There})
	require.Equal(t, "one02", moved.Leaps[0].Material.ID)
	require.Zero(t, round(moved.Leaps[0].Leap.Size))
	_, ok := entry(*s, curriculum.Source{ID: "none"}, placement.New(nil, placement.Brought{}, placement.DefaultPolicy()), s.Standing.Ability, "")
	require.False(t, ok, "a book without pieces has no entry")
}

// A girl in the middle of the first book, of whom nothing was asked: what comes after her last piece was never met, so she
// goes on there, the second book begins at its beginning, and of the ear, which nobody looked at, nothing is claimed or kept.
func TestAPlacementGoesNoFurtherThanTheLog(t *testing.T) {
	s, books := elsewhere(t, nil)
	ear := []skill.Skill{}
	for i := range 5 {
		ear = append(ear, skill.Skill{ID: fmt.Sprint("ear", i), Name: fmt.Sprint("ear ", i), Family: "ear"})
	}
	var err error
	s.Skills, err = s.Skills.With(ear)
	require.NoError(t, err)
	for i := range 6 {
		plantest.Learned(s, fmt.Sprintf("one%02d", i), 40-5*i, 60)
	}
	for i := range 3 {
		s.Standing.Ability.Skills[fmt.Sprint("s", i)] = leap.Evidence{Cleared: 2}
	}
	p := Of(*s, books, forecast.Fit(nil, forecast.DefaultPrior()), nil)
	at := map[string]int{}
	for _, e := range p.Entries {
		at[e.Book.ID] = e.At
	}
	require.Equal(t, map[string]int{"one": 6, "two": 0}, at)
	for _, x := range []string{"s3", "s5", "s9"} {
		require.Less(t, p.Belief.Known(x), 0.1, x)
	}
	require.Equal(t, []placement.Settled{{Strand: "hands", There: 3, Missing: 6, Open: 1}, {Strand: "ear", Open: 5}}, p.Belief.Strands())
	accepted, ok := Accept(*s, p, "one", GoOn)
	require.True(t, ok)
	for _, k := range accepted.Known {
		require.Contains(t, []string{"s0", "s1", "s2"}, k.Skill)
	}
	// The same of somebody from elsewhere, of whom no piece is known, stays open.
	none, _ := elsewhere(t, nil)
	none.Standing.Ability.Skills["s0"] = leap.Evidence{Shown: true}
	require.Greater(t, Believed(*none, books).Known("s3"), 0.3)
}

func round(x float64) float64 { return math.Round(x*100) / 100 }
