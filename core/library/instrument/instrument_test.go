package instrument

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
)

// The open strings in sounding pitches (common practice; the ukulele with its
// high G, the banjo in open G with the short fifth string).
func TestTunings(t *testing.T) {
	for id, midi := range map[string][]int{
		"cello": {57, 50, 43, 36}, "viola": {69, 62, 55, 48}, "violin": {76, 69, 62, 55},
		"ukulele": {69, 64, 60, 67}, "guitar": {64, 59, 55, 50, 45, 40}, "banjo": {62, 59, 55, 50, 67},
	} {
		require.Equal(t, midi, Tuning(id), id)
	}
	require.Nil(t, Tuning("piano"))
	// Bowed strings are tuned in fifths.
	for _, x := range All() {
		for i := 1; x.Family == Bowed && i < len(x.Open); i++ {
			require.Equal(t, 7, x.Open[i-1].Semitone()-x.Open[i].Semitone(), x.ID)
		}
	}
	_, known := FamilyOf("serpent")
	require.False(t, known)
}

func TestFaultyInstrumentsAreRefused(t *testing.T) {
	harp := `{"id":"x","family":"plucked","strings":["A3"],"hand":{"by":"semitones","first":1},`
	for data, says := range map[string]string{
		`[`:                                "instruments: it is no list of instruments: unexpected end of JSON input",
		`[{"family":"keyboard"}]`:          `instruments, entry 1: "" is no name: write it in small letters`,
		`[{"id":"X","family":"keyboard"}]`: `instruments, entry 1 (X): "X" is no name: write it in small letters`,
		`[{"id":"xx","family":"glass"}]`:   `instruments, entry 1 (xx): "glass" is no family; there are keyboard, bowed, plucked, wind, voice, percussion, other`,
		`[{"id":"xx","family":"keyboard"},{"id":"xx","family":"wind"}]`:                                                       `instruments, entry 2 (xx): "xx" stands there twice`,
		`[{"id":"xx","family":"bowed","strings":["H3"]}]`:                                                                     `instruments, entry 1 (xx): string 1: "H3" is no note; write it with its octave, as in D3`,
		`[{"id":"xx","family":"bowed","strings":["A3",""]}]`:                                                                  `instruments, entry 1 (xx): string 2: "" is no note; write it with its octave, as in D3`,
		`[{"id":"xx","family":"bowed","strings":"GDAE"}]`:                                                                     `instruments, entry 1 (xx): "strings" cannot be a string`,
		`[{"id":"xx","family":"bowed"}]`:                                                                                      `instruments, entry 1 (xx): it has no strings: its strings or its hand do not fit its family`,
		`[{"id":"xx","family":"keyboard","strings":["A3"]}]`:                                                                  `instruments, entry 1 (xx): it has strings, but "keyboard" is no family of stopped strings: its strings or its hand do not fit its family`,
		`[{"id":"xx","family":"wind","clef":"H"}]`:                                                                            `instruments, entry 1 (xx): "H" is no clef; there are G, F, C and percussion`,
		`[{"id":"xx","family":"wind","ranges":[["D5","G4"]]}]`:                                                                `instruments, entry 1 (xx): range 1 goes from D5 down to G4: the lower note comes first`,
		`[{"id":"xx","family":"wind","ranges":[["G4","D5"],["A4","E5"]]}]`:                                                    `instruments, entry 1 (xx): range 2 does not hold range 1: each stage adds notes to the one before`,
		`[{"id":"xx","family":"wind","ranges":[["G4","?"]]}]`:                                                                 `instruments, entry 1 (xx): range 1: "G4" to "?" are no two notes`,
		`[{"id":"xx","family":"wind","chart":{"G4":"1"}}]`:                                                                    `instruments, entry 1 (xx): "" is nothing that a chart of fingers can show; there are holes, valves and slide`,
		`[{"id":"xx","family":"wind","chartOf":"holes","chart":{"G":"1"}}]`:                                                   `instruments, entry 1 (xx): the chart has "1" for "G", which is no note or no fingering`,
		`[{"id":"xx","family":"wind","octave":9}]`:                                                                            `instruments, entry 1 (xx): it sounds more than three octaves, or transposes by more than two, away from what is written`,
		`[{"id":"xx","family":"wind","keys":3}]`:                                                                              `instruments, entry 1 (xx): unknown field "keys"`,
		`[{"id":"xx","like":"yy"}]`:                                                                                           `instruments: "xx" is like "yy", which is not there`,
		`[{"id":"xx","like":"yy"},{"id":"yy","like":"xx"}]`:                                                                   `instruments: xx, yy, xx are each like the other: one of them has to say what it is`,
		`[` + strings.Replace(harp, `"x"`, `"xx"`, 1) + `"pluck":{"1":"z"}}]`:                                                 `instruments, entry 1 (xx): string 1 has no plucking finger of p, i, m and a`,
		`[` + strings.Replace(harp, `"x"`, `"xx"`, 1) + `"pluck":{"1":"p"},"drone":[2]}]`:                                     `instruments, entry 1 (xx): there is no string 2 that could never be stopped`,
		`[` + strings.Replace(harp, `"x"`, `"xx"`, 1) + `"pluck":{"1":"p"},"rolls":[{"id":"r","name":"R","strings":[1,2]}]}]`: `instruments, entry 1 (xx): the roll "r" names strings that are not there`,
		`[{"id":"xx","family":"bowed","strings":["A3"],"hand":{"by":"toes","first":1}}]`:                                      `instruments, entry 1 (xx): its strings or its hand do not fit its family: the hand goes by semitones or by letters, lies above the nut and reaches as far as its span`,
	} {
		_, err := Parse([]byte(data))
		require.EqualError(t, err, says, data)
	}
}

