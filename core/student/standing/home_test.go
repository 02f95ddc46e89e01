package standing

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/civil"
	"patientladder/core/student/studentlog"
)

// What comes from home is no lesson: it is kept in view for eight weeks, gives
// no skill and moves no date of a lesson; what was taken back is gone.
func TestReportsFromHomeAreNoLesson(t *testing.T) {
	ctx := context(t)
	w := &tell{}
	w.week(0).assign("p1")
	w.mark("p1", "a", studentlog.Part)
	before := Fold(w.log, ctx)
	lesson := before.LastLesson
	// The first is ten weeks before the day of the fold, the others eight or less.
	for _, week := range []int{0, 2, 9} {
		w.week(week)
		w.write(
			studentlog.Entry{
				Kind:  studentlog.Practised,
				Actor: studentlog.Family,
				Day:   w.at.Format("2006-01-02"),
				Item:  "chunk p1 1-2",
				Times: 5,
				Felt:  studentlog.Joyful,
			},
		)
	}
	wrong := w.write(studentlog.Entry{Kind: studentlog.Practised, Actor: studentlog.Family, Item: "chunk p1 3-4", Felt: studentlog.Hard})
	w.write(studentlog.Entry{Kind: studentlog.Correction, Actor: studentlog.Family, Corrects: wrong.ID})
	w.write(studentlog.Entry{Kind: studentlog.Liking, Actor: studentlog.Family, Material: "p1", Sign: studentlog.PlayedFirst})
	w.write(studentlog.Entry{Kind: studentlog.Liking, Actor: "teacher", Material: "p1", Sign: studentlog.AskedFor})
	after := Fold(w.log, ctx)
	require.Equal(t, lesson, after.LastLesson)
	require.Equal(t, before.Ability, after.Ability)
	before.Materials["p1"].AtHomeOn = civil.On(w.at) // chosen to be played first
	require.Equal(t, before.Materials, after.Materials)
	require.Len(t, after.Home, 4, "two reports in eight weeks and two signs of liking")
	require.Equal(
		t,
		[]bool{true, true, true, false},
		[]bool{after.Home[0].FromHome, after.Home[1].FromHome, after.Home[2].FromHome, after.Home[3].FromHome},
	)
	require.Equal(t, studentlog.Joyful, after.Home[1].Felt)
	require.Equal(
		t,
		map[studentlog.Reaction]int{studentlog.PlayedFirst: 1, studentlog.AskedFor: 1},
		after.Likings["p1"],
		"what is chosen first is taste",
	)

	body, err := after.Encode()
	require.NoError(t, err)
	back, err := Decode(body)
	require.NoError(t, err)
	require.Equal(t, after.Home, back.Home)
}

// The last gate holds, and automatic takes it away.
func TestTheLastGateHolds(t *testing.T) {
	ctx := context(t)
	w := &tell{}
	w.week(0).assign("p1")
	gate := func(g studentlog.Gate) studentlog.Entry {
		return w.write(studentlog.Entry{Kind: studentlog.GateSet, Material: "p1", Gate: g})
	}
	gate(studentlog.RightOnly)
	require.Equal(t, studentlog.RightOnly, Fold(w.log, ctx).Materials["p1"].Gate)
	together := gate(studentlog.Together)
	require.Equal(t, studentlog.Together, Fold(w.log, ctx).Materials["p1"].Gate)
	w.write(studentlog.Entry{Kind: studentlog.Correction, Corrects: together.ID})
	require.Equal(t, studentlog.RightOnly, Fold(w.log, ctx).Materials["p1"].Gate, "taken back, the one before holds")
	gate(studentlog.Automatic)
	require.Empty(t, Fold(w.log, ctx).Materials["p1"].Gate)
	require.Zero(t, Fold(w.log, ctx).Materials["p1"].Lessons, "a gate is no playing")
}

// Two phones that answer for one thing of one day give one answer, the last; taken back, the one before holds. Another day
// or another thing is its own.
func TestOneAnswerForEachThingAndDay(t *testing.T) {
	ctx := context(t)
	w := &tell{}
	w.week(9)
	tick := func(day, item string, times int, felt studentlog.Feeling) studentlog.Entry {
		return w.write(studentlog.Entry{Kind: studentlog.Practised, Actor: studentlog.Family, Day: day, Item: item, Times: times, Felt: felt})
	}
	tick("2026-05-05", "a", 3, studentlog.Joyful)
	tick("2026-05-05", "b", 1, studentlog.Fine)
	tick("2026-05-06", "a", 2, "")
	last := tick("2026-05-05", "a", 5, studentlog.Hard)
	said := func() (out []string) {
		for _, r := range Fold(w.log, ctx).Home {
			out = append(out, fmt.Sprint(r.Day, " ", r.Item, " ", r.Times, " ", r.Felt))
		}
		return out
	}
	require.Equal(t, []string{"2026-05-05 b 1 fine", "2026-05-06 a 2 ", "2026-05-05 a 5 hard"}, said())
	w.write(studentlog.Entry{Kind: studentlog.Correction, Actor: studentlog.Family, Corrects: last.ID})
	require.Equal(t, []string{"2026-05-05 a 3 joyful", "2026-05-05 b 1 fine", "2026-05-06 a 2 "}, said())
	// A teacher who writes down what was said in a lesson takes nothing away.
	w.write(studentlog.Entry{Kind: studentlog.Practised, Actor: "teacher", Day: "2026-05-05", Item: "b", Felt: studentlog.Hard})
	require.Len(t, said(), 4)
}
