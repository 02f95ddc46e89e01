package store_test

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

func date(s string) time.Time {
	d, err := time.Parse(time.DateOnly, s)
	if err != nil {
		panic(err)
	}
	return d
}

func TestAPersonIsKept(t *testing.T) {
	st, l, _ := studio(t, db)
	p := store.Person{
		ID: id(), Name: `Zoë "Zo" O’Neill-Ødegård`, Called: "Zo", Born: date("2015-06-01"), BornAbout: true, Notes: "likes ferries", Since: date("2024-09-01"),
		Contacts: []store.Contact{
			{ID: id(), Name: "A", Relation: "mother", Email: "a@harbour.example", Messages: true},
			{ID: id(), Name: "B", Relation: "uncle"},
		},
	}
	first := store.Ladder{
		ID:              id(),
		StudentID:       p.ID,
		Name:            p.Name,
		Instrument:      "cello",
		PracticeMinutes: 20,
		Lessons:         calendar.Weekly(time.Friday, 900, 45, date("2026-01-01")),
	}
	require.NoError(t, db.AddPerson(ctx, st, p, first))
	require.NoError(t, db.AddPerson(ctx, st, p, first), "the same again changes nothing")
	got, err := db.Person(ctx, st, p.ID)
	require.NoError(t, err)
	p.Version = 1
	require.Equal(t, p, got)
	second := first
	second.ID, second.Instrument, second.Lessons = id(), "piano", calendar.Timetable{}
	require.NoError(t, db.AddLadder(ctx, st, second))
	both, err := db.Ladders(ctx, st)
	require.NoError(t, err)
	require.Equal(t, []string{l.ID, first.ID, second.ID}, []string{both[0].ID, both[1].ID, both[2].ID}, "Monday, Friday, and without a lesson")
	require.Equal(t, "Zo", both[1].Called)

	to, err := db.Recipients(ctx, st, first.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"a@harbour.example"}, to)
	p.Contacts[1].Email, p.Contacts[1].Messages, p.Name = "b@harbour.example", true, "Zoë"
	require.NoError(t, db.SetPerson(ctx, st, p))
	require.ErrorIs(t, db.SetPerson(ctx, st, p), store.ErrConflict, "a form that is out of date")
	to, err = db.Recipients(ctx, st, second.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"a@harbour.example", "b@harbour.example"}, to)
	_, err = db.Person(ctx, st, id())
	require.ErrorIs(t, err, store.ErrNotFound)
}

func TestPausesAndLeavingTakeLessons(t *testing.T) {
	st, l, _ := studio(t, db)
	breaks := func() []calendar.Break {
		got, err := db.Ladder(ctx, st, l.ID)
		require.NoError(t, err)
		return got.Lessons.Pauses
	}
	pause := store.Pause{ID: id(), First: date("2026-05-04"), Last: date("2026-05-17")}
	require.NoError(t, db.SetPause(ctx, st, l.StudentID, pause))
	require.Equal(t, []calendar.Break{{From: date("2026-05-04"), To: date("2026-05-17")}}, breaks())
	pause.Last = time.Time{}
	require.NoError(t, db.SetPause(ctx, st, l.StudentID, pause))
	require.Equal(t, []calendar.Break{{From: date("2026-05-04"), To: calendar.NoEnd}}, breaks())
	require.NoError(t, db.RemovePause(ctx, st, l.StudentID, pause.ID))
	require.ErrorIs(t, db.RemovePause(ctx, st, l.StudentID, pause.ID), store.ErrNotFound)
	require.NoError(t, db.SetLeft(ctx, st, l.StudentID, date("2026-06-01"), nil))
	require.NoError(t, db.SetEnded(ctx, st, l.ID, date("2026-05-20")))
	require.Equal(t, []calendar.Break{{From: date("2026-05-20"), To: calendar.NoEnd}}, breaks(), "whichever is first")
	require.NoError(t, db.SetEnded(ctx, st, l.ID, time.Time{}))
	require.Equal(t, []calendar.Break{{From: date("2026-06-01"), To: calendar.NoEnd}}, breaks())
	away := store.Pause{ID: id(), First: date("2026-06-01"), Last: date("2026-08-31")}
	require.NoError(t, db.SetLeft(ctx, st, l.StudentID, time.Time{}, &away))
	require.Equal(t, []calendar.Break{{From: date("2026-06-01"), To: date("2026-08-31")}}, breaks(), "the time away stays")
	require.ErrorIs(t, db.SetLeft(ctx, st, id(), date("2026-06-01"), nil), store.ErrNotFound)
}

