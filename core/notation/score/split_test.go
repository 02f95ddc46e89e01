package score

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
)

// The values of notes (any primer of notation): halves of halves, each dot half again of the rest.
func TestNotatedValues(t *testing.T) {
	for d, want := range map[rational.Rat]struct {
		name string
		dots int
	}{
		rational.Int(4): {"whole", 0}, rational.Int(1): {"quarter", 0}, rational.New(1, 2): {"eighth", 0}, rational.New(1, 16): {"64th", 0},
		rational.Int(3): {"half", 1}, rational.New(3, 2): {"quarter", 1}, rational.New(7, 2): {"half", 2}, rational.New(15, 4): {"half", 3},
		rational.Int(8): {"breve", 0}, rational.Int(12): {"breve", 1},
		rational.New(5, 2): {"", 0}, rational.New(1, 3): {"", 0}, rational.Int(5): {"", 0}, rational.Int(0): {"", 0},
	} {
		name, dots := Notated(d, Ratio{})
		require.Equal(t, want.name, name, d.String())
		require.Equal(t, want.dots, dots, d.String())
	}
	name, dots := Notated(rational.New(1, 3), Ratio{3, 2})
	require.Equal(t, "eighth", name, "three quavers in the time of two")
	require.Zero(t, dots)
	name, _ = Notated(rational.New(1, 5), Ratio{5, 4})
	require.Equal(t, "16th", name)
}

// Splitting changes no sound, leaves only notes that can be written, within their bars.
func TestSplittingChangesNoSound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := &Score{Parts: []Part{{Staves: 1}}}
		for b := range 4 {
			s.Bars = append(s.Bars, Bar{Start: rational.Int(int64(3 * b)), Length: rational.Int(3), Beats: 3, BeatUnit: 4})
		}
		var at rational.Rat
		for at.Less(rational.Int(12)) {
			d := rational.New(rapid.Int64Range(1, 17).Draw(t, "length"), 4)
			if rational.Int(12).Less(at.Add(d)) {
				d = rational.Int(12).Sub(at)
			}
			n := Note{
				Onset:    at,
				Duration: d,
				Bar:      s.barAt(1, at),
				Voice:    "1",
				Staff:    1,
				MIDI:     rapid.IntRange(60, 62).Draw(t, "pitch"),
				Lyric:    "la",
				SlurStop: true,
				Fermata:  true,
			}
			s.Notes = append(s.Notes, n)
			if rapid.Bool().Draw(t, "chord") {
				n.Chord, n.MIDI = true, n.MIDI+12
				s.Notes = append(s.Notes, n)
			}
			at = at.Add(d)
		}
		before := s.Sounding()
		s.SplitTies()
		after := s.Sounding()
		require.Len(t, after, len(before))
		for i := range before {
			require.Equal(
				t,
				[3]string{before[i].Onset.String(), before[i].Duration.String()},
				[3]string{after[i].Onset.String(), after[i].Duration.String()},
			)
			require.Equal(t, before[i].MIDI, after[i].MIDI)
		}
		words := 0
		for _, n := range s.Notes {
			require.NotEmpty(t, n.Type)
			bar := s.Bars[n.Bar-1]
			require.False(t, n.Onset.Less(bar.Start))
			require.False(t, bar.Start.Add(bar.Length).Less(n.End()), "a note stays in its bar")
			if n.Lyric != "" {
				words++
			}
			require.Equal(t, n.SlurStop, n.Fermata, "both stand at the end of the sound")
		}
		require.Equal(t, len(before), words, "a syllable is sung once")
	})
}

// The beat by the time signature (common practice).
func TestBeats(t *testing.T) {
	for _, c := range []struct {
		beats, unit int
		beat        string
		compound    bool
	}{{4, 4, "1", false}, {3, 4, "1", false}, {2, 2, "2", false}, {6, 8, "3/2", true}, {9, 8, "3/2", true}, {12, 16, "3/4", true}, {3, 8, "1/2", false}, {5, 8, "1/2", false}, {0, 0, "1", false}, {6, 4, "1", false}} {
		b := Bar{Beats: c.beats, BeatUnit: c.unit}
		require.Equal(t, c.beat, b.Beat().String(), "%d/%d", c.beats, c.unit)
		require.Equal(t, c.compound, b.Compound(), "%d/%d", c.beats, c.unit)
	}
}

