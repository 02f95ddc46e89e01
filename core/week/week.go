// Package week lays out the practice of one week: for each day what to do, in
// what order, how many times, in words for the family.
//
//	week.go   the plan and what it is made from
//	steps.go  the staircase of one piece: look, chunks, joined chunks, whole
//	fit.go    the days within their minutes
//	words.go  the sentences
//	dose.go   how many times, and how long that takes
package week

import (
	"fmt"
	"time"

	"patientladder/core/chunk"
	"patientladder/core/material"
	"patientladder/core/naming"
)

// Input is what a week is made from.
type Input struct {
	// Start is the first day; the plan covers the seven days from it.
	Start time.Time
	// Practises says for each weekday (Sunday is 0) whether there is practice.
	Practises [7]bool
	// Minutes is the hard limit for a day, 1 to 240.
	Minutes int
	// Age of the student in years; it decides counts and words.
	Age   int
	Works []Work
	// Reviews are the learned pieces picked for the week, the most pressing first.
	Reviews []material.Material
	// ReviewShare of the minutes is kept for review while there is any, 0 to 1. Default 0.3.
	ReviewShare float64
	// Own are the student's own focus points, which travel along.
	Own []string
	// Approach is how the student finds notes on the page; it decides the words.
	// Default by direction.
	Approach naming.Approach
}

// Work is one working piece.
type Work struct {
	Material material.Material
	// Tree holds the chunks; nil for a material without a score.
	Tree *chunk.Chunk
	// Quarters is the length of each bar in quarter notes.
	Quarters []float64
	// Opening says where it begins: "right hand, finger 2 on E4".
	Opening string
	// Position names where the hands lie first: "C position"; empty where it is not known.
	Position string
	// Guides say how notes that the student does not know are found: "A is a second above G".
	Guides []string
	// Progress is the share of focus points that have their mark, 0 to 1.
	Progress float64
	RunDue   bool
	// WeeksOn counts the weeks since it was assigned, from 0.
	WeeksOn int
	// HandsApart keeps the hands apart at first: right a week, left a week, then together.
	HandsApart bool
	Spots      []Bars
	// Focus are the focus points without a full mark yet, the next one first.
	Focus []string
}

// Bars is a stretch of bars by position from 1.
type Bars struct {
	From int `json:"from"`
	To   int `json:"to"`
	// Upbeat says that it begins with the upbeat in the bar before.
	Upbeat bool `json:"upbeat,omitempty"`
}

// Kind says what an item of practice is.
type Kind string

// The kinds of items, from the first look to the whole.
const (
	Look   Kind = "look"
	Chunk  Kind = "chunk"
	Join   Kind = "join"
	Whole  Kind = "whole"
	Spot   Kind = "spot"
	Again  Kind = "again"
	Review Kind = "review"
)

// Item is one thing to do on a day.
type Item struct {
	Kind     Kind
	Material string
	Title    string
	// Bars are positions from 1; zero for the whole piece.
	Bars Bars
	// Hand is "right hand", "left hand" or empty for as written.
	Hand string
	// Times to play; 0 for looking. InRow says that only right ones in a row count.
	Times int
	InRow bool
	// Minutes is an estimate that includes the breath between repetitions.
	Minutes float64
	Words   string
}

// Day is one day of practice.
type Day struct {
	Date time.Time
	// Rest says that there is no practice on that day.
	Rest    bool
	Items   []Item
	Minutes float64
	// Focus is the one thing to listen for on that day.
	Focus string
}

// Plan is the week.
type Plan struct {
	Days []Day
	// LeftOut lists what did not fit into the minutes.
	LeftOut []Item
	// NotYet lists what must not be done yet.
	NotYet []string
	// Dose says in words how often, and why.
	Dose string
	// Estimate says in words how the minutes were reckoned.
	Estimate string
}

// Make lays out the week. It refuses minutes outside 1 to 240.
func Make(in Input) (Plan, error) {
	if in.Minutes < 1 || in.Minutes > 240 {
		return Plan{}, fmt.Errorf("minutes a day must lie between 1 and 240, not %d", in.Minutes)
	}
	p := Plan{Dose: doseWords(in.Age), Estimate: estimateWords(in)}
	for i := 0; i < 7; i++ {
		date := in.Start.AddDate(0, 0, i)
		p.Days = append(p.Days, Day{Date: date, Rest: !in.Practises[date.Weekday()]})
	}
	fill(in, &p)
	for _, w := range in.Works {
		p.NotYet = append(p.NotYet, notYet(w, in.Age)...)
	}
	return p, nil
}
