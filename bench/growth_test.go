package main

import (
	"fmt"
	"runtime"
	"runtime/debug"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// spent is the processor's time of this thread: what others do beside it does not count.
func spent(t *testing.T) time.Duration {
	const thread = 1 // RUSAGE_THREAD
	var u syscall.Rusage
	require.NoError(t, syscall.Getrusage(thread, &u))
	return time.Duration(u.Utime.Nano() + u.Stime.Nano())
}

// begins is the day on which everything begins.
var begins = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

// What must be linear, and is held to it by comparing two sizes within one run: what grows with the square takes 64 times as long
// for eight times as much, what is linear 8 times, and up to four times that where the memory near the processor is full. The best
// of some runs counts.
func TestEightTimesAsMuchTakesAboutEightTimesAsLong(t *testing.T) {
	const small, large, most = 400, 3200, 32.0
	defer debug.SetGCPercent(debug.SetGCPercent(-1)) // the work itself, not the tidying up
	defer runtime.GOMAXPROCS(runtime.GOMAXPROCS(1))  // and all of it on this thread
	tune := func(bars int) []byte {
		var b strings.Builder
		b.WriteString("X:1\nT:Long\nM:4/4\nL:1/8\nK:C\n")
		for i := range bars { // runs that leave the five fingers, turned round every other bar
			if i%2 == 0 {
				b.WriteString("CDEF GABc|")
			} else {
				b.WriteString("cBAG FEDC|")
			}
			if i%8 == 7 {
				b.WriteString("\n")
			}
		}
		return []byte(b.String())
	}
	read := func(bars int) []byte {
		list, err := abc.Read(tune(bars))
		require.NoError(t, err)
		return musicxml.Write(list[0], musicxml.Options{})
	}
	log := func(n int) []studentlog.Entry {
		out := make([]studentlog.Entry, n)
		for i := range out {
			at := time.Date(2020, 1, 1, 15, 0, 0, 0, time.UTC).Add(time.Duration(i) * time.Hour)
			out[i] = studentlog.Entry{ID: fmt.Sprintf("%026d", i), At: at, Kind: studentlog.Hearing, Material: fmt.Sprint("m", i%50), Rating: 3}
		}
		return out
	}
	for name, prepare := range map[string]func(n int) func(){
		"reading ABC":      func(n int) func() { data := tune(n); return func() { _, _ = abc.Read(data) } },
		"reading MusicXML": func(n int) func() { data := read(n); return func() { _, _ = musicxml.Read(data) } },
		"analysis": func(n int) func() {
			s, err := musicxml.Read(read(n))
			require.NoError(t, err)
			return func() { analysis.Of(s, "piano") }
		},
		"loads": func(n int) func() {
			s, err := musicxml.Read(read(n))
			require.NoError(t, err)
			p := analysis.Of(s, "piano")
			return func() { p.Loads(0) }
		},
		"the fold of a log": func(n int) func() { list := log(40 * n); return func() { standing.Fold(list, standing.Context{}) } },
		"drawing a ladder": func(n int) func() {
			lib, placed := material.Library{}, make([]ladder.Placed, n)
			for i := range placed {
				id := fmt.Sprint("p", i)
				lib[id] = material.Material{ID: id, Strand: material.Method, Bars: 8, DistinctBars: 6, Tempo: 80,
					Demands: []material.Demand{{Skill: fmt.Sprint("s", i%40), Weight: 1}}}
				placed[i] = ladder.Placed{Material: id, Strand: material.Method}
			}
			st := standing.Fold(log(50), standing.Context{Library: lib})
			return func() {
				for range 5 {
					ladder.Draw(st, lib, placed, leap.DefaultPolicy(), begins, n)
				}
			}
		},
		"laying out a week": func(n int) func() {
			s, err := musicxml.Read(read(n / 4))
			require.NoError(t, err)
			o := analysis.Of(s, "piano")
			tree := o.Chunks(2, nil)
			w := week.Work{Material: material.Material{ID: "p", Title: "P", Tempo: 80}, Tree: &tree}
			for _, b := range o.Score.Bars {
				w.Quarters = append(w.Quarters, b.Length.Float())
			}
			in := week.Input{Start: begins, Practises: [7]bool{true, true, true, true, true, true, true}, Minutes: 60, Age: 12, Works: []week.Work{w}}
			_, err = week.Make(in)
			require.NoError(t, err)
			return func() {
				for range 60 {
					_, _ = week.Make(in)
				}
			}
		},
		"the lessons of years": func(n int) func() {
			table := calendar.Weekly(time.Monday, 900, 30, begins)
			table.Pauses = []calendar.Break{{From: begins.AddDate(0, 2, 0), To: begins.AddDate(0, 3, 0)}}
			return func() {
				for range 40 {
					table.Between(begins, begins.AddDate(0, 0, 7*n))
				}
			}
		},
	} {
		t.Run(name, func(t *testing.T) {
			runtime.LockOSThread()
			defer runtime.UnlockOSThread()
			took := func(n, times int) time.Duration {
				work := prepare(n)
				best := time.Hour
				for range 4 {
					runtime.GC()
					from := spent(t)
					for range times {
						work()
					}
					best = min(best, spent(t)-from)
				}
				return best
			}
			ratio := 8 * float64(took(large, 1)) / float64(took(small, large/small))
			t.Logf("%s: %.1f times as long", name, ratio)
			require.Less(t, ratio, most)
		})
	}
}
