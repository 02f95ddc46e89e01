package scale

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
)

func digits(f []int) string {
	var b strings.Builder
	for _, n := range f {
		b.WriteByte(byte('0' + n))
	}
	return b.String()
}

func of(t *testing.T, key string, k Kind, octaves int) Scale {
	tonic, err := Parse(key, k)
	require.NoError(t, err)
	s, err := Of(tonic, k, octaves)
	require.NoError(t, err)
	return s
}

// The scales of the second part of Hanon's The Virtuoso Pianist (1873, public
// domain), one octave upwards, from memory. Handbooks differ in the first note of
// the right hand from B flat, E flat and A flat (2 instead of 3 or 4, which is an
// alternative here), in the last of the left hand there, and in the left hand of
// G sharp minor.
func TestFingersAgreeWithTheHandbook(t *testing.T) {
	for _, c := range []struct {
		kind        Kind
		keys        string
		right, left string
	}{
		{Major, "C G D A E", "12312345", "54321321"},
		{Major, "B Cb", "12312345", "43214321"},
		{Major, "F", "12341234", "54321321"},
		{Major, "Bb", "41231234", "32143213"},
		{Major, "Eb", "31234123", "32143213"},
		{Major, "Ab", "34123123", "32143213"},
		{Major, "Db C#", "23123412", "32143213"},
		{Major, "Gb F#", "23412312", "43213214"},
		{HarmonicMinor, "A E D G C", "12312345", "54321321"},
		{HarmonicMinor, "B", "12312345", "43214321"},
		{HarmonicMinor, "F", "12341234", "54321321"},
		{HarmonicMinor, "F#", "34123123", "43213214"},
		{HarmonicMinor, "C#", "34123123", "32143213"},
		{HarmonicMinor, "G# Ab", "34123123", "32143213"},
		{HarmonicMinor, "Eb D#", "31234123", "21432132"},
		{HarmonicMinor, "Bb A#", "41231234", "21321432"},
		{NaturalMinor, "A E D G C", "12312345", "54321321"},
		{NaturalMinor, "F#", "34123123", "43213214"},
		{NaturalMinor, "G#", "34123123", "32132143"},
		{MelodicMinor, "F#", "23123412", "43213214"},
		{MajorArpeggio, "C F G", "1235", "5421"},
		{MajorArpeggio, "D A E B", "1235", "5321"},
		{MajorArpeggio, "Db Eb Ab", "4124", "2142"},
		{MajorArpeggio, "Bb", "4124", "3213"},
		{MajorArpeggio, "F#", "1235", "5321"},
		{MinorArpeggio, "A E D G C F B", "1235", "5421"},
		{MinorArpeggio, "F# C# G#", "4124", "2142"},
		{MinorArpeggio, "Bb", "2312", "3213"},
		{MinorArpeggio, "Eb", "1235", "5421"},
		{Chromatic, "C", "1313123131312", "1313213131321"},
	} {
		for _, key := range strings.Fields(c.keys) {
			s := of(t, key, c.kind, 1)
			require.Equal(t, c.right, digits(s.Up.Right), "%s %s, right hand", key, c.kind)
			require.Equal(t, c.left, digits(s.Up.Left), "%s %s, left hand", key, c.kind)
		}
	}
}

// The melodic minor comes down as the natural minor, with its fingers.
func TestTheMelodicMinorComesDownOtherwise(t *testing.T) {
	s := of(t, "F#", MelodicMinor, 1)
	require.Equal(t, "F# G# A B C# D# E# F#", names(s.Up.Notes))
	require.Equal(t, "F# E D C# B A G# F#", names(s.Down.Notes))
	require.Equal(t, "32132143", digits(s.Down.Right))
}

func names(list []score.Pitch) string {
	var out []string
	for _, p := range list {
		out = append(out, p.Name())
	}
	return strings.Join(out, " ")
}

// What the trade says of the two keys: in C the thirds fingers meet on the third
// and the sixth degree, the thumbs on the tonic between octaves, 1 and 2 on the
// fourth and fifth; in D flat 2 and 3 lie on the same two black keys, 2, 3 and 4 on
// the three, and the thumbs meet on the white ones (common practice, no source).
func TestMeetingPoints(t *testing.T) {
	c := of(t, "C", Major, 2).Meets
	require.Contains(t, c, Meet{3, 3, 3, "same"})
	require.Contains(t, c, Meet{6, 3, 3, "same"})
	require.Contains(t, c, Meet{1, 1, 1, "same"})
	require.Contains(t, c, Meet{4, 1, 2, "pair"})
	require.Contains(t, c, Meet{5, 2, 1, "pair"})
	d := of(t, "Db", Major, 2).Meets
	require.Contains(t, d, Meet{1, 2, 3, "pair"})
	require.Contains(t, d, Meet{2, 3, 2, "pair"})
	require.Contains(t, d, Meet{4, 2, 4, "group"})
	require.Contains(t, d, Meet{5, 3, 3, "group"})
	require.Contains(t, d, Meet{6, 4, 2, "group"})
	require.Contains(t, d, Meet{3, 1, 1, "same"})
	require.Contains(t, d, Meet{7, 1, 1, "same"})
	require.Len(t, d, 7, "every note of D flat is one")
}

