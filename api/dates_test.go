package api_test

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// lessonsOn lists the lessons of a day as the calendar shows them: name, time, state.
func (u *user) lessonsOn(day string) (out []string) {
	_, a := u.call("GET", "/api/calendar?from="+day+"&days=1", nil)
	for _, l := range a["days"].([]any)[0].(map[string]any)["lessons"].([]any) {
		x := l.(map[string]any)
		out = append(out, strings.Fields(x["name"].(string))[0]+" "+x["startsAt"].(string)+" "+x["state"].(string))
	}
	return out
}

// lessonOf is the id of a student's lesson on a day.
func (u *user) lessonOf(ladder, day string) string {
	_, a := u.call("GET", "/api/calendar?from="+day+"&days=1", nil)
	for _, l := range a["days"].([]any)[0].(map[string]any)["lessons"].([]any) {
		if x := l.(map[string]any); x["ladder"] == ladder {
			return x["lesson"].(string)
		}
	}
	u.t.Fatalf("no lesson on %s", day)
	return ""
}

func slotOn(weekday int, at string, minutes, every int) map[string]any {
	return map[string]any{"id": storetest.ID(), "weekday": weekday, "startsAt": at, "minutes": minutes, "every": every}
}

// settled adds a student to a studio of its own, so that nobody else has lessons; today is Monday, 4 May 2026.
func settled(t *testing.T, slots ...map[string]any) (u *user, student, ladder string) {
	u = newcomer(t)
	student, ladder = storetest.ID(), storetest.ID()
	status, body := u.call("POST", "/api/students", map[string]any{
		"student": student, "ladder": ladder, "name": "Nell Farrow", "born": "2017-02-03", "instrument": "piano", "slots": slots,
	})
	require.Equal(t, http.StatusCreated, status, body)
	return u, student, ladder
}

func (u *user) change(ladder, lesson string, body map[string]any) (int, map[string]any) {
	return u.call("PUT", "/api/ladders/"+ladder+"/lessons/"+lesson, body)
}

