// Package lived_test lets invented students live through lessons, weeks and days at home, in memory, and looks at what comes of the
// plans. What is true of them is not the program's model: a bar is learned by being played, the sooner the shorter the stretch
// is, and is forgotten a little while nobody plays it.
package lived_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/student/clearing"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// family is how one practises and reports.
type family struct {
	name string
	// keeps is the chance that a day is practised, all that a thing of it is; ticks that what was played is ticked.
	keeps, all, ticks float64
	// claims says that everything is ticked as fine, whatever was played.
	claims bool
}

var families = []family{
	{"steady", 0.9, 0.95, 1, false},
	{"tired", 0.55, 0.7, 1, false},
	{"forgetful", 0.8, 0.9, 0.3, false},
	{"ticks everything", 0.3, 0.7, 1, true},
}

// bar is what is true of a bar of a piece: how hard it is, 1 for the usual, and how well it goes, 0 to 1.
type bar struct{ hard, goes float64 }

type life struct {
	t       require.TestingT
	s       *studentplan.Student
	read    inweek.Read
	order   []string
	family  family
	rng     *rand.Rand
	log     []studentlog.Entry
	weeks   []studentplan.SetWeek
	at      time.Time
	n       int
	truth   map[string][]bar
	begun   map[string]int // lesson
	cleared map[string]int
	lesson  int
	lessons []lessonplan.Plan
}

// tune writes so many bars in which some come again: A B A' and so on.
func tune(rng *rand.Rand, bars int) string {
	var cells []string
	for range max(3, bars/2) {
		cell := ""
		for range 4 {
			cell += string("CDEFGABcde"[rng.IntN(10)])
		}
		cells = append(cells, cell)
	}
	out := "X:1\nT:Tune\nM:4/4\nL:1/4\nQ:1/4=80\nK:C\n"
	for range bars {
		out += cells[rng.IntN(len(cells))] + "|"
	}
	return out + "\n"
}

// born is a student with a book of so many pieces, exercises and cards, of which nothing is begun.
func born(t require.TestingT, f family, seed uint64) *life {
	l := &life{
		t: t, family: f, rng: rand.New(rand.NewPCG(seed, 5)), truth: map[string][]bar{}, begun: map[string]int{}, cleared: map[string]int{},
	}
	readings := map[string]*inweek.Reading{}
	var lib []material.Material
	add := func(m material.Material, bars int) {
		if bars > 0 {
			tunes, err := abc.Read([]byte(tune(l.rng, bars)))
			require.NoError(t, err)
			piece := analysis.Of(tunes[0], "piano")
			readings[m.ID] = &inweek.Reading{Piece: piece}
			m.HasScore, m.Quarters, m.Bars = true, piece.Score.Length().Float(), bars
		}
		for p := range 3 {
			m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: fmt.Sprintf("%s-f%d", m.ID, p), Text: "point"})
		}
		for range max(1, bars) {
			l.truth[m.ID] = append(l.truth[m.ID], bar{hard: math.Exp(0.6 * l.rng.NormFloat64())})
		}
		lib = append(lib, m)
		l.order = append(l.order, m.ID)
	}
	skills := []string{"pulse", "ties", "thumb", "plain"}
	for i := range 24 {
		add(plantest.InBook(fmt.Sprintf("m%02d", i), i, skills[i%len(skills)]), 4+2*l.rng.IntN(6))
	}
	for i, root := range []string{"C", "G", "D", "A", "F"} {
		m := plantest.ExerciseOf(fmt.Sprintf("t%02d", i), "five-finger/parallel/"+root+"/major-five-finger/-")
		m.Quarters = 16
		add(m, 0)
	}
	for i := range 8 {
		add(plantest.Piece(fmt.Sprintf("r%02d", i), material.Reading, "plain"), 4)
	}
	l.read = func(m material.Material) (*inweek.Reading, error) { return readings[m.ID], nil }
	l.s = plantest.Pupil(t, lib...)
	l.s.Policy.HomeCounts = true
	l.s.Policy.Standing.AtHome = standing.DefaultPolicy().AtHome
	l.at = plantest.Monday
	return l
}

func (l *life) write(e studentlog.Entry, actor string) {
	l.n++
	l.at = l.at.Add(time.Second)
	e.ID, e.At, e.Actor = fmt.Sprintf("e%06d", l.n), l.at, actor
	l.log = append(l.log, e)
}

// day moves to an hour of a day and folds the log.
func (l *life) day(day time.Time, hour int) {
	l.at = day.Add(time.Duration(hour) * time.Hour)
	l.s.Today, l.s.Now = day, l.at
	l.s.Standing = standing.Fold(l.log, standing.Context{
		Library: l.s.Library, Skills: l.s.Skills, Family: instrument.Keyboard, Policy: l.s.Policy.Standing, Day: day,
	})
}

// goes is how well a piece goes: its weakest bar, and all of it.
func (l *life) goes(id string) (weakest, all float64) {
	weakest = 1
	for _, b := range l.truth[id] {
		weakest = min(weakest, b.goes)
		all += b.goes / float64(len(l.truth[id]))
	}
	return weakest, all
}