// A studio's own file adds instruments; one may say only in what it differs from another. Where one entry is wrong none is added.
func TestAStudiosOwnInstruments(t *testing.T) {
	before := All()
	undo, err := Extend(
		[]byte(
			`[{"id":"tenor banjo","like":"banjo","strings":["A4","D4","G3","C3"],"drone":[],"rolls":[]},{"id":"flute","like":"recorder","octave":0}]`,
		),
	)
	require.NoError(t, err)
	x, known := Of("tenor banjo")
	require.True(t, known)
	require.Equal(t, Plucked, x.Family)
	require.Equal(t, []int{69, 62, 55, 48}, Tuning("tenor banjo"))
	require.Equal(t, "T", x.Sign("p"))
	require.Empty(t, x.Drone)
	flute, _ := Of("flute")
	require.Len(t, flute.Chart, 21, "it was replaced")
	undo()
	require.Equal(t, before, All())
	for _, wrong := range []string{
		`[{"id":"good","family":"wind"},{"id":"bad","family":"glass"}]`,
		`[{"id":"good","family":"wind"},{"id":"good","family":"wind"}]`,
		`{}`,
	} {
		_, err = Extend([]byte(wrong))
		require.Error(t, err)
		require.Equal(t, before, All(), "nothing is half added")
	}
}

// What is written and where it lies (handbook charts, from memory): sounding is written plus transposition; three stages.
func TestWindsAndVoices(t *testing.T) {
	for id, want := range map[string]int{"clarinet": -2, "trumpet": -2, "horn": -7, "saxophone": -9, "flute": 0} {
		x, _ := Of(id)
		require.Equal(t, want, x.Transposes, id)
		require.True(t, x.Breathes())
		require.Len(t, x.Ranges, 3)
	}
	recorder, _ := Of("recorder")
	stage := func(name string) int {
		p, _ := score.ParsePitch(name)
		return recorder.Stage(p)
	}
	require.Equal(t, []int{1, 1, 2, 2, 3, 4}, []int{stage("B4"), stage("G4"), stage("C4"), stage("E5"), stage("A5"), stage("C6")})
	piano, _ := Of("piano")
	require.Equal(t, 0, piano.Stage(score.Pitch{Step: 'C', Octave: 4}))
	signs := map[string]string{}
	for _, c := range recorder.Chart {
		signs[c.Note.String()] = c.Signs
	}
	require.Equal(t, []float64{1, 1, 0, 0, 0, 0, 0, 0}, Charted{Signs: "T1"}.Holes())
	require.Equal(t, []float64{0.5, 1, 1, 1, 1, 1, 0, 0}, Charted{Signs: signs["E5"]}.Holes(), "half the thumb")
	require.Equal(
		t,
		[]string{"T1", "T12", "T123", "T2", "2", "T123467"},
		[]string{signs["B4"], signs["A4"], signs["G4"], signs["C5"], signs["D5"], signs["F4"]},
	)
}
