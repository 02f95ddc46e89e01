package api_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"
)

// Today's lessons are planned in one press; pressed again nothing changes.
func TestADayIsPlannedInOnePress(t *testing.T) {
	u := teacher(t)
	_, day := u.call("POST", "/api/plans", nil)
	lessons := items(t, day, "lessons")
	require.GreaterOrEqual(t, len(lessons), 5)
	require.Contains(t, day["sentence"], "planned")
	ladder := u.ladderOf("Ivo")
	_, plan := u.call("GET", "/api/ladders/"+ladder+"/plan", nil)
	require.Equal(t, true, plan["kept"])
	_, again := u.call("POST", "/api/plans", nil)
	require.Equal(t, day, again)

	sum, review := 0.0, 0.0
	kinds := map[string]int{}
	for _, s := range items(t, plan, "segments") {
		sum += s["minutes"].(float64)
		if s["layer"] == "review" {
			review += s["minutes"].(float64)
		}
		kinds[s["kind"].(string)]++
		require.NotEmpty(t, s["why"], s["id"])
	}
	require.Equal(t, plan["minutes"], sum+plan["free"].(float64))
	require.Equal(t, plan["review"], review)
	require.Equal(t, 1, kinds["opening"])
	require.Equal(t, 1, kinds["closing"])
	asked := false
	for _, s := range items(t, plan, "segments") {
		for _, q := range s["questions"].([]any) {
			asked = true
			require.NotEmpty(t, q.(map[string]any)["answer"])
		}
	}
	require.True(t, asked, "a piece in work has its questions")
	for _, l := range append(items(t, plan, "left"), items(t, plan, "others")...) {
		require.NotEmpty(t, l["reason"])
	}
}

func TestAPlanIsChangedByHand(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Caspian")
	path := "/api/ladders/" + ladder + "/plan"
	_, plan := u.call("GET", path, nil)
	segments := items(t, plan, "segments")
	total := func(p map[string]any) (n float64) {
		for _, s := range items(t, p, "segments") {
			n += s["minutes"].(float64)
		}
		return n
	}
	version := plan["hand"].(map[string]any)["version"]
	status, short := u.call("PUT", path, map[string]any{"version": version, "minutes": 20})
	require.Equal(t, http.StatusOK, status, short)
	require.LessOrEqual(t, total(short), 20.0)
	require.Greater(t, len(items(t, short, "left")), len(items(t, plan, "left")), "what does not fit waits")
	status, problem := u.call("PUT", path, map[string]any{"version": version, "minutes": 25})
	require.Equal(t, http.StatusConflict, status, problem)

	// Dropped, it is out; pinned, it is in with its minutes, whatever else has to go.
	version = short["hand"].(map[string]any)["version"]
	var out, pinned string
	minutes := 0.0
	for _, s := range segments {
		if s["kind"] == "working" || s["kind"] == "run" {
			out = s["id"].(string)
		}
	}
	for _, l := range items(t, short, "left") {
		if id := l["id"].(string); id != out {
			pinned, minutes = id, l["most"].(float64)
		}
	}
	require.NotEmpty(t, pinned)
	status, hand := u.call(
		"PUT",
		path,
		map[string]any{
			"version": version,
			"minutes": 30,
			"drops":   []string{out},
			"pins":    []map[string]any{{"segment": pinned, "minutes": minutes}},
		},
	)
	require.Equal(t, http.StatusOK, status, hand)
	found := false
	for _, s := range items(t, hand, "segments") {
		require.NotEqual(t, out, s["id"])
		if s["id"] == pinned {
			found = true
			require.Equal(t, minutes, s["minutes"])
		}
	}
	require.True(t, found)
	_, kept := u.call("GET", path, nil)
	require.Equal(t, hand["segments"], kept["segments"], "it is kept")

	version = hand["hand"].(map[string]any)["version"]
	for says, body := range map[string]map[string]any{
		"A lesson lasts from 5 to 180 minutes, not -10.":    {"minutes": -10},
		"There is no segment \"nothing\" to pin.":           {"pins": []map[string]any{{"segment": "nothing", "minutes": 0}}},
		"unpin or shorten something":                        {"minutes": 20, "pins": []map[string]any{{"segment": pinned, "minutes": 20}}},
		fmt.Sprintf("cannot take %d of %d minutes", 90, 45): {"pins": []map[string]any{{"segment": pinned, "minutes": 90}}},
	} {
		body["version"] = version
		status, problem := u.call("PUT", path, body)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, problem["detail"], says)
	}
	_, still := u.call("GET", path, nil)
	require.Equal(t, kept, still, "nothing was changed")
	status, problem = u.call("POST", "/api/plans?day=2020-01-06", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "is over")
}

// What had to wait in one lesson is worth more in the next, and activities rotate.
func TestWhatWaitedComesBack(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Wren")
	path := "/api/ladders/" + ladder + "/plan"
	_, first := u.call("GET", path, nil)
	version := first["hand"].(map[string]any)["version"]
	status, first := u.call("PUT", path, map[string]any{"version": version})
	require.Equal(t, http.StatusOK, status, first)
	waited := map[string]bool{}
	for _, l := range append(items(t, first, "left"), items(t, first, "others")...) {
		waited[l["id"].(string)] = true
	}
	require.NotEmpty(t, waited)
	for _, s := range items(t, first, "segments") {
		var goal string
		var option int
		if n, _ := fmt.Sscanf(s["id"].(string), "activity %s %d", &goal, &option); n == 2 {
			status, got := u.append(ladder, entry{"kind": "activity", "goal": goal, "step": option})
			require.Equal(t, http.StatusOK, status, got)
		}
	}
	_, second := u.call("GET", path+"?day="+now.AddDate(0, 0, 7).Format("2006-01-02"), nil)
	came := 0
	for _, s := range items(t, second, "segments") {
		if waited[s["id"].(string)] {
			came++
			require.Contains(t, s["why"], "it had to wait last time")
		}
	}
	require.Positive(t, came)
	status, problem := u.append(ladder, entry{"kind": "activity", "goal": "juggling", "step": 1})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "juggling")
}
