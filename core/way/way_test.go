package way

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/preview"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/naming"
)

func TestPresets(t *testing.T) {
	for _, p := range Presets() {
		require.NoError(t, p.Way.Check(), p.Name)
		require.Equal(t, p.Key, p.Way.PresetOf())
	}
	require.Equal(t, "balanced", Default().PresetOf())
	// Review takes three quarters of the time in a sound-first studio (common practice, no source).
	require.Equal(t, 0.75, Presets()[0].Way.ReviewShare)
}

// Two ways differ in what they differ in, in the order of the switches.
func TestWaysDiffer(t *testing.T) {
	require.Empty(t, Default().Differs(Default()))
	other := Default()
	other.Sure, other.ReviewShare, other.FirstView = 0.6, 0.1, Sound
	require.Equal(t, []string{"reviewShare", "firstView", "sure"}, other.Differs(Default()))
}

// What planning is asked for is what the switches say.
func TestPlanningFollowsTheSwitches(t *testing.T) {
	w := Presets()[0].Way // sound first
	p := w.Planning()
	require.Equal(t, studentplan.Policy{HomeCounts: true,
		Standing: w.Standing(), Preview: preview.Policy{Rungs: 6, Lessons: 16, PerLesson: 2}, Review: w.Review(),
		Signs:       signs.Policy{StuckLessons: 3, ReviewWeeks: 4},
		ReviewShare: 0.75, ReadingAfter: 52, EaseAfterLeap: true, HearFirst: true, Approach: naming.ByDirection, FirstChunk: 1,
		Dose: week.ByYears, DoseRow: 3, PolishWeeks: 2, Sure: 0.8,
	}, p)
	require.Equal(t, 28, p.Review.StarvedAfterDays)
	require.Equal(t, 3, p.Standing.Leap.SecureAfter)
	require.False(t, Default().Planning().HearFirst)
}

func TestAStudentDiffersInSomeSwitches(t *testing.T) {
	base := Default()
	mine := base
	mine.ReviewShare, mine.Standard, mine.EaseAfterLeap = 0.6, "strict", false
	own := mine.Own(base)
	require.JSONEq(t, `{"reviewShare":0.6,"standard":"strict","easeAfterLeap":false}`, string(own))
	back, err := base.With(own)
	require.NoError(t, err)
	require.Equal(t, mine, back)
	require.Nil(t, base.Own(base))
	base.Bites = 4 // the studio changes; the student follows in everything else
	back, err = base.With(own)
	require.NoError(t, err)
	require.Equal(t, 4, back.Bites)
	_, err = base.With([]byte(`{"bites":"many"}`))
	require.Error(t, err)
}

func TestBoundsAreSaid(t *testing.T) {
	w := Default()
	w.ReviewShare, w.Bites, w.FirstView, w.Standard, w.Approach, w.Dose, w.BenchLean = 1.2, -1, "smell", "loud", "luck", "often", "far"
	require.EqualError(
		t,
		w.Check(),
		`the review share must lie between 0 and 0.9, not 1.2; the bites in a lesson must lie between 0 and 5, not -1; "often" is not a dose; "far" is not a lean; "luck" is not a way of reading; "smell" is not a first view; "loud" is not a clearing standard`,
	)
}
