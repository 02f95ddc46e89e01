package api

import (
	"bytes"
	"context"
	"crypto/sha256"
	"fmt"
	"mime"
	"sort"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	"patientladder/core/curriculum"
	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/skill"
	"patientladder/core/standing"
	"patientladder/store"
)

// sourcesOf returns the books of an instrument; "" for all.
func (s *Server) sourcesOf(ctx context.Context, studio, instrument string) ([]curriculum.Source, error) {
	list, err := s.store.Sources(ctx, studio)
	var out []curriculum.Source
	for _, src := range list {
		if instrument == "" || src.Instrument == instrument {
			out = append(out, curriculum.Source{ID: src.ID, Title: src.Title, Instrument: src.Instrument})
		}
	}
	return out, err
}

// GetLibrary returns the books of an instrument.
func (s *Server) GetLibrary(ctx context.Context, r contract.GetLibraryRequestObject) (contract.GetLibraryResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	instrument := string(r.Params.Instrument)
	sources, err := s.sourcesOf(ctx, b.studio.ID, instrument)
	if err != nil {
		return nil, err
	}
	ladders, err := s.store.Ladders(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	policy := b.studio.Way.Leap()
	out := contract.LibraryView{Books: []contractBook{}, Loose: []contract.MaterialBrief{}, Concerns: []string{}, Players: []contractPlayer{}}
	var books [][]material.Material
	count := 0
	for _, src := range sources {
		ms := curriculum.Book(b.lib, src.ID)
		books = append(books, ms)
		count += len(ms)
		book := contractBook{Id: src.ID, Title: src.Title, Materials: len(ms), Units: []string{}, Leaps: []float64{}}
		for _, l := range curriculum.Profile(ms, leap.Ability{}, policy).Lines {
			book.Leaps = append(book.Leaps, l.Leap.Size)
			if u := l.Material.Unit; u != "" && (len(book.Units) == 0 || book.Units[len(book.Units)-1] != u) {
				book.Units = append(book.Units, u)
			}
		}
		out.Books = append(out.Books, book)
	}
	var loose []material.Material
	for _, m := range curriculum.Book(b.lib, "") {
		if m.Instrument == instrument {
			loose = append(loose, m)
			out.Loose = append(out.Loose, brief(m))
		}
	}
	out.Concerns = append(out.Concerns, curriculum.Concerns(append(books, loose), b.skills, policy)...)
	for _, l := range ladders {
		if l.Instrument == instrument {
			out.Players = append(out.Players, contractPlayer{Ladder: l.ID, Name: l.Name})
		}
	}
	out.Sentence = fmt.Sprintf("%s for %s with %s, and %s of no book.", capital(counted(len(sources), "book")), instrument, counted(count, "piece"), counted(len(loose), "piece"))
	return contract.GetLibrary200JSONResponse(out), nil
}

type contractBook = struct {
	Id        contract.Id `json:"id"`
	Leaps     []float64   `json:"leaps"`
	Materials int         `json:"materials"`
	Title     string      `json:"title"`
	Units     []string    `json:"units"`
}

type contractPlayer = struct {
	Ladder contract.Id `json:"ladder"`
	Name   string      `json:"name"`
}

// player is whose leaps a book is played for.
type player struct {
	words  string
	brings leap.Ability
	policy leap.Policy
}

// player finds whom a book is for: a typical student of the studio (""), a
// beginner, or one student as of today; of students only what was cleared
// outside the given books counts.
func (s *Server) player(ctx context.Context, b book, who, instrument string, books ...string) (player, error) {
	p := player{policy: b.studio.Way.Leap()}
	switch who {
	case "beginner":
		p.words = "a beginner"
		return p, nil
	case "", "typical":
		all, err := s.shelves(ctx, b, instrument)
		if err != nil {
			return p, err
		}
		var abilities []leap.Ability
		for _, sh := range all {
			abilities = append(abilities, sh.outside(books))
		}
		p.words = fmt.Sprintf("a typical student, who brings what the middle one of %s has cleared elsewhere", counted(len(all), "student"))
		p.brings = curriculum.Typical(abilities)
		return p, nil
	}
	l, err := s.store.Ladder(ctx, b.studio.ID, who)
	if err != nil {
		return p, err
	}
	sh, err := s.open(ctx, b, l)
	if err != nil {
		return p, err
	}
	p.words, p.brings, p.policy = l.Name+", with what was cleared elsewhere", sh.outside(books), sh.policy.Leap
	return p, nil
}

// outside is what a student has cleared outside some books, and what was shown.
func (sh shelf) outside(books []string) leap.Ability {
	in := map[string]bool{}
	for _, id := range books {
		in[id] = true
	}
	a := leap.Ability{}.Copy()
	for id, e := range sh.standing.Ability.Skills {
		if e.Shown {
			a.Skills[id] = leap.Evidence{Shown: true}
		}
	}
	for _, id := range sh.standing.In(standing.Cleared, standing.Polished) {
		if m := sh.lib[id]; !in[m.SourceID] {
			a.Clear(m)
		}
	}
	return a
}

func (s *Server) source(ctx context.Context, studio, id string) (curriculum.Source, error) {
	list, err := s.sourcesOf(ctx, studio, "")
	if err != nil {
		return curriculum.Source{}, err
	}
	for _, src := range list {
		if src.ID == id {
			return src, nil
		}
	}
	return curriculum.Source{}, store.ErrNotFound
}

// GetBook returns the gradation of a book.
func (s *Server) GetBook(ctx context.Context, r contract.GetBookRequestObject) (contract.GetBookResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	src, err := s.source(ctx, b.studio.ID, r.Source)
	if err != nil {
		return nil, err
	}
	p, err := s.player(ctx, b, r.Params.For, src.Instrument, src.ID)
	if err != nil {
		return nil, err
	}
	g := curriculum.Profile(curriculum.Book(b.lib, src.ID), p.brings, p.policy)
	return contract.GetBook200JSONResponse(b.profile(src, g, p)), nil
}

func (b book) profile(src curriculum.Source, g curriculum.Gradation, p player) contract.BookProfile {
	out := contract.BookProfile{
		Source: src.ID, Title: src.Title, Player: p.words, Reach: g.Reach.Size, ReachWhy: g.Reach.Why,
		Lines: []contract.BookLine{}, Skills: []contract.SkillUse{}, Once: b.names(g.Once),
	}
	cliffs, largest, at := 0, 0.0, ""
	for i, l := range g.Lines {
		m := l.Material
		line := contract.BookLine{
			Material: m.ID, Title: m.Title, Composer: m.Composer, Unit: m.Unit, Page: m.Page, Strand: contract.Strand(m.Strand), Leap: b.leap(m, l.Leap),
			Cliff: l.Cliff, Plateau: l.Plateau, Enters: b.names(l.Enters), Again: b.names(l.Again), FocusPoints: []string{}, Tags: append([]string{}, m.Tags...),
		}
		for _, f := range m.FocusPoints {
			line.FocusPoints = append(line.FocusPoints, f.Text)
		}
		if i > 0 && l.Cliff {
			cliffs++
			if l.Leap.Size > largest {
				largest, at = l.Leap.Size, m.Title
			}
		}
		out.Lines = append(out.Lines, line)
	}
	for _, u := range g.Skills {
		out.Skills = append(out.Skills, contract.SkillUse{Skill: u.Skill, Name: b.skills.Name(u.Skill), At: u.At, Brought: u.Brought})
	}
	out.Sentence = fmt.Sprintf("%s, %s", counted(len(g.Lines), "piece"), counted(len(g.Skills), "skill"))
	switch {
	case len(g.Lines) == 0:
		out.Sentence = "There is nothing in it yet"
	case cliffs > 0:
		out.Sentence += fmt.Sprintf("; %s, the highest at “%s” (%.1f)", counted(cliffs, "cliff"), at, largest)
	default:
		out.Sentence += "; no cliff after the beginning"
	}
	if len(g.Once) > 0 {
		out.Sentence += fmt.Sprintf("; %s never repeated", counted(len(g.Once), "skill"))
	}
	out.Sentence = capital(out.Sentence) + "."
	return out
}

func (b book) names(ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = b.skills.Name(id)
	}
	return out
}

