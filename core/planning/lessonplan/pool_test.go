package lessonplan

import (
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
)

// A goal is checked at its bounds: names, ages, ways and words.
func TestAGoalAtItsBounds(t *testing.T) {
	good := func() Goal {
		return Goal{
			ID:      "x",
			Name:    strings.Repeat("ü", 80),
			From:    0,
			To:      oldest,
			Options: []string{strings.Repeat("ü", longestOption)},
			Home:    strings.Repeat("ü", longestOption),
		}
	}
	require.NoError(t, good().Check())
	nine := good()
	nine.Options = strings.Split(strings.Repeat("a,", 8)+"a", ",")
	require.NoError(t, nine.Check())
	same := good()
	same.From, same.To = 5, 5
	require.NoError(t, same.Check())
	for says, change := range map[string]func(*Goal){
		"a goal needs a name of at most 80 letters":                         func(g *Goal) { g.Name = " " },
		"the ages must lie between 0 and 120, the first not above the last": func(g *Goal) { g.From = -1 },
		"a goal needs 1 to 9 ways":                                          func(g *Goal) { g.Options = nil },
		"the words for home are longer than 300 letters":                    func(g *Goal) { g.Home += "x" },
		"a way needs words of at most 300 letters":                          func(g *Goal) { g.Options = []string{"fine", " "} },
	} {
		g := good()
		change(&g)
		require.EqualError(t, g.Check(), says)
	}
	for _, change := range []func(*Goal){
		func(g *Goal) { g.Name += "x" }, func(g *Goal) { g.To = oldest + 1 }, func(g *Goal) { g.From, g.To = 6, 5 },
		func(g *Goal) { g.Options = append(nine.Options, "b") },
		func(g *Goal) { g.Options[0] += "x" },
	} {
		g := good()
		change(&g)
		require.Error(t, g.Check())
	}
}

// The studio's own goal takes the place of the one that ships, in its place and for its instruments; a new one comes last.
func TestTheStudiosOwnGoals(t *testing.T) {
	ships := Pool{
		{ID: "a", Name: "A", Families: []instrument.Family{instrument.Bowed}, Cue: "la", Sound: []int{60}, Options: []string{"1", "2"}},
		{ID: "b", Name: "B", Options: []string{"1"}},
	}
	got := ships.Over([]Goal{{ID: "a", Name: "Mine", Options: []string{"x"}}, {ID: "c", Name: "C", Options: []string{"y"}}})
	require.Equal(t, Pool{
		{ID: "a", Name: "Mine", Families: []instrument.Family{instrument.Bowed}, Cue: "la", Sound: []int{60}, Options: []string{"x"}}, ships[1],
		{ID: "c", Name: "C", Options: []string{"y"}},
	}, got)
	require.Equal(t, "A", ships[0].Name, "what ships stays as it is")
	for option, has := range map[int]bool{0: false, 1: true, 2: true, 3: false} {
		require.Equal(t, has, ships.Has("a", option), option)
	}
	require.False(t, ships.Has("z", 1))
}

// Goals that were begun and not gone through come first, then what was never done, then what was done least; ages and
// instruments are bounds that count.
func TestWhoseTurnAGoalIs(t *testing.T) {
	two := []string{"1", "2"}
	pool := Pool{
		{ID: "often", From: 3, To: 5, Options: two}, {ID: "once", From: 3, To: 5, Options: two}, {ID: "never", From: 3, To: 5, Options: two},
		{ID: "half", From: 3, To: 5, Options: two},
		{ID: "off", From: 3, To: 5, Options: two, Off: true},
		{ID: "bowed", From: 3, To: 5, Options: two, Families: []instrument.Family{instrument.Bowed}}, {ID: "older", From: 6, To: 9, Options: two},
	}
	used := Used{"often": {1: 2, 2: 2}, "once": {1: 1, 2: 1}, "half": {1: 1}}
	order := func(player string, age int) (out []string) {
		for _, g := range pool.For(player, age, used) {
			out = append(out, g.ID)
		}
		return out
	}
	require.Equal(t, []string{"half", "never", "once", "often"}, order("piano", 3))
	require.Equal(t, []string{"half", "never", "bowed", "once", "often"}, order("cello", 5))
	require.Equal(t, []string{"older"}, order("piano", 6))
	require.Empty(t, order("piano", 2))
	require.Equal(t, []int{2, 1}, pool[3].turns(used), "the way that was not used")

	// Who reads both staves looks for groups of black keys no more; a studio's own words change nothing about that.
	behind := func(skills ...string) (out []string) {
		own := Shipped()[2]
		own.Name, own.Behind = "Black keys", nil
		left := Shipped().Over([]Goal{own}).Beyond(func(s string) bool { return slices.Contains(skills, s) })
		for _, g := range Shipped() {
			if _, there := left.Get(g.ID); !there {
				out = append(out, g.ID)
			}
		}
		return out
	}
	require.Empty(t, behind("right-hand", "keyboard-map"))
	require.Equal(t, []string{"black-keys", "beside-black"}, behind("reads-bass"))
}

// A bite that is due now is worth more than one with time, and one that is late most.
func TestALateBiteIsWorthMost(t *testing.T) {
	value := func(slack int) float64 {
		in := usual()
		in.Bites = []Bite{{Skill: "ties", Step: 1, For: "rope", Slack: slack}}
		return find(t, Candidates(in), "bite ties").Value
	}
	require.Equal(t, []float64{0.5, 0.75, 0.9}, []float64{value(1), value(0), value(-1)})
}

// What waits: what is due before what is not, then by worth; nothing of what was left out by hand or only fills minutes.
func TestWhatWaitsInOrder(t *testing.T) {
	left := func(id string, value float64, due bool, change func(*Left)) Left {
		l := Left{Segment: Segment{ID: id, Value: value, Due: due}}
		if change != nil {
			change(&l)
		}
		return l
	}
	p := Plan{Left: []Left{
		left("small", 0.2, false, nil), left("due small", 0.1, true, nil), left("large", 0.9, false, nil), left("due large", 0.8, true, nil),
		left("by hand", 2, true, func(l *Left) { l.Reason.Kind = ByHand }), left("sure", 2, false, func(l *Left) { l.Sure = true }),
		left("activity", 2, false, func(l *Left) { l.Kind = Activity }), left("posture", 2, false, func(l *Left) { l.Kind = Posture }),
	}}
	ids := func(list []Left) (out []string) {
		for _, l := range list {
			out = append(out, l.ID)
		}
		return out
	}
	require.Equal(t, []string{"due large", "due small", "large", "small"}, ids(p.Waiting()))
	require.Equal(t, []string{"by hand", "sure", "activity", "posture"}, ids(p.Others()))
}

// What is said to a parent calls the student by name, and nobody “she” or “he” by itself.
func TestThePoolCallsStudentsByName(t *testing.T) {
	pronoun := regexp.MustCompile(`(?i)\b(she|her|hers|he|him|his)\b`)
	named := 0
	for _, g := range Shipped() {
		require.NotRegexp(t, pronoun, strings.Join(append([]string{g.Home, g.Name}, g.Options...), " "), g.ID)
		if strings.Contains(g.Home, "{name}") {
			named++
		}
		require.NotContains(t, g.AtHome("Wren"), "{")
	}
	require.Equal(t, 8, named)
	four, _ := Shipped().Get("four-beats")
	require.Equal(t, "Clap four slow beats; Wren claps them back. Then on the knees, then so softly that a cat would sleep on.", four.AtHome("Wren"))
}
