package wording

import (
	"cmp"
	"strconv"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/reading"
	"patientladder/core/wording/tongue"
)

// Card is a thing to do at home as it is said to a family.
type Card struct {
	// Title and Goals in the language of the family, where they ship with the program.
	Title string
	Goals []string
	// Kind names what is to be done; Where are the bars, empty for the whole; Book is the page.
	Kind, Where, Book string
	// Only is the hand that plays alone; empty for as written.
	Only string
	// Hands are parallel to those of the card.
	Hands []CardHand
	// Tempo says how fast; Say is the line that is said aloud, word by word.
	Tempo string
	Say   []SayLine
	// Parent and Child are what each is told; no parent where the student practises alone. Swap is the word at which
	// the hands change.
	Parent, Child, Swap string
	// Good is by what it is good enough, End when to stop.
	Good, End string
	// Gap says what is not here; More is what the teacher's page says beside it.
	Gap, More string
	// Cue is a word in large letters; empty for none.
	Cue string
	// Marks say the dynamics that stand in it: "p: soft".
	Marks string
}

// SayLine is what is said aloud of one hand until the other goes on; Hand is empty where there is only one.
type SayLine struct {
	Hand  string
	Words []string
}

// CardHand is where a hand begins, said.
type CardHand struct {
	// Hand, Finger and Key are the three things to know, one by one; any may be empty.
	Hand, Finger, Key string
	// Start says all three in one; Geo where the key lies; Moves that the hand moves on.
	Start, Geo, Moves string
}

// HomeCard says a thing to do at home.
func HomeCard(t tongue.Tongue, it week.Item, x inweek.Shown, m material.Material, words naming.Words, first string) Card {
	words = WordsAtHome(t, words)
	c := Card{
		Title: homeTitle(t, it),
		Kind:  t.Say("kind." + string(it.Kind)),
		Where: homeWhere(t, it, m),
		Book:  book(t, x.Page, m),
		Only:  homeHand(t, it.Hand),
		Say:   said(t, x.Say, words),
		Cue:   t.Shipped(x.Cue),
	}
	c.Marks = marksSaid(t, x.Card.Marks)
	for _, goal := range it.Goals {
		c.Goals = append(c.Goals, t.Shipped(goal))
	}
	if n := len(c.Say); x.More && n > 0 {
		c.Say[n-1].Words = append(c.Say[n-1].Words, "…")
	}
	if c.Only != "" {
		c.Only = Capital(t.Say("hand.only", "hand", c.Only))
	}
	player, _ := instrument.Of(m.Instrument)
	for _, h := range x.Hands {
		c.Hands = append(c.Hands, cardHand(t, h, player, words))
	}
	if x.Tempo.Beats > 0 {
		c.Tempo = Capital(t.Say("tempo."+string(x.Tempo.Feel), "n", strconv.Itoa(x.Tempo.Beats)))
	}
	goal := ""
	if len(c.Goals) > 0 {
		goal = strings.TrimSuffix(c.Goals[0], ".")
	}
	c.Good = t.Say("good."+string(x.Good), "n", strconv.Itoa(it.Times), "goal", goal)
	c.End = t.Say("end."+string(x.End), "minutes", HomeMinutes(it.Minutes))
	key := script(it, x, m)
	c.Parent, c.Child = t.Say("parent."+key, "name", first, "goal", goal), t.Say("child."+childScript(key), "name", first)
	switch own := words.Text(t.ShippedOf(it.Words, first)); {
	case it.Kind == week.Preview || it.Kind == week.Game: // their words are the studio's own
		c.Parent = own
	case t.ID == tongue.English && it.Kind == week.Look:
		c.More = own
	}
	if x.Swaps {
		c.Swap = t.Say("parent.swap", "name", first)
	}
	if x.Voice == athome.ToOne {
		if it.Kind == week.Preview || it.Kind == week.Game {
			c.Child = c.Parent
		}
		c.Parent, c.Swap = "", ""
	}
	if len(x.Gaps) > 0 && x.Gaps[0] == athome.NoScore && m.Exercise == "" {
		c.Gap = t.Say("gap.score")
		if c.Book != "" {
			c.Gap = t.Say("gap.book", "where", c.Book)
		}
	}
	return c
}

// marksSaid says dynamics in words; one that is not known says nothing.
func marksSaid(t tongue.Tongue, marks []string) string {
	var out []string
	for _, m := range marks {
		if said := t.Say("mark." + m); said != "" {
			out = append(out, said)
		}
	}
	return strings.Join(out, " · ")
}

// homeTitle is the title of a thing to do; that of a piece stays as it is printed.
func homeTitle(t tongue.Tongue, it week.Item) string {
	if it.Kind == week.Preview || it.Kind == week.Game {
		return t.Shipped(it.Title)
	}
	return it.Title
}

