package week

import (
	"fmt"
	"math"
	"slices"
)

// Dose says how often a step is played (common practice, all five).
type Dose string

// The doses.
const (
	// ByYears is as many times as the student has years, four-year-olds four times
	// and seven-year-olds seven; from ten on until three in a row are right. The default.
	ByYears Dose = "years"
	// Once is once a day, slowly and perfectly.
	Once Dose = "once"
	// Three is three times, as for a scale up and down.
	Three Dose = "three"
	// FiveToTen is five to ten in a row.
	FiveToTen Dose = "ten"
	// InARow is until so many in a row are right.
	InARow Dose = "row"
)

// Doses returns all of them, the default first.
func Doses() []Dose { return []Dose{ByYears, Once, Three, FiveToTen, InARow} }

// Known says whether there is such a dose.
func (d Dose) Known() bool { return slices.Contains(Doses(), d) }

const (
	oldestByYears = 9
	fewestByYears = 3
	usualRow      = 3
	fewestOfTen   = 5
	// slips is how many tries a row of right ones usually costs beyond its own (our estimate).
	slips = 2
)

// row is how many right ones in a row are asked for.
func (in Input) row() int {
	if in.DoseRow > 0 {
		return in.DoseRow
	}
	return usualRow
}

// dose is how often a step is played, and whether only right ones in a row count.
func (in Input) dose() (times int, row bool) {
	switch in.Dose {
	case Once:
		return 1, false
	case Three:
		return 3, false
	case FiveToTen:
		return fewestOfTen, true
	case InARow:
		return in.row(), true
	}
	if in.Age > oldestByYears {
		return in.row(), true
	}
	return max(fewestByYears, in.Age), false
}

const (
	// PracticeTempo is the usual share of the final tempo in practice.
	PracticeTempo = 0.6
	// breath is the time between repetitions, as a factor on the playing time.
	breath = 1.5
	// defaultTempo in quarter notes a minute, where a material has none.
	defaultTempo = 80.0
	lookMinutes  = 2.0
	// plainMinutes is for a material without a score.
	plainMinutes = 3.0
	// biteMinutes is one preview step done again.
	biteMinutes = 1.0
	// smallShare is the share of a day that a preview bite or listening may take.
	smallShare = 0.25
)

// estimateWords says how the minutes of a plan come about.
func estimateWords(in Input) string {
	words := fmt.Sprintf(
		"An estimate: the bars at %.0f %% of the final tempo, times the repetitions, and half as long again to breathe and turn back; to the next half minute, and never under one.",
		100*PracticeTempo,
	)
	if times, row := in.dose(); row {
		words += fmt.Sprintf(" %d right in a row are taken as %d tries.", times, times+slips)
	}
	if len(in.Reviews) > 0 {
		words += fmt.Sprintf(" Of the %d minutes a day, %.0f %% are kept for learned pieces.", in.Minutes, 100*in.ReviewShare)
	}
	return words + " Finishing early is fine; going over is not planned."
}

// minutes estimates how long it takes to play some quarter notes a number of
// times at practice tempo, to the next half minute and at least one.
func minutes(quarters, tempo float64, times int, row bool) float64 {
	if tempo <= 0 {
		tempo = defaultTempo
	}
	if row {
		times += slips
	}
	m := quarters / (tempo * PracticeTempo) * breath * float64(times)
	return max(1, math.Ceil(m*2)/2)
}
