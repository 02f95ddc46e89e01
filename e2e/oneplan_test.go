package e2e_test

import (
	"encoding/base64"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// send asks the server by hand; the answer must be a good one.
func (x *beginner) send(method, path, body string) {
	x.t.Helper()
	said := eval[string](x.browser, fmt.Sprintf(`(async () => {
		const r = await fetch(%q, {method: %q, headers: {"Content-Type": "application/json"}, body: %q || undefined});
		return r.status + " " + await r.text();
	})()`, path, method, body))
	require.Regexp(x.t, `^20\d`, said)
}

// tune adds a tune in ABC to the library and to a ladder.
func (x *beginner) tune(abc, ladder string) string {
	x.t.Helper()
	id := storetest.ID()
	x.send(
		"POST",
		"/api/materials",
		fmt.Sprintf(
			`{"id": %q, "strand": "method", "instrument": "piano", "fileName": "tune.abc", "score": %q}`,
			id,
			base64.StdEncoding.EncodeToString([]byte(abc)),
		),
	)
	x.send("PUT", "/api/ladders/"+ladder+"/rungs/"+id, "")
	return id
}

// section is what a part of the page says, by its label.
func (x *beginner) section(label string) string {
	return eval[string](x.browser, fmt.Sprintf(`document.querySelector('section[aria-label=%q]').innerText`, label))
}

// What one screen knows the others know: the youngest listen first, the key of the week is in the plan or slides, a fault
// goes home, a plan that was overtaken says so, nothing is said of a piece without notes, goals and skills are the
// teacher's, and an 18-bar tune has as many patterns as a teacher counts.
func TestOnePlanTrueEverywhere(t *testing.T) {
	x := begins(t, 1280, 800)
	x.visit("/settings")
	x.click(button("Sound first"))
	x.says("What this would change for the studio")
	x.click(button("Apply it"))
	x.until(`!document.querySelector('section[aria-label="What this would change"]')`)

	pip := storetest.ID()
	x.send(
		"POST",
		"/api/students",
		fmt.Sprintf(
			`{"student": %q, "ladder": %q, "name": "Pip Fry", "born": "2022-03-04", "instrument": "piano", "slots": [{"id": %q, "weekday": 1, "startsAt": "15:30", "minutes": 20, "every": 1}]}`,
			storetest.ID(),
			pip,
			storetest.ID(),
		),
	)
	x.visit("/week/" + pip)
	x.says("No piece in work yet: six days of games, never more than ten minutes.")
	ferry := x.tune("X:1\nT:Ferry\nM:4/4\nL:1/4\nK:C\nCDEF|G2G2|FEDC|D4|CDEF|G2G2|FEDD|C4|\n", pip)
	x.log(pip, "2026-05-04T15:31:00Z", fmt.Sprintf(`"kind": "assigned", "material": %q`, ferry))
	x.visit("/week/" + pip)
	x.says("by ear")
	text := x.text()
	require.Contains(t, text, "Listen and sing")
	require.NotContains(t, text, "say the letters", "nothing is reading")

	nell := x.student("Nell Farrow", "piano", 5, "16:00")
	boat := x.piece("The Boatman", "piano", nell)
	x.log(nell, "2026-05-04T15:32:00Z", fmt.Sprintf(`"kind": "assigned", "material": %q`, boat))
	x.visit("/ladder/" + nell)
	x.says("too early to say")
	x.visit("/overview")
	x.says("Nell")
	require.NotContains(t, x.text(), "2027", "no date for what nobody knows")

	// The key of the week is in Friday's plan; a lesson that is too short lets it slide.
	x.log(
		nell,
		"2026-05-04T15:33:00Z",
		`"kind": "cycle", "cycle": {"type": "scale", "step": "apart", "kind": "major", "first": "Ab", "order": "fifths", "from": "2026-05-08"}`,
	)
	x.visit("/plan/" + nell)
	x.says("Begin A♭ major scale: one octave, hands apart")
	x.says("the key of the week")
	x.send("PUT", "/api/ladders/"+nell+"/plan", `{"version": 0, "minutes": 8}`)
	x.visit("/plan/" + nell)
	x.says("No room for A♭, the key of the week: the cycle slides, and it comes on")
	x.says("15 May")

	// A fault is one thing until it is gone.
	x.log(nell, "2026-05-04T15:34:00Z", `"kind": "faultSeen", "focus": "fault.too-close"`)
	x.visit("/week/" + nell)
	x.says("One thing to watch")
	x.visit("/setup/" + nell)
	x.says("The usual faults of beginners")
	require.Contains(t, x.section("Usual faults"), "Looked after now, seen 4 May 2026")
	x.log(nell, "2026-05-04T15:35:00Z", `"kind": "faultGone", "focus": "fault.too-close"`)
	x.visit("/week/" + nell)
	x.says("The Boatman")
	require.NotContains(t, x.text(), "One thing to watch")

	// What happened since overtakes a plan that was set by hand; one press mends it.
	x.send("PUT", "/api/ladders/"+nell+"/plan", `{"version": 1, "minutes": 25}`)
	x.log(nell, "2026-05-04T15:36:00Z", `"kind": "assigned", "exercise": "five-finger/parallel/C/major-five-finger/-"`)
	x.visit("/plan/" + nell)
	x.says("Something happened since this was planned")
	x.click(button("Plan again, keep what is pinned"))
	x.until(`!document.querySelector('section[aria-label="What changed"]')`)
	require.Contains(t, x.text(), "C major, five fingers: hands together, the same way")

	// Goals are the teacher's.
	x.visit("/settings?exercise=five-finger")
	x.see(`//input[@aria-label="Goal 1 of Hands together, the same way"]`)
	x.retype(`//input[@aria-label="Goal 1 of Hands together, the same way"]`, "tips like little pillars")
	x.click(button("Save"))
	x.closed()
	x.until(`document.querySelector('section[aria-label="Goals of exercises"]').innerText.includes("changed")`)
	x.visit("/week/" + nell)
	x.says("tips like little pillars")

	// 18 bars as a teacher counts them.
	eighteen := x.tune(
		"X:1\nT:Eighteen\nM:4/4\nL:1/4\nK:C\nCDEF|G2G2|CDEF|GFED|CDEF|G2G2|EDCD|C4|DEFG|A2A2|cdef|g2g2|GFED|EDCD|C4|CDEF|GFED|C4|\n",
		nell,
	)
	x.visit("/piece/" + eighteen + "?ladder=" + nell)
	x.says("18 bars")
	require.Contains(t, strings.Join(strings.Fields(x.text()), " "), "18 bars, five patterns, two of them also in another form")
}
