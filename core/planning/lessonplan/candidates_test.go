package lessonplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/next"
	"patientladder/core/planning/review"
)

func usual() Input {
	piece := func(id string, s material.Strand) Piece {
		return Piece{Material: material.Material{ID: id, Title: id, Strand: s, Quarters: 64, Tempo: 80}, Points: 3}
	}
	return Input{
		Pool: Shipped(), Age: 8, Instrument: "piano", Gap: 7, UsualGap: 9,
		Pieces: []Piece{piece("fog", material.Method), piece("scale", material.Technique), piece("card", material.Reading)},
		Bites:  []Bite{{Skill: "ties", Step: 1, For: "rope", Slack: 2}},
		Reviews: []review.Chosen{
			{Piece: review.Piece{ID: "old", Minutes: 1.2}, Worth: 0.6},
			{Piece: review.Piece{ID: "lost", Minutes: 1}, Worth: 100.2},
		},
	}
}

func find(t *testing.T, list []Segment, id string) Segment {
	for _, s := range list {
		if s.ID == id {
			return s
		}
	}
	t.Fatalf("no segment %s", id)
	return Segment{}
}

func TestCandidatesSayWhy(t *testing.T) {
	in := usual()
	list := Candidates(in)
	seen := map[string]bool{}
	for _, s := range list {
		require.False(t, seen[s.ID], s.ID)
		seen[s.ID] = true
		require.True(t, 1 <= s.Least && s.Least <= s.Usual && s.Usual <= s.Most && s.Value > 0, s.ID)
	}
	old, lost := in.Reviews[0].Why, in.Reviews[1].Why
	require.Equal(
		t,
		Segment{ID: "opening", Kind: Opening, Layer: Frame, Least: 1, Usual: 2, Most: 3, Value: 0.4, Must: true, Why: because(Always)},
		find(t, list, "opening"),
	)
	require.Equal(
		t,
		Segment{ID: "closing", Kind: Closing, Layer: Frame, Least: 1, Usual: 2, Most: 3, Value: 0.4, Must: true, Why: because(Always)},
		find(t, list, "closing"),
	)
	require.Equal(
		t,
		Segment{ID: "posture", Kind: Posture, Layer: Frame, Least: 1, Usual: 1, Most: 2, Value: 0.25, Why: because(Regularly)},
		find(t, list, "posture"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "working fog",
			Kind:     Working,
			Layer:    Now,
			Material: "fog",
			Least:    4,
			Usual:    8,
			Most:     14,
			Value:    2,
			Due:      true,
			Quarter:  true,
			Why:      []Reason{{Kind: InWork, Of: 3}},
		},
		find(t, list, "working fog"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "working scale",
			Kind:     Technique,
			Layer:    Now,
			Material: "scale",
			Least:    3,
			Usual:    6,
			Most:     10,
			Value:    1.3,
			Due:      true,
			Why:      []Reason{{Kind: InWork, Of: 3}},
		},
		find(t, list, "working scale"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "working card",
			Kind:     Reading,
			Layer:    Now,
			Material: "card",
			Least:    3,
			Usual:    5,
			Most:     8,
			Value:    1,
			Due:      true,
			Why:      []Reason{{Kind: InWork, Of: 3}},
		},
		find(t, list, "working card"),
	)
	require.Equal(
		t,
		Segment{
			ID:    "bite ties",
			Kind:  Preview,
			Layer: Planted,
			Skill: "ties",
			Step:  1,
			Least: 1,
			Usual: 2,
			Most:  3,
			Value: 0.5,
			Why:   []Reason{{Kind: Planting, Material: "rope", Count: 2}},
		},
		find(t, list, "bite ties"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "hear old",
			Kind:     Review,
			Layer:    Heard,
			Material: "old",
			Least:    3,
			Usual:    3,
			Most:     5,
			Value:    0.44,
			Why:      []Reason{{Kind: Fading, Review: &old}},
		},
		find(t, list, "hear old"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "hear lost",
			Kind:     Review,
			Layer:    Heard,
			Material: "lost",
			Least:    2,
			Usual:    2,
			Most:     4,
			Value:    0.2 + 0.4*1.4,
			Why:      []Reason{{Kind: Fading, Review: &lost}},
		},
		find(t, list, "hear lost"),
		"a starved piece does not push everything else out",
	)
	activities := 0
	for _, s := range list {
		if s.Kind == Activity {
			activities++
			require.LessOrEqual(t, s.Value, 0.25, "older students have them as the salt")
		}
	}
	require.Equal(t, 2, activities)

	in.Pieces[0].RunDue, in.Pieces[0].Stuck, in.Pieces[0].Spots = true, true, 2
	in.Bites[0].Slack = -1
	in.Beginner, in.Waited = true, map[string]bool{"hear old": true}
	list2 := Candidates(in)
	require.Equal(
		t,
		Segment{ID: "run fog", Kind: Run, Layer: Now, Material: "fog", Least: 2, Usual: 3, Most: 5, Value: 2, Due: true, Why: because(RunDue)},
		find(t, list2, "run fog"),
	)
	require.Equal(
		t,
		Segment{
			ID:       "working fog",
			Kind:     Working,
			Layer:    Now,
			Material: "fog",
			Least:    2,
			Usual:    3,
			Most:     6,
			Value:    0.75,
			Due:      true,
			Why:      []Reason{{Kind: InWork, Of: 3}, {Kind: StuckPiece}},
		},
		find(t, list2, "working fog"),
		"the run comes before more work at it",
	)
	require.Equal(
		t,
		Segment{
			ID:       "spots fog",
			Kind:     Spots,
			Layer:    Now,
			Material: "fog",
			Least:    2,
			Usual:    3,
			Most:     5,
			Value:    0.8,
			Why:      []Reason{{Kind: OpenSpots, Count: 2}},
		},
		find(t, list2, "spots fog"),
	)
	require.Equal(t, 0.9, find(t, list2, "bite ties").Value, "late")
	require.Equal(t, []Reason{{Kind: Fading, Review: &old}, {Kind: WaitedBefore}}, find(t, list2, "hear old").Why)
	require.InDelta(t, 0.44*1.25, find(t, list2, "hear old").Value, 1e-12)
	require.Equal(t, 0.5, find(t, list2, "posture").Value)
	in.Bites[0].Slack, in.SetupDue = 0, true
	list3 := Candidates(in)
	require.Equal(t, 0.75, find(t, list3, "bite ties").Value, "just in time")
	require.Equal(
		t,
		Segment{ID: "posture", Kind: Posture, Layer: Frame, Least: 1, Usual: 2, Most: 4, Value: 1, Why: because(SetupDue)},
		find(t, list3, "posture"),
	)
	in.Pieces[0].Spots = 9
	require.InDelta(t, 1.0, find(t, Candidates(in), "spots fog").Value, 1e-12, "four spots or more weigh the same")
}

