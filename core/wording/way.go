package wording

import (
	"fmt"

	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/core/reading/naming"
	"patientladder/core/student/clearing"
	"patientladder/core/student/setup"
	"patientladder/core/way"
)

// Switch is one switch of a way of teaching that is set otherwise.
type Switch struct {
	// Key is the switch's name in JSON.
	Key, Name string
	// From and To in words.
	From, To string
	// Means says what follows from it.
	Means string
}

// Switches says what differs between two ways, in the order of the switches.
func Switches(from, to way.Way) []Switch {
	var out []Switch
	differs := map[string]bool{}
	for _, key := range from.Differs(to) {
		differs[key] = true
	}
	for _, s := range switches {
		if differs[s.key] {
			out = append(out, Switch{Key: s.key, Name: s.name, From: s.say(from), To: s.say(to), Means: s.means})
		}
	}
	return out
}

// WayChange says what another way does to one student, without a capital.
func WayChange(c whatif.WayChange) string {
	switch c.Kind {
	case whatif.ReviewMinutes:
		return fmt.Sprintf("review %d → %s a week", c.From, Figures(c.To, "minute"))
	case whatif.ReviewPieces:
		return fmt.Sprintf("%d → %s picked for review", c.From, Figures(c.To, "piece"))
	case whatif.FirstView:
		if c.HearFirst {
			return "a piece opens with its sound"
		}
		return "a piece opens with the score"
	case whatif.HowReading:
		return "reads " + approaches[c.Approach]
	case whatif.FirstChunks:
		return fmt.Sprintf("first sections of %s instead of %d", Figures(c.To, "bar"), c.From)
	case whatif.LessonBites:
		return fmt.Sprintf("%d → %s in the next lesson", c.From, Figures(c.To, "preview bite"))
	case whatif.LatePreviews:
		return fmt.Sprintf("%d → %s too late", c.From, Figures(c.To, "preview"))
	case whatif.CliffsAhead:
		return fmt.Sprintf("%d → %s ahead", c.From, Figures(c.To, "big jump"))
	case whatif.StuckPieces:
		return fmt.Sprintf("%d → %s stuck", c.From, Figures(c.To, "piece"))
	}
	return ""
}

