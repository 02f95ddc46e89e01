// Package standing folds a student's log into what the student can do now,
// skill by skill and material by material.
//
//	standing.go  the result and its policy
//	fold.go      the fold over the log
//	climb.go     a tempo ladder on its way
//	habit.go     focus points that travel until they are a habit
package standing

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

// Policy holds what a studio may set about standing.
type Policy struct {
	Leap leap.Policy
	// HabitAfter is how many materials in a row must give a travelling focus
	// point its full mark at the first try before it is a habit. Default 3.
	HabitAfter int
	// RustyBelow is how sure the best kept of the learned pieces that ask for a
	// secure skill must be, 0 to 1, or the skill is rusty. Default 0.5: as likely lost as not.
	RustyBelow float64
	// RustyAfterDays is how long the showing of a skill counts. Default 180.
	RustyAfterDays int
	// ReadingAfter is how many weeks of lessons come before reading begins: until then, or until a reading stage is
	// begun, skills of reading weigh nothing. Default 0.
	ReadingAfter int
	// Memory are the parameters by which learned pieces fade. Default those of FSRS-6.
	Memory memory.Params
	// AtHome is what a learned piece that was played at home is worth beside one that the teacher heard, 0 to 1.
	// Default 0.5; at 0 what home says changes nothing.
	AtHome float64
}

// DefaultPolicy returns the defaults.
func DefaultPolicy() Policy {
	return Policy{Leap: leap.DefaultPolicy(), HabitAfter: 3, RustyBelow: 0.5, RustyAfterDays: 180, Memory: memory.DefaultParams(), AtHome: 0.5}
}

// Context is what the fold needs to know beside the log.
type Context struct {
	Library material.Library
	Skills  skill.Catalogue
	Family  instrument.Family
	Policy  Policy
	// Day is the day for which the standing holds, as midnight in UTC of its date; only fading depends on it.
	Day time.Time
	// Zone is that of the studio: what happened on one day there is of one lesson. Nil is UTC.
	Zone *time.Location
}

// State is where a material stands on the ladder.
type State string

// The states of a material. A material that never came up has no standing at all.
const (
	Working  State = "working"
	Cleared  State = "cleared"
	Polished State = "polished"
	Resting  State = "resting" // begun, and paused by the teacher
	Heard    State = "heard"   // something is recorded about it, but it was never assigned
)

// Standing is what a student can do on one day. The same log gives the same
// standing, and the same bytes as JSON, in whatever order it arrived.
type Standing struct {
	Materials map[string]*MaterialStanding `json:"materials"`
	// Ability holds the evidence for each skill, the longest piece and the tempi.
	Ability leap.Ability `json:"ability"`
	// Focus are the student's own focus points in the order in which they were given.
	Focus []FocusStanding `json:"focus"`
	// Planted is when each skill had its last preview step.
	Planted map[string]time.Time `json:"planted"`
	// Likings counts the signs of liking by material and sign.
	Likings map[string]map[studentlog.Reaction]int `json:"likings"`
	// Home is what was reported from home and shown of liking in the last weeks, in order (see HomeDays).
	Home []Report `json:"home,omitempty"`
	// Activities counts how often each option of a goal of the pool was done, by goal and option from 1.
	Activities map[string]map[int]int `json:"activities,omitempty"`
	// Asked are the questions of a placement with their answers, and Met what came of a first meeting, in order.
	Asked []Asked `json:"asked,omitempty"`
	Met   []Met   `json:"met,omitempty"`
	// Cycle is the way through the keys that is kept; nil for none. Missed are the days of lessons
	// that did not take place, as 2026-05-05.
	Cycle  *studentlog.Cycle `json:"cycle,omitempty"`
	Missed []string          `json:"missed,omitempty"`
	// Setups are what was measured last, by place.
	Setups map[setup.Place]Measured `json:"setups,omitempty"`
	// ByEar says that the student does not read yet.
	ByEar bool `json:"byEar,omitempty"`
	// Faults are those that were seen and are not gone, the one seen first before the others.
	Faults []OpenFault `json:"faults,omitempty"`
	// FirstLesson is the day of the first entry.
	FirstLesson time.Time `json:"firstLesson"`
	// Entries is the number of entries that counted.
	Entries int `json:"entries"`
	// LastLesson is the day of the last entry that a teacher made in a lesson.
	LastLesson time.Time `json:"lastLesson"`
	// Given are the days of the last weeks on which something was entered that was heard or done in a lesson, in order (see
	// HomeDays); Planned is, for each of those days on which something was arranged, when that was last.
	Given   []civil.Day `json:"given,omitempty"`
	Planned []time.Time `json:"planned,omitempty"`
	// Zone is the name of the studio's, in which the days were counted.
	Zone string `json:"zone,omitempty"`
	// zone is that of the name.
	zone *time.Location
	// order holds the materials by the time of their assignment, then id; nil where the standing was not
	// folded or decoded.
	order []ordered
}

