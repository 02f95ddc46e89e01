package exercise

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"patientladder/core/library/instrument"
)

// Form is how a studio says one type of exercise: goals of its own and what it watches for. What it does not
// name stays as it came.
type Form struct {
	// Type is the id of the type.
	Type string `json:"type"`
	// Goals are three for each step that has others than the program's, by the id of the step.
	Goals map[string][]string `json:"goals,omitempty"`
	// Faults are those that were changed, added or switched off.
	Faults []Fault `json:"faults,omitempty"`
}

// Forms are those of a studio; nil leaves all as it came.
type Forms []Form

func (fs Forms) of(id string) (Form, bool) {
	i := slices.IndexFunc(fs, func(f Form) bool { return f.Type == id })
	if i < 0 {
		return Form{}, false
	}
	return fs[i], true
}

// For returns the types for a family as the studio says them, in the order in which they are begun.
func (fs Forms) For(x instrument.Instrument) []Type {
	list := For(x)
	for i, t := range list {
		list[i] = fs.Type(t)
	}
	return list
}

// All are the types of all families as the studio says them.
func (fs Forms) All() []Type {
	list := slices.Clone(types)
	for i, t := range list {
		list[i] = fs.Type(t)
	}
	return list
}

// Changed says that the studio has a form of its own of a type.
func (fs Forms) Changed(id string) bool {
	f, has := fs.of(id)
	return has && !f.Empty()
}

// Type is a type as the studio says it. Faults that are switched off are in it, so that one noted before keeps its name.
func (fs Forms) Type(t Type) Type {
	form, has := fs.of(t.ID)
	if !has {
		return t
	}
	t.Steps, t.Faults = slices.Clone(t.Steps), slices.Clone(t.Faults)
	for i, s := range t.Steps {
		if goals := form.Goals[s.ID]; len(goals) > 0 {
			t.Steps[i].Goals = goals
		}
	}
	for _, f := range form.Faults {
		if i := t.fault(f.ID); i >= 0 {
			t.Faults[i] = f
		} else {
			t.Faults = append(t.Faults, f)
		}
	}
	return t
}

// Of is an exercise as the studio says it.
func (fs Forms) Of(e Exercise) Exercise {
	if _, has := fs.of(e.Type.ID); has {
		e.Type = fs.Type(e.Type)
		e.Step, _ = e.Type.StepOf(e.Step.ID)
	}
	return e
}

// Parse reads the id of an exercise as the package does, and returns it as the studio says it.
func (fs Forms) Parse(id string, x instrument.Instrument) (Exercise, error) {
	e, err := Parse(id, x)
	return fs.Of(e), err
}

func (t Type) fault(id string) int {
	return slices.IndexFunc(t.Faults, func(f Fault) bool { return f.ID == id })
}

// Watched are the usual faults without those that the studio has switched off.
func (t Type) Watched() []Fault {
	return slices.DeleteFunc(slices.Clone(t.Faults), func(f Fault) bool { return f.Off })
}

const (
	// longestGoal and longestFault are how many letters a goal, a fault and what to look for may have; mostFaults is
	// how many faults a type may have.
	longestGoal, longestFault, mostFaults = 120, 200, 12
)

// Written is the form of a type after the teacher has written its goals and faults: only what differs from what ships
// is kept. The error says in a sentence what is wrong.
func Written(id string, goals map[string][]string, faults []Fault) (Form, error) {
	t, known := TypeOf(id)
	if !known {
		return Form{}, fmt.Errorf("there is no exercise %q", id)
	}
	out := Form{Type: id, Goals: map[string][]string{}}
	for step, own := range goals {
		s, known := t.StepOf(step)
		if !known {
			return out, fmt.Errorf("%s have no step %q", strings.ToLower(t.Name), step)
		}
		own = trimmed(own)
		if len(own) != len(s.Goals) || slices.Contains(own, "") {
			return out, fmt.Errorf("“%s” needs three goals: they are read before each practice", s.Name)
		}
		for _, g := range own {
			if utf8.RuneCountInString(g) > longestGoal {
				return out, fmt.Errorf("a goal of “%s” is longer than %d letters", s.Name, longestGoal)
			}
		}
		if !slices.Equal(own, s.Goals) {
			out.Goals[step] = own
		}
	}
	seen := map[string]bool{}
	for _, f := range faults {
		f.Text, f.Look = strings.TrimSpace(f.Text), strings.TrimSpace(f.Look)
		switch {
		case f.ID == "" || seen[f.ID]:
			return out, errors.New("each fault needs a name of its own")
		case f.Text == "" || f.Look == "":
			return out, errors.New("a fault needs words for what it is and for how it is seen or heard")
		case utf8.RuneCountInString(f.Text) > longestFault || utf8.RuneCountInString(f.Look) > longestFault:
			return out, fmt.Errorf("a fault has at most %d letters", longestFault)
		}
		seen[f.ID] = true
		if i := t.fault(f.ID); i < 0 || t.Faults[i] != f {
			out.Faults = append(out.Faults, f)
		}
	}
	if len(faults) > mostFaults {
		return out, fmt.Errorf("a type has at most %d faults: nobody watches for more", mostFaults)
	}
	return out, nil
}

// Empty says that a form leaves all as it came.
func (f Form) Empty() bool { return len(f.Goals) == 0 && len(f.Faults) == 0 }

func trimmed(list []string) []string {
	out := make([]string, len(list))
	for i, s := range list {
		out[i] = strings.TrimSpace(s)
	}
	return out
}
