package inweek

import (
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/engrave"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/technique/exercise"
)

// Shown is a thing to do at home with what can be drawn and played of it.
type Shown struct {
	athome.Card
	// Piece is its score; nil without one. Music names it: the material, or the exercise of a bite.
	Piece *analysis.Piece
	Music string
	// From and To are the stretch of it, in quarter notes from the start of the piece; equal for nothing.
	From, To float64
	// Pace of the whole is its own tempo in quarter notes a minute; 0 where nobody knows.
	Pace float64
	// Sound and Beats are what is heard of a game: notes as MIDI pitches, or so many slow beats.
	Sound []int
	Beats int
}

// InWords says that there is nothing to draw of it on paper, so that a sentence stands for it: it is only
// listened to, or nobody knows its notes nor where a hand lies.
func (x Shown) InWords(it week.Item) bool {
	return it.Kind == week.Listen || x.Piece == nil && len(x.Card.Hands) == 0
}

// Show makes the card of a thing to do at home.
func Show(s studentplan.Student, it week.Item, read Read) (Shown, error) {
	ms := s.Standing.Materials[it.Material]
	src := athome.Source{Material: s.Library[it.Material], Age: s.Age(s.Today), Approach: s.Policy.Approach, BySound: s.BySound()}
	if ms != nil {
		src.RunDue = ms.RunDue
		if ms.Climb != nil {
			src.Mark = ms.Climb.Mark()
		}
	}
	out := Shown{Music: it.Material, From: it.Start, To: it.End}
	switch {
	case it.Kind == week.Game:
		if g, known := s.Pool.Get(it.Material); known {
			src.Cue, out.Sound, out.Beats = g.Cue, g.Sound, g.Beats
			out.To = float64(max(len(g.Sound), g.Beats))
			if s.Family() == instrument.Keyboard {
				src.Keys = g.Keys
			}
		}
	case it.Exercise != "":
		piece, m, err := biteScore(s, it.Exercise)
		if err != nil {
			return out, err
		}
		src.Piece, src.Material, out.Music = piece, m, it.Exercise
		if piece != nil {
			out.To = piece.Score.Length().Float()
		}
	case src.Material.ID != "":
		o, err := read.open(src.Material)
		if err != nil {
			return out, err
		}
		if o != nil {
			src.Piece = o.Piece
		}
	}
	out.Piece, out.Pace = src.Piece, src.Material.Tempo
	out.Card = athome.Of(it, src)
	return out, nil
}

// biteScore writes the exercise of a bite; nil where it is none for the instrument any more.
func biteScore(s studentplan.Student, id string) (*analysis.Piece, material.Material, error) {
	e, err := exercise.Parse(id, s.OnInstrument())
	if err != nil { // it was kept by an older program: the words still say it
		return nil, material.Material{}, nil
	}
	sc, err := e.Score(s.Words)
	if err != nil {
		return nil, material.Material{}, err
	}
	return analysis.Of(sc, s.Instrument), material.Material{Exercise: id, Tempo: sc.Tempo}, nil
}

const (
	// seenBars is how many bars are drawn of what is played whole: enough to know it again (default).
	seenBars = 4
	// mostSeen is how many bars are drawn of a section.
	mostSeen = 16
)

// Seen is the stretch of a thing to do that is drawn, in quarter notes from the start of the piece: the bars of a
// section, how it begins where all of it is played or where it begins is enough.
func (x Shown) Seen(it week.Item) (from, to float64) {
	bars := x.Piece.Score.Bars
	most := seenBars
	switch it.Kind {
	case week.Chunk, week.Join, week.Spot, week.Again, week.Preview, week.Drilled:
		most = mostSeen
	}
	from, to = x.From, x.To
	if to <= from {
		to = x.Piece.Score.Length().Float()
	}
	n := 0
	for _, b := range bars {
		end := b.Start.Float() + b.Length.Float()
		if end <= from+1e-9 {
			continue
		}
		if n++; n == most {
			return from, min(to, end)
		}
	}
	return from, to
}

// Drawn draws what is seen of a thing to do, in systems of a width in staff spaces, with the tablature of a fretted
// instrument; ok is false where there is nothing to draw.
func (x Shown) Drawn(it week.Item, player instrument.Instrument, width float64) (d engrave.Drawing, ok bool) {
	if x.Piece == nil || len(x.Piece.Score.Bars) == 0 {
		return d, false
	}
	from, to := x.Seen(it)
	d = engrave.Stretch(x.Piece.Fretted(), from, to, player.Look(engrave.Look{Staves: x.Staves(it), Width: width}))
	return d, d.Width > 0
}

// Heard says that something of it can be played.
func (x Shown) Heard() bool { return x.Piece != nil || len(x.Sound) > 0 || x.Beats > 0 }

// Staves are those that are drawn and heard of a thing to do, in their order; nil for all. Of a piece for two hands one hand has its own.
func (x Shown) Staves(it week.Item) []engrave.Staff {
	if x.Piece == nil || it.Hand == "" {
		return nil
	}
	all := engrave.Staves(x.Piece.Score)
	for i, s := range all {
		for _, l := range x.Piece.Lines {
			if l.Part == s.Part && l.Staff == s.Number && string(l.Hand)+" hand" == it.Hand {
				return all[i : i+1]
			}
		}
	}
	return nil
}

// CanBeFirst says that a thing to do is a piece or an exercise that can be chosen to be played first; a bite or a game is none.
func CanBeFirst(s studentplan.Student, it week.Item) bool {
	_, known := s.Library[it.Material]
	return known
}
