package e2e_test

import (
	"archive/zip"
	"bytes"
	"encoding/base64"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/midi"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/demo"
)

// fileOfTunes holds three tunes of our own, the second with something that is skipped.
const fileOfTunes = `X:1
T:Eel Grass
M:3/4
L:1/4
Q:1/4=96
K:Gm
D|G2 A|B2 A|G ^F G|A2 D|G2 A|B2 c|d c A|G3|]

X:2
T:Gull Reel
M:4/4
L:1/4
K:D
%%MIDI program 21
|:DFAF|E2 G2|FADF|E4:|

X:3
T:Two Hands at the Tiller
M:4/4
L:1/4
Q:1/4=84
K:C
V:1
CDEF|G4|CDEF|C4|GGEE|D2 D2|CDEF|C4|
V:2 clef=bass
C,4|C,4|C,4|C,4|G,,4|G,,4|C,4|C,4|
`

func tunes(t *testing.T) []*score.Score {
	list, err := abc.Read([]byte(fileOfTunes))
	require.NoError(t, err)
	return list
}

func compressed(t *testing.T, xml string) string {
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	f, err := w.Create("score.xml")
	require.NoError(t, err)
	_, err = f.Write([]byte(xml))
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return b.String()
}

// bring adds every new piece of a file to the ladder that is open.
func (b *browser) bring(name, data, says string) {
	b.t.Helper()
	b.click(button("Add a piece"))
	b.see(`[role=dialog] input[type=file]`)
	b.do(chromedp.SetUploadFiles(`input[type=file]`, file(b.t, name, data)))
	b.says(says)
	b.click(`//form//button[starts-with(., "Put ")]`)
	b.see(`[data-testid=marks]`)
}

// mark switches a pencil mark on or off.
func (b *browser) mark(name string) {
	b.t.Helper()
	b.click(`//button[@aria-pressed and normalize-space(.)="` + name + `"]`)
}

func (b *browser) count(selector string) int {
	b.t.Helper()
	return eval[int](b, fmt.Sprintf(`document.querySelectorAll(%q).length`, selector))
}

// download fetches what a link of the export sheet leads to.
func (b *browser) download(format string) *score.Score {
	b.t.Helper()
	text := eval[string](b, fmt.Sprintf(`(async () => {
		const link = [...document.querySelectorAll("[role=dialog] a")].find(a => a.textContent === %q);
		const bytes = new Uint8Array(await (await fetch(link.href)).arrayBuffer());
		return btoa(String.fromCharCode(...bytes));
	})()`, format))
	data, err := base64.StdEncoding.DecodeString(text)
	require.NoError(b.t, err)
	_, pieces, err := scorefile.Read(data)
	require.NoError(b.t, err)
	return pieces[0]
}

func heardIn(s *score.Score) string {
	var out []string
	for _, n := range s.Sounding() {
		out = append(out, fmt.Sprintf("%s+%s %d", n.Onset, n.Duration, n.MIDI))
	}
	return strings.Join(out, ", ")
}

