package e2e_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// Any scale: the meeting points light up on the keyboard, it sounds, and keys
// that do not exist are refused with a sentence.
func TestWhereTheHandsMeet(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Technique"))
	b.click(button("Any scale"))
	b.says("3 with 3 on E and 3 with 3 on A")
	b.click(`//fieldset//button[.="D♭"]`)
	b.says("the thumbs together on F and C; the same fingers side by side on D♭, E♭, G♭, A♭ and B♭.")
	require.Equal(t, 8, b.count(`[data-meet]`), "every note of D flat is one, the tonic above too")
	b.accessible("any scale")
	b.click(`//fieldset//button[.="right"]`)
	b.until(`document.querySelectorAll("[data-meet]").length === 0`)
	b.click(button("Hear it"))
	b.until(`document.querySelector('svg[role=img] rect[fill="var(--color-focus)"]') !== null`)
	b.click(button("Stop"))
	b.choose(`//label[contains(., "Kind")]//select`, "Melodic minor")
	b.says("right, down")
	b.visit("/technique/scale?key=H&kind=major")
	b.says("is not a key")
	b.visit("/technique/scale?key=C&kind=major&octaves=9")
	b.says("Octaves must lie between 1 and 4, not 9.")
	b.click(button("Back to C major"))
	b.says("3 with 3 on E")
	b.quiet()
	phone := open(t, 390, 844)
	phone.signIn(demo.Email, demo.Password)
	phone.says("lessons today")
	phone.visit("/technique/scale?key=F%23&kind=major&octaves=2")
	phone.says("The hands meet")
	phone.fits("any scale")
	phone.accessible("any scale on a phone")
	phone.quiet()
}

// One student's technique: today's exercise with its goals, the meeting points, the cycle with a
// break, a scale that is through, the tempo ladder on real marks, the gate in the week.
func TestTechniqueAsItsOwnLadder(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	caspian := b.student("Caspian")
	b.click(button("Technique"))
	b.says("keys in all have passed once")
	b.choose(`//label[contains(., "whose technique")]//select`, "Caspian Rook, piano")
	b.says("Caspian is on D♭ major scale: one octave, hands together.")
	b.says("stop where the hands meet, then join those places")
	b.see(`[data-meet]`)
	require.Equal(t, 8, b.count(`[data-meet]`))
	b.see(`[data-testid=engraving] svg`)
	b.accessible("technique of a student")
	// A usual fault that was seen is gone; a goal gets its mark.
	b.click(`//section[@aria-label="Usual faults"]//button[contains(., "the thumb bumps")]`)
	b.see(`//section[@aria-label="Usual faults"]//button[contains(., "the thumb bumps") and contains(., "gone")]`)
	b.click(`button[aria-label="both hands arrive together: full"]`)
	b.see(`button[aria-label="both hands arrive together: full"][aria-pressed=true]`)

	// The cycle: it is kept; another one from B with a half-term break.
	b.says("A missed lesson moved the end by a week")
	b.says("The next pass waits: two octaves, hands together.")
	day := func(weeks int) string { return today.AddDate(0, 0, 7*weeks).Format(time.DateOnly) }
	put := eval[int](
		b,
		fmt.Sprintf(`fetch("/api/holidays/01J0000000000000000000TERM", {method: "PUT", headers: {"content-type": "application/json"},
		body: JSON.stringify({name: "Half term", first: "%s", last: "%s"})}).then(r => r.status)`, day(5), today.AddDate(0, 0, 7*5+6).Format(time.DateOnly)),
	)
	require.Equal(t, 204, put)
	b.click(button("Another cycle"))
	b.choose(`//label[contains(., "first key")]//select`, "B")
	b.choose(`//label[contains(., "pass")]//select`, "One octave, hands apart")
	b.says("Twelve keys from B to E, one octave, hands apart: the last is heard on")
	b.says("without a lesson")
	b.says("week off")
	b.accessible("a cycle to try")
	b.click(button("Keep this cycle"))
	b.says("12 of 12 through. The next pass waits: one octave, hands apart, from memory.")

	// The scale is through: the staircase moves on, and the next is begun.
	b.click(button("Mark as passed"))
	b.until(`!document.querySelector("h1").innerText.includes("D♭")`)
	b.visit("/technique?ladder=" + caspian + "&exercise=scale/faster/C/major/-")
	b.says("C major scale")
	b.click(button("Begin this one"))
	b.says("no faster than it is even")
	b.retype(`//label[contains(., "from, as")]//input`, "60")
	b.retype(`//label[contains(., "in weeks")]//input`, "0")
	b.says("A climb takes 1 to 104 weeks, not 0.")
	b.retype(`//label[contains(., "in weeks")]//input`, "5")
	tempi := func() string {
		return eval[string](b, `[...document.querySelectorAll('ol[aria-label="Weeks"] strong')].map(e => e.innerText).join(" ")`)
	}
	b.see(`ol[aria-label="Weeks"] strong`)
	require.Equal(t, "66 72 80 88 96", tempi())
	b.click(button("Keep it"))
	b.says("66 this week; 96 in five weeks")
	b.click(button("66 held"))
	b.says("72 this week; 96 in four weeks")
	b.click(button("72 did not hold"))
	b.says("eased back once")
	require.Equal(t, "66 66 72 80 88 96", tempi())

	// The left hand waits until it is taught: the week says so.
	b.choose(`select[aria-label="Hands at home for C major scale"]`, "right hand only")
	b.says("At home the right hand only")
	b.visit("/week/" + caspian)
	b.says("Not yet")
	b.until(
		`[...document.querySelectorAll("section, div")].some(s => s.innerText.startsWith("Not yet") && s.innerText.includes("C major scale"))`,
	)
	b.visit("/ladder/" + caspian)
	b.see(`ul[aria-label="Proposed by the staircases"] a`)
	b.visit("/technique?ladder=" + caspian + "&exercise=scale/apart/H/major/-")
	b.says("is not a key")
	b.quiet()

	phone := open(t, 390, 844)
	phone.signIn(demo.Email, demo.Password)
	phone.says("lessons today")
	phone.visit("/technique?ladder=" + caspian)
	phone.says("The staircases")
	phone.fits("technique of a student")
	phone.accessible("technique of a student on a phone")
	phone.quiet()
}

