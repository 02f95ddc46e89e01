// Package analysis reads a whole piece the way a teacher does and holds
// everything that was found: what `ladder analyze` prints and what the page of
// a piece and the table of demands are made from.
//
//	analysis.go  Of
//	tempo.go     playing time
package analysis

import (
	"sort"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/expression"
	"patientladder/core/reading/key"
	"patientladder/core/reading/load"
	"patientladder/core/reading/pattern"
	"patientladder/core/reading/pitch"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
	"patientladder/core/reading/rhythm"
	"patientladder/core/reading/texture"
)

// Piece is what was found in a score. Every finding carries its bars, as
// positions from 1.
type Piece struct {
	Score      *score.Score
	Instrument string
	// Plays says of each part whether it is the student's own.
	Plays []bool
	// AskPart says that which part that is was guessed.
	AskPart bool
	Lines   []Line
	// Rhythm, Pitch, Texture and Expression are findings by name; their
	// packages list the names.
	Rhythm, Pitch, Texture, Expression finding.Set
	// Technique holds shifts, stretches and weak-finger starts by name.
	Technique finding.Set
	Load      pattern.Load
	// Key is that of the whole, from the music as well as the mark.
	Key    key.Key
	Motifs []pattern.Motif
	Time   Time
}

// Line is one hand or part with what was found in it.
type Line struct {
	reading.Line
	Start    reading.Start
	Moves    []reading.Move
	Position position.Result
	// Load holds the patterns of this line alone.
	Load pattern.Load
}

// Of analyses a score that has at least one bar, for an instrument by its name
// (see package instrument).
func Of(s *score.Score, player string) *Piece { return OfPart(s, player, -1) }

// OfPart is Of with the part that the teacher said is the student's, −1 for the one that is proposed (see reading.Whose).
func OfPart(s *score.Score, player string, own int) *Piece {
	family, _ := instrument.FamilyOf(player)
	keyboard := family == instrument.Keyboard
	whose := reading.Whose(s, player, own)
	p := &Piece{Score: s, Instrument: player, Plays: whose.Plays, AskPart: whose.Ask}
	lines := reading.LinesOf(s, keyboard, p.Plays)
	moves := make([][]reading.Move, len(lines))
	for i, l := range lines {
		moves[i] = reading.Moves(s, l)
		line := Line{
			Line:  l,
			Moves: moves[i],
			Position: position.Result{
				Positions: []position.Position{},
				Shifts:    []position.Shift{},
				Stretches: []int{},
				Fingers:   []position.Finger{},
			},
		}
		if p.Plays[l.Part] {
			line.Position = position.Of(s, l, player)
		}
		line.Start, _ = reading.FindStart(s, l, fingerOf(line.Position))
		if len(lines) > 1 {
			line.Load = pattern.OfStaff(s, l.Part, l.Staff)
		}
		moves[i] = readMoves(line)
		p.Lines = append(p.Lines, line)
	}
	p.Rhythm = rhythm.Find(s, lines, p.Plays)
	p.Key = key.Of(s)
	p.Pitch = pitch.Find(s, lines, moves, p.Plays, p.Key)
	p.Texture = texture.Find(s, lines)
	p.Expression = expression.Find(s, p.Plays)
	p.Technique = technique(p)
	p.Load = pattern.Of(s)
	p.Motifs = pattern.Motifs(s, lines, p.Load)
	p.Time = playingTime(s)
	return p
}

// readMoves are the moves of a line that are read as such: on strings not those between open strings, which are found by
// their names.
func readMoves(l Line) []reading.Move {
	open := map[int]bool{}
	for _, f := range l.Position.Fingers {
		open[f.Note] = f.String > 0 && f.Finger == 0
	}
	if len(open) == 0 {
		return l.Moves
	}
	var out []reading.Move
	for _, m := range l.Moves {
		if !open[m.From] || !open[m.To] {
			out = append(out, m)
		}
	}
	return out
}

// fingerOf returns the proposed finger of a note, −1 where there is none.
func fingerOf(r position.Result) func(note int) int {
	fingers := make(map[int]int, len(r.Fingers))
	for _, f := range r.Fingers {
		fingers[f.Note] = f.Finger
	}
	return func(note int) int {
		if f, ok := fingers[note]; ok {
			return f
		}
		return -1
	}
}

