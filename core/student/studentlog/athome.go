package studentlog

import (
	"slices"
	"strings"
	"time"
)

// wholes are the kinds of things of a week that are a piece from its start to its end (week.Kind).
var wholes = []string{"review", "whole", "drill"}

// WholeAtHome is the material that an entry says was played as a whole at home, and the day of practice, zero where it
// was not said: a learned piece, a whole piece or an exercise that was ticked, or what was chosen to be played first.
func (e Entry) WholeAtHome() (material string, day time.Time, ok bool) {
	switch e.Kind {
	case Liking:
		return e.Material, time.Time{}, e.Actor == Family && e.Sign == PlayedFirst
	case Practised:
		kind, rest, _ := strings.Cut(e.Item, " ")
		material, _, _ = strings.Cut(rest, " ")
		day, _ = time.Parse(time.DateOnly, e.Day)
		return material, day, material != "" && slices.Contains(wholes, kind)
	}
	return "", time.Time{}, false
}
