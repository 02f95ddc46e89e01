package api_test

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/learning"
	"patientladder/store/storetest"
)

// achieved is a studio with one student who has cleared two pieces.
func achieved(t *testing.T) (u *user, ladder string, pieces []string) {
	u, _, ladder = settled(t, slotOn(1, "15:30", 30, 1))
	pieces = u.titled("piano", "Low Water", "Two Boats", "Fog")
	for i, id := range pieces {
		status, body := u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
		require.Equal(t, http.StatusNoContent, status, body)
		u.append(ladder, entry{"kind": "assigned", "material": id, "at": fmt.Sprintf("2026-03-%02dT15:30:00Z", 2+7*i)})
		if i < 2 {
			u.append(ladder, entry{"kind": "cleared", "material": id, "at": fmt.Sprintf("2026-03-%02dT15:40:00Z", 16+7*i)})
		}
	}
	return u, ladder, pieces
}

func lines(report map[string]any) (out []string) {
	for _, l := range report["lines"].([]any) {
		out = append(out, l.(string))
	}
	return out
}

// Progress is what the log says, with the entries that each sentence comes from; a span that cannot be looked at is refused in a sentence.
func TestProgressOfAStudent(t *testing.T) {
	u, ladder, _ := achieved(t)
	_, p := u.call("GET", "/api/ladders/"+ladder+"/progress", nil)
	require.Equal(t, "Four lessons: two pieces cleared.", p["sentence"])
	require.Equal(t, "3 February – 4 May 2026", p["days"])
	grown := items(t, p, "grown")
	require.Len(t, grown, 1)
	require.Equal(t, "Two pieces cleared: “Low Water” and “Two Boats”.", grown[0]["text"])
	require.Equal(
		t,
		[]any{
			map[string]any{"day": "2026-03-16", "text": "“Low Water” cleared"},
			map[string]any{"day": "2026-03-23", "text": "“Two Boats” cleared"},
		},
		withoutIDs(grown[0]["entries"].([]any)),
	)
	var way []string
	for _, x := range items(t, p, "pieces") {
		way = append(way, fmt.Sprint(x["title"], " ", x["from"], " ", x["to"], " lane ", x["lane"]))
	}
	require.Equal(
		t,
		[]string{"Low Water 2026-03-02 2026-03-16 lane 0", "Two Boats 2026-03-09 2026-03-23 lane 1", "Fog 2026-03-16  lane 0"},
		way,
	)
	_, p = u.call("GET", "/api/ladders/"+ladder+"/progress?from=2026-03-17&to=2026-03-31", nil)
	require.Equal(t, "One lesson: one piece cleared.", p["sentence"])
	require.Equal(t, "", p["next"], "what came next is behind")
	for query, says := range map[string]string{
		"from=2026-05-02&to=2026-05-01": "The span ends before it begins: from 2 May 2026 to 1 May 2026.",
		"from=2026-06-01&to=2026-07-01": "1 June 2026 is still ahead; there is nothing to look back at.",
	} {
		status, problem := u.call("GET", "/api/ladders/"+ladder+"/progress?"+query, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Equal(t, says, problem["detail"])
	}
	_, empty := u.call("GET", "/api/ladders/"+ladder+"/progress?from=2025-01-01&to=2025-02-01", nil)
	require.Equal(t, "No lesson was entered in this time.", empty["sentence"])
	require.Equal(t, "No week was published in this time.", empty["practice"])
}

func withoutIDs(list []any) []any {
	for _, x := range list {
		delete(x.(map[string]any), "id")
	}
	return list
}

// A report is drafted from the facts; a changed sentence survives new ones and says so; published, it is on the family's
// page as it was, with its printed page, and a message waits.
func TestAReportFromDraftToTheFamily(t *testing.T) {
	u, ladder, pieces := achieved(t)
	id := storetest.ID()
	path := "/api/ladders/" + ladder + "/reports/" + id
	_, queue := u.call("GET", "/api/reports", nil)
	require.Equal(t, "One of one report of this term still to publish.", queue["sentence"])
	require.Equal(t, "none", items(t, queue, "students")[0]["state"])

	_, rep := u.call("GET", path, nil)
	name := rep["student"].(map[string]any)["name"].(string)
	require.Equal(t, "Report: "+name+", piano", rep["title"])
	first := lines(rep)
	require.Equal(t, []string{
		"Nell and I have had four lessons together.",
		"Nell has learned two pieces: “Low Water” and “Two Boats”.",
		"In work: “Fog”.",
		"Over the holidays: play “Low Water” and “Two Boats” now and then, and keep “Fog” going, a few minutes at a time.",
	}, first)
	written := rep["written"].(map[string]any)
	written["edits"] = []any{map[string]any{"part": "cleared", "text": "Nell plays two pieces that she loves.", "was": first[1]}}
	written["own"] = "Well done!"
	status, rep := u.call("PUT", path, written)
	require.Equal(t, http.StatusOK, status, rep)
	require.Equal(t, []string{first[0], "Nell plays two pieces that she loves.", first[2], first[3], "Well done!"}, lines(rep))

	// A third piece is cleared: the changed sentence stays, and says that there is more.
	u.append(ladder, entry{"kind": "cleared", "material": pieces[2], "at": "2026-04-27T15:40:00Z"})
	status, conflict := u.call("POST", path+"/publish", map[string]any{"version": 1, "lines": lines(rep)})
	require.Equal(t, http.StatusConflict, status, "it would say something else by now")
	require.Equal(t, "What the report says has changed since it was shown. Read it again, then publish it.", conflict["detail"])
	_, rep = u.call("GET", path, nil)
	s := items(t, rep, "sentences")[1]
	require.Equal(
		t,
		[]any{"Nell plays two pieces that she loves.", "Nell has learned three pieces: “Low Water”, “Two Boats” and “Fog”.", true, true},
		[]any{s["text"], s["drafted"], s["edited"], s["newer"]},
	)

	status, link := u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": "home@example.org"})
	require.Equal(t, http.StatusOK, status, link)
	status, out := u.call("POST", path+"/publish", map[string]any{"version": rep["written"].(map[string]any)["version"], "lines": lines(rep)})
	require.Equal(t, http.StatusOK, status, out)
	require.Equal(t, []any{true, "4 May 2026", 1.0}, []any{out["published"], out["publishedAt"], out["recipients"]})
	_, queue = u.call("GET", "/api/reports", nil)
	require.Equal(t, "Every report of this term is published.", queue["sentence"])
	message := u.list("/api/messages")[0]
	require.Equal(t, "Nell: a report", message["subject"])
	require.Contains(t, message["body"], "A report about Nell, 3 February – 4 May 2026, is ready:\n")

	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	home := week["family"].(map[string]any)["link"].(string)
	token := home[len("/home/"):]
	family := anyone(t)
	family.url = u.url
	_, page := family.call("GET", "/api/family/"+token, nil)
	report := items(t, page, "reports")[0]
	require.Equal(t, []any{"Report", "3 February – 4 May 2026"}, []any{report["title"], report["days"]})
	require.Equal(t, lines(rep), lines(report))
	for _, at := range []string{"/api/family/" + token + "/reports/" + id, path + "/pdf"} {
		res := u.raw("GET", at, nil, nil)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		res.Body.Close()
		require.True(t, bytes.HasPrefix(data, []byte("%PDF-")), at)
		require.Equal(t, 1, bytes.Count(data, []byte("/Type /Page\n")), "one page")
	}
	require.Equal(
		t,
		[]any{"Report", "4 May 2026"},
		[]any{u.list("/api/ladders/" + ladder + "/reports")[0]["title"], u.list("/api/ladders/" + ladder + "/reports")[0]["published"]},
	)

	// What was published stays as it was while the facts go on; taken away, it is gone from the page as well.
	u.append(ladder, entry{"kind": "note", "text": "x", "at": "2026-05-04T10:00:00Z"})
	_, page = family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, lines(rep), lines(items(t, page, "reports")[0]))
	for says, change := range map[string]func(map[string]any){
		"A report of this kind has no sentence \"stay\".": func(w map[string]any) {
			w["edits"] = []any{map[string]any{"part": "stay", "text": "x", "was": ""}}
		},
		"The span ends before it begins: from 4 May 2026 to 3 May 2026.": func(w map[string]any) { w["from"], w["to"] = "2026-05-04", "2026-05-03" },
	} {
		w := map[string]any{
			"purpose": "family",
			"length":  "full",
			"tone":    "plain",
			"from":    "2026-02-03",
			"to":      "2026-05-04",
			"edits":   []any{},
			"own":     "",
			"version": 3,
		}
		change(w)
		status, problem := u.call("PUT", path, w)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Equal(t, says, problem["detail"])
	}
	status, _ = u.call("DELETE", path, nil)
	require.Equal(t, http.StatusNoContent, status)
	_, page = family.call("GET", "/api/family/"+token, nil)
	require.Empty(t, page["reports"])
	status, gone := family.call("GET", "/api/family/"+token+"/reports/"+id, nil)
	require.Equal(t, http.StatusNotFound, status)
	require.Equal(t, "This report is not there any more.", gone["detail"])
}

