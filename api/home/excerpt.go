package home

import (
	"context"
	"fmt"
	"strings"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
	"patientladder/core/reading/reading"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
)

// phoneWidth is how wide an excerpt is in staff spaces before it goes on in a second system.
const phoneWidth = 34.0

// excerpts draws the bars of items; each score is read once.
type excerpts struct {
	student open.Student
	read    inweek.Read
	width   float64
	// music is what can be played, by its key, and the order in which it comes.
	music map[string]inweek.Shown
	order []string
	// drawn are the notes that were drawn, by their key, and seen in the order in which they come.
	drawn map[string]bool
	seen  []contract.Excerpt
}

func (h *Handlers) excerpts(ctx context.Context, s open.Student, width float64) *excerpts {
	return &excerpts{student: s, read: h.Reader(ctx, s.Tenant), width: width, music: map[string]inweek.Shown{}, drawn: map[string]bool{}}
}

// shown is the card of an item, with its score among what can be played.
func (e *excerpts) shown(it week.Item) (inweek.Shown, error) {
	x, err := inweek.Show(e.student.Student, it, e.read)
	if _, there := e.music[x.Music]; !there && x.Heard() {
		e.music[x.Music] = x
		e.order = append(e.order, x.Music)
	}
	return x, err
}

func (e *excerpts) familyItem(it week.Item, t tongue.Tongue) (contract.FamilyItem, error) {
	x, err := e.shown(it)
	if err != nil {
		return contract.FamilyItem{}, err
	}
	said := e.said(t, it, x)
	out := contract.FamilyItem{
		Key: it.Key, Kind: contract.FamilyItemKind(it.Kind), Material: it.Material, Title: said.Title, Hand: it.Hand, Times: it.Times,
		InRow: it.InRow, Minutes: it.Minutes,
		Goals: append([]string{}, said.Goals...), Staves: []int{}, Music: x.Music, Beats: x.Card.Tempo.Beats, Quarters: x.Card.Tempo.Quarters,
		Signs: []contract.HomeSign{},
		Card:  e.card(t, said, x), CanBeFirst: inweek.CanBeFirst(e.student.Student, it),
	}
	out.Excerpt = excerpt(it, x)
	if x.Heard() {
		out.Start, out.End = x.From, x.To
	}
	for _, staff := range x.Staves(it) {
		out.Staves = append(out.Staves, answer.PlacesOf(x.Piece.Score).Staff(staff.Part, staff.Number))
	}
	for _, sign := range x.Card.Signs {
		out.Signs = append(out.Signs, contract.HomeSign{At: sign.At, Direction: contract.HomeSignDirection(sign.Direction), Staff: sign.Staff})
	}
	return out, nil
}

// excerpt names the notes of an item; empty for none.
func excerpt(it week.Item, x inweek.Shown) string {
	if x.Piece == nil || len(x.Piece.Score.Bars) == 0 {
		return ""
	}
	from, to := x.Seen(it)
	return fmt.Sprintf("%s %g-%g %s", x.Music, from, to, it.Hand)
}

// draw draws the notes of an item where they are not drawn already.
func (e *excerpts) draw(it week.Item, x inweek.Shown) {
	key := excerpt(it, x)
	if key == "" || e.drawn[key] {
		return
	}
	if d, ok := x.Drawn(it, e.student.OnInstrument(), e.width); ok {
		e.drawn[key] = true
		e.seen = append(e.seen, answer.Excerpt(key, d))
	}
}

// said is a thing to do in words.
func (e *excerpts) said(t tongue.Tongue, it week.Item, x inweek.Shown) wording.Card {
	m := e.student.Library[it.Material]
	if m.ID == "" {
		m.Instrument = e.student.Instrument
	}
	return wording.HomeCard(t, it, x, m, e.student.Words, e.student.First())
}

// card is a card with its words.
func (e *excerpts) card(t tongue.Tongue, c wording.Card, x inweek.Shown) contract.HomeCard {
	words := wording.WordsAtHome(t, e.student.Words)
	out := contract.HomeCard{
		Kind: c.Kind, Where: c.Where, Book: c.Book, Only: c.Only, Hands: []contract.HomeHand{}, Tempo: c.Tempo, Say: []contract.HomeSay{},
		Parent: c.Parent, Child: c.Child, Swap: c.Swap, Good: c.Good, End: c.End, Gap: c.Gap, More: c.More, Cue: c.Cue, Marks: c.Marks,
	}
	for _, l := range c.Say {
		out.Say = append(out.Say, contract.HomeSay{Hand: l.Hand, Words: l.Words})
	}
	player := e.student.OnInstrument()
	for i, h := range x.Card.Hands {
		w := c.Hands[i]
		hand := contract.HomeHand{
			Hand:    w.Hand,
			Finger:  w.Finger,
			Key:     w.Key,
			Start:   w.Start,
			Geo:     w.Geo,
			Moves:   w.Moves,
			Middle:  wording.MiddleC(t, words),
			Side:    string(h.Hand),
			Touches: []contract.HomeTouch{},
			Strings: []string{},
		}
		if h.Hand == reading.Whole {
			hand.Frets = player.Fretted()
			for _, open := range player.Open {
				hand.Strings = append(hand.Strings, words.Note(open.Name()))
			}
		}
		for _, k := range h.Touches {
			hand.Touches = append(
				hand.Touches,
				contract.HomeTouch{
					Midi:   k.MIDI,
					Name:   words.Key(strings.TrimRight(k.Pitch, "-0123456789")),
					Finger: k.Finger,
					String: k.String,
					Above:  k.Above,
					First:  k.First,
				},
			)
		}
		out.Hands = append(out.Hands, hand)
	}
	return out
}

// gameTempo is how fast the beats and notes of a game are.
const gameTempo = 60

// music is what a device needs to play a piece.
func music(key string, x inweek.Shown) contract.FamilyMusic {
	out := contract.FamilyMusic{Key: key, Tempo: x.Pace, Sounds: []contract.SoundNote{}, Beats: []contract.MusicBeat{}}
	if out.Tempo <= 0 {
		out.Tempo = 80
	}
	if x.Piece == nil { // a game
		out.Tempo = gameTempo
		for i, midi := range x.Sound {
			out.Sounds = append(out.Sounds, contract.SoundNote{At: float64(i), Length: 1, Midi: midi, Bar: 1})
		}
		for i := range x.Beats {
			out.Beats = append(out.Beats, contract.MusicBeat{At: float64(i), First: i%4 == 0})
		}
		return out
	}
	return answer.Music(key, x.Piece.Score, out.Tempo)
}
