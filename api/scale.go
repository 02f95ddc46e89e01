package api

import (
	"context"
	"fmt"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/scale"
)

// GetScale returns a scale or an arpeggio with the fingers of both hands and where they meet.
func (s *Server) GetScale(ctx context.Context, r contract.GetScaleRequestObject) (contract.GetScaleResponseObject, error) {
	studio, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return nil, err
	}
	kind := scale.Kind(r.Params.Kind)
	tonic, err := scale.Parse(r.Params.Key, kind)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	octaves := r.Params.Octaves
	if octaves == 0 {
		octaves = 1
	}
	sc, err := scale.Of(tonic, kind, octaves)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	out := contract.Scale{
		Key: tonic.String(), Kind: contract.ScaleKind(kind), Octaves: octaves, Keys: []string{},
		Name: studio.Words.Key(tonic.String()) + " " + strings.ReplaceAll(string(kind), "-", " "), Sentence: scaleSentence(sc, studio.Words),
		Up: scaleWay(sc.Up, studio.Words), Down: scaleWay(sc.Down, studio.Words), Meets: meetsOut(sc.Meets), Mirror: meetsOut(sc.Mirror), Alternatives: []contractAlternative{},
	}
	for _, k := range scale.Keys(kind) {
		out.Keys = append(out.Keys, k.String())
	}
	for _, a := range sc.Alternatives {
		out.Alternatives = append(out.Alternatives, contractAlternative{Fingers: a.Fingers, Right: a.Right, Why: a.Why})
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

// scaleSentence says what makes hands together learnable: where they meet.
func scaleSentence(s scale.Scale, words naming.Words) string {
	ring := len(s.Up.Notes) / s.Octaves
	return meetSentence(s.Meets, func(degree int) string { return words.Key(s.Up.Notes[(degree-1)%ring].Name()) })
}

func meetSentence(meets []scale.Meet, name func(degree int) string) string {
	var thumbs, same, sides []string
	for _, m := range meets {
		switch {
		case m.Kind == "same" && m.Right == 1:
			thumbs = append(thumbs, name(m.Degree))
		case m.Kind == "same":
			same = append(same, fmt.Sprintf("%d with %d on %s", m.Right, m.Left, name(m.Degree)))
		default:
			sides = append(sides, name(m.Degree))
		}
	}
	var parts []string
	if len(same) > 0 {
		parts = append(parts, joined(same))
	}
	if len(thumbs) > 0 {
		parts = append(parts, "the thumbs together on "+joined(thumbs))
	}
	if len(sides) > 0 {
		parts = append(parts, "the same fingers side by side on "+joined(sides))
	}
	if len(parts) == 0 {
		return "The hands meet nowhere: learn it hands apart for longer."
	}
	return "The hands meet: " + strings.Join(parts, "; ") + "."
}

type contractAlternative = struct {
	Fingers []int  `json:"fingers"`
	Right   bool   `json:"right"`
	Why     string `json:"why"`
}
