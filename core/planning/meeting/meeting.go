// Package meeting plans a first meeting and follows it: which activities fit the minutes, the age and the instrument, what is
// played next by what came of the last try, and which two things go home.
package meeting

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"patientladder/core/library/instrument"
	"patientladder/core/student/standing"
)

// Part is a part of a meeting.
type Part string

// parts are those of a meeting in their order, and how they are left out where the minutes are few: the last ones here go
// first (defaults). A meeting always has a greeting, something to listen to, a rhythm, a seat, a tune and an end.
var (
	parts = []Part{"greeting", "listening", "rhythm", "guess", "draw", "seat", "hand", "tune", "close"}
	rank  = map[Part]int{"greeting": 0, "close": 0, "seat": 0, "tune": 1, "listening": 1, "rhythm": 1, "hand": 2, "guess": 3, "draw": 4}
)

// inLessons is the part of what is no part of a first meeting, and stands on the staircases of later lessons.
const inLessons Part = "lesson"

// Kind is what is played in an activity, on levels; empty for one without.
type Kind string

// The kinds.
const (
	Pitch  Kind = "pitch"
	Hidden Kind = "hidden"
	Rhythm Kind = "rhythm"
	Beat   Kind = "beat"
)

// Activity is one thing to do in a first meeting.
type Activity struct {
	ID   string `json:"id"`
	Part Part   `json:"part"`
	Name string `json:"name"`
	// Say is what the teacher says.
	Say     string `json:"say"`
	Minutes int    `json:"minutes"`
	// From and To are the ages that it is for.
	From     int                 `json:"from"`
	To       int                 `json:"to"`
	Families []instrument.Family `json:"families,omitempty"`
	Kind     Kind                `json:"kind,omitempty"`
	// Outcomes are what can come of it, Good those after which the next try is harder.
	Outcomes []string `json:"outcomes"`
	Good     []string `json:"good,omitempty"`
	// Skills are what an outcome shows.
	Skills map[string]string `json:"skills,omitempty"`
	// Home is the goal of the pool that it becomes at home; empty for none.
	Home string `json:"home,omitempty"`
	// Off says that the studio does not use it in a first meeting.
	Off bool `json:"off,omitempty"`
}

// Set are the activities of a studio.
type Set []Activity

//go:embed activities.json
var data []byte

// Shipped returns the activities that ship (common practice).
var Shipped = sync.OnceValue(func() Set {
	list, err := parse(data)
	if err != nil {
		panic("meeting: activities.json is damaged: " + err.Error())
	}
	return list
})

func parse(data []byte) (Set, error) {
	var list Set
	if err := json.Unmarshal(data, &list); err != nil {
		return nil, fmt.Errorf("first meeting: %w", err)
	}
	seen := map[string]bool{}
	for _, a := range list {
		switch {
		case a.ID == "" || seen[a.ID]:
			return nil, fmt.Errorf("first meeting: %q needs a name of its own", a.ID)
		case a.Part != inLessons && !slices.Contains(parts, a.Part):
			return nil, fmt.Errorf("first meeting: %q: %q is no part of a meeting", a.ID, a.Part)
		case a.Minutes < 1 || a.From > a.To || len(a.Outcomes) < 2:
			return nil, fmt.Errorf("first meeting: %q needs minutes, ages and outcomes", a.ID)
		}
		for _, good := range a.Good {
			if !slices.Contains(a.Outcomes, good) {
				return nil, fmt.Errorf("first meeting: %q: %q is none of its outcomes", a.ID, good)
			}
		}
		for outcome := range a.Skills {
			if !slices.Contains(a.Outcomes, outcome) {
				return nil, fmt.Errorf("first meeting: %q: %q is none of its outcomes", a.ID, outcome)
			}
		}
		seen[a.ID] = true
	}
	return list, nil
}

// Of returns an activity by its id.
func (set Set) Of(id string) (Activity, bool) {
	i := slices.IndexFunc(set, func(a Activity) bool { return a.ID == id })
	if i < 0 {
		return Activity{}, false
	}
	return set[i], true
}

// Came says that an outcome can come of it.
func (a Activity) Came(outcome string) bool { return slices.Contains(a.Outcomes, outcome) }

// fits says that it is for an age and an instrument.
func (a Activity) fits(age int, family instrument.Family) bool {
	return age >= a.From && age <= a.To && (len(a.Families) == 0 || slices.Contains(a.Families, family))
}

// Plan are the activities that fit the minutes, in the order of a meeting: of every part the first that suits the age and the
// instrument, then a second where minutes are left; the parts that matter least are left out first. No minutes, no plan.
func (set Set) Plan(minutes, age int, family instrument.Family) []Activity {
	var chosen []Activity
	left := minutes
	has := func(p Part) int {
		n := 0
		for _, a := range chosen {
			if a.Part == p {
				n++
			}
		}
		return n
	}
	for round := range 2 {
		for r := range 5 {
			for _, p := range parts {
				if rank[p] != r || has(p) != round {
					continue
				}
				for _, a := range set {
					if a.Part == p && !a.Off && a.fits(age, family) && a.Minutes <= left &&
						!slices.ContainsFunc(chosen, func(c Activity) bool { return c.ID == a.ID }) {
						chosen = append(chosen, a)
						left -= a.Minutes
						break
					}
				}
			}
		}
	}
	slices.SortStableFunc(chosen, func(a, b Activity) int { return slices.Index(parts, a.Part) - slices.Index(parts, b.Part) })
	return chosen
}

