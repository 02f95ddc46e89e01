package progress

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/progress"
	"patientladder/core/wording"
	"patientladder/home/sheet"
	"patientladder/store"
)

// report is a report with what it is drafted from.
type report struct {
	back
	kept      store.Report
	sentences []progress.Sentence
}

// report opens one that is kept, else drafts the first one of the term.
func (h *Handlers) report(ctx context.Context, ladder, id string) (report, error) {
	s, err := h.Student(ctx, ladder)
	if err != nil {
		return report{}, err
	}
	kept, err := h.Store.Report(ctx, s.Tenant.ID, ladder, id)
	if errors.Is(err, store.ErrNotFound) {
		kept, err = store.Report{
			ID:      id,
			Ladder:  ladder,
			MadeAt:  s.Now,
			Written: progress.First(progress.Term(s.Today, s.Timetable().Breaks())),
		}, nil
	}
	if err != nil {
		return report{}, err
	}
	return h.drafted(ctx, kept)
}

// drafted drafts a report from the facts as they are now.
func (h *Handlers) drafted(ctx context.Context, kept store.Report) (report, error) {
	b, err := h.back(ctx, kept.Ladder, kept.Written.Span.From, kept.Written.Span.To)
	if err != nil {
		return report{}, err
	}
	b.Report.Written = kept.Written
	return report{b, kept, kept.Written.Edited(b.Of().Names().Draft(b.Report))}, nil
}

func (r report) out(recipients int) contract.Report {
	s, w, n := r.Opened, r.kept.Written, r.Of().Names()
	out := contract.Report{
		Id: r.kept.ID, Student: answer.Student(s.Row, s.Today), Title: r.title(), Days: wording.SpanDays(w.Span),
		Sentences: []contract.ReportSentence{},
		Lines:     w.Sent(r.sentences), Published: !r.kept.PublishedAt.IsZero(), Spans: r.spans(w.Span), Recipients: recipients,
		Written: contract.WrittenReport{
			Purpose: contract.WrittenReportPurpose(w.Purpose), Length: contract.WrittenReportLength(w.Length),
			Tone: contract.WrittenReportTone(w.Tone),
			From: answer.Date(w.Span.From), To: answer.Date(w.Span.To), Edits: []contract.ReportEdit{}, Own: w.Own, Version: r.kept.Version,
		},
	}
	if out.Published {
		out.PublishedAt = wording.DayAndYear(s.Local(r.kept.PublishedAt))
	}
	for _, x := range r.sentences {
		line := r.line(n, wording.Line{Text: x.Text, Entries: x.Entries})
		out.Sentences = append(
			out.Sentences,
			contract.ReportSentence{Part: string(x.Part), Text: x.Text, Drafted: x.Drafted, Entries: line.Entries, Edited: x.Edited, Newer: x.Newer},
		)
	}
	for _, part := range w.Order() {
		if e, changed := w.Edits[part]; changed {
			out.Written.Edits = append(out.Written.Edits, contract.ReportEdit{Part: string(part), Text: e.Text, Was: e.Was})
		}
	}
	return out
}

func (r report) title() string {
	return wording.ReportTitle(r.kept.Written.Purpose, r.Name, r.Instrument)
}

// shown is a report as the contract has it.
func (h *Handlers) shown(ctx context.Context, r report) (contract.Report, error) {
	f, err := h.Store.Family(ctx, r.Tenant.ID, r.Ladder)
	if err != nil {
		return contract.Report{}, err
	}
	to, err := h.Recipients(ctx, r.Tenant.ID, r.Ladder, f)
	return r.out(len(to)), err
}

// GetReport returns a report, drafted from the facts as they are now.
func (h *Handlers) GetReport(ctx context.Context, r contract.GetReportRequestObject) (contract.GetReportResponseObject, error) {
	rep, err := h.report(ctx, r.Ladder, r.Report)
	if err != nil {
		return nil, err
	}
	out, err := h.shown(ctx, rep)
	return contract.GetReport200JSONResponse(out), err
}

