package week

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/naming"
	"patientladder/core/student/leap"
)

var start = time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)

func everyDay() [7]bool { return [7]bool{true, true, true, true, true, true, true} }

// work makes a piece of 2^depth bars in chunks of a bar.
func work(depth int) Work {
	var build func(from, size int) chunk.Chunk
	build = func(from, size int) chunk.Chunk {
		c := chunk.Chunk{
			From:  from,
			To:    from + size - 1,
			Start: rational.Int(int64(4 * (from - 1))),
			End:   rational.Int(int64(4 * (from + size - 1))),
		}
		if size > 1 {
			c.Parts = []chunk.Chunk{build(from, size/2), build(from+size/2, size/2)}
		}
		return c
	}
	tree := build(1, 1<<depth)
	w := Work{
		Material: material.Material{ID: "m", Title: "Tune", Tempo: 80, Bars: 1 << depth, Texture: material.Together},
		Tree:     &tree,
		Opening:  "the right hand, finger 2 on E",
	}
	for range 1 << depth {
		w.Quarters = append(w.Quarters, 4)
	}
	return w
}

func TestTheMinutesOfADayAreAHardLimit(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := Input{
			Start: start, Minutes: rapid.IntRange(1, 40).Draw(t, "minutes"), Age: rapid.IntRange(3, 70).Draw(t, "age"),
			ReviewShare: rapid.Float64Range(0, 0.8).Draw(t, "share"),
		}
		for d := range in.Practises {
			in.Practises[d] = rapid.Bool().Draw(t, "day")
		}
		for i := range rapid.IntRange(0, 3).Draw(t, "works") {
			w := named(string(rune('p'+i)), rapid.IntRange(0, 5).Draw(t, "depth"))
			w.Progress = rapid.Float64Range(0, 1).Draw(t, "progress")
			w.RunDue = w.Progress == 1
			w.HandsApart = rapid.Bool().Draw(t, "apart")
			w.WeeksOn = rapid.IntRange(0, 3).Draw(t, "weeks")
			w.Spots = []Bars{{From: 1, To: 1}}
			in.Works = append(in.Works, w)
		}
		for i := range rapid.IntRange(0, 5).Draw(t, "reviews") {
			in.Reviews = append(
				in.Reviews,
				material.Material{ID: string(rune('a' + i)), Quarters: rapid.Float64Range(4, 200).Draw(t, "quarters"), Tempo: 90},
			)
		}
		for i := range rapid.IntRange(0, 2).Draw(t, "bites") {
			in.Bites = append(in.Bites, Bite{Skill: string(rune('a' + i)), Name: "bite"})
		}
		for i := range rapid.IntRange(0, 2).Draw(t, "drills") {
			in.Works = append(
				in.Works,
				Work{
					Material: material.Material{ID: string(rune('A' + i)), Tempo: 60},
					Drill:    &Drill{Apart: rapid.Bool().Draw(t, "handsAlone"), Quarters: 16},
				},
			)
		}
		p, err := Make(in)
		require.NoError(t, err)
		require.Len(t, p.Days, 7)
		set := map[string]bool{} // what is due for its run is set on each day
		for _, d := range p.Days {
			sum := 0.0
			for _, it := range d.Items {
				sum += it.Minutes
				if isStep(it) {
					set[it.Key] = true
				}
			}
			require.InDelta(t, sum, d.Minutes, 1e-9)
			require.LessOrEqual(t, d.Minutes, float64(in.Minutes))
			if d.Rest {
				require.Empty(t, d.Items)
			}
		}
		all, waiting := 0, 0
		for _, w := range in.Works {
			if w.Drill == nil {
				all += len(staircase(w, in))
			}
		}
		for _, it := range p.LeftOut {
			if isStep(it) {
				waiting++
			}
			for _, d := range p.Days {
				require.True(
					t,
					d.Rest || d.Minutes+it.Minutes > float64(in.Minutes),
					"what is listed as left out fits into no day: %s into %s",
					it.Key,
					d.Date,
				)
			}
		}
		require.Equal(t, all, len(set)+waiting, "every step is either set or listed as left out")
	})
}

// isStep says that an item is one of a staircase.
func isStep(it Item) bool { return slices.Contains([]Kind{Look, Hear, Chunk, Join, Whole}, it.Kind) }

