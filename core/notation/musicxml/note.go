package musicxml

import (
	"math"
	"strconv"
	"strings"

	"patientladder/core/notation/score"
)

func (r *reader) note(p *partState) error {
	if len(r.score.Notes) >= r.limits.Notes {
		return &Error{What: "the score has more than " + strconv.Itoa(r.limits.Notes) + " notes", Line: r.line()}
	}
	n := score.Note{Part: p.index, Staff: 1, Voice: "1", Bar: p.bar + 1}
	var length int64 = -1
	pitched, cue, unpitched, chord := false, false, false, false
	err := r.children(func(el element) error {
		var err error
		switch el.name {
		case "pitch":
			pitched = true
			return r.pitch(p, &n)
		case "rest":
			n.Rest = true
		case "unpitched":
			unpitched = true
		case "chord":
			chord = true
		case "grace":
			n.Grace = true
		case "cue":
			cue = true
		case "duration":
			length, err = r.divisionsLong(p)
			return err
		case "tie":
			setTie(&n, attr(el, "type"))
		case "voice":
			n.Voice, err = r.value()
			n.Voice = short(n.Voice)
			return err
		case "type":
			n.Type, err = r.value()
			n.Type = short(n.Type)
			return err
		case "dot":
			n.Dots++
		case "accidental":
			n.ShownAccidental = true
		case "time-modification":
			return r.timeModification(p, &n)
		case "staff":
			s, err := r.whole("a staff number")
			if err == nil && (s < 1 || s > mostStaves) {
				return r.fail(p, "a note stands on staff %d", s)
			}
			if part := &r.score.Parts[p.index]; err == nil && int(s) > part.Staves {
				r.mend(p, "notes on a staff that the part was not said to have (it has it)")
				part.Staves = int(s)
			}
			n.Staff = int(s)
			return err
		case "notations":
			return r.notations(p, &n)
		case "lyric":
			return r.children(func(el element) error {
				if el.name == "text" && n.Lyric == "" {
					n.Lyric, err = r.value()
					return err
				}
				return r.skip()
			})
		}
		return r.skip() // stems, beams, heads and the like are the engraver's
	})
	switch {
	case err != nil:
		return err
	case cue:
		r.score.AddSkip("cue notes", p.where())
		return r.passOver(p, length, chord)
	case unpitched:
		r.score.AddSkip("percussion notes without pitch", p.where())
		return r.passOver(p, length, chord)
	case !pitched && !n.Rest:
		r.mend(p, "a note that is neither a pitch nor a rest (taken as a rest)")
		n.Rest = true
	}
	switch {
	case n.Grace:
		length = 0
	case length < 0:
		length = r.typed(p, &n)
		r.mend(p, "a note without a duration (taken as long as it is written)")
	}
	return r.place(p, n, length, chord)
}

// types are the lengths of notes by how they are written, in parts of a whole note.
var types = map[string]int64{
	"whole": 1, "half": 2, "quarter": 4, "eighth": 8, "16th": 16, "32nd": 32, "64th": 64, "128th": 128,
}

// typed is how long a note lasts as it is written, in divisions; 0 where that is not known.
func (r *reader) typed(p *partState, n *score.Note) int64 {
	part, known := types[n.Type]
	if !known {
		return 0
	}
	if p.divisions == 0 {
		p.divisions = 1
	}
	length, dot := 4*p.divisions/part, 4*p.divisions/part
	for range min(n.Dots, 3) {
		dot /= 2
		length += dot
	}
	if n.Tuplet.Actual > 0 && n.Tuplet.Normal > 0 {
		length = length * int64(n.Tuplet.Normal) / int64(n.Tuplet.Actual)
	}
	return length
}

// passOver leaves a note out but keeps its time: what follows it stands where it stood.
func (r *reader) passOver(p *partState, length int64, chord bool) error {
	if !chord && length > 0 {
		p.lastOnset = p.cursor
		p.cursor += length
		p.furthest = max(p.furthest, p.cursor)
	}
	return nil
}

// place gives the note its time and moves the cursor.
func (r *reader) place(p *partState, n score.Note, length int64, chord bool) error {
	onset := p.cursor
	if chord && len(r.score.Notes) == p.first {
		r.mend(p, "a note of a chord that has no other (taken by itself)")
		chord = false
	}
	if chord {
		onset = p.lastOnset
		n.Chord = true
	}
	if !n.Rest {
		semitone := n.Pitch.Semitone() + p.transpose[0] + p.transpose[n.Staff]
		if semitone < 0 || semitone > 127 {
			return r.fail(p, "the note %s lies outside every instrument", n.Pitch)
		}
		n.MIDI = semitone
	}
	// Onsets count from the bar until settleBars knows where the bars begin.
	n.Onset, n.Duration = r.quarters(p, onset), r.quarters(p, length)
	p.lastOnset = onset
	if !chord && !n.Grace {
		p.cursor = onset + length
	}
	end := onset + length
	p.voiceEnds[n.Voice] = max(p.voiceEnds[n.Voice], end)
	p.furthest = max(p.furthest, end)
	r.score.Notes = append(r.score.Notes, n)
	return nil
}

