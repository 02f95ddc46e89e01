package api

import (
	"context"
	"crypto/sha256"
	"fmt"
	"slices"
	"sort"

	"patientladder/api/contract"
	"patientladder/core/analysis"
	"patientladder/core/exercise"
	"patientladder/core/ladder"
	"patientladder/core/material"
	"patientladder/core/musicxml"
	"patientladder/core/overrule"
	"patientladder/store"
)

// TakeExercise puts an exercise on a ladder. An exercise that no student of the studio
// had before becomes a material of the library, so that marks, runs, gates, the week
// and the ladder treat it as any other.
func (s *Server) TakeExercise(ctx context.Context, r contract.TakeExerciseRequestObject) (contract.TakeExerciseResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(sh.ladder.Instrument, r.Body.Exercise)
	if err != nil {
		return nil, err
	}
	m, err := s.exerciseMaterial(ctx, sh.book, e)
	if err != nil {
		return nil, err
	}
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	if !slices.ContainsFunc(placed, func(p ladder.Placed) bool { return p.Material == m.ID }) {
		if err := s.store.PlaceRungs(ctx, sh.studio.ID, sh.ladder.ID, []ladder.Placed{{Material: m.ID, Strand: material.Technique}}); err != nil {
			return nil, err
		}
	}
	out := contract.TakeExercise201JSONResponse{}
	out.Material, out.Title = m.ID, m.Title
	return out, nil
}

// exerciseMaterial returns the material of an exercise, made on first need: engraved
// by rule, with its three goals as focus points, asking for what its notes and its step ask for.
func (s *Server) exerciseMaterial(ctx context.Context, b book, e exercise.Exercise) (material.Material, error) {
	id := exerciseID(e)
	if m, there := b.lib[id]; there {
		return m, nil
	}
	written, err := e.Score(b.studio.Words)
	if err != nil {
		return material.Material{}, err
	}
	data := musicxml.Write(written, musicxml.Options{})
	kept, sc, err := pieceOf("exercise.musicxml", data, 0, e.Instrument.ID)
	if err != nil {
		return material.Material{}, fmt.Errorf("the score of %s: %w", e.ID(), err)
	}
	own := gives(e)
	set := overrule.Apply(sc, own)
	m := material.Material{ID: id, Title: shorten(e.Full(b.studio.Words)), Strand: material.Technique, Instrument: e.Instrument.ID, Exercise: e.ID()}
	m = described(m, &opened{Piece: analysis.Of(sc, e.Instrument.ID), own: own, set: set}, s.demands)
	m.Tempo = float64(e.Step.Tempo)
	for i, goal := range e.Step.Goals {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: idFrom(fmt.Sprint(id, " goal ", i)), Text: goal})
	}
	m.HasScore = true
	added, err := s.store.AddMaterial(ctx, b.studio.ID, m, &store.ScoreFile{Name: "exercise.musicxml", Data: kept})
	if err != nil || !added {
		return m, err
	}
	// What the step gives beyond its notes is kept as the teacher's own word, which new rules of reading respect.
	return m, s.store.SaveReading(ctx, b.studio.ID, store.Reading{Material: m, Set: own})
}

// gives are the skills that a step asks for and gives, by weight.
func gives(e exercise.Exercise) []overrule.Overruling {
	var out []overrule.Overruling
	for skill, weight := range e.Step.Gives {
		out = append(out, overrule.Overruling{Kind: overrule.Demand, Skill: skill, Weight: weight})
	}
	sort.Slice(out, func(i, k int) bool { return out[i].Skill < out[k].Skill })
	return out
}

// exerciseID is the id of the material of an exercise, the same whenever it is made, so that
// two devices that take it at once make one material.
func exerciseID(e exercise.Exercise) string { return idFrom(e.Instrument.ID + " " + e.ID()) }

// idFrom makes an id in the alphabet of ULIDs from words.
func idFrom(words string) string {
	const alphabet = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"
	sum := sha256.Sum256([]byte(words))
	out := make([]byte, 26)
	for i := range out {
		out[i] = alphabet[sum[i]%32]
	}
	out[0] = alphabet[sum[0]%8] // a ULID begins with 0 to 7
	return string(out)
}
