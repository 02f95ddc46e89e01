package setup

import "time"

// School is how the hand is shaped.
type School string

// The schools. Both warn against the same faults.
const (
	Hanging School = "hanging" // the hand as it hangs
	Ball    School = "ball"    // rounded, as if holding a ball
)

// Check is one thing to look at.
type Check struct {
	ID, Look string
	// Child says it in words for a child.
	Child string
}

// Known says whether there is such a school.
func (s School) Known() bool { return s == Hanging || s == Ball }

// Checks returns what to look at before and while playing, by what an instrument asks for and the school of the
// hand (common practice).
func Checks(asked Asked, s School) []Check {
	hand := Check{
		"hand",
		"The hand keeps the shape in which it hangs at the side; nothing is pulled.",
		"Let your arm hang like a wet towel, then put that same hand on the keys.",
	}
	if s == Ball {
		hand = Check{
			"hand",
			"The hand is rounded as if it held a ball; the knuckles are its roof.",
			"Hold a tennis ball, then put the hand down and let the ball roll away.",
		}
	}
	feet := Check{"feet", "Both feet stand on something firm.", "Stamp once with each foot: do they have a floor?"}
	shoulders := Check{
		"shoulders",
		"Both shoulders hang at the same height, the neck is free.",
		"Lift the shoulders to your ears, then let them drop like snow from a roof.",
	}
	thumb := Check{
		"thumb",
		"The thumb of the left hand does not squeeze: it could be lifted while a finger holds.",
		"Can your thumb wave while the finger keeps its note?",
	}
	fingers := Check{
		"fingers",
		"The fingers of the left hand stand on their tips; the next string rings free.",
		"Stand on tiptoe with each finger.",
	}
	switch asked {
	case OnChair:
		return []Check{
			{"seat", "On the front half of the chair, the back long.", "Sit on the porch of the chair, not in its living room."},
			feet,
			shoulders,
			thumb,
			fingers,
		}
	case Standing:
		return []Check{
			{"stand", "Both feet carry the same weight, the knees are soft.", "Sway like seaweed, then stop in the middle."},
			shoulders,
			thumb,
			fingers,
		}
	}
	return []Check{
		{"seat", "On the front third to half of the bench.", "Sit on the porch of the bench, not in its living room."},
		{"distance", "The elbows are slightly ahead of the body, and the arms can cross in front of it.", "Can your elbows swing like doors?"},
		feet,
		hand,
		{"wrist", "The wrist is neither low nor high; no finger joint gives way.", "A coin could sit on the back of your hand."},
		{"free hand", "The hand that rests is soft; unused fingers lie low and quiet.", "Let the hand that waits sleep like a cat."},
	}
}

// Cautions stand wherever a setup is shown.
func Cautions() []string {
	return []string{
		"Pain, tingling or numbness means stop and rest; if it stays, see a doctor or physiotherapist. This page does not diagnose.",
		"Small hands do not stretch. Short sessions with breaks.",
		"Measuring and touch: agree with the student or the guardian first, and follow the local rules for lessons with children.",
	}
}

// Due says that bench and feet are to be measured again: the young after
// months (three by default), others after a year, and who never was at once.
func Due(last, day time.Time, age, months int) bool {
	if last.IsZero() {
		return true
	}
	if age >= 18 {
		months = 12
	}
	return !day.Before(last.AddDate(0, months, 0))
}

// Months after which the young are measured again (default).
const Months = 3
