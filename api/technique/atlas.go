package technique

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/intechnique"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/scale"
	"patientladder/core/wording"
)

// GetAtlas returns who has which key, in which pass, for every student of an instrument.
func (h *Handlers) GetAtlas(ctx context.Context, r contract.GetAtlasRequestObject) (contract.GetAtlasResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	x, err := open.Instrument(string(r.Params.Instrument))
	if err != nil {
		return nil, err
	}
	out := contract.Atlas{Kinds: []contract.Choice{}, Keys: []string{}, Passes: []string{}, Rows: []contract.AtlasRow{}}
	t, ok := exercise.Keyed(x)
	if !ok {
		out.Sentence = wording.NoKeys
		return contract.GetAtlas200JSONResponse(out), nil
	}
	kind := t.Kinds[0]
	if r.Params.Kind != "" {
		kind = scale.Kind(r.Params.Kind)
	}
	if !slices.Contains(t.Kinds, kind) {
		return nil, refusal.Invalid(fmt.Sprintf("There is no kind %q of %s.", r.Params.Kind, strings.ToLower(t.Name)))
	}
	out.Type, out.Kind = t.ID, string(kind)
	for _, k := range t.Kinds {
		out.Kinds = append(out.Kinds, contract.Choice{Id: string(k), Name: wording.Kind(string(k))})
	}
	for _, step := range t.Steps {
		out.Passes = append(out.Passes, step.Name)
	}
	places, err := exercise.Round(
		exercise.Exercise{Type: t, Step: t.Steps[0], Kind: kind, Instrument: x},
		exercise.Keys("fifths", kind)[0],
		"fifths",
	)
	if err != nil {
		return nil, err
	}
	for _, e := range places {
		out.Keys = append(out.Keys, s.Words.Key(e.Key.String()))
	}
	students, err := h.Students(ctx, s, x.ID)
	if err != nil {
		return nil, err
	}
	var all [][]intechnique.KeyCell
	for _, st := range students {
		row := contract.AtlasRow{Ladder: st.Ladder, Name: st.Name, Cells: []contract.AtlasCell{}}
		cells := intechnique.Cells(st.Student, t, places)
		all = append(all, cells)
		for i, c := range cells {
			row.Cells = append(
				row.Cells,
				contract.AtlasCell{Key: out.Keys[i], Through: c.Through + 1, Working: c.Working + 1, Exercise: c.Next.ID()},
			)
		}
		out.Rows = append(out.Rows, row)
	}
	begun, through := intechnique.KeysOf(all)
	out.Sentence = wording.Atlas(len(students), begun, through)
	return contract.GetAtlas200JSONResponse(out), nil
}
