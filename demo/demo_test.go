package demo_test

import (
	"context"
	"maps"
	"os"
	"slices"
	"sort"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/store/storetest"
)

var (
	db  *store.Store
	ctx = context.Background()
	day = time.Date(2026, 10, 6, 0, 0, 0, 0, time.UTC)
)

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(s *store.Store) { db = s }))
}

// studio makes the demo once and returns what it holds.
func studio(t *testing.T) (string, []store.Ladder, material.Library) {
	t.Helper()
	teacher, err := db.TeacherByEmail(ctx, demo.Email)
	if err != nil {
		require.NoError(t, demo.Make(ctx, db, demo.Options{Day: day, Timezone: "UTC", PasswordHash: "x", Seed: 7}))
		teacher, err = db.TeacherByEmail(ctx, demo.Email)
	}
	require.NoError(t, err)
	ladders, err := db.Ladders(ctx, teacher.StudioID)
	require.NoError(t, err)
	lib, err := db.Library(ctx, teacher.StudioID)
	require.NoError(t, err)
	return teacher.StudioID, ladders, lib
}

// books are the method pieces of an instrument in their order, book by book.
func books(lib material.Library, instrument string) [][]material.Material {
	bySource := map[string][]material.Material{}
	for _, m := range lib {
		if m.Strand == material.Method && m.Instrument == instrument && m.SourceID != "" {
			bySource[m.Source] = append(bySource[m.Source], m)
		}
	}
	var out [][]material.Material
	for _, title := range slices.Sorted(maps.Keys(bySource)) { // Book One, Book Two
		slices.SortFunc(bySource[title], func(a, b material.Material) int { return a.Order - b.Order })
		out = append(out, bySource[title])
	}
	return out
}

func TestEightStudentsFromFourToSixtyEachElsewhere(t *testing.T) {
	id, ladders, lib := studio(t)
	require.Len(t, ladders, 8)
	skills, err := skill.Standard()
	require.NoError(t, err)
	instruments, ages, cleared := map[string]int{}, []int{}, map[int]int{}
	for _, l := range ladders {
		instruments[l.Instrument]++
		ages = append(ages, l.Profile().Age(day))
		log, err := db.Log(ctx, id, l.ID)
		require.NoError(t, err)
		require.NotEmpty(t, log, l.Name)
		for _, e := range log {
			require.NoError(t, e.Validate(), l.Name)
			require.True(t, e.At.Before(day), "%s: %s lies before the first day", l.Name, e.At)
			if e.Material != "" {
				require.Contains(t, lib, e.Material)
				require.Equal(t, l.Instrument, lib[e.Material].Instrument)
			}
		}
		require.Greater(t, log[len(log)-1].At.Sub(log[0].At), 8*7*24*time.Hour-time.Hour, "%s has months of history", l.Name)
		family, _ := instrument.FamilyOf(l.Instrument)
		st := standing.Fold(log, standing.Context{Library: lib, Skills: skills, Family: family, Policy: standing.DefaultPolicy(), Day: day})
		cleared[len(st.In(standing.Cleared))]++
		require.NotEmpty(t, st.In(standing.Working), "%s has a working piece", l.Name)
	}
	require.Equal(t, map[string]int{"piano": 4, "cello": 2, "ukulele": 2}, instruments)
	sort.Ints(ages)
	require.Equal(t, []int{4, 60}, []int{ages[0], ages[7]})
	require.Greater(t, len(cleared), 4, "the students stand at different places")
}

// Made twice with one seed, on two days, the lessons are the same a day apart.
func TestTheSameSeedGivesTheSameLessons(t *testing.T) {
	first := lessons(t, day, 7)
	later := lessons(t, day.AddDate(0, 0, 1), 7)
	require.Greater(t, len(first), 800)
	require.Len(t, later, len(first))
	for i := range first {
		require.Equal(t, first[i].Kind, later[i].Kind)
		require.Equal(t, first[i].Mark, later[i].Mark)
		require.Equal(t, first[i].Met, later[i].Met)
		require.Equal(t, 24*time.Hour, later[i].At.Sub(first[i].At))
	}
	require.NotEqual(t, len(first), len(lessons(t, day, 8)), "another seed, other lessons")
}

// lessons makes the demo in a database of its own and returns all entries.
func lessons(t *testing.T, day time.Time, seed uint64) []studentlog.Entry {
	server, err := localdb.Start(ctx, t.TempDir())
	require.NoError(t, err)
	defer server.Stop()
	s, err := store.Open(ctx, server.DSN)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Migrate(ctx))
	require.NoError(t, demo.Make(ctx, s, demo.Options{Day: day, Timezone: "UTC", PasswordHash: "x", Seed: seed}))
	teacher, err := s.TeacherByEmail(ctx, demo.Email)
	require.NoError(t, err)
	ladders, err := s.Ladders(ctx, teacher.StudioID)
	require.NoError(t, err)
	sort.Slice(ladders, func(a, b int) bool { return ladders[a].Name < ladders[b].Name })
	var all []studentlog.Entry
	for _, l := range ladders {
		log, err := s.Log(ctx, teacher.StudioID, l.ID)
		require.NoError(t, err)
		all = append(all, log...)
	}
	return all
}

