package store_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/store"
)

func TestAWeekIsKeptAndPublishedWithItsMessage(t *testing.T) {
	st, l, _ := studio(t, db)
	start := time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)
	w, err := db.PracticeWeek(ctx, st, l.ID, start)
	require.NoError(t, err)
	require.Zero(t, w.Version)
	require.Nil(t, w.Published)
	w.Hand = week.Hand{Days: map[string]bool{"2026-05-07": false}, Words: "Sing first."}
	require.NoError(t, db.SavePracticeWeek(ctx, st, w, nil))
	require.ErrorIs(t, db.SavePracticeWeek(ctx, st, w, nil), store.ErrConflict, "it is there already")
	none, err := db.PublishedWeeks(ctx, st, l.ID, start.AddDate(0, 0, -1))
	require.NoError(t, err)
	require.Empty(t, none)

	kept, err := db.PracticeWeek(ctx, st, l.ID, start)
	require.NoError(t, err)
	require.Equal(t, w.Hand, kept.Hand)
	kept.Published = &week.Plan{
		Days:   []week.Day{{Date: start, Items: []week.Item{{Key: "chunk m 1-2", Title: "Tune", Minutes: 2.5}}, Minutes: 2.5}},
		NotYet: []week.Held{{Kind: week.UpToSpeed, Title: "Tune"}},
		Watch:  &week.Watch{Text: "a claw", Home: "shake it"},
		Often:  week.Often{Dose: week.InARow, Row: 3},
	}
	kept.PublishedAt = start.Add(-7 * time.Hour)
	stale := kept
	stale.Version--
	message := store.Message{ID: id(), Ladder: l.ID, To: "family@harbour.example", Subject: "practice", Body: "link", MadeAt: start}
	require.ErrorIs(t, db.SavePracticeWeek(ctx, st, stale, []store.Message{message}), store.ErrConflict)
	list, err := db.Messages(ctx, st)
	require.NoError(t, err)
	require.Empty(t, list, "a week that was not kept sends nothing")
	require.NoError(t, db.SavePracticeWeek(ctx, st, kept, []store.Message{message}))
	list, err = db.Messages(ctx, st)
	require.NoError(t, err)
	require.Len(t, list, 1)
	require.Equal(t, l.Name, list[0].Student)

	published, err := db.PublishedWeeks(ctx, st, l.ID, start.AddDate(0, 0, -1))
	require.NoError(t, err)
	require.Len(t, published, 1)
	require.Equal(t, *kept.Published, *published[0].Published)
	all, err := db.StudioWeeks(ctx, st, start.AddDate(0, 0, -1))
	require.NoError(t, err)
	require.Equal(t, map[string][]week.SetDays{l.ID: {{Start: start, Days: []time.Time{start}}}}, all)
	later, err := db.StudioWeeks(ctx, st, start)
	require.NoError(t, err)
	require.Empty(t, later)
}

func TestALinkOpensOneFamily(t *testing.T) {
	st, l, _ := studio(t, db)
	other, ol, _ := studio(t, db)
	f := store.Family{Studio: st, Ladder: l.ID, Token: "tok-" + id(), Expires: time.Date(2026, 9, 1, 0, 0, 0, 0, time.UTC)}
	require.NoError(t, db.SetFamilyToken(ctx, f))
	require.NoError(t, db.SetFamilyEmail(ctx, st, l.ID, "family@harbour.example"))
	got, err := db.FamilyByToken(ctx, f.Token)
	require.NoError(t, err)
	f.Email, f.Mail = "family@harbour.example", withfamily.EachWeek
	require.Equal(t, f, got)
	_, err = db.FamilyByToken(ctx, f.Token+"x")
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = db.FamilyByToken(ctx, "")
	require.ErrorIs(t, err, store.ErrNotFound)
	// Two families cannot have one link, and a link that was shut is nobody's.
	require.Error(t, db.SetFamilyToken(ctx, store.Family{Studio: other, Ladder: ol.ID, Token: f.Token, Expires: f.Expires}))
	for _, ladder := range []store.Family{{Studio: st, Ladder: l.ID}, {Studio: other, Ladder: ol.ID}} {
		require.NoError(t, db.SetFamilyToken(ctx, ladder))
	}
	_, err = db.FamilyByToken(ctx, f.Token)
	require.ErrorIs(t, err, store.ErrNotFound)
	got, err = db.Family(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, "family@harbour.example", got.Email, "the address stays")
	require.Empty(t, got.Token)
}

