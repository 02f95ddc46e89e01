// Package pages_test holds what every page of the demo studio is answered, to the last value and in
// order, on Monday, 4 May 2026. A rule that changes changes these files: go test ./api/pages -update
// writes them anew, and the difference is read like code.
package pages_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/pagetest"
	"patientladder/demo"
	"patientladder/golden"
)

var site pagetest.Site

func TestMain(m *testing.M) { os.Exit(pagetest.Main(m, demo.Options{Seed: 7}, &site)) }

// ask sends a question and returns the answer without what is drawn by lot.
func ask(t *testing.T, method, path string, body any) []byte {
	t.Helper()
	var in io.Reader
	if body != nil {
		data, err := json.Marshal(body)
		require.NoError(t, err)
		in = bytes.NewReader(data)
	}
	req, err := http.NewRequest(method, site.URL+path, in)
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	res, err := site.Client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	if strings.HasPrefix(res.Header.Get("Content-Type"), "text/") {
		return data
	}
	if res.StatusCode >= 400 {
		data = fmt.Appendf(data, "\nstatus %d", res.StatusCode)
	}
	data = proposed.ReplaceAll(data, []byte(`$1"(made anew)"$2`))
	return links.ReplaceAll(drawn.ReplaceAll(data, []byte(`$1"(drawn by lot)"`)), []byte(`/home/(drawn by lot)`))
}

// ids are told apart by their last letters, to keep the files short.
var ids = regexp.MustCompile(`\b[0-9A-HJKMNP-TV-Z]{20}([0-9A-HJKMNP-TV-Z]{6})\b`)

// laidOut breaks what does not fit on a line into lines, so that a difference is read where it is.
func laidOut(out *bytes.Buffer, data []byte, indent string) {
	const width = 160
	data = bytes.TrimSpace(data)
	if len(data) <= width || data[0] != '{' && data[0] != '[' {
		out.Write(data)
		return
	}
	in, inner := json.NewDecoder(bytes.NewReader(data)), indent+" "
	open, err := in.Token()
	if err != nil {
		out.Write(data)
		return
	}
	fmt.Fprintf(out, "%v", open)
	for n := 0; in.More(); n++ {
		if n > 0 {
			out.WriteByte(',')
		}
		out.WriteString("\n" + inner)
		if open == json.Delim('{') {
			key, _ := in.Token()
			fmt.Fprintf(out, "%q: ", key)
		}
		var value json.RawMessage
		if in.Decode(&value) != nil {
			return
		}
		laidOut(out, value, inner)
	}
	shut, _ := in.Token()
	fmt.Fprintf(out, "\n%s%v", indent, shut)
}

// links are the pages of families, as messages have them.
var links = regexp.MustCompile(`/home/[A-Za-z0-9_-]{43}`)

// proposed are the ids that sections of a piece would have; they are made for each answer.
var proposed = regexp.MustCompile(`("id": ?)"\w+"(, ?"title": ?"[^"]+, bars \d)`)

// drawn are the secrets of links.
var drawn = regexp.MustCompile(`("(?:token|link|url|csrf)": ?)"[^"]{20,}"`)

// list is an answer that is a list.
func list(t *testing.T, path string) (out []map[string]any) {
	t.Helper()
	require.NoError(t, json.Unmarshal(ask(t, "GET", path, nil), &out))
	return out
}

// page is one question of a file.
type page struct {
	method, path string
	body         any
}

func get(format string, args ...any) page {
	return page{"GET", "/api" + fmt.Sprintf(format, args...), nil}
}

func post(body any, format string, args ...any) page {
	return page{"POST", "/api" + fmt.Sprintf(format, args...), body}
}

// held compares the answers to some questions with the file that holds them.
func held(t *testing.T, name string, pages ...page) {
	t.Helper()
	var out bytes.Buffer
	for _, p := range pages {
		fmt.Fprintf(&out, "### %s %s\n", p.method, p.path)
		if p.body != nil {
			data, err := json.Marshal(p.body)
			require.NoError(t, err)
			fmt.Fprintf(&out, "%s\n", data)
		}
		laidOut(&out, ask(t, p.method, p.path, p.body), "")
		out.WriteByte('\n')
	}
	golden.Equal(t, name+".txt", string(ids.ReplaceAll(out.Bytes(), []byte("$1"))))
}

