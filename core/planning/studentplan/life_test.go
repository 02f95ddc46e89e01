package studentplan

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/titles"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/ladder"
	"patientladder/core/reading/section"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// folded is the student with the standing of a log.
func (s Student) folded(log []studentlog.Entry) Student {
	s.Standing = standing.Fold(
		log,
		standing.Context{Library: s.Library, Skills: s.Skills, Family: instrument.Keyboard, Policy: s.Policy.Standing, Day: s.Today},
	)
	return s
}

// counter makes ids x1, x2 …
func counter() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("x", n) }
}

func entry(id string, daysAgo int, kind studentlog.Kind, e studentlog.Entry) studentlog.Entry {
	e.ID, e.At, e.Actor, e.Kind = id, on(daysAgo), "t", kind
	return e
}

func inBook(id string, order int, skills ...string) material.Material {
	m := piece(id, material.Method, skills...)
	m.SourceID, m.Source, m.Order = "book", "A book", order
	return m
}

func TestUpToHereInABook(t *testing.T) {
	s := pupil(t, inBook("a", 1), inBook("b", 2), inBook("c", 3), piece("other", material.Method))
	require.Equal(t, []string{"a", "b"}, s.UpTo("book", "b"))
	require.Equal(t, []string{"a", "b", "c"}, s.UpTo("book", ""))
	require.Empty(t, s.UpTo("book", "other"))
}

// What goes onto a ladder of a book is what is offered and was not begun, sections in the place of their units.
func TestTheRestOfABook(t *testing.T) {
	gone, first, second := inBook("gone", 4), inBook("c1", 1), inBook("c2", 2)
	gone.Retired = true
	first.PartOf, second.PartOf = "c", "c"
	cello := inBook("cello", 5)
	cello.Instrument = "cello"
	s := pupil(t, inBook("a", 1), inBook("b", 2), inBook("c", 3), gone, cello, inBook("d", 6), first, second)
	s.learned("a", 3, 9)
	ids := func(rungs []ladder.Placed) []string {
		out := []string{}
		for _, r := range rungs {
			out = append(out, r.Material)
		}
		return out
	}
	require.Equal(t, []string{"a", "b", "c1", "c2", "d"}, ids(OfBook(s.Library, "book", "piano")))
	require.Equal(t, []string{"cello"}, ids(OfBook(s.Library, "book", "cello")))
	require.Equal(t, []string{"b", "c1", "c2", "d"}, ids(s.RestFrom("book", "")))
	require.Equal(t, []string{"b", "c1", "c2", "d"}, ids(s.RestFrom("book", "a")), "from one that was begun as well")
	require.Equal(t, []string{"c1", "c2", "d"}, ids(s.RestFrom("book", "c")))
	require.Equal(t, []string{"c1", "c2", "d"}, ids(s.RestAfter("book", "b")))
	require.Equal(t, []string{"d"}, ids(s.RestAfter("book", "gone")))
	require.Empty(t, s.RestAfter("book", "d"))
}

// A pasted line never means a piece that is not offered any more.
func TestARetiredPieceIsNotMeant(t *testing.T) {
	gone := piece("gone", material.Method)
	gone.Title, gone.Retired = "Low Water", true
	s := pupil(t, gone)
	require.Empty(t, s.Match(titles.Read("Low Water"))[0].Best.ID)
	gone.Retired = false
	require.Equal(t, "gone", pupil(t, gone).Match(titles.Read("Low Water"))[0].Best.ID)
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
		require.Equal(t, rough, RoughOf(monday.AddDate(0, 0, -n), monday), "%d days", n)
	}
}

// Around a day lie the lesson before it and the one after it, whether or not there was one on it.
func TestTheLessonsAroundADay(t *testing.T) {
	past := []PastLesson{{Day: on(7)}, {Day: on(14)}, {Day: on(28)}}
	for day, want := range map[int][2]int{7: {14, 0}, 14: {28, 7}, 28: {0, 14}, 20: {28, 14}, 1: {7, 0}, 40: {0, 28}} {
		before, after := Around(past, on(day))
		for i, d := range []time.Time{before, after} {
			if want[i] == 0 {
				require.True(t, d.IsZero(), day)
			} else {
				require.Equal(t, on(want[i]), d, day)
			}
		}
	}
}

