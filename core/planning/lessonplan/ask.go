package lessonplan

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/reading"
)

// Question is asked before a piece is played (common practice), with what the
// analysis answers; the student answers first.
type Question struct {
	Ask    string `json:"ask"`
	Answer string `json:"answer"`
}

// Stage is what decides which questions fit a student.
type Stage struct {
	Age int
	// BySound says that the student does not read yet; Cleared counts the pieces cleared so far.
	BySound bool
	Cleared int
	// Fresh are the skills that are new in the piece, by name.
	Fresh []string
}

const (
	// askYoung is the age under which only what can be pointed at or sung is asked (default).
	askYoung = 7
	// askKeys is from which age on, or after how many cleared pieces, keys and intervals are asked for (default).
	askKeysAge, askKeysCleared = 9, 20
)

// Ask draws the questions from the analysis of a piece, with what the student should find, for the teacher: bars and
// notes. Who does not read yet is asked by ear; the young what can be pointed at; others why this tempo and mood, where it
// begins, where an interval is, what key and where home is, what repeats, where the hand moves, what is new. Name says a note
// in the studio's words.
func Ask(p *analysis.Piece, m material.Material, name func(string) string, st Stage) []Question {
	var out []Question
	ask := func(question, answer string) {
		if answer != "" {
			out = append(out, Question{question, answer})
		}
	}
	up := firstMove(p, name)
	switch {
	case st.BySound:
		ask("Sing how it begins: does it go up or down?", up)
		ask("Where do you hear the same again?", repeats(p, m))
		ask("Does the end sound like home?", ends(p, name))
		return out
	case st.Age < askYoung:
		ask("Where does it begin: which hand, finger, key?", p.Opening(name))
		ask("Point: does it go up, down or stay?", up)
		ask("What comes back?", repeats(p, m))
		return out
	}
	mood := strings.Join(m.Tags, ", ")
	if m.Tempo > 0 {
		mood = strings.TrimPrefix(fmt.Sprintf("%s; about %.0f crotchets a minute", mood, m.Tempo), "; ")
	}
	ask("What mood is it in, and why this tempo?", mood)
	ask("Where does it begin: which hand, finger, key?", p.Opening(name))
	if keys := st.Age >= askKeysAge || st.Cleared >= askKeysCleared; keys {
		if bar, interval, from, to, ok := widest(p); ok {
			ask(
				fmt.Sprintf("Where is a %s, and what are its notes?", interval),
				fmt.Sprintf("%s: %s and %s", m.BarsName([]int{bar}), name(from), name(to)),
			)
		}
		if p.Key.Sure() {
			ask("What key is it in, and where is home?", name(p.Key.Tonic)+" "+p.Key.Mode+"; "+home(p, p.Key.Tonic, name))
		}
	} else {
		ask("Does it go up or down first?", up)
	}
	ask("What repeats?", repeats(p, m))
	ask("Where does a hand move?", moves(p, m))
	if len(st.Fresh) > 0 {
		ask("What is new in it?", strings.Join(st.Fresh, ", "))
	}
	return out
}

// firstMove says where the first line goes first, with its notes; empty where it only stays.
func firstMove(p *analysis.Piece, name func(string) string) string {
	for _, l := range p.Lines {
		for _, m := range l.Moves {
			from, to := p.Score.Notes[m.From].Pitch, p.Score.Notes[m.To].Pitch
			switch d := to.Semitone() - from.Semitone(); {
			case d > 0:
				return fmt.Sprintf("up, from %s to %s", name(noteName(p, m.From)), name(noteName(p, m.To)))
			case d < 0:
				return fmt.Sprintf("down, from %s to %s", name(noteName(p, m.From)), name(noteName(p, m.To)))
			}
		}
	}
	return ""
}

// ends says whether it ends at home; empty where the key is not known.
func ends(p *analysis.Piece, name func(string) string) string {
	if !p.Key.Sure() {
		return ""
	}
	return home(p, p.Key.Tonic, name)
}

// ordinals are the names of intervals by their number.
var ordinals = map[int]string{3: "third", 4: "fourth", 5: "fifth", 6: "sixth", 7: "seventh", 8: "octave"}

// widest is the widest move that is more than a step and has a name, the first of its size.
func widest(p *analysis.Piece) (bar int, interval, from, to string, ok bool) {
	most := 2
	for _, l := range p.Lines {
		for _, m := range l.Moves {
			if m.Kind == reading.Stay || m.Interval.Number <= most || ordinals[m.Interval.Number] == "" {
				continue
			}
			most, ok = m.Interval.Number, true
			bar, interval = m.Bar, ordinals[m.Interval.Number]
			from, to = noteName(p, m.From), noteName(p, m.To)
		}
	}
	return bar, interval, from, to, ok
}

// noteName is a note without its octave.
func noteName(p *analysis.Piece, note int) string {
	return strings.TrimRight(p.Score.Notes[note].Pitch.String(), "-0123456789")
}

// home says whether the lowest line ends on the tonic.
func home(p *analysis.Piece, tonic string, name func(string) string) string {
	for i := len(p.Lines) - 1; i >= 0; i-- {
		if n := len(p.Lines[i].Moves); n > 0 {
			last := noteName(p, p.Lines[i].Moves[n-1].To)
			if last == tonic {
				return "it ends at home, on " + name(tonic)
			}
			return fmt.Sprintf("it ends away from home, on %s", name(last))
		}
	}
	return "home is " + name(tonic)
}

func repeats(p *analysis.Piece, m material.Material) string {
	var out []string
	for _, pattern := range p.Load.Patterns {
		if len(pattern.Bars) > 1 && len(out) < 3 {
			out = append(out, fmt.Sprintf("%s are the same", m.BarsName(pattern.Bars)))
		}
	}
	if len(out) == 0 && p.Load.Bars > 1 {
		return "no bar comes again as it was"
	}
	return strings.Join(out, "; ")
}

func moves(p *analysis.Piece, m material.Material) string {
	var bars []int
	seen := map[int]bool{}
	for _, l := range p.Lines {
		for _, s := range l.Position.Shifts {
			if !seen[s.Bar] {
				seen[s.Bar] = true
				bars = append(bars, s.Bar)
			}
		}
	}
	if len(bars) == 0 {
		return "nowhere: one position holds it all"
	}
	return "into another position at " + m.BarsName(sorted(bars))
}

func sorted(bars []int) []int {
	slices.Sort(bars)
	return bars
}
