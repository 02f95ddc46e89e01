package exercise

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/technique/scale"
)

func built(t *testing.T, player, id string) (Exercise, Built) {
	x, _ := instrument.Of(player)
	e, err := Parse(id, x)
	require.NoError(t, err)
	b, err := e.Build()
	require.NoError(t, err)
	return e, b
}

func texts(b Built) (out []string) {
	for _, d := range b.Dynamics {
		out = append(out, d.Hand+" "+d.Text)
	}
	return out
}

// The path to one hand that sings (common practice): the loud hand alone; the other mimes on the key
// tops; thumbs, one loud and one soft; five fingers; then the roles swapped.
func TestThePathToOneHandThatSings(t *testing.T) {
	of := func(step string) Built {
		_, b := built(t, "piano", "voicing/"+step+"/C/major-five-finger/-")
		return b
	}
	heard := func(b Built, hand string) (out []score.Pitch) {
		for _, n := range b.Notes {
			if n.Hand == hand && !n.Silent {
				out = append(out, n.Pitch)
			}
		}
		return out
	}
	alone := of("alone")
	require.Empty(t, heard(alone, "left"))
	require.Equal(t, []string{" f"}, texts(alone))
	mime := of("mime")
	require.NotEmpty(t, heard(mime, "right"))
	require.Empty(t, heard(mime, "left"), "it moves and is not heard")
	require.True(t, slices.ContainsFunc(mime.Notes, func(n Note) bool { return n.Hand == "left" && n.Silent }))
	thumbs := of("thumbs")
	for _, n := range thumbs.Notes {
		require.Equal(t, 1, n.Finger)
	}
	require.Equal(t, []string{"right f", "left pp"}, texts(thumbs))
	require.Equal(t, []string{"right f", "left pp"}, texts(of("five")))
	require.Equal(t, []string{"right pp", "left f"}, texts(of("swapped")))
}

// Two touches at once: the left hand short, the right hand joined.
func TestTwoTouchesAtOnce(t *testing.T) {
	_, b := built(t, "piano", "five-finger/touch/D/major-five-finger/-")
	for _, n := range b.Notes {
		require.Equal(t, n.Hand == "left", n.Short)
	}
}

// A scale that grows and fades has its loudest place at the top note.
func TestASwellIsLoudestAtTheTop(t *testing.T) {
	_, b := built(t, "piano", "scale/dynamics/G/major/-")
	require.Equal(t, []string{" crescendo", " end", " diminuendo", " end"}, texts(b))
	top, at := 0, rational.Rat{}
	for _, n := range b.Notes {
		if n.Hand == "right" && n.Pitch.Semitone() > top {
			top, at = n.Pitch.Semitone(), n.At
		}
	}
	turn := b.Dynamics[2].At
	require.LessOrEqual(t, turn.Sub(at).Float(), 1.0, "within a beat of the top")
	require.GreaterOrEqual(t, turn.Sub(at).Float(), -1.0)
}

// In the round the voices never clash: on every strong beat on which both sound they make a consonance
// (unison, third, fourth, fifth, sixth, octave: the rules of counterpoint, the fourth between upper
// voices let pass). The left hand begins a bar later with the same tune.
func TestTheRoundGoesWithItself(t *testing.T) {
	for _, kind := range []scale.Kind{scale.MajorFive, scale.MinorFive} {
		_, b := built(t, "piano", "two-voices/round/C/"+string(kind)+"/-")
		sounding := func(hand string, at rational.Rat) (score.Pitch, bool) {
			for _, n := range b.Notes {
				if n.Hand == hand && !at.Less(n.At) && at.Less(n.End()) {
					return n.Pitch, true
				}
			}
			return score.Pitch{}, false
		}
		compared := 0
		for beat := int64(0); rational.Int(beat).Less(b.Length); beat += 2 {
			r, both := sounding("right", rational.Int(beat))
			l, too := sounding("left", rational.Int(beat))
			if both && too {
				steps := (r.StaffStep() - l.StaffStep()) % 7
				require.NotContains(t, []int{1, 6, -1, -6}, steps, "a second or a seventh at beat %d: %s over %s", beat, r, l)
				compared++
			}
		}
		require.GreaterOrEqual(t, compared, 10)
		line := func(hand string, later int64) (out []string) {
			for _, n := range b.Notes {
				if n.Hand == hand {
					out = append(out, n.At.Sub(rational.Int(later)).String()+" "+n.Pitch.Name())
				}
			}
			return out
		}
		right, left := line("right", 0), line("left", 4)
		require.Equal(t, right[:len(left)-1], left[:len(left)-1])
	}
}

// Quick fingers for the left hand are the mirror of those for the right: the same fingers at the same time.
func TestStudiesComeInMirroredPairs(t *testing.T) {
	fingers := func(step, hand string) (out []int) {
		_, b := built(t, "piano", "mirrored/"+step+"/C/major-five-finger/-")
		for _, n := range b.Notes {
			if n.Hand == hand {
				out = append(out, n.Finger)
			}
		}
		return out
	}
	require.Equal(t, fingers("right", "right"), fingers("left", "left"))
	require.Equal(t, fingers("both", "right"), fingers("both", "left"))
	require.Equal(t, []int{5, 4, 3, 2, 1, 2, 3, 4}, fingers("right", "right")[:8])
}

// Whole bows take a note each, down and up in turn; slurred ones two or four (common practice).
func TestBowsAreDealtOut(t *testing.T) {
	bows := func(id string) (out []string) {
		_, b := built(t, "cello", id)
		for _, n := range b.Notes {
			switch {
			case n.Bow != "":
				out = append(out, n.Bow)
			default:
				out = append(out, "-")
			}
		}
		return out
	}
	require.Equal(t, []string{"down", "up", "down", "up"}, bows("string-scale/one/D/major/-")[:4])
	require.Equal(t, []string{"down", "-", "up", "-"}, bows("string-scale/slurred/D/major/-")[:4])
	require.Equal(t, []string{"down", "-", "-", "-", "up"}, bows("string-scale/four/D/major/-")[:5])
	_, b := built(t, "cello", "finger-pattern/air/D/major/2")
	for _, n := range b.Notes {
		require.True(t, n.Silent, "walked in the air first")
	}
}

// A chord held under a roll keeps its strings; through a change the second shape comes after two bars.
func TestRollsOverChords(t *testing.T) {
	_, b := built(t, "ukulele", "roll/changes/-/-/thumb-out")
	require.Equal(t, "C", b.Chords[0].Name)
	require.Equal(t, "F", b.Chords[1].Name)
	require.EqualValues(t, 2*b.Beats, b.Chords[1].At.Num())
	_, open := built(t, "ukulele", "roll/open/-/-/thumb-out")
	require.Empty(t, open.Chords)
	for i, n := range open.Notes {
		require.Zero(t, n.Above)
		require.Equal(t, b.Notes[i].Pluck, n.Pluck, "the fingers stay whatever the left hand does")
		require.Equal(t, b.Notes[i].String, n.String)
	}
}
