package api

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/notation/engrave"
	"patientladder/core/notation/score"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// GetFamilyPage returns what a family sees: the published week, how it sounds,
// and the way so far. Of the child it holds a first name and nothing else.
func (s *Server) GetFamilyPage(ctx context.Context, r contract.GetFamilyPageRequestObject) (contract.GetFamilyPageResponseObject, error) {
	f, sh, err := s.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	teacher, err := s.store.StudioTeacher(ctx, f.Studio)
	if err != nil {
		return nil, err
	}
	w, err := s.currentWeek(ctx, sh)
	if err != nil {
		return nil, err
	}
	first, _, _ := strings.Cut(sh.ladder.Name, " ")
	out := contract.FamilyPage{
		Name: first, Teacher: teacher.Name, Studio: sh.studio.Name, Today: date(sh.today), Start: date(w.Start), Days: []contract.FamilyDay{}, NotYet: []string{},
		Caution: caution, Music: []contract.FamilyMusic{}, Ticks: sh.ticks(), Path: sh.path(), Expires: date(f.Expires),
	}
	out.Sentence = sh.familySentence(w)
	if w.Published == nil {
		return contract.GetFamilyPage200JSONResponse(out), nil
	}
	out.NotYet, out.Dose, out.Words = append(out.NotYet, w.Published.NotYet...), w.Published.Dose, w.Hand.Words
	e := newExcerpts(s, sh, phoneWidth)
	for _, d := range w.Published.Days {
		day := contract.FamilyDay{Date: date(d.Date), Rest: d.Rest, Focus: d.Focus, Items: []contract.FamilyItem{}}
		for _, it := range d.Items {
			item, err := e.familyItem(ctx, it)
			if err != nil {
				return nil, err
			}
			day.Items = append(day.Items, item)
		}
		out.Days = append(out.Days, day)
	}
	for _, id := range e.order {
		if o := e.read[id]; o != nil {
			out.Music = append(out.Music, music(sh.lib[id], o.Score))
		}
	}
	return contract.GetFamilyPage200JSONResponse(out), nil
}

// currentWeek is the published week that holds today, else the last one that began, else the next.
func (s *Server) currentWeek(ctx context.Context, sh shelf) (store.PracticeWeek, error) {
	weeks, err := s.store.PublishedWeeks(ctx, sh.studio.ID, sh.ladder.ID, sh.today.AddDate(0, 0, -6*weekplan.Days))
	if err != nil || len(weeks) == 0 {
		return store.PracticeWeek{}, err
	}
	best := weeks[0]
	for _, w := range weeks {
		if !w.Start.After(sh.today) {
			best = w
		}
	}
	full, err := s.store.PracticeWeek(ctx, sh.studio.ID, sh.ladder.ID, best.Start)
	return full, err
}

func (sh shelf) familySentence(w store.PracticeWeek) string {
	next := sh.today.AddDate(0, 0, (int(sh.ladder.Weekday)-int(sh.today.Weekday())+7)%7)
	lesson := "the next lesson is on " + next.Format("Monday")
	if next.Equal(sh.today) {
		lesson = "today is the lesson"
	}
	if w.Published == nil {
		return "Nothing is set yet; " + lesson + "."
	}
	for _, d := range w.Published.Days {
		if !d.Date.Equal(sh.today) {
			continue
		}
		if d.Rest || len(d.Items) == 0 {
			if next.Equal(sh.today) {
				return "Today is the lesson; practice rests."
			}
			return "Today is a day of rest; " + lesson + "."
		}
		return fmt.Sprintf("Today %s, about %.0f minutes.", counted(len(d.Items), "thing"), d.Minutes)
	}
	if w.Start.After(sh.today) {
		return "The new week begins on " + w.Start.Format("Monday") + "."
	}
	return "This week is over; " + lesson + "."
}

// ticks are what was reported from home.
func (sh shelf) ticks() []contract.FamilyTick {
	out := []contract.FamilyTick{}
	for _, h := range sh.standing.Home {
		if !h.FromHome {
			continue
		}
		t := contract.FamilyTick{Id: h.ID, At: h.At, Kind: contract.FamilyTickKindDone, Item: h.Item, Times: h.Times, Felt: contract.Felt(h.Felt)}
		if h.Sign != "" {
			t.Kind, t.Day = contract.FamilyTickKindFirst, date(sh.day(h.At))
			t.Item = h.Material
		} else if day, err := time.Parse(time.DateOnly, h.Day); err == nil {
			t.Day = date(day)
		}
		out = append(out, t)
	}
	return out
}

// path is the way so far: what was cleared, in its order, then what is being learned.
func (sh shelf) path() []contractStep {
	out := []contractStep{}
	learned := sh.standing.In(standing.Cleared, standing.Polished)
	slices.SortFunc(learned, func(a, b string) int {
		return sh.standing.Materials[a].ClearedAt.Compare(sh.standing.Materials[b].ClearedAt)
	})
	for _, id := range learned {
		out = append(out, contractStep{State: contract.FamilyPagePathStateLearned, Title: sh.lib[id].Title, Words: "learned in " + sh.day(sh.standing.Materials[id].ClearedAt).Format("January 2006")})
	}
	for _, id := range sh.in(standing.Working) {
		ms := sh.standing.Materials[id]
		words := "just begun"
		if ms.Points > 0 {
			words = fmt.Sprintf("%s of %s have their mark", numbered(ms.Full), counted(ms.Points, "point"))
		}
		out = append(out, contractStep{State: contract.FamilyPagePathStateWorking, Title: sh.lib[id].Title, Words: words})
	}
	return out
}

