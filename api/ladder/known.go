package ladder

import (
	"context"
	"slices"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/library/titles"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/placing"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
	"patientladder/store"
)

// GetKnown returns what a student could have known before.
func (h *Handlers) GetKnown(ctx context.Context, r contract.GetKnownRequestObject) (contract.GetKnownResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	books, err := h.Books(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	batches, err := h.Store.Batches(ctx, s.Tenant.ID, s.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.KnownSheet{
		Student: answer.Student(s.Row, s.Today),
		Books:   []contract.KnownBook{},
		Keys:    []contract.KnownChoice{},
		Skills:  []contract.KnownFamily{},
		Entered: []contract.Batch{},
	}
	for _, b := range books {
		book := contract.KnownBook{Id: b.ID, Title: b.Title, Pieces: []contract.KnownChoice{}}
		for _, id := range placing.UpTo(s.Student, b.ID, "") {
			book.Pieces = append(book.Pieces, contract.KnownChoice{Id: id, Name: s.Library[id].Title, Known: s.Begun(id)})
		}
		if len(book.Pieces) > 0 {
			out.Books = append(out.Books, book)
		}
	}
	for _, e := range intechnique.KeysKnown(s.Student) {
		out.Keys = append(out.Keys, contract.KnownChoice{Id: e.ID(), Name: e.PlaceName(s.Words), Known: s.Begun(drill.ID(e))})
	}
	for _, f := range placing.SkillFamilies(s.Student) {
		family := contract.KnownFamily{Name: wording.Capital(string(f.Family)), Skills: []contract.KnownChoice{}}
		for _, x := range f.Skills {
			family.Skills = append(family.Skills, contract.KnownChoice{Id: x.ID, Name: x.Name, Known: placing.Secure(s.Student, x.ID)})
		}
		out.Skills = append(out.Skills, family)
	}
	for _, b := range batches {
		out.Entered = append(
			out.Entered,
			contract.Batch{Id: b.ID, At: b.MadeAt, Words: wording.KnownBatch(len(b.Entries), len(b.Rungs), s.Local(b.MadeAt))},
		)
	}
	return contract.GetKnown200JSONResponse(out), nil
}

// known is what is entered as one batch.
type known struct {
	list      []placing.Known
	materials []material.Material
	rungs     []ladder.Placed
}

// known makes a batch of what was ticked and typed.
func (h *Handlers) known(s open.Student, n *contract.NewKnown) (known, error) {
	var out known
	for _, x := range n.UpTo {
		pieces := placing.UpTo(s.Student, x.Book, x.Last)
		if len(pieces) == 0 {
			return out, refusal.NoMaterial
		}
		for _, id := range pieces {
			out.list = append(out.list, placing.Known{Material: id, When: placing.Rough(x.When)})
		}
		if x.Ladder {
			out.rungs = append(out.rungs, placing.RestAfter(s.Student, x.Book, x.Last)...)
		}
	}
	for _, x := range n.Pieces {
		m, there := s.Library[x.Material]
		if !there {
			return out, refusal.NoMaterial
		}
		if m.Instrument != s.Instrument {
			return out, refusal.Invalid(wording.OtherInstrument(m.Title, m.Instrument, s.Instrument))
		}
		out.list = append(out.list, placing.Known{Material: m.ID, When: placing.Rough(x.When)})
	}
	for _, x := range n.Titles {
		m := ByTitle(x.Id, x.Title, material.Repertoire, s.Instrument)
		out.materials = append(out.materials, m)
		out.list = append(out.list, placing.Known{Material: m.ID, When: placing.Rough(x.When)})
	}
	for _, x := range n.Keys {
		e, err := exercise.Parse(x.Exercise, s.OnInstrument())
		if err != nil {
			return out, refusal.Because(err)
		}
		id := drill.ID(e)
		if _, there := s.Library[id]; !there && !slices.ContainsFunc(out.materials, func(m material.Material) bool { return m.ID == id }) {
			d, err := drill.Of(e, s.Words, h.Demands)
			if err != nil {
				return out, err
			}
			out.materials = append(out.materials, d.Material)
		}
		out.list = append(out.list, placing.Known{Material: id, When: placing.Rough(x.When)})
	}
	for _, x := range n.Skills {
		if _, there := s.Skills.Get(x.Skill); !there {
			return out, refusal.Invalid("There is no skill " + wording.Quoted(x.Skill) + " in the catalogue.")
		}
		out.list = append(out.list, placing.Known{Skill: x.Skill, When: placing.Rough(x.When)})
	}
	return out, nil
}

// ByTitle is a piece of which nothing but the title is known.
func ByTitle(id, title string, strand material.Strand, instrument string) material.Material {
	m := material.Material{ID: id, Title: material.Short(strings.TrimSpace(title)), Strand: strand, Instrument: instrument}
	for _, text := range material.UsualFocus(instrument) {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: ulid.Make().String(), Text: text})
	}
	return m
}

// EnterKnown enters what was known before as one batch; with try it only says what that would change.
func (h *Handlers) EnterKnown(ctx context.Context, r contract.EnterKnownRequestObject) (contract.EnterKnownResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Near: true})
	if err != nil {
		return nil, err
	}
	s := a.Opened
	k, err := h.known(s, r.Body)
	if err != nil {
		return nil, err
	}
	return entered(Entered{ID: r.Body.Batch, Known: k.list, Materials: k.materials, Rungs: k.rungs}.Into(ctx, h.Loader, a, r.Params.Try))
}

