package e2e_test

import (
	"fmt"
	"strconv"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// One press plans today's lessons; one of them is shortened, stretched, pinned
// and changed by hand, and each time the rest is solved again.
func TestLessonsArePlanned(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Plan today"))
	b.says("Five lessons planned")
	b.says("next week")
	b.accessible("planned")
	b.click(`//section[@aria-label="What is planned"]//a[starts-with(., "Maren")]`)
	b.says("minutes are planned")
	b.accessible("plan")
	total := func() int {
		return eval[int](
			b,
			`[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].reduce((n, e) => n + +e.dataset.minutes, 0)`,
		)
	}
	require.LessOrEqual(t, total(), 30)
	b.choose(`//label[contains(., "minutes")]//select`, "20")
	b.says("20 minutes are planned")
	require.LessOrEqual(t, total(), 20)

	title := asked(b, b.student("Maren"))
	piece := `//ol[@aria-label="Segments"]/li[.//strong[.="` + title + `"]]`
	b.click(piece + `/button`)
	b.says("Ask before it is played")
	b.says("Does it go up or down first?") // she is eight
	b.accessible("a segment open")
	before := eval[string](
		b,
		`[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].find(e => e.title === `+strconv.Quote(
			title,
		)+`).dataset.minutes`,
	)
	b.click(`button[aria-label="One minute more for ` + title + `"]`)
	b.see(piece + `//span[contains(., "pinned")]`)
	after := eval[string](
		b,
		`[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].find(e => e.title === `+strconv.Quote(
			title,
		)+`).dataset.minutes`,
	)
	require.NotEqual(t, before, after)
	require.LessOrEqual(t, total(), 20)
	b.click(piece + `//button[.="Leave it out"]`)
	b.do(chromedp.WaitNotPresent(piece))
	b.says("left out by hand")
	b.click(`//aside//li[contains(., "` + title + `")]//button[starts-with(., "Add to this lesson")]`)
	b.see(piece)
	b.click(button("Start the lesson"))
	b.says("minutes left")
	b.quiet()
}

// asked is the first piece of a plan that is asked about: which one it is depends on how the demo's lessons went.
func asked(b *browser, ladder string) string {
	return eval[string](
		b,
		fmt.Sprintf(`fetch("/api/ladders/%s/plan").then(r => r.json()).then(p => p.segments.find(s => s.questions.length > 0).title)`, ladder),
	)
}

// A thirty-minute lesson is recorded in at most fifteen taps: every segment of
// its plan gone through, marks, a bite, hearings, what went well.
func TestALessonTakesFewTaps(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.visit("/lesson/" + b.student("Odile"))
	b.says("minutes left")
	b.accessible("lesson with its plan")
	taps := 0
	tap := func(sel string) { b.click(sel); taps++ }
	for n := 1; n <= 3; n++ {
		point := fmt.Sprintf(`//ol[@aria-label="Focus points"]/li[%d]//button`, n)
		if b.count(`ol[aria-label="Focus points"] li:nth-child(`+fmt.Sprint(n)+`) [aria-current]`) == 0 {
			tap(point)
		}
		tap(`//section[@aria-label="Focus point"]//button[contains(., "full")]`)
		b.see(point + `//*[local-name()="title" and .="full"]/..`)
	}
	tap(`//section[@aria-label="Prepare"]//li[1]//button[starts-with(., "Done")]`)
	for range 2 {
		tap(`(//section[@aria-label="Review"]//li[.//button])[1]//button[starts-with(., "solid")]`)
	}
	tap(button("Try a run"))
	b.see(`[role=dialog]`)
	tap(button("All five were met"))
	tap(button("It met the standard"))
	b.says("is cleared.")
	b.do(chromedp.WaitNotPresent(`[role=dialog]`))
	tap(`//ol[@aria-label="The lesson as a bar"]/li[last()]//button`)
	b.fill(`input[name=text]`, "the ending was soft")
	tap(button("Keep it"))
	b.says("Went well: the ending was soft")
	t.Logf("the lesson took %d taps", taps)
	require.LessOrEqual(t, taps, 15)
	b.quiet()
}
