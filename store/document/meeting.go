package document

import (
	"encoding/json"

	"patientladder/core/library/instrument"
	"patientladder/core/planning/meeting"
)

type meetingActivity struct {
	ID      string            `json:"id"`
	Name    string            `json:"name"`
	Say     string            `json:"say"`
	Minutes int               `json:"minutes"`
	From    int               `json:"from"`
	To      int               `json:"to"`
	Off     bool              `json:"off,omitempty"`
	Part    meeting.Part      `json:"part,omitempty"`
	Family  instrument.Family `json:"family,omitempty"`
	Shows   string            `json:"shows,omitempty"`
	Home    string            `json:"home,omitempty"`
}

// EncodeMeetingActivity writes a studio's activity of a first meeting.
func EncodeMeetingActivity(o meeting.Own) ([]byte, error) {
	return json.Marshal(meetingActivity{o.ID, o.Name, o.Say, o.Minutes, o.From, o.To, o.Off, o.Part, o.Family, o.Shows, o.Home})
}

// DecodeMeetingActivity reads it.
func DecodeMeetingActivity(data []byte) (meeting.Own, error) {
	var in meetingActivity
	err := json.Unmarshal(data, &in)
	return meeting.Own{
		ID: in.ID, Name: in.Name, Say: in.Say, Minutes: in.Minutes, From: in.From, To: in.To, Off: in.Off, Part: in.Part, Family: in.Family,
		Shows: in.Shows, Home: in.Home,
	}, err
}
