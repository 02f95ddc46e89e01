package api_test

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/store"
	"patientladder/store/storetest"
)

// The owner invites a colleague and an assistant; an assistant sees and notes, and changes nothing else; who leaves is out.
func TestASchoolOfSeveral(t *testing.T) {
	s := newSchool(t)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	_, student := owner.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    storetest.ID(),
			"ladder":     storetest.ID(),
			"name":       "Nell",
			"born":       "2015-01-01",
			"instrument": "piano",
			"weekday":    1,
			"startsAt":   "10:00",
			"minutes":    30,
		},
	)
	_ = student
	ladder := owner.list("/api/students")[0]["ladder"].(string)
	join := func(name, role string) *user {
		email := storetest.ID() + "@example.org"
		status, told := owner.call("POST", "/api/account/people", map[string]any{"email": email, "name": name, "role": role})
		require.Equal(t, http.StatusOK, status, told)
		require.Regexp(t, `^https://ladder\.example/invitation#`, told["link"])
		u := s.browser()
		secret := s.letter(email)
		status, body := u.call("PUT", "/api/invitation", map[string]any{"token": secret, "password": "nine boats under slate"})
		require.Equal(t, http.StatusNoContent, status, body)
		status, _ = u.call("PUT", "/api/invitation", map[string]any{"token": secret, "password": "nine boats under slate"})
		require.Equal(t, http.StatusNotFound, status, "once")
		status, me := u.call("POST", "/api/session", map[string]string{"email": email, "password": "nine boats under slate"})
		require.Equal(t, http.StatusOK, status, me)
		require.Equal(t, []any{name, role}, []any{me["teacher"], me["role"]})
		return u
	}
	colleague, helper := join("Per Vik", "teacher"), join("Ida Holm", "assistant")
	status, body := colleague.call("POST", "/api/account/people", map[string]any{"email": "x@example.org", "name": "X", "role": "teacher"})
	require.Equal(t, http.StatusForbidden, status)
	require.Equal(t, "Only the owner of the studio may do this.", body["detail"])
	status, body = helper.append(ladder, entry{"kind": "note", "text": "sang along", "at": may4().Format(time.RFC3339)})
	require.Equal(t, http.StatusOK, status, body)
	for _, call := range [][2]string{{"POST", "/api/students"}, {"PUT", "/api/ladders/" + ladder + "/week"}, {"GET", "/api/library/export?format=json"}, {"PUT", "/api/words"}} {
		status, body := helper.call(call[0], call[1], map[string]any{})
		require.Equal(t, http.StatusForbidden, status, call)
		require.Equal(t, "An assistant sees and notes; this is for a teacher. Nothing was changed.", body["detail"])
	}
	_, a := owner.call("GET", "/api/account", nil)
	people := a["people"].([]any)
	require.Len(t, people, 3)
	ida := people[0].(map[string]any)
	require.Equal(t, "Ida Holm", ida["name"])
	status, _ = owner.call("PUT", "/api/account/people/"+ida["id"].(string), map[string]any{"role": "teacher"})
	require.Equal(t, http.StatusNoContent, status)
	status, _ = helper.call("GET", "/api/session", nil)
	require.Equal(t, http.StatusUnauthorized, status, "with another role one signs in again")
	status, _ = owner.call("DELETE", "/api/account/people/"+ida["id"].(string), nil)
	require.Equal(t, http.StatusNoContent, status)
	status, _ = owner.call("DELETE", "/api/account/people/"+ida["id"].(string), nil)
	require.Equal(t, http.StatusNotFound, status)
	me := people[1].(map[string]any)
	require.Equal(t, true, me["here"])
	status, _ = owner.call("DELETE", "/api/account/people/"+me["id"].(string), nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	_, a = owner.call("GET", "/api/account", nil)
	require.Equal(t, "4 May 15:30, Olga Berg ended an account.", a["done"].([]any)[0].(map[string]any)["name"])
}