func TestALessonIsMovedAndEveryScreenKnows(t *testing.T) {
	u, _, ladder := settled(t, slotOn(3, "15:30", 30, 1)) // Wednesdays
	lesson := u.lessonOf(ladder, "2026-05-06")
	status, body := u.change(ladder, lesson, map[string]any{"what": "move", "day": "2026-05-08", "startsAt": "10:00", "minutes": 45})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Empty(t, u.lessonsOn("2026-05-06"))
	require.Equal(t, []string{"Nell 10:00 moved"}, u.lessonsOn("2026-05-08"))
	_, today := u.call("GET", "/api/today?day=2026-05-06", nil)
	require.Empty(t, today["lessons"])
	require.Equal(t, "Moved to Fri 8 May, 10:00", today["others"].([]any)[0].(map[string]any)["words"])
	_, today = u.call("GET", "/api/today?day=2026-05-08", nil)
	here := today["lessons"].([]any)[0].(map[string]any)["lesson"].(map[string]any)
	require.Equal(t, []any{"10:00", 45.0, "Moved from Wed 6 May"}, []any{here["startsAt"], here["minutes"], here["words"]})
	_, plan := u.call("GET", "/api/ladders/"+ladder+"/plan?day=2026-05-08", nil)
	require.Equal(t, 45.0, plan["usualMinutes"], "the plan has the minutes of that lesson")
	_, student := u.call("GET", "/api/students/"+u.studentOf("Nell"), nil)
	require.Equal(t, "Friday, 8 May, 10:00", student["ladders"].([]any)[0].(map[string]any)["next"])
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week?day=2026-05-09", nil)
	require.Len(t, week["days"], 5, "from Saturday to the lesson on Wednesday")

	// Cancelled late by the student: not to be made up; by the teacher: it is.
	_, _ = u.change(ladder, u.lessonOf(ladder, "2026-05-13"), map[string]any{"what": "cancel", "by": "student", "late": true})
	_, _ = u.change(ladder, u.lessonOf(ladder, "2026-05-20"), map[string]any{"what": "cancel", "by": "teacher"})
	require.Equal(t, []string{"Nell 15:30 cancelled"}, u.lessonsOn("2026-05-13"))
	_, agenda := u.call("GET", "/api/calendar?from=2026-05-04&days=28", nil)
	open := agenda["toMakeUp"].([]any)
	require.Len(t, open, 1)
	cancelled := open[0].(map[string]any)["lesson"].(string)
	require.Equal(t, "2026-05-20", open[0].(map[string]any)["day"])
	require.Equal(t, "Two lessons; two cancelled; one to make up.", agenda["sentence"])
	free := u.list("/api/ladders/" + ladder + "/free?near=2026-05-20")
	require.NotEmpty(t, free)
	status, body = u.change(
		ladder,
		storetest.ID(),
		map[string]any{"what": "add", "day": free[0]["day"], "startsAt": free[0]["startsAt"], "minutes": 30, "makesUp": cancelled},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	_, agenda = u.call("GET", "/api/calendar?from=2026-05-04&days=28", nil)
	require.Empty(t, agenda["toMakeUp"])
	_, week = u.call("GET", "/api/ladders/"+ladder+"/week?day=2026-05-09", nil)
	require.Len(t, week["days"], 12, "what was set goes on to the next lesson that takes place")

	status, _ = u.change(ladder, cancelled, map[string]any{"what": "restore"})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, []string{"Nell 15:30 planned"}, u.lessonsOn("2026-05-20"))
	for _, bad := range []struct {
		body map[string]any
		says string
	}{
		{map[string]any{"what": "move", "day": "2026-05-01", "startsAt": "10:00", "minutes": 30}, "That day is over."},
		{map[string]any{"what": "move", "day": "2026-05-21", "startsAt": "10:00", "minutes": 0}, "A lesson lasts 5 to 240 minutes."},
		{map[string]any{"what": "move", "day": "2026-05-21", "startsAt": "23:50", "minutes": 30}, "past midnight"},
	} {
		status, body := u.change(ladder, cancelled, bad.body)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, body["detail"], bad.says)
	}
	// All from one on.
	status, body = u.change(
		ladder,
		u.lessonOf(ladder, "2026-05-27"),
		map[string]any{"what": "moveOn", "day": "2026-05-28", "startsAt": "16:00", "minutes": 30, "slot": storetest.ID()},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []string{"Nell 16:00 planned"}, u.lessonsOn("2026-06-04"))
	require.Empty(t, u.lessonsOn("2026-06-03"))
	require.Equal(t, []string{"Nell 15:30 planned"}, u.lessonsOn("2026-05-20"))
}

