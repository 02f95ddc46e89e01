package api

import (
	"context"
	"fmt"
	"math"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/planning/ladder"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/reading/naming"
	"patientladder/core/student/clearing"
	"patientladder/core/student/setup"
	"patientladder/core/way"
	"patientladder/store"
)

func wayOf(w contract.Way) way.Way {
	return way.Way{
		ReviewShare: w.ReviewShare, ReadingAfter: w.ReadingAfter, Approach: naming.Approach(w.Approach), FirstView: way.FirstView(w.FirstView),
		FirstChunk: w.FirstChunk, Standard: clearing.Level(w.Standard), SecureAfter: w.SecureAfter, Comfortable: w.Comfortable,
		EaseAfterLeap: w.EaseAfterLeap, Bites: w.Bites, LookRungs: w.LookRungs, LookWeeks: w.LookWeeks, ReviewWeeks: w.ReviewWeeks,
		StuckLessons: w.StuckLessons, PolishWeeks: w.PolishWeeks, Sure: w.Sure,
		Dose: weekplan.Dose(w.Dose), DoseRow: w.DoseRow, HandShape: setup.School(w.HandShape), BenchLean: setup.Lean(w.BenchLean),
	}
}

func contractWay(w way.Way) contract.Way {
	return contract.Way{
		ReviewShare: w.ReviewShare, ReadingAfter: w.ReadingAfter, Approach: contract.WayApproach(w.Approach), FirstView: contract.WayFirstView(w.FirstView),
		FirstChunk: w.FirstChunk, Standard: contract.WayStandard(w.Standard), SecureAfter: w.SecureAfter, Comfortable: w.Comfortable,
		EaseAfterLeap: w.EaseAfterLeap, Bites: w.Bites, LookRungs: w.LookRungs, LookWeeks: w.LookWeeks, ReviewWeeks: w.ReviewWeeks,
		StuckLessons: w.StuckLessons, PolishWeeks: w.PolishWeeks, Sure: w.Sure,
		Dose: contract.WayDose(w.Dose), DoseRow: w.DoseRow, HandShape: contract.WayHandShape(w.HandShape), BenchLean: contract.WayBenchLean(w.BenchLean),
	}
}

// wayOfStudent is a student's way, or with no ladder the studio's, and the studio's.
func (s *Server) wayOfStudent(ctx context.Context, ladder string) (mine, studio way.Way, st store.Studio, err error) {
	if st, err = s.store.Studio(ctx, actor(ctx).studio); err != nil {
		return mine, studio, st, err
	}
	studio = st.Way
	if ladder == "" {
		return studio, studio, st, nil
	}
	l, err := s.store.Ladder(ctx, st.ID, ladder)
	if err != nil {
		return mine, studio, st, err
	}
	sh, err := book{studio: st}.on(l)
	return sh.way, studio, st, err
}

// GetWay returns the way of teaching of the studio or of a student.
func (s *Server) GetWay(ctx context.Context, r contract.GetWayRequestObject) (contract.GetWayResponseObject, error) {
	mine, studio, st, err := s.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.WayView{Way: contractWay(mine), Preset: mine.PresetOf(), Version: st.WayVersion, Differs: []string{}}
	for _, c := range way.Changes(studio, mine) {
		out.Differs = append(out.Differs, c.Key)
	}
	for _, p := range way.Presets() {
		out.Presets = append(out.Presets, struct {
			Key  string       `json:"key"`
			Name string       `json:"name"`
			Says string       `json:"says"`
			Way  contract.Way `json:"way"`
		}{p.Key, p.Name, p.Says, contractWay(p.Way)})
	}
	return contract.GetWay200JSONResponse(out), nil
}

// SetWay sets the studio's way, or in what a student differs from it.
func (s *Server) SetWay(ctx context.Context, r contract.SetWayRequestObject) (contract.SetWayResponseObject, error) {
	_, studio, st, err := s.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	if r.Params.Ladder == "" {
		return contract.SetWay204Response{}, s.store.SetWay(ctx, st.ID, w, r.Params.Version)
	}
	approach := w.Approach
	if approach == studio.Approach {
		approach = ""
	}
	w.Approach = studio.Approach // kept by itself
	return contract.SetWay204Response{}, s.store.SetLadderWay(ctx, st.ID, r.Params.Ladder, w.Own(studio), approach)
}