// SetReport keeps what the teacher chose and wrote.
func (h *Handlers) SetReport(ctx context.Context, r contract.SetReportRequestObject) (contract.SetReportResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	b := r.Body
	w := progress.Written{
		Purpose: progress.Purpose(b.Purpose), Length: progress.Length(b.Length), Tone: progress.Tone(b.Tone),
		Span: progress.Span{From: b.From.Time, To: b.To.Time}, Own: strings.TrimSpace(b.Own),
	}
	for _, e := range b.Edits {
		if w.Edits == nil {
			w.Edits = map[progress.Part]progress.Edit{}
		}
		w.Edits[progress.Part(e.Part)] = progress.Edit{Text: strings.TrimSpace(e.Text), Was: e.Was}
	}
	if err := w.Check(s.Today); err != nil {
		return nil, refusal.Because(err)
	}
	kept := store.Report{ID: r.Report, Ladder: r.Ladder, Written: w, Version: b.Version, MadeAt: s.Now}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.Report, error) {
		if err := h.Store.SaveReport(ctx, s.Tenant.ID, kept); err != nil {
			return contract.Report{}, err
		}
		rep, err := h.report(ctx, r.Ladder, r.Report)
		if err != nil {
			return contract.Report{}, err
		}
		return h.shown(ctx, rep)
	})
	return contract.SetReport200JSONResponse(out), err
}

// DropReport takes a report away.
func (h *Handlers) DropReport(ctx context.Context, r contract.DropReportRequestObject) (contract.DropReportResponseObject, error) {
	return contract.DropReport204Response{}, h.Store.DropReport(ctx, open.Actor(ctx).Studio, r.Ladder, r.Report)
}

// PublishReport shows a report to the family as it was shown to the teacher, with its printed page.
func (h *Handlers) PublishReport(ctx context.Context, r contract.PublishReportRequestObject) (contract.PublishReportResponseObject, error) {
	rep, err := h.report(ctx, r.Ladder, r.Report)
	if err != nil {
		return nil, err
	}
	lines := rep.kept.Written.Sent(rep.sentences)
	if !slices.Equal(lines, r.Body.Lines) || rep.kept.Version != r.Body.Version {
		return nil, refusal.Otherwise(wording.ReportChanged)
	}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.Report, error) { return h.published(ctx, rep, lines) })
	return contract.PublishReport200JSONResponse(out), err
}

// published publishes a report with the sentences that it is to have.
func (h *Handlers) published(ctx context.Context, rep report, lines []string) (out contract.Report, err error) {
	if rep.kept.Version == 0 { // published as it was drafted
		if err := h.Store.SaveReport(ctx, rep.Tenant.ID, rep.kept); err != nil {
			return out, err
		}
		rep.kept.Version = 1
	}
	pdf, err := h.printed(ctx, rep)
	if err != nil {
		return out, err
	}
	f, err := h.OpenLink(ctx, rep.Tenant.ID, rep.Ladder, rep.Today)
	if err != nil {
		return out, err
	}
	messages, err := h.Announce(ctx, rep.Opened, f, open.Letter{
		Kind: store.AboutReport, Subject: wording.ReportSubject(rep.First()),
		Says: wording.ReportReady(rep.First(), rep.kept.Written.Span) + " is ready:",
	})
	if err != nil {
		return out, err
	}
	rep.kept.Published = progress.Published{
		Title: wording.PurposeName(rep.kept.Written.Purpose),
		Days:  wording.SpanDays(rep.kept.Written.Span),
		Lines: lines,
	}
	rep.kept.PublishedAt = rep.Now
	if err := h.Store.PublishReport(ctx, rep.Tenant.ID, rep.kept, pdf, messages); err != nil {
		return out, err
	}
	rep.kept.Version++
	return h.shown(ctx, rep)
}

