package curriculum

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/student/leap"
)

func TestAProfileShowsWhereSkillsEnter(t *testing.T) {
	book := []material.Material{piece("1", "a"), piece("2", "a", "b"), piece("3", "b", "c", "d"), piece("4", "a")}
	g := Profile(book, leap.Ability{}, leap.DefaultPolicy())
	// a: new, once cleared, then secure; b likewise. By hand from the rules of novelty.
	require.InDeltaSlice(
		t,
		[]float64{1, 1.3, 2.3, 0},
		[]float64{g.Lines[0].Leap.Size, g.Lines[1].Leap.Size, g.Lines[2].Leap.Size, g.Lines[3].Leap.Size},
		1e-9,
	)
	require.Equal(t, []string{"c", "d"}, g.Lines[2].Enters)
	require.Equal(t, []string{"b"}, g.Lines[2].Again)
	require.True(t, g.Lines[2].Cliff)
	require.True(t, g.Lines[3].Plateau)
	require.Equal(t, []string{"c", "d"}, g.Once)
	require.Equal(t, Use{Skill: "a", At: []int{0, 1, 3}}, g.Skills[0])

	brings := leap.Ability{Skills: map[string]leap.Evidence{"a": {Shown: true}}}
	g = Profile(book, brings, leap.DefaultPolicy())
	require.Zero(t, g.Lines[0].Leap.Size)
	require.Empty(t, g.Lines[0].Enters)
	require.True(t, g.Skills[0].Brought)
	require.Empty(t, Profile(nil, brings, leap.DefaultPolicy()).Lines)
}

// A student who brings more never has a larger leap anywhere in a book.
func TestBringingMoreNeverRaisesALeap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var book []material.Material
		for i := range rapid.IntRange(1, 8).Draw(t, "pieces") {
			book = append(
				book,
				piece(fmt.Sprint(i), rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"a", "b", "c", "d"}), 0, 4, rapid.ID).Draw(t, "asks")...),
			)
		}
		brings := leap.Ability{Skills: map[string]leap.Evidence{}}
		before := Profile(book, brings, leap.DefaultPolicy())
		brings.Skills[rapid.SampledFrom([]string{"a", "b", "c", "d"}).Draw(t, "secure")] = leap.Evidence{Shown: true}
		for i, l := range Profile(book, brings, leap.DefaultPolicy()).Lines {
			require.LessOrEqual(t, l.Leap.Size, before.Lines[i].Leap.Size+1e-12)
		}
	})
}

func TestATypicalStudentBringsWhatTheMiddleOneHas(t *testing.T) {
	student := func(a, b int) leap.Ability {
		return leap.Ability{Skills: map[string]leap.Evidence{"a": {Cleared: a}, "b": {Cleared: b}}, LongestBars: 4 * a}
	}
	got := Typical([]leap.Ability{student(1, 0), student(3, 5), student(2, 0)})
	require.Equal(t, map[string]leap.Evidence{"a": {Cleared: 2}}, got.Skills)
	require.Equal(t, 8, got.LongestBars)
	require.Empty(t, Typical(nil).Skills)
}

// Kendall's tau, worked by hand: of the three pairs of shared skills two keep their order.
func TestTwoBooksSideBySide(t *testing.T) {
	p := leap.DefaultPolicy()
	a := Profile([]material.Material{piece("1", "a"), piece("2", "b"), piece("3", "c", "d")}, leap.Ability{}, p)
	b := Profile([]material.Material{piece("x", "b", "e"), piece("y", "a"), piece("z", "c", "a")}, leap.Ability{}, p)
	c := Compare(a, b)
	require.Equal(t, []Both{{"a", 0, 1, 1, 2}, {"b", 1, 0, 1, 1}, {"c", 2, 2, 1, 1}}, c.Shared)
	require.Equal(t, []Both{{"d", 2, -1, 1, 0}}, c.OnlyA)
	require.Equal(t, []Both{{"e", -1, 0, 0, 1}}, c.OnlyB)
	require.Equal(t, 1, c.Crossed)
	require.InDelta(t, 1.0/3, c.Agreement, 1e-12)
}

// Two steep books help each other: what one asks for in one leap the other has in steps.
func TestAPathCrossesBetweenBooks(t *testing.T) {
	steep := []material.Material{piece("s1", "a"), piece("s2", "a", "b", "c"), piece("s3", "c")}
	flat := []material.Material{piece("f1", "a"), piece("f2", "b"), piece("f3", "b", "c"), piece("f4", "a")}
	p := leap.DefaultPolicy()
	path := Cross([][]material.Material{steep, flat}, leap.Ability{}, p, leap.Reach{Size: 1.4})
	require.Less(t, path.Largest, path.Books[0])
	require.Equal(t, len(steep)+len(flat), len(path.Stops)+len(path.Left), "every piece is a stop or left out")
	require.NotEmpty(t, path.Left)
	for _, s := range path.Stops {
		require.NotEmpty(t, s.Why)
		require.False(t, s.Cliff, s.Material.Title)
	}
}

// Nothing is lost or doubled on a path, and each book keeps its order but for what is passed over.
func TestAPathHoldsEveryPieceOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var books [][]material.Material
		all := 0
		for k := range rapid.IntRange(1, 3).Draw(t, "books") {
			var book []material.Material
			for i := range rapid.IntRange(0, 7).Draw(t, "pieces") {
				book = append(
					book,
					piece(
						fmt.Sprint(k, "-", i),
						rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"a", "b", "c", "d", "e"}), 0, 4, rapid.ID).Draw(t, "asks")...),
				)
			}
			all += len(book)
			books = append(books, book)
		}
		path := Cross(books, leap.Ability{}, leap.DefaultPolicy(), leap.Reach{Size: 1.5})
		seen := map[string]bool{}
		for _, s := range path.Stops {
			require.False(t, seen[s.Material.ID])
			seen[s.Material.ID] = true
		}
		for _, m := range path.Left {
			require.False(t, seen[m.ID])
			seen[m.ID] = true
		}
		require.Len(t, seen, all)
	})
}

func TestConcerns(t *testing.T) {
	show := piece("Show", "d")
	show.Strand = material.Repertoire
	var many []string
	for i := range TooMany + 1 {
		many = append(many, fmt.Sprint("x", i))
	}
	concerns := Concerns([][]material.Material{{piece("1", "a"), piece("Heavy", many...)}, {show}}, catalogue(t), leap.DefaultPolicy())
	require.Equal(t, []string{
		"Nothing introduces “Ties: over the bar”: it has no preview steps, and “Show” is the first to ask for it.",
		"“Heavy” asks for 6 new skills at once.",
	}, concerns)
}
