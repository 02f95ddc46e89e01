package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

// Segment is what a segment of a lesson says.
type Segment struct {
	Title string
	// Words say what is done in it, one a line.
	Words []string
	Why   string
}

// Segment says a segment of a lesson.
func (n Names) Segment(s lessonplan.Segment) Segment {
	out := Segment{Words: []string{}}
	switch s.Kind {
	case lessonplan.Opening:
		out.Title, out.Words = "Hello", []string{"What was played first at home? What was easy, what was not?"}
	case lessonplan.Posture:
		out.Title, out.Words = "Sit, feet, hands", []string{"Feet on something firm, seat in the front half, hands as they hang. One thing only."}
		if len(s.Focus) == 2 {
			out.Title, out.Words = "One thing: "+s.Focus[0], []string{s.Focus[1], "Lightly, and only this today."}
		}
	case lessonplan.Closing:
		out.Title = "Two things that went well"
		out.Words = []string{"The student names two things that went well, in words of their own; then what to do at home."}
	case lessonplan.Run:
		out.Title = "A run of " + n.Title(s.Material)
	case lessonplan.Spots:
		out.Title = "Hard spots in " + n.Title(s.Material)
	case lessonplan.Begin:
		out.Title, out.Words = "Begin "+n.Title(s.Material), append(out.Words, s.Focus...)
		if len(s.Gestures) > 0 {
			var names []string
			for _, id := range s.Gestures {
				names = append(names, n.Skills.Name(id))
			}
			out.Words = append(out.Words, "A new level begins. First, each of these once on a single key: "+List(names)+".")
		}
		if x, known := instrument.Of(s.Player); known && s.Exercise != "" {
			if e, err := exercise.Parse(s.Exercise, x); err == nil {
				out.Title = "Begin " + e.Full(n.Words)
			}
		}
	case lessonplan.Preview:
		if skill, known := n.Skills.Get(s.Skill); known && s.Step >= 1 && s.Step <= len(skill.Steps) {
			out.Title, out.Words = skill.Name, []string{skill.Steps[s.Step-1]}
		} else {
			out.Title = n.Skills.Name(s.Skill)
		}
	case lessonplan.Climb:
		out.Title, out.Words = StairName(s.Goal), []string{"Play it, listen, one touch for what came."}
	case lessonplan.Activity:
		if goal, known := n.Pool.Get(s.Goal); known && s.Option >= 1 && s.Option <= len(goal.Options) {
			out.Title, out.Words = fmt.Sprintf("%s, way %d of %d", goal.Name, s.Option, len(goal.Options)), []string{goal.Options[s.Option-1]}
			if s.Lead {
				out.Words = append(out.Words, "Offer it: the child leads this one.")
			}
		} else {
			out.Title = s.Goal
		}
	default:
		out.Title, out.Words = n.Library[s.Material].Title, append(out.Words, s.Focus...)
	}
	var why []string
	for _, r := range s.Why {
		why = append(why, n.reason(r, s))
	}
	out.Why = strings.Join(why, "; ")
	return out
}

