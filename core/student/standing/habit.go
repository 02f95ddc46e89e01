package standing

import "patientladder/core/student/studentlog"

// FocusStanding is one of the student's own focus points.
type FocusStanding struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	// Streak counts the materials in a row that gave a full mark at the first try.
	Streak int `json:"streak"`
	// Habit says that it no longer travels.
	Habit bool `json:"habit"`
}

// habits follows the student's own focus points through the log.
type habits struct {
	order []string
	byID  map[string]*FocusStanding
	tried map[[2]string]bool // focus, material: a first mark was given
	after int
}

func newHabits(after int) *habits {
	return &habits{byID: map[string]*FocusStanding{}, tried: map[[2]string]bool{}, after: after}
}

func (h *habits) add(id, text string) {
	if _, known := h.byID[id]; !known {
		h.order = append(h.order, id)
		h.byID[id] = &FocusStanding{ID: id, Text: text}
	}
}

// mark notes a mark. Only the first mark on each material counts for the
// streak; a mark of none brings a habit back.
func (h *habits) mark(focus, material string, m studentlog.Mark) {
	f, own := h.byID[focus]
	if !own {
		return
	}
	key := [2]string{focus, material}
	first := !h.tried[key]
	h.tried[key] = true
	switch {
	case m == studentlog.None:
		f.Streak, f.Habit = 0, false
	case first && m == studentlog.Full:
		f.Streak++
		f.Habit = f.Habit || f.Streak >= h.after
	case first:
		f.Streak = 0
	}
}

func (h *habits) list() []FocusStanding {
	out := make([]FocusStanding, 0, len(h.order))
	for _, id := range h.order {
		out = append(out, *h.byID[id])
	}
	return out
}
