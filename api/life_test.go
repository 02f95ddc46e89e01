package api_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// titled adds pieces by their titles alone.
func (u *user) titled(instrument string, titles ...string) (ids []string) {
	for _, title := range titles {
		id := storetest.ID()
		status, body := u.call("POST", "/api/materials", map[string]any{"id": id, "title": title, "strand": "method", "instrument": instrument})
		require.Equal(u.t, http.StatusCreated, status, body)
		ids = append(ids, id)
	}
	return ids
}

func (u *user) onLadder(ladder string) (out []string) {
	_, view := u.call("GET", "/api/ladders/"+ladder, nil)
	for _, rail := range view["rails"].([]any) {
		for _, r := range rail.(map[string]any)["rungs"].([]any) {
			x := r.(map[string]any)
			out = append(out, x["title"].(string)+" "+x["layer"].(string))
		}
	}
	return out
}

func none(keys ...string) map[string]any {
	out := map[string]any{"batch": storetest.ID(), "upTo": []any{}, "pieces": []any{}, "titles": []any{}, "keys": []any{}, "skills": []any{}}
	for i := 0; i+1 < len(keys); i += 2 {
		out[keys[i]] = keys[i+1]
	}
	return out
}

// A notebook is pasted: what is meant is found, doubtful lines are shown, the rest is new; what it would change
// is said first; and one press takes all of it back.
func TestANotebookComesInAndGoesOut(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	ids := u.titled("piano", "Low Water", "Two Boats", "Ode to Joy")
	before := u.read("/api/ladders/" + ladder)
	status, matched := u.call(
		"POST",
		"/api/ladders/"+ladder+"/known/match",
		map[string]any{"text": "1. low water\n2. Two Baots\n\n3. Harbour Lights"},
	)
	require.Equal(t, http.StatusOK, status, matched)
	require.Equal(t, "Of three lines: 1 found, 1 to check, 1 new.", matched["sentence"])
	var lines []string
	for _, l := range matched["lines"].([]any) {
		x := l.(map[string]any)
		lines = append(lines, fmt.Sprint(x["line"], " = ", x["title"], " ", x["sure"]))
	}
	require.Equal(t, []string{"low water = Low Water true", "Two Baots = Two Boats false", "Harbour Lights =  false"}, lines)

	body := none()
	body["pieces"] = []any{map[string]any{"material": ids[0], "when": "this-term"}, map[string]any{"material": ids[1], "when": "long-ago"}}
	body["titles"] = []any{map[string]any{"id": storetest.ID(), "title": "Harbour Lights", "when": "last-year"}}
	body["skills"] = []any{map[string]any{"skill": "rests", "when": "this-term"}}
	status, effect := u.call("POST", "/api/ladders/"+ladder+"/known?try=true", body)
	require.Equal(t, http.StatusOK, status, effect)
	require.Equal(
		t,
		[]any{"Three pieces learned before, one of them in review.", "One piece is new in your library.", "One skill secure."},
		effect["words"],
	)
	require.Equal(t, before, u.read("/api/ladders/"+ladder), "a try changes nothing")
	status, effect = u.call("POST", "/api/ladders/"+ladder+"/known", body)
	require.Equal(t, http.StatusOK, status, effect)
	require.Equal(t, 4.0, effect["entries"])
	status, _ = u.call("POST", "/api/ladders/"+ladder+"/known", body)
	require.Equal(t, http.StatusUnprocessableEntity, status, "sent again, nothing is new")
	require.ElementsMatch(t, []string{"Low Water review", "Two Boats review", "Harbour Lights review"}, u.onLadder(ladder))
	_, overview := u.call("GET", "/api/overview", nil)
	require.NotContains(t, fmt.Sprint(overview), "Not played for", "nothing that was known before alarms")
	_, sheet := u.call("GET", "/api/ladders/"+ladder+"/known", nil)
	entered := sheet["entered"].([]any)
	require.Len(t, entered, 1)
	require.Equal(t, "4 things known before, entered on 4 May", entered[0].(map[string]any)["words"])
	batch := entered[0].(map[string]any)["id"].(string)
	for range 2 {
		status, _ = u.call("DELETE", "/api/ladders/"+ladder+"/batches/"+batch, nil)
		require.Equal(t, http.StatusNoContent, status)
	}
	require.Empty(t, u.onLadder(ladder))
	_, sheet = u.call("GET", "/api/ladders/"+ladder+"/known", nil)
	require.Empty(t, sheet["entered"])
	require.Len(t, u.list("/api/ladders/"+ladder+"/entries"), 8, "the log forgets nothing")

	status, problem := u.call("POST", "/api/ladders/"+ladder+"/known/match", map[string]any{"text": strings.Repeat("x\n", 3000)})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The list has 3000 lines; at most 500 are taken at a time. Paste it in parts. Nothing was changed.", problem["detail"])
}

