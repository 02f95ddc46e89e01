// Package way holds the ways of teaching: the switches that the rules read, and
// presets of them. Teachers disagree, with reason; nothing here insists.
package way

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"

	"patientladder/core/planning/preview"
	"patientladder/core/planning/review"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/naming"
	"patientladder/core/student/clearing"
	"patientladder/core/student/leap"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
)

// FirstView is what a piece opens with.
type FirstView string

// The first views.
const (
	Sound FirstView = "sound" // it is heard before it is read
	Score FirstView = "score" // it is read, with the marks of the student's approach
)

// Way is a studio's or a student's way of teaching. The zero value is not
// valid: begin with a preset.
type Way struct {
	// ReviewShare of practice is kept for learned pieces, 0 to 0.9. Sound first 0.75
	// (common practice), reading first 0.3 (default).
	ReviewShare float64 `json:"reviewShare"`
	// ReadingAfter is how many weeks of lessons come before the reading strand begins, 0 to 208.
	ReadingAfter int `json:"readingAfter"`
	// Approach is how notes are found on the page.
	Approach naming.Approach `json:"approach"`
	// FirstView is what a piece opens with.
	FirstView FirstView `json:"firstView"`
	// FirstChunk is the size of the smallest chunk in bars, 1 to 8; 0 by the student's age.
	FirstChunk int `json:"firstChunk"`
	// Dose is how often a step is played at home, DoseRow how many right in a row, 2 to 10.
	Dose    week.Dose `json:"dose"`
	DoseRow int       `json:"doseRow"`
	// HandShape is the school by which hands are looked at, BenchLean how forearms lie.
	HandShape setup.School `json:"handShape"`
	BenchLean setup.Lean   `json:"benchLean"`
	// Standard is what a run must have to clear a piece.
	Standard clearing.Level `json:"standard"`
	// SecureAfter is how many cleared pieces make a skill secure, 1 to 6.
	SecureAfter int `json:"secureAfter"`
	// Comfortable is the leap taken in stride before five pieces were cleared, 0.5 to 5.
	Comfortable float64 `json:"comfortable"`
	// EaseAfterLeap proposes an easy piece after a leap over the comfortable size.
	EaseAfterLeap bool `json:"easeAfterLeap"`
	// Bites of preview in a lesson at the most, 0 to 5.
	Bites int `json:"bites"`
	// LookRungs and LookWeeks are how far ahead previews look, 1 to 20 rungs and 1 to 104 weeks.
	LookRungs int `json:"lookRungs"`
	LookWeeks int `json:"lookWeeks"`
	// ReviewWeeks is how long a piece in review may go unheard, 1 to 26.
	ReviewWeeks int `json:"reviewWeeks"`
	// StuckLessons without a new mark make a piece stuck, 2 to 10.
	StuckLessons int `json:"stuckLessons"`
	// PolishWeeks lie between clearing a piece and performing it, 0 to 26.
	PolishWeeks int `json:"polishWeeks"`
	// HomeCounts lets what home showed keep learned pieces alive and shape the week after.
	HomeCounts bool `json:"homeCounts"`
	// Rewards lets treats be promised and shown to families.
	Rewards bool `json:"rewards"`
	// Sure is the chance of being ready that a target should have, 0.5 to 0.95.
	Sure float64 `json:"sure"`
}

// Preset is a named way.
type Preset struct {
	Key, Name string
	// Says is one sentence for the teacher.
	Says string
	Way  Way
}

