package curriculum

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/leap"
)

// Each bound of a material holds to the value: what is just right has no fault,
// what is just wrong has this one.
func TestTheBoundsOfAMaterial(t *testing.T) {
	const at = `source 1 ("S"), material 1 (`
	number := at + `"One"): page, bars, different bars or tempo cannot be right`
	demand := func(weight float64) func(*Material) {
		return func(m *Material) { m.Demands = []material.Demand{{Skill: "a", Weight: weight}} }
	}
	for name, c := range map[string]struct {
		change func(*Material)
		fault  string
	}{
		"as it is":                   {func(*Material) {}, ""},
		"200 letters of any script":  {func(m *Material) { m.Title = strings.Repeat("ж", 200) }, ""},
		"201 letters":                {func(m *Material) { m.Title = strings.Repeat("x", 201) }, at + `"` + strings.Repeat("x", 201) + `") needs a title of at most 200 letters`},
		"a title of blanks":          {func(m *Material) { m.Title = "  " }, at + `"  ") needs a title of at most 200 letters`},
		"the last page":              {func(m *Material) { m.Page = 10000 }, ""},
		"a page too many":            {func(m *Material) { m.Page = 10001 }, number},
		"a page before the first":    {func(m *Material) { m.Page = -1 }, number},
		"the most bars":              {func(m *Material) { m.Bars = 20000 }, ""},
		"a bar too many":             {func(m *Material) { m.Bars = 20001 }, number},
		"fewer bars than none":       {func(m *Material) { m.Bars = -1 }, number},
		"every bar different":        {func(m *Material) { m.Bars, m.DistinctBars = 8, 8 }, ""},
		"more different than all":    {func(m *Material) { m.Bars, m.DistinctBars = 8, 9 }, number},
		"only the different known":   {func(m *Material) { m.DistinctBars = 9 }, ""},
		"fewer different than none":  {func(m *Material) { m.DistinctBars = -1 }, number},
		"the fastest":                {func(m *Material) { m.Tempo = 1000 }, ""},
		"faster":                     {func(m *Material) { m.Tempo = 1001 }, number},
		"slower than nothing":        {func(m *Material) { m.Tempo = -1 }, number},
		"the heaviest demand":        {demand(2), ""},
		"a demand of no weight":      {demand(0), at + `"One"): the weight of "a" must be above 0 and at most 2, not 0`},
		"a demand that is too heavy": {demand(2.5), at + `"One"): the weight of "a" must be above 0 and at most 2, not 2.5`},
		"a demand twice":             {func(m *Material) { demand(1)(m); m.Demands = append(m.Demands, m.Demands...) }, at + `"One") asks for the skill "a" twice`},
		"a strand nobody has":        {func(m *Material) { m.Strand = "games" }, at + `"One"): "games" is not a strand (method, technique, reading, repertoire, ear)`},
		"twelve points and tags":     {func(m *Material) { m.FocusPoints, m.Tags = make([]string, 12), make([]string, 12) }, ""},
		"thirteen points":            {func(m *Material) { m.FocusPoints = make([]string, 13) }, at + `"One") has more than 12 focus points or tags`},
		"thirteen tags":              {func(m *Material) { m.Tags = make([]string, 13) }, at + `"One") has more than 12 focus points or tags`},
	} {
		m := Material{ID: "1", Title: "One", Strand: "method"}
		c.change(&m)
		_, faults := Check(Curriculum{Sources: []Source{{ID: "s", Title: "S", Instrument: "piano", Materials: []Material{m}}}}, catalogue(t))
		if c.fault == "" {
			require.Empty(t, faults, name)
			continue
		}
		require.Equal(t, []string{c.fault}, faults, name)
	}
}

// Five new skills in one material are no concern, six are; what the first of a
// book brings never is.
func TestSixNewSkillsAtOnceAreTooMany(t *testing.T) {
	book := func(skills ...string) [][]material.Material {
		return [][]material.Material{{piece("First", "a"), piece("Next", skills...)}}
	}
	require.Empty(t, Concerns(book("b", "c", "d", "e", "f"), catalogue(t), leap.DefaultPolicy()))
	require.Equal(
		t,
		[]string{"“Next” asks for 6 new skills at once."},
		Concerns(book("b", "c", "d", "e", "f", "g"), catalogue(t), leap.DefaultPolicy()),
	)
	first := [][]material.Material{{piece("First", "a", "b", "c", "d", "e", "f", "g")}}
	require.Empty(t, Concerns(first, catalogue(t), leap.DefaultPolicy()))
}

// Of what lies within reach the greater leap is the better next one, and the
// smaller after a big jump; of what lies beyond it, the smaller; at the reach
// itself a leap still fits, and of equal ones the earlier stays.
func TestWhichLeapIsTheBetterNextOne(t *testing.T) {
	const reach = 2
	for _, c := range []struct {
		l, than float64
		rest    bool
		better  bool
	}{
		{1, 3, false, true},
		{3, 1, false, false},
		{2, 3, false, true},
		{2, 1, false, true},
		{1, 2, false, false},
		{1, 2, true, true},
		{2, 1, true, false},
		{3, 4, false, true},
		{4, 3, false, false},
		{1, 1, false, false},
		{1, 1, true, false},
		{3, 3, false, false},
	} {
		require.Equal(t, c.better, better(c.l, c.than, reach, c.rest), "%+v", c)
	}
}

// A book holds its own pieces in their order, without the exercises that follow from data and without sections;
// a book that is not there holds nothing.
func TestWhatABookHolds(t *testing.T) {
	lib := material.Library{}
	for i, m := range []material.Material{
		{ID: "second", SourceID: "b", Order: 2, Instrument: "piano"}, {ID: "first", SourceID: "b", Order: 1, Instrument: "piano"},
		{ID: "scale", SourceID: "b", Order: 3, Instrument: "piano", Exercise: "scale/apart/C/major/-"},
		{ID: "part", SourceID: "b", Order: 4, Instrument: "piano", PartOf: "first"},
		{ID: "other", SourceID: "c", Order: 1, Instrument: "piano"}, {ID: "loose", Instrument: "piano", Title: "Loose"},
		{ID: "cello", Instrument: "cello", Title: "Cello"},
		{ID: "drill", Instrument: "piano", Exercise: "scale/apart/G/major/-"},
	} {
		if m.Title == "" {
			m.Title = string(rune('a' + i))
		}
		lib[m.ID] = m
	}
	ids := func(list []material.Material) (out []string) {
		for _, m := range list {
			out = append(out, m.ID)
		}
		return out
	}
	require.Equal(t, []string{"first", "second"}, ids(Book(lib, "b")))
	require.Equal(t, []string{"other"}, ids(Book(lib, "c")))
	require.Empty(t, Book(lib, "d"))
}
