package document

import (
	"encoding/json"
	"strconv"
	"strings"
	"time"

	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/next"
	"patientladder/core/planning/review"
)

// planVersion 2 keeps facts; before it the sentences themselves were kept.
const planVersion = 2

type plan struct {
	versioned
	Minutes  int       `json:"minutes"`
	Segments []segment `json:"segments"`
	Left     []segment `json:"left"`
	Free     int       `json:"free"`
	Review   int       `json:"review"`
	Aim      int       `json:"aim"`
	Worth    float64   `json:"worth"`
	Begun    bool      `json:"begun,omitempty"`
}

type segment struct {
	ID       string   `json:"id"`
	Kind     string   `json:"kind"`
	Layer    string   `json:"layer"`
	Material string   `json:"material,omitempty"`
	Skill    string   `json:"skill,omitempty"`
	Step     int      `json:"step,omitempty"`
	Goal     string   `json:"goal,omitempty"`
	Option   int      `json:"option,omitempty"`
	Options  int      `json:"options,omitempty"`
	Lead     bool     `json:"lead,omitempty"`
	Fault    string   `json:"fault,omitempty"`
	Exercise string   `json:"exercise,omitempty"`
	Player   string   `json:"player,omitempty"`
	Gestures []string `json:"gestures,omitempty"`
	Focus    []string `json:"focus,omitempty"`
	Least    int      `json:"least"`
	Usual    int      `json:"usual"`
	Most     int      `json:"most"`
	Value    float64  `json:"value"`
	Must     bool     `json:"must,omitempty"`
	New      bool     `json:"new,omitempty"`
	Due      bool     `json:"due,omitempty"`
	Sure     bool     `json:"sure,omitempty"`
	Quarter  bool     `json:"quarter,omitempty"`
	// Blocked and Reason are objects; strings in version 1. Why is a list; a string in version 1.
	Blocked json.RawMessage `json:"blocked,omitempty"`
	Why     json.RawMessage `json:"why,omitempty"`
	Reason  json.RawMessage `json:"reason,omitempty"`
	Minutes int             `json:"minutes,omitempty"`
	Pinned  bool            `json:"pinned,omitempty"`
	// Words were kept in version 1: the open focus points of a piece.
	Words []string `json:"words,omitempty"`
}

type waiting struct {
	Kind  string `json:"kind"`
	Count int    `json:"count,omitempty"`
}

type reason struct {
	Kind     string        `json:"kind"`
	Count    int           `json:"count,omitempty"`
	Of       int           `json:"of,omitempty"`
	Material string        `json:"material,omitempty"`
	Review   *reviewReason `json:"review,omitempty"`
	Proposal *proposal     `json:"proposal,omitempty"`
}

type reviewReason struct {
	Recall    float64 `json:"recall"`
	Days      int     `json:"days"`
	LeftWeeks int     `json:"leftWeeks,omitempty"`
	Refines   bool    `json:"refines,omitempty"`
	Favourite bool    `json:"favourite,omitempty"`
	Elsewhere bool    `json:"elsewhere,omitempty"`
}

type proposal struct {
	Kind     string    `json:"kind"`
	Leap     float64   `json:"leap,omitempty"`
	Reach    float64   `json:"reach,omitempty"`
	Last     []float64 `json:"last,omitempty"`
	Of       int       `json:"of,omitempty"`
	Material string    `json:"material,omitempty"`
	Skills   []string  `json:"skills,omitempty"`
	Weeks    int       `json:"weeks,omitempty"`
	From     time.Time `json:"from,omitzero"`
}

// EncodePlan writes the plan of a lesson.
func EncodePlan(p lessonplan.Plan) ([]byte, error) {
	out := plan{
		versioned: versioned{planVersion},
		Minutes:   p.Minutes,
		Free:      p.Free,
		Review:    p.Review,
		Aim:       p.Aim,
		Worth:     p.Worth,
		Begun:     p.Begun,
		Segments:  []segment{},
		Left:      []segment{},
	}
	for _, c := range p.Segments {
		s, err := segmentOf(c.Segment)
		if err != nil {
			return nil, err
		}
		s.Minutes, s.Pinned = c.Minutes, c.Pinned
		out.Segments = append(out.Segments, s)
	}
	for _, l := range p.Left {
		s, err := segmentOf(l.Segment)
		if err != nil {
			return nil, err
		}
		if s.Reason, err = json.Marshal(waiting{string(l.Reason.Kind), l.Reason.Count}); err != nil {
			return nil, err
		}
		out.Left = append(out.Left, s)
	}
	return json.Marshal(out)
}

