package document

import (
	"encoding/json"
	"time"

	"patientladder/core/planning/progress"
)

type report struct {
	Purpose string                `json:"purpose"`
	Length  string                `json:"length"`
	Tone    string                `json:"tone"`
	From    time.Time             `json:"from"`
	To      time.Time             `json:"to"`
	Edits   map[string]reportEdit `json:"edits,omitempty"`
	Own     string                `json:"own,omitempty"`
}

type reportEdit struct {
	Text string `json:"text"`
	Was  string `json:"was"`
}

// EncodeReport writes a report as the teacher has it.
func EncodeReport(w progress.Written) ([]byte, error) {
	out := report{Purpose: string(w.Purpose), Length: string(w.Length), Tone: string(w.Tone), From: w.Span.From, To: w.Span.To, Own: w.Own}
	for part, e := range w.Edits {
		if out.Edits == nil {
			out.Edits = map[string]reportEdit{}
		}
		out.Edits[string(part)] = reportEdit(e)
	}
	return json.Marshal(out)
}

// DecodeReport reads it.
func DecodeReport(data []byte) (progress.Written, error) {
	var in report
	err := json.Unmarshal(data, &in)
	out := progress.Written{
		Purpose: progress.Purpose(in.Purpose), Length: progress.Length(in.Length), Tone: progress.Tone(in.Tone),
		Span: progress.Span{From: in.From, To: in.To}, Own: in.Own,
	}
	for part, e := range in.Edits {
		if out.Edits == nil {
			out.Edits = map[progress.Part]progress.Edit{}
		}
		out.Edits[progress.Part(part)] = progress.Edit(e)
	}
	return out, err
}

type sentReport struct {
	Title string   `json:"title"`
	Days  string   `json:"days"`
	Lines []string `json:"lines"`
}

// EncodePublished writes what a published report says.
func EncodePublished(p progress.Published) ([]byte, error) { return json.Marshal(sentReport(p)) }

// DecodePublished reads it.
func DecodePublished(data []byte) (progress.Published, error) {
	var in sentReport
	err := json.Unmarshal(data, &in)
	return progress.Published(in), err
}