func TestATimetableIsChangedInTurn(t *testing.T) {
	st, l, _ := studio(t, db)
	lesson := calendar.LessonID(l.ID, date("2026-05-11"))
	change := func(f func(calendar.Timetable) (calendar.Timetable, error)) error {
		return db.ChangeTimetable(ctx, st, l.ID, f)
	}
	require.NoError(t, change(func(t calendar.Timetable) (calendar.Timetable, error) {
		return t.CancelLesson(lesson, calendar.ByStudent, true)
	}))
	require.NoError(t, change(func(t calendar.Timetable) (calendar.Timetable, error) {
		return t.Add("extra", calendar.Time{Day: date("2026-05-13"), StartsAt: 600, Minutes: 30}, lesson, date("2026-05-04"))
	}))
	require.NoError(t, change(func(t calendar.Timetable) (calendar.Timetable, error) {
		return t.SetSlots(
			date("2026-06-01"),
			[]calendar.Slot{{ID: id(), Weekday: time.Tuesday, StartsAt: 900, Minutes: 40, Every: 2, Until: date("2026-12-31")}},
		)
	}))
	refused := errors.New("no")
	require.ErrorIs(t, change(func(calendar.Timetable) (calendar.Timetable, error) { return calendar.Timetable{}, refused }), refused)
	got, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.Len(t, got.Lessons.Slots, 2)
	require.Equal(t, date("2026-05-31"), got.Lessons.Slots[0].Until)
	require.Equal(
		t,
		calendar.Slot{
			ID:       got.Lessons.Slots[1].ID,
			Weekday:  time.Tuesday,
			StartsAt: 900,
			Minutes:  40,
			Every:    2,
			From:     date("2026-06-01"),
			Until:    date("2026-12-31"),
		},
		got.Lessons.Slots[1],
	)
	require.Equal(t, []calendar.Change{
		{Lesson: lesson, Kind: calendar.Cancel, By: calendar.ByStudent, Late: true},
		{Lesson: "extra", Kind: calendar.Extra, Day: date("2026-05-13"), StartsAt: 600, Minutes: 30, MakesUp: lesson},
	}, got.Lessons.Changes)
}

func TestTheTeachersFeedIsOpenedByItsToken(t *testing.T) {
	st, _, _ := studio(t, db)
	token, err := db.Feed(ctx, st)
	require.NoError(t, err)
	require.Empty(t, token)
	require.NoError(t, db.SetFeed(ctx, st, "first"+st))
	require.NoError(t, db.SetFeed(ctx, st, "second"+st))
	_, err = db.FeedStudio(ctx, "first"+st)
	require.ErrorIs(t, err, store.ErrNotFound)
	got, err := db.FeedStudio(ctx, "second"+st)
	require.NoError(t, err)
	require.Equal(t, st, got)
	require.NoError(t, db.SetFeed(ctx, st, ""))
	_, err = db.FeedStudio(ctx, "")
	require.ErrorIs(t, err, store.ErrNotFound)
}

// What a batch made goes with it, but for what another student has by now.
func TestAnUndoneBatchLeavesWhatOthersHave(t *testing.T) {
	st, l, _ := studio(t, db)
	other := store.Ladder{ID: id(), StudentID: id(), Name: "Other", Born: date("2015-06-01"), Instrument: "piano"}
	require.NoError(t, db.AddLadder(ctx, st, other))
	made := func(title string) material.Material {
		return material.Material{ID: id(), Title: title, Strand: material.Repertoire, Instrument: "piano"}
	}
	mine, placed, played := made("mine"), made("placed"), made("played")
	batch := store.NewBatch{ID: id(), MadeAt: now, Materials: []material.Material{mine, placed, played}}
	require.NoError(t, db.AddBatch(ctx, st, l.ID, batch))
	require.NoError(t, db.PlaceRungs(ctx, st, other.ID, []ladder.Placed{{Material: placed.ID, Strand: material.Repertoire}}))
	_, err := db.Append(ctx, st, other.ID, []studentlog.Entry{{ID: id(), At: now, Kind: studentlog.Assigned, Material: played.ID}})
	require.NoError(t, err)
	undo := func(e string) studentlog.Entry { return studentlog.Undo(e, "t", now) }
	for range 2 {
		require.NoError(t, db.UndoBatch(ctx, st, l.ID, batch.ID, now, undo))
	}
	lib, err := db.Library(ctx, st)
	require.NoError(t, err)
	require.Equal(t, []bool{true, false, false}, []bool{lib[mine.ID].Retired, lib[placed.ID].Retired, lib[played.ID].Retired})
}
