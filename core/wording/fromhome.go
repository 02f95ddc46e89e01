package wording

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/inweek"
)

// mostShown is how many things of a kind are named before the rest is counted.
const mostShown = 2

// Showed says which things were hard at home, fell short, were left alone or came easily, with their bars: “hard: “Rope Ladder”
// bars 7–8, on two of four days; “Slack Tide” not touched”. Empty where nothing stands out.
func (n Names) Showed(things []fromhome.Thing) string {
	var parts []string
	say := func(o fromhome.Outcome, before, after string, each func(fromhome.Thing) string) {
		var list []string
		whole := map[string]bool{}
		for _, x := range fromhome.Narrowed(things) {
			if x.Outcome != o {
				continue
			}
			id := x.Item.Material
			if allOf(things, id, o) {
				if !whole[id] {
					whole[id] = true
					list = append(list, n.thing(x, false)+each(x))
				}
				continue
			}
			if o != fromhome.Easy { // of a piece that is easy in places nothing is said: it goes on
				list = append(list, n.thing(x, true)+each(x))
			}
		}
		if len(list) == 0 {
			return
		}
		named := list[:min(len(list), mostShown)]
		if more := len(list) - len(named); more > 0 {
			named = append(slices.Clone(named), fmt.Sprintf("%d more", more))
		}
		parts = append(parts, before+List(named)+after)
	}
	none := func(fromhome.Thing) string { return "" }
	say(fromhome.Hard, "hard: ", "", func(x fromhome.Thing) string {
		return fmt.Sprintf(", on %s of %s", Numbered(x.Hard), Counted(x.Days, "day"))
	})
	say(fromhome.Short, "played less than was set: ", "", none)
	say(fromhome.Left, "", " not touched", none)
	say(fromhome.Easy, "easy: ", "", none)
	return strings.Join(parts, "; ")
}

// allOf says that all of a material that was set came out alike.
func allOf(things []fromhome.Thing, material string, o fromhome.Outcome) bool {
	return !slices.ContainsFunc(things, func(x fromhome.Thing) bool { return x.Item.Material == material && x.Outcome != o })
}

// thing names one: its title and, where they matter, its bars.
func (n Names) thing(x fromhome.Thing, bars bool) string {
	m, known := n.Library[x.Item.Material]
	title := Quoted(x.Item.Title)
	if known {
		title = Quoted(m.Title)
	}
	if !bars || x.Item.Bars.From == 0 || !known {
		return title
	}
	return title + " " + m.Span(x.Item.Bars.From, x.Item.Bars.To)
}

// HomeShowed says what home showed of one step: ““Rope Ladder” bars 7–8: hard on two of four days”.
func (n Names) HomeShowed(x fromhome.Thing) string {
	thing := n.thing(x, true)
	if x.Item.Hand != "" {
		thing += ", " + x.Item.Hand
	}
	switch x.Outcome {
	case fromhome.Hard:
		return fmt.Sprintf("%s: hard on %s of %s", thing, Numbered(x.Hard), Counted(x.Days, "day"))
	case fromhome.Short:
		return fmt.Sprintf("%s: far fewer times than were set, on %s of %s", thing, Numbered(x.Short), Counted(x.Days, "day"))
	case fromhome.Left:
		return thing + ": not touched"
	case fromhome.Easy:
		return fmt.Sprintf("%s: went well on %s", thing, allDays(x.Days))
	}
	return thing
}

// allDays says on which of its days something was done: on the one that it had, or on all of them.
func allDays(n int) string {
	if n == 1 {
		return "its day"
	}
	return "all " + Counted(n, "day")
}

// AfterHome says what comes of what home showed in the week after.
func AfterHome(a inweek.AfterHome) string {
	if a.Aside {
		return "does not count this week"
	}
	switch a.Effect {
	case inweek.LeftOutOfWeek:
		return "not set again"
	case inweek.InHalves:
		return "first, in halves, " + marksSlower(a.Slower)
	case inweek.OneMarkSlower:
		return "first, " + marksSlower(a.Slower)
	}
	return ""
}

func marksSlower(n int) string {
	if n <= 1 {
		return "a mark of the metronome slower"
	}
	return Numbered(n) + " marks of the metronome slower than usual"
}
