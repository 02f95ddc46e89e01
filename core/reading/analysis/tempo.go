package analysis

import (
	"fmt"
	"math"

	"patientladder/core/notation/score"
)

// Time is how long a piece takes.
type Time struct {
	// Tempo is in quarter notes a minute; 0 when none is written.
	Tempo float64 `json:"tempo"`
	// Quarters counts quarter notes with the repeats, Once without.
	Quarters float64 `json:"quarters"`
	Once     float64 `json:"once"`
	// Low and High are seconds for playing it with the repeats.
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	Why  string  `json:"why"`
}

// mostBars is how many bars are played out at the most.
const mostBars = 100_000

// Without a written tempo a beginner's piece goes somewhere between these, in
// quarter notes a minute (common practice).
const slowest, quickest = 60, 120

// playingTime follows the written tempi through the repeats. A written tempo
// is kept within a tenth.
func playingTime(s *score.Score) Time {
	t := Time{Tempo: s.Tempo, Once: s.Length().Float()}
	tempoAt := make([]float64, len(s.Bars)) // in force at the start of each bar, 0 for none
	next := make([]float64, len(s.Bars)+1)
	for _, x := range s.Signs {
		if x.Kind == score.TempoMark {
			next[x.Bar-1] = x.Value // the last one of a bar holds for it
		}
	}
	now := s.Tempo
	for i := range s.Bars {
		if next[i] > 0 {
			now = next[i]
		}
		tempoAt[i] = now
	}
	minutes := 0.0
	for _, bar := range s.Order(mostBars) {
		q := s.Bars[bar-1].Length.Float()
		t.Quarters += q
		if tempoAt[bar-1] > 0 {
			minutes += q / tempoAt[bar-1]
		}
	}
	if s.Tempo > 0 {
		t.Low, t.High = math.Round(minutes*60/1.1), math.Round(minutes*60/0.9)
		t.Why = fmt.Sprintf("%g quarter notes with the repeats at the written tempo, a tenth quicker or slower", t.Quarters)
		return t
	}
	t.Low, t.High = math.Round(t.Quarters*60/quickest), math.Round(t.Quarters*60/slowest)
	t.Why = fmt.Sprintf("no tempo is written: %g quarter notes with the repeats, at %d to %d a minute", t.Quarters, slowest, quickest)
	return t
}
