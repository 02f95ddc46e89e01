package e2e_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// someone adds a student by the form, with a lesson every so many weeks.
func (x *beginner) someone(name, instrument, weekday, startsAt, every string) {
	x.t.Helper()
	x.visit("/")
	x.click(button("Students"))
	x.click(button("Add a student"))
	x.fill(`input[name=name]`, name)
	x.click(`//label[contains(., "Only the age")]/input`)
	x.fill(`input[name=age]`, "9")
	x.choose(`//label[contains(., "Instrument")]//select`, instrument)
	x.choose(`select[name=weekday]`, weekday)
	x.set(`//*[@role="dialog"]//input[@type="time"]`, startsAt)
	x.choose(`//label[contains(., "Every")]//select`, every)
	x.click(`//button[@type="submit" and contains(., "Add the student")]`)
	x.until(`!document.querySelector("[role=dialog]")`)
	x.says("Where to begin")
}

// of is the ladder or the student of a name.
func (x *beginner) of(name, field string) string {
	x.t.Helper()
	return eval[string](
		x.browser,
		fmt.Sprintf(`fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith(%q)).%s)`, name, field),
	)
}

// closed waits until the sheet that was open is gone.
func (x *beginner) closed() { x.t.Helper(); x.until(`!document.querySelector("[role=dialog]")`) }

