package store_test

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"patientladder/core/base/calendar"
	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/overrule"
	"patientladder/core/student/studentlog"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/store/storetest"
)

var db *store.Store

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(s *store.Store) { db = s }))
}

var (
	ctx = context.Background()
	now = time.Date(2026, 5, 4, 15, 30, 0, 123_000_000, time.UTC)
	id  = storetest.ID
)

// studio adds a studio with a ladder and a material.
func studio(t *testing.T, s *store.Store) (studio string, l store.Ladder, m material.Material) {
	t.Helper()
	st := store.Studio{ID: id(), Name: "Test studio", Timezone: "UTC"}
	require.NoError(t, s.AddStudio(ctx, st, store.Teacher{ID: id(), Email: id() + "@example.org", Name: "T", PasswordHash: "x"}))
	l = store.Ladder{
		ID: id(), StudentID: id(), Name: "Åsa Ødegård 小林", Born: time.Date(2018, 2, 28, 0, 0, 0, 0, time.UTC), Instrument: "piano",
		PracticeDays: [7]bool{true, false, true}, PracticeMinutes: 15,
		Lessons: calendar.Weekly(time.Monday, 930, 30, time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)),
	}
	l.Lessons.Slots[0].ID = l.ID
	require.NoError(t, s.AddLadder(ctx, st.ID, l))
	m = material.Material{
		ID: id(), Title: "Tune", Strand: material.Method, Instrument: "piano", Tempo: 88.5, Bars: 3, DistinctBars: 2, Quarters: 9,
		Texture:   material.InTurn,
		BarLabels: []string{"0", "1", "2"}, Tags: []string{"comic"}, HasScore: true, Exercise: "scale/apart/Db/major/-",
		Demands:     []material.Demand{{Skill: "rests", Weight: 0.5, Bars: []int{1, 3}, Origin: "score"}},
		FocusPoints: []material.FocusPoint{{ID: id(), Text: "steady pulse"}, {ID: id(), Text: "loose wrist"}},
	}
	added, err := s.AddMaterial(ctx, st.ID, m, &store.ScoreFile{Name: "tune.musicxml", Data: []byte("<x/>")})
	require.NoError(t, err)
	require.True(t, added)
	return st.ID, l, m
}

func note(text string) studentlog.Entry {
	return studentlog.Entry{ID: id(), At: now, Kind: studentlog.Note, Text: text}
}

func TestWhatIsWrittenComesBack(t *testing.T) {
	st, l, m := studio(t, db)
	got, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	l.Version, l.RungsVersion, l.Own = 1, 1, []byte{}
	require.Equal(t, l, got)
	require.Equal(t, 7, got.Profile().Age(time.Date(2026, 2, 27, 0, 0, 0, 0, time.UTC)))
	require.Equal(t, 8, got.Profile().Age(time.Date(2026, 2, 28, 0, 0, 0, 0, time.UTC)))

	lib, err := db.Library(ctx, st)
	require.NoError(t, err)
	require.Equal(t, material.Library{m.ID: m}, lib)
	file, err := db.ScoreFile(ctx, st, m.ID)
	require.NoError(t, err)
	require.Equal(t, store.ScoreFile{Name: "tune.musicxml", Data: []byte("<x/>")}, file)
}

func TestTheSameEntryCountsOnce(t *testing.T) {
	st, l, _ := studio(t, db)
	e := note("first")
	for range 3 {
		_, err := db.Append(ctx, st, l.ID, []studentlog.Entry{e, e})
		require.NoError(t, err)
	}
	log, err := db.Log(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, []studentlog.Entry{e}, log)
}

func TestManySendersAtOnceDoubleNothing(t *testing.T) {
	st, l, _ := studio(t, db)
	entries := []studentlog.Entry{note("a"), note("b"), note("c")}
	var wg sync.WaitGroup
	added := make([]int, 12)
	for i := range added {
		wg.Add(1)
		go func() {
			defer wg.Done()
			n, err := db.Append(ctx, st, l.ID, entries)
			added[i] = n
			if err != nil {
				t.Error(err)
			}
		}()
	}
	wg.Wait()
	sum := 0
	for _, n := range added {
		sum += n
	}
	require.Equal(t, 3, sum)
}