func TestAMessageIsTakenOnceAndTriedAgain(t *testing.T) {
	st, l, _ := studio(t, db)
	// Far from the messages of other tests.
	now := time.Date(1990, 5, 5, 9, 0, 0, 0, time.UTC)
	w := store.PracticeWeek{Ladder: l.ID, Start: now.Truncate(24 * time.Hour)}
	m := store.Message{ID: id(), Ladder: l.ID, To: "a@b.example", Subject: "s", Body: "b", MadeAt: now}
	require.NoError(t, db.SavePracticeWeek(ctx, st, w, []store.Message{m}))
	taken, err := db.TakeMessage(ctx, now, now.Add(time.Minute))
	require.NoError(t, err)
	require.Equal(t, m.ID, taken.ID)
	require.Equal(t, 1, taken.Tries)
	_, err = db.TakeMessage(ctx, now, now.Add(time.Minute))
	require.ErrorIs(t, err, store.ErrNotFound, "it is held back while it is being sent")
	require.NoError(t, db.MessageFailed(ctx, taken, "the box is full", now.Add(time.Hour)))
	_, err = db.TakeMessage(ctx, now.Add(30*time.Minute), now)
	require.ErrorIs(t, err, store.ErrNotFound)
	again, err := db.TakeMessage(ctx, now.Add(2*time.Hour), now.Add(3*time.Hour))
	require.NoError(t, err)
	require.Equal(t, 2, again.Tries)
	require.NoError(t, db.MessageSent(ctx, again, now.Add(2*time.Hour)))
	require.ErrorIs(t, db.RetryMessage(ctx, st, m.ID, now), store.ErrNotFound, "it was sent")
	list, err := db.Messages(ctx, st)
	require.NoError(t, err)
	require.Equal(t, now.Add(2*time.Hour), list[0].SentAt.UTC())
	require.Empty(t, list[0].Failure)

	// After so many tries it waits for the teacher.
	second := store.Message{ID: id(), Ladder: l.ID, To: "a@b.example", MadeAt: now}
	w.Start = w.Start.AddDate(0, 0, 7)
	require.NoError(t, db.SavePracticeWeek(ctx, st, w, []store.Message{second}))
	at := now
	for range store.MostTries {
		taken, err := db.TakeMessage(ctx, at, at.Add(time.Second))
		require.NoError(t, err)
		at = at.Add(time.Second)
		require.NoError(t, db.MessageFailed(ctx, taken, "no", at))
	}
	_, err = db.TakeMessage(ctx, at, at.Add(time.Second))
	require.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, db.RetryMessage(ctx, st, second.ID, at))
	_, err = db.TakeMessage(ctx, at, at.Add(time.Second))
	require.NoError(t, err)
}

// A message that went is sent whatever else; without mail it is kept; after eight tries it has failed.
func TestHowFarAMessageIs(t *testing.T) {
	require.Equal(t, store.Pending, store.Message{Tries: 7}.Delivery(true))
	require.Equal(t, store.GivenUp, store.Message{Tries: 8}.Delivery(true))
	require.Equal(t, store.ToCopy, store.Message{Tries: 8}.Delivery(false))
	require.Equal(t, store.Delivered, store.Message{Tries: 8, SentAt: time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)}.Delivery(false))
}

func TestATreatCountsFromTheDayItWasPromised(t *testing.T) {
	may := func(d int) time.Time { return time.Date(2026, 5, d, 0, 0, 0, 0, time.UTC) }
	now := store.Treat{ID: "b", Pieces: 3, Base: 9, Made: may(8)}
	require.Equal(t, now, now.Since([]store.Treat{{ID: "a", Base: 1, Made: may(1)}}))
	require.Equal(
		t,
		store.Treat{ID: "b", Pieces: 3, Base: 4, Made: may(2)},
		now.Since([]store.Treat{{ID: "a", Base: 1, Made: may(1)}, {ID: "b", Pieces: 2, Base: 4, Made: may(2)}}),
	)
}

// A week of any length is kept as it was published: seven days, the fortnight of who comes every other week, the six weeks of a summer.
func TestWeeksOfOneToSixtyDays(t *testing.T) {
	st, l, _ := studio(t, db)
	for n := 1; n <= 60; n++ {
		start := time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC).AddDate(0, 0, 100*n)
		plan := week.Plan{}
		var days []time.Time
		for i := range n {
			days = append(days, start.AddDate(0, 0, i))
			plan.Days = append(plan.Days, week.Day{Date: days[i], Items: []week.Item{{Key: "chunk m 1-2", Title: "Tune", Minutes: 2}}, Minutes: 2})
		}
		require.NoError(
			t,
			db.SavePracticeWeek(ctx, st, store.PracticeWeek{Ladder: l.ID, Start: start, Published: &plan, PublishedAt: start}, nil),
			"%d days",
			n,
		)
		kept, err := db.StudioWeeks(ctx, st, start.AddDate(0, 0, -1))
		require.NoError(t, err)
		require.Equal(t, days, kept[l.ID][0].Days, "%d days", n)
	}
}