// How long a piece takes, in whole minutes and at least one; two where its length is not known.
func TestMinutesToPlay(t *testing.T) {
	require.Equal(t, 2, minutesOf(material.Material{}))
	require.Equal(t, 1, minutesOf(material.Material{Quarters: 8}), "at 80 where no tempo is known")
	require.Equal(t, 2, minutesOf(material.Material{Quarters: 81}))
	require.Equal(t, 3, minutesOf(material.Material{Quarters: 120, Tempo: 50}))
}

// A new exercise is begun only with the minutes to teach it and a lesson the
// week after to hear it (common practice).
func TestNewTechniqueNeedsTimeAndAHearing(t *testing.T) {
	in := usual()
	in.Fresh = []Fresh{
		{Material: material.Material{ID: "b", Title: "B major", Strand: material.Technique}, Leap: 1, Why: next.Reason{Kind: next.Fits, Leap: 1}},
	}
	planned := func(minutes int) bool {
		p, err := Make(Candidates(in), LimitsFor(in.Age, minutes, 0.3), Hand{Pins: map[string]int{"working fog": 8}})
		require.NoError(t, err)
		for _, c := range p.Segments {
			if c.ID == "begin b" {
				require.GreaterOrEqual(t, c.Minutes, 8)
				return true
			}
		}
		return false
	}
	require.True(t, planned(45))
	require.False(t, planned(15))
	in.Gap = 21
	require.False(t, planned(60))
	require.Equal(t, &Waiting{Kind: FarLesson, Count: 21}, find(t, Candidates(in), "begin b").Blocked)
	in.Gap = 9
	require.Nil(t, find(t, Candidates(in), "begin b").Blocked, "nine days are near enough")
	in.Gap = 10
	require.NotNil(t, find(t, Candidates(in), "begin b").Blocked)
	in.Gap, in.UsualGap = 14, 16
	require.Nil(t, find(t, Candidates(in), "begin b").Blocked, "every second week")
	in.Gap = 17
	require.Equal(t, &Waiting{Kind: FarLesson, Count: 17}, find(t, Candidates(in), "begin b").Blocked)
	in.Fresh[0].Material.Strand = material.Method
	require.Equal(
		t,
		Segment{
			ID:       "begin b",
			Kind:     Begin,
			Layer:    Now,
			Material: "b",
			Least:    5,
			Usual:    8,
			Most:     12,
			Value:    1.7,
			New:      true,
			Why:      []Reason{{Kind: Idle, Proposal: &in.Fresh[0].Why}},
		},
		find(t, Candidates(in), "begin b"),
		"a piece waits for nothing",
	)
}

