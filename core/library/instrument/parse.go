package instrument

import (
	"bytes"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/notation/score"
)

//go:embed instruments.json
var data []byte

// instruments are read once; the data ship with the program and a test reads them.
var instruments = func() []Instrument {
	list, err := Parse(data)
	if err != nil {
		panic(err)
	}
	return list
}()

// Extend adds the instruments of a file of a studio's own to those that ship, before anything is asked of them; an instrument
// that is there already is replaced. It adds all of them or, where one is wrong, none. The returned function takes them out again.
func Extend(own []byte) (undo func(), err error) {
	more, err := entries(own)
	if err != nil {
		return nil, err
	}
	shipped, err := entries(data)
	if err != nil {
		return nil, err
	}
	named := map[string]bool{}
	for i, x := range more {
		if id := x.id(); id != "" && named[id] {
			return nil, fmt.Errorf("instruments, entry %d: %q stands there twice", i+1, id)
		} else if id != "" {
			named[id] = true
		}
	}
	shipped = slices.DeleteFunc(shipped, func(x entry) bool { return named[x.id()] })
	list, err := read(append(shipped, more...), len(shipped))
	if err != nil {
		return nil, err
	}
	before := instruments
	instruments = list
	return func() { instruments = before }, nil
}

// Parse reads instruments from JSON and checks them.
func Parse(data []byte) ([]Instrument, error) {
	list, err := entries(data)
	if err != nil {
		return nil, err
	}
	return read(list, 0)
}

// entry is an instrument as it stands in a file.
type entry map[string]json.RawMessage

func (e entry) text(name string) string {
	var s string
	if json.Unmarshal(e[name], &s) != nil {
		return ""
	}
	return s
}

func (e entry) id() string { return e.text("id") }

func entries(data []byte) ([]entry, error) {
	var list []entry
	if err := json.Unmarshal(data, &list); err != nil {
		return nil, fmt.Errorf("instruments: it is no list of instruments: %w", err)
	}
	return list, nil
}

// resolved is an entry with all that it takes over from the one that it is like.
func resolved(list []entry, e entry, seen []string) (entry, error) {
	like := e.text("like")
	if like == "" {
		return e, nil
	}
	if slices.Contains(seen, like) {
		return nil, fmt.Errorf(
			"instruments: %s are each like the other: one of them has to say what it is",
			strings.Join(append(seen, like), ", "),
		)
	}
	i := slices.IndexFunc(list, func(o entry) bool { return o.id() == like })
	if i < 0 {
		return nil, fmt.Errorf("instruments: %q is like %q, which is not there", e.id(), like)
	}
	of, err := resolved(list, list[i], append(seen, like))
	if err != nil {
		return nil, err
	}
	out := maps.Clone(of)
	maps.Copy(out, e)
	delete(out, "like")
	return out, nil
}

// form is how an instrument is written.
type form struct {
	ID         string            `json:"id"`
	Family     Family            `json:"family"`
	Strings    []string          `json:"strings"`
	Clef       string            `json:"clef"`
	Octave     int               `json:"octave"`
	Transposes int               `json:"transposes"`
	Ranges     [][2]string       `json:"ranges"`
	Chart      map[string]string `json:"chart"`
	ChartOf    string            `json:"chartOf"`
	Without    []string          `json:"without"`
	Hand       Hand              `json:"hand"`
	Stands     bool              `json:"stands"`
	Pluck      map[string]string `json:"pluck"`
	Signs      map[string]string `json:"signs"`
	Drone      []int             `json:"drone"`
	Rolls      []Roll            `json:"rolls"`
}

// read makes instruments of entries; the error says which one is wrong and how, counted after those that ship.
func read(list []entry, shipped int) ([]Instrument, error) {
	var out []Instrument
	for i, e := range list {
		at := fmt.Sprintf("instruments, entry %d", i+1-shipped)
		if i < shipped {
			at = "instruments, one that ships"
		}
		if e.id() != "" {
			at += fmt.Sprintf(" (%s)", e.id())
		}
		e, err := resolved(list, e, []string{e.id()})
		if err != nil {
			return nil, err
		}
		whole, err := json.Marshal(e)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", at, err)
		}
		var in form
		d := json.NewDecoder(bytes.NewReader(whole))
		d.DisallowUnknownFields()
		if err := d.Decode(&in); err != nil {
			return nil, fmt.Errorf("%s: %s", at, plain(err))
		}
		if slices.ContainsFunc(out, func(o Instrument) bool { return o.ID == in.ID }) {
			return nil, fmt.Errorf("%s: %q stands there twice", at, in.ID)
		}
		x, err := in.instrument()
		if err != nil {
			return nil, fmt.Errorf("%s: %w", at, err)
		}
		out = append(out, x)
	}
	return out, nil
}

// plain says in words what is wrong with the form of an entry.
func plain(err error) string {
	var wrong *json.UnmarshalTypeError
	if errors.As(err, &wrong) {
		return fmt.Sprintf("%q cannot be a %s", wrong.Field, wrong.Value)
	}
	return strings.TrimPrefix(err.Error(), "json: ")
}

