package library

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"maps"
	"mime"
	"slices"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/wording"
	"patientladder/store"
)

// ReadTable reads a spreadsheet and guesses its columns.
func (h *Handlers) ReadTable(_ context.Context, r contract.ReadTableRequestObject) (contract.ReadTableResponseObject, error) {
	t, err := curriculum.ReadTable(r.Body.Table)
	if err != nil {
		return nil, refusal.Because(err)
	}
	out := contract.ReadTable200JSONResponse{Rows: len(t.Rows), Fields: []string{}}
	for _, f := range curriculum.Fields() {
		out.Fields = append(out.Fields, string(f))
	}
	for i, field := range curriculum.Guess(t.Columns) {
		out.Columns = append(out.Columns, contractColumn{Name: t.Columns[i], Field: string(field), Samples: t.Samples(i)})
	}
	return out, nil
}

type contractColumn = struct {
	Field   string   `json:"field"`
	Name    string   `json:"name"`
	Samples []string `json:"samples"`
}

// ImportCurriculum brings books in, all or nothing.
func (h *Handlers) ImportCurriculum(
	ctx context.Context,
	r contract.ImportCurriculumRequestObject,
) (contract.ImportCurriculumResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	out := contract.Imported{
		Sources:  []contract.Id{},
		Problems: []string{},
		Faults:   []contract.TableFault{},
		Notes:    []contract.TableFault{},
		Words:    []contract.SpokenWord{},
	}
	var pairs [][2]string
	for _, w := range r.Body.Words {
		pairs = append(pairs, [2]string{w.Word, w.Skill})
	}
	said, err := curriculum.Said(pairs, b.Skills)
	if err != nil {
		return nil, refusal.Because(err)
	}
	words, err := h.Store.SkillWords(ctx, b.Tenant.ID)
	if err != nil {
		return nil, err
	}
	maps.Copy(words, said)
	c, err := brought(b, r.Body, words, &out)
	if err != nil {
		return nil, refusal.Because(err)
	}
	if len(out.Problems) == 0 {
		_, out.Problems = curriculum.Check(c, b.Skills)
	}
	if out.Problems == nil {
		out.Problems = []string{}
	}
	sources, materials := unpack(c)
	for _, src := range sources {
		out.Sources = append(out.Sources, src.ID)
	}
	var again []string
	for _, m := range materials {
		if _, there := b.Library[m.ID]; there {
			again = append(again, m.Title)
		}
	}
	if len(again) > 0 {
		out.Problems = append(out.Problems, wording.InLibrary(again))
	}
	out.Materials, out.Skills = len(materials), len(c.Skills)
	faulty := len(out.Problems) > 0 || len(out.Faults) > 0 && !r.Body.LeaveOut
	if r.Body.Try || faulty {
		if !r.Body.Try {
			says := slices.Clone(out.Problems)
			for _, f := range out.Faults {
				says = append(says, fmt.Sprintf("line %d: %s", f.Line, f.Says))
			}
			return nil, refusal.Invalid(wording.NotImported(says))
		}
		return contract.ImportCurriculum200JSONResponse(out), nil
	}
	out.Kept = true
	return contract.ImportCurriculum200JSONResponse(out), app.BringIn(ctx, h.Loader, b.Tenant.ID, app.Brought{
		Words: said, Skills: c.Skills, Sources: sources, Materials: materials,
	})
}

// brought reads what an import holds.
func brought(
	b open.Studio,
	in *contract.ImportCurriculumJSONRequestBody,
	words curriculum.Words,
	out *contract.Imported,
) (curriculum.Curriculum, error) {
	if in.Kind == contract.ImportKindJson {
		return curriculum.Read(in.Data)
	}
	t, fields, err := tableOf(in)
	if err != nil {
		return curriculum.Curriculum{}, err
	}
	switch {
	case strings.TrimSpace(in.Title) == "":
		return curriculum.Curriculum{}, fmt.Errorf("the book needs a title")
	case in.Source == "":
		return curriculum.Curriculum{}, fmt.Errorf("the book needs an id")
	case len(fields) != len(t.Columns):
		return curriculum.Curriculum{}, fmt.Errorf("the table has %d columns, and %d are matched", len(t.Columns), len(fields))
	}
	strand := material.Strand(in.Strand)
	if strand == "" {
		strand = material.Method
	}
	ms, faults, spoken, err := t.Materials(fields, strand, b.Skills, words)
	if err != nil {
		return curriculum.Curriculum{}, err
	}
	for _, w := range spoken {
		out.Words = append(out.Words, contract.SpokenWord{Word: w.Word, Skill: w.Skill, Open: w.Open, Rows: w.Rows})
	}
	for _, f := range faults {
		told := contract.TableFault{Line: f.Line, Column: f.Column, Title: f.Title, Says: f.Says}
		if f.Kept {
			out.Notes = append(out.Notes, told)
		} else {
			out.Faults = append(out.Faults, told)
		}
	}
	for i := range ms {
		ms[i].ID = fmt.Sprint("row ", i+1)
	}
	return curriculum.Curriculum{
		Sources: []curriculum.Source{{ID: in.Source, Title: strings.TrimSpace(in.Title), Instrument: string(in.Instrument), Materials: ms}},
	}, nil
}

