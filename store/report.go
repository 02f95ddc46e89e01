package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"

	"patientladder/core/planning/progress"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Report is one that is kept.
type Report struct {
	ID, Ladder string
	Written    progress.Written
	Version    int64
	MadeAt     time.Time
	// Published is what was said, PublishedAt when; zero for a draft.
	Published   progress.Published
	PublishedAt time.Time
}

// Report returns a report of a ladder, or ErrNotFound.
func (s *Store) Report(ctx context.Context, studio, ladderID, id string) (Report, error) {
	r, err := s.q(ctx).Report(ctx, rows.ReportParams{StudioID: studio, LadderID: ladderID, ID: id})
	if err != nil {
		return Report{}, explain(err)
	}
	return reportOf(rows.ReportsRow(r))
}

// Reports returns those of a ladder, the latest first.
func (s *Store) Reports(ctx context.Context, studio, ladderID string) ([]Report, error) {
	list, err := s.q(ctx).Reports(ctx, rows.ReportsParams{StudioID: studio, LadderID: ladderID})
	if err != nil {
		return nil, err
	}
	out := make([]Report, len(list))
	for i, r := range list {
		if out[i], err = reportOf(r); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func reportOf(r rows.ReportsRow) (Report, error) {
	out := Report{ID: r.ID, Ladder: r.LadderID, Version: r.Version, MadeAt: r.MadeAt, PublishedAt: r.PublishedAt.Time}
	var err error
	if out.Written, err = document.DecodeReport([]byte(r.Body)); err != nil {
		return out, fmt.Errorf("report %s of ladder %s is damaged: %w", r.ID, r.LadderID, err)
	}
	if r.Published != "" {
		if out.Published, err = document.DecodePublished([]byte(r.Published)); err != nil {
			return out, fmt.Errorf("published report %s of ladder %s is damaged: %w", r.ID, r.LadderID, err)
		}
	}
	return out, nil
}

// StudioReports says which reports a studio has made, in the order in which they were.
func (s *Store) StudioReports(ctx context.Context, studio string) ([]progress.Made, error) {
	list, err := s.q(ctx).StudioReports(ctx, studio)
	out := make([]progress.Made, len(list))
	for i, r := range list {
		out[i] = progress.Made{ID: r.ID, Ladder: r.LadderID, To: r.LastDay, Published: r.PublishedAt.Valid}
	}
	return out, err
}

// SaveReport keeps a report. Its version is the one that it was made from, 0 for a new one; a stale one is ErrConflict.
func (s *Store) SaveReport(ctx context.Context, studio string, r Report) error {
	body, err := document.EncodeReport(r.Written)
	if err != nil {
		return err
	}
	if r.Version == 0 {
		return explain(
			s.q(ctx).
				AddReport(ctx, rows.AddReportParams{StudioID: studio, ID: r.ID, LadderID: r.Ladder, Body: string(body), LastDay: r.Written.Span.To, MadeAt: r.MadeAt}),
		)
	}
	return explain(changed(s.q(ctx).ChangeReport(ctx, rows.ChangeReportParams{
		Body: string(body), LastDay: r.Written.Span.To, StudioID: studio, LadderID: r.Ladder, ID: r.ID, Version: r.Version})))
}

// PublishReport keeps what a report said and its printed page, with the messages to the family or not at all.
func (s *Store) PublishReport(ctx context.Context, studio string, r Report, pdf []byte, messages []Message) error {
	said, err := document.EncodePublished(r.Published)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := changed(q.PublishReport(ctx, rows.PublishReportParams{
			Published: string(said), Pdf: pdf, PublishedAt: sql.NullTime{Time: r.PublishedAt, Valid: true}, StudioID: studio, LadderID: r.Ladder, ID: r.ID, Version: r.Version})); err != nil {
			return err
		}
		return s.addMessages(ctx, q, studio, messages)
	}))
}

// ReportPDF returns the printed page of a published report, or ErrNotFound.
func (s *Store) ReportPDF(ctx context.Context, studio, ladderID, id string) ([]byte, error) {
	pdf, err := s.q(ctx).ReportPDF(ctx, rows.ReportPDFParams{StudioID: studio, LadderID: ladderID, ID: id})
	return pdf, explain(err)
}

// DropReport takes a report away; one that is not there is ErrNotFound.
func (s *Store) DropReport(ctx context.Context, studio, ladderID, id string) error {
	return explain(found(s.q(ctx).DropReport(ctx, rows.DropReportParams{StudioID: studio, LadderID: ladderID, ID: id})))
}
