package e2e_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"patientladder/demo"
)

// publish shows a family the week that began yesterday and returns the path of its page.
func (b *browser) publish(ladder string) string {
	b.t.Helper()
	start := today.AddDate(0, 0, -1).Format(time.DateOnly)
	return eval[string](b, fmt.Sprintf(`(async () => { const at = "/api/ladders/%s/week", json = r => r.json();
		const w = await fetch(at + "?day=%s").then(json);
		const p = await fetch(at + "/publish?day=%s", {method: "POST", headers: {"Content-Type": "application/json"}, body: JSON.stringify({version: w.hand.version, plan: w.plan})}).then(json);
		return p.family.link })()`, ladder, start, start))
}

// homeItem is a thing to do on a family's page.
type homeItem struct {
	Key, Kind, Title, Music string
	Times                   int
	Done                    bool
	Start, End, Quarters    float64
	Card                    struct {
		Where, Book, Parent, Child, Good, Tempo string
		Hands                                   []struct{ Hand, Finger, Key, Geo string }
	}
}

// atHome are the things of the first day of a week, which was yesterday, in the order in which a family's page has them: what was
// chosen to be played first in front.
func (b *browser) atHome(link string) []homeItem {
	b.t.Helper()
	text := eval[string](b, `fetch("/api`+strings.Replace(link, "/home/", "/family/", 1)+`").then(r => r.json()).then(p => {
		const day = p.days[0], on = p.ticks.filter(t => t.day === day.date);
		const first = on.filter(t => t.kind === "first").at(-1)?.item;
		const chosen = day.items.find(i => first && (i.key === first || i.material === first));
		const items = chosen ? [chosen, ...day.items.filter(i => i !== chosen)] : day.items;
		return JSON.stringify(items.map(i => ({ ...i, done: on.some(t => t.kind === "done" && t.item === i.key) })));
	})`)
	var out []homeItem
	require.NoError(b.t, json.Unmarshal([]byte(text), &out))
	require.NotEmpty(b.t, out)
	return out
}

// yesterday opens a family's page on the first day of its week.
func (b *browser) yesterday(link string) {
	b.t.Helper()
	b.visit(link)
	b.click(`//nav[@aria-label="Days"]/button[1]`)
	b.see(`article`)
}