// Every route of the contract as an assistant: what is seen is seen, what is noted is noted, and everything else is refused
// before it is read.
func TestEveryRouteAsAnAssistant(t *testing.T) {
	s := newSchool(t)
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	ctx, email, secret := context.Background(), storetest.ID()+"@example.org", storetest.ID()
	require.NoError(
		t,
		db.AddOnceLink(
			ctx,
			store.OnceLink{
				Token:  account.Hash(secret),
				Kind:   store.InviteLink,
				Studio: s.studio,
				Email:  email,
				Name:   "A",
				Role:   string(account.Assistant),
				Made:   may4(),
				Until:  may4().Add(time.Hour),
			},
		),
	)
	require.NoError(
		t,
		db.Accept(
			ctx,
			account.Hash(secret),
			store.Teacher{ID: storetest.ID(), StudioID: s.studio, Email: email, Name: "A", PasswordHash: hash, Role: string(account.Assistant)},
		),
	)
	u := s.browser()
	status, _ := u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
	require.Equal(t, http.StatusOK, status)
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	var free []string
	for path, item := range spec.Paths.Map() {
		for method := range item.Operations() {
			if strings.HasPrefix(path, "/family/") || strings.HasPrefix(path, "/teacher/") || path == "/recovery" || path == "/invitation" ||
				path == "/session" ||
				path == "/session/passkey" ||
				path == "/account/sessions" {
				continue // opened by a link, or by nobody's role
			}
			url := "/api" + regexp.MustCompile(`\{\w+\}`).ReplaceAllString(path, storetest.ID())
			res := u.raw(method, url, map[string]any{}, nil)
			res.Body.Close()
			if res.StatusCode != http.StatusForbidden && method != "GET" {
				free = append(free, method+" "+path)
			}
			if method == "GET" {
				require.Equal(t, strings.HasSuffix(path, "/export") || strings.HasSuffix(path, "/data"), res.StatusCode == http.StatusForbidden, path)
			}
		}
	}
	slices.Sort(free)
	require.Equal(t, []string{
		"DELETE /account/passkeys/{passkey}", "DELETE /account/sessions/{session}", "POST /account/passkeys", "POST /account/second",
		"POST /account/second/off", "POST /ladders/{ladder}/entries", "PUT /account/passkeys", "PUT /account/password", "PUT /account/second",
	}, free, "the own account, and notes; inviting and roles are refused by their handlers")
}

// Two teachers and an owner: each sees the own students; a student is handed over; a lesson is covered for a day and not
// longer; what is private stays with its teacher; who leaves gives the students back.
// join lets somebody join the school and sign in.
func (s *school) join(name string, role account.Role) (string, *user) {
	ctx := context.Background()
	hash, err := account.HashPassword(ropes)
	require.NoError(s.t, err)
	email, secret, id := storetest.ID()+"@example.org", storetest.ID(), storetest.ID()
	require.NoError(
		s.t,
		db.AddOnceLink(
			ctx,
			store.OnceLink{
				Token:  account.Hash(secret),
				Kind:   store.InviteLink,
				Studio: s.studio,
				Email:  email,
				Name:   name,
				Role:   string(role),
				Made:   may4(),
				Until:  may4().Add(time.Hour),
			},
		),
	)
	require.NoError(
		s.t,
		db.Accept(
			ctx,
			account.Hash(secret),
			store.Teacher{ID: id, StudioID: s.studio, Email: email, Name: name, PasswordHash: hash, Role: string(role)},
		),
	)
	u := s.browser()
	status, body := u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
	require.Equal(s.t, http.StatusOK, status, body)
	return id, u
}

