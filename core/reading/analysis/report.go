package analysis

import (
	"math"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/key"
	"patientladder/core/reading/load"
	"patientladder/core/reading/pattern"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
)

// Report is a piece as `ladder analyze` prints it; docs/formats.md documents
// it. All bars are positions from 1.
type Report struct {
	Title      string            `json:"title"`
	Composer   string            `json:"composer,omitempty"`
	Instrument string            `json:"instrument"`
	Bars       []ReportBar       `json:"bars"`
	Parts      []ReportPart      `json:"parts"`
	Lines      []ReportLine      `json:"lines"`
	Texture    material.Texture  `json:"texture"`
	Findings   Findings          `json:"findings"`
	Patterns   pattern.Load      `json:"patterns"`
	Share      float64           `json:"learningLoad"`
	Motifs     []pattern.Motif   `json:"motifs"`
	Chunks     chunk.Chunk       `json:"chunks"`
	Time       Time              `json:"time"`
	Demands    []material.Demand `json:"demands"`
	Key        key.Key           `json:"key"`
	Phrases    []ReportPhrase    `json:"phrases"`
	// Difficulty is how hard it is for a beginner (see material.Material), Loads the dimensions of it.
	Difficulty float64         `json:"difficulty"`
	Loads      []material.Load `json:"loads"`
	// Pace is the tempo in quarter notes a minute at which the loads hold, and where it comes from.
	Pace    load.Pace    `json:"pace"`
	Skipped []score.Skip `json:"skipped"`
}

// Findings are the findings by name in each field of the work.
type Findings struct {
	Rhythm     finding.Set `json:"rhythm"`
	Pitch      finding.Set `json:"pitch"`
	Texture    finding.Set `json:"texture"`
	Expression finding.Set `json:"expression"`
	Technique  finding.Set `json:"technique"`
}

// ReportPhrase is a phrase.
type ReportPhrase struct {
	From   int    `json:"from"`
	To     int    `json:"to"`
	Upbeat bool   `json:"upbeat,omitempty"`
	Why    string `json:"why"`
}

// ReportBar is a bar.
type ReportBar struct {
	Label  string       `json:"label"`
	Start  rational.Rat `json:"start"`
	Length rational.Rat `json:"length"`
	Time   string       `json:"time,omitempty"`
	Key    string       `json:"key"`
}

// ReportPart is a part.
type ReportPart struct {
	Name   string `json:"name"`
	Staves int    `json:"staves"`
	// Played says that the part is the student's own.
	Played bool `json:"played"`
}

// ReportLine is a hand or a part.
type ReportLine struct {
	Hand     reading.Hand       `json:"hand"`
	Part     int                `json:"part"`
	Staff    int                `json:"staff"`
	Start    reading.Start      `json:"start"`
	Notes    []reading.UsedNote `json:"notes"`
	Moves    []ReportMove       `json:"moves"`
	Guides   []reading.Guided   `json:"guides"`
	Position position.Result    `json:"position"`
	Patterns *pattern.Load      `json:"patterns,omitempty"`
}

// ReportMove is the way from one onset to the next.
type ReportMove struct {
	Bar       int               `json:"bar"`
	At        rational.Rat      `json:"at"`
	From      string            `json:"from"`
	To        string            `json:"to"`
	Direction reading.Direction `json:"direction"`
	Kind      reading.Kind      `json:"kind"`
	Interval  reading.Interval  `json:"interval"`
}

// Report puts a piece into its printed form. LeafBars is the size of the
// smallest chunks, own the teacher's borders; demands come from the table.
func (p *Piece) Report(leafBars int, own chunk.Borders, demands []material.Demand) Report {
	s := p.Score
	r := Report{
		Title: s.Title, Composer: s.Composer, Instrument: p.Instrument, Bars: []ReportBar{}, Parts: []ReportPart{}, Lines: []ReportLine{},
		Texture:  p.TextureName(),
		Findings: Findings{p.Rhythm, p.Pitch, p.Texture, p.Expression, p.Technique},
		Patterns: p.Load, Share: p.Load.Share(), Motifs: p.Motifs, Chunks: p.Chunks(leafBars, own), Time: p.Time, Demands: demands,
		Skipped: s.Skipped,
	}
	r.Key = p.Key
	for _, c := range chunk.Phrases(s, p.Load, own) {
		r.Phrases = append(r.Phrases, ReportPhrase{c.From, c.To, c.Upbeat, c.Why})
	}
	r.Pace = load.PaceOf(s, 0)
	r.Loads = p.Loads(0)
	m := material.Material{Instrument: p.Instrument, Loads: r.Loads}
	r.Difficulty, _ = m.Difficulty()
	r.Difficulty = math.Round(100*r.Difficulty) / 100
	if r.Skipped == nil {
		r.Skipped = []score.Skip{}
	}
	for i, b := range s.Bars {
		r.Bars = append(r.Bars, ReportBar{Label: s.BarLabel(i + 1), Start: b.Start, Length: b.Length, Time: b.TimeName(), Key: b.KeyName()})
	}
	for i, part := range s.Parts {
		r.Parts = append(r.Parts, ReportPart{Name: part.Name, Staves: part.Staves, Played: p.Plays[i]})
	}
	for i := range p.Lines {
		l := &p.Lines[i]
		line := ReportLine{
			Hand:     l.Hand,
			Part:     l.Part,
			Staff:    l.Staff,
			Start:    l.Start,
			Notes:    reading.NotesUsed(s, l.Line),
			Moves:    []ReportMove{},
			Position: l.Position,
			Guides:   reading.Guides(s, l.Line, func(score.Pitch) bool { return false }),
		}
		if len(p.Lines) > 1 {
			line.Patterns = &l.Load
		}
		for _, m := range l.Moves {
			to := &s.Notes[m.To]
			line.Moves = append(line.Moves, ReportMove{
				Bar: m.Bar, At: to.Onset, From: s.Notes[m.From].Pitch.String(), To: to.Pitch.String(),
				Direction: m.Direction, Kind: m.Kind, Interval: m.Interval,
			})
		}
		r.Lines = append(r.Lines, line)
	}
	return r
}
