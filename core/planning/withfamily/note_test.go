package withfamily

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/student/studentlog"
)

func TestWhatAFamilyWritesIsChecked(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method))
	n, err := Noted(*s, Note{ID: "1", Kind: AlsoPlayed, Text: "  a tune\x00 ", About: "x", At: plantest.On(1)})
	require.NoError(t, err)
	require.Equal(t, Note{ID: "1", Kind: AlsoPlayed, Text: "a tune", Day: plantest.Monday.AddDate(0, 0, -1), At: plantest.On(1)}, n)
	n, err = Noted(*s, Note{Kind: Question, Text: strings.Repeat("ü", LongestNote), At: plantest.On(-3)})
	require.NoError(t, err)
	require.Equal(t, s.Now, n.At, "a clock that runs ahead is not believed")
	movable := Movable(*s)
	require.Len(t, movable, 4)
	require.Equal(t, plantest.Monday, movable[0].Day)
	n, err = Noted(*s, Note{Kind: MoveLesson, Text: "Friday?", About: movable[1].ID})
	require.NoError(t, err)
	require.Equal(t, movable[1].ID, n.About)
	for why, wrong := range map[admission.NotAdmitted]Note{
		admission.EmptyNote: {Kind: Question, Text: " \n"}, admission.LongNote: {Kind: Question, Text: strings.Repeat("ü", LongestNote+1)},
		admission.NoSuchLesson: {Kind: MoveLesson, Text: "x", About: "2026-05-03-x"}, admission.NoSuchNote: {Kind: "poem", Text: "x"},
	} {
		_, err := Noted(*s, wrong)
		require.Equal(t, admission.EntryError{Kind: why}, err)
	}
}

// What was also played counts as taste where its title surely means a piece of the library for the instrument.
func TestWhatWasAlsoPlayedCountsAsTaste(t *testing.T) {
	fog, cello := plantest.Piece("a", material.Method), plantest.Piece("b", material.Method)
	fog.Title, cello.Title, cello.Instrument = "Fog", "Open Water", "cello"
	s := plantest.Pupil(t, fog, cello)
	e, ok := Liked(*s, Note{ID: "01BX5ZZKBKACTAV9WEVGEMMVRZ", Text: "fog", At: plantest.On(0)})
	require.True(t, ok)
	require.Equal(
		t,
		studentlog.Entry{
			ID:       "01BX5ZZKBKACTAV9WEVGEMMVRZ",
			At:       plantest.On(0),
			Actor:    studentlog.Family,
			Kind:     studentlog.Liking,
			Material: "a",
			Sign:     studentlog.Unasked,
		},
		e,
	)
	for _, text := range []string{"Open Water", "something from the radio"} {
		_, ok := Liked(*s, Note{ID: "01BX5ZZKBKACTAV9WEVGEMMVRZ", Text: text, At: plantest.On(0)})
		require.False(t, ok, text)
	}
}

// Questions and wishes that wait come first, the oldest in front; then everything else, the newest in front.
func TestNotesInTurn(t *testing.T) {
	list := []Note{
		{ID: "old also", Kind: AlsoPlayed, At: plantest.On(9)}, {ID: "answered", Kind: Question, At: plantest.On(8), AnsweredAt: plantest.On(7)},
		{ID: "waits", Kind: Question, At: plantest.On(6)},
		{ID: "waits too", Kind: MoveLesson, At: plantest.On(7)}, {ID: "new also", Kind: AlsoPlayed, At: plantest.On(1)},
	}
	var got []string
	for _, n := range InTurn(list, func(n Note) Note { return n }) {
		got = append(got, n.ID)
	}
	require.Equal(t, []string{"waits too", "waits", "new also", "answered", "old also"}, got)
}

