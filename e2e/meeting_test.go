package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"patientladder/demo"
)

// A first meeting beside a child: one thing at a time, what came of it by one touch, the next one harder or easier, two
// things to take home and the first week made of them. Then somebody from elsewhere: questions, what is settled, a way to begin.
func TestAFirstMeetingAndAPlacement(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Students"))
	b.click(button("Add a student"))
	b.fill(`input[name=name]`, "Tove Brand")
	b.do(chromedp.SetValue(`input[name=born]`, "2021-01-01"))
	b.choose(`select[name=weekday]`, today.AddDate(0, 0, 3).Weekday().String())
	b.do(chromedp.Click(`//button[@type="submit" and contains(., "Add the student")]`))
	b.says("Tove Brand")
	b.until(`location.pathname.startsWith("/ladder/")`)
	ladder := eval[string](b, `location.pathname.split("/").pop()`)
	b.see(`a[href="/meeting/` + ladder + `"]`) // it moves down as the books arrive
	b.visit("/meeting/" + ladder)
	b.says("30 minutes with Tove, nine things to do")
	b.accessible("a first meeting")
	outcome := func(name string) { b.click(`//button[normalize-space(.)="` + name + `"]`) }
	outcome("talked")
	b.says("Echo a tone")
	b.says("step 1 of 5: one tone")
	b.click(button("Play it"))
	outcome("matched")
	b.says("step 2 of 5: two tones")
	b.fill(`input[placeholder="what you saw or heard"]`, "hummed first")
	outcome("far")
	b.says("step 1 of 5: one tone")
	b.says("2: far (hummed first)")
	b.says("To take home tonight")
	b.visit("/meeting/" + ladder + "?minutes=15")
	b.says("So far: 1: matched; 2: far (hummed first).") // it went on where it was left
	b.click(button("The first week at home"))
	b.until(`location.pathname.startsWith("/week/")`)
	b.see(`//button[contains(., "Publish")]`)
	b.says("Echo a pitch")

	b.visit("/meeting/" + ladder + "?show=elsewhere")
	b.says("Nothing was asked yet")
	b.see(`section[aria-label="Question"]`)
	b.accessible("a placement")
	outcome("Yes")
	b.says("One answer so far")
	outcome("No")
	b.says("Two answers so far")
	b.see(`section[aria-label="Where to begin"] input[type=range]`)
	b.do(chromedp.Focus(`section[aria-label="Where to begin"] input[type=range]`))
	b.do(chromedp.KeyEvent(kb.Home))
	b.says("(moved by you)")
	b.click(button("Begin this way"))
	b.see(`//div[@role="status"]//a[contains(., "To the ladder")]`)
	b.quiet()
}
