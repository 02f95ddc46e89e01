// Package e2e_test drives the real interface in headless Chromium.
package e2e_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// ownTune is a file as a teacher would bring it: two voices on two staves.
const ownTune = `<?xml version="1.0" encoding="UTF-8"?>
<score-partwise version="4.0"><work><work-title>Kettle Tune</work-title></work>
<part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">
<measure number="1"><attributes><divisions>1</divisions><key><fifths>0</fifths><mode>major</mode></key><time><beats>4</beats><beat-type>4</beat-type></time><staves>2</staves>
<clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>
<note><pitch><step>C</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice><type>quarter</type><staff>1</staff></note>
<note><pitch><step>E</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice><type>quarter</type><staff>1</staff></note>
<note><pitch><step>D</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice><type>quarter</type><staff>1</staff></note>
<note><pitch><step>D</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice><type>quarter</type><staff>1</staff></note>
<backup><duration>4</duration></backup>
<note><pitch><step>C</step><octave>3</octave></pitch><duration>4</duration><voice>5</voice><type>whole</type><staff>2</staff></note></measure>
<measure number="2"><note><pitch><step>C</step><octave>5</octave></pitch><duration>4</duration><voice>1</voice><type>whole</type><staff>1</staff></note>
<backup><duration>4</duration></backup>
<note><pitch><step>G</step><octave>3</octave></pitch><duration>4</duration><voice>5</voice><type>whole</type><staff>2</staff></note></measure>
</part></score-partwise>`

func file(t *testing.T, name, content string) []string {
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, []byte(content), 0o600))
	return []string{path}
}

