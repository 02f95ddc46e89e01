package musicxml

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"golang.org/x/text/encoding/unicode"

	"patientladder/core/notation/score"
)

// part wraps bars in the least file that is MusicXML.
func part(bars ...string) string {
	var b strings.Builder
	b.WriteString(
		`<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">`,
	)
	for i, bar := range bars {
		if strings.HasPrefix(bar, "<measure") {
			b.WriteString(bar)
			continue
		}
		fmt.Fprintf(&b, `<measure number="%d">%s</measure>`, i+1, bar)
	}
	return b.String() + `</part></score-partwise>`
}

const fourFour = `<attributes><divisions>2</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>`

// n writes a note: pitch as in "C4" or "F#4", its duration and anything more.
func n(pitch string, duration int, more ...string) string {
	step, octave := pitch[:1], pitch[len(pitch)-1:]
	alter := ""
	switch {
	case strings.Contains(pitch, "#"):
		alter = "<alter>1</alter>"
	case strings.Contains(pitch[1:], "b"):
		alter = "<alter>-1</alter>"
	}
	chord, rest := "", ""
	for _, m := range more {
		if m == "<chord/>" || strings.HasPrefix(m, "<grace") {
			chord += m
		} else {
			rest += m
		}
	}
	return fmt.Sprintf(
		`<note>%s<pitch><step>%s</step>%s<octave>%s</octave></pitch><duration>%d</duration>%s</note>`,
		chord,
		step,
		alter,
		octave,
		duration,
		rest,
	)
}

func read(t *testing.T, file string) *score.Score {
	t.Helper()
	s, err := Read([]byte(file))
	require.NoError(t, err)
	return s
}

// sounds writes each sound as "onset+duration pitch".
func sounds(s *score.Score) []string {
	var out []string
	for _, x := range s.Sounding() {
		out = append(out, fmt.Sprintf("%s+%s %d", x.Onset, x.Duration, x.MIDI))
	}
	return out
}

// Expected values in this file are worked out by hand from the MusicXML 4.0 text.
func TestVoicesBackupForwardAndChords(t *testing.T) {
	s := read(t, part(fourFour+
		n("C5", 4, "<voice>1</voice>")+n("D5", 4, "<voice>1</voice>")+
		"<backup><duration>8</duration></backup>"+
		"<forward><duration>2</duration></forward>"+
		n("C4", 2, "<voice>2</voice>")+n("E4", 2, "<chord/>", "<voice>2</voice>")+n("F#4", 4, "<voice>2</voice>")))
	require.Equal(t, []string{"0+2 72", "1+1 60", "1+1 64", "2+2 66", "2+2 74"}, sounds(s))
	require.Equal(t, "4", s.Length().String())
}

func TestTies(t *testing.T) {
	start, stop := `<tie type="start"/>`, `<tie type="stop"/>`
	t.Run("over the bar line and through a third note", func(t *testing.T) {
		s := read(t, part(fourFour+n("C4", 8, start), n("C4", 8, stop, start), n("C4", 2, stop)+n("D4", 6)))
		require.Equal(t, []string{"0+9 60", "9+3 62"}, sounds(s))
	})
	t.Run("drawn only", func(t *testing.T) {
		s := read(
			t,
			part(fourFour+n("C4", 8, `<notations><tied type="start"/></notations>`), n("C4", 8, `<notations><tied type="stop"/></notations>`)),
		)
		require.Equal(t, []string{"0+8 60"}, sounds(s))
	})
	t.Run("within a chord only the tied note goes on", func(t *testing.T) {
		s := read(t, part(fourFour+n("C4", 8, start)+n("E4", 8, "<chord/>"), n("C4", 8, stop)+n("E4", 8, "<chord/>")))
		require.Equal(t, []string{"0+8 60", "0+4 64", "4+4 64"}, sounds(s))
	})
	t.Run("an end with no beginning sounds by itself", func(t *testing.T) {
		s := read(t, part(fourFour+n("C4", 4, stop)+n("C4", 4)))
		require.Equal(t, []string{"0+2 60", "2+2 60"}, sounds(s))
	})
	t.Run("two voices on one pitch keep their own chains", func(t *testing.T) {
		s := read(t, part(fourFour+n("C4", 4, start, "<voice>1</voice>")+n("C4", 4, stop, "<voice>1</voice>")+
			"<backup><duration>8</duration></backup>"+n("C4", 4, "<voice>2</voice>")+n("C4", 4, "<voice>2</voice>")))
		require.ElementsMatch(t, []string{"0+4 60", "0+2 60", "2+2 60"}, sounds(s))
	})
}

