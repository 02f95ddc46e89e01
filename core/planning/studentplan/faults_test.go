package studentplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
)

// The usual faults of a pianist in their order: of two that are open the one that was seen first is looked after now.
func TestUsualFaultsAndTheOneThatIsLookedAfter(t *testing.T) {
	s := pupil(t)
	usual := setup.Faults(s.OnInstrument())
	require.Greater(t, len(usual), 3)
	states := func() (out []FaultState) {
		for i, f := range s.UsualFaults() {
			require.Equal(t, usual[i], f.Fault)
			out = append(out, f.State)
		}
		return out
	}
	none := make([]FaultState, len(usual))
	for i := range none {
		none[i] = NoFault
	}
	require.Equal(t, none, states())
	require.Nil(t, s.Watched())

	s.Standing.Faults = []standing.OpenFault{
		{ID: usual[2].ID, Named: usual[2].ID, Since: on(10), Seen: on(3)},
		{ID: usual[0].ID, Named: usual[0].ID, Since: on(5), Seen: on(5)},
	}
	want := append([]FaultState(nil), none...)
	want[2], want[0] = FaultNow, FaultOpen
	require.Equal(t, want, states())
	require.Equal(t, monday.AddDate(0, 0, -10), s.UsualFaults()[2].Since)
	require.Equal(t, 10, s.Watched().Days)
}

func TestWhatWaitsForTheTeacher(t *testing.T) {
	require.Equal(t, 2, Waiting([]Note{{Kind: Question}, {Kind: AlsoPlayed}, {Kind: Question, AnsweredAt: on(0)}, {Kind: MoveLesson}}))
	require.Zero(t, Waiting(nil))
}
