package inweek

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// tune reads a tune of four bars in C for one hand.
func tune(t *testing.T) *Reading {
	tunes, err := abc.Read([]byte("X:1\nT:Tune\nM:4/4\nL:1/4\nQ:80\nK:C\nC D E F | G A G2 | E C E C | D B, C2 |]\n"))
	require.NoError(t, err)
	return &Reading{Piece: analysis.Of(tunes[0], "piano")}
}

func TestTheWeekBeginsAfterTheLesson(t *testing.T) {
	s := plantest.Pupil(t)
	s.Profile.Lessons = calendar.Weekly(time.Wednesday, 900, 30, plantest.Monday.AddDate(-1, 0, 0))
	s.Profile.Lessons.Slots[0].ID = "s"
	starts := map[int]string{0: "04-30", 1: "04-30", 2: "05-07", 3: "05-07", 6: "05-07"} // Monday the 4th …
	for d, want := range starts {
		require.Equal(t, want, s.WeekStart(plantest.Monday.AddDate(0, 0, d)).Format("01-02"), "%d days after Monday", d)
	}
	require.Equal(t, 7, s.WeekDays(plantest.Monday.AddDate(0, 0, -4)))
	require.False(t, s.IsOver(plantest.Monday.AddDate(0, 0, -4), plantest.Monday.AddDate(0, 0, 3)))
	require.True(t, s.IsOver(plantest.Monday.AddDate(0, 0, -4), plantest.Monday.AddDate(0, 0, 4)))

	// Wednesday's lesson is moved to Friday, and the one after it falls out: the weeks follow.
	moved, err := s.Profile.Lessons.Move("2026-05-06-s", calendar.Time{Day: plantest.Monday.AddDate(0, 0, 4), StartsAt: 600, Minutes: 45}, plantest.Monday)
	require.NoError(t, err)
	s.Profile.Lessons, err = moved.CancelLesson("2026-05-13-s", calendar.ByTeacher, false)
	require.NoError(t, err)
	require.Equal(t, "04-30", s.WeekStart(plantest.Monday.AddDate(0, 0, 3)).Format("01-02"))
	require.Equal(t, 9, s.WeekDays(plantest.Monday.AddDate(0, 0, -4)), "from Thursday to Friday of the week after")
	require.Equal(t, "05-09", s.WeekStart(plantest.Monday.AddDate(0, 0, 15)).Format("01-02"), "what was set for the lesson that falls out stays set")
	require.Equal(t, 12, s.WeekDays(plantest.Monday.AddDate(0, 0, 5)), "and goes on to the next lesson")
	require.Equal(t, 45, s.LessonMinutes(plantest.Monday.AddDate(0, 0, 4)))
	require.Equal(t, 30, s.LessonMinutes(plantest.Monday.AddDate(0, 0, 2)))
	w, err := Lay(plantest.Ahead(s), plantest.Monday.AddDate(0, 0, 5), week.Hand{}, Before{}, nil)
	require.NoError(t, err)
	require.Len(t, w.Plan.Days, 12)

	s.Profile.Lessons.Pauses = []calendar.Break{{From: plantest.Monday, To: calendar.NoEnd}}
	require.True(t, s.Paused(plantest.Monday))
	require.False(t, s.Paused(plantest.Monday.AddDate(0, 0, -1)))
	require.Equal(t, "04-30", s.WeekStart(plantest.Monday.AddDate(0, 0, 40)).Format("01-02"))
	require.Equal(t, 7, s.WeekDays(plantest.Monday.AddDate(0, 0, -4)), "nobody knows when lessons go on")

	none := plantest.Pupil(t)
	none.Profile.Lessons = calendar.Timetable{}
	require.Equal(t, plantest.Monday, none.WeekStart(plantest.Monday))
	require.Equal(t, 30, none.LessonMinutes(plantest.Monday))
	fresh := plantest.Pupil(t)
	fresh.Profile.Lessons = calendar.Weekly(time.Wednesday, 900, 30, plantest.Monday.AddDate(0, 0, 1))
	begins := func() []any {
		start := fresh.WeekStart(plantest.Monday)
		return []any{start.Format("01-02"), fresh.WeekDays(start)}
	}
	require.Equal(t, []any{"05-04", 3}, begins(), "from today to the first lesson: nothing was set before")
	fresh.Profile.Added = plantest.On(2)
	require.Equal(t, []any{"05-02", 5}, begins())
	fresh.Standing.FirstLesson = plantest.On(1)
	require.Equal(t, []any{"05-04", 3}, begins(), "the day after the first meeting")
	fresh.Standing.FirstLesson = plantest.On(0)
	require.Equal(t, []any{"05-05", 2}, begins(), "first met today: it begins tomorrow")
	fresh.Standing.FirstLesson = plantest.On(12)
	require.Equal(t, []any{"04-30", 7}, begins(), "weeks follow each other until the first lesson")
}