func TestTheStaircaseGoesFromSmallToWhole(t *testing.T) {
	p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 60, Age: 6, Works: []Work{work(3)}})
	require.NoError(t, err)
	rank := map[Kind]int{Look: 0, Chunk: 1, Join: 2, Whole: 3}
	last, seen := 0, map[Kind]int{}
	for _, d := range p.Days {
		for _, it := range d.Items {
			if r, ok := rank[it.Kind]; ok {
				require.GreaterOrEqual(t, r, last)
				last = r
				seen[it.Kind]++
			}
		}
	}
	require.Equal(t, map[Kind]int{Look: 1, Chunk: 8, Join: 6, Whole: 1}, seen)
	require.Contains(t, p.Days[0].Items[0].Words, "up, down or same aloud")
	require.Contains(t, p.Days[0].Items[0].Words, "finger 2 on E")
	require.Empty(t, p.LeftOut)
}

// Four-year-olds four times, seven-year-olds seven; from ten on three right in
// a row (common practice, no source).
func TestDoseByAge(t *testing.T) {
	for age, want := range map[int]int{4: 4, 7: 7, 9: 9, 10: 3, 60: 3} {
		times, row := Input{Age: age}.dose()
		require.Equal(t, want, times, age)
		require.Equal(t, age >= 10, row, age)
	}
}

// A week right, a week left, then together (common practice, no source).
func TestHandsApart(t *testing.T) {
	for weeks, want := range map[int]string{0: "right hand", 1: "left hand", 2: "", 9: ""} {
		w := work(1)
		w.HandsApart, w.WeeksOn = true, weeks
		p, err := Make(Input{Start: start, Practises: everyDay(), Minutes: 30, Age: 8, Works: []Work{w}})
		require.NoError(t, err)
		require.Equal(t, want, p.Days[0].Items[len(p.Days[0].Items)-1].Hand)
		if weeks == 0 {
			require.Equal(t, Held{Kind: HeldLeft, Title: "Tune"}, p.NotYet[0])
		}
	}
	w := work(1)
	w.HandsApart, w.Material.Texture = true, material.InTurn
	require.Empty(t, w.Hand(), "hands in turn are never apart")
}

func TestHandsStayApartOnlyUntilTogetherIsSecure(t *testing.T) {
	p := leap.DefaultPolicy()
	with := func(e leap.Evidence) leap.Ability {
		return leap.Ability{Skills: map[string]leap.Evidence{together: e}}
	}
	require.True(t, KeepApart(true, leap.Ability{}, p))
	require.True(t, KeepApart(true, with(leap.Evidence{Cleared: 1}), p))
	require.False(t, KeepApart(true, with(leap.Evidence{Cleared: 2}), p))
	require.False(t, KeepApart(true, with(leap.Evidence{Shown: true, Faded: true}), p), "rusty is not new")
	require.False(t, KeepApart(false, leap.Ability{}, p))
	skills, err := skill.Standard()
	require.NoError(t, err)
	_, known := skills.Get(together)
	require.True(t, known, "the rule names a skill of the catalogue")
}

func TestEqualChunksAreNotLearnedTwice(t *testing.T) {
	w := work(2)
	w.Tree.Parts[1].Parts[0].SameAs, w.Tree.Parts[1].Parts[1].SameAs = 1, 2
	kinds := map[Kind]int{}
	for _, s := range staircase(w, Input{Age: 6}) {
		kinds[s.Kind]++
	}
	require.Equal(t, map[Kind]int{Look: 1, Chunk: 2, Join: 1, Whole: 1}, kinds)
}

func TestARunThatIsDueLeavesOnlyTheWhole(t *testing.T) {
	w := work(3)
	w.RunDue = true
	steps := staircase(w, Input{Age: 8})
	require.Len(t, steps, 1)
	require.Equal(t, "From start to end without a stop, as for a run.", steps[0].Words)
}

func TestMinutesWorkedByHand(t *testing.T) {
	// 8 quarters at 60 % of 80 are 1/6 minute; with breath 1/4; six times 1.5.
	require.InDelta(t, 1.5, minutes(8, 80, 6, false), 1e-9)
	require.InDelta(t, 1, minutes(1, 200, 1, false), 1e-9, "never under a minute")
}

// The share of review is that of the planned minutes: near the aim where there are pieces enough, and
// all of the week where nothing is in work.
func TestTheShareOfReview(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 20, Age: 8, ReviewShare: 0.75}
	share := func() float64 {
		p, err := Make(in)
		require.NoError(t, err)
		share, planned := p.ReviewShare()
		require.Equal(t, share > 0, planned)
		return share
	}
	require.Zero(t, share(), "nothing is planned")
	for i := range 12 {
		in.Reviews = append(in.Reviews, material.Material{ID: string(rune('a' + i))})
	}
	require.Equal(t, 1.0, share())
	p := Plan{
		Days: []Day{
			{Minutes: 10, Items: []Item{{Kind: Review, Minutes: 2.5}, {Kind: Chunk, Minutes: 7.5}}},
			{Rest: true},
			{Minutes: 10, Items: []Item{{Kind: Review, Minutes: 1}, {Kind: Listen, Minutes: 9}}},
		},
	}
	got, planned := p.ReviewShare()
	require.True(t, planned)
	require.InDelta(t, 3.5/20, got, 1e-12)
	p.Days[1].Items = []Item{{Kind: Game, Minutes: 15}}
	got, _ = p.ReviewShare()
	require.InDelta(t, 0.1, got, 1e-12, "games are planned minutes as well")
	_, planned = Plan{Days: p.Days[1:2]}.ReviewShare()
	require.False(t, planned, "where there is nothing but games nobody speaks of a share")
}

