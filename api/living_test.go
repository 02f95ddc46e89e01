package api_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// segment is what a plan has of a segment by the beginning of its title; nil for none.
func segment(t *testing.T, plan map[string]any, title string) map[string]any {
	t.Helper()
	for _, s := range items(t, plan, "segments") {
		if len(s["title"].(string)) >= len(title) && s["title"].(string)[:len(title)] == title {
			return s
		}
	}
	return nil
}

// A flat is the key of the week: it is in the plan with its eight minutes; a lesson that is too short for it says that the
// cycle slides, and to when; taught in the lesson, it is in work and in the week at home, whole and with its goals.
func TestTheKeyOfTheWeekIsInThePlan(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 45, 1)) // Mondays; today is one
	plan := "/api/ladders/" + ladder + "/plan"
	status, body := u.append(
		ladder,
		entry{
			"kind":  "cycle",
			"cycle": map[string]any{"type": "scale", "step": "apart", "kind": "major", "first": "Ab", "order": "fifths", "from": "2026-05-04"},
		},
	)
	require.Equal(t, http.StatusOK, status, body)
	_, p := u.call("GET", plan, nil)
	key := segment(t, p, "Begin A♭ major scale")
	require.NotNil(t, key, "%v", p["segments"])
	require.GreaterOrEqual(t, key["minutes"], 8.0)
	require.Equal(t, "the key of the week", key["why"])
	require.Equal(t, "", p["note"])
	status, p = u.call(
		"PUT",
		plan,
		map[string]any{"version": 0, "minutes": 10, "pins": []any{map[string]any{"segment": "posture", "minutes": 2}}},
	)
	require.Equal(t, http.StatusOK, status, p)
	require.Nil(t, segment(t, p, "Begin A♭ major scale"))
	require.Equal(t, "No room for A♭, the key of the week: the cycle slides, and it comes on 11 May.", p["note"])

	status, p = u.call("PUT", plan, map[string]any{"version": 1})
	require.Equal(t, http.StatusOK, status, p)
	status, body = u.append(ladder, entry{"kind": "assigned", "exercise": key["exercise"], "material": key["material"], "lesson": true})
	require.Equal(t, http.StatusOK, status, body)
	_, technique := u.call("GET", "/api/ladders/"+ladder+"/technique", nil)
	require.Equal(t, "A♭ major scale", items(t, technique, "now")[0]["title"])
	_, p = u.call("GET", plan, nil)
	require.Equal(t, true, p["begun"], "the plan stays as it was when the lesson began")
	require.NotNil(t, segment(t, p, "Begin A♭ major scale"))
	status, body = u.call("PUT", plan, map[string]any{"version": 3, "minutes": 30})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The lesson has begun: its plan stays as it is.", body["detail"])
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	for _, d := range week["days"].([]any) {
		for _, it := range d.(map[string]any)["items"].([]any) {
			x := it.(map[string]any)
			require.Equal(t, "drill", x["kind"])
			require.Equal(t, "", x["where"], "whole, never bars")
			require.Len(t, x["goals"], 3)
		}
	}
}

// Planned, then something happens: where nothing was set by hand it is planned again at once; where something was, it says
// what changed, and one press mends it with the pins kept.
func TestAPlanSaysWhatChangedSince(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 30, 1))
	plan := "/api/ladders/" + ladder + "/plan"
	u.call("PUT", plan, map[string]any{"version": 0})
	u.append(ladder, entry{"kind": "faultSeen", "focus": "fault.too-close"})
	_, p := u.call("GET", plan, nil)
	require.Empty(t, p["changed"])
	require.NotNil(t, segment(t, p, "One thing: sits too close"), "nobody touched it: planned again at once")

	u.call("PUT", plan, map[string]any{"version": 1, "pins": []any{map[string]any{"segment": "posture", "minutes": 3}}})
	u.append(ladder, entry{"kind": "faultGone", "focus": "fault.too-close"}, entry{"kind": "faultSeen", "focus": "fault.slumped"})
	_, p = u.call("GET", plan, nil)
	require.Equal(t, []any{"Different: One thing: slumped, or legs crossed"}, p["changed"])
	require.NotNil(t, segment(t, p, "One thing: sits too close"), "what somebody touched stays until they say so")
	hand := p["hand"].(map[string]any)
	status, p := u.call("PUT", plan, hand)
	require.Equal(t, http.StatusOK, status, p)
	require.Empty(t, p["changed"])
	require.Equal(t, 3.0, segment(t, p, "One thing: slumped")["minutes"], "the pin is kept")
}