// A studio that has little to learn from uses nothing, and says so.
func TestNothingIsUsedThatForetellsNoBetter(t *testing.T) {
	u, _, _ := achieved(t)
	_, l := u.call("GET", "/api/learned", nil)
	require.Equal(t, "The table’s weights and the published memory are used.", l["sentence"])
	require.Equal(t, []any{"Weights of skills: too little to learn from yet.", "How pieces fade: too little to learn from yet."}, l["tried"])
	require.Equal(t, []any{false, false, "No learned piece was rated yet."}, []any{l["used"], l["canUse"], l["fade"]})
	status, problem := u.call("PUT", "/api/learned", map[string]any{"use": true})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "Nothing that was learned predicts clearly better yet, so there is nothing to use.", problem["detail"])
}

// Weights that are used move leaps and how long learned pieces stay; what is exported and kept of a piece has the table's;
// left off, all is as before. Nothing of it reaches another studio.
func TestLearnedWeightsAreUsedAndLeftOff(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 30, 1))
	id := storetest.ID()
	status, body := u.call("POST", "/api/materials", scoreBody(id, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	type demand struct {
		skill  string
		weight float64
	}
	demands := func() (out []demand) {
		_, m := u.call("GET", "/api/materials/"+id, nil)
		for _, d := range items(t, m, "demands") {
			out = append(out, demand{d["skill"].(string), d["weight"].(float64)})
		}
		slices.SortFunc(out, func(a, b demand) int { return strings.Compare(a.skill, b.skill) }) // the page has what is heavy first
		return out
	}
	export := func() string { return u.read("/api/library/export?format=json") }
	came, exported, page := demands(), export(), u.read("/api/ladders/"+ladder)
	require.NotEmpty(t, came)

	used := learning.Used{Factors: map[string]float64{came[0].skill: 0.5}, Scale: 2, At: may4()}
	require.NoError(t, db.UseLearned(context.Background(), u.studio, used))
	changed := demands()
	require.InDelta(t, came[0].weight/2, changed[0].weight, 1e-9)
	require.Equal(t, came[1:], changed[1:])
	require.NotEqual(t, page, u.read("/api/ladders/"+ladder), "the leap moved")
	require.Equal(t, exported, export(), "what goes elsewhere has the table's weights")
	status, _ = u.call("PATCH", "/api/materials/"+id, map[string]any{"title": "Another name", "composer": ""})
	require.Equal(t, http.StatusNoContent, status)
	require.InDelta(t, came[0].weight/2, demands()[0].weight, 1e-9, "not halved twice")
	_, l := u.call("GET", "/api/learned", nil)
	require.Equal(t, []any{true, "What was learned here is used since 4 May 2026."}, []any{l["used"], l["sentence"]})

	status, l = u.call("PUT", "/api/learned", map[string]any{"use": false})
	require.Equal(t, http.StatusOK, status, l)
	require.Equal(t, false, l["used"])
	require.Equal(t, came, demands())
	u.call("PATCH", "/api/materials/"+id, map[string]any{"title": "A Tune", "composer": ""})
}

// What was learned goes out as a list and a table; a recital is put in the usual order, or stays in the teacher's.
func TestRepertoireAndRecital(t *testing.T) {
	u, ladder, pieces := achieved(t)
	_, rep := u.call("GET", "/api/ladders/"+ladder+"/repertoire", nil)
	var titles []string
	for _, p := range items(t, rep, "pieces") {
		titles = append(titles, p["title"].(string)+", "+p["when"].(string))
	}
	require.Equal(t, []string{"Two Boats, 23 March 2026", "Low Water, 16 March 2026"}, titles)
	require.Empty(t, rep["certificates"])
	require.Equal(
		t,
		"piece,by or from,learned,lasts\nTwo Boats,,23 March 2026,\nLow Water,,16 March 2026,\n",
		u.read("/api/ladders/"+ladder+"/repertoire/csv"),
	)
	require.Regexp(t, "^%PDF-", u.read("/api/ladders/"+ladder+"/repertoire/pdf"))
	status, problem := u.call("GET", "/api/ladders/"+ladder+"/certificates/scale", nil)
	require.Equal(t, http.StatusNotFound, status)
	require.Equal(t, "This was not gone through to its end yet.", problem["detail"])

	u.newStudent("Bo Quay", "piano") // who has learned nothing yet is not among the performers
	performers := u.list("/api/programme")
	require.Len(t, performers, 1)
	for _, wrong := range []map[string]any{{"ladder": ladder, "material": storetest.ID()}, {"ladder": storetest.ID(), "material": pieces[0]}} {
		status, problem := u.call("POST", "/api/programme", map[string]any{"title": "x", "day": "", "keepOrder": false, "pieces": []any{wrong}})
		require.Equal(t, http.StatusNotFound, status, problem)
	}
	chosen := []any{map[string]any{"ladder": ladder, "material": pieces[1]}, map[string]any{"ladder": ladder, "material": pieces[0]}}
	wanted := map[string]any{"title": "Summer", "day": "4 July, hall", "keepOrder": true, "pieces": chosen}
	_, p := u.call("POST", "/api/programme", wanted)
	require.Equal(t, "Two pieces, about one minute with the time between; of two the time is not known.", p["sentence"])
	require.Equal(t, []any{"Two Boats", "Low Water"}, []any{items(t, p, "lines")[0]["title"], items(t, p, "lines")[1]["title"]})
	for format, begins := range map[string]string{"csv": "who,piece,by or from,lasts\nNell", "pdf": "%PDF-"} {
		res := u.raw("POST", "/api/programme/"+format, wanted, nil)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		res.Body.Close()
		require.True(t, bytes.HasPrefix(data, []byte(begins)), "%s", data)
	}
	// One contact who said no is enough: the name stands on no programme.
	all := u.list("/api/students")
	me := all[slices.IndexFunc(all, func(x map[string]any) bool { return x["ladder"] == ladder })]
	_, page := u.call("GET", "/api/students/"+me["student"].(string), nil)
	contact := func(name, said string) map[string]any {
		return map[string]any{"id": storetest.ID(), "name": name, "relation": "", "email": "", "messages": false, "named": said}
	}
	form := map[string]any{
		"name":      page["name"],
		"called":    "",
		"born":      page["born"],
		"bornAbout": false,
		"notes":     "",
		"version":   page["version"],
		"contacts":  []any{contact("Dana", "yes"), contact("Jo", "no")},
	}
	status, problem = u.call("PATCH", "/api/students/"+me["student"].(string), form)
	require.Equal(t, http.StatusNoContent, status, problem)
	_, p = u.call("POST", "/api/programme", wanted)
	require.Equal(t, "a student", items(t, p, "lines")[0]["name"])
	_, page = u.call("GET", "/api/students/"+me["student"].(string), nil)
	require.Equal(t, []any{"yes", "no"}, []any{items(t, page, "contacts")[0]["named"], items(t, page, "contacts")[1]["named"]})
	form["version"], form["contacts"] = page["version"], []any{contact("Dana", "yes"), contact("Jo", "")}
	status, problem = u.call("PATCH", "/api/students/"+me["student"].(string), form)
	require.Equal(t, http.StatusNoContent, status, problem)
	_, p = u.call("POST", "/api/programme", wanted)
	require.Equal(t, "Nell Farrow", items(t, p, "lines")[0]["name"])
	wanted["title"] = " "
	status, problem = u.call("POST", "/api/programme/pdf", wanted)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "A programme needs a title.", problem["detail"])
	_, none := u.call("POST", "/api/programme", map[string]any{"title": "", "day": "", "keepOrder": false, "pieces": []any{}})
	require.Equal(t, "No piece is chosen yet.", none["sentence"])
}

