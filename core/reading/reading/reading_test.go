package reading

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

func pitch(s string) score.Pitch {
	p := score.Pitch{Step: s[0], Octave: int(s[len(s)-1] - '0')}
	for _, c := range s[1 : len(s)-1] {
		if c == '#' {
			p.Alter++
		} else {
			p.Alter--
		}
	}
	return p
}

// The table of intervals as every theory primer has it (from memory).
func TestIntervalsAgainstTheTheoryTable(t *testing.T) {
	for _, c := range []struct {
		from, to string
		want     Interval
	}{
		{"C4", "C4", Interval{1, "perfect", 0}},
		{"C4", "C#4", Interval{1, "augmented", 1}},
		{"E4", "F4", Interval{2, "minor", 1}},
		{"C4", "D4", Interval{2, "major", 2}},
		{"C4", "D#4", Interval{2, "augmented", 3}},
		{"C4", "Eb4", Interval{3, "minor", 3}},
		{"C4", "E4", Interval{3, "major", 4}},
		{"G#4", "Bb4", Interval{3, "diminished", 2}},
		{"C4", "F4", Interval{4, "perfect", 5}},
		{"F4", "B4", Interval{4, "augmented", 6}},
		{"B3", "F4", Interval{5, "diminished", 6}},
		{"C4", "G4", Interval{5, "perfect", 7}},
		{"C4", "Ab4", Interval{6, "minor", 8}},
		{"C4", "A4", Interval{6, "major", 9}},
		{"C4", "Bb4", Interval{7, "minor", 10}},
		{"G#4", "F5", Interval{7, "diminished", 9}},
		{"C4", "B4", Interval{7, "major", 11}},
		{"C4", "C5", Interval{8, "perfect", 12}},
		{"D4", "F#5", Interval{10, "major", 16}},
		{"Cb4", "C#4", Interval{1, "doubly augmented", 2}},
	} {
		require.Equal(t, c.want, Between(pitch(c.from), pitch(c.to)), "%s to %s", c.from, c.to)
		require.Equal(t, c.want, Between(pitch(c.to), pitch(c.from)), "%s to %s", c.to, c.from)
	}
}

// line writes a one-staff score with one quarter note for each pitch.
func line(pitches ...string) *score.Score {
	s := &score.Score{Parts: []score.Part{{Staves: 1, Clefs: []score.Clef{{Sign: "G"}}}}}
	for i, name := range pitches {
		p := pitch(name)
		s.Notes = append(s.Notes, score.Note{
			Onset: rational.Int(int64(i)), Duration: rational.Int(1), Pitch: p, MIDI: p.Semitone(), Staff: 1, Voice: "1", Bar: 1,
		})
	}
	s.Bars = []score.Bar{{Label: "1", Length: rational.Int(int64(len(pitches)))}}
	return s
}

func TestMovesByHand(t *testing.T) {
	s := line("C4", "D4", "D4", "F4", "C4", "C#4")
	moves := Moves(s, Lines(s, true)[0])
	var got []string
	for _, m := range moves {
		got = append(got, string(m.Direction)+" "+string(m.Kind))
	}
	require.Equal(t, []string{"up step", "same same", "up skip", "down leap", "up step"}, got)
}

// Transposing a piece changes no direction, no size and no quality.
func TestTranspositionKeepsMoves(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var low, high []string
		for range rapid.IntRange(2, 20).Draw(t, "n") {
			step := rapid.SampledFrom([]string{"C", "D", "E", "F", "G", "A", "B"}).Draw(t, "step")
			octave := rapid.IntRange(2, 4).Draw(t, "octave")
			low = append(low, step+string(rune('0'+octave)))
			high = append(high, step+string(rune('0'+octave+2)))
		}
		a, b := line(low...), line(high...)
		x, y := Moves(a, Lines(a, true)[0]), Moves(b, Lines(b, true)[0])
		for i := range x {
			require.Equal(t, x[i].Direction, y[i].Direction)
			require.Equal(t, x[i].Interval, y[i].Interval)
		}
	})
}

