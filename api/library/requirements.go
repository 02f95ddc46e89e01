package library

import (
	"bytes"
	"context"
	"fmt"
	"slices"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/curriculum"
	"patientladder/core/wording"
	"patientladder/home/sheet"
)

// needs is what a book takes for granted.
func (h *Handlers) needs(ctx context.Context, id string) (open.Studio, curriculum.Source, curriculum.Needs, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return s, curriculum.Source{}, curriculum.Needs{}, err
	}
	src, err := h.source(ctx, s.Tenant.ID, id)
	if err != nil {
		return s, src, curriculum.Needs{}, err
	}
	books, err := h.sourcesOf(ctx, s.Tenant.ID, src.Instrument)
	return s, src, curriculum.NeedsOf(s.Library, src, books), err
}

// GetBookRequirements returns what a book takes for granted.
func (h *Handlers) GetBookRequirements(
	ctx context.Context,
	r contract.GetBookRequirementsRequestObject,
) (contract.GetBookRequirementsResponseObject, error) {
	s, src, needs, err := h.needs(ctx, r.Source)
	if err != nil {
		return nil, err
	}
	out := contract.GetBookRequirements200JSONResponse{
		Title:    src.Title,
		Sentence: wording.Granted(needs),
		Own:      needs.Own,
		Skills:   []contract.BookRequirement{},
	}
	book := curriculum.Book(s.Library, src.ID)
	out.Units = slices.DeleteFunc(curriculum.Units(book), func(u string) bool { return len(curriculum.Review(book, u, s.Skills)) == 0 })
	for _, n := range needs.List {
		out.Skills = append(
			out.Skills,
			contract.BookRequirement{Skill: n.Skill, Name: s.Words.Text(s.Skills.Name(n.Skill)), Under: wording.GrantedIn(n, needs.Forerunner)},
		)
	}
	return out, nil
}

// SetBookRequirements keeps the teacher's own list.
func (h *Handlers) SetBookRequirements(
	ctx context.Context,
	r contract.SetBookRequirementsRequestObject,
) (contract.SetBookRequirementsResponseObject, error) {
	s, src, _, err := h.needs(ctx, r.Source)
	if err != nil {
		return nil, err
	}
	list, err := curriculum.Written(r.Body.Skills, s.Skills)
	if err != nil {
		return nil, refusal.Invalid(fmt.Sprintf("There is no skill %s. Nothing was changed.", err))
	}
	return contract.SetBookRequirements204Response{}, h.Store.Require(ctx, s.Tenant.ID, src.ID, list)
}

// ResetBookRequirements goes back to what is proposed.
func (h *Handlers) ResetBookRequirements(
	ctx context.Context,
	r contract.ResetBookRequirementsRequestObject,
) (contract.ResetBookRequirementsResponseObject, error) {
	s, src, _, err := h.needs(ctx, r.Source)
	if err != nil {
		return nil, err
	}
	return contract.ResetBookRequirements204Response{}, h.Store.Require(ctx, s.Tenant.ID, src.ID, nil)
}

// GetBookChecks returns what a book takes for granted as a list to tick.
func (h *Handlers) GetBookChecks(ctx context.Context, r contract.GetBookChecksRequestObject) (contract.GetBookChecksResponseObject, error) {
	s, src, needs, err := h.needs(ctx, r.Source)
	if err != nil {
		return nil, err
	}
	out := sheet.Checks{
		Heading:    s.Tenant.Name,
		Title:      "Before “" + src.Title + "”",
		Says:       wording.Granted(needs),
		Made:       h.Now(),
		Letterhead: s.Tenant.Under(),
	}
	if unit := r.Params.Unit; unit != "" {
		out.Title, out.Says = "Before “"+unit+"” of “"+src.Title+"”", "What came before and is needed now: each once, slowly."
		if needs.List = curriculum.Review(curriculum.Book(s.Library, src.ID), unit, s.Skills); len(needs.List) == 0 {
			return nil, refusal.Invalid("Nothing from before is needed where this begins.")
		}
	} else if len(needs.List) == 0 {
		return nil, refusal.Invalid(wording.Granted(needs))
	}
	for _, n := range needs.List {
		out.Lines = append(
			out.Lines,
			sheet.Check{Text: wording.Capital(s.Words.Text(s.Skills.Name(n.Skill))), Under: wording.GrantedIn(n, needs.Forerunner)},
		)
	}
	data, err := out.PDF()
	return contract.GetBookChecks200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(
			data,
		), ContentLength: int64(len(data)), Headers: contract.SheetResponseHeaders{ContentDisposition: `inline; filename="before-the-book.pdf"`},
	}}, err
}
