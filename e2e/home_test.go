package e2e_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// shellKept waits until the page is kept on the device.
func (b *browser) shellKept(page string) {
	b.t.Helper()
	b.until(`navigator.serviceWorker.controller !== null`)
	missing := eval[string](
		b,
		`(async () => { let missing = ""; for (const end = Date.now() + 60000; Date.now() < end; await new Promise(r => setTimeout(r, 50))) {
		const c = await caches.open("shell-2"); const keys = (await c.keys()).map(r => new URL(r.url).pathname);
		const need = performance.getEntriesByType("resource").map(r => new URL(r.name).pathname).filter(p => p.startsWith("/assets/"));
		missing = ["`+page+`", ...need].filter(p => !keys.includes(p)).join(" "); if (!missing) break; } return missing; })()`,
	)
	require.Empty(b.t, missing, "kept on the device")
}

// A lesson is closed and the week published in three taps; the family plays a
// chunk, ticks and chooses on the phone, also without a connection; the teacher
// finds it before the next lesson; a link that is shut opens nothing.
func TestTheWeekGoesHomeAndComesBack(t *testing.T) {
	site := &flaky{t: t, addr: "127.0.0.1:0"}
	site.start()
	defer func() { site.srv.Close() }()
	b := open(t, 1280, 800)
	b.at = "http://" + site.addr
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Odile")
	b.visit("/lesson/" + ladder)
	b.says("Close the lesson")
	b.choose(`select[aria-label^="Hands at home"]`, "right hand only until the left is taught")
	b.says("right hand only until the left is taught")
	b.until(`!Object.keys(localStorage).some(k => k.startsWith("waiting "))`)

	taps := 0
	tap := func(sel string) { b.click(sel); taps++ }
	tap(button("Close the lesson"))
	b.says("The family sees nothing of this week until it is published.")
	b.says("What was done")
	b.says("the left hand, and both hands together, until it was taught")
	b.accessible("close")
	away := eval[int](
		b,
		`[...document.querySelectorAll('ol[aria-label="Days"] button')].findIndex(e => e.getAttribute("aria-pressed") === "true") + 1`,
	)
	day := fmt.Sprintf(`//ol[@aria-label="Days"]/li[%d]/button`, away)
	tap(day)
	b.see(day + `[@aria-pressed="false" and not(@disabled)]`)
	tap(button("Publish"))
	b.says("The family sees this week since")
	t.Logf("the week took %d taps", taps)
	require.LessOrEqual(t, taps, 3)

	// The sheet is one sheet of paper, and says what must not be done yet.
	pages := eval[int](
		b,
		`fetch("/api/ladders/`+ladder+`/week/sheet").then(r => r.arrayBuffer()).then(a => new TextDecoder("latin1").decode(a).match(/\/Type\s*\/Page[^s]/g).length)`,
	)
	require.LessOrEqual(t, pages, 2)

	link := eval[string](b, `fetch("/api/ladders/`+ladder+`/week").then(r => r.json()).then(w => w.family.link)`)
	phone := open(t, 390, 844)
	phone.at = b.at
	phone.visit(link)
	phone.says("What do you want to play first?")
	phone.says("Right hand only")
	phone.says("Left for later")
	phone.fits("the family's page")
	phone.accessible("the family's page")
	phone.shellKept("/home/")
	require.NotContains(t, phone.text(), "Marchetti", "a first name is enough")

	// It plays at 60 and shows where it is.
	chunk := `//ol[@aria-label="All of this day"]/li[1]//button`
	phone.click(chunk)
	phone.see(`article svg path`)
	phone.retype(`//input[@type="number"]`, "60")
	phone.click(button("Hear it"))
	phone.see(`article svg circle[stroke-width="0.3"]`)
	phone.click(button("Stop"))

	// A favourite first; then everything by finger, without a connection.
	favourite := eval[string](
		b,
		`fetch("/api`+strings.Replace(
			link,
			"/home/",
			"/family/",
			1,
		)+`").then(r => r.json()).then(p => p.days.find(d => d.date === p.today).items.find(i => i.kind === "review").title)`,
	)
	phone.click(fmt.Sprintf(`//fieldset//button[.=%q]`, favourite))
	phone.see(fmt.Sprintf(`//article[@aria-label=%q]`, favourite))
	phone.until(`!Object.keys(localStorage).some(k => k.startsWith("tick "))`)
	site.cut()
	phone.visit(link)
	phone.see(fmt.Sprintf(`//article[@aria-label=%q]`, favourite))
	phone.click(`//article//button[contains(., "joyful")]`)
	phone.says("1 waiting on this phone")
	phone.click(fmt.Sprintf(`//ol[@aria-label="All of this day"]/li//button[contains(., %q)]`, favourite))
	phone.says("Done, joyful.")
	phone.accessible("ticked without a connection")
	site.start()
	phone.visit(link)
	phone.until(`!Object.keys(localStorage).some(k => k.startsWith("tick "))`)

	next := today.AddDate(0, 0, 2).Format(time.DateOnly)
	b.visit("/?day=" + next)
	b.says("From home:")
	b.says("joyful 1 time; played “" + favourite + "” first")

	// What has not come cannot be ticked; the link that is shut opens nothing.
	later := eval[int](phone, `[...document.querySelectorAll('nav[aria-label="Days"] button')].length`)
	phone.click(fmt.Sprintf(`//nav[@aria-label="Days"]/button[%d]`, later-1))
	phone.says("This comes on")
	b.visit("/week/" + ladder)
	b.click(button("Shut the link"))
	b.says("There is no link yet")
	phone.visit(link)
	phone.says("This link opens nothing")
	phone.fits("a link that was shut")
	phone.quiet()
	b.quiet()
}

