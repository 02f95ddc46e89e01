package api_test

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

func TestAScaleWithItsFingers(t *testing.T) {
	u := teacher(t)
	status, s := u.call("GET", "/api/scale?key=Db&kind=major&octaves=2", nil)
	require.Equal(t, http.StatusOK, status, s)
	up := s["up"].(map[string]any)
	require.Equal(t, []any{2.0, 3.0, 1.0, 2.0, 3.0, 4.0, 1.0, 2.0}, up["right"].([]any)[:8])
	require.Len(t, up["midi"], 15)
	require.Equal(t, "The hands meet: the thumbs together on F and C; the same fingers side by side on D♭, E♭, G♭, A♭ and B♭.", s["sentence"])
	require.Len(t, s["keys"], 15)
	_, e := u.call("GET", "/api/exercise?instrument=piano&exercise=scale/together/Db/major/-", nil)
	require.Equal(t, s["sentence"], e["sentence"], "the exercise says the same of it")
	for path, says := range map[string]string{
		"key=H&kind=major":             "is not a key",
		"key=G%23&kind=major":          "write Ab",
		"key=C&kind=major&octaves=9":   "between 1 and 4",
		"key=C&kind=major&octaves=-10": "between 1 and 4",
		"key=C&kind=blues":             "kind",
	} {
		status, problem := u.call("GET", "/api/scale?"+path, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status, path)
		require.Contains(t, problem["detail"], says, path)
	}
}

func TestATempoLadder(t *testing.T) {
	u := teacher(t)
	status, got := u.call("GET", "/api/tempi?from=60&to=96&weeks=5", nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, []any{66.0, 72.0, 80.0, 88.0, 96.0}, got["marks"])
	for path, says := range map[string]string{
		"from=96&to=60&weeks=5":  "a tempo ladder rises",
		"from=60&to=96&weeks=0":  "takes 1 to 104 weeks, not 0",
		"from=60&to=400&weeks=5": "leaves it",
	} {
		status, problem := u.call("GET", "/api/tempi?"+path, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status, path)
		require.Contains(t, strings.ToLower(problem["detail"].(string)), says)
	}
}

// Twelve weeks from B over the lessons of a student, with a half-term break; a
// lesson that is missed moves the end by a week.
func TestACycleOverTheTerm(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Caspian") // lessons on the weekday of the clock
	get := func(more string) map[string]any {
		status, c := u.call("GET", "/api/ladders/"+ladder+"/cycle?key=B&order=fifths"+more, nil)
		require.Equal(t, http.StatusOK, status, c)
		return c
	}
	day := func(weeks int) string { return now.AddDate(0, 0, 7*weeks).Format(time.DateOnly) }
	plain := get("")
	weeks := plain["weeks"].([]any)
	require.Len(t, weeks, 12)
	require.Equal(t, "B", weeks[0].(map[string]any)["key"])
	require.Equal(t, "G♭", weeks[1].(map[string]any)["key"])
	require.Equal(t, day(12), plain["end"])
	require.Contains(t, plain["sentence"], "no lesson falls out")
	slid := get("&missed=" + day(3))
	require.Equal(t, day(13), slid["end"])
	require.Contains(t, slid["sentence"], "one week without a lesson")

	holiday := "/api/holidays/" + storetest.ID()
	status, _ := u.call(
		"PUT",
		holiday,
		map[string]any{"name": "Half term", "first": day(5), "last": now.AddDate(0, 0, 7*5+4).Format(time.DateOnly)},
	)
	require.Equal(t, http.StatusNoContent, status)
	broken := get("")
	require.Equal(t, day(14), broken["end"], "the lesson before the break begins no key")
	require.Equal(t, 1.0, broken["weeks"].([]any)[4].(map[string]any)["off"])
	require.Equal(t, []any{day(4)}, broken["weeks"].([]any)[4].(map[string]any)["held"])
	require.Contains(t, broken["sentence"], "no key is begun in one lesson right before a break")
	all := get("&before=true")
	require.Equal(t, day(13), all["end"])
	require.Equal(t, 1.0, all["weeks"].([]any)[5].(map[string]any)["off"])
	status, _ = u.call("DELETE", holiday, nil)
	require.Equal(t, http.StatusNoContent, status)
	status, problem := u.call("GET", "/api/ladders/"+ladder+"/cycle?key=H&order=fifths", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "is not a key")
}
