package wording

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/reading"
	"patientladder/core/wording/tongue"
)

func shown(c athome.Card) inweek.Shown {
	return inweek.Shown{Card: c, Piece: &analysis.Piece{}}
}

// What each is told follows from what is to be done, how the child reads, and who listens.
func TestWhatIsSaidOfEachThing(t *testing.T) {
	en := tongue.Of("en")
	m := material.Material{ID: "m", Title: "Fog", Source: "Harbour Steps", Instrument: "piano", Bars: 8}
	say := func(it week.Item, c athome.Card) Card {
		return HomeCard(en, it, shown(c), m, naming.Words{}, "Nell")
	}
	up := []athome.SayLine{{Hand: reading.Right, Words: []athome.Say{{Start: true, Pitch: "C4", Finger: 1}, {Direction: reading.Up, Finger: -1}, {Rest: true, Finger: -1}, {Direction: reading.Same, Finger: -1}}}}
	for want, got := range map[[2]string]Card{
		{"Say the line together first. Then Nell plays it.", "Say it. Put the finger in its place. Play it slowly."}:                                     say(week.Item{Kind: week.Chunk}, athome.Card{Say: up}),
		{"Ask for the hand, the finger and the first note before it sounds.", "Find the place first, then play it slowly."}:                              say(week.Item{Kind: week.Chunk}, athome.Card{}),
		{"Play nothing yet. Ask Nell where it begins, where it rises and what comes back.", "Find the first note and what comes back. Do not play yet."}: say(week.Item{Kind: week.Look}, athome.Card{}),
		{"Listen to the end and say nothing until then, as at a concert.", "From start to end without a stop, as for a run."}:                            say(week.Item{Kind: week.Whole}, athome.Card{Good: athome.AsARun}),
		{"Read the first goal aloud: “quiet thumbs”. Watch for that alone.", "Slowly and evenly. No faster until it is even."}:                           say(week.Item{Kind: week.Drilled, Goals: []string{"quiet thumbs.", "even"}}, athome.Card{Good: athome.Goal}),
		{"Watch one thing: is it even?", "Slowly and evenly. No faster until it is even."}:                                                               say(week.Item{Kind: week.Drilled}, athome.Card{Good: athome.Even}),
		{"walk it, then clap it", "Show how it goes."}:                                                                                                   say(week.Item{Kind: week.Preview, Words: "walk it, then clap it"}, athome.Card{}),
		{"This was hard last week. Slower than feels right, and stop while it goes well.", "Very slowly. Stop while it is still easy."}:                  say(week.Item{Kind: week.Again, Purpose: week.OnceHard}, athome.Card{}),
		{"This goes already. Once more, so that it stays.", "You know this one. Play it once more, so that it stays."}:                                   say(week.Item{Kind: week.Again, Purpose: week.Kept}, athome.Card{}),
		{"Let it run as far as Nell knows it. Nothing is mended on the way.", "From the beginning as far as you know it, without a stop."}:               say(week.Item{Kind: week.Again, Purpose: week.SoFar}, athome.Card{}),
		{"This was learned a short while ago. Sit back and listen.", "You learned this a short while ago. Play it once, so that it stays."}:              say(week.Item{Kind: week.Review, Purpose: week.Cleared}, athome.Card{}),
		{"", "walk it, then clap it"}:                   say(week.Item{Kind: week.Preview, Words: "walk it, then clap it"}, athome.Card{Voice: athome.ToOne}),
		{"", "Play it for pleasure, once, to the end."}: say(week.Item{Kind: week.Review}, athome.Card{Voice: athome.ToOne}),
	} {
		require.Equal(t, want, [2]string{got.Parent, got.Child})
	}
	require.Equal(t, []SayLine{{Words: []string{"middle C", "up", "rest", "same"}}}, say(week.Item{Kind: week.Look}, athome.Card{Say: up}).Say)
	turns := append(up, athome.SayLine{Hand: reading.Left, Words: []athome.Say{{Pitch: "G3", Finger: -1}}})
	require.Equal(
		t,
		[]SayLine{{"Right hand", []string{"middle C", "up", "rest", "same"}}, {"Left hand", []string{"G", "…"}}},
		say(week.Item{Kind: week.Look}, athome.Card{Say: turns, More: true}).Say,
	)
	c := say(
		week.Item{Kind: week.Chunk, Hand: "left hand", Times: 3, InRow: true, Minutes: 2.5, Bars: week.Bars{From: 3, To: 4, Upbeat: true}},
		athome.Card{Good: athome.InRow, End: athome.Boxes, Page: 7, Swaps: true, Tempo: athome.Tempo{Beats: 48, Feel: athome.Slow}},
	)
	require.Equal(
		t,
		[]string{
			"Short section",
			"bars 3–4 with the upbeat",
			"Page 7 of “Harbour Steps”",
			"Left hand only",
			"Slowly, like strolling (48)",
			"3 times right in a row",
			"Just before the other hand begins, say “boat”; Nell changes hands.",
		},
		[]string{c.Kind, c.Where, c.Book, c.Only, c.Tempo, c.Good, c.Swap},
	)
	require.Equal(
		t,
		"Stop after about 2.5 min, sooner when tired.",
		say(week.Item{Kind: week.Game, Minutes: 2.5}, athome.Card{End: athome.Time}).End,
	)
	plain := HomeCard(
		en,
		week.Item{Kind: week.Whole},
		inweek.Shown{Card: athome.Card{Gaps: []athome.Gap{athome.NoScore}}},
		m,
		naming.Words{},
		"Nell",
	)
	require.Equal(
		t,
		[]string{"There are no notes of this here; they are in the book.", "The notes are in the book. Listen for evenness, not for speed."},
		[]string{plain.Gap, plain.Parent},
	)
}

