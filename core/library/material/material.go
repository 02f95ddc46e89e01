// Package material describes what can stand on a ladder: method pieces,
// exercises, reading stages and repertoire, with what each demands.
package material

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
)

// Strand is one of the side-by-side paths of a ladder.
type Strand string

// The strands of a ladder, in the order in which they are drawn.
const (
	Method     Strand = "method"
	Technique  Strand = "technique"
	Reading    Strand = "reading"
	Repertoire Strand = "repertoire"
	Ear        Strand = "ear"
)

// Strands returns all strands in drawing order.
func Strands() []Strand { return []Strand{Method, Technique, Reading, Repertoire, Ear} }

// Texture is how many things happen at once; a secure tempo counts per texture.
type Texture string

// The textures, from the simplest.
const (
	OneLine  Texture = "one line"
	InTurn   Texture = "hands in turn"
	Together Texture = "hands together"
)

// Material is one thing that can stand on a ladder.
type Material struct {
	ID         string
	Title      string
	Composer   string
	Strand     Strand
	Instrument string
	// Source, Unit and Page say where it comes from; Order is its place in the source, from 1.
	SourceID, Source, Unit string
	Page, Order            int
	// Tempo is in quarter notes a minute; 0 when the material has none.
	Tempo float64
	// Bars and DistinctBars count all bars and the different ones (see pattern); 0 without a score.
	Bars, DistinctBars int
	// BarLabels are the printed bar numbers; nil when bar i is printed as i.
	BarLabels []string
	// Quarters is the length played once, in quarter notes; 0 without a score.
	Quarters float64
	Texture  Texture
	// Notes are the written pitches that the student plays: "C4", "F#3".
	Notes []string
	// Music is a print of the notes by which another file of the same piece is known.
	Music string
	// Rules is the version of the rules by which the score was read (see
	// demand.RulesVersion); 0 without a score.
	Rules       int
	Demands     []Demand
	FocusPoints []FocusPoint
	// Loads say how hard it is in each dimension of its family at its tempo, in their order; nil where nobody has measured.
	Loads []Load
	// HasScore says that there is a file to read and engrave; Bars may be known without.
	HasScore bool
	// Tags say what the piece is like (see Tags).
	Tags []string
	// Exercise is the id of the exercise that it was made from (see core/exercise); empty for a piece.
	Exercise string
	// PartOf is the unit of which it is a section; empty for a whole one. A unit is cleared when its sections are.
	PartOf string
	// Retired says that it is not offered any more; whoever has it keeps it.
	Retired bool
}

// mostDemands and mostPoints are how many demands and focus points a material may have: more than any teacher writes.
const mostDemands, mostPoints = 500, 200

// Check says what is beyond the bounds within which materials are kept, or returns nil.
func (m Material) Check() error {
	for _, x := range []struct {
		what    string
		n, most int
	}{
		{"bars", max(m.Bars, m.DistinctBars, len(m.BarLabels)), score.MostBars}, {"notes", len(m.Notes), score.MostNotes},
		{"demands", len(m.Demands), mostDemands}, {"focus points", len(m.FocusPoints), mostPoints},
	} {
		if x.n > x.most {
			return fmt.Errorf("“%s” has %d %s; at most %d are kept", m.Title, x.n, x.what, x.most)
		}
	}
	return nil
}

// Unknown says that nobody knows what it asks for: it has no score, and no demands were named.
func (m Material) Unknown() bool { return len(m.Demands) == 0 && !m.HasScore && m.Exercise == "" }

// Units are the materials that have sections, by id.
func (l Library) Units() map[string]bool {
	out := map[string]bool{}
	for _, m := range l {
		if m.PartOf != "" {
			out[m.PartOf] = true
		}
	}
	return out
}

// Sections are those of a unit in their order.
func (l Library) Sections(unit string) []Material {
	var out []Material
	for _, m := range l {
		if m.PartOf == unit {
			out = append(out, m)
		}
	}
	slices.SortFunc(out, func(a, b Material) int { return cmp.Or(a.Order-b.Order, strings.Compare(a.ID, b.ID)) })
	return out
}

// Fault begins the id under which a usual fault of an exercise gets its marks like a focus point.
const Fault = "fault."

// Tags returns the words for what a piece is like, by which taste is learned.
func Tags() []string {
	return []string{"fast and showy", "lively", "lyrical", "recognisable", "comic", "quiet", "grand", "rhythmic", "sad", "strange"}
}

// Demand is a skill that a material asks for.
type Demand struct {
	Skill string `json:"skill"`
	// Weight is how strongly it is asked for, above 0 and at most 2; 1 is the usual full weight. One that the studio has
	// learned may be up to two and a half times that.
	Weight float64 `json:"weight"`
	// Bars are the positions, from 1, where it is asked for; empty for the whole piece.
	Bars []int `json:"bars,omitempty"`
	// Origin is "score" when found by rule, "teacher" when set by hand.
	Origin string `json:"origin"`
}

