package library

import (
	"context"
	"path"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/notation/scorefile"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/proposing"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/overrule"
	"patientladder/core/student/leap"
	"patientladder/core/wording"
	"patientladder/store"
)

// ListMaterials returns the library, by source and order.
func (h *Handlers) ListMaterials(ctx context.Context, r contract.ListMaterialsRequestObject) (contract.ListMaterialsResponseObject, error) {
	lib, err := h.Store.Library(ctx, open.Actor(ctx).Studio)
	if err != nil {
		return nil, err
	}
	list := curriculum.List(lib, string(r.Params.Instrument))
	out := make(contract.ListMaterials200JSONResponse, len(list))
	for i, m := range list {
		out[i] = answer.Brief(m)
	}
	return out, nil
}

// ReadScore says what is in a file; nothing is kept.
func (h *Handlers) ReadScore(ctx context.Context, r contract.ReadScoreRequestObject) (contract.ReadScoreResponseObject, error) {
	n := r.Body
	if _, err := open.Taught(string(n.Instrument), true); err != nil {
		return nil, err
	}
	format, pieces, err := scorefile.Brought(n.Score, open.Keyboard(string(n.Instrument)))
	if err != nil {
		return nil, unread(n.FileName, err)
	}
	lib, err := h.Store.Library(ctx, open.Actor(ctx).Studio)
	if err != nil {
		return nil, err
	}
	byMusic := map[string]material.Material{}
	for _, m := range lib {
		if m.Music != "" && m.Instrument == string(n.Instrument) {
			byMusic[m.Music] = m
		}
	}
	out := contract.ReadScore200JSONResponse{Format: contract.ScoreReadFormat(format), Pieces: []contract.PieceRead{}}
	for i, sc := range pieces {
		p := contract.PieceRead{
			Piece:    i,
			Title:    material.Short(sc.Title),
			Composer: material.Short(sc.Composer),
			Bars:     len(sc.Bars),
			Notes:    len(sc.Sounding()),
			Skipped:  skips(sc),
		}
		if m, ok := byMusic[overrule.Print(sc)]; ok {
			p.Same, p.SameTitle = m.ID, m.Title
		}
		out.Pieces = append(out.Pieces, p)
	}
	return out, nil
}

// AddMaterial reads a score and adds it to the library as a material.
func (h *Handlers) AddMaterial(ctx context.Context, r contract.AddMaterialRequestObject) (contract.AddMaterialResponseObject, error) {
	n := r.Body
	instrument, err := open.Taught(string(n.Instrument), true)
	if err != nil {
		return nil, err
	}
	m := material.Material{ID: n.Id, Title: strings.TrimSpace(n.Title), Strand: material.Strand(n.Strand), Instrument: instrument}
	var file *store.ScoreFile
	if len(n.Score) > 0 {
		kept, sc, err := pieceOf(n.FileName, n.Score, n.Piece, instrument)
		if err != nil {
			return nil, err
		}
		m = open.Described(m, &open.Score{Reading: inweek.Reading{Piece: analysis.Of(sc, m.Instrument)}}, h.Demands)
		if m.Title == "" {
			m.Title = strings.TrimSuffix(n.FileName, path.Ext(n.FileName))
		}
		file = &store.ScoreFile{Name: material.Short(n.FileName), Data: kept}
	}
	m.Title, m.Composer = material.Short(m.Title), material.Short(m.Composer)
	if m.Title == "" {
		return nil, refusal.Invalid("A piece without a score needs a title.")
	}
	focus := n.FocusPoints
	if len(focus) == 0 {
		focus = material.UsualFocus(m.Instrument)
	}
	for _, text := range focus {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: ulid.Make().String(), Text: strings.TrimSpace(text)})
	}
	if _, err := h.Store.AddMaterial(ctx, open.Actor(ctx).Studio, m, file); err != nil {
		return nil, err
	}
	return contract.AddMaterial201JSONResponse(answer.Brief(m)), nil
}

// CopyMaterial adds a copy of a piece that is one's own.
func (h *Handlers) CopyMaterial(ctx context.Context, r contract.CopyMaterialRequestObject) (contract.CopyMaterialResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	me, err := h.Store.Teacher(ctx, open.Actor(ctx).Teacher)
	if err != nil {
		return nil, err
	}
	c, ok := b.AsKept()[m.ID].Copy(r.Body.Id, me.Name, func() string { return ulid.Make().String() })
	if !ok {
		return nil, refusal.Invalid("Of an exercise or a section there are no copies: change the goals of the exercise, or copy the whole piece.")
	}
	if err := h.Store.CopyMaterial(ctx, b.Tenant.ID, m.ID, c); err != nil {
		return nil, err
	}
	return contract.CopyMaterial201JSONResponse(answer.Brief(c)), nil
}

// leafBars is the size of the smallest chunks where no student is chosen.
const leafBars = 2