// A book at any time, up to here, from any place in it.
func TestABookUpToHere(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Runa Kelp", "piano")
	_, sheet := u.call("GET", "/api/ladders/"+ladder+"/known", nil)
	book := sheet["books"].([]any)[0].(map[string]any)
	pieces := book["pieces"].([]any)
	third := pieces[2].(map[string]any)
	body := none()
	body["upTo"] = []any{map[string]any{"book": book["id"], "last": third["id"], "when": "last-term", "ladder": true}}
	status, effect := u.call("POST", "/api/ladders/"+ladder+"/known", body)
	require.Equal(t, http.StatusOK, status, effect)
	require.Equal(t, 3.0, effect["pieces"])
	ahead := 0
	for _, r := range u.onLadder(ladder) {
		if strings.HasSuffix(r, " ahead") || strings.HasSuffix(r, " preview") {
			ahead++
		}
	}
	require.Equal(t, len(pieces)-3, ahead, "the rest of the book stands on the ladder")
	found := u.list("/api/ladders/" + ladder + "/find?q=harbour+steps")
	require.Equal(t, "book", found[0]["kind"])
	found = u.list("/api/ladders/" + ladder + "/find?q=c+major+scale")
	require.Equal(t, "exercise", found[0]["kind"])
}

// Every lesson that was can be read, searched and corrected; the standing follows; the next lesson opens with it.
func TestThePastIsReadAndCorrected(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "18:00", 30, 1))
	id := u.titled("piano", "Low Water")[0]
	_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	at := func(day, clock string) string { return day + "T" + clock + ":00Z" }
	u.append(ladder, entry{"kind": "assigned", "material": id, "at": at("2026-04-20", "15:00")})
	u.append(ladder, entry{"kind": "note", "text": "Heavy elbows", "at": at("2026-04-20", "15:05")})
	status, body := u.append(
		ladder,
		entry{"kind": "cleared", "material": id, "at": at("2026-04-27", "15:00")},
		entry{"kind": "bring", "text": "the blue book", "at": at("2026-04-27", "15:01")},
	)
	require.Equal(t, http.StatusOK, status, body)
	_, past := u.call("GET", "/api/ladders/"+ladder+"/past", nil)
	require.Equal(t, "Two lessons entered.", past["sentence"])
	first := past["lessons"].([]any)[0].(map[string]any)
	require.Equal(
		t,
		[]any{"2026-04-27", "Cleared “Low Water”.", []any{"To bring: the blue book"}},
		[]any{first["day"], first["words"], first["notes"]},
	)
	_, past = u.call("GET", "/api/ladders/"+ladder+"/past?search=elbows", nil)
	require.Equal(t, "Found in one lesson.", past["sentence"])
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	last := lesson["last"].(map[string]any)
	require.Equal(t, []any{"Last week", []any{"the blue book"}}, []any{last["words"], last["bring"]})
	require.Equal(t, []any{"Played “Low Water”.", "Cleared “Low Water”."}, last["lines"])

	// It was not cleared after all; a note had been forgotten.
	_, day := u.call("GET", "/api/ladders/"+ladder+"/past/2026-04-27", nil)
	require.Equal(t, []any{"2026-04-20", ""}, []any{day["last"], day["next"]})
	cleared := day["entries"].([]any)[0].(map[string]any)
	require.Equal(t, "“Low Water” cleared", cleared["text"])
	wrong := cleared["entry"].(map[string]any)["id"]
	undo := storetest.ID()
	u.append(
		ladder,
		entry{"kind": "correction", "corrects": wrong, "id": undo, "at": at("2026-05-04", "15:30")},
		entry{"kind": "note", "text": "forgotten", "at": day["at"]},
	)
	require.Equal(t, []string{"Low Water working"}, u.onLadder(ladder))
	_, day = u.call("GET", "/api/ladders/"+ladder+"/past/2026-04-27", nil)
	require.Len(t, day["entries"], 2)
	require.Equal(t, "forgotten", day["entries"].([]any)[1].(map[string]any)["text"])
	_, lesson = u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	taken := lesson["taken"].([]any)
	require.Len(t, taken, 1)
	require.Equal(t, []any{undo, "“Low Water” cleared"}, []any{taken[0].(map[string]any)["id"], taken[0].(map[string]any)["text"]})
	// And again: a correction of the correction.
	u.append(ladder, entry{"kind": "correction", "corrects": undo, "at": at("2026-05-04", "15:31")})
	require.Equal(t, []string{"Low Water review"}, u.onLadder(ladder))
	_, lesson = u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	require.Empty(t, lesson["taken"])
}

