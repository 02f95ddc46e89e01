package e2e_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// Five weeks of a new studio: a girl every week, a boy every other, one who is away for eighteen days, lessons that nobody
// entered, a notebook with doubts, holidays from a file, a first meeting; three marks in each of five lessons by keys. What
// was entered stands under its own day, once, and every page counts the same.
func TestFiveWeeksOfANewStudio(t *testing.T) {
	x := begins(t, 1280, 800)
	nell := x.student("Nell Farrow", "piano", 2, "14:00")
	x.someone("Tam Oar", "piano", "Thursday", "14:00", "second week")
	x.someone("Una Wick", "cello", "Wednesday", "14:00", "week")
	tam, una := x.of("Tam", "ladder"), x.of("Una", "ladder")
	ben := storetest.ID()
	x.send(
		"POST",
		"/api/students",
		fmt.Sprintf(`{"student": %q, "ladder": %q, "name": "Ben Oak", "born": "2021-02-03", "instrument": "piano"}`, storetest.ID(), ben),
	)
	tune := x.tune("X:1\nT:Ferry\nM:4/4\nL:1/4\nK:C\nCDEF|G2G2|FEDC|D4|CDEF|G2G2|FEDD|C4|\n", nell)
	x.log(nell, "2026-05-04T15:31:00Z", fmt.Sprintf(`"kind": "assigned", "material": %q`, tune))

	// Holidays come from a file, in three weeks.
	x.visit("/settings")
	at := `//section[@aria-label="Days without lessons"]`
	x.see(at)
	x.do(
		chromedp.SetUploadFiles(
			at+`//input[@type="file"]`,
			file(t, "town.ics", "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n"+
				"DTSTART;VALUE=DATE:20260525\r\nDTEND;VALUE=DATE:20260601\r\nSUMMARY:Herring days\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"),
		),
	)
	x.click(at + `//button[.="Leave it"]/preceding-sibling::button`)
	x.see(at + `//li[contains(., "Herring days")]//button`)

	// Una is away for eighteen days from her second lesson on.
	x.visit("/student/" + x.of("Una", "student"))
	x.set(`//section[@aria-label="Pause and leave"]//input[@name="first"]`, "2026-05-14")
	x.set(`//section[@aria-label="Pause and leave"]//input[@name="last"]`, "2026-05-31")
	x.click(button("Pause"))
	x.says("14 May")

	// A notebook with doubts.
	x.visit("/library")
	x.click(button("Add a book"))
	x.fill(`input[name=title]`, "Slipway")
	x.paste(`textarea[name=titles]`, "1. Slack Tide, p. 4\n2. Rope Ladder, p. 5\n3. Long Pier\n4. Night Buoy\n")
	x.click(button("Add the book"))
	x.closed()
	x.visit("/known/" + tam)
	x.paste(`textarea[aria-label="Titles, one a line"]`, "Slack Tide - finished Feb\nRope Lader\nThe Ferryman’s Cap\n")
	x.click(button("Read the list"))
	x.says("Of three lines: 1 found, 1 to check, 1 new.")
	x.click(button("Yes"))
	x.click(button("Enter it"))
	x.says("known before, entered on 4 May")

	// A first meeting.
	x.visit("/meeting/" + ben)
	x.click(`//button[normalize-space(.)="talked"]`)
	x.says("Echo a tone")
	x.click(`//button[normalize-space(.)="matched"]`)
	x.says("step 2 of 5: two tones")
	x.visit("/past/" + ben)
	x.says("4 May")

	// Five lessons with three marks each, by keys; nothing is entered of the others.
	x.later(1)
	marked := func() (out map[string]int, all int) {
		var l struct {
			Pieces []struct{ Points []struct{ Id, Mark string } }
		}
		require.NoError(
			t,
			json.Unmarshal([]byte(eval[string](x.browser, fmt.Sprintf(`fetch("/api/ladders/%s/lesson").then(r => r.text())`, nell))), &l),
		)
		out = map[string]int{}
		for _, p := range l.Pieces[0].Points {
			out[p.Mark]++
		}
		return out, len(l.Pieces[0].Points)
	}
	lesson := func(day string) {
		x.visit("/lesson/" + nell)
		x.says("Ferry")
		x.see(`//ol[@aria-label="Focus points"]/li`)
		for _, key := range []string{"1", "2", "3"} {
			x.do(chromedp.KeyEvent(key))
		}
		x.until(`!Object.keys(localStorage).some(k => k.startsWith("waiting "))`)
		x.until(fmt.Sprintf(`fetch("/api/ladders/%s/past/%s").then(r => r.json()).then(d => d.entries.length >= 3)`, nell, day))
		var past struct{ Entries []struct{ Text string } }
		require.NoError(
			t,
			json.Unmarshal([]byte(eval[string](x.browser, fmt.Sprintf(`fetch("/api/ladders/%s/past/%s").then(r => r.text())`, nell, day))), &past),
		)
		require.Len(t, past.Entries, 3, "one mark for each of three points on %s", day)
	}
	lesson("2026-05-05")
	// The first lessons of the others, two days later; from then on nobody enters theirs.
	x.later(2)
	x.log(una, "2026-05-06T14:10:00Z", `"kind": "note", "text": "Long bows"`)
	x.log(tam, "2026-05-07T14:10:00Z", `"kind": "note", "text": "Sang first"`)
	x.later(-2)
	got, all := marked()
	require.Equal(t, 3, all)
	require.Equal(t, map[string]int{"none": 1, "part": 1, "full": 1}, got)
	x.later(7)
	lesson("2026-05-12")
	x.visit("/calendar?day=2026-05-11")
	x.says("Two lessons.")
	x.visit("/calendar?day=2026-05-18")
	x.says("Two lessons.") // Nell's, and Tam's of the fortnight
	require.Regexp(t, `(?s)Una Wick\n14:00 · No lesson: holiday or pause`, x.text())
	x.later(7)
	lesson("2026-05-19")

	// In the holidays nobody has a lesson, and the week at home goes on to the next one.
	x.later(6) // Monday, 25 May
	x.visit("/calendar?day=2026-05-25")
	x.says("Herring days")
	x.visit("/week/" + nell)
	x.says("from Wednesday 20 May")
	require.Equal(t, 14, eval[int](x.browser, `document.querySelectorAll("ol[aria-label=Days] > li").length`), "to 2 June")

	// What was not entered is asked for once, each under its own day.
	x.later(4) // Friday
	x.visit("/")
	x.click(`//a[.="2 lessons are not entered yet"]`)
	x.says("Wednesday 13 May, 14:00")
	x.fill(`//label[contains(., "Note")]//input`, "Long bows")
	x.click(button("Save this lesson"))
	x.see(`//h1[.="One lesson not entered"]`)
	x.says("Thursday 21 May, 14:00")
	x.click(button("Tam did not come"))
	x.click(button("No lesson took place: sure?"))
	x.see(`//h1[.="Every lesson of the last weeks is entered."]`)

	x.later(4) // Tuesday, 2 June
	lesson("2026-06-02")
	x.later(7)
	lesson("2026-06-09")

	// Every page counts the same.
	past := func(ladder string) (out []string) {
		var p struct {
			Lessons []struct{ Day, State string }
		}
		require.NoError(
			t,
			json.Unmarshal([]byte(eval[string](x.browser, fmt.Sprintf(`fetch("/api/ladders/%s/past").then(r => r.text())`, ladder))), &p),
		)
		for _, l := range p.Lessons {
			out = append(out, l.Day+" "+l.State)
		}
		return out
	}
	require.Equal(
		t,
		[]string{"2026-06-09 taught", "2026-06-02 taught", "2026-05-19 taught", "2026-05-12 taught", "2026-05-05 taught", "2026-05-04 planned"},
		past(nell),
	)
	require.Equal(t, []string{"2026-06-04 notEntered", "2026-05-21 cancelled", "2026-05-07 taught"}, past(tam)[:3])
	require.Equal(t, []string{"2026-06-03 notEntered", "2026-05-13 taught", "2026-05-06 taught"}, past(una))
	x.visit("/progress/" + nell)
	x.says("Two lessons: ") // of the term that began after the holidays
	x.click(`//button[.="All"]`)
	x.says("Five lessons: ")
	x.visit("/progress/" + una)
	x.click(`//button[.="All"]`)
	x.says("Two lessons: ")
	x.visit("/")
	x.says("2 lessons are not entered yet")
	for _, path := range []string{"/overview", "/year", "/reports", "/ladder/" + nell, "/ladder/" + tam, "/plan/" + nell, "/week/" + tam, "/known/" + una, "/meeting/" + ben} {
		x.visit(path)
		x.see(`main h1`)
		x.fits(path)
	}
	x.quiet()
}
