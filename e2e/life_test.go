package e2e_test

import (
	"context"
	"fmt"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/store"
	"patientladder/store/storetest"
	"patientladder/web"
)

// beginner is the teacher of an empty studio, on a Monday, with a clock that the test turns on, and a count of touches.
type beginner struct {
	*browser
	mu      sync.Mutex
	now     time.Time
	touches int
}

// begins opens an empty studio on Monday, 4 May 2026, half past three.
func begins(t *testing.T, width, height int64) *beginner {
	x := &beginner{now: time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC)}
	_, handler, err := api.New(api.Config{Store: data, Page: web.Page(), Now: func() time.Time {
		x.mu.Lock()
		defer x.mu.Unlock()
		x.now = x.now.Add(time.Millisecond) // two moments are never one
		return x.now
	}})
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	hash, err := account.HashPassword(strangerPassword)
	require.NoError(t, err)
	email := storetest.ID() + "@example.org"
	require.NoError(t, data.AddStudio(context.Background(), store.Studio{ID: storetest.ID(), Name: "New studio", Timezone: "UTC"},
		store.Teacher{ID: storetest.ID(), Email: email, Name: "N", PasswordHash: hash}))
	x.browser = open(t, width, height)
	x.at = server.URL
	x.signIn(email, strangerPassword)
	x.says("No lessons today")
	return x
}

// later turns the clock on by some days.
func (x *beginner) later(days int) {
	x.mu.Lock()
	defer x.mu.Unlock()
	x.now = x.now.AddDate(0, 0, days)
}

func (x *beginner) touch(sel string) { x.t.Helper(); x.touches++; x.click(sel) }

// enter types into a field, which is one touch.
func (x *beginner) enter(sel, text string) { x.t.Helper(); x.touches++; x.fill(sel, text) }

// set puts a value into a field of a date or a time.
func (x *beginner) set(sel, value string) {
	x.t.Helper()
	x.touches++
	x.see(sel)
	done := eval[bool](x.browser, fmt.Sprintf(`(() => {
		const at = %[1]q, e = at.startsWith("/") ? document.evaluate(at, document, null, 9).singleNodeValue : document.querySelector(at);
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, %[2]q);
		e.dispatchEvent(new Event("input", {bubbles: true}));
		return true;
	})()`, sel, value))
	require.True(x.t, done)
}

// paste puts lines into a field at once.
func (x *beginner) paste(sel, text string) {
	x.t.Helper()
	x.see(sel)
	eval[bool](x.browser, fmt.Sprintf(`(() => {
		const e = document.querySelector(%q);
		Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, "value").set.call(e, %q);
		e.dispatchEvent(new Event("input", {bubbles: true}));
		return true;
	})()`, sel, text))
}

// student adds a student with a lesson time, by hand of the server; it returns the ladder.
func (x *beginner) student(name, instrument string, weekday int, startsAt string) string {
	x.t.Helper()
	return eval[string](x.browser, fmt.Sprintf(`(async () => {
		const ladder = %q;
		const r = await fetch("/api/students", {method: "POST", headers: {"Content-Type": "application/json"},
			body: JSON.stringify({student: %q, ladder, name: %q, born: "2016-02-03", instrument: %q, slots: [{id: %q, weekday: %d, startsAt: %q, minutes: 30, every: 1}]})});
		return r.ok ? ladder : await r.text();
	})()`, storetest.ID(), storetest.ID(), name, instrument, storetest.ID(), weekday, startsAt))
}

// piece adds a piece by its title to the library, and to a ladder where one is given.
func (x *beginner) piece(title, instrument, ladder string) string {
	x.t.Helper()
	return eval[string](x.browser, fmt.Sprintf(`(async () => {
		const id = %q, ladder = %q;
		await fetch("/api/materials", {method: "POST", headers: {"Content-Type": "application/json"}, body: JSON.stringify({id, title: %q, strand: "method", instrument: %q})});
		if (ladder) await fetch("/api/ladders/" + ladder + "/rungs/" + id, {method: "PUT"});
		return id;
	})()`, storetest.ID(), ladder, title, instrument))
}

// log adds an entry to a ladder.
func (x *beginner) log(ladder, at, fields string) {
	x.t.Helper()
	status := eval[int](x.browser, fmt.Sprintf(`(async () => {
		const r = await fetch("/api/ladders/%s/entries", {method: "POST", headers: {"Content-Type": "application/json"}, body: JSON.stringify({entries: [{id: %q, at: %q, %s}]})});
		return r.status;
	})()`, ladder, storetest.ID(), at, fields))
	require.Equal(x.t, 200, status)
}