// ordered is a material with its id.
type ordered struct {
	id string
	*MaterialStanding
}

// Asked is a question for a skill with its answer: yes, nearly, no or left.
type Asked struct {
	// ID is that of the entry.
	ID     string    `json:"id"`
	At     time.Time `json:"at"`
	Skill  string    `json:"skill"`
	Answer string    `json:"answer"`
}

// Met is what came of an activity of a first meeting.
type Met struct {
	// ID is that of the entry.
	ID       string    `json:"id"`
	At       time.Time `json:"at"`
	Activity string    `json:"activity"`
	Outcome  string    `json:"outcome"`
	// Level of the activity at which it came, from 1; 0 for one without levels.
	Level int    `json:"level,omitempty"`
	Text  string `json:"text,omitempty"`
}

// MetOf are those of some that came of one activity, in their order.
func MetOf(met []Met, activity string) (out []Met) {
	for _, m := range met {
		if m.Activity == activity {
			out = append(out, m)
		}
	}
	return out
}

// Measured is what was measured at a place.
type Measured struct {
	At       time.Time      `json:"at"`
	Measures setup.Measures `json:"measures"`
	// Before and BeforeAt are those of the time before; nil and zero for the first.
	Before   *setup.Measures `json:"before,omitempty"`
	BeforeAt time.Time       `json:"beforeAt"`
}

// SetupAt is when the studio's seat was measured last; zero for never.
func (s *Standing) SetupAt() time.Time { return s.Setups[setup.Studio].At }

// OpenFault is a fault that was seen and is not gone.
type OpenFault struct {
	// ID is that of setup.SameFault.
	ID string `json:"id"`
	// Since is when it was seen first, Seen when last.
	Since time.Time `json:"since"`
	Seen  time.Time `json:"seen"`
	// Material is the exercise on which it was seen last; empty where it was seen apart from one.
	Material string `json:"material,omitempty"`
	// Named is the fault as it was noted, which may be that of an exercise.
	Named string `json:"named"`
}

// Fault returns an open fault; ok is false where it is not open.
func (s *Standing) Fault(id string) (OpenFault, bool) {
	id = setup.SameFault(id)
	i := slices.IndexFunc(s.Faults, func(f OpenFault) bool { return f.ID == id })
	if i < 0 {
		return OpenFault{}, false
	}
	return s.Faults[i], true
}

// HomeDays is for how long reports from home are kept in view: eight weeks.
const HomeDays = 56

// Report is one thing that was practised at home, or one sign of liking.
type Report struct {
	ID string    `json:"id"`
	At time.Time `json:"at"`
	// Day of practice, as 2026-05-05, and Item its key in the published week; empty for a sign of liking.
	Day  string `json:"day,omitempty"`
	Item string `json:"item,omitempty"`
	// Times it was played, 0 for not said.
	Times int                `json:"times,omitempty"`
	Felt  studentlog.Feeling `json:"felt,omitempty"`
	// Material and Sign are those of a liking.
	Material string              `json:"material,omitempty"`
	Sign     studentlog.Reaction `json:"sign,omitempty"`
	// FromHome says that the family wrote it.
	FromHome bool `json:"fromHome,omitempty"`
}