func TestTwoAWeekEverySecondWeekAndHolidays(t *testing.T) {
	u, student, ladder := settled(t, slotOn(1, "15:00", 30, 1), slotOn(4, "16:00", 45, 2))
	status, body := u.call(
		"PUT",
		"/api/holidays/"+storetest.ID(),
		map[string]any{"name": "Harbour week", "first": "2026-05-11", "last": "2026-05-17"},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	status, body = u.call(
		"PUT",
		"/api/holidays/"+storetest.ID(),
		map[string]any{"name": "Class trip", "first": "2026-05-21", "last": "2026-05-22", "student": student},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	_, agenda := u.call("GET", "/api/calendar?from=2026-05-04&days=28", nil)
	var got []string
	for _, d := range agenda["days"].([]any) {
		for _, l := range d.(map[string]any)["lessons"].([]any) {
			x := l.(map[string]any)
			got = append(got, x["day"].(string)[5:]+" "+x["state"].(string))
		}
	}
	require.Equal(t, []string{"05-04 planned", "05-07 planned", "05-11 break", "05-18 planned", "05-21 break", "05-25 planned"}, got)
	require.Equal(t, []any{"Harbour week"}, agenda["days"].([]any)[7].(map[string]any)["holidays"])
	holidays := u.list("/api/holidays")
	require.Equal(t, []any{"Harbour week", "Class trip", "Nell Farrow"}, []any{holidays[0]["name"], holidays[1]["name"], holidays[1]["whose"]})

	// The teacher's own calendar, opened by a link until it is shut.
	_, link := u.call("POST", "/api/calendar/link", nil)
	out := anyone(t)
	out.url = u.url
	feed := out.read(link["link"].(string))
	require.Contains(t, feed, "SUMMARY:Nell Farrow\\, piano")
	require.Contains(t, feed, "INTERVAL=2")
	require.Contains(t, feed, "EXDATE")
	_, again := u.call("GET", "/api/calendar/link", nil)
	require.Equal(t, link, again)
	status, _ = u.call("DELETE", "/api/calendar/link", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, http.StatusNotFound, out.raw("GET", link["link"].(string), nil, nil).StatusCode)

	// Other times from a day on; the history stays.
	status, body = u.call(
		"PUT",
		"/api/ladders/"+ladder+"/slots",
		map[string]any{"from": "2026-06-01", "slots": []any{slotOn(2, "10:00", 30, 1)}},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, []string{"Nell 10:00 planned"}, u.lessonsOn("2026-06-02"))
	require.Empty(t, u.lessonsOn("2026-06-01"))
	require.Equal(t, []string{"Nell 15:00 planned"}, u.lessonsOn("2026-05-25"))
	status, body = u.call(
		"PUT",
		"/api/ladders/"+ladder+"/slots",
		map[string]any{"from": "2026-06-01", "slots": []any{slotOn(2, "10:00", 0, 1)}},
	)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "A lesson lasts 5 to 240 minutes.", body["detail"])
}

const daysOff = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:May week\r\nDTSTART;VALUE=DATE:20260511\r\nDTEND;VALUE=DATE:20260518\r\nEND:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:2\r\nSUMMARY:Meeting\r\nDTSTART:20260512T160000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"

func TestHolidaysComeOutOfAFile(t *testing.T) {
	u, _, _ := settled(t, slotOn(1, "15:00", 30, 1))
	send := func(query, file string) (int, map[string]any) {
		res := u.raw("POST", "/api/holidays/import"+query, text(file), http.Header{"Content-Type": {"text/calendar"}})
		defer res.Body.Close()
		var out map[string]any
		require.NoError(t, json.NewDecoder(res.Body).Decode(&out))
		return res.StatusCode, out
	}
	status, found := send("?try=true", daysOff)
	require.Equal(t, http.StatusOK, status, found)
	require.Equal(t, "One holiday to add; one event not taken.", found["sentence"])
	require.Equal(t, []any{"Meeting: it has a time of day"}, found["skipped"])
	require.Empty(t, u.list("/api/holidays"), "nothing is kept by a try")
	_, found = send("", daysOff)
	require.Equal(t, "One holiday added; one event not taken.", found["sentence"])
	require.Equal(t, []string{"Nell 15:00 break"}, u.lessonsOn("2026-05-11"))
	_, found = send("", daysOff)
	require.Equal(t, "No holidays added; two events not taken.", found["sentence"], "the same file again adds nothing")
	status, body := send("", "hello")
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "This is not a calendar file (.ics).", body["detail"])
}