// Nothing is sent from eight in the evening to seven in the morning; one message on Monday goes at seven.
func TestWhenAMessageIsSent(t *testing.T) {
	at := func(text string) time.Time {
		out, err := time.Parse("2006-01-02 15:04", text)
		require.NoError(t, err)
		return out
	}
	for ready, want := range map[string][2]string{ // 2026-05-04 is a Monday
		"2026-05-04 06:59": {"2026-05-04 07:00", "2026-05-04 07:00"}, "2026-05-04 07:00": {"2026-05-04 07:00", "2026-05-04 07:00"},
		"2026-05-04 07:01": {"2026-05-04 07:01", "2026-05-11 07:00"}, "2026-05-04 19:59": {"2026-05-04 19:59", "2026-05-11 07:00"},
		"2026-05-04 20:00": {"2026-05-05 07:00", "2026-05-11 07:00"}, "2026-05-10 23:00": {"2026-05-11 07:00", "2026-05-11 07:00"},
		"2026-05-07 12:00": {"2026-05-07 12:00", "2026-05-11 07:00"},
	} {
		require.Equal(t, []time.Time{at(want[0]), at(want[1])}, []time.Time{SendAt(at(ready), EachWeek, UsualQuiet), SendAt(at(ready), OnMonday, UsualQuiet)}, ready)
	}
	// It is three o'clock on Monday: Sunday is over, Monday's is due, Tuesday rests.
	day := func(n int, rest bool, items int) week.Day {
		return week.Day{Date: plantest.Monday.AddDate(0, 0, n), Rest: rest, Items: make([]week.Item, items), Minutes: 9}
	}
	got := Reminders(plantest.Pupil(
		t,
	).Studio, week.Plan{Days: []week.Day{day(-1, false, 2), day(0, false, 2), day(1, true, 0), day(2, false, 0), day(3, false, 1)}})
	require.Equal(t, []Reminder{
		{plantest.Monday, at("2026-05-04 15:00"), AtHome{Kind: Practice, Things: 2, Minutes: 9, Left: 2, LeftMinutes: 9}},
		{plantest.Monday.AddDate(0, 0, 3), at("2026-05-07 15:00"), AtHome{Kind: Practice, Things: 1, Minutes: 9, Left: 1, LeftMinutes: 9}},
	}, got)
}

// Of a section all its bars are drawn, of what is played whole how it begins.
func TestWhatIsSeen(t *testing.T) {
	pieces, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\nK:C\nCDEF|G4|EFGE|D4|CDEF|G4|\n"))
	require.NoError(t, err)
	x := inweek.Shown{Piece: analysis.Of(pieces[0], "piano"), From: 4, To: 24}
	seen := func(k week.Kind) []float64 {
		from, to := x.Seen(week.Item{Kind: k})
		return []float64{from, to}
	}
	require.Equal(t, []float64{4, 24}, seen(week.Join))
	require.Equal(t, []float64{4, 20}, seen(week.Whole), "four bars")
	x.From, x.To = 0, 0
	require.Equal(t, []float64{0, 24}, seen(week.Preview), "all of it")
	require.Equal(t, []float64{0, 16}, seen(week.Review))
}

// On a day of rest a learned piece is heard, else what is listened to; never an exercise.
func TestATuneForADayOfRest(t *testing.T) {
	a, b, c := plantest.Piece("a", material.Method), plantest.Piece("b", material.Method), plantest.Piece("c", material.Technique)
	a.HasScore, b.HasScore, c.HasScore, c.Exercise = true, true, true, "scale/apart/C/major/-"
	s := plantest.Pupil(t, a, b, c, plantest.Piece("d", material.Method))
	it := func(k week.Kind, m string) week.Item { return week.Item{Key: string(k) + m, Kind: k, Material: m} }
	plan := func(items ...week.Item) week.Plan { return week.Plan{Days: []week.Day{{}, {Items: items}}} }
	got, ok := Tune(*s, plan(it(week.Review, "c"), it(week.Review, "d"), it(week.Listen, "a"), it(week.Review, "b")))
	require.Equal(t, []any{true, "reviewb"}, []any{ok, got.Key})
	got, ok = Tune(*s, plan(it(week.Review, "c"), it(week.Listen, "a"), it(week.Chunk, "b")))
	require.Equal(t, []any{true, "listena"}, []any{ok, got.Key})
	_, ok = Tune(*s, plan(it(week.Review, "c"), it(week.Chunk, "a")))
	require.False(t, ok)
}

