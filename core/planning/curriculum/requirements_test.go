package curriculum

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
)

func asks(title, unit string, skills ...string) material.Material {
	m := material.Material{ID: title, Title: title, Unit: unit}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

// What a book takes for granted is what its first unit asks for and the book before taught, or what comes again and again in
// it; what comes once and is new is what the book itself begins with.
func TestWhatABookTakesForGranted(t *testing.T) {
	second := []material.Material{
		asks("a", "1", "steps", "ties", "pedal"), asks("b", "1", "steps", "skips"), asks("c", "1", "steps", "ties"),
		asks("d", "2", "trills", "steps"),
	}
	first := []material.Material{asks("x", "", "steps"), asks("y", "", "skips", "steps")}
	require.Len(t, FirstUnit(second), 3)
	require.Len(t, FirstUnit(first), 2)
	var got []string
	for _, r := range Requirements(second, first) {
		word := r.Skill
		if r.Taught {
			word += " taught"
		}
		got = append(got, word)
	}
	require.Equal(t, []string{"steps taught", "ties", "skips taught"}, got)
	require.Empty(t, Requirements(nil, first))
	others := [][]material.Material{{asks("z", "", "steps", "octaves", "trills", "fugue", "canon")}, first, {asks("q", "", "harmonics")}}
	require.Equal(t, 1, Forerunner(second, others), "not the one that asks for more than this book")
	require.Equal(t, -1, Forerunner(second, others[2:]))
}

// A teacher's own list takes the place of what is proposed; what of it the first pieces ask for keeps saying so.
func TestATeacherWritesWhatABookTakesForGranted(t *testing.T) {
	lib := material.Library{}
	for i, m := range []material.Material{asks("a", "1", "steps", "ties"), asks("b", "1", "steps", "skips"), asks("c", "2", "steps", "skips", "ties")} {
		m.SourceID, m.Order = "second", i
		lib[m.ID] = m
	}
	x := asks("x", "", "steps", "skips")
	x.SourceID = "first"
	lib["x"] = x
	books := []Source{
		{ID: "second", Title: "Second", Instrument: "piano"},
		{ID: "first", Title: "First", Instrument: "piano"},
		{ID: "old", Title: "Old", Instrument: "piano", Retired: true},
	}
	proposed := NeedsOf(lib, books[0], books)
	require.Equal(t, []any{"First", 2, false}, []any{proposed.Forerunner, proposed.First, proposed.Own})
	require.Equal(t, []string{"steps", "skips"}, skillsOf(proposed.List))
	books[0].Requires = []string{"octaves", "skips"}
	own := NeedsOf(lib, books[0], books)
	require.True(t, own.Own)
	require.Equal(t, []string{"octaves", "skips"}, skillsOf(own.List))
	require.Empty(t, own.List[0].Pieces)
	require.True(t, own.List[1].Taught)
	books[0].Requires = []string{}
	require.Empty(t, NeedsOf(lib, books[0], books).List, "an empty list is a list")
}

func skillsOf(list []Requirement) (out []string) {
	for _, r := range list {
		out = append(out, r.Skill)
	}
	return out
}

// Before a unit comes what it asks for and the units before it taught, by family.
func TestWhatIsGoneThroughBeforeAUnit(t *testing.T) {
	c, err := skill.Standard()
	require.NoError(t, err)
	book := []material.Material{
		asks("a", "1", "steady-beat", "echo-rhythm"),
		asks("b", "1", "dynamics-two"),
		asks("c", "2", "dynamics-two", "steady-beat"),
		asks("d", "2", "steady-beat", "finds-by-ear", "echo-rhythm"),
	}
	require.Equal(t, []string{"1", "2"}, Units(book))
	require.Empty(t, Review(book, "1", c))
	require.Empty(t, Review(book, "3", c))
	var families []skill.Family
	for _, r := range Review(book, "2", c) {
		x, _ := c.Get(r.Skill)
		families = append(families, x.Family)
	}
	require.Equal(t, []string{"echo-rhythm", "dynamics-two", "steady-beat"}, skillsOf(Review(book, "2", c)))
	require.IsIncreasing(t, families)

	list, err := Written([]string{"steady-beat", "echo-rhythm", "steady-beat"}, c)
	require.NoError(t, err)
	require.Equal(t, []string{"steady-beat", "echo-rhythm"}, list)
	_, err = Written([]string{"juggling"}, c)
	require.EqualError(t, err, "“juggling”")
}