// teach gives a lesson as it is planned.
func (l *life) teach(day time.Time) {
	l.day(day, 15)
	ahead := plantest.AheadIn(l.s, studentplan.Options{InLesson: true}, l.order...)
	before := inweek.BeforeOf(*l.s, l.weeks, l.s.Standing.Home, day.AddDate(0, 0, 1))
	plan, err := inlesson.Of(ahead, day, nil, before.Shown).Plan(lessonplan.Hand{})
	require.NoError(l.t, err)
	l.lessons = append(l.lessons, plan)
	for _, c := range plan.Segments {
		if _, known := l.s.Library[c.Material]; !known { // the frame, or an exercise that stands in no book
			continue
		}
		weakest, all := l.goes(c.Material)
		switch ms := l.s.Standing.Materials[c.Material]; c.Kind {
		case lessonplan.Begin:
			l.write(studentlog.Entry{Kind: studentlog.Assigned, Material: c.Material}, "t")
			l.begun[c.Material] = l.lesson
		case lessonplan.Working, lessonplan.Technique, lessonplan.Run, lessonplan.Reading:
			l.play(c.Material, 0, len(l.truth[c.Material]), 2)
			for p, f := range l.s.Library[c.Material].FocusPoints {
				if all > 0.5+0.15*float64(p) && ms != nil && ms.Marks[f.ID] != studentlog.Full {
					l.write(studentlog.Entry{Kind: studentlog.MarkGiven, Material: c.Material, Focus: f.ID, Mark: studentlog.Full}, "t")
				}
			}
			if ms != nil && ms.RunDue {
				e := studentlog.Entry{Kind: studentlog.RunTried, Material: c.Material}
				if weakest > 0.6 && all > 0.8 {
					for _, p := range clearing.Standard(instrument.Keyboard, clearing.Usual) {
						e.Met = append(e.Met, p.ID)
					}
					l.cleared[c.Material] = l.lesson
				}
				l.write(e, "t")
			}
		case lessonplan.Review:
			l.write(studentlog.Entry{Kind: studentlog.Hearing, Material: c.Material, Rating: 2 + int(2*all)}, "t")
			l.play(c.Material, 0, len(l.truth[c.Material]), 1)
		}
	}
	l.day(day, 16)
	l.lesson++
}

// play plays some bars, from one by position from 0 to another, so many times.
func (l *life) play(id string, from, to, times int) {
	bars := l.truth[id]
	long := 1 + 0.12*float64(to-from-1)
	for i := from; i < min(to, len(bars)); i++ {
		bars[i].goes += (1 - bars[i].goes) * (1 - math.Exp(-0.09*float64(times)/(bars[i].hard*long)))
	}
}

// practise lays out the week after a lesson and lives it at home.
func (l *life) practise(start time.Time) inweek.Week {
	ahead := plantest.AheadIn(l.s, studentplan.Options{}, l.order...)
	w, err := inweek.Lay(ahead, start, week.Hand{}, inweek.BeforeOf(*l.s, l.weeks, l.s.Standing.Home, start), l.read)
	require.NoError(l.t, err)
	l.weeks = append(l.weeks, studentplan.SetWeek{Start: start, Plan: w.Plan})
	for _, d := range w.Plan.Days {
		if l.at = d.Date.Add(17 * time.Hour); len(d.Items) == 0 {
			continue
		}
		practised := l.rng.Float64() < l.family.keeps
		for _, it := range d.Items {
			played := practised && l.rng.Float64() < l.family.all
			l.atHome(d.Date, it, played)
		}
		for id := range l.truth { // forgotten overnight
			for i := range l.truth[id] {
				l.truth[id][i].goes *= 0.99
			}
		}
	}
	return w
}

func (l *life) atHome(day time.Time, it week.Item, played bool) {
	felt, ticked := studentlog.Fine, l.family.claims
	if played {
		from, to := max(0, it.Bars.From-1), it.Bars.To
		if it.Bars.From == 0 {
			to = len(l.truth[it.Material])
		}
		l.play(it.Material, from, to, it.Times)
		worst := 1.0
		for i := from; i < min(to, len(l.truth[it.Material])); i++ {
			worst = min(worst, l.truth[it.Material][i].goes)
		}
		if worst < 0.35 && !l.family.claims {
			felt = studentlog.Hard
		}
		ticked = ticked || l.rng.Float64() < l.family.ticks
	}
	if ticked {
		l.write(studentlog.Entry{
			Kind: studentlog.Practised, Day: day.Format(time.DateOnly), Item: it.Key, Times: it.Times, Felt: felt,
		}, studentlog.Family)
	}
}

// live lives so many weeks and returns those of practice.
func (l *life) live(weeks int) (out []inweek.Week) {
	first := l.at
	for i := range weeks {
		day := first.AddDate(0, 0, 7*i)
		l.teach(day)
		out = append(out, l.practise(day.AddDate(0, 0, 1)))
	}
	return out
}

// hardest are the lessons that each cleared piece took that has a bar twice as hard as is usual.
func (l *life) hardest() (out []int) {
	for _, id := range l.order {
		hard := slices.ContainsFunc(l.truth[id], func(b bar) bool { return b.hard > 2 })
		if at, done := l.cleared[id]; done && hard {
			out = append(out, at-l.begun[id])
		}
	}
	return out
}

func mean(list []int) float64 {
	sum := 0
	for _, n := range list {
		sum += n
	}
	return float64(sum) / float64(max(1, len(list)))
}