// reason says why a segment is a candidate, without a capital.
func (n Names) reason(r lessonplan.Reason, s lessonplan.Segment) string {
	switch r.Kind {
	case lessonplan.Always:
		if s.Kind == lessonplan.Opening {
			return "every lesson begins with what happened at home"
		}
		return "every lesson ends with what went well"
	case lessonplan.Regularly:
		return "a quick check"
	case lessonplan.Beginner:
		return "a beginner’s posture is checked in every lesson"
	case lessonplan.SetupDue:
		return "measure the bench and the feet: children grow"
	case lessonplan.InWork:
		return fmt.Sprintf("in work; %d of %s secure", r.Count, Figures(r.Of, "point"))
	case lessonplan.StuckPiece:
		return "it is stuck"
	case lessonplan.RunDue:
		return "every point is secure: the run is due"
	case lessonplan.OpenSpots:
		return fmt.Sprintf("%s %s open", Counted(r.Count, "hard spot"), is(r.Count))
	case lessonplan.Planting:
		piece := n.Title(r.Material)
		switch {
		case r.Count > 0:
			return fmt.Sprintf("%s will need it; %s in hand", piece, Counted(r.Count, "lesson"))
		case r.Count == 0:
			return fmt.Sprintf("%s will need it, and it is ready just in time", piece)
		}
		return fmt.Sprintf("%s will need it, and it is late already", piece)
	case lessonplan.Idle:
		return "nothing is in work on this strand; " + strings.TrimSuffix(lower(n.Next(*r.Proposal)), ".")
	case lessonplan.Fading:
		return Picked(*r.Review)
	case lessonplan.HardAtHome:
		if m, known := n.Library[r.Material]; known && r.Count > 0 && (r.Count > 1 || r.Of < m.Bars) {
			return m.Span(r.Count, r.Of) + " hard at home: hear it first"
		}
		return "hard at home: hear it first"
	case lessonplan.LeftAtHome:
		return "not touched at home: ask about it"
	case lessonplan.OneOfSeveral:
		return fmt.Sprintf("one of %s, and not done yet", Counted(r.Of, "way"))
	case lessonplan.InTurn:
		return fmt.Sprintf("done %s; the other ways were not done less", times(r.Count))
	case lessonplan.WaitedBefore:
		return "it had to wait last time"
	case lessonplan.KeyOfWeek:
		return "the key of the week"
	case lessonplan.OnStair:
		return fmt.Sprintf("step %d of %d of %s", r.Count, r.Of, strings.TrimPrefix(s.ID, "stair "))
	case lessonplan.NextStep:
		return "the next step of the exercises"
	case lessonplan.OpenFault:
		if r.Count == 0 {
			return "seen today"
		}
		return fmt.Sprintf("seen %s ago and not gone yet", Counted(r.Count, "day"))
	case lessonplan.Beside:
		return "there is time for it; " + strings.TrimSuffix(lower(n.Next(*r.Proposal)), ".")
	}
	return ""
}

func lower(s string) string {
	if s == "" || strings.HasPrefix(s, "“") {
		return s
	}
	r := []rune(s)
	return strings.ToLower(string(r[0])) + string(r[1:])
}

func times(n int) string {
	if n == 1 {
		return "once"
	}
	return Counted(n, "time")
}

// Waiting says why a segment stays out of a lesson, without a capital.
func Waiting(w lessonplan.Waiting) string {
	switch w.Kind {
	case lessonplan.ByHand:
		return "left out by hand"
	case lessonplan.FarLesson:
		return fmt.Sprintf("the next lesson is %s away, and a new exercise is better not left alone over a break", Figures(w.Count, "day"))
	case lessonplan.OneNew:
		return "one new thing at a time"
	case lessonplan.ReviewFull:
		return fmt.Sprintf("review has its %s already", Figures(w.Count, "minute"))
	case lessonplan.EnoughHeard:
		return "a lesson hears " + Numbered(w.Count) + " learned pieces; the others are played at home"
	case lessonplan.SureNow:
		return "it is sure, and nothing that comes next needs it"
	case lessonplan.NoRoom:
		return fmt.Sprintf("it needs %s, and what was chosen matters more", Figures(w.Count, "minute"))
	}
	return "what was chosen matters more"
}

// mostWaiting is how many things that wait are named before the rest is counted.
const mostWaiting = 3

// Plan says a plan in one sentence: what it holds, and what is left for next week.
func (n Names) Plan(p lessonplan.Plan) string {
	says := fmt.Sprintf("%d of %s are planned", p.Minutes-p.Free, Figures(p.Minutes, "minute"))
	if p.Free == 0 {
		says = fmt.Sprintf("All %s are planned", Figures(p.Minutes, "minute"))
	}
	if waits := n.LeftForNextWeek(p); waits != "" {
		return says + "; left for next week: " + waits + "."
	}
	return says + "; nothing has to wait."
}