func TestTripletsAreExact(t *testing.T) {
	mod := `<time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification>`
	s := read(t, part(strings.Replace(fourFour, "<divisions>2", "<divisions>3", 1)+n("C4", 1, mod)+n("D4", 1, mod)+n("E4", 1, mod)+n("F4", 9)))
	require.Equal(t, []string{"0+1/3 60", "1/3+1/3 62", "2/3+1/3 64", "1+3 65"}, sounds(s))
	require.Equal(t, score.Ratio{Actual: 3, Normal: 2}, s.Notes[0].Tuplet)
}

func TestPickupIsShortAndKeepsItsLabel(t *testing.T) {
	s := read(t, part(`<measure number="0" implicit="yes">`+fourFour+n("G4", 2)+`</measure>`, `<measure number="1">`+n("C5", 8)+`</measure>`))
	require.True(t, s.Bars[0].Short)
	require.Equal(t, []string{"0", "1"}, s.Labels())
	require.Equal(t, []string{"0+1 67", "1+4 72"}, sounds(s))
}

func TestTransposingInstrumentSoundsElsewhere(t *testing.T) {
	// A clarinet in B flat sounds a major second lower than written (common practice).
	s := read(
		t,
		part(
			strings.Replace(
				fourFour,
				"</attributes>",
				"<transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose></attributes>",
				1,
			)+n(
				"D4",
				8,
			),
		),
	)
	require.Equal(t, []string{"0+4 60"}, sounds(s))
	require.Equal(t, "D4", s.Notes[0].Pitch.String())
}

func TestGraceNotesTakeNoTime(t *testing.T) {
	s := read(t, part(fourFour+n("B4", 0, `<grace slash="yes"/>`)+n("C5", 8)))
	got := s.Sounding()
	require.True(t, got[0].Grace)
	require.Equal(t, []string{"0+0 71", "0+4 72"}, sounds(s))
}

func TestFingersStringsAndWhatIsSkipped(t *testing.T) {
	scoop := `<direction><direction-type><scordatura/></direction-type></direction>`
	s := read(t, part(fourFour+scoop+
		n("C4", 4, `<notations><technical><fingering>3</fingering><string>3</string><fret>0</fret></technical></notations>`)+
		scoop+n("D4", 4)+`<figured-bass/>`))
	require.Equal(t, "3", s.Notes[0].Fingering)
	require.Equal(t, 3, s.Notes[0].String)
	require.Equal(t, []score.Skip{
		{What: "directions: scordatura", Where: "part P1, bar 1", Count: 2},
		{What: "figured bass", Where: "part P1, bar 1", Count: 1},
	}, s.Skipped)
}