// Why is the kind of a reason for where a material stands.
type Why string

// The kinds of reasons.
const (
	RunMissed    Why = "runMissed"    // the last run missed points of the standard
	NoPoints     Why = "noPoints"     // it has no focus points
	RunIsDue     Why = "runIsDue"     // every focus point has its full mark
	PointsOpen   Why = "pointsOpen"   // some focus points have no full mark yet
	Rests        Why = "rests"        // it was put to rest
	RunMet       Why = "runMet"       // a run met the standard
	TeachersWord Why = "teachersWord" // cleared by the teacher's word
	AllSections  Why = "sections"     // its sections are all cleared
	FromBefore   Why = "before"       // learned before the log began
	ReadyToPlay  Why = "readyToPlay"  // ready to be performed
)

// MaterialStanding is how one material stands.
type MaterialStanding struct {
	State State `json:"state"`
	// Assigned and ClearedAt are zero when it did not happen.
	Assigned  time.Time `json:"assigned"`
	ClearedAt time.Time `json:"clearedAt"`
	// PausedOn is when it was last put to rest, Rested the days of rest before that.
	PausedOn civil.Day `json:"pausedOn,omitempty"`
	Rested   int       `json:"rested"`
	// Marks holds the last mark of each focus point, by its id.
	Marks map[string]studentlog.Mark `json:"marks"`
	Spots []Spot                     `json:"spots"`
	Runs  []Run                      `json:"runs"`
	// Full of Points focus points have their full mark, for a working piece: its
	// own, those of the student that travel, and the spots as one more.
	Full   int `json:"full"`
	Points int `json:"points"`
	// Own are focus points that this student alone has on this material.
	Own []material.FocusPoint `json:"own,omitempty"`
	// Gate says which hand may play it at home; empty where nothing was set.
	Gate studentlog.Gate `json:"gate,omitempty"`
	// RunDue says that every focus point, spots included, has its full mark.
	RunDue bool `json:"runDue"`
	// Why it stands where it stands.
	Why Why `json:"why"`
	// LastPlayed is the time of the last mark, run or hearing.
	LastPlayed time.Time `json:"lastPlayed"`
	// AtHomeOn is the last day on which it was played as a whole at home.
	AtHomeOn civil.Day `json:"atHomeOn,omitempty"`
	// Memory is how well a learned piece is kept, HeardOn when it was heard last
	// as a whole: cleared, polished, rated, tried again, or played at home; it says nothing before that.
	Memory  memory.State `json:"memory"`
	HeardOn civil.Day    `json:"heardOn,omitempty"`
	// Tempo is the highest that held, in quarter notes a minute; 0 for none noted. Climb is its tempo ladder; nil for none.
	Tempo int    `json:"tempo,omitempty"`
	Climb *Climb `json:"climb,omitempty"`
	// LastRating of a hearing, 1 to 4; 0 when never heard.
	LastRating int `json:"lastRating"`
	// Lessons are the days on which something was recorded about it since it was assigned.
	Lessons int `json:"lessons"`
	// SinceMark counts the lessons since the last new or better mark.
	SinceMark int `json:"sinceMark"`
	// Before is the leap as it was when the material was assigned; nil if it never was.
	Before *Before `json:"before,omitempty"`
}

// Before is a leap with what the student brought to it then; its parts follow from that.
type Before struct {
	Size    float64      `json:"size"`
	Brought leap.Brought `json:"brought"`
}

// Where says where a material stands, as facts.
type Where struct {
	Why Why `json:"why"`
	// Full of Points focus points have their full mark.
	Full   int `json:"full"`
	Points int `json:"points"`
	// Missed are the points of the standard that the last run missed.
	Missed []string `json:"missed,omitempty"`
	// PausedOn is when it was put to rest.
	PausedOn civil.Day `json:"pausedOn,omitempty"`
}

// Where says where the material stands.
func (m *MaterialStanding) Where() Where {
	w := Where{Why: m.Why, Full: m.Full, Points: m.Points, PausedOn: m.PausedOn}
	if n := len(m.Runs); n > 0 {
		w.Missed = m.Runs[n-1].Missed
	}
	return w
}

