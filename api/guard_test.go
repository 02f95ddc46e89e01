package api_test

import (
	"bytes"
	"io"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
	"patientladder/demo"
	"patientladder/store/storetest"
)

// drawn is a picture in an answer; any three letters may come up in it.
var drawn = regexp.MustCompile(`data:image/png;base64,[A-Za-z0-9+/=]+`)

// bodies are requests that would be accepted from the studio's own teacher.
func bodies(id string) map[string]any {
	return map[string]any{
		"POST /ladders/{ladder}/entries": map[string]any{
			"entries": []entry{{"id": id, "at": "2026-05-04T15:00:00Z", "kind": "note", "text": "x"}},
		},
		"PUT /ladders/{ladder}/practice": map[string]any{
			"days":       []bool{true, true, true, true, true, true, true},
			"minutes":    20,
			"handsApart": true,
			"version":    1,
		},
		"POST /materials":                  scoreBody(id, "x.musicxml", tune),
		"POST /ladders/{ladder}/exercises": map[string]any{"exercise": "scale/apart/C/major/-"},
		"POST /students": map[string]any{"student": id, "ladder": storetest.ID(), "name": "X", "born": "2015-01-01", "instrument": "piano",
			"weekday": int(now.Weekday()), "startsAt": "10:00", "minutes": 30},
		"PATCH /materials/{material}":           map[string]any{"title": "Mine", "composer": ""},
		"PUT /materials/{material}/score":       upload("x.musicxml", tune, 0),
		"PUT /materials/{material}/overrulings": map[string]any{"kind": "tempo", "tempo": 70},
		"POST /scores/read":                     upload("x.musicxml", tune, 0),
		"POST /scores/typed":                    map[string]any{"abc": "CDEF|"},
		"PUT /activities/{activity}": map[string]any{
			"name":    "X",
			"from":    3,
			"to":      6,
			"options": []string{"x"},
			"home":    "",
			"off":     false,
		},
		"PUT /ladders/{ladder}/reports/{report}": map[string]any{
			"purpose": "family",
			"length":  "short",
			"tone":    "warm",
			"from":    "2026-02-02",
			"to":      "2026-05-04",
			"edits":   []any{},
			"own":     "",
			"version": 0,
		},
		"POST /ladders/{ladder}/reports/{report}/publish": map[string]any{"version": 0, "lines": []any{}},
		"POST /programme": map[string]any{
			"title":     "x",
			"day":       "",
			"keepOrder": false,
			"pieces":    []any{map[string]any{"ladder": id, "material": id}},
		},
		"POST /programme/{format}": map[string]any{
			"title":     "x",
			"day":       "",
			"keepOrder": false,
			"pieces":    []any{map[string]any{"ladder": id, "material": id}},
		},
		"PUT /told":                       map[string]any{"number": 1},
		"PUT /learned":                    map[string]any{"use": false},
		"POST /materials/{material}/copy": map[string]any{"id": id},
		"PUT /meeting-activities/{activity}": map[string]any{
			"name":    "X",
			"say":     "Y",
			"minutes": 3,
			"from":    3,
			"to":      6,
			"part":    "tune",
			"family":  "",
			"shows":   "",
			"home":    "",
			"off":     false,
		},
		"PUT /exercise-types/{type}": map[string]any{"steps": []any{}, "faults": []any{}},
		"PUT /words": map[string]any{
			"notes":    "letters",
			"steps":    "all-skips",
			"values":   "crotchets",
			"approach": "direction",
			"version":  1,
		},
		"POST /ladders/{ladder}/setup": map[string]any{
			"keyTop":    73,
			"elbow":     20,
			"leg":       35,
			"benchLow":  45,
			"benchHigh": 55,
			"lean":      "level",
			"mats":      []any{},
		},
		"PUT /ladders/{ladder}/plan":          map[string]any{"version": 0},
		"PUT /ladders/{ladder}/week":          map[string]any{"version": 0},
		"POST /ladders/{ladder}/week/publish": map[string]any{"version": 0, "plan": "any"},
		"PUT /ladders/{ladder}/family":        map[string]any{"email": ""},
		"POST /ladders/{ladder}/family/link":  map[string]any{"days": 30},
		"POST /family/{token}/ticks": map[string]any{
			"ticks": []any{map[string]any{"id": id, "at": "2026-05-04T15:00:00Z", "kind": "done", "day": "2026-05-04", "item": "x"}},
		},
		"PUT /family/{token}/wishes":             map[string]any{"language": "de", "mail": "none", "remind": false},
		"PUT /notes/{note}":                      map[string]any{"answer": "x"},
		"PUT /ladders/{ladder}/approach":         map[string]any{"approach": "names"},
		"PUT /ladders/{ladder}/rungs":            map[string]any{"version": 1, "rungs": []any{}},
		"POST /ladders/{ladder}/targets":         map[string]any{"material": id, "day": "2030-05-01"},
		"PUT /ladders/{ladder}/targets/{target}": map[string]any{"material": id, "day": "2030-05-01", "name": "Recital"},
		"PUT /holidays/{holiday}":                map[string]any{"name": "Spring", "first": "2030-05-01", "last": "2030-05-03"},
		"PUT /way":                               someWay(),
		"PATCH /library/books/{source}":          map[string]any{"title": "Mine"},
		"POST /ladders/{ladder}/meeting":         map[string]any{"batch": id, "book": id, "route": "on"},
		"POST /ladders/{ladder}/known": map[string]any{
			"batch":  id,
			"upTo":   []any{},
			"pieces": []any{},
			"titles": []any{map[string]any{"id": storetest.ID(), "title": "x", "when": "long-ago"}},
			"keys":   []any{},
			"skills": []any{},
		},
		"POST /ladders/{ladder}/known/match":   map[string]any{"text": "x"},
		"PUT /ladders/{ladder}/treats/{treat}": map[string]any{"words": "ice", "pieces": 2},
		"POST /materials/{material}/merge":     map[string]any{"into": id},
		"POST /materials/{material}/ladders":   map[string]any{"ladders": []any{id}},
		"PUT /materials/{material}/sections": map[string]any{
			"sections": []any{map[string]any{"id": id, "title": "a"}, map[string]any{"id": storetest.ID(), "title": "b"}},
		},
		"PUT /library/books/{source}/requirements": map[string]any{"skills": []string{}},
		"PUT /skills/{skill}":                      map[string]any{"name": "x", "steps": []any{}},
		"PATCH /students/{student}": map[string]any{
			"name":      "X",
			"called":    "",
			"born":      "2015-01-01",
			"bornAbout": false,
			"notes":     "",
			"contacts":  []any{},
			"version":   1,
		},
		"POST /students/{student}/ladders": map[string]any{
			"ladder":     id,
			"instrument": "piano",
			"from":       "2026-05-04",
			"slots":      []any{},
		},
		"PUT /students/{student}/pauses/{pause}": map[string]any{"first": "2026-05-04"},
		"PUT /students/{student}/left":           map[string]any{"from": "2026-05-04"},
		"PUT /ladders/{ladder}/ended":            map[string]any{"from": "2026-05-04"},
		"PUT /ladders/{ladder}/instrument":       map[string]any{"instrument": "cello", "ladder": id},
		"PUT /ladders/{ladder}/teacher":          map[string]any{"teacher": ""},
		"PUT /ladders/{ladder}/slots":            map[string]any{"from": "2026-05-04", "slots": []any{}},
		"PUT /ladders/{ladder}/lessons/{lesson}": map[string]any{"what": "cancel", "by": "student"},
		"POST /way":                              someWay(),
		"POST /library/table":                    map[string]any{"table": []byte("title\nx\n")},
		"POST /library/import": map[string]any{
			"kind":       "csv",
			"data":       []byte("title\nx\n"),
			"title":      "Book",
			"source":     id,
			"instrument": "piano",
			"fields":     []string{"title"},
			"try":        true,
		},
		"POST /recovery":           map[string]any{"email": "nobody@example.org"},
		"PUT /recovery":            map[string]any{"token": "a-guess", "password": "gull fog seven ropes"},
		"PUT /invitation":          map[string]any{"token": "a-guess", "password": "gull fog seven ropes"},
		"PUT /session/passkey":     map[string]any{"challenge": "a-guess", "credential": map[string]any{}},
		"PUT /account/passkeys":    map[string]any{"challenge": "a-guess", "credential": map[string]any{}},
		"PUT /account/password":    map[string]any{"current": "not it", "password": "x"},
		"PUT /account/second":      map[string]any{"secret": strings.Repeat("A", 32), "code": "000000"},
		"POST /account/second/off": map[string]any{"password": "not it"},
		"POST /account/people":     map[string]any{"email": "not an address", "name": "X", "role": "teacher"},
		"PUT /account/studio": map[string]any{
			"name":       "X",
			"timezone":   "Mars/Base",
			"keepYears":  2,
			"language":   "en",
			"firstDay":   1,
			"letterhead": "",
		},
		"PUT /account/people/{person}": map[string]any{"role": "teacher"},
		"POST /session":                map[string]any{"email": "nobody@example.org", "password": "x"},
	}
}

