package exercise

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
)

func climb(t *testing.T, player string, p Progress, wish Wish) map[string]Stair {
	x, ok := instrument.Of(player)
	require.True(t, ok)
	out := map[string]Stair{}
	for _, s := range Climb(x, p, wish) {
		out[s.Type.ID] = s
	}
	return out
}

// said writes the reasons of a proposal down as they are.
func said(p *Proposal) (out []string) {
	for _, r := range p.Reasons {
		s := string(r.Kind)
		switch r.Kind {
		case SomeThrough:
			s += fmt.Sprintf(" %d of %d: %s", r.Count, r.Of, r.Step.ID)
		case StepClimbed:
			s += fmt.Sprintf(" of %d: %s, now %s", r.Of, r.Step.ID, r.Now.ID)
		case FromPieces:
			s += fmt.Sprintf(": %s, now %s", r.Step.ID, r.Now.ID)
		case FirstStep:
			s += ": " + r.Now.ID
		case KeyOfTheWeek:
			s += " " + r.Day.Format(time.DateOnly)
		case ByOrder:
			s += " " + r.Order
		}
		out = append(out, s)
	}
	return out
}

// A beginner begins with five fingers in parallel in C; scales wait for the notes shared
// between the hands, which wait for contrary motion (the order of common practice).
func TestABeginnerStartsAtTheBottom(t *testing.T) {
	s := climb(t, "piano", Progress{}, Wish{})
	require.Equal(t, "five-finger/parallel/C/major-five-finger/-", s["five-finger"].Next.Exercise.ID())
	require.Equal(t, []string{"firstStep: parallel", "byOrder few"}, said(s["five-finger"].Next))
	require.Equal(t, "five-finger/contrary", s["tetrachords"].Waits.Type.ID+"/"+s["tetrachords"].Waits.Step.ID)
	require.Equal(t, "tetrachords/shared", s["scale"].Waits.Type.ID+"/"+s["scale"].Waits.Step.ID)
	require.Nil(t, s["scale"].Next)
}

func TestEvidenceMovesTheStep(t *testing.T) {
	three := []string{"five-finger/parallel/C/major-five-finger/-", "five-finger/parallel/G/major-five-finger/-"}
	s := climb(t, "piano", Progress{Cleared: three}, Wish{})["five-finger"]
	require.Zero(t, s.At)
	require.Equal(t, "five-finger/parallel/F/major-five-finger/-", s.Next.Exercise.ID())
	require.Equal(t, []string{"someThrough 2 of 3: parallel", "byOrder few"}, said(s.Next))
	three = append(three, "five-finger/parallel/F/major-five-finger/-")
	s = climb(t, "piano", Progress{Cleared: three}, Wish{})["five-finger"]
	require.Equal(t, 1, s.At)
	require.Equal(t, "five-finger/contrary/C/major-five-finger/-", s.Next.Exercise.ID())
	require.Equal(t, []string{"stepClimbed of 3: parallel, now contrary", "firstBefore"}, said(s.Next))
	// While one is in work nothing new is proposed.
	s = climb(t, "piano", Progress{Cleared: three, Working: []string{"five-finger/contrary/C/major-five-finger/-"}}, Wish{})["five-finger"]
	require.Nil(t, s.Next)
	cleared, working := s.Passed("C/major-five-finger/-")
	require.Equal(t, []int{0, 1}, []int{cleared, working})
	cleared, working = s.Passed("E/major-five-finger/-")
	require.Equal(t, []int{-1, -1}, []int{cleared, working})
}

// Who plays pieces with hands together and a good hand does not begin at the bottom; but to
// know the thumb is not to know A flat: every key of a cycle is gone through.
func TestWhatPiecesHaveTaughtIsNotAskedAgain(t *testing.T) {
	know := func(skills ...string) Progress {
		return Progress{Secure: func(s string) bool { return slices.Contains(skills, s) }}
	}
	s := climb(t, "piano", know("hand-shape", "parallel-motion", "hands-together"), Wish{})["five-finger"]
	require.True(t, s.Steps[0].Known)
	require.Equal(t, 1, s.At)
	require.Equal(t, []string{"fromPieces: parallel, now contrary", "byOrder few"}, said(s.Next))
	all := climb(
		t,
		"piano",
		know("contrary-motion", "hands-together", "beyond-five", "hands-in-turn", "scale-runs", "thumb-under", "over-the-thumb"),
		Wish{},
	)
	require.Nil(t, all["scale"].Waits, "the notes shared between the hands are known")
	require.Zero(t, all["scale"].At)
	require.Equal(t, "scale/apart/C/major/-", all["scale"].Next.Exercise.ID())
}

