package lesson

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/library/material"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/lookback"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
)

// Piece is a piece in the lesson, or an exercise on the screen of technique. Live is the log as it counts.
func Piece(ctx context.Context, d *open.Loader, s open.Student, id string, live []*studentlog.Entry) (contract.LessonPiece, error) {
	m, ms := s.Library[id], s.Standing.Materials[id]
	p := contract.LessonPiece{
		Material: id, Title: m.Title, From: answer.From(m), Strand: contract.Strand(m.Strand), State: contract.LessonPieceState(ms.State),
		Bars: m.Bars, BarLabels: m.Labels(), Points: []contract.FocusPoint{}, Spots: []contract.Spot{}, Runs: []contract.Run{},
		RunDue: ms.RunDue, Why: wording.Standing(ms.Where(), s.Family()), Lessons: ms.Lessons, Gate: contract.Gate(ms.Gate),
		Hand: inweek.Gated(s.Student, id).Hand(), Exercise: m.Exercise, Faults: []contract.Fault{},
	}
	if e, err := s.Exercises.Parse(m.Exercise, s.OnInstrument()); err == nil {
		p.Faults = Faults(e, func(id string) contract.Mark { return contract.Mark(s.Standing.FaultMark(ms, id)) })
	}
	if p.Gate == "" {
		p.Gate = contract.GateAutomatic
	}
	marks, now := studentlog.MarksOf(live, id), studentlog.LastMarks(lookback.EnteredToday(s.Student, live), id)
	for _, f := range s.PointsOf(id) {
		history := []contract.Mark{}
		for _, mark := range marks[f.ID] {
			history = append(history, contract.Mark(mark))
		}
		point := contract.FocusPoint{Id: f.ID, Text: f.Text, Own: f.Own, Streak: f.Streak, Mark: contract.Mark(ms.Marks[f.ID]), History: history}
		if e, given := now[f.ID]; given {
			point.Marked = e.ID
		}
		p.Points = append(p.Points, point)
	}
	for _, spot := range ms.Spots {
		p.Spots = append(
			p.Spots,
			contract.Spot{Id: spot.ID, From: spot.From, To: spot.To, Where: m.Span(spot.From, spot.To), Text: spot.Text, Mended: spot.Mended},
		)
	}
	if mark, any := ms.SpotsMark(); any {
		p.SpotsMark = contract.Mark(mark)
	}
	for _, run := range ms.Runs {
		p.Runs = append(
			p.Runs,
			contract.Run{Id: run.ID, At: run.At, Met: append([]string{}, run.Met...), Cleared: run.Cleared, Why: wording.Run(run, s.Family())},
		)
	}
	o, err := d.Read(ctx, s.Tenant, m)
	if err == nil && o != nil {
		p.Opening = o.Opening(s.Words.Key)
	}
	return p, err
}

// Faults are the usual faults of an exercise with the marks that they got; mark may be nil.
func Faults(e exercise.Exercise, mark func(id string) contract.Mark) []contract.Fault {
	out := []contract.Fault{}
	for _, f := range e.Type.Watched() {
		x := contract.Fault{Id: material.Fault + f.ID, Text: f.Text, Look: f.Look}
		if mark != nil {
			x.Mark = mark(x.Id)
		}
		out = append(out, x)
	}
	return out
}
