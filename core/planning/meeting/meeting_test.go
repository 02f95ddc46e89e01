package meeting

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/skill"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/standing"
)

func ids(list []Activity) (out []string) {
	for _, a := range list {
		out = append(out, a.ID)
	}
	return out
}

// A child of five at the piano: half an hour has all parts in the order of a first meeting (common practice); a quarter of
// an hour keeps greeting, listening, rhythm, seat and the end; somebody grown draws nothing.
func TestWhatFitsAFirstMeeting(t *testing.T) {
	require.Equal(
		t,
		[]string{"hello", "echo-pitch", "echo-rhythm", "guess", "draw", "feet", "hand", "black-keys", "take-home"},
		ids(Shipped().Plan(30, 5, instrument.Keyboard)),
	)
	require.Equal(t, []string{"hello", "echo-pitch", "keep-a-beat", "feet", "take-home"}, ids(Shipped().Plan(15, 5, instrument.Keyboard)))
	require.Equal(
		t,
		[]string{
			"hello",
			"echo-pitch",
			"hidden-pitch",
			"echo-rhythm",
			"keep-a-beat",
			"guess",
			"draw",
			"feet",
			"hand",
			"black-keys",
			"own-tune",
			"take-home",
		},
		ids(Shipped().Plan(45, 5, instrument.Keyboard)),
	)
	require.Equal(
		t,
		[]string{"hello", "echo-pitch", "hidden-pitch", "echo-rhythm", "keep-a-beat", "feet", "hand", "open-strings", "take-home"},
		ids(Shipped().Plan(30, 40, instrument.Bowed)),
	)
	require.Contains(t, ids(Shipped().Plan(30, 9, instrument.Wind)), "first-tone")
	require.Empty(t, Shipped().Plan(0, 5, instrument.Keyboard))
	for _, minutes := range []int{0, 7, 15, 30, 45, 90} {
		sum := 0
		for _, a := range Shipped().Plan(minutes, 6, instrument.Plucked) {
			sum += a.Minutes
		}
		require.LessOrEqual(t, sum, minutes)
	}
	require.NotEmpty(t, Shipped().Plan(30, 6, ""), "an instrument without data has a meeting too")
}

func came(activity string, tries ...any) (out []standing.Met) {
	for i := 0; i < len(tries); i += 2 {
		out = append(out, standing.Met{Activity: activity, Level: tries[i].(int), Outcome: tries[i+1].(string)})
	}
	return out
}

// What came is followed by something harder, what did not by something easier: a fifth where the third was missed, three
// tones after two (common practice); and it is over before it becomes a test.
func TestTheNextTryFollowsWhatCame(t *testing.T) {
	pitch, _ := Shipped().Of("echo-pitch")
	require.Equal(t, 1, pitch.Next(nil))
	require.Equal(t, 2, pitch.Next(came("echo-pitch", 1, "matched")))
	require.Equal(t, 2, pitch.Next(came("echo-pitch", 1, "matched", 2, "matched", 3, "far")), "the fifth again")
	require.Equal(t, 4, pitch.Next(came("echo-pitch", 1, "matched", 2, "octave", 3, "matched")), "three tones")
	require.Equal(t, 0, pitch.Next(came("echo-pitch", 1, "far", 1, "spoke")))
	require.Equal(t, 0, pitch.Next(came("echo-pitch", 1, "matched", 2, "matched", 3, "matched", 4, "matched", 5, "matched")))
	require.Equal(t, 0, pitch.Next(came("echo-pitch", 1, "matched", 2, "far", 1, "matched", 2, "far", 1, "matched")), "five tries")
	rhythm, _ := Shipped().Of("echo-rhythm")
	require.Equal(t, 1, rhythm.Next(came("echo-rhythm", 1, "exact", 2, "one-extra")))
	feet, _ := Shipped().Of("feet")
	require.Equal(t, 1, feet.Next(nil))
	require.Equal(t, 0, feet.Next(came("feet", 1, "hang")))

	require.Equal(t, []Sound{{0, 1.5, 62}, {1.5, 1.5, 69}}, pitch.Sounds(2), "a fifth")
	require.Equal(t, []Sound{{0, 1.5, 66}, {1.5, 1.5, 62}}, pitch.Sounds(3), "a third")
	require.Equal(t, []Sound{{0, 1, 0}, {2, .5, 0}, {2.5, .5, 0}, {3, 1, 0}}, rhythm.Sounds(7), "with a rest")
	require.Empty(t, pitch.Sounds(9))
}

// Two things go home: what came well, and one that did not come yet as a game.
func TestTwoThingsGoHome(t *testing.T) {
	list := append(came("echo-pitch", 1, "matched"), came("echo-rhythm", 1, "one-extra")...)
	list = append(list, came("black-keys", 0, "copied")...)
	require.Equal(t, []string{"black-keys", "echo-rhythm"}, Shipped().TakeHome(list))
	require.Equal(t, []string{"echo-pitch"}, Shipped().TakeHome(came("echo-pitch", 1, "matched")))
	require.Empty(t, Shipped().TakeHome(nil))
	require.Empty(t, Shipped().TakeHome(came("feet", 0, "hang")))
}

// The data name skills of the catalogue and goals of the pool; what is damaged is refused.
func TestTheDataFitTheRest(t *testing.T) {
	c, err := skill.Standard()
	require.NoError(t, err)
	for _, a := range Shipped() {
		for _, id := range a.Skills {
			_, known := c.Get(id)
			require.True(t, known, id)
		}
		if a.Home != "" {
			_, known := lessonplan.Shipped().Get(a.Home)
			require.True(t, known, a.Home)
		}
	}
	for text, says := range map[string]string{
		`{`:                          "unexpected end",
		`[{"id":"a","part":"x"}]`:    `"x" is no part of a meeting`,
		`[{"id":"a","part":"hand"}]`: "needs minutes, ages and outcomes",
		`[{"part":"hand"}]`:          "needs a name of its own",
		`[{"id":"a","part":"hand","minutes":1,"to":9,"outcomes":["x","y"],"good":["z"]}]`:       `"z" is none of its outcomes`,
		`[{"id":"a","part":"hand","minutes":1,"to":9,"outcomes":["x","y"],"skills":{"z":"s"}}]`: `"z" is none of its outcomes`,
	} {
		_, err := parse([]byte(text))
		require.ErrorContains(t, err, says)
	}
}