func TestALargeUnitIsSplitAndJoined(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	ids := u.titled("piano", "Theme with variations", "After it")
	for _, id := range ids {
		_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	}
	parts := []any{}
	for _, title := range []string{"Theme", "Galloping", "Dotted", "Running"} {
		parts = append(parts, map[string]any{"id": storetest.ID(), "title": title})
	}
	status, body := u.call("PUT", "/api/materials/"+ids[0]+"/sections", map[string]any{"sections": parts})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(
		t,
		[]string{"Theme ahead", "Galloping ahead", "Dotted ahead", "Running ahead", "After it ahead"},
		u.onLadder(ladder),
		"in its place, in their order",
	)
	for _, p := range parts[:3] {
		u.append(ladder, entry{"kind": "cleared", "material": p.(map[string]any)["id"]})
	}
	_, piece := u.call("GET", "/api/materials/"+ids[0]+"/sections", nil)
	require.Equal(t, "Split into four sections; it is cleared when they all are.", piece["words"])
	status, body = u.call("PUT", "/api/materials/"+ids[0]+"/sections", map[string]any{"sections": parts})
	require.Equal(
		t,
		[]any{http.StatusUnprocessableEntity, "The piece is split already. Join its sections first."},
		[]any{status, body["detail"]},
	)
	u.append(ladder, entry{"kind": "cleared", "material": parts[3].(map[string]any)["id"]})
	require.Contains(t, u.onLadder(ladder), "Theme with variations review", "the last section clears the unit")

	other := u.titled("piano", "Another theme")[0]
	_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+other, nil)
	_, _ = u.call(
		"PUT",
		"/api/materials/"+other+"/sections",
		map[string]any{
			"sections": []any{map[string]any{"id": storetest.ID(), "title": "One"}, map[string]any{"id": storetest.ID(), "title": "Two"}},
		},
	)
	status, _ = u.call("DELETE", "/api/materials/"+other+"/sections", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Contains(t, u.onLadder(ladder), "Another theme ahead")
	require.NotContains(t, u.onLadder(ladder), "One ahead")
}

func TestPiecesAndBooksAreMergedRemovedAndRetired(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	ids := u.titled("piano", "Low Water", "low watre", "Nobody's")
	_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+ids[1], nil)
	u.append(ladder, entry{"kind": "assigned", "material": ids[1]})
	status, body := u.call("POST", "/api/materials/"+ids[1]+"/merge", map[string]any{"into": ids[0]})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []string{"Low Water working"}, u.onLadder(ladder), "the log means the other one now")
	status, body = u.append(ladder, entry{"kind": "cleared", "material": ids[1]})
	require.Equal(t, http.StatusOK, status, body, "what arrives late under the old one does, too")
	require.Equal(t, []string{"Low Water review"}, u.onLadder(ladder))

	_, gone := u.call("DELETE", "/api/materials/"+ids[2], nil)
	require.Equal(t, []any{true, "“Nobody's” is removed."}, []any{gone["removed"], gone["words"]})
	_, kept := u.call("DELETE", "/api/materials/"+ids[0], nil)
	require.Equal(t, []any{false, true}, []any{kept["removed"], kept["retired"]})
	require.Empty(t, u.list("/api/ladders/"+ladder+"/find?q=water"), "it is not offered any more")
	require.Equal(t, []string{"Low Water review"}, u.onLadder(ladder), "who has it keeps it")
	_, _ = u.call("DELETE", "/api/materials/"+ids[0]+"?restore=true", nil)
	require.Len(t, u.list("/api/ladders/"+ladder+"/find?q=water"), 1)
	status, body = u.call("POST", "/api/materials/"+ids[0]+"/merge", map[string]any{"into": ids[0]})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
}

func TestASkillGetsTheTeachersOwnSteps(t *testing.T) {
	u := newcomer(t)
	named := func() string {
		for _, s := range u.list("/api/skills") {
			if s["id"] == "rests" {
				return fmt.Sprint(s["name"], " ", s["steps"])
			}
		}
		return ""
	}
	shipped := named()
	status, body := u.call("PUT", "/api/skills/rests", map[string]any{"name": "silences", "steps": []any{"freeze", " ", "breathe"}})
	require.Equal(t, http.StatusNoContent, status, body)
	require.NotEqual(t, shipped, named())
	require.True(t, strings.HasPrefix(named(), "silences"))
	status, _ = u.call("DELETE", "/api/skills/rests", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, shipped, named(), "the program's own comes back")
}

