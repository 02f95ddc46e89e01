package bowed

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/scale"
)

func open(t *testing.T, id string) instrument.Instrument {
	x, ok := instrument.Of(id)
	require.True(t, ok)
	return x
}

func key(t *testing.T, name string, k scale.Kind) scale.Tonic {
	tonic, err := scale.Parse(name, k)
	require.NoError(t, err)
	return tonic
}

// said writes a scale as strings from the lowest on, "IV" for the fourth string of a
// cello, with their fingers.
func said(list []Played) string {
	var out []string
	last := 0
	for _, p := range list {
		s := fmt.Sprint(p.Finger)
		if p.Extended && p.Finger > 1 {
			s = "x" + s
		}
		if p.Where != "" {
			s = "(" + p.Where + ") " + s
		}
		if p.String != last {
			s = fmt.Sprintf("%s: %s", []string{"", "I", "II", "III", "IV"}[p.String], s)
			last = p.String
		}
		out = append(out, s)
	}
	return strings.Join(out, " ")
}

// Scales in first position as the first cello and violin books finger them, from
// memory (common practice): D and G and C major of the cello on open strings, two
// octaves of C, G and D, F from the fourth finger, D minor with the first finger back; A and D
// and G major of the violin. Handbooks differ above first position.
func TestScalesOverTheStrings(t *testing.T) {
	for _, c := range []struct {
		player, key string
		kind        scale.Kind
		octaves     int
		want        string
	}{
		{"cello", "D", scale.Major, 1, "II: 0 1 3 4 I: 0 1 3 4"},
		{"cello", "G", scale.Major, 1, "III: 0 1 3 4 II: 0 1 3 4"},
		{"cello", "C", scale.Major, 1, "IV: 0 1 3 4 III: 0 1 3 4"},
		{"cello", "C", scale.Major, 2, "IV: 0 1 3 4 III: 0 1 3 4 II: 0 1 2 4 I: 0 1 2"},
		{"cello", "D", scale.Major, 2, "IV: 1 x2 x4 III: 0 1 x2 x4 II: 0 1 3 4 I: 0 1 3 4"},
		{"cello", "G", scale.Major, 2, "III: 0 1 3 4 II: 0 1 3 4 I: 0 1 2 4 (fourth position) 1 3 4"},
		{"cello", "F", scale.Major, 1, "IV: 4 III: 0 1 2 4 II: 0 1 2"},
		{"cello", "D", scale.MajorArpeggio, 1, "II: 0 3 I: 0 4"},
		{"cello", "D", scale.NaturalMinor, 1, "II: 0 1 2 4 I: 0 1 x2 x4"},
		{"violin", "A", scale.Major, 1, "II: 0 1 2 3 I: 0 1 2 3"},
		{"violin", "D", scale.Major, 1, "III: 0 1 2 3 II: 0 1 2 3"},
		{"violin", "G", scale.Major, 2, "IV: 0 1 2 3 III: 0 1 2 3 II: 0 1 2 3 I: 0 1 2"},
		{"violin", "Bb", scale.Major, 2, "IV: 2 3 III: 0 1 2 3 II: 0 1 2 3 4 I: 1 2 3 4"},
		{"viola", "C", scale.Major, 2, "IV: 0 1 2 3 III: 0 1 2 3 II: 0 1 2 3 I: 0 1 2"},
	} {
		got, err := Scale(open(t, c.player), key(t, c.key, c.kind), c.kind, c.octaves)
		require.NoError(t, err)
		require.Equal(t, c.want, said(got), "%s, %s %s", c.player, c.key, c.kind)
	}
}

