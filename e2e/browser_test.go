package e2e_test

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/web"
)

// site is the program as it runs: the built page, the real server, the demo
// studio of today, and the teacher of another studio.
var (
	site    *httptest.Server
	data    *store.Store
	handler http.Handler
	// now is the clock of the site, today the day of the studio when the tests begin.
	now   clock.Clock
	today time.Time
)

const (
	strangerEmail    = "stranger@example.org"
	strangerPassword = "another studio"
)

func TestMain(m *testing.M) {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	code := storetest.Main(m, func(st *store.Store) {
		if err := begin(st); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	})
	afterwards()
	os.Exit(code)
}

func begin(st *store.Store) error {
	data = st
	page := web.Page()
	f, err := page.Open("index.html")
	if err != nil {
		return fmt.Errorf("the page is not built: run 'make build' first")
	}
	if err := f.Close(); err != nil {
		return err
	}
	ctx := context.Background()
	hash, err := account.HashPassword(demo.Password)
	if err != nil {
		return err
	}
	var zone string
	if now, zone, err = clock.Test(); err != nil {
		return err
	}
	today = clock.Day(now(), zone)
	if err := demo.Make(ctx, st, demo.Options{Day: today, Timezone: zone, PasswordHash: hash, Seed: 7}); err != nil {
		return err
	}
	strange, err := account.HashPassword(strangerPassword)
	if err != nil {
		return err
	}
	err = st.AddStudio(ctx, store.Studio{ID: storetest.ID(), Name: "Elsewhere", Timezone: zone},
		store.Teacher{ID: storetest.ID(), Email: strangerEmail, Name: "S", PasswordHash: strange})
	if err != nil {
		return err
	}
	_, handler, err = api.New(api.Config{Store: st, Page: page, Now: now})
	if err != nil {
		return err
	}
	site = httptest.NewServer(handler)
	return nil
}

// browser is a headless Chromium with one tab.
type browser struct {
	t   *testing.T
	ctx context.Context
	// at is the address of the site.
	at string

	mu sync.Mutex
	// complaints are errors that the page wrote to its console.
	complaints []string
}

// chromium is one Chromium for all tests; each browser of a test is a profile of its own in it, with nothing kept. Starting one
// for each took half of the time.
var chromium = sync.OnceValues(func() (context.Context, error) {
	folder, err := os.MkdirTemp("", "ladder-chromium-")
	if err != nil {
		return nil, err
	}
	alloc, end := chromedp.NewExecAllocator(context.Background(), chromedp.Headless, chromedp.NoSandbox, chromedp.DisableGPU,
		chromedp.NoFirstRun, chromedp.Flag("disable-background-networking", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-sync", true), chromedp.Flag("disable-quic", true), chromedp.UserDataDir(folder))
	ctx, leave := chromedp.NewContext(alloc)
	afterwards = func() { leave(); end(); os.RemoveAll(folder) }
	return ctx, chromedp.Do(ctx)
})

// afterwards ends the Chromium of the tests, if there was one.
var afterwards = func() {}

// besides are the tests that run beside others, with the addresses of the teachers of their own copies of the demo studio.
var besides sync.Map

// address is a new address of a teacher.
func address() string { return strings.ToLower(storetest.ID()) + "@example.org" }

// alone keeps a test from running beside the others of this package: it measures time.
func alone(t *testing.T) { besides.LoadOrStore(t.Name(), address()) }

// inTheDemo lets a test that runs alone sign in to the demo studio itself, with the links of its families.
func inTheDemo(t *testing.T) {
	besides.Store(t.Name(), demo.Email)
	besides.Store(demo.Email, true)
}

// open opens a browser for a test. All tests run beside each other, each in a studio of its own: an empty one (see begins) or
// a copy of the demo studio, in which whoever signs in as its teacher lands.
func open(t *testing.T, width, height int64) *browser {
	t.Helper()
	if _, again := besides.LoadOrStore(t.Name(), address()); !again {
		t.Parallel()
	}
	first, err := chromium()
	require.NoError(t, err)
	ctx, cancel := chromedp.NewContext(first, chromedp.WithNewBrowserContext())
	t.Cleanup(cancel)
	ctx, cancel = context.WithTimeout(ctx, 15*time.Minute)
	t.Cleanup(cancel)
	b := &browser{t: t, ctx: ctx, at: site.URL}
	messages := chromedp.Console(ctx)
	go func() {
		for m, err := range messages {
			if err != nil {
				return
			}
			// The refusals that a test provokes show up as failed requests.
			if (m.IsException() || string(m.Type) == "error") && !strings.Contains(m.Text, "Failed to load resource") {
				b.mu.Lock()
				b.complaints = append(b.complaints, m.Text)
				b.mu.Unlock()
			}
		}
	}()
	b.do(chromedp.EmulateViewport(width, height))
	// Each tab believes that it is the one in front.
	_, err = chromedp.Call(ctx, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
	require.NoError(t, err)
	return b
}

func (b *browser) do(steps ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(b.ctx, 2*time.Minute)
	defer cancel()
	if err := chromedp.Do(ctx, steps...); err != nil {
		b.t.Fatalf("%v; the page says:\n%s", err, b.text())
	}
}

// text is what the page shows, for messages.
func (b *browser) text() string {
	text, err := chromedp.Run(b.ctx, chromedp.Evaluate[string]("document.body.innerText"))
	if err != nil {
		return err.Error()
	}
	return text
}

func (b *browser) visit(path string) { b.t.Helper(); b.do(chromedp.Navigate(b.at + path)) }

// see waits until an element is on the screen; sel is an XPath or CSS selector.
func (b *browser) see(sel string) { b.t.Helper(); b.do(chromedp.WaitVisible(sel)) }

// says waits until a text is on the screen.
func (b *browser) says(text string) {
	b.t.Helper()
	quoted, err := json.Marshal(text)
	require.NoError(b.t, err)
	b.until(fmt.Sprintf("document.body.innerText.includes(%s)", quoted))
}

// until waits until a condition of the page holds.
func (b *browser) until(js string) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(b.ctx, 2*time.Minute)
	defer cancel()
	if _, err := chromedp.Run(ctx, chromedp.Poll[bool](js)); err != nil {
		b.t.Fatalf("%s does not come true; the page says:\n%s", js, b.text())
	}
}

// click presses an element once it stands still: what moves under the hand is missed.
func (b *browser) click(sel string) {
	b.t.Helper()
	b.see(sel)
	eval[bool](b, fmt.Sprintf(`(async () => {
		const at = %q, find = () => /^[(/]/.test(at) ? document.evaluate(at, document, null, 9).singleNodeValue : document.querySelector(at);
		const place = () => { const r = find()?.getBoundingClientRect(); return r ? [r.x, r.y, r.width, r.height].join() : "away"; };
		for (let before = "", now = place(), frames = 0; frames < 300 && (now !== before || now === "away"); frames++) {
			await new Promise((then) => setTimeout(then, 25));
			[before, now] = [now, place()];
		}
		return true;
	})()`, sel))
	b.do(chromedp.Click(sel))
}

// check ticks a box and sees that it is ticked; sel is an XPath.
func (b *browser) check(sel string) {
	b.t.Helper()
	b.click(sel)
	b.until(fmt.Sprintf(`document.evaluate(%q, document, null, 9).singleNodeValue?.checked === true`, sel))
}

// button is the XPath of a button or link by the beginning of its text.
func button(text string) string {
	return fmt.Sprintf(`//*[(self::button or self::a) and starts-with(normalize-space(.), "%s")]`, text)
}

func (b *browser) fill(sel, text string) {
	b.t.Helper()
	b.do(chromedp.WaitVisible(sel), chromedp.SendKeys(sel, text))
}

// retype replaces what stands in a field; sel is an XPath.
func (b *browser) retype(sel, text string) {
	b.t.Helper()
	b.see(sel)
	eval[bool](
		b,
		fmt.Sprintf(`(() => { const e = document.evaluate(%q, document, null, 9).singleNodeValue; e.focus(); e.select(); return true; })()`, sel),
	)
	b.do(chromedp.KeyEvent(text))
}

// choose picks an option of a select by the beginning of its text.
func (b *browser) choose(sel, option string) {
	b.t.Helper()
	b.see(sel)
	chosen := eval[bool](b, fmt.Sprintf(`(() => {
		const at = %[1]q, s = at.startsWith("/") ? document.evaluate(at, document, null, 9).singleNodeValue : document.querySelector(at);
		const o = [...s.options].find(o => o.text.startsWith(%[2]q));
		if (!o) return false;
		s.value = o.value;
		s.dispatchEvent(new Event("change", {bubbles: true}));
		return true;
	})()`, sel, option))
	require.True(b.t, chosen, "%s has no option %q", sel, option)
}

func eval[T any](b *browser, js string) T {
	b.t.Helper()
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](js, chromedp.EvalAwaitPromise))
	require.NoError(b.t, err, js)
	return v
}

