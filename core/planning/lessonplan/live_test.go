package lessonplan

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/next"
	"patientladder/core/planning/review"
	"patientladder/golden"
)

// sheet writes a plan as one reads it.
func sheet(p Plan) string {
	var out strings.Builder
	fmt.Fprintf(&out, "%d minutes, %d free, review %d of %d, worth %.3f\n", p.Minutes, p.Free, p.Review, p.Aim, p.Worth)
	for _, c := range p.Segments {
		fmt.Fprintf(&out, "  %d %s", c.Minutes, c.ID)
		if c.Pinned {
			out.WriteString(", pinned")
		}
		for _, w := range c.Why {
			fmt.Fprintf(&out, " %s %d/%d", w.Kind, w.Count, w.Of)
		}
		out.WriteByte('\n')
	}
	for _, l := range p.Left {
		fmt.Fprintf(&out, "  left %s: %s %d\n", l.ID, l.Reason.Kind, l.Reason.Count)
	}
	out.WriteString("  waits:")
	for _, s := range p.Waiting() {
		out.WriteString(" " + s.ID)
	}
	out.WriteByte('\n')
	return out.String()
}

// anyLesson invents what the candidates of a lesson are made from.
func anyLesson(random *rand.Rand) (Input, float64) {
	in := Input{
		Pool:       Shipped(),
		Age:        3 + random.IntN(14),
		Minutes:    15 + 5*random.IntN(10),
		Instrument: []string{"piano", "cello", "ukulele"}[random.IntN(3)],
		Gap:        []int{7, 7, 9, 10, 21}[random.IntN(5)],
		UsualGap:   9,
	}
	strands := []material.Strand{material.Method, material.Technique, material.Reading, material.Repertoire}
	for i := range random.IntN(4) {
		in.Pieces = append(in.Pieces, Piece{
			Material: material.Material{
				ID:       fmt.Sprintf("p%d", i),
				Strand:   strands[random.IntN(4)],
				Quarters: float64(random.IntN(200)),
				Tempo:    float64(60 + random.IntN(60)),
			},
			RunDue: random.IntN(5) == 0, Stuck: random.IntN(5) == 0, Spots: random.IntN(6) - 2, Full: random.IntN(4), Points: 4,
			Focus: []string{"steady"},
		})
	}
	for i := range random.IntN(3) {
		in.Bites = append(in.Bites, Bite{Skill: fmt.Sprintf("b%d", i), Step: 1, For: "p9", Slack: random.IntN(4) - 1})
	}
	for i := range random.IntN(8) {
		c := review.Chosen{Piece: review.Piece{ID: fmt.Sprintf("r%d", i), Minutes: float64(1+random.IntN(6)) / 2}, Worth: random.Float64() * 1.5}
		c.Why = review.Reason{Recall: 0.5 + random.Float64()/2, Refines: random.IntN(3) == 0}
		in.Reviews = append(in.Reviews, c)
	}
	if random.IntN(3) == 0 {
		in.Fresh = []Fresh{
			{Material: material.Material{ID: "f", Strand: strands[random.IntN(3)]}, Leap: 1, Why: next.Reason{Kind: next.Fits, Leap: 1}},
		}
	}
	if random.IntN(3) == 0 {
		in.Teach = []Teach{{Exercise: "scale/apart/Ab/major/-", Material: "x", Key: random.IntN(2) == 0, Goals: []string{"even"}}}
	}
	if random.IntN(4) == 0 {
		in.Fault = &Fault{Text: "sits too close", Remedy: "move the bench back", Days: random.IntN(9)}
	}
	in.Beginner, in.SetupDue = random.IntN(2) == 0, random.IntN(5) == 0
	in.Waited = map[string]bool{"hear r1": random.IntN(2) == 0}
	in.Used = Used{"four-beats": {1: random.IntN(2), 2: 1}, "cue-word": {1: 1}}
	return in, float64(random.IntN(8)) / 10
}

// Forty lessons of all kinds, held to the value and in order.
func TestLessonsOfAllKindsAreHeldToTheValue(t *testing.T) {
	var out strings.Builder
	random := rand.New(rand.NewPCG(15, 4))
	for n := range 40 {
		in, share := anyLesson(random)
		list := Candidates(in)
		h := Hand{}
		if n%4 == 3 {
			h = Hand{Pins: map[string]int{list[len(list)/2].ID: 0}, Drops: []string{list[1].ID}, Order: []string{list[len(list)-1].ID, list[2].ID}}
		}
		p, err := Make(list, LimitsFor(in.Age, in.Minutes, share), h)
		require.NoError(t, err)
		fmt.Fprintf(&out, "### lesson %d: age %d, %d minutes, review %g, gap %d\n", n, in.Age, in.Minutes, share, in.Gap)
		for _, s := range list {
			fmt.Fprintf(
				&out,
				"  %s %s %s %d-%d-%d worth %.3f must %t due %t sure %t new %t lead %t %d/%d %v\n",
				s.ID,
				s.Kind,
				s.Layer,
				s.Least,
				s.Usual,
				s.Most,
				s.Value,
				s.Must,
				s.Due,
				s.Sure,
				s.New,
				s.Lead,
				s.Option,
				s.Options,
				s.Focus,
			)
		}
		out.WriteString(sheet(p))
	}
	golden.Equal(t, "lessons.txt", out.String())
}

