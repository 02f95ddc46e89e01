package api

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/signs"
	"patientladder/store"
)

// horizon is what the outlooks of a studio share.
type horizon struct {
	holidays []store.Holiday
	model    *forecast.Model
}

func (s *Server) horizon(ctx context.Context, b book) (horizon, error) {
	holidays, err := s.store.Holidays(ctx, b.studio.ID)
	if err != nil {
		return horizon{}, err
	}
	model, err := s.forecasts(ctx, b, breaks(holidays, nil))
	return horizon{holidays, model}, err
}

// whole opens the book with what the outlooks of all its ladders need.
func (s *Server) whole(ctx context.Context) (b book, h horizon, rungs map[string][]ladder.Placed, err error) {
	if b, err = s.book(ctx); err != nil {
		return b, h, nil, err
	}
	if h, err = s.horizon(ctx, b); err != nil {
		return b, h, nil, err
	}
	rungs, err = s.store.AllRungs(ctx, b.studio.ID)
	return b, h, rungs, err
}

// breaks are the holidays, without those in which there are lessons all the same.
func breaks(holidays []store.Holiday, given []string) []calendar.Break {
	in := map[string]bool{}
	for _, id := range given {
		in[id] = true
	}
	var out []calendar.Break
	for _, h := range holidays {
		if !in[h.ID] {
			out = append(out, calendar.Break{From: h.First, To: h.Last})
		}
	}
	return out
}

// ahead is a shelf with what lies ahead of it.
type ahead struct {
	shelf
	outlook.Outlook
	horizon
	lessons *calendar.Lessons
	placed  []ladder.Placed
}

// ahead opens a ladder with its outlook.
func (s *Server) ahead(ctx context.Context, id string, l lens) (ahead, error) {
	sh, err := s.shelf(ctx, id)
	if err != nil {
		return ahead{}, err
	}
	h, err := s.horizon(ctx, sh.book)
	if err != nil {
		return ahead{}, err
	}
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return ahead{}, err
	}
	return look(sh, h, placed, l), nil
}

// lens is how an outlook looks ahead. The zero value looks along the whole ladder.
type lens struct {
	// given are the holidays in which there are lessons all the same.
	given []string
	// near looks only as far ahead as previews do.
	near bool
	// lesson looks from within today's lesson; otherwise one that was given
	// today is over, and the next is a week away.
	lesson bool
}

// look makes the outlook of a shelf with its rungs in some order.
func look(sh shelf, h horizon, placed []ladder.Placed, l lens) ahead {
	a := ahead{shelf: sh, horizon: h, placed: placed}
	off := breaks(h.holidays, l.given)
	from := sh.today
	if sh.givenToday() && !l.lesson {
		from = from.AddDate(0, 0, 1)
	}
	a.lessons = calendar.New(from, sh.ladder.Weekday, off)
	in := outlook.Input{
		Student: sh.ladder.ID, Standing: sh.standing, Library: sh.lib, Placed: placed, Skills: sh.skills, Leap: sh.policy.Leap,
		Preview: sh.way.Preview(), Model: h.model, Lessons: a.lessons, Breaks: off, Day: sh.today, Near: l.near,
	}
	if first := sh.standing.FirstLesson; !first.IsZero() {
		in.ReadingFrom = a.lessons.Until(sh.day(first).AddDate(0, 0, 7*sh.way.ReadingAfter-1))
	} else {
		in.ReadingFrom = sh.way.ReadingAfter
	}
	a.Outlook = outlook.Of(in)
	return a
}

// givenToday says that today's lesson has been recorded already, so that the
// next one is a week away.
func (sh shelf) givenToday() bool {
	return !sh.standing.LastLesson.IsZero() && sh.day(sh.standing.LastLesson).Equal(sh.today)
}

func date(t time.Time) openapi_types.Date { return openapi_types.Date{Time: t} }

// days turns a range of lessons into one of dates.
func (a ahead) days(s forecast.Span) contract.Days {
	low, high := a.lessons.Day(s.Low), a.lessons.Day(s.High)
	return contract.Days{Low: date(low), Median: date(a.lessons.Day(s.Median)), High: date(high), Words: between(low, high, a.today)}
}

// between says a range of days in words as coarse as it is: the days for a
// near one, the months for a far one.
func between(low, high, today time.Time) string {
	year := func(t time.Time) string {
		if t.Year() == today.Year() || t.Sub(today) < 200*24*time.Hour {
			return ""
		}
		return t.Format(" 2006")
	}
	switch {
	case low.Equal(high):
		return low.Format("2 Jan") + year(low)
	case high.Sub(today) < 70*24*time.Hour:
		return low.Format("2 Jan") + " – " + high.Format("2 Jan")
	case low.Year() == high.Year() && low.Month() == high.Month():
		return low.Format("January") + year(low)
	case low.Year() == high.Year():
		return low.Format("Jan") + " – " + high.Format("Jan") + year(high)
	}
	return low.Format("Jan") + year(low) + " – " + high.Format("Jan") + year(high)
}

