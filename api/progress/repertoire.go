package progress

import (
	"bytes"
	"context"
	"slices"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/progress"
	"patientladder/core/wording"
	"patientladder/home/sheet"
)

func piecesOf(lib material.Library, list []progress.Learned) []contract.LearnedPiece {
	out := []contract.LearnedPiece{}
	for _, l := range list {
		m := lib[l.Material]
		out = append(
			out,
			contract.LearnedPiece{
				Material: l.Material,
				Title:    m.Title,
				From:     by(m),
				When:     wording.WhenLearned(l),
				Polished: l.Polished,
				Lasts:    wording.Lasting(l.Seconds),
			},
		)
	}
	return out
}

// GetRepertoire returns what a student has learned, and what was gone through to its end.
func (h *Handlers) GetRepertoire(ctx context.Context, r contract.GetRepertoireRequestObject) (contract.GetRepertoireResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.Repertoire{Pieces: piecesOf(s.Library, progress.Repertoire(s.Student)), Certificates: []contract.Certificate{}}
	for _, c := range progress.Certificates(s.Student) {
		out.Certificates = append(
			out.Certificates,
			contract.Certificate{Id: c.ID, Title: c.Title, Says: wording.CertificateSays(c), When: wording.DayAndYear(c.Day)},
		)
	}
	return contract.GetRepertoire200JSONResponse(out), nil
}

// file is an answer that is kept as a file.
func file(name string, data []byte) contract.FileApplicationoctetStreamResponse {
	return contract.FileApplicationoctetStreamResponse{Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.FileResponseHeaders{ContentDisposition: `attachment; filename="` + name + `"`}}
}

// GetRepertoireList returns the repertoire on paper or as a table.
func (h *Handlers) GetRepertoireList(
	ctx context.Context,
	r contract.GetRepertoireListRequestObject,
) (contract.GetRepertoireListResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	list := piecesOf(s.Library, progress.Repertoire(s.Student))
	var data []byte
	if r.Format == contract.GetRepertoireListParamsFormatCsv {
		rows := [][]string{}
		for _, l := range list {
			rows = append(rows, []string{l.Title, l.From, l.When, l.Lasts})
		}
		data, err = sheet.CSV([]string{"piece", "by or from", "learned", "lasts"}, rows)
	} else {
		out, err := h.heading(ctx, s.Of())
		if err != nil {
			return nil, err
		}
		out.Title = wording.RepertoireOf(s.Name, s.Instrument)
		rows := sheet.List{Title: wording.Capital(wording.Counted(len(list), "piece"))}
		for _, l := range list {
			rows.Rows = append(rows.Rows, sheet.Row{What: l.Title, By: l.From, When: l.When})
		}
		out.Lists = []sheet.List{rows}
		if data, err = out.PDF(); err != nil {
			return nil, err
		}
	}
	return contract.GetRepertoireList200ApplicationoctetStreamResponse{
		FileApplicationoctetStreamResponse: file("repertoire."+string(r.Format), data),
	}, err
}

// heading is an upright page with the studio's name.
func (h *Handlers) heading(ctx context.Context, s open.Studio) (sheet.Report, error) {
	teacher, err := h.Store.StudioTeacher(ctx, s.Tenant.ID)
	return sheet.Report{
		Heading:    teacher.Name + ", " + s.Tenant.Name + " · " + wording.DayAndYear(s.Today),
		Made:       h.Now(),
		Letterhead: s.Tenant.Under(),
	}, err
}

// GetCertificate returns the certificate of a book or a staircase on a page.
func (h *Handlers) GetCertificate(
	ctx context.Context,
	r contract.GetCertificateRequestObject,
) (contract.GetCertificateResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	c, earned := progress.CertificateOf(s.Student, r.Certificate)
	if !earned {
		return nil, refusal.NotFound("This was not gone through to its end yet.")
	}
	teacher, err := h.Store.StudioTeacher(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	data, err := sheet.Certificate{
		Name: s.Name,
		Says: wording.CertificateSays(c),
		What: c.Title,
		When: wording.DayAndYear(c.Day),
		By:   teacher.Name + ", " + s.Tenant.Name,
		Made: h.Now(),
	}.PDF()
	return contract.GetCertificate200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(
			data,
		), ContentLength: int64(len(data)), Headers: contract.SheetResponseHeaders{ContentDisposition: `inline; filename="certificate.pdf"`},
	}}, err
}