// CompareBooks lays two books side by side, and builds the path between them.
func (s *Server) CompareBooks(ctx context.Context, r contract.CompareBooksRequestObject) (contract.CompareBooksResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	x, err := s.source(ctx, b.studio.ID, r.Source)
	if err != nil {
		return nil, err
	}
	y, err := s.source(ctx, b.studio.ID, r.Other)
	if err != nil {
		return nil, err
	}
	if x.Instrument != y.Instrument {
		return nil, invalid(fmt.Sprintf("“%s” is for %s and “%s” for %s: only books of one instrument can be compared.", x.Title, x.Instrument, y.Title, y.Instrument))
	}
	if x.ID == y.ID {
		return nil, invalid("These are the same book: choose another one to compare it with.")
	}
	p, err := s.player(ctx, b, r.Params.For, x.Instrument, x.ID, y.ID)
	if err != nil {
		return nil, err
	}
	booksA, booksB := curriculum.Book(b.lib, x.ID), curriculum.Book(b.lib, y.ID)
	c := curriculum.Compare(curriculum.Profile(booksA, p.brings, p.policy), curriculum.Profile(booksB, p.brings, p.policy))
	out := contract.BookComparison{A: b.profile(x, c.A, p), B: b.profile(y, c.B, p), Shared: b.both(c.Shared), OnlyA: b.both(c.OnlyA), OnlyB: b.both(c.OnlyB), Crossed: c.Crossed, Agreement: c.Agreement}
	out.Sentence = fmt.Sprintf("%s in both, %s only in “%s”, %s only in “%s”", capital(counted(len(c.Shared), "skill")), figures(len(c.OnlyA), "skill"), x.Title, figures(len(c.OnlyB), "skill"), y.Title)
	if len(c.Shared) > 1 {
		out.Sentence += "; " + order(c.Agreement)
	}
	out.Sentence += "."
	reach := leap.Reach{Size: max(c.A.Reach.Size, c.B.Reach.Size)}
	out.Path = crossing(curriculum.Cross([][]material.Material{booksA, booksB}, p.brings, p.policy, reach), x, y)
	return contract.CompareBooks200JSONResponse(out), nil
}