// A parent who reads no music, on a phone, without a connection from the second thing on: the first says which hand, which
// finger, which key, shows it, plays it slowly and says what to say; boxes stay; a learned piece has its first notes; what
// was also played and a question go with it. Back online all of it has arrived once, from two phones too; the teacher
// answers; a brother's page is one touch away; the second language holds from end to end.
func TestAParentWhoReadsNoMusic(t *testing.T) {
	site := &flaky{t: t, addr: "127.0.0.1:0"}
	site.start()
	defer func() { site.srv.Close() }()
	b := open(t, 1280, 800)
	b.at = "http://" + site.addr
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	ladder := b.student("Ivo")
	link := b.publish(ladder)
	items := b.atHome(link)
	next := slices.IndexFunc(items, func(it homeItem) bool { return !it.Done }) // the page opens on what is not done
	first := items[next]
	require.NotEmpty(t, first.Card.Hands, first)
	phone := open(t, 390, 844)
	phone.at = b.at
	phone.yesterday(link)
	for _, said := range []string{first.Title, first.Card.Hands[0].Hand, first.Card.Hands[0].Finger, first.Card.Hands[0].Key, first.Card.Hands[0].Geo, first.Card.Parent, first.Card.Child, first.Card.Good} {
		phone.says(said)
	}
	phone.see(`//article//*[local-name()="svg" and starts-with(@aria-label, "` + first.Card.Hands[0].Hand + `")]`)
	phone.fits("one thing to do")
	phone.accessible("one thing to do")
	script := eval[int](
		phone,
		`performance.getEntriesByType("resource").filter(r => r.name.endsWith(".js")).reduce((n, r) => n + r.encodedBodySize, 0)`,
	)
	require.Less(t, script, 100_000, "script at first load")
	t.Logf("script at first load: %d bytes", script)
	phone.shellKept("/home/")
	beat := `//article//button[starts-with(@aria-label, "` + first.Card.Tempo + `")]`
	if first.Card.Tempo != "" {
		phone.click(beat)
		phone.see(beat + `[@aria-pressed="true"]`)
		phone.click(beat)
	}
	// The boxes, one by one; looked elsewhere and back they are there.
	boxed := first
	for _, it := range items {
		if it.Times > 2 && !it.Done && it.Kind != "preview" {
			boxed = it
			break
		}
	}
	row := func(it homeItem) string {
		return fmt.Sprintf(`//ol[@aria-label="All of this day"]/li[%d]/button`, at(items, it.Key)+1)
	}
	phone.click(row(boxed))
	phone.see(fmt.Sprintf(`//article[@aria-label=%q]`, boxed.Title))
	for i := range 2 {
		phone.click(fmt.Sprintf(`//article//button[@aria-label="Time %d"]`, i+1))
	}
	site.cut()
	phone.click(row(items[len(items)-1]))
	phone.click(row(boxed))
	phone.see(`//article//button[@aria-label="Time 2" and @aria-pressed="true"]`)
	phone.see(`//article//button[@aria-label="Time 3" and @aria-pressed="false"]`)
	phone.click(`//article//button[normalize-space(.)="hard"]`)
	phone.says("1 waiting on this phone")
	for _, it := range items {
		if it.Kind == "review" && !it.Done && it.Key != boxed.Key {
			phone.click(row(it))
			phone.see(fmt.Sprintf(`//article[@aria-label=%q]//*[local-name()="svg"]/*[local-name()="path"]`, it.Title))
			if it.Card.Book != "" {
				phone.says(it.Card.Book)
			}
			break
		}
	}
	phone.click(`//summary[.="Also played"]`)
	phone.fill(`//details[@open]//input[@maxlength="200"]`, "The harbour song")
	phone.click(button("Add"))
	phone.says("2 waiting on this phone")
	phone.click(`//summary[starts-with(., "A question to")]`)
	phone.fill(`//details[@open]//textarea[@rows="3"]`, "Does she keep the wrist up?")
	phone.click(button("Send the question"))
	phone.says("3 waiting on this phone")
	site.start()
	phone.visit(link)
	phone.until(`!Object.keys(localStorage).some(k => k.startsWith("tick "))`)

	// From another phone the same thing once more: one answer holds.
	second := open(t, 390, 844)
	second.at = b.at
	second.yesterday(link)
	second.click(row(boxed))
	second.says("Done, 2 ×, hard.")
	token := strings.TrimPrefix(link, "/home/")
	log := eval[int](
		b,
		fmt.Sprintf(
			`fetch("/api/family/%s").then(r => r.json()).then(p => p.ticks.filter(t => t.kind === "done" && t.item === %q).length)`,
			token,
			boxed.Key,
		),
	)
	require.Equal(t, 1, log)
	require.Equal(
		t,
		2,
		eval[int](b, fmt.Sprintf(`fetch("/api/notes").then(r => r.json()).then(l => l.filter(n => n.ladder === "%s").length)`, ladder)),
	)

	// The teacher finds it and answers; the family reads the answer.
	b.visit("/")
	b.says("One note from home waits")
	b.visit("/messages")
	b.says("Does she keep the wrist up?")
	b.accessible("notes from home")
	b.fill(`//li[contains(., "wrist up")]//textarea`, "Yes, like a bridge over the keys.")
	b.click(button("Answer"))
	b.says("Yes, like a bridge over the keys.")
	second.visit(link)
	second.says("Yes, like a bridge over the keys.")

	// The second language holds for all of it.
	second.click(button("Deutsch"))
	second.says("Anhören")
	second.says("Auch gespielt")
	require.Equal(t, "de", eval[string](second, `document.documentElement.lang`))
	second.accessible("in the second language")
	second.fits("in the second language")
	second.click(button("English"))
	second.says("Also played")
	// With letters twice as large nothing is cut off.
	eval[bool](second, `(document.documentElement.style.fontSize = "212%", true)`)
	second.fits("letters twice as large")
	// On a phone a quarter as fast it is there within two seconds.
	slow := open(t, 390, 844)
	slow.at = b.at
	_, err := chromedp.Call(slow.ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 4})
	require.NoError(t, err)
	slow.visit(link)
	slow.see(`nav[aria-label="Days"]`)
	took := eval[float64](slow, `performance.now()`)
	t.Logf("on a slow phone: %.0f ms", took)
	for _, x := range []*browser{phone, second, slow, b} {
		x.quiet()
	}
}

