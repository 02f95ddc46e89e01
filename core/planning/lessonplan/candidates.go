package lessonplan

import (
	"math"
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/planning/next"
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

// AtHome is what home showed of a material: where it was hard, the whole piece for a zero stretch, or that nobody touched it.
type AtHome struct {
	Hard []Stretch
	Left bool
}

// Stretch is some bars by position from 1.
type Stretch struct{ From, To int }

// mostHard is how many hard places of a piece a lesson begins with (default).
const mostHard = 2

// Bite is a preview step that is due.
type Bite struct {
	Skill string
	// Step counts from 1.
	Step int
	// For is the piece that will need it; Slack the lessons in hand.
	For   string
	Slack int
}

// Fresh is the rung that could be begun.
type Fresh struct {
	Material material.Material
	Leap     float64
	// Why it is this one.
	Why next.Reason
	// Gestures are gone through before it, by skill: a new level begins with it.
	Gestures []string
}

// Teach is an exercise that is due and not begun.
type Teach struct {
	// Exercise is its id, Material the id of the material that it becomes when it is begun.
	Exercise, Material string
	// Key says that the cycle has it now; otherwise it is the next step of a staircase.
	Key bool
	// Goals are read before it is played.
	Goals []string
}

// Fault is one that was seen and is not gone.
type Fault struct {
	// ID is the one under which it is noted; Text says what it is, Remedy what to do about it; Days since it was seen.
	ID, Text, Remedy string
	Days             int
}

// Stair is the next step of ear or rhythm.
type Stair struct {
	// Line is ear or rhythm, Stair what is climbed on it, At from 1 Of all.
	Line, Stair string
	At, Of      int
	// Goals of the pool that the staircases stand for.
	Goals []string
}

// StairID names the segment of a line.
func StairID(line string) string { return "stair " + line }

// Input is what the candidates of a lesson are made from.
type Input struct {
	Age int
	// Minutes of the lesson.
	Minutes    int
	Instrument string
	Pieces     []Piece
	Bites      []Bite
	Reviews    []review.Chosen
	// Fresh are rungs of strands on which nothing is in work.
	Fresh []Fresh
	// Teach are the exercises that are due and not begun, the key of the week first.
	Teach []Teach
	// Fault is the one that is looked after; nil for none.
	Fault *Fault
	// Gap is the number of days to the lesson after this one.
	Gap int
	// UsualGap is the longest that it is between two lessons without a break, in days.
	UsualGap int
	// Beginner looks at posture in every lesson; SetupDue when bench and feet are to be measured again.
	Beginner, SetupDue bool
	// Pool are the activities of the studio, Used those done so far.
	Pool Pool
	Used Used
	// Stair is the step of ear or rhythm that is due; nil for none.
	Stair *Stair
	// Waited are the segments that stayed out of the last lesson.
	Waited map[string]bool
	// Home is what home showed of the week before, by material.
	Home map[string]AtHome
}

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
	first := in.leastSecure()
	for i, p := range in.Pieces {
		c.piece(p, i == first)
	}
	for _, b := range in.Bites {
		c.bite(b)
	}
	for _, f := range in.Fresh {
		c.fresh(f)
	}
	for _, t := range in.Teach {
		c.teach(t)
	}
	for _, r := range in.Reviews {
		c.learned(r)
	}
	if s := in.Stair; s != nil {
		c.add(
			Segment{
				ID:    StairID(s.Line),
				Kind:  Climb,
				Layer: Planted,
				Goal:  s.Stair,
				Least: 2,
				Usual: 2,
				Most:  3,
				Value: 0.35,
				Why:   []Reason{{Kind: OnStair, Count: s.At, Of: s.Of}},
			},
		)
		in.Pool = slices.DeleteFunc(slices.Clone(in.Pool), func(g Goal) bool { return slices.Contains(s.Goals, g.ID) })
	}
	for _, a := range in.Pool.Activities(in.Instrument, in.Age, in.Used) {
		if in.Age >= veryYoung { // older students have ear and rhythm as the salt
			a.Value *= 0.5
		}
		c.add(a)
	}
	return c.list
}