// The activities are the studio's: one changed, one switched off, one added are in the next plan, and the program's own come back.
func TestActivitiesAreTheTeachers(t *testing.T) {
	u := newcomer(t)
	ladder := storetest.ID()
	status, body := u.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    storetest.ID(),
			"ladder":     ladder,
			"name":       "Pip Fry",
			"born":       "2022-06-01",
			"instrument": "piano",
			"slots":      []any{slotOn(1, "15:30", 15, 1)},
		},
	)
	require.Equal(t, http.StatusCreated, status, body)
	goals := func() (out []string) {
		_, p := u.call("GET", "/api/ladders/"+ladder+"/plan", nil)
		for _, s := range items(t, p, "segments") {
			if s["kind"] == "activity" {
				out = append(out, s["title"].(string))
			}
		}
		return out
	}
	before := goals()
	require.Equal(t, "Right and left, way 1 of 3", before[0])
	require.Equal(t, "A tune of one’s own, way 1 of 3", before[len(before)-1], "made up last")
	status, body = u.call(
		"PUT",
		"/api/activities/right-and-left",
		map[string]any{
			"name":    "Left and right",
			"from":    3,
			"to":      5,
			"options": []any{"Hop on the foot that is called."},
			"home":    "Hop.",
			"off":     false,
		},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, "Left and right, way 1 of 1", goals()[0])
	u.call(
		"PUT",
		"/api/activities/right-and-left",
		map[string]any{"name": "Left and right", "from": 3, "to": 5, "options": []any{"Hop."}, "home": "", "off": true},
	)
	require.NotContains(t, goals(), "Left and right, way 1 of 1")
	u.call(
		"PUT",
		"/api/activities/boats",
		map[string]any{
			"name":    "Boats",
			"from":    2,
			"to":      4,
			"options": []any{"Rock the boat in three.", "Row in four."},
			"home":    "Rock it.",
			"off":     false,
		},
	)
	list := u.list("/api/activities")
	require.Equal(t, []any{"boats", true, false}, []any{list[len(list)-1]["id"], list[len(list)-1]["own"], list[len(list)-1]["changed"]})
	require.Equal(t, []any{true, true}, []any{list[0]["changed"], list[0]["off"]})
	status, _ = u.call("DELETE", "/api/activities/right-and-left", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, before[0], goals()[0], "as it came")
	status, _ = u.call("DELETE", "/api/activities/juggling", nil)
	require.Equal(t, http.StatusNotFound, status)
	status, body = u.call(
		"PUT",
		"/api/activities/boats",
		map[string]any{"name": "Boats", "from": 7, "to": 4, "options": []any{"x"}, "home": "", "off": false},
	)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The ages must lie between 0 and 120, the first not above the last.", body["detail"])
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, "No piece in work yet: six days of games, never more than ten minutes.", week["sentence"])
	_, stranger := newcomer(t).call("DELETE", "/api/activities/boats", nil)
	require.Equal(t, "The studio has no activity of its own by that name.", stranger["detail"])
}

// A fault that was seen opens the next lesson, goes home in a sentence, shows on Setup and on the exercise of the same
// name; a fault that is none is refused.
func TestAFaultIsOneThingEverywhere(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 30, 1))
	status, body := u.append(ladder, entry{"kind": "assigned", "exercise": "five-finger/parallel/C/major-five-finger/-"})
	require.Equal(t, http.StatusOK, status, body)
	u.append(ladder, entry{"kind": "faultSeen", "focus": "fault.wrist-low"})
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(
		t,
		"One thing to watch: the wrist hangs below the keys or rests on the edge. Look from the side: there should be room for a mouse under the wrist.",
		week["watch"],
	)
	_, setup := u.call("GET", "/api/ladders/"+ladder+"/setup", nil)
	states := map[string]string{}
	for _, f := range items(t, setup, "faults") {
		states[f["id"].(string)] = f["state"].(string)
	}
	require.Equal(t, "now", states["wrist-low"])
	require.Equal(t, "none", states["claw"])
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	marks := map[string]any{}
	for _, f := range items(t, items(t, lesson, "pieces")[0], "faults") {
		marks[f["id"].(string)] = f["mark"]
	}
	require.Equal(t, "none", marks["fault.wrist-drop"], "it shows on the exercise")
	material := items(t, lesson, "pieces")[0]["material"]
	u.append(ladder, entry{"kind": "mark", "material": material, "focus": "fault.wrist-drop", "mark": "full"})
	_, week = u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, "", week["watch"], "gone there, gone everywhere")
	status, body = u.append(ladder, entry{"kind": "faultSeen", "focus": "fault.juggling"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "This is not a fault of the piano.", body["detail"])
	status, _ = u.append(ladder, entry{"kind": "faultGone", "focus": "fault.claw", "id": storetest.ID()})
	require.Equal(t, http.StatusOK, status, "one that was never noted is gone already")
}