// technique names what the positions ask of the hands:
//
//	shift, shift.thumb-under, shift.over-the-thumb, shift.at-a-rest, shift.jump
//	stretch, start.weak-finger, position.first (strings), position.higher
//	finger.3 (a stopped note on strings, by its finger), finger.2.low, finger.2.high, finger.2.both, string.open, string.crossing
//	picked (quick notes on different strings), fret.low (the first two), fret.third, fret.high
//	long (sixteen bars and more)
func technique(p *Piece) finding.Set {
	f := finding.Set{}
	for _, l := range p.Lines {
		if !p.Plays[l.Part] {
			continue
		}
		shifts(p.Score, l, f)
		for _, b := range l.Position.Stretches {
			f.Add("stretch", b)
		}
		if l.Start.WeakFinger {
			f.Add("start.weak-finger", l.Start.Bar)
		}
		strings(p.Score, l, p.Instrument, f)
		player, _ := instrument.Of(p.Instrument)
		fretted(p.Score, l, player, f)
		single(p.Score, l, player, f)
	}
	if len(p.Score.Bars) >= 16 {
		for i := range p.Score.Bars {
			f.Add("long", i+1)
		}
	}
	return f.Settle()
}

// strings names fingers, strings and positions on bowed and plucked instruments.
func strings(s *score.Score, l Line, player string, f finding.Set) {
	last := 0
	second := "" // how the second finger lay last
	for _, x := range l.Position.Fingers {
		if x.String == 0 {
			continue
		}
		n := &s.Notes[x.Note]
		switch {
		case x.Finger == 0:
			f.Add("string.open", n.Bar)
		case x.Finger == 2:
			name := "finger.2.high"
			if lowSecond(l, n, x.String, player) {
				name = "finger.2.low"
			}
			f.Add(name, n.Bar)
			if second != "" && second != name {
				f.Add("finger.2.both", n.Bar)
			}
			second = name
		case x.Finger > 0:
			f.Add("finger."+string(rune('0'+x.Finger)), n.Bar)
		}
		if family, _ := instrument.FamilyOf(player); family == instrument.Plucked && x.Finger > 0 {
			f.Add(fretName(n.MIDI-instrument.Tuning(player)[x.String-1]), n.Bar)
		}
		if last != 0 && x.String != last && !n.Chord {
			f.Add("string.crossing", n.Bar)
		}
		last = x.String
	}
	for _, p := range l.Position.Positions {
		name := "position.first"
		if len(p.Keys) > 0 && p.Keys[0] > 2 {
			name = "position.higher"
		}
		if last != 0 {
			f.Add(name, p.FromBar)
		}
	}
}

// lowSecond says that the second finger lies low at a note: the hand is where its position says.
func lowSecond(l Line, n *score.Note, str int, player string) bool {
	x, _ := instrument.Of(player)
	place := x.Hand.First
	for _, p := range l.Position.Positions {
		if len(p.Keys) > 0 && !n.Onset.Less(p.From) {
			place = p.Keys[0]
		}
	}
	return x.LowSecond(n.MIDI-x.Open[str-1].Semitone(), place)
}

// shifts names the moves of the hand. How it moves counts only where that is
// not ours to choose: at a rest, over a sixth or more, or with a printed finger.
func shifts(s *score.Score, l Line, f finding.Set) {
	given := map[rational.Rat]bool{}
	for _, x := range l.Position.Fingers {
		if x.Given {
			given[s.Notes[x.Note].Onset] = true
		}
	}
	wide := map[rational.Rat]bool{}
	for _, m := range l.Moves {
		if m.Interval.Number >= 6 {
			wide[s.Notes[m.To].Onset] = true
		}
	}
	for _, x := range l.Position.Shifts {
		f.Add("shift", x.Bar)
		if how, crosses := crossing(s, l, x); crosses {
			f.Add("shift."+hyphened(how), x.Bar)
			continue
		}
		if x.How == "at a rest" || given[x.At] || x.How == "jump" && wide[x.At] {
			f.Add("shift."+hyphened(x.How), x.Bar)
		}
	}
}