// DecodePlan reads the plan of a lesson. Of a plan of version 1, which kept sentences, the
// segments stay and their reasons are not known any more.
func DecodePlan(data []byte) (lessonplan.Plan, error) {
	version, err := known(data, planVersion)
	if err != nil {
		return lessonplan.Plan{}, err
	}
	var in plan
	if err := json.Unmarshal(data, &in); err != nil {
		return lessonplan.Plan{}, err
	}
	out := lessonplan.Plan{
		Minutes:  in.Minutes,
		Free:     in.Free,
		Review:   in.Review,
		Aim:      in.Aim,
		Worth:    in.Worth,
		Begun:    in.Begun,
		Segments: []lessonplan.Chosen{},
		Left:     []lessonplan.Left{},
	}
	for _, s := range in.Segments {
		x, err := s.segment(version)
		if err != nil {
			return out, err
		}
		out.Segments = append(out.Segments, lessonplan.Chosen{Segment: x, Minutes: s.Minutes, Pinned: s.Pinned})
	}
	for _, s := range in.Left {
		x, err := s.segment(version)
		if err != nil {
			return out, err
		}
		left := lessonplan.Left{Segment: x, Reason: lessonplan.Waiting{Kind: lessonplan.WorthLess}}
		if version >= planVersion {
			var w waiting
			if err := json.Unmarshal(s.Reason, &w); err != nil {
				return out, err
			}
			left.Reason = lessonplan.Waiting{Kind: lessonplan.Wait(w.Kind), Count: w.Count}
		}
		out.Left = append(out.Left, left)
	}
	return out, nil
}

func segmentOf(s lessonplan.Segment) (segment, error) {
	out := segment{
		ID: s.ID, Kind: string(s.Kind), Layer: string(s.Layer), Material: s.Material, Skill: s.Skill, Step: s.Step, Goal: s.Goal,
		Option:  s.Option,
		Options: s.Options, Lead: s.Lead, Fault: s.Fault, Exercise: s.Exercise, Player: s.Player, Gestures: s.Gestures, Due: s.Due, Sure: s.Sure, Quarter: s.Quarter,
		Focus: s.Focus, Least: s.Least, Usual: s.Usual, Most: s.Most, Value: s.Value, Must: s.Must, New: s.New,
	}
	var err error
	if s.Blocked != nil {
		if out.Blocked, err = json.Marshal(waiting{string(s.Blocked.Kind), s.Blocked.Count}); err != nil {
			return out, err
		}
	}
	why := []reason{}
	for _, r := range s.Why {
		x := reason{Kind: string(r.Kind), Count: r.Count, Of: r.Of, Material: r.Material}
		if r.Review != nil {
			kept := reviewReason(*r.Review)
			x.Review = &kept
		}
		if p := r.Proposal; p != nil {
			x.Proposal = &proposal{string(p.Kind), p.Leap, p.Reach, p.Last, p.Of, p.Material, p.Skills, p.Weeks, p.From}
		}
		why = append(why, x)
	}
	out.Why, err = json.Marshal(why)
	return out, err
}

func (s segment) segment(version int) (lessonplan.Segment, error) {
	out := lessonplan.Segment{
		ID: s.ID, Kind: lessonplan.Kind(s.Kind), Layer: lessonplan.Layer(s.Layer), Material: s.Material, Skill: s.Skill, Step: s.Step,
		Goal: s.Goal, Option: s.Option,
		Options: s.Options, Lead: s.Lead, Fault: s.Fault, Exercise: s.Exercise, Player: s.Player, Gestures: s.Gestures, Due: s.Due, Sure: s.Sure, Quarter: s.Quarter,
		Focus: s.Focus, Least: s.Least, Usual: s.Usual, Most: s.Most, Value: s.Value, Must: s.Must, New: s.New,
	}
	if version < planVersion {
		s.named(&out)
		return out, nil
	}
	if len(s.Blocked) > 0 {
		var w waiting
		if err := json.Unmarshal(s.Blocked, &w); err != nil {
			return out, err
		}
		out.Blocked = &lessonplan.Waiting{Kind: lessonplan.Wait(w.Kind), Count: w.Count}
	}
	var why []reason
	if err := json.Unmarshal(s.Why, &why); err != nil {
		return out, err
	}
	for _, r := range why {
		x := lessonplan.Reason{Kind: lessonplan.Why(r.Kind), Count: r.Count, Of: r.Of, Material: r.Material}
		if r.Review != nil {
			kept := review.Reason(*r.Review)
			x.Review = &kept
		}
		if p := r.Proposal; p != nil {
			x.Proposal = &next.Reason{
				Kind:     next.Why(p.Kind),
				Leap:     p.Leap,
				Reach:    p.Reach,
				Last:     p.Last,
				Of:       p.Of,
				Material: p.Material,
				Skills:   p.Skills,
				Weeks:    p.Weeks,
				From:     p.From,
			}
		}
		out.Why = append(out.Why, x)
	}
	return out, nil
}

// named fills in from the id of a segment of version 1 what it is about.
func (s segment) named(out *lessonplan.Segment) {
	what, of, _ := strings.Cut(s.ID, " ")
	switch what {
	case "bite":
		out.Skill, out.Step = of, 1
	case "activity":
		goal, option, _ := strings.Cut(of, " ")
		out.Goal = goal
		out.Option, _ = strconv.Atoi(option)
	case "working":
		out.Focus = s.Words
	}
}

type planHand struct {
	Minutes int            `json:"minutes,omitempty"`
	Pins    map[string]int `json:"pins,omitempty"`
	Drops   []string       `json:"drops,omitempty"`
	Order   []string       `json:"order,omitempty"`
}

// EncodePlanHand writes what was set by hand in the plan of a lesson.
func EncodePlanHand(h lessonplan.Hand) ([]byte, error) { return json.Marshal(planHand(h)) }

// DecodePlanHand reads it.
func DecodePlanHand(data []byte) (lessonplan.Hand, error) {
	var h planHand
	err := json.Unmarshal(data, &h)
	return lessonplan.Hand(h), err
}
