package api_test

import (
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/store/storetest"
)

// air has phrases of eight beats without a rest at 60: eight seconds on one breath; and notes below the first ones of a flute.
const air = "X:1\nT:%s\nM:4/4\nL:1/4\nQ:1/4=60\nK:G\n(GABc|BAGA)|G2 z2|(GFED|EFGA)|G2 z2|\n"

// A flute student is added and taught for a month: what the pieces ask of breath and range is on the ladder, long tones come
// first, the week and its sheet are there, cleared pieces make phrases on one breath secure, and the report says so.
func TestAFluteStudentForAMonth(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	ladder := u.newStudent("Solveig Aas", "flute")
	var ids []string
	for _, title := range []string{"First Air", "Second Air", "Third Air"} {
		body := upload("air.abc", fmt.Sprintf(air, title), 0)
		id := storetest.ID()
		body["id"], body["strand"], body["instrument"] = id, "repertoire", "flute"
		status, got := u.call("POST", "/api/materials", body)
		require.Equal(t, http.StatusCreated, status, got)
		_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
		ids = append(ids, id)
	}
	asked := map[string]bool{}
	for _, d := range u.piece(ids[0], "")["demands"].([]any) {
		asked[d.(map[string]any)["skill"].(string)] = true
	}
	for _, skill := range []string{"first-notes", "wider-range", "long-breaths", "slurring"} {
		require.True(t, asked[skill], "%s in %v", skill, asked)
	}
	require.False(t, asked["hand-shape"])
	technique := u.technique(ladder)
	require.Contains(t, technique["sentence"], "Long tones")
	require.Len(t, u.onLadder(ladder), 3)

	day := now.AddDate(0, 0, -28)
	say := func(e entry) {
		e["at"] = day.UTC().Format(time.RFC3339)
		day = day.Add(time.Minute)
		status, body := u.append(ladder, e)
		require.Equal(t, http.StatusOK, status, body)
	}
	for _, id := range ids[:2] {
		say(entry{"kind": "assigned", "material": id})
		day = day.AddDate(0, 0, 7)
		say(entry{"kind": "run", "material": id, "met": []string{"notes", "fingers", "rhythm", "tone", "flow"}})
		say(entry{"kind": "cleared", "material": id})
		day = day.AddDate(0, 0, 6)
	}
	say(entry{"kind": "assigned", "material": ids[2]})
	week := u.weekOf(ladder)
	titles := map[string]bool{}
	for _, d := range daysOf(week) {
		for _, it := range d["items"].([]any) {
			titles[it.(map[string]any)["title"].(string)] = true
		}
	}
	require.True(t, titles["Third Air"], "%v", titles)
	require.Regexp(t, "^%PDF-", u.read("/api/ladders/"+ladder+"/week/sheet"))
	status, skills := u.call("GET", "/api/ladders/"+ladder+"/known", nil)
	require.Equal(t, http.StatusOK, status)
	known := map[string]bool{}
	for _, f := range skills["skills"].([]any) {
		for _, x := range f.(map[string]any)["skills"].([]any) {
			known[x.(map[string]any)["id"].(string)] = x.(map[string]any)["known"].(bool)
		}
	}
	require.True(t, known["long-breaths"], "two pieces asked for it")
	_, report := u.call("GET", "/api/ladders/"+ladder+"/reports/"+storetest.ID(), nil)
	require.Contains(t, fmt.Sprint(report), "long phrases on one breath")
}
