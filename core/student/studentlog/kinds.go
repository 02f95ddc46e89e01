package studentlog

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"patientladder/core/base/metronome"
)

// Kinds are all kinds of entries, in order.
func Kinds() []Kind { return slices.Sorted(maps.Keys(checks)) }

// checks say in a sentence what is wrong with an entry of each kind by itself, or return nil.
var checks = map[Kind]func(Entry) error{
	Assigned:     aMaterial,
	Cleared:      aMaterial,
	Polished:     aMaterial,
	TakeMeasured: aMaterial,
	Paused:       aMaterial,
	Resumed:      aMaterial,
	RunTried:     aMaterial,
	MarkGiven: func(e Entry) error {
		return e.need(e.Material != "" && e.Focus != "" && (e.Mark == None || e.Mark == Part || e.Mark == Full),
			"needs a material, a focus point and a mark of none, part or full")
	},
	Liking: func(e Entry) error {
		return e.need(
			e.Material != "" && (e.Sign == PlayedFirst || e.Sign == AskedFor || e.Sign == Unasked || e.Sign == Liked || e.Sign == Disliked),
			"needs a material and a sign of first, asked, unasked, liked or disliked",
		)
	},
	SpotAdded: func(e Entry) error {
		return e.need(e.Material != "" && e.From >= 1 && e.To >= e.From, "needs a material and bars, the first not after the last")
	},
	SpotMended: func(e Entry) error {
		return e.need(e.Material != "" && e.Spot != "", "needs a material and the spot that was mended")
	},
	Hearing: func(e Entry) error {
		return e.need(e.Material != "" && e.Rating >= 1 && e.Rating <= 4, "needs a material and a rating from 1 to 4")
	},
	SetupChecked: func(e Entry) error {
		if e.Setup == nil {
			return nil // looked at, and nothing measured
		}
		return e.Setup.Check()
	},
	Activity: func(e Entry) error {
		return e.need(e.Goal != "" && e.Step >= 1, "needs a goal and the number of its option")
	},
	WentWell: func(e Entry) error { return e.need(strings.TrimSpace(e.Text) != "", "says nothing") },
	StepDone: func(e Entry) error {
		return e.need(e.Skill != "" && e.Step >= 1, "needs a skill and the number of the step")
	},
	Probe: func(e Entry) error {
		if e.Outcome != "" && !slices.Contains([]string{"yes", "nearly", "no", "left"}, e.Outcome) {
			return e.need(false, "is answered yes, nearly, no or left")
		}
		return e.need(e.Skill != "", "needs a skill")
	},
	Meeting: func(e Entry) error {
		return e.need(e.Goal != "" && e.Outcome != "", "needs an activity and what came of it")
	},
	GateSet: func(e Entry) error {
		return e.need(e.Material != "" && e.Gate.Known(), "needs a material and a gate of automatic, right, left, apart or together")
	},
	Practised: func(e Entry) error {
		if e.Minutes < 0 || e.Minutes > 24*60 {
			return e.need(false, "minutes must lie between 0 and 1440")
		}
		if e.Times < 0 || e.Times > MostTimes {
			return e.need(false, fmt.Sprintf("times must lie between 0 and %d", MostTimes))
		}
		return e.need(e.Felt == "" || e.Felt == Joyful || e.Felt == Fine || e.Felt == Hard, "it felt joyful, fine or hard")
	},
	CycleKept: func(e Entry) error {
		return e.need(
			e.Cycle != nil &&
				(e.Cycle.First == "" || e.Cycle.Type != "" && e.Cycle.Step != "" && e.Cycle.Kind != "" && e.Cycle.Order != "" && date(e.Cycle.From)),
			"needs a type, step, kind, order, first key and the day from which it goes",
		)
	},
	LessonMissed: func(e Entry) error { return e.need(date(e.Day), "needs the day of the lesson, as 2026-05-05") },
	ClimbBegun: func(e Entry) error {
		if e.Climb == nil || e.Material == "" {
			return e.need(false, "needs a material and a tempo ladder")
		}
		if e.Climb.Weeks == 0 && e.Climb.From == 0 {
			return nil
		}
		_, err := metronome.Ladder(e.Climb.From, e.Climb.To, e.Climb.Weeks)
		return err
	},
	TempoPlayed: func(e Entry) error {
		return e.need(e.Material != "" && e.Tempo >= 20 && e.Tempo <= 400, "needs a material and a tempo from 20 to 400")
	},
	FaultSeen: aFault,
	FaultGone: aFault,
	FocusAdded: func(e Entry) error {
		return e.need(e.Focus != "" && strings.TrimSpace(e.Text) != "", "needs an id and words for the focus point")
	},
	KnownBefore: func(e Entry) error {
		return e.need((e.Material != "") != (e.Skill != ""), "needs a material or a skill")
	},
	Note:  aText,
	Bring: aText,
	Correction: func(e Entry) error {
		return e.need(e.Corrects != "" && e.Corrects != e.ID, "must name another entry to correct")
	},
}

func aMaterial(e Entry) error { return e.need(e.Material != "", "says no material") }

func aText(e Entry) error { return e.need(strings.TrimSpace(e.Text) != "", "has no text") }

func aFault(e Entry) error {
	return e.need(strings.HasPrefix(e.Focus, FaultPrefix) && len(e.Focus) > len(FaultPrefix), "needs the fault, as fault.too-close")
}
