package exercise

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/instrument"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/keycycle"
)

// anyExercise draws one that can be played.
func anyExercise(t *rapid.T, x instrument.Instrument) Exercise {
	kind := rapid.SampledFrom(For(x)).Draw(t, "type")
	step := rapid.SampledFrom(kind.Steps).Draw(t, "step")
	return rapid.SampledFrom(Places(Exercise{Type: kind, Step: step, Instrument: x})).Draw(t, "place")
}

func anyInstrument(t *rapid.T) instrument.Instrument {
	return rapid.SampledFrom(instrument.All()).Draw(t, "instrument")
}

// Whatever is typed as an id gives an exercise or a sentence, never a fall.
func TestAnyIDIsReadOrRefused(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := anyInstrument(t)
		parts := strings.Split(anyExercise(t, x).ID(), "/")
		i := rapid.IntRange(0, len(parts)-1).Draw(t, "part")
		parts[i] = rapid.OneOf(rapid.String(), rapid.SampledFrom([]string{"-", "", "C", "H", "0", "9", "C-F", "major", "scale", "apart"})).
			Draw(t, "text")
		e, err := Parse(strings.Join(parts, "/"), x)
		if err != nil {
			require.NotEmpty(t, err.Error())
			return
		}
		require.NotEmpty(t, e.Full(naming.Words{}))
		b, err := e.Build()
		require.NoError(t, err)
		require.NotEmpty(t, b.Notes)
	})
}

// An exercise is read back from its own id, on every instrument, and its notes fill whole bars without a gap in a hand.
func TestAnExerciseIsReadBackAndFillsItsBars(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := anyInstrument(t)
		e := anyExercise(t, x)
		again, err := Parse(e.ID(), x)
		require.NoError(t, err)
		require.Equal(t, e, again)
		b, err := e.Build()
		require.NoError(t, err)
		require.EqualValues(t, 1, b.Length.Den())
		require.Zero(t, b.Length.Num()%int64(b.Beats), "whole bars")
		for i, n := range b.Notes {
			require.True(t, n.At.Num() >= 0 && n.Length.Num() > 0, "%s, note %d", e.ID(), i)
			require.False(t, b.Length.Less(n.End()), "%s, note %d ends behind the last bar", e.ID(), i)
			if !x.Family.Strung() && x.Family != instrument.Keyboard {
				require.Zero(t, n.Finger+n.String)
			} else if x.Family == instrument.Keyboard {
				require.True(t, n.Finger >= 1 && n.Finger <= 5, "%s, note %d", e.ID(), i)
			} else {
				require.True(t, n.String >= 1 && n.String <= len(x.Open) && n.Finger >= 0 && n.Finger <= 4, "%s, note %d", e.ID(), i)
				require.Equal(t, n.Pitch.Semitone(), x.Open[n.String-1].Semitone()+n.Above, "%s, note %d", e.ID(), i)
			}
		}
	})
}

// To clear what is proposed always leads upwards: the step never falls, nothing is proposed twice,
// and in the end every staircase is climbed.
func TestWhoTakesWhatIsProposedClimbsEveryStaircase(t *testing.T) {
	for _, x := range instrument.All() {
		var p Progress
		at := map[string]int{}
		for taken := 0; ; taken++ {
			require.Less(t, taken, 2000, x.ID)
			var next *Proposal
			for _, s := range Climb(x, p, Wish{}) {
				require.GreaterOrEqual(t, s.At, at[s.Type.ID], "%s %s", x.ID, s.Type.ID)
				at[s.Type.ID] = s.At
				if next == nil {
					next = s.Next
				}
			}
			if next == nil {
				break
			}
			id := next.Exercise.ID()
			require.NotContains(t, p.Cleared, id)
			require.Len(t, next.Reasons, 2)
			_, err := Parse(id, x)
			require.NoError(t, err)
			p.Cleared = append(p.Cleared, id)
		}
		for _, s := range Climb(x, p, Wish{}) {
			require.Equal(t, len(s.Steps), s.At, "%s: %s waits for %q at the end", x.ID, s.Type.ID, s.Waits)
		}
		// What is reviewed at the end is one of each place: the highest.
		over := p.Superseded(x)
		places := map[string]int{}
		for _, id := range p.Cleared {
			if !over[id] {
				e, err := read(id, x)
				require.NoError(t, err)
				places[e.Type.ID+" "+e.Place()]++
			}
		}
		for place, n := range places {
			require.Equal(t, 1, n, "%s %s", x.ID, place)
		}
	}
}

// Around an exercise stands itself, chosen once in each choice, and nothing that cannot be played.
func TestChoicesHoldTheExerciseItself(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := anyInstrument(t)
		e := anyExercise(t, x)
		for _, c := range Near(e) {
			mine := 0
			for _, o := range c.Options {
				if o.ID() == e.ID() {
					mine++
				}
				_, err := Parse(o.ID(), x)
				require.NoError(t, err)
			}
			require.Equal(t, 1, mine, "%s among %s", e.ID(), c.Name)
		}
	})
}

// A cycle takes every key that can be played once, from the first on.
func TestACycleGoesRoundOnce(t *testing.T) {
	for _, x := range instrument.All() {
		kind, ok := CycleType(x)
		if !ok {
			require.Contains(t, []instrument.Family{instrument.Plucked, instrument.Voice, instrument.Percussion}, x.Family)
			continue
		}
		for _, step := range kind.Steps {
			for _, k := range kind.Kinds {
				base := Exercise{Type: kind, Step: step, Kind: k, Instrument: x}
				there := Places(base)
				if len(there) == 0 && (x.Family == instrument.Wind || step.ID == "three") {
					continue
				}
				for _, order := range []string{"fifths", "semitones"} {
					first := there[len(there)/2]
					round, err := Round(base, first.Key, keycycle.Order(order))
					require.NoError(t, err)
					require.Len(t, round, len(there), "%s %s %s", x.ID, step.ID, k)
					require.Equal(t, first.ID(), round[0].ID())
					var ids []string
					for _, e := range round {
						ids = append(ids, e.ID())
					}
					slices.Sort(ids)
					require.Len(t, slices.Compact(ids), len(there))
				}
			}
		}
	}
}
