package standing

import (
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/dimension"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/clearing"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

// FoldVersion changes when the fold itself changes, so that no standing that was kept before is used. A
// golden file (see golden_test.go) fails when the fold changes and this does not.
const FoldVersion = 24

// Fold computes the standing from a log in any order. Entries about materials
// that the library does not hold are kept in the materials' standing but give
// no evidence for skills.
func Fold(entries []studentlog.Entry, ctx Context) *Standing {
	f := &fold{
		ctx: ctx,
		out: &Standing{
			Planted: map[string]time.Time{}, Likings: map[string]map[studentlog.Reaction]int{},
			Ability: leap.Ability{Tempo: map[material.Texture]float64{}},
		},
		works:     make(map[string]*work, len(entries)/8),
		skills:    make(map[string]*trace, 64),
		habits:    newHabits(ctx.Policy.HabitAfter),
		early:     map[string]bool{},
		standards: map[clearing.Level][]clearing.Point{},
		holds:     ctx.Policy.Memory.Lasts(ctx.Policy.RustyBelow),
		curve:     ctx.Policy.Memory.Curve(),
	}
	live := studentlog.Live(entries)
	// What was known before is no lesson.
	if i := slices.IndexFunc(live, func(e *studentlog.Entry) bool { return e.Kind != studentlog.KnownBefore }); i >= 0 {
		f.out.FirstLesson = live[i].At
	}
	for _, e := range live {
		f.entry(e)
	}
	f.out.Entries = len(live)
	if f.out.zone = ctx.Zone; ctx.Zone != nil {
		f.out.Zone = ctx.Zone.String()
	}
	f.finish()
	return f.out
}

// fold is a standing in the making. Entries come in the order in which they
// happened.
type fold struct {
	ctx    Context
	out    *Standing
	works  map[string]*work
	skills map[string]*trace
	habits *habits
	// early holds the spots mended so far: a second device's clock may put the
	// mending before the adding.
	early     map[string]bool
	standards map[clearing.Level][]clearing.Point
	// holds is for how many times its stability a learned piece is evidence for its skills.
	holds float64
	curve memory.Curve
	// reads says that a stage of reading was begun.
	reads bool
	// slab and traces hold what is not used yet: made many at a time, they cost less.
	slab   []work
	traces []trace
	// today is the day of the instant that was asked for last, which lasts from a second since 1970 until another.
	today       civil.Day
	from, until int64
	// sections of each unit, found when the first section is cleared.
	sections map[string][]string
	// reached are the two learned materials with the highest load in each dimension.
	reached map[dimension.ID][2]shown
}

// work is a material on its way through the log.
type work struct {
	MaterialStanding
	id    string
	lib   kept
	known bool // the library holds it
	// asks are the skills of its demands, in their order.
	asks []ask
	// days counts the days on which it was played, lastDay is the last of them,
	// and gained their number at the last new or better mark.
	days, gained int
	lastDay      civil.Day
	// taught says that it counts for its skills as a working piece.
	taught bool
	// homeOn is the day of the last playing at home that memory knows, beforeHome what was remembered before it.
	homeOn     civil.Day
	beforeHome remembered
	// lessons is the memory by the hearings in lessons alone.
	lessons remembered
}

// remembered is what memory holds of a piece, and since when.
type remembered struct {
	memory.State
	on civil.Day
}

// noDay is before every day that is entered.
const noDay civil.Day = -1 << 31

// day is the day of an instant in the studio. Entries come in order, so that the same day is asked for again and again.
func (f *fold) day(at time.Time) civil.Day {
	if s := at.Unix(); s < f.from || s >= f.until {
		zone := f.ctx.Zone
		if zone == nil {
			zone = time.UTC
		}
		y, m, d := at.In(zone).Date()
		f.today = civil.Of(at, zone)
		f.from, f.until = time.Date(y, m, d, 0, 0, 0, 0, zone).Unix(), time.Date(y, m, d+1, 0, 0, 0, 0, zone).Unix()
	}
	return f.today
}

// kept is what the fold needs of a material again and again: the whole of one is large, and there are
// some hundreds in a log.
type kept struct {
	demands      []material.Demand
	texture      material.Texture
	tempo        float64
	distinctBars int
	partOf       string
	points       []material.FocusPoint
	loads        []material.Load
	drill        bool
}

// ask is one demand of a material.
type ask struct {
	of    *work
	skill *trace
	// before is the demand for the skill of the material that was seen before; nil for the first.
	before *ask
}

// trace is what the log says of one skill.
type trace struct {
	leap.Evidence
	// last is the demand of the material seen last that asks for it, and through it of all others.
	last    *ask
	shownOn civil.Day
	steps   []int // the preview steps done
}

// work returns a material, made on first sight.
func (f *fold) work(id string) *work {
	w, ok := f.works[id]
	if !ok {
		if len(f.slab) == 0 {
			f.slab = make([]work, 32)
		}
		w, f.slab = &f.slab[0], f.slab[1:]
		w.State, w.Marks, w.Spots, w.Runs = Heard, map[string]studentlog.Mark{}, []Spot{}, []Run{}
		w.id, w.lastDay = id, noDay
		f.works[id] = w
		var m material.Material
		m, w.known = f.ctx.Library[id]
		w.lib = kept{m.Demands, m.Texture, m.Tempo, m.DistinctBars, m.PartOf, m.FocusPoints, m.Loads, m.Exercise != ""}
		w.asks = make([]ask, len(m.Demands))
		for i, d := range m.Demands {
			t := f.skill(d.Skill)
			w.asks[i] = ask{w, t, t.last}
			t.last = &w.asks[i]
		}
	}
	return w
}

func (f *fold) skill(id string) *trace {
	t, ok := f.skills[id]
	if !ok {
		if len(f.traces) == 0 {
			f.traces = make([]trace, 32)
		}
		t, f.traces = &f.traces[0], f.traces[1:]
		f.skills[id] = t
	}
	return t
}

func (f *fold) entry(e *studentlog.Entry) {
	if e.InLesson() {
		f.given(e)
	}
	if apply := applied[e.Kind]; apply != nil {
		apply(f, e)
	}
}

// applied is what each kind of entry does to a standing; a test sees that none is missing.
var applied = map[studentlog.Kind]func(*fold, *studentlog.Entry){
	studentlog.Assigned: func(f *fold, e *studentlog.Entry) {
		f.reads = f.reads || f.ctx.Library[e.Material].Strand == material.Reading
		f.assign(f.work(e.Material), e)
	},
	studentlog.MarkGiven: func(f *fold, e *studentlog.Entry) { f.mark(f.work(e.Material), e) },
	studentlog.SpotAdded: func(f *fold, e *studentlog.Entry) {
		w := f.work(e.Material)
		w.Spots = append(w.Spots, Spot{ID: e.ID, From: e.From, To: e.To, Text: e.Text, At: e.At, Mended: f.early[e.ID]})
		f.played(w, e)
	},
	studentlog.SpotMended: func(f *fold, e *studentlog.Entry) {
		w := f.work(e.Material)
		f.early[e.Spot] = true
		for i := range w.Spots {
			if w.Spots[i].ID == e.Spot && !w.Spots[i].Mended {
				w.Spots[i].Mended = true
				f.gain(w, e)
			}
		}
	},
	studentlog.RunTried: func(f *fold, e *studentlog.Entry) { f.run(f.work(e.Material), e) },
	studentlog.Cleared:  func(f *fold, e *studentlog.Entry) { f.clear(f.work(e.Material), e, TeachersWord) },
	studentlog.Polished: func(f *fold, e *studentlog.Entry) {
		if w := f.work(e.Material); w.State != Polished {
			f.clear(w, e, ReadyToPlay)
			w.heard(f.day(e.At), memory.Easy, f.curve)
			w.State, w.Why = Polished, ReadyToPlay
		}
	},
	studentlog.Hearing: func(f *fold, e *studentlog.Entry) {
		w := f.work(e.Material)
		w.LastRating = e.Rating
		w.heard(f.day(e.At), memory.Rating(e.Rating), f.curve)
		f.played(w, e)
	},
	studentlog.StepDone: func(f *fold, e *studentlog.Entry) { f.step(f.skill(e.Skill), e) },
	studentlog.Paused: func(f *fold, e *studentlog.Entry) {
		if w := f.work(e.Material); w.State == Working {
			w.State, w.PausedOn = Resting, f.day(e.At)
		}
	},
	studentlog.Resumed: func(f *fold, e *studentlog.Entry) { f.work(e.Material).resume(f.day(e.At)) },
	studentlog.GateSet: func(f *fold, e *studentlog.Entry) {
		w := f.work(e.Material)
		if w.Gate = e.Gate; e.Gate == studentlog.Automatic {
			w.Gate = ""
		}
	},
	studentlog.Liking: func(f *fold, e *studentlog.Entry) {
		if f.out.Likings[e.Material] == nil {
			f.out.Likings[e.Material] = map[studentlog.Reaction]int{}
		}
		f.out.Likings[e.Material][e.Sign]++
		f.playedAtHome(e)
		f.report(e)
	},
	studentlog.Practised: func(f *fold, e *studentlog.Entry) {
		f.playedAtHome(e)
		f.report(e)
	},
	studentlog.SetupChecked: func(f *fold, e *studentlog.Entry) { f.measured(e) },
	studentlog.FaultSeen:    func(f *fold, e *studentlog.Entry) { f.faultSeen(strings.TrimPrefix(e.Focus, material.Fault), e) },
	studentlog.FaultGone:    func(f *fold, e *studentlog.Entry) { f.faultGone(strings.TrimPrefix(e.Focus, material.Fault)) },
	studentlog.Activity: func(f *fold, e *studentlog.Entry) {
		if f.out.Activities == nil {
			f.out.Activities = map[string]map[int]int{}
		}
		if f.out.Activities[e.Goal] == nil {
			f.out.Activities[e.Goal] = map[int]int{}
		}
		f.out.Activities[e.Goal][e.Step]++
	},
	studentlog.Meeting: func(f *fold, e *studentlog.Entry) {
		f.out.Met = append(f.out.Met, Met{ID: e.ID, At: e.At, Activity: e.Goal, Outcome: e.Outcome, Level: e.Step, Text: e.Text})
		if e.Skill != "" && e.Shown {
			t := f.skill(e.Skill)
			t.Shown, t.Missing, t.shownOn = true, false, f.day(e.At)
		}
	},
	studentlog.Probe: func(f *fold, e *studentlog.Entry) {
		if e.Outcome != "" {
			f.out.Asked = append(f.out.Asked, Asked{ID: e.ID, At: e.At, Skill: e.Skill, Answer: e.Outcome})
		}
		if e.Outcome == "left" || e.Outcome == "nearly" {
			return // passed over, or on the way: it is neither there nor missing
		}
		t := f.skill(e.Skill)
		if t.Shown, t.Missing = e.Shown, !e.Shown; e.Shown {
			t.shownOn = f.day(e.At)
		}
	},
	studentlog.KnownBefore: func(f *fold, e *studentlog.Entry) {
		if e.Material != "" {
			f.before(f.work(e.Material), e)
		} else {
			t := f.skill(e.Skill)
			t.Shown, t.Missing, t.shownOn = true, false, f.day(e.At)
		}
	},
	studentlog.CycleKept: func(f *fold, e *studentlog.Entry) {
		if f.out.Cycle = e.Cycle; e.Cycle.First == "" {
			f.out.Cycle = nil
		}
	},
	studentlog.LessonMissed: func(f *fold, e *studentlog.Entry) {
		if !slices.Contains(f.out.Missed, e.Day) {
			f.out.Missed = append(f.out.Missed, e.Day)
			slices.Sort(f.out.Missed)
		}
	},
	studentlog.ClimbBegun:  func(f *fold, e *studentlog.Entry) { f.climb(f.work(e.Material), e) },
	studentlog.TempoPlayed: func(f *fold, e *studentlog.Entry) { f.tempo(f.work(e.Material), e) },
	studentlog.FocusAdded: func(f *fold, e *studentlog.Entry) {
		if e.Material == "" {
			f.habits.add(e.Focus, e.Text)
			return
		}
		// For this student on this piece alone.
		w := f.work(e.Material)
		w.Own = append(w.Own, material.FocusPoint{ID: e.Focus, Text: e.Text})
	},
	// They are read as they are, and change nothing of where somebody stands.
	studentlog.WentWell: nothing, studentlog.Note: nothing, studentlog.Bring: nothing, studentlog.TakeMeasured: nothing,
	studentlog.Correction: nothing,
}

func nothing(*fold, *studentlog.Entry) {}

// given notes that something was entered on a day, as long as it is recent.
func (f *fold) given(e *studentlog.Entry) {
	day := f.day(e.At)
	if civil.On(f.ctx.Day)-day > HomeDays {
		return
	}
	if e.Plans() {
		if p := f.out.Planned; len(p) > 0 && f.day(p[len(p)-1]) == day {
			p[len(p)-1] = e.At
		} else {
			f.out.Planned = append(p, e.At)
		}
		return
	}
	if g := f.out.Given; len(g) == 0 || g[len(g)-1] != day {
		f.out.Given = append(g, day)
	}
}

// byEar says that reading has not begun on a day.
func (f *fold) byEar(on civil.Day) bool {
	if f.reads || f.ctx.Policy.ReadingAfter == 0 {
		return false
	}
	first := f.out.FirstLesson
	return first.IsZero() || on < f.day(first)+civil.Day(7*f.ctx.Policy.ReadingAfter)
}

// ofReading says that a skill is one of reading.
func (f *fold) ofReading(id string) bool {
	s, known := f.ctx.Skills.Get(id)
	return known && s.Family == skill.OfReading
}

// measured keeps what was measured at a place, and what had been measured there before.
func (f *fold) measured(e *studentlog.Entry) {
	if e.Setup == nil {
		return // looked at, and nothing measured
	}
	if f.out.Setups == nil {
		f.out.Setups = map[setup.Place]Measured{}
	}
	now := Measured{At: e.At, Measures: *e.Setup}
	if was, again := f.out.Setups[e.Setup.At()]; again {
		now.Before, now.BeforeAt = &was.Measures, was.At
	}
	f.out.Setups[e.Setup.At()] = now
}

// faultSeen opens a fault, or notes that it is still there.
func (f *fold) faultSeen(named string, e *studentlog.Entry) {
	id := setup.SameFault(named)
	for i := range f.out.Faults {
		if x := &f.out.Faults[i]; x.ID == id {
			x.Seen, x.Named = e.At, named
			if e.Material != "" {
				x.Material = e.Material
			}
			return
		}
	}
	f.out.Faults = append(f.out.Faults, OpenFault{ID: id, Since: e.At, Seen: e.At, Material: e.Material, Named: named})
}

// faultGone closes a fault wherever it was noted: it is one thing.
func (f *fold) faultGone(named string) {
	id := setup.SameFault(named)
	f.out.Faults = slices.DeleteFunc(f.out.Faults, func(x OpenFault) bool { return x.ID == id })
	for _, w := range f.works {
		for focus := range w.Marks {
			if rest, is := strings.CutPrefix(focus, material.Fault); is && setup.SameFault(rest) == id {
				w.Marks[focus] = studentlog.Full
			}
		}
	}
}

// report keeps what came from home, as long as it is recent.
func (f *fold) report(e *studentlog.Entry) {
	if civil.On(f.ctx.Day)-f.day(e.At) <= HomeDays {
		// One answer for each thing and day, from however many phones: the last one holds.
		if e.Actor == studentlog.Family && e.Item != "" {
			f.out.Home = slices.DeleteFunc(f.out.Home, func(r Report) bool { return r.FromHome && r.Day == e.Day && r.Item == e.Item })
		}
		f.out.Home = append(f.out.Home, Report{
			ID: e.ID, At: e.At, Day: e.Day, Item: e.Item, Times: e.Times, Felt: e.Felt, Material: e.Material, Sign: e.Sign,
			FromHome: e.Actor == studentlog.Family,
		})
	}
}

func (f *fold) step(t *trace, e *studentlog.Entry) {
	if !slices.Contains(t.steps, e.Step) {
		t.steps = append(t.steps, e.Step)
	}
	t.StepsDone = len(t.steps)
	if s, ok := f.ctx.Skills.Get(e.Skill); ok {
		t.Steps = len(s.Steps)
	}
	f.out.Planted[e.Skill] = e.At
}

// assign makes a material a working piece. It says nothing of its skills yet: assigned is not known. Assigning a
// working piece again changes nothing.
func (f *fold) assign(w *work, e *studentlog.Entry) {
	w.resume(f.day(e.At))
	if w.State == Working {
		return
	}
	if w.known && w.Before == nil {
		brought := leap.Brought{
			Skills:      make([]leap.Evidence, len(w.asks)),
			LongestBars: f.out.Ability.LongestBars,
			Tempo:       f.out.Ability.Tempo[w.lib.texture],
		}
		for i := range w.asks {
			t := w.asks[i].skill
			brought.Skills[i] = t.Evidence
			brought.Skills[i].Faded = f.faded(t, f.day(e.At))
			brought.Skills[i].Unread = f.byEar(f.day(e.At)) && f.ofReading(w.lib.demands[i].Skill)
		}
		if loads := f.loads(f.day(e.At)); len(loads) > 0 && len(w.lib.loads) > 0 {
			brought.Loads = make([]float64, len(w.lib.loads))
			for i, l := range w.lib.loads {
				brought.Loads[i] = loads[l.Dimension].Secure()
			}
		}
		m := f.ctx.Library[w.id]
		w.Before = &Before{Size: f.ctx.Policy.Leap.Size(&m, brought), Brought: brought}
	}
	if w.State == Heard {
		w.Assigned = e.At
	}
	w.State = Working
}

// teach lets a working piece count for its skills, from the first time that a lesson heard something of it: a
// mark, a hard spot, a run, a tempo or a hearing.
func (w *work) teach() {
	if w.State != Working || w.taught {
		return
	}
	w.taught = true
	for i := range w.asks {
		w.asks[i].skill.Working++
	}
}

// learned takes a piece that is learned out of those that are being learned.
func (w *work) learned() {
	if !w.taught {
		return
	}
	w.taught = false
	for i := range w.asks {
		w.asks[i].skill.Working--
	}
}

// resume takes a resting piece up again; what it taught before stays.
func (w *work) resume(on civil.Day) {
	if w.State == Resting {
		w.State = Working
		w.Rested += max(0, int(on-w.PausedOn))
	}
}

func (f *fold) mark(w *work, e *studentlog.Entry) {
	before := w.Marks[e.Focus]
	w.Marks[e.Focus] = e.Mark
	f.habits.mark(e.Focus, e.Material, e.Mark)
	if named, is := strings.CutPrefix(e.Focus, material.Fault); is {
		if e.Mark == studentlog.Full {
			f.faultGone(named)
		} else {
			f.faultSeen(named, e)
		}
	}
	f.played(w, e)
	if worth(e.Mark) > worth(before) {
		f.gain(w, e)
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
func (f *fold) gain(w *work, e *studentlog.Entry) {
	f.played(w, e)
	w.gained = w.days
}

// played notes that a material was played on a day.
func (f *fold) played(w *work, e *studentlog.Entry) {
	w.LastPlayed = e.At
	if day := f.day(e.At); day != w.lastDay {
		w.lastDay = day
		w.days++
	}
	w.teach()
	f.out.LastLesson = e.At
}

func (f *fold) run(w *work, e *studentlog.Entry) {
	level := clearing.Level(e.Standard)
	if f.standards[level] == nil {
		f.standards[level] = clearing.Standard(f.ctx.Family, level)
	}
	v := clearing.Judge(f.standards[level], e.Met)
	met := slices.Clip(e.Met)
	if !slices.IsSorted(met) {
		met = slices.Clone(met)
		slices.Sort(met)
	}
	if met == nil {
		met = []string{}
	}
	run := Run{ID: e.ID, At: e.At, Met: met, Cleared: v.Cleared}
	for _, p := range v.Missed {
		run.Missed = append(run.Missed, p.ID)
	}
	w.Runs = append(w.Runs, run)
	f.played(w, e)
	switch learned := w.State == Cleared || w.State == Polished; {
	case learned && v.Cleared:
		w.heard(f.day(e.At), memory.Solid, f.curve)
	case learned:
		w.heard(f.day(e.At), memory.Shaky, f.curve)
	case v.Cleared:
		f.clear(w, e, RunMet)
	}
}

// clear makes a material cleared. Clearing twice counts once.
func (f *fold) clear(w *work, e *studentlog.Entry, why Why) {
	if w.State == Cleared || w.State == Polished {
		return
	}
	w.resume(f.day(e.At))
	again := !w.ClearedAt.IsZero()
	w.learned()
	w.State, w.Why = Cleared, why
	w.heard(f.day(e.At), memory.Solid, f.curve)
	if !again {
		w.ClearedAt = e.At
	}
	if !again {
		for i := range w.asks {
			w.asks[i].skill.Cleared++
		}
	}
	f.gain(w, e)
	f.grown(w)
	f.unit(w, e)
}

// grown takes a learned material into account for the longest piece and the highest tempo.
func (f *fold) grown(w *work) {
	if a := &f.out.Ability; w.known {
		a.LongestBars = max(a.LongestBars, w.lib.distinctBars)
		if w.lib.tempo > 0 {
			a.Tempo[w.lib.texture] = max(a.Tempo[w.lib.texture], w.lib.tempo)
		}
	}
	for _, l := range w.lib.loads {
		if f.reached == nil {
			f.reached = map[dimension.ID][2]shown{}
		}
		was, is := f.reached[l.Dimension], shown{w, leap.Shows(w.lib.drill, l)}
		switch {
		case was[0].by == w || was[1].by == w: // it spoke for itself before
		case is.load > was[0].load:
			f.reached[l.Dimension] = [2]shown{is, was[0]}
		case is.load > was[1].load:
			f.reached[l.Dimension] = [2]shown{was[0], is}
		}
	}
}

// shown is a load for which a learned material speaks.
type shown struct {
	by   *work
	load float64
}

// halfLoad is in how many days the load for which a material speaks falls by half when it is not played any more (default):
// four years.
const halfLoad = 4 * 365.25

// loads are the highest loads of the learned materials by a day, faded since each of them was played last.
func (f *fold) loads(on civil.Day) map[dimension.ID]leap.Reached {
	if len(f.reached) == 0 {
		return nil
	}
	out := make(map[dimension.ID]leap.Reached, len(f.reached))
	for d, two := range f.reached {
		var r leap.Reached
		for _, x := range two {
			if x.by != nil {
				r = r.With(x.load * math.Exp2(-float64(max(0, on-x.by.HeardOn))/halfLoad))
			}
		}
		out[d] = r
	}
	return out
}

// unit clears the unit of a section when that was the last of its sections.
func (f *fold) unit(w *work, e *studentlog.Entry) {
	if w.lib.partOf == "" {
		return
	}
	if f.sections == nil {
		f.sections = map[string][]string{}
		for id, m := range f.ctx.Library {
			if m.PartOf != "" {
				f.sections[m.PartOf] = append(f.sections[m.PartOf], id)
			}
		}
	}
	for _, id := range f.sections[w.lib.partOf] {
		if s := f.works[id]; s == nil || s.State != Cleared && s.State != Polished {
			return
		}
	}
	f.clear(f.work(w.lib.partOf), e, AllSections)
}

// before makes a material one that was learned before the log began, at about the time of the entry: it
// is kept in memory from then on, as solid as a piece just cleared, and so the doubt grows with the time. It
// was not played here, and says nothing of how long a piece takes.
func (f *fold) before(w *work, e *studentlog.Entry) {
	if w.State == Cleared || w.State == Polished {
		return
	}
	w.learned()
	for i := range w.asks {
		w.asks[i].skill.Cleared++
	}
	w.State, w.Why, w.ClearedAt = Cleared, FromBefore, e.At
	w.heard(f.day(e.At), memory.Solid, f.curve)
	f.grown(w)
}

// faded says that what spoke for a skill has faded by a day: it is in no
// working piece that a lesson heard, every learned piece that asks for it is more likely lost than
// not, and it was not shown lately.
func (f *fold) faded(t *trace, on civil.Day) bool {
	if t.Shown && int(on-t.shownOn) <= f.ctx.Policy.RustyAfterDays {
		return false
	}
	for a := t.last; a != nil; a = a.before {
		if w := a.of; w.State == Working && w.taught || w.Memory.Heard() && float64(on-w.HeardOn) <= f.holds*w.Memory.Stability {
			return false
		}
	}
	return true
}

// finish computes what depends on the whole log.
func (f *fold) finish() {
	f.out.Focus = f.habits.list()
	f.out.Ability.Skills = make(map[string]leap.Evidence, len(f.skills))
	for id, t := range f.skills {
		if t.Evidence != (leap.Evidence{}) {
			t.Faded = f.faded(t, civil.On(f.ctx.Day))
			f.out.Ability.Skills[id] = t.Evidence
		}
	}
	f.out.Ability.Loads = f.loads(civil.On(f.ctx.Day))
	if f.out.ByEar = f.byEar(civil.On(f.ctx.Day)); f.out.ByEar {
		for _, s := range f.ctx.Skills.All() {
			if s.Family == skill.OfReading {
				e := f.out.Ability.Skills[s.ID]
				e.Unread = true
				f.out.Ability.Skills[s.ID] = e
			}
		}
	}
	travelling := f.out.Travelling()
	f.out.Materials = make(map[string]*MaterialStanding, len(f.works))
	for id, w := range f.works {
		f.out.Materials[id] = &w.MaterialStanding
		w.Lessons = w.days
		w.SinceMark = w.days - w.gained
		switch w.State {
		case Working:
			w.count(append(slices.Clip(w.lib.points), w.Own...), travelling)
			w.RunDue, w.Why = w.due()
		case Resting:
			w.Why = Rests
		}
	}
	f.out.order = byAssignment(f.out.Materials)
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
	// A usual fault counts once it was seen.
	for id, mark := range m.Marks {
		if strings.HasPrefix(id, material.Fault) {
			one(mark)
		}
	}
	if mark, any := m.SpotsMark(); any {
		one(mark)
	}
}

// due says whether a run is due on a working piece, and why it stands where it stands.
func (m *MaterialStanding) due() (bool, Why) {
	all := m.Points > 0 && m.Full == m.Points
	switch n := len(m.Runs); {
	case n > 0 && !m.Runs[n-1].Cleared:
		return all, RunMissed
	case m.Points == 0:
		return false, NoPoints
	case all:
		return true, RunIsDue
	}
	return false, PointsOpen
}