// What was known before counts as learned with a doubt that grows with the time, says nothing of how long a
// piece takes, is no lesson, and is not asked for when it is long ago.
func TestWhatWasKnownBefore(t *testing.T) {
	s := pupil(t, piece("new", material.Method, "pulse"), piece("old", material.Method, "ties"), piece("had", material.Method))
	s.learned("had", 9, 9)
	entries := s.KnownEntries([]Known{
		{Material: "new", When: ThisTerm}, {Material: "old", When: LongAgo}, {Material: "had", When: ThisTerm}, {Skill: "thumb", When: LastTerm},
		{Material: "new", When: LastYear},
	}, "t", counter())
	require.Len(t, entries, 3, "what is learned already, and what stands there twice, is left out")
	require.Equal(
		t,
		[]int{30, 3 * 365, 110},
		[]int{
			civil.Between(s.Local(entries[0].At), monday),
			civil.Between(s.Local(entries[1].At), monday),
			civil.Between(s.Local(entries[2].At), monday),
		},
	)
	then := s.folded(entries)
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
		then.KnownEntries([]Known{{Material: "old", When: LongAgo}, {Skill: "thumb", When: LongAgo}}, "t", counter()),
		"entered again it is there",
	)

	s.Policy.Standing.Leap.SecureAfter = 1
	now := s.folded(nil)
	effect := now.KnownEffect(s.folded(entries), []string{"new"}, []string{"had"})
	require.ElementsMatch(t, []string{"new", "old"}, effect.Pieces)
	require.Equal(t, []string{"pulse", "thumb", "ties"}, effect.Skills)
	require.Equal(t, []int{2, 1, 1}, []int{effect.Secure, effect.Rusty, effect.Review})
}

// A batch and its undo leave the same bytes, whatever else is in the log and in whatever order it arrives.
func TestABatchAndItsUndoLeaveTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := pupil(t, piece("a", material.Method, "pulse"), piece("b", material.Method, "ties"), piece("c", material.Method))
		ids := []string{"a", "b", "c"}
		var log []studentlog.Entry
		for i := range rapid.IntRange(0, 8).Draw(t, "entries") {
			kind := rapid.SampledFrom([]studentlog.Kind{studentlog.Assigned, studentlog.Cleared, studentlog.Hearing, studentlog.Note}).
				Draw(t, "kind")
			log = append(
				log,
				entry(
					fmt.Sprint("e", i),
					rapid.IntRange(0, 60).Draw(t, "ago"),
					kind,
					studentlog.Entry{Material: rapid.SampledFrom(ids).Draw(t, "of"), Rating: 3, Text: "x"},
				),
			)
		}
		before, err := s.folded(log).Standing.Encode()
		require.NoError(t, err)
		var known []Known
		for range rapid.IntRange(1, 3).Draw(t, "known") {
			known = append(known, Known{Material: rapid.SampledFrom(ids).Draw(t, "material"), When: rapid.SampledFrom(Roughs()).Draw(t, "when")})
		}
		with := append([]studentlog.Entry{}, log...)
		for i, e := range s.folded(log).KnownEntries(known, "t", counter()) {
			with = append(with, e, entry(fmt.Sprint("undo", i), 0, studentlog.Correction, studentlog.Entry{Corrects: e.ID}))
		}
		shuffled := rapid.Permutation(with).Draw(t, "order")
		after, err := s.folded(shuffled).Standing.Encode()
		require.NoError(t, err)
		require.Equal(t, before, after)
	})
}