// GetPerformable returns every student with the pieces that could be played.
func (h *Handlers) GetPerformable(
	ctx context.Context,
	_ contract.GetPerformableRequestObject,
) (contract.GetPerformableResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	students, err := h.Students(ctx, s, "")
	out := contract.GetPerformable200JSONResponse{}
	for _, x := range students {
		if list := progress.Performable(x.Student); len(list) > 0 {
			out = append(
				out,
				contract.Performer{Ladder: x.Ladder, Name: x.Name, Instrument: contract.Instrument(x.Instrument), Pieces: piecesOf(s.Library, list)},
			)
		}
	}
	return out, err
}

// programme opens the pieces of a programme in their order.
func (h *Handlers) programme(ctx context.Context, n *contract.NewProgramme) (open.Studio, []progress.Performed, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return s, nil, err
	}
	students, err := h.Students(ctx, s, "")
	if err != nil {
		return s, nil, err
	}
	var pieces []progress.Performed
	for _, p := range n.Pieces {
		i := slices.IndexFunc(students, func(x open.Student) bool { return x.Ladder == p.Ladder })
		m, known := s.Library[p.Material]
		if i < 0 || !known {
			return s, nil, refusal.NoMaterial
		}
		pieces = append(
			pieces,
			progress.Performed{
				Ladder:   p.Ladder,
				Material: p.Material,
				Name:     students[i].Printed(),
				Age:      students[i].Age(s.Today),
				Seconds:  progress.Seconds(m),
			},
		)
	}
	if !n.KeepOrder {
		pieces = progress.InOrder(pieces)
	}
	return s, pieces, nil
}

// MakeProgramme puts a recital in order and says how long it lasts.
func (h *Handlers) MakeProgramme(ctx context.Context, r contract.MakeProgrammeRequestObject) (contract.MakeProgrammeResponseObject, error) {
	s, pieces, err := h.programme(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	seconds, unknown := progress.Lasts(pieces)
	out := contract.Programme{Sentence: wording.ProgrammeLasts(seconds, unknown, len(pieces)), Lines: []contract.ProgrammeLine{}}
	for _, p := range pieces {
		m := s.Library[p.Material]
		out.Lines = append(
			out.Lines,
			contract.ProgrammeLine{
				Ladder:   p.Ladder,
				Material: p.Material,
				Name:     p.Name,
				Title:    m.Title,
				By:       by(m),
				Lasts:    wording.Lasting(p.Seconds),
			},
		)
	}
	return contract.MakeProgramme200JSONResponse(out), nil
}

// PrintProgramme returns a programme on paper or as a table.
func (h *Handlers) PrintProgramme(
	ctx context.Context,
	r contract.PrintProgrammeRequestObject,
) (contract.PrintProgrammeResponseObject, error) {
	s, pieces, err := h.programme(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	if err := progress.CheckProgramme(r.Body.Title, pieces); err != nil {
		return nil, refusal.Because(err)
	}
	var data []byte
	if r.Format == contract.PrintProgrammeParamsFormatCsv {
		rows := [][]string{}
		for _, p := range pieces {
			m := s.Library[p.Material]
			rows = append(rows, []string{p.Name, m.Title, by(m), wording.Lasting(p.Seconds)})
		}
		data, err = sheet.CSV([]string{"who", "piece", "by or from", "lasts"}, rows)
	} else {
		out := sheet.Report{Heading: s.Tenant.Name, Title: r.Body.Title, Days: r.Body.Day, Made: h.Now(), Letterhead: s.Tenant.Under()}
		list := sheet.List{}
		for _, p := range pieces {
			m := s.Library[p.Material]
			list.Rows = append(list.Rows, sheet.Row{What: wording.Titled(m.Title, m.Composer), By: p.Name})
		}
		out.Lists = []sheet.List{list}
		data, err = out.PDF()
	}
	return contract.PrintProgramme200ApplicationoctetStreamResponse{
		FileApplicationoctetStreamResponse: file("programme."+string(r.Format), data),
	}, err
}
