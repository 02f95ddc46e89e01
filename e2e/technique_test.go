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
	b.choose(`//label[contains(., "Kind")]//select`, "Melodic minor")
	b.says("C# melodic minor")
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
