package curriculum

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
)

func catalogue(t require.TestingT) skill.Catalogue {
	c, err := skill.Parse(
		[]byte(
			`[{"id":"a","name":"Holds the beat"},{"id":"b","name":"Steps","needs":["a"]},{"id":"c","name":"Skips","needs":["b"],"steps":["say"]},{"id":"d","name":"Ties: over the bar"}]`,
		),
	)
	require.NoError(t, err)
	return c
}

func piece(title string, asks ...string) material.Material {
	m := material.Material{ID: title, Title: title, Strand: material.Method, SourceID: "book", Instrument: "piano"}
	for _, s := range asks {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1, Origin: "teacher"})
	}
	return m
}

func TestWhatIsWrittenIsReadBack(t *testing.T) {
	lib := material.Library{}
	for i, m := range []material.Material{piece("Low", "a"), piece("High", "b", "c")} {
		m.Order, m.Tags, m.FocusPoints = i+1, []string{"quiet"}, []material.FocusPoint{{ID: "f", Text: "steady"}}
		lib[m.ID] = m
	}
	own := []skill.Skill{{ID: "own", Name: "Own", Needs: []string{"a"}}}
	c := Of(lib, []Source{{ID: "book", Title: "Book", Instrument: "piano"}}, own)
	require.Len(t, c.Sources[0].Materials, 2)
	require.Equal(t, "Low", c.Sources[0].Materials[0].Title)
	data, err := Write(c)
	require.NoError(t, err)
	back, err := Read(data)
	require.NoError(t, err)
	again, err := Write(back)
	require.NoError(t, err)
	require.Equal(t, string(data), string(again))
	all, faults := Check(back, catalogue(t))
	require.Empty(t, faults)
	require.Equal(t, "Own", all.Name("own"))
}

func TestWhatIsNoCurriculumSaysWhere(t *testing.T) {
	head := `{"format":"patient-ladder-curriculum","version":1,`
	for says, text := range map[string]string{
		"line 2: ":                           "{\n]",
		"the file ends before":               `{"format":`,
		"this is no curriculum":              `{"format":"x","version":1,"sources":[]}`,
		"this is version 9":                  `{"format":"patient-ladder-curriculum","version":9,"sources":[]}`,
		"unknown field \"pieces\"":           head + `"pieces":[]}`,
		"sources.materials.page cannot be a": head + `"sources":[{"materials":[{"page":"four"}]}]}`,
		"something after the end":            head + `"sources":[]} {}`,
	} {
		_, err := Read([]byte(text))
		require.ErrorContains(t, err, says, text)
	}
	_, err := Read(make([]byte, MostBytes+1))
	require.ErrorContains(t, err, "larger than 8 MB")
}

func TestEveryFaultIsNamed(t *testing.T) {
	m := func(id, title, skill string) Material {
		return Material{ID: id, Title: title, Strand: "method", Demands: []material.Demand{{Skill: skill, Weight: 1}}}
	}
	c := Curriculum{
		Sources: []Source{
			{ID: "s", Title: "S", Instrument: "piano", Materials: []Material{m("1", "One", "a"), m("1", "Two", "zzz"), m("2", "", "a")}},
		},
	}
	_, faults := Check(c, catalogue(t))
	require.Equal(t, []string{
		`the id "1" stands there twice: source 1 ("S"), material 1 ("One") and source 1 ("S"), material 2 ("Two")`,
		`source 1 ("S"), material 2 ("Two") asks for the skill "zzz", which nobody knows`,
		`source 1 ("S"), material 3 ("") needs a title of at most 200 letters`,
	}, faults)

	c = Curriculum{Skills: []skill.Skill{{ID: "x", Name: "X", Needs: []string{"y"}}, {ID: "y", Name: "Y", Needs: []string{"x"}}}}
	known, faults := Check(c, catalogue(t))
	require.Len(t, faults, 1)
	require.Contains(t, faults[0], "in a circle")
	_, there := known.Get("x")
	require.False(t, there)
	_, faults = Check(Curriculum{Skills: []skill.Skill{{ID: "a", Name: "Again"}}}, catalogue(t))
	require.Contains(t, faults[0], "twice")

	_, faults = Check(Curriculum{Sources: []Source{{Materials: make([]Material, 1_000_000)}}}, catalogue(t))
	require.Equal(t, []string{"the curriculum holds 1000000 materials; 5000 is the most"}, faults)
	many := Source{ID: "s", Title: "S", Instrument: "harp", Materials: make([]Material, 100)}
	_, faults = Check(Curriculum{Sources: []Source{many}}, catalogue(t))
	require.Len(t, faults, 51)
	require.Contains(t, faults[50], "more")
}

