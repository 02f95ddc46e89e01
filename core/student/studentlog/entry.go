// Package studentlog is the log of what happened on a ladder. It is
// append-only and the only truth: what a student can do is folded from it.
//
// Entries carry their own time and an id made where they were written, so
// they may arrive late, twice and in any order. A correction removes exactly
// what it corrects.
package studentlog

import (
	"fmt"
	"slices"
	"time"

	"patientladder/core/student/setup"
)

// Kind says what an entry records.
type Kind string

// The kinds of entries.
const (
	Assigned     Kind = "assigned"     // a material became a working piece
	MarkGiven    Kind = "mark"         // a focus point got a mark on a material
	SpotAdded    Kind = "spotAdded"    // bars were marked for repetition
	SpotMended   Kind = "spotMended"   // a spot was wiped
	RunTried     Kind = "run"          // a run, with the points of the standard that were met
	Cleared      Kind = "cleared"      // cleared without a run here (known from elsewhere)
	Polished     Kind = "polished"     // performance-ready
	Hearing      Kind = "hearing"      // a review piece heard and rated 1 to 4
	StepDone     Kind = "stepDone"     // one preview step of a skill
	Probe        Kind = "probe"        // a skill shown, or missing, when asked for
	Practised    Kind = "practised"    // practice reported
	SetupChecked Kind = "setupChecked" // bench, feet, hands looked at
	TakeMeasured Kind = "takeMeasured" // a recorded performance was measured
	Paused       Kind = "paused"       // a working piece was put to rest
	Resumed      Kind = "resumed"      // and taken up again
	Activity     Kind = "activity"     // one way of practising a goal of the pool
	WentWell     Kind = "wentWell"     // what the student said went well
	GateSet      Kind = "gate"         // which hand may play a piece at home
	Liking       Kind = "liking"       // what the student chose, asked for or said of a piece
	FocusAdded   Kind = "focusAdded"   // the student got a focus point of their own, which travels; with a material, for that one alone
	FaultSeen    Kind = "faultSeen"    // a usual fault was seen; its id is the focus, as fault.too-close
	FaultGone    Kind = "faultGone"    // and is gone
	CycleKept    Kind = "cycle"        // the twelve keys are gone through, one a lesson; without a first key no more
	LessonMissed Kind = "missed"       // a lesson did not take place
	ClimbBegun   Kind = "climb"        // an exercise climbs the metronome; in no weeks no more
	TempoPlayed  Kind = "tempo"        // how a tempo went
	Note         Kind = "note"         // a word of observation
	Bring        Kind = "bring"        // something to bring to the next lesson
	Meeting      Kind = "meeting"      // what came of an activity of a first meeting
	KnownBefore  Kind = "known"        // a material or skill that was there before the log began, at about this time
	Correction   Kind = "correction"   // removes another entry
)

// InLesson says that an entry was made in a lesson: not at home, not of the time before the log, and not to say that
// there was none.
func (e *Entry) InLesson() bool {
	return e.Actor != Family && e.Kind != KnownBefore && e.Kind != LessonMissed
}

// Plans says that an entry arranges something, which is done in a lesson and just as well between two.
func (e *Entry) Plans() bool {
	switch e.Kind {
	case Assigned, Paused, Resumed, GateSet, CycleKept, ClimbBegun, FocusAdded, Liking:
		return true
	}
	return false
}

// Mark is what a focus point gets.
type Mark string

// The marks.
const (
	None Mark = "none"
	Part Mark = "part"
	Full Mark = "full"
)

// Reaction is how a student shows what they like.
type Reaction string

// The signs of liking.
const (
	PlayedFirst Reaction = "first"   // played first, of their own choice
	AskedFor    Reaction = "asked"   // asked to play or to learn it
	Unasked     Reaction = "unasked" // practised without being asked
	Liked       Reaction = "liked"   // said that they like it
	Disliked    Reaction = "disliked"
)

// Gate says which hand may play a piece at home.
type Gate string

// The gates. Automatic leaves it to the way of teaching.
const (
	Automatic Gate = "automatic"
	RightOnly Gate = "right"
	LeftOnly  Gate = "left"
	Apart     Gate = "apart"    // each hand by itself
	Together  Gate = "together" // as written
)

// Known says whether there is such a gate.
func (g Gate) Known() bool {
	return slices.Contains([]Gate{Automatic, RightOnly, LeftOnly, Apart, Together}, g)
}

// Feeling is how practice felt at home.
type Feeling string

// The feelings, from the best to the worst.
const (
	Joyful Feeling = "joyful"
	Fine   Feeling = "fine"
	Hard   Feeling = "hard"
)

