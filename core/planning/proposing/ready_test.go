package proposing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
)

func TestWhoIsReady(t *testing.T) {
	m := plantest.Piece("m", material.Method, "ties", "plain")
	names := func(list []Ready) (out []string) {
		for _, r := range list {
			out = append(out, r.Name+" "+string(r.Kind))
		}
		return out
	}
	at := func(name string, skills ...string) studentplan.Student {
		s := plantest.Pupil(t, m)
		s.Name = name
		for _, skill := range skills {
			s.Standing.Ability.Skills[skill] = leap.Evidence{Shown: true}
		}
		return *s
	}
	begun, cleared, blocked := at("Begun"), at("Cleared"), at("Blocked")
	plantest.Working(&begun, "m", 8)
	plantest.Learned(&cleared, "m", 8, 20)
	asked := m
	asked.Demands = append(asked.Demands, material.Demand{Skill: "pulse", Weight: 0.1})
	blocked.Library["m"] = asked
	require.Equal(t, []string{"Ready ready", "Half ready", "Reach reach", "Begun begun", "Cleared begun"},
		names(WhoIsReady([]studentplan.Student{begun, at("Reach"), at("Half", "plain"), cleared, at("Ready", "plain", "ties")}, m)))
	r := ReadyFor(cleared, m)
	require.True(t, r.Cleared)
	require.False(t, ReadyFor(begun, m).Cleared)
	require.Equal(t, []any{2.0, 1.5, Reaching}, []any{ReadyFor(at("X"), m).Leap.Size, ReadyFor(at("X"), m).Reach, ReadyFor(at("X"), m).Kind})
	r = ReadyFor(blocked, asked)
	require.Equal(t, Blocked, r.Kind)
	require.Equal(t, []string{"ties"}, r.First, "ties stand on the pulse, which is new in it as well")
}

func TestWhatWasClearedOutsideABook(t *testing.T) {
	in, out := plantest.Piece("in", material.Method, "ties"), plantest.Piece("out", material.Method, "plain")
	in.SourceID, out.SourceID = "book", "other"
	s := plantest.Pupil(t, in, out, plantest.Piece("work", material.Method, "pulse"))
	plantest.Learned(s, "in", 9, 9)
	plantest.Learned(s, "out", 9, 9)
	plantest.Working(s, "work", 9)
	s.Standing.Ability.Skills["thumb"] = leap.Evidence{Shown: true, Cleared: 4}
	s.Standing.Ability.Skills["ties"] = leap.Evidence{Cleared: 1}
	a := Outside(*s, []string{"book"})
	require.Equal(t, map[string]leap.Evidence{"plain": {Cleared: 1}, "thumb": {Shown: true}}, a.Skills)
	require.Equal(t, 8, a.LongestBars)
}

// Who is ready: of a piece that nobody knows it says so, after those who could reach a known one.
func TestNobodyIsReadyForWhatNobodyKnows(t *testing.T) {
	s := plantest.Pupil(t)
	r := ReadyFor(*s, material.Material{ID: "title", Title: "A title alone", Instrument: "piano"})
	require.Equal(t, NotKnown, r.Kind)
	require.Zero(t, r.Leap.Ready)
}
