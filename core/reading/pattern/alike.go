package pattern

import (
	"strconv"

	"patientladder/core/notation/score"
)

// alike links each pattern to the first one that it resembles: first of all
// the same notes an octave away, then moved exactly, then moved along the key,
// then the same pitches in another rhythm. A single note resembles nothing.
func alike(s *score.Score, patterns []Pattern, notes [][]int) {
	kinds := []struct {
		name string
		of   func(*score.Score, []int) string
	}{
		{"octave", moved}, {"transposed", moved}, {"transposed in the key", movedInKey}, {"other rhythm", pitches},
	}
	first := make([]map[string]int, len(kinds))
	for i := range first {
		first[i] = map[string]int{}
	}
	for p := range patterns {
		if len(notes[p]) < 2 {
			continue
		}
		for i, kind := range kinds {
			key := kind.of(s, notes[p])
			q, seen := first[i][key]
			if !seen {
				first[i][key] = p
				continue
			}
			a, b := &s.Notes[notes[q][0]].Pitch, &s.Notes[notes[p][0]].Pitch
			steps, semitones := b.StaffStep()-a.StaffStep(), b.Semitone()-a.Semitone()
			if i == 0 && (steps%7 != 0 || semitones != steps/7*12 || steps == 0) {
				continue
			}
			if patterns[p].How == "" {
				patterns[p].Like, patterns[p].How, patterns[p].Steps = patterns[q].Letter, kind.name, steps
			}
		}
	}
}

// shape writes the notes of a bar with their places in time, their pitches as
// told by from the first note.
func shape(s *score.Score, notes []int, time bool, pitch func(first, n *score.Note) [2]int) string {
	var key []byte
	first := &s.Notes[notes[0]]
	for _, k := range notes {
		n := &s.Notes[k]
		p := pitch(first, n)
		values := []int64{int64(n.Part), int64(n.Staff), int64(p[0]), int64(p[1])}
		if time {
			at := n.Onset.Sub(s.Bars[n.Bar-1].Start)
			values = append(values, at.Num(), at.Den(), n.Duration.Num(), n.Duration.Den())
		}
		for _, x := range values {
			key = strconv.AppendInt(key, x, 36)
			key = append(key, ' ')
		}
	}
	return string(key)
}

// moved is equal for bars that differ by one interval throughout.
func moved(s *score.Score, notes []int) string {
	return shape(s, notes, true, func(a, n *score.Note) [2]int {
		return [2]int{n.Pitch.StaffStep() - a.Pitch.StaffStep(), n.Pitch.Semitone() - a.Pitch.Semitone()}
	})
}

// movedInKey is equal for bars that differ by a number of steps of their keys:
// a note that stands outside its key must do so in both.
func movedInKey(s *score.Score, notes []int) string {
	return shape(s, notes, true, func(a, n *score.Note) [2]int {
		return [2]int{n.Pitch.StaffStep() - a.Pitch.StaffStep(), n.Pitch.Alter - score.KeyAlter(n.Pitch.Step, s.Bars[n.Bar-1].Fifths)}
	})
}

// pitches is equal for bars with the same pitches in the same order.
func pitches(s *score.Score, notes []int) string {
	return shape(s, notes, false, func(_, n *score.Note) [2]int {
		return [2]int{n.Pitch.StaffStep(), n.Pitch.Alter}
	})
}
