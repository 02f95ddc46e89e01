// Package progress holds the handlers that look back.
//
//	progress.go  what was achieved in a span of days
//	report.go    reports to a family, for an exam, to a new teacher
//	repertoire.go  what was learned: lists, certificates, the programme of a recital
//	studioyear.go  the whole studio
//	learned.go   what the studio learns from its lessons
package progress

import (
	"context"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/memory"
	"patientladder/core/student/studentlog"
	"patientladder/core/wording"
)

// Handlers look back.
type Handlers struct{ *open.Loader }

// back is a student looked back at.
type back struct {
	open.Ahead
	progress.Report
	entries map[string]*studentlog.Entry
}

// back looks back on a span; zero days stand for the term until today.
func (h *Handlers) back(ctx context.Context, ladder string, from, to time.Time) (back, error) {
	a, err := h.Ahead(ctx, ladder, studentplan.Options{})
	if err != nil {
		return back{}, err
	}
	s := a.Opened
	term := progress.Term(s.Today, s.Timetable().Breaks())
	if to.IsZero() {
		to = term.To
	}
	if from.IsZero() {
		from = term.From
	}
	span := progress.Span{From: from, To: to}
	if err := span.Check(s.Today); err != nil {
		return back{}, refusal.Because(err)
	}
	log, err := h.Log(ctx, s)
	if err != nil {
		return back{}, err
	}
	in := progress.Input{Student: s.Student, Live: studentlog.Live(log), Span: span}
	if in.Weeks, err = h.Store.LadderWeeks(ctx, s.Tenant.ID, ladder); err != nil {
		return back{}, err
	}
	if in.Targets, err = h.Store.Targets(ctx, s.Tenant.ID, ladder); err != nil {
		return back{}, err
	}
	students, err := h.Students(ctx, s.Of(), "")
	if err != nil {
		return back{}, err
	}
	for _, x := range students {
		in.Seen = append(in.Seen, progress.SeenOf(x.Student)...)
	}
	out := back{
		Ahead:   a,
		Report:  progress.Report{Progress: progress.Of(in), Ahead: progress.Next(&a.StudentOutlook, span), Student: s.Student},
		entries: map[string]*studentlog.Entry{},
	}
	for _, e := range in.Live {
		out.entries[e.ID] = e
	}
	return out, nil
}

// GetProgress returns what was achieved in a span of days.
func (h *Handlers) GetProgress(ctx context.Context, r contract.GetProgressRequestObject) (contract.GetProgressResponseObject, error) {
	b, err := h.back(ctx, r.Ladder, r.Params.From.Time, r.Params.To.Time)
	if err != nil {
		return nil, err
	}
	s, n := b.Opened, b.Of().Names()
	p := b.Report.Progress
	out := contract.Progress{
		Student: answer.Student(s.Row, s.Today), From: answer.Date(p.Span.From), To: answer.Date(p.Span.To), Days: wording.SpanDays(p.Span),
		Sentence: n.Progress(b.Report),
		Grown:    []contract.ProgressLine{}, Care: b.line(n, n.Care(b.Report)), Next: n.NextAhead(b.Report).Text, Lessons: []openapi_types.Date{},
		Pieces: []contract.ProgressPiece{},
		Pace:   wording.Pace(p.Pace), Practice: wording.Practised(p.Practice), Kept: wording.Kept(p.Review),
		Ear: wording.Stairs(inlesson.EarAndRhythm(s.Student, s.Today)), Stays: []string{}, Plans: []string{}, Breaks: []contract.DaySpan{}, Spans: b.spans(p.Span),
		Heard: []contract.HeardPiece{}, Strands: []contract.StrandLanes{}, Skills: []contract.SkillDay{}, Plantings: []contract.PlantedFor{},
		Ranges: []contract.RangeCame{},
	}
	for _, k := range b.Grown() {
		out.Grown = append(out.Grown, b.line(n, n.Grown(k, b.Report)))
	}
	for _, d := range p.Lessons {
		out.Lessons = append(out.Lessons, answer.Date(d))
	}
	b.draw(&out)
	return contract.GetProgress200JSONResponse(out), nil
}