// WordsAtHome are the words of a studio as a family reads them: notes are named as readers of its language expect, unless the studio
// chose other names than letters.
func WordsAtHome(t tongue.Tongue, words naming.Words) naming.Words {
	if usual := naming.Notes(t.Say("notes")); usual != "" && (words.Notes == "" || words.Notes == naming.Letters) {
		words.Notes = usual
	}
	return words
}

// script names the text of a thing to do: by what it is and how the student reads.
func script(it week.Item, x inweek.Shown, m material.Material) string {
	switch it.Kind {
	case week.Again:
		if it.Purpose != "" {
			return "again." + string(it.Purpose)
		}
	case week.Review:
		switch {
		case m.Exercise != "":
			return "review.drill"
		case it.Purpose == week.Cleared:
			return "review.cleared"
		}
	case week.Look, week.Chunk:
		if len(x.Say) == 0 {
			return string(it.Kind) + ".old"
		}
	case week.Whole, week.Drilled:
		switch {
		case x.Good == athome.AsARun:
			return "run"
		case it.Kind == week.Whole && x.Piece == nil:
			return "whole.plain"
		case it.Kind == week.Drilled && len(it.Goals) == 0:
			return "drill.plain"
		}
	}
	return string(it.Kind)
}

// childScript is the same for the child, to whom some are said alike.
func childScript(key string) string {
	if key == "whole.plain" || key == "drill.plain" {
		return strings.TrimSuffix(key, ".plain")
	}
	return key
}

// HomeMinutes writes minutes with a half where there is one: "2.5".
func HomeMinutes(m float64) string {
	return strings.TrimSuffix(strconv.FormatFloat(m, 'f', 1, 64), ".0")
}

// homeHand names a hand as a week names it.
func homeHand(t tongue.Tongue, hand string) string {
	if h, _, ok := strings.Cut(hand, " "); ok {
		return t.Say("hand." + h)
	}
	return ""
}

// homeWhere says the bars; empty for the whole.
func homeWhere(t tongue.Tongue, it week.Item, m material.Material) string {
	if section := it.Kind == week.Chunk || it.Kind == week.Join; section && it.Bars.From == 0 {
		return t.Say("where.in-book." + string(it.Kind))
	}
	if it.Kind == week.Drilled || it.Bars.From == 0 || it.Bars.From <= 1 && it.Bars.To >= m.Bars {
		return ""
	}
	key := "where.bars"
	if it.Bars.From == it.Bars.To {
		key = "where.bar"
	}
	out := t.Say(key, "from", m.BarLabel(it.Bars.From), "to", m.BarLabel(it.Bars.To))
	if it.Bars.Upbeat {
		out = t.Say("where.upbeat", "bars", out)
	}
	return out
}

// book says where the notes stand on paper.
func book(t tongue.Tongue, page int, m material.Material) string {
	switch {
	case page <= 0:
		return ""
	case m.Source == "":
		return Capital(t.Say("where.page", "page", strconv.Itoa(page)))
	}
	return Capital(t.Say("where.book", "page", strconv.Itoa(page), "book", m.Source))
}

// cardHand says where a hand begins.
func cardHand(t tongue.Tongue, h athome.Hand, player instrument.Instrument, words naming.Words) CardHand {
	var out CardHand
	var keys []string
	for _, k := range h.Keys {
		keys = append(keys, homePitch(t, k, words))
	}
	out.Key = t.List(keys)
	if h.Finger > 0 {
		out.Finger = t.Say("finger", "n", strconv.Itoa(h.Finger))
	}
	if h.Moves {
		out.Moves = t.Say("moves")
	}
	first := firstTouch(h)
	switch {
	case h.Hand == reading.Either:
		return out
	case h.Hand != reading.Whole:
		out.Hand = Capital(t.Say("hand." + string(h.Hand)))
		out.Geo = t.Say("geo." + strconv.Itoa(((first.MIDI%12)+12)%12))
		if where := fromMiddle(t, first.MIDI, words); where != "" {
			out.Geo += ", " + where
		}
		out.Start = t.Say("start.keys.plain", "hand", out.Hand, "key", out.Key)
		if out.Finger != "" {
			out.Start = t.Say("start.keys", "hand", out.Hand, "finger", out.Finger, "key", out.Key)
		}
		if len(keys) > 1 && h.Finger > 0 {
			out.Start = t.Say("start.keys.plain", "hand", out.Hand, "key", out.Key) + "; " + t.Say("start.chord", "n", strconv.Itoa(h.Finger))
		}
	case h.Chord != "":
		out.Hand, out.Start = Capital(t.Say("hand.part")), t.Say("start.shape", "chord", h.Chord)
		out.Key = h.Chord
	case h.String > 0 && h.String <= len(player.Open):
		str := t.Say("string", "note", words.Note(player.Open[h.String-1].Name()))
		out.Hand = Capital(t.Say("hand.part"))
		switch {
		case h.Finger == 0:
			out.Hand, out.Finger, out.Start = "", t.Say("finger.open"), t.Say("start.open", "string", str)
		case h.Finger > 0 && player.Family == instrument.Plucked:
			out.Start = t.Say("start.fret", "finger", out.Finger, "string", str, "fret", strconv.Itoa(first.Above))
			out.Geo = t.Say("fret", "n", strconv.Itoa(first.Above))
		case h.Finger > 0:
			out.Start = t.Say("start.string", "finger", out.Finger, "string", str)
		}
		out.Key = str
		out.Start = Capital(out.Start)
	default:
		out.Start = Capital(t.Say("start.note", "key", out.Key))
	}
	return out
}

