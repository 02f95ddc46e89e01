package proposing

import (
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
)

// Gestures are the movements that make a sound, as far as the student has met them, by skill: they are gone through once
// more where a new level of a book begins (common practice). None where a piece is not the first of its unit.
func Gestures(s studentplan.Student, m material.Material) (out []string) {
	if m.SourceID == "" || m.Unit == "" {
		return nil
	}
	for _, other := range s.Library {
		if other.SourceID == m.SourceID && other.Unit == m.Unit && other.Order < m.Order {
			return nil
		}
	}
	for _, x := range s.Skills.All() {
		fits := len(x.Instruments) == 0 || slices.Contains(x.Instruments, string(s.Family()))
		level := s.Policy.Standing.Leap.Level(s.Standing.Ability.Skills[x.ID])
		if x.Gesture && fits && (level == leap.Learning || level == leap.Secure || level == leap.Rusty) {
			out = append(out, x.ID)
		}
	}
	return out
}