// Files of three formats are brought, one piece is read closely and corrected,
// taken out and read back, and given to a student whose week uses its chunks.
func TestAPieceIsReadAsATeacherReadsIt(t *testing.T) {
	b := open(t, 1280, 900)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	wren := eval[string](b, `fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("Wren")).ladder)`)
	b.visit("/ladder/" + wren)
	b.says("comfortable leap")
	b.bring(
		"kettle.mxl",
		compressed(t, strings.NewReplacer("Kettle Tune", "Packed Kettle", "<step>E</step>", "<step>F</step>").Replace(ownTune)),
		"MusicXML, one piece",
	)
	b.visit("/ladder/" + wren)
	b.bring("played.mid", string(midi.Write(tunes(t)[0])), "MIDI, one piece")
	b.says("Not taken over from the file, mended or guessed")
	b.visit("/ladder/" + wren)
	b.click(button("Add a piece"))
	b.see(`[role=dialog] input[type=file]`)
	b.do(chromedp.SetUploadFiles(`input[type=file]`, file(t, "tunes.abc", fileOfTunes)))
	b.says("ABC, 3 pieces")
	b.click(`//summary[contains(., "Not taken over")]`)
	b.says("directives %%MIDI, once, first at tune 2, line 14")
	b.accessible("what is in the file")
	b.says("You have this music already") // it was brought as a MIDI file
	b.click(button("Put 2 pieces"))
	b.see(`[data-testid=marks]`)

	// One of them is opened: facts, load, every mark one by one.
	tiller := eval[string](b, `fetch("/api/materials").then(r => r.json()).then(l => l.find(m => m.title === "Two Hands at the Tiller").id)`)
	b.visit("/piece/" + tiller)
	b.says("8 bars, five patterns")
	b.says("patterns in 8 bars to learn")
	b.says("Who is ready")
	b.see(`[data-testid=marks] [data-direction]`)
	b.mark("Direction")
	require.Zero(t, b.count("[data-testid=marks] [data-direction]"))
	b.mark("Interval")
	require.Positive(t, b.count("[data-testid=marks] [data-direction] text"))
	b.mark("Interval")
	b.mark("Chunks")
	require.Equal(t, 4, b.count("[data-chunk][data-level='0']"))
	b.mark("Equal bars")
	require.Equal(t, 8, b.count("[data-pattern]"))
	b.mark("Fingers")
	require.Positive(t, b.count("[data-finger]"))
	b.accessible("piece with marks")

	// A pattern is pressed: it sounds, and the page says where else it is.
	b.click(`//*[@data-pattern="A"]`)
	b.says("comes again at bar 3, bar 7")
	b.see(button("Stop"))
	require.Equal(t, 2, b.count("[data-again]"))
	b.click(button("Stop"))
	b.mark("Equal bars")

	// A student is chosen: what is new, the leap, ready or not and why.
	eval[bool](
		b,
		`(() => { const s = document.querySelector("select"); const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set; set.call(s, "`+wren+`"); s.dispatchEvent(new Event("change", {bubbles: true})); return true; })()`,
	)
	b.says("For Wren")
	b.says("of what it needs is there")
	b.says("first: ")
	b.accessible("piece for a student")

	// One finger and one demand are corrected. By keyboard the marks are one
	// stop, and the arrows walk from one to the next.
	b.mark("Fingers")
	require.Equal(t, 1, b.count("[data-finger][tabindex='0']"))
	eval[bool](b, `(document.querySelector("[data-finger]").focus(), true)`)
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	require.Contains(t, eval[string](b, `document.activeElement.getAttribute("aria-label")`), "Bar 1, finger 2")
	b.click(`//*[@data-finger and starts-with(@aria-label, "Bar 2, ")][1]`)
	b.see(`[role=dialog]`)
	b.accessible("a finger")
	b.click(`//div[@role="dialog"]//button[.="4"]`)
	b.says("Your corrections")
	b.says("finger 4 at a note in bar 2")
	b.click(`//summary[starts-with(., "Needs ")]`)
	b.click(`//section[@aria-label="What it needs"]//button[contains(., " more")]`)
	b.click(`//section[@aria-label="What it needs"]//button[contains(., "minims")]`)
	b.click(`//div[@role="dialog"]//button[.="not at all"]`)
	b.says("minims: not asked for")

	// The border of a chunk is moved: one bar alone, for a girl of four.
	b.mark("Chunks")
	b.click(`//summary[contains(., "Choose what to hear")]`)
	b.click(`//button[starts-with(., "2: ")]`)
	b.says("This chunk ends with")
	b.click(button("Stop"))
	b.click(button("join it to the next"))
	b.says("no chunk ends after bar 2")

	// Out as MusicXML and MIDI, and read back: same notes, same corrections.
	b.click(button("Export it"))
	b.see(`[role=dialog] a`)
	b.accessible("export")
	want := heardIn(tunes(t)[2])
	xml := b.download("MusicXML")
	require.Equal(t, want, heardIn(xml))
	require.Equal(t, want, heardIn(b.download("MIDI")))
	printed := ""
	for _, n := range xml.Notes {
		if n.Fingering != "" {
			printed += fmt.Sprint(n.Bar, " ", n.Fingering)
		}
	}
	require.Equal(t, "2 4", printed)
	b.do(chromedp.KeyEvent("\x1b"))

	// Another file of the same piece keeps what was corrected.
	b.click(button("Replace the score"))
	b.see(`[role=dialog] input[type=file]`)
	b.do(chromedp.SetUploadFiles(`input[type=file]`, file(t, "tiller.abc", fileOfTunes[strings.Index(fileOfTunes, "X:3"):])))
	b.click(button("Replace it"))
	b.says("Read. 3 of your corrections hold.")
	b.do(chromedp.KeyEvent("\x1b"))
	b.says("finger 4 at a note in bar 2")

	// It is begun: the week uses its chunks, the corrected border too.
	eval[int](b, fmt.Sprintf(`fetch("/api/ladders/%s/entries", {method: "POST", headers: {"Content-Type": "application/json"},
		body: JSON.stringify({entries: [{id: "01KA0000000000000000000001", at: %q, kind: "assigned", material: %q}]})}).then(r => r.status)`, wren, now().UTC().Format(time.RFC3339), tiller))
	b.visit("/week/" + wren)
	b.says("Two Hands at the Tiller")
	week := eval[string](
		b,
		`fetch("/api/ladders/`+wren+`/week").then(r => r.json()).then(w => JSON.stringify([...w.days.flatMap(d => d.items), ...w.leftOut].filter(i => i.title.startsWith("Two Hands") && i.kind === "chunk").map(i => i.where)))`,
	)
	require.Contains(t, week, "bars 2–3", "bar 2 goes on into bar 3, as the teacher set it")
	b.quiet()
}