// A studio in which some skills take far longer than the table says: what it has learned foretells better, what would move
// is announced and comes so, and left off all is as before.
func TestAStudioLearnsWhatTakesLongHere(t *testing.T) {
	u := newcomer(t)
	var catalogue []string
	for _, s := range u.list("/api/skills")[:16] {
		catalogue = append(catalogue, s["id"].(string))
	}
	var pieces []string
	for i := range 32 { // two pieces for each skill
		id := u.titled("piano", fmt.Sprint("Piece ", i))[0]
		status, body := u.call("PUT", "/api/materials/"+id+"/overrulings", map[string]any{"kind": "demand", "skill": catalogue[i/2], "weight": 1})
		require.Equal(t, http.StatusNoContent, status, body)
		pieces = append(pieces, id)
	}
	for k := range 3 {
		ladder := storetest.ID()
		status, body := u.call(
			"POST",
			"/api/students",
			map[string]any{
				"student":    storetest.ID(),
				"ladder":     ladder,
				"name":       fmt.Sprint("Student ", k),
				"born":       "2015-01-01",
				"instrument": "piano",
				"slots":      []any{slotOn(1, fmt.Sprint(10+k, ":00"), 30, 1)},
			},
		)
		require.Equal(t, http.StatusCreated, status, body)
		at := now.AddDate(-3, 0, k)
		for i, id := range pieces {
			weeks := 1
			if i/2%2 == 0 {
				weeks = 7
			}
			status, body := u.append(ladder, entry{"kind": "assigned", "material": id, "at": at.Format(time.RFC3339)})
			require.Equal(t, http.StatusOK, status, body)
			at = at.AddDate(0, 0, 7*weeks)
			u.append(ladder, entry{"kind": "cleared", "material": id, "at": at.Format(time.RFC3339)})
		}
	}
	// A new student stands before a piece of each kind.
	slow, quick := u.titled("piano", "A slow one")[0], u.titled("piano", "A quick one")[0]
	for id, skill := range map[string]string{slow: catalogue[0], quick: catalogue[2]} {
		u.call("PUT", "/api/materials/"+id+"/overrulings", map[string]any{"kind": "demand", "skill": skill, "weight": 1})
	}
	fresh := storetest.ID()
	u.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    storetest.ID(),
			"ladder":     fresh,
			"name":       "Nell Farrow",
			"born":       "2015-01-01",
			"instrument": "piano",
			"slots":      []any{slotOn(2, "10:00", 30, 1)},
		},
	)
	u.call("PUT", "/api/ladders/"+fresh+"/rungs/"+slow, nil)
	leapOf := func() float64 {
		_, m := u.call("GET", "/api/materials/"+slow+"?ladder="+fresh, nil)
		return m["leap"].(map[string]any)["size"].(float64)
	}
	before, page := leapOf(), u.read("/api/ladders/"+fresh)
	_, l := u.call("GET", "/api/learned", nil)
	require.Equal(t, true, l["canUse"], l["tried"])
	first := items(t, l, "skills")[0]
	require.Equal(t, true, first["sure"])
	require.Contains(t, l["moves"].([]any)[0], "“A slow one” for Nell Farrow: a jump of ")
	status, used := u.call("PUT", "/api/learned", map[string]any{"use": true})
	require.Equal(t, http.StatusOK, status, used)
	require.Equal(t, true, used["used"])
	require.Contains(
		t,
		l["moves"].([]any)[0],
		fmt.Sprintf("a jump of %.1f instead of %.1f.", leapOf(), before),
		"what was announced is what comes",
	)
	require.Greater(t, leapOf(), before+0.2)
	status, _ = u.call("PUT", "/api/learned", map[string]any{"use": false})
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, before, leapOf())
	require.Equal(t, page, u.read("/api/ladders/"+fresh), "left off, all is as before")
}

// The full report of every demo student is one page or two, for each purpose.
func TestReportsOfAllStudentsFitOnTwoPages(t *testing.T) {
	u := teacher(t)
	for _, s := range u.list("/api/students") {
		for _, purpose := range []string{"family", "exam", "teacher"} {
			id := storetest.ID()
			path := "/api/ladders/" + s["ladder"].(string) + "/reports/" + id
			status, body := u.call(
				"PUT",
				path,
				map[string]any{
					"purpose": purpose,
					"length":  "full",
					"tone":    "plain",
					"from":    "2025-05-05",
					"to":      "2026-05-04",
					"edits":   []any{},
					"own":     "",
					"version": 0,
				},
			)
			require.Equal(t, http.StatusOK, status, body)
			pages := bytes.Count([]byte(u.read(path+"/pdf")), []byte("/Type /Page\n"))
			require.Contains(t, []int{1, 2}, pages, "%s, %s", s["name"], purpose)
			status, _ = u.call("DELETE", path, nil)
			require.Equal(t, http.StatusNoContent, status)
		}
	}
}
