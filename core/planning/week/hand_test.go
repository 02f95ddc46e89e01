package week

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/student/studentlog"
)

func dateOf(day int) string { return start.AddDate(0, 0, day).Format(time.DateOnly) }

// find returns the days, from 0, on which an item stands.
func find(p Plan, key string) []int {
	var out []int
	for i, d := range p.Days {
		if slices.ContainsFunc(d.Items, func(it Item) bool { return it.Key == key }) {
			out = append(out, i)
		}
	}
	return out
}

func input() Input {
	return Input{
		Start: start, Practises: everyDay(), Minutes: 20, Age: 7, Works: []Work{work(3)}, ReviewShare: 0.3,
		Reviews: []material.Material{{ID: "r", Title: "Old", Quarters: 16, Tempo: 80}, {ID: "s", Title: "Older", Quarters: 16, Tempo: 80}},
	}
}

func TestAPinnedItemStandsOnItsDayAndNowhereElse(t *testing.T) {
	in := input()
	in.Hand.Pins = map[string]string{"chunk m 1-1": dateOf(5), "review r": dateOf(2)}
	p, err := Make(in)
	require.NoError(t, err)
	require.Equal(t, []int{5}, find(p, "chunk m 1-1"))
	require.Equal(t, []int{2}, find(p, "review r"))
	for _, it := range p.Days[5].Items {
		require.Equal(t, it.Key == "chunk m 1-1", it.Pinned)
	}
}

func TestWhatIsTakenOutIsListedAndTheRestFollows(t *testing.T) {
	in := input()
	in.Hand.Drops = []string{"chunk m 2-2", "review r"}
	p, err := Make(in)
	require.NoError(t, err)
	require.Empty(t, find(p, "chunk m 2-2"))
	require.Empty(t, find(p, "review r"))
	require.Len(t, p.Dropped, 2)
	require.NotEmpty(t, find(p, "chunk m 3-3"))
	require.NotEmpty(t, find(p, "review s"))
}

func TestADayTakenAwayMovesItsStepsOn(t *testing.T) {
	in := input()
	in.Hand.Days = map[string]bool{dateOf(0): false, dateOf(1): false}
	in.Practises[start.AddDate(0, 0, 3).Weekday()] = false
	in.Hand.Days[dateOf(3)] = true
	p, err := Make(in)
	require.NoError(t, err)
	require.True(t, p.Days[0].Rest && p.Days[1].Rest)
	require.False(t, p.Days[3].Rest, "a day given by hand holds against the weekday")
	require.Contains(t, find(p, "chunk m 1-1"), 2)
}

func TestTimesByHandChangeTheMinutes(t *testing.T) {
	in := input()
	in.Hand.Times = map[string]int{"chunk m 1-1": 20}
	p, err := Make(in)
	require.NoError(t, err)
	for _, d := range p.Days {
		for _, it := range d.Items {
			if it.Key == "chunk m 1-1" {
				require.Equal(t, 20, it.Times)
				require.InDelta(t, minutes(4, 80, 20, false), it.Minutes, 1e-9)
			}
		}
	}
}

func TestWhatCannotBeIsSaid(t *testing.T) {
	for want, h := range map[string]Hand{
		"12 May is not in the week from 5 May":                {Pins: map[string]string{"x": dateOf(7)}},
		"4 May is not in the week from 5 May":                 {Days: map[string]bool{dateOf(-1): true}},
		`"soon" is not a date`:                                {Days: map[string]bool{"soon": true}},
		"a step is played 1 to 20 times a day, not 0":         {Times: map[string]int{"x": 0}},
		"minutes a day must lie between 1 and 240, not -10":   {Minutes: -10},
		"the words to the family are longer than 600 letters": {Words: string(make([]byte, 601))},
		"minutes a day must lie between 1 and 240, not 241":   {Minutes: 241},
	} {
		in := input()
		in.Hand = h
		_, err := Make(in)
		require.EqualError(t, err, want)
	}
}

