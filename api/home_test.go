package api_test

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// weekOf is the coming week of a ladder.
func (u *user) weekOf(ladder string) map[string]any {
	status, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(u.t, http.StatusOK, status, week)
	return week
}

func daysOf(week map[string]any) []map[string]any {
	var out []map[string]any
	for _, d := range week["days"].([]any) {
		out = append(out, d.(map[string]any))
	}
	return out
}

func itemsOf(day map[string]any) []map[string]any {
	var out []map[string]any
	for _, it := range day["items"].([]any) {
		out = append(out, it.(map[string]any))
	}
	return out
}

func keysOf(day map[string]any) []string {
	var out []string
	for _, it := range itemsOf(day) {
		out = append(out, it["key"].(string))
	}
	return out
}

// hands sets a week by hand and returns what came of it.
func (u *user) byHand(ladder string, version any, hand map[string]any) map[string]any {
	hand["version"] = version
	status, week := u.call("PUT", "/api/ladders/"+ladder+"/week", hand)
	require.Equal(u.t, http.StatusOK, status, week)
	return week
}

func version(week map[string]any) any { return week["hand"].(map[string]any)["version"] }

func TestAWeekIsSolvedAgainAroundWhatIsSetByHand(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Ivo")
	week := u.weekOf(ladder)
	require.Equal(t, false, week["published"])
	days := daysOf(week)
	practised := slices.IndexFunc(days, func(d map[string]any) bool { return d["rest"] == false })
	first := days[practised]
	moved, dropped := itemsOf(first)[0], itemsOf(first)[len(itemsOf(first))-1]
	last := days[slices.IndexFunc(days[practised+2:], func(d map[string]any) bool { return d["rest"] == false })+practised+2]
	away := days[practised+1]["date"].(string)

	hand := map[string]any{
		"days":  []any{map[string]any{"day": away, "practice": false}},
		"pins":  []any{map[string]any{"item": moved["key"], "day": last["date"]}},
		"drops": []string{dropped["key"].(string)}, "words": "Sing it in the bath.",
	}
	week = u.byHand(ladder, version(week), hand)
	for _, d := range daysOf(week) {
		require.NotContains(t, keysOf(d), dropped["key"])
		require.Equal(t, d["date"] == last["date"], slices.Contains(keysOf(d), moved["key"].(string)), d["date"])
		require.LessOrEqual(t, d["minutes"], week["minutes"])
		if d["date"] == away {
			require.Equal(t, true, d["rest"])
			require.Empty(t, itemsOf(d))
		}
	}
	require.Len(t, week["dropped"], 1)
	// An old form overwrites nothing; the new one can say how often.
	status, problem := u.call("PUT", "/api/ladders/"+ladder+"/week", map[string]any{"version": 0})
	require.Equal(t, http.StatusConflict, status, problem)
	var chunk map[string]any
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			if it["times"].(float64) > 2 && (chunk == nil || it["minutes"].(float64) > chunk["minutes"].(float64)) {
				chunk = it
			}
		}
	}
	hand["times"] = []any{map[string]any{"item": chunk["key"], "times": 2}}
	week = u.byHand(ladder, version(week), hand)
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			if it["key"] == chunk["key"] {
				require.Equal(t, 2.0, it["times"])
				require.Less(t, it["minutes"], chunk["minutes"])
			}
		}
	}
	for what, wrong := range map[string]map[string]any{
		"is not in the week from": {"pins": []any{map[string]any{"item": "x", "day": "2031-01-01"}}},
		"1 to 20 times a day":     {"times": []any{map[string]any{"item": "x", "times": 99}}},
		"between 1 and 240":       {"minutes": 900},
	} {
		wrong["version"] = version(week)
		status, problem := u.call("PUT", "/api/ladders/"+ladder+"/week", wrong)
		require.Equal(t, http.StatusUnprocessableEntity, status, what)
		require.Contains(t, problem["detail"], what)
	}
	u.byHand(ladder, version(week), map[string]any{})
}

