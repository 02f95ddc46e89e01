// Package week lays out the practice of one week: for each day what to do, in
// what order, how many times, in words for the family.
//
//	week.go    the plan and what it is made from
//	steps.go   the staircase of one piece: look, chunks, joined chunks, whole
//	drill.go   scales and exercises, whole and with their goals
//	fit.go     the days within their minutes, in the order of who comes first
//	climb.go   one staircase on its way through the days
//	turn.go    what the days take in turn: learned pieces, bites, games
//	spare.go   what the minutes that are left are for
//	day.go     what a day begins with: the exact choice
//	hand.go    what the teacher sets by hand
//	gate.go    which hand may play
//	words.go   the sentences
//	held.go    what must not be done yet, and how often
//	dose.go    how many times, and how long that takes
//	differ.go  how two plans differ
package week

import (
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/naming"
)

// Input is what a week is made from.
type Input struct {
	// Start is the first day; the plan covers so many Days from it, 1 to MostDays and by default seven.
	Start time.Time
	Days  int
	// Practises says for each weekday (Sunday is 0) whether there is practice.
	Practises [7]bool
	// Minutes is the hard limit for a day, 1 to 240.
	Minutes int
	// Age of the student in years; it decides counts and words.
	Age   int
	Works []Work
	// Reviews are the learned pieces picked for the week, the most pressing first.
	Reviews []material.Material
	// Settling are the pieces that were cleared a short while ago, the latest first: each is played on most days.
	Settling []material.Material
	// Resting are pieces that are not practised, because a note that may be about pain names them.
	Resting []material.Material
	// ReviewShare of the minutes is kept for review while there is any, 0 to 1. Default 0.3.
	ReviewShare float64
	// Own are the student's own focus points, which travel along.
	Own []string
	// Watch is the one fault that is looked after at home; nil for none.
	Watch *Watch
	// Bites are the preview steps of the last lesson, done again at home.
	Bites []Bite
	// Listen are pieces to be heard before they are played.
	Listen []material.Material
	// Activities are what is done at home where there is no piece yet, or beside one, in turn through the days.
	Activities []Activity
	// BySound says that reading has not begun: pieces are heard and imitated, and nothing is read.
	BySound bool
	// Dose is how often a step is played; DoseRow how many right in a row, 0 for three.
	Dose    Dose
	DoseRow int
	// Hand is what the teacher set by hand.
	Hand Hand
	// Approach is how the student finds notes on the page; it decides the words.
	// Default by direction.
	Approach naming.Approach
}

// Bite is a preview step that was shown in the lesson.
type Bite struct {
	Skill string
	// Name of the skill, Words the step.
	Name, Words string
	// Exercise is the title of the one by which it is planted, ExerciseID its id; empty for none.
	Exercise, ExerciseID string
}

// Watch is a fault that is looked after at home.
type Watch struct {
	// Text says what it is, Home what to do about it.
	Text, Home string
	// Said is the sentence as an older program kept it; empty otherwise.
	Said string
}

// Activity is a game or a task for home.
type Activity struct {
	// ID names it, such as "black-keys 2".
	ID, Title string
	// Words say to the parent how it goes.
	Words   string
	Minutes float64
}

// Work is one working piece.
type Work struct {
	Material material.Material
	// Drill is set for a scale or an exercise, which is practised whole.
	Drill *Drill
	// Tree holds the chunks; nil for a material without a score.
	Tree *chunk.Chunk
	// Quarters is the length of each bar in quarter notes.
	Quarters []float64
	// Plays says for "right hand" and "left hand" in which bars, by position from 0, the hand plays; a hand
	// that it does not name is taken to play in all.
	Plays map[string][]bool
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
	// Gate says which hand may play; by HandsApart where nothing is set.
	Gate  Gate
	Spots []Bars
	// Focus are the focus points without a full mark yet, the next one first.
	Focus []string
	// Shown is what home showed of the steps of the week before.
	Shown []Shown
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
	Look    Kind = "look"
	Hear    Kind = "hear" // in place of the first look, where nothing is read yet
	Chunk   Kind = "chunk"
	Join    Kind = "join"
	Whole   Kind = "whole"
	Spot    Kind = "spot"
	Again   Kind = "again"
	Review  Kind = "review"
	Preview Kind = "preview" // a preview step done again; its material is the skill
	Listen  Kind = "listen"  // heard, not played
	Drilled Kind = "drill"   // a scale or an exercise, whole
	Game    Kind = "game"    // an activity without a piece; its material is the activity
)