var switches = []struct {
	key, name string
	say       func(way.Way) string
	means     string
}{
	{
		"reviewShare",
		"Review",
		func(w way.Way) string { return fmt.Sprintf("%.0f %% of practice", 100*w.ReviewShare) },
		"This share of practice is meant for learned pieces; working pieces get the rest.",
	},
	{
		"reviewWeeks",
		"No piece unplayed for",
		func(w way.Way) string { return Figures(w.ReviewWeeks, "week") },
		"A learned piece that was not played for this long comes before all others.",
	},
	{"firstView", "A piece opens with", func(w way.Way) string {
		if w.FirstView == way.Sound {
			return "its sound"
		}
		return "the score"
	}, "What stands first on the page of a piece: listening, or the marks for reading."},
	{
		"approach",
		"New pieces are read",
		func(w way.Way) string { return approaches[w.Approach] },
		"Which marks open first on a piece, and what the practice sheet says.",
	},
	{"readingAfter", "Reading begins", func(w way.Way) string {
		if w.ReadingAfter == 0 {
			return "with the first lesson"
		}
		return "after " + Figures(w.ReadingAfter, "week")
	}, "Until then nothing on the reading strand is proposed, and dates on it begin later."},
	{"firstChunk", "The first section", func(w way.Way) string {
		if w.FirstChunk == 0 {
			return "by age"
		}
		return Figures(w.FirstChunk, "bar")
	}, "How much is learned at once before two are joined."},
	{
		"dose",
		"A step at home",
		func(w way.Way) string { return doses[w.Dose] },
		"How often each step of the week is played; the minutes follow.",
	},
	{"doseRow", "In a row means", func(w way.Way) string { return Figures(w.DoseRow, "time") }, "Where right ones in a row are asked for."},
	{
		"handShape",
		"The hand is shaped",
		func(w way.Way) string { return schools[w.HandShape] },
		"Which checks stand beside the bench and in the lesson.",
	},
	{
		"benchLean",
		"Forearms lie",
		func(w way.Way) string { return leans[w.BenchLean] },
		"The height of the seat for a student who is measured next.",
	},
	{
		"standard",
		"A run is cleared with",
		func(w way.Way) string { return standards[w.Standard] },
		"What was cleared stays cleared; new runs are held against this.",
	},
	{
		"secureAfter",
		"A skill is secure after",
		func(w way.Way) string { return Figures(w.SecureAfter, "cleared piece") },
		"Jumps look larger when it takes more pieces, and smaller when it takes fewer.",
	},
	{
		"comfortable",
		"A comfortable jump at first",
		func(w way.Way) string { return fmt.Sprintf("%.1f", w.Comfortable) },
		"Until five pieces are cleared; then the student’s own history tells.",
	},
	{"easeAfterLeap", "After a stretch", func(w way.Way) string {
		if w.EaseAfterLeap {
			return "an easy piece"
		}
		return "the next in order"
	}, "Which piece is suggested after a jump over the comfortable size."},
	{
		"bites",
		"Preview bites in a lesson",
		func(w way.Way) string { return fmt.Sprintf("at most %d", w.Bites) },
		"More bites make late skills ready sooner; fewer leave more of the lesson.",
	},
	{
		"lookRungs",
		"Previews look at",
		func(w way.Way) string { return Figures(w.LookRungs, "rung") + " of each strand" },
		"And at everything that begins within the weeks below.",
	},
	{"lookWeeks", "Previews look ahead", func(w way.Way) string { return Figures(w.LookWeeks, "week") }, "How early new skills are prepared."},
	{
		"stuckLessons",
		"A piece is stuck after",
		func(w way.Way) string { return Figures(w.StuckLessons, "lesson") + " without a new mark" },
		"Or when it takes longer than nine of ten such pieces do.",
	},
	{"homeCounts", "What home shows", func(w way.Way) string {
		if w.HomeCounts {
			return "shapes the next week"
		}
		return "is only told"
	}, "What was easy is not set again, what was hard comes first in halves, and a learned piece that was played ages from that day."},
	{"rewards", "Treats", func(w way.Way) string {
		if w.Rewards {
			return "may be promised"
		}
		return "are never shown"
	}, "What was promised for a piece or for some more; families see it, or nobody does."},
	{
		"polishWeeks",
		"From cleared to performed",
		func(w way.Way) string { return Figures(w.PolishWeeks, "week") },
		"Performance dates are planned back with this.",
	},
	{
		"sure",
		"A performance should be",
		func(w way.Way) string { return fmt.Sprintf("%.0f %% sure", 100*w.Sure) },
		"How late a piece may begin before a recital or an exam.",
	},
}

var approaches = map[naming.Approach]string{
	naming.ByDirection: "by direction", naming.ByInterval: "by interval from guide notes", naming.ByName: "by note names",
	naming.ByPosition: "by position",
}

var standards = map[clearing.Level]string{
	clearing.Usual: "right notes, fingers and rhythm, fair tone, no stop", clearing.Light: "right notes and rhythm, no stop",
	clearing.Strict: "the usual, and loud and soft as written",
}

var doses = map[week.Dose]string{
	week.ByYears: "once for each year of the student’s age", week.Once: "once a day, slowly, perfectly", week.Three: "three times",
	week.FiveToTen: "five to ten in a row", week.InARow: "until several in a row are right",
}

var schools = map[setup.School]string{setup.Hanging: "as it hangs", setup.Ball: "as if holding a ball"}

var leans = map[setup.Lean]string{setup.Level: "level", setup.Above: "slightly above the keys", setup.Below: "slightly below the keys"}
