// Package metronome climbs from one tempo to another on the marks of the
// traditional metronome.
package metronome

import (
	"fmt"
	"math"
	"slices"
)

// Marks are those of the traditional metronome, in beats a minute.
func Marks() []int {
	return []int{
		40, 42, 44, 46, 48, 50, 52, 54, 56, 58, 60, 63, 66, 69, 72, 76, 80, 84, 88, 92, 96, 100, 104, 108, 112, 116, 120, 126, 132, 138,
		144, 152, 160, 168, 176, 184, 192, 200, 208,
	}
}

// Nearest is the mark whose ratio to a tempo is nearest to one; of two as near the slower.
func Nearest(tempo float64) int {
	marks := Marks()
	return slices.MinFunc(marks, func(a, b int) int {
		da, db := math.Abs(math.Log(float64(a)/tempo)), math.Abs(math.Log(float64(b)/tempo))
		switch {
		case da < db:
			return -1
		case da > db:
			return 1
		}
		return a - b
	})
}

// Below is the mark below one; the lowest stays.
func Below(mark int) int {
	marks := Marks()
	i, _ := slices.BinarySearch(marks, mark)
	return marks[max(0, i-1)]
}

// Ladder returns the mark for each week of a climb by equal ratios from one
// tempo, where the student really is, to another: as many marks as weeks, the
// last one that of the goal. Neighbouring weeks may share a mark where the steps
// are small. It refuses a climb that does not rise, that takes no week, or that
// leaves the metronome.
func Ladder(from, to, weeks int) ([]int, error) {
	marks := Marks()
	low, high := marks[0], marks[len(marks)-1]
	switch {
	case weeks < 1 || weeks > 104:
		return nil, fmt.Errorf("a climb takes 1 to 104 weeks, not %d", weeks)
	case from < low || to > high:
		return nil, fmt.Errorf("the metronome goes from %d to %d; %d to %d leaves it", low, high, from, to)
	case to <= from:
		return nil, fmt.Errorf("a tempo ladder rises: %d does not lie above %d", to, from)
	}
	ratio := math.Pow(float64(to)/float64(from), 1/float64(weeks))
	out := make([]int, weeks)
	tempo := float64(from)
	for i := range out {
		tempo *= ratio
		out[i] = Nearest(tempo)
	}
	return out, nil
}

// Eased returns what is left of a ladder after a bad week: back to the mark
// before the one that did not hold, then on to the goal in the weeks that are
// left and one more. Start is where the ladder began, week the one (from 0) that
// did not hold.
func Eased(ladder []int, start, week int) ([]int, error) {
	if week < 0 || week >= len(ladder) {
		return nil, fmt.Errorf("the ladder has %d weeks; there is no number %d", len(ladder), week+1)
	}
	held := Nearest(float64(start))
	if week > 0 {
		held = ladder[week-1]
	}
	goal := ladder[len(ladder)-1]
	if held >= goal {
		return []int{goal}, nil
	}
	rest, err := Ladder(held, goal, len(ladder)-week)
	if err != nil {
		return nil, err
	}
	return append([]int{held}, rest...), nil
}
