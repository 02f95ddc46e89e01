package api_test

import (
	"bytes"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"regexp"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/require"

	"patientladder/api"
	"patientladder/demo"
)

// Requests are named, measured by route and logged without names, addresses or tokens; a server that stops says so.
func TestRequestsAreObserved(t *testing.T) {
	var log bytes.Buffer
	server, handler, err := api.New(api.Config{
		Store: db, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: may4,
		Log: slog.New(slog.NewJSONHandler(&log, &slog.HandlerOptions{Level: slog.LevelDebug})),
	})
	require.NoError(t, err)
	defer server.Close()
	ask := func(method, path string) *http.Response {
		w := httptest.NewRecorder()
		handler.ServeHTTP(w, httptest.NewRequest(method, path, nil))
		return w.Result()
	}
	res := ask("GET", "/api/family/SECRETTOKEN")
	require.Equal(t, http.StatusNotFound, res.StatusCode)
	require.Regexp(t, `^[0-9A-Z]{26}$`, res.Header.Get("X-Request-Id"))
	require.Contains(t, log.String(), `"id":"`+res.Header.Get("X-Request-Id")+`","method":"GET","route":"/api/family/:token","status":404`)
	require.NotContains(t, log.String(), "SECRETTOKEN")
	require.NotContains(t, log.String(), demo.Email)
	require.NotContains(t, log.String(), "192.0.2.1", "the address of the test's client")

	w := httptest.NewRecorder()
	server.Metrics().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
	text, err := io.ReadAll(w.Result().Body)
	require.NoError(t, err)
	require.Contains(t, string(text), `ladder_request_seconds_count{method="GET",route="/api/family/:token",status="4xx"} 1`)
	require.Regexp(t, regexp.MustCompile(`ladder_budget_working\{kind="hashing"\} 0`), string(text))
	require.NotContains(t, string(text), "SECRETTOKEN")

	for path, want := range map[string]int{"/livez": 200, "/readyz": 200, "/healthz": 200, "/metrics": 200} {
		require.Equal(t, want, ask("GET", path).StatusCode, path)
	}
	server.Stopping()
	require.Equal(t, 200, ask("GET", "/livez").StatusCode)
	require.Equal(t, 503, ask("GET", "/readyz").StatusCode)
}