// From an empty studio to the first published week; the touches are counted.
func TestFromNothingToTheFirstWeek(t *testing.T) {
	x := begins(t, 1280, 800)
	x.says("Your first student")
	x.accessible("an empty studio")
	for screen, text := range map[string]string{"/overview": "No students yet", "/year": "No students yet.", "/reports": "No student has had a lesson yet.", "/programme": "No student has learned a piece yet.", "/library": "Nothing for piano", "/calendar": "No lessons.", "/technique": "Nobody plays"} {
		x.visit(screen)
		x.says(text)
	}
	x.visit("/")
	x.touch(button("Add a student"))
	x.enter(`input[name=name]`, `Zoë "Zo" O’Neill-Ødegård`)
	x.touch(`//label[contains(., "Only the age")]/input`)
	x.enter(`input[name=age]`, "7")
	x.touch(`//button[@type="submit" and contains(., "Add the student")]`)
	x.says("Where to begin")
	x.accessible("an empty ladder")
	x.enter(`input[aria-label^="Search books"]`, "Low Water")
	x.touch(button("Add it"))
	x.says("Begin “Low Water”")
	x.touch(button("Add a piece"))
	x.enter(`//*[@role="dialog"]//input[@type="search"]`, "Two Boats")
	x.touch(`//*[@role="dialog"]//button[.="Add it"]`)
	x.says("Added: Two Boats")
	x.accessible("anything onto the ladder")
	x.touches++
	x.do(chromedp.KeyEvent("\x1b"))
	if eval[bool](x.browser, `!!document.querySelector("[role=alertdialog]")`) {
		x.touch(button("Discard it"))
	}
	x.touch(button("Begin “Low Water”"))
	x.says("Working on “Low Water”")
	x.touch(button("Lesson"))
	x.says("steady pulse")
	x.touch(`//button[starts-with(., "part")]`)
	x.says("Close the lesson")
	x.touch(button("To bring next time"))
	x.enter(`input[aria-label="What to bring"]`, "the blue book")
	x.touch(button("Keep it"))
	x.says("To bring: the blue book")
	x.touch(button("Close the lesson"))
	x.touch(button("Publish"))
	x.says("The family sees")
	t.Logf("from an empty studio to the first published week: %d touches", x.touches)
	require.LessOrEqual(t, x.touches, 60)

	// Today leads no more; a week later the lesson opens with the last one.
	x.visit("/")
	x.until(`!document.body.innerText.includes("Your first student")`)
	ladder := eval[string](x.browser, `fetch("/api/students").then(r => r.json()).then(l => l[0].ladder)`)
	x.later(7)
	x.visit("/lesson/" + ladder)
	x.says("Last week")
	x.says("was to bring the blue book")
	x.accessible("a lesson with the last time")
	x.quiet()
}

// A notebook is pasted: two lines are doubtful, one is new, the rest is found; what changes is said, entered
// in one press, and taken back in one. The touches for a student in the middle of a second book are counted.
func TestANotebookIsEntered(t *testing.T) {
	x := begins(t, 1280, 800)
	ladder := x.student("Nell Farrow", "piano", 1, "15:00")
	for i := range 27 {
		x.piece(fmt.Sprintf("Harbour tune number %c%c", 'A'+i, 'z'-i), "piano", "")
	}
	x.visit("/known/" + ladder)
	list := ""
	for i := range 27 {
		list += fmt.Sprintf("%d. harbour tune number %c%c\n", i+1, 'a'+i, 'z'-i)
	}
	list += "Harbour tune numbr Aq\nHarbour tune nmber Bq\nSomething quite different\n"
	x.paste(`textarea[aria-label="Titles, one a line"]`, list)
	x.touches++
	x.touch(button("Read the list"))
	x.says("Of 30 lines: 27 found, 2 to check, 1 new.")
	x.accessible("a pasted notebook")
	x.says("2 lines are doubtful")
	x.touch(button("No, new"))
	x.says("1 line is doubtful")
	x.touch(button("Yes"))
	x.says("pieces learned before")
	x.touch(button("Enter it"))
	x.says("things known before, entered on 4 May")
	t.Logf("a notebook of thirty pieces: %d touches", x.touches)
	require.LessOrEqual(t, x.touches, 15)
	x.visit("/ladder/" + ladder)
	x.says("Something quite different")
	x.visit("/known/" + ladder)
	x.touch(button("Undo all of it"))
	x.until(`!document.body.innerText.includes("known before, entered on")`)
	x.visit("/ladder/" + ladder)
	x.says("Where to begin")

	// A student in the middle of a second book: both up to here, three keys, and the rest onto the ladder.
	x.touches = 0
	for _, book := range []string{"First Steps", "Second Steps"} {
		eval[bool](x.browser, fmt.Sprintf(`(async () => {
			const letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ", id = "0" + Array.from({length: 25}, () => letters[Math.floor(Math.random() * 32)]).join("");
			const table = "title\n" + Array.from({length: 12}, (_, i) => %[1]q + " " + (i + 1)).join("\n");
			const r = await fetch("/api/library/import", {method: "POST", headers: {"Content-Type": "application/json"},
				body: JSON.stringify({kind: "csv", data: btoa(table), source: id, title: %[1]q, instrument: "piano", strand: "method", fields: ["title"], try: false, leaveOut: false})});
			return r.ok;
		})()`, book))
	}
	x.visit("/known/" + ladder)
	x.touch(button("First Steps"))
	x.touch(`//ol[@aria-label="First Steps"]//button[.="First Steps 12"]`)
	x.touch(button("Second Steps"))
	x.touch(`//ol[@aria-label="Second Steps"]//button[.="Second Steps 6"]`)
	for _, key := range []string{"C major", "G major", "F major"} {
		x.touch(fmt.Sprintf(`//ul[@aria-label="Keys"]//button[.=%q]`, key))
	}
	x.says("21 pieces learned before")
	x.touch(button("Enter it"))
	x.says("things known before, entered on 4 May")
	t.Logf("a student in the middle of a second book: %d touches", x.touches)
	require.Less(t, x.touches, 15)
	x.visit("/ladder/" + ladder)
	x.says("Second Steps 7")
	x.quiet()
}

