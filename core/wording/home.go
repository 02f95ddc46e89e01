package wording

import (
	"fmt"
	"strconv"
	"strings"
	"time"

	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/enjoyment"
	"patientladder/core/wording/tongue"
)

// Balance says practice against enjoyment and what to do, and from what it was weighed. For the
// teacher only; it is no judgement of a child.
func Balance(b enjoyment.Balance) (words, why string) {
	e := b.From
	why = fmt.Sprintf(
		"Practised on %d of %s that were set; felt joyful %s, fine %s, hard %s; signs of liking: %d, of the opposite: %d, in eight weeks.",
		e.Practised,
		Figures(e.Set, "day"),
		Figures(e.Joyful, "time"),
		Figures(e.Fine, "time"),
		Figures(e.Hard, "time"),
		e.Liked,
		e.Disliked,
	)
	return balance[b.Kind], why
}

var balance = map[enjoyment.Kind]string{
	enjoyment.Unknown: "Too early to say.",
	enjoyment.Quiet:   "Practises, and does not seem to enjoy it: the quiet one to notice. Talk with the family, and look at the pieces together.",
	enjoyment.Glowing: "Practises and enjoys it.",
	enjoyment.Playing: "Enjoys it and practises little: shorter and more often may help; playing is worth something by itself.",
	enjoyment.Away:    "Little practice and little joy: ask what is going on before asking for more.",
	enjoyment.Between: "In the middle on one of the two; nothing stands out.",
}

// Home says what came from home.
func (n Names) Home(h withfamily.Home) string {
	var parts []string
	switch {
	case h.Days > 0 && h.More > 0:
		parts = append(
			parts,
			fmt.Sprintf("Practised on %s of %s and on %s more", Numbered(h.Practised), Counted(h.Days, "day"), Numbered(h.More)),
		)
	case h.More > 0:
		parts = append(parts, "Practised on "+Counted(h.More, "day"))
	case h.Practised > 0:
		parts = append(parts, fmt.Sprintf("Practised on %s of %s", Numbered(h.Practised), Counted(h.Days, "day")))
	case len(h.Also)+len(h.Asked)+len(h.Hurts) == 0:
		return "Nothing was reported from home"
	}
	parts = append(parts, n.felt(h)...)
	if len(h.Also) > 0 {
		parts = append(parts, "also played “"+strings.Join(h.Also, "”, “")+"”")
	}
	for _, n := range h.Asked {
		if n.Kind == withfamily.MoveLesson {
			parts = append(parts, "asks to move a lesson: “"+n.Text+"”")
			continue
		}
		parts = append(parts, "asks: “"+n.Text+"”")
	}
	said := Capital(strings.Join(parts, "; "))
	if len(h.Hurts) > 0 { // before everything else
		return "Pain? “" + strings.Join(h.Hurts, "”, “") + "”. " + Caution + " " + said
	}
	return said
}

// felt says which things were hard, short, left alone or easy; where nothing stands out, how it felt in counts; and what was
// played first.
func (n Names) felt(h withfamily.Home) (parts []string) {
	words := n.Showed(h.Shown)
	counts := []struct {
		n    int
		word string
	}{{h.Joyful, "joyful"}, {h.Fine, "fine"}, {h.Hard, "hard"}}
	if words != "" {
		parts = append(parts, words)
		counts = counts[:1]
	}
	var felt []string
	for _, f := range counts {
		if f.n > 0 {
			felt = append(felt, f.word+" "+Figures(f.n, "time"))
		}
	}
	if len(felt) > 0 {
		parts = append(parts, List(felt))
	}
	if len(h.First) > 0 {
		var first []string
		for _, id := range h.First[:min(len(h.First), mostShown)] {
			first = append(first, n.Title(id))
		}
		if more := len(h.First) - len(first); more > 0 {
			first = append(first, fmt.Sprintf("%d more", more))
		}
		parts = append(parts, "played "+List(first)+" first")
	}
	return parts
}

// AtHome says what a family has before it today.
func AtHome(t tongue.Tongue, d withfamily.AtHome) string {
	next := ""
	if !d.NextLesson.IsZero() {
		next = " " + t.Say("home.next", "day", t.Weekday(d.NextLesson))
	}
	switch d.Kind {
	case withfamily.Practice:
		left := strconv.Itoa(int(d.LeftMinutes + 0.5))
		switch {
		case d.Left == 0:
			return t.Say("home.done")
		case d.Left == 1 && d.Things > 1:
			return t.Say("home.left.one", "minutes", left)
		case d.Left < d.Things:
			return t.Say("home.left", "left", strconv.Itoa(d.Left), "things", strconv.Itoa(d.Things), "minutes", left)
		}
		minutes := strconv.Itoa(int(d.Minutes + 0.5))
		if d.Things == 1 {
			return t.Say("home.practice.one", "minutes", minutes)
		}
		return t.Say("home.practice", "things", strconv.Itoa(d.Things), "minutes", minutes)
	case withfamily.LessonDay:
		return t.Say("home.lesson")
	case withfamily.LiesAhead:
		return t.Say("home.ahead", "day", t.Weekday(d.Begins))
	}
	return t.Say("home."+string(d.Kind)) + next
}

