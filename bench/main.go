// Command bench prints what the main computations cost.
//
//	main.go    reading a score, beside the floor of only tokenising its XML; folding a log
//	monday.go  the week of a whole studio
//	lesson.go  a day of lessons planned
//	page.go    the data of a page among many studios, beside the bare statements
//	crowd.go   what a crowd does to a server: memory, answers, how long a teacher waits
//	studio.go  the invented studio that it is measured on
package main

import (
	"bytes"
	"encoding/xml"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"runtime"
	"runtime/debug"
	"runtime/pprof"
	"strings"
	"testing"
	"text/tabwriter"
	"time"

	"patientladder/api"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func main() {
	only := flag.String("only", "", "one of the tables: score, log, monday, lesson, page, crowd; all but the crowd without it")
	studios := flag.Int("studios", 200, "how many studios stand in the database for the table of pages")
	profile := flag.String("profile", "", "a file for a profile of the processor time")
	flag.Parse()
	if *profile != "" {
		f, err := os.Create(*profile)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		defer f.Close()
		if err := pprof.StartCPUProfile(f); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		defer pprof.StopCPUProfile()
	}
	debug.SetGCPercent(api.GCPercent) // as the server does
	if err := run(os.Stdout, *only, *studios); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(out io.Writer, only string, studios int) error {
	skills, table, err := demand.Shipped()
	if err != nil {
		return err
	}
	for _, t := range []struct {
		name  string
		print func(io.Writer) error
	}{
		{"score", func(w io.Writer) error { return scores(w, table) }},
		{"log", func(w io.Writer) error { folds(w, skills); return nil }},
		{"monday", func(w io.Writer) error { monday(w, skills); return nil }},
		{"lesson", func(w io.Writer) error { lessons(w); return nil }},
		{"page", func(w io.Writer) error { return pages(w, skills, studios) }},
		{"crowd", func(w io.Writer) error { return crowd(w, skills) }},
	} {
		if only != "" && only != t.name || only == "" && t.name == "crowd" {
			continue
		}
		w := tabwriter.NewWriter(out, 0, 0, 2, ' ', tabwriter.AlignRight)
		if err := t.print(w); err != nil {
			return err
		}
		fmt.Fprintln(w)
		if err := w.Flush(); err != nil {
			return err
		}
	}
	return nil
}

// scores prints what reading a score costs.
func scores(w io.Writer, table demand.Table) error {
	fmt.Fprintln(w, "two-hand score\tKB\ttokenise\tread\tread + analyse\tread ÷ tokenise\tall ÷ tokenise\tmemory\t")
	for _, bars := range []int{64, 512, 4096} {
		data := twoHands(bars)
		floor := cost(func() error { return tokenise(data) })
		read := cost(func() error { _, err := musicxml.Read(data); return err })
		all := cost(func() error { return analyse(data, table) })
		held, err := memory(data)
		if err != nil {
			return err
		}
		fmt.Fprintf(
			w,
			"%d bars\t%d\t%s\t%s\t%s\t%.2f\t%.2f\t%.1f MB\t\n",
			bars,
			len(data)>>10,
			ms(floor),
			ms(read),
			ms(all),
			ratio(read, floor),
			ratio(all, floor),
			held,
		)
	}
	return nil
}

// folds prints what folding a log costs.
func folds(w io.Writer, skills skill.Catalogue) {
	fmt.Fprintln(w, "standing\tentries\tfold\t")
	for _, n := range []int{100, 1000, 10000} {
		log := written(n)
		ctx := standing.Context{
			Library: library(),
			Skills:  skills,
			Family:  instrument.Keyboard,
			Policy:  standing.DefaultPolicy(),
			Day:     log[len(log)-1].At,
		}
		fold := cost(func() error { standing.Fold(log, ctx); return nil })
		fmt.Fprintf(w, "one student\t%d\t%s\t\n", n, ms(fold))
	}
}

// cost is the time of one call, by the testing package's own measure. What is
// measured must not fail: an error ends the program.
func cost(f func() error) time.Duration {
	r := testing.Benchmark(func(b *testing.B) {
		for b.Loop() {
			if err := f(); err != nil {
				panic(err)
			}
		}
	})
	return time.Duration(r.NsPerOp())
}

// memory is what stays in use for one score and its analysis, in megabytes.
func memory(data []byte) (float64, error) {
	var before, after runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	s, err := musicxml.Read(data)
	if err != nil {
		return 0, err
	}
	p := analysis.Of(s, "piano")
	runtime.GC()
	runtime.ReadMemStats(&after)
	runtime.KeepAlive(p)
	return float64(after.HeapAlloc-before.HeapAlloc) / (1 << 20), nil
}

func ms(d time.Duration) string { return fmt.Sprintf("%.2f ms", float64(d.Microseconds())/1000) }

func ratio(a, b time.Duration) float64 { return float64(a) / float64(b) }

func tokenise(data []byte) error {
	dec := xml.NewDecoder(bytes.NewReader(data))
	for {
		if _, err := dec.Token(); errors.Is(err, io.EOF) {
			return nil
		} else if err != nil {
			return err
		}
	}
}

func analyse(data []byte, table demand.Table) error {
	s, err := musicxml.Read(data)
	if err != nil {
		return err
	}
	p := analysis.Of(s, "piano")
	p.Chunks(2, nil)
	table.Find(p)
	p.Loads(0)
	return nil
}

// twoHands writes a score of quavers over chords, as notation programs do.
func twoHands(bars int) []byte {
	var b strings.Builder
	b.WriteString(
		`<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">`,
	)
	for bar := range bars {
		fmt.Fprintf(&b, `<measure number="%d" width="240.00">`, bar+1)
		if bar == 0 {
			b.WriteString(
				`<attributes><divisions>2</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>`,
			)
		}
		for i := range 8 {
			note(&b, "CDEFGAB"[(bar+i*i)%7], 4+i%2, 1, 1, "eighth", "")
		}
		b.WriteString(`<backup><duration>8</duration></backup>`)
		for i := range 2 {
			note(&b, "CFG"[(bar+i)%3], 3, 4, 2, "half", "")
			note(&b, "EAB"[(bar+i)%3], 3, 4, 2, "half", "<chord/>")
		}
		b.WriteString("</measure>")
	}
	b.WriteString("</part></score-partwise>")
	return []byte(b.String())
}

func note(b *strings.Builder, step byte, octave, duration, staff int, kind, chord string) {
	fmt.Fprintf(
		b,
		`<note default-x="80.72" default-y="-15.00">%s<pitch><step>%c</step><octave>%d</octave></pitch><duration>%d</duration><voice>%d</voice><type>%s</type><stem>up</stem><staff>%d</staff></note>`,
		chord,
		step,
		octave,
		duration,
		4*staff-3,
		kind,
		staff,
	)
}

func library() material.Library {
	lib := material.Library{}
	for i := range 60 {
		id := fmt.Sprint("m", i)
		lib[id] = material.Material{
			ID:          id,
			Strand:      material.Method,
			Demands:     []material.Demand{{Skill: "rests", Weight: 1}, {Skill: "ties", Weight: 0.5}},
			FocusPoints: []material.FocusPoint{{ID: "a"}, {ID: "b"}},
		}
	}
	return lib
}

// written are n entries of a student who works through the library.
func written(n int) []studentlog.Entry {
	at := time.Date(2026, 1, 5, 15, 0, 0, 0, time.UTC)
	log := make([]studentlog.Entry, n)
	for i := range log {
		at = at.Add(7 * time.Hour)
		e := studentlog.Entry{ID: fmt.Sprintf("E%07d", i), At: at, Material: fmt.Sprint("m", i/8%60)}
		switch i % 8 {
		case 0:
			e.Kind = studentlog.Assigned
		case 7:
			e.Kind, e.Met = studentlog.RunTried, []string{"notes", "fingers", "rhythm", "tone", "flow"}
		default:
			e.Kind, e.Focus, e.Mark = studentlog.MarkGiven, "ab"[i%2:i%2+1], studentlog.Full
		}
		log[i] = e
	}
	return log
}
