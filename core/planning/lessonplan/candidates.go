package lessonplan

import (
	"fmt"
	"math"

	"patientladder/core/library/material"
	"patientladder/core/planning/review"
)

// Piece is a piece in work as a lesson sees it.
type Piece struct {
	Material material.Material
	RunDue   bool
	// Stuck says that it had no new mark for too long, or takes too long.
	Stuck bool
	// Spots are the open ones; Full of Points focus points have their mark.
	Spots        int
	Full, Points int
	// Focus are the points that are still open, the next one first.
	Focus []string
}

// Bite is a preview step that is due.
type Bite struct {
	Skill, Name, Text string
	// For is the title of the piece that will need it; Slack the lessons to spare.
	For   string
	Slack int
}

// Learned is a learned piece with what playing it once takes.
type Learned struct {
	review.Chosen
	Title string
}

// Fresh is the rung that could be begun.
type Fresh struct {
	Material material.Material
	Leap     float64
	// Why is the sentence of the proposal.
	Why string
}

// Input is what the candidates of a lesson are made from.
type Input struct {
	Age        int
	Instrument string
	Pieces     []Piece
	Bites      []Bite
	Reviews    []Learned
	// Fresh are rungs of strands on which nothing is in work.
	Fresh []Fresh
	// Gap is the number of days to the lesson after this one.
	Gap int
	// Beginner looks at posture in every lesson; SetupDue when bench and feet are to be measured again.
	Beginner, SetupDue bool
	// Used are the activities done so far.
	Used Used
	// Waited are the segments that stayed out of the last lesson.
	Waited map[string]bool
}

// hearing is the longest gap, in days, after which a new scale is still heard the week after.
const hearing = 9

// LimitsFor are the limits for an age (defaults): a first lesson at three has
// nothing over a minute, and the very young begin one new thing at a time.
func LimitsFor(age, minutes int, reviewShare float64) Limits {
	l := Limits{Minutes: minutes, ReviewShare: reviewShare, OneNew: age < 6}
	switch {
	case age < 4:
		l.Longest = 1
	case age < 5:
		l.Longest = 3
	case age < 7:
		l.Longest = 6
	case age < 10:
		l.Longest = 10
	}
	return l
}

// Candidates lists everything that could be in a lesson, with what each is worth and why.
func Candidates(in Input) []Segment {
	c := &candidates{in: in}
	c.frame()
	for _, p := range in.Pieces {
		c.piece(p)
	}
	for _, b := range in.Bites {
		c.bite(b)
	}
	for _, f := range in.Fresh {
		c.fresh(f)
	}
	for _, r := range in.Reviews {
		c.learned(r)
	}
	for i, a := range Activities(in.Instrument, in.Age, in.Used) {
		if in.Age < veryYoung || i < 2 { // older students have ear and rhythm as the salt
			if in.Age >= veryYoung {
				a.Value *= 0.5
			}
			c.add(a)
		}
	}
	return c.list
}

type candidates struct {
	in   Input
	list []Segment
}

func (c *candidates) add(s Segment) {
	if c.in.Waited[s.ID] {
		s.Value *= 1.25
		s.Why += "; it had to wait last time"
	}
	c.list = append(c.list, s)
}

func (c *candidates) frame() {
	one := 2
	if c.in.Age < veryYoung {
		one = 1
	}
	c.add(Segment{ID: "opening", Kind: Opening, Layer: Frame, Title: "Hello", Least: 1, Usual: one, Most: 3, Value: 0.4, Must: true,
		Words: []string{"What was played first at home? What was easy, what was not?"}, Why: "every lesson begins with what happened at home"})
	posture := Segment{ID: "posture", Kind: Posture, Layer: Frame, Title: "Sit, feet, hands", Least: 1, Usual: 1, Most: 2, Value: 0.25,
		Words: []string{"Feet on something firm, seat in the front half, hands as they hang. One thing only."}, Why: "looked at again and again, a little"}
	if c.in.Beginner {
		posture.Value, posture.Why = 0.5, "a beginner's posture is looked at in every lesson, a little"
	}
	if c.in.SetupDue {
		posture.Value, posture.Usual, posture.Most, posture.Why = 1, 2, 4, "bench and feet are due to be measured again: children grow"
	}
	c.add(posture)
	c.add(Segment{ID: "closing", Kind: Closing, Layer: Frame, Title: "Two things that went well", Least: 1, Usual: one, Most: 3, Value: 0.4, Must: true,
		Words: []string{"The student names two things that went well, in words of their own; then what to do at home."}, Why: "every lesson ends with what went well"})
}