func TestASpreadsheet(t *testing.T) {
	text := "\xef\xbb\xbfPiece;Page;Teaches;Mood;Shelf\n" +
		"Low Water;5;holds the beat; quiet;x\n" +
		";;;;\n" +
		"High Water;six;b;;\n" +
		"Gulls;7;\"Steps: 0,5; c\";\"comic; quick\";\n" +
		"Fog;8;juggling;;\n" +
		";9;a;;\n" +
		"low water;10;a;;\n" +
		"Kite;11;Ties: over the bar;;\n"
	table, err := ReadTable([]byte(text))
	require.NoError(t, err)
	fields := Guess(table.Columns)
	require.Equal(t, []Field{Title, Page, Skills, Tags, Ignore}, fields)
	ms, faults, _, err := table.Materials(fields, material.Method, catalogue(t), nil)
	require.NoError(t, err)
	require.Equal(t, []Fault{
		{4, "Page", "High Water", `"six" is not a number from 0 to 10000`, false},
		{6, "Teaches", "Fog", `nobody knows the skill "juggling"`, false},
		{7, "Piece", "", "there is no title", false},
		{8, "Piece", "low water", "the same title stands in line 2", true},
	}, faults)
	require.Equal(t, []string{"Low Water", "Gulls", "low water", "Kite"}, titlesOf(ms), "a title may stand there twice")
	require.Equal(
		t,
		[]material.Demand{{Skill: "b", Weight: 0.5, Origin: "teacher"}, {Skill: "c", Weight: 1, Origin: "teacher"}},
		ms[1].Demands,
	)
	require.Equal(t, []string{"comic", "quick"}, ms[1].Tags)
	require.Equal(t, "d", ms[3].Demands[0].Skill, "a colon may belong to the name")

	_, _, _, err = table.Materials([]Field{Page, Ignore, Ignore, Ignore, Ignore}, material.Method, catalogue(t), nil)
	require.ErrorContains(t, err, "no column is matched to the title")
	_, _, _, err = table.Materials([]Field{Title, Title, Ignore, Ignore, Ignore}, material.Method, catalogue(t), nil)
	require.ErrorContains(t, err, "two columns are matched to title")
}

// A teacher's own words for skills are said once: what each means, or that it is none. A word whose skill is gone is asked for again.
func TestATeachersWordsForSkills(t *testing.T) {
	table, err := ReadTable(
		[]byte(
			"title;skills\nFog;Left  Hand, a: 0.5\nKite;left hand | wrist up\nGull;smile | left hand: 0,5\nTide;hum\nOar;b, left hand, holds the beat\nNet;a| A\n",
		),
	)
	require.NoError(t, err)
	read := func(words Words) (rows []string, wrong []string, spoken []Spoken) {
		ms, faults, spoken, err := table.Materials([]Field{Title, Skills}, material.Method, catalogue(t), words)
		require.NoError(t, err)
		for _, m := range ms {
			row := m.Title
			for _, d := range m.Demands {
				row += fmt.Sprintf(" %s %g", d.Skill, d.Weight)
			}
			rows = append(rows, row)
		}
		for _, f := range faults {
			wrong = append(wrong, f.Title+": "+f.Says)
		}
		return rows, wrong, spoken
	}
	twice := `Net: it asks for "A" twice`
	rows, wrong, spoken := read(nil)
	require.Empty(t, rows)
	require.Equal(t, []string{
		`Fog: nobody knows the skill "Left  Hand"`, `Kite: nobody knows the skill "left hand, wrist up"`,
		`Gull: nobody knows the skill "smile, left hand"`, `Tide: nobody knows the skill "hum"`, `Oar: nobody knows the skill "left hand"`, twice,
	}, wrong)
	require.Equal(t, []Spoken{{"left hand", "", true, 4}, {"wrist up", "", true, 1}, {"smile", "", true, 1}, {"hum", "", true, 1}}, spoken)
	rows, wrong, spoken = read(Words{"left hand": "b", "wrist up": "b", "smile": "", "hum": "no-such-skill"})
	require.Equal(t, []string{"Fog b 1 a 0.5", "Kite b 1", "Gull b 0.5"}, rows[:3])
	require.Equal(t, []string{`Tide: nobody knows the skill "hum"`, twice}, wrong)
	require.Equal(
		t,
		[]Spoken{{"left hand", "b", false, 4}, {"wrist up", "b", false, 1}, {"smile", "", false, 1}, {"hum", "", true, 1}},
		spoken,
	)

	said, err := Said([][2]string{{" Left  hand", "b"}, {"smile", ""}}, catalogue(t))
	require.NoError(t, err)
	require.Equal(t, Words{"left hand": "b", "smile": ""}, said)
	_, err = Said([][2]string{{"hum", "no-such-skill"}}, catalogue(t))
	require.EqualError(t, err, `“hum” cannot mean the skill "no-such-skill", which nobody knows`)
	for word, ok := range map[string]bool{" ": false, strings.Repeat("ü", 100): true, strings.Repeat("ü", 101): false} {
		_, err = Said([][2]string{{word, ""}}, catalogue(t))
		require.Equal(t, ok, err == nil, word)
	}
}

