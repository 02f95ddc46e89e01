package api_test

import (
	"fmt"
	"maps"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// rungsAhead are the rungs of a ladder that were not begun, in order, as the arrangement wants them.
func (u *user) rungsAhead(t *testing.T, view map[string]any) (out []map[string]any) {
	t.Helper()
	for _, rail := range items(t, view, "rails") {
		for _, r := range items(t, rail, "rungs") {
			if r["layer"] == "ahead" || r["layer"] == "preview" {
				rung := map[string]any{"material": r["material"], "strand": rail["strand"]}
				if r["aside"] != nil {
					rung["aside"] = r["aside"]
				}
				out = append(out, rung)
			}
		}
	}
	return out
}

func TestRungsAreMovedByHand(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Ivo")
	path := "/api/ladders/" + ladder
	_, view := u.call("GET", path, nil)
	rungs := u.rungsAhead(t, view)
	method := 0
	for rungs[method]["strand"] != "method" {
		method++
	}
	last := method
	for last+1 < len(rungs) && rungs[last+1]["strand"] == "method" {
		last++
	}
	require.Greater(t, last, method, "something to turn round")
	turned := append([]map[string]any{}, rungs...)
	turned[method], turned[last] = turned[last], turned[method]
	body := map[string]any{"version": view["version"], "rungs": turned}

	status, tried := u.call("PUT", path+"/rungs?try=true", body)
	require.Equal(t, http.StatusOK, status, tried)
	require.NotEmpty(t, tried["changes"], "it says what it would do")
	_, still := u.call("GET", path, nil)
	require.Equal(t, view["rails"], still["rails"], "a try keeps nothing")

	status, done := u.call("PUT", path+"/rungs", body)
	require.Equal(t, http.StatusOK, status, done)
	require.Equal(t, tried["changes"], done["changes"])
	_, now := u.call("GET", path, nil)
	require.Equal(t, turned[method]["material"], u.rungsAhead(t, now)[method]["material"])
	status, problem := u.call("PUT", path+"/rungs", body)
	require.Equal(t, http.StatusConflict, status, problem)

	// Undone, everything stands as before.
	require.Equal(t, now["version"], done["ladder"].(map[string]any)["version"], "the answer is the ladder as it stands, to be arranged again")
	require.Equal(t, now["rails"], done["ladder"].(map[string]any)["rails"])
	status, back := u.call("PUT", path+"/rungs", map[string]any{"version": now["version"], "rungs": rungs})
	require.Equal(t, http.StatusOK, status, back)
	_, again := u.call("GET", path, nil)
	require.Equal(t, view["rails"], again["rails"])
	require.Equal(t, view["plantings"], again["plantings"])

	version := again["version"]
	rungs[method]["aside"] = "skipped"
	_, skipped := u.call("PUT", path+"/rungs?try=true", map[string]any{"version": version, "rungs": rungs})
	for _, rail := range items(t, skipped["ladder"].(map[string]any), "rails") {
		for _, r := range items(t, rail, "rungs") {
			if r["material"] == rungs[method]["material"] {
				require.Equal(t, "skipped", r["aside"])
				require.Nil(t, r["begins"], "it is not expected")
			}
		}
	}
	for says, wrong := range map[string][]map[string]any{
		"stands there twice":   {rungs[0], rungs[0]},
		"its place is history": {{"material": begunOn(t, again), "strand": "method"}},
		"is for ukulele":       {{"material": u.materialOf("First Strum"), "strand": "method"}},
	} {
		status, problem := u.call("PUT", path+"/rungs", map[string]any{"version": version, "rungs": wrong})
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, problem["detail"], says)
	}
	_, end := u.call("GET", path, nil)
	require.Equal(t, view["rails"], end["rails"], "nothing was changed")
}

func begunOn(t *testing.T, view map[string]any) string {
	for _, rail := range items(t, view, "rails") {
		for _, r := range items(t, rail, "rungs") {
			if r["layer"] == "working" {
				return r["material"].(string)
			}
		}
	}
	t.Fatal("nothing is in work")
	return ""
}

// Every preview says the piece, the date, the steps left, and what would mend a late one.
func TestPlantingsSayWhy(t *testing.T) {
	u := teacher(t)
	seen := 0
	for _, name := range []string{"Ivo", "Maren", "Caspian", "Henrik"} {
		_, view := u.call("GET", "/api/ladders/"+u.ladderOf(name), nil)
		for _, p := range items(t, view, "plantings") {
			seen++
			require.Contains(t, p["why"], p["forTitle"])
			require.Contains(t, p["why"], "left")
			require.Len(t, p["steps"], int(p["of"].(float64)-p["done"].(float64)))
			require.Equal(t, p["late"].(float64) > 0, len(p["mends"].([]any)) > 0)
		}
	}
	require.Positive(t, seen)
}

