package document

import (
	"encoding/json"

	"patientladder/core/student/setup"
)

type bench struct {
	KeyTop    float64 `json:"keyTop,omitempty"`
	BenchLow  float64 `json:"benchLow"`
	BenchHigh float64 `json:"benchHigh"`
	Mats      []mat   `json:"mats,omitempty"`
}

// EncodeBench writes what a studio's bench and keys measure.
func EncodeBench(b setup.Bench) ([]byte, error) {
	out := bench{KeyTop: b.KeyTop, BenchLow: b.BenchLow, BenchHigh: b.BenchHigh}
	for _, m := range b.Mats {
		out.Mats = append(out.Mats, mat(m))
	}
	return json.Marshal(out)
}

// DecodeBench reads it.
func DecodeBench(data []byte) (setup.Bench, error) {
	var in bench
	err := json.Unmarshal(data, &in)
	out := setup.Bench{KeyTop: in.KeyTop, BenchLow: in.BenchLow, BenchHigh: in.BenchHigh}
	for _, m := range in.Mats {
		out.Mats = append(out.Mats, setup.Mat(m))
	}
	return out, err
}