// order says an agreement of two orders in words.
func order(tau float64) string {
	switch {
	case tau > 0.8:
		return "they come in nearly the same order"
	case tau > 0.4:
		return "they come in much the same order"
	case tau > -0.2:
		return "they come in quite another order"
	}
	return "they come nearly the other way round"
}

func (b book) both(list []curriculum.Both) []contract.SkillInBoth {
	out := []contract.SkillInBoth{}
	for _, x := range list {
		out = append(out, contract.SkillInBoth{Skill: x.Skill, Name: b.skills.Name(x.Skill), A: x.A, B: x.B, TimesA: x.TimesA, TimesB: x.TimesB})
	}
	return out
}

type contractStop = struct {
	Cliff    bool            `json:"cliff"`
	Leap     float64         `json:"leap"`
	Material contract.Id     `json:"material"`
	Source   contract.Id     `json:"source"`
	Strand   contract.Strand `json:"strand"`
	Title    string          `json:"title"`
	Why      string          `json:"why"`
}

func crossing(p curriculum.Path, x, y curriculum.Source) contract.BookPath {
	out := contract.BookPath{Stops: []contractStop{}, Left: []string{}, Largest: p.Largest}
	for _, s := range p.Stops {
		out.Stops = append(out.Stops, contractStop{
			Material: s.Material.ID, Title: s.Material.Title, Strand: contract.Strand(s.Material.Strand), Source: s.Material.SourceID,
			Leap: s.Leap.Size, Cliff: s.Cliff, Why: s.Why,
		})
	}
	for _, m := range p.Left {
		out.Left = append(out.Left, m.Title)
	}
	out.Sentence = fmt.Sprintf("Crossing between them the largest leap after the beginning is %.1f, instead of %.1f in “%s” and %.1f in “%s”.", p.Largest, p.Books[0], x.Title, p.Books[1], y.Title)
	return out
}

