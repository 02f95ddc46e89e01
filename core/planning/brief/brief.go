// Package brief sums up what the pages of a whole studio need of one student, small enough to be kept between two answers.
package brief

import (
	"slices"
	"time"

	"patientladder/core/planning/inweek"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
)

// Brief is what the pages of a whole studio need of one student, so that nobody has to look at sixty
// standings to draw one page.
type Brief struct {
	// Due is what is due today.
	Due     []signs.Sign       `json:"due"`
	Working []InWork           `json:"working"`
	Review  inweek.ReviewState `json:"review"`
	// LastLesson is when a lesson was recorded last.
	LastLesson time.Time `json:"lastLesson"`
	// Home is what came from home in the last three weeks.
	Home []standing.Report `json:"home,omitempty"`
}

// InWork is a working piece in a brief.
type InWork struct {
	Material string         `json:"material"`
	Where    standing.Where `json:"where"`
	// Clears is the range of days in which it is expected to be cleared.
	Low    time.Time `json:"low"`
	Median time.Time `json:"median"`
	High   time.Time `json:"high"`
	// Foreseen says that this range may be said; it is too early otherwise.
	Foreseen bool `json:"foreseen,omitempty"`
	// Weeks it has been in work, and within how many nine of ten such pieces are cleared; 0 where it is too early to say.
	Weeks float64 `json:"weeks"`
	Usual float64 `json:"usual"`
	// Long says that it takes longer than that, and is not ready for a run.
	Long bool `json:"long,omitempty"`
}

// briefHome is for how long reports from home stay in a brief: as long as a lesson looks back on them.
const briefHome = 3 * week.Days

// Of collects it, with the week that is practised now.
func Of(a *studentplan.StudentOutlook, w inweek.Week) Brief {
	out := Brief{Due: a.Due(a.Today), Review: inweek.ReviewOf(a.Student, w), LastLesson: a.Standing.LastLesson}
	foreseen := a.Foreseen()
	for _, id := range a.In(standing.Working) {
		w := a.When[id]
		x := InWork{
			Material: id,
			Where:    a.Standing.Materials[id].Where(),
			Foreseen: foreseen[id],
			Weeks:    w.Had,
			Usual:    w.Usual,
			Long:     w.Long && !a.Standing.Materials[id].RunDue,
		}
		x.Low, x.Median, x.High = a.Days(w.Clear)
		out.Working = append(out.Working, x)
	}
	from := a.Today.AddDate(0, 0, -briefHome)
	out.Home = slices.DeleteFunc(slices.Clone(a.Standing.Home), func(r standing.Report) bool { return a.Local(r.At).Before(from) })
	return out
}
