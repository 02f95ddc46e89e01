package week

import "fmt"

// youngest is the age under which directions are said aloud before playing (common practice).
const youngest = 7

func words(it Item, w Work, age int) string {
	opening := ""
	if w.Opening != "" {
		opening = " It begins with " + w.Opening + "."
	}
	switch it.Kind {
	case Look:
		if age < youngest {
			return "Play nothing yet. Point at each note and say up, down or same aloud." + opening
		}
		return "Play nothing yet. Find where it begins, where it rises, falls and stays, and what comes back." + opening
	case Chunk:
		if age < youngest {
			return "Say up, down or same aloud, then play it slowly."
		}
		return "Name the first note, then play it slowly."
	case Join:
		return "Two small pieces become one: do not stop at the join."
	case Spot:
		return "The spot from the lesson: slowly, and tick a box each time it is right."
	case Whole:
		if w.RunDue {
			return "From start to end without a stop, as for a run."
		}
		if w.Tree == nil {
			return "Slowly and evenly; no faster until it is even."
		}
		return "From start to end, as slowly as it needs to go without a stop."
	}
	return ""
}

// notYet lists what the family should leave alone for now.
func notYet(w Work, age int) []string {
	var out []string
	title := "“" + w.Material.Title + "”"
	switch w.hand() {
	case "right hand":
		out = append(out, fmt.Sprintf("%s: the left hand, and both hands together", title))
	case "left hand":
		out = append(out, fmt.Sprintf("%s: both hands together", title))
	}
	switch {
	case w.Tree == nil || w.RunDue:
	case w.Progress < 0.5:
		out = append(out, fmt.Sprintf("%s: playing it up to speed", title))
	}
	if w.WeeksOn == 0 && age < youngest && w.Tree != nil {
		out = append(out, fmt.Sprintf("%s: the recording while playing; play it first, play along later", title))
	}
	return out
}
