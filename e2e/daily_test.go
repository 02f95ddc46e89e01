package e2e_test

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// enter sets a date or text field as a hand would, whatever the page's language writes.
func (b *browser) enter(sel, value string) {
	b.t.Helper()
	b.see(sel)
	eval[bool](b, fmt.Sprintf(`(() => {
		const at = %[1]q, e = at.startsWith("/") ? document.evaluate(at, document, null, 9).singleNodeValue : document.querySelector(at);
		Object.getOwnPropertyDescriptor(Object.getPrototypeOf(e), "value").set.call(e, %[2]q);
		e.dispatchEvent(new Event("input", {bubbles: true}));
		return true;
	})()`, sel, value))
}

// rungs are the titles of what lies ahead on a strand, in order.
func (b *browser) rungs(ladder, strand string) []string {
	b.t.Helper()
	return strings.Split(eval[string](b, fmt.Sprintf(`fetch("/api/ladders/%s").then(r => r.json()).then(l =>
		l.rails.find(r => r.strand === %q).rungs.filter(x => x.layer === "ahead" || x.layer === "preview").map(x => x.title + (x.aside ? " " + x.aside : "")).join("|"))`, ladder, strand)), "|")
}

// A performance date is planned back from, kept, and removed; it shows in the studio as long as it is there.
func TestADateIsKeptAndRemoved(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Piper")
	b.visit("/ladder/" + ladder)
	b.click(button("Dates"))
	b.see(`//section[@aria-label="Add a performance date"]`)
	targets := func() int {
		return eval[int](b, fmt.Sprintf(`fetch("/api/ladders/%s").then(r => r.json()).then(l => l.targets.length)`, ladder))
	}
	before := targets()
	b.retype(`//section[@aria-label="Add a performance date"]//input[@name="name"]`, "Harbour day")
	b.enter(`section[aria-label="Add a performance date"] input[name=day]`, today.AddDate(0, 0, 70).Format(time.DateOnly))
	b.click(button("Plan back from it"))
	b.says("with a chance of about")
	b.accessible("a date planned back from")
	b.click(button("Keep this date"))
	b.see(`//section[@aria-label="Harbour day"]`)
	require.Equal(t, before+1, targets())
	b.click(`//section[@aria-label="Harbour day"]//button[starts-with(., "Remove this date")]`)
	b.do(chromedp.WaitNotPresent(`//section[@aria-label="Harbour day"]`))
	require.Equal(t, before, targets())
	b.quiet()
}

// A piece is set aside and counts again; another is swapped with it. Each is tried first and then kept.
func TestAPieceIsSetAsideAndSwapped(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Maren")
	before := b.rungs(ladder, "method")
	require.GreaterOrEqual(t, len(before), 3)
	b.visit("/ladder/" + ladder)
	pick := func(title string) { b.click(fmt.Sprintf(`//button[.//span[.=%q]]`, title)) }
	pick(before[1])
	b.click(button("Put off"))
	b.click(button("Keep it"))
	b.do(chromedp.WaitNotPresent(button("Undo")))
	b.until(
		fmt.Sprintf(
			`fetch("/api/ladders/%s").then(r => r.json()).then(l => l.rails.flatMap(r => r.rungs).some(x => x.title === %q && x.aside === "paused"))`,
			ladder,
			before[1],
		),
	)
	b.click(button("Count it again"))
	b.click(button("Keep it"))
	b.do(chromedp.WaitNotPresent(button("Undo")))
	b.until(
		fmt.Sprintf(
			`fetch("/api/ladders/%s").then(r => r.json()).then(l => l.rails.flatMap(r => r.rungs).every(x => x.title !== %q || !x.aside))`,
			ladder,
			before[1],
		),
	)
	require.Equal(t, before, b.rungs(ladder, "method"), "it is where it was")

	b.click(`//*[@role="tab" and .="Next"]`)
	b.see(`//button[starts-with(., "Swap it with")]`)
	other := eval[string](
		b,
		`[...document.querySelectorAll("button")].find(x => x.innerText.startsWith("Swap it with")).closest("li").innerText.split("\n")[0].trim()`,
	)
	b.click(`(//button[starts-with(., "Swap it with")])[1]`)
	b.click(button("Keep it"))
	b.do(chromedp.WaitNotPresent(button("Undo")))
	b.until(
		fmt.Sprintf(
			`fetch("/api/ladders/%s").then(r => r.json()).then(l => l.rails.find(r => r.strand === "method").rungs.filter(x => x.layer === "ahead" || x.layer === "preview")[1].title !== %q)`,
			ladder,
			before[1],
		),
	)
	after := b.rungs(ladder, "method")
	want := slices.Clone(before)
	if at := slices.Index(before, other); at >= 0 {
		want[1], want[at] = want[at], want[1]
	} else {
		want[1] = other
	}
	require.Equal(t, want, after, "swapped with %s, all else where it was", other)
	b.quiet()
}

