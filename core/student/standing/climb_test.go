package standing

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/metronome"
	"patientladder/core/library/material"
	"patientladder/core/student/studentlog"
)

// The marks of 60 to 96 in five weeks follow from the traditional metronome and are
// checked there; here a good week moves on and a bad one goes back (common practice).
func TestAClimbIsEasedAfterABadWeekAndReachesItsGoal(t *testing.T) {
	var log []studentlog.Entry
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	note := func(e studentlog.Entry) *Climb {
		at = at.AddDate(0, 0, 7)
		e.ID, e.At, e.Actor, e.Material = at.Format(time.DateOnly), at, "t", "scale"
		require.NoError(t, e.Validate())
		log = append(log, e)
		return Fold(log, Context{Policy: DefaultPolicy(), Day: at}).Materials["scale"].Climb
	}
	play := func(tempo int, held bool) *Climb {
		return note(studentlog.Entry{Kind: studentlog.TempoPlayed, Tempo: tempo, Held: held})
	}
	c := note(studentlog.Entry{Kind: studentlog.ClimbBegun, Climb: &studentlog.Climb{From: 60, To: 96, Weeks: 5}})
	require.Equal(t, []int{66, 72, 80, 88, 96}, c.Marks)
	require.Equal(t, 66, c.Mark())
	require.Equal(t, 72, play(66, true).Mark())
	require.Equal(t, 72, play(69, true).Mark(), "below the mark of the week nothing moves")
	require.Equal(t, 72, play(80, false).Mark(), "a try above the mark says nothing about it")
	c = play(72, false)
	require.Equal(t, []int{66, 66}, c.Marks[:2])
	require.Equal(t, 66, c.Mark())
	require.Len(t, c.Marks, 6, "one week more")
	c = play(66, false)
	require.Equal(t, 63, c.Mark(), "not even that: below it on the metronome")
	require.Len(t, c.Marks, 7)
	for range 6 {
		c = play(c.Mark(), true)
	}
	require.Equal(t, len(c.Marks), c.At)
	require.Equal(t, 96, c.Mark())
	require.Nil(t, note(studentlog.Entry{Kind: studentlog.ClimbBegun, Climb: &studentlog.Climb{}}), "and it can be ended")
	s := Fold(log, Context{Policy: DefaultPolicy(), Day: at})
	require.Equal(t, 96, s.Materials["scale"].Tempo)
	for _, bad := range []struct {
		c    studentlog.Climb
		want string
	}{
		{studentlog.Climb{From: 96, To: 60, Weeks: 5}, "a tempo ladder rises"},
		{studentlog.Climb{From: 60, To: 96, Weeks: 0}, "1 to 104 weeks"},
	} {
		e := studentlog.Entry{ID: "x", At: at, Kind: studentlog.ClimbBegun, Material: "scale", Climb: &bad.c}
		require.ErrorContains(t, e.Validate(), bad.want)
	}
}

// However the weeks go, a climb stays on the metronome, never shrinks, and ends at its goal.
func TestAClimbStaysOnTheMetronome(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := rapid.IntRange(40, 150).Draw(t, "from")
		x := studentlog.Climb{From: from, To: rapid.IntRange(from+1, 208).Draw(t, "to"), Weeks: rapid.IntRange(1, 20).Draw(t, "weeks")}
		w := &work{}
		f := &fold{out: &Standing{}}
		f.climb(w, &studentlog.Entry{Climb: &x})
		goal := w.Climb.Marks[len(w.Climb.Marks)-1]
		for range rapid.IntRange(0, 30).Draw(t, "lessons") {
			long := len(w.Climb.Marks)
			f.tempo(w, &studentlog.Entry{Tempo: w.Climb.Mark(), Held: rapid.Bool().Draw(t, "held")})
			require.GreaterOrEqual(t, len(w.Climb.Marks), long)
			require.Contains(t, metronome.Marks(), w.Climb.Mark())
			require.Equal(t, goal, w.Climb.Marks[len(w.Climb.Marks)-1])
		}
	})
}

// A usual fault counts once it was seen: the exercise is ready when it is gone, too.
func TestAFaultThatWasSeenCountsUntilItIsGone(t *testing.T) {
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	var log []studentlog.Entry
	note := func(e studentlog.Entry) *MaterialStanding {
		at = at.Add(time.Minute)
		e.ID, e.At, e.Actor, e.Material = at.Format(time.RFC3339), at, "t", "scale"
		log = append(log, e)
		lib := material.Library{"scale": {ID: "scale", FocusPoints: []material.FocusPoint{{ID: "g", Text: "even"}}}}
		return Fold(log, Context{Library: lib, Policy: DefaultPolicy(), Day: at}).Materials["scale"]
	}
	note(studentlog.Entry{Kind: studentlog.Assigned})
	require.True(t, note(studentlog.Entry{Kind: studentlog.MarkGiven, Focus: "g", Mark: studentlog.Full}).RunDue)
	m := note(studentlog.Entry{Kind: studentlog.MarkGiven, Focus: material.Fault + "late-thumb", Mark: studentlog.None})
	require.False(t, m.RunDue)
	require.Equal(t, 2, m.Points)
	require.True(t, note(studentlog.Entry{Kind: studentlog.MarkGiven, Focus: material.Fault + "late-thumb", Mark: studentlog.Full}).RunDue)
}

