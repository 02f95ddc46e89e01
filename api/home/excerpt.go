package home

import (
	"context"
	"strings"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/library/material"
	"patientladder/core/notation/engrave"
	"patientladder/core/notation/score"
	"patientladder/core/planning/week"
)

// Widths of excerpts in staff spaces before they go on in a second system, and
// how many bars are drawn at the most.
const (
	phoneWidth  = 34.0
	excerptBars = 8
)

// excerpts draws the bars of items; each score is read once.
type excerpts struct {
	desk    *open.Desk
	student open.Student
	width   float64
	read    map[string]*open.Score
	order   []string
}

func newExcerpts(d *open.Desk, s open.Student, width float64) *excerpts {
	return &excerpts{desk: d, student: s, width: width, read: map[string]*open.Score{}}
}

// open reads the score of a material; nil without one.
func (e *excerpts) open(ctx context.Context, id string) (*open.Score, error) {
	if o, done := e.read[id]; done {
		return o, nil
	}
	m, known := e.student.Library[id]
	if !known {
		return nil, nil
	}
	o, err := e.desk.Read(ctx, e.student.Tenant, m)
	if err != nil {
		return nil, err
	}
	e.read[id] = o
	e.order = append(e.order, id)
	return o, nil
}

// staves are those that a hand plays, counted from 1; nil for all.
func staves(s *score.Score, hand string) []engrave.Staff {
	all := engrave.Staves(s)
	if len(all) < 2 || hand == "" {
		return nil
	}
	if strings.HasPrefix(hand, "left") {
		return all[1:]
	}
	return all[:1]
}

// draw draws the bars of an item; nil where there is nothing to draw, or too much.
func (e *excerpts) draw(ctx context.Context, it week.Item) (*engrave.Drawing, *open.Score, error) {
	o, err := e.open(ctx, it.Material)
	if err != nil || o == nil || it.End <= it.Start {
		return nil, o, err
	}
	switch it.Kind {
	case week.Review, week.Listen, week.Whole, week.Drilled:
		return nil, o, nil
	}
	end := it.End
	if it.Kind == week.Look || it.Kind == week.Hear { // where it begins is enough
		if last := min(4, len(o.Score.Bars)); last > 0 {
			b := o.Score.Bars[last-1]
			end = min(end, b.Start.Float()+b.Length.Float())
		}
	} else if it.Bars.To-it.Bars.From >= excerptBars {
		return nil, o, nil
	}
	d := engrave.Stretch(o.Score, it.Start, end, staves(o.Score, it.Hand), e.width)
	if d.Width == 0 {
		return nil, o, nil
	}
	return &d, o, nil
}

func (e *excerpts) familyItem(ctx context.Context, it week.Item) (contract.FamilyItem, error) {
	words := e.student.Words.Text(it.Words)
	out := contract.FamilyItem{
		Key: it.Key, Kind: contract.FamilyItemKind(it.Kind), Material: it.Material, Title: it.Title, Where: where(e.student.Library, it), Hand: it.Hand,
		Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: words, Goals: append([]string{}, it.Goals...), Hands: []int{},
	}
	d, o, err := e.draw(ctx, it)
	if err != nil {
		return out, err
	}
	if d != nil {
		out.Excerpt = contract.Excerpt{Width: answer.Thousandths(d.Width), Height: answer.Thousandths(d.Height), Shapes: d.SVG(), Heads: []contract.ExcerptHead{}}
		for _, h := range d.Heads {
			out.Excerpt.Heads = append(out.Excerpt.Heads, contract.ExcerptHead{At: h.At, X: answer.Thousandths(h.X), Y: answer.Thousandths(h.Y)})
		}
	}
	if o != nil {
		out.Start, out.End = it.Start, it.End
		if all := engrave.Staves(o.Score); it.Hand != "" && len(all) > 1 {
			out.Hands = []int{0}
			if strings.HasPrefix(it.Hand, "left") {
				out.Hands = []int{1}
			}
		}
	}
	return out, nil
}

// music is what a device needs to play a piece.
func music(m material.Material, s *score.Score) contract.FamilyMusic {
	out := contract.FamilyMusic{Material: m.ID, Tempo: m.Tempo, Sounds: []contract.SoundNote{}, Beats: []contract.MusicBeat{}}
	if out.Tempo <= 0 {
		out.Tempo = 80
	}
	at := answer.PlacesOf(s)
	for _, x := range s.Sounding() {
		if x.Duration.Num() > 0 {
			out.Sounds = append(out.Sounds, contract.SoundNote{At: x.Onset.Float(), Length: x.Duration.Float(), Midi: x.MIDI, Staff: at.Staff(x.Part, x.Staff), Bar: x.Bar})
		}
	}
	for _, b := range s.Bars {
		start, length, beat := b.Start.Float(), b.Length.Float(), b.Beat().Float()
		for t := 0.0; t < length-1e-6; t += beat {
			out.Beats = append(out.Beats, contract.MusicBeat{At: start + t, First: t == 0})
		}
	}
	return out
}
