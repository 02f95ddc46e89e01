package exercise

import (
	"slices"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/naming"
)

// Score writes the exercise as a score, with its fingers, bows and plucking
// fingers, titled in the words of a studio.
func (e Exercise) Score(words naming.Words) (*score.Score, error) {
	b, err := e.Build()
	if err != nil {
		return nil, err
	}
	s := &score.Score{Title: e.Full(words), Tempo: float64(e.Step.Tempo)}
	part := score.Part{ID: "P1", Name: e.Instrument.ID, Staves: 1, Clefs: []score.Clef{clef(e.Instrument.Clef)}}
	hands := e.hands(b)
	if e.Instrument.Family == instrument.Keyboard {
		part.Staves, part.Clefs = len(hands), nil
		for _, h := range hands {
			sign := "G"
			if h == "left" {
				sign = "F"
			}
			part.Clefs = append(part.Clefs, clef(sign))
		}
	}
	s.Parts = []score.Part{part}
	fifths, mode := e.key()
	bars := int(b.Length.Num() / int64(b.Beats))
	for i := range bars {
		s.Bars = append(s.Bars, score.Bar{
			Label: strconv.Itoa(i + 1), Start: rational.Int(int64(i * b.Beats)), Length: rational.Int(int64(b.Beats)), Beats: b.Beats, BeatUnit: 4,
			Fifths: fifths, Mode: mode,
		})
	}
	for staff, h := range hands {
		e.staff(s, b, h, staff+1, words)
	}
	s.SplitTies()
	slices.SortStableFunc(s.Notes, func(a, b score.Note) int {
		if a.Bar != b.Bar {
			return a.Bar - b.Bar
		}
		return a.Staff - b.Staff
	})
	e.signs(s, b, hands)
	return s, nil
}

// Sounding is the MIDI pitch of a note of the exercise as it sounds.
func (e Exercise) Sounding(n Note) int { return n.Pitch.Semitone() + e.Instrument.Transposes }

func clef(sign string) score.Clef {
	return score.Clef{Sign: sign, Line: map[string]int{"G": 2, "F": 4, "C": 3, "percussion": 3}[sign]}
}

// hands are those that play, the right one first; one nameless hand on strings.
func (e Exercise) hands(b Built) []string {
	if e.Instrument.Family != instrument.Keyboard {
		return []string{""}
	}
	var out []string
	for _, h := range []string{"right", "left"} {
		if slices.ContainsFunc(b.Notes, func(n Note) bool { return n.Hand == h }) {
			out = append(out, h)
		}
	}
	return out
}

// staff writes the notes of one hand with the rests between them.
func (e Exercise) staff(s *score.Score, b Built, hand string, staff int, words naming.Words) {
	voice := strconv.Itoa(4*(staff-1) + 1)
	at := rational.Rat{}
	bar := func(t rational.Rat) int { return int(t.Num()/(t.Den()*int64(b.Beats))) + 1 }
	rest := func(to rational.Rat) {
		for at.Less(to) {
			end := rational.Int(int64(bar(at) * b.Beats))
			if to.Less(end) {
				end = to
			}
			s.Notes = append(s.Notes, score.Note{Onset: at, Duration: end.Sub(at), Rest: true, Staff: staff, Voice: voice, Bar: bar(at)})
			at = end
		}
	}
	k, spoken := 0, e.syllables(words)
	for i, n := range b.Notes {
		if n.Hand != hand {
			continue
		}
		if !n.Chord {
			rest(n.At)
		}
		x := score.Note{
			Onset: n.At, Duration: n.Length, Pitch: n.Pitch, MIDI: e.Sounding(n), Staff: staff, Voice: voice, Bar: bar(n.At), Chord: n.Chord,
			Fingering: strconv.Itoa(n.Finger), Bow: n.Bow, SlurStart: n.Slur, SlurStop: n.Unslur, Pluck: n.Pluck, Join: n.Join,
		}
		x.Pitch.Octave -= e.Instrument.Octave
		if n.Length.Den() == 3 {
			x.Tuplet = score.Ratio{Actual: 3, Normal: 2}
		}
		if e.Type.Make == "rhythm" && staff == 1 {
			x.Lyric = spoken[k%len(spoken)]
		}
		if n.Begins && i+1 < len(b.Notes) && b.Notes[i+1].Hand == hand && b.Notes[i+1].Group == n.Group && !b.Notes[i+1].Begins {
			x.Lyric = map[int]string{3: "three", 4: "four"}[n.Group]
		}
		k++
		if n.Short {
			x.Articulations = []string{"staccato"}
		}
		if n.Accent {
			x.Articulations = append(x.Articulations, "accent")
		}
		if n.Breath {
			x.Articulations = append(x.Articulations, "breath-mark")
		}
		if n.Stick != "" {
			x.Lyric = n.Stick
		}
		if !e.Instrument.Family.Strung() && e.Instrument.Family != instrument.Keyboard {
			x.Fingering = ""
		}
		if e.Instrument.Family == instrument.Plucked {
			x.String, x.Fret = n.String, n.Above
			if !n.Chord && n.Pluck != "" && e.Type.Make != "changes" {
				x.Lyric = e.Instrument.Sign(n.Pluck)
			}
			if n.Finger == 0 || n.Chord {
				x.Fingering = ""
			}
		}
		s.Notes = append(s.Notes, x)
		at = n.End()
	}
	rest(b.Length)
}

// signs writes dynamics, chord symbols, positions and words.
func (e Exercise) signs(s *score.Score, b Built, hands []string) {
	bar := func(t rational.Rat) int {
		return min(len(s.Bars), int(t.Num()/(t.Den()*int64(b.Beats)))+1)
	}
	put := func(kind score.SignKind, text string, at rational.Rat, hand string) {
		staff := max(1, slices.Index(hands, hand)+1)
		n := bar(at)
		s.Signs = append(s.Signs, score.Sign{Kind: kind, Text: text, At: at, Bar: n, Staff: staff})
	}
	for _, d := range b.Dynamics {
		switch d.Text {
		case "crescendo":
			put(score.Crescendo, "", d.At, d.Hand)
		case "diminuendo":
			put(score.Diminuendo, "", d.At, d.Hand)
		case "end":
			put(score.HairpinEnd, "", d.At, d.Hand)
		default:
			put(score.Dynamic, d.Text, d.At, d.Hand)
		}
	}
	for _, c := range b.Chords {
		put(score.Chord, c.Name, c.At, "")
	}
	zero := rational.Rat{}
	switch {
	case e.Step.Dynamics == "f-mime":
		put(score.Words, "on the key tops, without sound", zero, "left")
	case e.Step.Hands == "silent":
		put(score.Words, "without sound", zero, "")
	case e.Step.Hands == "plucked":
		put(score.Words, "plucked", zero, "")
	case e.Step.Memory:
		put(score.Words, "from memory", zero, hands[0])
	}
	for _, n := range b.Notes {
		if n.Where != "" {
			put(score.Words, n.Where, n.At, n.Hand)
		}
	}
}
