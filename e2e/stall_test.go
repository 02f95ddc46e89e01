package e2e_test

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// How a proxy before the site behaves.
const (
	passes  = iota
	stalls  // takes requests and answers none
	gateway // answers 502, as a proxy does whose server starts anew
	refuses // hangs up
)

// proxied is the site behind a proxy that behaves as the test says; the server's clock is not touched.
func proxied(t *testing.T) (url string, how *atomic.Int32) {
	how = &atomic.Int32{}
	gone := make(chan struct{})
	s := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		switch how.Load() {
		case stalls:
			select {
			case <-r.Context().Done():
			case <-gone:
			}
			panic(http.ErrAbortHandler)
		case gateway:
			http.Error(w, "Bad gateway", http.StatusBadGateway)
			return
		case refuses:
			panic(http.ErrAbortHandler)
		}
		handler.ServeHTTP(w, r)
	}))
	t.Cleanup(func() { close(gone); s.Close() })
	return s.URL, how
}

// On a network that stalls, the lesson that was opened before stands there within three seconds, with the time of what it
// shows; taps are kept. A server that starts anew behind its proxy is waited out; then everything has arrived, once.
func TestANetworkThatStalls(t *testing.T) {
	alone(t)
	url, how := proxied(t)
	b := open(t, 1280, 800)
	b.at = url
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Tobias")
	b.visit("/lesson/" + ladder)
	b.says("Mark a hard spot")
	b.shellKept("/")
	log := func() []string {
		return eval[[]string](b, `fetch("/api/ladders/`+ladder+`/entries").then(r => r.json()).then(l => l.map(e => e.kind + " " + e.id))`)
	}
	before := len(log())

	how.Store(stalls)
	b.visit("/lesson/" + ladder)
	b.says("Mark a hard spot")
	t.Logf("shown after %.1f s", eval[float64](b, `performance.now()`)/1000)
	// Three seconds, and what the browser and a busy machine need themselves.
	require.Less(t, eval[float64](b, `performance.now()`), 4_500.0)
	b.says("The server does not answer. This is how it was at")
	b.accessible("a lesson on a network that stalls")
	mark := func(n int, name string) {
		b.click(fmt.Sprintf(`//ol[@aria-label="Focus points"]/li[%d]//button`, n))
		b.click(`//section[@aria-label="Focus point"]//button[contains(., "` + name + `")]`)
	}
	mark(1, "part")
	mark(2, "part")
	b.says("2 entries are kept on this device")

	how.Store(gateway)
	b.visit("/lesson/" + ladder)
	b.says("2 entries are kept on this device")
	b.says("This is how it was at")

	how.Store(passes)
	b.until(`!Object.keys(localStorage).some(k => k.startsWith("waiting "))`)
	b.until(`!document.body.innerText.includes("This is how it was at")`)
	after := log()
	require.Len(t, after, before+2)
	for _, e := range after[before:] {
		require.True(t, strings.HasPrefix(e, "mark "), e)
	}
}

// Signing out works without a connection: nothing of the studio stays on the device, and the server is told when it can be.
func TestSigningOutWithoutAConnection(t *testing.T) {
	url, how := proxied(t)
	b := open(t, 1280, 800)
	b.at = url
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.shellKept("/")
	how.Store(refuses)
	b.click(button("Sign out"))
	b.until(`location.pathname === "/sign-in"`)
	require.Zero(t, eval[int](b, `Object.keys(localStorage).filter(k => k.startsWith("kept ")).length`))
	b.visit("/")
	b.until(`location.pathname === "/sign-in"`)
	how.Store(passes)
	b.visit("/")
	b.until(`location.pathname === "/sign-in"`)
	b.until(`!localStorage.getItem("leaving")`)
	require.Equal(t, 401, eval[int](b, `fetch("/api/session").then(r => r.status)`))
}

// A device that is full: a lesson opens and takes its taps, kept pages give way, the teacher is told; the Library opens
// though nothing of it can be kept.
func TestADeviceThatIsFull(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Wren")
	// As much as there is room for, to the last character.
	fill := `(() => { let n = 0; for (let size = 1 << 20; size >= 1; ) { try { localStorage.setItem("photo " + n, "x".repeat(size)); n++; } catch { size = Math.floor(size / 2); } } return n; })()`
	require.Positive(t, eval[int](b, fill))
	b.visit("/lesson/" + ladder)
	b.says("Mark a hard spot")
	require.Positive(t, eval[int](b, fill))
	b.click(`//ol[@aria-label="Focus points"]/li[1]//button`)
	b.click(`//section[@aria-label="Focus point"]//button[contains(., "part")]`)
	b.says("This device is full.")
	b.until(`!Object.keys(localStorage).some(k => k.startsWith("waiting "))`)
	b.visit("/library")
	b.says("Height is the leap")
}
