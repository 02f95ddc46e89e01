package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/placing"
	"patientladder/core/student/leap"
	"patientladder/core/student/placement"
	"patientladder/core/student/standing"
)

// Placement says how far a placement is, and when no book is there that could be begun.
func Placement(p placing.Placement, first string) string {
	said := howFar(p, first)
	if len(p.Entries) == 0 && len(p.Belief.Skills()) > 0 {
		said += " It cannot say where to begin: the library offers no book of two pieces or more for this instrument."
	}
	return said
}

func howFar(p placing.Placement, first string) string {
	answered := 0
	for _, g := range p.Belief.Given() {
		if g.Answer != placement.Left {
			answered++
		}
	}
	open := 0
	for _, s := range p.Belief.Strands() {
		open += s.Open
	}
	switch {
	case len(p.Belief.Skills()) == 0:
		return "There is nothing to ask for on this instrument."
	case answered == 0:
		return fmt.Sprintf("Nothing was asked yet: of %s nobody knows whether %s has them.", Counted(open, "skill"), first)
	case p.Over == placement.Sure:
		return fmt.Sprintf("Enough is known: after %s %s still open.", Counted(answered, "answer"), isAre(open, "skill"))
	case p.Over != "":
		return fmt.Sprintf("That is enough for one sitting: %s, %s still open.", Counted(answered, "answer"), isAre(open, "skill"))
	}
	return fmt.Sprintf("%s so far; %s still open.", Capital(Counted(answered, "answer")), isAre(open, "skill"))
}

func isAre(n int, what string) string {
	if n == 1 {
		return "one " + what + " is"
	}
	return Counted(n, what) + " are"
}

// Asks is what the teacher says to ask for a skill.
func Asks(t placing.Task, s skill.Skill) string {
	if t.Say != "" {
		return t.Say
	}
	if t.Score != nil {
		return "Play this: it asks for " + s.Name + "."
	}
	return "Show it: " + s.Name + "."
}

// WhyAsked says why a question is the next.
func WhyAsked(q placement.Question) string {
	share := int(q.Known*100 + 0.5)
	if q.Open <= 1 {
		return fmt.Sprintf("It could be either way: %d %% that it is there.", share)
	}
	return fmt.Sprintf("It could be either way, %d %%, and it tells about %d others.", share, q.Open-1)
}

// HoleSoon says when a hole will be felt.
func HoleSoon(h placing.Hole, lib material.Library) string {
	if len(h.Soon) == 0 {
		return "Not needed soon."
	}
	text := "Needed for “" + lib[h.Soon[0]].Title + "”"
	if n := len(h.Soon) - 1; n > 0 {
		text += " and " + Counted(n, "piece") + " after it"
	}
	return text + "."
}

// Entry says where a book would be entered, and while questions are left that it is so as far as is known.
func Entry(e placing.BookEntry, over placement.Ends, lib material.Library) string {
	text := entry(e, lib)
	if over == "" {
		return "As far as is known: " + strings.ToLower(text[:1]) + text[1:]
	}
	return text
}

func entry(e placing.BookEntry, lib material.Library) string {
	if e.At >= len(e.Pieces) {
		return "No piece of it would be too new. Move the mark to begin somewhere all the same."
	}
	first := lib[e.Pieces[e.At]]
	title := "“" + first.Title + "”"
	if first.Unit != "" {
		title += " in “" + first.Unit + "”"
	}
	held := ""
	if e.Needed > 0 {
		held = fmt.Sprintf(" Of %s that it asks for before, %d are there.", Counted(e.Needed, "skill"), e.There)
	}
	held = entryRange(e, lib) + held
	if e.At == 0 {
		return "It begins at the beginning, with " + title + "." + held
	}
	return fmt.Sprintf("It begins with %s, after %s.%s", title, Counted(e.At, "piece"), held)
}