// A book goes up and down on purpose, and skills enter a few at a time.
func TestTheBooksAreGraded(t *testing.T) {
	_, _, lib := studio(t)
	p := leap.DefaultPolicy()
	for instrument, pieces := range map[string]int{"piano": 12, "cello": 8, "ukulele": 8} {
		tunes := slices.Concat(books(lib, instrument)...)
		require.GreaterOrEqual(t, len(tunes), pieces, instrument)
		var ability leap.Ability
		var sizes []float64
		for i, m := range tunes {
			require.Positive(t, m.Bars, m.Title)
			require.NotEmpty(t, m.FocusPoints, m.Title)
			l := p.Of(m, ability)
			fresh := 0
			for _, part := range l.Parts {
				if part.Level == leap.New {
					fresh++
				}
			}
			if i > 0 {
				require.LessOrEqual(t, fresh, 5, "%s asks for too many firsts", m.Title)
			}
			sizes = append(sizes, l.Size)
			ability = ability.AfterClearing(m)
		}
		turns := 0
		for i := 2; i < len(sizes); i++ {
			if (sizes[i]-sizes[i-1])*(sizes[i-1]-sizes[i-2]) < 0 {
				turns++
			}
		}
		require.GreaterOrEqual(t, turns, len(sizes)/3, "%s: leaps %v do not alternate", instrument, sizes)
	}
}

// What the students did on the staircases can be read back: somebody keeps a cycle, and every
// The order of a book is that of how much its pieces ask of somebody who brings nothing: Spearman's rank correlation of each
// method of the demo (checked with the textbook formula for ranks with ties, Pearson's over the ranks).
func TestTheOrderOfABookIsThatOfItsLeaps(t *testing.T) {
	_, _, lib := studio(t)
	for _, player := range []string{"piano", "cello", "ukulele"} {
		for k, book := range books(lib, player) {
			var orders, sizes []float64
			for i, m := range book {
				orders, sizes = append(orders, float64(i)), append(sizes, leap.DefaultPolicy().Of(m, leap.Ability{}).Size)
			}
			rho := stat.Correlation(ranks(orders), ranks(sizes), nil)
			t.Logf("%s %d: %d pieces, %.2f, %.1f", player, k+1, len(orders), rho, sizes)
			require.GreaterOrEqual(t, rho, 0.85, "%s %d", player, k+1)
		}
	}
}

// ranks are the places of values in their order, those of equal ones shared.
func ranks(values []float64) []float64 {
	out := make([]float64, len(values))
	for i, v := range values {
		below, equal := 0, 0
		for _, w := range values {
			if w < v {
				below++
			}
			if w == v {
				equal++
			}
		}
		out[i] = float64(below) + float64(equal+1)/2
	}
	return out
}

// family of instruments has begun.
func TestStudentsClimbTheStaircases(t *testing.T) {
	id, ladders, lib := studio(t)
	cycles, families := 0, map[instrument.Family]int{}
	for _, l := range ladders {
		log, err := db.Log(ctx, id, l.ID)
		require.NoError(t, err)
		family, _ := instrument.FamilyOf(l.Instrument)
		st := standing.Fold(log, standing.Context{Library: lib, Family: family, Policy: standing.DefaultPolicy(), Day: day})
		if st.Cycle != nil {
			cycles++
			require.NotEmpty(t, st.Missed)
		}
		for m, ms := range st.Materials {
			if lib[m].Exercise != "" {
				families[family]++
				require.Contains(t, []standing.State{standing.Working, standing.Cleared}, ms.State, "%s of %s", lib[m].Title, l.Name)
			}
		}
	}
	require.Equal(t, 1, cycles)
	require.Len(t, families, 3)
}

func TestEveryMaterialStandsOnEveryLadderOfItsInstrument(t *testing.T) {
	id, ladders, lib := studio(t)
	for _, l := range ladders {
		placed, err := db.Rungs(ctx, id, l.ID)
		require.NoError(t, err)
		on := map[string]bool{}
		for _, pl := range placed {
			on[pl.Material] = true
			require.Equal(t, lib[pl.Material].Strand, pl.Strand)
		}
		for _, m := range lib {
			if m.Exercise == "" { // an exercise stands where it was taken, a second book where it was begun
				require.Equal(
					t,
					m.Instrument == l.Instrument && !strings.HasSuffix(m.Source, "Book Two"),
					on[m.ID],
					"%s on %s's ladder",
					m.Title,
					l.Name,
				)
			}
		}
		v := ladder.Draw(&standing.Standing{Materials: map[string]*standing.MaterialStanding{}}, lib, placed, leap.DefaultPolicy(), day, 0)
		require.GreaterOrEqual(t, len(v.Rails), 3)
	}
}

// A filling that is interrupted, wherever, leaves nothing, so that the next start begins again.
func TestAnInterruptedFillingLeavesNothing(t *testing.T) {
	ctx := context.Background()
	var faults storetest.Faults
	st, err := faults.OpenAt(ctx, storetest.AnotherDSN(t, db))
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, st.Migrate(ctx))
	before, err := storetest.Sums(ctx, st)
	require.NoError(t, err)
	for _, n := range []int{3, 60, 900} {
		faults.Fail(n)
		err := demo.Make(ctx, st, demo.Options{Day: time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC), Timezone: "UTC", PasswordHash: "x", Seed: 99})
		require.ErrorIs(t, err, storetest.ErrFault)
		after, err := storetest.Sums(ctx, st)
		require.NoError(t, err)
		require.Equal(t, before, after, "statement %d", n)
	}
}
