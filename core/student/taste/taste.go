// Package taste learns what a student likes from what the student does: what is
// played first, asked for, practised unasked, and said to be liked or not.
package taste

import (
	"sort"

	"patientladder/core/library/material"
	"patientladder/core/student/studentlog"
)

// Liking is how a student takes to one tag.
type Liking struct {
	Tag string
	// Score lies between −1 and 1; 0 is neither, or not known.
	Score float64
	// Signs counts the signs that it rests on.
	Signs int
	// By counts the signs by their kind.
	By map[studentlog.Reaction]int
}

// weights of the signs (default): what is done weighs more than what is said.
var weights = map[studentlog.Reaction]float64{
	studentlog.PlayedFirst: 1.5, studentlog.AskedFor: 1.5, studentlog.Unasked: 1.5, studentlog.Liked: 1, studentlog.Disliked: -1.5,
}

const (
	// passed is what a piece counts against its tags that was had and never chosen.
	passed = 0.2
	// doubt draws the scores towards 0 while there are few signs.
	doubt = 2
)

// Profile is what is known of a student's taste, by tag.
type Profile map[string]Liking

// Learn finds a profile from the signs of each material, and from the materials
// that the student has had. The score of a tag is
//
//	(for − against) ÷ (for + against + doubt)
func Learn(signs map[string]map[studentlog.Reaction]int, had []string, lib material.Library) Profile {
	type sum struct {
		liked, against float64
		by             map[studentlog.Reaction]int
	}
	sums := map[string]*sum{}
	at := func(tag string) *sum {
		if sums[tag] == nil {
			sums[tag] = &sum{by: map[studentlog.Reaction]int{}}
		}
		return sums[tag]
	}
	for id, by := range signs {
		for _, tag := range lib[id].Tags {
			s := at(tag)
			for sign, n := range by {
				s.by[sign] += n
				if w := weights[sign] * float64(n); w > 0 {
					s.liked += w
				} else {
					s.against -= w
				}
			}
		}
	}
	for _, id := range had {
		if len(signs[id]) == 0 {
			for _, tag := range lib[id].Tags {
				at(tag).against += passed
			}
		}
	}
	out := Profile{}
	for tag, s := range sums {
		l := Liking{Tag: tag, Score: (s.liked - s.against) / (s.liked + s.against + doubt)}
		for _, n := range s.by {
			l.Signs += n
		}
		l.By = s.by
		out[tag] = l
	}
	return out
}

// Fit is how well a material suits, −1 to 1: the mean over its tags; 0 without
// tags. Of is the tag that says most, or "".
func (p Profile) Fit(m material.Material) (fit float64, of Liking) {
	for _, tag := range m.Tags {
		l := p[tag]
		fit += l.Score / float64(len(m.Tags))
		if l.Score*l.Score > of.Score*of.Score {
			of = l
		}
	}
	return fit, of
}

// List returns the tags with signs, best liked first.
func (p Profile) List() []Liking {
	out := []Liking{}
	for _, l := range p {
		if l.Signs > 0 {
			out = append(out, l)
		}
	}
	sort.Slice(out, func(a, b int) bool {
		if out[a].Score != out[b].Score {
			return out[a].Score > out[b].Score
		}
		return out[a].Tag < out[b].Tag
	})
	return out
}