// Cycle is a way through the twelve keys, one a lesson.
type Cycle struct {
	// Type of exercise, its step and the kind of key.
	Type string `json:"type"`
	Step string `json:"step"`
	Kind string `json:"kind"`
	// First key; empty ends a cycle. Order of the keys (see keycycle.Order).
	First string `json:"first"`
	Order string `json:"order"`
	// From is the day on which it begins, as 2026-05-05.
	From string `json:"from"`
	// Before says that keys are begun in the lesson before a break, too.
	Before bool `json:"before,omitempty"`
}

// Climb is a tempo ladder: quarter notes a minute, 40 to 208.
type Climb struct {
	From  int `json:"from"`
	To    int `json:"to"`
	Weeks int `json:"weeks"`
}

// Entry is one thing that happened. Which fields count depends on the kind; see Validate.
type Entry struct {
	// ID is a ULID made by the writer; the same id is the same entry.
	ID string `json:"id"`
	// At is when it happened, to the millisecond.
	At time.Time `json:"at"`
	// Actor is the id of the teacher who wrote it, or Family.
	Actor    string `json:"actor"`
	Kind     Kind   `json:"kind"`
	Material string `json:"material,omitempty"`
	// Focus is the id of a focus point (mark, focusAdded).
	Focus string `json:"focus,omitempty"`
	Mark  Mark   `json:"mark,omitempty"`
	// From and To are bar positions from 1 (spotAdded).
	From int `json:"from,omitempty"`
	To   int `json:"to,omitempty"`
	// Spot is the id of the entry that added the spot (spotMended).
	Spot string `json:"spot,omitempty"`
	// Met lists the points of the clearing standard that were met (run).
	Met []string `json:"met,omitempty"`
	// Standard is the one the run was held against; empty for the usual one.
	Standard string `json:"standard,omitempty"`
	// Rating is 1 fell apart, 2 shaky, 3 solid, 4 easy and musical (hearing).
	Rating int `json:"rating,omitempty"`
	// Skill is a skill id (stepDone, probe).
	Skill string `json:"skill,omitempty"`
	// Goal is a goal of the pool, Step its option from 1 (activity).
	Goal string `json:"goal,omitempty"`
	// Step is the number of the preview step from 1 (stepDone).
	Step int `json:"step,omitempty"`
	// Shown says whether the skill was there (probe).
	Shown bool `json:"shown,omitempty"`
	// Outcome is what came of it: "yes", "nearly", "no" or "left" where a placement asked (probe; empty where nobody
	// did), or an outcome of the activity that Goal names (meeting).
	Outcome string `json:"outcome,omitempty"`
	// Sign is what was shown (liking).
	Sign Reaction `json:"sign,omitempty"`
	// Setup is what was measured (setupChecked).
	Setup *setup.Measures `json:"setup,omitempty"`
	// Gate is the one that was set (gate).
	Gate Gate `json:"gate,omitempty"`
	// Day is the day of practice, as 2026-05-05, and Item the key of what was done on it in
	// the published week (practised, from home). Times is how often, Felt how it felt.
	Day   string  `json:"day,omitempty"`
	Item  string  `json:"item,omitempty"`
	Times int     `json:"times,omitempty"`
	Felt  Feeling `json:"felt,omitempty"`
	// Minutes of practice (practised).
	Minutes int `json:"minutes,omitempty"`
	// Cycle is the one that is kept from now on (cycle).
	Cycle *Cycle `json:"cycle,omitempty"`
	// Climb is the tempo ladder of a material (climb).
	Climb *Climb `json:"climb,omitempty"`
	// Tempo that was played and whether it held (tempo).
	Tempo int    `json:"tempo,omitempty"`
	Held  bool   `json:"held,omitempty"`
	Text  string `json:"text,omitempty"`
	// Corrects is the id of the entry that this one removes (correction).
	Corrects string `json:"corrects,omitempty"`
}

// FaultPrefix begins the id of a usual fault.
const FaultPrefix = "fault."

// Family is the actor of what is reported from home.
const Family = "family"

// MostTimes is the most that one thing can be reported to have been played on a day.
const MostTimes = 99

// MaxText is the longest text of an entry in bytes.
const MaxText = 2000

func date(s string) bool {
	_, err := time.Parse(time.DateOnly, s)
	return err == nil
}

// Validate says in one sentence what is wrong with an entry by itself, or returns nil.
func (e Entry) Validate() error {
	switch {
	case e.ID == "":
		return fmt.Errorf("the entry has no id")
	case e.At.IsZero():
		return fmt.Errorf("entry %s has no time", e.ID)
	case len(e.Text) > MaxText:
		return fmt.Errorf("entry %s: the text is longer than %d characters", e.ID, MaxText)
	}
	check := checks[e.Kind]
	if check == nil {
		return fmt.Errorf("entry %s: %q is not a kind of entry", e.ID, e.Kind)
	}
	return check(e)
}

// need is nil, or says what an entry lacks.
func (e Entry) need(ok bool, what string) error {
	if ok {
		return nil
	}
	return fmt.Errorf("entry %s (%s): %s", e.ID, e.Kind, what)
}
