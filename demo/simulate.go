package demo

import (
	"math"
	"math/rand/v2"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/next"
	"patientladder/core/planning/preview"
	"patientladder/core/student/clearing"
	"patientladder/core/student/setup"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// simulation plays the weekly lessons of one student through the rules of the
// core: pieces are proposed, points get marks, spots come and go, runs are
// tried. A larger leap takes more lessons.
type simulation struct {
	student student
	lib     material.Library
	placed  []ladder.Placed
	skills  skill.Catalogue
	family  instrument.Family
	teacher string
	rng     *rand.Rand
	zone    *time.Location
	ids     *ids

	log []studentlog.Entry
	at  time.Time
	// last says that this is the last lesson before today, whose runs are left for today.
	last bool
}

// run returns the log of all lessons before day, the last one a week earlier.
func (s *simulation) run(day time.Time, l store.Ladder) []studentlog.Entry {
	first := day.AddDate(0, 0, s.student.DayOffset-7*s.student.Weeks)
	for week := range s.student.Weeks {
		s.at = civil.At(first.AddDate(0, 0, 7*week), l.Lessons.Slots[0].StartsAt, s.zone)
		s.last = week == s.student.Weeks-1
		if week > 0 && s.rng.Float64() < 0.07 {
			s.travel(week)
			continue // a cold, a ferry that did not sail: only the note of what to attend to
		}
		if week == 0 {
			s.meet()
		}
		if week%30 == 0 && s.family == instrument.Keyboard {
			s.measure(l)
		}
		s.travel(week)
		s.lesson(l)
	}
	return s.log
}

// write adds an entry a minute or two after the one before.
func (s *simulation) write(e studentlog.Entry) studentlog.Entry {
	s.at = s.at.Add(time.Duration(40+s.rng.IntN(80)) * time.Second)
	e.ID, e.At, e.Actor = s.ids.next(s.at), s.at, s.teacher
	s.log = append(s.log, e)
	return e
}

func (s *simulation) meet() {
	for _, id := range s.student.Probes {
		s.write(studentlog.Entry{Kind: studentlog.Probe, Skill: id, Shown: true})
	}
}

// measure takes the measures of the studio's piano and of a body that grows.
func (s *simulation) measure(l store.Ladder) {
	years := float64(min(l.Profile().Age(s.at), 18)) // the tape tells whole centimetres
	s.at = s.at.Add(time.Minute)
	s.log = append(
		s.log,
		studentlog.Entry{ID: s.ids.next(s.at), At: s.at, Actor: s.teacher, Kind: studentlog.SetupChecked, Setup: &setup.Measures{
			KeyTop: 73, Elbow: math.Round(12 + 0.65*years), Leg: math.Round(22 + 1.35*years), BenchLow: 46, BenchHigh: 55, Lean: setup.Level,
			Mats: []setup.Mat{{Thickness: 2}, {Thickness: 3}, {Thickness: 4}},
		}},
	)
}

// travel gives the student the own focus points one by one: the first at the
// first meeting, the others evenly over the weeks.
func (s *simulation) travel(week int) {
	for i, text := range s.student.Own {
		if week == i*s.student.Weeks/len(s.student.Own) {
			s.write(studentlog.Entry{Kind: studentlog.FocusAdded, Focus: s.ids.next(s.at), Text: text})
		}
	}
}

func (s *simulation) standing() *standing.Standing {
	return standing.Fold(s.log, standing.Context{
		Library: s.lib, Skills: s.skills, Family: s.family, Policy: standing.DefaultPolicy(), Day: civil.Of(s.at, s.zone).Date(), Zone: s.zone,
	})
}

func (s *simulation) lesson(l store.Ladder) {
	st := s.standing()
	s.review(st)
	for _, id := range st.In(standing.Working) {
		s.hear(id, st)
	}
	// A lesson holds a method piece always, technique and reading when there is time for them.
	for i, strand := range []material.Strand{material.Method, material.Technique, material.Reading} {
		if i < l.Lessons.Slots[0].Minutes/15 {
			s.fill(strand)
		}
	}
	if s.rng.Float64() < 0.04 && s.count(material.Repertoire) == 0 {
		s.fill(material.Repertoire)
	}
	s.plant()
}

// hear goes through the focus points of a working piece.
func (s *simulation) hear(id string, st *standing.Standing) {
	m, ms := s.lib[id], st.Materials[id]
	leap := 1.0
	if ms.Before != nil {
		leap = ms.Before.Size
	}
	chance := min(0.9, 1.5*s.student.Pace/(1+leap/6))
	if s.last {
		chance *= 0.4 // so that today finds pieces at every stage
	}
	points := append([]material.FocusPoint{}, m.FocusPoints...)
	for _, f := range st.Travelling() {
		points = append(points, material.FocusPoint{ID: f.ID, Text: f.Text})
	}
	for _, p := range points {
		if ms.Marks[p.ID] == studentlog.Full || s.rng.Float64() < 0.12 {
			continue
		}
		mark := studentlog.None
		switch x := s.rng.Float64(); {
		case x < chance:
			mark = studentlog.Full
		case x < chance+0.45:
			mark = studentlog.Part
		}
		if mark == studentlog.None && ms.Marks[p.ID] != "" {
			continue
		}
		s.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: id, Focus: p.ID, Mark: mark})
	}
	for _, spot := range ms.Spots {
		if !spot.Mended && s.rng.Float64() < 0.6 {
			s.write(studentlog.Entry{Kind: studentlog.SpotMended, Material: id, Spot: spot.ID})
		}
	}
	if m.Bars > 4 && len(ms.Spots) < 2 && s.rng.Float64() < 0.18 {
		from := 1 + s.rng.IntN(m.Bars-1)
		s.write(studentlog.Entry{Kind: studentlog.SpotAdded, Material: id, From: from, To: from + s.rng.IntN(2)})
	}
	if !s.last && s.standing().Materials[id].RunDue && s.rng.Float64() < 0.85 {
		s.try(id)
	}
}

