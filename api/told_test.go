package api_test

import (
	"context"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"
)

// A studio that was there before figures moved is told once, on Today; one in UTC, where days stay what they were, of one
// change less.
func TestWhatAnUpdateMovedIsSaidOnce(t *testing.T) {
	u := newcomer(t)
	studio, err := db.Studio(context.Background(), u.studio)
	require.NoError(t, err)
	require.Zero(t, studio.Told)
	moved := func() (out []float64) {
		for _, m := range u.get("/api/today")["moved"].([]any) {
			out = append(out, m.(map[string]any)["number"].(float64))
		}
		return out
	}
	require.Equal(t, []float64{2, 3, 4, 5}, moved(), "in UTC")
	zone := map[string]any{
		"name":       "West",
		"timezone":   "America/Los_Angeles",
		"keepYears":  2,
		"language":   "en",
		"firstDay":   1,
		"letterhead": "",
	}
	status, body := u.call("PUT", "/api/account/studio", zone)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []float64{1, 2, 3, 4, 5}, moved())
	for _, told := range []struct {
		number int
		left   []float64
	}{{1, []float64{2, 3, 4, 5}}, {3, []float64{4, 5}}, {4, []float64{5}}, {5, nil}} {
		status, body = u.call("PUT", "/api/told", map[string]any{"number": told.number})
		require.Equal(t, http.StatusNoContent, status, body)
		require.Equal(t, told.left, moved())
	}
}

// get reads an answer that is there.
func (u *user) get(path string) map[string]any {
	u.t.Helper()
	status, body := u.call("GET", path, nil)
	require.Equal(u.t, http.StatusOK, status, "%s: %v", path, body)
	return body
}
