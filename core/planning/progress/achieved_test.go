package progress_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
)

func achiever() studentplan.Student {
	in := func(id, book string, strand material.Strand, tempo float64) material.Material {
		return material.Material{ID: id, Title: id, SourceID: book, Source: book, Strand: strand, Instrument: "piano", Quarters: 48, Tempo: tempo}
	}
	s := studentplan.Student{
		Profile:  studentplan.Profile{Instrument: "piano"},
		Standing: &standing.Standing{Materials: map[string]*standing.MaterialStanding{}},
	}
	s.Zone, s.Today = monday.Location(), monday
	s.Library = material.Library{
		"a": in("a", "First", material.Method, 96), "b": in("b", "First", material.Method, 0), "c": in("c", "First", material.Reading, 60),
		"d": in("d", "Second", material.Method, 60), "e": in("e", "Second", material.Method, 60), "f": in("f", "Second", material.Repertoire, 60),
		"x": in("x", "Two", material.Method, 60), "y": in("y", "Two", material.Method, 60), "t": in("t", "", material.Technique, 60),
	}
	learned := func(id string, weeksAgo int, state standing.State, why standing.Why) {
		s.Standing.Materials[id] = &standing.MaterialStanding{State: state, ClearedAt: day(weeksAgo), Assigned: day(weeksAgo + 2), Why: why}
	}
	learned("a", 20, standing.Polished, standing.ReadyToPlay)
	learned("b", 30, standing.Cleared, standing.FromBefore)
	learned("c", 10, standing.Cleared, standing.RunMet)
	learned("d", 8, standing.Cleared, standing.RunMet)
	learned("e", 6, standing.Cleared, standing.RunMet)
	learned("x", 5, standing.Cleared, standing.RunMet)
	learned("y", 4, standing.Cleared, standing.RunMet)
	learned("t", 3, standing.Cleared, standing.RunMet)
	s.Standing.Materials["f"] = &standing.MaterialStanding{State: standing.Working, Assigned: day(2)}
	return s
}

func TestTheRepertoire(t *testing.T) {
	require.Equal(t, []progress.Learned{
		{Material: "y", Day: day(4), Seconds: 48}, {Material: "x", Day: day(5), Seconds: 48}, {Material: "e", Day: day(6), Seconds: 48},
		{Material: "d", Day: day(8), Seconds: 48},
		{Material: "a", Day: day(20), Polished: true, Seconds: 30}, {Material: "b", Day: day(30), Before: true},
	}, progress.Repertoire(achiever()), "neither technique nor reading; the latest first")
}

// A book is gone through when every piece of it is learned; two pieces are no book.
func TestCertificates(t *testing.T) {
	s := achiever()
	require.Equal(t, []progress.Certificate{{ID: "First", Title: "First", Count: 3, Day: day(10)}}, progress.Certificates(s))
	s.Standing.Materials["f"].State, s.Standing.Materials["f"].ClearedAt = standing.Cleared, day(1)
	require.Equal(
		t,
		[]progress.Certificate{{ID: "Second", Title: "Second", Count: 3, Day: day(1)}, {ID: "First", Title: "First", Count: 3, Day: day(10)}},
		progress.Certificates(s),
		"the latest first",
	)
	first, ok := progress.CertificateOf(s, "First")
	require.Equal(t, []any{progress.Certificate{ID: "First", Title: "First", Count: 3, Day: day(10)}, true}, []any{first, ok})
	_, ok = progress.CertificateOf(s, "Third")
	require.False(t, ok)
	s.Instrument = "cello"
	require.Empty(t, progress.Certificates(s))
}

func TestTheOrderOfARecital(t *testing.T) {
	p := func(ladder, name string, age, seconds int) progress.Performed {
		return progress.Performed{Ladder: ladder, Material: name, Name: name, Age: age, Seconds: seconds}
	}
	a1, a2, b, c := p("A", "Ada", 6, 40), p("A", "Ada", 6, 90), p("B", "Ben", 6, 30), p("C", "Cleo", 12, 120)
	order := progress.InOrder([]progress.Performed{c, a2, b, a1})
	require.Equal(t, []progress.Performed{a1, b, a2, c}, order, "the youngest first, nobody twice in a row")
	require.Equal(
		t,
		[]progress.Performed{a1, a2},
		progress.InOrder([]progress.Performed{a2, a1}),
		"where it cannot be helped, the short one first",
	)
	seconds, unknown := progress.Lasts(append(order, p("D", "Dov", 9, 0)))
	require.Equal(t, []int{40 + 30 + 90 + 120 + 4*60, 1}, []int{seconds, unknown})
	seconds, _ = progress.Lasts(nil)
	require.Zero(t, seconds)
	require.EqualError(t, progress.CheckProgramme(" ", order), "a programme needs a title")
	require.EqualError(t, progress.CheckProgramme("Summer", nil), "choose at least one piece")
	require.EqualError(t, progress.CheckProgramme("Summer", make([]progress.Performed, 61)), "a programme has at most 60 pieces")
	require.NoError(t, progress.CheckProgramme("Summer", order))
}
