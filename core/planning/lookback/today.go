package lookback

import (
	"slices"
	"time"

	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
)

// enteredToday says that somebody of the studio made an entry on the studio's day; what a family sends is not of the lesson.
func enteredToday(s studentplan.Student, e *studentlog.Entry) bool {
	return e.Actor != studentlog.Family && s.Local(e.At).Equal(s.Today)
}

// EnteredToday are the entries that somebody of the studio made today, in their order; live is the log as it counts.
func EnteredToday(s studentplan.Student, live []*studentlog.Entry) (out []*studentlog.Entry) {
	for _, e := range live {
		if enteredToday(s, e) {
			out = append(out, e)
		}
	}
	return out
}

// TakenBackOn are the entries of the studio of a day that were taken back, whenever that was, the latest correction first.
func TakenBackOn(s studentplan.Student, log []studentlog.Entry, live []*studentlog.Entry, day time.Time) []studentlog.Taken {
	return slices.DeleteFunc(studentlog.TakenBack(log, live), func(t studentlog.Taken) bool {
		return !t.Entry.InLesson() || !s.Local(t.Entry.At).Equal(day)
	})
}

// TakenBackToday are the entries of the studio that were taken back today, whenever they were made, the latest correction first.
func TakenBackToday(s studentplan.Student, log []studentlog.Entry, live []*studentlog.Entry) []studentlog.Taken {
	return slices.DeleteFunc(studentlog.TakenBack(log, live), func(t studentlog.Taken) bool {
		return t.Entry.Actor == studentlog.Family || !s.Local(t.By.At).Equal(s.Today)
	})
}
