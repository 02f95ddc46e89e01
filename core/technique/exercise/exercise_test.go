package exercise

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/library/skill"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/naming"
)

func parse(t require.TestingT, player, id string) Exercise {
	x, ok := instrument.Of(player)
	require.True(t, ok)
	e, err := Parse(id, x)
	require.NoError(t, err, id)
	return e
}

func fingers(b Built, hand string) string {
	var out strings.Builder
	for _, n := range b.Notes {
		if n.Hand == hand {
			fmt.Fprint(&out, n.Finger)
		}
	}
	return out.String()
}

func names(b Built, hand string) string {
	var out []string
	for _, n := range b.Notes {
		if n.Hand == hand {
			out = append(out, n.Pitch.String())
		}
	}
	return strings.Join(out, " ")
}

// all are all exercises of all instruments at every step.
func all(t *testing.T, each func(e Exercise)) int {
	n := 0
	for _, x := range instrument.All() {
		for _, typ := range For(x) {
			for _, s := range typ.Steps {
				kinds := typ.Kinds
				if len(kinds) == 0 {
					kinds = append(kinds, "")
				}
				for _, k := range kinds {
					list := Places(Exercise{Type: typ, Step: s, Instrument: x, Kind: k})
					if !x.Breathes() && x.Family != instrument.Other && s.ID != "three" { // what leaves the range of a stage is not there in every kind
						require.NotEmpty(t, list, "%s %s/%s %s", x.ID, typ.ID, s.ID, k)
					}
					for _, e := range list {
						n++
						each(e)
					}
				}
			}
		}
	}
	return n
}

// Every exercise of every instrument: its id reads back, its notes fill whole bars
// without gaps in a hand that plays on, its score comes back from MusicXML note for note.
func TestEveryExerciseIsPlayableAndWritable(t *testing.T) {
	skills, err := skill.Standard()
	require.NoError(t, err)
	count := all(t, func(e Exercise) {
		name := e.Instrument.ID + " " + e.ID()
		back, err := Parse(e.ID(), e.Instrument)
		require.NoError(t, err, name)
		require.Equal(t, e.ID(), back.ID())
		b, err := e.Build()
		require.NoError(t, err, name)
		require.NotEmpty(t, b.Notes)
		require.Zero(t, b.Length.Num()%int64(b.Beats))
		require.Equal(t, int64(1), b.Length.Den())
		for i, n := range b.Notes {
			require.Positive(t, n.Length.Num(), name)
			require.LessOrEqual(t, n.End().Float(), b.Length.Float(), name)
			if n.String > 0 {
				require.Equal(t, e.Instrument.Open[n.String-1].Semitone()+n.Above, n.Pitch.Semitone(), "%s, note %d", name, i)
				require.Equal(t, n.Above == 0, n.Finger == 0, "%s, note %d: open strings have no finger, %v", name, i, n)
			} else if e.Instrument.Family == instrument.Keyboard {
				require.True(t, n.Finger >= 1 && n.Finger <= 5, name)
			} else if len(e.Instrument.Ranges) > 0 {
				written := n.Pitch
				written.Octave -= e.Instrument.Octave
				require.True(t, e.Instrument.Ranges[2].Has(written), "%s: %s lies beyond the instrument", name, written)
			}
		}
		for id := range e.Step.Gives {
			_, known := skills.Get(id)
			require.True(t, known, "%s gives %s", name, id)
		}
		s, err := e.Score(naming.Words{})
		require.NoError(t, err, name)
		list, err := musicxml.Read(musicxml.Write(s, musicxml.Options{}))
		require.NoError(t, err, name)
		require.Empty(t, list.Skipped, name)
		want, got := s.Sounding(), list.Sounding()
		require.Len(t, got, len(want), name)
		for i := range want {
			require.Equal(
				t,
				[3]any{want[i].MIDI, want[i].Onset.String(), want[i].Duration.String()},
				[3]any{got[i].MIDI, got[i].Onset.String(), got[i].Duration.String()},
				"%s, note %d",
				name,
				i,
			)
			x, y := s.Notes[want[i].Note], list.Notes[got[i].Note]
			require.Equal(t, x.Fingering+x.Bow+x.Pluck, y.Fingering+y.Bow+y.Pluck, "%s, note %d", name, i)
		}
		for bar, in := range s.NotesByBar() {
			length := map[int]rational.Rat{}
			for _, i := range in {
				if !s.Notes[i].Chord {
					length[s.Notes[i].Staff] = length[s.Notes[i].Staff].Add(s.Notes[i].Duration)
				}
			}
			for staff := 1; staff <= s.Parts[0].Staves; staff++ {
				require.Equal(t, rational.Int(int64(b.Beats)).String(), length[staff].String(), "%s, bar %d, staff %d", name, bar+1, staff)
			}
		}
	})
	require.Greater(t, count, 1000)
}