func TestWhatThePagesOfTheDemoStudioAreAnswered(t *testing.T) {
	students, materials := list(t, "/api/students"), list(t, "/api/materials")
	held(
		t,
		"studio",
		get("/session"),
		get("/students"),
		get("/today"),
		get("/today?day=2026-05-05"),
		get("/overview"),
		get("/balance"),
		get(
			"/calendar",
		),
		get("/calendar?from=2026-04-27&days=7"),
		get("/calendar/link"),
		get("/holidays"),
		get("/way"),
		get("/words"),
		get("/messages"),
		get("/reports"),
		get("/studio-year"),
		get("/learned"),
	)
	var books []string
	for _, instrument := range []string{"piano", "cello", "ukulele"} {
		var view struct {
			Sources []struct{ ID string }
			Books   []struct{ ID string }
		}
		require.NoError(t, json.Unmarshal(ask(t, "GET", "/api/library?instrument="+instrument, nil), &view))
		for _, b := range append(view.Sources, view.Books...) {
			books = append(books, b.ID)
		}
	}
	require.NotEmpty(t, books)
	library := []page{
		get("/library?instrument=piano"),
		get("/library?instrument=cello"),
		get("/library?instrument=ukulele"),
		get("/materials"),
		get("/skills"),
	}
	for i, b := range books {
		other := books[(i+1)%len(books)]
		library = append(
			library,
			get("/library/books/%s", b),
			get("/library/export?format=csv&source=%s", b),
			get("/library/books/%s/beside/%s", b, other),
		)
	}
	library = append(library, get("/library/books/%s?for=beginner", books[len(books)-1]))
	held(t, "library", library...)
	technique := []page{
		get("/instruments"),
		get("/tempi?from=60&to=120&weeks=6"),
		get("/scale?key=Db&kind=major&octaves=2"),
		get("/scale?key=F%%23&kind=harmonic-minor"),
		get(
			"/technique/atlas?instrument=piano",
		),
		get("/technique/atlas?instrument=cello"),
		get("/technique/atlas?instrument=piano&kind=harmonic-minor"),
	}
	for _, instrument := range []string{"piano", "cello", "viola", "violin", "ukulele", "guitar", "banjo"} {
		technique = append(technique, get("/exercise?instrument=%s", instrument))
	}
	held(t, "technique", technique...)
	for _, s := range students {
		// One of each kind: the youngest, readers of two ages, both kinds of strings, a grown-up.
		if n := strings.Fields(s["name"].(string))[0]; n == "Ivo" || n == "Henrik" {
			continue
		}
		ladder, name := s["ladder"].(string), strings.ToLower(strings.Fields(s["name"].(string))[0])
		pages := []page{
			get("/students/%s", s["student"]), get("/ladders/%s", ladder), get("/ladders/%s/lesson", ladder), get("/ladders/%s/plan", ladder),
			get("/ladders/%s/week", ladder), get("/ladders/%s/technique", ladder), get("/ladders/%s/past", ladder), get("/ladders/%s/known", ladder),
			get("/ladders/%s/setup", ladder), get("/ladders/%s/treats", ladder), get("/ladders/%s/fit", ladder),
			get("/ladders/%s/free?near=2026-05-11", ladder),
			get("/ladders/%s/find?q=%s", ladder, url.QueryEscape("a")),
			post(map[string]any{"text": "Rain on the Roof\nFog\nno such tune"}, "/ladders/%s/known/match", ladder),
			get("/ladders/%s/cycle?key=C&order=fifths", ladder), get("/ladders/%s/cycle?key=B&order=semitones&before=true", ladder),
		}
		pages = append(pages, get("/ladders/%s/progress", ladder), get("/ladders/%s/progress?from=2025-05-05&to=2026-02-01", ladder))
		for _, strand := range []string{"method", "technique", "reading", "repertoire"} {
			pages = append(pages, get("/ladders/%s/next?strand=%s", ladder, strand))
		}
		var stands struct {
			Rails []struct {
				Rungs []struct{ Material, State string }
			}
			Rungs []struct{ Material, State string }
		}
		require.NoError(t, json.Unmarshal(ask(t, "GET", "/api/ladders/"+ladder, nil), &stands))
		seen := map[string]int{}
		for _, rail := range stands.Rails {
			stands.Rungs = append(stands.Rungs, rail.Rungs...)
		}
		for _, r := range stands.Rungs {
			if seen[r.State]++; seen[r.State] <= 2 {
				pages = append(
					pages,
					get("/materials/%s?ladder=%s", r.Material, ladder),
					post(map[string]any{"material": r.Material, "day": "2026-07-01"}, "/ladders/%s/targets", ladder),
				)
			}
		}
		held(t, name, pages...)
	}
	var pieces []page
	for i, m := range materials {
		if i%6 == 0 {
			pieces = append(pieces, get("/materials/%s", m["id"]), get("/materials/%s/sections", m["id"]))
		}
	}
	held(t, "pieces", pieces...)
}