// TryWay says what another way would change, switch by switch and student by student.
func (s *Server) TryWay(ctx context.Context, r contract.TryWayRequestObject) (contract.TryWayResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	mine, _, _, err := s.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.WayChange{Switches: []contractSwitch{}, Students: []contractEffects{}}
	for _, c := range way.Changes(mine, w) {
		out.Switches = append(out.Switches, contractSwitch{From: c.From, Key: c.Key, Means: c.Means, Name: c.Name, To: c.To})
	}
	h, err := s.horizon(ctx, b)
	if err != nil {
		return nil, err
	}
	rungs, err := s.store.AllRungs(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	shelves, err := s.shelves(ctx, b, "")
	if err != nil {
		return nil, err
	}
	for _, sh := range shelves {
		if r.Params.Ladder != "" && sh.ladder.ID != r.Params.Ladder {
			continue
		}
		then := sh
		if r.Params.Ladder != "" {
			then.way = w
		} else {
			changed := b
			changed.studio.Way = w
			if then, err = changed.on(sh.ladder); err != nil {
				return nil, err
			}
		}
		then.policy, then.standing = then.way.Standing(), sh.standing
		if effects := effects(look(sh, h, rungs[sh.ladder.ID], lens{near: true}), look(then, h, rungs[sh.ladder.ID], lens{near: true})); len(effects) > 0 {
			out.Students = append(out.Students, contractEffects{Effects: effects, Ladder: sh.ladder.ID, Name: sh.ladder.Name})
		}
	}
	return contract.TryWay200JSONResponse(out), nil
}

type contractSwitch = struct {
	From  string `json:"from"`
	Key   string `json:"key"`
	Means string `json:"means"`
	Name  string `json:"name"`
	To    string `json:"to"`
}

type contractEffects = struct {
	Effects []string    `json:"effects"`
	Ladder  contract.Id `json:"ladder"`
	Name    string      `json:"name"`
}

// effects says what another way does to one student: review, first views,
// bites, cliffs, dates, chunks, and what is stuck.
func effects(was, will ahead) []string {
	out := []string{}
	add := func(format string, args ...any) { out = append(out, fmt.Sprintf(format, args...)) }
	minutes := func(a ahead) float64 {
		days := 0
		for _, practises := range a.ladder.PracticeDays {
			if practises {
				days++
			}
		}
		return math.Round(a.reviewShare() * float64(a.ladder.PracticeMinutes*days))
	}
	if x, y := minutes(was), minutes(will); x != y {
		add("review %.0f → %.0f minutes a week", x, y)
	}
	if x, y := len(was.pick()), len(will.pick()); x != y {
		add("%d → %d pieces picked for review", x, y)
	}
	if was.way.FirstView != will.way.FirstView {
		add("a piece opens with %s", map[way.FirstView]string{way.Sound: "its sound", way.Score: "the score"}[will.way.FirstView])
	}
	if was.way.Approach != will.way.Approach {
		add("reads %s", map[naming.Approach]string{naming.ByDirection: "by direction", naming.ByInterval: "by interval", naming.ByName: "by note names", naming.ByPosition: "by position"}[will.way.Approach])
	}
	if x, y := was.leafBars(), will.leafBars(); x != y {
		add("first chunks of %s instead of %d", figures(y, "bar"), x)
	}
	if x, y := len(was.Today()), len(will.Today()); x != y {
		add("%d → %s in the next lesson", x, figures(y, "preview bite"))
	}
	if x, y := lateSkills(was), lateSkills(will); x != y {
		add("%d → %s too late", x, figures(y, "preview"))
	}
	if x, y := cliffs(was), cliffs(will); x != y {
		add("%d → %s ahead", x, figures(y, "cliff"))
	}
	if x, y := stuck(was), stuck(will); x != y {
		add("%d → %s stuck", x, figures(y, "piece"))
	}
	return out
}

// figures writes "1 cliff", "3 cliffs".
func figures(n int, what string) string {
	if n != 1 {
		what += "s"
	}
	return fmt.Sprintf("%d %s", n, what)
}

func lateSkills(a ahead) (n int) {
	for _, o := range a.Plan.Outcomes {
		if o.Late() > 0 {
			n++
		}
	}
	return n
}

func cliffs(a ahead) (n int) {
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			if r.Cliff && (r.Layer == ladder.Ahead || r.Layer == ladder.Preview) {
				n++
			}
		}
	}
	return n
}

func stuck(a ahead) (n int) {
	for _, s := range a.signs(a.today) {
		if s.Kind == "stuck" {
			n++
		}
	}
	return n
}

// ListHolidays returns the days without lessons.
func (s *Server) ListHolidays(ctx context.Context, _ contract.ListHolidaysRequestObject) (contract.ListHolidaysResponseObject, error) {
	list, err := s.store.Holidays(ctx, actor(ctx).studio)
	out := contract.ListHolidays200JSONResponse{}
	for _, h := range list {
		out = append(out, contract.Holiday{Id: h.ID, Name: h.Name, First: date(h.First), Last: date(h.Last)})
	}
	return out, err
}

// longestHoliday in days.
const longestHoliday = 366

// SetHoliday adds or changes one.
func (s *Server) SetHoliday(ctx context.Context, r contract.SetHolidayRequestObject) (contract.SetHolidayResponseObject, error) {
	h := store.Holiday{ID: r.Holiday, Name: strings.TrimSpace(r.Body.Name), First: r.Body.First.Time, Last: r.Body.Last.Time}
	switch {
	case h.Name == "":
		return nil, invalid("The holiday needs a name.")
	case h.Last.Before(h.First):
		return nil, invalid(fmt.Sprintf("The holiday ends on %s, before it begins on %s.", h.Last.Format("2 January 2006"), h.First.Format("2 January 2006")))
	case h.Last.Sub(h.First).Hours() > 24*longestHoliday:
		return nil, invalid("A holiday is at most a year long.")
	}
	return contract.SetHoliday204Response{}, s.store.SetHoliday(ctx, actor(ctx).studio, h)
}

// RemoveHoliday takes one away.
func (s *Server) RemoveHoliday(ctx context.Context, r contract.RemoveHolidayRequestObject) (contract.RemoveHolidayResponseObject, error) {
	return contract.RemoveHoliday204Response{}, s.store.RemoveHoliday(ctx, actor(ctx).studio, r.Holiday)
}