// Who plays with both hands is not sent back to one: steps below one that is climbed count as passed, open what comes after
// them, and are worked at only where the teacher asks for them.
func TestWhatIsProvenIsNotBegunAgain(t *testing.T) {
	both := Progress{Secure: func(s string) bool { return s == "contrary-motion" || s == "hands-together" }}
	marks := func(s Stair) (out []string) {
		for _, x := range s.Steps {
			out = append(out, fmt.Sprint(x.Step.ID, " ", x.Known, " ", x.Passed))
		}
		return out
	}
	s := climb(t, "piano", both, Wish{})["rhythm-study"]
	require.Equal(t, []any{3, (*Proposal)(nil)}, []any{s.At, s.Next})
	require.Equal(t, []string{"right false true", "left false true", "together true false"}, marks(s))
	five := climb(t, "piano", both, Wish{})["five-finger"]
	require.Equal(t, "five-finger/elsewhere/C/major-five-finger/-", five.Next.Exercise.ID())
	require.Nil(t, climb(t, "piano", both, Wish{})["arm-weight"].Waits, "it comes after the first step of five fingers, which is passed")
	both.Working = []string{"rhythm-study/left/-/-/walk"}
	s = climb(t, "piano", both, Wish{})["rhythm-study"]
	require.Equal(t, []any{1, (*Proposal)(nil)}, []any{s.At, s.Next}, "the teacher asked for it")
}

// The key of the week in a cycle goes before the usual order; what was begun out of
// order is not made to wait.
func TestTheCycleChoosesTheKey(t *testing.T) {
	since := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	begun := []string{"scale/apart/B/major/-", "nonsense", "scale/apart/H/major/-"}
	s := climb(t, "piano", Progress{Cleared: begun}, Wish{"scale", "Gb/major/-", since})["scale"]
	require.Nil(t, s.Waits)
	require.Equal(t, "scale/apart/Gb/major/-", s.Next.Exercise.ID())
	require.Equal(t, []string{"someThrough 1 of 12: apart", "keyOfTheWeek 2026-05-04"}, said(s.Next))
	s = climb(t, "piano", Progress{Cleared: begun}, Wish{"scale", "B/major/-", since})["scale"]
	require.Equal(t, "scale/apart/C/major/-", s.Next.Exercise.ID(), "a key that is through is not asked for again")
}

// Climbing whatever is proposed ends at the top of every staircase of every instrument.
func TestEveryStaircaseLeadsToTheTop(t *testing.T) {
	for _, x := range instrument.All() {
		var p Progress
		for range 2000 {
			var next *Proposal
			for _, s := range Climb(x, p, Wish{}) {
				if s.Next != nil {
					next = s.Next
					break
				}
			}
			if next == nil {
				break
			}
			require.NotContains(t, p.Cleared, next.Exercise.ID())
			require.Len(t, next.Reasons, 2)
			p.Cleared = append(p.Cleared, next.Exercise.ID())
		}
		for _, s := range Climb(x, p, Wish{}) {
			require.Equal(t, len(s.Steps), s.At, "%s: %s", x.ID, s.Type.ID)
		}
	}
}