func TestWhoAStudentIsCanAlwaysBeChanged(t *testing.T) {
	u, student, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	page := func() map[string]any {
		_, p := u.call("GET", "/api/students/"+student, nil)
		return p
	}
	form := map[string]any{
		"name":      `Nell "Nelly" O’Farrow 小林`,
		"called":    "Nelly",
		"born":      "2016-02-03",
		"bornAbout": true,
		"notes":     "afraid of the metronome",
		"since":     "2024-09-01",
		"version":   1,
		"contacts": []any{
			map[string]any{"id": storetest.ID(), "name": "Dana", "relation": "mother", "email": "dana@harbour.example", "messages": true},
		},
	}
	status, body := u.call("PATCH", "/api/students/"+student, form)
	require.Equal(t, http.StatusNoContent, status, body)
	p := page()
	require.Equal(t, []any{"Nelly", 10.0, "afraid of the metronome", "2024-09-01"}, []any{p["first"], p["age"], p["notes"], p["since"]})
	status, _ = u.call("PATCH", "/api/students/"+student, form)
	require.Equal(t, http.StatusConflict, status, "a form that is out of date")
	for field, c := range map[string][2]any{
		"name": {" ", "The student needs a name."}, "born": {"2030-01-01", "The birthday lies in the future. Check the year."},
		"since": {"2010-01-01", "The first day in the studio lies before the birthday. Check both."},
	} {
		bad := map[string]any{}
		for k, v := range form {
			bad[k] = v
		}
		bad[field], bad["version"] = c[0], 2
		status, body := u.call("PATCH", "/api/students/"+student, bad)
		require.Equal(t, http.StatusUnprocessableEntity, status, field)
		require.Equal(t, c[1], body["detail"])
	}
	// A week goes to those who agreed.
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, []any{"dana@harbour.example"}, week["family"].(map[string]any)["recipients"])

	// A second instrument, with its own times.
	cello := storetest.ID()
	status, body = u.call(
		"POST",
		"/api/students/"+student+"/ladders",
		map[string]any{"ladder": cello, "instrument": "cello", "from": "2026-05-04", "slots": []any{slotOn(4, "16:00", 30, 2)}},
	)
	require.Equal(t, http.StatusCreated, status, body)
	require.Equal(t, "Piano, Mondays 15:00, 30 min; cello, Thursdays 16:00, 30 min, every second week.", page()["sentence"])
	// Another instrument: nothing was recorded, so it is the same ladder; with something it is a new one.
	status, changed := u.call("PUT", "/api/ladders/"+cello+"/instrument", map[string]any{"instrument": "ukulele", "ladder": storetest.ID()})
	require.Equal(t, http.StatusOK, status, changed)
	require.Equal(t, cello, changed["ladder"])
	u.append(cello, entry{"kind": "note", "text": "strings are new"})
	next := storetest.ID()
	_, changed = u.call("PUT", "/api/ladders/"+cello+"/instrument", map[string]any{"instrument": "guitar", "ladder": next})
	require.Equal(t, next, changed["ladder"])
	require.Equal(t, []string{"Nell 16:00 planned"}, u.lessonsOn("2026-05-07"), "one lesson, not two")
	require.Equal(t, "Piano, Mondays 15:00, 30 min; guitar, Thursdays 16:00, 30 min, every second week.", page()["sentence"])
	// Stopped and taken up again.
	status, _ = u.call("PUT", "/api/ladders/"+next+"/ended", map[string]any{"from": "2026-05-04"})
	require.Equal(t, http.StatusNoContent, status)
	require.Empty(t, u.lessonsOn("2026-05-21"))
	status, _ = u.call("DELETE", "/api/ladders/"+next+"/ended", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, []string{"Nell 16:00 planned"}, u.lessonsOn("2026-05-21"))
}

func TestAStudentPausesLeavesAndReturns(t *testing.T) {
	u, student, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	state := func() any {
		_, p := u.call("GET", "/api/students/"+student, nil)
		return p["state"]
	}
	studio := func() int {
		_, o := u.call("GET", "/api/overview", nil)
		return len(o["students"].([]any))
	}
	before := u.read("/api/ladders/" + ladder + "/lesson")
	pause := storetest.ID()
	status, body := u.call("PUT", "/api/students/"+student+"/pauses/"+pause, map[string]any{"first": "2026-05-04"})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, "paused", state())
	require.Equal(t, []string{"Nell 15:00 break"}, u.lessonsOn("2026-05-04"))
	require.Equal(t, 0, studio(), "no alarms")
	_, today := u.call("GET", "/api/today", nil)
	require.Empty(t, today["lessons"])
	status, body = u.call("PUT", "/api/students/"+student+"/pauses/"+pause, map[string]any{"first": "2026-05-10", "last": "2026-05-01"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "The pause ends before it begins. Check both days.", body["detail"])
	status, _ = u.call("DELETE", "/api/students/"+student+"/pauses/"+pause, nil)
	require.Equal(t, http.StatusNoContent, status)

	status, _ = u.call("PUT", "/api/students/"+student+"/left", map[string]any{"from": "2026-05-04"})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, "gone", state())
	require.Equal(t, 0, studio())
	_, link := u.call("POST", "/api/calendar/link", nil)
	out := anyone(t)
	out.url = u.url
	require.NotContains(t, out.read(link["link"].(string)), "BEGIN:VEVENT", "nor in the calendar that the teacher subscribes to")
	status, _ = u.call("DELETE", "/api/students/"+student+"/left", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, "active", state())
	require.Equal(t, 1, studio())
	require.Equal(t, before, u.read("/api/ladders/"+ladder+"/lesson"), "as if nothing had happened")
}