// A gate is a state of the piece: it holds on the sheet until it is opened.
func TestTheRightHandOnlyUntilTheLeftWasTaught(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Tobias")
	gates := func() (string, []any) {
		week := u.weekOf(ladder)
		return week["gates"].([]any)[0].(map[string]any)["hand"].(string), week["notYet"].([]any)
	}
	piece := u.weekOf(ladder)["gates"].([]any)[0].(map[string]any)
	status, _ := u.append(ladder, entry{"kind": "gate", "material": piece["material"], "gate": "right"})
	require.Equal(t, http.StatusOK, status)
	hand, notYet := gates()
	require.Equal(t, "right hand", hand)
	require.Contains(t, notYet, "“"+piece["title"].(string)+"”: the left hand, and both hands together, until it was taught")
	for _, d := range daysOf(u.weekOf(ladder)) {
		for _, it := range itemsOf(d) {
			if it["material"] == piece["material"] {
				require.Equal(t, "right hand", it["hand"])
			}
		}
	}
	status, _ = u.append(
		ladder,
		entry{"kind": "gate", "material": piece["material"], "gate": "together", "at": now.Add(time.Second).Format(time.RFC3339)},
	)
	require.Equal(t, http.StatusOK, status)
	hand, notYet = gates()
	require.Empty(t, hand)
	for _, n := range notYet {
		require.NotContains(t, n, "left hand")
	}
	status, _ = u.append(ladder, entry{"kind": "gate", "material": piece["material"], "gate": "backwards"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
}

// published sets a week from yesterday on for a student, publishes it and
// returns it with the token of the family's link.
func (u *user) published(ladder, email string) (week map[string]any, token string) {
	start := now.AddDate(0, 0, -1).Format(time.DateOnly)
	if email != "" {
		status, way := u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": email})
		require.Equal(u.t, http.StatusOK, status, way)
	}
	status, week := u.call("GET", "/api/ladders/"+ladder+"/week?day="+start, nil)
	require.Equal(u.t, http.StatusOK, status)
	status, week = u.call(
		"POST",
		"/api/ladders/"+ladder+"/week/publish?day="+start,
		map[string]any{"version": version(week), "plan": week["plan"]},
	)
	require.Equal(u.t, http.StatusOK, status, week)
	require.Equal(u.t, true, week["published"])
	require.Equal(u.t, false, week["changed"])
	link := week["family"].(map[string]any)["link"].(string)
	return week, strings.TrimPrefix(link, "/home/")
}

func TestAFamilySeesThePublishedWeekAndNothingElse(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Ivo")
	week, token := u.published(ladder, "")
	require.GreaterOrEqual(t, len(token), 43, "256 bits")
	family := anyone(t)
	status, page := family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, http.StatusOK, status, page)
	require.Equal(t, "Ivo", page["name"])
	require.Equal(t, week["notYet"], page["notYet"])
	require.Len(t, page["days"], 7)
	res := family.raw("GET", "/api/family/"+token, nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	res.Body.Close()
	for _, private := range []string{"Sandgate", "2019", "born", "age", "Maren", ladder, "loose shoulders, "} {
		require.NotContains(t, string(data), `"`+private+`"`, private)
	}
	require.NotContains(t, string(data), "Sandgate", "the first name only")
	// What is changed later is seen when it is published again.
	first := daysOf(week)[0]
	u.byHandFrom(ladder, week, map[string]any{"drops": []string{keysOf(first)[0]}})
	status, again := family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, page["days"], again["days"])
	// The link opens no door of the teacher's.
	status, _ = family.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, http.StatusUnauthorized, status)
}