// Path says how a material stands on the way so far.
func Path(t tongue.Tongue, s withfamily.PathStep) string {
	switch {
	case !s.Learned.IsZero():
		return t.Say("path.learned", "month", t.Month(s.Learned), "year", s.Learned.Format("2006"))
	case s.Points > 0:
		return t.Say("path.points", "full", strconv.Itoa(s.Full), "points", strconv.Itoa(s.Points))
	}
	return t.Say("path.begun")
}

// Caution stands wherever a dose is shown.
var Caution = tongue.Of(tongue.English).Say("caution")

// FamilyWeek names a published week on the family's page.
func FamilyWeek(t tongue.Tongue, start, today time.Time) string {
	if start.After(today) {
		return t.Say("week.new", "date", t.WeekdayAndDay(start))
	}
	return t.Say("week.this")
}

// Held says what must not be done yet.
func Held(t tongue.Tongue, list []week.Held) []string {
	out := []string{}
	for _, h := range list {
		if h.Said != "" {
			out = append(out, h.Said)
			continue
		}
		out = append(out, t.Say("held."+string(h.Kind), "title", h.Title))
	}
	return out
}

// Often says how often a step is played at home; empty where nothing is repeated by a dose.
func Often(t tongue.Tongue, o week.Often) string {
	if o.Said != "" {
		return o.Said
	}
	return t.Say("often."+string(o.Dose), "n", t.Number(o.Row))
}

// Watched says to the parent what to watch; empty for nothing.
func Watched(t tongue.Tongue, w *week.Watch) string {
	switch {
	case w == nil:
		return ""
	case w.Said != "":
		return w.Said
	}
	return t.Say("watch", "fault", t.Shipped(w.Text), "home", ended(Capital(t.Shipped(w.Home))))
}

// ended is a sentence with its full stop; a question keeps its own.
func ended(text string) string {
	if strings.HasSuffix(text, "?") || strings.HasSuffix(text, "!") {
		return text
	}
	return strings.TrimSuffix(text, ".") + "."
}

// NoteSaid says when a family wrote something, and how it stands.
func NoteSaid(t tongue.Tongue, n withfamily.Note, teacher string) string {
	switch {
	case n.Kind == withfamily.MoveLesson && n.Open():
		return t.Say("page.move.asked", "day", t.Day(n.Day), "teacher", teacher)
	case n.Kind == withfamily.Question && n.Open():
		return t.Say("page.ask.sent", "day", t.Day(n.Day)) + " " + t.Say("page.ask.none") + hurts(t, n)
	}
	return t.Say("page.ask.sent", "day", t.Day(n.Day)) + hurts(t, n)
}

// hurts is the caution where a note may be about pain and nobody has answered; empty otherwise.
func hurts(t tongue.Tongue, n withfamily.Note) string {
	if n.Open() && n.Hurts() {
		return " " + t.Say("caution")
	}
	return ""
}

// OtherPage names another page of the same family: whose it is, and for which instrument.
func OtherPage(name, instrument string) string {
	first, _, _ := strings.Cut(name, " ")
	return first + ", " + instrument
}

// NoteFrom says to the teacher when a family wrote something, and how it stands.
func NoteFrom(n withfamily.Note, today time.Time) string {
	when := "on " + n.Day.Format("Monday, 2 January")
	switch today.Sub(n.Day) {
	case 0:
		when = "today"
	case oneDay:
		when = "yesterday"
	}
	switch {
	case n.Open() && n.Hurts():
		return "Written " + when + ". " + Caution
	case n.Kind == withfamily.AlsoPlayed:
		return "Also played, " + when
	case n.Open():
		return "Asked " + when
	case n.Answer == "":
		return "Asked " + when + ", put away"
	}
	return "Asked " + when + ", answered"
}

// LetterParts are what a letter to a family is made of: a sentence, the page with the last day on which it opens, the teacher's own
// words, from whom it is with the lines under the name, and where the family asks for no more.
type LetterParts struct {
	Says, Page, Words, From, Under, Stop string
	Until                                time.Time
}

// FamilyLetter is the text of a letter to a family.
func FamilyLetter(t tongue.Tongue, p LetterParts) string {
	out := p.Says + "\n" + p.Page + "\n\n" + t.Say("mail.link", "date", t.Day(p.Until)+p.Until.Format(" 2006")) + "\n"
	if p.Words != "" {
		out += "\n" + p.Words + "\n"
	}
	out += "\n" + p.From + "\n"
	if p.Under != "" {
		out += p.Under + "\n"
	}
	return out + "\n" + t.Say("mail.stop") + "\n" + p.Stop + "\n"
}