// The low second finger of a cellist is needed on the D and A strings in C; a piece whose F
// natural lies on the D string has its bites there, step by step, in its own key. An extended
// hand in D lies on the lower strings; a pianist's thumb is planted in the key of the piece.
func TestBitesComeFromTheStaircase(t *testing.T) {
	cello, _ := instrument.Of("cello")
	e, ok := ForBite(cello, "second-finger-bowed", 2, []string{"C3", "D3", "E3", "F3", "G3"})
	require.True(t, ok)
	require.Equal(t, "finger-pattern/pluck/C/major/2", e.ID())
	e, ok = ForBite(cello, "second-finger-bowed", 9, []string{"A3", "B3", "C4", "D4", "F#3"})
	require.True(t, ok)
	require.Equal(t, "finger-pattern/slur/G/major/1", e.ID())
	e, ok = ForBite(cello, "extension-bowed", 1, []string{"D3", "F#3", "A2", "C#3"})
	require.True(t, ok)
	require.Equal(t, "finger-pattern/air/D/major/3", e.ID())
	// A violinist's low second finger for a tune in G whose C lies on the A string is planted there; the high one in A.
	violin, _ := instrument.Of("violin")
	e, ok = ForBite(violin, "second-finger-bowed", 2, []string{"G4", "A4", "B4", "C5", "D5", "F#4"})
	require.True(t, ok)
	require.Equal(t, "finger-pattern/pluck/G/major/2", e.ID())
	e, ok = ForBite(violin, "high-second-bowed", 1, []string{"A4", "B4", "C#5", "D5", "E5", "F#5", "G#5"})
	require.True(t, ok)
	require.Equal(t, "finger-pattern/air/A/major/1", e.ID())
	_, ok = ForBite(cello, "high-second-bowed", 1, []string{"D3"})
	require.False(t, ok, "a cello has no such finger")
	piano, _ := instrument.Of("piano")
	e, ok = ForBite(piano, "thumb-under", 1, []string{"E4", "F#4", "G#4", "A4", "D4", "C#4"})
	require.True(t, ok)
	require.Equal(t, "scale/apart/A/major/-", e.ID())
	_, ok = ForBite(piano, "steady-beat", 1, nil)
	require.False(t, ok)
	uke, _ := instrument.Of("ukulele")
	e, ok = ForBite(uke, "picking-patterns", 1, nil)
	require.True(t, ok)
	require.Equal(t, "roll/open/-/-/thumb-out", e.ID())
	// C and F on the ukulele are 0003 and 2010 from string 4 on (common practice): G4 C4 E4 C5, and A4 C4 F4 A4.
	e, ok = ForBite(uke, "chord-changes", 1, []string{"G4", "C4", "E4", "C5", "A4", "F4"})
	require.True(t, ok)
	require.Equal(t, "changes/silent/-/-/C-F", e.ID())
}

// The staircases of one student: they stand on a page that opens at once.
func BenchmarkClimb(b *testing.B) {
	for _, x := range instrument.All() {
		b.Run(x.ID, func(b *testing.B) {
			p := Progress{
				Cleared: []string{"five-finger/parallel/C/major-five-finger/-", "string-scale/one/D/major/-", "roll/open/-/-/out-and-back"},
			}
			for b.Loop() {
				Climb(x, p, Wish{})
			}
		})
	}
}

// A scale that is played hands together is not reviewed hands apart.
func TestALaterStepKeepsTheEarlierOnes(t *testing.T) {
	piano, _ := instrument.Of("piano")
	p := Progress{
		Cleared: []string{"scale/apart/C/major/-", "scale/apart/G/major/-", "scale/memory/C/major/-", "Fog"},
		Working: []string{"scale/memory/G/major/-"},
	}
	require.Equal(t, map[string]bool{"scale/apart/C/major/-": true, "scale/apart/G/major/-": true}, p.Superseded(piano))
}

// New keys begin with the fewest sharps or flats, and never with the key that the student has (common practice, no source).
func TestNewKeysAreNew(t *testing.T) {
	piano, _ := instrument.Of("piano")
	p := Progress{Cleared: []string{
		"five-finger/parallel/C/major-five-finger/-", "five-finger/parallel/G/major-five-finger/-", "five-finger/parallel/F/major-five-finger/-",
		"five-finger/contrary/C/major-five-finger/-", "five-finger/contrary/G/major-five-finger/-", "five-finger/contrary/F/major-five-finger/-",
		"pattern/in-c/C/major-five-finger/-",
	}}
	var keys []string
	for range 6 {
		for _, st := range Climb(piano, p, Wish{}) {
			if st.Type.ID == "pattern" {
				keys = append(keys, st.Next.Exercise.Key.String())
				p.Cleared = append(p.Cleared, st.Next.Exercise.ID())
			}
		}
	}
	require.Equal(t, []string{"G", "F", "D", "Bb", "A", "Eb"}, keys)
	for _, st := range Climb(piano, p, Wish{}) {
		if st.Type.ID == "pattern" {
			require.Nil(t, st.Next, "six keys are all that it asks for")
		}
	}
}