func TestTheLessonsThatWere(t *testing.T) {
	s := pupil(t, piece("a", material.Method), piece("b", material.Method))
	s.Profile.Lessons.Slots[0].ID = "s"
	s.Profile.Lessons.Slots[0].From = monday.AddDate(0, 0, -35)
	var err error
	s.Profile.Lessons, err = s.Profile.Lessons.CancelLesson("2026-04-20-s", calendar.ByStudent, true)
	require.NoError(t, err)
	log := []studentlog.Entry{
		entry("1", 28, studentlog.Assigned, studentlog.Entry{Material: "a"}),
		entry("2", 28, studentlog.Note, studentlog.Entry{Text: "Heavy elbows"}),
		entry("3", 7, studentlog.Cleared, studentlog.Entry{Material: "a"}), entry("4", 7, studentlog.Assigned, studentlog.Entry{Material: "b"}),
		entry("5", 7, studentlog.Bring, studentlog.Entry{Text: "the blue book"}),
		entry("6", 7, studentlog.WentWell, studentlog.Entry{Text: "the ending"}),
		entry("k", 400, studentlog.KnownBefore, studentlog.Entry{Material: "b"}),
	}
	home := entry("h", 3, studentlog.Practised, studentlog.Entry{Material: "b"})
	home.Actor = studentlog.Family
	*s = s.folded(append(log, home))
	live := studentlog.Live(append(log, home))
	past := s.Past(live)
	var told []string
	for _, p := range past {
		told = append(told, fmt.Sprintf("%s %s %v %v %v", p.Day.Format("01-02"), p.State, p.Pieces, p.Cleared, p.Notes))
	}
	require.Equal(t, []string{
		"04-27 taught [a b] [a] []", "04-20 cancelled [] [] []", "04-13 notEntered [] [] []", "04-06 taught [a] [] [Heavy elbows]",
		"03-30 notEntered [] [] []",
	}, told, "practice at home and what was known before are no lessons")
	said := func(e *studentlog.Entry) string { return e.Text }
	require.Len(t, s.Matching(past, "", said), 5)
	require.Len(t, s.Matching(past, "ELBOWS", said), 1)
	require.Len(t, s.Matching(past, "the a", said), 2, "a title counts")
	require.Empty(t, s.Matching(past, "elbows ending", said), "all words in one lesson")

	last, ok := s.LastTime(live, monday)
	require.True(t, ok)
	require.Equal(t, monday.AddDate(0, 0, -7), last.Day)
	require.Equal(t, []string{"the blue book"}, last.Bring)
	_, ok = s.LastTime(live, monday.AddDate(0, 0, -28))
	require.False(t, ok)

	require.Equal(t, on(7).Add(time.Second), s.EntryTime(live, monday.AddDate(0, 0, -7)), "after the last entry of the day")
	require.Equal(
		t,
		monday.AddDate(0, 0, -21).Add(15*time.Hour),
		s.EntryTime(live, monday.AddDate(0, 0, -21)),
		"at the lesson of the calendar",
	)
	require.Equal(t, monday.AddDate(0, 0, -20).Add(12*time.Hour), s.EntryTime(live, monday.AddDate(0, 0, -20)), "at noon where there was none")
}

