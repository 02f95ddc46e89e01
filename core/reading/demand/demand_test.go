package demand

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/reading"
)

// twoStaves is three bars in 3/4 with a G in the key: a held left hand under a
// right hand that moves by step, then by skip, then a fifth; worked by hand.
const twoStaves = `<score-partwise><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">
<measure number="1"><attributes><divisions>1</divisions><key><fifths>1</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="1"><sign>G</sign></clef><clef number="2"><sign>F</sign></clef></attributes>
<note><pitch><step>G</step><octave>4</octave></pitch><duration>1</duration><staff>1</staff></note>
<note><pitch><step>A</step><octave>4</octave></pitch><duration>1</duration><staff>1</staff></note>
<note><pitch><step>B</step><octave>4</octave></pitch><duration>1</duration><staff>1</staff></note>
<backup><duration>3</duration></backup><note><pitch><step>G</step><octave>3</octave></pitch><duration>3</duration><staff>2</staff><voice>5</voice></note></measure>
<measure number="2"><note><pitch><step>G</step><octave>4</octave></pitch><duration>2</duration><staff>1</staff></note>
<note><pitch><step>D</step><octave>5</octave></pitch><duration>1</duration><staff>1</staff></note></measure>
<measure number="3"><note><pitch><step>C</step><alter>1</alter><octave>5</octave></pitch><duration>3</duration><staff>1</staff><notations><articulations><staccato/></articulations></notations></note></measure>
</part></score-partwise>`

func parse(t *testing.T) *score.Score {
	s, err := musicxml.Read([]byte(twoStaves))
	require.NoError(t, err)
	return s
}

func table(t *testing.T) Table {
	skills, err := skill.Standard()
	require.NoError(t, err)
	tab, err := Standard(skills)
	require.NoError(t, err)
	return tab
}

func TestFeaturesWorkedByHand(t *testing.T) {
	f := analysis.Of(parse(t), "piano").Features()
	require.Equal(t, []int{1, 2, 3}, f["time.3/4"])
	require.Equal(t, []int{1, 2, 3}, f["key.sharps-1"])
	require.Equal(t, []int{1, 3}, f["move.step"])
	require.Equal(t, []int{2}, f["move.skip"], "B down to G")
	require.Equal(t, []int{2}, f["move.leap"], "G up to D")
	require.Equal(t, []int{3}, f["accidental"], "C sharp stands outside the key")
	require.Equal(t, []int{1}, f["hands.together"])
	require.Equal(t, []int{1}, f["hands.held-against-moving"])
	require.Equal(t, []int{3}, f["touch.staccato"])
	require.Empty(t, f["pickup"])
	require.Empty(t, f["hands.parallel"])
	require.Empty(t, f["range.beyond-five.right"], "G to D is five keys")
}

func TestDemandsCarrySkillsWeightsAndBars(t *testing.T) {
	bySkill := map[string]material.Demand{}
	for _, d := range table(t).Find(analysis.Of(parse(t), "piano")) {
		bySkill[d.Skill] = d
	}
	require.Equal(t, []int{1}, bySkill["held-against-moving"].Bars)
	require.Nil(t, bySkill["three-in-a-bar"].Bars, "the whole piece")
	require.Equal(t, "score", bySkill["accidentals"].Origin)
	require.NotContains(t, bySkill, "open-strings", "what bowed strings ask for is not asked of a piano")

	for _, d := range table(t).Find(analysis.Of(parse(t), "cello")) {
		require.NotContains(t, []string{"hands-together", "grand-staff", "right-hand"}, d.Skill)
	}
}