// crossing says that a line leaves its five fingers by step, without a rest: the thumb passes under on the way out from the
// thumb's side of the hand, or the hand passes over the thumb on the way back (common practice).
func crossing(s *score.Score, l Line, x position.Shift) (how string, crosses bool) {
	if l.Hand == reading.Whole || x.How == "at a rest" {
		return "", false
	}
	// Moves stand in the order of their notes: the one that leads to this moment is found by halving.
	first := sort.Search(len(l.Moves), func(i int) bool { return s.Notes[l.Moves[i].To].Onset.Cmp(x.At) >= 0 })
	if first < len(l.Moves) && s.Notes[l.Moves[first].To].Onset.Cmp(x.At) == 0 {
		m := l.Moves[first]
		if m.Kind != reading.Step || m.AfterRest || len(l.Onset[first].Notes) > 1 || len(l.Onset[first+1].Notes) > 1 {
			return "", false // a chord is carried, not passed under
		}
		if (m.Direction == reading.Up) == (l.Hand == reading.Right) {
			return "thumb under", true
		}
		return "over the thumb", true
	}
	return "", false
}

func hyphened(s string) string {
	b := []byte(s)
	for i := range b {
		if b[i] == ' ' {
			b[i] = '-'
		}
	}
	return string(b)
}

// Features returns all findings by name.
func (p *Piece) Features() finding.Set {
	f := finding.Set{}
	for _, set := range []finding.Set{p.Rhythm, p.Pitch, p.Texture, p.Expression, p.Technique} {
		f.Merge(set)
	}
	return f.Settle()
}

// TextureName says how many things happen at once.
func (p *Piece) TextureName() material.Texture {
	switch {
	case len(p.Texture["hands.together"]) > 0:
		return material.Together
	case len(p.Texture["hands.in-turn"]) > 0:
		return material.InTurn
	}
	return material.OneLine
}

// Chunks cuts the piece into chunks (see chunk.Tree).
func (p *Piece) Chunks(leafBars int, own chunk.Borders) chunk.Chunk {
	return chunk.Tree(p.Score, p.Load, leafBars, own)
}

// worthSmaller is the share of what would be learned that smaller chunks must save (default): bars that come again.
const worthSmaller = 0.25

// LeafBars is how many bars the smallest chunks of this piece have, most at the most: where much of it is made of patterns that
// come again, chunks as small as these patterns, so that each is learned once.
func (p *Piece) LeafBars(most int, own chunk.Borders) int {
	best := most
	learned := p.learned(most, own)
	for size := most / 2; size >= 1; size /= 2 {
		if l := p.learned(size, own); l <= (1-worthSmaller)*learned {
			best, learned = size, l
		}
	}
	return best
}

// learned is how much there is to learn in chunks of a size, in quarter notes: those that equal an earlier one are known.
func (p *Piece) learned(leafBars int, own chunk.Borders) (quarters float64) {
	tree := p.Chunks(leafBars, own)
	for _, c := range tree.Leaves() {
		if c.SameAs == 0 {
			quarters += c.Quarters()
		}
	}
	return quarters
}

// Opening says where the piece begins, for a practice sheet. Name says a note
// name in the words of the studio.
func (p *Piece) Opening(name func(string) string) string {
	var lines []reading.Line
	var starts []reading.Start
	for _, l := range p.Lines {
		lines, starts = append(lines, l.Line), append(starts, l.Start)
	}
	return reading.Opening(lines, starts, name)
}

// Loads say how hard the student's part is in each dimension at a tempo, in quarter notes a minute; 0 for the written one (see
// package load).
func (p *Piece) Loads(tempo float64) []material.Load {
	family, _ := instrument.FamilyOf(p.Instrument)
	lines := make([]load.Line, 0, len(p.Lines))
	for _, l := range p.Lines {
		if p.Plays[l.Part] {
			lines = append(lines, load.Line{Line: l.Line, Position: l.Position})
		}
	}
	return load.Of(p.Score, lines, family, load.PaceOf(p.Score, tempo))
}
