package progress

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Piece is one material from its beginning on.
type Piece struct {
	Material string
	State    standing.State
	// From is the day on which it was begun, or heard first where nobody said that; zero for one that was never begun here. To the one on which it was cleared,
	// zero while it is not. Polished is the day on which it was ready to be performed.
	From, To, Polished time.Time
	// Before says that it was known before the log began.
	Before bool
	// Leap is the effort it asked for when it was begun; Unknown says that nobody knows.
	Leap    float64
	Unknown bool
	// Weeks that it took, or has had by the end of the span where it is not cleared yet: holidays and rests taken out.
	Weeks float64
	// Rests are the days on which it was put away.
	Rests []Span
	Heard []Heard
	// BeginEntry and ClearEntry are the entries that say so.
	BeginEntry, ClearEntry string
}

// Heard is one hearing of a learned piece.
type Heard struct {
	Day    time.Time
	Rating int
	Entry  string
}

// way are the materials of the student by the day of their beginning, then strand, then id.
func (in Input) way() []Piece {
	breaks := in.Timetable().Breaks()
	byID := map[string]*Piece{}
	last := in.Span.To
	if last.After(in.Today) {
		last = in.Today
	}
	for id, m := range in.Standing.Materials {
		if m.State == standing.Heard {
			continue
		}
		x := &Piece{Material: id, State: m.State, Before: m.Why == standing.FromBefore, Unknown: in.Library[id].Unknown()}
		if !m.Assigned.IsZero() {
			x.From = in.Local(m.Assigned)
		}
		if !m.ClearedAt.IsZero() {
			x.To = in.Local(m.ClearedAt)
		}
		if m.Before != nil {
			x.Leap = m.Before.Size
		}
		byID[id] = x
	}
	// What was never said to be begun, or was taken back, is there from the first time that a lesson heard it.
	for _, e := range in.Live {
		if x := byID[e.Material]; x != nil && x.From.IsZero() && !x.Before && e.InLesson() {
			x.From = in.Local(e.At)
		}
	}
	for id, x := range byID {
		if x.From.IsZero() {
			continue
		}
		until := last
		if !x.To.IsZero() {
			until = x.To
		}
		m := in.Standing.Materials[id]
		rested := m.Rested
		if m.State == standing.Resting {
			rested += max(0, int(civil.On(until)-m.PausedOn))
		}
		x.Weeks = max(0, until.Sub(x.From).Hours()/(24*7)-float64(rested)/7-float64(calendar.WeeksOff(x.From, until, breaks)))
	}
	resting := map[string]time.Time{}
	for _, e := range in.Live {
		x := byID[e.Material]
		if x == nil {
			continue
		}
		day := in.Local(e.At)
		switch e.Kind {
		case studentlog.Assigned:
			if x.BeginEntry == "" {
				x.BeginEntry = e.ID
			}
		case studentlog.Paused:
			if resting[e.Material].IsZero() {
				resting[e.Material] = day
			}
		case studentlog.Resumed:
			x.rest(resting, day)
		case studentlog.Hearing:
			x.Heard = append(x.Heard, Heard{Day: day, Rating: e.Rating, Entry: e.ID})
		case studentlog.Polished:
			if x.Polished.IsZero() {
				x.Polished = day
			}
		}
		if e.At.Equal(in.Standing.Materials[e.Material].ClearedAt) &&
			(e.Kind == studentlog.RunTried || e.Kind == studentlog.Cleared || e.Kind == studentlog.Polished || e.Kind == studentlog.KnownBefore) {
			x.ClearEntry = e.ID
		}
		if e.Kind == studentlog.Assigned {
			x.rest(resting, day)
		}
	}
	out := make([]Piece, 0, len(byID))
	for id, x := range byID {
		if at := resting[id]; !at.IsZero() {
			x.Rests = append(x.Rests, Span{at, last})
		}
		out = append(out, *x)
	}
	slices.SortFunc(out, func(a, b Piece) int {
		return cmp.Or(a.begun().Compare(b.begun()), in.strandOf(a.Material)-in.strandOf(b.Material), strings.Compare(a.Material, b.Material))
	})
	return out
}

// begun is the first day that is known of a piece.
func (p Piece) begun() time.Time {
	if p.From.IsZero() {
		return p.To
	}
	return p.From
}

func (p *Piece) rest(resting map[string]time.Time, day time.Time) {
	if at := resting[p.Material]; !at.IsZero() {
		p.Rests = append(p.Rests, Span{at, day})
		delete(resting, p.Material)
	}
}

// Lanes say for each piece in which of the lanes of its strand it is drawn, from 0, so that no two that were in work at
// one time share one: the first lane that is free. Of each strand the number of lanes is as small as it can be.
func Lanes(pieces []Piece, lib material.Library, until time.Time) (lane map[string]int, width map[material.Strand]int) {
	lane, width = map[string]int{}, map[material.Strand]int{}
	free := map[material.Strand][]time.Time{} // the day on which each lane becomes free
	for _, p := range pieces {
		if p.From.IsZero() {
			continue
		}
		ends := p.To
		if ends.IsZero() {
			ends = until
		}
		s := lib[p.Material].Strand
		k := slices.IndexFunc(free[s], func(day time.Time) bool { return !p.From.Before(day) })
		if k < 0 {
			k = len(free[s])
			free[s] = append(free[s], time.Time{})
		}
		free[s][k] = ends
		lane[p.Material], width[s] = k, len(free[s])
	}
	return lane, width
}

// Way are the pieces of a student until today, without the entries that say so.
func Way(s studentplan.Student) []Piece {
	return Input{Student: s, Span: Span{To: s.Today}}.way()
}
