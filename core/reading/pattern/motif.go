package pattern

import (
	"sort"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// Motif is a figure that begins and ends at beats and comes again.
type Motif struct {
	// Name counts the motifs: "1", "2", …
	Name string       `json:"name"`
	Hand reading.Hand `json:"hand"`
	Part int          `json:"part"`
	// Staff counts from 1.
	Staff int `json:"staff"`
	// Beats is its length.
	Beats int `json:"beats"`
	// Notes counts the onsets in it.
	Notes int     `json:"notes"`
	At    []Place `json:"at"`
}

// Place is a bar and the beat in it, both from 1, and the time.
type Place struct {
	Bar  int          `json:"bar"`
	Beat int          `json:"beat"`
	Time rational.Rat `json:"time"`
}

// End is when a motif ends, in quarter notes from the start of the piece, where it begins at a place.
func (m Motif) End(s *score.Score, p Place) rational.Rat {
	return p.Time.Add(s.Bars[p.Bar-1].Beat().Mul(rational.Int(int64(m.Beats))))
}

// longestMotif is in beats. Longer repetitions are those of whole bars.
const longestMotif = 6

// fewestNotes is the smallest number of onsets that makes a figure.
const fewestNotes = 3

// mostMotifs keeps the list readable.
const mostMotifs = 12

// cell is one beat of a line.
type cell struct {
	text  int // equal numbers for equal beats
	notes int
	tied  bool // begins inside a note that is held over
	at    Place
}

// Motifs returns the figures of each line that come again and are not merely
// parts of equal bars: from one beat to six, the longest and most frequent
// first. Equal means equal pitches at equal times.
func Motifs(s *score.Score, lines []reading.Line, load Load) []Motif {
	letterOf := make([]int, len(s.Bars)+1)
	for i, p := range load.Patterns {
		for _, b := range p.Bars {
			letterOf[b] = i + 1
		}
	}
	motifs := []Motif{}
	for _, l := range lines {
		motifs = append(motifs, ofLine(s, l, letterOf)...)
	}
	sort.SliceStable(motifs, func(a, b int) bool {
		return motifs[a].Notes*len(motifs[a].At) > motifs[b].Notes*len(motifs[b].At)
	})
	if len(motifs) > mostMotifs {
		motifs = motifs[:mostMotifs]
	}
	for i := range motifs {
		motifs[i].Name = strconv.Itoa(i + 1)
	}
	return motifs
}

// cells cuts a line into beats.
func cells(s *score.Score, l reading.Line) []cell {
	var out []cell
	numbers := map[string]int{}
	var key []byte
	k := 0
	var heldTo rational.Rat
	offsets := s.Offsets()
	for i := range s.Bars {
		b := &s.Bars[i]
		beat := b.Beat()
		if !b.Countable() {
			beat = b.Length
		}
		first := 1
		if off := offsets[i]; off.Num() > 0 {
			first += int(off.Num() * beat.Den() / (off.Den() * beat.Num()))
		}
		end := b.Start.Add(b.Length)
		n := 0
		for at := b.Start; at.Less(end); at = at.Add(beat) {
			c := cell{at: Place{Bar: i + 1, Beat: first + n, Time: at}, tied: at.Less(heldTo)}
			n++
			key = strconv.AppendInt(key[:0], beat.Num(), 36)
			key = strconv.AppendInt(append(key, '/'), beat.Den(), 36)
			for ; k < len(l.Onset) && l.Onset[k].At.Less(at.Add(beat)); k++ {
				o := &l.Onset[k]
				c.notes++
				d := o.At.Sub(at)
				key = strconv.AppendInt(append(key, '|'), d.Num(), 36)
				key = strconv.AppendInt(append(key, '/'), d.Den(), 36)
				for m, i := range o.Notes {
					p := s.Notes[i].Pitch
					key = strconv.AppendInt(append(key, ' '), int64(p.StaffStep()), 36)
					key = strconv.AppendInt(append(key, ','), int64(p.Alter), 36)
					length := o.Ends[m].Sub(o.At)
					key = strconv.AppendInt(append(key, ':'), length.Num(), 36)
					key = strconv.AppendInt(append(key, '/'), length.Den(), 36)
					heldTo = rational.Max(heldTo, o.Ends[m])
				}
			}
			number, ok := numbers[string(key)]
			if !ok {
				number = len(numbers) + 1
				numbers[string(key)] = number
			}
			c.text = number
			out = append(out, c)
		}
	}
	return out
}

// ofLine finds the motifs of a line, long ones first; a shorter one counts
// where it does not lie within a longer one that was found.
func ofLine(s *score.Score, l reading.Line, letterOf []int) []Motif {
	beats := cells(s, l)
	taken := make([]bool, len(beats))
	var out []Motif
	for length := longestMotif; length >= 1; length-- {
		at := map[[longestMotif]int][]int{}
		var order [][longestMotif]int
		for i := 0; i+length <= len(beats); i++ {
			if beats[i].notes == 0 || beats[i].tied {
				continue // a figure begins with a note
			}
			var key [longestMotif]int
			notes := 0
			for k := range length {
				key[k] = beats[i+k].text
				notes += beats[i+k].notes
			}
			if notes < fewestNotes {
				continue
			}
			if at[key] == nil {
				order = append(order, key)
			}
			at[key] = append(at[key], i)
		}
		for _, key := range order {
			places := apart(at[key], length, taken)
			if len(places) < 2 || onlyEqualBars(beats, places, length, letterOf) {
				continue
			}
			m := Motif{Hand: l.Hand, Part: l.Part, Staff: l.Staff, Beats: length}
			for _, i := range places {
				m.At = append(m.At, beats[i].at)
				for k := range length {
					taken[i+k] = true
				}
			}
			for k := range length {
				m.Notes += beats[places[0]+k].notes
			}
			out = append(out, m)
		}
	}
	return out
}

// apart keeps the places that do not overlap each other or a longer motif.
func apart(places []int, length int, taken []bool) []int {
	var out []int
	end := 0
	for _, i := range places {
		if i < end || taken[i] || taken[i+length-1] {
			continue
		}
		out = append(out, i)
		end = i + length
	}
	return out
}

// onlyEqualBars says that a figure comes again only because its bars do.
func onlyEqualBars(beats []cell, places []int, length int, letterOf []int) bool {
	for _, i := range places[1:] {
		for k := range length {
			a, b := beats[places[0]+k].at, beats[i+k].at
			if letterOf[a.Bar] != letterOf[b.Bar] || a.Beat != b.Beat {
				return false
			}
		}
	}
	return true
}
