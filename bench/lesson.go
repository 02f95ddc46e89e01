package main

import (
	"fmt"
	"io"

	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/review"
)

// lessons prints what planning a day of ten lessons costs, of 30 to 60 minutes
// with everything that could be in them.
func lessons(w io.Writer) {
	var days [10]lessonplan.Input
	for i := range days {
		in := lessonplan.Input{Age: 4 + 3*i, Instrument: "piano", Gap: 7}
		for k, strand := range material.Strands()[:4] {
			in.Pieces = append(in.Pieces, lessonplan.Piece{Material: material.Material{ID: id("M", i, k), Strand: strand, Quarters: 64, Tempo: 80}, Points: 4, Spots: k, RunDue: k == 0})
		}
		for k := range 2 {
			in.Bites = append(in.Bites, lessonplan.Bite{Skill: fmt.Sprint("s", k), Slack: k})
		}
		for k := range 20 {
			in.Reviews = append(in.Reviews, review.Chosen{Piece: review.Piece{ID: id("R", i, k), Minutes: 1 + float64(k%3)}, Worth: 0.1 * float64(k)})
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
}