// spans are those that are offered.
func (b back) spans(chosen progress.Span) []contract.NamedSpan {
	s := b.Opened
	out := []contract.NamedSpan{}
	for _, o := range progress.Offered(s.Local(s.Standing.FirstLesson), s.Today, s.Timetable().Breaks()) {
		out = append(
			out,
			contract.NamedSpan{Name: wording.SpanName(o.Kind), From: answer.Date(o.Span.From), To: answer.Date(o.Span.To), Chosen: o.Span == chosen},
		)
	}
	return out
}

// line is a sentence with its entries.
func (b back) line(n wording.Names, l wording.Line) contract.ProgressLine {
	out := contract.ProgressLine{Text: l.Text, Entries: []contract.FromEntry{}}
	for _, id := range l.Entries {
		if e := b.entries[id]; e != nil {
			out.Entries = append(out.Entries, contract.FromEntry{Id: id, Day: answer.Date(b.Opened.Local(e.At)), Text: n.Entry(e, b.Opened.Student)})
		}
	}
	return out
}

// draw adds what the picture is made of.
func (b back) draw(out *contract.Progress) {
	s, n, p := b.Opened, b.Of().Names(), b.Report.Progress
	lanes, widths := progress.Lanes(p.Way, s.Library, p.Span.To)
	for _, strand := range material.Strands() {
		if widths[strand] > 0 {
			out.Strands = append(out.Strands, contract.StrandLanes{Strand: contract.Strand(strand), Lanes: widths[strand]})
		}
	}
	for _, x := range p.Way {
		m := s.Library[x.Material]
		piece := contract.ProgressPiece{
			Material: x.Material, Title: m.Title, Strand: contract.Strand(m.Strand), Lane: lanes[x.Material], From: answer.Date(x.From),
			To: dayOrNone(x.To), Polished: dayOrNone(x.Polished),
			Leap: x.Leap, Weeks: wording.Weeks(x.Weeks), State: contract.ProgressPieceState(x.State), Rests: []contract.DaySpan{},
			Heard: []contract.HeardDay{},
		}
		for _, r := range x.Rests {
			piece.Rests = append(piece.Rests, contract.DaySpan{From: answer.Date(r.From), To: answer.Date(r.To)})
		}
		for _, hearing := range x.Heard {
			piece.Heard = append(piece.Heard, contract.HeardDay{Day: answer.Date(hearing.Day), Solid: memory.Rating(hearing.Rating) >= memory.Solid})
		}
		out.Pieces = append(out.Pieces, piece)
	}
	for _, x := range p.Review.Hearings {
		out.Heard = append(out.Heard, contract.HeardPiece{Day: answer.Date(x.Day), Title: s.Library[x.Material].Title, Solid: x.Solid})
	}
	for _, g := range p.Secure {
		out.Skills = append(out.Skills, contract.SkillDay{Name: s.Skills.Name(g.Skill), Day: answer.Date(g.Day)})
	}
	for _, x := range p.Plantings {
		days := []openapi_types.Date{}
		for _, d := range x.Days {
			days = append(days, answer.Date(d))
		}
		out.Plantings = append(out.Plantings, contract.PlantedFor{Text: n.Planted(x), Days: days, For: x.For, Needed: answer.Date(x.Needed)})
	}
	for _, br := range p.Breaks(s.Timetable().Breaks()) {
		out.Breaks = append(out.Breaks, contract.DaySpan{From: answer.Date(br.From), To: answer.Date(br.To)})
	}
	for _, r := range p.Pace.Ranges {
		out.Ranges = append(out.Ranges, contract.RangeCame{Text: n.RangeLine(r), Held: r.Held})
	}
	for _, x := range p.Stays {
		out.Stays = append(out.Stays, n.Stay(x))
	}
	for _, x := range p.Plans {
		out.Plans = append(out.Plans, n.PlanCame(x))
	}
}

func dayOrNone(day time.Time) string {
	if day.IsZero() {
		return ""
	}
	return day.Format(time.DateOnly)
}