// middleC is the key from which places on a keyboard are counted.
const middleC = 60

// fromMiddle says on which side of middle C a key lies, and how many octaves further; empty for middle C itself.
func fromMiddle(t tongue.Tongue, midi int, words naming.Words) string {
	side, octaves := "right", (midi-middleC)/12
	switch {
	case midi == middleC:
		return ""
	case midi < middleC:
		side, octaves = "left", (middleC-midi-1)/12
	}
	c := MiddleC(t, words)
	switch octaves {
	case 0:
		return t.Say("octave."+side, "middle", c)
	case 1:
		return t.Say("octave."+side+".one", "middle", c)
	}
	return t.Say("octave."+side+".more", "middle", c, "n", t.Number(octaves))
}

// MiddleC names the key in the middle of a keyboard.
func MiddleC(t tongue.Tongue, words naming.Words) string {
	return t.Say("middle", "note", words.Note("C"))
}

// firstTouch is the touch on the outside of the hand with which it begins.
func firstTouch(h athome.Hand) athome.Touch {
	var out athome.Touch
	for _, x := range h.Touches {
		if x.First && (out.Pitch == "" || h.Hand != reading.Left) {
			out = x
		}
	}
	return out
}

// homePitch names a pitch for somebody at the instrument: the C in the middle is called so.
func homePitch(t tongue.Tongue, pitch string, words naming.Words) string {
	if pitch == "C4" {
		return MiddleC(t, words)
	}
	return words.Key(strings.TrimRight(pitch, "-0123456789"))
}

// said are the lines that are said aloud.
func said(t tongue.Tongue, lines []athome.SayLine, words naming.Words) (out []SayLine) {
	for _, l := range lines {
		x := SayLine{Words: saidWords(t, l.Words, words)}
		if len(lines) > 1 && l.Hand != reading.Whole {
			x.Hand = Capital(t.Say("hand." + string(l.Hand)))
		}
		out = append(out, x)
	}
	return out
}

func saidWords(t tongue.Tongue, list []athome.Say, words naming.Words) (out []string) {
	for _, x := range list {
		switch {
		case x.Rest:
			out = append(out, t.Say("say.rest"))
		case x.Start:
			out = append(out, homePitch(t, x.Pitch, words))
		case x.Pitch != "":
			out = append(out, words.Key(strings.TrimRight(x.Pitch, "-0123456789")))
		case x.Finger >= 0:
			out = append(out, strconv.Itoa(x.Finger))
		case x.Kind == "" || x.Kind == reading.Stay:
			out = append(out, t.Say("say."+string(x.Direction)))
		default:
			out = append(out, t.Say("say."+words.Kind(x.Kind), "direction", t.Say("say."+string(x.Direction))))
		}
	}
	return out
}

// LeftOut names something that found no place in a week.
func LeftOut(t tongue.Tongue, it week.Item, m material.Material) string {
	return strings.TrimSpace("“" + homeTitle(t, it) + "” " + homeWhere(t, it, m))
}

// CalendarLine says a thing to do in one line of a calendar: what, where, with which hand, how often.
func CalendarLine(t tongue.Tongue, it week.Item, m material.Material) string {
	line := t.Say("kind."+string(it.Kind)) + ": " + homeTitle(t, it)
	if where := homeWhere(t, it, m); where != "" {
		line += ", " + where
	}
	if hand := homeHand(t, it.Hand); hand != "" {
		line += ", " + t.Say("hand.only", "hand", hand)
	}
	if it.Times > 1 {
		line += ", " + strconv.Itoa(it.Times) + " ×"
	}
	return line
}

// CalendarDay says what is set for a day in the lines of a calendar's entry: what to attend to first, then each thing.
func CalendarDay(t tongue.Tongue, d week.Day, lib material.Library) string {
	var lines []string
	if d.Focus != "" {
		lines = append(lines, t.Say("sheet.focus", "focus", d.Focus))
	}
	for _, it := range d.Items {
		lines = append(lines, CalendarLine(t, it, lib[it.Material]))
	}
	return strings.Join(lines, "\n")
}

// Plain is what stands on paper where there is no picture: what the parent is told, else the child, with the page of the book
// where a piece is played.
func (c Card) Plain(kind week.Kind) string {
	words := cmp.Or(c.Parent, c.Child)
	if kind != week.Listen && kind != week.Game && kind != week.Preview {
		words = strings.TrimSpace(c.Book + " " + words)
	}
	return words
}