// The key of the week has its eight minutes before anything else is weighed; a lesson that is too short for it, or too
// far from the next, leaves it out and says why (common practice: a new scale only where it is heard the week after).
func TestTheKeyOfTheWeekIsTaught(t *testing.T) {
	in := usual()
	in.Minutes, in.Teach = 30, []Teach{{Exercise: "scale/apart/Ab/major/-", Material: "x", Key: true}}
	minutes := func(total int) (got int, left Waiting) {
		p, err := Make(Candidates(in), LimitsFor(in.Age, total, 0.3), Hand{})
		require.NoError(t, err)
		for _, c := range p.Segments {
			if c.Exercise != "" {
				got = c.Minutes
			}
		}
		for _, l := range p.Left {
			if l.Exercise != "" {
				left = l.Reason
			}
		}
		return got, left
	}
	got, _ := minutes(30)
	require.Equal(t, 8, got)
	got, left := minutes(15)
	require.Zero(t, got)
	require.Equal(t, Waiting{NoRoom, 8}, left)
	in.Gap = 14
	got, left = minutes(45)
	require.Zero(t, got)
	require.Equal(t, Waiting{FarLesson, 14}, left)
}

// Forty-five minutes with one piece in work: the time goes to the piece, not to learned pieces that are sure.
func TestALongLessonIsNotFilledWithWhatIsSure(t *testing.T) {
	in := Input{
		Pool:       Shipped(),
		Age:        12,
		Minutes:    45,
		Instrument: "piano",
		Gap:        7,
		UsualGap:   9,
		Pieces:     []Piece{{Material: material.Material{ID: "fog", Strand: material.Method}, Points: 3}},
	}
	for i := range 8 {
		in.Reviews = append(
			in.Reviews,
			review.Chosen{Piece: review.Piece{ID: fmt.Sprint("sure", i), Minutes: 2}, Worth: 0.06, Why: review.Reason{Recall: 0.97}},
		)
	}
	in.Reviews = append(in.Reviews, review.Chosen{Piece: review.Piece{ID: "fades", Minutes: 2}, Worth: 0.4, Why: review.Reason{Recall: 0.6}})
	p, err := Make(Candidates(in), LimitsFor(12, 45, 0.75), Hand{})
	require.NoError(t, err)
	minutes := map[string]int{}
	for _, c := range p.Segments {
		minutes[c.ID] = c.Minutes
	}
	require.Equal(t, 5, p.Aim, "no more than what fades can fill")
	require.Equal(t, 4, minutes["hear fades"])
	require.Equal(t, 22, minutes["working fog"], "half of the lesson")
	require.Less(t, 3*p.Free, 45)
	for _, l := range p.Left {
		if l.Sure {
			require.Equal(t, Waiting{Kind: SureNow}, l.Reason)
		}
	}
}

// A fault that was seen opens the lesson with its remedy, whatever else there is.
func TestAFaultOpensTheLesson(t *testing.T) {
	in := usual()
	in.Fault = &Fault{Text: "sits too close", Remedy: "move the bench back until the elbows are free", Days: 7}
	p, err := Make(Candidates(in), LimitsFor(8, 15, 0.9), Hand{Drops: []string{"posture"}})
	require.NoError(t, err)
	require.Equal(t, Posture, p.Segments[1].Kind)
	require.Equal(t, []string{"sits too close", "move the bench back until the elbows are free"}, p.Segments[1].Focus)
	require.Equal(t, []Reason{{Kind: OpenFault, Count: 7}}, p.Segments[1].Why)
}

// What another plan has otherwise: what came, what went, what has other minutes.
func TestHowTwoPlansDiffer(t *testing.T) {
	plan := func(pairs ...any) (p Plan) {
		for i := 0; i < len(pairs); i += 2 {
			p.Segments = append(p.Segments, Chosen{Segment: Segment{ID: pairs[i].(string)}, Minutes: pairs[i+1].(int)})
		}
		return p
	}
	var got []string
	for _, c := range Differences(plan("a", 3, "b", 4, "c", 5), plan("d", 2, "a", 3, "c", 6)) {
		got = append(got, fmt.Sprintf("%s %s %d>%d", c.Kind, c.Segment.ID, c.Before, c.Minutes))
	}
	require.Equal(t, []string{"added d 0>2", "removed b 4>0", "altered c 5>6"}, got)
	require.Empty(t, Differences(plan("a", 3), plan("a", 3)))
	h := Hand{Minutes: 40, Pins: map[string]int{"a": 3, "gone": 2}, Drops: []string{"gone", "b"}, Order: []string{"b", "gone"}}
	require.Equal(
		t,
		Hand{Minutes: 40, Pins: map[string]int{"a": 3}, Drops: []string{"b"}, Order: []string{"b"}},
		h.Without([]Segment{{ID: "a"}}, []Segment{{ID: "b"}}),
	)
	require.False(t, h.Untouched())
	require.True(t, Hand{Pins: map[string]int{}}.Untouched())
}
