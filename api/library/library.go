package library

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/proposing"
	"patientladder/core/student/leap"
	"patientladder/core/wording"
	"patientladder/store"
)

// sourcesOf returns the books of an instrument; "" for all.
func (h *Handlers) sourcesOf(ctx context.Context, studio, instrument string) ([]curriculum.Source, error) {
	list, err := h.Store.Sources(ctx, studio)
	var out []curriculum.Source
	for _, src := range list {
		if instrument == "" || src.Instrument == instrument {
			out = append(
				out,
				curriculum.Source{ID: src.ID, Title: src.Title, Instrument: src.Instrument, Retired: src.Retired, Requires: src.Requires},
			)
		}
	}
	return out, err
}

// GetLibrary returns the books of an instrument.
func (h *Handlers) GetLibrary(ctx context.Context, r contract.GetLibraryRequestObject) (contract.GetLibraryResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	instrument := string(r.Params.Instrument)
	sources, err := h.sourcesOf(ctx, b.Tenant.ID, instrument)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	policy := b.Tenant.Way.Leap()
	out := contract.LibraryView{
		Books:    []contract.BookBrief{},
		Loose:    []contract.MaterialBrief{},
		Concerns: []string{},
		Players:  []contract.BookPlayer{},
	}
	var books [][]material.Material
	count := 0
	for _, src := range curriculum.ToldApart(sources) {
		ms := curriculum.Book(b.Library, src.ID)
		books = append(books, ms)
		count += len(ms)
		book := contract.BookBrief{
			Id:        src.ID,
			Title:     src.Title,
			Retired:   src.Retired,
			Materials: len(ms),
			Units:     append([]string{}, curriculum.Units(ms)...),
			Leaps:     []float64{},
		}
		for _, l := range curriculum.Profile(ms, leap.Ability{}, policy).Lines {
			book.Leaps = append(book.Leaps, l.Leap.Size)
		}
		out.Books = append(out.Books, book)
	}
	var loose []material.Material
	for _, m := range curriculum.Book(b.Library, "") {
		if m.Instrument == instrument {
			loose = append(loose, m)
		}
	}
	material.ByDifficulty(loose)
	for _, m := range loose {
		out.Loose = append(out.Loose, answer.Brief(m))
	}
	for _, m := range b.Library {
		if m.Exercise != "" && m.Instrument == instrument {
			out.Loose = append(out.Loose, answer.Brief(m))
		}
	}
	slices.SortStableFunc(out.Loose, func(x, y contract.MaterialBrief) int { return cmp.Compare(x.Exercise, y.Exercise) })
	out.Concerns = append(out.Concerns, curriculum.Concerns(append(books, loose), b.Skills, policy)...)
	for _, l := range ladders {
		if l.Instrument == instrument {
			out.Players = append(out.Players, contract.BookPlayer{Ladder: l.ID, Name: l.Name})
		}
	}
	out.Sentence = wording.Library(instrument, len(sources), count, len(loose))
	return contract.GetLibrary200JSONResponse(out), nil
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
func (h *Handlers) player(ctx context.Context, b open.Studio, who, instrument string, books ...string) (player, error) {
	p := player{policy: b.Tenant.Way.Leap()}
	switch who {
	case "beginner":
		p.words = "a beginner"
		return p, nil
	case "", "typical":
		all, err := h.Students(ctx, b, instrument)
		if err != nil {
			return p, err
		}
		var abilities []leap.Ability
		for _, sh := range all {
			abilities = append(abilities, proposing.Outside(sh.Student, books))
		}
		p.words = wording.TypicalPlayer(len(all))
		p.brings = curriculum.Typical(abilities)
		return p, nil
	}
	l, err := h.Ladder(ctx, who)
	if err != nil {
		return p, err
	}
	sh, err := h.Open(ctx, b, l)
	if err != nil {
		return p, err
	}
	p.words, p.brings, p.policy = l.Name+", with what was cleared elsewhere", proposing.Outside(sh.Student, books), sh.Policy.Standing.Leap
	return p, nil
}

func (h *Handlers) source(ctx context.Context, studio, id string) (curriculum.Source, error) {
	list, err := h.sourcesOf(ctx, studio, "")
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
func (h *Handlers) GetBook(ctx context.Context, r contract.GetBookRequestObject) (contract.GetBookResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	src, err := h.source(ctx, b.Tenant.ID, r.Source)
	if err != nil {
		return nil, err
	}
	p, err := h.player(ctx, b, r.Params.For, src.Instrument, src.ID)
	if err != nil {
		return nil, err
	}
	g := curriculum.Profile(curriculum.Book(b.Library, src.ID), p.brings, p.policy)
	return contract.GetBook200JSONResponse(profile(b, src, g, p)), nil
}

func profile(b open.Studio, src curriculum.Source, g curriculum.Gradation, p player) contract.BookProfile {
	out := contract.BookProfile{
		Source: src.ID, Title: src.Title, Player: p.words, Reach: g.Reach.Size, ReachWhy: wording.Reach(g.Reach), Sentence: wording.Book(g),
		Lines: []contract.BookLine{}, Skills: []contract.SkillUse{}, Once: names(b, g.Once),
	}
	for _, l := range g.Lines {
		m := l.Material
		line := contract.BookLine{
			Material: m.ID, Title: m.Title, Composer: m.Composer, Unit: m.Unit, Page: m.Page, Strand: contract.Strand(m.Strand),
			Leap:  answer.Leap(b.Names(), m, l.Leap, p.policy.SecureAfter),
			Cliff: l.Cliff, Plateau: l.Plateau, Enters: names(b, l.Enters), Again: names(b, l.Again), FocusPoints: []string{},
			Tags: append([]string{}, m.Tags...),
		}
		for _, f := range m.FocusPoints {
			line.FocusPoints = append(line.FocusPoints, f.Text)
		}
		out.Lines = append(out.Lines, line)
	}
	for _, u := range g.Skills {
		out.Skills = append(out.Skills, contract.SkillUse{Skill: u.Skill, Name: b.Skills.Name(u.Skill), At: u.At, Brought: u.Brought})
	}
	return out
}

func names(b open.Studio, ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		out[i] = b.Skills.Name(id)
	}
	return out
}

// CompareBooks lays two books side by side, and builds the path between them.
func (h *Handlers) CompareBooks(ctx context.Context, r contract.CompareBooksRequestObject) (contract.CompareBooksResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	x, err := h.source(ctx, b.Tenant.ID, r.Source)
	if err != nil {
		return nil, err
	}
	y, err := h.source(ctx, b.Tenant.ID, r.Other)
	if err != nil {
		return nil, err
	}
	if x.Instrument != y.Instrument {
		return nil, refusal.Invalid(
			fmt.Sprintf(
				"“%s” is for %s and “%s” for %s: only books of one instrument can be compared.",
				x.Title,
				x.Instrument,
				y.Title,
				y.Instrument,
			),
		)
	}
	if x.ID == y.ID {
		return nil, refusal.Invalid("These are the same book: choose another one to compare it with.")
	}
	p, err := h.player(ctx, b, r.Params.For, x.Instrument, x.ID, y.ID)
	if err != nil {
		return nil, err
	}
	booksA, booksB := curriculum.Book(b.Library, x.ID), curriculum.Book(b.Library, y.ID)
	c := curriculum.Compare(curriculum.Profile(booksA, p.brings, p.policy), curriculum.Profile(booksB, p.brings, p.policy))
	out := contract.BookComparison{
		A:         profile(b, x, c.A, p),
		B:         profile(b, y, c.B, p),
		Shared:    both(b, c.Shared),
		OnlyA:     both(b, c.OnlyA),
		OnlyB:     both(b, c.OnlyB),
		Crossed:   c.Crossed,
		Agreement: c.Agreement,
	}
	out.Sentence = wording.Compared(c, x.Title, y.Title)
	reach := leap.Reach{Size: max(c.A.Reach.Size, c.B.Reach.Size)}
	out.Path = crossing(curriculum.Cross([][]material.Material{booksA, booksB}, p.brings, p.policy, reach), x, y)
	return contract.CompareBooks200JSONResponse(out), nil
}

func both(b open.Studio, list []curriculum.Both) []contract.SkillInBoth {
	out := []contract.SkillInBoth{}
	for _, x := range list {
		out = append(out, contract.SkillInBoth{Skill: x.Skill, Name: b.Skills.Name(x.Skill), A: x.A, B: x.B, TimesA: x.TimesA, TimesB: x.TimesB})
	}
	return out
}

func crossing(p curriculum.Path, x, y curriculum.Source) contract.BookPath {
	out := contract.BookPath{Stops: []contract.PathStop{}, Left: []string{}, Largest: p.Largest}
	for _, s := range p.Stops {
		out.Stops = append(out.Stops, contract.PathStop{
			Material: s.Material.ID, Title: s.Material.Title, Strand: contract.Strand(s.Material.Strand), Source: s.Material.SourceID,
			Leap: s.Leap.Size, Cliff: s.Cliff, Why: wording.Stop(s, p.Reach.Size),
		})
	}
	for _, m := range p.Left {
		out.Left = append(out.Left, m.Title)
	}
	out.Sentence = fmt.Sprintf(
		"Crossing between them the largest leap after the beginning is %.1f, instead of %.1f in “%s” and %.1f in “%s”.",
		p.Largest,
		p.Books[0],
		x.Title,
		p.Books[1],
		y.Title,
	)
	return out
}