// Presets returns the presets, the default last.
func Presets() []Preset {
	balanced := Way{
		ReviewShare: 0.45, Approach: naming.ByDirection, FirstView: Score, SecureAfter: 2, Comfortable: 1.5, EaseAfterLeap: true,
		HomeCounts: true, Rewards: true, Bites: 2, LookRungs: 6, LookWeeks: 16, ReviewWeeks: 6, StuckLessons: 3, PolishWeeks: 2, Sure: 0.8,
		Dose: week.ByYears, DoseRow: 3, HandShape: setup.Hanging, BenchLean: setup.Level,
	}
	sound := balanced
	sound.ReviewShare, sound.ReadingAfter, sound.FirstView, sound.FirstChunk, sound.SecureAfter, sound.ReviewWeeks = 0.75, 52, Sound, 1, 3, 4
	reading := balanced
	reading.ReviewShare, reading.Approach, reading.ReviewWeeks = 0.3, naming.ByInterval, 6
	dated := balanced
	dated.ReviewShare, dated.Standard, dated.EaseAfterLeap, dated.PolishWeeks, dated.Sure, dated.ReviewWeeks = 0.3, clearing.Strict, false, 4, 0.9, 8
	return []Preset{
		{"sound", "Sound first", "Pieces are heard before they are read; most of the time goes into what is learned already.", sound},
		{"reading", "Reading first", "Every piece is read from the page from the first lesson on.", reading},
		{"dated", "Date led", "Recitals and exams set the pace; a piece is polished before it is played out.", dated},
		{"balanced", "Balanced", "A little of each; the default.", balanced},
	}
}

// Default is the balanced way.
func Default() Way { return Presets()[3].Way }

// PresetOf returns the key of the preset that a way equals, or "".
func (w Way) PresetOf() string {
	for _, p := range Presets() {
		if p.Way == w {
			return p.Key
		}
	}
	return ""
}

// Bound says between which numbers a switch can be set.
type Bound struct {
	// Switch is its name in JSON, Name what it is called in a sentence.
	Switch, Name string
	Least, Most  float64
}

// Bounds returns the bounds of the switches that are numbers.
func Bounds() []Bound {
	return []Bound{
		{"reviewShare", "the review share", 0, 0.9},
		{"readingAfter", "the weeks before reading begins", 0, 208},
		{"firstChunk", "the first chunk", 0, 8},
		{"secureAfter", "the pieces that make a skill secure", 1, 6},
		{"comfortable", "the comfortable leap", 0.5, 5},
		{"bites", "the bites in a lesson", 0, 5},
		{"lookRungs", "the rungs that previews look at", 1, 20},
		{"lookWeeks", "the weeks that previews look ahead", 1, 104},
		{"reviewWeeks", "the weeks a piece may go unheard", 1, 26},
		{"stuckLessons", "the lessons without a mark", 2, 10},
		{"polishWeeks", "the weeks of polishing", 0, 26},
		{"sure", "the chance of being ready", 0.5, 0.95},
		{"doseRow", "the right ones in a row", 2, 10},
	}
}

// Check says in sentences which switches lie outside their bounds.
func (w Way) Check() error {
	var wrong []string
	set := w.numbers()
	for _, b := range Bounds() {
		if value := set[b.Switch]; !(value >= b.Least && value <= b.Most) {
			wrong = append(wrong, fmt.Sprintf("%s must lie between %g and %g, not %g", b.Name, b.Least, b.Most, value))
		}
	}
	if !w.Dose.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a dose", w.Dose))
	}
	if !w.HandShape.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a school of hand shape", w.HandShape))
	}
	if !w.BenchLean.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a lean", w.BenchLean))
	}
	if !w.Approach.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a way of reading", w.Approach))
	}
	if w.FirstView != Sound && w.FirstView != Score {
		wrong = append(wrong, fmt.Sprintf("%q is not a first view", w.FirstView))
	}
	if !w.Standard.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a clearing standard", w.Standard))
	}
	if len(wrong) == 0 {
		return nil
	}
	return errors.New(strings.Join(wrong, "; "))
}