// piece adds what a piece in work could have: its own minutes, a run that is due, its spots.
func (c *candidates) piece(p Piece) {
	m := p.Material
	s := Segment{ID: "working " + m.ID, Kind: Working, Layer: Now, Material: m.ID, Title: m.Title, Least: 4, Usual: 8, Most: 14, Value: 2, Words: p.Focus,
		Why: fmt.Sprintf("in work; %d of %d points have their mark", p.Full, p.Points)}
	switch m.Strand {
	case material.Technique:
		s.Kind, s.Least, s.Usual, s.Most, s.Value = Technique, 3, 6, 10, 1.3
	case material.Reading:
		s.Kind, s.Least, s.Usual, s.Most, s.Value = Reading, 3, 5, 8, 1
	}
	if p.Stuck {
		s.Value += 0.5
		s.Why += "; it is stuck"
	}
	if p.RunDue {
		play := 1 + minutesOf(m)
		c.add(Segment{ID: "run " + m.ID, Kind: Run, Layer: Now, Material: m.ID, Title: "A run of “" + m.Title + "”", Least: play, Usual: play + 1, Most: play + 3,
			Value: 2, Why: "every point has its mark: the run is due"})
		s.Least, s.Usual, s.Most, s.Value = 2, 3, 6, 0.3*s.Value
	}
	c.add(s)
	if p.Spots > 0 {
		c.add(Segment{ID: "spots " + m.ID, Kind: Spots, Layer: Now, Material: m.ID, Title: "Spots in “" + m.Title + "”", Least: 2, Usual: 3, Most: 5,
			Value: 0.6 + 0.1*float64(min(p.Spots, 4)), Why: fmt.Sprintf("%s open", spots(p.Spots))})
	}
}

func spots(n int) string {
	if n == 1 {
		return "one spot is"
	}
	return fmt.Sprintf("%d spots are", n)
}

// minutesOf is how long a piece takes to play once, in whole minutes.
func minutesOf(m material.Material) int {
	if m.Quarters == 0 {
		return 2
	}
	tempo := m.Tempo
	if tempo == 0 {
		tempo = 80
	}
	return max(1, int(math.Ceil(m.Quarters/tempo)))
}

func (c *candidates) bite(b Bite) {
	s := Segment{ID: "bite " + b.Skill, Kind: Preview, Layer: Planted, Title: b.Name, Words: []string{b.Text}, Least: 1, Usual: 2, Most: 3, Value: 0.5,
		Why: fmt.Sprintf("“%s” will ask for it; %d lessons to spare", b.For, b.Slack)}
	switch {
	case b.Slack == 1:
		s.Why = fmt.Sprintf("“%s” will ask for it; one lesson to spare", b.For)
	case b.Slack == 0:
		s.Value, s.Why = 0.75, fmt.Sprintf("“%s” will ask for it, and it is ready just in time", b.For)
	case b.Slack < 0:
		s.Value, s.Why = 0.9, fmt.Sprintf("“%s” will ask for it, and it is late already", b.For)
	}
	c.add(s)
}

// fresh adds a rung that could be begun. A new technique is begun only when
// there is time to teach it, and to hear it the week after.
func (c *candidates) fresh(f Fresh) {
	m := f.Material
	s := Segment{ID: "begin " + m.ID, Kind: Begin, Layer: Now, Material: m.ID, Title: "Begin “" + m.Title + "”", Least: 5, Usual: 8, Most: 12, Value: 1.7, New: true, Why: f.Why}
	if m.Strand == material.Technique {
		s.Least, s.Usual, s.Most, s.Value = 8, 10, 15, 1.6
		if c.in.Gap > hearing {
			s.Blocked = fmt.Sprintf("the next lesson is %d days away, and a new exercise is heard the week after", c.in.Gap)
		}
	}
	c.add(s)
}

func (c *candidates) learned(r Learned) {
	play := 1 + max(1, int(math.Ceil(r.Minutes))) // once, and a word about it
	worth := math.Min(r.Worth, 1.4)
	c.add(Segment{ID: "hear " + r.ID, Kind: Review, Layer: Heard, Material: r.ID, Title: r.Title, Least: play, Usual: play, Most: play + 2, Value: 0.2 + 0.4*worth, Why: r.Why})
}
