package week

import (
	"fmt"
	"strings"

	"patientladder/core/reading/naming"
)

// youngest is the age under which directions are said aloud before playing (common practice).
const youngest = 7

func words(it Item, w Work, in Input) string {
	opening := ""
	if w.Opening != "" {
		opening = " It begins with " + w.Opening + "."
	}
	switch it.Kind {
	case Drilled:
		return drillWords(it, w)
	case Hear:
		return "Play nothing yet. Listen to it together, then sing or hum it." + opening
	case Look:
		return "Play nothing yet. " + look(w, in) + opening
	case Chunk:
		if w.Tree == nil {
			return "Only the beginning, as far as the first line or a place to breathe. " + before(in) + ", then play it slowly."
		}
		return before(in) + ", then play it slowly."
	case Join:
		if w.Tree == nil {
			return "One line more: slowly from the start of it, then join it to the beginning."
		}
		return "Two short sections become one: do not stop where they meet."
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

// look says how a new piece is read before it is played, by the student's way of reading.
func look(w Work, in Input) string {
	young := in.Age < youngest
	if w.Tree == nil {
		return w.find() + lookWays(w, in, young)
	}
	return lookWays(w, in, young)
}

// find says where a piece is that nobody has but the family.
func (w Work) find() string {
	switch source, page := w.Material.Source, w.Material.Page; {
	case source != "" && page > 0:
		return fmt.Sprintf("Find it in the book “%s” on page %d. ", source, page)
	case source != "":
		return fmt.Sprintf("Find it in the book “%s”. ", source)
	}
	return "Find the page. "
}

func lookWays(w Work, in Input, young bool) string {
	guides := ""
	if len(w.Guides) > 0 {
		guides = " New on the page: " + strings.Join(w.Guides, "; ") + "."
	}
	switch in.Approach {
	case naming.ByInterval:
		if young {
			return "Point at each note and say same, step or skip aloud." + guides
		}
		return "Find the guide notes, then say each move: same, step or wider, up or down." + guides
	case naming.ByName:
		if young {
			return "Point at each note and say its name aloud." + guides
		}
		return "Say the names of the notes in their rhythm, and find what comes back." + guides
	case naming.ByPosition:
		if w.Position == "" {
			return "Lay the hand in its first place and say the finger of each note."
		}
		return "Lay the hand in its place (" + w.Position + ") and say the finger of each note."
	}
	if young {
		return "Point at each note and say up, down or same aloud."
	}
	return "Find where it begins, where it rises, falls and stays, and what comes back."
}

// drillWords say how a drill is practised.
func drillWords(it Item, w Work) string {
	whole := "Read the goals first. Play it whole, slowly and evenly; no faster until it is even."
	if w.RunDue {
		whole = "All the way through without a stop, as for a run."
	}
	if len(w.drillHands()) > 1 && it.Hand != "" {
		return capital(it.Hand) + " alone. " + whole
	}
	return whole
}

// before says what is done at a short section before it is played.
func before(in Input) string {
	young := in.Age < youngest
	if in.BySound {
		return "Listen to it, sing it"
	}
	switch in.Approach {
	case naming.ByInterval:
		if young {
			return "Say same, step or skip aloud"
		}
		return "Say the moves that are wider than a step"
	case naming.ByName:
		return "Say the names of the notes aloud"
	case naming.ByPosition:
		return "Lay the hand in its place and say the fingers"
	}
	if young {
		return "Say up, down or same aloud"
	}
	return "Name the first note"
}
