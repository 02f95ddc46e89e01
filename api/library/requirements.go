package library

import (
	"bytes"
	"context"

	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/wording"
	"patientladder/home/sheet"
)

// GetBookChecks returns what a book takes for granted as a list to tick.
func (h *Handlers) GetBookChecks(ctx context.Context, r contract.GetBookChecksRequestObject) (contract.GetBookChecksResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	src, err := h.source(ctx, open.Actor(ctx).Studio, r.Source)
	if err != nil {
		return nil, err
	}
	list, err := h.Store.Sources(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	book := curriculum.Book(s.Library, src.ID)
	var others [][]material.Material
	var titles []string
	for _, o := range list {
		if o.ID != src.ID && !o.Retired && o.Instrument == src.Instrument {
			others, titles = append(others, curriculum.Book(s.Library, o.ID)), append(titles, o.Title)
		}
	}
	var before []material.Material
	forerunner := ""
	if i := curriculum.Forerunner(book, others); i >= 0 {
		before, forerunner = others[i], titles[i]
	}
	needs := curriculum.Requirements(book, before)
	if len(needs) == 0 {
		return nil, problem.Invalid("Nothing is known of what the first pieces of this book ask for.")
	}
	out := sheet.Checks{Heading: s.Tenant.Name, Title: "Before “" + src.Title + "”", Says: wording.Granted(len(curriculum.FirstUnit(book)), forerunner), Made: h.Now()}
	for _, n := range needs {
		out.Lines = append(out.Lines, sheet.Check{Text: wording.Capital(s.Words.Text(s.Skills.Name(n.Skill))), Under: wording.GrantedIn(n, forerunner)})
	}
	data, err := out.PDF()
	return contract.GetBookChecks200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)), Headers: contract.SheetResponseHeaders{ContentDisposition: `inline; filename="before-the-book.pdf"`},
	}}, err
}