func entered(out contract.KnownEffect, err error) (contract.EnterKnownResponseObject, error) {
	return contract.EnterKnown200JSONResponse(out), err
}

// Entered is what is entered as known before, as one batch that can be taken back.
type Entered struct {
	ID        string
	Known     []placing.Known
	Materials []material.Material
	Rungs     []ladder.Placed
}

// Into says what a batch changes for a student, and keeps it unless it is only tried.
func (b Entered) Into(ctx context.Context, d *open.Loader, a open.Ahead, try bool) (contract.KnownEffect, error) {
	s := a.Opened
	entries := placing.Entries(s.Student, b.Known, open.Actor(ctx).Teacher, func() string { return ulid.Make().String() })
	log, err := d.Log(ctx, s)
	if err != nil {
		return contract.KnownEffect{}, err
	}
	then := placing.With(s.Student, log, entries, b.Materials)
	rungs := ladder.Missing(a.Placed, b.Rungs)
	placed := append(slices.Clone(a.Placed), rungs...)
	effect := placing.EffectOf(s.Student, then, placing.NextRungs(s.Student, a.Placed), placing.NextRungs(then, placed))
	out := contract.KnownEffect{
		Words:   s.Of().Names().KnownEffect(effect, len(entries), len(b.Materials), len(rungs)),
		Pieces:  len(effect.Pieces),
		Skills:  len(effect.Skills),
		Entries: len(entries),
	}
	if try {
		return out, nil
	}
	if len(entries) == 0 && len(rungs) == 0 {
		return out, refusal.Invalid("Nothing new is chosen. Tick what the student could do before, or paste a list.")
	}
	return out, d.Store.AddBatch(
		ctx,
		s.Tenant.ID,
		s.Ladder,
		store.NewBatch{ID: b.ID, MadeAt: s.Now, Entries: entries, Rungs: rungs, Materials: b.Materials},
	)
}

// UndoBatch takes a batch back.
func (h *Handlers) UndoBatch(ctx context.Context, r contract.UndoBatchRequestObject) (contract.UndoBatchResponseObject, error) {
	who := open.Actor(ctx)
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	at := h.Now()
	err := h.Store.UndoBatch(
		ctx,
		who.Studio,
		r.Ladder,
		r.Batch,
		at,
		func(entry string) studentlog.Entry { return studentlog.Undo(entry, who.Teacher, at) },
	)
	return contract.UndoBatch204Response{}, err
}

// MatchTitles finds what the lines of a list mean.
func (h *Handlers) MatchTitles(ctx context.Context, r contract.MatchTitlesRequestObject) (contract.MatchTitlesResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	lines := titles.Read(r.Body.Text)
	if len(lines) == 0 {
		return nil, refusal.Invalid("There is no title in it. Write or paste one title a line.")
	}
	if len(lines) > mostLines {
		return nil, refusal.Invalid(wording.TooManyLines(len(lines), mostLines))
	}
	out := contract.TitlesMatched{Lines: []contract.TitleMatch{}}
	matches := placing.Match(s.Student, lines)
	for i, m := range matches {
		line := contract.TitleMatch{Line: material.Short(m.Line), Material: m.Best.ID, Sure: m.Sure}
		if m.Best.ID != "" {
			line.Title = s.Library[m.Best.ID].Title
		}
		if day, said := lines[i].When(s.Today); said {
			line.When = contract.Rough(placing.RoughOf(day, s.Today))
		}
		out.Lines = append(out.Lines, line)
	}
	out.Sentence = wording.Matched(matches)
	return contract.MatchTitles200JSONResponse(out), nil
}

// mostLines is how many lines a pasted list may have.
const mostLines = 500

// FindForLadder finds what a ladder could get.
func (h *Handlers) FindForLadder(ctx context.Context, r contract.FindForLadderRequestObject) (contract.FindForLadderResponseObject, error) {
	s, placed, err := h.placed(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	books, err := h.Books(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	on := map[string]bool{}
	for _, p := range placed {
		on[p.Material] = true
	}
	out := contract.FindForLadder200JSONResponse{}
	for _, f := range intechnique.Find(s.Student, r.Params.Q, books, on) {
		x := contract.FoundForLadder{Kind: contract.FoundForLadderKind(f.Kind), Id: f.ID, Title: f.Title, OnLadder: f.OnLadder}
		switch f.Kind {
		case intechnique.FoundPiece:
			x.From = answer.From(f.Material)
		case intechnique.FoundBook:
			x.From = wording.Counted(f.Pieces, "piece")
		}
		out = append(out, x)
	}
	return out, nil
}

// PlaceBook puts what was not begun of a book onto a ladder, from a piece on.
func (h *Handlers) PlaceBook(ctx context.Context, r contract.PlaceBookRequestObject) (contract.PlaceBookResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	rungs := placing.RestFrom(s.Student, r.Source, r.Params.From)
	if len(rungs) == 0 {
		return nil, refusal.Invalid("There is nothing in this book that the student has not begun already.")
	}
	return contract.PlaceBook200JSONResponse{Placed: len(rungs)}, h.Store.PlaceRungs(ctx, s.Tenant.ID, s.Ladder, rungs)
}
