// Package apart_test asks every question of the contract for two studios with the same ids, as many entries and the same
// versions, but other data: what one server with everything in memory answers must be what a server with nothing answers.
package apart_test

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"net/http"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/pagetest"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

var db *store.Store

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(s *store.Store) { db = s }))
}

// twinEmail is of the teacher of the second studio.
const twinEmail = "twin@example.org"

// asker asks a server as the teacher of one of the studios.
type asker struct {
	url, token, feed string
	client           *http.Client
}

func (a asker) ask(t *testing.T, path string) string {
	t.Helper()
	res, err := a.client.Get(a.url + "/api" + strings.NewReplacer("/teacher/{token}", "/teacher/"+a.feed, "{token}", a.token).Replace(path))
	require.NoError(t, err)
	defer res.Body.Close()
	body, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return fmt.Sprintf("%d %s", res.StatusCode, body)
}

func (a asker) send(t *testing.T, method, path, body string) (out map[string]any) {
	t.Helper()
	req, err := http.NewRequest(method, a.url+"/api"+path, strings.NewReader(body))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	res, err := a.client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Less(t, res.StatusCode, 300, "%s %s: %s", method, path, data)
	if len(data) > 0 {
		require.NoError(t, json.Unmarshal(data, &out))
	}
	return out
}

func (a asker) get(t *testing.T, path string) (out map[string]any) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(strings.TrimPrefix(a.ask(t, path), "200 ")), &out), path)
	return out
}

// lines are the sentences of a report as they are shown.
func lines(t *testing.T, report map[string]any) string {
	data, err := json.Marshal(report["lines"])
	require.NoError(t, err)
	return string(data)
}

// at signs a teacher in at a server; the links are those that another has.
func at(t *testing.T, url, email string, links asker) asker {
	client, err := pagetest.SignIn(url, email)
	require.NoError(t, err)
	return asker{url, links.token, links.feed, client}
}

// earned lets the first student have a book of three pieces that are learned, so that there is a certificate.
func earned(t *testing.T) (ladder string) {
	ctx := context.Background()
	url, err := pagetest.Serve(db)
	require.NoError(t, err)
	u := at(t, url, demo.Email, asker{})
	var students []struct{ Ladder string }
	require.NoError(t, json.Unmarshal([]byte(strings.TrimPrefix(u.ask(t, "/students"), "200 ")), &students))
	var pieces []any
	for i := 0; len(pieces) < 3; i++ {
		ladder = students[i].Ladder
		pieces = u.get(t, "/ladders/"+ladder+"/repertoire")["pieces"].([]any)
	}
	var ids []string
	for _, p := range pieces[:3] {
		ids = append(ids, p.(map[string]any)["material"].(string))
	}
	require.NoError(t, storetest.Book(ctx, db, shortBook, "A short book", ids...))
	return ladder
}

const shortBook = "01KQR4HQ00SHRTBK0000000000"

