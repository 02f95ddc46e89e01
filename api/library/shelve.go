package library

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/reading/section"
	"patientladder/core/wording"
)

// RemoveMaterial removes a piece that nobody has, retires one that somebody has, or offers it again.
func (h *Handlers) RemoveMaterial(
	ctx context.Context,
	r contract.RemoveMaterialRequestObject,
) (contract.RemoveMaterialResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	if r.Params.Restore {
		return contract.RemoveMaterial200JSONResponse{Words: wording.Restored(m.Title)}, h.Store.RestoreMaterial(ctx, b.Tenant.ID, m.ID)
	}
	removed, err := h.Store.RemoveMaterial(ctx, b.Tenant.ID, m.ID)
	return contract.RemoveMaterial200JSONResponse{Removed: removed, Retired: !removed, Words: wording.Removed(m.Title, removed)}, err
}

// MergeMaterial puts another piece in the place of this one.
func (h *Handlers) MergeMaterial(ctx context.Context, r contract.MergeMaterialRequestObject) (contract.MergeMaterialResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	into, there := b.Library[r.Body.Into]
	if !there {
		return nil, refusal.NoMaterial
	}
	switch err := material.MayMerge(m, into, b.Units); {
	case errors.Is(err, material.ErrMergeOther):
		return nil, refusal.Invalid(wording.OtherInstrument(into.Title, into.Instrument, m.Instrument))
	case err != nil:
		return nil, refusal.Because(err)
	}
	return contract.MergeMaterial204Response{}, h.Store.MergeMaterial(ctx, b.Tenant.ID, m.ID, into.ID)
}

// PlaceOnLadders puts a piece onto several ladders.
func (h *Handlers) PlaceOnLadders(
	ctx context.Context,
	r contract.PlaceOnLaddersRequestObject,
) (contract.PlaceOnLaddersResponseObject, error) {
	return contract.PlaceOnLadders204Response{}, app.PlaceOnLadders(ctx, h.Loader, r.Material, r.Body.Ladders)
}

// GetSections returns the sections of a piece, and what could be some.
func (h *Handlers) GetSections(ctx context.Context, r contract.GetSectionsRequestObject) (contract.GetSectionsResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	out := contract.Sections{Sections: []contract.NewSection{}, Proposed: []contract.NewSection{}}
	for _, x := range b.Library.Sections(m.ID) {
		out.Sections = append(out.Sections, contract.NewSection{Id: x.ID, Title: x.Title})
	}
	o, err := h.Read(ctx, b.Tenant, m)
	if err != nil {
		return nil, err
	}
	if o != nil {
		for i, x := range section.Propose(o.Chunks(leafBars, o.Set.Borders)) {
			out.Proposed = append(
				out.Proposed,
				contract.NewSection{Id: ulid.Make().String(), Title: wording.SectionTitle(m, i, x.From, x.To), From: x.From, To: x.To},
			)
		}
	}
	out.Words = wording.Sections(len(out.Sections), len(out.Proposed))
	return contract.GetSections200JSONResponse(out), nil
}

// SetSections splits a piece.
func (h *Handlers) SetSections(ctx context.Context, r contract.SetSectionsRequestObject) (contract.SetSectionsResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	if b.Units[m.ID] {
		return nil, refusal.Because(section.ErrSplitTwice)
	}
	var wanted []section.Section
	for i, x := range r.Body.Sections {
		title := material.Short(strings.TrimSpace(x.Title))
		if title == "" {
			return nil, refusal.Invalid(fmt.Sprintf("Section %d needs a title.", i+1))
		}
		wanted = append(wanted, section.Section{ID: x.Id, Title: title, From: x.From, To: x.To})
	}
	parts, err := section.Split(m, wanted, func() string { return ulid.Make().String() })
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetSections204Response{}, h.Store.Split(ctx, b.Tenant.ID, m.ID, parts)
}

// JoinSections makes a piece one again.
func (h *Handlers) JoinSections(ctx context.Context, r contract.JoinSectionsRequestObject) (contract.JoinSectionsResponseObject, error) {
	b, m, err := h.Material(ctx, r.Material)
	if err != nil {
		return nil, err
	}
	var ids []string
	for _, x := range b.Library.Sections(m.ID) {
		ids = append(ids, x.ID)
	}
	if len(ids) == 0 {
		return nil, refusal.Because(section.ErrNotSplit)
	}
	return contract.JoinSections204Response{}, h.Store.Join(ctx, b.Tenant.ID, m.ID, ids)
}

// RenameBook gives a book another title.
func (h *Handlers) RenameBook(ctx context.Context, r contract.RenameBookRequestObject) (contract.RenameBookResponseObject, error) {
	title := strings.TrimSpace(r.Body.Title)
	if title == "" {
		return nil, refusal.Invalid("A book needs a title.")
	}
	return contract.RenameBook204Response{}, h.Store.RenameSource(ctx, open.Actor(ctx).Studio, r.Source, title)
}

// RemoveBook removes a book of which nobody has anything, retires what somebody has, or offers it again.
func (h *Handlers) RemoveBook(ctx context.Context, r contract.RemoveBookRequestObject) (contract.RemoveBookResponseObject, error) {
	studio := open.Actor(ctx).Studio
	src, err := h.source(ctx, studio, r.Source)
	if err != nil {
		return nil, err
	}
	if r.Params.Restore {
		return contract.RemoveBook200JSONResponse{Words: wording.Restored(src.Title)}, h.Store.RestoreSource(ctx, studio, src.ID)
	}
	removed, err := h.Store.RemoveSource(ctx, studio, src.ID)
	return contract.RemoveBook200JSONResponse{Removed: removed, Retired: !removed, Words: wording.Removed(src.Title, removed)}, err
}

// SetSkill sets the name, the preview steps and the needs of a skill for the studio.
func (h *Handlers) SetSkill(ctx context.Context, r contract.SetSkillRequestObject) (contract.SetSkillResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	sk, err := b.Skills.Written(
		r.Skill,
		skill.Form{Name: r.Body.Name, Steps: r.Body.Steps, Family: skill.Family(r.Body.Family), Needs: r.Body.Needs, Ahead: r.Body.Ahead},
	)
	circle, missing := new(skill.CircleError), new(skill.MissingError)
	switch {
	case errors.Is(err, skill.ErrNoFamily):
		return nil, refusal.NotFound("There is no such skill in the catalogue.")
	case errors.Is(err, skill.ErrNoName):
		return nil, refusal.Invalid("A skill needs a name.")
	case errors.As(err, &circle):
		return nil, refusal.Invalid(wording.SkillCircle(sk.Name, b.Skills.Name(circle.Other(sk.ID))))
	case errors.As(err, &missing):
		return nil, refusal.Invalid(wording.SkillMissing(sk.Name, missing.Need))
	case err != nil:
		return nil, err
	}
	return contract.SetSkill204Response{}, h.Store.SetSkill(ctx, b.Tenant.ID, sk)
}

// ResetSkill takes the studio's own form of a skill away.
func (h *Handlers) ResetSkill(ctx context.Context, r contract.ResetSkillRequestObject) (contract.ResetSkillResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	if _, there := b.Skills.Get(r.Skill); !there {
		return nil, refusal.NotFound("There is no such skill in the catalogue.")
	}
	if _, ships := h.Shipped.Get(r.Skill); !ships {
		return nil, refusal.Invalid("This skill is your own: pieces may ask for it, so it stays.")
	}
	return contract.ResetSkill204Response{}, h.Store.DropSkill(ctx, open.Actor(ctx).Studio, r.Skill)
}