// clefs are those in which notes are written.
var clefs = []string{"", "G", "F", "C", "percussion"}

func (in form) instrument() (Instrument, error) {
	x := Instrument{
		ID: in.ID, Family: in.Family, Clef: in.Clef, Octave: in.Octave, Transposes: in.Transposes, ChartOf: in.ChartOf, Without: in.Without,
		Hand: in.Hand, Stands: in.Stands,
		Drone: in.Drone, Signs: in.Signs, Rolls: in.Rolls,
	}
	if name, ok := Named(in.ID); !ok || name != in.ID {
		return x, fmt.Errorf("%q is no name: write it in small letters", in.ID)
	}
	if !slices.Contains(Families(), in.Family) {
		return x, fmt.Errorf("%q is no family; there are %s", in.Family, joined(Families()))
	}
	if !slices.Contains(clefs, in.Clef) {
		return x, fmt.Errorf("%q is no clef; there are G, F, C and percussion", in.Clef)
	}
	if in.Octave < -3 || in.Octave > 3 || in.Transposes < -24 || in.Transposes > 24 {
		return x, fmt.Errorf("it sounds more than three octaves, or transposes by more than two, away from what is written")
	}
	for i, name := range in.Strings {
		p, ok := score.ParsePitch(name)
		if !ok {
			return x, fmt.Errorf("string %d: %q is no note; write it with its octave, as in D3", i+1, name)
		}
		x.Open = append(x.Open, p)
	}
	if err := in.strung(x); err != nil {
		return x, err
	}
	for i, r := range in.Ranges {
		low, okLow := score.ParsePitch(r[0])
		high, okHigh := score.ParsePitch(r[1])
		switch {
		case !okLow || !okHigh:
			return x, fmt.Errorf("range %d: %q to %q are no two notes", i+1, r[0], r[1])
		case low.Semitone() >= high.Semitone():
			return x, fmt.Errorf("range %d goes from %s down to %s: the lower note comes first", i+1, r[0], r[1])
		case i > 0 && !(Range{low, high}.Has(x.Ranges[i-1].Low) && Range{low, high}.Has(x.Ranges[i-1].High)):
			return x, fmt.Errorf("range %d does not hold range %d: each stage adds notes to the one before", i+1, i)
		}
		x.Ranges = append(x.Ranges, Range{low, high})
	}
	return x, in.chart(&x)
}

// strung checks the strings of an instrument and the hand on them.
func (in form) strung(x Instrument) error {
	switch strung := in.Family.Strung(); {
	case !strung && len(x.Open) > 0:
		return fmt.Errorf("it has strings, but %q is no family of stopped strings: its strings or its hand do not fit its family", in.Family)
	case !strung:
		return nil
	case len(x.Open) == 0:
		return errors.New("it has no strings: its strings or its hand do not fit its family")
	case in.Hand.By != "semitones" && in.Hand.By != "letters" || in.Hand.First < 1 || in.Hand.Reach < in.Hand.Span:
		return errors.New(
			"its strings or its hand do not fit its family: the hand goes by semitones or by letters, lies above the nut and reaches as far as its span",
		)
	}
	return nil
}

// chart reads fingerings by note, plucking fingers and rolls.
func (in form) chart(x *Instrument) error {
	if len(in.Chart) > 0 && !slices.Contains([]string{Holes, Valves, Slides}, in.ChartOf) {
		return fmt.Errorf("%q is nothing that a chart of fingers can show; there are holes, valves and slide", in.ChartOf)
	}
	for name, signs := range in.Chart {
		p, ok := score.ParsePitch(name)
		if !ok || strings.TrimSpace(signs) == "" {
			return fmt.Errorf("the chart has %q for %q, which is no note or no fingering", signs, name)
		}
		x.Chart = append(x.Chart, Charted{p, signs})
	}
	slices.SortFunc(x.Chart, func(a, b Charted) int { return a.Note.Semitone() - b.Note.Semitone() })
	for i := range x.Open {
		if finger := in.Pluck[strconv.Itoa(i+1)]; in.Family == Plucked {
			if !slices.Contains(Plucking(), finger) {
				return fmt.Errorf("string %d has no plucking finger of p, i, m and a", i+1)
			}
			x.Pluck = append(x.Pluck, finger)
		}
	}
	for _, d := range in.Drone {
		if d < 1 || d > len(x.Open) {
			return fmt.Errorf("there is no string %d that could never be stopped", d)
		}
	}
	for _, r := range in.Rolls {
		if r.ID == "" || r.Name == "" || len(r.Strings) < 2 ||
			slices.ContainsFunc(r.Strings, func(s int) bool { return s < 1 || s > len(x.Open) }) {
			return fmt.Errorf("the roll %q names strings that are not there", r.ID)
		}
	}
	return nil
}

func joined(list []Family) string {
	var out []string
	for _, f := range list {
		out = append(out, string(f))
	}
	return strings.Join(out, ", ")
}