func TestACycleIsKeptUntilItIsEnded(t *testing.T) {
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	var log []studentlog.Entry
	note := func(e studentlog.Entry) *Standing {
		at = at.Add(time.Hour)
		e.ID, e.At, e.Actor = at.Format(time.RFC3339), at, "t"
		require.NoError(t, e.Validate())
		log = append(log, e)
		return Fold(log, Context{Policy: DefaultPolicy(), Day: at})
	}
	c := studentlog.Cycle{Type: "scale", Step: "apart", Kind: "major", First: "B", Order: "fifths", From: "2026-09-07"}
	require.Equal(t, &c, note(studentlog.Entry{Kind: studentlog.CycleKept, Cycle: &c}).Cycle)
	note(studentlog.Entry{Kind: studentlog.LessonMissed, Day: "2026-09-21"})
	require.Equal(t, []string{"2026-09-14", "2026-09-21"}, note(studentlog.Entry{Kind: studentlog.LessonMissed, Day: "2026-09-14"}).Missed)
	require.Nil(t, note(studentlog.Entry{Kind: studentlog.CycleKept, Cycle: &studentlog.Cycle{}}).Cycle)
	require.ErrorContains(
		t,
		studentlog.Entry{ID: "x", At: at, Kind: studentlog.LessonMissed, Day: "Monday"}.Validate(),
		"needs the day of the lesson",
	)
	require.ErrorContains(
		t,
		studentlog.Entry{ID: "x", At: at, Kind: studentlog.CycleKept, Cycle: &studentlog.Cycle{First: "B"}}.Validate(),
		"needs a type",
	)
}

// The highest tempo that held is kept, with a climb or without one; a try that did not hold is none. It
// counts as played, so that the piece is not taken for forgotten.
func TestTheHighestTempoThatHeld(t *testing.T) {
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	var log []studentlog.Entry
	play := func(tempo int, held bool) *MaterialStanding {
		at = at.AddDate(0, 0, 7)
		log = append(
			log,
			studentlog.Entry{
				ID:       at.Format(time.DateOnly),
				At:       at,
				Actor:    "t",
				Kind:     studentlog.TempoPlayed,
				Material: "scale",
				Tempo:    tempo,
				Held:     held,
			},
		)
		return Fold(log, Context{Policy: DefaultPolicy(), Day: at}).Materials["scale"]
	}
	require.Equal(t, 60, play(60, true).Tempo)
	require.Equal(t, 60, play(84, false).Tempo)
	require.Equal(t, 72, play(72, true).Tempo)
	m := play(66, true)
	require.Equal(t, 72, m.Tempo, "to play it slower once is not to lose it")
	require.Equal(t, at, m.LastPlayed)
	require.Equal(t, 4, m.Lessons)
	require.Nil(t, m.Climb)
}

// A climb and a cycle survive being kept: what is decoded is what was folded.
func TestClimbsAndCyclesAreKept(t *testing.T) {
	at := time.Date(2026, 9, 7, 15, 0, 0, 0, time.UTC)
	c := studentlog.Cycle{Type: "scale", Step: "apart", Kind: "major", First: "B", Order: "fifths", From: "2026-09-07", Before: true}
	log := []studentlog.Entry{
		{ID: "1", At: at, Actor: "t", Kind: studentlog.CycleKept, Cycle: &c},
		{ID: "2", At: at.Add(time.Minute), Actor: "t", Kind: studentlog.LessonMissed, Day: "2026-09-14"},
		{
			ID:       "3",
			At:       at.Add(2 * time.Minute),
			Actor:    "t",
			Kind:     studentlog.ClimbBegun,
			Material: "scale",
			Climb:    &studentlog.Climb{From: 60, To: 96, Weeks: 5},
		},
		{ID: "4", At: at.Add(3 * time.Minute), Actor: "t", Kind: studentlog.TempoPlayed, Material: "scale", Tempo: 66, Held: false},
	}
	s := Fold(log, Context{Policy: DefaultPolicy(), Day: at})
	data, err := s.Encode()
	require.NoError(t, err)
	kept, err := Decode(data)
	require.NoError(t, err)
	require.Equal(t, s.Cycle, kept.Cycle)
	require.Equal(t, s.Missed, kept.Missed)
	require.Equal(t, s.Materials["scale"].Climb.Marks, kept.Materials["scale"].Climb.Marks)
	require.Equal(t, s.Materials["scale"].Climb.Mark(), kept.Materials["scale"].Climb.Mark())
	// In whatever order it arrives, and with the missed lesson taken back.
	backwards := Fold([]studentlog.Entry{log[3], log[1], log[0], log[2]}, Context{Policy: DefaultPolicy(), Day: at})
	again, err := backwards.Encode()
	require.NoError(t, err)
	require.Equal(t, data, again)
	log = append(log, studentlog.Entry{ID: "5", At: at.Add(time.Hour), Actor: "t", Kind: studentlog.Correction, Corrects: "2"})
	require.Empty(t, Fold(log, Context{Policy: DefaultPolicy(), Day: at}).Missed)
}