// Every route of the contract, as a stranger: without a session it is 401; with
// the session of another studio nothing of this studio is found or changed.
func TestEveryRouteAsAStranger(t *testing.T) {
	owner := teacher(t)
	ladder, material := owner.ladderOf("Maren"), owner.materialOf("Fog")
	student := owner.studentOf("Maren")
	before := owner.list("/api/ladders/" + ladder + "/entries")
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	out, stranger := anyone(t), signedIn(t, strangerEmail, strangerPassword)
	walked := 0
	for path, item := range spec.Paths.Map() {
		for method := range item.Operations() {
			name := method + " " + path
			url := "/api" + strings.NewReplacer("{ladder}", ladder, "{student}", student, "{lesson}", "2026-05-04-x", "{pause}", storetest.ID(), "{day}", "2026-05-04", "{batch}", storetest.ID(), "{treat}", storetest.ID(), "{skill}", "no-such-skill", "{activity}", "juggling", "{type}", "five-finger", "{format}", "pdf", "{certificate}", "x", "{report}", storetest.ID(), "{material}", material, "{target}", storetest.ID(), "{holiday}", storetest.ID(), "{source}", storetest.ID(), "{other}", storetest.ID(), "{message}", storetest.ID(), "{token}", "a-guess", "{note}", storetest.ID(), "{session}", storetest.ID(), "{passkey}", strings.Repeat("a", 64), "{person}", storetest.ID()).
				Replace(path)
			if strings.HasSuffix(path, "/next") {
				url += "?strand=method"
			}
			if strings.HasSuffix(path, "}/export") {
				url += "?format=midi"
			}
			if strings.HasSuffix(path, "/cycle") {
				url += "?key=C&order=fifths"
			}
			if path == "/library/export" {
				url += "?format=json"
			}
			if strings.HasSuffix(path, "/find") {
				url += "?q=x"
			}
			if strings.HasSuffix(path, "/free") {
				url += "?near=2026-05-11"
			}
			if path == "/library" {
				url += "?instrument=piano"
			}
			if method == "DELETE" && (path == "/session" || path == "/account/sessions") {
				continue // it would sign the stranger out
			}
			walked++
			body := bodies(storetest.ID())[name]
			if strings.HasPrefix(path, "/family/") || strings.HasPrefix(path, "/teacher/") { // opened by a link, not by a session
				status, problem := out.call(method, url, body)
				require.Equal(t, http.StatusNotFound, status, name)
				require.Contains(t, problem["detail"], "opens nothing", name)
			} else if name != "POST /session" && path != "/recovery" && path != "/invitation" && path != "/session/passkey" {
				status, problem := out.call(method, url, body)
				require.Equal(t, http.StatusUnauthorized, status, name)
				require.Equal(t, "Sign in first.", problem["detail"], name)
			}
			res := stranger.raw(method, url, body, nil)
			data, err := io.ReadAll(res.Body)
			require.NoError(t, err)
			res.Body.Close()
			if strings.Contains(path, "{") && name != "PUT /holidays/{holiday}" && path != "/activities/{activity}" &&
				path != "/meeting-activities/{activity}" &&
				path != "/exercise-types/{type}" { // a stranger may have holidays and activities, too, and drop them
				require.Equal(t, http.StatusNotFound, res.StatusCode, "%s: %s", name, data)
			}
			data = drawn.ReplaceAll(data, nil)
			for _, own := range []string{"Maren", "Fog", "Calloway", ladder} {
				require.False(t, bytes.Contains(data, []byte(own)), "%s tells a stranger %q: %s", name, own, data)
			}
		}
	}
	require.GreaterOrEqual(t, walked, 28)
	require.Equal(t, before, owner.list("/api/ladders/"+ladder+"/entries"))
	// A piece of one's own cannot be compared with another studio's student.
	mine := storetest.ID()
	status, _ := stranger.call("POST", "/api/materials", scoreBody(mine, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status)
	status, _ = stranger.call("GET", "/api/materials/"+mine+"?ladder="+ladder, nil)
	require.Equal(t, http.StatusNotFound, status)
}

func TestSignOutEndsTheSessionOnTheServer(t *testing.T) {
	u := teacher(t)
	res := u.raw("GET", "/api/session", nil, nil)
	res.Body.Close()
	cookies := u.http.Jar.Cookies(res.Request.URL)
	require.NotEmpty(t, cookies)
	status, _ := u.call("DELETE", "/api/session", nil)
	require.Equal(t, http.StatusNoContent, status)
	// The old cookie, played again, opens nothing.
	req, err := http.NewRequest("GET", web.URL+"/api/session", nil)
	require.NoError(t, err)
	req.AddCookie(cookies[0])
	again, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	again.Body.Close()
	require.Equal(t, http.StatusUnauthorized, again.StatusCode)
}

func TestTheCookieIsHidden(t *testing.T) {
	res := anyone(t).raw("POST", "/api/session", map[string]string{"email": demo.Email, "password": demo.Password}, nil)
	res.Body.Close()
	cookie := res.Header.Get("Set-Cookie")
	require.Contains(t, cookie, "HttpOnly")
	require.Contains(t, cookie, "SameSite=Strict")
}

func TestOtherSitesAreRefused(t *testing.T) {
	for name, header := range map[string]http.Header{
		"fetch metadata": {"Sec-Fetch-Site": {"cross-site"}},
		"origin":         {"Origin": {"https://elsewhere.example"}},
	} {
		res := teacher(t).raw("DELETE", "/api/session", nil, header)
		res.Body.Close()
		require.Equal(t, http.StatusForbidden, res.StatusCode, name)
	}
}

func TestThePageIsServedStrictlyAndKept(t *testing.T) {
	u := anyone(t)
	home := u.raw("GET", "/ladder/whatever", nil, nil)
	data, err := io.ReadAll(home.Body)
	require.NoError(t, err)
	home.Body.Close()
	policy := home.Header.Get("Content-Security-Policy")
	require.Contains(t, policy, "default-src 'none'")
	require.NotContains(t, policy, "unsafe")
	_, nonce, found := strings.Cut(string(data), `content="`)
	require.True(t, found)
	nonce = strings.TrimSuffix(nonce, `">`)
	require.Contains(t, policy, "'nonce-"+nonce+"'")
	require.Equal(t, "no-cache", home.Header.Get("Cache-Control"))

	asset := u.raw("GET", "/assets/app-12.js", nil, http.Header{"Accept-Encoding": {"gzip"}})
	small, err := io.ReadAll(asset.Body)
	require.NoError(t, err)
	asset.Body.Close()
	require.Equal(t, "gzip", asset.Header.Get("Content-Encoding"))
	require.Contains(t, asset.Header.Get("Cache-Control"), "immutable")
	require.Less(t, len(small), 500)

	missing := u.raw("GET", "/assets/app-11.js", nil, nil)
	missing.Body.Close()
	require.Equal(t, http.StatusNotFound, missing.StatusCode)
}

func TestMistakesAreProblems(t *testing.T) {
	u := teacher(t)
	for _, c := range []struct {
		method, path string
		body         any
		status       int
	}{
		{"GET", "/api/ladders/not-an-id", nil, 422},
		{"GET", "/api/nowhere", nil, 404},
		{"GET", "/api/today?day=yesterday", nil, 422},
		{"POST", "/api/session", map[string]any{"email": "a@b.c"}, 422},
		{"POST", "/api/session", map[string]any{"email": "a@b.c", "password": "x", "admin": true}, 422},
		{"GET", "/api/ladders/" + storetest.ID(), nil, 404},
	} {
		res := u.raw(c.method, c.path, c.body, nil)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		res.Body.Close()
		require.Equal(t, c.status, res.StatusCode, "%s %s: %s", c.method, c.path, data)
		require.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), c.path)
		require.Contains(t, string(data), `"detail"`)
	}
}

