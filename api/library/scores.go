package library

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"mime"
	"strconv"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/midi"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/overrule"
	"patientladder/core/reading/reading"
	"patientladder/core/wording"
	"patientladder/store"
)

// GetScore returns the score as MusicXML: the file itself where it is one and
// the teacher set no finger, else written from what was read.
func (h *Handlers) GetScore(ctx context.Context, r contract.GetScoreRequestObject) (contract.GetScoreResponseObject, error) {
	m, o, err := h.pieceWithScore(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	data := o.File.Data
	if o.Format != scorefile.MusicXML || len(o.Set.Fingers) > 0 {
		data = musicxml.Write(titled(o.Score, m), musicxml.Options{})
	}
	return contract.GetScore200ApplicationvndRecordareMusicxmlXmlResponse{Body: bytes.NewReader(data), ContentLength: int64(len(data))}, nil
}

// pieceWithScore opens a material that must have a score, for whoever writes to it.
func (h *Handlers) pieceWithScore(ctx context.Context, id string) (material.Material, *open.Score, error) {
	b, m, err := h.Material(ctx, id)
	if err != nil {
		return m, nil, err
	}
	o, err := h.ReadAnew(ctx, b.Tenant, m)
	if err == nil && o == nil {
		err = store.ErrNotFound
	}
	return m, o, err
}

// titled gives a score the title and composer of its material.
func titled(sc *score.Score, m material.Material) *score.Score {
	sc.Title = m.Title
	if m.Composer != "" {
		sc.Composer = m.Composer
	}
	return sc
}

// ReplaceScore puts another file of the same piece in the place of the score.
func (h *Handlers) ReplaceScore(ctx context.Context, r contract.ReplaceScoreRequestObject) (contract.ReplaceScoreResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	kept, _, err := pieceOf(r.Body.FileName, r.Body.Score, r.Body.Piece, m.Instrument)
	if err != nil {
		return nil, err
	}
	own, err := h.Store.Overrulings(ctx, b.Tenant.ID, m.ID)
	if err != nil {
		return nil, err
	}
	file := store.ScoreFile{Name: material.Short(r.Body.FileName), Data: kept}
	o, err := open.ReadFile(file, m.Instrument, own)
	if err != nil {
		return nil, err
	}
	if err := h.Store.SaveReading(ctx, b.Tenant.ID, store.Reading{Material: open.Described(m, o, h.Demands), File: &file}); err != nil {
		return nil, err
	}
	out := contract.ReplaceScore200JSONResponse{Kept: len(own) - len(o.Set.Lost), Lost: []string{}}
	for _, x := range o.Set.Lost {
		out.Lost = append(out.Lost, b.Names().Overruled(x, m))
	}
	return out, nil
}

// Overrule sets a finding against the score, or takes such a setting back.
func (h *Handlers) Overrule(ctx context.Context, r contract.OverruleRequestObject) (contract.OverruleResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	file, err := h.Store.ScoreFile(ctx, b.Tenant.ID, m.ID)
	if errors.Is(err, store.ErrNotFound) {
		return contract.Overrule204Response{}, h.setByHand(ctx, b, m, r.Body)
	}
	if err != nil {
		return nil, err
	}
	own, err := h.Store.Overrulings(ctx, b.Tenant.ID, m.ID)
	if err != nil {
		return nil, err
	}
	n, err := overrulingOf(r.Body)
	if err != nil {
		return nil, refusal.Because(err)
	}
	change := store.Reading{}
	key := n.Key()
	if r.Body.Key != "" {
		key = r.Body.Key
	}
	if r.Body.Remove {
		change.Remove = []string{key}
		n = overrule.Overruling{}
	} else {
		bare, err := open.ReadFile(file, m.Instrument, nil)
		if err != nil {
			return nil, err
		}
		known := func(id string) bool { _, ok := b.Skills.Get(id); return ok }
		if err := n.Check(bare.Score, known); err != nil {
			return nil, refusal.Because(err)
		}
		n = n.Remember(bare.Score)
		change.Set = []overrule.Overruling{n}
	}
	kept := own[:0:0]
	for _, x := range own {
		if x.Key() != key {
			kept = append(kept, x)
		}
	}
	if !r.Body.Remove {
		kept = append(kept, n)
	}
	o, err := open.ReadFile(file, m.Instrument, kept)
	if err != nil {
		return nil, err
	}
	change.Material = open.Described(m, o, h.Demands)
	return contract.Overrule204Response{}, h.Store.SaveReading(ctx, b.Tenant.ID, change)
}

// setByHand changes what a piece without a score asks for: its demands are the
// teacher's alone.
func (h *Handlers) setByHand(ctx context.Context, b open.Studio, m material.Material, n *contract.NewOverruling) error {
	if n.Kind != contract.NewOverrulingKindDemand {
		return refusal.Invalid("This piece has no score; there is nothing to set against it.")
	}
	if _, known := b.Skills.Get(n.Skill); !known {
		return refusal.Invalid(fmt.Sprintf("There is no skill %q.", score.Short(n.Skill)))
	}
	set := overrule.Set{Demands: map[string]material.Demand{n.Skill: {Skill: n.Skill, Weight: n.Weight, Origin: "teacher"}}}
	m = b.AsKept()[m.ID]
	m.Demands = set.Demanded(m.Demands)
	return h.Store.SaveReading(ctx, b.Tenant.ID, store.Reading{Material: m})
}

func overrulingOf(n *contract.NewOverruling) (overrule.Overruling, error) {
	o := overrule.Overruling{
		Kind: overrule.Kind(n.Kind), Part: n.Part, Staff: n.Staff, Pitch: n.Pitch, Finger: n.Finger, Skill: n.Skill,
		Weight: n.Weight, Bars: n.Bars, Ends: n.Ends, QuartersAMinute: n.Tempo,
	}
	if n.At != "" {
		if err := o.At.UnmarshalText([]byte(n.At)); err != nil {
			return o, err
		}
	}
	if len(n.Skill) > 64 {
		return o, fmt.Errorf("there is no skill %q", score.Short(n.Skill))
	}
	return o, nil
}

// Colours of the directions on paper, darker than on the screen.
var directionColours = map[reading.Direction]string{reading.Up: "#C2571A", reading.Down: "#2B5FA8", reading.Same: "#6B7A2C"}

// ExportScore writes a piece as a file.
func (h *Handlers) ExportScore(ctx context.Context, r contract.ExportScoreRequestObject) (contract.ExportScoreResponseObject, error) {
	m, o, err := h.pieceWithScore(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	sc := titled(o.Score, m)
	if r.Params.Fingers {
		for _, l := range o.Lines {
			l.Position.Write(sc, o.Set.Fingers)
		}
	}
	var data []byte
	ending := string(r.Params.Format)
	switch r.Params.Format {
	case contract.Midi:
		data, ending = midi.Write(sc), "mid"
	case contract.Abc:
		data = abc.Write(sc)
	default:
		options, err := h.exportOptions(ctx, r.Params, o)
		if err != nil {
			return nil, err
		}
		data = musicxml.Write(sc, options)
	}
	name := wording.FileName(m.Title) + "." + ending
	return contract.ExportScore200ApplicationoctetStreamResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.ExportScore200ResponseHeaders{
			ContentDisposition: mime.FormatMediaType("attachment", map[string]string{"filename": name}),
		},
	}, nil
}

// exportOptions are the colours and the chunk marks that were asked for.
func (h *Handlers) exportOptions(ctx context.Context, p contract.ExportScoreParams, o *open.Score) (musicxml.Options, error) {
	var out musicxml.Options
	if p.Colours {
		colours := map[int]string{}
		for _, l := range o.Lines {
			for _, mv := range l.Moves {
				colours[mv.To] = directionColours[mv.Direction]
			}
		}
		out.Colour = func(i int) string { return colours[i] }
	}
	if p.Chunks {
		size := o.LeafBars(leafBars, o.Set.Borders)
		if p.Ladder != "" {
			sh, err := h.Student(ctx, p.Ladder)
			if err != nil {
				return out, err
			}
			size = sh.LeafBarsOf(o.Piece, o.Set.Borders)
		}
		for i, c := range o.Chunks(size, o.Set.Borders).Leaves() {
			out.Marks = append(out.Marks, musicxml.Mark{At: c.Start, Bar: c.Begins(), Text: strconv.Itoa(i + 1)})
		}
	}
	return out, nil
}

// EngraveTyped turns a tune typed in ABC into MusicXML; nothing is kept.
func (h *Handlers) EngraveTyped(_ context.Context, r contract.EngraveTypedRequestObject) (contract.EngraveTypedResponseObject, error) {
	limits := score.DefaultLimits()
	limits.Notes, limits.Bars, limits.Tunes = 5000, 500, 20
	tunes, err := abc.ReadWithin([]byte(r.Body.Abc), limits)
	if err != nil {
		var where *score.FileError
		if errors.As(err, &where) {
			return nil, refusal.Because(where)
		}
		return nil, err
	}
	sc := tunes[0]
	sc.SplitTies()
	return contract.EngraveTyped200JSONResponse{
		Musicxml: string(musicxml.Write(sc, musicxml.Options{})),
		Title:    material.Short(sc.Title),
		Bars:     len(sc.Bars),
		Skipped:  skips(sc),
	}, nil
}

// ListSkills returns the catalogue in the studio's words.
func (h *Handlers) ListSkills(ctx context.Context, _ contract.ListSkillsRequestObject) (contract.ListSkillsResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	own, err := h.Store.Skills(ctx, b.Tenant.ID)
	if err != nil {
		return nil, err
	}
	changed := map[string]bool{}
	for _, k := range own {
		changed[k.ID] = true
	}
	out := contract.ListSkills200JSONResponse{}
	for _, k := range b.Skills.All() {
		_, ships := h.Shipped.Get(k.ID)
		out = append(out, contract.SkillInfo{
			Id: k.ID, Name: k.Name, Family: string(k.Family), Instruments: append([]string{}, k.Instruments...), Found: k.Set != "teacher",
			Steps: append([]string{}, k.Steps...),
			Needs: append([]string{}, k.Needs...), Ahead: k.Ahead, Own: changed[k.ID], Ships: ships,
		})
	}
	return out, nil
}