func TestSignsBesideTheNotes(t *testing.T) {
	direction := func(kind, more string) string {
		return `<direction><direction-type>` + kind + `</direction-type>` + more + `</direction>`
	}
	s := read(
		t,
		part(fourFour+n("C4", 8), direction("<dynamics><mf/></dynamics>", "")+direction(`<wedge type="crescendo"/>`, "<offset>2</offset>")+
			n("C4", 4)+direction(`<wedge type="stop"/>`, "")+direction(`<pedal type="change"/>`, `<staff>1</staff><sound tempo="72"/>`)+
			`<harmony><root><root-step>B</root-step><root-alter>-1</root-alter></root><kind>minor-seventh</kind><bass><bass-step>F</bass-step></bass></harmony>`+
			`<attributes><clef><sign>F</sign><line>4</line></clef></attributes><attributes><clef><sign>G</sign></clef></attributes>`+
			n("D4", 4, `<notations><fermata/><arpeggiate/><ornaments><trill-mark/></ornaments></notations>`)+direction("<words>dolce</words>", "")),
	)
	var got []string
	for _, x := range s.Signs {
		got = append(got, fmt.Sprintf("%s %s%s %d", x.At, x.Kind, x.Text, x.Bar))
	}
	require.Equal(
		t,
		[]string{
			"4 dynamicmf 2",
			"5 crescendo 2",
			"6 hairpin end 2",
			"6 pedal up 2",
			"6 pedal down 2",
			"6 tempo 2",
			"6 chordBbm7/F 2",
			"6 clef 2",
			"8 words" + "dolce 2",
		},
		got,
	)
	require.InDelta(t, 72, s.Tempo, 1e-9)
	last := s.Notes[len(s.Notes)-1]
	require.True(t, last.Fermata && last.Rolled)
	require.Equal(t, []string{"trill-mark"}, last.Ornaments)
}

func TestWhatIsLeftOutKeepsItsTime(t *testing.T) {
	cue := strings.Replace(n("E5", 4, "<voice>1</voice>"), "<note>", "<note><cue/>", 1)
	drum := `<note><unpitched><display-step>E</display-step><display-octave>4</display-octave></unpitched><duration>2</duration></note>`
	s := read(t, part(fourFour+cue+drum+n("C4", 2, "<voice>1</voice>")))
	require.Equal(t, []string{"3+1 60"}, sounds(s))
	require.Len(t, s.Skipped, 2)
}

func TestRepeatsAndEndings(t *testing.T) {
	left := func(s string) string { return `<barline location="left">` + s + `</barline>` }
	right := func(s string) string { return `<barline location="right">` + s + `</barline>` }
	s := read(t, part(
		fourFour+left(`<repeat direction="forward"/>`)+n("C4", 8),
		left(`<ending number="1, 2" type="start"/>`)+n("D4", 8),
		n("E4", 8)+right(`<ending number="1, 2" type="stop"/><repeat direction="backward" times="3"/>`),
		left(`<ending number="3" type="start"/>`)+n("F4", 8)+right(`<ending number="3" type="discontinue"/>`),
		n("G4", 8)))
	require.Equal(t, []int{1, 2, 3, 1, 2, 3, 1, 4, 5}, s.Order(100))
	require.Empty(t, s.Skipped)
	s = read(t, part(fourFour+n("C4", 8)+`<direction><direction-type><words>D.C.</words></direction-type><sound dacapo="yes"/></direction>`))
	require.Contains(
		t,
		s.Skipped,
		score.Skip{What: "jumps such as da capo (the piece is read once through)", Where: "part P1, bar 1", Count: 1},
	)
}

func TestTempoOfDottedBeat(t *testing.T) {
	s := read(
		t,
		part(
			fourFour+`<direction><direction-type><metronome><beat-unit>quarter</beat-unit><beat-unit-dot/><per-minute>60</per-minute></metronome></direction-type></direction>`+n(
				"C4",
				8,
			),
		),
	)
	require.InDelta(t, 90, s.Tempo, 1e-9)
}

func TestUTF16(t *testing.T) {
	file := strings.Replace(part(fourFour+n("C4", 8)), "UTF-8", "UTF-16", 1)
	data, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().Bytes([]byte(file))
	require.NoError(t, err)
	s, err := Read(data)
	require.NoError(t, err)
	require.Equal(t, []string{"0+4 60"}, sounds(s))
}

