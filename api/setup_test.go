package api_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// A child of six on an adult's bench is measured: mats and a platform, the
// cushion refused; seven months later it is due again.
func TestAChildIsMeasured(t *testing.T) {
	u := teacher(t)
	born := now.AddDate(-6, -1, 0).Format("2006-01-02")
	ladder := storetest.ID()
	status, got := u.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    storetest.ID(),
			"ladder":     ladder,
			"name":       "Small Fry",
			"born":       born,
			"instrument": "piano",
			"weekday":    int(now.Weekday()),
			"startsAt":   "11:15",
			"minutes":    30,
		},
	)
	require.Equal(t, http.StatusCreated, status, got)
	path := "/api/ladders/" + ladder + "/setup"
	_, never := u.call("GET", path, nil)
	require.Equal(t, true, never["due"])
	require.Empty(t, never["places"], "nothing is advised before it was measured")
	require.Equal(t, "Nothing was measured yet: a tape and two minutes are enough.", never["sentence"])
	require.Len(t, never["faults"], 9)

	mat := func(cm float64, soft bool) map[string]any { return map[string]any{"thickness": cm, "soft": soft} }
	measures := map[string]any{
		"keyTop":    73,
		"elbow":     16,
		"leg":       31,
		"benchLow":  46,
		"benchHigh": 51,
		"lean":      "level",
		"mats":      []any{mat(3, false), mat(4, false), mat(8, true)},
	}
	status, seat := u.call("POST", path, measures)
	require.Equal(t, http.StatusOK, status, seat)
	require.Equal(t, true, seat["possible"])
	require.NotEmpty(t, seat["mats"])
	require.Greater(t, seat["platform"], 20.0)
	require.Contains(t, seat["refused"].([]any)[0], "cushion of 8 cm is not used")

	status, got = u.append(ladder, entry{"kind": "setupChecked", "setup": measures})
	require.Equal(t, http.StatusOK, status, got)
	_, seen := u.call("GET", path, nil)
	require.Equal(t, false, seen["due"])
	require.Equal(t, seat, items(t, seen, "places")[0]["seat"])
	require.Equal(
		t,
		map[string]any{"keyTop": 73.0, "benchLow": 46.0, "benchHigh": 51.0, "mats": []any{mat(3, false), mat(4, false), mat(8, true)}},
		seen["bench"],
		"the studio's bench is known from then on",
	)
	measures["place"], measures["leg"], measures["keyTop"] = "home", 33, 71
	u.append(ladder, entry{"kind": "setupChecked", "setup": measures})
	_, seen = u.call("GET", path, nil)
	require.Len(t, seen["places"], 2)
	require.Equal(t, 73.0, seen["bench"].(map[string]any)["keyTop"], "home is another place")
	measures["place"], measures["keyTop"] = "studio", 73
	u.append(ladder, entry{"kind": "setupChecked", "setup": measures})
	_, seen = u.call("GET", path, nil)
	require.Contains(t, items(t, seen, "places")[0]["growth"], "the lower leg is 2 cm longer")

	// Seven months later: the same log with the measure that long ago.
	old := storetest.ID()
	status, got = u.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    storetest.ID(),
			"ladder":     old,
			"name":       "Old Measure",
			"born":       born,
			"instrument": "piano",
			"weekday":    int(now.Weekday()),
			"startsAt":   "11:45",
			"minutes":    30,
		},
	)
	require.Equal(t, http.StatusCreated, status, got)
	u.append(old, entry{"kind": "setupChecked", "setup": measures, "at": now.AddDate(0, -7, 0).Format(time.RFC3339)})
	_, later := u.call("GET", "/api/ladders/"+old+"/setup", nil)
	require.Equal(t, true, later["due"])
	require.Contains(t, later["sentence"], "due again")
	_, today := u.call("GET", "/api/today", nil)
	found := false
	for _, l := range items(t, today, "lessons") {
		if l["student"].(map[string]any)["name"] == "Old Measure" {
			for _, s := range items(t, l, "signs") {
				found = found || s["kind"] == "bench"
			}
		}
	}
	require.True(t, found, "Today says that it is due")

	measures["leg"] = 3
	status, problem := u.call("POST", path, measures)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The lower leg must lie between 15 and 60 cm, not 3.", problem["detail"])
	status, problem = u.append(ladder, entry{"kind": "setupChecked", "setup": measures})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "lower leg")
}