// The family's link is made anew: the old one is dead, and the feed of the new one is a calendar.
func TestANewFamilyLinkAndItsCalendar(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Henrik")
	b.visit("/week/" + ladder)
	b.see(`//section[@aria-label="The family"]`)
	if b.count(`section[aria-label="The family"] a[target=_blank]`) == 0 {
		b.click(button("Make a link now"))
	}
	link := `section[aria-label="The family"] a[target=_blank]`
	b.see(link)
	old := eval[string](b, fmt.Sprintf(`document.querySelector('%s').getAttribute("href")`, link))
	b.click(button("New link"))
	b.until(fmt.Sprintf(`document.querySelector('%s').getAttribute("href") !== %q`, link, old))
	fresh := eval[string](b, fmt.Sprintf(`document.querySelector('%s').getAttribute("href")`, link))
	token := func(path string) string { return strings.TrimPrefix(path, "/home/") }
	status := func(path string) int {
		return eval[int](b, fmt.Sprintf(`fetch("/api/family/%s/calendar").then(r => r.status)`, path))
	}
	require.Equal(t, 404, status(token(old)))
	require.Equal(t, 200, status(token(fresh)))
	feed := eval[string](b, fmt.Sprintf(`fetch("/api/family/%s/calendar").then(r => r.text())`, token(fresh)))
	require.True(t, strings.HasPrefix(feed, "BEGIN:VCALENDAR\r\n"))
	require.Contains(t, feed, "SUMMARY:Henrik: cello lesson\r\n")
	b.visit(fresh)
	b.says("Henrik")
	b.visit(old)
	b.until(`!document.body.innerText.includes("Henrik") && document.querySelector("h1") !== null`)
}

// A holiday whose end lies before its beginning is refused and nothing typed is lost; put right it is added, and removed.
func TestAHolidayIsAddedAndRemoved(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.visit("/settings")
	at := `//section[@aria-label="Days without lessons"]`
	b.see(at)
	b.fill(at+`//input[@name="name"]`, "Boat week")
	b.enter(`section[aria-label="Days without lessons"] input[name=first]`, today.AddDate(0, 0, 21).Format(time.DateOnly))
	b.enter(`section[aria-label="Days without lessons"] input[name=last]`, today.AddDate(0, 0, 14).Format(time.DateOnly))
	b.click(at + button("Add it"))
	b.see(at + `//*[@role="alert"]`)
	b.enter(`section[aria-label="Days without lessons"] input[name=last]`, today.AddDate(0, 0, 27).Format(time.DateOnly))
	b.click(at + button("Add it"))
	b.see(at + `//li[contains(., "Boat week")]`)
	b.until(`document.querySelector('section[aria-label="Days without lessons"] input[name=name]').value === ""`)
	b.accessible("days without lessons")
	b.click(at + `//li[contains(., "Boat week")]//button`)
	b.do(chromedp.WaitNotPresent(at + `//li[contains(., "Boat week")]`))
	b.quiet()
}