func TestBarsThatAllVoicesStretchAreBelieved(t *testing.T) {
	s := read(t, part(fourFour+n("C4", 10, "<voice>1</voice>")+"<backup><duration>10</duration></backup>"+n("C3", 10, "<voice>2</voice>")))
	require.Equal(t, "5", s.Bars[0].Length.String())
	require.Equal(t, "bars longer than their time signature (taken as written)", s.Skipped[0].What)
}

func TestMistakesGetOneSentence(t *testing.T) {
	deep := strings.Repeat("<a>", 100) + strings.Repeat("</a>", 100)
	good := part(fourFour + n("C4", 8))
	cases := map[string]struct{ file, says string }{
		"empty":            {"", "empty"},
		"blank":            {" \n\t", "empty"},
		"text":             {"Dear teacher", "does not begin like XML"},
		"web page":         {"<html><body>hello</body></html>", "begins with <html>"},
		"archive":          {"PK\x03\x04rest", "cannot be opened as an archive"},
		"MIDI":             {"MThd\x00", "MIDI"},
		"picture":          {"%PDF-1.4", "PDF"},
		"ABC":              {"X:1\nT:x", "ABC"},
		"no bars":          {"<score-timewise/>", "no part with music"},
		"cut off":          {good[:len(good)-40], "stops in the middle"},
		"cut off in a tag": {good[:len(good)-3], "stops in the middle"},
		"wrong nesting":    {"<score-partwise><part-list></score-partwise></part-list>", "closes nothing"},
		"no music":         {"<score-partwise><part-list/></score-partwise>", "no part"},
		"entity":           {`<!DOCTYPE score-partwise [<!ENTITY a "aaaa">]><score-partwise>&a;</score-partwise>`, "entities"},
		"outside entity": {
			`<!DOCTYPE score-partwise [<!ENTITY a SYSTEM "file:///etc/passwd">]><score-partwise>&a;</score-partwise>`,
			"entities",
		},
		"entity without name": {"<score-partwise>&secret;</score-partwise>", "entity"},
		"deep":                {"<score-partwise>" + deep + "</score-partwise>", "nested"},
		"unknown encoding":    {`<?xml version="1.0" encoding="klingon"?><score-partwise/>`, "encoding"},
		"divisions zero":      {part(strings.Replace(fourFour, "<divisions>2", "<divisions>0", 1)), "above zero"},
		"divisions negative":  {part(strings.Replace(fourFour, "<divisions>2", "<divisions>-4", 1)), "above zero"},
		"divisions too fine":  {part(strings.Replace(fourFour, "<divisions>2", "<divisions>99999999", 1)), "too finely"},
		"divisions no number": {part(strings.Replace(fourFour, "<divisions>2", "<divisions>two", 1)), "whole number"},
		"negative duration":   {part(fourFour + n("C4", -8)), "negative"},
		"endless duration":    {part(fourFour + n("C4", 999999999)), "longer than"},
		"note name":           {part(fourFour + strings.Replace(n("C4", 8), "<step>C", "<step>H", 1)), "A to G"},
		"octave":              {part(fourFour + strings.Replace(n("C4", 8), "<octave>4", "<octave>44", 1)), "octave 44"},
		"staff":               {part(fourFour + n("C4", 8, "<staff>99</staff>")), "staff 99"},
		"part unknown":        {strings.Replace(good, `<part id="P1">`, `<part id="P9">`, 1), "not in the part list"},
		"part twice":          {strings.Replace(good, "</score-partwise>", `<part id="P1"></part></score-partwise>`, 1), "comes twice"},
		"id twice":            {strings.Replace(good, "</part-list>", `<score-part id="P1"/></part-list>`, 1), "twice"},
	}
	for name, c := range cases {
		t.Run(name, func(t *testing.T) {
			_, err := Read([]byte(c.file))
			var e *Error
			require.ErrorAs(t, err, &e)
			require.Contains(t, err.Error(), c.says)
			require.NotContains(t, err.Error(), "\n")
			require.Less(t, len(err.Error()), 260)
		})
	}
}

