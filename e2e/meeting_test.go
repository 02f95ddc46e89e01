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

// A studio that has nothing yet makes itself at home: its letterhead, the day on which its weeks begin, and a first meeting with
// an activity of its own.
func TestAStudioMakesItselfAtHome(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(strangerEmail, strangerPassword)
	b.see(`a[href="/account"]`)
	b.visit("/account")
	b.fill(`textarea[name=letterhead]`, "Quay 4\nGullhaven")
	b.choose(`select[name=firstDay]`, "Sunday")
	b.click(`//section[@aria-label="The studio"]//button[normalize-space(.)="Save"]`)
	b.says("Saved.")
	b.visit("/calendar")
	b.says("Sunday")
	b.until(`/^Sunday \d/.test(document.querySelector("header p.fine").innerText)`)
	b.visit("/settings")
	b.click(button("Add to first meetings"))
	b.fill(`input[name=name]`, "The ferry horn")
	b.fill(`textarea[name=say]`, "Two low keys: answer me.")
	b.choose(`select[name=family]`, "keyboard")
	b.choose(`select[name=shows]`, "")
	b.click(`//div[@role="dialog"]//button[normalize-space(.)="Save"]`)
	b.see(`//section[@aria-label="First meetings"]//li[contains(., "The ferry horn") and contains(., "yours")]`)
	b.accessible("first meetings of a studio")
	b.click(`//section[@aria-label="First meetings"]//button[normalize-space(.)="Change Seat and feet"]`)
	b.click(`//div[@role="dialog"]//input[@name="off"]`)
	b.click(`//div[@role="dialog"]//button[normalize-space(.)="Save"]`)
	b.see(`//section[@aria-label="First meetings"]//li[contains(., "Seat and feet") and contains(., "left out")]`)
	b.click(`//section[@aria-label="First meetings"]//button[normalize-space(.)="Remove: The ferry horn"]`)
	b.until(`!document.querySelector('section[aria-label="First meetings"]').innerText.includes("The ferry horn")`)
}
