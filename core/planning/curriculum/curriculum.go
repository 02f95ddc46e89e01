// Package curriculum reads, checks, compares and writes what a studio teaches
// from: books with their materials, and skills of the studio's own.
//
//	curriculum.go  the model and its JSON form
//	check.go       what is wrong with a curriculum, all at once
//	table.go       a teacher's spreadsheet: columns, rows, faults
//	words.go       a teacher's own words for skills
//	profile.go     the gradation of a book: its leaps in order, its skills
//	compare.go     two books as paths through the same skills
//	path.go        a path that crosses between books
package curriculum

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"sort"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
)

// Format and Version name the JSON form; see docs/curriculum.schema.json.
const (
	Format  = "patient-ladder-curriculum"
	Version = 1
)

// Curriculum is what can be brought in or taken out.
type Curriculum struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	// Skills are those beyond the catalogue that ships.
	Skills  []skill.Skill `json:"skills,omitempty"`
	Sources []Source      `json:"sources"`
}

// Source is a book or a collection; one without a title holds loose pieces.
type Source struct {
	ID         string     `json:"id"`
	Title      string     `json:"title"`
	Instrument string     `json:"instrument"`
	Materials  []Material `json:"materials"`
	// Retired says that it is not offered any more.
	Retired bool `json:"-"`
	// Requires are the skills that it takes for granted, by id, as the teacher wrote them; nil as they are proposed.
	Requires []string `json:"-"`
}

// Material is one line of a source, in the order of the source.
type Material struct {
	ID           string            `json:"id"`
	Title        string            `json:"title"`
	Composer     string            `json:"composer,omitempty"`
	Strand       material.Strand   `json:"strand"`
	Unit         string            `json:"unit,omitempty"`
	Page         int               `json:"page,omitempty"`
	Tempo        float64           `json:"tempo,omitempty"`
	Bars         int               `json:"bars,omitempty"`
	DistinctBars int               `json:"distinctBars,omitempty"`
	Texture      material.Texture  `json:"texture,omitempty"`
	Demands      []material.Demand `json:"demands,omitempty"`
	FocusPoints  []string          `json:"focusPoints,omitempty"`
	Tags         []string          `json:"tags,omitempty"`
}

// MostMaterials is how many a curriculum may hold, MostBytes how large its file may be.
const (
	MostMaterials = 5000
	MostBytes     = 8 << 20
)

// Read reads the JSON form. It says what is not understood, and where; what is
// wrong in the contents is left to Check.
func Read(data []byte) (Curriculum, error) {
	var c Curriculum
	if len(data) > MostBytes {
		return c, fmt.Errorf("the file is larger than %d MB", MostBytes>>20)
	}
	dec := json.NewDecoder(bytes.NewReader(data))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&c); err != nil {
		return c, explain(err, data)
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return c, errors.New("there is something after the end of the curriculum")
	}
	switch {
	case c.Format != Format:
		return c, fmt.Errorf("this is no curriculum: its format is %q, not %q", c.Format, Format)
	case c.Version != Version:
		return c, fmt.Errorf("this is version %d of the format; version %d can be read", c.Version, Version)
	}
	return c, nil
}

// explain says where in the text the JSON is wrong.
func explain(err error, data []byte) error {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	at := int64(-1)
	what := err.Error()
	switch {
	case errors.As(err, &syntax):
		at = syntax.Offset
	case errors.As(err, &kind):
		at, what = kind.Offset, fmt.Sprintf("%s cannot be a %s", kind.Field, kind.Value)
	case errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF):
		return errors.New("the file ends before the curriculum does")
	}
	if at < 0 {
		return fmt.Errorf("the file is not understood: %s", what)
	}
	line := 1 + bytes.Count(data[:min(int(at), len(data))], []byte("\n"))
	return fmt.Errorf("line %d: %s", line, what)
}

// Write writes the JSON form, indented, the same bytes for the same curriculum.
func Write(c Curriculum) ([]byte, error) {
	c.Format, c.Version = Format, Version
	data, err := json.MarshalIndent(c, "", "  ")
	return append(data, '\n'), err
}

// ToldApart returns books with titles by which they can be told apart: of those that share one, in any case, on one instrument,
// each after the first that was made has its number, “Waves (2)”.
func ToldApart(sources []Source) []Source {
	out := slices.Clone(sources)
	made := make([]int, len(out))
	for i := range made {
		made[i] = i
	}
	slices.SortFunc(made, func(a, b int) int { return strings.Compare(out[a].ID, out[b].ID) })
	seen := map[string]int{}
	for _, i := range made {
		key := out[i].Instrument + "\x00" + strings.ToLower(out[i].Title)
		if seen[key]++; seen[key] > 1 {
			out[i].Title = fmt.Sprintf("%s (%d)", out[i].Title, seen[key])
		}
	}
	return out
}

// Of takes a curriculum out of a library: the books of some ids (all when none
// are named), with the pieces that belong to no book last. Exercises are not carried: they follow from the data.
func Of(lib material.Library, sources []Source, own []skill.Skill) Curriculum {
	c := Curriculum{Skills: own}
	at := map[[2]string]int{} // loose pieces have a source for each instrument
	for _, s := range sources {
		at[[2]string{s.ID, s.Instrument}] = len(c.Sources)
		s.Materials = []Material{}
		c.Sources = append(c.Sources, s)
	}
	for _, m := range sorted(lib) {
		i, wanted := at[[2]string{m.SourceID, m.Instrument}]
		if !wanted || m.Exercise != "" {
			continue
		}
		out := Material{
			ID: m.ID, Title: m.Title, Composer: m.Composer, Strand: m.Strand, Unit: m.Unit, Page: m.Page, Tempo: m.Tempo,
			Bars: m.Bars, DistinctBars: m.DistinctBars, Texture: m.Texture, Demands: m.Demands, Tags: m.Tags,
		}
		for _, f := range m.FocusPoints {
			out.FocusPoints = append(out.FocusPoints, f.Text)
		}
		c.Sources[i].Materials = append(c.Sources[i].Materials, out)
	}
	return c
}

// sorted lists a library in the order of its sources.
func sorted(lib material.Library) []material.Material {
	out := make([]material.Material, 0, len(lib))
	for _, m := range lib {
		out = append(out, m)
	}
	sort.Slice(out, func(a, b int) bool {
		if out[a].Order != out[b].Order {
			return out[a].Order < out[b].Order
		}
		return out[a].ID < out[b].ID
	})
	return out
}

// Book lists the materials of a source in its order. Exercises belong to none: they follow from the
// data, and are made anew where they are needed.
func Book(lib material.Library, source string) []material.Material {
	var out []material.Material
	for _, m := range sorted(lib) {
		if m.SourceID == source && m.Exercise == "" && m.PartOf == "" {
			out = append(out, m)
		}
	}
	return out
}

// List are the materials for an instrument ("" for all) by book and their order in it, without sections; what
// is retired comes last.
func List(lib material.Library, instrument string) []material.Material {
	out := slices.DeleteFunc(sorted(lib), func(m material.Material) bool {
		return m.PartOf != "" || instrument != "" && m.Instrument != instrument
	})
	retired := func(m material.Material) int {
		if m.Retired {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(out, func(a, b material.Material) int {
		return cmp.Or(retired(a)-retired(b), strings.Compare(a.Source, b.Source))
	})
	return out
}