func TestOuterNoteOfChords(t *testing.T) {
	s := line("C4", "E4", "G4")
	s.Notes[1].Onset, s.Notes[2].Onset = rational.Rat{}, rational.Rat{}
	right := Lines(s, true)[0]
	require.Equal(t, Right, right.Hand)
	require.Equal(t, "G4", s.Notes[right.Onset[0].Outer].Pitch.String())
	s.Parts[0].Clefs[0].Sign = "F"
	left := Lines(s, true)[0]
	require.Equal(t, Left, left.Hand)
	require.Equal(t, "C4", s.Notes[left.Onset[0].Outer].Pitch.String())
}

func TestHeldTiesAreNotPlayedAnew(t *testing.T) {
	s := line("C4", "C4", "D4")
	s.Notes[0].TieStart, s.Notes[1].TieStop = true, true
	require.Len(t, Lines(s, true)[0].Onset, 2)
}

func TestStarts(t *testing.T) {
	s := line("E4", "C4", "G4")
	st, ok := FindStart(s, Lines(s, true)[0], func(int) int { return 3 })
	require.True(t, ok)
	require.Equal(t, "the right hand, finger 3 on E", st.Words(func(s string) string { return s }))
	require.False(t, st.FingerGiven)

	st, _ = FindStart(s, Lines(s, true)[0], nil)
	require.Equal(t, -1, st.Finger, "nothing is printed and nothing proposed")

	s.Notes[0].Fingering = "4"
	st, _ = FindStart(s, Lines(s, true)[0], func(int) int { return 3 })
	require.Equal(t, 4, st.Finger, "what is printed holds")
	require.True(t, st.FingerGiven)
	require.True(t, st.WeakFinger)

	chord := Start{Hand: Left, Finger: 5, Key: []string{"C3", "E3", "Bb3"}}
	require.Equal(t, "the left hand on C, E and Bb, finger 5 on the outside", chord.Words(func(s string) string { return s }))
	require.Equal(t, "the open string G", Start{Hand: Whole, Key: []string{"G2"}}.Words(func(s string) string { return s }))

	black := line("F#4", "G4")
	st, _ = FindStart(black, Lines(black, true)[0], nil)
	require.True(t, st.BlackKey)
}

func TestNotesUsed(t *testing.T) {
	s := line("E4", "C4", "E4")
	used := NotesUsed(s, Lines(s, true)[0])
	require.Equal(t, []UsedNote{{"C4", 60, 1, 1}, {"E4", 64, 2, 1}}, used)
}

// Nearest guide notes, counted on the staff by hand: A above middle C is a
// second above G; D a second above C; B below middle C a second below it.
func TestGuideNotes(t *testing.T) {
	s := &score.Score{Parts: []score.Part{{Staves: 1, Clefs: []score.Clef{{Sign: "G"}}}}, Bars: []score.Bar{{Length: rational.Int(8)}}}
	for i, p := range []score.Pitch{{Step: 'A', Octave: 4}, {Step: 'D', Octave: 4}, {Step: 'B', Octave: 3}, {Step: 'G', Octave: 4}, {Step: 'E', Octave: 4}, {Step: 'A', Alter: -1, Octave: 4}, {Step: 'A', Octave: 5}} {
		s.Notes = append(
			s.Notes,
			score.Note{Onset: rational.Int(int64(i)), Duration: rational.Int(1), Pitch: p, MIDI: p.Semitone(), Staff: 1, Bar: 1},
		)
	}
	got := Guides(s, Lines(s, true)[0], func(p score.Pitch) bool { return p.Step == 'E' })
	type row struct {
		pitch, guide string
		d            Direction
		number       int
	}
	var rows []row
	for _, g := range got {
		rows = append(rows, row{g.Pitch, g.Guide, g.Direction, g.Interval.Number})
	}
	require.Equal(t, []row{{"A4", "G4", Up, 2}, {"D4", "C4", Up, 2}, {"B3", "C4", Down, 2}, {"A5", "C6", Down, 3}}, rows)
	require.Len(t, got[0].Notes, 2, "A flat is found as A is")
}

func TestMovesAreCounted(t *testing.T) {
	moves := []Move{
		{Direction: Up, Kind: Step},
		{Direction: Up, Kind: Skip},
		{Direction: Down, Kind: Leap},
		{Direction: Down, Kind: Leap},
		{Direction: Up, Kind: Leap},
		{Direction: Same, Kind: Stay},
	}
	require.Equal(t, Counts{Up: 3, Down: 2, Same: 1, Step: 1, Skip: 1, Leap: 3}, CountOf(moves))
	require.Equal(t, Counts{}, CountOf(nil))
}