func (r *reader) pitch(p *partState, n *score.Note) error {
	return r.children(func(el element) error {
		switch el.name {
		case "step":
			s, err := r.value()
			if err == nil && (len(s) != 1 || s[0] < 'A' || s[0] > 'G') {
				return r.fail(p, "%q is not a note name from A to G", short(s))
			}
			if err == nil {
				n.Pitch.Step = s[0]
			}
			return err
		case "alter":
			s, err := r.value()
			if err != nil {
				return err
			}
			f, ferr := strconv.ParseFloat(s, 64)
			if ferr != nil || math.Abs(f) > 3 || math.IsNaN(f) {
				return r.fail(p, "%q is not a sharp or flat", short(s))
			}
			if f != math.Trunc(f) {
				r.score.AddSkip("quarter tones (the nearest semitone was taken)", p.where())
			}
			n.Pitch.Alter = int(math.Round(f))
			return nil
		case "octave":
			o, err := r.whole("an octave")
			if err == nil && (o < -1 || o > 9) {
				return r.fail(p, "octave %d does not exist", o)
			}
			n.Pitch.Octave = int(o)
			return err
		}
		return r.skip()
	})
}

func setTie(n *score.Note, kind string) {
	switch kind {
	case "start":
		n.TieStart = true
	case "stop":
		n.TieStop = true
	}
}

func (r *reader) timeModification(p *partState, n *score.Note) error {
	return r.children(func(el element) error {
		name := el.name
		if name != "actual-notes" && name != "normal-notes" {
			return r.skip()
		}
		v, err := r.whole("a tuplet's number")
		if err == nil && (v < 1 || v > 128) {
			return r.fail(p, "a tuplet of %d notes does not exist", v)
		}
		if name == "actual-notes" {
			n.Tuplet.Actual = int(v)
		} else {
			n.Tuplet.Normal = int(v)
		}
		return err
	})
}

func (r *reader) notations(p *partState, n *score.Note) error {
	return r.children(func(el element) error {
		switch el.name {
		case "tied":
			setTie(n, attr(el, "type")) // some programs write only the drawn tie
			return r.skip()
		case "slur":
			switch attr(el, "type") {
			case "start":
				n.SlurStart = true
			case "stop":
				n.SlurStop = true
			}
			return r.skip()
		case "articulations":
			return r.children(func(el element) error {
				n.Articulations = append(n.Articulations, short(el.name))
				return r.skip()
			})
		case "technical":
			return r.technical(p, n)
		case "ornaments":
			return r.children(func(el element) error {
				if el.name != "accidental-mark" {
					n.Ornaments = append(n.Ornaments, short(el.name))
				}
				return r.skip()
			})
		case "fermata":
			n.Fermata = true
			return r.skip()
		case "arpeggiate":
			n.Rolled = true
			return r.skip()
		case "slide":
			joined(n, el, score.Slide)
			return r.skip()
		case "tuplet":
			return r.skip() // the bracket; the ratio is in time-modification
		}
		r.score.AddSkip("notations: "+short(el.name), p.where())
		return r.skip()
	})
}

func (r *reader) technical(p *partState, n *score.Note) error {
	return r.children(func(el element) error {
		switch el.name {
		case "fingering":
			s, err := r.value()
			if n.Fingering == "" {
				n.Fingering = strings.TrimSpace(short(s))
			}
			return err
		case "string", "fret":
			v, err := r.whole("a " + el.name)
			if err == nil && (v < 0 || v > 64) {
				return r.fail(p, "%s %d does not exist", el.name, v)
			}
			if el.name == "string" {
				n.String = int(v)
			} else {
				n.Fret = int(v)
			}
			return err
		}
		switch el.name {
		case "down-bow", "up-bow":
			n.Bow = strings.TrimSuffix(el.name, "-bow")
			return r.skip()
		case "hammer-on", "pull-off":
			joined(n, el, score.Join(el.name))
			return r.skip()
		case "pluck":
			s, err := r.value()
			n.Pluck = strings.TrimSpace(short(s))
			return err
		}
		r.score.AddSkip("playing marks: "+short(el.name), p.where())
		return r.skip()
	})
}

// joined notes that the left hand sounds a note: it is the one at which the mark stops.
func joined(n *score.Note, el element, how score.Join) {
	if attr(el, "type") == "stop" {
		n.Join = how
	}
}