// A week that was published for later can be read at once; until it begins, the one of today is shown first.
func TestTheNewestWeekIsReadableAtOnce(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:30", 30, 1))
	publish := func(day string) map[string]any {
		_, week := u.call("GET", "/api/ladders/"+ladder+"/week?day="+day, nil)
		status, week := u.call(
			"POST",
			"/api/ladders/"+ladder+"/week/publish?day="+day,
			map[string]any{"version": version(week), "plan": week["plan"]},
		)
		require.Equal(t, http.StatusOK, status, week)
		return week
	}
	week := publish("2026-05-03")
	token := strings.TrimPrefix(week["family"].(map[string]any)["link"].(string), "/home/")
	family := anyone(t)
	family.url = u.url
	_, page := family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, []any{map[string]any{"start": week["start"], "name": "This week"}}, page["weeks"])
	later := publish("2026-05-10")
	_, page = family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, week["start"], page["start"], "today's is shown first")
	require.Equal(
		t,
		[]any{
			map[string]any{"start": week["start"], "name": "This week"},
			map[string]any{"start": later["start"], "name": "The new week, from Sunday 10 May"},
		},
		page["weeks"],
	)
	_, ahead := family.call("GET", "/api/family/"+token+"?week="+later["start"].(string), nil)
	require.Equal(t, later["start"], ahead["start"])
	require.Equal(t, "The new week begins on Sunday.", ahead["sentence"])
	require.Equal(t, later["start"], items(t, ahead, "days")[0]["date"])
	_, other := family.call("GET", "/api/family/"+token+"?week=2020-01-01", nil)
	require.Equal(t, week["start"], other["start"], "one that was never published is that of today")
	require.Regexp(t, "^%PDF-", u.read("/api/family/"+token+"/sheet?week="+later["start"].(string)))
}

func (u *user) byHandFrom(ladder string, week map[string]any, hand map[string]any) map[string]any {
	hand["version"] = version(week)
	status, out := u.call("PUT", "/api/ladders/"+ladder+"/week?day="+week["start"].(string), hand)
	require.Equal(u.t, http.StatusOK, status, out)
	return out
}

func TestTicksFromHomeArriveOnceAndOnlyForWhatWasSet(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.ladderOf("Wren")
	_, token := u.published(ladder, "")
	_, page := family.call("GET", "/api/family/"+token, nil)
	var today map[string]any
	for _, d := range daysOf(page) {
		if len(itemsOf(d)) > 0 && today == nil {
			today = d // the day before the lesson
		}
	}
	item := itemsOf(today)[0]
	done := map[string]any{
		"id":    storetest.ID(),
		"at":    now.Format(time.RFC3339),
		"kind":  "done",
		"day":   today["date"],
		"item":  item["key"],
		"times": 3,
		"felt":  "joyful",
	}
	first := map[string]any{"id": storetest.ID(), "at": now.Format(time.RFC3339), "kind": "first", "day": today["date"], "item": item["key"]}
	send := func(ticks ...map[string]any) (int, map[string]any) {
		return family.call("POST", "/api/family/"+token+"/ticks", map[string]any{"ticks": ticks})
	}
	status, answer := send(done, first)
	require.Equal(t, http.StatusOK, status, answer)
	require.Equal(t, 2.0, answer["added"])
	status, answer = send(done, first) // sent again after a lost answer
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, 0.0, answer["added"])

	tomorrow := now.AddDate(0, 0, 1).Format(time.DateOnly)
	tick := func(day, item string) map[string]any {
		return map[string]any{"id": storetest.ID(), "at": now.Format(time.RFC3339), "kind": "done", "day": day, "item": item}
	}
	for what, wrong := range map[string]map[string]any{
		"has not come yet": tick(tomorrow, item["key"].(string)),
		"was not set for":  tick(now.Format(time.DateOnly), "chunk of something else"),
		"is too long ago":  tick("2026-01-01", item["key"].(string)),
		"ticked here":      {"id": storetest.ID(), "at": now.Format(time.RFC3339), "kind": "undo", "undoes": u.list("/api/ladders/" + ladder + "/entries")[0]["id"]},
		"has not come yet. Check the clock of this device": {"id": storetest.ID(), "at": now.AddDate(0, 0, 3).Format(time.RFC3339), "kind": "done", "day": today["date"], "item": item["key"]},
	} {
		status, problem := send(wrong)
		require.Equal(t, http.StatusUnprocessableEntity, status, what)
		require.Contains(t, problem["detail"], what)
	}

	// The teacher finds it before the next lesson.
	home := func() map[string]any {
		_, page := u.call("GET", "/api/today?day="+now.AddDate(0, 0, 7).Format(time.DateOnly), nil)
		for _, l := range page["lessons"].([]any) {
			l := l.(map[string]any)
			if l["student"].(map[string]any)["ladder"] == ladder {
				return l["home"].(map[string]any)
			}
		}
		return nil
	}
	require.Equal(t, 1.0, home()["practised"])
	require.Equal(t, 1.0, home()["joyful"])
	require.Equal(t, []any{item["title"]}, home()["first"])
	require.Contains(t, home()["words"], "“"+item["title"].(string)+"” first")
	// Taken back, it is gone; a lesson was never given by it.
	status, _ = send(map[string]any{"id": storetest.ID(), "at": now.Format(time.RFC3339), "kind": "undo", "undoes": done["id"]})
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, 0.0, home()["practised"])
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	for _, line := range lesson["log"].([]any) {
		require.NotContains(t, line.(map[string]any)["text"], "at home")
	}
}

