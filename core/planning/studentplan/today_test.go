package studentplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// The log of a lesson: what the studio entered today, and what it took back today, of whichever day that was.
func TestWhatWasEnteredAndTakenBackToday(t *testing.T) {
	s := pupil(t)
	log := []studentlog.Entry{
		{ID: "a", At: on(7), Kind: studentlog.Assigned, Material: "m"},
		{ID: "b", At: on(0), Kind: studentlog.Note, Text: "calm"},
		{ID: "c", At: on(0), Kind: studentlog.Practised, Actor: studentlog.Family, Item: "x"},
		{ID: "d", At: on(0), Kind: studentlog.Note, Text: "no"},
		{ID: "e", At: on(0), Kind: studentlog.Practised, Actor: studentlog.Family, Item: "y"},
		{ID: "f", At: on(7), Kind: studentlog.Note, Text: "old"},
		{ID: "g", At: on(0), Kind: studentlog.Correction, Corrects: "d"},
		{ID: "h", At: on(0), Kind: studentlog.Correction, Corrects: "e", Actor: studentlog.Family},
		{ID: "i", At: on(7), Kind: studentlog.Correction, Corrects: "f"},
		{ID: "j", At: on(0), Kind: studentlog.Correction, Corrects: "a"},
	}
	live := studentlog.Live(log)
	var entered, taken []string
	for _, e := range s.EnteredToday(live) {
		entered = append(entered, e.ID)
	}
	require.Equal(t, []string{"b"}, entered)
	for _, x := range s.TakenBackToday(log, live) {
		taken = append(taken, x.Entry.ID)
	}
	require.Equal(t, []string{"d", "a"}, taken)
}