// Where a hand begins: hand, finger and key one by one, and where the key lies among the groups of black ones; on strings
// the string, the place and the fret.
func TestWhereAHandBegins(t *testing.T) {
	begin := func(player string, h athome.Hand) CardHand {
		return HomeCard(tongue.Of("en"), week.Item{Kind: week.Chunk}, shown(athome.Card{Hands: []athome.Hand{h}}), material.Material{Instrument: player}, naming.Words{}, "Nell").Hands[0]
	}
	touch := func(pitch string, midi, finger, str, above int) []athome.Touch {
		return []athome.Touch{{Pitch: pitch, MIDI: midi, Finger: finger, String: str, Above: above, First: true}}
	}
	require.Equal(
		t,
		CardHand{"Right hand", "finger 3", "F♯", "Right hand: finger 3 on F♯", "the left one of three black keys, right of middle C", ""},
		begin("piano", athome.Hand{Hand: reading.Right, Finger: 3, Keys: []string{"F#4"}, Touches: touch("F#4", 66, 3, 0, 0)}),
	)
	require.Equal(
		t,
		CardHand{"Left hand", "", "middle C", "Left hand on middle C", "the white key just left of two black keys", "The hand moves on the way."},
		begin("piano", athome.Hand{Hand: reading.Left, Finger: -1, Moves: true, Keys: []string{"C4"}, Touches: touch("C4", 60, -1, 0, 0)}),
	)
	chord := athome.Hand{
		Hand:   reading.Left,
		Finger: 5,
		Keys:   []string{"C3", "E3", "G3"},
		Touches: []athome.Touch{
			{Pitch: "C3", MIDI: 48, Finger: 5, First: true},
			{Pitch: "E3", MIDI: 52, Finger: 3, First: true},
			{Pitch: "G3", MIDI: 55, Finger: 1, First: true},
		},
	}
	require.Equal(
		t,
		[]string{"Left hand on C, E and G; the outer finger is 5", "the white key just left of two black keys, left of middle C"},
		[]string{begin("piano", chord).Start, begin("piano", chord).Geo},
	)
	require.Equal(
		t,
		CardHand{"Left hand", "finger 1", "D string", "Finger 1 on the D string", "", ""},
		begin("cello", athome.Hand{Hand: reading.Whole, Finger: 1, String: 2, Keys: []string{"E3"}, Touches: touch("E3", 52, 1, 2, 2)}),
	)
	require.Equal(
		t,
		CardHand{"", "open string", "D string", "The open D string, no finger", "", ""},
		begin("cello", athome.Hand{Hand: reading.Whole, Finger: 0, String: 2, Keys: []string{"D3"}, Touches: touch("D3", 50, 0, 2, 0)}),
	)
	require.Equal(
		t,
		CardHand{"Left hand", "finger 3", "A string", "Finger 3 on the A string, fret 3", "fret 3", ""},
		begin("ukulele", athome.Hand{Hand: reading.Whole, Finger: 3, String: 1, Keys: []string{"C5"}, Touches: touch("C5", 72, 3, 1, 3)}),
	)
	require.Equal(
		t,
		"It begins on E",
		begin("piano", athome.Hand{Hand: reading.Whole, Finger: -1, Keys: []string{"E4"}, Touches: touch("E4", 64, -1, 0, 0)}).Start,
	)
	// Each key of an octave has a place among the black ones (facts of the keyboard).
	var geo []string
	for midi := 60; midi < 72; midi++ {
		among, _, _ := strings.Cut(
			begin("piano", athome.Hand{Hand: reading.Right, Finger: 1, Keys: []string{"C4"}, Touches: touch("C4", midi, 1, 0, 0)}).Geo, ",",
		)
		geo = append(geo, among)
	}
	require.Equal(t, []string{
		"the white key just left of two black keys", "the left one of two black keys", "the white key between two black keys",
		"the right one of two black keys", "the white key just right of two black keys",
		"the white key just left of three black keys", "the left one of three black keys", "the left white key among three black keys",
		"the middle one of three black keys", "the right white key among three black keys",
		"the right one of three black keys", "the white key just right of three black keys",
	}, geo)
}