// Books of one name are told apart by the order in which they were made; those of other instruments are others.
func TestBooksOfOneNameAreToldApart(t *testing.T) {
	in := []Source{
		{ID: "3", Title: "waves", Instrument: "piano"},
		{ID: "1", Title: "Waves", Instrument: "piano"},
		{ID: "2", Title: "Waves", Instrument: "cello"},
		{ID: "4", Title: "WAVES", Instrument: "piano"},
	}
	var titles []string
	for _, s := range ToldApart(in) {
		titles = append(titles, s.Title)
	}
	require.Equal(t, []string{"waves (2)", "Waves", "Waves", "WAVES (3)"}, titles)
	require.Equal(t, "waves", in[0].Title, "the books themselves stay as they are")
}

// A book as it stands in a notebook: numbers, units and pages are read and not kept in the titles.
func TestABookByItsTitles(t *testing.T) {
	table, fields := Listed("1.1 Low Water, p. 5\n1.2 Gulls p.6 - finished Feb\n\nUnit 2: Kite\nGulls\n")
	ms, faults, _, err := table.Materials(fields, material.Repertoire, catalogue(t), nil)
	require.NoError(t, err)
	require.Equal(t, []Material{
		{Title: "Low Water", Unit: "Unit 1", Page: 5, Strand: material.Repertoire},
		{Title: "Gulls", Unit: "Unit 1", Page: 6, Strand: material.Repertoire},
		{Title: "Kite", Unit: "Unit 2", Strand: material.Repertoire}, {Title: "Gulls", Strand: material.Repertoire},
	}, ms)
	require.Empty(t, faults, "a title of another unit is another piece")
	table, fields = Listed("Gulls\nGulls")
	_, faults, _, err = table.Materials(fields, material.Method, catalogue(t), nil)
	require.NoError(t, err)
	require.Equal(t, []Fault{{2, "Title", "Gulls", "the same title stands in line 1", true}}, faults)
}

func titlesOf(ms []Material) (out []string) {
	for _, m := range ms {
		out = append(out, m.Title)
	}
	return out
}

func TestOddTables(t *testing.T) {
	for says, data := range map[string]string{
		"the table is empty":       "\n\n",
		"workbook or another bina": "PK\x03\x04",
		"more than 5000 rows":      "title\n" + strings.Repeat("x\n", 5001),
	} {
		_, err := ReadTable([]byte(data))
		require.ErrorContains(t, err, says)
	}
	latin, err := ReadTable([]byte("Titel\tBy\nGr\xfc\xdfe\tX\n"))
	require.NoError(t, err)
	require.Equal(t, "Grüße", latin.Rows[0][0])
	long, err := ReadTable([]byte("title,page\na,1,2,3\n"))
	require.NoError(t, err)
	_, faults, _, err := long.Materials(Guess(long.Columns), material.Method, catalogue(t), nil)
	require.NoError(t, err)
	require.Contains(t, faults[0].Says, "4 cells")
}

// A table that was written is read back the same, whatever stands in it.
func TestTablesComeBack(t *testing.T) {
	word := rapid.StringMatching(`[=+@-]?[A-Za-zäß',"][A-Za-zäß',".! ]{0,12}[a-z]`)
	rapid.Check(t, func(t *rapid.T) {
		s := Source{}
		seen := map[string]bool{}
		for i := range rapid.IntRange(0, 6).Draw(t, "rows") {
			m := Material{
				Title: fmt.Sprint(word.Draw(t, "title"), i), Composer: word.Draw(t, "composer"),
				Strand: rapid.SampledFrom(material.Strands()).Draw(t, "strand"),
				Page:   rapid.IntRange(0, 99).Draw(t, "page"), Tempo: float64(rapid.IntRange(0, 200).Draw(t, "tempo")) / 2, Texture: material.InTurn,
				Demands: []material.Demand{{Skill: "a", Weight: float64(rapid.IntRange(1, 20).Draw(t, "weight")) / 10, Origin: "teacher"}},
				Tags:    []string{"quiet", "comic"},
			}
			if !seen[m.Title] {
				seen[m.Title] = true
				s.Materials = append(s.Materials, m)
			}
		}
		data, err := WriteTable(s)
		require.NoError(t, err)
		table, err := ReadTable(data)
		require.NoError(t, err)
		back, faults, _, err := table.Materials(Guess(table.Columns), material.Method, catalogue(t), nil)
		require.NoError(t, err)
		require.Empty(t, faults)
		require.Equal(t, s.Materials, back)
	})
}

func FuzzReadTable(f *testing.F) {
	f.Add([]byte("title,page\nx,1\n"))
	f.Add([]byte("a;b\n\"c;d\n"))
	f.Fuzz(func(t *testing.T, data []byte) {
		table, err := ReadTable(data)
		if err == nil {
			fields := Guess(table.Columns)
			if len(fields) > 0 {
				fields[0] = Title
			}
			_, _, _, _ = table.Materials(fields, material.Method, catalogue(t), nil)
		}
	})
}