// Two weeks of a new studio, and what comes after, in one go on an upright tablet: students, a book, a
// notebook, the calendar, lessons, corrections, absences and returns.
func TestTwoWeeksOfAStudio(t *testing.T) {
	x := begins(t, 820, 1180)

	// Five students on three instruments, one on two, one every second week.
	x.someone("Nell Farrow", "piano", "Wednesday", "15:30", "week")
	x.someone("Ivo Quay", "cello", "Friday", "10:00", "week")
	x.someone("Rosa Tide", "ukulele", "Monday", "14:00", "week")
	x.someone("Tam Oar", "piano", "Thursday", "16:00", "second week")
	x.someone("Una Wick", "piano", "Monday", "15:00", "week")
	x.visit("/student/" + x.of("Una", "student"))
	x.click(button("Add an instrument"))
	x.fill(`//*[@role="dialog"]//input[@name="instrument"]`, "recorder")
	x.choose(`//*[@role="dialog"]//select[@name="weekday"]`, "Tuesday")
	x.click(`//*[@role="dialog"]//button[.="Add it"]`)
	x.closed()
	x.says("Recorder")
	x.visit("/calendar")
	x.says("Six lessons.")
	x.visit("/calendar?day=2026-05-11")
	x.says("Five lessons.")

	// A book by its titles; a notebook of thirty lines, two of them doubtful and one new.
	x.visit("/library")
	x.click(button("Add a book"))
	x.fill(`input[name=title]`, "Slipway")
	var titles []string
	for i := range 27 {
		titles = append(titles, fmt.Sprintf("Slipway song %c%c", 'A'+i, 'Z'-i%26))
	}
	x.paste(`textarea[name=titles]`, strings.Join(titles, "\n"))
	x.click(button("Add the book"))
	x.closed()
	x.says("27 pieces")
	nell := x.of("Nell", "ladder")
	x.visit("/known/" + nell)
	x.paste(`textarea[aria-label="Titles, one a line"]`, strings.Join(titles, "\n")+"\nSlipway song AY\nSlipway song BX\nThe Ferryman’s Cap")
	x.click(button("Read the list"))
	x.says("Of 30 lines: 27 found, 2 to check, 1 new.")
	for range 2 {
		x.click(button("No, new"))
	}
	x.click(button("Enter it"))
	x.says("known before, entered on 4 May")
	x.click(button("Undo all of it"))
	x.until(`!document.body.innerText.includes("known before, entered on")`)

	// Up to here in the book instead, and the rest onto the ladder.
	x.click(`//ol[@aria-label="Slipway"]//button[.="` + titles[9] + `"]`)
	x.says("Ten pieces learned before, all of them in review.")
	x.click(button("Enter it"))
	x.says("known before, entered on 4 May")
	x.visit("/ladder/" + nell)
	x.says("Begin “" + titles[10] + "”")

	// Next Monday is planned; on Tuesday lessons are moved, cancelled late, and made up.
	x.visit("/?day=2026-05-11")
	x.says("Two lessons on this day")
	x.click(button("Plan this day"))
	x.see(`//section[@aria-label="What is planned"]//a[.="Una Wick"]`)
	x.later(1)
	x.visit("/calendar")
	lesson := func(name string) string {
		return `//button[@aria-roledescription="lesson" and contains(., "` + name + `")]`
	}
	x.click(lesson("Nell"))
	x.set(`//*[@role="dialog"]//input[@type="date"]`, "2026-05-08")
	x.set(`//*[@role="dialog"]//input[@type="time"]`, "15:30")
	x.click(button("Move this lesson"))
	x.closed()
	x.says("Moved from Wed 6 May")
	x.click(lesson("Tam"))
	x.check(`//label[contains(., "Cancelled late")]/input`)
	x.click(button("The student cancels"))
	x.closed()
	x.says("one cancelled")
	x.click(lesson("Ivo"))
	x.click(button("I cancel"))
	x.closed()
	x.click(`//section[@aria-label="To make up"]//button[contains(., "Ivo")]`)
	x.see(`//*[@role="dialog"]//button[contains(., "May")]`) // a free time that was found
	x.click(`(//*[@role="dialog"]//ul//button)[1]`)
	x.click(button("Make it up then"))
	x.closed()
	x.says("Nothing is to be made up.")

	// Holidays: Today, the week at home and the dates know.
	x.visit("/calendar")
	x.fill(`input[name=name]`, "Regatta")
	x.set(`input[name=first]`, "2026-05-11")
	x.set(`input[name=last]`, "2026-05-17")
	x.click(button("Add it"))
	x.see(`//*[contains(text(), "Regatta")]`)
	x.visit("/?day=2026-05-13")
	x.says("No lessons on this day")
	x.says("Regatta")

	// The lesson of Friday is given.
	x.later(3)
	x.visit("/ladder/" + nell)
	x.click(button("Begin “" + titles[10] + "”"))
	x.says("Working on “" + titles[10] + "”")
	x.visit("/lesson/" + nell)
	x.click(`//button[starts-with(., "full")]`)
	x.says("1 of 3 points secure")
	x.visit("/week/" + nell)
	x.says("from Saturday 9 May")
	require.Equal(
		t,
		12,
		eval[int](x.browser, `document.querySelectorAll("ol[aria-label=Days] > li").length`),
		"over the holidays to Wednesday 20 May",
	)

	// Later the mark is corrected and a forgotten note added; standing and ladder follow.
	x.later(7)
	x.visit("/past/" + nell + "?day=2026-05-08")
	x.choose(`//select[starts-with(@aria-label, "The mark of")]`, "not yet")
	x.says("Steady pulse: none")
	x.fill(`input[name=text]`, "thumb under too late")
	x.click(button("Add it"))
	x.says("thumb under too late")
	x.later(5)
	x.visit("/lesson/" + nell)
	x.says("thumb under too late")
	x.says("0 of 3 points secure")

	// One pauses a month and comes back, another leaves and returns in spring.
	x.visit("/student/" + x.of("Rosa", "student"))
	x.set(`//section[@aria-label="Pause and leave"]//input[@name="last"]`, "2026-06-20")
	x.click(button("Pause"))
	x.says("Lessons are paused.")
	x.says("next: Monday, 22 June, 14:00")
	x.visit("/student/" + x.of("Ivo", "student"))
	x.click(button("Ivo leaves"))
	x.click(button("Yes, Ivo leaves"))
	x.says("Everything is kept.")
	x.visit("/calendar?day=2026-05-29")
	x.see(lesson("Nell"))
	require.Equal(
		t,
		"Rosa Tide14:00 · No lesson: holiday or pause",
		eval[string](
			x.browser,
			`[...document.querySelectorAll("[aria-roledescription=lesson]")].filter(b => /Ivo|Rosa/.test(b.textContent)).map(b => b.textContent).join()`,
		),
	)
	x.later(300)
	ivo := eval[string](x.browser, `fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("Ivo")).student)`)
	x.visit("/student/" + ivo)
	x.click(button("Ivo is back"))
	x.says("Cello, Fridays 10:00, 30 min.")
	x.says("next: Friday")

	// Another instrument for one of whom nothing was recorded.
	x.visit("/student/" + x.of("Tam", "student"))
	x.click(button("Change the instrument"))
	x.fill(`//*[@role="dialog"]//input[@name="instrument"]`, "harp")
	x.click(button("Change it"))
	x.closed()
	x.says("Harp, Thursdays 16:00, 30 min, every second week.")
	x.quiet()
}