// tableOf reads a table, or the lines of a list as one, with what each column holds.
func tableOf(in *contract.ImportCurriculumJSONRequestBody) (curriculum.Table, []curriculum.Field, error) {
	if in.Kind == contract.ImportKindList {
		t, fields := curriculum.Listed(string(in.Data))
		if len(t.Rows) == 0 {
			return t, nil, errors.New("there is no title in the list")
		}
		if len(t.Rows) > curriculum.MostMaterials {
			return t, nil, fmt.Errorf("the list has more than %d titles", curriculum.MostMaterials)
		}
		return t, fields, nil
	}
	t, err := curriculum.ReadTable(in.Data)
	fields := make([]curriculum.Field, len(in.Fields))
	for i, f := range in.Fields {
		fields[i] = curriculum.Field(f)
	}
	return t, fields, err
}

// unpack turns a curriculum into rows of the library. Ids of this program stay;
// others become ids that the same curriculum always gets, so that bringing it in
// twice is noticed.
func unpack(c curriculum.Curriculum) (sources []store.Source, out []material.Material) {
	for _, src := range c.Sources {
		id := ""
		if src.Title != "" {
			id = idOf(src.ID)
			sources = append(sources, store.Source{ID: id, Title: src.Title, Instrument: src.Instrument})
		}
		for i, m := range src.Materials {
			row := material.Material{
				ID: idOf(m.ID, src.ID), Title: m.Title, Composer: m.Composer, Strand: m.Strand, Instrument: src.Instrument, SourceID: id,
				Source: src.Title,
				Unit:   m.Unit, Page: m.Page, Order: i + 1, Tempo: m.Tempo, Bars: m.Bars, DistinctBars: m.DistinctBars, Texture: m.Texture,
				Tags: m.Tags,
			}
			if row.Texture == "" {
				row.Texture = material.OneLine
			}
			for _, d := range m.Demands {
				d.Origin = "teacher" // there is no score here in which a rule could have found it
				row.Demands = append(row.Demands, d)
			}
			points := m.FocusPoints
			if len(points) == 0 {
				points = material.UsualFocus(src.Instrument)
			}
			for k, text := range points {
				row.FocusPoints = append(row.FocusPoints, material.FocusPoint{ID: idOf(fmt.Sprint("focus ", k), row.ID), Text: text})
			}
			out = append(out, row)
		}
	}
	return sources, out
}

// idOf keeps an id of this program's form, and makes one from any other.
func idOf(id string, within ...string) string {
	if _, err := ulid.ParseStrict(id); err == nil {
		return id
	}
	sum := sha256.Sum256([]byte(strings.Join(append(within, id), "\x00")))
	var u ulid.ULID
	copy(u[:], sum[:])
	u[0] &= 0x7f
	return u.String()
}

// ExportCurriculum writes the library, or one book, as a file.
func (h *Handlers) ExportCurriculum(
	ctx context.Context,
	r contract.ExportCurriculumRequestObject,
) (contract.ExportCurriculumResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	sources, err := h.sourcesOf(ctx, b.Tenant.ID, "")
	if err != nil {
		return nil, err
	}
	name := "curriculum"
	if r.Params.Source != "" {
		src, err := h.source(ctx, b.Tenant.ID, r.Params.Source)
		if err != nil {
			return nil, err
		}
		sources, name = []curriculum.Source{src}, src.Title
	} else {
		sources = append(sources, curriculum.Loose(b.AsKept())...)
	}
	own, err := h.Store.Skills(ctx, b.Tenant.ID)
	if err != nil {
		return nil, err
	}
	if r.Params.Source != "" { // everything goes out with all of them
		own = curriculum.Needed(own, curriculum.Book(b.Library, r.Params.Source), b.Skills)
	}
	c := curriculum.Of(b.AsKept(), sources, own)
	var data []byte
	switch {
	case r.Params.Format == contract.ExportCurriculumParamsFormatJson:
		data, err = curriculum.Write(c)
	case r.Params.Source == "":
		return nil, refusal.Invalid("Choose the book that the table is for.")
	default:
		data, err = curriculum.WriteTable(c.Sources[0])
	}
	if err != nil {
		return nil, err
	}
	return contract.ExportCurriculum200ApplicationoctetStreamResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.ExportCurriculum200ResponseHeaders{
			ContentDisposition: mime.FormatMediaType("attachment", map[string]string{"filename": name + "." + string(r.Params.Format)}),
		},
	}, nil
}
