package wording

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/proposing"
	"patientladder/core/student/clearing"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

// Standing says why a material stands where it stands. Family is that of the student's instrument.
func Standing(w standing.Where, family instrument.Family) string {
	switch w.Why {
	case standing.RunMissed:
		return "It stays a working piece: " + missed(w.Missed, family) + "."
	case standing.NoPoints:
		return "It has no focus points yet."
	case standing.RunIsDue:
		return "Every point is secure: a run is due."
	case standing.PointsOpen:
		return fmt.Sprintf("%d of %s secure.", w.Full, Figures(w.Points, "point"))
	case standing.Rests:
		return fmt.Sprintf("Set aside since %s.", Day(w.PausedOn.Date()))
	case standing.RunMet:
		return "The run met every point of the standard."
	case standing.AllSections:
		return "All its sections are cleared."
	case standing.FromBefore:
		return "Learned before."
	case standing.TeachersWord:
		return "Cleared by the teacher’s word."
	case standing.ReadyToPlay:
		return "Ready to be performed."
	}
	return ""
}

// Run says how a run came out.
func Run(r standing.Run, family instrument.Family) string {
	if r.Cleared {
		return "The run met every point of the standard."
	}
	return "It stays a working piece: " + missed(r.Missed, family) + "."
}

// missed says what a run lacked, in the order of the standard.
func missed(ids []string, family instrument.Family) string {
	var out []string
	for _, p := range clearing.Standard(family, clearing.Strict) { // it has the points of every level
		if slices.Contains(ids, p.ID) {
			out = append(out, p.Missing)
		}
	}
	return strings.Join(out, "; ")
}

// LeapPart says what a part of a leap rests on. SecureAfter is how many cleared pieces make a skill secure.
func LeapPart(p leap.Part, m material.Material, secureAfter int) string {
	switch p.Kind {
	case leap.OfLength:
		return fmt.Sprintf("%d different bars to learn; the longest cleared piece had %.0f", m.DistinctBars, p.Best)
	case leap.OfTempo:
		return fmt.Sprintf("%.0f crotchets a minute; the quickest cleared piece with %s went at %.0f", m.Tempo, m.Texture, p.Best)
	case leap.OfLoad:
		family, _ := instrument.FamilyOf(m.Instrument)
		return loadPart(p, family)
	}
	e := p.Evidence
	switch p.Level {
	case leap.Secure, leap.Rusty:
		why := "needed by " + Figures(e.Cleared, "cleared piece")
		if e.Shown {
			why = "shown when it was asked for"
		}
		if e.Faded {
			why += ", but that has faded"
		}
		return why
	case leap.Learning:
		switch {
		case e.Missing:
			return "was missing when it was asked for"
		case e.Working > 0:
			return "needed by a working piece"
		}
		return fmt.Sprintf("needed by %d cleared of the %d that make it secure", e.Cleared, secureAfter)
	case leap.Planted:
		return fmt.Sprintf("%d of %s done", e.StepsDone, Figures(e.Steps, "preview step"))
	}
	return "never met before"
}

// LeapName names a part of a leap.
func (n Names) LeapName(p leap.Part) string {
	switch p.Kind {
	case leap.OfLength:
		return "more to learn than before"
	case leap.OfTempo:
		return "quicker than before"
	case leap.OfLoad:
		return dimensions[p.Dimension].more
	}
	return n.Skills.Name(p.Skill)
}

// Reach says what a comfortable leap rests on.
func Reach(r leap.Reach) string {
	if r.From == 0 {
		return fmt.Sprintf("the studio’s default, until %d pieces are cleared", leap.EnoughCleared)
	}
	return fmt.Sprintf("from the %d steps cleared so far, of which seven of ten asked for no more, drawn towards the studio’s default", r.From)
}

// Ready says how ready a student is for a piece, without a capital.
func (n Names) Ready(r proposing.Ready) string {
	switch r.Kind {
	case proposing.HasBegun:
		if r.Cleared {
			return "has cleared it"
		}
		return "has begun it"
	case proposing.Blocked:
		return "first: " + n.skillNames(r.First)
	case proposing.NotKnown:
		return "not known: add its score, or name what it needs"
	case proposing.ReadyNow:
		return fmt.Sprintf("a jump of %.1f, within the comfortable %.1f", r.Leap.Size, r.Reach)
	}
	return fmt.Sprintf("a big jump: %.1f (comfortable %.1f)", r.Leap.Size, r.Reach)
}

// Stop says why a piece comes where it comes on a path through books, without a capital.
func Stop(s curriculum.Stop, reach float64) string {
	switch s.Why {
	case curriculum.TheBeginning:
		return "the beginning"
	case curriculum.AnEasyOne:
		return fmt.Sprintf("an easy one after a stretch: %.1f", s.Leap.Size)
	case curriculum.TheSmallest:
		return fmt.Sprintf("the smallest that is left: %.1f (comfortable %.1f)", s.Leap.Size, reach)
	}
	return fmt.Sprintf("the best step within the comfortable %.1f: %.1f", reach, s.Leap.Size)
}
