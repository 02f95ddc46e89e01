package e2e_test

import (
	"testing"

	"patientladder/demo"
)

// A child's bench is measured again: the drawing follows the numbers, a cushion
// is refused with the reason. A usual fault is noted with one touch: it opens the next lesson and goes home until it is
// gone.
func TestBenchAndFeet(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ivo := b.student("Ivo")
	b.visit("/setup/" + ivo)
	b.says("due again: children grow")
	b.says("Put a platform of")
	b.accessible("setup")
	field := `//label[contains(., "Elbow above the seat")]//input`
	b.retype(field, "99")
	b.says("The elbow above the seat must lie between 8 and 35 cm, not 99.")
	b.retype(field, "17")
	b.says("as the elbow is 17 cm above the seat")
	b.click(button("Add a mat or a cushion"))
	b.choose(`//li[last()]/select[starts-with(@aria-label, "What piece")]`, "cushion")
	b.says("it gives way and wobbles")
	b.accessible("a cushion")
	b.click(button("Keep these measures"))
	b.says("Set the bench to")
	b.until(`document.querySelector("h1").innerText.includes("Measured on") && !document.querySelector("h1").innerText.includes("due")`)
	b.click(`//section[@aria-label="Usual faults"]//button[contains(., "sits too close")]`)
	b.says("Looked after now")
	b.until(
		`fetch("/api/ladders/` + ivo + `/entries").then(r => r.json()).then(l => l.filter(e => e.kind === "faultSeen" && e.focus === "fault.too-close").length === 1)`,
	)
	b.visit("/plan/" + ivo)
	b.says("One thing: sits too close")
	b.visit("/week/" + ivo)
	b.says("One thing to watch: sits too close. Before playing: can the elbows pass in front of the body?")
	b.visit("/setup/" + ivo)
	b.click(`//section[@aria-label="Usual faults"]//button[contains(., "sits too close")]`)
	b.until(`!document.body.innerText.includes("Looked after now")`)
	b.visit("/plan/" + ivo)
	b.until(`!document.body.innerText.includes("One thing: sits too close")`)
	b.quiet()
}
