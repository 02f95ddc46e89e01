package demo

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/naming"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

//go:embed technique.json
var techniqueFile []byte

// course is what a student has done on the staircases of exercises.
type course struct {
	// Exercises in the order in which they were begun.
	Exercises []struct {
		ID string `json:"id"`
		// Begun and Cleared are lessons ago; 0 for an exercise that is still worked at.
		Begun   int `json:"begun"`
		Cleared int `json:"cleared"`
		// Seen is a usual fault that was seen in the last lesson.
		Seen string `json:"seen"`
	} `json:"exercises"`
	// Cycle is the one that is kept, begun so many lessons ago.
	Cycle *studentlog.Cycle `json:"cycle"`
	Began int               `json:"began"`
	// Missed lessons, ago.
	Missed []int `json:"missed"`
	// Climb is a tempo ladder of the last exercise, begun so many lessons ago, with how each week's mark went.
	Climb *studentlog.Climb `json:"climb"`
	Held  []bool            `json:"held"`
}

// climbStairs writes what a student did on the staircases into the log of the lessons, apart
// from the chances by which pieces are learned, so that these stay the same.
func climbStairs(
	ctx context.Context,
	st *store.Store,
	studio string,
	l store.Ladder,
	day time.Time,
	sim *simulation,
	table demand.Table,
	seed uint64,
) error {
	var all map[string]course
	if err := json.Unmarshal(techniqueFile, &all); err != nil {
		return fmt.Errorf("technique.json: %w", err)
	}
	c, ok := all[sim.student.Name]
	if !ok {
		return nil
	}
	x, _ := instrument.Of(l.Instrument)
	ids := newIDs(seed)
	lesson := func(ago int) time.Time {
		return civil.At(day.AddDate(0, 0, sim.student.DayOffset-7*ago), l.Lessons.Slots[0].StartsAt+6, sim.zone)
	}
	clock := map[int]time.Time{}
	write := func(ago int, e studentlog.Entry) {
		if clock[ago].IsZero() {
			clock[ago] = lesson(ago)
		}
		clock[ago] = clock[ago].Add(40 * time.Second)
		e.ID, e.At, e.Actor = ids.next(clock[ago]), clock[ago], sim.teacher
		sim.log = append(sim.log, e)
	}
	if c.Cycle != nil {
		c.Cycle.From = lesson(c.Began).Format(time.DateOnly)
		write(c.Began, studentlog.Entry{Kind: studentlog.CycleKept, Cycle: c.Cycle})
	}
	for _, ago := range c.Missed {
		write(ago, studentlog.Entry{Kind: studentlog.LessonMissed, Day: lesson(ago).Format(time.DateOnly)})
	}
	last := ""
	for _, w := range c.Exercises {
		e, err := exercise.Parse(w.ID, x)
		if err != nil {
			return err
		}
		d, err := drill.Of(e, naming.Words{}, table)
		if err != nil {
			return err
		}
		m := d.Material
		if added, err := st.AddMaterial(ctx, studio, m, &store.ScoreFile{Name: drill.FileName, Data: d.Score}); err != nil {
			return err
		} else if added {
			if err := st.SaveReading(ctx, studio, store.Reading{Material: m, Set: d.Given}); err != nil {
				return err
			}
		}
		sim.lib[m.ID] = m
		last = m.ID
		write(w.Begun, studentlog.Entry{Kind: studentlog.Assigned, Material: m.ID})
		marks := []studentlog.Mark{studentlog.Full, studentlog.Part, studentlog.None}
		heard := 1
		if w.Cleared > 0 {
			marks, heard = []studentlog.Mark{studentlog.Full, studentlog.Full, studentlog.Full}, w.Cleared
		}
		for i, p := range m.FocusPoints {
			write(heard, studentlog.Entry{Kind: studentlog.MarkGiven, Material: m.ID, Focus: p.ID, Mark: marks[i]})
		}
		if w.Seen != "" {
			write(1, studentlog.Entry{Kind: studentlog.MarkGiven, Material: m.ID, Focus: "fault." + w.Seen, Mark: studentlog.Part})
		}
		if w.Cleared > 0 {
			write(w.Cleared, studentlog.Entry{Kind: studentlog.Cleared, Material: m.ID})
		}
	}
	if c.Climb != nil {
		write(len(c.Held)+1, studentlog.Entry{Kind: studentlog.ClimbBegun, Material: last, Climb: c.Climb})
		for i, held := range c.Held {
			now := sim.standing().Materials[last].Climb
			write(len(c.Held)-i, studentlog.Entry{Kind: studentlog.TempoPlayed, Material: last, Tempo: now.Mark(), Held: held})
		}
	}
	slices.SortStableFunc(sim.log, func(a, b studentlog.Entry) int { return a.At.Compare(b.At) })
	return nil
}