// A skill of the teacher's own with its bites is asked for by a piece and planted.
func TestASkillIsAdded(t *testing.T) {
	u := newcomer(t)
	status, body := u.call(
		"PUT",
		"/api/skills/harbour-swing",
		map[string]any{"name": "harbour swing", "family": "rhythm", "steps": []any{"sway", "sway and clap", "play it on one key"}},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	swing := func(id string) map[string]any {
		for _, s := range u.list("/api/skills") {
			if s["id"] == id {
				return s
			}
		}
		t.Fatal("it is not in the catalogue: " + id)
		return nil
	}
	s := swing("harbour-swing")
	require.Equal(
		t,
		[]any{"harbour swing", "rhythm", []any{"sway", "sway and clap", "play it on one key"}, true, false},
		[]any{s["name"], s["family"], s["steps"], s["own"], s["ships"]},
	)

	// What it comes after is the teacher's too, and how long before it begins; a circle is refused in words.
	send := func(id, name string, ahead int, needs ...any) string {
		status, body := u.call("PUT", "/api/skills/"+id, map[string]any{"name": name, "steps": []any{"sway"}, "needs": needs, "ahead": ahead})
		if status == http.StatusNoContent {
			return ""
		}
		require.Equal(t, http.StatusUnprocessableEntity, status)
		return body["detail"].(string)
	}
	require.Empty(t, send("harbour-swing", "harbour swing", 30, "rests"))
	require.Equal(t, []any{[]any{"rests"}, 30.0}, []any{swing("harbour-swing")["needs"], swing("harbour-swing")["ahead"]})
	require.Equal(t, "“harbour swing” cannot come after itself.", send("harbour-swing", "harbour swing", 0, "harbour-swing"))
	require.Equal(t, "“rests” would come after itself: “harbour swing” already comes after it.", send("rests", "rests", 0, "harbour-swing"))
	require.Equal(t, "“rests” is to come after “nobody”, which is not in the catalogue.", send("rests", "rests", 0, "nobody"))
	require.Equal(t, []any{[]any{"rests"}, false}, []any{swing("harbour-swing")["needs"], swing("rests")["own"]}, "nothing was kept")
}

func TestATreatIsPromisedEarnedAndSwitchedOff(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	ids := u.titled("piano", "Low Water", "Two Boats")
	treat, other := storetest.ID(), storetest.ID()
	path := "/api/ladders/" + ladder + "/treats"
	status, body := u.call("PUT", path+"/"+treat, map[string]any{"words": "a trip to the lighthouse", "pieces": 2})
	require.Equal(t, http.StatusNoContent, status, body)
	status, _ = u.call("PUT", path+"/"+other, map[string]any{"words": "ice cream", "material": ids[1]})
	require.Equal(t, http.StatusNoContent, status)
	status, body = u.call("PUT", path+"/"+storetest.ID(), map[string]any{"words": "nothing"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	says := func() (out []string) {
		for _, x := range u.list(path) {
			out = append(out, fmt.Sprint(x["words"], ": ", x["says"]))
		}
		return out
	}
	require.ElementsMatch(
		t,
		[]string{"a trip to the lighthouse: after two cleared pieces more", "ice cream: when “Two Boats” is cleared"},
		says(),
	)
	u.append(ladder, entry{"kind": "cleared", "material": ids[1]})
	require.ElementsMatch(t, []string{"a trip to the lighthouse: after one cleared piece more", "ice cream: earned"}, says())
	// Said otherwise it still counts from the day it was promised.
	status, _ = u.call("PUT", path+"/"+treat, map[string]any{"words": "two trips to the lighthouse", "pieces": 2})
	require.Equal(t, http.StatusNoContent, status)
	require.ElementsMatch(t, []string{"two trips to the lighthouse: after one cleared piece more", "ice cream: earned"}, says())
	_, token := u.published(ladder, "")
	family := anyone(t)
	family.url = u.url
	_, page := family.call("GET", "/api/family/"+token, nil)
	require.Len(t, page["treats"], 2)
	way := someWay()
	for k, v := range map[string]any{"dose": "years", "doseRow": 3, "handShape": "hanging", "benchLean": "level", "rewards": false, "homeCounts": true} {
		way[k] = v
	}
	status, body = u.call("PUT", "/api/way?version=1", way)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Empty(t, u.list(path))
	_, page = family.call("GET", "/api/family/"+token, nil)
	require.Empty(t, page["treats"])
}
