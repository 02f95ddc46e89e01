package leap

import (
	"maps"

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
	// TempoWeight scales the part for tempo, per doubling of the pulse. Default 1.
	TempoWeight float64
}

// DefaultPolicy returns the defaults, which are ours and adjustable.
func DefaultPolicy() Policy {
	return Policy{SecureAfter: 2, Comfortable: 1.5, LengthWeight: 0.4, TempoWeight: 1}
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
	next := Ability{Skills: maps.Clone(a.Skills), LongestBars: a.LongestBars, Tempo: maps.Clone(a.Tempo)}
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
}
