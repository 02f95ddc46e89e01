package load

import (
	"slices"
	"strings"

	"patientladder/core/notation/score"
)

// Pace is how fast a piece goes.
type Pace struct {
	// Quarters a minute, above 0.
	Quarters float64 `json:"quarters"`
	// Given says that it is written or set by the teacher, Word that it follows from a tempo word; with neither it is ours.
	Given bool   `json:"given"`
	Word  string `json:"word,omitempty"`
}

// usual is the tempo of a piece for which nothing is written, in beats a minute (default).
const usual = 92

// words are tempo words with the beats a minute that they usually mean (common practice, from memory; the middle of what
// metronomes print).
var words = []struct {
	word  string
	beats float64
}{
	{"prestissimo", 190}, {"presto", 176}, {"vivacissimo", 172}, {"vivace", 152}, {"vivo", 150}, {"allegrissimo", 160}, {"allegretto", 112},
	{"allegro", 132}, {"moderato", 104}, {"andantino", 88}, {"andante", 80}, {"adagietto", 74}, {"adagio", 66}, {"larghetto", 62},
	{"largo", 50}, {"lento", 54}, {"grave", 44}, {"con moto", 100}, {"animato", 126}, {"lively", 126}, {"quick", 126}, {"fast", 132},
	{"slow", 60}, {"lebhaft", 126}, {"schnell", 138}, {"langsam", 60}, {"mässig", 96}, {"bewegt", 108},
}

// PaceOf is the tempo that is set, else the one that is written, else that of a tempo word, else a middling one.
func PaceOf(s *score.Score, set float64) Pace {
	switch {
	case set > 0:
		return Pace{Quarters: set, Given: true}
	case s.Tempo > 0:
		return Pace{Quarters: s.Tempo, Given: true}
	}
	beat := 1.0
	if len(s.Bars) > 0 {
		beat = s.Bars[0].Beat().Float()
	}
	for _, x := range s.Signs {
		if x.Kind != score.Words {
			continue
		}
		text := strings.ToLower(x.Text)
		for _, w := range words {
			if strings.Contains(text, w.word) {
				return Pace{Quarters: w.beats * beat, Word: x.Text}
			}
		}
	}
	return Pace{Quarters: usual * beat}
}

// seconds is how long a quarter note lasts in each bar: the changes of tempo within the piece hold in proportion.
func (p Pace) seconds(s *score.Score) []float64 {
	next := make([]float64, len(s.Bars)+1)
	for _, x := range s.Signs {
		if x.Kind == score.TempoMark && x.Value > 0 && x.Bar >= 1 {
			next[x.Bar-1] = x.Value
		}
	}
	factor, now := 1.0, s.Tempo
	if now > 0 {
		factor = p.Quarters / now
	} else {
		now = p.Quarters
	}
	out := make([]float64, len(s.Bars))
	for i := range out {
		if next[i] > 0 {
			now = next[i]
		}
		out[i] = 60 / (now * factor)
	}
	return out
}

func sortedBars(bars []int) []int {
	slices.Sort(bars)
	return slices.Compact(bars)
}
