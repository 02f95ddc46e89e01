package bowed

import (
	_ "embed" // the plans that ship
	"encoding/json"
	"fmt"
	"slices"
)

// Plan is a way to bow the notes of an exercise.
type Plan struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// PerBow notes lie in one bow, from 1 to MostPerBow.
	PerBow int `json:"perBow"`
	// Words say how.
	Words string `json:"words"`
}

// MostPerBow is how many notes may lie in one bow: three octaves of a scale.
const MostPerBow = 24

// Check says what is wrong with a plan, or returns nil.
func (p Plan) Check() error {
	switch {
	case p.ID == "" || p.Name == "" || p.Words == "":
		return fmt.Errorf("a bow plan needs an id, a name and words")
	case p.PerBow < 1 || p.PerBow > MostPerBow:
		return fmt.Errorf("a bow holds 1 to %d notes, not %d", MostPerBow, p.PerBow)
	}
	return nil
}

//go:embed plans.json
var shippedPlans []byte

// plans are read once; they ship with the program and a test reads them.
var plans = func() (list []Plan) {
	if err := json.Unmarshal(shippedPlans, &list); err != nil {
		panic(err)
	}
	return list
}()

// Plans returns the bow plans in their order (common practice: whole bows first,
// then parts of the bow, then several notes in one).
func Plans() []Plan { return slices.Clone(plans) }

// ExtendPlans adds bow plans to those that ship, before any is asked for; one that is there already is replaced. The returned
// function takes them out again.
func ExtendPlans(more []Plan) (undo func(), err error) {
	for _, p := range more {
		if err := p.Check(); err != nil {
			return nil, err
		}
	}
	before := plans
	plans = append(slices.DeleteFunc(slices.Clone(plans), func(p Plan) bool {
		return slices.ContainsFunc(more, func(m Plan) bool { return m.ID == p.ID })
	}), more...)
	return func() { plans = before }, nil
}

// PlanOf returns a plan by its id; ok is false for one that is not known.
func PlanOf(id string) (Plan, bool) {
	for _, p := range plans {
		if p.ID == id {
			return p, true
		}
	}
	return Plan{}, false
}

// Stroke is the bow at a note.
type Stroke struct {
	// Up says that the bow goes up; the first goes down (common practice).
	Up bool
	// Begins and Ends say that the note is the first and the last of its bow.
	Begins, Ends bool
}

// Strokes bows so many notes.
func (p Plan) Strokes(notes int) []Stroke {
	out := make([]Stroke, notes)
	for i := range out {
		bow := i / p.PerBow
		out[i] = Stroke{Up: bow%2 == 1, Begins: i%p.PerBow == 0, Ends: i%p.PerBow == p.PerBow-1 || i == notes-1}
	}
	return out
}