// On Tuesday Wednesday's lesson goes to Friday, one is cancelled late, one by the teacher is made up; holidays
// take the rest; Today, the calendar and the week know.
func TestTheCalendarIsLivedWith(t *testing.T) {
	x := begins(t, 1280, 800)
	nell := x.student("Nell Farrow", "piano", 3, "15:30")
	x.student("Ivo Quay", "cello", 5, "10:00")
	x.later(1)
	x.visit("/calendar")
	x.says("Two lessons.")
	x.accessible("the calendar")
	x.touch(`//button[@aria-roledescription="lesson" and contains(., "Nell")]`)
	x.says("Free times near it")
	x.accessible("a lesson in the calendar")
	x.set(`//*[@role="dialog"]//input[@type="date"]`, "2026-05-08")
	x.set(`//*[@role="dialog"]//input[@type="time"]`, "10:15")
	x.touch(button("Move this lesson"))
	x.says("two at the same time as another")
	x.says("Moved from Wed 6 May")
	x.visit("/?day=2026-05-08")
	x.says("Two lessons on this day")
	x.says("at the same time as Ivo Quay")
	x.visit("/?day=2026-05-06")
	x.says("Moved to Fri 8 May, 10:15")
	// The week after: late by the student, then by the teacher.
	x.visit("/calendar?day=2026-05-13")
	x.touch(`//button[@aria-roledescription="lesson" and contains(., "Nell")]`)
	x.touch(`//label[contains(., "Cancelled late")]/input`)
	x.touch(button("The student cancels"))
	x.says("one cancelled")
	x.touch(`//button[@aria-roledescription="lesson" and contains(., "Ivo")]`)
	x.touch(button("I cancel"))
	x.says("one to make up")
	x.touch(`//section[@aria-label="To make up"]//button[contains(., "Ivo")]`)
	x.set(`//*[@role="dialog"]//input[@type="date"]`, "2026-05-14")
	x.touch(button("Make it up then"))
	x.says("Makes up for Fri 15 May")
	x.says("Nothing is to be made up.")
	// By drag: Ivo's make-up goes an hour on.
	x.visit("/calendar?day=2026-05-14")
	ivo := `//button[@aria-roledescription="lesson" and contains(., "Makes up for")]`
	x.see(ivo)
	x.drag(ivo, 90)
	x.until(`document.querySelector("[role=dialog] input[type=time]")?.value === "11:00"`)
	x.touch(button("Move this lesson"))
	x.see(`//button[@aria-roledescription="lesson" and contains(., "Ivo Quay") and contains(., "11:00")]`)
	x.visit("/calendar?day=2026-05-14&view=month")
	x.see(`//button[@aria-roledescription="lesson" and contains(., "Ivo")]`)
	x.accessible("a month")
	// Holidays.
	x.fill(`input[name=name]`, "May week")
	x.set(`input[name=first]`, "2026-05-18")
	x.set(`input[name=last]`, "2026-05-24")
	x.click(button("Add it"))
	x.says("May week")
	x.visit("/?day=2026-05-20")
	x.says("May week")
	x.says("No lessons on this day")
	x.visit(
		"/student/" + eval[string](
			x.browser,
			`fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("Nell")).student)`,
		),
	)
	x.says("next: Friday, 8 May, 10:15")
	// On Sunday the week goes on past what was cancelled and the holidays to the next lesson that takes place.
	x.later(5)
	x.visit("/week/" + nell)
	x.says("from Saturday 9 May")
	days := eval[int](x.browser, `document.querySelectorAll("ol[aria-label=Days] > li").length`)
	require.Equal(t, 19, days, "to 27 May")
	x.quiet()
	for _, size := range [][2]int64{{820, 1180}, {390, 844}} {
		x.do(chromedp.EmulateViewport(size[0], size[1]))
		for _, path := range []string{"/calendar", "/calendar?view=month", "/", "/past/" + nell, "/known/" + nell, "/week/" + nell, "/lesson/" + nell, "/student/" + eval[string](x.browser, `fetch("/api/students").then(r => r.json()).then(l => l[0].student)`)} {
			x.visit(path)
			x.see(`main h1`)
			x.fits(fmt.Sprint(path, " at ", size[0]))
		}
	}
}