// barsOf are bars in one time that follow each other, by their lengths.
func barsOf(beats, unit int, lengths ...rational.Rat) *Score {
	s := &Score{}
	var at rational.Rat
	for _, l := range lengths {
		s.Bars = append(s.Bars, Bar{Start: at, Length: l, Beats: beats, BeatUnit: unit, Short: l.Less(rational.New(4*int64(beats), int64(unit)))})
		at = at.Add(l)
	}
	return s
}

// Common practice: a pickup is the end of a bar, the bar that is short by it at the end is the beginning of one.
func TestWhichShortBarsBeginLate(t *testing.T) {
	offsets := func(s *Score) (out []string) {
		for _, x := range s.Offsets() {
			out = append(out, x.String())
		}
		return
	}
	one, three, four, quaver := rational.Int(1), rational.Int(3), rational.Int(4), rational.New(1, 2)
	require.Equal(t, []string{"3", "0", "0"}, offsets(barsOf(4, 4, one, four, three)), "a pickup, and the last bar without it")
	require.Equal(t, []string{"3", "0", "3", "0"}, offsets(barsOf(4, 4, one, three, one, three)), "each part with its pickup")
	require.Equal(
		t,
		[]string{"0", "0", "2", "0", "2"},
		offsets(barsOf(4, 4, four, rational.Int(2), rational.Int(2), rational.Int(2), rational.Int(2))),
		"split bars have two halves each",
	)
	require.Equal(t, []string{"0", "0", "0"}, offsets(barsOf(4, 4, four, one, four)), "short for no reason that can be seen")
	require.Equal(t, []string{"5/2", "0"}, offsets(barsOf(6, 8, quaver, three)))
	again := barsOf(4, 4, four, one, four)
	again.Bars[1].RepeatStart = true
	require.Equal(t, []string{"0", "3", "0"}, offsets(again), "a part that is repeated has a pickup of its own")
	require.Equal(t, []string{"0"}, offsets(&Score{Bars: []Bar{{Length: one, Short: true}}}), "without a time")
}

// Counted by hand.
func TestBeatsAreCounted(t *testing.T) {
	counts := func(s *Score) (out []string) {
		for _, x := range s.Counts() {
			word := x.At.String()
			if x.First {
				word += " one"
			}
			out = append(out, word)
		}
		return
	}
	one, three, half := rational.Int(1), rational.Int(3), rational.New(1, 2)
	require.Equal(t, []string{"0", "1 one", "2", "3", "4 one", "5"}, counts(barsOf(3, 4, one, three, rational.Int(2))))
	require.Equal(
		t,
		[]string{"1/2 one", "2", "7/2 one", "5"},
		counts(barsOf(6, 8, half, three, rational.New(5, 2))),
		"half a beat before the first there is none",
	)
	require.Equal(t, []string{"0 one", "1", "2"}, counts(&Score{Bars: []Bar{{Length: three}}}), "crotchets without a time")
	require.Empty(t, counts(&Score{Bars: []Bar{{Length: rational.Int(1000), Beats: 4, BeatUnit: 4}}}), "no bar that music has")
	require.Empty(t, counts(&Score{}))
	endless := barsOf(4, 4, slices.Repeat([]rational.Rat{rational.Int(200)}, 2000)...)
	require.Len(t, endless.Counts(), mostCounts, "whole bars until there are enough")
}

// The signs of the keys in the order of the circle of fifths (from memory).
func TestWhatAKeyDoesToASteps(t *testing.T) {
	require.Equal(t, []int{1, 0, 0, 1, 0, 0, 0}, alterations(2), "D major: F and C are sharp")
	require.Equal(t, []int{0, 0, -1, 0, 0, -1, -1}, alterations(-3), "E flat major: B, E and A are flat")
	require.Equal(t, byte('B'), Bar{Fifths: -2, Mode: "major"}.TonicStep())
	require.Equal(t, byte('G'), Bar{Fifths: -2, Mode: "minor"}.TonicStep())
	require.Equal(t, "6/8", Bar{Beats: 6, BeatUnit: 8}.TimeName())
	require.Empty(t, Bar{}.TimeName())
}

// alterations are those of C, D, E, F, G, A, B.
func alterations(fifths int) (out []int) {
	for _, step := range []byte("CDEFGAB") {
		out = append(out, KeyAlter(step, fifths))
	}
	return
}

func TestQuotedPiecesAreShort(t *testing.T) {
	require.Equal(t, "short", Short("short"))
	require.Len(t, []rune(Short("ééééééééééééééééééééééééééééééé")), 25)
	e := &FileError{What: "it is damaged", Where: "part P1, bar 2", Line: 7}
	require.Equal(t, "part P1, bar 2 (line 7): it is damaged", e.Error())
}
