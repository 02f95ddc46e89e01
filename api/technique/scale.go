package technique

import (
	"context"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/scale"
	"patientladder/core/wording"
)

// GetScale returns a scale or an arpeggio with the fingers of both hands and where they meet.
func (h *Handlers) GetScale(ctx context.Context, r contract.GetScaleRequestObject) (contract.GetScaleResponseObject, error) {
	studio, err := h.Store.Studio(ctx, open.Actor(ctx).Studio)
	if err != nil {
		return nil, err
	}
	kind := scale.Kind(r.Params.Kind)
	tonic, err := scale.Parse(r.Params.Key, kind)
	if err != nil {
		return nil, refusal.Because(err)
	}
	octaves := r.Params.Octaves
	if octaves == 0 {
		octaves = 1
	}
	sc, err := scale.Of(tonic, kind, octaves)
	if err != nil {
		return nil, refusal.Because(err)
	}
	out := contract.Scale{
		Key: tonic.String(), Kind: contract.ScaleKind(kind), Octaves: octaves, Keys: []string{},
		Name: studio.Words.Key(tonic.String()) + " " + strings.ReplaceAll(string(kind), "-", " "), Sentence: wording.Scale(sc, studio.Words),
		Up: scaleWay(sc.Up, studio.Words), Down: scaleWay(sc.Down, studio.Words), Meets: meetsOut(sc.Meets), Mirror: meetsOut(sc.Mirror),
		Alternatives: []contract.ScaleAlternative{},
	}
	for _, k := range scale.Keys(kind) {
		out.Keys = append(out.Keys, k.String())
	}
	for _, a := range sc.Alternatives {
		out.Alternatives = append(out.Alternatives, contract.ScaleAlternative{Fingers: a.Fingers, Right: a.Right, Why: a.Why})
	}
	return contract.GetScale200JSONResponse(out), nil
}

func scaleWay(w scale.Way, words naming.Words) contract.ScaleWay {
	out := contract.ScaleWay{Right: w.Right, Left: w.Left}
	for _, p := range w.Notes {
		out.Notes, out.Midi = append(out.Notes, words.Key(p.Name())), append(out.Midi, p.Semitone())
	}
	return out
}

func meetsOut(meets []scale.Meet) []contract.Meet {
	out := []contract.Meet{}
	for _, m := range meets {
		out = append(out, contract.Meet{Degree: m.Degree, Kind: contract.MeetKind(m.Kind), Left: m.Left, Right: m.Right})
	}
	return out
}
