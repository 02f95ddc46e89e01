package api

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	weekplan "patientladder/core/planning/week"
	"patientladder/home/sheet"
)

// GetSheet returns the week, as it stands now, on one page to print.
func (s *Server) GetSheet(ctx context.Context, r contract.GetSheetRequestObject) (contract.GetSheetResponseObject, error) {
	w, err := s.weekly(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	f, err := s.store.Family(ctx, w.studio.ID, r.Ladder)
	if err != nil {
		return nil, err
	}
	page := familyWay(f, w.today).Link
	if page != "" {
		page = s.url + page
	}
	out, err := s.sheet(ctx, w.shelf, w.plan, w.kept.Start, w.kept.Hand.Words, page)
	return contract.GetSheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

// GetFamilySheet returns the published week on one page.
func (s *Server) GetFamilySheet(ctx context.Context, r contract.GetFamilySheetRequestObject) (contract.GetFamilySheetResponseObject, error) {
	f, sh, err := s.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	w, err := s.currentWeek(ctx, sh)
	if err != nil {
		return nil, err
	}
	if w.Published == nil {
		return nil, &problem{status: 404, detail: "No week was published yet."}
	}
	out, err := s.sheet(ctx, sh, *w.Published, w.Start, w.Hand.Words, s.url+familyPath(f.Token))
	return contract.GetFamilySheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

func (s *Server) sheet(ctx context.Context, sh shelf, p weekplan.Plan, start time.Time, words, page string) (contract.SheetApplicationpdfResponse, error) {
	teacher, err := s.store.StudioTeacher(ctx, sh.studio.ID)
	if err != nil {
		return contract.SheetApplicationpdfResponse{}, err
	}
	first, _, _ := strings.Cut(sh.ladder.Name, " ")
	out := sheet.Sheet{
		Heading: fmt.Sprintf("%s · %s · %s, %s", first, sh.ladder.Instrument, sh.studio.Name, teacher.Name),
		Title:   "Practice from " + start.Format("Monday, 2 January"), Dose: p.Dose, Words: words, Caution: caution,
		NotYet: p.NotYet, Hands: handsOf(sh.family), Page: page, Made: sh.now,
	}
	e := newExcerpts(s, sh, sheet.ExcerptWidth)
	for _, d := range p.Days {
		day := sheet.Day{Name: d.Date.Format("Monday"), Minutes: "about " + weekMinutes(d.Minutes), Rest: d.Rest, Focus: d.Focus}
		for _, it := range d.Items {
			item, err := e.sheetItem(ctx, it)
			if err != nil {
				return contract.SheetApplicationpdfResponse{}, err
			}
			day.Items = append(day.Items, item)
		}
		out.Days = append(out.Days, day)
	}
	for _, it := range p.LeftOut {
		out.LeftOut = append(out.LeftOut, fmt.Sprintf("“%s” %s", it.Title, whereItem(sh.lib, it)))
	}
	data, err := out.PDF()
	return contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.SheetResponseHeaders{ContentDisposition: fmt.Sprintf(`inline; filename="practice-%s.pdf"`, start.Format(time.DateOnly))},
	}, err
}

func (e *excerpts) sheetItem(ctx context.Context, it weekplan.Item) (sheet.Item, error) {
	out := sheet.Item{Label: kinds[it.Kind] + ", " + weekMinutes(it.Minutes), Title: it.Title, Where: whereItem(e.shelf.lib, it), Only: capital(it.Hand), Words: e.shelf.studio.Words.Text(it.Words)}
	if it.Kind == weekplan.Review || it.Kind == weekplan.Listen {
		out.Where = ""
	}
	if it.Kind != weekplan.Look && it.Kind != weekplan.Listen {
		out.Boxes, out.Joined = it.Times, it.InRow
	}
	d, _, err := e.draw(ctx, it)
	out.Excerpt = d
	return out, err
}

// kinds name what is to be done, for a family.
var kinds = map[weekplan.Kind]string{
	weekplan.Look: "Look and say", weekplan.Chunk: "Small piece", weekplan.Join: "Join", weekplan.Whole: "The whole", weekplan.Spot: "Hard spot",
	weekplan.Again: "Again", weekplan.Review: "Play", weekplan.Preview: "For later", weekplan.Listen: "Listen",
}

func weekMinutes(m float64) string {
	return strings.TrimSuffix(fmt.Sprintf("%.1f", m), ".0") + " min"
}

// handsOf are the hands whose finger numbers a family of instruments uses.
func handsOf(f instrument.Family) []sheet.Hand {
	switch f {
	case instrument.Keyboard:
		five := [5]string{"1", "2", "3", "4", "5"}
		return []sheet.Hand{{Name: "left hand", Left: true, Fingers: five}, {Name: "right hand", Fingers: five}}
	case instrument.Bowed:
		return []sheet.Hand{{Name: "left hand", Left: true, Fingers: [5]string{"", "1", "2", "3", "4"}}}
	}
	return []sheet.Hand{{Name: "left hand", Left: true, Fingers: [5]string{"", "1", "2", "3", "4"}}, {Name: "right hand", Fingers: [5]string{"p", "i", "m", "a", ""}}}
}