// Which pattern a key asks of each string, lowest string first (common practice: in
// C the upper two strings of a cello have the second finger, in D the third, in A the hand
// opens on the lower strings; on the violin in D the second finger lies beside the third on
// three strings and beside the first on the fourth string upwards).
func TestFingerPatternsOfAKey(t *testing.T) {
	for _, c := range []struct {
		player, key string
		want        string
	}{
		{"cello", "C", "1-3-4 | 1-3-4 | 1-2-4 | 1-2-4"},
		{"cello", "G", "1-2-4-forward | 1-3-4 | 1-3-4 | 1-2-4"},
		{"cello", "F", "1-3-4 | 1-2-4 | 1-2-4 | 1-2-4-back"},
		{"violin", "D", "all-whole | close-2-3 | close-2-3 | close-1-2"},
		{"viola", "G", "all-whole | close-2-3 | close-2-3 | close-1-2"},
	} {
		list, err := Patterns(open(t, c.player), key(t, c.key, scale.Major), scale.Major)
		require.NoError(t, err)
		var ids []string
		for i := len(list) - 1; i >= 0; i-- {
			ids = append(ids, list[i].ID)
		}
		require.Equal(t, c.want, strings.Join(ids, " | "), "%s, %s", c.player, c.key)
	}
}

// For every key on every bowed instrument: every note of the key on the string it
// stands on, every finger where the place of the hand leaves it, upwards.
func TestEveryPatternLiesUnderTheHand(t *testing.T) {
	count := 0
	for _, x := range instrument.All() {
		if x.Family != instrument.Bowed {
			continue
		}
		for _, k := range []scale.Kind{scale.Major, scale.NaturalMinor, scale.HarmonicMinor} {
			for _, tonic := range scale.Keys(k) {
				list, err := Patterns(x, tonic, k)
				require.NoError(t, err)
				require.Len(t, list, 4)
				for _, p := range list {
					count++
					require.NotEmpty(t, p.Words)
					last := -1
					for _, s := range p.Stops {
						name := fmt.Sprintf("%s, %s %s, string %d, %s", x.ID, tonic, k, p.String, s.Pitch)
						require.Equal(t, p.Open.Semitone()+s.Above, s.Pitch.Semitone(), name)
						require.Greater(t, s.Above, last, name)
						last = s.Above
						require.Equal(t, s.Above == 0, s.Finger == 0, name)
						if s.Finger > 0 {
							require.LessOrEqual(t, s.Above-s.Place, x.Hand.Reach, name)
							require.GreaterOrEqual(t, s.Above-s.Place, s.Finger-1, name)
						}
					}
				}
				for octaves := 1; octaves <= 2; octaves++ {
					notes, err := Scale(x, tonic, k, octaves)
					require.NoError(t, err)
					for i, n := range notes {
						require.Equal(t, n.Pitch.Semitone(), x.Open[n.String-1].Semitone()+n.Above)
						require.Positive(t, n.Finger+1)
						if i > 0 {
							require.Less(t, notes[i-1].Pitch.Semitone(), n.Pitch.Semitone())
							require.LessOrEqual(t, n.String, notes[i-1].String, "upwards over the strings: %s, %s %s, %s", x.ID, tonic, k, said(notes))
						}
					}
				}
			}
		}
	}
	require.Equal(t, 3*3*15*4, count)
}

func TestWhatCannotBePlayed(t *testing.T) {
	_, err := Patterns(open(t, "piano"), scale.Tonic{Step: 'C'}, scale.Major)
	require.EqualError(t, err, "finger patterns are for bowed strings; piano has none")
	_, err = Scale(open(t, "ukulele"), scale.Tonic{Step: 'C'}, scale.Major, 1)
	require.Error(t, err)
	_, err = Scale(open(t, "cello"), scale.Tonic{Step: 'B'}, scale.Major, 4)
	require.EqualError(t, err, "4 octaves from B leave the fingerboard of the cello")
	_, err = Scale(open(t, "cello"), scale.Tonic{Step: 'B'}, scale.Major, 0)
	require.Error(t, err)
}

// The bow goes down first and turns after each group (common practice).
func TestBows(t *testing.T) {
	p, ok := PlanOf("two")
	require.True(t, ok)
	require.Equal(
		t,
		[]Stroke{{Begins: true}, {Ends: true}, {Up: true, Begins: true}, {Up: true, Ends: true}, {Begins: true, Ends: true}},
		p.Strokes(5),
	)
	_, ok = PlanOf("ricochet")
	require.False(t, ok)
}
