package e2e_test

import (
	"fmt"
	"os"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// TestScreenshots takes the pictures of the README from the demo studio. It
// runs only when asked for (make screenshots).
func TestScreenshots(t *testing.T) {
	if os.Getenv("LADDER_SCREENSHOTS") == "" {
		t.Skip("only with LADDER_SCREENSHOTS=1")
	}
	inTheDemo(t)
	b := open(t, 1280, 800)
	take := func(name string) {
		b.until(`!document.body.innerText.includes("One moment")`)
		picture, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		require.NoError(t, err)
		require.NoError(t, os.WriteFile("../docs/screenshots/"+name+".png", picture, 0o644))
	}
	student := func(name string) string {
		return eval[string](b, `fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("`+name+`")).ladder)`)
	}
	piece := func(title string) string {
		return eval[string](b, `fetch("/api/materials").then(r => r.json()).then(l => l.find(m => m.title === "`+title+`").id)`)
	}
	b.visit("/sign-in")
	eval[bool](b, `(localStorage.setItem("look", "light"), true)`)
	b.visit("/sign-in")
	b.see(`input[name=email]`)
	b.signIn(demo.Email, demo.Password)
	b.says("Ivo Sandgate")
	take("today")
	b.visit("/calendar")
	b.says("To make up")
	take("calendar")
	ivo := student("Ivo")
	b.visit("/past/" + ivo)
	b.says("lessons entered")
	take("past")
	b.visit("/progress/" + ivo)
	b.says("What grew")
	take("progress")
	b.visit("/report/" + student("Maren") + "/01K00000000000000000000001")
	b.says("Your own words at the end")
	take("report")
	b.visit("/year")
	b.says("Pieces that stall")
	take("year")
	b.visit("/ladder/" + ivo)
	b.says("comfortable leap")
	take("ladder")
	b.visit("/lesson/" + ivo)
	b.says("Mark a hard spot")
	take("lesson")
	b.visit("/plan/" + student("Maren"))
	b.says("minutes are planned")
	b.click(`//ol[@aria-label="Segments"]/li[.//strong[.="` + asked(b, student("Maren")) + `"]]/button`)
	b.says("Ask before it is played")
	take("plan")
	b.visit(
		"/student/" + eval[string](b, `fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("Ivo")).student)`),
	)
	b.says("Instruments and lessons")
	take("student")
	b.visit("/week/" + ivo)
	b.says("Not yet")
	take("week")
	b.visit("/account")
	b.says("What was done")
	take("account")
	b.visit("/piece/" + piece("Lighthouse Stairs") + "?ladder=" + ivo)
	b.see(`[data-testid=marks] [data-direction]`)
	take("piece")
	b.visit("/settings")
	b.says("Ways of teaching")
	b.click(button("Sound first"))
	b.says("What this would change for the studio")
	take("ways")
	b.visit("/overview")
	b.says("Review due")
	take("studio")
	b.visit("/library")
	b.says("Harbour Steps for Piano")
	b.see(`figure svg`)
	take("library")
	b.visit("/technique?ladder=" + student("Caspian"))
	b.says("The hands meet")
	b.see(`[data-meet]`)
	b.see(`[data-testid=engraving] svg`)
	take("technique")
	// Somebody who is new, after a few answers: yes to two of three.
	elsewhere := "01M8FN4E5ZXHHYVEN6MGRZ4M01"
	eval[float64](
		b,
		`fetch("/api/students", {method: "POST", headers: {"Content-Type": "application/json"}, body: JSON.stringify({student: "01M8FN4E5ZXHHYVEN6MGRZ4S01",
		ladder: "`+elsewhere+`", name: "Runa Holm", born: "2015-01-01", instrument: "piano"})}).then(r => r.status)`,
	)
	for i := range 9 {
		eval[float64](
			b,
			fmt.Sprintf(
				`fetch("/api/ladders/%s/meeting").then(r => r.json()).then(m => fetch("/api/ladders/%[1]s/entries", {method: "POST", headers: {"Content-Type": "application/json"},
			body: JSON.stringify({entries: [{id: "01M8FN4E5ZXHHYVEN6MGR0000%[2]d", at: %[5]q, kind: "probe", skill: m.placement.question.skill, outcome: %[3]q, shown: %[4]t}]})})).then(r => r.status)`,
				elsewhere,
				i,
				[]string{"yes", "yes", "no"}[i%3],
				i%3 != 2,
				today.Add(8*time.Hour+time.Duration(i)*time.Second).UTC().Format(time.RFC3339),
			),
		)
	}
	b.visit("/meeting/" + elsewhere + "?show=elsewhere")
	b.says("answers so far")
	b.see(`section[aria-label="Where to begin"]`)
	take("meeting")
	b.do(chromedp.EmulateViewport(390, 844))
	link := eval[string](b, `fetch("/api/ladders/`+ivo+`/week").then(r => r.json()).then(w => w.family.link)`)
	b.visit(link)
	b.click(`//nav[@aria-label="Days"]/button[contains(., "Tue")]`)
	b.see(`article`)
	b.click(`//ol[@aria-label="All of this day"]/li//button[contains(., "bar")]`)
	b.see(`article svg path`)
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector("article").scrollIntoView()`))
	take("family-phone")
}