// Goals and faults of an exercise are the teacher's: changed, they are in the lesson, in the week, on the exercise and on
// its printed page; a fault that is switched off is not asked for; the program's own come back.
func TestGoalsAndFaultsAreTheTeachers(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 30, 1))
	const five = "five-finger/parallel/C/major-five-finger/-"
	status, body := u.append(ladder, entry{"kind": "assigned", "exercise": five})
	require.Equal(t, http.StatusOK, status, body)
	type said struct{ exercise, lesson, week, faults, watched []string }
	texts := func(list []any, field string) (out []string) {
		for _, x := range list {
			if m, ok := x.(map[string]any); ok {
				out = append(out, m[field].(string))
			} else {
				out = append(out, x.(string))
			}
		}
		return out
	}
	look := func() (out said) {
		_, e := u.call("GET", "/api/exercise?instrument=piano&exercise="+five, nil)
		out.exercise, out.faults = texts(e["goals"].([]any), ""), texts(e["faults"].([]any), "text")
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		piece := items(t, lesson, "pieces")[0]
		out.lesson, out.watched = texts(piece["points"].([]any), "text"), texts(piece["faults"].([]any), "text")
		_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
		for _, d := range items(t, week, "days") {
			for _, i := range d["items"].([]any) {
				if goals, _ := i.(map[string]any)["goals"].([]any); len(goals) > 0 && out.week == nil {
					out.week = texts(goals, "")
				}
			}
		}
		return out
	}
	goals := []string{"round fingers, every tip firm", "each note as loud as the next", "both hands land together"}
	faults := []string{"a joint gives way", "idle fingers fly up", "3 is louder than 4 and 5", "the wrist hangs below the keys"}
	came := look()
	require.Equal(t, said{goals, goals, goals, faults, faults}, came)

	change := map[string]any{
		"steps": []any{map[string]any{"step": "parallel", "goals": []any{"tips like pillars", "one loudness", "both hands land together"}}},
		"faults": []any{map[string]any{"id": "flat-joint", "text": "a joint gives way", "look": "the tip", "off": true},
			map[string]any{"id": "elbow-out", "text": "the elbow flies", "look": "a wing", "off": false}},
	}
	status, body = u.call("PUT", "/api/exercise-types/five-finger", change)
	require.Equal(t, http.StatusNoContent, status, body)
	goals, faults = []string{
		"tips like pillars",
		"one loudness",
		"both hands land together",
	}, []string{
		"idle fingers fly up",
		"3 is louder than 4 and 5",
		"the wrist hangs below the keys",
		"the elbow flies",
	}
	require.Equal(t, said{goals, goals, goals, faults, faults}, look())
	status, body = u.append(ladder, entry{"kind": "faultSeen", "focus": "fault.elbow-out"})
	require.Equal(t, http.StatusOK, status, body)
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, "One thing to watch: the elbow flies. A wing.", week["watch"])
	types := u.list("/api/exercise-types")
	require.Equal(t, []any{"five-finger", true}, []any{types[0]["id"], types[0]["changed"]})
	require.Len(t, types[0]["faults"], 5)

	status, body = u.call("PUT", "/api/exercise-types/juggling", change)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "There is no exercise \"juggling\".", body["detail"])
	status, body = u.call("DELETE", "/api/exercise-types/five-finger", nil)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, came, look(), "as it came")
	status, body = u.call("DELETE", "/api/exercise-types/five-finger", nil)
	require.Equal(t, http.StatusNotFound, status)
	require.Equal(t, "The studio has changed nothing of that exercise.", body["detail"])
}
