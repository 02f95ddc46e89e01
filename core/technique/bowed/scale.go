package bowed

import (
	"fmt"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/position"
	"patientladder/core/technique/scale"
)

// Played is a note of a scale over the strings.
type Played struct {
	Stop
	// String counts from 1.
	String int
	// Where names the position when the hand comes to a new one; empty otherwise.
	Where string
}

// Scale plays a scale or an arpeggio upwards over the strings. One octave begins on
// the highest open string that is its tonic and from which it needs no move of the hand, else
// on the lowest tonic without one; more octaves begin on the lowest tonic without
// one, else on the lowest of all (common practice). Notes above the reach of the hand on the first
// string are taken by as few moves as will do; handbooks differ there. It refuses
// what leaves the fingerboard.
func Scale(player instrument.Instrument, t scale.Tonic, k scale.Kind, octaves int) ([]Played, error) {
	if err := bowable(player); err != nil {
		return nil, err
	}
	s, err := scale.Of(t, k, octaves)
	if err != nil {
		return nil, err
	}
	x := strung{player}
	in, err := frame(t, k, s)
	if err != nil {
		return nil, err
	}
	lowest := x.Open[len(x.Open)-1].Semitone()
	var best []Played
	rank := 0
	for octave := -3; octave <= 3; octave++ {
		notes := make([]score.Pitch, len(s.Up.Notes))
		for i, p := range s.Up.Notes {
			p.Octave += octave
			notes[i] = p
		}
		if notes[0].Semitone() < lowest || notes[len(notes)-1].Semitone() > x.Open[0].Semitone()+x.highest(octaves) {
			continue
		}
		played := x.play(notes, in)
		r := 1
		moved := 0
		for _, p := range played {
			if p.Where != "" {
				moved++
			}
		}
		switch {
		case moved == 0 && octaves == 1 && played[0].Finger == 0:
			r = 3
		case moved == 0:
			r = 2
		}
		if r > rank || r == rank && r == 3 { // the highest open string, else the lowest tonic
			best, rank = played, r
		}
	}
	if best == nil {
		return nil, fmt.Errorf("%d octaves from %s leave the fingerboard of the %s", octaves, t, x.ID)
	}
	return best, nil
}

// frame is the key in which the hand lies: of an arpeggio all notes of its key, for the fingers between its notes
// keep their places.
func frame(t scale.Tonic, k scale.Kind, s scale.Scale) (spelling, error) {
	of := map[scale.Kind]scale.Kind{scale.MajorArpeggio: scale.Major, scale.MinorArpeggio: scale.NaturalMinor}
	whole, broken := of[k]
	if !broken {
		return spelled(scale.Scale{Up: s.Up, Down: s.Up}), nil
	}
	key, err := scale.Of(t, whole, 1)
	return spelled(scale.Scale{Up: key.Up, Down: key.Up}), err
}

// highest is how far above the first open string is played, in semitones: up to the place of the thumb. Where fingers lie a
// letter apart the hand goes on over three octaves, to highestLong; a hand whose thumb comes up beside the fingers there is
// left to the teacher.
const highest, highestLong = 14, 20

func (x strung) highest(octaves int) int {
	if octaves > 2 && x.Hand.By == "letters" {
		return highestLong
	}
	return highest
}

// play lays notes over the strings: each on the highest string that has it.
func (x strung) play(notes []score.Pitch, in spelling) []Played {
	byString := make([][]Stop, len(x.Open))
	at := make([][]int, len(x.Open))
	for i, p := range notes {
		for str, open := range x.Open {
			above := p.Semitone() - open.Semitone()
			if above < 0 {
				continue
			}
			if x.below(str, p) {
				continue
			}
			byString[str], at[str] = append(byString[str], Stop{Pitch: p, Above: above}), append(at[str], i)
			break
		}
	}
	out := make([]Played, len(notes))
	for str, stops := range byString {
		for k, s := range x.finger(str, stops, in) {
			out[at[str][k]] = Played{Stop: s, String: str + 1}
		}
	}
	where := position.PlaceName(x.Instrument, x.Hand.First)
	for i, s := range out {
		if s.Place == 0 {
			continue
		}
		name := position.PlaceName(x.Instrument, s.Place)
		if x.Hand.By == "letters" { // by the letter under the first finger, whatever its sharp or flat
			name = position.LetterName(steps(x.Open[s.String-1], s.Pitch) - s.Finger + 1)
		}
		if s.Extended && s.Place < x.Hand.First {
			name = position.PlaceName(x.Instrument, x.Hand.First) // the first finger reaches back, the hand stays
		}
		if name != where {
			out[i].Where, where = name, name
		}
	}
	return out
}
