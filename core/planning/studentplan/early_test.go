package studentplan_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
)

// A student with 0, 1, 2, 3 and 5 cleared pieces in a studio of nobody else: before the third no range and no date is said;
// a piece that nobody knows waits for the fifth, and what comes after it on its strand with it.
func TestWhenItIsTooEarlyToSay(t *testing.T) {
	var got []string
	for _, n := range []int{0, 1, 2, 3, 5} {
		lib := []material.Material{
			plantest.Piece("now", material.Method, "ties"),
			plantest.Piece("next", material.Method, "pulse"),
			plantest.Piece("last", material.Method, "plain"),
		}
		title := material.Material{ID: "title", Title: "A title alone", Strand: material.Method, Instrument: "piano"}
		s := plantest.Pupil(t, append(lib, title)...)
		var seen []forecast.Observation
		for i := range n {
			m := plantest.Piece(fmt.Sprint("old", i), material.Method, "pulse")
			s.Library[m.ID] = m
			plantest.Learned(s, m.ID, 20+7*i, 30)
			seen = append(seen, forecast.Observation{Student: "L", Leap: 1, DistinctBars: 8, Weeks: 2})
		}
		plantest.Working(s, "now", 7)
		a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(seen, forecast.DefaultPrior())}, plantest.Place(s, "now", "next", "title", "last"), studentplan.Options{})
		said := a.Foreseen()
		line := fmt.Sprintf("%d cleared:", n)
		for _, rail := range a.View.Rails {
			for _, r := range rail.Rungs {
				if r.Layer != ladder.Review {
					line += fmt.Sprintf(" %s early %t dated %t;", r.Material.ID, a.Early(r), said[r.Material.ID])
				}
			}
		}
		got = append(got, line)
	}
	require.Equal(t, []string{
		"0 cleared: now early true dated false; next early true dated false; title early true dated false; last early true dated false;",
		"1 cleared: now early true dated false; next early true dated false; title early true dated false; last early true dated false;",
		"2 cleared: now early true dated false; next early true dated false; title early true dated false; last early true dated false;",
		"3 cleared: now early false dated true; next early false dated true; title early true dated false; last early false dated false;",
		"5 cleared: now early false dated true; next early false dated true; title early false dated true; last early false dated true;",
	}, got)
}

// No date is said that lies more than a year and a half ahead.
func TestNoDateIsSaidFarAhead(t *testing.T) {
	s := plantest.Pupil(t)
	var seen []forecast.Observation
	for range 30 {
		seen = append(seen, forecast.Observation{Student: "L", Leap: 1, DistinctBars: 8, Weeks: 6})
	}
	var ids []string
	for i := range 30 {
		m := plantest.Piece(fmt.Sprintf("p%02d", i), material.Method, "pulse")
		s.Library[m.ID] = m
		ids = append(ids, m.ID)
	}
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(seen, forecast.DefaultPrior())}, plantest.Place(s, ids...), studentplan.Options{})
	last := time.Time{}
	said := a.Foreseen()
	for id := range said {
		if _, _, high := a.Days(a.When[id].Clear); high.After(last) {
			last = high
		}
	}
	require.Greater(t, len(said), 5)
	require.Less(t, len(said), 30)
	require.False(t, last.After(plantest.Monday.AddDate(0, 0, 7*78)))
}
