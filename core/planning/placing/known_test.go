package placing

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/library/titles"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/plantest"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func TestUpToHereInABook(t *testing.T) {
	s := plantest.Pupil(t, plantest.InBook("a", 1), plantest.InBook("b", 2), plantest.InBook("c", 3), plantest.Piece("other", material.Method))
	require.Equal(t, []string{"a", "b"}, UpTo(*s, "book", "b"))
	require.Equal(t, []string{"a", "b", "c"}, UpTo(*s, "book", ""))
	require.Empty(t, UpTo(*s, "book", "other"))
}

// What goes onto a ladder of a book is what is offered and was not begun, sections in the place of their units.
func TestTheRestOfABook(t *testing.T) {
	gone, first, second := plantest.InBook("gone", 4), plantest.InBook("c1", 1), plantest.InBook("c2", 2)
	gone.Retired = true
	first.PartOf, second.PartOf = "c", "c"
	cello := plantest.InBook("cello", 5)
	cello.Instrument = "cello"
	s := plantest.Pupil(t, plantest.InBook("a", 1), plantest.InBook("b", 2), plantest.InBook("c", 3), gone, cello, plantest.InBook("d", 6), first, second)
	plantest.Learned(s, "a", 3, 9)
	ids := func(rungs []ladder.Placed) []string {
		out := []string{}
		for _, r := range rungs {
			out = append(out, r.Material)
		}
		return out
	}
	require.Equal(t, []string{"a", "b", "c1", "c2", "d"}, ids(OfBook(s.Library, "book", "piano")))
	require.Equal(t, []string{"cello"}, ids(OfBook(s.Library, "book", "cello")))
	require.Equal(t, []string{"b", "c1", "c2", "d"}, ids(RestFrom(*s, "book", "")))
	require.Equal(t, []string{"b", "c1", "c2", "d"}, ids(RestFrom(*s, "book", "a")), "from one that was begun as well")
	require.Equal(t, []string{"c1", "c2", "d"}, ids(RestFrom(*s, "book", "c")))
	require.Equal(t, []string{"c1", "c2", "d"}, ids(RestAfter(*s, "book", "b")))
	require.Equal(t, []string{"d"}, ids(RestAfter(*s, "book", "gone")))
	require.Empty(t, RestAfter(*s, "book", "d"))
}

// A pasted line never means a piece that is not offered any more.
func TestARetiredPieceIsNotMeant(t *testing.T) {
	gone := plantest.Piece("gone", material.Method)
	gone.Title, gone.Retired = "Low Water", true
	s := plantest.Pupil(t, gone)
	require.Empty(t, Match(*s, titles.Read("Low Water"))[0].Best.ID)
	gone.Retired = false
	require.Equal(t, "gone", Match(*plantest.Pupil(t, gone), titles.Read("Low Water"))[0].Best.ID)
}

// What a notebook says of when is taken for the rough time that lies nearest.
func TestAboutWhen(t *testing.T) {
	want := map[int]Rough{
		0:    ThisTerm,
		30:   ThisTerm,
		57:   ThisTerm,
		58:   LastTerm,
		110:  LastTerm,
		200:  LastTerm,
		201:  LastYear,
		365:  LastYear,
		632:  LastYear,
		633:  LongAgo,
		4000: LongAgo,
	}
	for n, rough := range want {
		require.Equal(t, rough, RoughOf(plantest.Monday.AddDate(0, 0, -n), plantest.Monday), "%d days", n)
	}
}