// Strings: the bites of the cello student come from the staircase; the ukulele's roll lights its
// strings and fingers at 80; the exercise is printed.
func TestTechniqueOnStrings(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.visit("/lesson/" + b.student("Tobias"))
	b.says("Prepare")
	b.click(`//section[@aria-label="Prepare"]//a[contains(., "pattern of C major")]`)
	b.says("On the A string the fingers are")
	b.see(`section[aria-label="Finger patterns"] tr`)
	require.Equal(t, 4, b.count(`section[aria-label="Finger patterns"] tr`))
	b.accessible("technique on a cello")
	b.visit("/technique?ladder=" + b.student("Piper"))
	b.says("The thumb (p) has string 4, the index (i) has string 3, the middle finger (m) has string 2 and the ring finger (a) has string 1")
	require.Equal(t, "80", eval[string](b, `document.querySelector("input[type=range]").value`))
	b.click(button("Hear it"))
	b.until(`document.querySelector('[data-string="4"][data-on]') !== null`)
	b.until(
		`document.querySelector('[data-string="2"][data-on]') !== null && document.querySelector('[data-stroke=now] text').textContent === "m"`,
	)
	b.click(button("Stop"))
	b.accessible("technique on a ukulele")
	sheet := eval[string](
		b,
		`fetch([...document.querySelectorAll("a")].find(a => a.innerText === "Print it").href).then(r => r.headers.get("content-type"))`,
	)
	require.Equal(t, "application/pdf", sheet)
	b.quiet()
}

// A violin is data alone: a student who plays it has a staircase, bows, patterns and a cycle without a
// line of code that names it. An exercise taken for the student is marked in the lesson and taken back.
func TestAnInstrumentThatIsDataAlone(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Students"))
	b.click(button("Add a student"))
	b.until(`[...document.querySelectorAll("option")].some(o => o.text === "violin")`)
	b.fill(`input[name=name]`, "Isla Fennick")
	b.do(chromedp.SetValue(`input[name=born]`, "2014-05-06"))
	b.choose(`select[name=weekday]`, today.AddDate(0, 0, 3).Weekday().String()) // not among today's lessons
	b.choose(`//label[contains(., "Instrument")]//select`, "violin")
	b.do(chromedp.Click(`//button[@type="submit" and contains(., "Add the student")]`))
	b.says("Isla Fennick")
	b.until(`location.pathname.startsWith("/ladder/")`)
	ladder := eval[string](b, `location.pathname.split("/").pop()`)
	b.visit("/technique?ladder=" + ladder)
	b.says("Next for Isla: Bows on open strings, A string, whole bows.")
	b.click(button("Begin"))
	b.says("Isla is on Bows on open strings, A string: whole bows.")
	b.click(`button[aria-label="straight from frog to tip: full"]`)
	b.says("1 of 3 points secure.")
	b.click(button("Take it back"))
	b.says("0 of 3 points secure.")
	b.visit("/lesson/" + ladder)
	b.says("the bow shoulder rises")
	b.click(`//section[@aria-label="Usual faults"]//button[contains(., "the bow shoulder rises")]`)
	b.see(`//section[@aria-label="Usual faults"]//button[contains(., "the bow shoulder rises") and contains(., "seen")]`)
	b.says("Fault: the bow shoulder rises, seen")
	b.accessible("a lesson with an exercise")
	b.click(button("See it on the instrument"))
	b.says("0 of 4 points secure.")
	b.choose(`//label[contains(., "exercise")]//select`, "Scales over the strings")
	b.see(`section[aria-label="Finger patterns"] tr`)
	b.visit("/library?for=violin")
	b.says("exercise of the staircases")
	b.quiet()
}

// The atlas shows every student of an instrument; a cell opens that student at the pass that comes next.
// An instrument that nobody plays says so, and its exercises can be looked at all the same.
func TestTheAtlasOfKeys(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.visit("/technique?for=piano")
	b.says("have passed once")
	b.accessible("the atlas of keys")
	b.click(`button[aria-label^="Maren Quill, G: 1 through; the next waits: one octave, hands apart, from memory"]`)
	b.until(`location.search.includes("scale%2Fmemory%2FG%2Fmajor")`)
	b.says("one octave, hands apart, from memory")
	b.says("Begin this one")
	b.visit("/technique?for=piano")
	b.choose(`//section[@aria-label="Atlas of keys"]//select`, "Harmonic minor")
	b.see(`//section[@aria-label="Atlas of keys"]//th[.="F♯"]`)
	b.choose(`//label[contains(., "whose technique")]//select`, "all who play the banjo")
	b.says("Nobody plays this instrument here yet.")
	b.choose(`//label[contains(., "roll")]//select`, "Backward")
	b.says("The thumb (")
	b.see(`svg [data-string="5"]`)
	b.choose(`//label[contains(., "step")]//select`, "Through a change of chords")
	b.until(`document.querySelectorAll('svg[aria-label^="C:"], svg[aria-label^="F:"]').length === 2`)
	b.accessible("a banjo's roll")
	b.quiet()
}
