// Package drill makes a material of the library from an exercise, so that marks, runs, gates,
// the week and the ladder treat it as any other.
package drill

import (
	"crypto/sha256"
	"fmt"
	"slices"
	"sort"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/overrule"
	"patientladder/core/technique/exercise"
)

// FileName is that of the score of an exercise.
const FileName = "exercise.musicxml"

// Drill is an exercise as a material.
type Drill struct {
	Material material.Material
	// Score is the exercise as MusicXML.
	Score []byte
	// Given is what the step asks for and gives beyond its notes; kept like what a teacher
	// sets by hand, so that new rules of reading leave it alone.
	Given []overrule.Overruling
}

// Of makes a material from an exercise: engraved by rule, with its goals as focus points, asking for what
// its notes and its step ask for. The ids follow from the exercise alone: two
// devices that make it at once make one material.
func Of(e exercise.Exercise, words naming.Words, table demand.Table) (Drill, error) {
	sc, err := e.Score(words)
	if err != nil {
		return Drill{}, err
	}
	d := Drill{Score: musicxml.Write(sc, musicxml.Options{})}
	read, err := musicxml.Read(d.Score)
	if err != nil {
		return Drill{}, fmt.Errorf("the score of %s: %w", e.ID(), err)
	}
	for skill, weight := range e.Step.Gives {
		d.Given = append(d.Given, overrule.Overruling{Kind: overrule.Demand, Skill: skill, Weight: weight})
	}
	sort.Slice(d.Given, func(i, k int) bool { return d.Given[i].Skill < d.Given[k].Skill })
	set := overrule.Apply(read, d.Given)
	m := material.Material{
		ID: ID(e), Title: material.Short(e.Full(words)), Strand: material.Technique, Instrument: e.Instrument.ID, Exercise: e.ID(),
		Tempo: float64(e.Step.Tempo),
	}
	m = table.Describe(m, analysis.Of(read, e.Instrument.ID))
	m.Demands, m.Music, m.HasScore = set.Demanded(m.Demands), overrule.Print(read), true
	for i, goal := range e.Step.Goals {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: goalID(m.ID, i), Text: goal})
	}
	d.Material = m
	return d, nil
}

// WithForms is the material of an exercise with its goals as a studio says them; a goal that was changed on the material
// itself stays as it is.
func WithForms(m material.Material, forms exercise.Forms) material.Material {
	name, rest, _ := strings.Cut(m.Exercise, "/")
	step, _, _ := strings.Cut(rest, "/")
	t, known := exercise.TypeOf(name)
	if !known {
		return m
	}
	came, known := t.StepOf(step)
	own, _ := forms.Type(t).StepOf(step)
	if !known {
		return m
	}
	m.FocusPoints = slices.Clone(m.FocusPoints)
	for i := range own.Goals {
		for k, p := range m.FocusPoints {
			if p.ID == goalID(m.ID, i) && p.Text == came.Goals[i] {
				m.FocusPoints[k].Text = own.Goals[i]
			}
		}
	}
	return m
}

func goalID(material string, i int) string { return id(fmt.Sprint(material, " goal ", i)) }

// ID is the id of the material of an exercise.
func ID(e exercise.Exercise) string { return id(e.Instrument.ID + " " + e.ID()) }

// id makes an id in the alphabet of ULIDs from words.
func id(words string) string {
	const alphabet = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"
	sum := sha256.Sum256([]byte(words))
	out := make([]byte, 26)
	for i := range out {
		out[i] = alphabet[sum[i]%32]
	}
	out[0] = alphabet[sum[0]%8] // a ULID begins with 0 to 7
	return string(out)
}
