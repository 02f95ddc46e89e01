package lookback

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/plantest"
	"patientladder/core/student/studentlog"
)

// The log of a lesson: what the studio entered today, and what it took back today, of whichever day that was.
func TestWhatWasEnteredAndTakenBackToday(t *testing.T) {
	s := plantest.Pupil(t)
	log := []studentlog.Entry{
		{ID: "a", At: plantest.On(7), Kind: studentlog.Assigned, Material: "m"},
		{ID: "b", At: plantest.On(0), Kind: studentlog.Note, Text: "calm"},
		{ID: "c", At: plantest.On(0), Kind: studentlog.Practised, Actor: studentlog.Family, Item: "x"},
		{ID: "d", At: plantest.On(0), Kind: studentlog.Note, Text: "no"},
		{ID: "e", At: plantest.On(0), Kind: studentlog.Practised, Actor: studentlog.Family, Item: "y"},
		{ID: "f", At: plantest.On(7), Kind: studentlog.Note, Text: "old"},
		{ID: "g", At: plantest.On(0), Kind: studentlog.Correction, Corrects: "d"},
		{ID: "h", At: plantest.On(0), Kind: studentlog.Correction, Corrects: "e", Actor: studentlog.Family},
		{ID: "i", At: plantest.On(7), Kind: studentlog.Correction, Corrects: "f"},
		{ID: "j", At: plantest.On(0), Kind: studentlog.Correction, Corrects: "a"},
	}
	live := studentlog.Live(log)
	var entered, taken []string
	for _, e := range EnteredToday(*s, live) {
		entered = append(entered, e.ID)
	}
	require.Equal(t, []string{"b"}, entered)
	for _, x := range TakenBackToday(*s, log, live) {
		taken = append(taken, x.Entry.ID)
	}
	require.Equal(t, []string{"d", "a"}, taken)
}
