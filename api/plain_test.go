package api_test

import (
	"fmt"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
	"patientladder/store/storetest"
)

// Characters that cannot be seen and days that no calendar plans for are refused with what and where, and nothing is kept.
func TestWhatNobodyTypes(t *testing.T) {
	u := teacher(t)
	before := len(u.list("/api/students"))
	add := func(name, born string) (int, any) {
		status, body := u.call(
			"POST",
			"/api/students",
			map[string]any{"student": storetest.ID(), "ladder": storetest.ID(), "name": name, "born": born, "instrument": "piano"},
		)
		return status, body["detail"]
	}
	for name, code := range map[string]string{"a\x00b": "0000", "a\u202eb": "202E", "a\u2066b": "2066", "a\x07b": "0007", "a\u0085b": "0085"} {
		status, detail := add(name, "2015-01-01")
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Equal(t, "“name” has a character that cannot be seen (U+"+code+"). Take it out; nothing was changed.", detail)
	}
	status, detail := add("Nell", "0000-01-01")
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "“born”: no calendar plans for the day 0000-01-01. Nothing was changed.", detail)
	require.Len(t, u.list("/api/students"), before)
	for _, path := range []string{"/api/today?day=0000-01-01", "/api/calendar?from=9999-12-31", "/api/overview?x=%00"} {
		status, body := u.call("GET", path, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status, path)
		require.NotContains(t, body["detail"], "went wrong", path)
	}
	status, detail = add("Zoë Nuñez-Γιώργος 王小明 عمر", "2015-01-01")
	require.Equal(t, http.StatusCreated, status, detail)
}

// The contract asks about no more bars than readers read and storage keeps.
func TestTheContractKnowsTheBoundsOfScores(t *testing.T) {
	spec, err := os.ReadFile("openapi.yaml")
	require.NoError(t, err)
	require.Equal(t, 2, strings.Count(string(spec), fmt.Sprintf("minimum: 1, maximum: %d}", score.MostBars)))
}
