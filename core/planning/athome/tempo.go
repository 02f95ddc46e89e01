package athome

import (
	"patientladder/core/base/metronome"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
)

// Tempo is how fast something is practised.
type Tempo struct {
	// Beats a minute, a mark of the metronome; 0 where nobody knows.
	Beats int
	// Quarters a minute is the same in quarter notes.
	Quarters float64
	Feel     Feel
	// Full says that it is the tempo of the piece.
	Full bool
}

// Feel says a tempo by how one walks.
type Feel string

// The feels, by beats a minute (the borders are ours).
const (
	Resting  Feel = "resting"  // under 46, like breathing at rest
	Slow     Feel = "slow"     // under 66, like walking slowly
	Walking  Feel = "walking"  // under 100
	Striding Feel = "striding" // under 132
	Running  Feel = "running"
)

// FeelOf says a tempo in beats a minute.
func FeelOf(beats int) Feel {
	switch {
	case beats < 46:
		return Resting
	case beats < 66:
		return Slow
	case beats < 100:
		return Walking
	case beats < 132:
		return Striding
	}
	return Running
}

// tempoOf is where the tempo ladder stands; else what is learned has its own tempo, and what is being learned the
// usual share of it.
func tempoOf(it week.Item, s Source) Tempo {
	quarters := s.Material.Tempo
	full := it.Kind == week.Review || s.RunDue && (it.Kind == week.Whole || it.Kind == week.Drilled)
	beat := 1.0
	if s.Piece != nil {
		beat = beatAt(s.Piece, it.Start)
	}
	if s.Mark > 0 && it.Kind == week.Drilled {
		return Tempo{Beats: s.Mark, Quarters: float64(s.Mark) * beat, Feel: FeelOf(s.Mark)}
	}
	if quarters <= 0 {
		return Tempo{}
	}
	if !full {
		quarters *= week.PracticeTempo
	}
	beats := metronome.Nearest(quarters / beat)
	for range it.Slower {
		beats = metronome.Below(beats)
	}
	return Tempo{Beats: beats, Quarters: float64(beats) * beat, Feel: FeelOf(beats), Full: full}
}

// beatAt is how long a beat is at a time, in quarter notes.
func beatAt(p *analysis.Piece, at float64) float64 {
	beat := 1.0
	for _, b := range p.Score.Bars {
		if b.Start.Float() > at+1e-9 {
			break
		}
		if x := b.Beat().Float(); x > 0 {
			beat = x
		}
	}
	return beat
}
