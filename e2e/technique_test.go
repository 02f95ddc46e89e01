package e2e_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// D flat major, hands together: the meeting points light up on the keyboard, it
// sounds, and keys that do not exist are refused with a sentence.
func TestWhereTheHandsMeet(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Technique"))
	b.says("3 with 3 on E and 3 with 3 on A")
	b.click(`//fieldset//button[.="D♭"]`)
	b.says("the thumbs together on F and C; the same fingers side by side on Db, Eb, Gb, Ab and Bb.")
	require.Equal(t, 8, b.count(`[data-meet]`), "every note of D flat is one, the tonic above too")
	b.accessible("technique")
	b.click(`//fieldset//button[.="right"]`)
	b.until(`document.querySelectorAll("[data-meet]").length === 0`)
	b.click(button("Hear it"))
	b.until(`document.querySelector('svg[role=img] rect[fill="var(--color-focus)"]') !== null`)
	b.click(button("Stop"))
	// From 60 to 96 in five weeks: real marks; a climb that is none is refused.
	tempi := func() string {
		return eval[string](b, `[...document.querySelectorAll('ol[aria-label="Weeks"] strong')].map(e => e.innerText).join(" ")`)
	}
	b.see(`ol[aria-label="Weeks"] strong`)
	require.Equal(t, "66 72 80 88 96", tempi())
	b.click(`//ol[@aria-label="Weeks"]/li[2]/button`)
	b.see(`//ol[@aria-label="Weeks"]/li[2]/button[@aria-pressed="true"]`)
	b.retype(`//label[contains(., "in weeks")]//input`, "0")
	b.says("A climb takes 1 to 104 weeks, not 0.")
	b.retype(`//label[contains(., "in weeks")]//input`, "5")
	b.see(`ol[aria-label="Weeks"] strong`)
	// Twelve weeks from B; a lesson that is missed moves the end.
	b.click(button("Begin with B"))
	b.says("Twelve keys from B to E")
	b.says("no lesson falls out")
	b.accessible("the cycle of keys")
	b.click(`//ol[@aria-label="Weeks of the cycle"]/li[3]//button[starts-with(., "missed")]`)
	b.says("one week without a lesson")
	b.choose(`//label[contains(., "Kind")]//select`, "Melodic minor")
	b.says("B melodic minor")
	b.says("right, down")
	b.visit("/technique?key=H&kind=major")
	b.says("is not a key")
	b.visit("/technique?key=C&kind=major&octaves=9")
	b.says("Octaves must lie between 1 and 4, not 9.")
	b.click(button("Back to C major"))
	b.says("3 with 3 on E")
	b.quiet()
	phone := open(t, 390, 844)
	phone.signIn(demo.Email, demo.Password)
	phone.says("lessons today")
	phone.visit("/technique?key=F%23&kind=major&octaves=2")
	phone.says("The hands meet")
	phone.fits("technique")
	phone.accessible("technique on a phone")
	phone.quiet()
}
