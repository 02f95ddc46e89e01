// Package mood proposes what a piece is like, in the words by which taste is learned (see material.Tags), from tempo, mode,
// loudness, touch and fullness. It proposes; the teacher keeps what is right. The bounds are ours (defaults), after how
// teachers describe pieces (common practice).
package mood

import (
	"slices"

	"patientladder/core/library/dimension"
	"patientladder/core/notation/score"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/load"
)

// Proposal is one word with what speaks for it.
type Proposal struct {
	Tag string
	Why string
}

const (
	// quick and slow are beats a minute; fast is notes a second of one hand.
	quick, slow = 112, 84
	fast        = 6.0
	// full is notes a second of one hand, chords note by note, from which a slow or middling piece is grand.
	full = 4.0
	// most is the part of the bars in which something must be to be like the piece, often is less.
	most, often = 0.5, 0.25
)

// Of proposes words for a piece at a tempo in quarter notes a minute, 0 for the written one, in the order of material.Tags.
func Of(p *analysis.Piece, tempo float64) []Proposal {
	if len(p.Score.Bars) == 0 || len(p.Lines) == 0 {
		return nil
	}
	pace := load.PaceOf(p.Score, tempo)
	told := pace.Given || pace.Word != "" // otherwise the tempo says nothing
	beats := pace.Quarters / p.Score.Bars[0].Beat().Float()
	loads := map[dimension.ID]float64{}
	for _, l := range p.Loads(tempo) {
		loads[l.Dimension] = l.Value
	}
	features := p.Features()
	share := func(names ...string) float64 {
		var bars []int
		for _, name := range names {
			bars = append(bars, features[name]...)
		}
		slices.Sort(bars)
		return float64(len(slices.Compact(bars))) / float64(len(p.Score.Bars))
	}
	loudest, marked := loudness(p)
	var out []Proposal
	add := func(is bool, tag, why string) {
		if is {
			out = append(out, Proposal{tag, why})
		}
	}
	short, smooth := share("touch.staccato", "touch.staccatissimo"), share("slur", "slur.long")
	add(told && loads[dimension.Speed] >= fast, "fast and showy", "many notes a second")
	add(told && loads[dimension.Speed] < fast && beats >= quick && loads[dimension.Speed] >= fast/2, "lively", "a quick beat, and notes between the beats")
	add(told && beats < quick && smooth >= most && smooth > short, "lyrical", "long slurs at a quiet pace")
	add(told && beats >= (quick+slow)/2 && short >= most && p.Key.Mode == "major", "comic", "short notes in major, not slowly")
	add(marked && loudest <= 2 || told && !marked && beats < slow && loads[dimension.Speed] < 2, "quiet", "soft or slow all through")
	add(told && marked && loudest >= 4 && beats < quick && loads[dimension.Density] >= full, "grand", "loud and full, not quickly")
	add(share("syncopation", "syncopation.beats") >= often, "rhythmic", "off the beat in many bars")
	add(told && p.Key.Minor() && beats < quick && short < most, "sad", "minor, and not quick")
	add(share("accidental") >= most && !p.Key.Sure(), "strange", "many signs, and a key that is hard to name")
	return out
}

// levels are how loud a dynamic is.
var levels = map[string]int{"ppp": 0, "pp": 0, "p": 1, "mp": 2, "mf": 3, "f": 4, "ff": 5, "fff": 5}

// loudness is the loudest dynamic of the student's part; marked is false where none is written.
func loudness(p *analysis.Piece) (loudest int, marked bool) {
	for _, x := range p.Score.Signs {
		if level, known := levels[x.Text]; x.Kind == score.Dynamic && known && p.Plays[x.Part] {
			loudest, marked = max(loudest, level), true
		}
	}
	return loudest, marked
}
