package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"io"
	"maps"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/app"
	"patientladder/store/dump"
	"patientladder/store/storetest"
)

// A family asks for everything about a child, then for its deletion: a day to regret, then it is gone from every table.
func TestEverythingAboutAChild(t *testing.T) {
	ctx := context.Background()
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	child := func(name string) (string, string) {
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
				"minutes":    30,
			},
		)
		require.Equal(t, http.StatusCreated, status, body)
		return student, ladder
	}
	student, ladder := child("Nell Ferrisby")
	other, otherLadder := child("Tom Ferrisby")
	piece := storetest.ID()
	status, body := u.call("POST", "/api/materials", scoreBody(piece, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	for _, l := range []string{ladder, otherLadder} {
		status, body = u.append(
			l,
			entry{"kind": "assigned", "material": piece, "at": may4().Add(-time.Hour).Format(time.RFC3339)},
			entry{"kind": "note", "text": "a secret of " + l, "at": may4().Format(time.RFC3339)},
		)
		require.Equal(t, http.StatusOK, status, body)
	}
	res := u.raw("GET", "/api/students/"+student+"/data", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode, "%s", data)
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	require.Len(t, names, 2)
	require.Equal(t, "student.json", names[0])
	require.Regexp(t, `^scores/.+ \w{4}\.musicxml$`, names[1])
	f, err := z.Open("student.json")
	require.NoError(t, err)
	var doc struct {
		Format string
		Tables map[string][]map[string]any
	}
	text, err := io.ReadAll(f)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &doc))
	require.Equal(t, "patient-ladder student", doc.Format)
	schema, err := jsonschema.NewCompiler().Compile("../docs/student.schema.json")
	require.NoError(t, err)
	whole, err := jsonschema.UnmarshalJSON(bytes.NewReader(text))
	require.NoError(t, err)
	require.NoError(t, schema.Validate(whole))
	require.Equal(t, "Nell Ferrisby", doc.Tables["student"][0]["name"])
	require.Len(t, doc.Tables["entry"], 2)
	require.NotContains(t, string(text), "Tom")

	erased := func() any {
		_, page := u.call("GET", "/api/students/"+student, nil)
		return page["erased"]
	}
	require.Nil(t, erased())
	says := "On 5 May at 15:30 everything about Nell is deleted for good: lessons, weeks, reports, messages and contacts. What stays are counts without a name."
	status, told := u.call("DELETE", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, says, told["words"])
	require.Equal(t, says, erased())
	going := func() any {
		_, me := u.call("GET", "/api/session", nil)
		return me["going"]
	}
	require.Equal(t, []any{map[string]any{"ladder": ladder, "student": student, "words": says}}, going(), "every page can say it")
	_, kim := s.join("Kim Vik", account.Teacher)
	_, colleague := kim.call("GET", "/api/session", nil)
	require.Nil(t, colleague["going"], "who does not teach them is not told")
	status, _ = u.call("PUT", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Nil(t, erased())
	require.Nil(t, going())
	s.later(25 * time.Hour)
	sweep := func() int {
		n, err := db.Sweep(ctx, s.clock(), app.Regret)
		require.NoError(t, err)
		return n
	}
	require.Zero(t, sweep(), "it was taken back")
	u.call("DELETE", "/api/students/"+student+"/data", nil)
	require.Zero(t, sweep(), "a day to regret")
	s.later(25 * time.Hour)
	require.Equal(t, 1, sweep())
	for _, path := range []string{"/api/students/" + student, "/api/ladders/" + ladder + "/entries", "/api/ladders/" + ladder + "/lesson", "/api/ladders/" + ladder + "/plan", "/api/students/" + student + "/data"} {
		status, _ = u.call("GET", path, nil)
		require.Equal(t, http.StatusNotFound, status, path)
	}
	var all bytes.Buffer
	_, err = db.Backup(ctx, &all, may4())
	require.NoError(t, err)
	for _, left := range []string{"Nell Ferrisby", student, ladder} {
		require.NotContains(t, all.String(), left)
	}
	require.Contains(t, all.String(), "Tom Ferrisby")
	status, _ = u.call("GET", "/api/students/"+other, nil)
	require.Equal(t, http.StatusOK, status)
	require.Len(t, u.list("/api/ladders/"+otherLadder+"/entries"), 2)
	_, a := u.call("GET", "/api/account", nil)
	require.Equal(t, "6 May 17:30, A student was erased.", a["done"].([]any)[0].(map[string]any)["name"])

	// Who left longer ago than the studio keeps data is marked, and goes a day later; for ever is for ever.
	status, _ = u.call("PUT", "/api/students/"+other+"/left", map[string]any{"from": "2026-05-05"})
	require.Equal(t, http.StatusNoContent, status)
	set := func(years int) {
		status, body := u.call(
			"PUT",
			"/api/account/studio",
			map[string]any{"name": "School", "timezone": "Europe/Lisbon", "keepYears": years, "language": "en", "firstDay": 1, "letterhead": ""},
		)
		require.Equal(t, http.StatusNoContent, status, body)
	}
	set(0)
	s.later(3 * 366 * 24 * time.Hour)
	require.Zero(t, sweep())
	s.later(25 * time.Hour)
	require.Zero(t, sweep())
	set(2)
	require.Zero(t, sweep())
	s.later(25 * time.Hour)
	require.Equal(t, 1, sweep())
}

