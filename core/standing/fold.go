package standing

import (
	"fmt"
	"sort"
	"time"

	"patientladder/core/clearing"
	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/memory"
	"patientladder/core/studentlog"
)

// Fold computes the standing from a log in any order. Entries about materials
// that the library does not hold are kept in the materials' standing but give
// no evidence for skills.
func Fold(entries []studentlog.Entry, ctx Context) *Standing {
	f := &fold{
		ctx:    ctx,
		out:    &Standing{Materials: map[string]*MaterialStanding{}, Planted: map[string]time.Time{}, Likings: map[string]map[studentlog.Sign]int{}, Ability: leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}}},
		habits: newHabits(ctx.Policy.HabitAfter),
		used:   map[string]time.Time{},
		steps:  map[string]map[int]bool{},
		days:   map[string]map[int64]bool{},
		early:  map[string]bool{},
		gained: map[string]int{},
	}
	live := studentlog.Live(entries)
	for _, e := range live {
		f.entry(e)
	}
	f.out.Entries = len(live)
	if len(live) > 0 {
		f.out.FirstLesson = live[0].At
	}
	f.finish()
	return f.out
}

type fold struct {
	ctx    Context
	out    *Standing
	habits *habits
	// used is when a skill was last used or shown.
	used map[string]time.Time
	// steps holds the preview steps done of each skill.
	steps map[string]map[int]bool
	// days holds the lesson days of each material since it was assigned.
	days map[string]map[int64]bool
	// early holds the spots mended so far: a second device's clock may put the
	// mending before the adding.
	early map[string]bool
	// gained is the number of lesson days at the last new or better mark.
	gained map[string]int
}

// material returns the standing of a material, made on first sight.
func (f *fold) material(id string) *MaterialStanding {
	m, ok := f.out.Materials[id]
	if !ok {
		m = &MaterialStanding{State: Heard, Marks: map[string]studentlog.Mark{}, Spots: []Spot{}, Runs: []Run{}}
		f.out.Materials[id] = m
		f.days[id] = map[int64]bool{}
	}
	return m
}

func (f *fold) entry(e studentlog.Entry) {
	switch e.Kind {
	case studentlog.Assigned:
		f.assign(e)
	case studentlog.MarkGiven:
		f.mark(e)
	case studentlog.SpotAdded:
		m := f.material(e.Material)
		m.Spots = append(m.Spots, Spot{ID: e.ID, From: e.From, To: e.To, Text: e.Text, At: e.At, Mended: f.early[e.ID]})
		f.played(e)
	case studentlog.SpotMended:
		m := f.material(e.Material)
		f.early[e.Spot] = true
		for i := range m.Spots {
			if m.Spots[i].ID == e.Spot && !m.Spots[i].Mended {
				m.Spots[i].Mended = true
				f.gain(e)
			}
		}
	case studentlog.RunTried:
		f.run(e)
	case studentlog.Cleared:
		f.clear(e, "Cleared by the teacher's word.")
	case studentlog.Polished:
		m := f.material(e.Material)
		if m.State != Polished {
			f.clear(e, "")
			m.hear(e.At, memory.Easy, f.ctx.Policy.Memory)
			m.State, m.Why = Polished, "Ready to be performed."
		}
	case studentlog.Hearing:
		m := f.material(e.Material)
		m.LastRating = e.Rating
		m.hear(e.At, memory.Rating(e.Rating), f.ctx.Policy.Memory)
		f.played(e)
	case studentlog.StepDone:
		if f.steps[e.Skill] == nil {
			f.steps[e.Skill] = map[int]bool{}
		}
		f.steps[e.Skill][e.Step] = true
		ev := f.out.Ability.Skills[e.Skill]
		ev.StepsDone = len(f.steps[e.Skill])
		if s, ok := f.ctx.Skills.Get(e.Skill); ok {
			ev.Steps = len(s.Steps)
		}
		f.out.Ability.Skills[e.Skill] = ev
		f.out.Planted[e.Skill] = e.At
	case studentlog.Paused:
		f.pause(e)
	case studentlog.Resumed:
		f.resume(e)
	case studentlog.Liking:
		if f.out.Likings[e.Material] == nil {
			f.out.Likings[e.Material] = map[studentlog.Sign]int{}
		}
		f.out.Likings[e.Material][e.Sign]++
	case studentlog.Probe:
		ev := f.out.Ability.Skills[e.Skill]
		ev.Shown, ev.Missing = e.Shown, !e.Shown
		f.out.Ability.Skills[e.Skill] = ev
		if e.Shown {
			f.used[e.Skill] = e.At
		}
	case studentlog.FocusAdded:
		f.habits.add(e.Focus, e.Text)
	}
}