func TestStudiosWithTheSameIdsStayApart(t *testing.T) {
	ctx := context.Background()
	hash, err := account.HashPassword(demo.Password)
	require.NoError(t, err)
	require.NoError(
		t,
		demo.Make(ctx, db, demo.Options{Day: clock.Day(pagetest.Monday(), "UTC"), Timezone: "UTC", PasswordHash: hash, Seed: 7}),
	)
	ladder := earned(t)
	require.NoError(t, storetest.Twin(ctx, db, demo.Email, twinEmail))
	url, err := pagetest.Serve(db)
	require.NoError(t, err)
	mine, theirs := at(t, url, demo.Email, asker{}), at(t, url, twinEmail, asker{})

	// The same number of entries, with other measures of a body; the same week and the same report for the family.
	report, entry, from := storetest.ID(), storetest.ID(), "2026-02-02"
	for _, a := range []*asker{&mine, &theirs} {
		elbow := map[*asker]string{&mine: "19.25", &theirs: "27.5"}[a]
		a.send(
			t,
			"POST",
			"/ladders/"+ladder+"/entries",
			`{"entries":[{"id":"`+entry+`","at":"2026-05-04T15:10:00Z","kind":"setupChecked","setup":{"keyTop":73,"elbow":`+elbow+`,"leg":35,"benchLow":45,"benchHigh":55,"lean":"level","mats":[]}}]}`,
		)
		week := a.get(t, "/ladders/"+ladder+"/week?day=2026-05-04")
		data, err := json.Marshal(map[string]any{"version": week["hand"].(map[string]any)["version"], "plan": week["plan"]})
		require.NoError(t, err)
		week = a.send(t, "POST", "/ladders/"+ladder+"/week/publish?day=2026-05-04", string(data))
		a.token = strings.TrimPrefix(week["family"].(map[string]any)["link"].(string), "/home/")
		a.send(
			t,
			"PUT",
			"/ladders/"+ladder+"/reports/"+report,
			`{"purpose":"family","length":"short","tone":"warm","from":"`+from+`","to":"2026-05-04","edits":[],"own":"","version":0}`,
		)
		a.send(
			t,
			"POST",
			"/ladders/"+ladder+"/reports/"+report+"/publish",
			`{"version":1,"lines":`+lines(t, a.get(t, "/ladders/"+ladder+"/reports/"+report))+`}`,
		)
		feed := a.send(t, "POST", "/calendar/link", "")["link"].(string)
		a.feed = strings.TrimSuffix(strings.TrimPrefix(feed[strings.Index(feed, "/teacher/"):], "/teacher/"), "/calendar")
	}

	paths := questions(t, mine, ladder, report)
	require.Greater(t, len(paths), 60)
	warm := map[string][2]string{}
	for _, p := range paths {
		warm[p] = [2]string{mine.ask(t, p), theirs.ask(t, p)}
	}
	// Nothing is kept any more, not in the tables either, and the one who asked last asks first.
	require.NoError(t, storetest.DropKept(ctx, db))
	cold, err := pagetest.Serve(db)
	require.NoError(t, err)
	theirsAnew := at(t, cold, twinEmail, theirs)
	alone, err := pagetest.Serve(db)
	require.NoError(t, err)
	mineAnew := at(t, alone, demo.Email, mine)
	same := 0
	for _, p := range paths {
		require.True(t, strings.HasPrefix(warm[p][0], "200 "), "%s: %.300s", p, warm[p][0])
		if warm[p][0] == warm[p][1] {
			same++
		}
		if volatile[p] {
			continue
		}
		require.Equal(t, steady(theirsAnew.ask(t, p)), steady(warm[p][1]), "%s, the second studio", p)
		require.Equal(t, steady(mineAnew.ask(t, p)), steady(warm[p][0]), "%s, the first studio", p)
	}
	require.Less(t, same, 25, "most answers differ: the rest is of no student and no piece")
	setup := "/ladders/" + ladder + "/setup"
	require.Contains(t, warm[setup][0], "19.25")
	require.NotContains(t, warm[setup][1], "19.25")
	require.Contains(t, warm[setup][1], "27.5")
	for _, p := range paths {
		require.NotContains(t, warm[p][0], "Twin ", "%s tells the first studio of the second", p)
	}
}

// volatile are answers that say when they were asked, or by which session.
var volatile = map[string]bool{"/account": true, "/session": true, "/account/studio/export": true}

// steady is an answer without what a document says of the moment at which it was made.
func steady(answer string) string {
	return regexp.MustCompile(`/(ID|CreationDate|ModDate) ?(\[[^\]]*\]|\([^)]*\))`).ReplaceAllString(answer, "")
}

// questions are all GETs of the contract, asked about things that there are.
func questions(t *testing.T, a asker, ladder, report string) (out []string) {
	list := func(path string) (out []map[string]any) {
		require.NoError(t, json.Unmarshal([]byte(strings.TrimPrefix(a.ask(t, path), "200 ")), &out), path)
		return out
	}
	var scored, student string
	for _, m := range list("/materials") {
		if id := m["id"].(string); strings.HasPrefix(a.ask(t, "/materials/"+id+"/score"), "200 ") {
			scored = id
		}
	}
	for _, s := range list("/students") {
		if s["ladder"] == ladder {
			student = s["student"].(string)
		}
	}
	books := a.get(t, "/library?instrument=piano")["books"].([]any)
	books = slices.DeleteFunc(books, func(b any) bool { return b.(map[string]any)["id"] == shortBook })
	book := func(i int) string { return books[i].(map[string]any)["id"].(string) }
	past := a.get(t, "/ladders/"+ladder+"/past")["lessons"].([]any)
	day := past[0].(map[string]any)["day"].(string)
	names := map[string]string{
		"{ladder}": ladder, "{student}": student, "{material}": scored,
		"{source}": book(0), "{other}": book(1), "{day}": day, "{format}": "pdf",
		"{certificate}": shortBook, "{report}": report,
	}
	asks := map[string]string{
		"/ladders/{ladder}/next": "?strand=method", "/ladders/{ladder}/cycle": "?key=C&order=fifths", "/library/export": "?format=json",
		"/materials/{material}/export": "?format=midi",
		"/ladders/{ladder}/find":       "?q=a", "/ladders/{ladder}/free": "?near=2026-05-11", "/library": "?instrument=piano",
		"/scale": "?key=C&kind=major", "/exercise": "?instrument=piano",
		"/exercise/sheet": "?instrument=piano", "/tempi": "?from=60&to=90&weeks=4", "/technique/atlas": "?instrument=piano",
		"/calendar": "?from=2026-05-04&to=2026-05-31",
	}
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	for _, path := range slices.Sorted(maps.Keys(spec.Paths.Map())) {
		if spec.Paths.Value(path).Get == nil {
			continue
		}
		full := path + asks[path]
		for name, value := range names {
			full = strings.ReplaceAll(full, name, value)
		}
		out = append(out, full)
	}
	return out
}
