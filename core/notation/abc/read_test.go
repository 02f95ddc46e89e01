package abc

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
)

func one(t *testing.T, text string) *score.Score {
	t.Helper()
	tunes, err := Read([]byte(text))
	require.NoError(t, err)
	require.Len(t, tunes, 1)
	return tunes[0]
}

// sounds writes each sound as "onset+duration pitch".
func sounds(s *score.Score) string {
	var out []string
	for _, x := range s.Sounding() {
		mark := ""
		if x.Grace {
			mark = "g"
		}
		out = append(out, fmt.Sprintf("%s+%s %d%s", x.Onset, x.Duration, x.MIDI, mark))
	}
	return strings.Join(out, ", ")
}

// The expected values are worked out by hand from the text of ABC 2.1.
func TestWhatTheNotesSound(t *testing.T) {
	for name, c := range map[string]struct{ tune, want string }{
		"octaves":               {"X:1\nL:1/4\nK:C\nC,Ccc'|", "0+1 48, 1+1 60, 2+1 72, 3+1 84"},
		"lengths":               {"X:1\nL:1/4\nK:C\nC2D/E//F3/2|", "0+2 60, 2+1/2 62, 5/2+1/4 64, 11/4+3/2 65"},
		"unit from the metre":   {"X:1\nM:2/4\nK:C\nC4|", "0+1 60"},
		"broken rhythm":         {"X:1\nL:1/8\nK:C\nC>D E<<F|", "0+3/4 60, 3/4+1/4 62, 1+1/8 64, 9/8+7/8 65"},
		"triplet":               {"X:1\nL:1/8\nK:C\n(3CDE F2|", "0+1/3 60, 1/3+1/3 62, 2/3+1/3 64, 1+1 65"},
		"tuplet of its own":     {"X:1\nL:1/8\nK:C\n(3:2:2C2D E|", "0+2/3 60, 2/3+1/3 62, 1+1/2 64"},
		"two in six eight":      {"X:1\nM:6/8\nL:1/8\nK:C\n(2CD|", "0+3/4 60, 3/4+3/4 62"},
		"chord":                 {"X:1\nL:1/4\nK:C\n[CEG]2 [C2E]|", "0+2 60, 0+2 64, 0+2 67, 2+2 60, 2+2 64"},
		"grace":                 {"X:1\nL:1/4\nK:C\n{cB}A {/G}A|", "0+1 69, 0+0 71g, 0+0 72g, 1+0 67g, 1+1 69"},
		"key":                   {"X:1\nL:1/4\nK:D\nFCf=c|", "0+1 66, 1+1 61, 2+1 78, 3+1 72"},
		"mode":                  {"X:1\nL:1/4\nK:Edor\nFC|", "0+1 66, 1+1 61"},
		"minor":                 {"X:1\nL:1/4\nK:Gm\nBE|", "0+1 70, 1+1 63"},
		"accidental in its bar": {"X:1\nL:1/4\nK:C\n^FFf=F|F|", "0+1 66, 1+1 66, 2+1 78, 3+1 65, 4+1 65"},
		"tie":                   {"X:1\nL:1/4\nK:C\n^F2-|F2 F|", "0+4 66, 4+1 65"},
		"tied chord":            {"X:1\nL:1/4\nK:C\n[C-E]2[CE]|", "0+3 60, 0+2 64, 2+1 64"},
		"overlay":               {"X:1\nL:1/4\nM:2/4\nK:C\nC2 & EG |D2|", "0+2 60, 0+1 64, 1+1 67, 2+2 62"},
		"rests":                 {"X:1\nL:1/4\nM:2/4\nK:C\nz C|Z2|x C|", "1+1 60, 7+1 60"},
		"change of key inside":  {"X:1\nL:1/4\nK:C\nF[K:G]F|\nK:F\nB|", "0+1 65, 1+1 66, 2+1 70"},
		"change of length":      {"X:1\nL:1/4\nK:C\nC[L:1/8]C|", "0+1 60, 1+1/2 60"},
		"lower octave clef":     {"X:1\nL:1/4\nK:C clef=treble-8\nC|", "0+1 48"},
		"transposing voice":     {"X:1\nL:1/4\nK:C transpose=-2\nD|", "0+1 60"},
		"a note before a repeat at the start of a line": {"X:1\nL:1/4\nK:C\nC|\nA:|", "0+1 60, 1+1 69"},
		"without X":  {"T:Only a tune\nL:1/4\nK:C\nCD|", "0+1 60, 1+1 62"},
		"notes only": {"CDEF|GABc|", "0+1/2 60, 1/2+1/2 62, 1+1/2 64, 3/2+1/2 65, 2+1/2 67, 5/2+1/2 69, 3+1/2 71, 7/2+1/2 72"},
		"two voices": {"X:1\nL:1/4\nK:C\nV:1\nCD|\nV:2\nEF|\nV:1\nG|\nV:2\nA|", "0+1 60, 0+1 64, 1+1 62, 1+1 65, 2+1 67, 2+1 69"},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, sounds(one(t, c.tune))) })
	}
}