// What became of each lesson of the calendar: what was entered on its day, that it did not take place, that it was cancelled,
// or nothing, of which the teacher is told for eight weeks from the day on which the student was entered here.
func TestWhatBecameOfALesson(t *testing.T) {
	s := pupil(t, piece("a", material.Method))
	s.Profile.Lessons.Slots[0].ID = "s"
	var err error
	for _, day := range []string{"2026-04-20", "2026-01-05"} {
		s.Profile.Lessons, err = s.Profile.Lessons.CancelLesson(day+"-s", calendar.ByTeacher, false)
		require.NoError(t, err)
	}
	s.Holidays = []calendar.Holiday{holiday("half", -7, 1)}
	log := []studentlog.Entry{
		entry("1", 21, studentlog.Note, studentlog.Entry{Text: "Heavy elbows"}),
		entry("2", 27, studentlog.LessonMissed, studentlog.Entry{Day: "2026-04-06"}),
	}
	*s = s.folded(log)
	became := func() (out []string) {
		for _, l := range s.Timetable().Between(monday.AddDate(0, 0, -63), monday.AddDate(0, 0, 7)) {
			out = append(out, l.Day.Format("01-02")+" "+string(s.Became(l)))
		}
		return out
	}
	require.Equal(t, []string{
		"03-02 ", "03-09 notEntered", "03-16 notEntered", "03-23 notEntered", "03-30 notEntered", "04-06 missed", "04-13 taught",
		"04-20 cancelled", "04-27 ", "05-04 ahead", "05-11 ahead",
	}, became(), "nobody asks for one of a holiday, nor after eight weeks")
	s.Profile.Added = monday.AddDate(0, 0, -42).Add(15*time.Hour + 29*time.Minute)
	require.Equal(t, []string{"03-16 ", "03-23 notEntered"}, became()[2:4], "nor for one before the student was entered here")
	s.Profile.Added = monday.AddDate(0, 0, -42).Add(15*time.Hour + 30*time.Minute)
	require.Equal(t, "03-23 ", became()[3], "that day, but after the lesson")
	s.Profile.Added = monday.AddDate(0, 0, -42)
	waits := func() (out []string) {
		for _, u := range AllUnentered([]Student{*s}) {
			out = append(out, u.Student.Name+" "+u.Lesson.Day.Format("01-02"))
		}
		return out
	}
	require.Equal(t, []string{"Nell Farrow 03-23", "Nell Farrow 03-30"}, waits())
	s.Now = monday.Add(15*time.Hour + 30*time.Minute)
	require.Equal(t, "05-04 notEntered", became()[9], "today's is over")
	require.Equal(t, []string{"Nell Farrow 03-23", "Nell Farrow 03-30"}, waits(), "and is open on the page of the day")
	*s = s.folded(append(log, entry("3", 0, studentlog.Assigned, studentlog.Entry{Material: "a"})))
	require.Equal(t, "05-04 taught", became()[9])
	s.Now = monday.Add(15 * time.Hour)
	require.Equal(t, "05-04 ahead", became()[9], "to assign a piece before the lesson is not to give it")
	// A piece was assigned in the morning and nothing of the lesson entered: it waits, its entries go under its own time, and
	// what is arranged once it has begun is of it.
	s.Now = monday.Add(20 * time.Hour)
	planned := entry("4", 0, studentlog.Assigned, studentlog.Entry{Material: "a"})
	states := func() []any {
		*s = s.folded([]studentlog.Entry{planned})
		live := studentlog.Live([]studentlog.Entry{planned})
		return []any{became()[9], s.Past(live)[0].State, len(s.LessonDays(live)), s.EntryTime(live, monday).Format("15:04:05")}
	}
	planned.At = monday.Add(9 * time.Hour)
	require.Equal(t, []any{"05-04 notEntered", NotEntered, 0, "15:00:00"}, states())
	planned.At = monday.Add(15*time.Hour + time.Minute)
	require.Equal(t, []any{"05-04 taught", Taught, 1, "15:01:01"}, states())
	planned.At = monday.AddDate(0, 0, -1).Add(16 * time.Hour)
	require.Equal(t, OnlyPlanned, func() Became {
		*s = s.folded([]studentlog.Entry{planned})
		return s.Past(studentlog.Live([]studentlog.Entry{planned}))[1].State
	}(), "on a day without a lesson")
	// Before the first lesson time, and before the student was entered here, nobody knows of which days there were lessons.
	begin := s.Timetable().Begin()
	planned.At = begin.AddDate(0, 0, -3).Add(16 * time.Hour)
	for _, x := range []struct {
		added time.Time
		days  int
	}{{begin, 1}, {begin.AddDate(0, 0, -2), 1}, {begin.AddDate(0, 0, -3), 0}, {time.Time{}, 0}} {
		s.Profile.Added = x.added
		require.Len(t, s.LessonDays(studentlog.Live([]studentlog.Entry{planned})), x.days, x.added)
	}
	s.Profile.Added = monday.AddDate(0, 0, -42)
	// Of a student of whom nothing was ever entered nobody asks, but for a new one, whose first lesson may have been forgotten.
	none := s.folded(nil)
	require.Empty(t, AllUnentered([]Student{none}))
	none.Profile.Added = monday.AddDate(0, 0, -28)
	require.Len(t, AllUnentered([]Student{none}), 2)
	none.Profile.Added = monday.AddDate(0, 0, -29)
	require.Empty(t, AllUnentered([]Student{none}))
	s.Now = monday.Add(15 * time.Hour)
	*s = s.folded(log)
	var past []string
	for _, p := range s.Past(studentlog.Live(log)) {
		past = append(past, p.Day.Format("2006-01-02")+" "+string(p.State))
	}
	require.Equal(t, []string{
		"2026-04-20 cancelled", "2026-04-13 taught", "2026-04-06 missed", "2026-03-30 notEntered", "2026-03-23 notEntered",
		"2026-01-05 cancelled",
	}, past, "one that was cancelled stays in the list")
}