// leastSecure is the place of the working piece that has its quarter of the lesson: one that was hard at home, else one that is
// stuck, else the one with the fewest marks among its points; -1 where every piece is ready for its run.
func (in Input) leastSecure() int {
	least, found := [3]float64{}, -1
	for i, p := range in.Pieces {
		if p.RunDue || p.Material.Strand == material.Technique || p.Material.Strand == material.Reading {
			continue
		}
		rank := [3]float64{1, 1, float64(p.Full) / float64(max(p.Points, 1))}
		if len(in.Home[p.Material.ID].Hard) > 0 {
			rank[0] = 0
		}
		if p.Stuck {
			rank[1] = 0
		}
		if found < 0 || slices.Compare(rank[:], least[:]) < 0 {
			least, found = rank, i
		}
	}
	return found
}

type candidates struct {
	in   Input
	list []Segment
}

func (c *candidates) add(s Segment) {
	if home, known := c.in.Home[s.Material]; known && s.Material != "" && s.Kind != Spots && !s.New {
		s.fromHome(home)
	}
	c.plain(s)
}

// plain adds a segment that says nothing of home.
func (c *candidates) plain(s Segment) {
	if c.in.Waited[s.ID] {
		s.Value *= 1.25
		s.Why = append(s.Why, Reason{Kind: WaitedBefore})
	}
	c.list = append(c.list, s)
}

// fromHome lets a segment be worth more where home showed that it is hard, or that it was left out: it is heard, or asked about, first.
func (s *Segment) fromHome(home AtHome) {
	var why []Reason
	for _, b := range home.Hard[:min(len(home.Hard), mostHard)] {
		why = append(why, Reason{Kind: HardAtHome, Material: s.Material, Count: b.From, Of: b.To})
	}
	switch {
	case len(why) > 0:
		s.Value += 0.5
	case home.Left:
		s.Value += 0.25
		why = because(LeftAtHome)
	}
	s.Why = append(why, s.Why...)
}

func (c *candidates) frame() {
	one := 2
	if c.in.Age < veryYoung {
		one = 1
	}
	c.add(Segment{ID: "opening", Kind: Opening, Layer: Frame, Least: 1, Usual: one, Most: 3, Value: 0.4, Must: true, Why: because(Always)})
	posture := Segment{ID: "posture", Kind: Posture, Layer: Frame, Least: 1, Usual: 1, Most: 2, Value: 0.25, Why: because(Regularly)}
	if c.in.Beginner {
		posture.Value, posture.Why = 0.5, because(Beginner)
	}
	if f := c.in.Fault; f != nil { // one at a time, lightly
		posture.Value, posture.Must, posture.Fault, posture.Focus = 0.8, true, f.ID, []string{f.Text, f.Remedy}
		posture.Why = []Reason{{Kind: OpenFault, Count: f.Days}}
	}
	if c.in.SetupDue {
		posture.Value, posture.Usual, posture.Most = 1, 2, 4
		if c.in.Fault == nil {
			posture.Why = nil
		}
		posture.Why = append(because(SetupDue), posture.Why...)
	}
	c.add(posture)
	c.add(Segment{ID: "closing", Kind: Closing, Layer: Frame, Least: 1, Usual: one, Most: 3, Value: 0.4, Must: true, Why: because(Always)})
}

func because(kind Why) []Reason { return []Reason{{Kind: kind}} }