func TestHeaderAndMarks(t *testing.T) {
	s := one(t, "X:7\nT:The Tar Barrel\nC:anon. \nM:3/4\nL:1/4\nQ:\"Gently\" 3/8=60\nK:Amix\n"+
		"!mf!\"D7\"!2!(A .B !trill!c)|!<(!A2 !<)!!fermata!B|\"^slower\"A3 !breath!|]\nw: one two-three\nw: an-oth-er\n")
	require.Equal(t, "The Tar Barrel", s.Title)
	require.Equal(t, "anon.", s.Composer)
	require.InDelta(t, 90, s.Tempo, 1e-9)
	require.Equal(t, 2, s.Bars[0].Fifths)
	require.Equal(t, "mixolydian", s.Bars[0].Mode)
	n := s.Notes
	require.Equal(t, "2", n[0].Fingering)
	require.True(t, n[0].SlurStart && n[2].SlurStop)
	require.Equal(t, []string{"staccato"}, n[1].Articulations)
	require.Equal(t, []string{"trill-mark"}, n[2].Ornaments)
	require.True(t, n[4].Fermata)
	require.Equal(t, []string{"breath-mark"}, n[5].Articulations)
	require.Equal(t, []string{"one", "two", "three"}, []string{n[0].Lyric, n[1].Lyric, n[2].Lyric}[:3])
	kinds := ""
	for _, x := range s.Signs {
		kinds += string(x.Kind) + " " + x.Text + " @" + x.At.String() + "; "
	}
	require.Equal(t, "words Gently @0; tempo  @0; dynamic mf @0; chord D7 @0; crescendo  @3; hairpin end  @5; words slower @6; ", kinds)
	require.Equal(t, []score.Skip{{What: "further verses", Where: "tune 7, line 10", Count: 1}}, s.Skipped)
}

func TestRepeatsEndingsAndPickup(t *testing.T) {
	s := one(t, "X:1\nM:2/4\nL:1/4\nK:C\nG|:CD|1 EF:|2 GA||B|:c2::d2|[1,2 e2:|[3 f2|]")
	require.Equal(t, "0", s.Bars[0].Label)
	require.Equal(t, []int{1, 2, 3, 2, 4, 5, 6, 6, 7, 8, 7, 8, 7, 9}, s.Order(100))
}

func TestVoicesBecomeHands(t *testing.T) {
	two := "X:1\nM:2/4\nL:1/4\n%s\nK:C\nV:RH clef=treble\ncd|\nV:LH clef=bass\nC,2|\n"
	s := one(t, fmt.Sprintf(two, "%"))
	require.Len(t, s.Parts, 1)
	require.Equal(t, 2, s.Parts[0].Staves)
	s = one(t, fmt.Sprintf(two, "%%score [RH LH]"))
	require.Len(t, s.Parts, 2)
	s = one(t, "X:1\nL:1/4\n%%score {(A B) C}\nK:C\nV:A\nc|\nV:B\nE|\nV:C\nC,|\n")
	require.Len(t, s.Parts, 1)
	require.Equal(t, []int{1, 1, 2}, []int{s.Notes[0].Staff, s.Notes[1].Staff, s.Notes[2].Staff})
	require.Equal(t, "F", s.Parts[0].Clefs[1].Sign, "a voice that lies low has a bass clef")
}

func TestSeveralTunesAndTheHeadOfTheFile(t *testing.T) {
	file := "%abc-2.1\nM:3/4\nL:1/4\n\nfree text\n\nX:1\nT:One\nK:C\nCDE|\n\nX:2\nT:Two\nK:G\nFGA|\n\nX:3\nT:Three\nM:2/4\nK:C\nC2|\n"
	tunes, err := Read([]byte(file))
	require.NoError(t, err)
	require.Len(t, tunes, 3)
	require.Equal(t, []int{3, 3, 2}, []int{tunes[0].Bars[0].Beats, tunes[1].Bars[0].Beats, tunes[2].Bars[0].Beats})
	for i, want := range tunes {
		text, err := Tune([]byte(file), i)
		require.NoError(t, err)
		got := one(t, string(text))
		require.Equal(t, want.Title, got.Title)
		require.Equal(t, sounds(want), sounds(got))
	}
	_, err = Tune([]byte(file), 3)
	require.ErrorContains(t, err, "no number 4")
}

