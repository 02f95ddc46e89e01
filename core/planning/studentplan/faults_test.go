package studentplan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
)

// The usual faults of a pianist in their order: of two that are open the one that was seen first is looked after now.
func TestUsualFaultsAndTheOneThatIsLookedAfter(t *testing.T) {
	s := plantest.Pupil(t)
	usual := setup.Faults(s.OnInstrument())
	require.Greater(t, len(usual), 3)
	states := func() (out []studentplan.FaultState) {
		for i, f := range s.UsualFaults() {
			require.Equal(t, usual[i], f.Fault)
			out = append(out, f.State)
		}
		return out
	}
	none := make([]studentplan.FaultState, len(usual))
	for i := range none {
		none[i] = studentplan.NoFault
	}
	require.Equal(t, none, states())
	require.Nil(t, s.Watched())

	s.Standing.Faults = []standing.OpenFault{
		{ID: usual[2].ID, Named: usual[2].ID, Since: plantest.On(10), Seen: plantest.On(3)},
		{ID: usual[0].ID, Named: usual[0].ID, Since: plantest.On(5), Seen: plantest.On(5)},
	}
	want := append([]studentplan.FaultState(nil), none...)
	want[2], want[0] = studentplan.FaultNow, studentplan.FaultOpen
	require.Equal(t, want, states())
	require.Equal(t, plantest.Monday.AddDate(0, 0, -10), s.UsualFaults()[2].Since)
	require.Equal(t, 10, s.Watched().Days)
}

func TestWhatWaitsForTheTeacher(t *testing.T) {
	require.Equal(t, 2, withfamily.Waiting([]withfamily.Note{{Kind: withfamily.Question}, {Kind: withfamily.AlsoPlayed}, {Kind: withfamily.Question, AnsweredAt: plantest.On(0)}, {Kind: withfamily.MoveLesson}}))
	require.Zero(t, withfamily.Waiting(nil))
}
