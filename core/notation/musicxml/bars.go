package musicxml

import (
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// barEnds is what the length of a bar is decided from, over all parts.
type barEnds struct {
	bar      score.Bar
	nominal  rational.Rat // by the time signature; 0 without one
	furthest rational.Rat
	implicit bool
	voices   []voiceEnd
}

type voiceEnd struct {
	part, voice string
	end         rational.Rat
	line        int
}

// rounding is the overrun that a voice may owe to a program's rounding of
// tuplets to whole divisions; it is taken as none.
var rounding = rational.New(1, 16)

// closeBar records where the voices of one part end in a bar.
func (r *reader) closeBar(p *partState, implicit bool, line int) {
	for p.bar >= len(r.ends) { // a bar without any part, in a score ordered by time, holds nothing
		nominal := rational.Rat{}
		if p.beatUnit > 0 {
			nominal = rational.New(int64(p.beats)*4, int64(p.beatUnit))
		}
		r.ends = append(r.ends, barEnds{nominal: nominal, bar: score.Bar{
			Label: p.label, Beats: p.beats, BeatUnit: p.beatUnit, Fifths: p.fifths, Mode: p.mode,
		}})
	}
	e := &r.ends[p.bar]
	e.implicit = e.implicit || implicit
	e.bar.RepeatStart = e.bar.RepeatStart || p.repeatStart
	e.bar.RepeatEnd = max(e.bar.RepeatEnd, p.repeatEnd)
	if len(e.bar.Endings) == 0 {
		e.bar.Endings = p.endings
	}
	if p.endingStops {
		p.endings = nil
	}
	e.furthest = rational.Max(e.furthest, r.quarters(p, p.furthest))
	for voice, end := range p.voiceEnds {
		e.voices = append(e.voices, voiceEnd{p.id, voice, r.quarters(p, end), line})
	}
}

// settleBars decides each bar's length from all parts and moves the notes to
// their time in the piece. A bar lasts as long as what is written in it: a
// pickup and a split bar are shorter than their time signature. A bar whose
// voices all agree on being longer is believed and listed; a voice that alone
// runs past the end makes the bar as long as it is, and that is listed as mended.
func (r *reader) settleBars() {
	bars := make([]score.Bar, len(r.ends))
	var start rational.Rat
	for i := range r.ends {
		e := &r.ends[i]
		length := e.furthest
		if !e.nominal.IsZero() && e.nominal.Less(length) {
			length = r.overlong(e)
		}
		if length.IsZero() {
			length = e.nominal
		}
		e.bar.Start, e.bar.Length = start, length
		e.bar.Short = length.Less(e.nominal)
		bars[i] = e.bar
		start = start.Add(length)
	}
	r.score.Bars = bars
	for i := range r.score.Notes {
		n := &r.score.Notes[i]
		n.Onset = n.Onset.Add(bars[n.Bar-1].Start)
	}
	for i := range r.score.Signs {
		s := &r.score.Signs[i]
		s.At = s.At.Add(bars[s.Bar-1].Start)
	}
}

// overlong decides the length of a bar with something in it past its time signature.
func (r *reader) overlong(e *barEnds) rational.Rat {
	limit := e.nominal.Add(rounding)
	agree, over := len(e.voices) > 1 || e.implicit, (*voiceEnd)(nil)
	for i := range e.voices {
		v := &e.voices[i]
		if limit.Less(v.end) && (over == nil || v.voice < over.voice) {
			over = v
		}
		if v.end.Cmp(e.furthest) != 0 && !e.implicit {
			agree = false
		}
	}
	if over == nil {
		return e.nominal // rounding, or a forward past the end, which holds no music
	}
	if !agree {
		r.score.Mend("a voice that runs past its bar (the bar was taken as long as the voice)", score.Place(over.part, e.bar.Label), e.bar.Label)
		return e.furthest
	}
	r.score.AddSkip("bars longer than their time signature (taken as written)", "bar "+e.bar.Label)
	return e.furthest
}