// entryRange says between which pieces the right entry lies; empty where the teacher chose it, or where nothing is in doubt.
func entryRange(e placing.BookEntry, lib material.Library) string {
	switch {
	case e.Chosen || e.Low >= e.High:
		return ""
	case e.High >= len(e.Pieces):
		return fmt.Sprintf(" Likely (4 in 5) at “%s” or later.", lib[e.Pieces[min(e.Low, len(e.Pieces)-1)]].Title)
	}
	return fmt.Sprintf(" Likely (4 in 5) between “%s” and “%s”.", lib[e.Pieces[e.Low]].Title, lib[e.Pieces[e.High]].Title)
}

// RouteName names a way to begin.
func RouteName(k placing.RouteKind) string {
	switch k {
	case placing.FillFirst:
		return "A little back"
	case placing.FillBeside:
		return "Beside"
	}
	return "Go on"
}

// mostNamed is how many skills a sentence names before it counts the rest.
const mostNamed = 4

// Route says what a way to begin means.
func Route(r placing.Route, lib material.Library, skills skill.Catalogue) string {
	names := func(ids []string) string {
		var out []string
		for _, id := range ids {
			out = append(out, skills.Name(id))
		}
		if n := len(out) - mostNamed; n > 1 {
			return strings.Join(out[:mostNamed], ", ") + " and " + Counted(n, "more skill")
		}
		return List(out)
	}
	step := fmt.Sprintf("The largest step among the next pieces is %s.", LeapSize(leap.Leap{Size: r.Largest}))
	lessons := fmt.Sprintf("%d to %s", r.Low, Figures(r.High, "lesson"))
	if r.Low == r.High {
		lessons = Counted(r.High, "lesson")
	}
	switch r.Kind {
	case placing.FillFirst:
		teach := "they teach"
		if len(r.Fill) == 1 {
			teach = "it teaches"
		}
		return fmt.Sprintf("%s first, %s: %s %s. %s", Capital(Counted(len(r.Fill), "earlier piece")), lessons, teach, names(r.Filled), step)
	case placing.FillBeside:
		return fmt.Sprintf("The new pieces begin at once; %s goes along with each, for %s. %s", "an earlier one", lessons, step)
	}
	if len(r.Open) == 0 {
		return "Nothing that is missing is asked for soon. " + step
	}
	return strings.TrimSpace(fmt.Sprintf("%s would be learned where the pieces ask for them. %s", Capital(names(r.Open)), step))
}

// Contradiction says that answers speak against each other.
func Contradiction(c placement.Contradiction, skills skill.Catalogue) string {
	return fmt.Sprintf("%s: %s there, %s not; now %s that it is.", Capital(skills.Name(c.Skill)), times(c.Yes), times(c.No), Percent(c.Known))
}

// Answered says what was answered: “dotted rhythm: nearly”.
func Answered(a standing.Asked, skills skill.Catalogue) string {
	words := a.Answer
	if a.Answer == "left" {
		words = "passed over"
	}
	return skills.Name(a.Skill) + ": " + words
}

// Needs says what of a book's requirements is there: “It takes 9 skills for granted: 6 are there, 2 open, and ties is missing.”
func Needs(e placing.BookEntry, answered int, skills skill.Catalogue) string {
	n := len(e.Granted)
	if n == 0 {
		return ""
	}
	if answered == 0 {
		return fmt.Sprintf("It takes %s for granted; nothing was asked yet.", Counted(n, "skill"))
	}
	text := fmt.Sprintf("It takes %s for granted: %d there", Counted(n, "skill"), n-len(e.Lacking)-len(e.Open))
	if len(e.Open) > 0 {
		text += fmt.Sprintf(", %d not known yet", len(e.Open))
	}
	if len(e.Lacking) > 0 {
		var names []string
		for _, id := range e.Lacking {
			names = append(names, skills.Name(id))
		}
		text += ", missing: " + List(names)
	}
	return text + "."
}