// A body without a length is cut off at the limit all the same.
func TestABodyWithoutALengthIsBounded(t *testing.T) {
	u := teacher(t)
	before := len(u.list("/api/materials"))
	defer func() { require.Len(t, u.list("/api/materials"), before) }()
	endless := io.MultiReader(strings.NewReader(`{"id":"`), io.LimitReader(zeros{}, 40<<20))
	req, err := http.NewRequest("POST", web.URL+"/api/materials", endless)
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.ContentLength = -1
	res, err := u.http.Do(req)
	if err != nil {
		return // the server hung up in the middle, which is an answer too
	}
	defer res.Body.Close()
	require.Equal(t, http.StatusRequestEntityTooLarge, res.StatusCode)
}

type zeros struct{}

func (zeros) Read(p []byte) (int, error) {
	for i := range p {
		p[i] = '0'
	}
	return len(p), nil
}

func TestReadOnlyAddressesAndHealth(t *testing.T) {
	u := anyone(t)
	res := u.raw("POST", "/ladder/x", map[string]any{}, nil)
	res.Body.Close()
	require.Equal(t, http.StatusMethodNotAllowed, res.StatusCode)
	res = u.raw("GET", "/healthz", nil, nil)
	res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode)
	require.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"))
}

func TestAnswersAreNotKeptByTheBrowser(t *testing.T) {
	res := teacher(t).raw("GET", "/api/students", nil, http.Header{"Accept-Encoding": {"gzip"}})
	res.Body.Close()
	require.Equal(t, "no-store", res.Header.Get("Cache-Control"))
	require.Equal(t, "gzip", res.Header.Get("Content-Encoding"))
}

// someWay is a way of teaching as the contract has it.
func someWay() map[string]any {
	return map[string]any{
		"reviewShare": 0.75, "readingAfter": 0, "approach": "direction", "firstView": "sound", "firstChunk": 1, "standard": "", "secureAfter": 3,
		"comfortable": 1.5, "easeAfterLeap": true, "bites": 2, "lookRungs": 6, "lookWeeks": 16, "reviewWeeks": 4, "stuckLessons": 3,
		"polishWeeks": 2, "sure": 0.8,
	}
}
