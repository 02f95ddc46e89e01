package week

import "patientladder/core/student/studentlog"

// HeldKind is what must not be done yet.
type HeldKind string

// The kinds.
const (
	LeftUntaught  HeldKind = "left-untaught"  // the left hand, until it was taught
	RightUntaught HeldKind = "right-untaught" // the right hand, until it was taught
	HeldTogether  HeldKind = "together"       // both hands together
	HeldLeft      HeldKind = "left"           // the left hand, and both together
	UpToSpeed     HeldKind = "speed"          // playing it up to speed
	Recording     HeldKind = "recording"      // the recording while playing
	MayHurt       HeldKind = "hurts"          // the piece at all: a note of the family may be about pain, and is not answered
)

// Held is something that the family should leave alone for now.
type Held struct {
	Kind HeldKind
	// Title of the piece.
	Title string
	// Said is the sentence as an older program kept it; empty otherwise.
	Said string
}

// Often says how often a step is played at home, and with a row how many must be right; the zero value says nothing.
type Often struct {
	Dose Dose
	Row  int
	// Said is the sentence as an older program kept it; empty otherwise.
	Said string
}

// Often is how often a step is played.
func (in Input) Often() Often {
	times, row := in.dose()
	switch {
	case in.Dose == Once || in.Dose == Three || in.Dose == FiveToTen:
		return Often{Dose: in.Dose}
	case row:
		return Often{Dose: InARow, Row: times}
	}
	return Often{Dose: ByYears}
}

// held lists what the family should leave alone for now.
func held(w Work, age int) []Held {
	var out []Held
	add := func(k HeldKind) { out = append(out, Held{Kind: k, Title: w.Material.Title}) }
	switch {
	case w.Gate == studentlog.RightOnly:
		add(LeftUntaught)
	case w.Gate == studentlog.LeftOnly:
		add(RightUntaught)
	case w.Gate == studentlog.Apart, w.Drill != nil && len(w.drillHands()) > 1:
		add(HeldTogether)
	case w.Drill != nil && w.Drill.One != "":
	case w.Hand() == rightHand:
		add(HeldLeft)
	case w.Hand() == leftHand:
		add(HeldTogether)
	}
	if w.Tree != nil && !w.RunDue && w.Progress < 0.5 {
		add(UpToSpeed)
	}
	if w.WeeksOn == 0 && age < youngest && w.Tree != nil {
		add(Recording)
	}
	return out
}