func TestLimitsByAge(t *testing.T) {
	require.Equal(t, Limits{Minutes: 15, ReviewShare: 0.3, OneNew: true, Longest: 1}, LimitsFor(3, 15, 0.3))
	require.Equal(t, Limits{Minutes: 45, ReviewShare: 0.3}, LimitsFor(30, 45, 0.3))
	longest := map[int]int{}
	for age := range 12 {
		longest[age] = LimitsFor(age, 30, 0.3).Longest
		require.Equal(t, age < 6, LimitsFor(age, 30, 0.3).OneNew)
	}
	require.Equal(t, map[int]int{0: 1, 1: 1, 2: 1, 3: 1, 4: 3, 5: 6, 6: 6, 7: 10, 8: 10, 9: 10, 10: 0, 11: 0}, longest)
}

// Whatever the age and the minutes, a piece in work is in the lesson, and review
// keeps its share where there is enough of it.
func TestAPieceInWorkIsAlwaysHeard(t *testing.T) {
	for _, age := range []int{4, 6, 8, 14, 60} {
		for _, minutes := range []int{20, 30, 45} {
			in := usual()
			in.Age = age
			for i := range 12 {
				in.Reviews = append(in.Reviews, review.Chosen{Piece: review.Piece{ID: string(rune('a' + i)), Minutes: 1}, Worth: 0.7})
			}
			p, err := Make(Candidates(in), LimitsFor(age, minutes, 0.45), Hand{})
			require.NoError(t, err)
			heard := false
			for _, c := range p.Segments {
				heard = heard || c.ID == "working fog"
			}
			require.True(t, heard, "age %d, %d minutes", age, minutes)
			require.LessOrEqual(t, abs(p.Review-p.Aim), ReviewPlay+1, "as near as the least shares of what is due allow")
		}
	}
}

// The step of ear or rhythm that is due stands in the place of the games that it is made of.
func TestAStepOfEarOrRhythm(t *testing.T) {
	in := usual()
	in.Stair = &Stair{Line: "ear", Stair: "echo-two", At: 2, Of: 5, Goals: []string{"echo-pitch", "hidden-pitch", "echo-rhythm"}}
	list := Candidates(in)
	require.Equal(
		t,
		Segment{
			ID:    "stair ear",
			Kind:  Climb,
			Layer: Planted,
			Goal:  "echo-two",
			Least: 2,
			Usual: 2,
			Most:  3,
			Value: 0.35,
			Why:   []Reason{{Kind: OnStair, Count: 2, Of: 5}},
		},
		find(t, list, "stair ear"),
	)
	for _, s := range list {
		require.NotContains(t, in.Stair.Goals, s.Goal)
	}
	require.Len(t, in.Pool, len(Shipped()), "the pool itself stays")
	require.False(t, Left{Segment: find(t, list, "stair ear"), Reason: Waiting{Kind: NoRoom}}.waits(), "it waits for nobody")
}