// numbers are the switches that are numbers, by their names in JSON.
func (w Way) numbers() map[string]float64 {
	return map[string]float64{
		"reviewShare": w.ReviewShare, "readingAfter": float64(w.ReadingAfter), "firstChunk": float64(w.FirstChunk),
		"secureAfter": float64(w.SecureAfter),
		"comfortable": w.Comfortable, "bites": float64(w.Bites), "lookRungs": float64(w.LookRungs), "lookWeeks": float64(w.LookWeeks),
		"reviewWeeks": float64(w.ReviewWeeks), "stuckLessons": float64(w.StuckLessons), "polishWeeks": float64(w.PolishWeeks), "sure": w.Sure,
		"doseRow": float64(w.DoseRow),
	}
}

// With returns the way with some switches set otherwise: own is a JSON object
// of those switches only, or empty.
func (w Way) With(own []byte) (Way, error) {
	if len(own) == 0 {
		return w, nil
	}
	if err := json.Unmarshal(own, &w); err != nil {
		return w, fmt.Errorf("ways of teaching: %w", err)
	}
	return w, nil
}

// Differs lists the switches, by their names in JSON and in their order, in which two ways differ.
func (w Way) Differs(from Way) []string {
	var out []string
	mine, theirs := w.fields(), from.fields()
	kind := reflect.TypeFor[Way]()
	for i := range kind.NumField() {
		key := kind.Field(i).Tag.Get("json")
		if string(mine[key]) != string(theirs[key]) {
			out = append(out, key)
		}
	}
	return out
}

// Own returns, as a JSON object, the switches in which a way differs from a base; empty for none.
func (w Way) Own(base Way) []byte {
	mine, theirs := w.fields(), base.fields()
	for key, value := range mine {
		if string(value) == string(theirs[key]) {
			delete(mine, key)
		}
	}
	if len(mine) == 0 {
		return nil
	}
	return must(json.Marshal(mine))
}

func (w Way) fields() map[string]json.RawMessage {
	out := map[string]json.RawMessage{}
	if err := json.Unmarshal(must(json.Marshal(w)), &out); err != nil {
		panic("way: a way of plain fields is always an object: " + err.Error())
	}
	return out
}

func must(data []byte, err error) []byte {
	if err != nil {
		panic("way: plain fields always have JSON: " + err.Error())
	}
	return data
}

// Standing is the policy of the standing under this way.
func (w Way) Standing() standing.Policy {
	p := standing.DefaultPolicy()
	p.Leap, p.ReadingAfter = w.Leap(), w.ReadingAfter
	if !w.HomeCounts {
		p.AtHome = 0
	}
	return p
}

// Leap is the policy of leaps under this way.
func (w Way) Leap() leap.Policy {
	p := leap.DefaultPolicy()
	p.SecureAfter, p.Comfortable = w.SecureAfter, w.Comfortable
	return p
}

// Preview is how far is looked ahead under this way.
func (w Way) Preview() preview.Policy {
	return preview.Policy{Rungs: w.LookRungs, Lessons: w.LookWeeks, PerLesson: w.Bites}
}

// Review is the policy of the week's review under this way.
func (w Way) Review() review.Policy {
	p := review.DefaultPolicy()
	p.StarvedAfterDays = 7 * w.ReviewWeeks
	return p
}

// Signs is what makes something due under this way.
func (w Way) Signs() signs.Policy {
	p := signs.DefaultPolicy()
	p.StuckLessons, p.ReviewWeeks = w.StuckLessons, w.ReviewWeeks
	return p
}

// Planning is what planning asks of this way.
func (w Way) Planning() studentplan.Policy {
	return studentplan.Policy{
		Standing: w.Standing(), Preview: w.Preview(), Review: w.Review(), Signs: w.Signs(), ReviewShare: w.ReviewShare,
		ReadingAfter:  w.ReadingAfter,
		EaseAfterLeap: w.EaseAfterLeap, HearFirst: w.FirstView == Sound, Approach: w.Approach, FirstChunk: w.FirstChunk,
		Dose: w.Dose, DoseRow: w.DoseRow, PolishWeeks: w.PolishWeeks, Sure: w.Sure, HomeCounts: w.HomeCounts,
	}
}
