package api

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/scale"
)

// GetAtlas returns who has which key, in which pass, for every student of an instrument.
func (s *Server) GetAtlas(ctx context.Context, r contract.GetAtlasRequestObject) (contract.GetAtlasResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	x, err := instrumentOf(string(r.Params.Instrument))
	if err != nil {
		return nil, err
	}
	out := contract.Atlas{Kinds: []contract.Choice{}, Keys: []string{}, Passes: []string{}, Rows: []contractAtlasRow{}}
	t, ok := keyed(x.Family)
	if !ok {
		out.Sentence = fmt.Sprintf("The %s takes nothing through the keys.", x.ID)
		return contract.GetAtlas200JSONResponse(out), nil
	}
	kind := t.Kinds[0]
	if r.Params.Kind != "" {
		kind = scale.Kind(r.Params.Kind)
	}
	if !slices.Contains(t.Kinds, kind) {
		return nil, invalid(fmt.Sprintf("There is no kind %q of %s.", r.Params.Kind, strings.ToLower(t.Name)))
	}
	out.Type, out.Kind = t.ID, string(kind)
	for _, k := range t.Kinds {
		out.Kinds = append(out.Kinds, contract.Choice{Id: string(k), Name: kindName(string(k))})
	}
	for _, step := range t.Steps {
		out.Passes = append(out.Passes, step.Name)
	}
	places, err := exercise.Round(exercise.Exercise{Type: t, Step: t.Steps[0], Kind: kind, Instrument: x}, exercise.Keys("fifths", kind)[0], "fifths")
	if err != nil {
		return nil, err
	}
	for _, e := range places {
		out.Keys = append(out.Keys, b.studio.Words.Key(e.Key.String()))
	}
	all, err := s.shelves(ctx, b, x.ID)
	if err != nil {
		return nil, err
	}
	begun := 0
	for _, sh := range all {
		row := contractAtlasRow{Ladder: sh.ladder.ID, Name: sh.ladder.Name, Cells: []contract.AtlasCell{}}
		stairs := exercise.Climb(x, sh.progress(), exercise.Wish{}, b.studio.Words)
		stair := stairs[slices.IndexFunc(stairs, func(s exercise.Stair) bool { return s.Type.ID == t.ID })]
		any := false
		for i, e := range places {
			through, working := stair.Passed(e.Place())
			step := min(max(through+1, working), len(t.Steps)-1)
			row.Cells = append(row.Cells, contract.AtlasCell{Key: out.Keys[i], Through: through + 1, Working: working + 1, Exercise: e.At(t.Steps[step]).ID()})
			any = any || through+working > -2
		}
		if any {
			begun++
		}
		out.Rows = append(out.Rows, row)
	}
	out.Sentence = atlasSentence(out, begun)
	return contract.GetAtlas200JSONResponse(out), nil
}

// keyed is the type that the atlas of a family shows: what is taken through the keys, else the
// scales of that family.
func keyed(f instrument.Family) (exercise.Type, bool) {
	if t, ok := exercise.CycleType(f); ok {
		return t, true
	}
	list := exercise.Types(f)
	i := slices.IndexFunc(list, func(t exercise.Type) bool { return len(t.Kinds) > 0 && t.What == "" })
	if i < 0 {
		return exercise.Type{}, false
	}
	return list[i], true
}

func atlasSentence(a contract.Atlas, begun int) string {
	through := 0
	for _, row := range a.Rows {
		for _, c := range row.Cells {
			if c.Through > 0 {
				through++
			}
		}
	}
	switch {
	case len(a.Rows) == 0:
		return "Nobody plays this instrument here yet."
	case begun == 0:
		return "Nobody has begun a scale yet."
	}
	return fmt.Sprintf("%s of %s have begun; %s in all have been through a first pass.", capital(counted(begun, "student")), fmt.Sprint(len(a.Rows)), counted(through, "key"))
}

type contractAtlasRow = struct {
	Cells  []contract.AtlasCell `json:"cells"`
	Ladder contract.Id          `json:"ladder"`
	Name   string               `json:"name"`
}
