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

	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/analysis"
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

// What must be linear, and is held to it by comparing two sizes within one run: what grows with the square takes 64 times as long
// for eight times as much, what is linear 8 times, and up to four times that where the memory near the processor is full. The best
// of some runs counts.
func TestEightTimesAsMuchTakesAboutEightTimesAsLong(t *testing.T) {
	const small, large, most = 400, 3200, 32.0
	defer debug.SetGCPercent(debug.SetGCPercent(-1)) // the work itself, not the tidying up
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
		"the fold of a log": func(n int) func() { list := log(40 * n); return func() { standing.Fold(list, standing.Context{}) } },
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