// In a song the piano is the student's: the voice above it asks nothing of the hands.
func TestAVoiceAboveThePianoAsksNothing(t *testing.T) {
	voice := `<part-list><score-part id="V"><part-name>Voice</part-name></score-part>`
	song := strings.Replace(twoStaves, "<part-list>", voice, 1)
	song = strings.Replace(
		song,
		`<part id="P1">`,
		`<part id="V"><measure number="1"><attributes><divisions>2</divisions><time><beats>3</beats><beat-type>4</beat-type></time></attributes>`+
			`<note><pitch><step>C</step><octave>5</octave></pitch><duration>1</duration></note><note><pitch><step>C</step><octave>6</octave></pitch><duration>5</duration></note></measure></part><part id="P1">`,
		1,
	)
	s, err := musicxml.Read([]byte(song))
	require.NoError(t, err)
	var hands []reading.Hand
	for _, l := range reading.Lines(s, true) {
		hands = append(hands, l.Hand)
	}
	require.Equal(t, []reading.Hand{reading.Whole, reading.Right, reading.Left}, hands)
	f := analysis.Of(s, "piano").Features()
	require.Empty(t, f["value.1/2"])
	require.Empty(t, f["move.wide"])
	require.Equal(t, []int{1}, f["hands.together"])
	require.NotEmpty(t, analysis.Of(s, "cello").Features()["move.wide"], "for a single part it would count")
}

func TestDescribe(t *testing.T) {
	m := table(t).Describe(material.Material{Title: "Mine", Instrument: "piano"}, analysis.Of(parse(t), "piano"))
	require.Equal(t, "Mine", m.Title)
	require.Equal(t, 3, m.DistinctBars)
	require.InDelta(t, 9, m.Quarters, 1e-9)
	require.Equal(t, material.Together, m.Texture)
}

func TestFaultyTablesAreRefused(t *testing.T) {
	skills, err := skill.Standard()
	require.NoError(t, err)
	for says, data := range map[string]string{
		"not in the catalogue": `[{"feature":"x","skill":"juggling","weight":1}]`,
		"weight":               `[{"feature":"x","skill":"rests","weight":0}]`,
		"demand table":         `{}`,
	} {
		_, err := Parse([]byte(data), skills)
		require.ErrorContains(t, err, says)
	}
}

// Every skill is found by a rule or is the teacher's to set, never both and never neither.
func TestEverySkillIsFoundOrSet(t *testing.T) {
	skills, err := skill.Standard()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(skills.All()), 120)
	families := map[skill.Family]int{}
	for _, s := range skills.All() {
		families[s.Family]++
		require.Equal(t, s.Set != "teacher", table(t).Finds(s.ID), s.ID)
	}
	require.GreaterOrEqual(t, len(families), 12)
}

// A few measures typed by hand, with what a teacher would find in them.
func TestDemandsOfSmallPieces(t *testing.T) {
	for tune, want := range map[string]string{
		"K:C\nV:1\n(3c/c/c/ (3c/c/c/ (3c/c/c/ (3c/c/c/|\nV:2 clef=bass\nC,/C,/ C,/C,/ C,/C,/ C,/C,/|": "two-against-three",
		"K:C\nCDEF|GABc|cBAG|FEDC|": "beyond-five",
		"K:C\n!1!CD!3!E!1!F|G4|":    "thumb-under",
		"K:C\nz/CDEz/|":             "off-beats",
		"K:C\n(CD) (EF)|":           "two-note-slurs",
		"K:C\n!p!CDEF|!ff!GGGG|":    "dynamics-contrast",
		"K:C\nC/G/E/G/ C/G/E/G/|":   "alberti-bass",
		"M:5/4\nK:C\nCDEFG|":        "uneven-metre",
		"K:C\nC/>D/ E/>F/|":         "dotted-eighth-notes",
		"K:C\nC D2 E|":              "weak-beat-accents",
		"K:C\nTCDEF|":               "trills",
		"K:C\na'b'c''d''|":          "many-ledger-lines",
		"K:C\n[Cc]4|":               "octave-chords",
		"K:C\n!ped!C4|!ped-up!D4|":  "pedal",
		"K:C\n\"^rit.\"CDEF|":       "slows-down",
	} {
		tunes, err := abc.Read([]byte("X:1\nM:4/4\nL:1/4\n" + tune))
		require.NoError(t, err)
		found := false
		for _, d := range table(t).Find(analysis.Of(tunes[0], "piano")) {
			found = found || d.Skill == want
		}
		require.True(t, found, "%s in %s", want, tune)
	}
}
