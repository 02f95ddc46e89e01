package wording

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"patientladder/core/planning/progress"
)

// SpanName names a span that is offered.
func SpanName(s progress.Stretch) string {
	switch s {
	case progress.Month:
		return "Four weeks"
	case progress.ThisTerm:
		return "This term"
	case progress.Year:
		return "A year"
	}
	return "All"
}

// SpanDays writes "2 March – 4 May 2026".
func SpanDays(s progress.Span) string {
	switch {
	case s.From.Equal(s.To):
		return DayAndYear(s.To)
	case s.From.Year() == s.To.Year():
		return Day(s.From) + " – " + DayAndYear(s.To)
	}
	return DayAndYear(s.From) + " – " + DayAndYear(s.To)
}

// Line is a sentence with the entries that it comes from.
type Line struct {
	Text    string
	Entries []string
}

// Progress says a span in one sentence.
func (n Names) Progress(r progress.Report) string {
	if len(r.Lessons) == 0 {
		return "No lesson was entered in this time."
	}
	out := Capital(Counted(len(r.Lessons), "lesson"))
	var cleared []string
	for _, x := range []struct {
		n    int
		what string
	}{{len(r.Pieces()), "piece"}, {len(r.ReadingStages()), "reading stage"}, {len(r.Drills()), "exercise"}} {
		if x.n > 0 {
			cleared = append(cleared, Counted(x.n, x.what))
		}
	}
	if len(cleared) > 0 {
		out += fmt.Sprintf(": %s cleared", List(cleared))
	} else {
		out += ": nothing cleared yet"
	}
	if k := len(r.Secure); k > 0 {
		out += fmt.Sprintf(", %s secure", Counted(k, "skill"))
	}
	return out + "."
}

// mostInReport is how many titles one sentence names.
const mostInReport = 6

func (n Names) pieces(list []progress.Piece) string {
	var ids []string
	for _, p := range list[:min(len(list), mostInReport)] {
		ids = append(ids, p.Material)
	}
	if more := len(list) - len(ids); more > 0 {
		var titles []string
		for _, id := range ids {
			titles = append(titles, n.Title(id))
		}
		return List(append(titles, fmt.Sprintf("%d more", more)))
	}
	return n.Titles(ids)
}

func clearedBy(list []progress.Piece) (out []string) {
	for _, p := range list {
		if p.ClearEntry != "" {
			out = append(out, p.ClearEntry)
		}
	}
	return out
}

// gained are the names of skills, without what they have in common with a list that was cut.
func (n Names) gained(list []progress.Gain) (names string, entries []string) {
	var out []string
	for i, g := range list {
		if !slices.Contains(entries, g.Entry) {
			entries = append(entries, g.Entry)
		}
		if i < mostInReport {
			out = append(out, n.Skills.Name(g.Skill))
		}
	}
	if more := len(list) - len(out); more > 0 {
		out = append(out, fmt.Sprintf("%d more", more))
	}
	return List(out), entries
}

// Grown says one thing that grew.
func (n Names) Grown(k progress.Kind, r progress.Report) Line {
	switch k {
	case progress.PiecesCleared:
		return Line{fmt.Sprintf("%s cleared: %s.", Capital(Counted(len(r.Pieces()), "piece")), n.pieces(r.Pieces())), clearedBy(r.Pieces())}
	case progress.SkillsSecure:
		names, entries := n.gained(r.Secure)
		return Line{"Secure now: " + names + ".", entries}
	case progress.HabitsFormed:
		return n.habits(r.Habits)
	case progress.KeysPlayed:
		return Line{
			fmt.Sprintf("%s of technique cleared: %s.", Capital(Counted(len(r.Drills()), "exercise")), n.pieces(r.Drills())),
			clearedBy(r.Drills()),
		}
	case progress.PractisedWell:
		return Line{
			fmt.Sprintf("Practised on %s of %s that were set.", Numbered(r.Practice.Practised), Counted(r.Practice.Set, "day")),
			r.Practice.Entries,
		}
	case progress.KeptAlive:
		return Line{
			fmt.Sprintf("%s of %s are still surely there.", Capital(Numbered(r.Review.Alive)), Counted(r.Review.Learned, "learned piece")),
			r.Review.Entries,
		}
	}
	return Line{}
}

func (n Names) habits(list []progress.Habit) Line {
	var texts, entries []string
	for _, h := range list {
		texts, entries = append(texts, "“"+h.Text+"”"), append(entries, h.Entry)
	}
	return Line{fmt.Sprintf("%s by now: %s.", Capital(habitWord(len(list))), List(texts)), entries}
}

func habitWord(n int) string {
	if n == 1 {
		return "a habit"
	}
	return "habits"
}

// Care says what needs care.
func (n Names) Care(r progress.Report) Line {
	switch kind, stay := r.Care(); kind {
	case progress.FewLessons:
		return Line{Text: fmt.Sprintf("%s of %s were missed.", Capital(Numbered(r.Missed)), Counted(r.Missed+len(r.Lessons), "lesson"))}
	case progress.StuckPiece:
		return Line{
			fmt.Sprintf(
				"%s has had %s; nine of ten such pieces take up to %s.",
				n.Title(stay.Material),
				Weeks(stay.Weeks),
				Counted(stay.Usual, "week"),
			),
			only(stay.BeginEntry),
		}
	case progress.LittleAtHome:
		return Line{
			fmt.Sprintf("Practised on %s of %s that were set.", Numbered(r.Practice.Practised), Counted(r.Practice.Set, "day")),
			r.Practice.Entries,
		}
	case progress.ReviewFades:
		return Line{
			fmt.Sprintf(
				"%s of %s %s surely still there: hear them in the lesson.",
				onlyAlive(r.Review.Alive),
				Counted(r.Review.Learned, "learned piece"),
				is(max(1, r.Review.Alive)),
			),
			r.Review.Entries,
		}
	}
	return Line{Text: "Nothing stands out."}
}

