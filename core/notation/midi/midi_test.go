package midi

import (
	"errors"
	"fmt"
	"sort"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// file puts tracks of raw events behind a head.
func file(format, division int, tracks ...string) []byte {
	out := append([]byte("MThd\x00\x00\x00\x06"), 0, byte(format), 0, byte(len(tracks)), byte(division>>8), byte(division))
	for _, t := range tracks {
		out = append(out, 'M', 'T', 'r', 'k', 0, 0, byte(len(t)>>8), byte(len(t)))
		out = append(out, t...)
	}
	return out
}

const end = "\x00\xFF\x2F\x00"

func sounds(s *score.Score) string {
	var out []string
	for _, x := range s.Sounding() {
		out = append(out, fmt.Sprintf("%s+%s %d", x.Onset, x.Duration, x.MIDI))
	}
	return strings.Join(out, ", ")
}

// Bytes and what they mean are worked out by hand from the file format.
func TestEvents(t *testing.T) {
	for name, c := range map[string]struct{ track, want string }{
		"on and off":           {"\x00\x90\x3C\x40\x60\x80\x3C\x00" + end, "0+1 60"},
		"off by velocity zero": {"\x00\x90\x3C\x40\x60\x90\x3C\x00" + end, "0+1 60"},
		"running status":       {"\x00\x90\x3C\x40\x30\x3E\x40\x30\x3C\x00\x00\x3E\x00" + end, "0+1 60, 1/2+1/2 62"},
		"long delta":           {"\x81\x40\x90\x3C\x40\x60\x80\x3C\x00" + end, "2+1 60"},
		"meta between":         {"\x00\x90\x3C\x40\x00\xFF\x01\x02hi\x60\x80\x3C\x00" + end, "0+1 60"},
		"the same note twice":  {"\x00\x90\x3C\x40\x30\x90\x3C\x40\x30\x80\x3C\x00\x30\x80\x3C\x00" + end, "0+1 60, 1/2+1 60"},
		"system message":       {"\x00\xF0\x02\x01\xF7\x00\x90\x3C\x40\x60\x80\x3C\x00" + end, "0+1 60"},
	} {
		t.Run(name, func(t *testing.T) {
			s, err := Read(file(0, 96, c.track))
			require.NoError(t, err)
			require.Equal(t, c.want, sounds(s))
		})
	}
}

func TestMetreKeyTempoAndTracks(t *testing.T) {
	s, err := Read(file(1, 96, "\x00\xFF\x03\x04Jig!\x00\xFF\x58\x04\x06\x03\x18\x08\x00\xFF\x59\x02\xFE\x01\x00\xFF\x51\x03\x09\x27\xC0"+end,
		"\x00\xFF\x03\x02up\x00\x90\x42\x40\x82\x20\x80\x42\x00"+end, "\x00\x91\x30\x40\x60\x81\x30\x00"+end))
	require.NoError(t, err)
	require.Equal(t, "Jig!", s.Title)
	require.Len(t, s.Parts, 2)
	require.Equal(t, "up", s.Parts[0].Name)
	require.Equal(t, "G minor", s.Bars[0].KeyName())
	require.Equal(t, "3", s.Bars[0].Length.String())
	require.InDelta(t, 100, s.Tempo, 0.01)
	require.Equal(t, "F#4", s.Notes[0].Pitch.String(), "the leading note of G minor")
}

func TestHangingAndStrayNotesAreListed(t *testing.T) {
	s, err := Read(file(0, 96, "\x00\x80\x40\x00\x00\x90\x3C\x40\x60\x90\x3E\x40\x60\xFF\x2F\x00"))
	require.NoError(t, err)
	require.Equal(t, "0+2 60, 1+1 62", sounds(s))
	require.Equal(t, []score.Skip{
		{What: "ends of notes that never began", Where: "track 1", Count: 1},
		{What: "notes without an end (ended with their track)", Where: "track 1", Count: 2},
	}, s.Skipped)
	s, err = Read(file(0, 96, "\x00\x90\x3C\x40\x60\x80\x3C\x00\x00\x90")[:32])
	require.NoError(t, err, "a file that was cut off keeps what came before")
	require.Equal(t, "0+1 60", sounds(s))
	require.NotEmpty(t, s.Skipped)
}

func TestMistakesGetOneSentence(t *testing.T) {
	note := "\x00\x90\x3C\x40\x60\x80\x3C\x00" + end
	for says, data := range map[string][]byte{
		"does not begin with MThd": []byte("RIFF and so on and so on"),
		"type 2":                   file(2, 96, note),
		"frames of film":           file(0, 0xE728, note),
		"above zero":               file(0, 0, note),
		"no notes":                 file(0, 96, end),
		"lasts longer":             file(0, 1, "\xFF\xFF\xFF\x7F\x90\x3C\x40\x01\x80\x3C\x00"+end),
	} {
		_, err := Read(data)
		var e *score.FileError
		require.ErrorAs(t, err, &e, says)
		require.Contains(t, err.Error(), says)
	}
	limits := score.DefaultLimits()
	limits.Notes = 1
	_, err := ReadWithin(file(0, 96, "\x00\x90\x3C\x40\x60\x90\x3E\x40\x60\x90\x3C\x00\x00\x3E\x00"+end), limits)
	require.ErrorContains(t, err, "more than 1 notes")
}

// The usual spellings (common practice): in C the black keys are F#, C#, G#, Bb, Eb.
func TestSpelling(t *testing.T) {
	name := func(midi, fifths int) string { return Spell(midi, fifths).String() }
	require.Equal(t, []string{"C4", "C#4", "D4", "Eb4", "E4", "F4", "F#4", "G4", "G#4", "A4", "Bb4", "B4"},
		func() (l []string) {
			for m := 60; m < 72; m++ {
				l = append(l, name(m, 0))
			}
			return
		}())
	require.Equal(t, "Db4", name(61, -5))
	require.Equal(t, "Cb4", name(59, -6))
	require.Equal(t, "B#3", name(60, 7))
	for fifths := -7; fifths <= 7; fifths++ {
		for m := 0; m <= 127; m++ {
			require.Equal(t, m, Spell(m, fifths).Semitone(), "%d in %d", m, fifths)
		}
	}
}

// played is a score of notes "onset duration pitch" in quarter notes over 480.
func played(notes ...[3]int64) *score.Score {
	s := &score.Score{Parts: []score.Part{{ID: "P1", Staves: 1}}}
	for i := range 4 {
		s.Bars = append(s.Bars, score.Bar{Start: rational.Int(int64(4 * i)), Length: rational.Int(4), Beats: 4, BeatUnit: 4})
	}
	for _, n := range notes {
		s.Notes = append(
			s.Notes,
			score.Note{
				Onset:    rational.New(n[0], 480),
				Duration: rational.New(n[1], 480),
				MIDI:     int(n[2]),
				Pitch:    Spell(int(n[2]), 0),
				Staff:    1,
				Voice:    "1",
				Bar:      1,
			},
		)
	}
	return s
}

func TestWhatWasPlayedIsWrittenOnAGrid(t *testing.T) {
	// Crotchets played a little unevenly and short, then a triplet, then a note over the bar line.
	w := Written(
		played(
			[3]int64{4, 440, 60},
			[3]int64{476, 450, 62},
			[3]int64{960, 160, 64},
			[3]int64{1120, 160, 65},
			[3]int64{1280, 160, 67},
			[3]int64{1442, 960, 69},
		),
		true,
	)
	require.Equal(t, "0+1 60, 1+1 62, 2+1/3 64, 7/3+1/3 65, 8/3+1/3 67, 3+2 69", sounds(w))
	require.Equal(t, score.Ratio{Actual: 3, Normal: 2}, w.Notes[2].Tuplet)
	tied := 0
	for _, n := range w.Notes {
		require.NotEmpty(t, n.Type, "%+v", n)
		if n.TieStart {
			tied++
		}
	}
	require.Equal(t, 1, tied, "the last note is tied over the bar line")
	require.Contains(t, w.Skipped[0].What, "moved to the nearest")
}

// Somebody plays freely: thirds and fifths of a beat that come by chance are no triplets and quintuplets, but three even notes
// in a beat are.
func TestFreePlayingMakesNoTriplets(t *testing.T) {
	w := Written(
		played(
			[3]int64{13, 400, 60}, [3]int64{465 + 170, 200, 62}, [3]int64{960 + 97, 300, 64}, [3]int64{1440 + 31, 200, 65},
			[3]int64{1920 + 25, 140, 67}, [3]int64{1920 + 185, 140, 69}, [3]int64{1920 + 345, 140, 71}, [3]int64{2400 + 102, 400, 72},
		),
		true,
	)
	triplets := 0
	for _, n := range w.Notes {
		if n.Tuplet.Actual > 0 {
			require.Equal(t, score.Ratio{Actual: 3, Normal: 2}, n.Tuplet)
			require.Contains(t, []int{67, 69, 71}, n.MIDI)
			triplets++
		}
	}
	require.Equal(t, 3, triplets)
}

// A pickup comes back as one: MIDI writes it as a bar of 1/4.
func TestAShortFirstBarIsAPickup(t *testing.T) {
	s := played([3]int64{0, 480, 67}, [3]int64{480, 1920, 72}, [3]int64{2400, 1920, 74})
	s.Bars = []score.Bar{
		{Length: rational.Int(1), Beats: 1, BeatUnit: 4}, {Start: rational.Int(1), Length: rational.Int(4), Beats: 4, BeatUnit: 4},
		{Start: rational.Int(5), Length: rational.Int(4), Beats: 4, BeatUnit: 4},
	}
	w := Written(s, true)
	require.True(t, w.Bars[0].Short)
	require.Equal(t, []string{"0", "1", "2"}, []string{w.Bars[0].Label, w.Bars[1].Label, w.Bars[2].Label})
	require.Equal(t, "4/4", w.Bars[0].TimeName())
	require.False(t, s.Bars[0].Short, "what was read stays as it was")
	require.Contains(t, w.Skipped[0].What, "pickup")
}

func TestHandsAndVoices(t *testing.T) {
	w := Written(played([3]int64{0, 1920, 72}, [3]int64{0, 480, 64}, [3]int64{480, 480, 65}, [3]int64{0, 1920, 40}), true)
	require.Equal(t, 2, w.Parts[0].Staves)
	require.Equal(t, []score.Clef{{Sign: "G", Line: 2}, {Sign: "F", Line: 4}}, w.Parts[0].Clefs)
	voices := map[string]int{}
	for _, n := range w.Notes {
		if !n.Rest {
			voices[n.Voice]++
		}
	}
	require.Equal(t, map[string]int{"1": 2, "2": 1, "5": 1}, voices, "the long note above has a voice of its own")
	require.Len(t, Written(played([3]int64{0, 480, 72}, [3]int64{0, 480, 40}), false).Parts, 1)
}

func TestWrittenAndReadAgain(t *testing.T) {
	s := played([3]int64{0, 160, 60}, [3]int64{160, 160, 62}, [3]int64{320, 160, 64}, [3]int64{480, 3360, 67}, [3]int64{480, 480, 55})
	s.Tempo, s.Title = 84, "Sand"
	again, err := Read(Write(s))
	require.NoError(t, err)
	require.Equal(t, sounds(s), sounds(again))
	require.Equal(t, "Sand", again.Title)
	require.InDelta(t, 84, again.Tempo, 0.01)
}

// FuzzRead: whatever the bytes, Read returns a score that holds together and
// can be written down, or one *score.FileError; it never panics.
func FuzzRead(f *testing.F) {
	f.Add(file(0, 96, "\x00\x90\x3C\x40\x30\x3E\x40\x30\x3C\x00\x00\x3E\x00"+end))
	f.Add(file(1, 480, "\x00\xFF\x58\x04\x06\x03\x18\x08\x00\xFF\x59\x02\xFE\x01"+end, "\x00\x90\x42\x40\x82\x20\x80\x42\x00"+end))
	f.Add(file(0, 96, "\x00\x90\x3C\x40\x60\x90\x3E\x40\x60\xB0\x40\x7F"))
	f.Fuzz(func(t *testing.T, data []byte) {
		limits := score.DefaultLimits()
		limits.Notes, limits.Bars, limits.Bytes = 500, 500, 1<<14
		s, err := ReadWithin(data, limits)
		if err != nil {
			var e *score.FileError
			if !errors.As(err, &e) {
				t.Fatalf("not a *FileError: %v", err)
			}
			return
		}
		for _, written := range []*score.Score{s, Written(s, true)} {
			for _, n := range written.Notes {
				if n.Bar < 1 || n.Bar > len(written.Bars) || n.Part >= len(written.Parts) || n.Onset.Num() < 0 || n.Duration.Num() < 0 {
					t.Fatalf("a note outside the score: %+v", n)
				}
			}
		}
	})
}

// Whatever notes are written, in whatever parts, come back at their times.
func TestDrawnNotesComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := &score.Score{Tempo: float64(rapid.IntRange(30, 240).Draw(t, "tempo"))}
		for i := range rapid.IntRange(1, 3).Draw(t, "parts") {
			s.Parts = append(s.Parts, score.Part{ID: fmt.Sprint(i), Staves: 1, Name: fmt.Sprint("part ", i)})
			var at rational.Rat
			for range rapid.IntRange(1, 8).Draw(t, "notes") {
				d := rational.New(rapid.Int64Range(1, 9).Draw(t, "n"), rapid.SampledFrom([]int64{1, 2, 3, 4, 5, 7, 16}).Draw(t, "d"))
				if rapid.Bool().Draw(t, "sounds") {
					s.Notes = append(
						s.Notes,
						score.Note{Onset: at, Duration: d, MIDI: rapid.IntRange(0, 127).Draw(t, "midi"), Part: i, Staff: 1, Voice: "1", Bar: 1},
					)
				}
				at = at.Add(d)
			}
		}
		s.Bars = []score.Bar{{Length: rational.Int(4), Beats: 4, BeatUnit: 4, Fifths: rapid.IntRange(-7, 7).Draw(t, "key"), Mode: "minor"}}
		if len(s.Notes) == 0 {
			return
		}
		again, err := Read(Write(s))
		require.NoError(t, err)
		// A part without a note has no track with notes; the order of the others stays.
		plain := func(s *score.Score) (out []string) {
			for _, n := range s.Sounding() {
				out = append(out, fmt.Sprint(n.Onset, n.Duration, n.MIDI))
			}
			sort.Strings(out)
			return
		}
		require.Equal(t, plain(s), plain(again))
		require.InDelta(t, s.Tempo, again.Tempo, 0.02)
		require.Equal(t, s.Bars[0].KeyName(), again.Bars[0].KeyName())
		require.Empty(t, again.Skipped)
		// Written down, the same pitches are there, in bars and voices that hold together.
		w := Written(again, true)
		count := map[int]int{}
		for _, n := range w.Sounding() {
			count[n.MIDI]++
		}
		for _, n := range distinct(again.Notes) {
			require.Positive(t, count[n.MIDI])
		}
	})
}

// The lengths of a variable number, from the table of the file format (from memory).
func TestVariableLengths(t *testing.T) {
	for n, want := range map[int64]string{0: "\x00", 0x40: "\x40", 0x7F: "\x7F", 0x80: "\x81\x00", 0x2000: "\xC0\x00", 0x3FFF: "\xFF\x7F", 0x4000: "\x81\x80\x00", 0x1FFFFF: "\xFF\xFF\x7F", 0x200000: "\x81\x80\x80\x00", 0xFFFFFFF: "\xFF\xFF\xFF\x7F"} {
		require.Equal(t, want, string(appendVariable(nil, n)))
		got, size := variable([]byte(want))
		require.EqualValues(t, n, got)
		require.Equal(t, len(want), size)
	}
	_, size := variable([]byte("\xFF\xFF\xFF\xFF\x00"))
	require.Zero(t, size, "more than four bytes")
}