// The owner changes the studio and takes all of it out; nobody else does.
func TestTheStudioItself(t *testing.T) {
	s := newSchool(t)
	u := s.browser()
	s.signIn(u, "203.0.113.5", ropes)
	settings := map[string]any{
		"name":       " School by the sea ",
		"timezone":   "Asia/Tokyo",
		"keepYears":  5,
		"language":   "de",
		"firstDay":   0,
		"letterhead": " Quay 4 \n\nGullhaven ",
	}
	put := func(change map[string]any) (int, map[string]any) {
		body := maps.Clone(settings)
		maps.Copy(body, change)
		return u.call("PUT", "/api/account/studio", body)
	}
	for says, change := range map[string]map[string]any{
		"“Mars/Base” is not a time zone such as Europe/Lisbon. Nothing was changed.": {"timezone": "Mars/Base"},
		"There are no texts for families in that language. Nothing was changed.":     {"language": "xx"},
		"The letterhead has 5 lines; at most 4 fit.":                                 {"letterhead": "a\nb\nc\nd\ne"},
	} {
		status, body := put(change)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Equal(t, says, body["detail"])
	}
	status, body := put(nil)
	require.Equal(t, http.StatusNoContent, status, body)
	_, me := u.call("GET", "/api/session", nil)
	require.Equal(
		t,
		[]any{"School by the sea", "Asia/Tokyo", "2026-05-05", 0.0},
		[]any{me["studio"], me["timezone"], me["today"], me["firstDay"]},
	)
	_, a := u.call("GET", "/api/account", nil)
	require.Equal(t, map[string]any{
		"name": "School by the sea", "timezone": "Asia/Tokyo", "keepYears": 5.0, "language": "de", "firstDay": 0.0,
		"letterhead": "Quay 4\nGullhaven", "quietFrom": 1200.0, "quietTo": 420.0,
		"languages": []any{map[string]any{"id": "en", "name": "English"}, map[string]any{"id": "de", "name": "Deutsch"}},
	}, a["studio"])
	quiet := func() []any {
		_, a := u.call("GET", "/api/account", nil)
		set := a["studio"].(map[string]any)
		return []any{set["quietFrom"], set["quietTo"]}
	}
	status, _ = put(map[string]any{"quietFrom": 1290, "quietTo": 540})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, []any{1290.0, 540.0}, quiet())
	status, _ = put(nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, []any{1290.0, 540.0}, quiet(), "a page of before does not know them")
	status, _ = put(map[string]any{"quietFrom": 1440, "quietTo": 540})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	text := u.read("/api/account/studio/export")
	h, err := dump.Check(strings.NewReader(text))
	require.NoError(t, err)
	require.Equal(t, s.studio, h.Studio)
	require.Contains(t, text, "School by the sea")
	require.NotContains(t, text, "argon2id")
}

// From the moment at which a deletion is asked for the family's link opens nothing, and again when it is taken back; titles
// with the name in them are pointed out before.
func TestTheDayOfRegret(t *testing.T) {
	u, student, ladder := settled(t, slotOn(3, "15:30", 30, 1))
	u.titled("piano", "Nell’s waltz", "Fog")
	_, page := u.call("GET", "/api/students/"+student, nil)
	require.Equal(t, []any{"Nell’s waltz"}, page["namedIn"])
	status, way := u.call("POST", "/api/ladders/"+ladder+"/family/link", map[string]any{"days": 30})
	require.Equal(t, http.StatusOK, status, way)
	token := strings.TrimPrefix(way["link"].(string), "/home/")
	family := anyone(t)
	family.url = u.url
	opens := func() []int {
		var out []int
		for _, path := range []string{"", "/sheet", "/calendar"} {
			res := family.raw("GET", "/api/family/"+token+path, nil, nil)
			res.Body.Close()
			out = append(out, res.StatusCode)
		}
		return out
	}
	before := opens()
	require.Equal(t, 200, before[0])
	require.Equal(t, 200, before[2])
	status, _ = u.call("DELETE", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, []int{404, 404, 404}, opens())
	status, _ = u.call("PUT", "/api/students/"+student+"/data", nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, before, opens())
}
