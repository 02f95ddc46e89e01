package leap

import (
	"maps"

	"patientladder/core/library/dimension"
	"patientladder/core/library/material"
)

// Level says how well a student has a skill.
type Level string

// The levels of a skill.
const (
	New      Level = "new"      // no evidence
	Planted  Level = "planted"  // some preview steps done
	Learning Level = "learning" // demanded by a working piece, or by too few cleared ones
	Secure   Level = "secure"   // demanded by enough cleared pieces, or shown in a probe
	Rusty    Level = "rusty"    // secure, but what spoke for it has faded
	Unread   Level = "unread"   // of reading, which has not begun: it weighs nothing
)

// Evidence is what is known about one skill of one student.
type Evidence struct {
	// Cleared counts the cleared materials that demand it.
	Cleared int `json:"cleared,omitempty"`
	// Working counts the working pieces that demand it.
	Working int `json:"working,omitempty"`
	// Shown says that a probe found it there; Missing that a probe found it missing.
	Shown   bool `json:"shown,omitempty"`
	Missing bool `json:"missing,omitempty"`
	// StepsDone of Steps preview steps were done.
	StepsDone int `json:"stepsDone,omitempty"`
	Steps     int `json:"steps,omitempty"`
	// Faded says that what spoke for it is more likely lost than not (see standing).
	Faded bool `json:"faded,omitempty"`
	// Unread says that it is a skill of reading, and that reading has not begun.
	Unread bool `json:"unread,omitempty"`
}

// Policy holds the numbers a studio may change.
type Policy struct {
	// SecureAfter is how many cleared materials must demand a skill before it is secure. Default 2.
	SecureAfter int
	// Comfortable is the leap a student takes in stride before there is a history to tell. Default 1.5.
	Comfortable float64
	// LengthWeight scales the part of the leap for length, per doubling of distinct bars. Default 0.4.
	LengthWeight float64
	// TempoWeight scales the part for tempo, per doubling of the pulse, where loads are not known. Default 1.
	TempoWeight float64
	// LoadWeight scales the parts for loads (see package dimension). Default 1.
	LoadWeight float64
}

// DefaultPolicy returns the defaults, which are ours and adjustable.
func DefaultPolicy() Policy {
	return Policy{SecureAfter: 2, Comfortable: 1.5, LengthWeight: 0.4, TempoWeight: 1, LoadWeight: 1}
}

// Level returns the level of a skill from its evidence.
func (p Policy) Level(e Evidence) Level {
	switch {
	case e.Unread:
		return Unread
	case (e.Cleared >= p.SecureAfter || e.Shown) && !e.Missing:
		if e.Faded {
			return Rusty
		}
		return Secure
	case e.Working > 0 || e.Cleared > 0:
		return Learning
	case e.StepsDone > 0:
		return Planted
	}
	return New
}

// Novelty returns n(skill) between 0 and 1 (defaults): new 1, planted from 1
// to 0.4 in proportion to the steps done, learning 0.3, rusty 0.2, secure 0, and 0 for what is not read yet.
func (p Policy) Novelty(e Evidence) float64 {
	switch p.Level(e) {
	case Secure, Unread:
		return 0
	case Rusty:
		return 0.2
	case Learning:
		return 0.3
	case Planted:
		done := 1.0
		if e.Steps > 0 {
			done = min(1, float64(e.StepsDone)/float64(e.Steps))
		}
		return 1 - 0.6*done
	}
	return 1
}

// Ability is what a student brings to a material.
type Ability struct {
	Skills map[string]Evidence `json:"skills"`
	// LongestBars is the largest number of distinct bars among the cleared materials.
	LongestBars int `json:"longestBars"`
	// Tempo is the highest secure tempo in each texture, in quarter notes a minute.
	Tempo map[material.Texture]float64 `json:"tempo"`
	// Loads are the highest loads among the cleared materials by dimension; empty where none of them was measured, so that
	// nothing is known.
	Loads map[dimension.ID]Reached `json:"loads,omitempty"`
}

// Reached are the two highest loads of one dimension among cleared materials, in the unit of the dimension.
type Reached struct {
	Top    float64 `json:"top"`
	Second float64 `json:"second"`
	// One says that a single material speaks for it: both are its load.
	One bool `json:"one,omitempty"`
}

// With are the two highest with another one.
func (r Reached) With(load float64) Reached {
	switch {
	case r == Reached{}:
		return Reached{Top: load, Second: load, One: true}
	case r.One:
		return Reached{Top: max(r.Top, load), Second: min(r.Top, load)}
	case load > r.Top:
		return Reached{Top: load, Second: r.Top}
	case load > r.Second:
		return Reached{Top: r.Top, Second: load}
	}
	return r
}

// trusted is how much of the way from the second highest load to the highest counts (default): one piece far above the others
// was perhaps a feat.
const trusted = 2.0 / 3

// Secure is the load that is at hand.
func (r Reached) Secure() float64 { return r.Second + trusted*(r.Top-r.Second) }

// ofDrill is the part of its load for which a drill that is cleared speaks in pieces (default).
const ofDrill = 0.75

// Shows is the load in one dimension that a cleared material, a drill or a piece, speaks for.
func Shows(drill bool, l material.Load) float64 {
	if drill {
		return ofDrill * l.Value
	}
	return l.Value
}

// AfterClearing returns the ability with a material cleared on top, as a
// projection for the rungs further up. The receiver is left as it is.
func (a Ability) AfterClearing(m material.Material) Ability {
	next := a.Copy()
	next.Clear(m)
	return next
}

// Copy returns an ability that can be changed by itself.
func (a Ability) Copy() Ability {
	next := Ability{Skills: maps.Clone(a.Skills), LongestBars: a.LongestBars, Tempo: maps.Clone(a.Tempo), Loads: maps.Clone(a.Loads)}
	if next.Skills == nil {
		next.Skills = map[string]Evidence{}
	}
	if next.Tempo == nil {
		next.Tempo = map[material.Texture]float64{}
	}
	return next
}

// Clear changes the ability to that with a material cleared on top; its maps must not be shared.
func (a *Ability) Clear(m material.Material) {
	for _, d := range m.Demands {
		e := a.Skills[d.Skill]
		e.Cleared++
		e.Faded = false
		a.Skills[d.Skill] = e
	}
	a.LongestBars = max(a.LongestBars, m.DistinctBars)
	a.Tempo[m.Texture] = max(a.Tempo[m.Texture], m.Tempo)
	for _, l := range m.Loads {
		if a.Loads == nil {
			a.Loads = make(map[dimension.ID]Reached, len(m.Loads))
		}
		a.Loads[l.Dimension] = a.Loads[l.Dimension].With(Shows(m.Exercise != "", l))
	}
}