// For every key and kind: the thumb on no black key where it can be helped, the
// same fingers in every octave, the fourth finger once an octave, hands that
// start and end together, letters that follow each other.
func TestEveryScaleKeepsTheRules(t *testing.T) {
	all := 0
	for _, k := range []Kind{Major, NaturalMinor, HarmonicMinor, MelodicMinor} {
		for _, tonic := range Keys(k) {
			for octaves := 1; octaves <= MostOctaves; octaves++ {
				all++
				s, err := Of(tonic, k, octaves)
				require.NoError(t, err)
				for _, w := range []Way{s.Up, s.Down} {
					n := 7*octaves + 1
					require.Len(t, w.Notes, n)
					require.Len(t, w.Right, n)
					require.Len(t, w.Left, n)
					for i, p := range w.Notes {
						for _, f := range []int{w.Right[i], w.Left[i]} {
							require.False(t, f == 1 && score.BlackKey(p.Semitone()), "%s %s: thumb on %s", tonic, k, p)
						}
					}
				}
				for i := 7; i+7 < len(s.Up.Notes); i++ { // away from the ends
					require.Equal(t, s.Up.Right[i], s.Up.Right[i+7-7*(i/7)+7*((i/7)-1)], "%s %s", tonic, k)
				}
				inner := s.Up.Right[:7]
				require.Equal(t, 1, strings.Count(digits(inner), "4"), "%s %s, right hand", tonic, k)
				require.Equal(t, 1, strings.Count(digits(s.Up.Left[len(s.Up.Left)-7:]), "4"), "%s %s, left hand", tonic, k)
				var letters []byte
				for _, p := range s.Up.Notes[:7] {
					letters = append(letters, p.Step)
				}
				slices.Sort(letters)
				require.Equal(t, "ABCDEFG", string(letters), "each letter once")
				last := s.Up.Notes[0].Semitone()
				for _, p := range s.Up.Notes[1:] {
					require.Greater(t, p.Semitone(), last)
					last = p.Semitone()
				}
				require.Equal(t, 12*octaves, last-s.Up.Notes[0].Semitone())
			}
		}
	}
	require.Equal(t, 4*15*MostOctaves, all)
}

// Neighbours never share a finger, and a hand turns only over or under the thumb.
func TestAHandTurnsOnlyAtTheThumb(t *testing.T) {
	for _, k := range Kinds() {
		if k.ring() == 9 || k == Tetrachords { // the hand moves, or is relieved by the other
			continue
		}
		for _, tonic := range Keys(k) {
			s, err := Of(tonic, k, min(3, k.MostOctaves()))
			require.NoError(t, err)
			for i := 1; i < len(s.Up.Notes); i++ {
				for hand, f := range map[string][2]int{"right": {s.Up.Right[i-1], s.Up.Right[i]}, "left": {s.Up.Left[i], s.Up.Left[i-1]}} {
					require.NotEqual(t, f[0], f[1], "%s %s, %s hand, note %d", tonic, k, hand, i)
					if f[1] < f[0] {
						require.Equal(t, 1, f[1], "%s %s, %s hand, note %d: %v", tonic, k, hand, i, f)
					}
				}
			}
		}
	}
}

func TestKeysThatDoNotExist(t *testing.T) {
	for key, want := range map[string]string{
		"H":   `"H" is not a key: write a letter from A to G, with b or # behind it, as in Db or F#`,
		"":    `"" is not a key: write a letter from A to G, with b or # behind it, as in Db or F#`,
		"Dbb": `"Dbb" is not a key: write a letter from A to G, with b or # behind it, as in Db or F#`,
		"G#":  "G# major would need 8 sharps; write Ab",
		"Fb":  "Fb major would need 8 flats; write E",
	} {
		_, err := Parse(key, Major)
		require.EqualError(t, err, want)
	}
	_, err := Parse("Db", NaturalMinor)
	require.EqualError(t, err, "Db natural minor would need 8 flats; write C#")
	_, err = Parse("C", "dorian")
	require.ErrorContains(t, err, `"dorian" is not a kind of scale; there are major, natural-minor`)
	c, err := Parse("b flat", Major)
	require.NoError(t, err)
	require.Equal(t, Tonic{'B', -1}, c)
	_, err = Of(c, Major, 9)
	require.EqualError(t, err, "octaves must lie between 1 and 4, not 9")
	_, err = Of(c, Major, 0)
	require.Error(t, err)
}

func TestStartsOnTheSecondFinger(t *testing.T) {
	s := of(t, "Bb", Major, 1)
	require.Equal(t, []Alternative{
		{Right: true, Fingers: []int{2, 1, 2, 3, 1, 2, 3, 4}, Why: "the first note by the second finger, beside the thumb that follows"},
		{Fingers: []int{3, 2, 1, 4, 3, 2, 1, 2}, Why: "the last note by the second finger, beside the thumb before it"},
	}, s.Alternatives)
	require.Empty(t, of(t, "C", Major, 1).Alternatives)
}

// All scales and arpeggios of all keys, one to four octaves: the aim is under 50 ms.
func BenchmarkAll(b *testing.B) {
	for b.Loop() {
		for _, k := range Kinds() {
			for _, tonic := range Keys(k) {
				for octaves := 1; octaves <= MostOctaves; octaves++ {
					if _, err := Of(tonic, k, octaves); err != nil {
						b.Fatal(err)
					}
				}
			}
		}
	}
}

func TestAKindThatIsNoneIsRefused(t *testing.T) {
	for _, k := range []Kind{"", "lydian"} {
		_, err := Of(Tonic{}, k, 1)
		require.EqualError(t, err, fmt.Sprintf("no kind of scale %q", k))
	}
}