func TestWhatALadderCouldGet(t *testing.T) {
	retired := piece("retired", material.Method)
	retired.Retired = true
	part := piece("part", material.Method)
	part.PartOf = "a"
	s := pupil(t, inBook("a", 1), inBook("b", 2), piece("boat", material.Repertoire), retired, part)
	kinds := func(search string) (out []string) {
		for _, f := range s.Find(search, []curriculum.Source{{ID: "book", Title: "A book", Instrument: "piano"}, {ID: "c", Title: "A cello book", Instrument: "cello"}}, map[string]bool{"boat": true}) {
			out = append(out, fmt.Sprintf("%s %s %v", f.Kind, f.ID, f.OnLadder))
		}
		return out
	}
	require.Equal(t, []string{"book book false", "piece a false", "piece b false"}, kinds("book"), "pieces are found by their book as well")
	require.Equal(t, []string{"piece boat true"}, kinds("the boat"))
	require.Equal(t, "exercise scale/apart/C/major/- false", kinds("c major scale")[0])
	require.Len(t, s.KeysKnown(), 12)
}

func TestAUnitIsSplitIntoSections(t *testing.T) {
	unit := piece("theme", material.Repertoire)
	unit.Bars, unit.DistinctBars, unit.Quarters, unit.HasScore = 32, 16, 96, true
	unit.FocusPoints = []material.FocusPoint{{ID: "f", Text: "steady pulse"}}
	unit.Demands = []material.Demand{{Skill: "pulse", Weight: 1}, {Skill: "ties", Weight: 0.5, Bars: []int{2, 20}}}
	parts, err := section.Split(
		unit,
		[]section.Section{{ID: "one", Title: "Theme", From: 1, To: 8}, {ID: "two", Title: "Variations", From: 9, To: 32}},
		counter(),
	)
	require.NoError(t, err)
	require.Equal(
		t,
		[]any{"theme", 1, 8, 4, 24.0, false},
		[]any{parts[0].PartOf, parts[0].Order, parts[0].Bars, parts[0].DistinctBars, parts[0].Quarters, parts[0].HasScore},
	)
	require.Equal(t, []material.Demand{{Skill: "pulse", Weight: 1}, {Skill: "ties", Weight: 0.5, Bars: []int{12}}}, parts[1].Demands)
	require.Equal(t, "9", parts[1].BarLabel(1))
	require.NotEqual(t, parts[0].FocusPoints[0].ID, parts[1].FocusPoints[0].ID)
	for _, bad := range [][]section.Section{{{From: 1, To: 33}, {From: 34, To: 35}}, {{From: 5, To: 4}, {}}, {{From: 1, To: 8}, {From: 8, To: 9}}} {
		_, err := section.Split(unit, bad, counter())
		require.ErrorIs(t, err, section.ErrSectionBars)
	}
	_, err = section.Split(parts[0], []section.Section{{}, {}}, counter())
	require.ErrorIs(t, err, section.ErrSectionOfPart)
	free, err := section.Split(unit, []section.Section{{ID: "x"}, {ID: "y"}}, counter())
	require.NoError(t, err)
	require.Equal(t, []any{0, 8, 48.0}, []any{free[0].Bars, free[0].DistinctBars, free[0].Quarters}, "without bars, in equal shares")

	// The unit is cleared by its last section, is reviewed as a whole, and meanwhile its sections are worked at.
	s := pupil(t, unit, parts[0], parts[1])
	s.Units = s.Library.Units()
	log := []studentlog.Entry{
		entry("1", 9, studentlog.Assigned, studentlog.Entry{Material: "theme"}),
		entry("2", 8, studentlog.Assigned, studentlog.Entry{Material: "one"}),
		entry("3", 7, studentlog.Cleared, studentlog.Entry{Material: "one"}),
	}
	then := s.folded(log)
	require.Empty(t, then.In(standing.Working), "not the unit")
	require.Equal(t, []string{"one"}, then.Learned())
	then = s.folded(append(log, entry("4", 1, studentlog.Cleared, studentlog.Entry{Material: "two"})))
	require.Equal(t, standing.AllSections, then.Standing.Materials["theme"].Why)
	require.Equal(t, []string{"theme"}, then.Learned(), "the sections rest in it")
}

