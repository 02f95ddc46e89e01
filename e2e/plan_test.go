package e2e_test

import (
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
	b.click(button("Plan these lessons"))
	b.says("Five lessons planned")
	b.says("next week")
	b.accessible("planned")
	b.click(`//section[@aria-label="What is planned"]//a[starts-with(., "Maren")]`)
	b.says("minutes are planned")
	b.accessible("plan")
	total := func() int {
		return eval[int](b, `[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].reduce((n, e) => n + +e.dataset.minutes, 0)`)
	}
	require.LessOrEqual(t, total(), 30)
	b.choose(`//label[contains(., "minutes")]//select`, "20")
	b.says("20 minutes are planned")
	require.LessOrEqual(t, total(), 20)

	piece := `//ol[@aria-label="Segments"]/li[.//strong[.="Slack Tide"]]`
	b.click(piece + `/button`)
	b.says("Ask before it is played")
	b.says("What key is it in, and where is home?")
	b.accessible("a segment open")
	before := eval[string](b, `[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].find(e => e.title === "Slack Tide").dataset.minutes`)
	b.click(`button[aria-label="One minute more for Slack Tide"]`)
	b.see(piece + `//span[contains(., "pinned")]`)
	after := eval[string](b, `[...document.querySelectorAll('ol[aria-label="The lesson as a bar"] button')].find(e => e.title === "Slack Tide").dataset.minutes`)
	require.NotEqual(t, before, after)
	require.LessOrEqual(t, total(), 20)
	b.click(piece + `//button[.="Leave it out"]`)
	b.do(chromedp.WaitNotPresent(piece))
	b.says("left out by hand")
	b.click(`//aside//li[contains(., "Slack Tide")]//button[starts-with(., "Put it in")]`)
	b.see(piece)
	b.click(button("Teach it"))
	b.says("hear one focus point at a time")
	b.quiet()
}