func (s *simulation) try(id string) {
	var met []string
	for _, p := range clearing.Standard(s.family, clearing.Usual) {
		if s.rng.Float64() < 0.86+s.student.Pace/8 {
			met = append(met, p.ID)
		}
	}
	s.write(studentlog.Entry{Kind: studentlog.RunTried, Material: id, Met: met})
}

// review hears one or two learned pieces, the one left longest first.
func (s *simulation) review(st *standing.Standing) {
	done := st.In(standing.Cleared, standing.Polished)
	for n := 0; n < 2 && len(done) > n; n++ {
		oldest := done[0]
		for _, id := range done {
			if st.Materials[id].LastPlayed.Before(st.Materials[oldest].LastPlayed) {
				oldest = id
			}
		}
		if s.rng.Float64() < 0.5 {
			s.write(studentlog.Entry{Kind: studentlog.Hearing, Material: oldest, Rating: 2 + s.rng.IntN(3)})
			st.Materials[oldest].LastPlayed = s.at
		}
	}
}

func (s *simulation) count(strand material.Strand) int {
	n, st := 0, s.standing()
	for _, id := range st.In(standing.Working) {
		if s.lib[id].Strand == strand {
			n++
		}
	}
	return n
}

// fill begins the proposed rung of a strand when nothing is being worked at there.
func (s *simulation) fill(strand material.Strand) {
	if s.count(strand) > 0 {
		return
	}
	st := s.standing()
	policy := standing.DefaultPolicy().Leap
	in := next.Input{
		Ability: st.Ability, Policy: policy, Reach: st.Reach(s.lib, strand, policy),
		Skills: s.skills, Last: st.Leaps(s.lib, strand),
	}
	for _, p := range s.placed {
		if st.Materials[p.Material] == nil && p.Strand == strand {
			in.Candidates = append(in.Candidates, s.lib[p.Material])
		}
	}
	if p := next.Propose(in); p.Chosen != nil {
		s.write(studentlog.Entry{Kind: studentlog.Assigned, Material: p.Chosen.Material.ID})
	}
}

// plant does a preview step for a skill that the next method pieces need.
func (s *simulation) plant() {
	if s.rng.Float64() < 0.5 {
		return
	}
	st := s.standing()
	var ahead []preview.Rung
	for _, p := range s.placed {
		if st.Materials[p.Material] == nil && p.Strand == material.Method {
			ahead = append(ahead, preview.Rung{Material: s.lib[p.Material], Place: len(ahead), Begin: 3 * (len(ahead) + 1)})
		}
	}
	needs := preview.Needs(ahead, st.Ability, standing.DefaultPolicy().Leap, s.skills, nil, preview.DefaultPolicy())
	if plan := preview.Schedule(needs, 1); len(plan.Steps) > 0 {
		first := plan.Steps[0]
		sk, _ := s.skills.Get(first.Skill)
		s.write(studentlog.Entry{Kind: studentlog.StepDone, Skill: first.Skill, Step: first.Step, Text: sk.Steps[first.Step-1]})
	}
}
