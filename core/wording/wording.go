// Package wording turns facts into plain English sentences, in the studio's names for notes
// and values. It decides nothing: what is said, in which order and how urgent it is comes with
// the facts. Nothing reads its sentences back.
//
//	wording.go      the names that sentences need
//	number.go       numbers, plurals, lists, percentages
//	date.go         days, ranges of days
//	calendar.go     dated lessons, lesson times, pauses
//	due.go          what is due, and the sentences of a day and of a studio
//	ladder.go       the ladder, the next rung, another order, targets
//	preview.go      what is planted for what
//	review.go       how learned pieces are kept
//	lesson.go       the plan of a lesson
//	past.go         lessons that were
//	known.go        what was known before, sections, treats, books removed
//	week.go         the week of practice
//	home.go         what came from home, and what a family reads
//	technique.go    exercises, staircases, cycles, tempo ladders
//	entry.go        the entries of a log
//	way.go          ways of teaching
//	library.go      books
//	fit.go          what could come next
//	piece.go        a piece in one sentence
//	student.go      where a material stands, leaps, who is ready
package wording

import (
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/reading/naming"
)

// Names are what sentences need to name things.
type Names struct {
	Library material.Library
	// Skills are in the studio's words.
	Skills skill.Catalogue
	Words  naming.Words
	// Pool are the activities of the studio.
	Pool lessonplan.Pool
	// Meetings are the activities of its first meetings.
	Meetings meeting.Set
}

// Title is the title of a material in quotation marks.
func (n Names) Title(id string) string { return Quoted(n.Library[id].Title) }

// Titles are several, as a list.
func (n Names) Titles(ids []string) string {
	var out []string
	for _, id := range ids {
		out = append(out, n.Title(id))
	}
	return List(out)
}

// skillNames are the names of some skills, as a list.
func (n Names) skillNames(ids []string) string {
	var out []string
	for _, id := range ids {
		out = append(out, n.Skills.Name(id))
	}
	return List(out)
}

// Quoted puts a title into quotation marks.
func Quoted(title string) string { return "“" + title + "”" }