// ReadTable reads a spreadsheet and guesses its columns.
func (s *Server) ReadTable(_ context.Context, r contract.ReadTableRequestObject) (contract.ReadTableResponseObject, error) {
	t, err := curriculum.ReadTable(r.Body.Table)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	out := contract.ReadTable200JSONResponse{Rows: len(t.Rows), Fields: []string{}}
	for _, f := range curriculum.Fields() {
		out.Fields = append(out.Fields, string(f))
	}
	for i, field := range curriculum.Guess(t.Columns) {
		c := contractColumn{Name: t.Columns[i], Field: string(field), Samples: []string{}}
		for _, row := range t.Rows {
			if i < len(row) && row[i] != "" && len(c.Samples) < 3 {
				c.Samples = append(c.Samples, row[i])
			}
		}
		out.Columns = append(out.Columns, c)
	}
	return out, nil
}

type contractColumn = struct {
	Field   string   `json:"field"`
	Name    string   `json:"name"`
	Samples []string `json:"samples"`
}

type contractFault = struct {
	Column string `json:"column"`
	Line   int    `json:"line"`
	Says   string `json:"says"`
	Title  string `json:"title"`
}

// ImportCurriculum brings books in, all or nothing.
func (s *Server) ImportCurriculum(ctx context.Context, r contract.ImportCurriculumRequestObject) (contract.ImportCurriculumResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	out := contract.Imported{Sources: []contract.Id{}, Problems: []string{}, Faults: []contractFault{}}
	c, err := b.brought(r.Body, &out)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	if len(out.Problems) == 0 {
		_, out.Problems = curriculum.Check(c, b.skills)
	}
	if out.Problems == nil {
		out.Problems = []string{}
	}
	sources, materials := unpack(c)
	for _, src := range sources {
		out.Sources = append(out.Sources, src.ID)
	}
	again := []string{}
	for _, m := range materials {
		if _, there := b.lib[m.ID]; there {
			again = append(again, "“"+m.Title+"”")
		}
	}
	switch n := len(again); {
	case n > 3:
		out.Problems = append(out.Problems, fmt.Sprintf("%s and %d more are in the library already", strings.Join(again[:3], ", "), n-3))
	case n > 1:
		out.Problems = append(out.Problems, joined(again)+" are in the library already")
	case n == 1:
		out.Problems = append(out.Problems, again[0]+" is in the library already")
	}
	out.Materials, out.Skills = len(materials), len(c.Skills)
	faulty := len(out.Problems) > 0 || len(out.Faults) > 0 && !r.Body.LeaveOut
	if r.Body.Try || faulty {
		if !r.Body.Try {
			return nil, invalid(refusal(out))
		}
		return contract.ImportCurriculum200JSONResponse(out), nil
	}
	if len(materials) == 0 {
		return nil, invalid("There is nothing in it to bring in.")
	}
	out.Kept = true
	return contract.ImportCurriculum200JSONResponse(out), s.store.Import(ctx, b.studio.ID, c.Skills, sources, materials)
}

// refusal says why nothing was brought in.
func refusal(out contract.Imported) string {
	says := append([]string{}, out.Problems...)
	for _, f := range out.Faults {
		says = append(says, fmt.Sprintf("line %d: %s", f.Line, f.Says))
	}
	more := ""
	if len(says) > 3 {
		more = fmt.Sprintf(", and %d more", len(says)-3)
		says = says[:3]
	}
	return "Nothing was brought in. " + capital(strings.Join(says, "; ")) + more + "."
}

