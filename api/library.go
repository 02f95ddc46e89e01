package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
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
	for _, m := range b.lib {
		if m.Exercise != "" && m.Instrument == instrument {
			out.Loose = append(out.Loose, brief(m))
		}
	}
	slices.SortStableFunc(out.Loose, func(x, y contract.MaterialBrief) int { return cmp.Compare(x.Exercise, y.Exercise) })
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