func TestTreatsAreEarned(t *testing.T) {
	known := piece("known", material.Method)
	s := pupil(t, piece("a", material.Method), piece("b", material.Method), known)
	s.learned("a", 9, 9)
	s.learned("known", 30, 9).LastPlayed = time.Time{}
	require.Equal(t, 1, s.ClearedPieces(), "what was known before earns nothing")
	earned, left := s.Earned(Treat{Pieces: 2, Base: 1})
	require.False(t, earned)
	require.Equal(t, 2, left)
	s.learned("b", 1, 9)
	earned, left = s.Earned(Treat{Pieces: 1, Base: 1})
	require.True(t, earned)
	require.Zero(t, left)
	earned, _ = s.Earned(Treat{Material: "b"})
	require.True(t, earned)
	earned, _ = s.Earned(Treat{Material: "never"})
	require.False(t, earned)
}

// A studio is led until somebody had a lesson and a week was published.
func TestTheFirstSteps(t *testing.T) {
	told := func(list []First) (out []string) {
		for _, f := range list {
			out = append(out, fmt.Sprintf("%s %v %s", f.Step, f.Done, f.Ladder))
		}
		return out
	}
	owner := Beginner{Adds: true, ChoosesWay: true, WayChosen: true}
	require.Equal(
		t,
		[]string{"way false ", "student false ", "pieces false ", "known false ", "lesson false ", "week false "},
		told(FirstSteps(nil, Beginner{Adds: true, ChoosesWay: true}, nil)),
	)
	s := pupil(t, piece("a", material.Method))
	require.Equal(
		t,
		[]string{"way true L", "student true L", "pieces false L", "known false L", "lesson false L", "week false "},
		told(FirstSteps([]Student{*s}, owner, nil)),
	)
	known := s.folded([]studentlog.Entry{entry("k", 90, studentlog.KnownBefore, studentlog.Entry{Material: "a"})})
	require.Equal(
		t,
		[]string{"way true L", "student true L", "pieces true L", "known true L", "lesson false L", "week false "},
		told(FirstSteps([]Student{known}, owner, nil)),
	)
	taught := s.folded(
		[]studentlog.Entry{
			entry("1", 0, studentlog.Assigned, studentlog.Entry{Material: "a"}),
			entry("2", 0, studentlog.Cleared, studentlog.Entry{Material: "a"}),
		},
	)
	require.Equal(
		t,
		[]string{"student false ", "pieces false ", "known false ", "lesson false ", "week false "},
		told(FirstSteps(nil, Beginner{Adds: true}, nil)),
		"the way is chosen already where a colleague joins",
	)
	require.Empty(t, FirstSteps(nil, Beginner{ChoosesWay: true}, nil), "an assistant adds nobody")
	require.Equal(
		t,
		[]string{"lesson true L", "week false L"},
		told(FirstSteps([]Student{*s, taught}, owner, nil))[4:],
		"the steps stay until the first week is published",
	)
	published := owner
	published.Published = true
	require.Empty(t, FirstSteps([]Student{*s, taught}, published, nil))
	require.Len(t, FirstSteps([]Student{*s}, published, nil), 6, "a week before any lesson")
	taught.Today = monday.AddDate(0, 0, 29)
	require.Empty(t, FirstSteps([]Student{*s, taught}, owner, nil), "who sets no weeks is not led for ever")
	require.Empty(t, FirstSteps([]Student{*s, *s, *s, *s}, owner, nil))
}
