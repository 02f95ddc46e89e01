// Package athome says of one thing to do at home what somebody who reads no music needs: which hand, which
// finger, which key or string, what lies under the hand, how fast, what is said aloud, by what it is good enough and
// when to stop. It returns facts; package wording says them.
//
//	athome.go  the card of one thing to do
//	touch.go   where the hands begin and what lies under them
//	tempo.go   how fast
//	say.go     what is said aloud before it is played
package athome

import (
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/naming"
)

// Source is what a card is made from, beside the thing itself.
type Source struct {
	// Material is the piece or the exercise; its zero value for a bite without an exercise and for a game.
	Material material.Material
	// Piece is its score as it is read; nil without one.
	Piece *analysis.Piece
	// Age in years; Approach is how the student finds notes on the page.
	Age      int
	Approach naming.Approach
	// BySound says that reading has not begun: nothing is said of the page.
	BySound bool
	// RunDue says that it is practised as for a run; Mark is where its tempo ladder stands, 0 for none.
	RunDue bool
	Mark   int
	// Cue of a game, and the keys that are looked for in it.
	Cue  string
	Keys []int
}

// Card is one thing to do as a family needs it.
type Card struct {
	// Hands are those that play in it, the one that begins first in front; none where nobody knows.
	Hands []Hand
	Tempo Tempo
	// Say is said aloud before it is played, for those under seven; More says that it goes on.
	Say  []SayLine
	More bool
	// Signs are the directions of a line, drawn over the notes for those under seven.
	Signs []Sign
	Voice Voice
	// Good is by what it is good enough, End when to stop.
	Good Good
	End  End
	// Cue is a word in large letters at which something is done; empty for none.
	Cue string
	// Swaps says that the hands take turns and that a word helps to change them.
	Swaps bool
	// Marks are the dynamics that stand in it, each once, in their order: "p", "crescendo".
	Marks []string
	// Page of the book; 0 where it is in none, or nobody knows.
	Page int
	// Gaps are what cannot be known.
	Gaps []Gap
}

// Voice says to whom the card speaks.
type Voice string

// The voices.
const (
	// ToBoth has a sentence for the parent and one for the child.
	ToBoth Voice = "both"
	// ToOne speaks to the student alone.
	ToOne Voice = "one"
)

// grown is the age from which a student practises without a parent (default).
const grown = 13

// young is the age under which directions are said aloud and drawn (common practice).
const young = 7

// Gap is something about a thing to do that nobody knows.
type Gap string

// The gaps.
const (
	NoScore  Gap = "score"  // no notes are there
	NoHand   Gap = "hand"   // no hand is known
	NoFinger Gap = "finger" // the finger it begins with is not known
	NoTempo  Gap = "tempo"
)

// Good is by what it is good enough, one thing to see or to hear.
type Good string

// The ways to be good enough.
const (
	Pointed Good = "pointed" // pointed to the end without getting lost
	Hummed  Good = "hummed"  // the beginning can be hummed
	Same    Good = "same"    // the same fingers each time and no stop inside
	InRow   Good = "row"     // so many times right in a row
	NoGap   Good = "no-gap"  // no gap where two sections meet
	Level   Good = "level"   // the spot sounds like what stands beside it
	Through Good = "through" // to the end without a stop, however slowly
	AsARun  Good = "run"     // to the end without a stop, as it stands
	Goal    Good = "goal"    // its first goal
	Even    Good = "even"    // no note louder or later than the others
	Kept    Good = "kept"    // a learned piece goes to its end
	Shown   Good = "shown"   // it can be done without being shown
	Enough  Good = "enough"  // once through is enough
)

// End is when to stop.
type End string

// The ends.
const (
	Boxes End = "boxes" // when the boxes are full
	Once  End = "once"  // after one time
	Time  End = "time"  // after its minutes
)

// Of makes the card of a thing to do.
func Of(it week.Item, s Source) Card {
	c := Card{Voice: ToBoth, Page: s.Material.Page, Good: goodOf(it, s), End: endOf(it)}
	if s.Age >= grown {
		c.Voice = ToOne
	}
	if it.Kind == week.Game {
		c.Cue, c.Hands = s.Cue, lookedFor(s.Keys)
	}
	played := it.Kind != week.Game && it.Kind != week.Listen
	if played && s.Piece != nil {
		c.Hands = handsOf(it, s.Piece)
		c.Swaps = s.Age < young && inTurn(c.Hands, it, s.Piece)
		if s.Age < young && !s.BySound && said(it.Kind) {
			c.Say, c.More = sayOf(it, s, c.Hands)
			c.Signs = signsOf(it, s.Piece)
		}
	}
	if played && s.Piece != nil && !s.BySound {
		c.Marks = marksOf(it, s.Piece)
	}
	if played && it.Kind != week.Look && it.Kind != week.Hear {
		c.Tempo = tempoOf(it, s)
	}
	c.Gaps = c.gaps(it, s)
	return c
}

// marksOf are the dynamics that hold or begin in a stretch, each once.
func marksOf(it week.Item, p *analysis.Piece) (out []string) {
	holds := ""
	for _, x := range p.Score.Signs {
		at, mark := x.At.Float(), ""
		switch x.Kind {
		case score.Dynamic:
			mark = x.Text
		case score.Crescendo, score.Diminuendo:
			mark = string(x.Kind)
		}
		switch {
		case mark == "" || it.End > it.Start && at >= it.End-1e-9:
		case it.End > it.Start && at < it.Start-1e-9:
			if x.Kind == score.Dynamic {
				holds = mark
			}
		case len(out) == 0 && holds != "" && at > it.Start+1e-9 && holds != mark:
			out = append(out, holds, mark)
		case !slices.Contains(out, mark):
			out = append(out, mark)
		}
	}
	if len(out) == 0 && holds != "" {
		out = []string{holds}
	}
	return out
}

// said are the kinds before which something is said aloud.
func said(k week.Kind) bool {
	switch k {
	case week.Look, week.Chunk, week.Again, week.Spot, week.Join:
		return true
	}
	return false
}

// gaps are what is missing that the kind asks for.
func (c Card) gaps(it week.Item, s Source) (out []Gap) {
	switch it.Kind {
	case week.Game, week.Listen, week.Preview: // words say it
		return nil
	}
	if s.Piece == nil {
		out = append(out, NoScore)
	}
	if len(c.Hands) == 0 {
		out = append(out, NoHand)
	}
	for _, h := range c.Hands {
		if h.Finger < 0 {
			out = append(out, NoFinger)
			break
		}
	}
	if c.Tempo.Beats == 0 && it.Kind != week.Look && it.Kind != week.Hear {
		out = append(out, NoTempo)
	}
	return out
}

func goodOf(it week.Item, s Source) Good {
	switch it.Kind {
	case week.Look:
		return Pointed
	case week.Hear, week.Listen:
		return Hummed
	case week.Join:
		return NoGap
	case week.Spot:
		return Level
	case week.Whole:
		if s.RunDue {
			return AsARun
		}
		if s.Piece == nil {
			return Even
		}
		return Through
	case week.Drilled:
		switch {
		case s.RunDue:
			return AsARun
		case len(it.Goals) > 0:
			return Goal
		}
		return Even
	case week.Review:
		return Kept
	case week.Preview:
		return Shown
	case week.Game:
		return Enough
	}
	if it.InRow {
		return InRow
	}
	return Same
}

func endOf(it week.Item) End {
	switch {
	case it.Times > 1:
		return Boxes
	case it.Kind == week.Game || it.Kind == week.Look || it.Kind == week.Hear:
		return Time
	}
	return Once
}