func TestADayInACalendar(t *testing.T) {
	en := tongue.Of(tongue.English)
	lib := material.Library{"m": {ID: "m", Title: "Fog"}}
	d := week.Day{
		Focus: "loose wrist",
		Items: []week.Item{{Kind: week.Whole, Material: "m", Title: "Fog"}, {Kind: week.Hear, Material: "m", Title: "Fog", Times: 2}},
	}
	require.Equal(t, "Listen for: loose wrist\nAll the way through: Fog\nListen and sing: Fog, 2 ×", CalendarDay(en, d, lib))
	d.Focus = ""
	require.Equal(t, "All the way through: Fog\nListen and sing: Fog, 2 ×", CalendarDay(en, d, lib))
	require.Empty(t, CalendarDay(en, week.Day{}, lib))
}

func TestACardInWordsAlone(t *testing.T) {
	c := Card{Parent: "Sit beside her.", Child: "Play it.", Book: "Page 4."}
	require.Equal(t, "Page 4. Sit beside her.", c.Plain(week.Whole))
	for _, kind := range []week.Kind{week.Listen, week.Game, week.Preview} {
		require.Equal(t, "Sit beside her.", c.Plain(kind), kind)
	}
	c.Parent = ""
	require.Equal(t, "Page 4. Play it.", c.Plain(week.Whole))
	c.Book = ""
	require.Equal(t, "Play it.", c.Plain(week.Whole))
}

// Where a key lies is said from the middle: the same C stands at six places of a keyboard.
func TestWhichOctave(t *testing.T) {
	en, de := tongue.Of("en"), tongue.Of("de")
	for midi, want := range map[int]string{
		60: "", 61: "right of middle C", 71: "right of middle C", 72: "right of middle C, one octave further", 59: "left of middle C",
		48: "left of middle C", 47: "left of middle C, one octave further", 36: "left of middle C, one octave further",
		24: "left of middle C, two octaves further", 96: "right of middle C, three octaves further",
	} {
		require.Equal(t, want, fromMiddle(en, midi, naming.Words{}), midi)
	}
	require.Equal(t, "links vom C in der Mitte, zwei Oktaven weiter", fromMiddle(de, 24, naming.Words{}))
}

// What is watched at home ends as a sentence, in the language of the family; a question stays one.
func TestWhatIsWatched(t *testing.T) {
	en, de := tongue.Of("en"), tongue.Of("de")
	w := week.Watch{Text: "sits too close", Home: "listen with closed eyes: can you tell which finger plays?"}
	require.Equal(t, "One thing to watch: sits too close. Listen with closed eyes: can you tell which finger plays?", Watched(en, &w))
	w.Home = "Before playing: move to the front half of the bench."
	require.Equal(t, "One thing to watch: sits too close. Before playing: move to the front half of the bench.", Watched(en, &w))
	require.Contains(t, Watched(de, &w), "sitzt zu nah")
	require.Equal(t, "", Watched(en, nil))
}