// A game has its word, on a keyboard the keys that are looked for, and something to be heard.
func TestWhatIsSeenAndHeardOfAGame(t *testing.T) {
	s := plantest.Pupil(t)
	x, err := inweek.Show(*s, week.Item{Kind: week.Game, Material: "beside-black", Times: 1, Minutes: 2}, nil)
	require.NoError(t, err)
	require.Equal(t, []any{"in the middle", []int{50, 62, 74}, 3.0, true}, []any{x.Cue, x.Sound, x.To, x.Heard()})
	require.Len(t, x.Hands[0].Touches, 3)
	x, err = inweek.Show(*s, week.Item{Kind: week.Game, Material: "four-beats"}, nil)
	require.NoError(t, err)
	require.Equal(t, []any{4, 4.0, true}, []any{x.Beats, x.To, x.Heard()})
	s.Instrument = "cello"
	x, err = inweek.Show(*s, week.Item{Kind: week.Game, Material: "beside-black"}, nil)
	require.NoError(t, err)
	require.Empty(t, x.Hands, "no keys on a cello")
	x, err = inweek.Show(*s, week.Item{Kind: week.Game, Material: "gone"}, nil)
	require.NoError(t, err)
	require.Equal(t, []any{false, ""}, []any{x.Heard(), x.Cue})
}

// A bite is shown by its exercise, with its notes and its own tempo.
func TestABiteIsShown(t *testing.T) {
	s := plantest.Pupil(t)
	x, err := inweek.Show(*s, week.Item{Kind: week.Preview, Material: "thumb", Exercise: "five-finger/parallel/C/major-five-finger/-", Times: 1}, nil)
	require.NoError(t, err)
	require.Equal(t, "five-finger/parallel/C/major-five-finger/-", x.Music)
	require.Len(t, x.Hands, 2)
	require.Equal(t, []any{1, []string{"C4"}}, []any{x.Hands[0].Finger, x.Hands[0].Keys})
	require.Positive(t, x.To)
	x, err = inweek.Show(*s, week.Item{Kind: week.Preview, Material: "thumb", Exercise: "no/such/thing", Times: 1}, nil)
	require.NoError(t, err)
	require.False(t, x.Heard(), "kept by an older program: the words still say it")
}

// Quiet hours are the studio's: over midnight or within a day, and none where they begin and end alike.
func TestQuietHoursAreTheStudios(t *testing.T) {
	at := func(clock string) time.Time {
		when, err := time.Parse("2006-01-02 15:04", "2026-05-06 "+clock) // a Wednesday
		require.NoError(t, err)
		return when
	}
	send := func(clock string, wish Mail, q Quiet) string { return SendAt(at(clock), wish, q).Format("Mon 15:04") }
	noon := Quiet{From: 12 * 60, To: 14*60 + 30}
	require.Equal(t, []string{"Wed 11:59", "Wed 14:30", "Wed 14:30", "Wed 23:00"}, []string{
		send("11:59", EachWeek, noon), send("12:00", EachWeek, noon), send("14:29", EachWeek, noon), send("23:00", EachWeek, noon),
	})
	late := Quiet{From: 21*60 + 30, To: 9 * 60}
	require.Equal(t, []string{"Wed 21:29", "Thu 09:00", "Wed 09:00", "Mon 09:00"}, []string{
		send("21:29", EachWeek, late), send("21:30", EachWeek, late), send("08:59", EachWeek, late), send("08:59", OnMonday, late),
	})
	require.Equal(t, []string{"Wed 03:00", "Mon 07:00"}, []string{send("03:00", EachWeek, Quiet{}), send("03:00", OnMonday, Quiet{})})
	require.NoError(t, UsualQuiet.Check())
	require.EqualError(t, Quiet{From: -1}.Check(), "quiet hours begin and end between 00:00 and 23:59")
	require.Error(t, Quiet{To: 24 * 60}.Check())
}