// Item is one thing to do on a day.
type Item struct {
	// Key names the item within a week, whatever else is changed by hand.
	Key      string
	Kind     Kind
	Material string
	Title    string
	// Bars are positions from 1; zero for the whole piece.
	Bars Bars
	// Start and End are times in quarter notes from the start of the piece; equal
	// where there is nothing to be played from a score.
	Start, End float64
	// Hand is "right hand", "left hand" or empty for as written.
	Hand string
	// Times to play; 0 for looking. InRow says that only right ones in a row count.
	Times int
	InRow bool
	// Minutes is an estimate that includes the breath between repetitions.
	Minutes float64
	Words   string
	// Goals of a drill, in the order in which they are read before it.
	Goals []string
	// Exercise is the id of the one by which a bite is planted; empty for none.
	Exercise string
	// Pinned says that its day was set by hand.
	Pinned bool
	// Purpose of a thing that is done again.
	Purpose Purpose `json:",omitempty"`
	// Slower is how many marks of the metronome it is played below the usual tempo of practice; 0 for none.
	Slower int `json:",omitempty"`
}

// Purpose says what something is done again for; empty for what was new last time.
type Purpose string

// The purposes.
const (
	Settles  Purpose = "settles" // nothing new follows
	OnceHard Purpose = "hard"    // it was hard last week
	Kept     Purpose = "kept"    // an earlier section, so that it stays
	SoFar    Purpose = "so-far"  // all that goes already, in one go
	Cleared  Purpose = "cleared" // a piece that was cleared a short while ago
)

// Boxes is how many boxes there are to tick, one a time, and whether they hang together because only right
// ones in a row count; none for what is only heard.
func (it Item) Boxes() (n int, joined bool) {
	if it.Kind == Listen || it.Times <= 0 {
		return 0, false
	}
	return it.Times, it.InRow
}

// Ago is the day so many weeks before a day.
func Ago(day time.Time, weeks int) time.Time { return day.AddDate(0, 0, -weeks*Days) }

// Reaching is the day from which a week can have been published that reaches into the so many days before a day, however
// long lessons that fell out made it.
func Reaching(day time.Time, days int) time.Time { return day.AddDate(0, 0, -days-MostDays) }

// Covers says how much of a piece with so many bars an item is about: whether it
// is about bars of one at all, and whether about all of them.
func (it Item) Covers(bars int) (piece, all bool) {
	switch it.Kind {
	case Preview, Game, Drilled:
		return false, false
	case Chunk, Join: // a section of a piece without a score has no bars
		return true, it.Bars.From == 1 && it.Bars.To >= bars
	}
	return true, it.Bars.From == 0 || it.Bars.From == 1 && it.Bars.To >= bars
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
	// Dropped lists what was taken out by hand.
	Dropped []Item
	// NotYet lists what must not be done yet.
	NotYet []Held
	// There are the steps of working pieces that came easily at home, in this week's past: they are not set again.
	There []Step `json:",omitempty"`
	// Watch is the one fault that is looked after; nil for none.
	Watch *Watch
	// Often says how often; its zero value where nothing is repeated by a dose.
	Often Often
	// Estimate says in words how the minutes were reckoned.
	Estimate string
}

// On are the things to do on a day; none where the week has none, or not that day.
func (p Plan) On(day time.Time) []Item {
	if i := slices.IndexFunc(p.Days, func(d Day) bool { return d.Date.Equal(day) }); i >= 0 {
		return p.Days[i].Items
	}
	return nil
}

// Reviewed are the minutes of the week that go to learned pieces, to games, and all that are planned.
func (p Plan) Reviewed() (review, games, all float64) {
	for _, d := range p.Days {
		for _, it := range d.Items {
			switch all += it.Minutes; it.Kind {
			case Review:
				review += it.Minutes
			case Game:
				games += it.Minutes
			}
		}
	}
	return review, games, all
}

