package document

import (
	"encoding/json"
	"time"

	"patientladder/core/planning/learning"
)

type learned struct {
	Factors map[string]float64 `json:"factors,omitempty"`
	Scale   float64            `json:"scale,omitempty"`
	At      time.Time          `json:"at"`
}

// EncodeLearned writes what a studio uses of what it has learned.
func EncodeLearned(u learning.Used) ([]byte, error) { return json.Marshal(learned(u)) }

// DecodeLearned reads it.
func DecodeLearned(data []byte) (learning.Used, error) {
	var in learned
	err := json.Unmarshal(data, &in)
	return learning.Used(in), err
}