// plantings are the skills that are planted for what lies ahead, most urgent first.
func (a ahead) plantings() []contract.Planting {
	out := []contract.Planting{}
	for i, o := range a.Plan.Outcomes {
		s, _ := a.skills.Get(o.Skill)
		piece := a.lib[o.For].Title
		p := contract.Planting{
			Skill: o.Skill, Name: s.Name, Done: o.Done, Of: o.Of, For: o.For, ForTitle: piece,
			Needed: date(a.lessons.Day(o.By)), Ready: date(a.lessons.Day(o.Ready)), Slack: o.Slack, Late: o.Late(), Mends: []string{},
		}
		left := o.Of - o.Done
		p.Why = fmt.Sprintf("“%s” asks for %s and is expected to begin about %s, in %s. %s left, never two in one lesson and at most %d bites in all: the last one comes on %s",
			piece, s.Name, p.Needed.Format("2 January"), counted(o.By, "lesson"), capital(counted(left, "step")), a.way.Bites, p.Ready.Format("2 January"))
		if len(o.After) > 0 {
			var under []string
			for _, id := range o.After {
				under = append(under, a.skills.Name(id))
			}
			p.Why = strings.Replace(p.Why, ": the last one", fmt.Sprintf(", and after %s, on which it stands: the last one", joined(under)), 1)
		}
		switch {
		case o.Slack > 0:
			p.Why += fmt.Sprintf(", with %s to spare.", counted(o.Slack, "lesson"))
		case o.Slack == 0:
			p.Why += ", just in time."
		default:
			p.Why += fmt.Sprintf(", %s too late.", counted(-o.Slack, "lesson"))
			for _, m := range a.Mends(i) {
				p.Mends = append(p.Mends, a.mend(m, piece))
			}
		}
		for _, step := range a.Plan.Steps {
			if step.Skill == o.Skill {
				due := a.lessons.Day(0).AddDate(0, 0, 7*step.Due)
				if step.Due >= 0 {
					due = a.lessons.Day(step.Due)
				}
				p.Steps = append(p.Steps, struct {
					Day  openapi_types.Date `json:"day"`
					Due  openapi_types.Date `json:"due"`
					Step int                `json:"step"`
					Text string             `json:"text"`
				}{date(a.lessons.Day(step.Lesson)), date(due), step.Step, s.Steps[step.Step-1]})
			}
		}
		out = append(out, p)
	}
	sort.SliceStable(out, func(i, k int) bool { return out[i].Slack < out[k].Slack })
	return out
}

func (a ahead) mend(m preview.Mend, piece string) string {
	switch m.Kind {
	case "move":
		return fmt.Sprintf("Begin “%s” %s later.", piece, counted(m.Lessons, "lesson"))
	case "bites":
		if m.Late > 0 {
			return fmt.Sprintf("One bite more in every lesson: then it is %s late.", counted(m.Late, "lesson"))
		}
		return "One bite more in every lesson."
	}
	return fmt.Sprintf("Play “%s” first: it asks for nothing that is late.", a.lib[m.Material].Title)
}

// signs are what is ripe, with what the outlook adds: pieces that take too long,
// skills that come too late, and a cliff ahead.
func (a ahead) signs(day time.Time) []signs.Sign {
	p := a.way.Ripe()
	p.Long = map[string]float64{}
	for id, w := range a.When {
		if w.Long {
			p.Long[id] = w.Usual
		}
	}
	p.Kept = map[string]bool{}
	for _, id := range a.learned() {
		p.Kept[id] = true
	}
	found := signs.Find(a.standing, a.lib, p, day)
	if a.setupDue() {
		text := "Bench and feet are due to be measured again"
		if a.standing.Setup == nil {
			text = "Bench and feet were never measured"
		}
		found = append(found, signs.Sign{Kind: "bench", Text: text})
	}
	for i, o := range a.Plan.Outcomes {
		if o.Late() > 0 {
			found = append(found, signs.Sign{Kind: "late", Material: o.For, Text: fmt.Sprintf("%s comes %s too late for “%s”", a.skills.Name(a.Needs[i].Skill), counted(o.Late(), "lesson"), a.lib[o.For].Title)})
			break // one is enough to open the ladder
		}
	}
	for _, rail := range a.View.Rails {
		for i, r := range rail.Rungs {
			if r.Layer == ladder.Review || r.Layer == ladder.Now || r.Aside != "" {
				continue
			}
			if r.Cliff && i > 0 {
				found = append(found, signs.Sign{Kind: "cliff", Material: r.Material.ID, Text: fmt.Sprintf("“%s” ahead is a cliff: a leap of %.1f, over %.1f", r.Material.Title, r.Leap.Size, a.View.Reach.Size)})
			}
			break // only the next rung of each strand
		}
	}
	signs.Sort(found)
	return found
}

// starved says that a learned piece was left unheard for too long.
func (a ahead) starved() bool {
	return slices.ContainsFunc(a.learned(), func(id string) bool {
		return a.standing.Materials[id].Unheard(a.today) > 7*a.way.ReviewWeeks
	})
}

// reviewState says how learned pieces are kept, and how much of the coming
// week goes to them.
func (a ahead) reviewState(share float64) contract.ReviewState {
	out := contract.ReviewState{Share: share, Aim: a.way.ReviewShare}
	for _, id := range a.learned() {
		out.Pieces++
		if a.recall(id) < 0.8 {
			out.Fading++
		}
		if a.standing.Materials[id].Unheard(a.today) > 7*a.way.ReviewWeeks {
			out.Starved++
		}
	}
	out.Words = fmt.Sprintf("%.0f %% of the coming week is review, of the %.0f %% aimed at", 100*share, 100*out.Aim)
	switch {
	case out.Pieces == 0:
		out.Words = "Nothing is learned yet, so there is nothing to review"
	case share < out.Aim-0.1:
		out.Words += "; the learned pieces are too few or too short for more"
		if out.Starved > 0 {
			out.Words = fmt.Sprintf("%.0f %% of the coming week is review, of the %.0f %% aimed at; %s unheard for more than %s", 100*share, 100*out.Aim, counted(out.Starved, "piece"), counted(a.way.ReviewWeeks, "week"))
		}
	}
	return out
}

func percent(p float64) string { return fmt.Sprintf("%.0f %%", math.Round(100*p)) }