// A lesson of another day is never given as today's: one that was leads to its own date, one ahead is only planned.
func TestALessonOfAnotherDayKeepsItsDate(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	links := func(to string) int { return b.count(`article a[href^="` + to + `"]`) }
	require.Positive(t, links("/lesson/"))
	was := today.AddDate(0, 0, -7).Format(time.DateOnly)
	b.visit("/?day=" + was)
	b.says("a day that was. What you enter in a lesson here has this date.")
	require.Zero(t, links("/lesson/"))
	require.Positive(t, links("/past/"))
	require.Equal(t, links("/past/"), b.count(`article a[href$="?day=`+was+`"][href^="/past/"]`))
	b.accessible("a day that was")
	b.visit("/?day=" + today.AddDate(0, 0, 7).Format(time.DateOnly))
	b.says("a day ahead, to plan.")
	require.Zero(t, links("/lesson/")+links("/past/"))
	require.Positive(t, links("/plan/"))
}

// Holidays come from a calendar file: what it holds is read first, with what is not taken and why; left, nothing is added.
func TestHolidaysComeFromACalendarFile(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.visit("/settings")
	at := `//section[@aria-label="Days without lessons"]`
	b.see(at)
	first := today.AddDate(0, 0, 200)
	event := func(uid, name string, from, to time.Time) string {
		return "BEGIN:VEVENT\r\nUID:" + uid + "\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:" + from.Format(
			"20060102",
		) + "\r\nDTEND;VALUE=DATE:" + to.Format(
			"20060102",
		) + "\r\nSUMMARY:" + name + "\r\nEND:VEVENT\r\n"
	}
	file := filepath.Join(t.TempDir(), "school.ics")
	require.NoError(t, os.WriteFile(file, []byte("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n"+
		event("1", "Herring days", first, first.AddDate(0, 0, 4))+event("2", "Lamp week", first.AddDate(0, 0, 30), first.AddDate(0, 0, 37))+
		event("3", "Long ago", today.AddDate(-1, 0, 0), today.AddDate(-1, 0, 3))+"END:VCALENDAR\r\n"), 0o600))
	choose := func() {
		b.do(chromedp.SetUploadFiles(at+`//input[@type="file"]`, []string{file}))
		b.says("“school.ics”: Two holidays to add; one event not taken.")
	}
	choose()
	b.accessible("holidays from a file")
	b.click(at + button("Leave it"))
	b.do(chromedp.WaitNotPresent(at + `//li[contains(., "Herring days")]`))
	choose()
	b.click(at + button("Add all 2"))
	b.says("Two holidays added; one event not taken.")
	b.see(at + `//li[contains(., "Herring days")]//button`)
	for _, name := range []string{"Herring days", "Lamp week"} {
		b.click(at + `//li[contains(., "` + name + `")]//button`)
		b.do(chromedp.WaitNotPresent(at + `//li[contains(., "` + name + `")]`))
	}
	b.quiet()
}

// A gate that is set in the week is the one that the lesson and the sheet of practice know.
func TestAGateIsSetInTheWeek(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Piper")
	b.visit("/week/" + ladder)
	b.see(`section[aria-label=Hands] select`)
	piece := eval[string](
		b,
		`document.querySelector("section[aria-label=Hands] select").getAttribute("aria-label").replace("Hands at home for ", "")`,
	)
	b.choose(`section[aria-label=Hands] select`, "left hand only until the right is taught")
	b.see(`//section[@aria-label="Hands"]//li[contains(., "now the left hand only")]`)
	gate := eval[string](
		b,
		fmt.Sprintf(`fetch("/api/ladders/%s/lesson").then(r => r.json()).then(l => l.pieces.find(p => p.title === %q).gate)`, ladder, piece),
	)
	require.Equal(t, "left", gate)
	b.choose(`section[aria-label=Hands] select`, "by the way")
	b.do(chromedp.WaitNotPresent(`//section[@aria-label="Hands"]//li[contains(., "now the left hand only")]`))
	b.quiet()
}

