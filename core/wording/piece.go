package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/planning/proposing"
	"patientladder/core/reading/overrule"
	"patientladder/core/student/leap"
)

// Piece is what stands over a piece.
type Piece struct {
	HasScore bool
	// Bars, made of Distinct patterns, Varied of which come in another form as well.
	Bars, Distinct, Varied int
	// ForSomebody says that it is looked at for one student: what is new, and whether it was begun.
	// Else Ready says how ready everybody is.
	ForSomebody, Begun bool
	Fresh              []leap.Part
	Ready              []proposing.Ready
}

// mostSaid is how many names a sentence about a piece has before it counts the rest.
const mostSaid = 4

// Piece says a piece in one sentence.
func (n Names) Piece(p Piece) string {
	if !p.HasScore {
		return "It has no score; what it needs was set by hand."
	}
	out := Capital(Counted(p.Bars, "bar"))
	if p.Distinct < p.Bars {
		out = fmt.Sprintf("%s, %s", Capital(Figures(p.Bars, "bar")), Counted(p.Distinct, "pattern"))
		switch {
		case p.Varied == 1:
			out += ", one of them also in another form"
		case p.Varied > 1:
			out += fmt.Sprintf(", %s of them also in another form", Numbered(p.Varied))
		}
	}
	if p.ForSomebody {
		return out + n.fresh(p) + "."
	}
	return out + whoIsReady(p.Ready) + "."
}

func (n Names) fresh(p Piece) string {
	is, was := "is", "new in it"
	if p.Begun {
		is, was = "was", "new when it was begun"
	}
	var fresh []string
	for _, part := range p.Fresh {
		fresh = append(fresh, n.LeapName(part))
	}
	if len(fresh) == 0 {
		return fmt.Sprintf("; nothing in it %s new", is)
	}
	return fmt.Sprintf("; %s: %s", was, some(fresh, ", "))
}

// whoIsReady names who could have the piece now.
func whoIsReady(list []proposing.Ready) string {
	var names []string
	open := 0
	for _, r := range list {
		if r.Kind != proposing.HasBegun {
			open++
		}
		if r.Kind == proposing.ReadyNow {
			names = append(names, r.Called)
		}
	}
	switch {
	case len(names) == 0 && open == 0:
		return ""
	case len(names) == 0:
		return "; nobody else is ready for it yet"
	}
	return fmt.Sprintf("; %s %s ready for it", some(names, " and "), is(len(names)))
}

// some names a few and counts the rest.
func some(names []string, last string) string {
	k := len(names)
	if k > mostSaid {
		return fmt.Sprintf("%s and %d more", strings.Join(names[:mostSaid-1], ", "), k-mostSaid+1)
	}
	if k < 2 || last == ", " {
		return strings.Join(names, ", ")
	}
	return List(names)
}

// PlayingTime says how long a piece lasts, in seconds from and to: "50 to 60 seconds", "1:30 to 1:50 minutes".
func PlayingTime(low, high float64) string {
	if high < 90 {
		return fmt.Sprintf("%.0f to %.0f seconds", low, high)
	}
	clock := func(s float64) string { return fmt.Sprintf("%d:%02d", int(s)/60, int(s)%60) }
	return clock(low) + " to " + clock(high) + " minutes"
}

// Overruled says what a teacher set against what was read.
func (n Names) Overruled(o overrule.Overruling, m material.Material) string {
	switch o.Kind {
	case overrule.Finger:
		if o.Finger == "" {
			return "no finger at a note in " + m.BarsName(o.Bars)
		}
		return fmt.Sprintf("finger %s at a note in %s", o.Finger, m.BarsName(o.Bars))
	case overrule.Demand:
		if o.Weight == 0 {
			return n.Skills.Name(o.Skill) + ": not asked for"
		}
		return fmt.Sprintf("%s: weight %g, %s", n.Skills.Name(o.Skill), o.Weight, m.BarsName(o.Bars))
	case overrule.Part:
		return fmt.Sprintf("the student plays part %d of the score", o.Part+1)
	case overrule.Border:
		if o.Ends {
			return "a chunk ends after " + m.BarsName(o.Bars)
		}
		return "no chunk ends after " + m.BarsName(o.Bars)
	}
	return fmt.Sprintf("tempo: %s %g", n.Words.Text("crotchet"), o.QuartersAMinute)
}