func TestALinkThatWasShutOrReplacedOrHasRunOutOpensNothing(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.ladderOf("Henrik")
	_, old := u.published(ladder, "")
	status, way := u.call("POST", "/api/ladders/"+ladder+"/family/link", map[string]any{"days": 10})
	require.Equal(t, http.StatusOK, status)
	fresh := strings.TrimPrefix(way["link"].(string), "/home/")
	opens := func(token string) bool {
		status, problem := family.call("GET", "/api/family/"+token, nil)
		if status == http.StatusOK {
			return true
		}
		require.Equal(t, http.StatusNotFound, status)
		require.Contains(t, problem["detail"], "opens nothing")
		for _, path := range []string{"/sheet", "/calendar"} {
			status, _ := family.call("GET", "/api/family/"+token+path, nil)
			require.Equal(t, http.StatusNotFound, status)
		}
		return false
	}
	require.False(t, opens(old))
	require.True(t, opens(fresh))
	require.False(t, opens(fresh[:len(fresh)-1]))
	then := now
	now = now.AddDate(0, 0, 11)
	require.False(t, opens(fresh), "it has run out")
	now = then
	status, _ = u.call("DELETE", "/api/ladders/"+ladder+"/family/link", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.False(t, opens(fresh))
}

func TestAMessageWithTheLinkGoesToTheMailbox(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Odile")
	status, problem := u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": "not an address"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "not an e-mail address")
	_, token := u.published(ladder, "odile@harbour.example")
	newest := u.list("/api/messages")[0]
	require.Equal(t, "odile@harbour.example", newest["to"])
	require.Equal(t, "kept", newest["state"])
	require.Contains(t, newest["body"], "/home/"+token)
	require.NotContains(t, newest["subject"], "Marchetti")
	require.Empty(t, signedIn(t, strangerEmail, strangerPassword).list("/api/messages"))
}

func TestTheSheetIsOneSheetOfPaper(t *testing.T) {
	u := teacher(t)
	for _, s := range u.list("/api/students") {
		res := u.raw("GET", "/api/ladders/"+s["ladder"].(string)+"/week/sheet", nil, nil)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		res.Body.Close()
		require.Equal(t, http.StatusOK, res.StatusCode, "%s", data)
		require.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
		require.True(t, bytes.HasPrefix(data, []byte("%PDF-")))
		require.LessOrEqual(t, bytes.Count(data, []byte("/Type /Page\n")), 2, s["name"])
	}
}

func TestPracticeAgainstEnjoymentIsForTheTeacher(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.ladderOf("Piper")
	_, token := u.published(ladder, "")
	_, page := family.call("GET", "/api/family/"+token, nil)
	day := daysOf(page)[0]
	if day["rest"] == true {
		day = daysOf(page)[1]
	}
	status, _ := family.call("POST", "/api/family/"+token+"/ticks", map[string]any{"ticks": []any{map[string]any{
		"id": storetest.ID(), "at": now.Format(time.RFC3339), "kind": "done", "day": day["date"], "item": keysOf(day)[0], "felt": "hard"}}})
	require.Equal(t, http.StatusOK, status)
	found := false
	for _, b := range u.list("/api/balance") {
		if b["ladder"] == ladder {
			found = true
			require.Equal(t, "unknown", b["kind"], "one hard day labels nobody")
			require.Contains(t, b["why"], "hard 1")
		}
	}
	require.True(t, found)
	_, page = family.call("GET", "/api/family/"+token, nil)
	require.NotContains(t, page, "balance")
	status, _ = family.call("GET", "/api/balance", nil)
	require.Equal(t, http.StatusUnauthorized, status)
}

// One lesson taught from two devices at once: what both wrote is kept and shown.
func TestOneLessonFromTwoDevices(t *testing.T) {
	one, two := teacher(t), teacher(t)
	ladder := one.ladderOf("Maren")
	_, lesson := one.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	piece := lesson["pieces"].([]any)[0].(map[string]any)
	point := piece["points"].([]any)[0].(map[string]any)
	at := func(s int) string { return now.Add(time.Duration(s) * time.Second).Format(time.RFC3339) }
	a := entry{"kind": "mark", "material": piece["material"], "focus": point["id"], "mark": "part", "at": at(1)}
	b := entry{"kind": "mark", "material": piece["material"], "focus": point["id"], "mark": "full", "at": at(2)}
	note := entry{"kind": "note", "text": "from the other tablet", "at": at(3)}
	for user, list := range map[*user][]entry{one: {a}, two: {b, note}} {
		status, _ := user.append(ladder, list...)
		require.Equal(t, http.StatusOK, status)
	}
	_, lesson = one.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	ids := map[string]bool{}
	for _, line := range lesson["log"].([]any) {
		ids[line.(map[string]any)["id"].(string)] = true
	}
	for _, e := range []entry{a, b, note} {
		require.True(t, ids[e["id"].(string)], e["kind"])
	}
	for _, p := range lesson["pieces"].([]any) {
		for _, f := range p.(map[string]any)["points"].([]any) {
			if f := f.(map[string]any); f["id"] == point["id"] {
				require.Equal(t, "full", f["mark"], "the later one holds, whichever arrived first")
			}
		}
	}
	_, err := db.Log(context.Background(), "nobody", ladder)
	require.NoError(t, err)
}

// The feed has the lesson once a week without the holiday, and the days that were published.
func TestTheCalendarOfAFamily(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.ladderOf("Henrik")
	week, token := u.published(ladder, "")
	off := now.AddDate(0, 0, 10).Format("20060102")
	status, _ := u.call(
		"PUT",
		"/api/holidays/"+storetest.ID(),
		map[string]any{
			"name":  "Regatta",
			"first": now.AddDate(0, 0, 10).Format(time.DateOnly),
			"last":  now.AddDate(0, 0, 10).Format(time.DateOnly),
		},
	)
	require.Equal(t, http.StatusNoContent, status)
	res := family.raw("GET", "/api/family/"+token+"/calendar", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode)
	require.True(t, strings.HasPrefix(res.Header.Get("Content-Type"), "text/calendar"))
	text := string(data)
	require.Contains(t, text, "SUMMARY:Henrik: cello lesson")
	require.Contains(t, text, "RRULE:FREQ=WEEKLY")
	require.Regexp(t, `EXDATE(;TZID=`+regexp.QuoteMeta(zone)+`)?:`+off+`T`, text, "Henrik's lesson falls on the day of the regatta")
	practised := 0
	for _, d := range daysOf(week) {
		if d["rest"] == false {
			practised++
			require.Contains(t, text, "DTSTART;VALUE=DATE:"+strings.ReplaceAll(d["date"].(string), "-", ""))
		}
	}
	require.Equal(t, practised, strings.Count(text, "SUMMARY:Henrik: practice"))
	require.NotContains(t, text, "Osterby")
}

// The sheet of the family is the one that was published, and its address stays secret.
func TestTheFamilysSheet(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.ladderOf("Ivo")
	_, token := u.published(ladder, "")
	res := family.raw("GET", "/api/family/"+token+"/sheet", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	res.Body.Close()
	require.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	require.True(t, bytes.HasPrefix(data, []byte("%PDF-")))
	require.Equal(t, "no-store", res.Header.Get("Cache-Control"))
	require.Equal(t, "same-origin", res.Header.Get("Referrer-Policy"))
}

// Publishing keeps exactly the plan that was shown. Where it would be another by now nothing is published; the teacher
// is told what changed, and chooses.
func TestWhatIsPublishedIsWhatWasShown(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Posy Larkin", "piano")
	gulls := u.materialOf("Gulls on the Railing")
	status, got := u.append(ladder, entry{"kind": "assigned", "material": gulls})
	require.Equal(t, http.StatusOK, status, got)
	url := "/api/ladders/" + ladder + "/week"
	_, shown := u.call("GET", url, nil)
	// A spot is marked on another device before the teacher publishes.
	status, got = u.append(ladder, entry{"kind": "spotAdded", "material": gulls, "from": 2, "to": 3})
	require.Equal(t, http.StatusOK, status, got)
	publish := func(plan any, asShown bool) (int, map[string]any) {
		return u.call("POST", url+"/publish", map[string]any{"version": version(shown), "plan": plan, "asShown": asShown})
	}
	status, changed := publish(shown["plan"], false)
	require.Equal(t, http.StatusConflict, status, changed)
	require.Equal(t, true, changed["canPublish"])
	require.Contains(t, changed["changes"].([]any)[0], "New: “Gulls on the Railing”, bars 2–3")
	_, now := u.call("GET", url, nil)
	require.Equal(t, false, now["published"], "nothing was published")
	require.NotEqual(t, shown["plan"], now["plan"])
	status, changed = publish(shown["plan"], false)
	require.Equal(t, http.StatusConflict, status)
	require.Equal(t, false, changed["canPublish"], "another was shown since: the teacher looks once more")
	status, week := publish(now["plan"], false)
	require.Equal(t, http.StatusOK, status, week)
	require.Equal(t, []any{true, false}, []any{week["published"], week["changed"]})
	// The teacher may want what was shown all the same; then the page says that it would be planned otherwise.
	spot := u.list("/api/ladders/" + ladder + "/entries")[1]["id"]
	status, got = u.append(ladder, entry{"kind": "spotMended", "material": gulls, "spot": spot})
	require.Equal(t, http.StatusOK, status, got)
	shown = week
	status, week = publish(now["plan"], true)
	require.Equal(t, http.StatusOK, status, week)
	require.Equal(t, []any{true, true}, []any{week["published"], week["changed"]})
}

func TestAWeekThatIsOverStaysAsItWas(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Maren")
	old := now.AddDate(0, 0, -20).Format(time.DateOnly)
	for method, path := range map[string]string{"PUT": "/week", "POST": "/week/publish"} {
		body := map[string]any{"version": 0}
		if method == "POST" {
			body["plan"] = "any"
		}
		status, problem := u.call(method, "/api/ladders/"+ladder+path+"?day="+old, body)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, problem["detail"], "is over")
	}
}
