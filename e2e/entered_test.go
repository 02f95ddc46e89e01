package e2e_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// Two lessons pass that nobody entered: Today says so, the calendar shows which, and one sheet enters one and calls the
// other off. What was typed stays while one looks elsewhere, and each lesson keeps its own day.
func TestLessonsThatWereNotEntered(t *testing.T) {
	x := begins(t, 1280, 800)
	ladder := x.student("Ada Moss", "piano", 2, "15:00")
	tune := x.piece("Gull Rock", "piano", ladder)
	x.piece("Tide Table", "piano", ladder)
	x.log(ladder, "2026-05-04T15:00:00Z", fmt.Sprintf(`"kind": "assigned", "material": %q`, tune))
	x.later(9)
	x.visit("/")
	x.click(`//a[.="2 lessons are not entered yet"]`)
	x.see(`//h1[.="Two lessons not entered"]`)
	x.says("Tuesday 5 May, 15:00")
	x.accessible("lessons not entered")
	require.True(
		t,
		eval[bool](x.browser, `[...document.querySelectorAll("button")].find(b => b.innerText === "Save this lesson").disabled`),
		"nothing is preset",
	)
	x.fill(`//label[contains(., "Note")]//input`, "Heavy elbows")
	x.visit("/calendar?day=2026-05-05")
	x.says("not entered yet")
	x.click(`//a[.="Today"]`)
	x.click(`//a[.="2 lessons are not entered yet"]`)
	x.choose(`//label[contains(., "A piece was begun")]//select`, "Tide Table")
	x.click(button("Save this lesson"))
	x.see(`//h1[.="One lesson not entered"]`)
	x.says("Tuesday 12 May, 15:00")
	x.click(button("Ada did not come"))
	x.click(button("No lesson took place: sure?"))
	x.see(`//h1[.="Every lesson of the last weeks is entered."]`)
	x.visit("/past/" + ladder)
	x.says("Cancelled late.")
	var past struct {
		Lessons []struct{ Day, State, Words string }
	}
	require.NoError(
		t,
		json.Unmarshal([]byte(eval[string](x.browser, fmt.Sprintf(`fetch("/api/ladders/%s/past").then(r => r.text())`, ladder))), &past),
	)
	require.Equal(t, []struct{ Day, State, Words string }{
		{"2026-05-12", "cancelled", "Cancelled late."}, {"2026-05-05", "taught", "Two entries with one piece."},
		{"2026-05-04", "planned", "One entry, and no lesson."},
	}, past.Lessons)
	x.do(chromedp.Navigate(x.at))
	x.says("No lessons today")
	x.quiet()
}
