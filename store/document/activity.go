package document

import (
	"encoding/json"

	"patientladder/core/library/instrument"
	"patientladder/core/planning/lessonplan"
)

type activity struct {
	ID       string              `json:"id"`
	Name     string              `json:"name"`
	From     int                 `json:"from"`
	To       int                 `json:"to"`
	Families []instrument.Family `json:"families,omitempty"`
	Options  []string            `json:"options"`
	Home     string              `json:"home,omitempty"`
	Behind   []string            `json:"behind,omitempty"`
	Cue      string              `json:"cue,omitempty"`
	Keys     []int               `json:"keys,omitempty"`
	Sound    []int               `json:"sound,omitempty"`
	Beats    int                 `json:"beats,omitempty"`
	Off      bool                `json:"off,omitempty"`
}

// EncodeActivity writes an activity of a studio.
func EncodeActivity(g lessonplan.Goal) ([]byte, error) { return json.Marshal(activity(g)) }

// DecodeActivity reads it.
func DecodeActivity(data []byte) (lessonplan.Goal, error) {
	var in activity
	err := json.Unmarshal(data, &in)
	return lessonplan.Goal(in), err
}
