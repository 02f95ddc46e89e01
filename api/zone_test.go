package api_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// A teacher in Los Angeles gives lessons from 16:45 on: midnight in UTC falls into them, and each is one lesson: two Mondays
// without a new mark are two lessons, not four, and only the third makes a piece stuck.
func TestALessonInLosAngelesIsOneLesson(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "16:45", 30, 1))
	status, body := u.call(
		"PUT",
		"/api/account/studio",
		map[string]any{"name": "West", "timezone": "America/Los_Angeles", "keepYears": 2, "language": "en", "firstDay": 1, "letterhead": ""},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	piece := storetest.ID()
	status, body = u.call("POST", "/api/materials", scoreBody(piece, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	marked := func(at string) {
		status, body := u.append(ladder, entry{"kind": "spotAdded", "material": piece, "from": 1, "to": 1, "at": at})
		require.Less(t, status, 300, "%v", body)
	}
	u.append(ladder, entry{"kind": "assigned", "material": piece, "at": "2026-04-13T23:40:00Z"})
	signs := func() (kinds []string) {
		_, view := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		for _, s := range view["signs"].([]any) {
			kinds = append(kinds, s.(map[string]any)["kind"].(string))
		}
		return kinds
	}
	marked("2026-04-13T23:55:00Z")
	marked("2026-04-14T00:10:00Z")
	marked("2026-04-20T23:55:00Z")
	marked("2026-04-21T00:10:00Z")
	require.NotContains(t, signs(), "stuck", "two lessons")
	_, past := u.call("GET", "/api/ladders/"+ladder+"/past", nil)
	require.Len(t, past["lessons"], 2)
	marked("2026-05-04T15:05:00Z") // a Monday morning there
	require.Contains(t, signs(), "stuck")
}
