package e2e_test

import (
	"fmt"
	"net"
	"net/http"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// flaky is the site behind a server that can be cut off and started again at
// the same address.
type flaky struct {
	t    *testing.T
	addr string
	srv  *http.Server
}

func (f *flaky) start() {
	l, err := net.Listen("tcp", f.addr)
	require.NoError(f.t, err)
	f.addr = l.Addr().String()
	f.srv = &http.Server{Handler: handler}
	go f.srv.Serve(l)
}

func (f *flaky) cut() { require.NoError(f.t, f.srv.Close()) }

// A whole lesson is taught with the server cut off and the tab closed and opened
// again in the middle: marks, a spot, two ratings, a cleared run, one tap taken
// back. When the server is there again all of it has arrived, once.
func TestALessonWithoutTheServer(t *testing.T) {
	f := &flaky{t: t, addr: "127.0.0.1:0"}
	f.start()
	defer func() { f.srv.Close() }()
	b := open(t, 1280, 800)
	b.at = "http://" + f.addr
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Caspian")
	b.visit("/lesson/" + ladder)
	b.says("Mark a hard spot")
	b.shellKept("/")
	log := func() []string {
		return eval[[]string](b, `fetch("/api/ladders/`+ladder+`/entries").then(r => r.json()).then(l => l.map(e => e.kind + " " + e.id))`)
	}
	before := len(log())

	f.cut()
	point := func(n int) string { return fmt.Sprintf(`//ol[@aria-label="Focus points"]/li[%d]//button`, n) }
	mark := func(n int, name string) {
		b.click(point(n))
		b.click(`//section[@aria-label="Focus point"]//button[contains(., "` + name + `")]`)
	}
	mark(1, "full")
	mark(2, "part")
	b.says("2 entries are kept on this device")
	b.click(button("Mark a hard spot"))
	b.click(`button[aria-label="Bar 1"]`)
	b.click(`button[aria-label="Bar 2"]`)
	b.says("A hard spot")
	b.accessible("a lesson without a connection")

	// The tab is closed and opened again, still without the server.
	b.visit("/lesson/" + ladder)
	b.says("3 entries are kept on this device")
	b.says("A hard spot")
	for range 2 {
		b.click(`(//section[@aria-label="Review"]//li[.//button])[1]//button[starts-with(., "solid")]`)
	}
	b.says("5 entries are kept on this device")
	title := eval[string](b, `document.querySelector("article h2").innerText`)
	b.click(button("Try a run"))
	b.see(`[role=dialog]`)
	b.click(button("All five were met"))
	b.click(`//button[.="It held" or .="They held"]`) // the spot that was just marked
	b.click(button("It met the standard"))
	b.says("“" + title + "” is cleared.")
	b.click(`button[aria-label="Take back: A hard spot"]`)
	b.do(chromedp.WaitNotPresent(`button[aria-label="Take back: A hard spot"]`))
	b.says("7 entries are kept on this device")

	f.start()
	b.visit("/lesson/" + ladder)
	b.until(`!Object.keys(localStorage).some(k => k.startsWith("waiting "))`)
	after := log()
	require.Len(t, after, before+7, "two marks, a spot, two ratings, a run, a correction")
	seen := map[string]bool{}
	kinds := map[string]int{}
	for _, e := range after[before:] {
		require.False(t, seen[e], "%s is there twice", e)
		seen[e] = true
		var kind, id string
		_, err := fmt.Sscan(e, &kind, &id)
		require.NoError(t, err)
		kinds[kind]++
	}
	require.Equal(t, map[string]int{"mark": 2, "spotAdded": 1, "hearing": 2, "run": 1, "correction": 1}, kinds)
	b.click(`//button[@role="tab" and .="` + title + `"]`) // the exercise beside it is still worked at
	b.says("“" + title + "” is cleared.")
	require.Zero(t, eval[int](b, `document.querySelectorAll('button[aria-label^="Take back: Spot"]').length`), "what was taken back stays so")
}
