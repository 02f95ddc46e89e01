// Package person says what cannot be about a student: who it is, since when, pauses and leaving.
package person

import (
	"errors"
	"strings"
	"time"
)

// What cannot be about a student; core/wording says each in a sentence.
var (
	ErrNoName     = errors.New("a student needs a name")
	ErrBornAhead  = errors.New("the birthday lies ahead")
	ErrBornLong   = errors.New("the birthday is too long ago")
	ErrSince      = errors.New("the student was not born then")
	ErrPauseEnds  = errors.New("the pause ends before it begins")
	ErrPauseLong  = errors.New("the pause begins too far away")
	ErrLeavesLate = errors.New("the day of leaving is too far away")
)

// oldest is the greatest age that is taken for one, in years; fardays how far away a pause or a leaving may lie.
const (
	oldest  = 120
	farDays = 2 * 366
)

// Check says what cannot be about a student: the name, the birthday, the first day in the studio (zero for unknown).
func Check(name string, born, since, today time.Time) error {
	switch {
	case strings.TrimSpace(name) == "":
		return ErrNoName
	case born.After(today):
		return ErrBornAhead
	case born.Before(today.AddDate(-oldest, 0, 0)):
		return ErrBornLong
	case !since.IsZero() && since.Before(born):
		return ErrSince
	}
	return nil
}

// CheckPause says what cannot be about a pause; a zero last day is one whose end nobody knows.
func CheckPause(first, last, today time.Time) error {
	switch {
	case !last.IsZero() && last.Before(first):
		return ErrPauseEnds
	case first.After(today.AddDate(0, 0, farDays)) || first.Before(today.AddDate(-10, 0, 0)):
		return ErrPauseLong
	}
	return nil
}

// CheckLeaving says whether a student can leave on a day.
func CheckLeaving(from, today time.Time) error {
	if from.After(today.AddDate(0, 0, farDays)) || from.Before(today.AddDate(-10, 0, 0)) {
		return ErrLeavesLate
	}
	return nil
}

// Away is the time that a student who comes back was gone, which stays as a pause; ok is false where
// the leaving had not begun, or was today.
func Away(left, today time.Time) (first, last time.Time, ok bool) {
	if left.IsZero() || !left.Before(today) {
		return first, last, false
	}
	return left, today.AddDate(0, 0, -1), true
}