// ReviewShare is the part of the planned minutes that goes to learned pieces, 0 to 1; planned is false where nothing is
// planned but games. It is the one share of review of a week.
func (p Plan) ReviewShare() (share float64, planned bool) {
	review, games, all := p.Reviewed()
	if all == games {
		return 0, false
	}
	return review / all, true
}

// SetDays are the days of a published week on which something is set.
type SetDays struct {
	Start time.Time
	Days  []time.Time
}

// Stretched are the days of a week that goes on for so many days, as Stretched lays them: each further one is that of a
// week before again.
func (w SetDays) Stretched(days int) SetDays {
	on := map[int]bool{}
	last := Days - 1
	for _, d := range w.Days {
		i := civil.Between(w.Start, d)
		on[i], last = true, max(last, i)
	}
	w.Days = slices.Clip(w.Days)
	for i := last + 1; i < min(days, MostDays); i++ {
		if on[i-Days] {
			on[i] = true
			w.Days = append(w.Days, w.Start.AddDate(0, 0, i))
		}
	}
	return w
}

// DaysSet are the days, as 2026-05-05, from one day to another, both included, on which practice
// was set. A week that begins later holds from its first day on.
func DaysSet(weeks []SetDays, from, to time.Time) map[string]bool {
	out := map[string]bool{}
	for i, w := range weeks {
		var next time.Time
		if i+1 < len(weeks) {
			next = weeks[i+1].Start
		}
		for _, d := range w.Days {
			if !d.Before(from) && !d.After(to) && Holds(d, next) {
				out[d.Format(time.DateOnly)] = true
			}
		}
	}
	return out
}

// Holds says whether a day of a published week holds, by the first day of the next one; zero for none. A week that
// begins before the one before it is over holds from its first day on.
func Holds(day, next time.Time) bool { return next.IsZero() || day.Before(next) }

// MostMinutes is the most that a day may hold.
const MostMinutes = 240

// Make lays out the week. It refuses minutes outside 1 to MostMinutes and what
// Hand.Check refuses.
func Make(in Input) (Plan, error) {
	if in.Days == 0 {
		in.Days = Days
	}
	if err := in.Hand.Check(in.Start, in.Days); err != nil {
		return Plan{}, err
	}
	if in.Hand.Minutes > 0 {
		in.Minutes = in.Hand.Minutes
	}
	if in.Minutes < 1 || in.Minutes > MostMinutes {
		return Plan{}, fmt.Errorf("minutes a day must lie between 1 and %d, not %d", MostMinutes, in.Minutes)
	}
	p := Plan{Watch: in.Watch, Estimate: estimateWords(in)}
	if len(in.Works) > 0 { // of games alone nothing is repeated by a dose
		p.Often = in.Often()
	}
	for i := range min(in.Days, MostDays) {
		date := in.Start.AddDate(0, 0, i)
		p.Days = append(p.Days, Day{Date: date, Rest: !in.practisesOn(date)})
	}
	fill(in, &p)
	for _, m := range in.Resting {
		p.NotYet = append(p.NotYet, Held{Kind: MayHurt, Title: m.Title})
	}
	for _, w := range in.Works {
		p.NotYet = append(p.NotYet, held(w, in.Age)...)
		p.There = append(p.There, w.there()...)
	}
	return p, nil
}

// Days of a week. Where lessons fall out a week of practice goes on for MostDays at the most.
const (
	Days     = 7
	MostDays = 28
)

// Stretched is a published plan that goes on for so many days, because the lesson that was to end it fell
// out: each further day is that of a week before again. What was set stays set, and nothing is doubled.
func Stretched(p Plan, days int) Plan {
	n := len(p.Days)
	if n < Days || days <= n {
		return p
	}
	p.Days = slices.Clone(p.Days)
	for i := n; i < min(days, MostDays); i++ {
		d := p.Days[i-Days]
		d.Date = p.Days[i-1].Date.AddDate(0, 0, 1)
		p.Days = append(p.Days, d)
	}
	return p
}