func TestAnotherEntryUnderAUsedIDChangesNothing(t *testing.T) {
	st, l, _ := studio(t, db)
	e := note("first")
	_, err := db.Append(ctx, st, l.ID, []studentlog.Entry{e})
	require.NoError(t, err)
	other := e
	other.Text = "second"
	_, err = db.Append(ctx, st, l.ID, []studentlog.Entry{note("before it"), other})
	require.ErrorIs(t, err, store.ErrConflict)
	log, err := db.Log(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, []studentlog.Entry{e}, log, "all or none")
}

func TestAStudioSeesOnlyItsOwn(t *testing.T) {
	mine, l, m := studio(t, db)
	theirs, _, _ := studio(t, db)
	_, err := db.Ladder(ctx, theirs, l.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = db.ScoreFile(ctx, theirs, m.ID)
	require.ErrorIs(t, err, store.ErrNotFound)
	_, err = db.Append(ctx, theirs, l.ID, []studentlog.Entry{note("x")})
	require.ErrorIs(t, err, store.ErrNotFound)
	require.ErrorIs(t, db.PlaceRungs(ctx, theirs, l.ID, []ladder.Placed{{Material: m.ID, Strand: material.Method}}), store.ErrNotFound)
	require.ErrorIs(t, db.SetPractice(ctx, theirs, l), store.ErrConflict)
	_, theirLadder, _ := studio(t, db)
	require.Error(t, db.PlaceRungs(ctx, mine, theirLadder.ID, nil))
	lib, err := db.Library(ctx, theirs)
	require.NoError(t, err)
	require.NotContains(t, lib, m.ID)
}

func TestRungsKeepTheirOrderAndComeOnce(t *testing.T) {
	st, l, m := studio(t, db)
	second := m
	second.ID, second.FocusPoints, second.Demands = id(), nil, nil
	_, err := db.AddMaterial(ctx, st, second, nil)
	require.NoError(t, err)
	placed := []ladder.Placed{{Material: second.ID, Strand: material.Method}, {Material: m.ID, Strand: material.Method}}
	for range 2 {
		require.NoError(t, db.PlaceRungs(ctx, st, l.ID, placed))
	}
	got, err := db.Rungs(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, placed, got)
	require.NoError(t, db.RemoveRung(ctx, st, l.ID, m.ID))
	require.ErrorIs(t, db.RemoveRung(ctx, st, l.ID, m.ID), store.ErrNotFound)
	require.ErrorIs(t, db.PlaceRungs(ctx, st, l.ID, []ladder.Placed{{Material: id(), Strand: material.Method}}), store.ErrNotFound)
}

func TestAStaleFormOverwritesNothing(t *testing.T) {
	st, l, _ := studio(t, db)
	l.Version, l.RungsVersion, l.Own = 1, 1, []byte{}
	l.PracticeMinutes = 25
	require.NoError(t, db.SetPractice(ctx, st, l))
	l.PracticeMinutes = 5
	require.ErrorIs(t, db.SetPractice(ctx, st, l), store.ErrConflict)
	got, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, 25, got.PracticeMinutes)
}

func TestLibraryVersionGrows(t *testing.T) {
	st, _, m := studio(t, db)
	before, err := db.Studio(ctx, st)
	require.NoError(t, err)
	added, err := db.AddMaterial(ctx, st, m, nil)
	require.NoError(t, err)
	require.False(t, added, "the same id again")
	m.ID, m.FocusPoints = id(), nil
	_, err = db.AddMaterial(ctx, st, m, nil)
	require.NoError(t, err)
	after, err := db.Studio(ctx, st)
	require.NoError(t, err)
	require.Equal(t, before.LibraryVersion+1, after.LibraryVersion)
}

// Many tries at the same moment are all counted; what came well is forgotten.
func TestTriesAreCountedAtOnce(t *testing.T) {
	subject := strings.Repeat("a", 38) + id()
	one := func(_ int, a store.Attempt) (store.Attempt, bool) {
		return store.Attempt{Tries: a.Tries + 1, Passed: a.Passed, Last: now, Free: now}, false
	}
	var all errgroup.Group
	for range 24 {
		all.Go(func() error { _, err := db.Count(ctx, now, []string{subject}, one); return err })
	}
	require.NoError(t, all.Wait())
	list, err := db.Count(ctx, now, []string{subject, "never reached"}, one)
	require.NoError(t, err)
	require.Len(t, list, 1)
	require.Equal(t, 25, list[0].Tries)
	require.NoError(t, db.Forget(ctx, subject, now.Add(-time.Hour)))
	list, err = db.Count(ctx, now, []string{subject}, one)
	require.NoError(t, err)
	require.Equal(t, 1, list[0].Tries)
}