func TestHandsOfAScale(t *testing.T) {
	b, err := parse(t, "piano", "scale/apart/Db/major/-").Build()
	require.NoError(t, err)
	require.Equal(t, "231234121432132", fingers(b, "right"))
	require.Equal(t, rational.Int(16), b.Notes[15].At, "the left hand begins when the right one has ended")
	b, err = parse(t, "piano", "five-finger/contrary/C/major-five-finger/-").Build()
	require.NoError(t, err)
	require.Equal(t, "C4 D4 E4 F4 G4 F4 E4 D4 C4", names(b, "right"))
	require.Equal(t, "G3 F3 E3 D3 C3 D3 E3 F3 G3", names(b, "left"))
	require.Equal(t, fingers(b, "right"), fingers(b, "left"), "in a mirror the same fingers play")
	b, err = parse(t, "piano", "mirrored/both/C/major-five-finger/-").Build()
	require.NoError(t, err)
	require.Equal(t, fingers(b, "right"), fingers(b, "left"))
	b, err = parse(t, "piano", "tetrachords/shared/G/tetrachords/-").Build()
	require.NoError(t, err)
	require.Equal(t, "G4 A4 B4 C5 C5 B4 A4 G4", names(b, "left"))
	require.Equal(t, "D5 E5 F#5 G5 F#5 E5 D5", names(b, "right"))
	b, err = parse(t, "piano", "voicing/mime/C/major-five-finger/-").Build()
	require.NoError(t, err)
	for _, n := range b.Notes {
		require.Equal(t, n.Hand == "left", n.Silent)
	}
	b, err = parse(t, "piano", "two-voices/round/C/major-five-finger/-").Build()
	require.NoError(t, err)
	require.True(t, strings.HasPrefix(names(b, "left"), "C3 E3 G3"))
}

// Neighbours use different fingers in every roll; fingers in turn walk on the first frets.
func TestPluckingFingersAlternate(t *testing.T) {
	all(t, func(e Exercise) {
		if e.Type.Make != "roll" && e.Type.Make != "frets" {
			return
		}
		b, err := e.Build()
		require.NoError(t, err)
		for i := 1; i < len(b.Notes); i++ {
			require.NotEqual(t, b.Notes[i-1].Pluck, b.Notes[i].Pluck, "%s %s", e.Instrument.ID, e.ID())
		}
	})
}

func TestTitles(t *testing.T) {
	for id, want := range map[string]string{
		"piano scale/two/F#/major/-":                    "F♯ major scale: two octaves, hands together",
		"piano chromatic/apart/C/chromatic/-":           "Chromatic scale from C: one octave, hands apart",
		"cello finger-pattern/bow/C/major/2":            "D string: pattern of C major: bowed, up and down the string",
		"cello bowing/whole/-/-/1":                      "Bows on open strings, A string: whole bows",
		"ukulele roll/open/-/-/out-and-back":            "Out and back: on open strings, slowly",
		"ukulele changes/four/-/-/C-F":                  "C to F: four strokes each",
		"piano arpeggio/apart/A/minor-arpeggio/-":       "A minor arpeggio: one octave, hands apart",
		"piano scale/apart/A/harmonic-minor/-":          "A harmonic minor scale: one octave, hands apart",
		"piano five-finger/touch/D/major-five-finger/-": "D major, five fingers: one hand smooth, the other short",
	} {
		player, id, _ := strings.Cut(id, " ")
		require.Equal(t, want, parse(t, player, id).Full(naming.Words{}))
	}
}

func TestExercisesThatAreNone(t *testing.T) {
	for in, want := range map[string]string{
		"piano scale":                       "is not an exercise",
		"piano roll/open/-/-/out-and-back":  `no exercise "roll" for the piano`,
		"piano scale/ninth/C/major/-":       `no step "ninth"`,
		"piano scale/apart/H/major/-":       "not a key",
		"piano scale/apart/G#/major/-":      "8 sharps; write Ab",
		"piano scale/apart/C/lydian/-":      `no kind "lydian"`,
		"cello bowing/whole/-/-/9":          "no string",
		"cello string-scale/two/B/major/-":  "",
		"ukulele roll/open/-/-/sideways":    `no roll "sideways"`,
		"ukulele changes/four/-/-/C":        "not two chords",
		"ukulele changes/four/-/-/C-Hx":     "not a chord",
		"ukulele changes/four/-/-/C-":       `"" is not a chord`,
		"cello shift/one-finger/Db/major/1": "not in Db",
	} {
		player, id, _ := strings.Cut(in, " ")
		x, _ := instrument.Of(player)
		_, err := Parse(id, x)
		if want == "" {
			require.NoError(t, err, in)
			continue
		}
		require.ErrorContains(t, err, want, in)
	}
}