// Load is how high a piece lies in one dimension of difficulty.
type Load struct {
	Dimension dimension.ID `json:"dimension"`
	// Value is in the unit of the dimension, above 0.
	Value float64 `json:"value"`
	// Bars are the positions, from 1, where it is highest; empty for the whole piece.
	Bars []int `json:"bars,omitempty"`
}

// Load is the load of the material in a dimension; 0 where it has none.
func (m *Material) Load(d dimension.ID) float64 {
	for _, l := range m.Loads {
		if l.Dimension == d {
			return l.Value
		}
	}
	return 0
}

// Difficulty is how hard the material is for a beginner, whatever skills it asks for: what its loads are worth. Known is false
// for what has no score, and so nothing measured.
func (m *Material) Difficulty() (difficulty float64, known bool) {
	family, _ := instrument.FamilyOf(m.Instrument)
	return dimension.Difficulty(family, m.Load), m.Loads != nil
}

// FocusPoint is one thing to attend to while playing.
type FocusPoint struct {
	ID   string `json:"id"`
	Text string `json:"text"`
}

// UsualFocus are the focus points of a piece to which the teacher gave none
// (common practice).
func UsualFocus(id string) []string {
	family, _ := instrument.FamilyOf(id)
	switch family {
	case instrument.Bowed:
		return []string{"steady pulse", "straight bow", "pitch against the open strings"}
	case instrument.Plucked:
		return []string{"steady pulse", "even in loudness by finger", "small motions"}
	case instrument.Wind, instrument.Voice:
		return []string{"steady pulse", "a quiet breath before each phrase", "an even tone"}
	case instrument.Percussion:
		return []string{"steady pulse", "sticks at one height", "loose wrists"}
	case instrument.Keyboard:
		return []string{"steady pulse", "loose wrist", "listen to the ends of the phrases"}
	}
	return []string{"steady pulse", "an even tone", "listen to the ends of the phrases"}
}

// Library looks a material up by id.
type Library map[string]Material

// BarLabel returns the printed number of a bar position from 1.
func (m Material) BarLabel(bar int) string {
	if bar >= 1 && bar <= len(m.BarLabels) {
		return m.BarLabels[bar-1]
	}
	return strconv.Itoa(bar)
}

// Labels are the printed numbers of all bars, in order; none where their number is not known.
func (m Material) Labels() []string {
	out := make([]string, 0, max(0, m.Bars))
	for bar := 1; bar <= m.Bars; bar++ {
		out = append(out, m.BarLabel(bar))
	}
	return out
}

// mostRuns is how many places are named one by one.
const mostRuns = 6

// BarsName writes positions, ascending, as printed: "bar 3", "bars 1–2, 5". No bars are the whole piece.
func (m Material) BarsName(bars []int) string {
	var runs []string
	for i := 0; i < len(bars); {
		j := i
		for j+1 < len(bars) && bars[j+1] == bars[j]+1 {
			j++
		}
		run := m.BarLabel(bars[i])
		if j > i {
			run += "–" + m.BarLabel(bars[j])
		}
		runs = append(runs, run)
		i = j + 1
	}
	switch {
	case len(bars) == 0:
		return "the whole piece"
	case len(bars) == 1:
		return "bar " + runs[0]
	case len(runs) > mostRuns:
		return fmt.Sprintf("bars %s and %d more places", strings.Join(runs[:mostRuns-1], ", "), len(runs)-mostRuns+1)
	}
	return "bars " + strings.Join(runs, ", ")
}

// Span writes a stretch of bars as printed: "bars 3–4".
func (m Material) Span(from, to int) string {
	if from == to {
		return "bar " + m.BarLabel(from)
	}
	return "bars " + m.BarLabel(from) + "–" + m.BarLabel(to)
}

// LongestName is how many letters a title or another name may have.
const LongestName = 200

// Short keeps a name within LongestName letters; what is cut off shows as dots.
func Short(name string) string {
	if r := []rune(name); len(r) > LongestName {
		return string(r[:LongestName-1]) + "…"
	}
	return name
}

// Copy is a copy of a piece under another id, with ids of its own for its focus points, that somebody can change without
// changing it for others: its title says whose it is, and it stands in no book, so that the order of the book stays. ok is false
// for what is made by rule or is a section, of which there are no copies.
func (m Material) Copy(id, owner string, newID func() string) (c Material, ok bool) {
	if m.Exercise != "" || m.PartOf != "" {
		return Material{}, false
	}
	c = m
	c.ID, c.Title, c.Retired = id, Short(m.Title+" ("+owner+")"), false
	c.SourceID, c.Source, c.Unit, c.Page, c.Order = "", "", "", 0, 0
	c.Demands, c.FocusPoints = slices.Clone(m.Demands), nil
	for _, f := range m.FocusPoints {
		c.FocusPoints = append(c.FocusPoints, FocusPoint{ID: newID(), Text: f.Text})
	}
	return c, true
}