// The week's work, from today's lesson to the sheet for home.
func TestFromTodayToTheWeekAtHome(t *testing.T) {
	b := open(t, 1280, 800)
	b.visit("/")
	b.see(`input[name=email]`)
	b.accessible("sign in")
	b.fill(`input[name=email]`, b.own())
	b.fill(`input[name=password]`, "not the password")
	b.click(`button[type=submit]`)
	b.says("The e-mail address or the password is not right.")
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.says("Ivo Sandgate")
	b.accessible("today")

	// The lesson: the working piece, its focus points and one of the student's own.
	b.click(`//article[contains(., "Ivo Sandgate")]//a[starts-with(., "Open")]`)
	b.says("own point, goes with every piece")
	b.accessible("lesson")
	title := eval[string](b, `document.querySelector("article h2").innerText`)
	point := func(n string) string {
		return `//ol[@aria-label="Focus points"]/li[` + n + `]//button`
	}
	give := func(n, mark string) {
		b.click(point(n))
		b.click(`//section[@aria-label="Focus point"]//button[contains(., "` + mark + `")]`)
		b.see(point(n) + `//*[local-name()="title" and .="` + map[string]string{"full": "full", "part": "part"}[mark] + `"]/..`)
	}
	give("1", "full")
	give("2", "full")
	give("3", "part")
	b.do(chromedp.KeyEvent("h"))
	b.see(`button[aria-label="Bar 2"]`)
	b.click(`button[aria-label="Bar 2"]`)
	b.says("now tap the last bar")
	b.click(`button[aria-label="Bar 3"]`)
	b.says("bars 2–3")

	// A run with the rhythm missing: the piece stays and says why; the wrong tap is taken back.
	b.click(button("Try a run"))
	b.see(`[role=dialog]`)
	b.accessible("run")
	b.click(button("All five were met"))
	b.click(`button[aria-label="Right rhythm: missed"]`)
	b.click(button("Record the run"))
	b.says("It stays a working piece: the rhythm did not hold.")
	b.click(`button[aria-label^="Take back: Run of"]`)
	b.do(chromedp.WaitNotPresent(`button[aria-label^="Take back: Run of"]`))

	// Again, this time with a double click: cleared, and recorded once.
	b.click(button("Try a run"))
	b.see(`[role=dialog]`)
	b.click(button("All five were met"))
	b.click(`//button[.="It held" or .="They held"]`)
	b.do(chromedp.DoubleClick(button("It met the standard")))
	b.says("“" + title + "” is cleared.")
	b.says("Next on Method")
	b.says("Recorded today")
	runs := eval[int](b, `document.querySelectorAll('button[aria-label^="Take back: Run of"]').length`)
	require.Equal(t, 1, runs)
	next := eval[string](b, `document.querySelector('[aria-label="Next rung"] h2').firstChild.textContent`)
	b.says("leap ")
	b.accessible("cleared")

	// The ladder has moved: the piece is in review, the proposal becomes the working piece.
	b.click(`//*[@aria-label="Next rung"]` + button("Begin “"+next+"”"))
	b.click(button("Ladder"))
	b.says("orking on “" + next + "”")
	b.see(`//li//button[contains(., "` + next + `")]`)
	b.accessible("ladder")

	// A piece of one's own: first a file that is none, then a real one.
	before := eval[int](b, `document.querySelectorAll('[aria-label="Ladder"] li').length`)
	b.click(button("Add a piece"))
	b.see(`[role=dialog] input[type=file]`)
	b.do(chromedp.SetUploadFiles(`input[type=file]`, file(t, "letter.musicxml", "Dear teacher")))
	b.says("“letter.musicxml” cannot be read: this is not a MusicXML file")
	require.Equal(t, before, eval[int](b, `document.querySelectorAll('[aria-label="Ladder"] li').length`))
	b.accessible("add a piece")
	b.do(chromedp.SetUploadFiles(`input[type=file]`, file(t, "kettle.musicxml", ownTune)))
	b.says("MusicXML, one piece")
	b.click(button("Put it on"))
	b.says("Kettle Tune")
	b.see(`[data-testid=marks]`)
	directions := eval[[]string](b, `[...document.querySelectorAll("[data-testid=marks] g[data-direction]")].map(g => g.dataset.direction)`)
	require.Equal(t, []string{"up", "down", "same", "down", "up"}, directions, "every move is laid over its notes")
	b.says("Starts with the right hand, finger 1 on C")
	b.accessible("piece")
	b.click(button("See it on Ivo’s ladder"))
	b.see(`//li//button[contains(., "Kettle Tune")]`)

	// The week: days with chunks, counts and the student's own point, on one page.
	b.click(button("Week"))
	b.says("never more than")
	b.says("Say up, down or same aloud, then play it slowly.")
	b.says("say it before you play it")
	b.says("Not yet")
	b.says("Pain, tingling or numbness")
	b.accessible("week")

	b.click(button("Sign out"))
	b.see(`input[name=email]`)
	address := eval[string](
		b,
		`performance.getEntriesByType("resource").map(e => new URL(e.name).pathname).find(p => p.includes("/api/ladders/")) ?? ""`,
	)
	b.quiet()

	// Another studio's teacher reaches none of it.
	other := open(t, 1280, 800)
	other.signIn(strangerEmail, strangerPassword)
	other.says("Elsewhere")
	ladder := strings.Split(strings.TrimPrefix(address, "/api/ladders/"), "/")[0]
	require.Len(t, ladder, 26)
	for _, screen := range []string{"/ladder/", "/lesson/", "/week/"} {
		other.visit(screen + ladder)
		other.says("This does not exist in your studio.")
	}
}

// A spot, open since the lesson, is on the sheet until it is mended.
func TestSpotsReachTheSheet(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(`//article[contains(., "Tobias")]//a[starts-with(., "Open")]`)
	b.click(button("Mark a hard spot"))
	b.click(`button[aria-label="Bar 5"]`)
	b.click(`button[aria-label="Bar 6"]`)
	b.says("bars 5–6")
	b.says("Hard spot at bars 5–6") // the server has it: nothing moves any more
	b.click(button("Close the lesson"))
	b.until(`location.pathname.startsWith("/close/")`)
	b.says("hard spot")
	b.click(button("Edit the week"))
	b.says("The spot from the lesson")
	b.click(button("Lesson"))
	b.click(`//span[contains(., "bars 5–6")]/button[starts-with(., "Mended")]`)
	b.says("A hard spot is mended")
	b.quiet()
}