// A tune is typed and engraved as it is typed; a mistake is said and nothing is lost.
func TestATuneIsTyped(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := eval[string](b, `document.querySelector('a[href^="/ladder/"]').getAttribute("href").slice(8)`)
	b.visit("/write?ladder=" + ladder)
	b.see(`[data-testid=engraving] svg`)
	b.accessible("type a tune")
	eval[bool](b, `(document.querySelector("textarea").select(), true)`)
	b.fill(`textarea`, "T:Net Loft\nL:1/4\nK:F\nFGAB|c4|")
	b.click(`//button[starts-with(., "Keep it") and not(@disabled)]`)
	b.says("Net Loft")
	b.see(`[data-testid=marks]`)
	b.visit("/write")
	b.see(`[data-testid=engraving] svg`)
	eval[bool](b, `(document.querySelector("textarea").select(), true)`)
	b.fill(`textarea`, "K:F\nF999999|")
	b.says("longer than 4096 quarter notes")
	require.Equal(t, "K:F\nF999999|", eval[string](b, `document.querySelector("textarea").value`))
	b.quiet()
}

// The studio's words and a student's own way of reading.
func TestWordsAndWays(t *testing.T) {
	b := open(t, 390, 844)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	b.click(button("Ways"))
	b.says("Words and ways of reading")
	b.fits("words on a phone")
	b.accessible("words")
	b.click(`//label[contains(., "quarter and eighth notes")]`)
	ladder := eval[string](b, `fetch("/api/students").then(r => r.json()).then(l => l.find(s => s.name.startsWith("Caspian")).ladder)`)
	fog := eval[string](b, `fetch("/api/materials").then(r => r.json()).then(l => l.find(m => m.title === "Lighthouse Stairs").id)`)
	b.visit("/piece/" + fog + "?ladder=" + ladder)
	b.see(`[data-testid=marks]`)
	b.says("dotted quarter note")
	b.fits("piece on a phone")
	b.accessible("piece on a phone")
	b.click(button("Ways"))
	b.click(`//label[contains(., "crotchets and quavers")]`)
	b.see(`//label[contains(., "crotchets and quavers")]//input[not(@disabled)]`)
	b.quiet()
}
