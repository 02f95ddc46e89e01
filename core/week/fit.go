package week

import "patientladder/core/material"

// fill puts the staircases into the days. The minutes of a day are a hard
// limit: a step that does not fit moves to the next day, and what is left
// after the last day is listed.
func fill(in Input, p *Plan) {
	queues := make([][]Item, len(in.Works))
	last := make([]*Item, len(in.Works))
	for i, w := range in.Works {
		queues[i] = staircase(w, in.Age)
	}
	days := practiceDays(p)
	reviewed := 0
	for n, d := range days {
		day := &p.Days[d]
		budget := float64(in.Minutes)
		share := budget
		if len(in.Reviews) > 0 {
			share = budget * (1 - in.ReviewShare)
		}
		for i, w := range in.Works {
			room := share / float64(len(in.Works))
			room -= day.add(spots(w, in.Age), room)
			if last[i] != nil {
				room -= day.add([]Item{again(*last[i])}, room)
			}
			quota := (len(queues[i]) + len(days) - n - 1) / (len(days) - n)
			for ; quota > 0 && len(queues[i]) > 0 && queues[i][0].Minutes <= room; quota-- {
				step := queues[i][0]
				queues[i] = queues[i][1:]
				room -= day.add([]Item{step}, room)
				if step.Kind != Look {
					last[i] = &step
				}
			}
			if len(queues[i]) > 0 && len(day.Items) == 0 {
				// A step longer than its share still gets the day if the day can hold it.
				if step := queues[i][0]; step.Minutes <= budget-day.Minutes {
					queues[i] = queues[i][1:]
					day.add([]Item{step}, budget)
					last[i] = &step
				}
			}
		}
		reviewed += day.reviews(in, reviewed)
		day.Focus = focusOf(in, n)
	}
	for _, q := range queues {
		p.LeftOut = append(p.LeftOut, q...)
	}
}

func practiceDays(p *Plan) []int {
	var days []int
	for i := range p.Days {
		if !p.Days[i].Rest {
			days = append(days, i)
		}
	}
	return days
}

// add puts those items on the day that fit into the room and returns the minutes they take.
func (d *Day) add(items []Item, room float64) float64 {
	taken := 0.0
	for _, it := range items {
		if taken+it.Minutes <= room {
			d.Items = append(d.Items, it)
			d.Minutes += it.Minutes
			taken += it.Minutes
		}
	}
	return taken
}

// reviews adds review pieces in turn, beginning after those of earlier days,
// each at most once a day, while they fit; it returns how many it added.
func (d *Day) reviews(in Input, from int) int {
	added := 0
	for added < len(in.Reviews) {
		it := review(in.Reviews[(from+added)%len(in.Reviews)])
		if d.add([]Item{it}, float64(in.Minutes)-d.Minutes) == 0 {
			break
		}
		added++
	}
	return added
}

func review(m material.Material) Item {
	mins := plainMinutes
	if m.Quarters > 0 {
		mins = minutes(m.Quarters/breath*practiceTempo, m.Tempo, 1, false)
	}
	return Item{Kind: Review, Material: m.ID, Title: m.Title, Times: 1, Minutes: mins,
		Words: "Play it for pleasure, once, from start to end."}
}

func spots(w Work, age int) []Item {
	var out []Item
	for _, b := range w.Spots {
		it := w.item(Spot, b.From, b.To, age)
		out = append(out, it)
	}
	return out
}

func again(step Item) Item {
	step.Kind = Again
	step.Times, step.InRow = 2, false
	step.Minutes = max(1, step.Minutes/2)
	step.Words = "Again from last time, to begin with."
	return step
}

// focusOf picks what to listen for on the nth practice day: the student's own
// points and the open points of the pieces in turn.
func focusOf(in Input, n int) string {
	var all []string
	all = append(all, in.Own...)
	for _, w := range in.Works {
		all = append(all, w.Focus...)
	}
	if len(all) == 0 {
		return ""
	}
	return all[n%len(all)]
}
