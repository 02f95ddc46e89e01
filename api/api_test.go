package api_test

import (
	"bytes"
	"context"
	"encoding/base64"
	"encoding/json"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

var (
	db  *store.Store
	web *httptest.Server
	// now is what the server takes for now, in the zone of the studio.
	now  time.Time
	zone string
)

const strangerEmail, strangerPassword = "stranger@example.org", "another studio"

// sealed is the secret of the servers here.
var sealed *store.Secret

func TestMain(m *testing.M) {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	os.Exit(storetest.Main(m, func(s *store.Store) {
		db = s
		must := func(err error) {
			if err != nil {
				panic(err)
			}
		}
		ctx := context.Background()
		// Everything here runs with what opens something sealed.
		var err error
		sealed, err = store.ParseSecret(store.NewSecret())
		must(err)
		_, err = s.Seal(ctx, sealed)
		must(err)
		given, zoneName, err := clock.Test()
		must(err)
		zone = zoneName
		loc, err := time.LoadLocation(zone)
		must(err)
		now = given().In(loc).Truncate(time.Second)
		hash, err := account.HashPassword(demo.Password)
		must(err)
		must(demo.Make(ctx, s, demo.Options{Day: clock.Day(now, zone), Timezone: zone, PasswordHash: hash, Seed: 7}))
		strange, err := account.HashPassword(strangerPassword)
		must(err)
		must(s.AddStudio(ctx, store.Studio{ID: storetest.ID(), Name: "Elsewhere", Timezone: zone},
			store.Teacher{ID: storetest.ID(), Email: strangerEmail, Name: "S", PasswordHash: strange}))
		page := fstest.MapFS{
			"index.html":       {Data: []byte(`<!doctype html><meta name="csp-nonce" content="NONCE_PLACE">`)},
			"assets/app-12.js": {Data: []byte(strings.Repeat("let a = 1;\n", 500))},
		}
		_, handler, err := api.New(api.Config{Store: s, Page: page, Now: func() time.Time { return now }})
		must(err)
		web = httptest.NewServer(handler)
	}))
}

// user is one browser, at a server.
type user struct {
	t    *testing.T
	http *http.Client
	url  string
	// studio is the one that was made for a newcomer.
	studio string
}

// text is a body that is sent as it is; all others are sent as JSON.
type text string

func anyone(t *testing.T) *user {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &user{t, &http.Client{Jar: jar}, web.URL, ""}
}

func signedIn(t *testing.T, email, password string) *user {
	u := anyone(t)
	status, _ := u.call("POST", "/api/session", map[string]string{"email": email, "password": password})
	require.Equal(t, http.StatusOK, status)
	return u
}

// may4 is a clock that stands at half past three on Monday, 4 May 2026.
// besides are the tests that run beside others.
var besides sync.Map

func may4() time.Time { return time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC) }

// newcomer is the teacher of an empty studio, on Monday, 4 May 2026, whatever the clock of the suite is. Its studio, its server
// and its clock are its own, so that its test runs beside others.
func newcomer(t *testing.T) *user { return newcomerAt(t, may4) }

// newcomerAt is one with a clock that the test moves.
func newcomerAt(t *testing.T, clock func() time.Time) *user {
	if _, again := besides.LoadOrStore(t.Name(), true); !again {
		t.Parallel()
	}
	_, handler, err := api.New(api.Config{Store: db, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: clock})
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	email := storetest.ID() + "@example.org"
	hash, err := account.HashPassword(strangerPassword)
	require.NoError(t, err)
	studio := storetest.ID()
	require.NoError(t, db.AddStudio(context.Background(), store.Studio{ID: studio, Name: "New studio", Timezone: "UTC"},
		store.Teacher{ID: storetest.ID(), Email: email, Name: "N", PasswordHash: hash}))
	u := anyone(t)
	u.url, u.studio = server.URL, studio
	status, _ := u.call("POST", "/api/session", map[string]string{"email": email, "password": strangerPassword})
	require.Equal(t, http.StatusOK, status)
	return u
}

// read is an answer as it comes.
func (u *user) read(path string) string {
	u.t.Helper()
	res := u.raw("GET", path, nil, nil)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(u.t, err)
	require.Equal(u.t, http.StatusOK, res.StatusCode, "%s", data)
	return string(data)
}

func teacher(t *testing.T) *user { return signedIn(t, demo.Email, demo.Password) }

func (u *user) call(method, path string, body any) (int, map[string]any) {
	u.t.Helper()
	res := u.raw(method, path, body, nil)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(u.t, err)
	var out map[string]any
	if bytes.HasPrefix(data, []byte("{")) {
		require.NoError(u.t, json.Unmarshal(data, &out))
	}
	return res.StatusCode, out
}

func (u *user) list(path string) []map[string]any {
	u.t.Helper()
	res := u.raw("GET", path, nil, nil)
	defer res.Body.Close()
	require.Equal(u.t, http.StatusOK, res.StatusCode)
	var out []map[string]any
	require.NoError(u.t, json.NewDecoder(res.Body).Decode(&out))
	return out
}

func (u *user) raw(method, path string, body any, header http.Header) *http.Response {
	u.t.Helper()
	var in io.Reader
	if body != nil {
		if plain, ok := body.(text); ok {
			in = strings.NewReader(string(plain))
		} else {
			data, err := json.Marshal(body)
			require.NoError(u.t, err)
			in = bytes.NewReader(data)
		}
	}
	req, err := http.NewRequest(method, u.url+path, in)
	require.NoError(u.t, err)
	req.Header.Set("Content-Type", "application/json")
	for k, v := range header {
		req.Header[k] = v
	}
	res, err := u.http.Do(req)
	require.NoError(u.t, err)
	return res
}

// ladderOf returns the ladder id of a demo student by first name.
func (u *user) ladderOf(name string) string {
	for _, s := range u.list("/api/students") {
		if strings.HasPrefix(s["name"].(string), name) {
			return s["ladder"].(string)
		}
	}
	u.t.Fatalf("no student %s", name)
	return ""
}

func (u *user) studentOf(name string) string {
	for _, s := range u.list("/api/students") {
		if strings.HasPrefix(s["name"].(string), name) {
			return s["student"].(string)
		}
	}
	u.t.Fatalf("no student %s", name)
	return ""
}

func (u *user) materialOf(title string) string {
	for _, m := range u.list("/api/materials") {
		if m["title"] == title {
			return m["id"].(string)
		}
	}
	u.t.Fatalf("no material %s", title)
	return ""
}

type entry = map[string]any

// append adds entries that happen now, where nothing else is said.
func (u *user) append(ladder string, entries ...entry) (int, map[string]any) {
	at := now
	if u.studio != "" { // a newcomer's clock is its own
		at = may4()
	}
	for _, e := range entries {
		if e["id"] == nil {
			e["id"] = storetest.ID()
		}
		if e["at"] == nil {
			e["at"] = at.UTC().Format(time.RFC3339)
		}
	}
	return u.call("POST", "/api/ladders/"+ladder+"/entries", map[string]any{"entries": entries})
}

func scoreBody(id, name, xml string) map[string]any {
	return map[string]any{
		"id": id, "strand": "repertoire", "instrument": "piano", "fileName": name,
		"score": base64.StdEncoding.EncodeToString([]byte(xml)),
	}
}