func TestATargetIsWorkedBackwards(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Ivo")
	path := "/api/ladders/" + ladder
	_, view := u.call("GET", path, nil)
	piece := u.rungsAhead(t, view)[0]["material"]
	day := now.AddDate(0, 0, 63).Format("2006-01-02")
	ask := map[string]any{"material": piece, "day": day}
	_, free := u.call("POST", path+"/targets", ask)
	require.Contains(t, free["sentence"], "is ready on")
	require.Greater(t, free["chance"], free["withoutTwo"].(float64)-1e-9)

	// A fortnight without lessons, and the same with lessons all the same.
	holiday := storetest.ID()
	status, got := u.call(
		"PUT",
		"/api/holidays/"+holiday,
		map[string]any{"name": "Autumn", "first": now.AddDate(0, 0, 20).Format("2006-01-02"), "last": now.AddDate(0, 0, 33).Format("2006-01-02")},
	)
	require.Equal(t, http.StatusNoContent, status, got)
	defer u.call("DELETE", "/api/holidays/"+holiday, nil)
	_, off := u.call("POST", path+"/targets", ask)
	require.InDelta(t, free["withoutTwo"], off["chance"], 1e-9)
	require.Equal(t, free["lessons"].(float64)-2, off["lessons"])
	require.Equal(t, "Autumn", items(t, off, "holidays")[0]["name"])
	ask["given"] = []string{holiday}
	_, given := u.call("POST", path+"/targets", ask)
	require.Equal(t, free["chance"], given["chance"])

	target := path + "/targets/" + storetest.ID()
	status, got = u.call("PUT", target, map[string]any{"name": "Recital", "day": day, "material": piece})
	require.Equal(t, http.StatusNoContent, status, got)
	_, view = u.call("GET", path, nil)
	require.Equal(t, off["chance"], items(t, view, "targets")[0]["verdict"].(map[string]any)["chance"])
	status, _ = u.call("DELETE", target, nil)
	require.Equal(t, http.StatusNoContent, status)

	status, problem := u.call("PUT", target, map[string]any{"name": "Recital", "day": "2020-01-01", "material": piece})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "1 January 2020 is in the past.", problem["detail"])
	status, problem = u.call("PUT", "/api/holidays/"+holiday, map[string]any{"name": "Back", "first": "2030-02-02", "last": "2030-02-01"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "before it begins")
}

// Sound first, tried: it says what changes; applied, it changes as announced.
func TestAWayOfTeachingChangesAsAnnounced(t *testing.T) {
	u := teacher(t)
	_, was := u.call("GET", "/api/way", nil)
	require.Equal(t, "balanced", was["preset"])
	sound := items(t, was, "presets")[0]["way"]
	_, change := u.call("POST", "/api/way", sound)
	require.Equal(t, "75 % of practice", items(t, change, "switches")[0]["to"])
	ladder, announced := "", ""
	for _, s := range items(t, change, "students") {
		for _, e := range s["effects"].([]any) {
			if text := e.(string); strings.HasPrefix(text, "review ") && ladder == "" {
				ladder, announced = s["ladder"].(string), text
			}
		}
	}
	require.NotEmpty(t, ladder, "somebody's review changes")
	week := func() (review map[string]any, minutes float64) {
		_, w := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
		for _, d := range items(t, w, "days") {
			for _, it := range items(t, d, "items") {
				if it["kind"] == "review" {
					minutes += it["minutes"].(float64)
				}
			}
		}
		return w["review"].(map[string]any), minutes
	}
	_, before := week()
	status, got := u.call("PUT", "/api/way?version=1", sound)
	require.Equal(t, http.StatusNoContent, status, got)
	status, _ = u.call("PUT", "/api/way?version=1", sound)
	require.Equal(t, http.StatusConflict, status)
	aim, after := week()
	require.Equal(t, 0.75, aim["aim"])
	require.Equal(t, announced, fmt.Sprintf("review %.0f → %.0f minutes a week", before, after))
	_, piece := u.call("GET", "/api/materials/"+u.materialOf("Fog"), nil)
	require.Equal(t, "sound", piece["firstView"])

	fresh := newStudent(t, u)
	_, next := u.call("GET", "/api/ladders/"+fresh+"/next?strand=reading", nil)
	require.Nil(t, next["chosen"])
	require.Contains(t, next["reasons"].([]any)[0], "reading begins after 52 weeks")

	// One student goes another way; the studio's next change leaves that alone.
	own := items(t, was, "presets")[1]["way"].(map[string]any)
	status, got = u.call("PUT", "/api/way?ladder="+ladder, own)
	require.Equal(t, http.StatusNoContent, status, got)
	less := maps.Clone(sound.(map[string]any))
	less["reviewShare"] = 0.2
	_, change = u.call("POST", "/api/way", less)
	require.Len(t, items(t, change, "switches"), 1)
	effects := map[string]any{}
	for _, s := range items(t, change, "students") {
		effects[s["ladder"].(string)] = s["effects"]
	}
	require.NotEmpty(t, effects, "less review for somebody")
	require.NotContains(t, effects, ladder, "who has a share of review of the own keeps it")
	status, got = u.call("PUT", "/api/way?version=2", was["way"])
	require.Equal(t, http.StatusNoContent, status, got)
	_, mine := u.call("GET", "/api/way?ladder="+ladder, nil)
	require.Equal(t, own["reviewShare"], mine["way"].(map[string]any)["reviewShare"])
	require.Contains(t, mine["differs"], "reviewShare")
	u.call("PUT", "/api/way?ladder="+ladder, was["way"])

	own["reviewShare"] = 2
	status, problem := u.call("PUT", "/api/way?version=3", own)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The review share must lie between 0 and 0.9, not 2.", problem["detail"])
}

