package studentlog

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var day = time.Date(2026, 3, 2, 15, 0, 0, 0, time.UTC)

// drawLog draws entries and corrections of any of them, corrections of corrections included.
func drawLog(t *rapid.T) []Entry {
	var log []Entry
	for i := range rapid.IntRange(0, 25).Draw(t, "n") {
		e := Entry{
			ID: fmt.Sprintf("E%02d", i), At: day.Add(time.Duration(rapid.IntRange(0, 50).Draw(t, "minute")) * time.Minute),
			Kind: MarkGiven, Material: "m", Focus: "f", Mark: rapid.SampledFrom([]Mark{None, Part, Full}).Draw(t, "mark"),
		}
		if i > 0 && rapid.IntRange(0, 2).Draw(t, "kind") == 0 {
			e = Entry{ID: e.ID, At: e.At, Kind: Correction, Corrects: fmt.Sprintf("E%02d", rapid.IntRange(0, 24).Draw(t, "target"))}
		}
		log = append(log, e)
	}
	return log
}

func TestOrderAndRepetitionDoNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		log := drawLog(t)
		want := Live(log)
		mixed := append(append([]Entry{}, log...), log[:len(log)/2]...)
		seed := rapid.Uint64().Draw(t, "seed")
		rand.New(rand.NewPCG(seed, 1)).Shuffle(len(mixed), func(a, b int) { mixed[a], mixed[b] = mixed[b], mixed[a] })
		require.Equal(t, want, Live(mixed))
	})
}

func TestACorrectionRemovesExactlyWhatItCorrects(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		log := drawLog(t)
		before := Live(log)
		if len(before) == 0 {
			return
		}
		gone := rapid.SampledFrom(before).Draw(t, "gone")
		after := Live(append(log, Entry{ID: "X1", At: day, Kind: Correction, Corrects: gone.ID}))
		require.Len(t, after, len(before)-1)
		for _, e := range after {
			require.NotEqual(t, gone.ID, e.ID)
		}
		// Correcting the correction brings it back.
		require.Equal(t, before, Live(append(log,
			Entry{ID: "X1", At: day, Kind: Correction, Corrects: gone.ID},
			Entry{ID: "X2", At: day, Kind: Correction, Corrects: "X1"})))
	})
}

func TestACorrectionMayArriveFirst(t *testing.T) {
	c := Entry{ID: "B", At: day, Kind: Correction, Corrects: "A"}
	require.Empty(t, Live([]Entry{c}))
	require.Empty(t, Live([]Entry{c, {ID: "A", At: day.Add(time.Hour), Kind: Note, Text: "x"}}))
}

func TestCirclesOfCorrectionsCancelOut(t *testing.T) {
	note := Entry{ID: "N", At: day, Kind: Note, Text: "stays"}
	log := []Entry{
		note,
		{ID: "A", At: day, Kind: Correction, Corrects: "B"},
		{ID: "B", At: day, Kind: Correction, Corrects: "A"},
		{ID: "S", At: day, Kind: Correction, Corrects: "S"},
	}
	require.Equal(t, []*Entry{&note}, Live(log))
}

func TestValidateNamesTheEntryAndTheFault(t *testing.T) {
	base := Entry{ID: "E1", At: day, Material: "m", Focus: "f"}
	for kind, bad := range map[Kind]func(*Entry){
		MarkGiven:  func(e *Entry) { e.Mark = "great" },
		SpotAdded:  func(e *Entry) { e.From, e.To = 4, 3 },
		SpotMended: func(e *Entry) {},
		Hearing:    func(e *Entry) { e.Rating = 5 },
		StepDone:   func(e *Entry) { e.Skill = "x" },
		Practised:  func(e *Entry) { e.Minutes = -1 },
		FocusAdded: func(e *Entry) { e.Text = "  " },
		Correction: func(e *Entry) { e.Corrects = "E1" },
		Assigned:   func(e *Entry) { e.Material = "" },
		"sang":     func(e *Entry) {},
	} {
		e := base
		e.Kind = kind
		bad(&e)
		err := e.Validate()
		require.ErrorContains(t, err, "E1", kind)
	}
	require.Error(t, Entry{}.Validate())
	require.NoError(t, Entry{ID: "E1", At: day, Kind: MarkGiven, Material: "m", Focus: "f", Mark: Part}.Validate())
}

func TestMarksOfAMaterialByFocusPoint(t *testing.T) {
	entries := []Entry{
		{ID: "1", Kind: MarkGiven, Material: "m", Focus: "a", Mark: Part}, {ID: "2", Kind: MarkGiven, Material: "other", Focus: "a", Mark: Full},
		{ID: "3", Kind: MarkGiven, Material: "m", Focus: "b", Mark: Full}, {ID: "4", Kind: SpotAdded, Material: "m", Focus: "a"},
		{ID: "5", Kind: MarkGiven, Material: "m", Focus: "a", Mark: Full},
	}
	var live []*Entry
	for i := range entries {
		live = append(live, &entries[i])
	}
	require.Equal(t, map[string][]Mark{"a": {Part, Full}, "b": {Full}}, MarksOf(live, "m"))
}
