package document

import (
	"encoding/json"

	"patientladder/core/library/dimension"
	"patientladder/core/library/material"
)

// load is one dimension of how hard a piece is, as it is kept.
type load struct {
	Dimension dimension.ID `json:"dimension"`
	Value     float64      `json:"value"`
	Bars      []int        `json:"bars,omitempty"`
}

// Loads writes the loads of a material: "null" where nothing was measured.
func Loads(of []material.Load) (string, error) {
	var out []load
	if of != nil {
		out = make([]load, len(of))
	}
	for i, l := range of {
		out[i] = load(l)
	}
	data, err := json.Marshal(out)
	return string(data), err
}

// ReadLoads reads what Loads wrote.
func ReadLoads(text string) ([]material.Load, error) {
	var kept []load
	if err := json.Unmarshal([]byte(text), &kept); err != nil || kept == nil {
		return nil, err
	}
	out := make([]material.Load, len(kept))
	for i, l := range kept {
		out[i] = material.Load(l)
	}
	return out, nil
}
