// Package skill holds the catalogue of teachable things and what each one
// stands on.
package skill

import (
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"sort"
	"strings"
)

// Family groups skills as a teacher would look for them.
type Family string

// OfReading is the family of what is found on a page.
const OfReading Family = "reading"

// Skill is one teachable thing.
type Skill struct {
	// ID is a short stable name in lower case with hyphens.
	ID   string `json:"id"`
	Name string `json:"name"`
	// Family is for example "rhythm", "reading", "hands".
	Family Family `json:"family"`
	// Instruments are "keyboard", "bowed", "plucked"; empty means all.
	Instruments []string `json:"instruments,omitempty"`
	// Needs are the skills that come before this one.
	Needs []string `json:"needs,omitempty"`
	// Steps are the bite-sized preview steps that plant the skill before a
	// piece needs it, in order.
	Steps []string `json:"steps,omitempty"`
	// Exposures is how often the skill must have been met, in bites or in other
	// pieces, before a performance piece may ask for it; 0 for no such rule.
	Exposures int `json:"exposures,omitempty"`
	// Easy skills are planted where a lesson has a bite to spare; a piece that asks for one is not held up.
	Easy bool `json:"easy,omitempty"`
	// Ahead is how many weeks before its first use a skill must begin; 0 for as far as previews look (common practice:
	// two against three is prepared for years).
	Ahead int `json:"ahead,omitempty"`
	// Gesture says that it is a movement that makes a sound.
	Gesture bool `json:"gesture,omitempty"`
	// Set is "teacher" for a skill that no rule finds in a score.
	Set string `json:"set,omitempty"`
}

// Catalogue is a checked set of skills.
type Catalogue struct {
	byID  map[string]Skill
	order []string
	// early holds how many weeks ahead those begin of which that is said: few of many.
	early map[string]int
}

//go:embed catalogue.json
var standard []byte

// Standard returns the catalogue that ships with the program.
func Standard() (Catalogue, error) { return Parse(standard) }

// Parse reads a catalogue from JSON, an array of skills, and checks it: ids
// are unique, every need exists, and needs do not run in a circle.
func Parse(data []byte) (Catalogue, error) {
	var list []Skill
	if err := json.Unmarshal(data, &list); err != nil {
		return Catalogue{}, fmt.Errorf("skill catalogue: %w", err)
	}
	return Catalogue{}.With(list)
}

// With returns the catalogue with more skills, checked as a whole: an id that is
// there already, a need that nobody knows or a circle of needs is an error.
func (c Catalogue) With(more []Skill) (Catalogue, error) {
	c = Catalogue{byID: maps.Clone(c.byID), order: slices.Clone(c.order)}
	if c.byID == nil {
		c.byID = make(map[string]Skill, len(more))
	}
	for _, s := range more {
		if s.ID == "" || s.Name == "" {
			return Catalogue{}, fmt.Errorf("skill catalogue: a skill has no id or no name (%q, %q)", s.ID, s.Name)
		}
		if _, twice := c.byID[s.ID]; twice {
			return Catalogue{}, fmt.Errorf("skill catalogue: %q stands there twice", s.ID)
		}
		c.byID[s.ID] = s
		c.order = append(c.order, s.ID)
	}
	c.early = map[string]int{}
	for id, s := range c.byID {
		if s.Ahead > 0 {
			c.early[id] = s.Ahead
		}
	}
	return c, c.check()
}

// MissingError is a need that is not in the catalogue.
type MissingError struct{ Skill, Need string }

func (e *MissingError) Error() string {
	return fmt.Sprintf("skill catalogue: %q needs %q, which is not in it", e.Skill, e.Need)
}

// CircleError is a skill that needs itself, at once or through another one.
type CircleError struct{ Skill, Through string }

func (e *CircleError) Error() string {
	return fmt.Sprintf("skill catalogue: %q needs itself in a circle through %q", e.Skill, e.Through)
}

// Other is the skill that stands beside id in the circle; id where it needs itself at once.
func (e *CircleError) Other(id string) string {
	if e.Through == id {
		return e.Skill
	}
	return e.Through
}

// Over returns the catalogue with the studio's own skills in it: one whose id is there already takes the name, the
// steps and the needs of that one, and how far ahead it begins where that is said; its family stays. A need that nobody
// knows is a *MissingError, a circle of needs a *CircleError.
func (c Catalogue) Over(own []Skill) (Catalogue, error) {
	out := Catalogue{byID: maps.Clone(c.byID), order: slices.Clone(c.order)}
	var more []Skill
	for _, s := range own {
		shipped, there := out.byID[s.ID]
		if !there {
			more = append(more, s)
			continue
		}
		shipped.Name, shipped.Steps, shipped.Needs = s.Name, s.Steps, s.Needs
		if s.Ahead > 0 {
			shipped.Ahead = s.Ahead
		}
		out.byID[s.ID] = shipped
	}
	return out.With(more)
}

