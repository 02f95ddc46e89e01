package progress

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"path"
	"slices"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/wording"
	"patientladder/store"
)

// ExportStudent returns everything that is kept about a student: the tables as JSON, the scores of the pieces on the ladders,
// and the reports that were published.
func (h *Handlers) ExportStudent(ctx context.Context, r contract.ExportStudentRequestObject) (contract.ExportStudentResponseObject, error) {
	who := open.Actor(ctx)
	person, _, err := h.Person(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	add := func(name string, write func(io.Writer) error) error {
		w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: h.Now()})
		if err != nil {
			return err
		}
		return write(w)
	}
	if err := add("student.json", func(w io.Writer) error { return h.Store.ExportStudent(ctx, who.Studio, person.ID, w, h.Now()) }); err != nil {
		return nil, err
	}
	ladders, err := h.Openable(ctx, person.ID)
	if err != nil {
		return nil, err
	}
	for _, l := range ladders {
		if err := h.addScores(ctx, l.ID, add); err != nil {
			return nil, err
		}
		if err := h.addReports(ctx, who.Studio, l.ID, add); err != nil {
			return nil, err
		}
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	if err := h.Store.Audit(ctx, who.Studio, store.Audited{At: h.Now(), Kind: "student-exported", Teacher: who.Teacher}); err != nil {
		return nil, err
	}
	name := "student-" + h.Now().UTC().Format(time.DateOnly) + ".zip"
	return contract.ExportStudent200ApplicationoctetStreamResponse{
		FileApplicationoctetStreamResponse: contract.FileApplicationoctetStreamResponse{
			Body: &out, ContentLength: int64(out.Len()), Headers: contract.FileResponseHeaders{ContentDisposition: `attachment; filename="` + name + `"`},
		},
	}, nil
}

type addFile func(name string, write func(io.Writer) error) error

// addScores adds the scores of everything that the student has had in work.
func (h *Handlers) addScores(ctx context.Context, ladder string, add addFile) error {
	s, err := h.Student(ctx, ladder)
	if err != nil {
		return err
	}
	for _, id := range slices.Sorted(maps.Keys(s.Standing.Materials)) {
		file, err := h.Store.ScoreFile(ctx, s.Tenant.ID, id)
		if errors.Is(err, store.ErrNotFound) {
			continue // nobody brought one
		}
		if err != nil {
			return err
		}
		err = add(
			fmt.Sprintf("scores/%s %s%s", wording.FileName(s.Library[id].Title), id[max(0, len(id)-4):], strings.ToLower(path.Ext(file.Name))),
			func(w io.Writer) error {
				_, err := w.Write(file.Data)
				return err
			},
		)
		if err != nil {
			return err
		}
	}
	return nil
}

// addReports adds the reports that were published, as they are printed.
func (h *Handlers) addReports(ctx context.Context, studio, ladder string, add addFile) error {
	list, err := h.Store.Reports(ctx, studio, ladder)
	if err != nil {
		return err
	}
	for _, x := range list {
		if x.PublishedAt.IsZero() {
			continue
		}
		rep, err := h.report(ctx, ladder, x.ID)
		if err != nil {
			return err
		}
		pdf, err := h.printed(ctx, rep)
		if err != nil {
			return err
		}
		err = add(fmt.Sprintf("reports/%s %s.pdf", x.PublishedAt.UTC().Format(time.DateOnly), x.ID[len(x.ID)-4:]), func(w io.Writer) error {
			_, err := w.Write(pdf)
			return err
		})
		if err != nil {
			return err
		}
	}
	return nil
}
