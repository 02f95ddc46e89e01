package api_test

import (
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

const eightBars = "X:1\nT:Slack Tide\nM:4/4\nL:1/4\nQ:1/4=80\nK:C\nCDEF|G2E2|AGFE|D4|EEFG|c2G2|FDB,D|C4|]\n"

// loop is a student of a new studio whose family ticks, on a clock that a test moves.
type loop struct {
	*user
	now    time.Time
	turn   func(text string)
	ladder string
	family *user
	token  string
}

// at moves the clock.
func (l *loop) at(text string) {
	now, err := time.Parse("2006-01-02 15:04", text)
	require.NoError(l.t, err)
	l.now = now
	l.turn(text)
}

// publish publishes the week that begins on a day, as the page shows it.
func (l *loop) publish(day string) map[string]any {
	_, week := l.call("GET", "/api/ladders/"+l.ladder+"/week?day="+day, nil)
	status, week := l.call("POST", "/api/ladders/"+l.ladder+"/week/publish?day="+day, map[string]any{"version": version(week), "plan": week["plan"]})
	require.Equal(l.t, http.StatusOK, status, week)
	l.token = strings.TrimPrefix(week["family"].(map[string]any)["link"].(string), "/home/")
	return week
}

// ticks sends what the family ticked on the days of a week, each thing on each of its days, at nine in the evening of the last.
func (l *loop) ticks(week map[string]any, felt map[string]string) {
	var list []map[string]any
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			if f := felt[it["key"].(string)]; f != "" {
				list = append(list, map[string]any{
					"id": storetest.ID(), "at": l.now.Format(time.RFC3339), "kind": "done", "day": d["date"], "item": it["key"], "times": it["times"], "felt": f,
				})
			}
		}
	}
	status, answer := l.family.call("POST", "/api/family/"+l.token+"/ticks", map[string]any{"ticks": list})
	require.Equal(l.t, http.StatusOK, status, answer)
}

// A week at home, tick by tick, then the lesson: Today, the lesson and its plan name what was hard; the week after begins with it
// in halves and leaves out what was easy; each can be taken back, and the studio can switch it off.
func TestWhatHomeShowedReachesTheNextLessonAndWeek(t *testing.T) {
	l := &loop{}
	l.user, l.ladder, l.turn = movable(t, slotOn(2, "15:30", 30, 1))
	l.at("2026-05-05 16:30") // Tuesday
	l.family = anyone(t)
	l.family.url = l.url
	piece, other := l.add("slack.abc", eightBars, 0), l.add("tar.abc", threeTunes, 0)
	now := l.now.Format(time.RFC3339)
	status, body := l.append(l.ladder, entry{"kind": "assigned", "material": piece, "at": now}, entry{"kind": "assigned", "material": other, "at": now})
	require.Equal(t, http.StatusOK, status, body)

	week := l.publish("2026-05-06")
	steps := map[string]string{} // by bars
	again := ""
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			key := it["key"].(string)
			switch {
			case it["material"] != piece:
			case it["kind"] == "chunk":
				steps[key[len("chunk "+piece+" "):]] = key
			case it["kind"] == "again" && again == "":
				again = key
			}
		}
	}
	require.Equal(t, map[string]string{"1-4": "chunk " + piece + " 1-4", "5-8": "chunk " + piece + " 5-8"}, steps, "%v", week["days"])
	l.at("2026-05-11 21:00")
	felt := map[string]string{}
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			if it["material"] == piece {
				felt[it["key"].(string)] = "fine"
			}
		}
	}
	felt[steps["1-4"]], felt[again], felt["again "+piece+" 1-8"] = "hard", "hard", "hard"
	l.ticks(week, felt)

	// Tuesday again.
	l.at("2026-05-12 15:00")
	_, today := l.call("GET", "/api/today", nil)
	words := today["lessons"].([]any)[0].(map[string]any)["home"].(map[string]any)["words"].(string)
	require.Regexp(t, `hard: “Slack Tide” bars 1–4, on six of six days; “Tar” not touched$`, words)
	_, lesson := l.call("GET", "/api/ladders/"+l.ladder+"/lesson", nil)
	require.Contains(t, l.read("/api/ladders/"+l.ladder+"/lesson"), words)
	require.NotEmpty(t, lesson)
	_, plan := l.call("GET", "/api/ladders/"+l.ladder+"/plan", nil)
	var why []string
	for _, s := range items(t, plan, "segments") {
		if s["kind"] == "working" {
			why = append(why, s["title"].(string)+": "+s["why"].(string))
		}
	}
	require.Equal(t, []string{
		"Slack Tide: bars 1–4 hard at home: hear it first; in work; 0 of 3 points secure", "Tar: not touched at home: ask about it; in work; 0 of 3 points secure",
	}, why)

	next := func() map[string]any {
		_, week := l.call("GET", "/api/ladders/"+l.ladder+"/week?day=2026-05-13", nil)
		return week
	}
	week = next()
	require.Equal(t, []string{"“Slack Tide” bars 1–4: hard on six of six days → first, in halves, a mark of the metronome slower"}, shows(week))
	first := itemsOf(daysOf(week)[0])
	require.Equal(t, "bars 1–2", first[0]["where"])
	_, sheet := l.call("GET", "/api/family/"+l.token, nil)
	require.NotEmpty(t, sheet)

	hand := map[string]any{"aside": []string{steps["1-4"]}}
	l.byHandFrom(l.ladder, week, hand)
	week = next()
	require.Equal(t, []string{"“Slack Tide” bars 1–4: hard on six of six days → does not count this week"}, shows(week))
	require.NotEqual(t, "bars 1–2", itemsOf(daysOf(week)[0])[0]["where"])

	way := someWay()
	for k, v := range map[string]any{"dose": "years", "doseRow": 3, "handShape": "hanging", "benchLean": "level", "rewards": true, "homeCounts": false} {
		way[k] = v
	}
	status, body = l.call("PUT", "/api/way?version=1", way)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Empty(t, shows(next()))
}