// numbered writes "none", "one", "three", "40".
func numbered(n int) string {
	if n == 0 {
		return "none"
	}
	word, _, _ := strings.Cut(counted(n, ""), " ")
	return word
}

type contractStep = struct {
	State contract.FamilyPagePathState `json:"state"`
	Title string                       `json:"title"`
	Words string                       `json:"words"`
}

// Widths of excerpts in staff spaces before they go on in a second system, and
// how many bars are drawn at the most.
const (
	phoneWidth  = 34.0
	excerptBars = 8
)

// excerpts draws the bars of items; each score is read once.
type excerpts struct {
	server *Server
	shelf  shelf
	width  float64
	read   map[string]*opened
	order  []string
}

func newExcerpts(s *Server, sh shelf, width float64) *excerpts {
	return &excerpts{server: s, shelf: sh, width: width, read: map[string]*opened{}}
}

// open reads the score of a material; nil without one.
func (e *excerpts) open(ctx context.Context, id string) (*opened, error) {
	if o, done := e.read[id]; done {
		return o, nil
	}
	m, known := e.shelf.lib[id]
	if !known {
		return nil, nil
	}
	o, err := e.server.read(ctx, e.shelf.studio.ID, m)
	if err != nil {
		return nil, err
	}
	e.read[id] = o
	e.order = append(e.order, id)
	return o, nil
}

// staves are those that a hand plays, counted from 1; nil for all.
func staves(s *score.Score, hand string) []engrave.Staff {
	all := engrave.Staves(s)
	if len(all) < 2 || hand == "" {
		return nil
	}
	if strings.HasPrefix(hand, "left") {
		return all[1:]
	}
	return all[:1]
}

// draw draws the bars of an item; nil where there is nothing to draw, or too much.
func (e *excerpts) draw(ctx context.Context, it weekplan.Item) (*engrave.Drawing, *opened, error) {
	o, err := e.open(ctx, it.Material)
	if err != nil || o == nil || it.End <= it.Start {
		return nil, o, err
	}
	switch it.Kind {
	case weekplan.Review, weekplan.Listen, weekplan.Whole:
		return nil, o, nil
	}
	end := it.End
	if it.Kind == weekplan.Look { // where it begins is enough
		if last := min(4, len(o.Score.Bars)); last > 0 {
			b := o.Score.Bars[last-1]
			end = min(end, b.Start.Float()+b.Length.Float())
		}
	} else if it.Bars.To-it.Bars.From >= excerptBars {
		return nil, o, nil
	}
	d := engrave.Stretch(o.Score, it.Start, end, staves(o.Score, it.Hand), e.width)
	if d.Width == 0 {
		return nil, o, nil
	}
	return &d, o, nil
}

func (e *excerpts) familyItem(ctx context.Context, it weekplan.Item) (contract.FamilyItem, error) {
	words := e.shelf.studio.Words.Text(it.Words)
	out := contract.FamilyItem{
		Key: it.Key, Kind: contract.FamilyItemKind(it.Kind), Material: it.Material, Title: it.Title, Where: whereItem(e.shelf.lib, it), Hand: it.Hand,
		Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: words, Hands: []int{},
	}
	d, o, err := e.draw(ctx, it)
	if err != nil {
		return out, err
	}
	if d != nil {
		out.Excerpt = contract.Excerpt{Width: thousandths(d.Width), Height: thousandths(d.Height), Shapes: d.SVG(), Heads: []contractHead{}}
		for _, h := range d.Heads {
			out.Excerpt.Heads = append(out.Excerpt.Heads, contractHead{At: h.At, X: thousandths(h.X), Y: thousandths(h.Y)})
		}
	}
	if o != nil {
		out.Start, out.End = it.Start, it.End
		if all := engrave.Staves(o.Score); it.Hand != "" && len(all) > 1 {
			out.Hands = []int{0}
			if strings.HasPrefix(it.Hand, "left") {
				out.Hands = []int{1}
			}
		}
	}
	return out, nil
}

// music is what a device needs to play a piece.
func music(m material.Material, s *score.Score) contract.FamilyMusic {
	out := contract.FamilyMusic{Material: m.ID, Tempo: m.Tempo, Sounds: []contract.SoundNote{}, Beats: []contractBeat{}}
	if out.Tempo <= 0 {
		out.Tempo = 80
	}
	at := placesOf(s)
	for _, x := range s.Sounding() {
		if x.Duration.Num() > 0 {
			out.Sounds = append(out.Sounds, contract.SoundNote{At: x.Onset.Float(), Length: x.Duration.Float(), Midi: x.MIDI, Staff: at.staff(x.Part, x.Staff), Bar: x.Bar})
		}
	}
	for _, b := range s.Bars {
		start, length, beat := b.Start.Float(), b.Length.Float(), b.Beat().Float()
		for t := 0.0; t < length-1e-6; t += beat {
			out.Beats = append(out.Beats, contractBeat{At: start + t, First: t == 0})
		}
	}
	return out
}

type contractBeat = struct {
	At    float64 `json:"at"`
	First bool    `json:"first"`
}

type contractHead = struct {
	At float64 `json:"at"`
	X  float64 `json:"x"`
	Y  float64 `json:"y"`
}