// A teacher of a school has a way of teaching over the studio's, and pieces over the library's: what one changes for the own
// students changes nothing for a colleague's.
func TestATeacherHasAWayAndPiecesOfTheirOwn(t *testing.T) {
	s := newSchool(t)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	_, per := s.join("Per Vik", account.Teacher)
	add := func(u *user, name string) string {
		ladder := storetest.ID()
		status, body := u.call(
			"POST",
			"/api/students",
			map[string]any{
				"student":    storetest.ID(),
				"ladder":     ladder,
				"name":       name,
				"born":       "2015-01-01",
				"instrument": "piano",
				"weekday":    1,
				"startsAt":   "10:00",
				"minutes":    45,
			},
		)
		require.Equal(t, http.StatusCreated, status, body)
		return ladder
	}
	hers, his := add(owner, "Olga’s"), add(per, "Per’s")
	way := func(u *user, query string) map[string]any {
		status, body := u.call("GET", "/api/way"+query, nil)
		require.Equal(t, http.StatusOK, status, body)
		return body
	}
	share := func(u *user, query string) any { return way(u, query)["way"].(map[string]any)["reviewShare"] }
	usual := share(owner, "")
	mine := way(per, "?whose=mine")
	require.Equal(t, []any{}, mine["differs"])
	changed := mine["way"].(map[string]any)
	changed["reviewShare"] = 0.7
	status, tried := per.call("POST", "/api/way?whose=mine", changed)
	require.Equal(t, http.StatusOK, status, tried)
	require.Len(t, tried["switches"], 1)
	save := fmt.Sprintf("/api/way?whose=mine&version=%v", mine["version"])
	status, body := per.call("PUT", save, changed)
	require.Equal(t, http.StatusNoContent, status, body)
	status, _ = per.call("PUT", save, changed)
	require.Equal(t, http.StatusConflict, status, "a form that is out of date")
	require.Equal(
		t,
		[]any{0.7, 0.7, usual, usual},
		[]any{share(per, "?whose=mine"), share(per, "?ladder="+his), share(owner, ""), share(owner, "?ladder="+hers)},
	)
	require.Equal(t, []any{"reviewShare"}, way(per, "?whose=mine")["differs"])
	require.Equal(t, []any{}, way(per, "?ladder="+his)["differs"], "the student is taught as Per teaches")
	changed["reviewShare"] = usual
	status, body = per.call("PUT", fmt.Sprintf("/api/way?whose=mine&version=%v", way(per, "")["version"]), changed)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, usual, share(per, "?ladder="+his))

	piece, copied := storetest.ID(), storetest.ID()
	status, body = owner.call("POST", "/api/materials", scoreBody(piece, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	owner.overrule(piece, map[string]any{"kind": "finger", "part": 0, "staff": 1, "bars": []int{1}, "at": "0", "pitch": 60, "finger": "2"})
	for range 2 {
		status, body = per.call("POST", "/api/materials/"+piece+"/copy", map[string]any{"id": copied})
		require.Equal(t, http.StatusCreated, status, body)
		require.Equal(t, "Little Own Tune (Per Vik)", body["title"])
	}
	require.Equal(t, 1, strings.Count(per.read("/api/materials/"+copied+"/score"), "<fingering>2</fingering>"), "with what was set by hand")
	per.overrule(copied, map[string]any{"kind": "finger", "part": 0, "staff": 1, "bars": []int{1}, "at": "0", "pitch": 60, "finger": "3"})
	require.Equal(t, 1, strings.Count(owner.read("/api/materials/"+piece+"/score"), "<fingering>2</fingering>"), "the piece stays")
	require.Equal(t, 1, strings.Count(per.read("/api/materials/"+copied+"/score"), "<fingering>3</fingering>"))
}

func TestStudentsOfSeveralTeachers(t *testing.T) {
	s := newSchool(t)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	per, u1 := s.join("Per Vik", account.Teacher)
	ida, u2 := s.join("Ida Holm", account.Teacher)
	_, helper := s.join("Siv Lund", account.Assistant)
	add := func(u *user, name string) (string, string) {
		student, ladder := storetest.ID(), storetest.ID()
		status, body := u.call(
			"POST",
			"/api/students",
			map[string]any{
				"student":    student,
				"ladder":     ladder,
				"name":       name,
				"born":       "2015-01-01",
				"instrument": "piano",
				"weekday":    1,
				"startsAt":   "10:00",
				"minutes":    45,
			},
		)
		require.Equal(t, http.StatusCreated, status, body)
		return student, ladder
	}
	hers, hersLadder := add(owner, "Olga’s")
	his, hisLadder := add(u1, "Per’s")
	today := func(u *user) (out []string) {
		status, body := u.call("GET", "/api/today", nil)
		require.Equal(t, http.StatusOK, status)
		for _, x := range body["lessons"].([]any) {
			out = append(out, x.(map[string]any)["student"].(map[string]any)["name"].(string))
		}
		return out
	}
	opens := func(u *user, student, ladder string) []int {
		var out []int
		for _, path := range []string{"/api/students/" + student, "/api/ladders/" + ladder + "/lesson", "/api/ladders/" + ladder + "/entries", "/api/ladders/" + ladder + "/plan", "/api/students/" + student + "/data"} {
			res := u.raw("GET", path, nil, nil)
			res.Body.Close()
			out = append(out, res.StatusCode)
		}
		return out
	}
	all, none := []int{200, 200, 200, 200, 200}, []int{404, 404, 404, 404, 404}
	require.Equal(t, all, opens(owner, his, hisLadder), "an owner may open all")
	require.Equal(t, all, opens(u1, his, hisLadder))
	require.Equal(t, none, opens(u1, hers, hersLadder))
	require.Equal(t, none, opens(u2, his, hisLadder))
	require.Equal(t, []int{200, 200, 200, 200, 403}, opens(helper, his, hisLadder), "an assistant sees all and takes nothing out")
	require.Equal(t, []string{"Olga’s"}, today(owner))
	require.Equal(t, []string{"Per’s"}, today(u1))
	require.Empty(t, today(u2))
	require.ElementsMatch(t, []string{"Olga’s", "Per’s"}, today(helper))

	// Private notes are for the own teacher, and stay when somebody else saves the page.
	status, _ := u1.call("GET", "/api/students/"+his, nil)
	require.Equal(t, http.StatusOK, status)
	save := func(u *user, notes string) {
		status, page := u.call("GET", "/api/students/"+his, nil)
		require.Equal(t, http.StatusOK, status)
		if notes == "" {
			notes = page["notes"].(string)
		}
		status, body := u.call(
			"PATCH",
			"/api/students/"+his,
			map[string]any{
				"name":      "Per’s",
				"called":    "",
				"born":      "2015-01-01",
				"bornAbout": false,
				"notes":     notes,
				"contacts":  []any{},
				"version":   page["version"],
			},
		)
		require.Equal(t, http.StatusNoContent, status, body)
	}
	save(u1, "for Per only")
	_, page := owner.call("GET", "/api/students/"+his, nil)
	require.Equal(t, []any{"", true}, []any{page["notes"], page["notesElsewhere"]})
	save(owner, "")
	_, page = u1.call("GET", "/api/students/"+his, nil)
	require.Equal(t, "for Per only", page["notes"])

	give := func(u *user, ladder, to, day string) (int, any) {
		as := map[string]any{"teacher": to}
		if day != "" {
			as["day"] = day
		}
		status, body := u.call("PUT", "/api/ladders/"+ladder+"/teacher", as)
		return status, body["detail"]
	}
	status, _ = give(u2, hisLadder, ida, "")
	require.Equal(t, http.StatusNotFound, status)
	status, detail := give(u1, hisLadder, storetest.ID(), "")
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "Nobody of this studio who teaches was named. Nothing was changed.", detail)
	// Covered today: Ida sees and notes, and hands nothing over; tomorrow it is Per's alone again.
	status, _ = give(u1, hisLadder, ida, "2026-05-04")
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, all, opens(u2, his, hisLadder))
	require.Equal(t, []string{"Per’s"}, today(u2))
	status, _ = give(u2, hisLadder, ida, "")
	require.Equal(t, http.StatusForbidden, status)
	status, body := u2.append(hisLadder, entry{"kind": "note", "text": "for Per", "at": may4().Format(time.RFC3339)})
	require.Equal(t, http.StatusOK, status, body)
	_, page = u1.call("GET", "/api/students/"+his, nil)
	line := page["ladders"].([]any)[0].(map[string]any)
	require.Equal(t, []any{map[string]any{"id": "2026-05-04", "name": "Monday, 4 May: Ida Holm"}}, line["covers"])
	require.Equal(t, per, line["teacher"])
	require.Len(t, page["colleagues"], 2)
	s.later(24 * time.Hour)
	require.Equal(t, none, opens(u2, his, hisLadder))
	require.Empty(t, today(u2))

	// Handed over by the owner, for good; who leaves gives the students back.
	status, _ = give(owner, hisLadder, ida, "")
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, none, opens(u1, his, hisLadder))
	require.Equal(t, all, opens(u2, his, hisLadder))
	_, a := owner.call("GET", "/api/account", nil)
	var load []string
	for _, p := range a["people"].([]any) {
		load = append(load, p.(map[string]any)["name"].(string)+": "+p.(map[string]any)["load"].(string))
	}
	require.Equal(
		t,
		[]string{"Ida Holm: 1 student, 45 minutes a week", "Olga Berg: 1 student, 45 minutes a week", "Per Vik: ", "Siv Lund: "},
		load,
	)
	status, _ = owner.call("DELETE", "/api/account/people/"+ida, nil)
	require.Equal(t, http.StatusNoContent, status)
	s.later(6 * 24 * time.Hour)
	require.ElementsMatch(t, []string{"Olga’s", "Per’s"}, today(owner))
}

