package document

import (
	"encoding/json"
	"time"

	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

// entry is an entry of a log. Entries have no version: a log is for ever, so that a field keeps its name
// and meaning, and a new one is left out where it says nothing.
type entry struct {
	ID       string              `json:"id"`
	At       time.Time           `json:"at"`
	Actor    string              `json:"actor"`
	Kind     studentlog.Kind     `json:"kind"`
	Material string              `json:"material,omitempty"`
	Focus    string              `json:"focus,omitempty"`
	Mark     studentlog.Mark     `json:"mark,omitempty"`
	From     int                 `json:"from,omitempty"`
	To       int                 `json:"to,omitempty"`
	Spot     string              `json:"spot,omitempty"`
	Met      []string            `json:"met,omitempty"`
	Standard string              `json:"standard,omitempty"`
	Rating   int                 `json:"rating,omitempty"`
	Skill    string              `json:"skill,omitempty"`
	Goal     string              `json:"goal,omitempty"`
	Step     int                 `json:"step,omitempty"`
	Shown    bool                `json:"shown,omitempty"`
	Outcome  string              `json:"outcome,omitempty"`
	Sign     studentlog.Reaction `json:"sign,omitempty"`
	Setup    *measures           `json:"setup,omitempty"`
	Gate     studentlog.Gate     `json:"gate,omitempty"`
	Day      string              `json:"day,omitempty"`
	Item     string              `json:"item,omitempty"`
	Times    int                 `json:"times,omitempty"`
	Felt     studentlog.Feeling  `json:"felt,omitempty"`
	Minutes  int                 `json:"minutes,omitempty"`
	Cycle    *cycle              `json:"cycle,omitempty"`
	Climb    *climb              `json:"climb,omitempty"`
	Tempo    int                 `json:"tempo,omitempty"`
	Held     bool                `json:"held,omitempty"`
	Text     string              `json:"text,omitempty"`
	Corrects string              `json:"corrects,omitempty"`
}

type cycle struct {
	Type   string `json:"type"`
	Step   string `json:"step"`
	Kind   string `json:"kind"`
	First  string `json:"first"`
	Order  string `json:"order"`
	From   string `json:"from"`
	Before bool   `json:"before,omitempty"`
}

type climb struct {
	From  int `json:"from"`
	To    int `json:"to"`
	Weeks int `json:"weeks"`
}

type measures struct {
	Place     setup.Place `json:"place,omitempty"`
	KeyTop    float64     `json:"keyTop"`
	Elbow     float64     `json:"elbow"`
	Leg       float64     `json:"leg"`
	BenchLow  float64     `json:"benchLow"`
	BenchHigh float64     `json:"benchHigh"`
	Lean      setup.Lean  `json:"lean"`
	Mats      []mat       `json:"mats,omitempty"`
	Pedal     bool        `json:"pedal,omitempty"`
}

type mat struct {
	Thickness float64 `json:"thickness"`
	Soft      bool    `json:"soft,omitempty"`
}

// EncodeEntry writes an entry; the same entry always has the same bytes.
func EncodeEntry(e studentlog.Entry) ([]byte, error) {
	out := entry{
		ID: e.ID, At: e.At, Actor: e.Actor, Kind: e.Kind, Material: e.Material, Focus: e.Focus, Mark: e.Mark, From: e.From, To: e.To,
		Spot: e.Spot, Met: e.Met, Standard: e.Standard, Rating: e.Rating, Skill: e.Skill, Goal: e.Goal, Step: e.Step, Shown: e.Shown,
		Outcome: e.Outcome, Sign: e.Sign, Gate: e.Gate, Day: e.Day, Item: e.Item, Times: e.Times, Felt: e.Felt, Minutes: e.Minutes,
		Tempo: e.Tempo, Held: e.Held, Text: e.Text, Corrects: e.Corrects,
	}
	if e.Cycle != nil {
		c := cycle(*e.Cycle)
		out.Cycle = &c
	}
	if e.Climb != nil {
		c := climb(*e.Climb)
		out.Climb = &c
	}
	if m := e.Setup; m != nil {
		out.Setup = &measures{m.Place, m.KeyTop, m.Elbow, m.Leg, m.BenchLow, m.BenchHigh, m.Lean, nil, m.Pedal}
		for _, x := range m.Mats {
			out.Setup.Mats = append(out.Setup.Mats, mat(x))
		}
	}
	return json.Marshal(out)
}

// DecodeEntry reads an entry.
func DecodeEntry(data []byte) (studentlog.Entry, error) {
	var e entry
	if err := json.Unmarshal(data, &e); err != nil {
		return studentlog.Entry{}, err
	}
	out := studentlog.Entry{
		ID: e.ID, At: e.At, Actor: e.Actor, Kind: e.Kind, Material: e.Material, Focus: e.Focus, Mark: e.Mark, From: e.From, To: e.To,
		Spot: e.Spot, Met: e.Met, Standard: e.Standard, Rating: e.Rating, Skill: e.Skill, Goal: e.Goal, Step: e.Step, Shown: e.Shown,
		Outcome: e.Outcome, Sign: e.Sign, Gate: e.Gate, Day: e.Day, Item: e.Item, Times: e.Times, Felt: e.Felt, Minutes: e.Minutes,
		Tempo: e.Tempo, Held: e.Held, Text: e.Text, Corrects: e.Corrects,
	}
	if e.Cycle != nil {
		c := studentlog.Cycle(*e.Cycle)
		out.Cycle = &c
	}
	if e.Climb != nil {
		c := studentlog.Climb(*e.Climb)
		out.Climb = &c
	}
	if m := e.Setup; m != nil {
		out.Setup = &setup.Measures{
			Place:     m.Place,
			Pedal:     m.Pedal,
			KeyTop:    m.KeyTop,
			Elbow:     m.Elbow,
			Leg:       m.Leg,
			BenchLow:  m.BenchLow,
			BenchHigh: m.BenchHigh,
			Lean:      m.Lean,
		}
		for _, x := range m.Mats {
			out.Setup.Mats = append(out.Setup.Mats, setup.Mat(x))
		}
	}
	return out, nil
}
