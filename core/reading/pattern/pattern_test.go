package pattern

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// piece writes one whole note a bar, with the pitch that the letter names; a space is a bar of rest.
func piece(letters string) *score.Score {
	s := &score.Score{Parts: []score.Part{{Staves: 1}}}
	for i, c := range letters {
		start := rational.Int(int64(4 * i))
		s.Bars = append(s.Bars, score.Bar{Start: start, Length: rational.Int(4)})
		note := score.Note{Onset: start, Duration: rational.Int(4), Bar: i + 1, Staff: 1, Rest: c == ' '}
		if !note.Rest {
			note.Pitch = score.Pitch{Step: byte(c), Octave: 4}
		}
		s.Notes = append(s.Notes, note)
	}
	return s
}

// A piece of eighteen bars that is made of six patterns asks for six things to
// learn (common practice, no source; counted by hand).
func TestEighteenBarsOfSixPatterns(t *testing.T) {
	load := Of(piece("ABABCDABABCDEFEFCD"))
	require.Equal(t, 18, load.Bars)
	require.Equal(t, 6, load.Distinct)
	require.InDelta(t, 1.0/3, load.Share(), 1e-9)
	require.Equal(t, Pattern{Letter: "A", Bars: []int{1, 3, 7, 9}}, load.Patterns[0])
}

func TestRestsNeedNoLearning(t *testing.T) {
	load := Of(piece("A A"))
	require.Equal(t, 3, load.Bars)
	require.Equal(t, 1, load.Distinct)
}

func TestRhythmAndTiesTellBarsApart(t *testing.T) {
	s := piece("AAA")
	s.Notes[1].Duration = rational.Int(2)
	s.Notes[2].TieStart = true
	require.Equal(t, 3, Of(s).Distinct)
}

func TestLetters(t *testing.T) {
	require.Equal(t, []string{"A", "Z", "AA", "AB", "BA"}, []string{letter(0), letter(25), letter(26), letter(27), letter(52)})
}

// Transposing a piece changes none of its patterns.
func TestTranspositionKeepsPatterns(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		letters := rapid.StringOfN(rapid.SampledFrom([]rune("ABCDEFG")), 1, 24, -1).Draw(t, "letters")
		low, high := piece(letters), piece(letters)
		for i := range high.Notes {
			high.Notes[i].Pitch.Octave++
		}
		require.Equal(t, Of(low), Of(high))
		require.LessOrEqual(t, Of(low).Distinct, 7)
	})
}

func typed(t require.TestingT, tune string) *score.Score {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\n" + tune))
	require.NoError(t, err)
	return tunes[0]
}

// Worked by hand: in what each bar is like an earlier one.
func TestBarsThatAreAlike(t *testing.T) {
	for tune, want := range map[string]Pattern{
		"K:C\nCDEC|cdec|":    {Letter: "B", Bars: []int{2}, Like: "A", How: "octave", Steps: 7},
		"K:C\nCDEC|GABG|":    {Letter: "B", Bars: []int{2}, Like: "A", How: "transposed", Steps: 4},
		"K:C\nCDEC|DEFD|":    {Letter: "B", Bars: []int{2}, Like: "A", How: "transposed in the key", Steps: 1},
		"K:C\nCDEC|C2D/E/C|": {Letter: "B", Bars: []int{2}, Like: "A", How: "other rhythm"},
		"K:C\nCDEC|CDEF|":    {Letter: "B", Bars: []int{2}},
		"K:C\nCDEC|DE^FD|":   {Letter: "B", Bars: []int{2}, Like: "A", How: "transposed", Steps: 1},
		"K:C\nC4|D4|":        {Letter: "B", Bars: []int{2}}, // one note resembles nothing
	} {
		require.Equal(t, want, Of(typed(t, tune)).Patterns[1], tune)
	}
}

func TestAHandAloneMayHaveFewerPatterns(t *testing.T) {
	s := typed(t, "K:C\nV:1\ncdef|gfed|c4|\nV:2 clef=bass\nC,G,E,G,|C,G,E,G,|C,G,E,G,|")
	require.Equal(t, 3, Of(s).Distinct)
	require.Equal(t, 1, OfStaff(s, 0, 2).Distinct)
}