// Spot is a bar or a few bars marked for repetition.
type Spot struct {
	ID     string    `json:"id"`
	From   int       `json:"from"`
	To     int       `json:"to"`
	Text   string    `json:"text,omitempty"`
	At     time.Time `json:"at"`
	Mended bool      `json:"mended"`
}

// Run is one try from start to end.
type Run struct {
	ID      string    `json:"id"`
	At      time.Time `json:"at"`
	Met     []string  `json:"met"`
	Cleared bool      `json:"cleared"`
	// Missed are the ids of the points that were not met, in the order of the standard.
	Missed []string `json:"missed,omitempty"`
}

// hear lets a piece be heard as a whole.
func (m *MaterialStanding) hear(on civil.Day, r memory.Rating, c memory.Curve) {
	days := 0
	if m.Memory.Heard() {
		days = int(on - m.HeardOn)
	}
	m.Memory, m.HeardOn = c.Next(m.Memory, days, r), on
}

// Recall is the chance, 0 to 1, that a learned piece still goes on a day, which is midnight in UTC of its date.
func (m *MaterialStanding) Recall(day time.Time, p memory.Params) float64 {
	return p.Recall(m.Memory, float64(civil.On(day)-m.HeardOn))
}

// Played says that it was played in this studio; what was known before may not have been.
func (m *MaterialStanding) Played() bool { return !m.LastPlayed.IsZero() }

// Unplayed is the number of days since it was played last, in a lesson or at home; s is the standing that it is of.
func (m *MaterialStanding) Unplayed(s *Standing, day time.Time) int {
	return max(0, int(civil.On(day)-max(s.Day(m.LastPlayed), m.AtHomeOn)))
}

// Unheard is the number of days since a learned piece was heard last.
func (m *MaterialStanding) Unheard(day time.Time) int { return max(0, int(civil.On(day)-m.HeardOn)) }

// Day is the day of an instant in the studio.
func (s *Standing) Day(at time.Time) civil.Day { return civil.Of(at, s.zone) }

// OpenSpots counts the spots that are not mended.
func (m *MaterialStanding) OpenSpots() (n int) {
	for _, s := range m.Spots {
		if !s.Mended {
			n++
		}
	}
	return n
}

// SpotsMark is the mark of all spots together, which count as one more focus
// point: none while all are open, part while some are mended, full when the
// last is wiped; ok is false when there never was a spot.
func (m *MaterialStanding) SpotsMark() (mark studentlog.Mark, ok bool) {
	mended := 0
	for _, s := range m.Spots {
		if s.Mended {
			mended++
		}
	}
	switch {
	case len(m.Spots) == 0:
		return "", false
	case mended == len(m.Spots):
		return studentlog.Full, true
	case mended > 0:
		return studentlog.Part, true
	}
	return studentlog.None, true
}

// Travelling returns the student's own focus points that are not yet a habit.
func (s *Standing) Travelling() []FocusStanding {
	var out []FocusStanding
	for _, f := range s.Focus {
		if !f.Habit {
			out = append(out, f)
		}
	}
	return out
}

// inOrder returns the ids of those materials that are wanted by the time of their assignment, then id.
func (s *Standing) inOrder(wanted func(*MaterialStanding) bool) []string {
	order := s.ordered()
	ids := make([]string, 0, len(order))
	for _, m := range order {
		if wanted(m.MaterialStanding) {
			ids = append(ids, m.id)
		}
	}
	return ids
}

// ordered are the materials by the time of their assignment, then id.
func (s *Standing) ordered() []ordered {
	if s.order == nil {
		return byAssignment(s.Materials)
	}
	return s.order
}

// byAssignment orders the materials by the time of their assignment, then id.
func byAssignment(materials map[string]*MaterialStanding) []ordered {
	out := make([]ordered, 0, len(materials))
	for id, m := range materials {
		out = append(out, ordered{id, m})
	}
	slices.SortFunc(out, func(a, b ordered) int {
		return cmp.Or(cmp.Compare(a.Assigned.UnixMilli(), b.Assigned.UnixMilli()), strings.Compare(a.id, b.id))
	})
	return out
}