// GetReports returns the reports about a student.
func (h *Handlers) GetReports(ctx context.Context, r contract.GetReportsRequestObject) (contract.GetReportsResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	list, err := h.Store.Reports(ctx, s.Tenant.ID, r.Ladder)
	out := contract.GetReports200JSONResponse{}
	for _, x := range list {
		line := contract.ReportLine{Id: x.ID, Title: wording.PurposeName(x.Written.Purpose), Days: wording.SpanDays(x.Written.Span)}
		if !x.PublishedAt.IsZero() {
			line.Published = wording.DayAndYear(s.Local(x.PublishedAt))
		}
		out = append(out, line)
	}
	return out, err
}

// ListReports returns who has a report for this term and who has none.
func (h *Handlers) ListReports(ctx context.Context, _ contract.ListReportsRequestObject) (contract.ListReportsResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	made, err := h.Store.StudioReports(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	list := progress.Queue(open.Plain(opened), made)
	out := contract.ListReports200JSONResponse{Sentence: wording.ReportQueue(list), Students: []contract.QueuedReport{}}
	for _, q := range list {
		out.Students = append(
			out.Students,
			contract.QueuedReport{
				Ladder:     q.Ladder,
				Name:       q.Name,
				Instrument: contract.Instrument(q.Instrument),
				Report:     q.Report,
				State:      contract.QueuedReportState(q.State),
			},
		)
	}
	return out, nil
}

// GetReportSheet returns a report to print, as the facts are now.
func (h *Handlers) GetReportSheet(
	ctx context.Context,
	r contract.GetReportSheetRequestObject,
) (contract.GetReportSheetResponseObject, error) {
	rep, err := h.report(ctx, r.Ladder, r.Report)
	if err != nil {
		return nil, err
	}
	pdf, err := h.printed(ctx, rep)
	return contract.GetReportSheet200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(pdf), ContentLength: int64(len(pdf)),
		Headers: contract.SheetResponseHeaders{
			ContentDisposition: fmt.Sprintf(`inline; filename="report-%s.pdf"`, rep.Today.Format(time.DateOnly)),
		},
	}}, err
}

// printed is a report on paper.
func (h *Handlers) printed(ctx context.Context, r report) ([]byte, error) {
	out, err := h.heading(ctx, r.Of())
	if err != nil {
		return nil, err
	}
	w := r.kept.Written
	out.Title, out.Days, out.Lines = r.title(), wording.SpanDays(w.Span), w.Sent(r.sentences)
	if w.Picture() {
		out.Way, out.Months = r.stretches()
	}
	if w.Lists() {
		out.Lists = []sheet.List{r.rows("Pieces", r.Pieces()), r.rows("Technique", r.Drills()), r.rows("Reading", r.ReadingStages())}
	}
	return out.PDF()
}

func (r report) rows(title string, pieces []progress.Piece) sheet.List {
	list := sheet.List{Title: title}
	for _, p := range pieces {
		m := r.Library[p.Material]
		list.Rows = append(list.Rows, sheet.Row{What: m.Title, By: by(m), When: wording.Day(p.To)})
	}
	return list
}

// by says by whom a piece is, or from which book.
func by(m material.Material) string {
	if m.Composer != "" {
		return m.Composer
	}
	return answer.From(m)
}

// stretches are the pieces of the span as they are drawn.
func (r report) stretches() ([]sheet.Stretch, []sheet.Month) {
	p := r.Report.Progress
	var out []sheet.Stretch
	for _, x := range p.Drawn(r.Library) {
		out = append(out, sheet.Stretch{Title: r.Library[x.Material].Title, From: x.From, To: x.To, Lane: x.Lane, Wide: x.Wide, Open: x.Open})
	}
	var months []sheet.Month
	for _, d := range p.Span.Months() {
		months = append(months, sheet.Month{At: p.Span.Share(d), Name: wording.Month(d)})
	}
	return out, months
}