// The week is changed by hand: a thing gets its day, another goes out and comes
// back, a day is taken away; the rest is solved around it each time.
func TestTheWeekIsChangedByHand(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Piper")
	b.visit("/week/" + ladder)
	b.says("Not yet")
	b.accessible("week")
	first := `(//ol[@aria-label="Days"]/li[.//ol/li])[1]`
	b.click(first + `//ol/li[1]/button`)
	b.see(`[role=dialog]`)
	b.accessible("one thing of the week")
	last := eval[string](b, `[...document.querySelectorAll("[role=dialog] fieldset button")].at(-1).innerText`)
	title := eval[string](b, `document.querySelector("[role=dialog] h2").innerText.split(": ")[1]`)
	b.click(fmt.Sprintf(`//*[@role="dialog"]//fieldset//button[.=%q]`, last))
	b.do(chromedp.WaitNotPresent(`[role=dialog]`))
	b.see(fmt.Sprintf(`//ol[@aria-label="Days"]/li[.//h2[.=%q]]//button[contains(., "set by hand") and contains(., %q)]`, last, title))

	b.click(`//ol[@aria-label="Days"]//button[contains(., "set by hand")]`)
	b.see(`[role=dialog]`)
	b.click(`//*[@role="dialog"]//button[starts-with(., "Remove from")]`)
	b.do(chromedp.WaitNotPresent(`[role=dialog]`))
	b.says("removed")
	b.click(button("Put it back"))
	b.do(chromedp.WaitNotPresent(`//*[@aria-label="Removed"]`))

	rests := b.count(`ol[aria-label="Days"] .border-dashed`)
	b.click(first + `//button[starts-with(., "No practice")]`)
	b.until(fmt.Sprintf(`document.querySelectorAll('ol[aria-label="Days"] .border-dashed').length === %d`, rests+1))
	b.choose(`//section[@aria-label="For this week"]//select`, "5")
	b.until(`[...document.querySelectorAll('ol[aria-label="Days"] p.figures')].every(p => parseFloat(p.innerText) <= 5)`)
	b.retype(`//section[@aria-label="For this week"]//input`, "Sing it on the ferry.")
	b.click(`//h1`)
	b.until(`fetch("/api/ladders/` + ladder + `/week").then(r => r.json()).then(w => w.hand.words === "Sing it on the ferry.")`)
	b.click(button("Leave the whole week to the program"))
	b.until(fmt.Sprintf(`document.querySelectorAll('ol[aria-label="Days"] .border-dashed').length === %d`, rests))
	b.visit("/overview")
	b.says("Practice against enjoyment")
	b.says("the quiet one to notice")
	b.accessible("practice against enjoyment")
	eval[bool](
		b,
		`fetch("/api/ladders/`+ladder+`/family", {method: "PUT", headers: {"Content-Type": "application/json"}, body: JSON.stringify({email: "piper@example.org"})}).then(r => r.ok)`,
	)
	b.publish(ladder)
	b.visit("/messages")
	b.says("to families")
	b.accessible("mailbox")
	b.quiet()
}