// GetMaterial returns a piece as it was read, and its leap for a student.
func (h *Handlers) GetMaterial(ctx context.Context, r contract.GetMaterialRequestObject) (contract.GetMaterialResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	out := contract.Piece{
		Material: answer.Brief(m), Tempo: m.Tempo, Texture: string(m.Texture), Bars: m.Bars, DistinctBars: m.DistinctBars,
		BarLabels: m.Labels(), Lines: []contract.Line{}, Marks: []contract.MoveMark{}, Patterns: []contract.Pattern{}, Motifs: []contract.Motif{},
		Chunks: []contract.Chunk{}, Sounds: []contract.SoundNote{}, Beats: []contract.MusicBeat{}, BarTimes: []contract.PieceBar{},
		Overruled: []contract.Overruled{},
		Skipped:   []contract.Skip{}, Demands: []contract.Demand{}, FocusPoints: []string{}, HasScore: m.HasScore,
		LeafBars: leafBars, Approach: contract.PieceApproach(b.Tenant.Way.Approach), FirstView: contract.PieceFirstView(b.Tenant.Way.FirstView),
		Tags: append([]string{}, m.Tags...), Foremost: leap.Foremost, Parts: []contract.ScorePart{}, Proposed: []contract.ProposedTag{},
	}
	for _, f := range m.FocusPoints {
		out.FocusPoints = append(out.FocusPoints, f.Text)
	}
	var k known
	var asked leap.Leap
	var brought leap.Brought
	var ability leap.Ability
	policy := b.Tenant.Way.Leap()
	leaves := func(p *analysis.Piece, own chunk.Borders) int { return p.LeafBars(leafBars, own) }
	if r.Params.Ladder != "" {
		var sh open.Student
		if sh, k, asked, brought, err = h.forStudent(ctx, b, m, r.Params.Ladder, &out); err != nil {
			return nil, err
		}
		leaves, ability, policy = sh.LeafBarsOf, sh.Standing.Ability, sh.Policy.Standing.Leap
	}
	for _, d := range policy.InOrder(&m, ability) {
		out.Demands = append(
			out.Demands,
			contract.Demand{
				Skill:  d.Skill,
				Name:   b.Skills.Name(d.Skill),
				Weight: d.Weight,
				Where:  m.BarsName(d.Bars),
				Bars:   append([]int{}, d.Bars...),
				Origin: d.Origin,
			},
		)
	}
	loads(&out, m, policy, brought)
	ready, err := h.readyFor(ctx, b, m)
	if err != nil {
		return nil, err
	}
	out.ReadyFor = readyOut(b.Names(), ready)
	o, err := h.Read(ctx, b.Tenant, m)
	if err != nil {
		return nil, err
	}
	if o != nil {
		out.LeafBars = leaves(o.Piece, o.Set.Borders)
		fill(b, &out, o, m, k)
	}
	out.Sentence = sentence(b, out, asked, ready)
	return contract.GetMaterial200JSONResponse(out), nil
}

// forStudent adds what the piece asks of one student: as it was when the
// student began it, or as it would be now. It returns what the student knows.
func (h *Handlers) forStudent(
	ctx context.Context,
	b open.Studio,
	m material.Material,
	ladderID string,
	out *contract.Piece,
) (open.Student, known, leap.Leap, leap.Brought, error) {
	l, err := h.Ladder(ctx, ladderID)
	if err != nil {
		return open.Student{}, nil, leap.Leap{}, leap.Brought{}, err
	}
	sh, err := h.Open(ctx, b, l)
	if err != nil {
		return open.Student{}, nil, leap.Leap{}, leap.Brought{}, err
	}
	placed, err := h.Store.Rungs(ctx, b.Tenant.ID, l.ID)
	if err != nil {
		return open.Student{}, nil, leap.Leap{}, leap.Brought{}, err
	}
	v := ladder.Draw(sh.Standing, b.Library, placed, sh.Policy.Standing.Leap, b.Today, 0)
	out.Reach = v.ReachOn(m.Strand).Size
	asked, brought := sh.Policy.Standing.Leap.Of(m, sh.Standing.Ability), leap.BroughtTo(&m, sh.Standing.Ability)
	for _, rail := range v.Rails {
		for _, rung := range rail.Rungs {
			if rung.Material.ID == m.ID {
				out.OnLadder = true
				if rung.Standing != nil {
					asked, out.Begun = rung.Leap, true
					if rung.Standing.Before != nil {
						brought = rung.Standing.Before.Brought
					}
				}
			}
		}
	}
	out.Leap = answer.Leap(b.Names(), m, asked, sh.Policy.Standing.Leap.SecureAfter)
	out.BigJump = !asked.Unknown && leap.Beyond(asked.Size, out.Reach)
	out.LeafBars = sh.LeafBars()
	out.Approach, out.FirstView = contract.PieceApproach(sh.Way.Approach), contract.PieceFirstView(sh.Way.FirstView)
	return sh, known(sh.KnownNotes(m.ID)), asked, brought, nil
}

// ChangeMaterial changes title, composer, tags and focus points.
func (h *Handlers) ChangeMaterial(
	ctx context.Context,
	r contract.ChangeMaterialRequestObject,
) (contract.ChangeMaterialResponseObject, error) {
	return contract.ChangeMaterial204Response{}, app.ChangeMaterial(ctx, h.Loader, r.Material, app.Renamed{
		Title: r.Body.Title, Composer: r.Body.Composer, Tags: r.Body.Tags, Points: r.Body.FocusPoints,
	})
}

// sentence says the piece in one sentence: for the student it is looked at for, or for who is ready.
func sentence(b open.Studio, p contract.Piece, asked leap.Leap, ready []proposing.Ready) string {
	return b.Names().Piece(wording.Piece{
		HasScore: p.HasScore, Bars: p.Bars, Distinct: p.DistinctBars, Varied: p.Varied, ForSomebody: len(asked.Parts) > 0, Begun: p.Begun,
		Fresh: asked.Fresh(), Ready: ready,
	})
}
