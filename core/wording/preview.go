package wording

import (
	"fmt"

	"patientladder/core/planning/planting"
	"patientladder/core/planning/preview"
)

// Planting says why a skill is planted now.
func (n Names) Planting(p planting.Planting) string {
	out := fmt.Sprintf(
		"%s needs %s and is expected to begin about %s, in %s. %s left, never two in one lesson and at most %s in all",
		n.Title(
			p.For,
		),
		n.Skills.Name(p.Skill),
		Day(p.Needed),
		Counted(p.By, "lesson"),
		Capital(Counted(p.Of-p.Done, "step")),
		Counted(p.PerLesson, "bite"),
	)
	if len(p.After) > 0 {
		out += fmt.Sprintf(", and after %s, which it builds on", n.skillNames(p.After))
	}
	out += fmt.Sprintf(": the last one comes on %s, ", Day(p.Ready))
	switch {
	case p.Slack > 0:
		return out + fmt.Sprintf("with %s in hand.", Counted(p.Slack, "lesson"))
	case p.Slack == 0:
		return out + "just in time."
	}
	return out + fmt.Sprintf("%s too late.", Counted(-p.Slack, "lesson"))
}

// Mend says what would help a preview that is late for a piece.
func (n Names) Mend(m preview.Mend, piece string) string {
	switch m.Kind {
	case preview.Move:
		return fmt.Sprintf("Begin %s %s later.", n.Title(piece), Counted(m.Lessons, "lesson"))
	case preview.MoreBites:
		if m.Late > 0 {
			return fmt.Sprintf("Take one bite more in every lesson: then it is %s late.", Counted(m.Late, "lesson"))
		}
		return "Take one bite more in every lesson."
	case preview.Substitute:
		return fmt.Sprintf("Play %s first: it needs nothing that is late.", n.Title(m.Material))
	}
	return ""
}