// What was acknowledged is there after the database was killed.
func TestNothingAcknowledgedIsLostWhenTheDatabaseIsKilled(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "db")
	server, err := localdb.Start(ctx, dir)
	require.NoError(t, err)
	s, err := store.Open(ctx, server.DSN)
	require.NoError(t, err)
	require.NoError(t, s.Migrate(ctx))
	st, l, _ := studio(t, s)
	const sent = 40
	for i := range sent {
		_, err := s.Append(ctx, st, l.ID, []studentlog.Entry{note(fmt.Sprint(i))})
		require.NoError(t, err)
	}
	_, err = localdb.Start(ctx, dir)
	require.ErrorContains(t, err, "in use")
	server.Kill()
	s.Close()

	server, err = localdb.Start(ctx, dir)
	require.NoError(t, err)
	defer server.Stop()
	s, err = store.Open(ctx, server.DSN)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Migrate(ctx), "migrating again changes nothing")
	log, err := s.Log(ctx, st, l.ID)
	require.NoError(t, err)
	require.Len(t, log, sent)
}

func TestAnAddressThatIsNoneIsRefused(t *testing.T) {
	_, err := store.Open(ctx, "not a dsn")
	require.ErrorContains(t, err, "not valid")
}

// What a teacher sets for a piece is kept with it, replaced by its name, taken
// back, and out of another studio's reach.
func TestOverrulingsAreKeptWithTheirPiece(t *testing.T) {
	st, _, m := studio(t, db)
	finger := overrule.Overruling{
		Kind:   overrule.Finger,
		Staff:  1,
		Bars:   []int{2},
		At:     rational.New(3, 2),
		Pitch:  62,
		Finger: "3",
		Prints: []string{"abc"},
	}
	border := overrule.Overruling{Kind: overrule.Border, At: rational.Int(0), Bars: []int{1}, Ends: true, Prints: []string{"def"}}
	before, err := db.Studio(ctx, st)
	require.NoError(t, err)
	m.Title, m.Tempo, m.Notes, m.Music = "Tune, corrected", 60, []string{"C4", "F#4"}, "print"
	m.Demands = []material.Demand{{Skill: "ties", Weight: 1.5, Bars: []int{2}, Origin: "teacher"}}
	require.NoError(t, db.SaveReading(ctx, st, store.Reading{Material: m, Set: []overrule.Overruling{finger, border}}))
	lib, err := db.Library(ctx, st)
	require.NoError(t, err)
	require.Equal(t, m, lib[m.ID], "focus points stay, demands are new")
	after, err := db.Studio(ctx, st)
	require.NoError(t, err)
	require.Greater(t, after.LibraryVersion, before.LibraryVersion, "snapshots know that they are stale")
	file, err := db.ScoreFile(ctx, st, m.ID)
	require.NoError(t, err)
	require.Equal(t, "<x/>", string(file.Data), "the score stays without a new one")

	got, err := db.Overrulings(ctx, st, m.ID)
	require.NoError(t, err)
	require.Equal(t, []overrule.Overruling{border, finger}, got)
	again := finger
	again.Finger = "4"
	change := store.Reading{
		Material: m,
		File:     &store.ScoreFile{Name: "new.abc", Data: []byte("X:1")},
		Set:      []overrule.Overruling{again},
		Remove:   []string{border.Key()},
	}
	require.NoError(t, db.SaveReading(ctx, st, change))
	got, err = db.Overrulings(ctx, st, m.ID)
	require.NoError(t, err)
	require.Equal(t, []overrule.Overruling{again}, got)
	file, err = db.ScoreFile(ctx, st, m.ID)
	require.NoError(t, err)
	require.Equal(t, store.ScoreFile{Name: "new.abc", Data: []byte("X:1")}, file)

	other, _, _ := studio(t, db)
	got, err = db.Overrulings(ctx, other, m.ID)
	require.NoError(t, err)
	require.Empty(t, got)
	require.ErrorIs(t, db.SaveReading(ctx, other, change), store.ErrNotFound)
	lib, err = db.Library(ctx, st)
	require.NoError(t, err)
	require.Equal(t, "Tune, corrected", lib[m.ID].Title)
}