// What was known before counts as learned with a doubt that grows with the time, says nothing of how long a
// piece takes, is no lesson, and is not asked for when it is long ago.
func TestWhatWasKnownBefore(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("new", material.Method, "pulse"), plantest.Piece("old", material.Method, "ties"), plantest.Piece("had", material.Method))
	plantest.Learned(s, "had", 9, 9)
	entries := Entries(*s, []Known{
		{Material: "new", When: ThisTerm}, {Material: "old", When: LongAgo}, {Material: "had", When: ThisTerm}, {Skill: "thumb", When: LastTerm},
		{Material: "new", When: LastYear},
	}, "t", plantest.Counter())
	require.Len(t, entries, 3, "what is learned already, and what stands there twice, is left out")
	require.Equal(
		t,
		[]int{30, 3 * 365, 110},
		[]int{
			civil.Between(s.Local(entries[0].At), plantest.Monday),
			civil.Between(s.Local(entries[1].At), plantest.Monday),
			civil.Between(s.Local(entries[2].At), plantest.Monday),
		},
	)
	then := plantest.Folded(*s, entries)
	require.Equal(t, standing.FromBefore, then.Standing.Materials["new"].Why)
	require.True(t, then.Standing.FirstLesson.IsZero(), "no lesson was given")
	require.True(t, then.Standing.LastLesson.IsZero())
	require.Empty(t, then.Standing.Clearings(), "and nothing is learned of how long pieces take")
	require.Equal(t, []string{"new"}, then.Learned(), "what is long ago is not in review")
	require.Empty(t, then.Starved(), "and nothing alarms")
	require.Greater(t, then.Recall("new"), then.Recall("old"))
	require.True(t, then.Standing.Ability.Skills["ties"].Faded)
	require.Empty(
		t,
		Entries(then, []Known{{Material: "old", When: LongAgo}, {Skill: "thumb", When: LongAgo}}, "t", plantest.Counter()),
		"entered again it is there",
	)

	s.Policy.Standing.Leap.SecureAfter = 1
	now := plantest.Folded(*s, nil)
	effect := EffectOf(now, plantest.Folded(*s, entries), []string{"new"}, []string{"had"})
	require.ElementsMatch(t, []string{"new", "old"}, effect.Pieces)
	require.Equal(t, []string{"pulse", "thumb", "ties"}, effect.Skills)
	require.Equal(t, []int{2, 1, 1}, []int{effect.Secure, effect.Rusty, effect.Review})
}

// A batch and its undo leave the same bytes, whatever else is in the log and in whatever order it arrives.
func TestABatchAndItsUndoLeaveTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := plantest.Pupil(t, plantest.Piece("a", material.Method, "pulse"), plantest.Piece("b", material.Method, "ties"), plantest.Piece("c", material.Method))
		ids := []string{"a", "b", "c"}
		var log []studentlog.Entry
		for i := range rapid.IntRange(0, 8).Draw(t, "entries") {
			kind := rapid.SampledFrom([]studentlog.Kind{studentlog.Assigned, studentlog.Cleared, studentlog.Hearing, studentlog.Note}).
				Draw(t, "kind")
			log = append(
				log,
				plantest.Entry(
					fmt.Sprint("e", i),
					rapid.IntRange(0, 60).Draw(t, "ago"),
					kind,
					studentlog.Entry{Material: rapid.SampledFrom(ids).Draw(t, "of"), Rating: 3, Text: "x"},
				),
			)
		}
		before, err := plantest.Folded(*s, log).Standing.Encode()
		require.NoError(t, err)
		var known []Known
		for range rapid.IntRange(1, 3).Draw(t, "known") {
			known = append(known, Known{Material: rapid.SampledFrom(ids).Draw(t, "material"), When: rapid.SampledFrom(Roughs()).Draw(t, "when")})
		}
		with := append([]studentlog.Entry{}, log...)
		for i, e := range Entries(plantest.Folded(*s, log), known, "t", plantest.Counter()) {
			with = append(with, e, plantest.Entry(fmt.Sprint("undo", i), 0, studentlog.Correction, studentlog.Entry{Corrects: e.ID}))
		}
		shuffled := rapid.Permutation(with).Draw(t, "order")
		after, err := plantest.Folded(*s, shuffled).Standing.Encode()
		require.NoError(t, err)
		require.Equal(t, before, after)
	})
}