// shows is what a week says of home and what comes of it.
func shows(week map[string]any) (out []string) {
	for _, a := range week["home"].([]any) {
		a := a.(map[string]any)
		out = append(out, a["showed"].(string)+" → "+a["then"].(string))
	}
	return out
}

// A note about pain rests the piece that it names on the family's page and in the week to come, until the teacher has answered.
func TestWhatMayHurtRestsUntilTheAnswer(t *testing.T) {
	l := &loop{}
	l.user, l.ladder, l.turn = movable(t, slotOn(2, "15:30", 30, 1))
	l.at("2026-05-05 16:30") // Tuesday
	l.family = anyone(t)
	l.family.url = l.url
	piece := l.add("slack.abc", eightBars, 0)
	status, body := l.append(l.ladder, entry{"kind": "assigned", "material": piece, "at": l.now.Format(time.RFC3339)})
	require.Equal(t, http.StatusOK, status, body)
	week := l.publish("2026-05-06")
	later := func(answer map[string]any) []any { return answer["notYet"].([]any) }
	set := func(answer map[string]any) (n int) {
		for _, d := range daysOf(answer) {
			for _, it := range itemsOf(d) {
				if it["title"] == "Slack Tide" {
					n++
				}
			}
		}
		return n
	}
	at := func() (page, week map[string]any) {
		_, page = l.family.call("GET", "/api/family/"+l.token, nil)
		_, week = l.call("GET", "/api/ladders/"+l.ladder+"/week?day=2026-05-06", nil)
		return page, week
	}
	page, _ := at()
	all := set(page)
	require.Equal(t, set(week), all)
	require.Equal(t, []any{"“Slack Tide”: playing it up to speed"}, later(page))

	l.at("2026-05-08 18:00")
	status, body = l.family.call("POST", "/api/family/"+l.token+"/ticks", map[string]any{"ticks": []map[string]any{{
		"id": storetest.ID(), "at": l.now.Format(time.RFC3339), "kind": "ask", "text": "Her wrist hurts in Slack Tide. What shall we do?",
	}}})
	require.Equal(t, http.StatusOK, status, body)
	page, week = at()
	rests := "“Slack Tide”: rest it until your teacher has answered. Pain means stop."
	require.Equal(t, []any{"“Slack Tide”: playing it up to speed", rests}, later(page))
	require.Equal(t, 2, slices.IndexFunc(daysOf(page), func(d map[string]any) bool { return len(itemsOf(d)) == 0 }), "from Friday on")
	require.Equal(t, []any{rests}, later(week))
	require.Zero(t, set(week))
	require.Equal(t, true, week["changed"])

	note := l.list("/api/notes")[0]["id"].(string)
	status, body = l.call("PUT", "/api/notes/"+note, map[string]any{"answer": "Rest a day, then play it softly."})
	require.Less(t, status, 300, body)
	page, week = at()
	require.Equal(t, all, set(page))
	require.Equal(t, []any{"“Slack Tide”: playing it up to speed"}, later(week))
}