// Begun says that anything was ever worked at.
func (s *Standing) Begun() bool {
	for _, m := range s.Materials {
		if m.State != Heard {
			return true
		}
	}
	return false
}

// Favourite says that there are more signs of liking a material than against it.
func (s *Standing) Favourite(material string) bool {
	by := s.Likings[material]
	return by[studentlog.PlayedFirst]+by[studentlog.AskedFor]+by[studentlog.Unasked]+by[studentlog.Liked] > by[studentlog.Disliked]
}

// Reach is the comfortable leap on a strand, or over all (""): from the materials that were really steps. Drills count on the
// strand of technique alone; the first of a strand, where everything is new, and what was easy on purpose, under a third of the
// default, count nowhere. A strand on which too little was cleared has that of all.
func (s *Standing) Reach(lib material.Library, strand material.Strand, p leap.Policy) leap.Reach {
	var here, all []float64
	begun := map[material.Strand]bool{}
	for _, id := range s.In(Working, Resting, Cleared, Polished) {
		m, of := s.Materials[id], lib[id]
		if m.Before == nil || of.Unknown() {
			continue
		}
		first := !begun[of.Strand]
		begun[of.Strand] = true
		if first || m.State == Working || m.State == Resting || m.Before.Size < p.Comfortable/3 {
			continue
		}
		if of.Strand == strand && (of.Exercise == "" || strand == material.Technique) {
			here = append(here, m.Before.Size)
		}
		if of.Exercise == "" {
			all = append(all, m.Before.Size)
		}
	}
	if len(here) >= leap.EnoughCleared {
		return p.Reach(here)
	}
	return p.Reach(all)
}

// In returns the ids of the materials in one of the states, in the order in which they were assigned.
func (s *Standing) In(states ...State) []string {
	return s.inOrder(func(m *MaterialStanding) bool { return slices.Contains(states, m.State) })
}

// Leaps returns the leaps of every rung begun on a strand, working ones
// included, as they were when assigned, oldest first.
func (s *Standing) Leaps(lib material.Library, strand material.Strand) []float64 {
	var out []float64
	for _, id := range s.inOrder(func(m *MaterialStanding) bool { return m.Before != nil }) {
		if lib[id].Strand == strand {
			out = append(out, s.Materials[id].Before.Size)
		}
	}
	return out
}

// Clearing is a piece that was learned from its assignment to its clearing.
type Clearing struct {
	Material string
	// Leap is the leap as it was at the assignment.
	Leap float64
	// From the assignment to the clearing; Rested are the days of pause between.
	From, To time.Time
	Rested   int
}

// Clearings returns the pieces that were assigned and then cleared, in the
// order of their assignment. A piece cleared elsewhere tells nothing about time.
func (s *Standing) Clearings() []Clearing {
	order := s.ordered()
	out := make([]Clearing, 0, len(order))
	for _, m := range order {
		if learned := m.State == Cleared || m.State == Polished; learned && m.Before != nil && !m.Assigned.IsZero() &&
			m.ClearedAt.After(m.Assigned) {
			out = append(out, Clearing{Material: m.id, Leap: m.Before.Size, From: m.Assigned, To: m.ClearedAt, Rested: m.Rested})
		}
	}
	return out
}

// Elsewhere says that a material was learned before the log began and was never heard here: how well it goes nobody knows.
func (m *MaterialStanding) Elsewhere() bool { return m.Why == FromBefore && m.LastPlayed.IsZero() }

// FaultMark is the mark of a fault on a material. One that is open elsewhere is not gone here, because it is one thing.
func (s *Standing) FaultMark(m *MaterialStanding, focus string) studentlog.Mark {
	mark := m.Marks[focus]
	if _, open := s.Fault(strings.TrimPrefix(focus, material.Fault)); open && (mark == "" || mark == studentlog.Full) {
		return studentlog.None
	}
	return mark
}
