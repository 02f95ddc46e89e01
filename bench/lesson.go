package main

import (
	"fmt"
	"io"
	"time"

	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/review"
	"patientladder/core/planning/week"
	"patientladder/core/reading/chunk"
)

// lessons prints what planning a day of ten lessons costs, of 30 to 60 minutes
// with everything that could be in them.
func lessons(w io.Writer) {
	var days [10]lessonplan.Input
	for i := range days {
		in := lessonplan.Input{Age: 4 + 3*i, Instrument: "piano", Gap: 7}
		for k, strand := range material.Strands()[:4] {
			in.Pieces = append(
				in.Pieces,
				lessonplan.Piece{
					Material: material.Material{ID: id("M", i, k), Strand: strand, Quarters: 64, Tempo: 80},
					Points:   4,
					Spots:    k,
					RunDue:   k == 0,
				},
			)
		}
		for k := range 2 {
			in.Bites = append(in.Bites, lessonplan.Bite{Skill: fmt.Sprint("s", k), Slack: k})
		}
		for k := range 20 {
			in.Reviews = append(
				in.Reviews,
				review.Chosen{Piece: review.Piece{ID: id("R", i, k), Minutes: 1 + float64(k%3)}, Worth: 0.1 * float64(k)},
			)
		}
		days[i] = in
	}
	segments := 0
	plan := cost(func() error {
		segments = 0
		for i, in := range days {
			p, err := lessonplan.Make(lessonplan.Candidates(in), lessonplan.LimitsFor(in.Age, 30+15*(i%3), 0.45), lessonplan.Hand{})
			if err != nil {
				return err
			}
			segments += len(p.Segments)
		}
		return nil
	})
	fmt.Fprintln(w, "a day of lessons\tsegments\tplanned in\taim\t")
	fmt.Fprintf(w, "10 lessons\t%d\t%s\tunder 50 ms\t\n", segments, ms(plan))
	items := 0
	laid := cost(func() error {
		p, err := week.Make(aWeek())
		items = 0
		for _, d := range p.Days {
			items += len(d.Items)
		}
		return err
	})
	fmt.Fprintf(w, "a week of practice\t%d\t%s\tunder 5 ms\t\n", items, ms(laid))
}

// aWeek is one of three working pieces of 32 bars, two scales, twenty learned pieces and two bites, half an hour a day.
func aWeek() week.Input {
	in := week.Input{
		Start: time.Date(2026, 9, 8, 0, 0, 0, 0, time.UTC), Practises: [7]bool{true, true, true, true, true, true, true}, Minutes: 30, Age: 9,
		ReviewShare: 0.45,
		Bites:       []week.Bite{{Skill: "a", Name: "a"}, {Skill: "b", Name: "b"}},
	}
	for i := range 3 {
		w := week.Work{Material: material.Material{ID: id("M", i), Tempo: 80, Bars: 32}}
		tree := halves(1, 32)
		w.Tree = &tree
		for range 32 {
			w.Quarters = append(w.Quarters, 4)
		}
		in.Works = append(in.Works, w)
	}
	for i := range 2 {
		in.Works = append(
			in.Works,
			week.Work{Material: material.Material{ID: id("S", i), Tempo: 60}, Drill: &week.Drill{Apart: true, Quarters: 16}},
		)
	}
	for i := range 20 {
		in.Reviews = append(in.Reviews, material.Material{ID: id("R", i), Quarters: float64(40 + 8*i), Tempo: 90})
	}
	return in
}

// halves is a tree of chunks down to single bars.
func halves(from, size int) chunk.Chunk {
	c := chunk.Chunk{
		From:  from,
		To:    from + size - 1,
		Start: rational.Int(int64(4 * (from - 1))),
		End:   rational.Int(int64(4 * (from + size - 1))),
	}
	if size > 1 {
		c.Parts = []chunk.Chunk{halves(from, size/2), halves(from+size/2, size/2)}
	}
	return c
}
