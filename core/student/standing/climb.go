package standing

import (
	"time"

	"patientladder/core/base/metronome"
	"patientladder/core/student/studentlog"
)

// Climb is a tempo ladder on its way: a mark of the metronome for each week.
type Climb struct {
	From  int       `json:"from"`
	To    int       `json:"to"`
	Since time.Time `json:"since"`
	// Marks are those of the weeks, At the one that is played now; len(Marks) when all held.
	Marks []int `json:"marks"`
	At    int   `json:"at"`
	// Eased counts the weeks that did not hold, by each of which the climb became a week longer.
	Eased int `json:"eased"`
}

// Mark is the tempo to play at now: the goal once all held.
func (c *Climb) Mark() int { return c.Marks[min(c.At, len(c.Marks)-1)] }

// climb begins a tempo ladder anew, or ends it.
func (f *fold) climb(w *work, e *studentlog.Entry) {
	w.Climb = nil
	if marks, err := metronome.Ladder(e.Climb.From, e.Climb.To, e.Climb.Weeks); err == nil {
		w.Climb = &Climb{From: e.Climb.From, To: e.Climb.To, Since: e.At, Marks: marks}
	}
}

// tempo takes note of how a tempo went. One that held moves the climb on; after one that did
// not, a climb goes back to the mark that last held, or one below the first.
func (f *fold) tempo(w *work, e *studentlog.Entry) {
	if e.Held && e.Tempo > w.Tempo {
		w.Tempo = e.Tempo
	}
	f.played(w, e)
	c := w.Climb
	if c == nil || c.At == len(c.Marks) {
		return
	}
	if e.Held {
		for c.At < len(c.Marks) && e.Tempo >= c.Marks[c.At] {
			c.At++
		}
		return
	}
	if e.Tempo > c.Mark() {
		return // a try above the mark of the week says nothing about it
	}
	held := c.From
	if c.At > 0 {
		held = c.Marks[c.At-1]
	}
	if now := c.Marks[c.At]; metronome.Nearest(float64(held)) >= now {
		held = metronome.Below(now)
	}
	if rest, err := metronome.Eased(c.Marks[c.At:], held, 0); err == nil {
		c.Marks = append(c.Marks[:c.At:c.At], rest...)
		c.Eased++
	}
}
