package wording

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/planning/intechnique"
	"patientladder/core/reading/naming"
	"patientladder/core/student/standing"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/plucked"
	"patientladder/core/technique/scale"
)

// Exercise says one reason for an exercise that is proposed.
func Exercise(e exercise.Exercise, r exercise.Reason, words naming.Words) string {
	place := e.PlaceName(words)
	switch r.Kind {
	case exercise.SomeThrough:
		return fmt.Sprintf("%d of %d have passed “%s”.", r.Count, r.Of, r.Step.Name)
	case exercise.FromPieces:
		return fmt.Sprintf("“%s” is known from pieces; now %s.", r.Step.Name, r.Now.Why)
	case exercise.StepClimbed:
		if r.Of == 1 {
			return fmt.Sprintf("“%s” is passed; now %s.", r.Step.Name, r.Now.Why)
		}
		return fmt.Sprintf("“%s” is passed in all %d; now %s.", r.Step.Name, r.Of, r.Now.Why)
	case exercise.FirstStep:
		return fmt.Sprintf("It begins with %s: %s.", r.Now.Name, r.Now.Why)
	case exercise.KeyOfTheWeek:
		return fmt.Sprintf("It is the key of the week in the cycle, from %s on.", Day(r.Day))
	case exercise.FirstBefore:
		return place + " came first last time too."
	case exercise.HeardLater:
		return fmt.Sprintf("It would be heard only on %s, after a break: better begin it then.", Day(r.Day))
	}
	switch r.Order { // ByOrder
	case "few":
		if e.Instrument.Family == instrument.Bowed {
			return place + " asks least of the left hand of those left."
		}
		return place + " has the fewest sharps or flats of those left."
	case "fifths":
		return place + " is next by fifths."
	case "chords":
		return place + " has the fewest fingers to move of those left."
	case "strings":
		if e.Instrument.Family == instrument.Plucked {
			return "The middle strings come first: both hands reach them easily."
		}
		return "The middle strings come first: the bow arm lies easiest there."
	}
	return "It is the next in the order."
}

// Exercises says all reasons for an exercise.
func Exercises(p exercise.Proposal, words naming.Words) []string {
	out := []string{}
	for _, r := range p.Reasons {
		out = append(out, Exercise(p.Exercise, r, words))
	}
	return out
}

// Waits names the step that comes before a staircase: “Scales, two octaves”; empty for none.
func Waits(b *exercise.Before) string {
	if b == nil {
		return ""
	}
	return b.Type.Name + ", " + b.Step.Name
}

// Kind names a kind of scale or chord: “Harmonic minor”.
func Kind(kind string) string {
	for _, tail := range []string{"-arpeggio", "-broken-chord", "-five-finger"} {
		kind = strings.TrimSuffix(kind, tail)
	}
	return Capital(strings.ReplaceAll(kind, "-", " "))
}

// Technique is what stands on a student's screen of technique.
type Technique struct {
	// First is how the student is called.
	First string
	// Now are the exercises in work, Next the one that stands ahead or is proposed first, each with its step.
	Now  []TitledStep
	Next *TitledStep
}

// TitledStep is an exercise with its step.
type TitledStep struct{ Title, Step string }

// Sentence says what to do today.
func (t Technique) Sentence() string {
	first := t.First
	switch {
	case len(t.Now) == 1:
		return fmt.Sprintf("%s is on %s: %s.", first, t.Now[0].Title, t.Now[0].Step)
	case len(t.Now) > 1:
		return fmt.Sprintf("%s has %s; begin with %s.", first, Counted(len(t.Now), "exercise"), t.Now[0].Title)
	case t.Next != nil:
		return fmt.Sprintf("Next for %s: %s, %s.", first, t.Next.Title, t.Next.Step)
	}
	return fmt.Sprintf("%s has passed every staircase there is.", first)
}

// Climb says how a tempo ladder stands.
func Climb(c *standing.Climb) string {
	var out string
	switch left := len(c.Marks) - c.At; {
	case left == 0:
		return fmt.Sprintf("%d is reached.", c.To)
	case left == 1:
		out = fmt.Sprintf("%d this week, and that is the goal", c.Mark())
	default:
		out = fmt.Sprintf("%d this week; %d in %s", c.Mark(), c.Marks[len(c.Marks)-1], Counted(left, "week"))
	}
	if c.Eased > 0 {
		out += "; eased back " + times(c.Eased)
	}
	return out + "."
}

// Cycle says a cycle of keys.
func Cycle(c intechnique.Cycle, words naming.Words) string {
	name := func(w intechnique.CycleWeek) string { return words.Key(w.Exercise.Key.String()) }
	last := len(c.Weeks) - 1
	out := fmt.Sprintf(
		"%s from %s to %s, %s: the last is heard on %s",
		Capital(Counted(len(c.Weeks), "key")),
		name(c.Weeks[0]),
		name(c.Weeks[last]),
		c.Weeks[0].Exercise.Step.Name,
		DayAndYear(c.End),
	)
	if c.Off == 0 {
		out += "; no lesson falls out"
	} else {
		out += fmt.Sprintf("; %s without a lesson", Counted(c.Off, "week"))
	}
	if c.Held > 0 {
		out += fmt.Sprintf("; no key is begun in %s right before a break", Counted(c.Held, "lesson"))
	}
	if c.Slid > 0 {
		out += fmt.Sprintf("; %s had no room for a key, and all that follow slid", Counted(c.Slid, "lesson"))
	}
	switch c.Missed {
	case 0:
	case 1:
		out += ". A missed lesson moved the end by a week"
	default:
		out += fmt.Sprintf(". %s moved the end by %s", Capital(Counted(c.Missed, "missed lesson")), Counted(c.Missed, "week"))
	}
	return out + "."
}

