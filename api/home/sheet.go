package home

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/engrave"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/week"
	"patientladder/core/reading/reading"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
	"patientladder/home/sheet"
)

// GetSheet returns the week, as it stands now, on both sides of a sheet to print.
func (h *Handlers) GetSheet(ctx context.Context, r contract.GetSheetRequestObject) (contract.GetSheetResponseObject, error) {
	w, err := app.WeekOn(ctx, h.Loader, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	f, err := h.Store.Family(ctx, w.Tenant.ID, r.Ladder)
	if err != nil {
		return nil, err
	}
	way, err := h.familyWay(ctx, f, w.Today)
	if err != nil {
		return nil, err
	}
	page := way.Link
	if page != "" {
		page = h.URL + page
	}
	out, err := h.sheet(ctx, w.Opened, w.Plan, w.Kept.Start, w.Kept.Hand.Words, page, w.Opened.Tongue(f))
	return contract.GetSheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

// GetFamilySheet returns the published week on paper.
func (h *Handlers) GetFamilySheet(
	ctx context.Context,
	r contract.GetFamilySheetRequestObject,
) (contract.GetFamilySheetResponseObject, error) {
	f, sh, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	w, _, err := h.familyWeek(ctx, sh, r.Params.Week.Time)
	if err != nil {
		return nil, err
	}
	if w.Published == nil {
		return nil, &problem.Problem{Status: 404, Detail: "No week was published yet."}
	}
	plan, err := h.ForFamily(ctx, sh, w)
	if err != nil {
		return nil, err
	}
	out, err := h.sheet(
		ctx,
		sh,
		plan,
		w.Start,
		w.Hand.Words,
		h.URL+open.FamilyPath(f.Token),
		sh.Tongue(spokenTo(f, r.Params.Language)),
	)
	return contract.GetFamilySheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

func (h *Handlers) sheet(
	ctx context.Context,
	sh open.Student,
	p week.Plan,
	start time.Time,
	words, page string,
	t tongue.Tongue,
) (contract.SheetApplicationpdfResponse, error) {
	teacher, err := h.Store.StudioTeacher(ctx, sh.Tenant.ID)
	if err != nil {
		return contract.SheetApplicationpdfResponse{}, err
	}
	out := sheet.Sheet{
		Tongue: t, Heading: fmt.Sprintf("%s · %s · %s, %s", sh.First(), t.Shipped(sh.Instrument), sh.Tenant.Name, teacher.Name),
		Title: t.Say("sheet.title", "date", t.WeekdayAndDay(start)),
		Dose:  wording.Often(t, p.Often), Watch: wording.Watched(t, p.Watch), Words: words, Caution: t.Say("caution"),
		NotYet: wording.Held(t, p.NotYet),
		Hands:  handsOf(t, sh.OnInstrument()), Page: page, Made: sh.Now,
	}
	e := h.excerpts(ctx, sh, sheet.ExcerptWidth)
	for _, d := range p.Days {
		day := sheet.Day{
			Name:    t.Weekday(d.Date),
			Minutes: t.Say("sheet.about", "minutes", wording.HomeMinutes(d.Minutes)),
			Rest:    d.Rest,
			Focus:   d.Focus,
		}
		for _, it := range d.Items {
			item, err := e.sheetItem(it, t)
			if err != nil {
				return contract.SheetApplicationpdfResponse{}, err
			}
			day.Items = append(day.Items, item)
		}
		out.Days = append(out.Days, day)
	}
	for _, it := range p.LeftOut {
		out.LeftOut = append(out.LeftOut, wording.LeftOut(t, it, sh.Library[it.Material]))
	}
	data, err := out.PDF()
	return contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.SheetResponseHeaders{
			ContentDisposition: fmt.Sprintf(`inline; filename="practice-%s.pdf"`, start.Format(time.DateOnly)),
		},
	}, err
}

func (e *excerpts) sheetItem(it week.Item, t tongue.Tongue) (sheet.Item, error) {
	x, err := e.shown(it)
	if err != nil {
		return sheet.Item{}, err
	}
	c := e.said(t, it, x)
	out := sheet.Item{
		Label: c.Kind,
		Title: c.Title,
		Where: c.Where,
		Only:  c.Only,
		Goals: c.Goals,
	}
	out.Boxes, out.Joined = it.Boxes()
	if x.InWords(it) {
		out.Words = c.Plain(it.Kind)
		return out, nil
	}
	card := &sheet.Card{
		Key: strings.Join([]string{x.Music, c.Where, it.Hand, string(wholeness(it.Kind))}, "|"), Title: c.Title, Where: c.Where, Book: c.Book,
		Only: c.Only, Tempo: c.Tempo, Say: sayLine(c.Say),
		Parent: c.Parent, Swap: c.Swap, Good: c.Good, Gap: c.Gap, Marks: c.Marks, Goals: c.Goals, Learned: it.Kind == week.Review,
	}
	player, words := e.student.OnInstrument(), wording.WordsAtHome(t, e.student.Words)
	for i, h := range x.Card.Hands {
		hand := sheet.CardHand{Start: c.Hands[i].Start}
		for _, k := range h.OnStrings() {
			hand.Neck.Dots = append(hand.Neck.Dots, sheet.Dot{String: k.String, At: k.Above, Label: k.Sign(), First: k.First})
		}
		for _, k := range h.OnKeys() {
			hand.Board.Keys = append(hand.Board.Keys, sheet.Key{MIDI: k.MIDI, Label: k.Sign(), First: k.First})
		}
		hand.Neck.Frets = player.Fretted()
		for _, open := range player.Open {
			hand.Neck.Strings = append(hand.Neck.Strings, words.Note(open.Name()))
		}
		card.Hands = append(card.Hands, hand)
	}
	if d, ok := x.Drawn(it, player, e.width); ok {
		card.Excerpt, card.Signs = &d, signsOn(d, x.Card.Signs)
	}
	out.Card = card
	return out, nil
}

// wholeness tells a whole piece that is played from one of which only the beginning is looked at; sections of the same bars are the same.
func wholeness(k week.Kind) week.Kind {
	switch k {
	case week.Look, week.Hear:
		return week.Look
	case week.Whole, week.Review:
		return week.Whole
	}
	return ""
}

// signsOn puts the directions over the heads of a drawing.
func signsOn(d engrave.Drawing, signs []athome.Sign) (out []sheet.Sign) {
	for _, s := range signs {
		for _, h := range d.Heads {
			if h.Staff == s.Staff && math.Abs(h.At-s.At) < 1e-6 {
				out = append(
					out,
					sheet.Sign{X: h.X, Y: h.Y - h.Below - signAbove, Turn: map[reading.Direction]int{reading.Up: 1, reading.Down: -1}[s.Direction]},
				)
				break
			}
		}
	}
	return out
}

// signAbove is how far above the top line of its staff a direction stands, in staff spaces.
const signAbove = 1.8

// handsOf are the hands whose fingers are written on an instrument, with their signs.
func handsOf(t tongue.Tongue, x instrument.Instrument) []sheet.Hand {
	left := sheet.Hand{Name: t.Say("hand.left"), Left: true, Fingers: [5]string{"", "1", "2", "3", "4"}}
	switch x.Family {
	case instrument.Keyboard:
		five := [5]string{"1", "2", "3", "4", "5"}
		return []sheet.Hand{{Name: t.Say("hand.left"), Left: true, Fingers: five}, {Name: t.Say("hand.right"), Fingers: five}}
	case instrument.Bowed:
		return []sheet.Hand{left}
	case instrument.Plucked:
		right := sheet.Hand{Name: t.Say("hand.right")}
		for i, finger := range instrument.Plucking() {
			if slices.Contains(x.Pluck, finger) {
				right.Fingers[i] = x.Sign(finger)
			}
		}
		return []sheet.Hand{left, right}
	}
	return nil
}

// sayLine is what is said aloud as one line of paper.
func sayLine(lines []wording.SayLine) string {
	var out []string
	for _, l := range lines {
		line := strings.Join(l.Words, " · ")
		if l.Hand != "" {
			line = l.Hand + ": " + line
		}
		out = append(out, line)
	}
	return strings.Join(out, "; ")
}