// A mark that was wrong is corrected a week later, and a note added that was forgotten; undo and redo.
func TestALessonThatWasIsCorrected(t *testing.T) {
	x := begins(t, 1280, 800)
	ladder := x.student("Nell Farrow", "piano", 1, "15:30")
	piece := x.piece("Low Water", "piano", ladder)
	x.log(ladder, "2026-04-27T15:30:00Z", fmt.Sprintf(`kind: "assigned", material: %q`, piece))
	x.log(ladder, "2026-04-27T15:40:00Z", fmt.Sprintf(`kind: "cleared", material: %q`, piece))
	x.visit("/past/" + ladder)
	x.says("Cleared “Low Water”.")
	x.accessible("past lessons")
	x.touch(`//button[starts-with(@aria-label, "Take back: “Low Water” cleared")]`)
	x.says("One entry with one piece.")
	x.enter(`input[name=text]`, "heavy elbows")
	x.touch(button("Add it"))
	x.says("heavy elbows")
	x.fill(`input[aria-label="Search past lessons"]`, "elbows")
	x.says("Found in one lesson.")
	x.visit("/ladder/" + ladder)
	x.says("Working on “Low Water”")
	x.visit("/lesson/" + ladder)
	x.says("Last week")
	x.says("heavy elbows")
	x.touch(`//button[starts-with(., "full")]`)
	x.says("1 of 3 points secure")
	x.touch(`//button[starts-with(@aria-label, "Take back: Steady pulse")]`)
	x.says("0 of 3 points secure")
	x.touch(`//button[starts-with(@aria-label, "Put back: Steady pulse")]`)
	x.says("1 of 3 points secure")
	x.quiet()
}

// A student pauses and comes back, another leaves and returns; an instrument is changed; a form that is half
// filled asks before it forgets.
func TestAStudentIsEditedPausedAndReturns(t *testing.T) {
	x := begins(t, 1280, 800)
	x.student("Nell Farrow", "ukulele", 1, "15:30")
	id := eval[string](x.browser, `fetch("/api/students").then(r => r.json()).then(l => l[0].student)`)
	x.visit("/student/" + id)
	x.says("Ukulele, Mondays 15:30, 30 min.")
	x.accessible("a student")
	x.retype(`//label[contains(., "Called")]//input`, "Nelly")
	x.click(button("Calendar"))
	x.says("Not saved yet")
	x.accessible("a form that is half filled")
	x.click(button("Go on with it"))
	x.until(`!document.querySelector("[role=alertdialog]") && document.body.style.pointerEvents !== "none"`)
	x.click(button("Add a contact"))
	x.retype(`//fieldset[contains(., "Contacts")]//label[contains(., "Name")]//input`, "Dana")
	x.click(button("Save"))
	x.says("Saved")
	x.click(button("Pause"))
	x.says("No lessons since 4 May 2026, until further notice")
	x.says("Lessons are paused.")
	x.visit("/")
	x.says("No lessons today")
	x.visit("/student/" + id)
	x.click(button("Remove the pause"))
	x.until(`!document.body.innerText.includes("Lessons are paused")`)
	x.says("Ukulele, Mondays 15:30, 30 min.")
	x.click(button("Nelly leaves"))
	x.click(button("Yes, Nelly leaves"))
	x.says("Nelly left on 4 May 2026. Everything is kept.")
	x.visit("/overview")
	x.says("No students yet")
	x.visit("/student/" + id)
	x.click(button("Nelly is back"))
	x.says("Ukulele, Mondays 15:30, 30 min.")
	x.click(button("Change the instrument"))
	x.fill(`input[name=instrument]`, "Voice")
	x.click(button("Change it"))
	x.says("Voice, Mondays 15:30, 30 min.")
	x.click(button("Change the lesson times"))
	x.set(`//*[@role="dialog"]//label[contains(., "From")]//input`, "2026-05-11")
	x.set(`//*[@role="dialog"]//input[@type="time"]`, "16:00")
	x.click(button("Save the lesson times"))
	x.says("next: Monday, 4 May, 15:30")
	x.visit("/calendar?day=2026-05-11")
	x.see(`//button[@aria-roledescription="lesson" and contains(., "Nell Farrow") and contains(., "16:00")]`)
	x.do(chromedp.KeyEvent("/"))
	x.fill(`input[placeholder^="A student"]`, "nell past")
	x.until(`document.querySelector('[cmdk-item][aria-selected="true"]')?.innerText.includes("Past lessons")`)
	x.do(chromedp.KeyEvent("\r"))
	x.says("No lessons entered.")
	x.until(`document.title.startsWith("Nell Farrow, past lessons")`)
	x.quiet()
}

