// Package inweek makes the week of practice of one student: what it is made from, what the week before it leaves, the card of each
// thing to do, and how review stands in it. The rules of laying it out are those of core/planning/week.
package inweek

import (
	"slices"
	"sort"
	"strings"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/review"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/overrule"
	"patientladder/core/reading/reading"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

// Reading is the score of a material as it is read, with what the teacher set.
type Reading struct {
	*analysis.Piece
	Set overrule.Set
}

// Read opens the score of a material, nil where it has none; a nil Read opens nothing.
type Read func(m material.Material) (*Reading, error)

func (r Read) open(m material.Material) (*Reading, error) {
	if r == nil {
		return nil, nil
	}
	return r(m)
}

// Week is a week of practice with what it was made from.
type Week struct {
	Input week.Input
	Plan  week.Plan
	// Picked are the learned pieces of the week with the reasons.
	Picked []review.Chosen
	// Home is what home showed of the week before, and what comes of it in this one.
	Home []AfterHome
}

// Lay lays out the practice from a day on, with what was set by hand; before is what the week before it left (Before).
func Lay(a *studentplan.StudentOutlook, start time.Time, h week.Hand, before Before, read Read) (Week, error) {
	w := Week{Input: Practice(a.Student, start), Picked: a.ForWeek()}
	if !a.Policy.HomeCounts {
		before = Before{Resting: before.Resting} // pain counts whatever else does
	}
	w.Input.Hand = h
	rests := func(id string) bool { _, rests := before.Resting[id]; return rests }
	for _, f := range a.Standing.Travelling() {
		w.Input.Own = append(w.Input.Own, f.Text)
	}
	for _, id := range a.In(standing.Working) {
		if a.BySound() && a.Library[id].Strand == material.Reading {
			continue
		}
		if rests(id) {
			w.Input.Resting = append(w.Input.Resting, a.Library[id])
			continue
		}
		work, err := workOf(a.Student, id, read)
		if err != nil {
			return w, err
		}
		work.Shown = before.shown(id, h)
		w.Home = append(w.Home, before.consequences(w.Input, work, h)...)
		w.Input.Works = append(w.Input.Works, work)
	}
	for _, id := range slices.DeleteFunc(a.Settling(start), rests) {
		w.Input.Settling = append(w.Input.Settling, a.Library[id])
	}
	w.Picked = slices.DeleteFunc(w.Picked, func(c review.Chosen) bool { return rests(c.ID) })
	for _, c := range w.Picked {
		w.Input.Reviews = append(w.Input.Reviews, a.Library[c.ID])
	}
	for _, id := range h.Adds {
		if m, known := a.Library[id]; known && !rests(id) && !slices.ContainsFunc(w.Input.Reviews, func(r material.Material) bool { return r.ID == id }) {
			w.Input.Reviews = append(w.Input.Reviews, m)
		}
	}
	w.Input.Bites, w.Input.Listen = planting.PlantedBites(a), listen(a)
	w.Input.Activities = games(a, start, len(w.Input.Works) == 0)
	if f := a.Watched(); f != nil {
		w.Input.Watch = &week.Watch{Text: f.Text, Home: f.Home}
	}
	var err error
	w.Plan, err = week.Make(w.Input)
	return w, err
}

const (
	// gameMinutes is how long a game is at home (default), gamesAWeek by how many each week begins further on (default).
	gameMinutes = 2
	gamesAWeek  = 5
)

// games are what is done at home beside pieces: for the very young, whose minutes pieces do not fill, and for everybody
// before the first piece. What a first meeting takes home comes first, then what was done in lessons.
func games(a *studentplan.StudentOutlook, start time.Time, nothingElse bool) []week.Activity {
	age := a.Age(a.Today)
	if !nothingElse && !lessonplan.VeryYoung(age) {
		return nil
	}
	goals := a.GamePool().For(a.Instrument, age, a.Standing.Activities)
	home := a.Meetings.TakeHome(a.Standing.Met)
	turn := func(g lessonplan.Goal) int {
		switch i := slices.Index(home, g.ID); {
		case i >= 0:
			return i - len(home)
		case len(a.Standing.Activities[g.ID]) > 0:
			return 0
		}
		return 1
	}
	slices.SortStableFunc(goals, func(x, y lessonplan.Goal) int { return turn(x) - turn(y) })
	goals = inTurn(goals, min(len(home), len(goals)), start)
	var out []week.Activity
	for _, g := range goals {
		out = append(out, week.Activity{ID: g.ID, Title: g.Name, Words: g.AtHome(a.First()), Minutes: gameMinutes})
	}
	return out
}

// inTurn lets the goals after so many begin a few further on in each week.
func inTurn(goals []lessonplan.Goal, first int, start time.Time) []lessonplan.Goal {
	rest := goals[first:]
	if len(rest) == 0 {
		return goals
	}
	on := int(civil.On(start)) / week.Days * gamesAWeek % len(rest)
	return slices.Concat(goals[:first], rest[on:], rest[:on])
}

// Practice is what a week of practice is made from before any piece.
func Practice(s studentplan.Student, start time.Time) week.Input {
	return week.Input{
		Start: start, Days: s.WeekDays(start), Practises: s.Practises, Minutes: s.PracticeMinutes, Age: s.Age(s.Today),
		ReviewShare: s.Policy.ReviewShare,
		Approach:    s.Policy.Approach, Dose: s.Policy.Dose, DoseRow: s.Policy.DoseRow, BySound: s.BySound(),
	}
}

// listen are the next pieces of method and repertoire, where pieces are heard before they are read.
func listen(a *studentplan.StudentOutlook) []material.Material {
	var out []material.Material
	if !a.Policy.HearFirst {
		return out
	}
	for _, rail := range a.View.Rails {
		if rail.Strand != material.Method && rail.Strand != material.Repertoire {
			continue
		}
		i := slices.IndexFunc(rail.Rungs, func(r ladder.Rung) bool { return r.Layer == ladder.Ahead && r.Aside == "" && r.Material.HasScore })
		if i >= 0 {
			out = append(out, rail.Rungs[i].Material)
		}
	}
	return out
}

// Gated is a working piece as far as the hands go.
func Gated(s studentplan.Student, id string) week.Work {
	ms := s.Standing.Materials[id]
	return week.Work{
		Material: s.Library[id], Gate: ms.Gate, RunDue: ms.RunDue, WeeksOn: civil.Between(s.Local(ms.Assigned), s.Today) / week.Days,
		HandsApart: week.KeepApart(s.HandsApart && s.TwoHands(), s.Standing.Ability, s.Policy.Standing.Leap),
	}
}

// mostGuides is how many new notes a practice sheet explains (default).
const mostGuides = 4

func workOf(s studentplan.Student, id string, read Read) (week.Work, error) {
	w := Gated(s, id)
	ms := s.Standing.Materials[id]
	if ms.Points > 0 {
		w.Progress = float64(ms.Full) / float64(ms.Points)
	}
	w.Focus = s.OpenPoints(id)
	for _, spot := range ms.Spots {
		if !spot.Mended {
			w.Spots = append(w.Spots, week.Bars{From: spot.From, To: spot.To})
		}
	}
	o, err := read.open(w.Material)
	if err != nil {
		return w, err
	}
	if w.Drill = drillOf(s, w.Material, o); w.Drill != nil || o == nil {
		return w, nil
	}
	w.Plays = plays(o.Piece)
	tree := o.Chunks(s.LeafBarsOf(o.Piece, o.Set.Borders), o.Set.Borders)
	w.Tree = &tree
	w.Opening = o.Opening(s.Words.Note)
	known := s.KnownNotes(id)
	var places []string
	for i := range o.Lines {
		l := &o.Lines[i]
		if len(l.Position.Positions) > 0 {
			places = append(places, s.Words.Position(l.Position.Positions[0].Name))
		}
		for _, g := range reading.Guides(o.Score, l.Line, func(p score.Pitch) bool { return known[p.String()] }) {
			w.Guides = append(w.Guides, s.Words.Guide(g))
		}
	}
	w.Position = strings.Join(slices.Compact(places), " and ")
	w.Guides = w.Guides[:min(len(w.Guides), mostGuides)]
	for _, b := range o.Score.Bars {
		w.Quarters = append(w.Quarters, b.Length.Float())
	}
	return w, nil
}

// drillOf is what the week needs to know of a material that is an exercise; nil for a piece.
func drillOf(s studentplan.Student, m material.Material, o *Reading) *week.Drill {
	if m.Exercise == "" {
		return nil
	}
	d := &week.Drill{Quarters: m.Quarters}
	for _, f := range m.FocusPoints {
		d.Goals = append(d.Goals, f.Text)
	}
	if o != nil {
		d.Quarters = o.Score.Length().Float()
	}
	if e, err := exercise.Parse(m.Exercise, s.OnInstrument()); err == nil {
		switch e.Step.Hands {
		case "apart":
			d.Apart = true
		case "right", "left":
			d.One = e.Step.Hands + " hand"
		}
	}
	return d
}

// plays says for each hand in which bars it plays or holds a note.
func plays(p *analysis.Piece) map[string][]bool {
	out := map[string][]bool{}
	for _, l := range p.Lines {
		hand := string(l.Hand) + " hand"
		if l.Hand != reading.Right && l.Hand != reading.Left {
			continue
		}
		bars := out[hand]
		if bars == nil {
			bars = make([]bool, len(p.Score.Bars))
			out[hand] = bars
		}
		for _, on := range l.Onset {
			for _, end := range on.Ends {
				first := sort.Search(len(bars), func(i int) bool { b := p.Score.Bars[i]; return on.At.Less(b.Start.Add(b.Length)) })
				for i := first; i < len(bars) && p.Score.Bars[i].Start.Less(end); i++ {
					bars[i] = true
				}
			}
		}
	}
	return out
}
