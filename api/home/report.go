package home

import (
	"bytes"
	"context"
	"errors"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/wording"
	"patientladder/store"
)

// reports are the published ones as the family reads them.
func (h *Handlers) reports(ctx context.Context, s open.Student) ([]contract.FamilyReport, error) {
	list, err := h.Store.Reports(ctx, s.Tenant.ID, s.Ladder)
	out := []contract.FamilyReport{}
	for _, r := range list {
		if !r.PublishedAt.IsZero() {
			out = append(
				out,
				contract.FamilyReport{
					Id:        r.ID,
					Title:     r.Published.Title,
					Days:      r.Published.Days,
					Lines:     r.Published.Lines,
					Published: wording.DayAndYear(s.Local(r.PublishedAt)),
				},
			)
		}
	}
	return out, err
}

// GetFamilyReport returns the printed page of a published report.
func (h *Handlers) GetFamilyReport(
	ctx context.Context,
	r contract.GetFamilyReportRequestObject,
) (contract.GetFamilyReportResponseObject, error) {
	f, _, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	pdf, err := h.Store.ReportPDF(ctx, f.Studio, f.Ladder, r.Report)
	if errors.Is(err, store.ErrNotFound) {
		return nil, refusal.NotFound("This report is not there any more.")
	}
	return contract.GetFamilyReport200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(
			pdf,
		), ContentLength: int64(len(pdf)), Headers: contract.SheetResponseHeaders{ContentDisposition: `inline; filename="report.pdf"`},
	}}, err
}