// own is the address of the teacher of this test's copy of the demo studio.
func (b *browser) own() string {
	b.t.Helper()
	email, _ := besides.Load(b.t.Name())
	if _, made := besides.LoadOrStore(email, true); !made {
		_, err := storetest.Copy(context.Background(), data, demo.Email, email.(string))
		require.NoError(b.t, err)
	}
	return email.(string)
}

func (b *browser) signIn(email, password string) {
	b.t.Helper()
	if email == demo.Email {
		email = b.own()
	}
	b.visit("/sign-in")
	b.fill(`input[name=email]`, email)
	b.fill(`input[name=password]`, password)
	b.click(`button[type=submit]`)
}

// accessible runs axe-core over the screen, in both looks, and fails on any violation.
func (b *browser) accessible(name string) {
	b.t.Helper()
	source, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(b.t, err)
	b.do(chromedp.Evaluate[chromedp.Void](string(source)))
	// The looks differ in colours alone.
	for _, look := range []struct{ name, only string }{
		{"light", `["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]`}, {"dark", `{type: "rule", values: ["color-contrast"]}`},
	} {
		found := eval[[]string](b, fmt.Sprintf(`(async () => {
			document.documentElement.dataset.look = %q;
			const r = await axe.run(document, {runOnly: %s, resultTypes: ["violations"]});
			return r.violations.map(v => v.id + ": " + v.help + " — " + v.nodes.map(n => n.html + " " + n.any.map(a => a.message).join(" ")).slice(0, 3).join(" | "));
		})()`, look.name, look.only))
		require.Empty(b.t, found, "%s, %s", name, look.name)
	}
	eval[bool](b, `(document.documentElement.dataset.look = "light", true)`)
}

// quiet fails when the page complained on its console.
func (b *browser) quiet() {
	b.t.Helper()
	b.mu.Lock()
	defer b.mu.Unlock()
	require.Empty(b.t, b.complaints)
}

// fits fails when the screen is wider than the window.
func (b *browser) fits(name string) {
	b.t.Helper()
	over := eval[int](b, `document.documentElement.scrollWidth - window.innerWidth`)
	require.LessOrEqual(b.t, over, 0, "%s is wider than the window", name)
}