// Levels of what is played, the easiest first: tones as semitones above the lowest comfortable one, rhythms as lengths in
// quarter notes (common practice: one tone, then a fifth before a third, two tones before three; a bar of beats, then halves
// of beats, then two bars, then a rest).
var (
	pitches = [][]int{{4}, {0, 7}, {4, 0}, {0, 4, 7}, {7, 4, 5, 0}}
	rhythms = [][]float64{
		{1, 1, 2},
		{1, 1, 1, 1},
		{1, .5, .5, 2},
		{.5, .5, 1, .5, .5, 1},
		{1.5, .5, 1, 1},
		{1, 1, .5, .5, 1, 1, 1, 2},
		{1, -1, .5, .5, 1},
		{1, 1, 1, -1, .5, .5, 1, 2},
	}
	beats = [][]float64{{1, 1, 1, 1, 1, 1, 1, 1}, {.75, .75, .75, .75, .75, .75, .75, .75}}
)

// Levels is how many levels an activity has.
func (a Activity) Levels() int {
	switch a.Kind {
	case Pitch, Hidden:
		return len(pitches)
	case Rhythm:
		return len(rhythms)
	case Beat:
		return len(beats)
	}
	return 0
}

// mostTries is how often an activity is tried in one meeting (default): a meeting is no test.
const mostTries = 5

// Next is the level of the next try of an activity, from 1; 0 where it is enough: after several tries, after two in a row
// that did not come on the lowest level, or when the highest is passed. What came is followed by the next harder one, what
// did not by the next easier.
func (a Activity) Next(came []standing.Met) int {
	level, tries, low := 1, 0, 0
	for _, m := range came {
		if m.Activity != a.ID {
			continue
		}
		tries++
		at := max(1, m.Level)
		if slices.Contains(a.Good, m.Outcome) {
			level, low = at+1, 0
		} else {
			if level = max(1, at-1); at == 1 {
				low++
			}
		}
	}
	if a.Levels() == 0 {
		if tries > 0 {
			return 0
		}
		return 1
	}
	if tries >= mostTries || low >= 2 || level > a.Levels() {
		return 0
	}
	return level
}

// Step is the level of the try after an outcome on a level; 0 where it is enough.
type Step struct {
	Level   int
	Outcome string
	Then    int
}

// Steps are what follows each outcome on each level after what came so far, for a device that goes on by itself.
func (a Activity) Steps(came []standing.Met) []Step {
	var out []Step
	for level := 1; level <= max(1, a.Levels()); level++ {
		for _, o := range a.Outcomes {
			next := append(slices.Clone(came), standing.Met{Activity: a.ID, Level: level, Outcome: o})
			out = append(out, Step{level, o, a.Next(next)})
		}
	}
	return out
}

// Done is how many of the activities of a plan are over.
func Done(plan []Activity, came []standing.Met) int {
	n := 0
	for _, a := range plan {
		if a.Next(came) == 0 {
			n++
		}
	}
	return n
}

// Sound is one tone or stroke of what is played: when and how long in quarter notes; MIDI 0 for a clap.
type Sound struct {
	At, Length float64
	MIDI       int
}

// lowestTone is where a child sings comfortably: D above middle C; a grown voice takes it an octave lower if it likes.
const lowestTone = 62

// Sounds is what is played on a level.
func (a Activity) Sounds(level int) []Sound {
	var out []Sound
	at := 0.0
	if level < 1 || level > a.Levels() {
		return nil
	}
	switch a.Kind {
	case Pitch, Hidden:
		for _, above := range pitches[level-1] {
			out = append(out, Sound{at, 1.5, lowestTone + above})
			at += 1.5
		}
	case Rhythm, Beat:
		lengths := rhythms
		if a.Kind == Beat {
			lengths = beats
		}
		for _, l := range lengths[level-1] {
			if l > 0 {
				out = append(out, Sound{At: at, Length: l})
			}
			at += max(l, -l)
		}
	}
	return out
}

// TakeHome are the goals of the pool that go home, at most two: first what came well, so that it is a gift, then what did
// not come yet, as a game; tunes before others.
func (set Set) TakeHome(came []standing.Met) []string {
	var well, not []string
	for _, m := range came {
		a, known := set.Of(m.Activity)
		if !known || a.Home == "" {
			continue
		}
		list := &not
		if slices.Contains(a.Good, m.Outcome) {
			list = &well
		}
		if a.Part == "tune" {
			*list = append([]string{a.Home}, *list...)
		} else {
			*list = append(*list, a.Home)
		}
	}
	not = slices.DeleteFunc(not, func(id string) bool { return slices.Contains(well, id) })
	var out []string
	add := func(list []string) {
		for _, id := range list {
			if len(out) < 2 && !slices.Contains(out, id) {
				out = append(out, id)
				return
			}
		}
	}
	add(well)
	add(not)
	add(well)
	add(not)
	return out
}
