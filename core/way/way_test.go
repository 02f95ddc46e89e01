package way

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/require"

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

// Every switch is said in words when it changes, and only those that changed.
func TestEverySwitchSaysWhatItChanges(t *testing.T) {
	require.Empty(t, Changes(Default(), Default()))
	other := Way{
		ReviewShare: 0.1, ReadingAfter: 3, Approach: naming.ByName, FirstView: Sound, FirstChunk: 3, Standard: "light", SecureAfter: 5, Comfortable: 3,
		Bites: 1, LookRungs: 2, LookWeeks: 2, ReviewWeeks: 2, StuckLessons: 7, PolishWeeks: 9, Sure: 0.6, Dose: "once", DoseRow: 5, HandShape: "ball", BenchLean: "above",
	}
	changes := Changes(Default(), other)
	require.Len(t, changes, reflect.TypeFor[Way]().NumField())
	for _, c := range changes {
		require.NotEmpty(t, c.Means, c.Key)
		require.Contains(t, other.fields(), c.Key)
	}
	require.Equal(t, "45 % of practice", changes[0].From)
	require.Equal(t, "10 % of practice", changes[0].To)
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
	require.EqualError(t, w.Check(), `the review share must lie between 0 and 0.9, not 1.2; the bites in a lesson must lie between 0 and 5, not -1; "often" is not a dose; "far" is not a lean; "luck" is not a way of reading; "smell" is not a first view; "loud" is not a clearing standard`)
}
