package e2e_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// The picture of a student: a touch on a piece leads to its lessons; a sentence says where it comes from; other days are
// looked at, and days that make no span are refused in a sentence.
func TestLookBack(t *testing.T) {
	b := open(t, 1280, 800)
	b.visit("/sign-in")
	b.see(`input[name=email]`)
	b.signIn(demo.Email, demo.Password)
	b.says("Ivo Sandgate")
	maren := b.student("Maren")
	b.visit("/ladder/" + maren)
	b.click(`//a[.="progress"]`)
	b.says("pieces cleared")
	b.accessible("progress")
	b.fits("progress")
	// The piece that was cleared last: which one it is depends on how the demo's lessons went.
	title := eval[string](
		b,
		fmt.Sprintf(
			`fetch("/api/ladders/%s/progress").then(r => r.json()).then(p => p.pieces.filter(x => x.to && x.strand !== "technique").sort((a, b) => a.to < b.to ? -1 : 1).pop().title)`,
			maren,
		),
	)
	b.click(`button[aria-label^="` + title + `"]`)
	b.click(`//aside//section[@aria-label="` + title + `"]//a[contains(., "Cleared:")]`)
	b.says("Run of “" + title + "”: cleared")
	b.visit("/progress/" + maren)
	b.click(`//section[@aria-label="What grew"]//button[contains(., "why?")]`)
	b.says("Run of “" + title + "”: cleared")
	b.click(`//button[.="All"]`)
	b.until(`document.querySelectorAll('button[aria-label$="weeks"]').length > 12`)
	b.visit("/progress/" + maren + "?from=" + today.Format(time.DateOnly) + "&to=" + today.AddDate(0, 0, -3).Format(time.DateOnly))
	b.says("The span ends before it begins")
	b.quiet()
}

// The term's reports of the whole studio in one sitting: one touch to begin and one for each student, and a changed
// sentence for one of them; the family finds hers on its page.
func TestReportsInARow(t *testing.T) {
	x := begins(t, 1280, 800)
	ladders := map[string]string{}
	for i, name := range []string{"Ada Moss", "Ben Tarn", "Cleo Wick"} {
		ladders[name] = x.student(name, "piano", 1+i, "15:00")
		piece := x.piece(fmt.Sprint("Tune of ", name), "piano", ladders[name])
		x.log(ladders[name], "2026-03-02T15:00:00Z", fmt.Sprintf(`"kind": "assigned", "material": %q`, piece))
		x.log(ladders[name], "2026-03-23T15:00:00Z", fmt.Sprintf(`"kind": "cleared", "material": %q`, piece))
	}
	x.visit("/overview")
	x.click(`//a[.="Reports"]`)
	x.says("Three of three reports of this term still to publish.")
	x.accessible("the reports of a term")
	x.touches = 0
	x.touch(`//a[.="Begin with Ada Moss"]`)
	x.says("Ada has learned one piece: “Tune of Ada Moss”.")
	x.accessible("a report")
	x.touch(`//button[starts-with(normalize-space(.), "Publish, then Ben") and not(@disabled)]`)
	x.says("Ben has learned one piece")
	// One sentence is said otherwise; what is entered meanwhile leaves it alone and says so.
	x.touch(`//li[contains(., "Ben has learned")]//button[contains(., "Change")]`)
	x.retype(`//textarea[@aria-label="The sentence"]`, "Ben plays his tune with joy.")
	x.touch(button("Save"))
	x.says("Ben plays his tune with joy.")
	second := x.piece("Second Tune", "piano", ladders["Ben Tarn"])
	x.log(ladders["Ben Tarn"], "2026-04-06T15:00:00Z", fmt.Sprintf(`"kind": "cleared", "material": %q`, second))
	x.visit(eval[string](x.browser, `location.pathname`))
	x.says("The facts say now: Ben has learned two pieces")
	x.touch(button("Keep mine"))
	x.until(`!document.body.innerText.includes("The facts say now")`)
	x.touch(`//button[starts-with(normalize-space(.), "Publish, then Cleo") and not(@disabled)]`)
	x.says("Cleo has learned one piece")
	x.touch(button("Publish"))
	x.says("On the family’s page since 4 May 2026.")
	require.LessOrEqual(t, x.touches, 1+3+3, "one to begin, one for each, three for the changed sentence")
	x.visit("/reports")
	x.says("Every report of this term is published.")

	link := eval[string](x.browser, `fetch("/api/ladders/`+ladders["Ben Tarn"]+`/week").then(r => r.json()).then(w => w.family.link)`)
	x.visit(link)
	x.says("Ben plays his tune with joy.")
	x.accessible("the family's page with a report")
	x.quiet()
}

// A recital of six students: chosen by a touch each, in the usual order, moved by hand.
func TestARecital(t *testing.T) {
	b := open(t, 1280, 800)
	b.visit("/sign-in")
	b.see(`input[name=email]`)
	b.signIn(demo.Email, demo.Password)
	b.says("Ivo Sandgate")
	b.visit("/overview")
	b.click(`//a[.="Recital"]`)
	b.says("No piece is chosen yet.")
	for _, name := range []string{"Caspian Rook", "Tobias Lund-Harker", "Maren Quill", "Ivo Sandgate", "Wren Tolliver", "Piper Ashdown"} {
		b.click(`//h3[contains(., "` + name + `")]/following-sibling::div//button[1]`)
	}
	b.says("Six pieces, about")
	b.accessible("a recital")
	b.fits("a recital")
	names := func() string {
		return eval[string](
			b,
			`[...document.querySelectorAll('section[aria-label="The programme"] li .block')].map((x) => x.innerText.split(" ")[0]).join(" ")`,
		)
	}
	require.Equal(t, "Wren Ivo Maren Tobias Piper Caspian", names(), "the youngest first")
	b.click(`//section[@aria-label="The programme"]//li[2]//button[contains(@aria-label, "earlier")]`)
	b.until(`document.querySelector('section[aria-label="The programme"] li .block').innerText.startsWith("Ivo")`)
	b.click(button("In the usual order"))
	b.until(`document.querySelector('section[aria-label="The programme"] li .block').innerText.startsWith("Wren")`)
	b.quiet()
}

// The studio's year: who stalls where and whom to talk to; what was learned is used after what would move was read, and left off.
func TestTheStudiosYear(t *testing.T) {
	b := open(t, 1280, 800)
	b.visit("/sign-in")
	b.see(`input[name=email]`)
	b.signIn(demo.Email, demo.Password)
	b.says("Ivo Sandgate")
	b.visit("/overview")
	b.click(`//a[.="The year"]`)
	b.says("times as long as expected")
	b.says("If it were used, jumps and dates would move")
	b.accessible("the studio's year")
	b.fits("the studio's year")
	b.click(button("Use what was learned"))
	b.says("What was learned here is used since")
	b.click(`//button[.="Leave it off" and not(@disabled)]`)
	b.says("The table’s weights and the published memory are used.")
	b.quiet()
}
