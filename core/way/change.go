package way

import (
	"fmt"

	"patientladder/core/planning/week"
	"patientladder/core/reading/naming"
	"patientladder/core/student/clearing"
	"patientladder/core/student/setup"
)

// Change is one switch that is set otherwise.
type Change struct {
	// Key is the switch's name in JSON.
	Key, Name string
	// From and To in words.
	From, To string
	// Means says what follows from it.
	Means string
}

// Changes lists what differs between two ways, in the order of the switches.
func Changes(from, to Way) []Change {
	var out []Change
	for _, s := range switches {
		if a, b := s.say(from), s.say(to); a != b {
			out = append(out, Change{Key: s.key, Name: s.name, From: a, To: b, Means: s.means})
		}
	}
	return out
}

var switches = []struct {
	key, name string
	say       func(Way) string
	means     string
}{
	{"reviewShare", "Review", func(w Way) string { return fmt.Sprintf("%.0f %% of practice", 100*w.ReviewShare) }, "The week keeps so much of its minutes for learned pieces; working pieces get the rest."},
	{"reviewWeeks", "Nothing unheard for", func(w Way) string { return count(w.ReviewWeeks, "week") }, "A learned piece that was not heard for so long comes before all others."},
	{"firstView", "A piece opens with", func(w Way) string {
		if w.FirstView == Sound {
			return "its sound"
		}
		return "the score"
	}, "What stands first on the page of a piece: listening, or the marks for reading."},
	{"approach", "New pieces are read", func(w Way) string { return approaches[w.Approach] }, "Which marks open first on a piece, and what the practice sheet says."},
	{"readingAfter", "Reading begins", func(w Way) string {
		if w.ReadingAfter == 0 {
			return "with the first lesson"
		}
		return "after " + count(w.ReadingAfter, "week")
	}, "Until then nothing on the reading strand is proposed, and dates on it begin later."},
	{"firstChunk", "The first chunk", func(w Way) string {
		if w.FirstChunk == 0 {
			return "by age"
		}
		return count(w.FirstChunk, "bar")
	}, "How much is learned at once before two are joined."},
	{"dose", "A step at home", func(w Way) string { return doses[w.Dose] }, "How often each step of the week is played; the minutes follow."},
	{"doseRow", "In a row means", func(w Way) string { return count(w.DoseRow, "time") }, "Where right ones in a row are asked for."},
	{"handShape", "The hand is shaped", func(w Way) string { return schools[w.HandShape] }, "Which checks stand beside the bench and in the lesson."},
	{"benchLean", "Forearms lie", func(w Way) string { return leans[w.BenchLean] }, "The height of the seat for a student who is measured next."},
	{"standard", "A run is cleared with", func(w Way) string { return standards[w.Standard] }, "What was cleared stays cleared; new runs are held against this."},
	{"secureAfter", "A skill is secure after", func(w Way) string { return count(w.SecureAfter, "cleared piece") }, "Leaps grow when it takes more pieces, and shrink when it takes fewer."},
	{"comfortable", "A comfortable leap at first", func(w Way) string { return fmt.Sprintf("%.1f", w.Comfortable) }, "Until five pieces are cleared; then the student's own leaps tell."},
	{"easeAfterLeap", "After a large leap", func(w Way) string {
		if w.EaseAfterLeap {
			return "an easy piece"
		}
		return "the next in order"
	}, "Which rung is proposed after a leap over the comfortable size."},
	{"bites", "Preview bites in a lesson", func(w Way) string { return fmt.Sprintf("at most %d", w.Bites) }, "More bites make late skills ready sooner; fewer leave more of the lesson."},
	{"lookRungs", "Previews look at", func(w Way) string { return count(w.LookRungs, "rung") + " of each strand" }, "And at everything that begins within the weeks below."},
	{"lookWeeks", "Previews look ahead", func(w Way) string { return count(w.LookWeeks, "week") }, "How early planting begins."},
	{"stuckLessons", "A piece is stuck after", func(w Way) string { return count(w.StuckLessons, "lesson") + " without a new mark" }, "Or when it takes longer than nine of ten such pieces do."},
	{"polishWeeks", "From cleared to performed", func(w Way) string { return count(w.PolishWeeks, "week") }, "Targets are worked backwards with this."},
	{"sure", "A target should be", func(w Way) string { return fmt.Sprintf("%.0f %% sure", 100*w.Sure) }, "How late a piece may begin before a recital or an exam."},
}

var approaches = map[naming.Approach]string{
	naming.ByDirection: "by direction", naming.ByInterval: "by interval from guide notes", naming.ByName: "by note names", naming.ByPosition: "by position",
}

var standards = map[clearing.Level]string{
	clearing.Usual: "right notes, fingers and rhythm, fair tone, no stop", clearing.Light: "right notes and rhythm, no stop",
	clearing.Strict: "the usual, and loud and soft as written",
}

var doses = map[week.Dose]string{
	week.ByYears: "as often as the student has years", week.Once: "once a day, slowly, perfectly", week.Three: "three times",
	week.FiveToTen: "five to ten in a row", week.InARow: "until some in a row are right",
}

var schools = map[setup.School]string{setup.Hanging: "as it hangs", setup.Ball: "as if holding a ball"}

var leans = map[setup.Lean]string{setup.Level: "level", setup.Above: "slightly above the keys", setup.Below: "slightly below the keys"}

func count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
