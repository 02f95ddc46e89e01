package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/web"
)

// older is version 1.0.0 (CHANGELOG.md), which knows tables to 26.
const older = "acbf03f"

// The program of the version before, built from its sources, serves the tables that this one has brought up to date, beside this
// one: what is entered at either is there at the other.
func TestTheProgramBeforeServesTodaysTables(t *testing.T) {
	if exec.Command("git", "cat-file", "-e", older+"^{commit}").Run() != nil {
		t.Skip("the sources of version 1.0.0 are not in this copy: it has no history")
	}
	dir := t.TempDir()
	tree := filepath.Join(dir, "older")
	out, err := exec.Command("git", "worktree", "add", "--detach", tree, older).CombinedOutput()
	require.NoError(t, err, "%s", out)
	t.Cleanup(func() { exec.Command("git", "worktree", "remove", "--force", tree).Run() })
	build := exec.Command("go", "build", "-buildvcs=false", "-o", filepath.Join(dir, "ladder"), "./cmd/ladder")
	build.Dir = tree
	out, err = build.CombinedOutput()
	require.NoError(t, err, "%s", out)

	ctx := context.Background()
	db, err := localdb.Start(ctx, filepath.Join(dir, "db"))
	require.NoError(t, err)
	t.Cleanup(func() { db.Stop() })
	st, err := store.Open(ctx, db.DSN)
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	require.NoError(t, st.Migrate(ctx))
	hash, err := account.HashPassword(demo.Password)
	require.NoError(t, err)
	require.NoError(
		t,
		demo.Make(ctx, st, demo.Options{Day: clock.Real().UTC().Truncate(24 * time.Hour), Timezone: "UTC", PasswordHash: hash, Seed: 7}),
	)

	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	addr := l.Addr().String()
	require.NoError(t, l.Close())
	var said bytes.Buffer
	old := exec.Command(filepath.Join(dir, "ladder"), "serve", "--dsn", db.DSN, "--addr", addr)
	old.Stdout, old.Stderr = &said, &said
	require.NoError(t, old.Start())
	t.Cleanup(func() { old.Process.Kill(); old.Wait() })
	slog.SetDefault(slog.New(slog.DiscardHandler))
	_, handler, err := api.New(api.Config{Store: st, Page: web.Page()})
	require.NoError(t, err)
	now := httptest.NewServer(handler)
	t.Cleanup(now.Close)

	signedIn := func(url string) *http.Client {
		jar, err := cookiejar.New(nil)
		require.NoError(t, err)
		c := &http.Client{Jar: jar}
		body := fmt.Sprintf(`{"email":%q,"password":%q}`, demo.Email, demo.Password)
		for range 200 { // until it has started
			res, err := c.Post(url+"/api/session", "application/json", strings.NewReader(body))
			if err == nil {
				res.Body.Close()
				require.Equal(t, http.StatusOK, res.StatusCode)
				return c
			}
			time.Sleep(50 * time.Millisecond)
		}
		t.Fatalf("the older program does not answer: %s", said.String())
		return nil
	}
	sites := map[string]*http.Client{"http://" + addr: nil, now.URL: nil}
	for url := range sites {
		sites[url] = signedIn(url)
	}
	get := func(url, path string) []byte {
		res, err := sites[url].Get(url + "/api" + path)
		require.NoError(t, err)
		defer res.Body.Close()
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.Equal(t, http.StatusOK, res.StatusCode, "%s%s: %s", url, path, data)
		return data
	}
	var students []struct{ Ladder string }
	require.NoError(t, json.Unmarshal(get(now.URL, "/students"), &students))
	ladder := students[0].Ladder
	for url := range sites {
		for _, path := range []string{
			"/session", "/account", "/today", "/students", "/calendar", "/overview", "/library?instrument=piano", "/messages", "/way", "/words",
			"/ladders/" + ladder, "/ladders/" + ladder + "/lesson",
			"/ladders/" + ladder + "/plan", "/ladders/" + ladder + "/week", "/ladders/" + ladder + "/past", "/ladders/" + ladder + "/progress",
		} {
			get(url, path)
		}
	}
	// A note from either is there at both, once.
	i := 0
	for url, c := range sites {
		i++
		id := fmt.Sprintf("01KQR4HQ00NTE0000000000%03d", i)
		body := fmt.Sprintf(`{"entries":[{"id":%q,"at":%q,"kind":"note","text":"from one of two"}]}`, id, clock.Real().UTC().Format(time.RFC3339))
		res, err := c.Post(url+"/api/ladders/"+ladder+"/entries", "application/json", strings.NewReader(body))
		require.NoError(t, err)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		res.Body.Close()
		require.Equal(t, http.StatusOK, res.StatusCode, "%s", data)
		for other := range sites {
			require.Equal(t, i, strings.Count(string(get(other, "/ladders/"+ladder+"/entries")), "from one of two"))
		}
	}
}