// brought reads what an import holds.
func (b book) brought(in *contract.ImportCurriculumJSONRequestBody, out *contract.Imported) (curriculum.Curriculum, error) {
	if in.Kind == contract.ImportKindJson {
		return curriculum.Read(in.Data)
	}
	t, err := curriculum.ReadTable(in.Data)
	if err != nil {
		return curriculum.Curriculum{}, err
	}
	switch {
	case strings.TrimSpace(in.Title) == "":
		return curriculum.Curriculum{}, fmt.Errorf("the book needs a title")
	case in.Source == "":
		return curriculum.Curriculum{}, fmt.Errorf("the book needs an id")
	case len(in.Fields) != len(t.Columns):
		return curriculum.Curriculum{}, fmt.Errorf("the table has %d columns, and %d are matched", len(t.Columns), len(in.Fields))
	}
	fields := make([]curriculum.Field, len(in.Fields))
	for i, f := range in.Fields {
		fields[i] = curriculum.Field(f)
	}
	strand := material.Strand(in.Strand)
	if strand == "" {
		strand = material.Method
	}
	ms, faults, err := t.Materials(fields, strand, b.skills)
	if err != nil {
		return curriculum.Curriculum{}, err
	}
	for _, f := range faults {
		out.Faults = append(out.Faults, contractFault{Line: f.Line, Column: f.Column, Title: f.Title, Says: f.Says})
	}
	for i := range ms {
		ms[i].ID = fmt.Sprint("row ", i+1)
	}
	return curriculum.Curriculum{Sources: []curriculum.Source{{ID: in.Source, Title: strings.TrimSpace(in.Title), Instrument: string(in.Instrument), Materials: ms}}}, nil
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
				ID: idOf(m.ID, src.ID), Title: m.Title, Composer: m.Composer, Strand: m.Strand, Instrument: src.Instrument, SourceID: id, Source: src.Title,
				Unit: m.Unit, Page: m.Page, Order: i + 1, Tempo: m.Tempo, Bars: m.Bars, DistinctBars: m.DistinctBars, Texture: m.Texture, Tags: m.Tags,
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
func (s *Server) ExportCurriculum(ctx context.Context, r contract.ExportCurriculumRequestObject) (contract.ExportCurriculumResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	sources, err := s.sourcesOf(ctx, b.studio.ID, "")
	if err != nil {
		return nil, err
	}
	name := "curriculum"
	if r.Params.Source != "" {
		src, err := s.source(ctx, b.studio.ID, r.Params.Source)
		if err != nil {
			return nil, err
		}
		sources, name = []curriculum.Source{src}, src.Title
	} else {
		sources = append(sources, loose(b.lib)...)
	}
	own, err := s.store.Skills(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	c := curriculum.Of(b.lib, sources, used(own, b, sources))
	var data []byte
	switch {
	case r.Params.Format == contract.ExportCurriculumParamsFormatJson:
		data, err = curriculum.Write(c)
	case r.Params.Source == "":
		return nil, invalid("Choose the book that the table is for.")
	default:
		data, err = curriculum.WriteTable(c.Sources[0])
	}
	if err != nil {
		return nil, err
	}
	return contract.ExportCurriculum200ApplicationoctetStreamResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.ExportCurriculum200ResponseHeaders{ContentDisposition: mime.FormatMediaType("attachment", map[string]string{"filename": name + "." + string(r.Params.Format)})},
	}, nil
}

// loose is a source without a title for each instrument that has pieces of no book.
func loose(lib material.Library) []curriculum.Source {
	has := map[string]bool{}
	for _, m := range lib {
		if m.SourceID == "" {
			has[m.Instrument] = true
		}
	}
	var out []curriculum.Source
	for instrument := range has {
		out = append(out, curriculum.Source{Instrument: instrument})
	}
	sort.Slice(out, func(a, b int) bool { return out[a].Instrument < out[b].Instrument })
	return out
}

// used are the studio's own skills, all of them when everything is written.
func used(own []skill.Skill, b book, sources []curriculum.Source) []skill.Skill {
	if len(sources) != 1 {
		return own
	}
	asked := map[string]bool{}
	for _, m := range curriculum.Book(b.lib, sources[0].ID) {
		for _, d := range m.Demands {
			asked[d.Skill] = true
			for _, id := range b.skills.Beneath(d.Skill) {
				asked[id] = true
			}
		}
	}
	var out []skill.Skill
	for _, s := range own {
		if asked[s.ID] {
			out = append(out, s)
		}
	}
	return out
}
