package wording

import (
	"fmt"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/library/titles"
	"patientladder/core/planning/placing"
	"patientladder/core/planning/withfamily"
)

// KnownEffect says what entering what was known before changes.
func (n Names) KnownEffect(e placing.KnownEffect, entries, made, rungs int) []string {
	if entries == 0 && rungs == 0 {
		return []string{"Nothing new is chosen."}
	}
	var out []string
	if k := len(e.Pieces); k > 0 {
		line := Capital(Counted(k, "piece")) + " learned before"
		switch {
		case e.Review == 0:
		case e.Review == k && k == 1:
			line += ", and in review"
		case e.Review == k:
			line += ", all of them in review"
		default:
			line += fmt.Sprintf(", %s of them in review", Numbered(e.Review))
		}
		out = append(out, line+".")
	}
	if made > 0 {
		out = append(out, fmt.Sprintf("%s %s new in your library.", Capital(Counted(made, "piece")), is(made)))
	}
	if e.Secure > 0 {
		out = append(out, fmt.Sprintf("%s secure.", Capital(Counted(e.Secure, "skill"))))
	}
	if e.Rusty > 0 {
		out = append(out, fmt.Sprintf("%s perhaps faded since.", Capital(Counted(e.Rusty, "skill"))))
	}
	if rungs > 0 {
		out = append(out, fmt.Sprintf("%s put onto the ladder.", Capital(Counted(rungs, "piece"))))
	}
	if len(e.NextAfter) > 0 {
		out = append(out, "Next: "+n.Titles(e.NextAfter)+".")
	}
	return out
}

// KnownBatch says what was entered together.
func KnownBatch(entries, rungs int, day time.Time) string {
	out := fmt.Sprintf("%s known before, entered on %s", Figures(entries, "thing"), Day(day))
	if rungs > 0 {
		out += fmt.Sprintf(", with %s put onto the ladder", Figures(rungs, "piece"))
	}
	return out
}

// Matched says what came of the lines of a list.
func Matched(list []titles.Match) string {
	sure, doubtful, fresh := 0, 0, 0
	for _, m := range list {
		switch {
		case m.Best.ID == "":
			fresh++
		case m.Sure:
			sure++
		default:
			doubtful++
		}
	}
	out := fmt.Sprintf("Of %s: %d found", Counted(len(list), "line"), sure)
	if doubtful > 0 {
		out += fmt.Sprintf(", %d to check", doubtful)
	}
	if fresh > 0 {
		out += fmt.Sprintf(", %d new", fresh)
	}
	return out + "."
}

// TooManyLines says that a list is too long.
func TooManyLines(n, most int) string {
	return fmt.Sprintf("The list has %d lines; at most %d are taken at a time. Paste it in parts. Nothing was changed.", n, most)
}

// SectionTitle names a section that is proposed.
func SectionTitle(m material.Material, i, from, to int) string {
	return fmt.Sprintf("%s %d, %s", m.Title, i+1, m.Span(from, to))
}

// Sections says how a piece is split, or could be.
func Sections(have, proposed int) string {
	switch {
	case have > 0:
		return fmt.Sprintf("Split into %s; it is cleared when they all are.", Counted(have, "section"))
	case proposed > 0:
		return fmt.Sprintf("%s suggested from the score. Each can be cleared by itself.", Capital(Counted(proposed, "section")))
	}
	return "Each section can be cleared by itself."
}

// Removed says what became of what was to be removed.
func Removed(title string, removed bool) string {
	if removed {
		return Quoted(title) + " is removed."
	}
	return fmt.Sprintf("%s is on a ladder or in a log. It is kept for those who have it, and no longer offered.", Quoted(title))
}

// Restored says that something is offered again.
func Restored(title string) string { return Quoted(title) + " is offered again." }

// SkillCircle says why a skill cannot come after another one.
func SkillCircle(skill, through string) string {
	if skill == through {
		return Quoted(skill) + " cannot come after itself."
	}
	return Quoted(skill) + " would come after itself: " + Quoted(through) + " already comes after it."
}

// SkillMissing says that a skill is to come after one that is not there.
func SkillMissing(skill, need string) string {
	return Quoted(skill) + " is to come after " + Quoted(need) + ", which is not in the catalogue."
}

// Treat says when a treat is earned.
func (n Names) Treat(t withfamily.Treat, earned bool, left int) string {
	switch {
	case t.Given:
		return "had"
	case earned:
		return "earned"
	case t.Material != "":
		return "when " + n.Title(t.Material) + " is cleared"
	}
	return fmt.Sprintf("after %s more", Counted(left, "cleared piece"))
}