func TestFitLearnsTasteAndExplainsBlocks(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	_, fit := u.call("GET", "/api/ladders/"+ladder+"/fit", nil)
	open := true
	blocks := 0
	for _, c := range items(t, fit, "candidates") {
		blocked := len(c["blocks"].([]any)) > 0
		require.False(t, blocked == false && !open, "an open one after a blocked one")
		open = !blocked
		for _, b := range items(t, c, "blocks") {
			blocks++
			require.NotEmpty(t, b["way"])
		}
	}
	require.Positive(t, blocks)
	require.Empty(t, fit["taste"])
	fog := u.materialOf("Fog")
	status, got := u.call("PATCH", "/api/materials/"+fog, map[string]any{"title": "Fog", "composer": "", "tags": []string{"strange"}})
	require.Equal(t, http.StatusNoContent, status, got)
	u.append(ladder, entry{"kind": "liking", "material": fog, "sign": "asked"}, entry{"kind": "liking", "material": fog, "sign": "liked"})
	_, fit = u.call("GET", "/api/ladders/"+ladder+"/fit", nil)
	require.Equal(t, "strange", items(t, fit, "taste")[0]["tag"])
	for _, c := range items(t, fit, "candidates") {
		if c["material"] == fog {
			require.Contains(t, c["reasons"], "likes what is strange (asked for once, liked once)")
		}
	}
}

func TestTheOverviewNamesWhoNeedsWhat(t *testing.T) {
	u := teacher(t)
	_, o := u.call("GET", "/api/overview", nil)
	require.GreaterOrEqual(t, len(items(t, o, "students")), 8)
	require.NotEmpty(t, o["sentence"])
	all, early := 0, 0
	for _, s := range items(t, o, "students") {
		for _, w := range items(t, s, "working") {
			all++
			if w["clears"].(map[string]any)["words"] == "" {
				early++ // of a piece far from what was cleared nothing is said
			}
		}
		require.NotEmpty(t, s["review"].(map[string]any)["words"])
	}
	require.LessOrEqual(t, early, all/8)
}

func TestWhatNeverWasIsNotRated(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	status, problem := u.append(ladder, entry{"kind": "hearing", "material": u.materialOf("Fog"), "rating": 3})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "has never had “Fog”: nothing was recorded.")
}

// A piece that rests leaves the week and its clock stands still; taken up again it is back.
func TestAWorkingPieceRests(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	fog := u.materialOf("Fog")
	u.append(ladder, entry{"kind": "assigned", "material": fog})
	working := func() int {
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		return len(items(t, lesson, "pieces"))
	}
	require.Equal(t, 1, working())
	status, got := u.append(ladder, entry{"kind": "paused", "material": fog})
	require.Equal(t, http.StatusOK, status, got)
	require.Zero(t, working())
	u.append(ladder, entry{"kind": "resumed", "material": fog})
	require.Equal(t, 1, working())
}