// A student of one's own, added by hand, with the first piece begun by keyboard.
func TestANewStudentBeginsTheBook(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Students"))
	b.click(button("Add a student"))
	b.fill(`input[name=name]`, "Nell Farrow")
	b.do(chromedp.SetValue(`input[name=born]`, "2019-03-04"))
	b.see(`//select[@name="source"]/option[contains(., "Harbour Steps")]/..`)
	eval[bool](b, `(() => { const s = document.querySelector("select[name=source]"); s.selectedIndex = 1; return true; })()`)
	b.accessible("add a student")
	b.do(chromedp.Click(`//button[@type="submit" and contains(., "Add the student")]`))
	b.says("Nothing in work: choose the next piece")
	b.click(button("Begin “Gulls on the Railing”"))
	b.says("Working on “Gulls on the Railing”")
	b.click(button("Lesson"))
	b.says("steady pulse")
	b.do(chromedp.KeyEvent("3"))
	b.says("1 of 3 points secure.")
	b.do(chromedp.KeyEvent("\b"))
	b.says("0 of 3 points secure.")
	b.quiet()
}

// On a phone every screen fits the width and stays accessible.
func TestOnAPhone(t *testing.T) {
	b := open(t, 390, 844)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.fits("today")
	ladder := eval[string](b, `document.querySelector('a[href^="/ladder/"]').getAttribute("href").slice(8)`)
	for screen, text := range map[string]string{"ladder": "comfortable leap", "lesson": "focus point", "week": "Not yet"} {
		b.visit("/" + screen + "/" + ladder)
		b.says(text)
		b.fits(screen)
		b.accessible(screen + " on a phone")
	}
	b.quiet()
}

// What else a lesson and a ladder need by hand: a learned piece is heard and
// rated, the student gets a point of their own, a rung comes off and on again.
func TestReviewOwnPointsAndRungsByHand(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(`//article[contains(., "Maren")]//a[starts-with(., "Open")]`)
	b.says("Hear again")
	b.click(`//section[@aria-label="Review"]//li[1]//button[starts-with(., "solid")]`)
	b.says("heard today: solid")
	bite := eval[string](b, `document.querySelector('[aria-label="Prepare"] li .font-semibold').innerText`)
	b.click(`//section[@aria-label="Prepare"]//li[1]//button[starts-with(., "Done")]`)
	b.do(chromedp.WaitNotPresent(`//section[@aria-label="Prepare"]//li[contains(., "` + bite + `")]`))
	b.says("Preview step")
	b.click(button("Add a point for Maren"))
	b.fill(`input[name=text]`, "elbows heavy")
	b.accessible("own point")
	b.click(button("Give it"))
	b.see(`//ol[@aria-label="Focus points"]//button[contains(., "elbows heavy")]`)

	b.click(button("Ladder"))
	b.choose(`//select[option[.="Everything"]]`, "Everything")
	b.click(`//li/button[contains(., "Storm Glass")]`)
	b.says("Leap, with everything below cleared:")
	b.click(`//section[@aria-label="Storm Glass"]//button[contains(., "Why")]`)
	b.says("weight × novelty of each skill")
	b.do(chromedp.KeyEvent("\x1b"))
	b.click(button("Read the piece"))
	b.says("See it on Maren’s ladder")
	b.do(chromedp.NavigateBack())
	b.choose(`//select[option[.="Everything"]]`, "Everything")
	b.click(`//li/button[contains(., "Storm Glass")]`)
	b.click(button("Remove from the ladder"))
	b.do(chromedp.WaitNotPresent(`//li/button[contains(., "Storm Glass")]`))
	b.click(button("Keep it"))
	b.do(chromedp.WaitNotPresent(`//button[.="Keep it"]`))
	b.do(chromedp.NavigateForward())
	b.click(button("Put it on Maren’s ladder"))
	b.says("See it on Maren’s ladder")
	b.quiet()
}
