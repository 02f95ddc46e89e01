package home

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/week"
	"patientladder/core/wording"
	"patientladder/home/sheet"
)

// GetSheet returns the week, as it stands now, on one page to print.
func (h *Handlers) GetSheet(ctx context.Context, r contract.GetSheetRequestObject) (contract.GetSheetResponseObject, error) {
	w, err := h.weekly(ctx, r.Ladder, r.Params.Day.Time)
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
	out, err := h.sheet(ctx, w.Opened, w.Plan, w.Kept.Start, w.Kept.Hand.Words, page)
	return contract.GetSheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

// GetFamilySheet returns the published week on one page.
func (h *Handlers) GetFamilySheet(ctx context.Context, r contract.GetFamilySheetRequestObject) (contract.GetFamilySheetResponseObject, error) {
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
	out, err := h.sheet(ctx, sh, week.Stretched(*w.Published, sh.WeekDays(w.Start)), w.Start, w.Hand.Words, h.URL+open.FamilyPath(f.Token))
	return contract.GetFamilySheet200ApplicationpdfResponse{SheetApplicationpdfResponse: out}, err
}

func (h *Handlers) sheet(ctx context.Context, sh open.Student, p week.Plan, start time.Time, words, page string) (contract.SheetApplicationpdfResponse, error) {
	teacher, err := h.Store.StudioTeacher(ctx, sh.Tenant.ID)
	if err != nil {
		return contract.SheetApplicationpdfResponse{}, err
	}
	first := sh.First()
	out := sheet.Sheet{
		Heading: fmt.Sprintf("%s · %s · %s, %s", first, sh.Instrument, sh.Tenant.Name, teacher.Name),
		Title:   "Practice from " + start.Format("Monday, 2 January"), Dose: p.Dose, Watch: p.Watch, Words: words, Caution: wording.Caution,
		NotYet: p.NotYet, Hands: handsOf(sh.Family()), Page: page, Made: sh.Now,
	}
	e := newExcerpts(h.Desk, sh, sheet.ExcerptWidth)
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
		out.LeftOut = append(out.LeftOut, fmt.Sprintf("“%s” %s", it.Title, where(sh.Library, it)))
	}
	data, err := out.PDF()
	return contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.SheetResponseHeaders{ContentDisposition: fmt.Sprintf(`inline; filename="practice-%s.pdf"`, start.Format(time.DateOnly))},
	}, err
}

func (e *excerpts) sheetItem(ctx context.Context, it week.Item) (sheet.Item, error) {
	out := sheet.Item{Label: kinds[it.Kind] + ", " + weekMinutes(it.Minutes), Title: it.Title, Where: where(e.student.Library, it), Only: wording.Capital(it.Hand), Words: e.student.Words.Text(it.Words)}
	if it.Kind == week.Review || it.Kind == week.Listen {
		out.Where = ""
	}
	if it.Times > 0 && it.Kind != week.Listen {
		out.Boxes, out.Joined = it.Times, it.InRow
	}
	d, _, err := e.draw(ctx, it)
	out.Excerpt, out.Goals = d, it.Goals
	return out, err
}

// kinds name what is to be done, for a family.
var kinds = map[week.Kind]string{
	week.Look: "Look and say", week.Hear: "Listen and sing", week.Chunk: "Short section", week.Join: "Join", week.Whole: "All the way through", week.Spot: "Hard spot",
	week.Again: "Again", week.Review: "Play", week.Preview: "For later", week.Listen: "Listen", week.Drilled: "Exercise", week.Game: "Game",
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