func at(items []homeItem, key string) int {
	for i, it := range items {
		if it.Key == key {
			return i
		}
	}
	return -1
}

// What sounds is what is written: rendered without a loudspeaker, each note begins within 20 ms of its time.
func TestWhatSoundsIsWhatIsWritten(t *testing.T) {
	b := open(t, 1280, 800)
	b.signIn(demo.Email, demo.Password)
	b.says("lessons today")
	for _, name := range []string{"Maren", "Tobias", "Piper"} { // keys, a bow, plucked strings
		link := b.publish(b.student(name))
		phone := open(t, 390, 844)
		_, err := chromedp.Call(phone.ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: `
			window.AudioContext = class extends OfflineAudioContext { constructor() { super(1, 44100 * 30, 44100); window.heard = this; } resume() { return Promise.resolve(); } };`})
		require.NoError(t, err)
		phone.yesterday(link)
		items := phone.atHome(link)
		var it homeItem
		for _, x := range items {
			if x.End > x.Start && (x.Kind == "chunk" || x.Kind == "join" || x.Kind == "again" || x.Kind == "review") {
				it = x
				break
			}
		}
		require.NotEmpty(t, it.Key, name)
		phone.click(fmt.Sprintf(`//ol[@aria-label="All of this day"]/li[%d]/button`, at(items, it.Key)+1))
		phone.see(fmt.Sprintf(`//article[@aria-label=%q]`, it.Title))
		phone.click(`//article//label[contains(., "count in")]//input`)
		tempo := eval[float64](phone, `document.querySelector("article input[type=number]").valueAsNumber`)
		phone.click(button("Hear it"))
		phone.until(`window.heard !== undefined`)
		off := eval[[]float64](phone, fmt.Sprintf(`(async () => {
			const p = await fetch("/api%[1]s").then(r => r.json());
			const item = p.days[0].items.find(i => i.key === %[2]q);
			const scores = await fetch("/api%[1]s/days/" + p.days[0].date).then(r => r.json());
			const music = scores.music.find(m => m.key === item.music);
			const own = music.sounds.filter(s => (item.staves.length === 0 || item.staves.includes(s.staff)) && s.at >= item.start - 1e-6 && s.at < item.end - 1e-6);
			const buffer = await window.heard.startRendering();
			const wave = buffer.getChannelData(0), rate = buffer.sampleRate, width = Math.round(0.012 * rate);
			// How loud it is around a time.
			const loud = (at) => { let sum = 0; const n = Math.round(at * rate - width / 2); for (let i = n; i < n + width; i++) sum += (wave[i] ?? 0) ** 2; return Math.sqrt(sum / width); };
			const out = [];
			for (const at of new Set(own.map(s => s.at))) {
				// A note begins where what was before has faded and it rises: at the last lowest point.
				const when = 0.1 + (at - item.start) * 60 / %[3]v, steps = Array.from({length: 130}, (_, i) => when - 0.05 + i * 0.001), level = steps.map(loud);
				const least = Math.min(...level), most = Math.max(...level);
				out.push(steps[level.findLastIndex(l => l <= least + 0.02 * (most - least))] - when);
			}
			return out; })()`, strings.Replace(link, "/home/", "/family/", 1), it.Key, tempo))
		require.NotEmpty(t, off, "%s: %s", name, it.Title)
		for _, x := range off {
			require.InDelta(t, 0, x, 0.02, "%s: %s, %v", name, it.Title, off)
		}
		t.Logf("%s: %s, %d onsets, off by %.3f s", name, it.Title, len(off), off)
	}
}
