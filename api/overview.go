package api

import (
	"context"
	"fmt"
	"sort"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/base/parallel"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// GetOverview returns all students on one page, those that need something most first.
func (s *Server) GetOverview(ctx context.Context, _ contract.GetOverviewRequestObject) (contract.GetOverviewResponseObject, error) {
	b, h, rungs, err := s.whole(ctx)
	if err != nil {
		return nil, err
	}
	targets, err := s.store.AllTargets(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	shelves, err := s.shelves(ctx, b, "")
	if err != nil {
		return nil, err
	}
	out := contract.Overview{Students: make([]contract.OverviewStudent, len(shelves))}
	parallel.Each(len(shelves), func(i int) {
		sh := shelves[i]
		near := len(targets[sh.ladder.ID]) == 0 // a target may lie beyond what previews look at
		out.Students[i] = overviewStudent(look(sh, h, rungs[sh.ladder.ID], lens{near: near}), targets[sh.ladder.ID])
	})
	sort.SliceStable(out.Students, func(i, k int) bool { return urgency(out.Students[i]) > urgency(out.Students[k]) })
	out.Sentence = overviewSentence(out.Students)
	return contract.GetOverview200JSONResponse(out), nil
}

func overviewStudent(a ahead, targets []store.Target) contract.OverviewStudent {
	out := contract.OverviewStudent{
		Student: student(a.ladder, a.today), Signs: signsOut(a.signs(a.today)), Working: []contractWorking{},
		Review: a.reviewState(a.reviewShare()), Targets: a.targets(targets),
	}
	for _, id := range a.in(standing.Working) {
		ms, w := a.standing.Materials[id], a.When[id]
		out.Working = append(out.Working, contractWorking{
			Clears: a.days(w.Clear), Full: ms.Full, Material: id, Points: ms.Points, Title: a.lib[id].Title, Usual: w.Usual, Weeks: max(0, w.Elapsed-1),
		})
	}
	return out
}

type contractWorking = struct {
	Clears   contract.Days `json:"clears"`
	Full     int           `json:"full"`
	Material contract.Id   `json:"material"`
	Points   int           `json:"points"`
	Title    string        `json:"title"`
	Usual    float64       `json:"usual"`
	Weeks    float64       `json:"weeks"`
}

// urgency orders the students: stuck before late before a run, and so on.
func urgency(o contract.OverviewStudent) int {
	weight := map[contract.SignKind]int{"stuck": 8, "late": 5, "choose": 5, "run": 4, "cliff": 3, "review": 2, "spot": 1}
	n := 0
	for _, s := range o.Signs {
		n += weight[s.Kind]
	}
	return n
}

func overviewSentence(students []contract.OverviewStudent) string {
	if len(students) == 0 {
		return "There is no student yet: add the first one under Students."
	}
	count := map[contract.SignKind]int{}
	starving := 0
	for _, o := range students {
		seen := map[contract.SignKind]bool{}
		for _, s := range o.Signs {
			if !seen[s.Kind] {
				seen[s.Kind] = true
				count[s.Kind]++
			}
		}
		if o.Review.Starved > 0 {
			starving++
		}
	}
	var parts []string
	say := func(n int, what string) {
		if n > 0 {
			parts = append(parts, fmt.Sprintf("%d %s", n, what))
		}
	}
	say(count["run"], "ready for a run")
	say(count["stuck"], "stuck")
	say(count["cliff"], "with a cliff ahead")
	say(count["late"], "with a preview too late")
	say(starving, "whose review is starving")
	if len(parts) == 0 {
		return "All " + counted(len(students), "student") + " go their way."
	}
	return fmt.Sprintf("Of %s: %s.", counted(len(students), "student"), strings.Join(parts, ", "))
}