// Whatever is set by hand, the minutes are a hard limit, days of rest stay
// empty, and nothing that was taken out comes back.
func TestTheLimitHoldsWhateverIsSetByHand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := input()
		in.Works = append(in.Works, work(rapid.IntRange(0, 3).Draw(t, "depth")))
		in.Works[1].Material.ID = "n"
		in.Works[1].Gate = rapid.SampledFrom([]Gate{"", studentlog.RightOnly, studentlog.LeftOnly, studentlog.Apart, studentlog.Together}).
			Draw(t, "gate")
		in.Bites = []Bite{{Skill: "x", Name: "a bite", Words: "clap it"}}
		in.Listen = []material.Material{{ID: "l", Quarters: 32, Tempo: 90}}
		in.Dose, in.DoseRow = rapid.SampledFrom(Doses()).Draw(t, "dose"), rapid.IntRange(0, 6).Draw(t, "row")
		free, err := Make(in)
		require.NoError(t, err)
		var keys []string
		for _, d := range free.Days {
			for _, it := range d.Items {
				keys = append(keys, it.Key)
			}
		}
		h := Hand{Minutes: rapid.IntRange(1, 40).Draw(t, "minutes"), Pins: map[string]string{}, Times: map[string]int{}, Days: map[string]bool{}}
		for range rapid.IntRange(0, 4).Draw(t, "changes") {
			key := rapid.SampledFrom(keys).Draw(t, "key")
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				h.Drops = append(h.Drops, key)
			case 1:
				h.Pins[key] = dateOf(rapid.IntRange(0, 6).Draw(t, "day"))
			case 2:
				h.Times[key] = rapid.IntRange(1, MostTimes).Draw(t, "times")
			case 3:
				h.Days[dateOf(rapid.IntRange(0, 6).Draw(t, "day"))] = rapid.Bool().Draw(t, "practice")
			}
		}
		in.Hand = h
		p, err := Make(in)
		require.NoError(t, err)
		for i, d := range p.Days {
			sum := 0.0
			for _, it := range d.Items {
				sum += it.Minutes
				require.False(t, h.dropped(it.Key), it.Key)
				if day, pinned := h.Pins[it.Key]; pinned && it.Kind != Again {
					require.Equal(t, dateOf(i), day)
				}
			}
			require.LessOrEqual(t, sum, float64(h.Minutes)+1e-9)
			require.False(t, d.Rest && len(d.Items) > 0)
		}
	})
}

// Right hand only until the left was taught: every step is for the right hand,
// whatever week it is (common practice, no source).
func TestAGateHoldsUntilItIsOpened(t *testing.T) {
	for gate, want := range map[Gate]string{studentlog.RightOnly: "right hand", studentlog.LeftOnly: "left hand", studentlog.Together: ""} {
		in := input()
		in.Works[0].Gate, in.Works[0].WeeksOn, in.Works[0].HandsApart = gate, 5, true
		p, err := Make(in)
		require.NoError(t, err)
		for _, d := range p.Days {
			for _, it := range d.Items {
				if it.Material == "m" {
					require.Equal(t, want, it.Hand, it.Key)
				}
			}
		}
		if want == "right hand" {
			require.Equal(t, Held{Kind: LeftUntaught, Title: "Tune"}, p.NotYet[0])
		}
	}
}

func TestEachHandByItself(t *testing.T) {
	in := input()
	in.Minutes = 120
	in.Works[0].Gate = studentlog.Apart
	p, err := Make(in)
	require.NoError(t, err)
	require.NotEmpty(t, find(p, "chunk m 1-1 r"))
	require.NotEmpty(t, find(p, "chunk m 1-1 l"))
	require.Empty(t, find(p, "chunk m 1-1"))
	require.Equal(t, Held{Kind: HeldTogether, Title: "Tune"}, p.NotYet[0])
}

// The five doses (common practice, no source): once a day and perfectly; three
// times; five to ten in a row; as many times as the student has years; until k
// right in a row.
func TestTheFiveDoses(t *testing.T) {
	for _, c := range []struct {
		in    Input
		times int
		row   bool
		says  Often
	}{
		{Input{Age: 6, Dose: Once}, 1, false, Often{Dose: Once}},
		{Input{Age: 6, Dose: Three}, 3, false, Often{Dose: Three}},
		{Input{Age: 6, Dose: FiveToTen}, 5, true, Often{Dose: FiveToTen}},
		{Input{Age: 6, Dose: ByYears}, 6, false, Often{Dose: ByYears}},
		{Input{Age: 6, Dose: InARow, DoseRow: 4}, 4, true, Often{Dose: InARow, Row: 4}},
		{Input{Age: 40, Dose: ByYears, DoseRow: 5}, 5, true, Often{Dose: InARow, Row: 5}},
	} {
		times, row := c.in.dose()
		require.Equal(t, c.times, times, c.says)
		require.Equal(t, c.row, row, c.says)
		require.Equal(t, c.says, c.in.Often())
	}
	require.False(t, Dose("often").Known())
}

func TestBitesAndListeningTakeLittle(t *testing.T) {
	in := input()
	in.Bites = []Bite{{Skill: "a", Name: "quavers", Words: "clap"}, {Skill: "b", Name: "bow", Words: "draw"}}
	in.Listen = []material.Material{{ID: "l", Title: "Next", Quarters: 32, Tempo: 90}}
	p, err := Make(in)
	require.NoError(t, err)
	require.Equal(t, []int{0, 2, 4, 6}, find(p, "preview a"))
	require.Equal(t, []int{1, 3, 5}, find(p, "preview b"))
	require.Len(t, find(p, "listen l"), 7)
	for _, d := range p.Days {
		last := d.Items[len(d.Items)-1]
		require.Equal(t, Listen, last.Kind, "listening comes last")
		extra := 0.0
		for _, it := range d.Items {
			if it.Kind == Preview || it.Kind == Listen {
				extra += it.Minutes
			}
		}
		require.LessOrEqual(t, extra, smallShare*20)
	}
}