// Where there is nothing else, learned pieces fill the days in turn, none twice on a day: eight of two minutes in twenty, so that less
// than a quarter stays free.
func TestReviewPiecesTakeTurns(t *testing.T) {
	in := Input{Start: start, Practises: everyDay(), Minutes: 20, Age: 8, ReviewShare: 0.3}
	for i := range 19 {
		in.Reviews = append(in.Reviews, material.Material{ID: string(rune('a' + i)), Quarters: 120, Tempo: 60})
	}
	p, err := Make(in)
	require.NoError(t, err)
	heard := map[string]int{}
	for _, d := range p.Days {
		today := map[string]bool{}
		require.Equal(t, []any{8, 16.0}, []any{len(d.Items), d.Minutes})
		for _, it := range d.Items {
			require.False(t, today[it.Key])
			today[it.Key] = true
			heard[it.Material]++
		}
	}
	require.Len(t, heard, 19)
	for id, n := range heard {
		require.InDelta(t, 56.0/19, n, 1, id)
	}
}

func TestOverlappingSpotsArePractisedAsOne(t *testing.T) {
	bars := func(f, to int) Bars { return Bars{From: f, To: to} }
	require.Equal(t, []Bars{bars(1, 1), bars(4, 7), bars(8, 9)}, merged([]Bars{bars(8, 9), bars(5, 7), bars(4, 5), bars(1, 1), bars(4, 4)}))
	require.Empty(t, merged(nil))
}

// Three steps in six days: a new one a day while there are minutes, then the whole in full once more each day.
func TestAShortStaircaseGoesOnAndIsThenRepeatedInFull(t *testing.T) {
	w := work(1) // two chunks and the whole
	w.WeeksOn = 1
	days := everyDay()
	days[start.Weekday()] = false
	p, err := Make(Input{Start: start, Practises: days, Minutes: 30, Age: 8, Works: []Work{w}})
	require.NoError(t, err)
	var got []string
	for _, d := range p.Days[1:] {
		for _, it := range d.Items {
			got = append(got, fmt.Sprintf("%s %s ×%d", d.Date.Format("Mon"), it.Key, it.Times))
		}
	}
	require.Equal(t, []string{
		"Wed chunk m 1-1 ×8", "Wed chunk m 2-2 ×8", "Wed again m 1-2 ×2", "Thu again m 1-2 ×8", "Thu whole m 1-2 ×2", "Fri again m 1-2 ×8", "Sat again m 1-2 ×8",
		"Sun again m 1-2 ×8", "Mon again m 1-2 ×8",
	}, got)
}

func TestSaysHowMinutesAreReckonedAndRefusesImpossibleOnes(t *testing.T) {
	p, err := Make(Input{Start: start, Minutes: 20, Age: 12, ReviewShare: 0.3, Reviews: []material.Material{{ID: "r"}}})
	require.NoError(t, err)
	require.Contains(t, p.Estimate, "60 % of the final tempo")
	require.Contains(t, p.Estimate, "3 right in a row are taken as 5 tries")
	require.Contains(t, p.Estimate, "30 % are kept for learned pieces")
	for _, m := range []int{-10, 0, 241} {
		_, err := Make(Input{Minutes: m})
		require.ErrorContains(t, err, "between 1 and 240")
	}
}

// The words follow the student's way of reading.
func TestTheWordsFollowTheApproach(t *testing.T) {
	w := work(1)
	w.Position, w.Guides = "C position", []string{"A is a second above G"}
	for approach, says := range map[naming.Approach][2]string{
		naming.ByDirection: {"rises, falls and stays", "Name the first note"},
		naming.ByInterval:  {"A is a second above G", "wider than a step"},
		naming.ByName:      {"Say the names", "Say the names"},
		naming.ByPosition:  {"C position", "say the fingers"},
	} {
		steps := staircase(w, Input{Age: 10, Approach: approach})
		require.Contains(t, steps[0].Words, says[0])
		require.Contains(t, steps[1].Words, says[1])
	}
	require.Contains(t, staircase(w, Input{Age: 5, Approach: naming.ByInterval})[1].Words, "Say same, step or skip aloud")
}