// A book goes out as a spreadsheet and as a file; a skill that no page shows is added to a piece; a line of the library is edited.
func TestTheLibraryGoesOutAndIsEdited(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Library"))
	b.see(button("Download spreadsheet"))
	sheet := eval[string](
		b,
		`fetch([...document.querySelectorAll("a")].find(a => a.innerText === "Download spreadsheet").href).then(r => r.text())`,
	)
	require.True(t, strings.HasPrefix(sheet, "title,"), sheet[:min(len(sheet), 60)])
	whole := eval[string](
		b,
		`fetch([...document.querySelectorAll("a")].find(a => a.innerText === "Export everything").href).then(r => r.json()).then(j => Object.keys(j).sort().join())`,
	)
	require.Contains(t, whole, "sources")

	b.click(`(//button[.="Change these"])[1]`)
	b.see(`input[name=tags]`)
	b.retype(`//input[@name="tags"]`, "quiet, tidal")
	b.click(button("Save"))
	b.says("quiet, tidal")

	material := eval[string](b, `fetch("/api/materials").then(r => r.json()).then(l => l.find(m => m.title === "Fog").id)`)
	b.visit("/piece/" + material)
	b.click(`//section[@aria-label="What it needs"]//summary`)
	b.click(button("Add a skill"))
	b.see(`//*[@role="dialog"]//select[@name="skill"]`)
	b.choose(`[role=dialog] select[name=skill]`, "playing from memory")
	b.click(button("Add it"))
	b.do(chromedp.WaitNotPresent(`[role=dialog]`))
	b.see(`//section[@aria-label="What it needs"]//li[contains(., "playing from memory")]`)
	b.see(`//section[@aria-label="Your corrections"]//li[contains(., "playing from memory")]`)
	b.click(`//section[@aria-label="Your corrections"]//li[contains(., "playing from memory")]//button`)
	b.do(chromedp.WaitNotPresent(`//section[@aria-label="What it needs"]//li[contains(., "playing from memory")]`))
	b.quiet()
}

// A cycle of keys is ended, and another is offered; with undo the old one is back.
func TestACycleIsEnded(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Caspian")
	b.visit("/technique?ladder=" + ladder)
	b.see(`//section[@aria-label="Cycle of keys"]`)
	b.says("The next pass waits")
	b.click(button("End this one"))
	b.see(button("Keep this cycle"))
	kept := fmt.Sprintf(`fetch("/api/ladders/%s/technique").then(r => r.json()).then(t => Boolean(t.cycle))`, ladder)
	b.until(strings.Replace(kept, "Boolean(t.cycle)", "!t.cycle", 1))
	// In minor the key is named as minor writes it.
	b.choose(`//section[@aria-label="Cycle of keys"]//label[starts-with(., "first key")]//select`, "D♭")
	b.choose(`//section[@aria-label="Cycle of keys"]//label[starts-with(., "kind")]//select`, "Harmonic minor")
	b.until(
		`[...document.querySelectorAll("label")].find(l => l.innerText.startsWith("first key")).querySelector("select").selectedOptions[0]?.text === "C♯"`,
	)
	last := eval[string](b, fmt.Sprintf(`fetch("/api/ladders/%s/lesson").then(r => r.json()).then(l => l.log.at(-1).id)`, ladder))
	back := eval[int](b, fmt.Sprintf(`fetch("/api/ladders/%s/entries", {method: "POST", headers: {"content-type": "application/json"},
		body: JSON.stringify({entries: [{id: "01J0000000000000000000BACK", at: new Date(%d).toISOString(), kind: "correction", corrects: %q}]})}).then(r => r.status)`, ladder, now().UnixMilli(), last))
	require.Equal(t, 200, back)
	b.until(kept)
	b.quiet()
}
