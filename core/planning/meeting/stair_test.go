package meeting

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/standing"
)

func dayOf(n int) time.Time { return time.Date(2026, 5, n, 0, 0, 0, 0, time.UTC) }

func same(t time.Time) time.Time { return t.Truncate(24 * time.Hour) }

func on(day int, activity string, level int, outcome string) standing.Met {
	return standing.Met{At: dayOf(day).Add(15 * time.Hour), Activity: activity, Level: level, Outcome: outcome}
}

// The stairs in their order (common practice): match, echo two, three, find, sing back; one bar, two, with rests, write.
func TestTheStairsOfEarAndRhythm(t *testing.T) {
	names := func(p Place) (out []string) {
		for _, s := range p.Stairs {
			out = append(out, s.ID)
		}
		return out
	}
	require.Equal(t, []string{"match", "echo-two", "echo-three", "find", "sing-back"}, names(Shipped().On(Ear, 8, nil, dayOf(9), same)))
	require.Equal(t, []string{"echo-bar", "echo-two-bars", "with-rests", "dictate"}, names(Shipped().On(Time, 8, nil, dayOf(9), same)))
	require.Equal(
		t,
		[]string{"echo-bar", "echo-two-bars", "with-rests"},
		names(Shipped().On(Time, 5, nil, dayOf(9), same)),
		"nobody of five writes",
	)
	for _, l := range Lines() {
		for _, s := range lines[l] {
			a, known := Shipped().Of(s.Activity)
			require.True(t, known, s.ID)
			for _, level := range s.Levels {
				require.NotEmpty(t, a.Sounds(level), s.ID)
			}
		}
	}
}

// What came well on two days is climbed; harder shows easier; a miss takes a day away.
func TestHowAStairIsClimbed(t *testing.T) {
	p := Shipped().On(Ear, 8, nil, dayOf(9), same)
	require.Equal(t, []any{0, "echo-pitch", 1, 0, true}, []any{p.At, p.Activity.ID, p.Level, p.Days, p.Last.IsZero()})

	once := []standing.Met{on(1, "echo-pitch", 1, "matched"), on(1, "echo-pitch", 1, "matched")}
	p = Shipped().On(Ear, 8, once, dayOf(9), same)
	require.Equal(t, []int{0, 1, 1}, []int{p.At, p.Level, p.Days}, "twice on one day is one day")

	twice := append(once, on(2, "echo-pitch", 2, "octave"))
	p = Shipped().On(Ear, 8, twice, dayOf(9), same)
	require.Equal(t, []int{1, 2, 1}, []int{p.At, p.Level, p.Days}, "two tones show one")
	require.Equal(t, dayOf(2), p.Last)

	missed := append(twice, on(3, "echo-pitch", 1, "far"))
	p = Shipped().On(Ear, 8, missed, dayOf(9), same)
	require.Equal(t, []int{0, 1, 1}, []int{p.At, p.Level, p.Days})
	p = Shipped().On(Ear, 8, append(missed, on(4, "echo-pitch", 4, "matched")), dayOf(9), same)
	require.Equal(t, []int{1, 2, 1}, []int{p.At, p.Level, p.Days})

	all := []standing.Met{on(1, "echo-pitch", 5, "matched"), on(2, "echo-pitch", 5, "matched")}
	p = Shipped().On(Ear, 8, all, dayOf(9), same)
	require.True(t, p.All())
	require.Zero(t, p.Level)
}

// In a lesson it goes up and down by what came, at most three times, and the lesson does not judge itself.
func TestTwoMinutesOfALesson(t *testing.T) {
	before := []standing.Met{on(1, "echo-pitch", 2, "matched"), on(2, "echo-pitch", 2, "matched")}
	p := Shipped().On(Ear, 8, before, dayOf(9), same)
	require.Equal(t, []int{1, 3}, []int{p.At, p.Level})
	require.Equal(t, 2, p.Activity.Minutes)
	require.Contains(t, p.Steps, Step{3, "matched", 4})
	require.Contains(t, p.Steps, Step{3, "far", 2})
	require.Contains(t, p.Steps, Step{1, "far", 1})

	now := append(before, on(9, "echo-pitch", 3, "matched"), on(9, "echo-pitch", 4, "near"))
	p = Shipped().On(Ear, 8, now, dayOf(9), same)
	require.Equal(t, []int{1, 3, 2}, []int{p.At, p.Level, len(p.Today)})
	p = Shipped().On(Ear, 8, append(now, on(9, "echo-pitch", 3, "matched")), dayOf(9), same)
	require.Equal(t, []int{1, 0}, []int{p.At, p.Level}, "three tries are enough")
	require.Equal(t, []int{2, 4}, func() []int {
		p := Shipped().On(Ear, 8, append(now, on(9, "echo-pitch", 3, "matched"), on(10, "echo-pitch", 3, "matched")), dayOf(11), same)
		return []int{p.At, p.Level}
	}())
}

// The line that was tried longest ago comes; the ear before the rhythm.
func TestWhichLineIsDue(t *testing.T) {
	places := func(came ...standing.Met) []Place {
		return []Place{Shipped().On(Ear, 8, came, dayOf(9), same), Shipped().On(Time, 8, came, dayOf(9), same)}
	}
	due := func(came ...standing.Met) Line {
		p, _ := DueLine(places(came...))
		return p.Line
	}
	require.Equal(t, Ear, due())
	require.Equal(t, Time, due(on(1, "echo-pitch", 1, "far")))
	require.Equal(t, Ear, due(on(1, "echo-pitch", 1, "far"), on(2, "echo-rhythm", 1, "exact")))
	require.Equal(t, Time, due(on(2, "echo-pitch", 5, "matched"), on(3, "echo-rhythm", 1, "exact"), on(4, "echo-pitch", 5, "matched")))
	_, any := DueLine([]Place{Shipped().On(Ear, 1, nil, dayOf(9), same)})
	require.False(t, any, "nothing for a baby")
}

// What was climbed in a span is what was not before it and is after it, with the tries that showed it.
func TestWhatWasClimbedInASpan(t *testing.T) {
	met := func(id string, day int, level int, outcome string) standing.Met {
		m := on(day, "echo-pitch", level, outcome)
		m.ID = id
		return m
	}
	came := []standing.Met{
		met("a", 1, 1, "matched"),
		met("b", 3, 1, "matched"),
		met("c", 3, 2, "far"),
		met("d", 8, 2, "matched"),
		met("e", 10, 3, "matched"),
		met("f", 12, 3, "octave"),
		met("g", 12, 4, "matched"),
	}
	climbed := func(first, last int) []Climbed {
		return Shipped().Climbed(Ear, 8, came, dayOf(first), dayOf(last), same)
	}
	require.Equal(t, []Climbed{{"match", []string{"a", "b"}}}, climbed(1, 7))
	require.Equal(t, []Climbed{{"match", []string{"b"}}}, climbed(2, 3), "on the last day, too")
	require.Empty(t, climbed(4, 7))
	require.Equal(t, []Climbed{{"echo-two", []string{"d", "e", "f"}}}, climbed(4, 12))
	require.Empty(t, climbed(13, 20))
	require.Empty(t, Shipped().Climbed(Time, 8, came, dayOf(1), dayOf(20), same))
}