// evidence applies a change to the evidence of every skill that a material demands.
func (f *fold) evidence(id string, change func(*leap.Evidence)) {
	for _, d := range f.ctx.Library[id].Demands {
		ev := f.out.Ability.Skills[d.Skill]
		change(&ev)
		f.out.Ability.Skills[d.Skill] = ev
	}
}

// assign makes a material a working piece. Assigning a working piece again changes nothing.
func (f *fold) assign(e studentlog.Entry) {
	m := f.material(e.Material)
	f.resume(e)
	if m.State == Working {
		return
	}
	f.fade(e.At)
	if lib, ok := f.ctx.Library[e.Material]; ok && m.Before == nil {
		l := f.ctx.Policy.Leap.Of(lib, f.out.Ability)
		m.Before = &l
	}
	if m.State == Heard {
		m.Assigned = e.At
	}
	m.State = Working
	f.evidence(e.Material, func(ev *leap.Evidence) { ev.Working++ })
}

// pause puts a working piece to rest; what it taught so far stays.
func (f *fold) pause(e studentlog.Entry) {
	if m := f.material(e.Material); m.State == Working {
		m.State, m.PausedAt = Resting, e.At
	}
}

// resume takes a resting piece up again.
func (f *fold) resume(e studentlog.Entry) {
	if m := f.material(e.Material); m.State == Resting {
		m.State = Working
		m.Rested += max(0, daysBetween(m.PausedAt, e.At))
	}
}

func (f *fold) mark(e studentlog.Entry) {
	m := f.material(e.Material)
	before := m.Marks[e.Focus]
	m.Marks[e.Focus] = e.Mark
	f.habits.mark(e.Focus, e.Material, e.Mark)
	f.played(e)
	if worth(e.Mark) > worth(before) {
		f.gain(e)
	}
}

func worth(m studentlog.Mark) int {
	switch m {
	case studentlog.Part:
		return 1
	case studentlog.Full:
		return 2
	}
	return 0
}

// gain notes that this lesson brought something new for the material.
func (f *fold) gain(e studentlog.Entry) {
	f.played(e)
	f.gained[e.Material] = len(f.days[e.Material])
}

// played notes that a material was played on a day, which keeps its skills fresh.
func (f *fold) played(e studentlog.Entry) {
	m := f.material(e.Material)
	m.LastPlayed = e.At
	f.days[e.Material][e.At.Unix()/(24*60*60)] = true
	for _, d := range f.ctx.Library[e.Material].Demands {
		f.used[d.Skill] = e.At
	}
	f.out.LastLesson = e.At
}

func (f *fold) run(e studentlog.Entry) {
	v := clearing.Judge(clearing.Standard(f.ctx.Family, clearing.Level(e.Standard)), e.Met)
	m := f.material(e.Material)
	met := append([]string{}, e.Met...)
	sort.Strings(met)
	m.Runs = append(m.Runs, Run{ID: e.ID, At: e.At, Met: met, Cleared: v.Cleared, Why: v.Why})
	f.played(e)
	switch learned := m.State == Cleared || m.State == Polished; {
	case learned && v.Cleared:
		m.hear(e.At, memory.Solid, f.ctx.Policy.Memory)
	case learned:
		m.hear(e.At, memory.Shaky, f.ctx.Policy.Memory)
	case v.Cleared:
		f.clear(e, v.Why)
	}
}

