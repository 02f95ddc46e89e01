// Package overrule holds what a teacher says against the findings in a score,
// in such a way that it survives another file of the same piece.
//
// Every overruling remembers the bars that it is about by their place and by
// their music. In a new file it goes to the bar at the same place if that holds
// the same music, else to the nearest bar that does, else to the same place if
// what it is about stands there.
package overrule

import (
	"fmt"
	"hash/fnv"
	"slices"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/reading/chunk"
)

// Kind is what is overruled.
type Kind string

// The kinds of overrulings.
const (
	// Finger sets the finger of a note.
	Finger Kind = "finger"
	// Demand sets the weight of a skill; 0 says that it is not asked for.
	Demand Kind = "demand"
	// Border says whether a chunk ends after a bar.
	Border Kind = "border"
	// Tempo sets the tempo of the piece.
	Tempo Kind = "tempo"
	// Part says which part of several is the student's.
	Part Kind = "part"
)

// Overruling is one finding that the teacher has set.
type Overruling struct {
	Kind Kind `json:"kind"`
	// Part counts from 0, Staff from 1; At is the time from the start of the
	// bar, Pitch the written pitch on the MIDI scale. They place a finger.
	Part  int          `json:"part,omitempty"`
	Staff int          `json:"staff,omitempty"`
	At    rational.Rat `json:"at"`
	Pitch int          `json:"pitch,omitempty"`
	// Finger is "0" to "5"; empty for no finger at all.
	Finger string `json:"finger,omitempty"`
	Skill  string `json:"skill,omitempty"`
	// Weight is 0 to 2.
	Weight float64 `json:"weight,omitempty"`
	// Bars are positions from 1: of the note, of the demand (none for the whole
	// piece), or the bar before the border. Prints are what stands in them.
	Bars   []int    `json:"bars,omitempty"`
	Prints []string `json:"prints,omitempty"`
	// Ends says for a border whether a chunk ends there.
	Ends bool `json:"ends,omitempty"`
	// QuartersAMinute is the tempo.
	QuartersAMinute float64 `json:"quartersAMinute,omitempty"`
}

// Key names what is overruled: a later overruling with the same key replaces it.
func (o Overruling) Key() string {
	switch o.Kind {
	case Finger:
		return fmt.Sprintf("finger %d/%d/%d/%s/%d", o.Part, o.Staff, o.bar(), o.At, o.Pitch)
	case Demand:
		return "demand " + o.Skill
	case Border:
		return "border " + strconv.Itoa(o.bar())
	}
	return string(o.Kind)
}

func (o Overruling) bar() int {
	if len(o.Bars) == 0 {
		return 0
	}
	return o.Bars[0]
}

// Check says in one sentence what is wrong with an overruling for a score; nil
// when nothing is. Known says whether a skill exists.
func (o Overruling) Check(s *score.Score, known func(skill string) bool) error {
	for _, b := range o.Bars {
		if b < 1 || b > len(s.Bars) {
			return fmt.Errorf("the piece has no bar %d; it has %d", b, len(s.Bars))
		}
	}
	switch o.Kind {
	case Finger:
		if o.Finger != "" && (len(o.Finger) != 1 || o.Finger[0] < '0' || o.Finger[0] > '5') {
			return fmt.Errorf("%q is not a finger; fingers are 1 to 5, an open string 0", score.Short(o.Finger))
		}
		if len(o.Bars) != 1 || o.find(s, o.bar()) < 0 {
			return fmt.Errorf("there is no such note in that bar")
		}
	case Demand:
		if !known(o.Skill) {
			return fmt.Errorf("there is no skill %q", score.Short(o.Skill))
		}
		if o.Weight < 0 || o.Weight > 2 {
			return fmt.Errorf("a weight lies between 0 and 2, not %g", o.Weight)
		}
	case Border:
		if len(o.Bars) != 1 || o.bar() == len(s.Bars) {
			return fmt.Errorf("a border stands after one bar, and not after the last")
		}
	case Tempo:
		if o.QuartersAMinute < 10 || o.QuartersAMinute > 400 {
			return fmt.Errorf("a tempo lies between 10 and 400 crotchets a minute, not %g", o.QuartersAMinute)
		}
	case Part:
		if o.Part < 0 || o.Part >= len(s.Parts) {
			return fmt.Errorf("the piece has no part %d; it has %d", o.Part+1, len(s.Parts))
		}
	default:
		return fmt.Errorf("%q cannot be overruled", score.Short(string(o.Kind)))
	}
	return nil
}

// find returns the note that a finger is for in a bar, −1 when it is not there.
func (o Overruling) find(s *score.Score, bar int) int {
	if bar < 1 || bar > len(s.Bars) {
		return -1
	}
	at := s.Bars[bar-1].Start.Add(o.At)
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Bar == bar && !n.Rest && n.Part == o.Part && n.Staff == o.Staff && n.Onset.Cmp(at) == 0 && n.Pitch.Semitone() == o.Pitch {
			return i
		}
	}
	return -1
}