func onlyAlive(n int) string {
	if n == 0 {
		return "None"
	}
	return "Only " + Numbered(n)
}

func only(entry string) []string {
	if entry == "" {
		return nil
	}
	return []string{entry}
}

// Weeks writes "one week", "nine weeks", "under a week".
func Weeks(w float64) string {
	if w < 1 {
		return "under a week"
	}
	return Counted(int(math.Round(w)), "week")
}

// NextAhead says what comes next.
func (n Names) NextAhead(r progress.Report) Line {
	a, today := r.Ahead, r.Student.Today
	if r.Span.To.Before(today) {
		return Line{}
	}
	var out []string
	for _, w := range a.Working {
		text := n.Title(w.Material)
		if !w.High.IsZero() {
			text += " (" + Between(w.Low, w.High, today) + ")"
		}
		out = append(out, text)
	}
	switch {
	case len(out) > 0 && a.Then != "":
		return Line{Text: fmt.Sprintf("In work: %s; then %s.", List(out), n.Title(a.Then))}
	case len(out) > 0:
		return Line{Text: fmt.Sprintf("In work: %s.", List(out))}
	case a.Then != "":
		return Line{Text: fmt.Sprintf("Next: %s.", n.Title(a.Then))}
	}
	return Line{Text: "Nothing is ahead: put a piece on the ladder."}
}

// Pace says how often the ranges held.
func Pace(p progress.Pace) string {
	switch k := len(p.Ranges); {
	case k == 0:
		return "No range was said yet that could be held against what came."
	case k == 1 && p.Held == 1:
		return "The one range that was said held."
	case k == 1:
		return "The one range that was said did not hold."
	default:
		return fmt.Sprintf("%s of the last %s held.", Capital(Numbered(p.Held)), Counted(k, "range"))
	}
}

// RangeLine says one range against what came.
func (n Names) RangeLine(r progress.Range) string {
	return fmt.Sprintf("%s: %d to %d weeks expected, %d taken.", n.Title(r.Material), r.Low, r.High, r.Took)
}

// Stay says how long a piece took and why, as far as the log knows.
func (n Names) Stay(s progress.Stay) string {
	out := fmt.Sprintf("%s: %s", n.Title(s.Material), Weeks(s.Weeks))
	if s.To.IsZero() {
		out += " so far"
	}
	if s.Ready {
		out += ", ready for a run"
	}
	if s.Usual > 0 && s.Weeks > float64(s.Usual) {
		out += fmt.Sprintf(", where up to %s are usual", Numbered(s.Usual))
	}
	switch s.Why {
	case progress.GreatLeap:
		out += fmt.Sprintf("; it asked for much more than usual (a jump of %.1f)", s.Number)
	case progress.Missed:
		out += fmt.Sprintf("; %s %s missed meanwhile", Counted(int(s.Number), "lesson"), was(int(s.Number)))
	case progress.LongRest:
		out += fmt.Sprintf(", not counting %s in which it was put away", Counted(int(s.Number), "day"))
	case progress.Unpractised:
		out += fmt.Sprintf("; practised on %s of %s that were set", Numbered(int(s.Number)), Counted(s.Of, "day"))
	}
	return out + "."
}

// Planted says what a preview was good for.
func (n Names) Planted(p progress.Planting) string {
	done := fmt.Sprintf("%d of %s done", p.Done, Figures(p.Steps, "step"))
	if p.InTime() {
		done = "planted in time"
	}
	out := fmt.Sprintf("%s: %s before %s needed it", Capital(n.Skills.Name(p.Skill)), done, n.Title(p.For))
	switch {
	case p.Open:
		out += ", which is in work"
	case p.Paid:
		out += ", which took no longer than expected"
	}
	return out + "."
}

// PlanCame says what became of a date to be ready for.
func (n Names) PlanCame(p progress.Plan) string {
	name := p.Name
	if name == "" {
		name = "Date"
	}
	out := fmt.Sprintf("%s, %s: %s", name, Day(p.Day), n.Title(p.Material))
	switch {
	case p.Ready:
		out += " was ready to be performed"
	case p.Cleared:
		out += " was cleared"
	case p.Over:
		out += " was not ready"
	default:
		out += " is meant for it"
	}
	return out + "."
}

// Practised says practice against what was set.
func Practised(p progress.Practice) string {
	if p.Set == 0 {
		return "No week was published in this time."
	}
	out := fmt.Sprintf("Practised on %s of %s that were set", Numbered(p.Practised), Counted(p.Set, "day"))
	if p.Minutes > 0 {
		out += fmt.Sprintf(", %s in all as reported", Counted(p.Minutes, "minute"))
	}
	return out + "."
}

// Kept says how the learned pieces were kept.
func Kept(r progress.Review) string {
	elsewhere := ""
	if r.Unheard > 0 {
		elsewhere = Capital(Counted(r.Unheard, "piece")) + " learned elsewhere, not heard here yet."
	}
	switch {
	case r.Learned == 0 && elsewhere == "":
		return "Nothing is learned yet."
	case r.Learned == 0:
		return elsewhere
	}
	out := fmt.Sprintf(
		"%s; %s of %s surely there.",
		Capital(Counted(r.Heard, "hearing")),
		Numbered(r.Alive),
		Counted(r.Learned, "learned piece"),
	)
	return strings.TrimSpace(out + " " + elsewhere)
}
