package week

import (
	"patientladder/core/library/material"
	"patientladder/core/student/leap"
	"patientladder/core/student/studentlog"
)

// Gate says which hand may play a piece at home.
type Gate = studentlog.Gate

const (
	rightHand = "right hand"
	leftHand  = "left hand"
)

// together is the skill whose levels decide whether the hands stay apart.
const together = "hands-together"

// KeepApart says whether a student practises the hands apart at first: where
// it is wanted, and only until playing them together is secure.
func KeepApart(wanted bool, a leap.Ability, p leap.Policy) bool {
	level := p.Level(a.Skills[together])
	return wanted && level != leap.Secure && level != leap.Rusty
}

// hands returns the hands in which each step is played one after the other;
// one empty name for as written. What the teacher set holds; else, where the
// hands are kept apart, the right a week, the left a week, then together
// (common practice).
func (w Work) hands() []string {
	switch w.Gate {
	case studentlog.RightOnly:
		return []string{rightHand}
	case studentlog.LeftOnly:
		return []string{leftHand}
	case studentlog.Apart:
		return []string{rightHand, leftHand}
	case studentlog.Together:
		return []string{""}
	}
	if w.HandsApart && w.Material.Texture == material.Together {
		switch w.WeeksOn {
		case 0:
			return []string{rightHand}
		case 1:
			return []string{leftHand}
		}
	}
	return []string{""}
}

// Hand is the one hand that plays, empty for both.
func (w Work) Hand() string {
	h := w.hands()
	if w.Drill != nil {
		h = w.drillHands()
	}
	if len(h) == 1 {
		return h[0]
	}
	return ""
}
