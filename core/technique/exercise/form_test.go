package exercise_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/exercise"
)

func fiveFaults(t *testing.T) []exercise.Fault {
	t.Helper()
	five, ok := exercise.TypeOf("five-finger")
	require.True(t, ok)
	return five.Faults
}

// Of what a teacher writes only what differs from what ships is kept, and the rest stays as it came.
func TestAStudioSaysAnExerciseInItsOwnWords(t *testing.T) {
	faults := append([]exercise.Fault{}, fiveFaults(t)...)
	faults[0].Off = true
	faults[1].Look = "fingers that rest point at the ceiling"
	faults = append(faults, exercise.Fault{ID: "own-1", Text: " the elbow sticks out ", Look: "a wing"})
	form, err := exercise.Written("five-finger", map[string][]string{
		"parallel": {"round fingers", "every tip firm ", "both hands land together"},
		"contrary": {"the same finger in both hands", "thumbs stay light", "both hands land together"}, // as it came
	}, faults)
	require.NoError(t, err)
	require.Equal(
		t,
		exercise.Form{
			Type:   "five-finger",
			Goals:  map[string][]string{"parallel": {"round fingers", "every tip firm", "both hands land together"}},
			Faults: []exercise.Fault{faults[0], faults[1], {ID: "own-1", Text: "the elbow sticks out", Look: "a wing"}},
		},
		form,
	)
	require.False(t, form.Empty())

	piano, _ := instrument.Of("piano")
	own := exercise.Forms{form}
	e, err := own.Parse("five-finger/parallel/C/major-five-finger/-", piano)
	require.NoError(t, err)
	require.Equal(t, []string{"round fingers", "every tip firm", "both hands land together"}, e.Step.Goals)
	var watched []string
	for _, f := range e.Type.Watched() {
		watched = append(watched, f.ID+": "+f.Look)
	}
	require.Equal(
		t,
		[]string{"flying-fingers: fingers that rest point at the ceiling", "uneven-five: listen to the step from 3 to 4 with eyes closed",
			"wrist-drop: a line from elbow to knuckles has a dent at the wrist", "own-1: a wing"},
		watched,
	)
	other, err := own.Parse("five-finger/contrary/C/major-five-finger/-", piano)
	require.NoError(t, err)
	require.Equal(t, []string{"the same finger in both hands", "thumbs stay light", "both hands land together"}, other.Step.Goals)
	require.Len(t, other.Type.Faults, 5, "one that is off keeps its name")
	require.True(t, own.Changed("five-finger"))
	require.False(t, own.Changed("scale"))
	require.Equal(t, own.For(instrument.Any("piano"))[0], e.Type)

	came, err := exercise.Forms(nil).Parse("five-finger/parallel/C/major-five-finger/-", piano)
	require.NoError(t, err)
	require.Equal(t, []string{"round fingers, every tip firm", "each note as loud as the next", "both hands land together"}, came.Step.Goals)
	require.Equal(t, fiveFaults(t), came.Type.Watched(), "what ships was not written over")
	require.Len(t, exercise.Forms(nil).All(), len(own.All()))

	same, err := exercise.Written("five-finger", nil, fiveFaults(t))
	require.NoError(t, err)
	require.True(t, same.Empty())
	require.False(t, exercise.Forms{same}.Changed("five-finger"))
}

func TestWhatIsWrongWithTheWordsOfAnExerciseIsSaid(t *testing.T) {
	long := strings.Repeat("é", 121)
	goals := func(g ...string) map[string][]string { return map[string][]string{"parallel": g} }
	fault := func(id, text, look string) []exercise.Fault {
		return []exercise.Fault{{ID: id, Text: text, Look: look}}
	}
	twelve := []exercise.Fault{}
	for _, c := range "abcdefghijklm" {
		twelve = append(twelve, exercise.Fault{ID: string(c), Text: "x", Look: "y"})
	}
	for says, c := range map[string]struct {
		id     string
		goals  map[string][]string
		faults []exercise.Fault
	}{
		`there is no exercise "juggling"`: {id: "juggling"},
		`five fingers have no step "up"`:  {"five-finger", map[string][]string{"up": {"a", "b", "c"}}, nil},
		"“hands together, the same way” needs three goals: they are read before each practice": {"five-finger", goals("a", " ", "c"), nil},
		"a goal of “hands together, the same way” is longer than 120 letters":                  {"five-finger", goals("a", "b", long), nil},
		"each fault needs a name of its own":                                                   {"five-finger", nil, fault("", "x", "y")},
		"a fault needs words for what it is and for how it is seen or heard":                   {"five-finger", nil, fault("a", "x", " ")},
		"a fault has at most 200 letters":                                                      {"five-finger", nil, fault("a", "x", strings.Repeat("é", 201))},
		"a type has at most 12 faults: nobody watches for more":                                {"five-finger", nil, twelve},
	} {
		_, err := exercise.Written(c.id, c.goals, c.faults)
		require.EqualError(t, err, says)
	}
	_, err := exercise.Written("five-finger", goals("a", "b"), nil)
	require.EqualError(t, err, "“hands together, the same way” needs three goals: they are read before each practice")
	_, err = exercise.Written("five-finger", goals(long[:120*2], "b", "c"), append(twelve[:0:0], twelve[:12]...))
	require.NoError(t, err)
}
