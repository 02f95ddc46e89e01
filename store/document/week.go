package document

import (
	"encoding/json"
	"time"

	"patientladder/core/planning/week"
)

// weekVersion 3 has what is held back, how often and what is watched as facts; before they were sentences. Version 2
// has names of its own; version 1 had those of core, which are the same but for their first letters.
const weekVersion = 3

type published struct {
	versioned
	Days     []day    `json:"days"`
	LeftOut  []item   `json:"leftOut"`
	Dropped  []item   `json:"dropped"`
	NotYet   []string `json:"notYet,omitempty"` // before version 3, as are Watch and Dose
	Watch    string   `json:"watch,omitempty"`
	Dose     string   `json:"dose,omitempty"`
	Held     []held   `json:"held,omitempty"`
	There    []step   `json:"there,omitempty"`
	Watched  *watched `json:"watched,omitempty"`
	Often    often    `json:"often,omitzero"`
	Estimate string   `json:"estimate"`
}

type held struct {
	Kind  week.HeldKind `json:"kind,omitempty"`
	Title string        `json:"title,omitempty"`
	Said  string        `json:"said,omitempty"`
}

type watched struct {
	Text string `json:"text,omitempty"`
	Home string `json:"home,omitempty"`
	Said string `json:"said,omitempty"`
}

type often struct {
	Dose week.Dose `json:"dose,omitempty"`
	Row  int       `json:"row,omitempty"`
	Said string    `json:"said,omitempty"`
}

type day struct {
	Date    time.Time `json:"date"`
	Rest    bool      `json:"rest,omitempty"`
	Items   []item    `json:"items"`
	Minutes float64   `json:"minutes"`
	Focus   string    `json:"focus,omitempty"`
}

type item struct {
	Key      string    `json:"key"`
	Kind     week.Kind `json:"kind"`
	Material string    `json:"material,omitempty"`
	Title    string    `json:"title"`
	Bars     bars      `json:"bars,omitzero"`
	Start    float64   `json:"start,omitempty"`
	End      float64   `json:"end,omitempty"`
	Hand     string    `json:"hand,omitempty"`
	Times    int       `json:"times,omitempty"`
	InRow    bool      `json:"inRow,omitempty"`
	Minutes  float64   `json:"minutes"`
	Words    string    `json:"words,omitempty"`
	Goals    []string  `json:"goals,omitempty"`
	Exercise string    `json:"exercise,omitempty"`
	Pinned   bool      `json:"pinned,omitempty"`
	Purpose  string    `json:"purpose,omitempty"`
	Slower   int       `json:"slower,omitempty"`
}

type step struct {
	Material string `json:"material"`
	Bars     bars   `json:"bars"`
	Hand     string `json:"hand,omitempty"`
}

type bars struct {
	From   int  `json:"from"`
	To     int  `json:"to"`
	Upbeat bool `json:"upbeat,omitempty"`
}

// EncodeWeek writes a week as it is published. The words of its things are kept as they were said.
func EncodeWeek(p week.Plan) ([]byte, error) {
	out := published{
		versioned: versioned{weekVersion}, LeftOut: items(p.LeftOut), Dropped: items(p.Dropped), Often: often(p.Often),
		Watched: (*watched)(p.Watch), Estimate: p.Estimate,
	}
	for _, h := range p.NotYet {
		out.Held = append(out.Held, held(h))
	}
	for _, x := range p.There {
		out.There = append(out.There, step{x.Material, bars(x.Bars), x.Hand})
	}
	for _, d := range p.Days {
		out.Days = append(out.Days, day{d.Date, d.Rest, items(d.Items), d.Minutes, d.Focus})
	}
	return json.Marshal(out)
}

// DecodeWeek reads a published week.
func DecodeWeek(data []byte) (week.Plan, error) {
	if _, err := known(data, weekVersion); err != nil {
		return week.Plan{}, err
	}
	var in published
	if err := json.Unmarshal(data, &in); err != nil {
		return week.Plan{}, err
	}
	out := week.Plan{
		LeftOut:  itemsOf(in.LeftOut),
		Dropped:  itemsOf(in.Dropped),
		Often:    week.Often(in.Often),
		Watch:    (*week.Watch)(in.Watched),
		Estimate: in.Estimate,
	}
	for _, said := range in.NotYet {
		out.NotYet = append(out.NotYet, week.Held{Said: said})
	}
	for _, h := range in.Held {
		out.NotYet = append(out.NotYet, week.Held(h))
	}
	if in.Watch != "" {
		out.Watch = &week.Watch{Said: in.Watch}
	}
	if in.Dose != "" {
		out.Often = week.Often{Said: in.Dose}
	}
	for _, x := range in.There {
		out.There = append(out.There, week.Step{Material: x.Material, Bars: week.Bars(x.Bars), Hand: x.Hand})
	}
	for _, d := range in.Days {
		out.Days = append(out.Days, week.Day{Date: d.Date, Rest: d.Rest, Items: itemsOf(d.Items), Minutes: d.Minutes, Focus: d.Focus})
	}
	return out, nil
}

func items(list []week.Item) (out []item) {
	for _, it := range list {
		out = append(
			out,
			item{
				it.Key,
				it.Kind,
				it.Material,
				it.Title,
				bars(it.Bars),
				it.Start,
				it.End,
				it.Hand,
				it.Times,
				it.InRow,
				it.Minutes,
				it.Words,
				it.Goals,
				it.Exercise,
				it.Pinned,
				string(it.Purpose),
				it.Slower,
			},
		)
	}
	return out
}

func itemsOf(list []item) (out []week.Item) {
	for _, it := range list {
		out = append(out, week.Item{
			Key: it.Key, Kind: it.Kind, Material: it.Material, Title: it.Title, Bars: week.Bars(it.Bars), Start: it.Start, End: it.End,
			Hand:  it.Hand,
			Times: it.Times, InRow: it.InRow, Minutes: it.Minutes, Words: it.Words, Goals: it.Goals, Exercise: it.Exercise, Pinned: it.Pinned,
			Purpose: week.Purpose(it.Purpose), Slower: it.Slower,
		})
	}
	return out
}

type weekHand struct {
	Days    map[string]bool   `json:"days,omitempty"`
	Minutes int               `json:"minutes,omitempty"`
	Drops   []string          `json:"drops,omitempty"`
	Pins    map[string]string `json:"pins,omitempty"`
	Times   map[string]int    `json:"times,omitempty"`
	Adds    []string          `json:"adds,omitempty"`
	Aside   []string          `json:"aside,omitempty"`
	Words   string            `json:"words,omitempty"`
}

// EncodeWeekHand writes what was set by hand in a week.
func EncodeWeekHand(h week.Hand) ([]byte, error) { return json.Marshal(weekHand(h)) }

// DecodeWeekHand reads it.
func DecodeWeekHand(data []byte) (week.Hand, error) {
	var h weekHand
	err := json.Unmarshal(data, &h)
	return week.Hand(h), err
}
