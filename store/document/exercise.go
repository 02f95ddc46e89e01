package document

import (
	"encoding/json"

	"patientladder/core/technique/exercise"
)

type exerciseForm struct {
	Type   string              `json:"type"`
	Goals  map[string][]string `json:"goals,omitempty"`
	Faults []watchedFault      `json:"faults,omitempty"`
}

type watchedFault struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	Look string `json:"look"`
	Off  bool   `json:"off,omitempty"`
}

// EncodeExerciseForm writes how a studio says a type of exercise.
func EncodeExerciseForm(f exercise.Form) ([]byte, error) {
	out := exerciseForm{Type: f.Type, Goals: f.Goals}
	for _, x := range f.Faults {
		out.Faults = append(out.Faults, watchedFault(x))
	}
	return json.Marshal(out)
}

// DecodeExerciseForm reads it.
func DecodeExerciseForm(data []byte) (exercise.Form, error) {
	var in exerciseForm
	err := json.Unmarshal(data, &in)
	out := exercise.Form{Type: in.Type, Goals: in.Goals}
	for _, x := range in.Faults {
		out.Faults = append(out.Faults, exercise.Fault(x))
	}
	return out, err
}