// ErrNoName refuses a skill without a name, ErrNoFamily a new one without a family.
var (
	ErrNoName   = errors.New("skill catalogue: a skill needs a name")
	ErrNoFamily = errors.New("skill catalogue: a new skill needs a family")
)

// Form is how a studio writes a skill.
type Form struct {
	Name  string
	Steps []string
	// Family is that of a new skill.
	Family Family
	// Needs are the skills that come before it; nil leaves them as they are.
	Needs []string
	// Ahead is how many weeks before its first use it must begin; 0 for as far as previews look, or as the skill came.
	Ahead int
}

// Written returns the skill of an id as a studio writes it, without empty steps: one of the catalogue in another form, or
// a new one, which no rule finds in a score. What cannot stand in the catalogue is ErrNoName, ErrNoFamily, a
// *CircleError or a *MissingError.
func (c Catalogue) Written(id string, f Form) (Skill, error) {
	s, there := c.byID[id]
	if !there {
		s = Skill{ID: id, Family: Family(strings.TrimSpace(string(f.Family))), Set: "teacher"}
	}
	s.Name, s.Steps = strings.TrimSpace(f.Name), []string{}
	for _, step := range f.Steps {
		if step = strings.TrimSpace(step); step != "" {
			s.Steps = append(s.Steps, step)
		}
	}
	if f.Needs != nil {
		s.Needs = f.Needs
	}
	s.Ahead = f.Ahead
	switch {
	case s.Family == "":
		return Skill{}, ErrNoFamily
	case s.Name == "":
		return Skill{}, ErrNoName
	}
	_, err := c.Over([]Skill{s})
	return s, err
}

// check walks the needs depth first and reports a missing skill or a circle.
func (c Catalogue) check() error {
	const walking, done = 1, 2
	state := map[string]int{}
	var walk func(id, from string) error
	walk = func(id, from string) error {
		s, ok := c.byID[id]
		if !ok {
			return &MissingError{from, id}
		}
		switch state[id] {
		case walking:
			return &CircleError{id, from}
		case done:
			return nil
		}
		state[id] = walking
		for _, n := range s.Needs {
			if err := walk(n, id); err != nil {
				return err
			}
		}
		state[id] = done
		return nil
	}
	for _, id := range c.order {
		if err := walk(id, ""); err != nil {
			return err
		}
	}
	return nil
}

// Get returns a skill by id.
func (c Catalogue) Get(id string) (Skill, bool) { s, ok := c.byID[id]; return s, ok }

// Early are the skills that must begin more than so many weeks before their first use, with how many.
func (c Catalogue) Early(weeks int) map[string]int {
	out := make(map[string]int, len(c.early))
	for id, ahead := range c.early {
		if ahead > weeks {
			out[id] = ahead
		}
	}
	return out
}

// Name returns the name of a skill, or its id when it is not known.
func (c Catalogue) Name(id string) string {
	if s, ok := c.byID[id]; ok {
		return s.Name
	}
	return id
}

// Renamed returns the catalogue with every name and step said in other words.
func (c Catalogue) Renamed(words func(string) string) Catalogue {
	out := Catalogue{byID: make(map[string]Skill, len(c.byID)), order: c.order, early: c.early}
	for id, s := range c.byID {
		s.Name = words(s.Name)
		steps := make([]string, len(s.Steps))
		for i := range s.Steps {
			steps[i] = words(s.Steps[i])
		}
		s.Steps = steps
		out.byID[id] = s
	}
	return out
}

// All returns the skills in the order of the catalogue.
func (c Catalogue) All() []Skill {
	out := make([]Skill, len(c.order))
	for i, id := range c.order {
		out[i] = c.byID[id]
	}
	return out
}

// Beneath returns every skill that id stands on, directly or not, sorted by id.
func (c Catalogue) Beneath(id string) []string {
	seen := map[string]bool{}
	var walk func(string)
	walk = func(id string) {
		for _, n := range c.byID[id].Needs {
			if !seen[n] {
				seen[n] = true
				walk(n)
			}
		}
	}
	walk(id)
	out := make([]string, 0, len(seen))
	for id := range seen {
		out = append(out, id)
	}
	sort.Strings(out)
	return out
}