// Atlas says who has which keys: so many students, of whom some have begun, with so many keys through a first pass.
func Atlas(students, begun, through int) string {
	switch {
	case students == 0:
		return "Nobody plays this instrument here yet."
	case begun == 0:
		return "Nobody has begun a scale yet."
	}
	return fmt.Sprintf(
		"%s of %d have begun; %s in all have passed once.",
		Capital(Counted(begun, "student")),
		students,
		Counted(through, "key"),
	)
}

// Meets says where the hands meet; name names a degree.
func Meets(meets []scale.Meet, name func(degree int) string) string {
	var thumbs, same, sides []string
	for _, m := range meets {
		switch {
		case m.Kind == "same" && m.Right == 1:
			thumbs = append(thumbs, name(m.Degree))
		case m.Kind == "same":
			same = append(same, fmt.Sprintf("%d with %d on %s", m.Right, m.Left, name(m.Degree)))
		default:
			sides = append(sides, name(m.Degree))
		}
	}
	var parts []string
	if len(same) > 0 {
		parts = append(parts, List(same))
	}
	if len(thumbs) > 0 {
		parts = append(parts, "the thumbs together on "+List(thumbs))
	}
	if len(sides) > 0 {
		parts = append(parts, "the same fingers side by side on "+List(sides))
	}
	if len(parts) == 0 {
		return "The hands meet nowhere: learn it hands apart for longer."
	}
	return "The hands meet: " + strings.Join(parts, "; ") + "."
}

// Scale says where the hands meet in a scale.
func Scale(s scale.Scale, words naming.Words) string {
	ring := len(s.Up.Notes) / s.Octaves
	return Meets(s.Meets, func(degree int) string { return words.Key(s.Up.Notes[(degree-1)%ring].Name()) })
}

// Learnable says what makes an exercise learnable.
func Learnable(e exercise.Exercise, b exercise.Built, patterns []bowed.Pattern, words naming.Words) string {
	switch {
	case len(b.Meets) > 0:
		names := map[int]string{}
		for _, n := range b.Notes {
			if n.Hand == "right" && names[n.Degree] == "" {
				names[n.Degree] = words.Key(n.Pitch.Name())
			}
		}
		return Meets(b.Meets, func(degree int) string { return names[degree] })
	case e.Type.What == "string" && e.Kind != "":
		for i, p := range patterns {
			if strconv.Itoa(i+1) == e.What {
				return fmt.Sprintf("On the %s string the fingers are %s.", words.Key(p.Open.Name()), p.Words)
			}
		}
	case e.Type.What == "roll":
		return roll(e.Instrument, b)
	case e.Type.What == "chords":
		a, to, _ := strings.Cut(e.What, "-")
		x, errA := plucked.Chord(e.Instrument, a)
		y, errB := plucked.Chord(e.Instrument, to)
		if errA == nil && errB == nil {
			return Sentence(plucked.ChangeOf(x, y).Words)
		}
	}
	return Sentence(e.Step.Why)
}

// pluckers are the plucking fingers by name.
var pluckers = map[string]string{"p": "the thumb", "i": "the index", "m": "the middle finger", "a": "the ring finger"}

// roll says which finger has which string, by its name and by the sign that players write; notes of the left hand are not plucked.
func roll(x instrument.Instrument, b exercise.Built) string {
	on := map[string][]string{}
	twice, last := false, ""
	for _, n := range b.Notes {
		if n.Pluck == "" {
			continue
		}
		if str := strconv.Itoa(n.String); !slices.Contains(on[n.Pluck], str) {
			on[n.Pluck] = append(on[n.Pluck], str)
		}
		twice, last = twice || n.Pluck == last, n.Pluck
	}
	var parts []string
	for _, f := range instrument.Plucking() {
		who := fmt.Sprintf("%s (%s)", pluckers[f], x.Sign(f))
		if list := on[f]; len(list) == 1 {
			parts = append(parts, who+" has string "+list[0])
		} else if len(list) > 1 {
			parts = append(parts, who+" strings "+List(list))
		}
	}
	out := Capital(List(parts)) + "; "
	if !twice {
		out += "no finger plays twice in a row, and "
	}
	return out + "every note is as loud as the next."
}

// Option names an exercise beside others that differ from it in one choice.
func Option(choice string, e exercise.Exercise, words naming.Words) string {
	switch choice {
	case "Exercise":
		return e.Type.Name
	case "Step":
		return Capital(e.Step.Name)
	case "Key":
		return words.Key(e.Key.String())
	case "Kind":
		return Kind(string(e.Kind))
	case "String":
		return words.Key(e.Instrument.Open[e.Str()-1].Name())
	}
	return e.Title(words)
}

// NoExercises says that there are no exercises for an instrument that has no data of its own.
func NoExercises(instrument string) string {
	return fmt.Sprintf("There are no exercises for %s yet. Add your own as pieces on the technique strand.", instrument)
}

// NoKeys stands where an instrument takes nothing through the keys.
const NoKeys = "Nothing on this instrument goes through the keys."
