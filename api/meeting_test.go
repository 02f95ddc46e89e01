package api_test

import (
	"fmt"
	"maps"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/store/storetest"
)

func (u *user) meeting(ladder, query string) map[string]any {
	status, m := u.call("GET", "/api/ladders/"+ladder+"/meeting"+query, nil)
	require.Equal(u.t, http.StatusOK, status, m)
	return m
}

// A child with no past: half an hour is planned; what comes of each try decides the next; two things go home, and the first
// week is made of them before any piece.
func TestAFirstMeeting(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	ladder := storetest.ID()
	status, body := u.call(
		"POST",
		"/api/students",
		map[string]any{"student": storetest.ID(), "ladder": ladder, "name": "Tove Brand", "born": "2021-01-01", "instrument": "piano",
			"weekday": int(now.Weekday()), "startsAt": "10:00", "minutes": 30},
	)
	require.Equal(t, http.StatusCreated, status, body)
	at := now.Add(-time.Hour)
	m := u.meeting(ladder, "?minutes=30")
	activity := func(id string) map[string]any {
		for _, a := range u.meeting(ladder, "?minutes=30")["activities"].([]any) {
			if x := a.(map[string]any); x["id"] == id {
				return x
			}
		}
		t.Fatalf("no activity %q", id)
		return nil
	}
	require.NotEmpty(t, m["activities"])
	came := func(id, outcome string, step int) {
		at = at.Add(time.Minute)
		e := entry{"kind": "meeting", "goal": id, "outcome": outcome, "at": at.UTC().Format(time.RFC3339)}
		if step > 0 {
			e["step"] = step
		}
		status, body := u.append(ladder, e)
		require.Equal(t, http.StatusOK, status, body)
	}
	require.EqualValues(t, 1, activity("echo-pitch")["level"])
	came("echo-pitch", "matched", 1)
	came("echo-pitch", "matched", 2)
	require.EqualValues(t, 3, activity("echo-pitch")["level"])
	came("echo-pitch", "far", 3)
	require.EqualValues(t, 2, activity("echo-pitch")["level"], "a fifth where the third was missed")
	require.Equal(t, []any{"1: matched", "2: matched", "3: far"}, activity("echo-pitch")["came"])
	came("echo-rhythm", "exact", 1)
	came("echo-rhythm", "one-extra", 2)
	require.EqualValues(t, 1, activity("echo-rhythm")["level"])
	came("black-keys", "copied", 0)
	came("feet", "hang", 0)
	m = u.meeting(ladder, "?minutes=30")
	var home []string
	for _, x := range m["takeHome"].([]any) {
		home = append(home, x.(map[string]any)["id"].(string))
	}
	require.Equal(t, []string{"black-keys", "echo-pitch"}, home)
	week := u.weekOf(ladder)
	var first []string
	for _, d := range week["days"].([]any) {
		for _, it := range d.(map[string]any)["items"].([]any) {
			if title := it.(map[string]any)["title"].(string); len(first) < 2 {
				first = append(first, title)
			}
		}
	}
	require.Equal(t, []string{"Groups of two and three black keys", "Echo a pitch"}, first, "the first week begins with them")

	status, body = u.append(ladder, entry{"kind": "meeting", "goal": "juggling", "outcome": "matched"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	status, body = u.append(ladder, entry{"kind": "meeting", "goal": "feet", "outcome": "matched"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	require.Equal(t, "A meeting needs a few minutes. Say how long it is.", u.meeting(ladder, "?minutes=0")["sentence"])
}

// A studio changes its first meetings: an activity of its own comes in the plan, what comes of it is evidence and goes home,
// and is named in the past; what is left out is not planned; what ships comes back as it came.
func TestAStudioChangesItsFirstMeetings(t *testing.T) {
	u := newcomer(t)
	ladder := u.newStudent("Jory Pike", "piano")
	own := map[string]any{
		"name":    "The ferry horn",
		"say":     "Two low keys: answer me.",
		"minutes": 4,
		"from":    3,
		"to":      99,
		"part":    "tune",
		"family":  "keyboard",
		"shows":   "keyboard-map",
		"home":    "black-keys",
		"off":     false,
	}
	put := func(id string, change map[string]any) (int, map[string]any) {
		body := maps.Clone(own)
		maps.Copy(body, change)
		return u.call("PUT", "/api/meeting-activities/"+id, body)
	}
	planned := func() (out []string) {
		for _, a := range items(t, u.meeting(ladder, "?minutes=30"), "activities") {
			out = append(out, a["name"].(string))
		}
		return out
	}
	before := planned()
	require.NotContains(t, before, "The ferry horn")
	status, body := put("horn", nil)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Contains(t, planned(), "The ferry horn")
	status, body = put("feet", map[string]any{"name": "Seat and feet", "say": "Do they reach?", "off": true})
	require.Equal(t, http.StatusNoContent, status, body)
	require.NotContains(t, planned(), "Seat and feet")

	status, body = u.append(ladder, entry{"kind": "meeting", "goal": "horn", "outcome": "matched"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	status, body = u.append(ladder, entry{"kind": "meeting", "goal": "horn", "outcome": "came"})
	require.Equal(t, http.StatusOK, status, body)
	log := u.list("/api/ladders/" + ladder + "/entries")
	require.Equal(t, []any{"keyboard-map", true}, []any{log[len(log)-1]["skill"], log[len(log)-1]["shown"]})
	home := items(t, u.meeting(ladder, "?minutes=30"), "takeHome")
	require.Equal(t, "black-keys", home[0]["id"])

	_, list := u.call("GET", "/api/meeting-activities", nil)
	form := func(id string) map[string]any {
		for _, a := range items(t, list, "activities") {
			if a["id"] == id {
				return a
			}
		}
		return nil
	}
	require.Equal(t, map[string]any{
		"id": "horn", "name": "The ferry horn", "say": "Two low keys: answer me.", "minutes": 4.0, "from": 3.0, "to": 99.0,
		"part": map[string]any{"id": "tune", "name": "First tune"}, "family": "keyboard",
		"shows": "keyboard-map", "home": "black-keys", "off": false, "own": true, "changed": false,
		"outcomes": []any{"it came", "nearly", "not yet"},
	}, form("horn"))
	require.Equal(t, []any{true, true, false}, []any{form("feet")["off"], form("feet")["changed"], form("feet")["own"]})
	require.Equal(t, []any{false, false}, []any{form("hand")["off"], form("hand")["changed"]})

	for says, change := range map[string]map[string]any{
		"The ages must lie between 0 and 120, the first not above the last.": {"from": 50, "to": 40},
		"The skill that it shows is not in the list of skills.":              {"shows": "flying"},
		"What it becomes at home is not among your activities.":              {"home": "homework"},
		"Choose the part of the meeting that it belongs to.":                 {"part": "lesson"},
	} {
		status, body := put("other", change)
		require.Equal(t, http.StatusUnprocessableEntity, status, body)
		require.Equal(t, says, body["detail"])
	}
	for _, id := range []string{"horn", "feet"} {
		status, body = u.call("DELETE", "/api/meeting-activities/"+id, nil)
		require.Equal(t, http.StatusNoContent, status, body)
	}
	require.Equal(t, before, planned())
	status, body = u.call("DELETE", "/api/meeting-activities/horn", nil)
	require.Equal(t, http.StatusNotFound, status)
	require.Equal(t, "The studio has no activity of its own by that name.", body["detail"])
}

// Somebody from another book: one question at a time with its notes, an answer moves what is believed; the entry can be moved;
// what is accepted stands on the ladder in one batch and can be taken back; stopping in the middle loses nothing.
func TestSomebodyFromElsewhereIsPlaced(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	ladder := u.newStudent("Runa Holm", "piano")
	placed := func() map[string]any { return u.meeting(ladder, "")["placement"].(map[string]any) }
	p := placed()
	require.EqualValues(t, 0, p["answered"])
	// Somebody who can do nothing that is asked for begins at the beginning of every book.
	other := u.newStudent("Sunniva Berg", "piano")
	for range 30 {
		q, more := u.meeting(other, "")["placement"].(map[string]any)["question"].(map[string]any)
		if !more {
			break
		}
		status, body := u.append(other, entry{"kind": "probe", "skill": q["skill"], "outcome": "no"})
		require.Equal(t, http.StatusOK, status, body)
	}
	low := map[any]float64{}
	for _, x := range u.meeting(other, "")["placement"].(map[string]any)["entries"].([]any) {
		e := x.(map[string]any)
		low[e["book"]] = e["at"].(float64)
	}
	drawn, asked := 0, map[string]bool{}
	for range 60 {
		p = placed()
		q, more := p["question"].(map[string]any)
		if !more {
			break
		}
		skill := q["skill"].(string)
		require.NotEmpty(t, q["say"])
		require.NotEmpty(t, q["why"])
		if _, there := q["excerpt"]; there {
			drawn++
		}
		asked[skill] = true
		answer := entry{"kind": "probe", "skill": skill, "outcome": "yes", "shown": true}
		if len(asked)%4 == 0 { // a hole here and there
			answer = entry{"kind": "probe", "skill": skill, "outcome": "no"}
		}
		status, body := u.append(ladder, answer)
		require.Equal(t, http.StatusOK, status, body)
	}
	require.NotEmpty(t, p["over"], "the questions end")
	require.LessOrEqual(t, len(asked), 37, "at most a quarter of the skills")
	require.Positive(t, drawn)
	first := p["entries"].([]any)[0].(map[string]any)
	require.Less(t, low[first["book"]], 4.0, "where little is there the book is entered near its beginning")
	require.Greater(t, first["at"].(float64), low[first["book"]], "somebody who answers most with yes begins further on")

	book := first["book"].(string)
	pieces := first["pieces"].([]any)
	third := pieces[2].(map[string]any)
	moved := u.meeting(ladder, "?book="+book+"&entry="+third["id"].(string))["placement"].(map[string]any)["entries"].([]any)[0].(map[string]any)
	require.EqualValues(t, 2, moved["at"])
	require.Equal(t, true, moved["chosen"])
	routes := moved["routes"].([]any)
	require.Equal(t, "on", routes[len(routes)-1].(map[string]any)["kind"])

	batch := storetest.ID()
	accept := map[string]any{"batch": batch, "book": book, "route": "on", "entry": third["id"]}
	status, body := u.call("POST", "/api/ladders/"+ladder+"/meeting", accept)
	require.Equal(t, http.StatusOK, status, body)
	on := u.onLadder(ladder)
	require.Contains(t, on, fmt.Sprint(third["name"], " ahead"))
	require.NotContains(t, on, fmt.Sprint(pieces[0].(map[string]any)["name"], " ahead"))
	// Tomorrow's plan and, once it is begun, the week at home begin there.
	status, plan := u.call("GET", "/api/ladders/"+ladder+"/plan", nil)
	require.Equal(t, http.StatusOK, status, plan)
	var begun []any
	for _, x := range plan["segments"].([]any) {
		if s := x.(map[string]any); s["kind"] == "begin" && s["material"] == third["id"] {
			begun = append(begun, s["title"])
		} else {
			require.NotEqual(t, pieces[0].(map[string]any)["id"], s["material"])
		}
	}
	require.Equal(t, []any{fmt.Sprintf("Begin “%s”", third["name"])}, begun)
	status, body = u.append(ladder, entry{"kind": "assigned", "material": third["id"], "lesson": true})
	require.Equal(t, http.StatusOK, status, body)
	atHome := map[any]bool{}
	for _, d := range u.weekOf(ladder)["days"].([]any) {
		for _, it := range d.(map[string]any)["items"].([]any) {
			atHome[it.(map[string]any)["material"]] = true
		}
	}
	require.True(t, atHome[third["id"]])
	require.False(t, atHome[pieces[0].(map[string]any)["id"]])

	status, body = u.call("DELETE", "/api/ladders/"+ladder+"/batches/"+batch, nil)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []string{fmt.Sprint(third["name"], " working")}, u.onLadder(ladder), "what was begun since stays")

	accept["route"], accept["book"] = "first", storetest.ID()
	status, body = u.call("POST", "/api/ladders/"+ladder+"/meeting", accept)
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	require.Equal(t, "There is no such way into this book any more. Look at the ways again.", body["detail"])
}

// An instrument without data has a meeting all the same, and says what it cannot ask.
func TestAMeetingOnAnyInstrument(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	for _, instrument := range []string{"flute", "drums", "nose flute"} {
		ladder := u.newStudent("Any "+instrument, instrument)
		m := u.meeting(ladder, "?minutes=15")
		require.NotEmpty(t, m["activities"], instrument)
		require.Equal(
			t,
			map[string]string{"flute": "wind", "drums": "percussion", "nose flute": "other"}[instrument],
			m["family"],
			"what is played has a sound",
		)
		require.NotEmpty(t, m["placement"].(map[string]any)["sentence"], instrument)
	}
}

// Ear and rhythm live in two minutes of a lesson: one step in the plan, harder or easier by what came, the other line next
// time; progress says how far they are.
func TestEarAndRhythmInALesson(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	ladder := u.newStudent("Sanna Lind", "cello")
	stair := func() map[string]any {
		status, plan := u.call("GET", "/api/ladders/"+ladder+"/plan", nil)
		require.Equal(t, http.StatusOK, status, plan)
		for _, x := range plan["segments"].([]any) {
			if s := x.(map[string]any); s["kind"] == "stair" {
				return s
			}
		}
		t.Fatal("no step of ear or rhythm")
		return nil
	}
	came := func(outcome string, level int, at time.Time) {
		status, body := u.append(
			ladder,
			entry{"kind": "meeting", "goal": "echo-pitch", "outcome": outcome, "step": level, "lesson": true, "at": at.UTC().Format(time.RFC3339)},
		)
		require.Equal(t, http.StatusOK, status, body)
	}
	s := stair()
	require.Equal(t, []any{"stair ear", "Match a tone", "step 1 of 5 of ear"}, []any{s["id"], s["title"], s["why"]})
	require.EqualValues(t, 1, s["activity"].(map[string]any)["level"])
	came("matched", 2, now.AddDate(0, 0, -14))
	came("matched", 2, now.AddDate(0, 0, -7))
	require.Equal(t, []any{"stair rhythm", "Echo one bar"}, []any{stair()["id"], stair()["title"]})
	_, p := u.call("GET", "/api/ladders/"+ladder+"/progress", nil)
	require.Equal(
		t,
		[]any{
			"Ear: match a tone comes well; echo two tones is next, well on 0 of 2 days so far.",
			"Rhythm: not tried yet; echo one bar comes first.",
		},
		p["ear"],
	)
}
