package curriculum

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
	"patientladder/golden"
)

// twelve skills, every third with preview steps.
func twelve(t *testing.T) skill.Catalogue {
	var own []skill.Skill
	for i := range 12 {
		s := skill.Skill{ID: fmt.Sprintf("s%d", i), Name: fmt.Sprintf("Skill %d", i)}
		if i%3 == 0 {
			s.Steps = []string{"hear it", "try it"}
		}
		own = append(own, s)
	}
	c, err := skill.Catalogue{}.With(own)
	require.NoError(t, err)
	return c
}

// invented books, the same each time: a skill enters every second piece or so, and pieces grow.
func invented(seed uint64, n int) []material.Material {
	random := rand.New(rand.NewPCG(seed, 5))
	textures := []material.Texture{material.OneLine, material.InTurn, material.Together}
	var out []material.Material
	for i := range n {
		m := material.Material{
			ID:       fmt.Sprintf("b%d-%d", seed, i),
			Title:    fmt.Sprintf("Piece %d of book %d", i+1, seed),
			Strand:   material.Method,
			Order:    i + 1,
			HasScore: i%5 != 4,
			Bars:     4 + i + random.IntN(8),
			Tempo:    float64(50 + random.IntN(60)),
			Texture:  textures[random.IntN(3)],
		}
		m.DistinctBars = 1 + random.IntN(m.Bars)
		if random.IntN(6) == 0 {
			m.Strand = material.Repertoire
		}
		asked := map[int]bool{}
		for range random.IntN(4) {
			asked[random.IntN(min(12, 2+i))] = true
		}
		for k := range 12 {
			if asked[k] {
				m.Demands = append(m.Demands, material.Demand{Skill: fmt.Sprintf("s%d", k), Weight: float64(1+random.IntN(4)) / 2})
			}
		}
		out = append(out, m)
	}
	return out
}

// Five pairs of books: each as a path, side by side, crossed, and what is doubtful in both.
func TestBooksAsPathsAreHeldToTheValue(t *testing.T) {
	skills, policy := twelve(t), leap.DefaultPolicy()
	var out strings.Builder
	var students []leap.Ability
	brings := leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}}
	for pair := range uint64(5) {
		books := [][]material.Material{invented(2*pair+1, 12), invented(2*pair+2, 9+int(pair))}
		var gradations []Gradation
		fmt.Fprintf(&out, "### pair %d\n", pair+1)
		for _, book := range books {
			g := Profile(book, brings, policy)
			gradations = append(gradations, g)
			fmt.Fprintf(&out, "reach %.3f of %d, once %v, jumps", g.Reach.Size, g.Reach.From, g.Once)
			for _, j := range g.Jumps() {
				fmt.Fprintf(&out, " %s", j.Material.ID)
			}
			out.WriteByte('\n')
			for _, l := range g.Lines {
				fmt.Fprintf(&out, "%s %.3f cliff %t plateau %t enters %v again %v\n", l.Material.ID, l.Leap.Size, l.Cliff, l.Plateau, l.Enters, l.Again)
			}
			for _, u := range g.Skills {
				fmt.Fprintf(&out, "%s at %v brought %t\n", u.Skill, u.At, u.Brought)
			}
		}
		c := Compare(gradations[0], gradations[1])
		fmt.Fprintf(&out, "shared %v\nonly a %v\nonly b %v\ncrossed %d agreement %.3f\n", c.Shared, c.OnlyA, c.OnlyB, c.Crossed, c.Agreement)
		path := Cross(books, brings, policy, gradations[0].Reach)
		fmt.Fprintf(&out, "largest %.3f, books %.3f, left", path.Largest, path.Books)
		for _, m := range path.Left {
			fmt.Fprintf(&out, " %s", m.ID)
		}
		out.WriteByte('\n')
		for _, s := range path.Stops {
			fmt.Fprintf(&out, "%s %.3f cliff %t %s\n", s.Material.ID, s.Leap.Size, s.Cliff, s.Why)
		}
		for _, says := range Concerns(books, skills, policy) {
			fmt.Fprintln(&out, says)
		}
		// The next pair is met by a student who brings half of this one.
		next := brings.Copy()
		for _, m := range books[0][:6] {
			next.Clear(m)
		}
		students = append(students, next)
		brings = Typical(students)
		fmt.Fprintf(&out, "typical: %v, %d bars, %v\n", brings.Skills, brings.LongestBars, brings.Tempo)
	}
	golden.Equal(t, "paths.txt", out.String())
}