func TestFaultyTypesAreRefused(t *testing.T) {
	for says, data := range map[string]string{
		"unexpected": `[`,
		"steps":      `[{"id":"x","faults":[{}]}]`,
		"not before": `[{"id":"x","after":"y/z","faults":[{}],"steps":[{}]}]`,
		"no kind":    `[{"id":"x","kinds":["odd"],"faults":[{}],"steps":[{}]}]`,
		"of its own": `[{"id":"x","faults":[{}],"steps":[{}]}]`,
		"three":      `[{"id":"x","faults":[{}],"steps":[{"id":"a"}]}]`,
		"metronome":  `[{"id":"x","faults":[{}],"steps":[{"id":"a","goals":["a","b","c"],"tempo":20}]}]`,
		"bow plan":   `[{"id":"x","faults":[{}],"steps":[{"id":"a","goals":["a","b","c"],"tempo":60,"keys":1,"bow":"sideways"}]}]`,
	} {
		_, err := parseTypes([]byte(data))
		require.ErrorContains(t, err, says)
	}
}

// D flat major, hands together: 2 and 3 on the two black keys, 2 3 4 on the three, the thumbs on
// the white ones, so that every note is a meeting point (common practice). C major: 3 with 3
// on the third and the sixth, and the thumbs between the octaves, which one octave does not have.
func TestMeetingPointsStandAtTheNotes(t *testing.T) {
	piano, _ := instrument.Of("piano")
	lit := func(id string) string {
		e, err := Parse(id, piano)
		require.NoError(t, err)
		b, err := e.Build()
		require.NoError(t, err)
		at := map[rational.Rat]map[string]bool{}
		out := ""
		for _, n := range b.Notes {
			if at[n.At] == nil {
				at[n.At] = map[string]bool{}
			}
			if n.Meet != "" {
				at[n.At][n.Hand] = true
			}
			if n.Hand == "left" && n.At.Less(rational.Int(int64(8))) {
				require.Equal(t, at[n.At]["right"], at[n.At]["left"], "both hands or none at %s", n.At)
				if n.Meet != "" {
					out += n.Pitch.Name() + " "
				}
			}
		}
		return out
	}
	require.Equal(t, "Db Eb F Gb Ab Bb C Db ", lit("scale/together/Db/major/-"))
	require.Equal(t, "E F G A ", lit("scale/together/C/major/-"))
	require.Equal(t, "G F E D C D E F ", lit("five-finger/contrary/C/major-five-finger/-"), "in a mirror every finger meets its like")
}

// A piano has 88 keys, from A0 to C8 (21 to 108 on the MIDI scale); and hands that play at once do not
// cross, though in contrary motion they may begin on one key (common practice).
func TestEveryKeyboardExerciseLiesOnThePiano(t *testing.T) {
	piano, _ := instrument.Of("piano")
	for _, kind := range Types(piano.Family) {
		for _, step := range kind.Steps {
			for _, k := range kind.Kinds {
				for _, e := range Places(Exercise{Type: kind, Step: step, Kind: k, Instrument: piano}) {
					b, err := e.Build()
					require.NoError(t, err)
					right := map[rational.Rat]int{}
					for _, n := range b.Notes {
						midi := n.Pitch.Semitone()
						require.True(t, midi >= 21 && midi <= 108, "%s has %s", e.ID(), n.Pitch)
						if n.Hand == "right" {
							right[n.At] = midi
						}
					}
					for _, n := range b.Notes {
						if r, both := right[n.At]; both && n.Hand == "left" {
							require.LessOrEqual(t, n.Pitch.Semitone(), r, "%s at %s", e.ID(), n.At)
						}
					}
				}
			}
		}
	}
}

// A step of the data lies on the metronome, from 40 to 208, asks for a key at least, and has three goals.
func TestTheBoundsOfAStepOfTheData(t *testing.T) {
	step := func(tempo, keys, goals int) string {
		return fmt.Sprintf(
			`[{"id":"x","name":"X","families":["keyboard"],"make":"five","kinds":["major-five-finger"],"plants":[],"faults":[{"id":"f","text":"f","look":"f"}],"steps":[
			{"id":"a","name":"a","tempo":%d,"keys":%d,"order":"few","goals":[%s],"why":"","gives":{}}]}]`,
			tempo,
			keys,
			strings.TrimSuffix(strings.Repeat(`"g",`, goals), ","),
		)
	}
	for _, ok := range [][3]int{{40, 1, 3}, {208, 1, 3}} {
		_, err := parseTypes([]byte(step(ok[0], ok[1], ok[2])))
		require.NoError(t, err, ok)
	}
	for wrong, says := range map[[3]int]string{
		{39, 1, 3}: "needs a tempo on the metronome", {209, 1, 3}: "needs a tempo on the metronome", {60, 0, 3}: "and a number of keys",
		{60, 1, 2}: "has 2 goals instead of three", {60, 1, 4}: "has 4 goals instead of three",
	} {
		_, err := parseTypes([]byte(step(wrong[0], wrong[1], wrong[2])))
		require.ErrorContains(t, err, says)
	}
}