// piece adds what a piece in work could have: its own minutes, a run that is due, its spots.
func (c *candidates) piece(p Piece, quarter bool) {
	m := p.Material
	s := Segment{
		ID:       "working " + m.ID,
		Kind:     Working,
		Layer:    Now,
		Material: m.ID,
		Focus:    p.Focus,
		Least:    4,
		Usual:    8,
		Most:     max(14, c.in.Minutes/2),
		Value:    2,
		Due:      true,
		Why:      []Reason{{Kind: InWork, Count: p.Full, Of: p.Points}},
	}
	switch m.Strand {
	case material.Technique:
		s.Kind, s.Least, s.Usual, s.Most, s.Value = Technique, 3, 6, 10, 1.3
	case material.Reading:
		s.Kind, s.Least, s.Usual, s.Most, s.Value = Reading, 3, 5, 8, 1
	}
	s.Quarter = quarter
	if p.Stuck {
		s.Value += 0.5
		s.Why = append(s.Why, Reason{Kind: StuckPiece})
	}
	if p.RunDue {
		play := 1 + minutesOf(m)
		c.add(Segment{ID: "run " + m.ID, Kind: Run, Layer: Now, Material: m.ID, Least: play, Usual: play + 1, Most: play + 3,
			Value: 2, Due: true, Why: because(RunDue)})
		s.Least, s.Usual, s.Most, s.Value = 2, 3, 6, 0.3*s.Value
		c.plain(s) // its run has what home showed
	} else {
		c.add(s)
	}
	if p.Spots > 0 {
		c.add(Segment{ID: "spots " + m.ID, Kind: Spots, Layer: Now, Material: m.ID, Least: 2, Usual: 3, Most: 5,
			Value: 0.6 + 0.1*float64(min(p.Spots, 4)), Why: []Reason{{Kind: OpenSpots, Count: p.Spots}}})
	}
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
	s := Segment{ID: "bite " + b.Skill, Kind: Preview, Layer: Planted, Skill: b.Skill, Step: b.Step, Least: 1, Usual: 2, Most: 3, Value: 0.5,
		Why: []Reason{{Kind: Planting, Material: b.For, Count: b.Slack}}}
	switch {
	case b.Slack == 0:
		s.Value = 0.75
	case b.Slack < 0:
		s.Value = 0.9
	}
	c.add(s)
}

// fresh adds a rung that could be begun. A new technique is begun only when
// there is time to teach it, and not right before a break: it is heard in the lesson after.
func (c *candidates) fresh(f Fresh) {
	m := f.Material
	s := Segment{
		ID:       "begin " + m.ID,
		Kind:     Begin,
		Layer:    Now,
		Material: m.ID,
		Least:    5,
		Usual:    8,
		Most:     12,
		Value:    1.7,
		New:      true,
		Gestures: f.Gestures,
		Why:      []Reason{{Kind: Idle, Proposal: &f.Why}},
	}
	if m.Strand == material.Technique {
		s.Least, s.Usual, s.Most, s.Value = 8, 10, 15, 1.6
		if c.in.Gap > c.in.UsualGap {
			s.Blocked = &Waiting{Kind: FarLesson, Count: c.in.Gap}
		}
	}
	c.add(s)
}

// BesideOthers is a piece that could be begun beside those in work.
func BesideOthers(f Fresh) Segment {
	return Segment{
		ID:       "begin " + f.Material.ID,
		Kind:     Begin,
		Layer:    Now,
		Material: f.Material.ID,
		Least:    5,
		Usual:    8,
		Most:     12,
		Value:    0.7,
		New:      true,
		Gestures: f.Gestures,
		Why:      []Reason{{Kind: Beside, Proposal: &f.Why}},
	}
}

// teach adds an exercise that is due, with the minutes to teach it. It is not begun right before
// a break, because it is heard in the lesson after (common practice).
func (c *candidates) teach(t Teach) {
	s := Segment{
		ID:       "teach " + t.Exercise,
		Kind:     Begin,
		Layer:    Now,
		Material: t.Material,
		Exercise: t.Exercise,
		Player:   c.in.Instrument,
		Focus:    t.Goals,
		Least:    6,
		Usual:    8,
		Most:     12,
		Value:    1.2,
		New:      true,
		Why:      because(NextStep),
	}
	if t.Key {
		s.Value, s.Due, s.Least, s.Why = 1.6, true, 8, because(KeyOfWeek)
	}
	if c.in.Gap > c.in.UsualGap {
		s.Blocked = &Waiting{Kind: FarLesson, Count: c.in.Gap}
	}
	c.add(s)
}

// surely is from which recall on a learned piece fills no share by itself (default).
const surely = 0.95

func (c *candidates) learned(r review.Chosen) {
	play := 1 + max(1, int(math.Ceil(r.Minutes))) // once, and a word about it
	worth := math.Min(r.Worth, 1.4)
	s := Segment{
		ID:       "hear " + r.ID,
		Kind:     Review,
		Layer:    Heard,
		Material: r.ID,
		Least:    play,
		Usual:    play,
		Most:     play + 2,
		Value:    0.2 + 0.4*worth,
		Why:      []Reason{{Kind: Fading, Review: &r.Why}},
	}
	if r.Why.Recall > surely && !r.Why.Refines && r.Why.LeftWeeks == 0 {
		s.Sure, s.Value = true, 0.1
	}
	c.add(s)
}
