package week

import (
	"fmt"
	"math"
)

// Doses by age are common practice: as many times as the student has years,
// four-year-olds four times and seven-year-olds seven; from ten on, until
// three in a row are right.
const (
	oldestByYears = 9
	inRow         = 3
	// triesForRow is how many tries three in a row usually cost (our estimate).
	triesForRow = 5
)

func dose(age int) (times int, row bool) {
	if age > oldestByYears {
		return inRow, true
	}
	return max(3, age), false
}

func doseWords(age int) string {
	if age > oldestByYears {
		return "Each until it is right three times in a row; stop there."
	}
	return "As many times as the student has years, slowly and well; fewer when tired."
}

const (
	// practiceTempo is the usual share of the final tempo in practice.
	practiceTempo = 0.6
	// breath is the time between repetitions, as a factor on the playing time.
	breath = 1.5
	// defaultTempo in quarter notes a minute, where a material has none.
	defaultTempo = 80.0
	lookMinutes  = 2.0
	// plainMinutes is for a material without a score.
	plainMinutes = 3.0
)

// estimateWords says how the minutes of a plan come about.
func estimateWords(in Input) string {
	words := fmt.Sprintf("An estimate: the bars at %.0f %% of the final tempo, times the repetitions, and half as long again to breathe and turn back; to the next half minute, and never under one.", 100*practiceTempo)
	if _, row := dose(in.Age); row {
		words += fmt.Sprintf(" %d right in a row are taken as %d tries.", inRow, triesForRow)
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
		times = triesForRow
	}
	m := quarters / (tempo * practiceTempo) * breath * float64(times)
	return max(1, math.Ceil(m*2)/2)
}