// A theme is split into four sections, two are cleared, and it is joined again.
func TestAThemeIsSplit(t *testing.T) {
	x := begins(t, 1280, 800)
	ladder := x.student("Nell Farrow", "piano", 1, "15:30")
	piece := x.piece("Theme with variations", "piano", ladder)
	x.visit("/piece/" + piece)
	x.click(button("Sections"))
	for range 2 {
		x.click(button("Add a section"))
	}
	for i, title := range []string{"Theme", "Galloping", "Dotted", "Running"} {
		x.fill(fmt.Sprintf(`//label[contains(., "Section %d")]//input`, i+1), title)
	}
	x.accessible("sections")
	x.click(button("Split it"))
	x.until(`!document.querySelector("[role=dialog]")`)
	x.visit("/ladder/" + ladder)
	for _, title := range []string{"Theme", "Galloping", "Dotted", "Running"} {
		x.see(fmt.Sprintf(`//section[@aria-label="Ladder"]//li/button[contains(., %q)]`, title))
	}
	for _, title := range []string{"Theme", "Galloping"} {
		id := eval[string](
			x.browser,
			fmt.Sprintf(
				`fetch("/api/ladders/%s").then(r => r.json()).then(v => v.rails.flatMap(r => r.rungs).find(r => r.title === %q).material)`,
				ladder,
				title,
			),
		)
		x.log(ladder, "2026-05-04T15:30:00Z", fmt.Sprintf(`kind: "cleared", material: %q`, id))
	}
	x.visit("/piece/" + piece)
	x.click(button("Sections"))
	x.says("Split into four sections")
	x.click(button("Join the sections again"))
	x.until(`!document.querySelector("[role=dialog]")`)
	x.visit("/ladder/" + ladder)
	x.see(`//section[@aria-label="Ladder"]//li/button[contains(., "Theme with variations")]`)
	x.quiet()
}

// Several files are given at once: what can be read goes onto the ladder, what
// cannot is named with its reason and holds nothing back.
func TestSeveralFilesAreBroughtAtOnce(t *testing.T) {
	x := begins(t, 1280, 800)
	ladder := x.student("Nell Farrow", "piano", 1, "15:30")
	x.visit("/ladder/" + ladder)
	x.click(button("Add a piece"))
	x.see(`[role=dialog] input[type=file]`)
	given := append(file(t, "kettle.musicxml", ownTune), file(t, "letter.musicxml", "Dear teacher")...)
	given = append(given, file(t, "tunes.abc", fileOfTunes)...)
	x.do(chromedp.SetUploadFiles(`input[type=file]`, given))
	x.says("kettle.musicxml: MusicXML, one piece")
	x.says("tunes.abc: ABC, 3 pieces")
	x.says("“letter.musicxml” cannot be read: this is not a MusicXML file")
	x.accessible("several files")
	x.click(`//label[contains(., "Two Hands at the Tiller")]//input`)
	x.click(button("Put 3 pieces"))
	x.see(`[data-testid=marks]`)
	titles := eval[string](
		x.browser,
		fmt.Sprintf(`fetch("/api/ladders/%s").then(r => r.json()).then(v => v.rails.flatMap(r => r.rungs).map(r => r.title).join(", "))`, ladder),
	)
	require.NotContains(t, titles, "Two Hands at the Tiller")
	require.Equal(t, 2, strings.Count(titles, ", "), titles)
	x.quiet()
}