// The studio's words have defaults, and a stale form changes nothing.
func TestWordsAndApproach(t *testing.T) {
	st, l, _ := studio(t, db)
	got, err := db.Studio(ctx, st)
	require.NoError(t, err)
	require.Equal(
		t,
		naming.Words{Notes: naming.Letters, Steps: naming.SkipsAndLeaps, Values: naming.Crotchets, Rhythm: naming.Walking},
		got.Words,
	)
	require.Equal(t, naming.ByDirection, got.Approach)
	stale := got
	got.Words.Notes, got.Approach = naming.Solfege, naming.ByPosition
	require.NoError(t, db.SetWords(ctx, got))
	require.ErrorIs(t, db.SetWords(ctx, stale), store.ErrConflict)
	again, err := db.Studio(ctx, st)
	require.NoError(t, err)
	require.Equal(t, naming.Solfege, again.Words.Notes)
	require.Equal(t, naming.ByPosition, again.Approach)

	require.NoError(t, db.SetApproach(ctx, st, l.ID, naming.ByName))
	other, _, _ := studio(t, db)
	require.NoError(t, db.SetApproach(ctx, other, l.ID, naming.ByInterval))
	mine, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, naming.ByName, mine.Approach, "another studio reaches nothing")
}

// What is cached of all ladders comes at once, and only of one's own studio.
func TestWhatIsKeptOfTheLadders(t *testing.T) {
	st, l, _ := studio(t, db)
	none, err := db.Snapshots(ctx, st)
	require.NoError(t, err)
	require.Empty(t, none)
	_, err = db.Append(ctx, st, l.ID, []studentlog.Entry{note("a"), note("b")})
	require.NoError(t, err)
	read, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.EqualValues(t, 2, read.Entries)
	require.NoError(t, db.SaveSnapshot(ctx, st, l.ID, store.Kept{Key: "print", Body: []byte("{}")}))
	require.NoError(t, db.SaveObserved(ctx, st, l.ID, store.Kept{Key: "key", Body: []byte("[1]")}))
	kept, err := db.Snapshots(ctx, st)
	require.NoError(t, err)
	require.Equal(t, map[string]store.Kept{l.ID: {Key: "print", Body: []byte("{}")}}, kept)
	seen, err := db.Observed(ctx, st)
	require.NoError(t, err)
	require.Equal(t, map[string]store.Kept{l.ID: {Key: "key", Body: []byte("[1]")}}, seen)
	elsewhere, err := db.Observed(ctx, id())
	require.NoError(t, err)
	require.Empty(t, elsewhere)
}

// A database set to another character set is refused with the command that
// mends it, and so is a table that was made in the meantime; ours are not.
func TestADatabaseThatLosesNamesIsRefused(t *testing.T) {
	require.NoError(t, db.Migrate(ctx))
	run := func(statement string) {
		t.Helper()
		_, err := db.DB().ExecContext(ctx, statement)
		require.NoError(t, err)
	}
	var name string
	require.NoError(t, db.DB().QueryRowContext(ctx, "SELECT DATABASE()").Scan(&name))
	run("CREATE TABLE old_names (name VARCHAR(20)) CHARACTER SET latin1")
	t.Cleanup(func() { run("DROP TABLE old_names") })
	require.EqualError(
		t,
		db.Migrate(ctx),
		"the table old_names keeps text as latin1, which loses names in many scripts; before starting again run: ALTER TABLE `old_names` CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci",
	)
	run("ALTER TABLE old_names CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
	require.NoError(t, db.Migrate(ctx), "what it said to do is enough")

	run("ALTER DATABASE " + name + " CHARACTER SET latin1")
	t.Cleanup(func() { run("ALTER DATABASE " + name + " CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci") })
	require.EqualError(
		t,
		db.Migrate(ctx),
		"the database "+name+" keeps text as latin1, which loses names in many scripts; before starting again run: ALTER DATABASE `"+name+"` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci",
	)
}