// What is wrong in one bar is mended by a rule and listed with its bar; the rest is read as it is.
func TestMendedByStatedRules(t *testing.T) {
	one := func(s string) string { return part(fourFour+s, n("E4", 8)) }
	for name, c := range map[string]struct {
		file, what string
		bars       []string
		want       []string
	}{
		"a voice over its bar": {
			one(n("C4", 8) + n("D4", 2)), "a voice that runs past its bar (the bar was taken as long as the voice)", []string{"1"},
			[]string{"0+4 60", "4+1 62", "5+4 64"},
		},
		"one of two voices over its bar": {
			one(n("C4", 8, "<voice>1</voice>") + "<backup><duration>8</duration></backup>" + n("C3", 12, "<voice>2</voice>")),
			"a voice that runs past its bar (the bar was taken as long as the voice)",
			[]string{"1"},
			[]string{"0+6 48", "0+4 60", "6+4 64"},
		},
		"a backup too far": {
			one(n("C4", 4) + "<backup><duration>9</duration></backup>" + n("C3", 8)),
			"a step back beyond the beginning of the bar (taken to its beginning)", []string{"1"}, []string{"0+4 48", "0+2 60", "4+4 64"},
		},
		"a staff too many": {
			one(n("C4", 8, "<staff>2</staff>")), "notes on a staff that the part was not said to have (it has it)", []string{"1"},
			[]string{"0+4 60", "4+4 64"},
		},
		"no metre": {
			part(strings.Replace(fourFour, "<beat-type>4", "<beat-type>7", 1)+n("C4", 6), n("E4", 8)),
			"a time signature that does not exist (none was taken)", []string{"1"}, []string{"0+3 60", "3+4 64"},
		},
		"neither pitch nor rest": {
			one("<note><duration>2</duration></note>" + n("C4", 6)), "a note that is neither a pitch nor a rest (taken as a rest)", []string{"1"},
			[]string{"1+3 60", "4+4 64"},
		},
		"no duration": {
			one("<note><rest/><type>half</type></note>" + n("C4", 4)), "a note without a duration (taken as long as it is written)",
			[]string{"1"}, []string{"2+2 60", "4+4 64"},
		},
		"a chord of one": {
			one(n("C4", 8, "<chord/>")), "a note of a chord that has no other (taken by itself)", []string{"1"}, []string{"0+4 60", "4+4 64"},
		},
		"divisions within a bar": {
			one(n("C4", 4) + "<attributes><divisions>4</divisions></attributes>" + n("D4", 8)),
			"divisions that change within a bar (what came before was counted anew)", []string{"1"}, []string{"0+2 60", "2+2 62", "4+2 64"},
		},
		"twelve hundred sharps": {
			part(strings.Replace(fourFour, "<divisions>2</divisions>", "<divisions>2</divisions><key><fifths>1200</fifths></key>", 1) + n("C4", 8)),
			"a key signature that does not exist (none was taken)", []string{"1"}, []string{"0+4 60"},
		},
	} {
		t.Run(name, func(t *testing.T) {
			s := read(t, c.file)
			require.Equal(t, []score.Skip{{What: c.what, Where: "part P1, bar 1", Count: 1, Bars: c.bars}}, s.Skipped)
			require.Equal(t, c.want, sounds(s))
		})
	}
}

func TestLimits(t *testing.T) {
	limits := DefaultLimits()
	limits.Notes, limits.Bars, limits.Bytes = 3, 2, 5000
	_, err := ReadWithin([]byte(part(fourFour+n("C4", 2)+n("C4", 2)+n("C4", 2)+n("C4", 2))), limits)
	require.ErrorContains(t, err, "more than 3 notes")
	_, err = ReadWithin([]byte(part(fourFour, "", "")), limits)
	require.ErrorContains(t, err, "more than 2 bars")
	_, err = ReadWithin([]byte(part(strings.Repeat(" ", 6000))), limits)
	require.ErrorContains(t, err, "at most")
}