// Remember adds the prints of the bars, so that they are found again.
func (o Overruling) Remember(s *score.Score) Overruling {
	prints := Prints(s)
	o.Prints = nil
	for _, b := range o.Bars {
		o.Prints = append(o.Prints, prints[b-1])
	}
	return o
}

// Prints returns a short print of the music of each bar: pitches, times and
// ties, without fingers and other marks. Equal bars have equal prints.
func Prints(s *score.Score) []string {
	out := make([]string, len(s.Bars))
	for b, notes := range s.NotesByBar() {
		var lines []string
		for _, i := range notes {
			n := &s.Notes[i]
			if !n.Rest {
				lines = append(lines, fmt.Sprint(n.Part, n.Staff, n.Onset.Sub(s.Bars[b].Start), n.Duration, n.Pitch, n.TieStart, n.Grace))
			}
		}
		slices.Sort(lines)
		h := fnv.New64a()
		for _, l := range lines {
			h.Write([]byte(l + "\n"))
		}
		out[b] = strconv.FormatUint(h.Sum64(), 36)
	}
	return out
}

// Print is a print of the whole piece: files of the same music have the same.
func Print(s *score.Score) string {
	h := fnv.New128a()
	for _, p := range Prints(s) {
		h.Write([]byte(p + "\n"))
	}
	return fmt.Sprintf("%x", h.Sum(nil))
}

// Set is what overrulings say about one score, their bars found in it.
type Set struct {
	Borders chunk.Borders
	// Demands are the teacher's demands by skill; weight 0 is not asked for.
	Demands map[string]material.Demand
	// Tempo is 0 where it is not overruled.
	Tempo float64
	// Part is the student's part, −1 where that is not overruled.
	Part int
	// Lost are overrulings whose place is not in the score.
	Lost []Overruling
	// Fingers are the indices of the notes whose finger the teacher set.
	Fingers map[int]bool
}

// Apply finds the places of overrulings in a score and sets its fingers and
// its tempo. What has no place is kept in Lost.
func Apply(s *score.Score, list []Overruling) Set {
	set := Set{Part: -1, Borders: chunk.Borders{}, Demands: map[string]material.Demand{}, Fingers: map[int]bool{}}
	if len(list) == 0 {
		return set
	}
	prints := Prints(s)
	for _, o := range list {
		switch o.Kind {
		case Finger:
			i := -1
			if bar := place(prints, o.bar(), first(o.Prints)); bar > 0 {
				i = o.find(s, bar)
			}
			if i < 0 {
				i = o.find(s, o.bar())
			}
			if i < 0 {
				set.Lost = append(set.Lost, o)
				continue
			}
			s.Notes[i].Fingering = o.Finger
			set.Fingers[i] = true
		case Border:
			bar := place(prints, o.bar(), first(o.Prints))
			if bar == 0 {
				bar = o.bar()
			}
			if bar < 1 || bar >= len(s.Bars) {
				set.Lost = append(set.Lost, o)
				continue
			}
			set.Borders[bar] = o.Ends
		case Demand:
			d := material.Demand{Skill: o.Skill, Weight: o.Weight, Origin: "teacher"}
			for i, b := range o.Bars {
				at := 0
				if i < len(o.Prints) {
					at = place(prints, b, o.Prints[i])
				}
				if at == 0 && b <= len(s.Bars) {
					at = b
				}
				if at > 0 && !slices.Contains(d.Bars, at) {
					d.Bars = append(d.Bars, at)
				}
			}
			slices.Sort(d.Bars)
			set.Demands[o.Skill] = d
		case Tempo:
			set.Tempo = o.QuartersAMinute
			setTempo(s, o.QuartersAMinute)
		case Part:
			if o.Part >= len(s.Parts) {
				set.Lost = append(set.Lost, o)
				continue
			}
			set.Part = o.Part
		}
	}
	return set
}

// setTempo puts a tempo in the place of the first one; later changes keep their proportion.
func setTempo(s *score.Score, tempo float64) {
	if s.Tempo > 0 {
		for i := range s.Signs {
			if s.Signs[i].Kind == score.TempoMark {
				s.Signs[i].Value *= tempo / s.Tempo
			}
		}
	}
	s.Tempo = tempo
}

func first(list []string) string {
	if len(list) == 0 {
		return ""
	}
	return list[0]
}

// place finds the bar with a print that is nearest to a position; 0 when no bar has it.
func place(prints []string, bar int, print string) int {
	for d := range len(prints) + bar {
		for _, b := range [2]int{bar - d, bar + d} {
			if b >= 1 && b <= len(prints) && prints[b-1] == print {
				return b
			}
		}
	}
	return 0
}

// Demanded puts the teacher's demands in the place of those that were found.
func (set Set) Demanded(found []material.Demand) []material.Demand {
	var out []material.Demand
	for _, d := range found {
		if _, own := set.Demands[d.Skill]; !own {
			out = append(out, d)
		}
	}
	for _, d := range set.Demands {
		if d.Weight > 0 {
			out = append(out, d)
		}
	}
	slices.SortFunc(out, func(a, b material.Demand) int {
		switch {
		case a.Skill < b.Skill:
			return -1
		case a.Skill > b.Skill:
			return 1
		}
		return 0
	})
	return out
}