// Every field of a spreadsheet at and beyond its bounds.
func TestCellsAtAndBeyondTheirBounds(t *testing.T) {
	skills := twelve(t)
	many := func(n int) string { return strings.TrimSuffix(strings.Repeat("a;", n), ";") }
	cells := map[Field][]string{
		Title:        {strings.Repeat("ü", 200), strings.Repeat("ü", 201)},
		Composer:     {strings.Repeat("o", 200), strings.Repeat("o", 201)},
		StrandOf:     {"Method", "EAR", "sideways"},
		Unit:         {strings.Repeat("o", 100), strings.Repeat("o", 101)},
		Page:         {"0", "p. 12", "10000", "10001", "-1", "12a"},
		Tempo:        {"0", "92,5", "1000", "1000.1", "-1", "NaN", "fast"},
		Bars:         {"0", "20000", "20001", "-1", "1.5"},
		DistinctBars: {"0", "1", "20000", "20001"},
		TextureOf:    {"One line", "one-line", "in-turn", "together", "apart"},
		Skills:       {"s1", "Skill 2; s3:0.5|SKILL 4: 2", "s1:0", "s1: 2,1", "s1; skill 1", "s99", "s1:", "a:b"},
		Focus:        {many(12), many(13), " ; |x"},
		Tags:         {many(12), many(13)},
	}
	var out strings.Builder
	for _, field := range Fields() {
		for _, cell := range cells[field] {
			table := Table{Columns: []string{"t", "x", "b"}, Rows: [][]string{{"Tune", cell, "8"}}, Lines: []int{2}}
			fields := []Field{Title, field, Bars}
			switch field {
			case Title:
				table.Rows[0] = []string{cell}
			case Bars:
				fields[2] = Ignore
			}
			if field == Title {
				fields = fields[:1]
			}
			read, faults, _, err := table.Materials(fields, material.Repertoire, skills, nil)
			fmt.Fprintf(&out, "%s %.30q: %+v %+v %v\n", field, cell, brief(read), faults, err)
		}
	}
	twice := Table{
		Columns: []string{"t", "u"},
		Rows:    [][]string{{"A", "1"}, {"a", "1"}, {"A", "2"}, {"", "2"}, {"B", "3", "4"}, {"C"}},
		Lines:   []int{2, 3, 4, 7, 8, 9},
	}
	read, faults, _, err := twice.Materials([]Field{Title, Unit}, material.Method, skills, nil)
	fmt.Fprintf(&out, "rows: %+v %+v %v\n", brief(read), faults, err)
	for _, fields := range [][]Field{{Unit, Unit}, {Ignore, Ignore}, {Title, Title}, {Unit, Ignore}} {
		_, _, _, err := twice.Materials(fields, material.Method, skills, nil)
		fmt.Fprintf(&out, "%q: %v\n", fields, err)
	}
	golden.Equal(t, "cells.txt", out.String())
}

func brief(read []Material) (out []string) {
	for _, m := range read {
		out = append(
			out,
			fmt.Sprintf(
				"%.8s/%.4s/%s/%.4s/%d/%g/%d/%d/%s/%v/%d/%d",
				m.Title,
				m.Composer,
				m.Strand,
				m.Unit,
				m.Page,
				m.Tempo,
				m.Bars,
				m.DistinctBars,
				m.Texture,
				m.Demands,
				len(m.FocusPoints),
				len(m.Tags),
			),
		)
	}
	return out
}

// What is wrong with a curriculum, at and beyond every bound, and how much of it is said.
func TestWhatIsWrongIsSaidToTheBound(t *testing.T) {
	skills := twelve(t)
	with := func(change func(m *Material)) Curriculum {
		m := Material{ID: "m1", Title: "Tune", Strand: material.Method}
		change(&m)
		return Curriculum{Sources: []Source{{ID: "b1", Title: "Book", Instrument: "piano", Materials: []Material{m}}}}
	}
	var out strings.Builder
	say := func(name string, c Curriculum) {
		_, faults := Check(c, skills)
		fmt.Fprintf(&out, "%s: %d\n", name, len(faults))
		for i, f := range faults {
			if i < 3 || i >= len(faults)-2 {
				fmt.Fprintf(&out, "  %.200s\n", f)
			}
		}
	}
	for _, n := range []int{0, 1, 10000, 10001, -1} {
		say(fmt.Sprintf("page %d", n), with(func(m *Material) { m.Page = n }))
		say(fmt.Sprintf("bars %d", 2*n), with(func(m *Material) { m.Bars = 2 * n }))
		say(fmt.Sprintf("different bars %d of 1", n), with(func(m *Material) { m.Bars, m.DistinctBars = 1, n }))
		say(fmt.Sprintf("tempo %d", n/10), with(func(m *Material) { m.Tempo = float64(n) / 10 }))
		say(fmt.Sprintf("weight %d", n), with(func(m *Material) { m.Demands = []material.Demand{{Skill: "s1", Weight: float64(n) / 5000}} }))
	}
	for _, n := range []int{12, 13} {
		say(fmt.Sprintf("%d points", n), with(func(m *Material) { m.FocusPoints = make([]string, n) }))
		say(fmt.Sprintf("%d tags", n), with(func(m *Material) { m.Tags = make([]string, n) }))
	}
	say("twice asked", with(func(m *Material) {
		m.Demands = []material.Demand{{Skill: "s1", Weight: 1}, {Skill: "s1", Weight: 2}, {Skill: "no", Weight: 1}}
	}))
	say("blank title", with(func(m *Material) { m.Title = "  " }))
	say("strand", with(func(m *Material) { m.Strand = "sideways" }))
	for _, n := range []int{49, 50, 51, 60} {
		c := with(func(m *Material) {})
		for i := range n {
			c.Sources[0].Materials = append(c.Sources[0].Materials, Material{ID: fmt.Sprint(i), Title: "", Strand: material.Method})
		}
		say(fmt.Sprintf("%d faults", n), c)
	}
	for _, n := range []int{MostMaterials - 1, MostMaterials} {
		c := with(func(m *Material) {})
		for i := range n {
			c.Sources[0].Materials = append(c.Sources[0].Materials, Material{ID: fmt.Sprint(i), Title: "x", Strand: material.Method})
		}
		say(fmt.Sprintf("%d materials", n+1), c)
	}
	c := with(func(m *Material) {})
	c.Skills = []skill.Skill{
		{ID: strings.Repeat("a", 64), Name: "A"},
		{ID: strings.Repeat("a", 65), Name: "B"},
		{ID: "é", Name: "C"},
		{ID: "az-09", Name: "D"},
		{ID: "AZ", Name: "E"},
	}
	c.Sources = append(
		c.Sources,
		Source{ID: "b1", Title: "Again", Instrument: "Piano"},
		Source{Title: "No id", Instrument: "piano"},
		Source{Instrument: "piano"},
	)
	say("skills and ids", c)
	golden.Equal(t, "faults.txt", out.String())
}