func TestWhatAWeekIsMadeFrom(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("old", material.Method),
		plantest.Piece("other", material.Method),
		plantest.Piece("next", material.Method),
	)
	w := plantest.Working(s, "work", 15)
	w.Full, w.RunDue, w.Gate = 1, true, studentlog.LeftOnly
	w.Marks = map[string]studentlog.Mark{"own": studentlog.Part}
	w.Spots = []standing.Spot{{From: 2, To: 3}, {From: 5, To: 5, Mended: true}}
	m := s.Library["work"]
	m.FocusPoints = []material.FocusPoint{{ID: "a", Text: "pulse"}, {ID: "b", Text: "wrist"}}
	s.Library["work"] = m
	w.Marks["a"] = studentlog.Full
	s.Standing.Focus = []standing.FocusStanding{{ID: "own", Text: "elbows"}, {ID: "habit", Text: "breath", Habit: true}}
	plantest.Learned(s, "old", 10, 5)
	s.HandsApart, s.Policy.HearFirst = true, true
	next := s.Library["next"]
	next.HasScore = true
	s.Library["next"] = next
	a := plantest.Ahead(s, "work", "next")
	got, err := Lay(a, plantest.Monday, week.Hand{Adds: []string{"other", "old", "gone"}, Minutes: 25}, Before{}, nil)
	require.NoError(t, err)
	in := got.Input
	require.Equal(t, []string{"elbows"}, in.Own, "a habit no longer travels")
	require.Equal(
		t,
		[]week.Work{
			{
				Material:   m,
				Progress:   1.0 / 3,
				RunDue:     true,
				WeeksOn:    2,
				HandsApart: true,
				Gate:       studentlog.LeftOnly,
				Spots:      []week.Bars{{From: 2, To: 3}},
				Focus:      []string{"wrist"},
			},
		},
		in.Works,
	)
	require.Equal(t, []string{"old", "other"}, []string{in.Reviews[0].ID, in.Reviews[1].ID})
	require.Len(t, in.Reviews, 2)
	require.Equal(t, []string{"old"}, []string{in.Settling[0].ID}, "it was cleared ten days ago")
	require.Equal(t, "next", in.Listen[0].ID, "pieces are heard before they are read")
	require.Equal(t, []any{plantest.Monday, 20, 9, 0.45, week.ByYears, 3}, []any{in.Start, in.Minutes, in.Age, in.ReviewShare, in.Dose, in.DoseRow})
	require.Equal(t, 25, in.MinutesADay())
	require.Equal(t, "old", got.Picked[0].ID)
	s.Policy.HearFirst = false
	require.Empty(t, listen(plantest.Ahead(s, "work", "next")))
	_, err = Lay(a, plantest.Monday, week.Hand{Minutes: 999}, Before{}, nil)
	require.ErrorContains(t, err, "minutes a day")
	_, err = Lay(a, plantest.Monday, week.Hand{}, Before{}, func(material.Material) (*Reading, error) { return nil, errors.New("damaged") })
	require.EqualError(t, err, "damaged")
	s.Standing.Ability.Skills["hands-together"] = leap.Evidence{Shown: true}
	require.False(t, Gated(*s, "work").HandsApart, "playing together is secure")
	delete(s.Standing.Ability.Skills, "hands-together")
	require.True(t, Gated(*s, "work").HandsApart)
	s.Instrument = "clarinet"
	require.False(t, Gated(*s, "work").HandsApart, "its hands have no notes of their own")
}

// Only the next piece of method and repertoire is heard, if it has a score and is not set aside.
func TestWhatIsListenedTo(t *testing.T) {
	var lib []material.Material
	for _, m := range []material.Material{plantest.Piece("m1", material.Method), plantest.Piece("m2", material.Method), plantest.Piece("song", material.Repertoire), plantest.Piece("scale", material.Technique)} {
		m.HasScore = m.ID != "m1"
		lib = append(lib, m)
	}
	s := plantest.Pupil(t, lib...)
	s.Policy.HearFirst = true
	var got []string
	for _, m := range listen(plantest.Ahead(s, "m1", "m2", "song", "scale")) {
		got = append(got, m.ID)
	}
	require.Equal(t, []string{"m2", "song"}, got)
	placed := plantest.Place(s, "m2", "song")
	placed[1].Aside = "skipped"
	a := s.Ahead(plantest.Ahead(s).Horizon, placed, studentplan.Options{})
	require.Len(t, listen(&a), 1)
}

// With its score a piece brings where it begins, its chunks, where the hand lies, and how new notes are found.
func TestAPieceWithItsScore(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method, "plain"), plantest.Piece("known", material.Method))
	plantest.Working(s, "work", 1)
	got, err := Lay(plantest.Ahead(s, "work"), plantest.Monday, week.Hand{}, Before{}, func(m material.Material) (*Reading, error) {
		require.Equal(t, "work", m.ID)
		return tune(t), nil
	})
	require.NoError(t, err)
	w := got.Input.Works[0]
	require.Equal(t, []float64{4, 4, 4, 4}, w.Quarters)
	require.NotNil(t, w.Tree)
	require.Equal(t, "the right hand, finger 1 on middle C", w.Opening)
	require.Len(t, w.Guides, 4, "no more than four are explained")
	all := w.Guides
	known := s.Library["known"]
	known.Notes = []string{"D4", "E4", "F4"}
	s.Library["known"] = known
	plantest.Learned(s, "known", 9, 9)
	got, err = Lay(plantest.Ahead(s, "work"), plantest.Monday, week.Hand{}, Before{}, func(material.Material) (*Reading, error) { return tune(t), nil })
	require.NoError(t, err)
	require.NotEqual(t, all, got.Input.Works[0].Guides, "what the student knows needs no guide")
	require.Equal(t, map[string]bool{"D4": true, "E4": true, "F4": true}, s.KnownNotes("work"))
	require.Empty(t, s.KnownNotes("known"))
	s.Policy.FirstChunk = 3
	require.Equal(t, 3, s.LeafBars())
	s.Policy.FirstChunk = 0
	require.Equal(t, 4, s.LeafBars(), "by age: a phrase from nine on")
}
