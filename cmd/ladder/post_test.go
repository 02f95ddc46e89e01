package main

import (
	"context"
	"errors"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/home/post"
	"patientladder/store"
	"patientladder/store/storetest"
)

var (
	db *store.Store
	// noon is when letters are made.
	noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)
)

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(st *store.Store) { db = st }))
}

// fussy is a mail server that refuses the first letters.
type fussy struct {
	refuse int
	got    []post.Letter
}

func (f *fussy) Send(_ context.Context, l post.Letter) error {
	if f.refuse > 0 {
		f.refuse--
		return errors.New("try again later")
	}
	f.got = append(f.got, l)
	return nil
}

// A message that the server refuses waits longer each time and goes out once.
func TestMessagesGoOutOnce(t *testing.T) {
	ctx := context.Background()
	st := store.Studio{ID: storetest.ID(), Name: "S", Timezone: "UTC"}
	require.NoError(t, db.AddStudio(ctx, st, store.Teacher{ID: storetest.ID(), Email: "t@harbour.example", Name: "T"}))
	l := store.Ladder{
		ID:              storetest.ID(),
		StudentID:       storetest.ID(),
		Name:            "Nell",
		Born:            time.Date(2019, 1, 1, 0, 0, 0, 0, time.UTC),
		Instrument:      "piano",
		PracticeMinutes: 10,
	}
	require.NoError(t, db.AddLadder(ctx, st.ID, l))
	now := time.Date(2026, 5, 4, 16, 0, 0, 0, time.UTC)
	for i := range 2 {
		m := store.Message{
			ID:      storetest.ID(),
			Ladder:  l.ID,
			To:      "family@harbour.example",
			Subject: "practice",
			Body:    "link",
			MadeAt:  now.Add(time.Duration(i) * time.Second),
		}
		require.NoError(t, db.SavePracticeWeek(ctx, st.ID, store.PracticeWeek{Ladder: l.ID, Start: now.AddDate(0, 0, 7*i)}, []store.Message{m}))
	}
	server := &fussy{refuse: 2}
	now = now.Add(time.Minute)
	require.NoError(t, empty(ctx, db, server, now))
	require.Empty(t, server.got)
	list, err := db.Messages(ctx, st.ID)
	require.NoError(t, err)
	require.Equal(t, "try again later", list[0].Failure)
	require.NoError(t, empty(ctx, db, server, now.Add(time.Minute)))
	require.Empty(t, server.got, "it waits two minutes after the first try")
	for range 3 {
		require.NoError(t, empty(ctx, db, server, now.Add(3*time.Minute)))
	}
	require.Len(t, server.got, 2)
	require.Equal(t, "family@harbour.example", server.got[0].To)
	list, err = db.Messages(ctx, st.ID)
	require.NoError(t, err)
	for _, m := range list {
		require.False(t, m.SentAt.IsZero())
		require.Empty(t, m.Failure)
	}
}
