package api_test

import (
	"fmt"
	"net/http"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/store/storetest"
)

// The mailbox shows what is written to the families of one's own students, and nothing of a colleague's.
func TestAMailboxHoldsOnesOwnFamilies(t *testing.T) {
	s := newSchool(t)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	_, per := s.join("Per Vik", account.Teacher)
	_, ida := s.join("Ida Holm", account.Teacher)
	published := func(u *user, name string) {
		ladder := storetest.ID()
		status, body := u.call("POST", "/api/students", map[string]any{
			"student": storetest.ID(), "ladder": ladder, "name": name, "born": "2015-01-01", "instrument": "piano", "weekday": 0,
			"startsAt": "10:00", "minutes": 45,
		})
		require.Equal(t, http.StatusCreated, status, body)
		status, body = u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": name + "@harbour.example"})
		require.Equal(t, http.StatusOK, status, body)
		u.publishFor(t, ladder)
	}
	published(per, "nell")
	published(ida, "bo")
	to := func(u *user) (out []string) {
		for _, m := range u.list("/api/messages") {
			out = append(out, m["to"].(string))
		}
		return out
	}
	require.Equal(t, []string{"nell@harbour.example"}, to(per))
	require.Equal(t, []string{"bo@harbour.example"}, to(ida))
	require.Empty(t, to(owner), "nor does the owner read along")
}

// A link that has expired opens nothing and is not shown to the teacher as one that does; on its last day it opens.
func TestALinkExpires(t *testing.T) {
	u, ladder, day := movable(t)
	phone := u.publishFor(t, ladder)
	status, way := u.call("POST", "/api/ladders/"+ladder+"/family/link", map[string]any{"days": 2})
	require.Equal(t, http.StatusOK, status, way)
	status, _ = phone.call("GET", "/api/family/"+phone.token, nil)
	require.Equal(t, http.StatusNotFound, status, "a new link shuts the old one")
	phone.token = way["link"].(string)[len("/home/"):]
	link := func() any {
		_, week := u.call("GET", "/api/ladders/"+ladder+"/week?day=2026-05-04", nil)
		return week["family"].(map[string]any)["link"]
	}
	opens := func() int {
		status, _ := phone.call("GET", "/api/family/"+phone.token, nil)
		return status
	}
	for _, x := range []struct {
		at     string
		status int
		shown  bool
	}{{"2026-05-04 15:31", 200, true}, {"2026-05-06 23:59", 200, true}, {"2026-05-07 00:01", 404, false}} {
		day(x.at)
		require.Equal(t, x.status, opens(), x.at)
		require.Equal(t, x.shown, link() == "/home/"+phone.token, x.at)
	}
}

// What was practised on a day needs no reminder on it; the other days keep theirs.
func TestATickTakesItsReminderAway(t *testing.T) {
	u, ladder, day := movable(t)
	status, body := u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": "family@harbour.example"})
	require.Equal(t, http.StatusOK, status, body)
	id := u.add("tar.abc", threeTunes, 0)
	status, body = u.append(ladder, entry{"kind": "assigned", "material": id})
	require.Equal(t, http.StatusOK, status, body)
	phone := u.publishFor(t, ladder)
	status, body = phone.call("PUT", "/api/family/"+phone.token+"/wishes", map[string]any{"language": "en", "mail": "digest", "remind": true})
	require.Equal(t, http.StatusNoContent, status, body)
	u.publishFor(t, ladder)
	reminders := func() (out []string) {
		for _, m := range u.list("/api/messages") {
			if s := m["subject"].(string); s == "Nell: practice today" {
				out = append(out, m["id"].(string))
			}
		}
		return out
	}
	before := reminders()
	require.Len(t, before, 5, "Tuesday to Saturday")
	day("2026-05-05 09:00")
	tuesday := items(t, phone.page(), "days")[1]
	require.Equal(t, "2026-05-05", tuesday["date"])
	status, body = phone.send(map[string]any{"kind": "done", "day": tuesday["date"], "item": itemsOf(tuesday)[0]["key"], "at": "2026-05-05T08:50:00Z"})
	require.Equal(t, http.StatusOK, status, body)
	after := reminders()
	require.Len(t, after, 4)
	require.Subset(t, before, after)
}

// movable is a student of a new studio, with a lesson on Sundays where no slot is given, on a clock that the test moves.
func movable(t *testing.T, slots ...any) (u *user, ladder string, day func(text string)) {
	if len(slots) == 0 {
		slots = []any{slotOn(0, "15:30", 30, 1)}
	}
	var at atomic.Pointer[time.Time]
	day = func(text string) {
		now, err := time.Parse("2006-01-02 15:04", text)
		require.NoError(t, err)
		at.Store(&now)
	}
	day("2026-05-04 15:30")
	u = newcomerAt(t, func() time.Time { return *at.Load() })
	ladder = storetest.ID()
	status, body := u.call("POST", "/api/students", map[string]any{
		"student": storetest.ID(), "ladder": ladder, "name": "Nell Farrow", "born": "2017-02-03", "instrument": "piano",
		"slots": slots,
	})
	require.Equal(t, http.StatusCreated, status, body)
	return u, ladder, day
}

// How a student reads is the student's own: it is kept beside the way, and the piece is opened with it.
func TestAStudentsOwnApproachIsKept(t *testing.T) {
	u, _, phone := athome(t, "")
	_, way := u.call("GET", "/api/way?ladder="+phone.ladder, nil)
	own := way["way"].(map[string]any)
	require.Equal(t, "direction", own["approach"])
	own["approach"] = "names"
	status, body := u.call("PUT", "/api/way?ladder="+phone.ladder+"&version="+fmt.Sprint(way["version"]), own)
	require.Equal(t, http.StatusNoContent, status, body)
	_, way = u.call("GET", "/api/way?ladder="+phone.ladder, nil)
	require.Equal(t, "names", way["way"].(map[string]any)["approach"])
	require.Equal(t, []any{"approach"}, way["differs"])
	_, studio := u.call("GET", "/api/way", nil)
	require.Equal(t, "direction", studio["way"].(map[string]any)["approach"], "the studio's stays")
	piece := u.materialOf("Tar")
	require.Equal(t, "names", u.piece(piece, "?ladder="+phone.ladder)["approach"])
}
