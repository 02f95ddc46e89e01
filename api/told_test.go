package api_test

import (
	"context"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"
)

// A studio that was there before figures moved is told once, on Today; one in UTC, where days stay what they were, is not.
func TestWhatAnUpdateMovedIsSaidOnce(t *testing.T) {
	u := newcomer(t)
	studio, err := db.Studio(context.Background(), u.studio)
	require.NoError(t, err)
	require.Zero(t, studio.Told)
	moved := func() any { return u.get("/api/today")["moved"] }
	require.Equal(t, []any{}, moved(), "in UTC")
	zone := map[string]any{"name": "West", "timezone": "America/Los_Angeles", "keepYears": 2, "language": "en", "firstDay": 1, "letterhead": ""}
	status, body := u.call("PUT", "/api/account/studio", zone)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, 1.0, moved().([]any)[0].(map[string]any)["number"])
	status, body = u.call("PUT", "/api/told", map[string]any{"number": 1})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []any{}, moved())
}

// get reads an answer that is there.
func (u *user) get(path string) map[string]any {
	u.t.Helper()
	status, body := u.call("GET", path, nil)
	require.Equal(u.t, http.StatusOK, status, "%s: %v", path, body)
	return body
}
