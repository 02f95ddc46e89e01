package meeting

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/student/standing"
)

// ferry is a tune that a studio has added, for the piano.
func ferry() Own {
	return Own{
		ID:      "own1",
		Part:    "tune",
		Name:    "The ferry horn",
		Say:     "Two low keys: answer me.",
		Minutes: 4,
		From:    3,
		To:      9,
		Family:  instrument.Keyboard,
		Shows:   "keyboard-map",
		Home:    "black-keys",
	}
}

// What a studio has added comes where it belongs, before what ships; what it leaves out goes, and the next of the part comes.
func TestAStudiosOwnActivitiesArePlanned(t *testing.T) {
	set := Shipped().Over([]Own{ferry()})
	require.Equal(
		t,
		[]string{"hello", "echo-pitch", "echo-rhythm", "guess", "draw", "feet", "hand", "own1", "take-home"},
		ids(set.Plan(30, 5, instrument.Keyboard)),
	)
	require.NotContains(t, ids(set.Plan(30, 5, instrument.Bowed)), "own1", "it is for a keyboard")
	require.NotContains(t, ids(set.Plan(30, 10, instrument.Keyboard)), "own1", "it is for the young")

	pitch, _ := Shipped().Of("echo-pitch")
	off := Own{ID: "echo-pitch", Name: pitch.Name, Say: pitch.Say, Minutes: 4, From: 3, To: 120, Off: true}
	require.Equal(
		t,
		[]string{"hello", "hidden-pitch", "echo-rhythm", "guess", "draw", "feet", "hand", "black-keys", "take-home"},
		ids(Shipped().Over([]Own{off}).Plan(30, 5, instrument.Keyboard)),
	)
	off.Off = false
	require.Equal(t, ids(Shipped()), ids(Shipped().Over([]Own{off})), "what ships stays in its place")
	require.Equal(
		t,
		ids(Shipped().Plan(30, 5, instrument.Keyboard)),
		ids(Shipped().Plan(30, 5, instrument.Keyboard)),
		"and what ships is not touched",
	)
}

// What ships keeps what it plays and what can come of it, under another name.
func TestWhatShipsIsChangedInItsWords(t *testing.T) {
	set := Shipped().Over([]Own{{ID: "echo-pitch", Name: "Answer the gull", Say: "I call, you answer.", Minutes: 6, From: 4, To: 8, Part: "tune", Shows: "ties", Family: instrument.Wind, Home: "x"}})
	was, _ := Shipped().Of("echo-pitch")
	got, _ := set.Of("echo-pitch")
	was.Name, was.Say, was.Minutes, was.From, was.To = "Answer the gull", "I call, you answer.", 6, 4, 8
	require.Equal(t, was, got)
	later := set.On(Ear, 9, nil, dayOf(9), same)
	require.Equal(t, "Answer the gull", later.Activity.Name, "in later lessons, too")
	require.Len(t, later.Stairs, 5, "whose ages stay")
}

// What came of a studio's own activity shows its skill and goes home.
func TestWhatCameOfAStudiosOwn(t *testing.T) {
	set := Shipped().Over([]Own{ferry()})
	a, _ := set.Of("own1")
	require.Equal(t, []string{"came", "nearly", "not-yet"}, a.Outcomes)
	require.Equal(t, map[string]string{"came": "keyboard-map"}, a.Skills)
	require.Equal(t, []Step{{1, "came", 0}, {1, "nearly", 0}, {1, "not-yet", 0}}, a.Steps(nil))
	require.Equal(t, []string{"black-keys"}, set.TakeHome([]standing.Met{{Activity: "own1", Outcome: "came"}}))
	plain := Own{ID: "own2", Part: "draw"}.activity()
	require.Nil(t, plain.Skills)
	require.Nil(t, plain.Families)
}

func TestAnActivityIsCheckedBeforeItIsKept(t *testing.T) {
	known := func(id string) bool { return id == "keyboard-map" || id == "black-keys" }
	require.NoError(t, ferry().Check(Shipped(), known, known))
	for says, change := range map[string]func(*Own){
		"an activity needs a name of at most 80 letters":                    func(o *Own) { o.Name = " " },
		"write what you say, in at most 300 letters":                        func(o *Own) { o.Say = "" },
		"an activity takes 1 to 30 minutes":                                 func(o *Own) { o.Minutes = 31 },
		"the ages must lie between 0 and 120, the first not above the last": func(o *Own) { o.From = 10 },
		"choose the part of the meeting that it belongs to":                 func(o *Own) { o.Part = "lesson" },
		"choose a family of instruments that there is, or any":              func(o *Own) { o.Family = "bells" },
		"the skill that it shows is not in the list of skills":              func(o *Own) { o.Shows = "flying" },
		"what it becomes at home is not among your activities":              func(o *Own) { o.Home = "homework" },
	} {
		o := ferry()
		change(&o)
		require.EqualError(t, o.Check(Shipped(), known, known), says)
	}
	for _, minutes := range []int{1, 30} {
		o := ferry()
		o.Minutes = minutes
		require.NoError(t, o.Check(Shipped(), known, known))
	}
	o := ferry()
	o.Minutes = 0
	require.Error(t, o.Check(Shipped(), known, known))
	shipped := Own{ID: "feet", Name: "Feet", Say: "Do they reach?", Minutes: 1, To: 120, Part: "nowhere"}
	require.NoError(t, shipped.Check(Shipped(), known, known), "what ships keeps its part")
}

// Forms stand in the order of a meeting, and say what is the studio's.
func TestFormsOfActivities(t *testing.T) {
	feet := Own{ID: "feet", Name: "Feet", Say: "Reach?", Minutes: 1, To: 99, Off: true}
	own := []Own{ferry(), feet}
	forms := Shipped().Over(own).Forms(own)
	var order []string
	for _, f := range forms {
		order = append(order, f.ID)
	}
	require.Equal(t, []string{
		"hello", "echo-pitch", "hidden-pitch", "echo-rhythm", "keep-a-beat", "guess", "draw", "feet", "hand", "own1", "black-keys",
		"open-strings", "first-tone", "own-tune",
		"take-home", "dictate-rhythm",
	}, order)
	require.Equal(t, Form{Own: ferry(), Outcomes: []string{"came", "nearly", "not-yet"}}, forms[9])
	require.Equal(
		t,
		Form{
			Own:      Own{ID: "feet", Name: "Feet", Say: "Reach?", Minutes: 1, To: 99, Off: true, Part: "seat"},
			Ships:    true,
			Changed:  true,
			Outcomes: []string{"reach", "hang", "slides-forward"},
		},
		forms[7],
	)
	require.False(t, forms[0].Changed)
}
