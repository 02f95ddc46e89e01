package week

import (
	"slices"

	"patientladder/core/student/studentlog"
)

// Drill is what a week needs to know of a scale or an exercise.
type Drill struct {
	// Apart says that its step is for each hand alone.
	Apart bool
	// One is the hand of a step for one hand, "right hand" or "left hand"; empty otherwise.
	One string
	// Goals are those of its step.
	Goals []string
	// Quarters is how long it lasts once, in quarter notes.
	Quarters float64
}

// drillHands are the hands in which a drill is practised on a day, one after the other. The gate that the
// teacher set holds; a step for one hand is played by it; one for each hand alone goes right a week, left a
// week, then both, each alone, where the hands are kept apart at first (common practice).
func (w Work) drillHands() []string {
	switch d := w.Drill; {
	case w.Gate != "" && w.Gate != studentlog.Automatic:
		return w.hands()
	case d.One != "":
		return []string{d.One}
	case d.Apart && w.HandsApart && w.WeeksOn == 0:
		return []string{rightHand}
	case d.Apart && w.HandsApart && w.WeeksOn == 1:
		return []string{leftHand}
	case d.Apart:
		return []string{rightHand, leftHand}
	}
	return w.hands()
}

// drilled are the items of a drill for one day: whole, by the hand of the gate, as the dose says, with all its
// goals; it is never cut into bars.
func drilled(w Work, in Input) []Item {
	var out []Item
	times, row := in.dose()
	if w.RunDue {
		times, row = wholeTimes, false
	}
	times = w.drillTimes(times, row, in)
	for _, hand := range w.drillHands() {
		it := Item{Kind: Drilled, Hand: hand, Times: times, InRow: row, End: w.Drill.Quarters, Goals: slices.Clone(w.Drill.Goals)}
		it.Minutes = w.drillMinutes(times, row)
		out = append(out, finish(it, w, in))
	}
	return out
}

func (w Work) drillMinutes(times int, row bool) float64 {
	if w.Drill.Quarters <= 0 {
		return plainMinutes
	}
	return minutes(w.Drill.Quarters, w.Material.Tempo, times, row)
}

// drillShare is the share of a day that one drill may take where there is something else to practise (default): a long scale is
// played fewer times, so that the new piece has its minutes.
const drillShare = 1.0 / 3

// drillTimes is how often a drill is played on a day, once at the least.
func (w Work) drillTimes(times int, row bool, in Input) int {
	most := float64(in.Minutes)
	if len(in.Works) > 1 {
		most = max(plainMinutes, drillShare*most)
	}
	most /= float64(len(w.drillHands()))
	for times > 1 && w.drillMinutes(times, row) > most {
		times--
	}
	return times
}