func TestWhatIsSkippedIsListed(t *testing.T) {
	s := one(t, "X:1\nE:what is this\nK:C\nC D~ !wobble!E §\n%%MIDI program 3\ns: * *\nW: the end")
	var what []string
	for _, k := range s.Skipped {
		what = append(what, k.What+" ("+k.Where+")")
	}
	require.Contains(t, what, "unknown field E: (tune 1, line 2)")
	require.Contains(t, what, "decorations: wobble (tune 1, line 4)")
	require.Contains(t, what, "directives %%MIDI (tune 1, line 5)")
	require.Contains(t, what, "symbol lines (s:) (tune 1, line 6)")
	require.Equal(t, "0+1/2 60, 1/2+1/2 62, 1+1/2 64", sounds(s))
}

func TestMistakesGetOneSentence(t *testing.T) {
	for name, c := range map[string]struct{ file, says string }{
		"empty":       {" \n", "empty"},
		"not text":    {"X:1\x00", "not text"},
		"no tune":     {"Dear teacher,\nhere it is", "not an ABC file"},
		"no notes":    {"X:1\nT:x\nK:C\n", "no notes"},
		"too fine":    {"X:1\nL:1/512\nK:C\n(3C/65536(5D/65536(7E/65536(9F/65536(11G/4096(13A(17:16B(19:18c", "too finely"},
		"endless":     {"X:1\nK:C\nC999999", "longer than 4096"},
		"outside":     {"X:1\nK:C\nC,,,,,,,,,,", "outside every instrument"},
		"wide chords": {"X:1\nK:C\n[" + strings.Repeat("C", 70) + "]", "more than 64"},
	} {
		t.Run(name, func(t *testing.T) {
			_, err := Read([]byte(c.file))
			var e *score.FileError
			require.ErrorAs(t, err, &e)
			require.Contains(t, err.Error(), c.says)
			require.NotContains(t, err.Error(), "\n")
		})
	}
	limits := score.DefaultLimits()
	limits.Notes, limits.Bars = 5, 3
	_, err := ReadWithin([]byte("X:1\nK:C\nCDEFGA|"), limits)
	require.ErrorContains(t, err, "more than 5 notes")
	_, err = ReadWithin([]byte("X:1\nK:C\nC|C|C|C|"), limits)
	require.ErrorContains(t, err, "more than 3 bars")
}

// FuzzRead: whatever the text, Read returns tunes that hold together or one
// *score.FileError; it never panics.
func FuzzRead(f *testing.F) {
	f.Add([]byte("X:1\nT:a\nM:6/8\nL:1/8\nQ:1/4=100\nK:Gm\n|:{c}B>A(3GFG [CE]2-|[CE] z2:|[1 \"Am\"!p!A:|[2 B]\nw: a-b _ *|c\n"))
	f.Add([]byte("X:1\n%%score {(1 2) 3}\nK:C\nV:1\nCDE & EFG|\nV:2 clef=bass\n[K:D]Z4|[M:3/4]C3|\n"))
	f.Add([]byte("CDE|::|1-3,5 ^/2_e'',,//|.|(:::9|[[K:]"))
	f.Fuzz(func(t *testing.T, data []byte) {
		limits := score.DefaultLimits()
		limits.Notes, limits.Bars, limits.Bytes, limits.Tunes = 2000, 500, 1<<16, 20
		tunes, err := ReadWithin(data, limits)
		if err != nil {
			var e *score.FileError
			if !errors.As(err, &e) {
				t.Fatalf("not a *FileError: %v", err)
			}
			return
		}
		for _, s := range tunes {
			if len(s.Bars) == 0 {
				t.Fatal("a tune without bars")
			}
			for _, n := range s.Notes {
				if n.Bar < 1 || n.Bar > len(s.Bars) || n.Part >= len(s.Parts) || n.Staff > s.Parts[n.Part].Staves {
					t.Fatalf("a note outside the score: %+v", n)
				}
				if n.Onset.Num() < 0 || n.Duration.Num() < 0 || n.MIDI < 0 || n.MIDI > 127 {
					t.Fatalf("a note outside time or pitch: %+v", n)
				}
			}
			s.Unfolded(1000)
		}
	})
}