// LeftForNextWeek names what has to wait, within a sentence; empty where nothing does.
func (n Names) LeftForNextWeek(p lessonplan.Plan) string {
	var waits []string
	for _, s := range p.Waiting() {
		title := n.Segment(s.Segment).Title
		if s.Kind == lessonplan.Begin {
			title = lower(title)
		}
		waits = append(waits, title)
	}
	if k := len(waits); k > mostWaiting {
		return fmt.Sprintf("%s and %d more", strings.Join(waits[:mostWaiting], ", "), k-mostWaiting)
	}
	return List(waits)
}

// mostPlanChanges is how many changes of a plan are said before the rest is counted.
const mostPlanChanges = 5

// PlanChanges says how a lesson would be planned by now.
func (n Names) PlanChanges(changes []lessonplan.Change) []string {
	out := []string{}
	for _, c := range changes[:min(len(changes), mostPlanChanges)] {
		title := n.Segment(c.Segment).Title
		switch c.Kind {
		case lessonplan.Added:
			out = append(out, fmt.Sprintf("New: %s, %s", title, Figures(c.Minutes, "minute")))
		case lessonplan.Removed:
			out = append(out, "Gone: "+title)
		default:
			if c.Before == c.Minutes {
				out = append(out, "Different: "+title)
			} else {
				out = append(out, fmt.Sprintf("%s: %s, was %d", title, Figures(c.Minutes, "minute"), c.Before))
			}
		}
	}
	if more := len(changes) - mostPlanChanges; more > 0 {
		out = append(out, fmt.Sprintf("and %d more", more))
	}
	return out
}

// KeyPostponed says that the key of the week finds no room in a plan.
func (n Names) KeyPostponed(l inlesson.Lesson) string {
	return fmt.Sprintf(
		"No room for %s, the key of the week: the cycle slides, and it comes on %s.",
		n.Words.Key(l.Key.Key.String()),
		Day(l.SlidesTo),
	)
}

// Pin says why a segment cannot have some minutes.
func (n Names) Pin(e lessonplan.PinError) string {
	return fmt.Sprintf("%s cannot take %d of %d minutes.", Quoted(n.Segment(e.Segment).Title), e.Minutes, e.Of)
}

// DayPlanned says what came of planning a day: so many lessons, of which some are too full.
func DayPlanned(lessons, full int) string {
	switch {
	case lessons == 0:
		return "There is no lesson on that day."
	case full == 0:
		return Capital(Counted(lessons, "lesson")) + " planned; nothing has to wait."
	case full == 1:
		return Capital(Counted(lessons, "lesson")) + " planned; one is too full, and says what is left for next week."
	}
	return fmt.Sprintf("%s planned; %s are too full, and say what is left for next week.", Capital(Counted(lessons, "lesson")), Numbered(full))
}

// Lesson says how a lesson stands: what is ready for a run, what is stuck, how much is in work.
func (n Names) Lesson(s studentplan.Student, due []signs.Sign) string {
	inHand := s.LessonPieces()
	if len(inHand) == 0 {
		return "Nothing in work: choose the next piece on the ladder."
	}
	var ready []string
	working := 0
	for _, id := range inHand {
		ms := s.Standing.Materials[id]
		if ms.State == standing.Working {
			working++
			if ms.RunDue {
				ready = append(ready, id)
			}
		}
	}
	if len(ready) > 0 {
		return fmt.Sprintf("%s %s ready for a run.", n.Titles(ready), is(len(ready)))
	}
	for _, d := range due {
		if d.Kind == signs.Stuck {
			return n.Due(d) + "."
		}
	}
	if working == 0 {
		return "Cleared today. The next piece is suggested below."
	}
	return Capital(Counted(working, "working piece")) + "; hear one focus point at a time."
}