// Every route about a student, as a colleague of the same studio: not found, whichever handler it is for.
func TestEveryRouteAsAColleague(t *testing.T) {
	s := newSchool(t)
	ctx := context.Background()
	hash, err := account.HashPassword(ropes)
	require.NoError(t, err)
	owner := s.browser()
	s.signIn(owner, "203.0.113.5", ropes)
	student, ladder := storetest.ID(), storetest.ID()
	status, body := owner.call(
		"POST",
		"/api/students",
		map[string]any{
			"student":    student,
			"ladder":     ladder,
			"name":       "Nell",
			"born":       "2015-01-01",
			"instrument": "piano",
			"weekday":    1,
			"startsAt":   "10:00",
			"minutes":    45,
		},
	)
	require.Equal(t, http.StatusCreated, status, body)
	email, secret := storetest.ID()+"@example.org", storetest.ID()
	require.NoError(
		t,
		db.AddOnceLink(
			ctx,
			store.OnceLink{
				Token:  account.Hash(secret),
				Kind:   store.InviteLink,
				Studio: s.studio,
				Email:  email,
				Name:   "P",
				Role:   string(account.Teacher),
				Made:   may4(),
				Until:  may4().Add(time.Hour),
			},
		),
	)
	require.NoError(
		t,
		db.Accept(
			ctx,
			account.Hash(secret),
			store.Teacher{ID: storetest.ID(), StudioID: s.studio, Email: email, Name: "P", PasswordHash: hash, Role: string(account.Teacher)},
		),
	)
	u := s.browser()
	status, _ = u.call("POST", "/api/session", map[string]string{"email": email, "password": ropes})
	require.Equal(t, http.StatusOK, status)
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	walked := 0
	for path, item := range spec.Paths.Map() {
		if !strings.Contains(path, "{ladder}") && !strings.Contains(path, "{student}") || strings.HasPrefix(path, "/family/") {
			continue
		}
		for method := range item.Operations() {
			walked++
			url := "/api" + regexp.MustCompile(`\{\w+\}`).
				ReplaceAllString(strings.NewReplacer("{ladder}", ladder, "{student}", student).Replace(path), storetest.ID())
			res := u.raw(method, url, map[string]any{}, nil)
			data, err := io.ReadAll(res.Body)
			require.NoError(t, err)
			res.Body.Close()
			require.Equal(t, http.StatusNotFound, res.StatusCode, "%s %s: %s", method, path, data)
			require.NotContains(t, string(data), "Nell")
		}
	}
	require.Greater(t, walked, 60)
}