// clear makes a material cleared. Clearing twice counts once.
func (f *fold) clear(e studentlog.Entry, why string) {
	m := f.material(e.Material)
	if m.State == Cleared || m.State == Polished {
		return
	}
	f.resume(e)
	worked, again := m.State == Working, !m.ClearedAt.IsZero()
	m.State, m.Why = Cleared, why
	m.hear(e.At, memory.Solid, f.ctx.Policy.Memory)
	if !again {
		m.ClearedAt = e.At
	}
	lib, known := f.ctx.Library[e.Material]
	f.evidence(e.Material, func(ev *leap.Evidence) {
		if worked {
			ev.Working--
		}
		if !again {
			ev.Cleared++
		}
	})
	f.gain(e)
	if known {
		f.out.Ability.LongestBars = max(f.out.Ability.LongestBars, lib.DistinctBars)
		if lib.Tempo > 0 {
			f.out.Ability.Tempo[lib.Texture] = max(f.out.Ability.Tempo[lib.Texture], lib.Tempo)
		}
	}
}

// fade marks the skills whose last use lies too long before a day.
func (f *fold) fade(day time.Time) {
	limit := time.Duration(f.ctx.Policy.RustyAfterDays) * 24 * time.Hour
	for id, ev := range f.out.Ability.Skills {
		last, seen := f.used[id]
		ev.Faded = seen && day.Sub(last) > limit
		f.out.Ability.Skills[id] = ev
	}
}

// finish computes what depends on the whole log.
func (f *fold) finish() {
	f.out.Focus = f.habits.list()
	f.fade(f.ctx.Day)
	travelling := f.out.Travelling()
	for id, m := range f.out.Materials {
		m.Lessons = len(f.days[id])
		m.SinceMark = m.Lessons - f.gained[id]
		if m.State == Working {
			m.count(f.ctx.Library[id].FocusPoints, travelling)
			m.RunDue, m.Why = m.due()
		}
		if m.State == Resting {
			m.Why = "It rests since " + m.PausedAt.Format("2 January") + "."
		}
	}
}

// count counts the focus points of a working piece and those with a full mark.
func (m *MaterialStanding) count(points []material.FocusPoint, own []FocusStanding) {
	one := func(mark studentlog.Mark) {
		m.Points++
		if mark == studentlog.Full {
			m.Full++
		}
	}
	for _, p := range points {
		one(m.Marks[p.ID])
	}
	for _, p := range own {
		one(m.Marks[p.ID])
	}
	if mark, any := m.SpotsMark(); any {
		one(mark)
	}
}

// due says whether a run is due on a working piece, and the sentence for it.
func (m *MaterialStanding) due() (bool, string) {
	all := m.Points > 0 && m.Full == m.Points
	if n := len(m.Runs); n > 0 && !m.Runs[n-1].Cleared {
		return all, m.Runs[n-1].Why
	}
	switch {
	case m.Points == 0:
		return false, "It has no focus points yet."
	case all:
		return true, "Every focus point has its full mark: a run is due."
	}
	return false, fmt.Sprintf("%d of %d focus points have their full mark.", m.Full, m.Points)
}

// inOrder returns the material ids by the time of assignment, then id.
func (s *Standing) inOrder() []string {
	ids := make([]string, 0, len(s.Materials))
	for id := range s.Materials {
		ids = append(ids, id)
	}
	sort.Slice(ids, func(a, b int) bool {
		x, y := s.Materials[ids[a]].Assigned, s.Materials[ids[b]].Assigned
		if !x.Equal(y) {
			return x.Before(y)
		}
		return ids[a] < ids[b]
	})
	return ids
}
