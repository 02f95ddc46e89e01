package api

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"patientladder/api/contract"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// GetBalance sets practice against enjoyment for every student who has a
// published week, the quiet ones first. For the teacher only.
func (s *Server) GetBalance(ctx context.Context, _ contract.GetBalanceRequestObject) (contract.GetBalanceResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	weeks, err := s.store.StudioWeeks(ctx, b.studio.ID, b.today.AddDate(0, 0, -standing.HomeDays-weekplan.Days))
	if err != nil {
		return nil, err
	}
	shelves, err := s.shelves(ctx, b, "")
	if err != nil {
		return nil, err
	}
	out := contract.GetBalance200JSONResponse{}
	for _, sh := range shelves {
		e := sh.homeEvidence(weeks[sh.ladder.ID])
		if e == (enjoyment.Evidence{}) {
			continue
		}
		r := enjoyment.Of(e)
		out = append(out, contract.Balance{
			Ladder: sh.ladder.ID, Name: sh.ladder.Name, Practice: shareOf(r.Practice), Enjoyment: shareOf(r.Enjoyment),
			Kind: contract.BalanceKind(r.Kind), Words: r.Words, Why: r.Why,
		})
	}
	slices.SortStableFunc(out, func(a, b contract.Balance) int { return noticed(b.Kind) - noticed(a.Kind) })
	return out, nil
}

// noticed ranks the quiet one before the one who drifts away, and both before all others.
func noticed(k contract.BalanceKind) int {
	switch enjoyment.Kind(k) {
	case enjoyment.Quiet:
		return 2
	case enjoyment.Away:
		return 1
	}
	return 0
}

func shareOf(s enjoyment.Share) contract.Share {
	return contract.Share{Low: thousandths(s.Low), Middle: thousandths(s.Middle), High: thousandths(s.High)}
}

// homeEvidence counts what came from home in the last weeks.
func (sh shelf) homeEvidence(weeks []store.SetDays) enjoyment.Evidence {
	set := daysSet(weeks, sh.today.AddDate(0, 0, -standing.HomeDays), sh.today.AddDate(0, 0, -1))
	e := enjoyment.Evidence{Set: len(set)}
	days := map[string]bool{}
	for _, h := range sh.standing.Home {
		switch h.Sign {
		case studentlog.PlayedFirst, studentlog.AskedFor, studentlog.Unasked, studentlog.Liked:
			e.Liked++
		case studentlog.Disliked:
			e.Disliked++
		}
		switch h.Felt {
		case studentlog.Joyful:
			e.Joyful++
		case studentlog.Fine:
			e.Fine++
		case studentlog.Hard:
			e.Hard++
		}
		if h.Day != "" && set[h.Day] {
			days[h.Day] = true
		}
	}
	e.Practised = len(days)
	return e
}

// daysSet are the days, as 2026-05-05, from one day to another on which
// practice was set. A week that begins later holds from its first day on.
func daysSet(weeks []store.SetDays, from, to time.Time) map[string]bool {
	out := map[string]bool{}
	for i, w := range weeks {
		for _, d := range w.Days {
			if d.Before(from) || d.After(to) || i+1 < len(weeks) && !d.Before(weeks[i+1].Start) {
				continue
			}
			out[d.Format(time.DateOnly)] = true
		}
	}
	return out
}

// home says what came from home since the week before a day was set; nil where nothing was published.
func (sh shelf) home(weeks []store.SetDays, day time.Time) *contract.Home {
	from := time.Time{}
	for _, w := range weeks {
		if w.Start.Before(day) {
			from = w.Start
		}
	}
	if from.IsZero() || day.Sub(from) > 2*weekplan.Days*24*time.Hour {
		return nil
	}
	last := day.AddDate(0, 0, -1)
	if last.After(sh.today) {
		last = sh.today
	}
	set := daysSet(weeks, from, last)
	out := &contract.Home{Days: len(set), First: []string{}}
	days := map[string]bool{}
	for _, h := range sh.standing.Home {
		if !h.FromHome || sh.day(h.At).Before(from) {
			continue
		}
		if h.Sign == studentlog.PlayedFirst {
			if title := sh.lib[h.Material].Title; !slices.Contains(out.First, title) {
				out.First = append(out.First, title)
			}
			continue
		}
		days[h.Day] = true
		switch h.Felt {
		case studentlog.Joyful:
			out.Joyful++
		case studentlog.Fine:
			out.Fine++
		case studentlog.Hard:
			out.Hard++
		}
	}
	out.Practised = len(days)
	out.Words = homeWords(out)
	return out
}

func homeWords(h *contract.Home) string {
	if h.Practised == 0 && len(h.First) == 0 {
		return "Nothing was reported from home"
	}
	parts := []string{fmt.Sprintf("Practised on %s of %s", numbered(h.Practised), counted(max(h.Days, h.Practised), "day"))}
	var felt []string
	for _, f := range []struct {
		n    int
		word string
	}{{h.Joyful, "joyful"}, {h.Fine, "fine"}, {h.Hard, "hard"}} {
		if f.n > 0 {
			felt = append(felt, fmt.Sprintf("%s %d ×", f.word, f.n))
		}
	}
	if len(felt) > 0 {
		parts = append(parts, "felt "+joined(felt))
	}
	if len(h.First) > 0 {
		var titles []string
		for _, t := range h.First {
			titles = append(titles, "“"+t+"”")
		}
		parts = append(parts, "played "+joined(titles)+" first")
	}
	return strings.Join(parts, "; ")
}
