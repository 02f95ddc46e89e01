package wording

import (
	"fmt"

	"patientladder/core/planning/progress"
)

// PurposeName names what a report is for.
func PurposeName(p progress.Purpose) string {
	switch p {
	case progress.ForExam:
		return "Report for an exam"
	case progress.ForTeacher:
		return "Report for a new teacher"
	}
	return "Report"
}

// Report says one part of a report, about whom it calls by the first name.
func (n Names) Report(part progress.Part, r progress.Report) Line {
	name, warm := r.Student.First(), r.Written.Tone == progress.Warm
	pick := func(w, p string) string {
		if warm {
			return w
		}
		return p
	}
	switch part {
	case progress.Opening:
		if len(r.Lessons) == 0 {
			return Line{Text: fmt.Sprintf("No lesson with %s was entered in this time.", name)}
		}
		out := fmt.Sprintf(pick("%s and I have had %s together", "%s had %s"), name, Counted(len(r.Lessons), "lesson"))
		if r.Missed > 0 {
			out += fmt.Sprintf("; %s %s missed", Numbered(r.Missed), was(r.Missed))
		}
		return Line{Text: out + "."}
	case progress.Cleared:
		list := r.Pieces()
		return Line{
			fmt.Sprintf(pick("%s has learned %s: %s.", "%s cleared %s: %s."), name, Counted(len(list), "piece"), n.pieces(list)),
			clearedBy(list),
		}
	case progress.Polished:
		return Line{fmt.Sprintf("Ready to be performed: %s.", n.pieces(r.Polished)), clearedBy(r.Polished)}
	case progress.Secure:
		names, entries := n.gained(r.Secure)
		return Line{secureNow(name, names, warm), entries}
	case progress.Habits:
		return n.habits(r.Habits)
	case progress.Technique:
		list := r.Drills()
		return Line{
			fmt.Sprintf("In technique, %s %s cleared: %s.", Counted(len(list), "exercise"), was(len(list)), n.pieces(list)),
			clearedBy(list),
		}
	case progress.Reading:
		list := r.ReadingStages()
		return Line{fmt.Sprintf("In reading, %s %s cleared: %s.", Counted(len(list), "stage"), was(len(list)), n.pieces(list)), clearedBy(list)}
	case progress.Ear:
		return earClimbed(r)
	case progress.Reviewed:
		return Line{
			fmt.Sprintf(
				"%s of %s %s surely still there today.",
				Capital(Numbered(r.Review.Alive)),
				Counted(r.Review.Learned, "learned piece"),
				is(max(1, r.Review.Alive)),
			),
			r.Review.Entries,
		}
	case progress.AtHome:
		out := fmt.Sprintf(
			"At home, something was practised on %s of %s that were set",
			Numbered(r.Practice.Practised),
			Counted(r.Practice.Set, "day"),
		)
		if felt := r.Practice.Joyful + r.Practice.Fine + r.Practice.Hard; warm && felt > 0 && 2*r.Practice.Joyful >= felt {
			out += ", and mostly with joy"
		}
		return Line{out + ".", r.Practice.Entries}
	case progress.Plans:
		var out string
		for _, p := range r.Plans {
			out += " " + n.PlanCame(p)
		}
		return Line{Text: out[1:]}
	case progress.Stayed:
		s := r.Stays[0]
		return Line{"What took longest is " + n.Stay(s), only(s.BeginEntry)}
	case progress.NeedsCare:
		return n.reportCare(r, warm)
	case progress.Then:
		return n.NextAhead(r)
	case progress.OnHolidays:
		return n.overHolidays(r)
	}
	return Line{}
}

// reportCare says what needs care in words that a family can act on, and blames nobody.
func (n Names) reportCare(r progress.Report, warm bool) Line {
	kind, stay := r.Care()
	switch kind {
	case progress.FewLessons:
		return Line{Text: "Regular lessons would help most now."}
	case progress.StuckPiece:
		out := fmt.Sprintf(
			"%s needs patience: it has had %s, and such pieces usually take up to %s.",
			n.Title(stay.Material),
			Weeks(stay.Weeks),
			Counted(stay.Usual, "week"),
		)
		if !warm {
			out = fmt.Sprintf("%s is taking longer than usual: %s so far.", n.Title(stay.Material), Weeks(stay.Weeks))
		}
		return Line{out, only(stay.BeginEntry)}
	case progress.LittleAtHome:
		return Line{
			"Short and often helps more than long and rare: five minutes on most days would carry the lessons further.",
			r.Practice.Entries,
		}
	case progress.ReviewFades:
		return Line{"Learned pieces fade when they rest: one of them each day keeps them all.", r.Review.Entries}
	}
	return Line{}
}

// overHolidays says what to do while there are no lessons.
func (n Names) overHolidays(r progress.Report) Line {
	switch keep := r.Ahead.Keep; {
	case len(keep) > 0 && len(r.Ahead.Working) > 0:
		return Line{
			Text: fmt.Sprintf(
				"Over the holidays: play %s now and then, and keep %s going, a few minutes at a time.",
				n.Titles(keep),
				n.Title(r.Ahead.Working[0].Material),
			),
		}
	case len(keep) > 0:
		return Line{Text: fmt.Sprintf("Over the holidays: play %s now and then.", n.Titles(keep))}
	}
	return Line{Text: fmt.Sprintf("Over the holidays: keep %s going, a few minutes at a time.", n.Title(r.Ahead.Working[0].Material))}
}

func was(n int) string {
	if n == 1 {
		return "was"
	}
	return "were"
}

// secureNow says which skills became secure.
func secureNow(name, skills string, warm bool) string {
	if warm {
		return fmt.Sprintf("What %s can rely on now: %s.", name, skills)
	}
	return "Secure now: " + skills + "."
}

// Draft are the sentences of a report as the facts say them now.
func (n Names) Draft(r progress.Report) []progress.Sentence {
	var out []progress.Sentence
	for _, part := range r.Parts() {
		l := n.Report(part, r)
		out = append(out, progress.Sentence{Part: part, Text: l.Text, Entries: l.Entries})
	}
	return out
}

// earClimbed says what of ear and rhythm comes well now: “By ear and in rhythm, two steps came: match a tone and echo one bar.”
func earClimbed(r progress.Report) Line {
	var names, entries []string
	for _, c := range r.Ear {
		names, entries = append(names, lower(StairName(c.Stair))), append(entries, c.Entries...)
	}
	return Line{fmt.Sprintf("By ear and in rhythm, %s came: %s.", Counted(len(names), "step"), List(names)), entries}
}

// ReportTitle names a report about a student.
func ReportTitle(p progress.Purpose, name, instrument string) string {
	return fmt.Sprintf("%s: %s, %s", PurposeName(p), name, instrument)
}

// ReportReady names a report in a message, ReportSubject is the message's subject.
func ReportReady(name string, s progress.Span) string {
	return "A report about " + name + ", " + SpanDays(s) + ","
}

// ReportSubject is the subject of a message about a report.
func ReportSubject(name string) string { return name + ": a report" }

// ReportQueue says how many reports are still to be written.
func ReportQueue(list []progress.Queued) string {
	open := 0
	for _, q := range list {
		if q.State != progress.Sent {
			open++
		}
	}
	switch {
	case len(list) == 0:
		return "No student has had a lesson yet."
	case open == 0:
		return "Every report of this term is published."
	}
	return fmt.Sprintf("%s of %s of this term still to publish.", Capital(Numbered(open)), Counted(len(list), "report"))
}

// ReportChanged says that a report would say something else by now.
const ReportChanged = "What the report says has changed since it was shown. Read it again, then publish it."