// Found by hand: the figure of three notes that crosses from bar to bar.
func TestMotifsBeginAtBeatsAndAreShorterThanBars(t *testing.T) {
	s := typed(t, "K:C\nC/D/E FG|AB C/D/E|F C/D/E2|")
	lines := reading.Lines(s, true)
	m := Motifs(s, lines, Of(s))
	require.NotEmpty(t, m)
	require.Equal(t, 3, m[0].Beats, "with the F after it")
	require.Equal(t, []Place{{1, 1, rational.Rat{}}, {2, 3, rational.Int(6)}}, m[0].At)
	equal := typed(t, "K:C\nC/D/EFG|C/D/EFG|")
	require.Empty(t, Motifs(equal, reading.Lines(equal, true), Of(equal)), "equal bars are patterns already")
}

// Moving a whole piece by an octave or a fifth changes nothing that is found.
func TestTranspositionKeepsWhatIsAlike(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := ""
		for range rapid.IntRange(2, 6).Draw(t, "bars") {
			for range 4 {
				bars += rapid.SampledFrom([]string{"C", "D", "E", "G"}).Draw(t, "note")
			}
			bars += "|"
		}
		low, high := typed(t, "K:C\n"+bars), typed(t, "K:C\n"+bars)
		for i := range high.Notes { // a fifth up: C D E G become G A B D
			p := &high.Notes[i].Pitch
			p.Octave += map[byte]int{'C': 0, 'D': 0, 'E': 0, 'G': 1}[p.Step]
			p.Step = map[byte]byte{'C': 'G', 'D': 'A', 'E': 'B', 'G': 'D'}[p.Step]
			high.Notes[i].MIDI += 7
		}
		require.Equal(t, Of(low).Patterns, Of(high).Patterns)
		require.Equal(t, Motifs(low, reading.Lines(low, true), Of(low)), Motifs(high, reading.Lines(high, true), Of(high)))
	})
}

// Eighteen bars of six patterns, three of which come in another form as well: a step higher, an octave higher and moved along
// the key, in another rhythm. It is six things to learn (common practice, no source; counted by hand).
func TestAnotherFormIsNotCountedAnew(t *testing.T) {
	scores, err := abc.Read([]byte("X:1\nT:Tide\nM:4/4\nL:1/4\nK:C\n" +
		"C D E C|G F E D|C C G G|E F G2|A A F2|D2 C2|" + // six
		"D E ^F D|g f e d|C D E C|G F E D|" + // moved exactly, an octave higher, and two as they were
		"E2 F G|F E D C|C C G G|D2 C2|" + // another rhythm, along the key, two as they were
		"C D E C|G F E D|E F G2|D2 C2|\n"))
	require.NoError(t, err)
	load := Of(scores[0])
	require.Equal(t, 18, load.Bars)
	require.Equal(t, 6, load.Distinct)
	var forms []string
	for _, p := range load.Patterns {
		if p.Like != "" {
			forms = append(forms, fmt.Sprintf("%s is %s, %s", p.Letter, p.Like, p.How))
		}
	}
	require.Equal(t, []string{"G is A, transposed", "H is B, octave", "I is D, other rhythm", "J is B, transposed in the key"}, forms)
	require.Equal(t, 3, load.Varied)
}

// A figure of one beat that comes again is found: half a bar in two-four.
func TestAFigureUnderABarIsFound(t *testing.T) {
	scores, err := abc.Read([]byte("X:1\nM:2/4\nL:1/16\nK:C\nCDEF G4|A4 CDEF|c4 e4|CDEF A4|\n"))
	require.NoError(t, err)
	s := scores[0]
	motifs := Motifs(s, reading.Lines(s, false), Of(s))
	require.NotEmpty(t, motifs)
	require.Equal(t, 1, motifs[0].Beats)
	var at []string
	for _, p := range motifs[0].At {
		at = append(at, fmt.Sprintf("%d.%d", p.Bar, p.Beat))
	}
	require.Equal(t, []string{"1.1", "2.2", "4.1"}, at)
}

// A motif of three beats in 6/8 lasts four and a half quarter notes.
func TestWhereAMotifEnds(t *testing.T) {
	s := &score.Score{Bars: []score.Bar{{Beats: 6, BeatUnit: 8}, {Beats: 3, BeatUnit: 4}}}
	require.Equal(t, "11/2", Motif{Beats: 3}.End(s, Place{Bar: 1, Time: rational.Int(1)}).String())
	require.Equal(t, "5", Motif{Beats: 2}.End(s, Place{Bar: 2, Time: rational.Int(3)}).String())
}
