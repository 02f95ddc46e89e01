package main

import (
	"fmt"
	"math/rand/v2"
	"time"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/studentlog"
)

// invented is a made-up studio as large as they come: sixty students of the
// piano with three years of weekly lessons each.
type invented struct {
	day      time.Time
	lib      material.Library
	placed   []ladder.Placed
	students []pupil
}

type pupil struct {
	id  string
	log []studentlog.Entry
}

const (
	pupils = 60
	weeks  = 156
)

// pieces of each strand in the invented library.
var pieces = map[material.Strand]int{material.Method: 100, material.Technique: 50, material.Reading: 50, material.Repertoire: 20}

// id is of the form of the program's own.
func id(kind string, n ...int) string {
	out := "0" + kind
	for _, k := range n {
		out += fmt.Sprintf("%05d", k)
	}
	return (out + "0000000000000000000000000")[:26]
}

// invent makes the studio; the same seed makes the same.
func invent(skills skill.Catalogue, seed uint64) invented {
	random := rand.New(rand.NewPCG(seed, 1))
	s := invented{day: time.Date(2026, 9, 7, 0, 0, 0, 0, time.UTC), lib: material.Library{}}
	var all []skill.Skill
	for _, k := range skills.All() {
		if len(k.Instruments) == 0 || k.Instruments[0] == string(instrument.Keyboard) {
			all = append(all, k)
		}
	}
	for n, strand := range material.Strands() {
		for i := range pieces[strand] {
			m := material.Material{
				ID: id("M", n, i), Title: fmt.Sprintf("Piece %d", i+1), Strand: strand, Instrument: "piano", Order: i + 1,
				Tempo: float64(60 + i/2), Bars: 8 + i/6, DistinctBars: 4 + i/8, Quarters: float64(4 * (8 + i/6)), Texture: material.InTurn,
			}
			at := i * len(all) / pieces[strand]
			asked := map[int]bool{at: true}
			for range 2 + random.IntN(4) {
				asked[random.IntN(at+1)] = true
			}
			for k := range all {
				if asked[k] {
					m.Demands = append(m.Demands, material.Demand{Skill: all[k].ID, Weight: 0.5 + random.Float64(), Origin: "teacher"})
				}
			}
			for k, text := range material.UsualFocus("piano") {
				m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: id("F", n, i, k), Text: text})
			}
			s.lib[m.ID] = m
			s.placed = append(s.placed, ladder.Placed{Material: m.ID, Strand: strand})
		}
	}
	for i := range pupils {
		s.students = append(s.students, pupil{id("D", i), s.teach(i, all, random)})
	}
	return s
}

// teach writes the log of one student: a piece of each strand in work, marks,
// runs, learned pieces heard again, and a preview bite now and then.
func (s invented) teach(student int, all []skill.Skill, random *rand.Rand) []studentlog.Entry {
	var log []studentlog.Entry
	var learned []string
	at := s.day
	write := func(e studentlog.Entry) {
		at = at.Add(time.Minute)
		e.ID, e.At, e.Actor = id("E", student, len(log)), at, id("T")
		log = append(log, e)
	}
	working := map[material.Strand]int{}
	left := map[material.Strand]int{}
	pace := 1 + random.IntN(4)
	strands := []material.Strand{material.Method, material.Technique, material.Reading}
	for week := range weeks {
		at = s.day.AddDate(0, 0, 7*(week-weeks)).Add(15 * time.Hour)
		for n, strand := range strands {
			m := s.lib[id("M", n, working[strand])]
			if left[strand] == 0 {
				write(studentlog.Entry{Kind: studentlog.Assigned, Material: m.ID})
				left[strand] = 1 + random.IntN(pace+1)
			}
			f := m.FocusPoints[random.IntN(len(m.FocusPoints))]
			write(
				studentlog.Entry{
					Kind:     studentlog.MarkGiven,
					Material: m.ID,
					Focus:    f.ID,
					Mark:     []studentlog.Mark{studentlog.Part, studentlog.Full}[random.IntN(2)],
				},
			)
			if left[strand]--; left[strand] == 0 && working[strand] < pieces[strand]-1 {
				write(studentlog.Entry{Kind: studentlog.RunTried, Material: m.ID, Met: []string{"notes", "fingers", "rhythm", "tone", "flow"}})
				working[strand]++
				learned = append(learned, m.ID)
			}
		}
		for range min(2, len(learned)) {
			write(studentlog.Entry{Kind: studentlog.Hearing, Material: learned[random.IntN(len(learned))], Rating: 2 + random.IntN(3)})
		}
		if next := all[min(len(all)-1, week*len(all)/weeks+4)]; week%3 == 0 && len(next.Steps) > 0 {
			write(studentlog.Entry{Kind: studentlog.StepDone, Skill: next.ID, Step: 1})
		}
	}
	return log
}
