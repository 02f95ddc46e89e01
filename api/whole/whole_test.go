// Package whole_test lets the database fail at each statement of each call that writes, in turn: all of it is kept, or nothing.
package whole_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"maps"
	"net/http"
	"os"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/pagetest"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

var (
	db     *store.Store
	faults storetest.Faults
	url    string
	client *http.Client
)

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(s *store.Store) {
		db = s
		must := func(err error) {
			if err != nil {
				panic(err)
			}
		}
		ctx := context.Background()
		hash, err := account.HashPassword(demo.Password)
		must(err)
		must(demo.Make(ctx, db, demo.Options{Day: clock.Day(pagetest.Monday(), "UTC"), Timezone: "UTC", PasswordHash: hash, Seed: 7}))
		through, err := faults.Open(ctx)
		must(err)
		url, err = pagetest.Serve(through)
		must(err)
		client, err = pagetest.SignIn(url, demo.Email)
		must(err)
	}))
}

func call(t *testing.T, method, path string, body any) (int, []byte) {
	t.Helper()
	var in io.Reader
	kind := "application/json"
	switch b := body.(type) {
	case nil:
	case string:
		in, kind = strings.NewReader(b), "text/calendar"
	default:
		data, err := json.Marshal(body)
		require.NoError(t, err)
		in = bytes.NewReader(data)
	}
	req, err := http.NewRequest(method, url+"/api"+path, in)
	require.NoError(t, err)
	req.Header.Set("Content-Type", kind)
	res, err := client.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return res.StatusCode, data
}

func get(t *testing.T, path string) (out map[string]any) {
	t.Helper()
	status, data := call(t, "GET", path, nil)
	require.Equal(t, http.StatusOK, status, "%s: %s", path, data)
	require.NoError(t, json.Unmarshal(data, &out))
	return out
}

func list(t *testing.T, path string) (out []map[string]any) {
	t.Helper()
	status, data := call(t, "GET", path, nil)
	require.Equal(t, http.StatusOK, status, "%s: %s", path, data)
	require.NoError(t, json.Unmarshal(data, &out))
	return out
}

// most is how many statements a call may send until it is taken to go on for ever.
const most = 400

// whole sends a call again and again, with one statement failing later each time, until none failed.
func whole(t *testing.T, method, path string, body any) map[string]any {
	t.Helper()
	ctx := context.Background()
	for n := 1; n < most; n++ {
		before, err := storetest.Sums(ctx, db)
		require.NoError(t, err)
		faults.Fail(n)
		status, data := call(t, method, path, body)
		failed := faults.Failed()
		faults.Fail(0)
		if failed == "" {
			require.Less(t, status, 300, "%s %s: %s", method, path, data)
			require.Greater(t, n, 1, "%s %s writes", method, path)
			var out map[string]any
			json.Unmarshal(data, &out)
			return out
		}
		require.GreaterOrEqual(t, status, 500, "%s %s said that it was done, though this failed: %s", method, path, failed)
		after, err := storetest.Sums(ctx, db)
		require.NoError(t, err)
		for table, sum := range after {
			require.Equal(t, before[table], sum, "%s %s failed at its statement %d and left something in %s: %s", method, path, n, table, failed)
		}
	}
	require.Fail(t, "a call without an end", "%s %s", method, path)
	return nil
}

// alone are calls that write nothing of a studio, whose failed tries count on purpose, or that are one statement and end what makes the others possible.
var alone = map[string]string{
	"POST /session": "tries are counted", "DELETE /session": "one statement", "POST /session/passkey": "a challenge",
	"PUT /session/passkey": "tries are counted", "POST /recovery": "tries are counted",
	"PUT /recovery": "tries are counted", "PUT /invitation": "tries are counted", "POST /account/passkeys": "a challenge",
	"PUT /account/passkeys":    "needs a device; TestAPasskey",
	"POST /account/second":     "writes nothing",
	"DELETE /account/sessions": "one statement", "DELETE /account/sessions/{session}": "one statement",
	"POST /programme": "writes nothing", "POST /programme/{format}": "writes nothing", "POST /ladders/{ladder}/known/match": "writes nothing",
	"POST /way": "writes nothing", "POST /ladders/{ladder}/targets": "writes nothing", "POST /library/table": "writes nothing",
	"POST /ladders/{ladder}/setup": "writes nothing", "POST /scores/read": "writes nothing", "POST /scores/typed": "writes nothing",
	"POST /messages/{message}/again": "one statement, of a letter that failed",
}

const tune = `<?xml version="1.0"?><score-partwise version="4.0"><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><clef><sign>G</sign><line>2</line></clef></attributes><note><pitch><step>C</step><octave>4</octave></pitch><duration>2</duration><type>half</type></note><note><pitch><step>E</step><octave>4</octave></pitch><duration>2</duration><type>half</type></note></measure></part></score-partwise>`

func TestEveryWriteIsAllOrNothing(t *testing.T) {
	done := map[string]bool{}
	var names *strings.Replacer
	do := func(call string, body any) map[string]any {
		t.Helper()
		done[strings.Split(call, "?")[0]] = true
		method, path, _ := strings.Cut(call, " ")
		return whole(t, method, names.Replace(path), body)
	}
	id := storetest.ID
	var ladder, student, other, otherStudent string
	for _, s := range list(t, "/students") {
		switch {
		case strings.HasPrefix(s["name"].(string), "Maren"):
			ladder, student = s["ladder"].(string), s["student"].(string)
		case s["weekday"] != 1.0 && other == "": // today is a day of practice
			other, otherStudent = s["ladder"].(string), s["student"].(string)
		}
	}
	book := get(t, "/library?instrument=piano")["books"].([]any)[0].(map[string]any)["id"].(string)
	material, spare, merged, added := id(), id(), id(), id()
	pause, holiday, target, treat, report, batch := id(), id(), id(), id(), id(), id()
	person, theirLadder := id(), id()
	named := func(more ...string) {
		names = strings.NewReplacer(
			append(
				more,
				"{ladder}",
				ladder,
				"{student}",
				student,
				"{material}",
				material,
				"{pause}",
				pause,
				"{holiday}",
				holiday,
				"{treat}",
				treat,
				"{report}",
				report,
				"{source}",
				book,
				"{batch}",
				batch,
			)...)
	}
	named()
	score := func(id, title string) map[string]any {
		return map[string]any{
			"id":         id,
			"title":      title,
			"instrument": "piano",
			"strand":     "repertoire",
			"fileName":   "x.musicxml",
			"score":      []byte(tune),
		}
	}

	// People and dates.
	do(
		"POST /students",
		map[string]any{
			"student":    person,
			"ladder":     theirLadder,
			"name":       "Nell Whole",
			"born":       "2015-01-01",
			"instrument": "piano",
			"source":     book,
			"weekday":    1,
			"startsAt":   "10:00",
			"minutes":    30,
		},
	)
	do(
		"PATCH /students/{student}",
		map[string]any{
			"name":      "Maren W",
			"called":    "",
			"born":      "2015-01-01",
			"bornAbout": false,
			"notes":     "x",
			"contacts":  []any{map[string]any{"id": id(), "name": "A", "relation": "", "email": "a@example.org", "messages": true, "named": ""}},
			"version":   get(t, "/students/"+student)["version"],
		},
	)
	do(
		"POST /students/{student}/ladders",
		map[string]any{
			"ladder":     id(),
			"instrument": "ukulele",
			"from":       "2026-05-04",
			"slots":      []any{map[string]any{"id": id(), "weekday": 2, "startsAt": "10:00", "minutes": 30, "every": 1}},
		},
	)
	do("PUT /students/{student}/pauses/{pause}", map[string]any{"first": "2026-07-04", "last": "2026-07-20"})
	do("DELETE /students/{student}/pauses/{pause}", nil)
	do("PUT /students/{student}/left", map[string]any{"from": "2026-09-04"})
	do("DELETE /students/{student}/left", nil)
	do("PUT /ladders/{ladder}/ended", map[string]any{"from": "2026-09-04"})
	do("DELETE /ladders/{ladder}/ended", nil)
	do(
		"PUT /ladders/{ladder}/slots",
		map[string]any{
			"from": "2026-06-01",
			"slots": []any{
				map[string]any{"id": id(), "weekday": 2, "startsAt": "10:00", "minutes": 30, "every": 1},
				map[string]any{"id": id(), "weekday": 4, "startsAt": "11:00", "minutes": 30, "every": 1},
			},
		},
	)
	var lesson string
	for _, d := range get(t, "/calendar?from=2026-05-04&days=14")["days"].([]any) {
		for _, l := range d.(map[string]any)["lessons"].([]any) {
			if x := l.(map[string]any); x["ladder"] == ladder {
				lesson = x["lesson"].(string)
			}
		}
	}
	named("{lesson}", lesson)
	do("PUT /ladders/{ladder}/lessons/{lesson}", map[string]any{"what": "cancel", "by": "student"})
	do("PUT /holidays/{holiday}", map[string]any{"name": "Spring", "first": "2030-05-01", "last": "2030-05-03"})
	do("DELETE /holidays/{holiday}", nil)
	do("POST /holidays/import", "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n"+
		"BEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20260701\r\nDTEND;VALUE=DATE:20260705\r\nSUMMARY:Summer\r\nEND:VEVENT\r\n"+
		"BEGIN:VEVENT\r\nUID:2\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261001\r\nDTEND;VALUE=DATE:20261005\r\nSUMMARY:Autumn\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")
	do("POST /calendar/link", nil)
	do("DELETE /calendar/link", nil)
	do("PUT /ladders/{ladder}/teacher", map[string]any{"teacher": ""})

	// The library.
	do("POST /materials", score(material, "Whole tune"))
	for _, x := range []string{spare, merged} {
		status, data := call(t, "POST", "/materials", score(x, "Tune "+x))
		require.Equal(t, http.StatusCreated, status, "%s", data)
	}
	do("PATCH /materials/{material}", map[string]any{"title": "Whole", "composer": "", "focusPoints": []string{"pulse", "tone"}})
	do("PUT /materials/{material}/score", map[string]any{"fileName": "y.musicxml", "score": []byte(tune), "instrument": "piano", "piece": 0})
	do("PUT /materials/{material}/overrulings", map[string]any{"kind": "tempo", "tempo": 70})
	do("POST /materials/{material}/copy", map[string]any{"id": added})
	do(
		"PUT /materials/{material}/sections",
		map[string]any{"sections": []any{map[string]any{"id": id(), "title": "a"}, map[string]any{"id": id(), "title": "b"}}},
	)
	do("DELETE /materials/{material}/sections", nil)
	do("POST /materials/{material}/ladders", map[string]any{"ladders": []any{ladder, theirLadder}})
	named("{material}", merged)
	do("POST /materials/{material}/merge", map[string]any{"into": spare})
	named("{material}", added)
	do("DELETE /materials/{material}", nil)
	named()
	do("PATCH /library/books/{source}", map[string]any{"title": "Mine"})
	do("PUT /library/books/{source}/requirements", map[string]any{"skills": []string{"rests"}})
	do("DELETE /library/books/{source}/requirements", nil)
	imported := id()
	do(
		"POST /library/import",
		map[string]any{
			"kind":       "csv",
			"data":       []byte("title\nFirst\nSecond\n"),
			"title":      "Short book",
			"source":     imported,
			"instrument": "piano",
			"fields":     []string{"title"},
			"try":        false,
		},
	)
	do("PUT /ladders/{ladder}/books/{source}", nil)
	named("{source}", imported)
	do("DELETE /library/books/{source}", nil)
	named("{activity}", "juggling", "{type}", "five-finger")
	do("PUT /activities/{activity}", map[string]any{"name": "X", "from": 3, "to": 6, "options": []string{"x"}, "home": "", "off": false})
	do("DELETE /activities/{activity}", nil)
	do(
		"PUT /meeting-activities/{activity}",
		map[string]any{
			"name":    "X",
			"say":     "Y",
			"minutes": 3,
			"from":    3,
			"to":      6,
			"part":    "tune",
			"family":  "",
			"shows":   "",
			"home":    "",
			"off":     false,
		},
	)
	do("DELETE /meeting-activities/{activity}", nil)
	_, types := call(t, "GET", "/exercise-types", nil)
	require.Contains(t, string(types), "five-finger")
	do("PUT /exercise-types/{type}", map[string]any{"steps": []any{}, "faults": []any{}})
	do("DELETE /exercise-types/{type}", nil)

	named("{skill}", "rests")
	do("PUT /skills/{skill}", map[string]any{"name": "Harbour song", "family": "rhythm", "steps": []string{"Hum it"}})
	do("DELETE /skills/{skill}", nil)

	// A ladder.
	named()
	do("PUT /ladders/{ladder}/rungs/{material}", map[string]any{})
	named("{target}", target)
	do("PUT /ladders/{ladder}/targets/{target}", map[string]any{"material": material, "day": "2026-10-01", "name": "Recital"})
	do("DELETE /ladders/{ladder}/targets/{target}", nil)
	do("DELETE /ladders/{ladder}/rungs/{material}", nil)
	do("PUT /ladders/{ladder}/rungs", map[string]any{"version": get(t, "/ladders/"+ladder)["version"], "rungs": []any{}})
	do("PUT /ladders/{ladder}/treats/{treat}", map[string]any{"words": "ice", "pieces": 2})
	do("DELETE /ladders/{ladder}/treats/{treat}", nil)
	do(
		"POST /ladders/{ladder}/known",
		map[string]any{
			"batch":  batch,
			"upTo":   []any{},
			"pieces": []any{},
			"titles": []any{map[string]any{"id": id(), "title": "Tune of before", "when": "long-ago"}},
			"keys":   []any{},
			"skills": []any{},
		},
	)
	do("DELETE /ladders/{ladder}/batches/{batch}", nil)
	named("{ladder}", theirLadder)
	for range 2 { // something has to be known for there to be something to keep
		status, data := call(
			t,
			"POST",
			"/ladders/"+theirLadder+"/entries",
			map[string]any{
				"entries": []any{
					map[string]any{"id": id(), "at": "2026-05-04T15:00:00Z", "kind": "probe", "skill": "eighth-notes", "shown": true, "outcome": "yes"},
				},
			},
		)
		require.Equal(t, 200, status, "%s", data)
	}
	do("POST /ladders/{ladder}/meeting", map[string]any{"batch": id(), "book": book, "route": "on"})
	named()
	do("POST /ladders/{ladder}/exercises", map[string]any{"exercise": "scale/apart/B/major/-"})
	do("PUT /ladders/{ladder}/approach", map[string]any{"approach": "names"})
	do(
		"PUT /ladders/{ladder}/practice",
		map[string]any{
			"days":       []bool{true, true, true, true, true, true, false},
			"minutes":    25,
			"handsApart": true,
			"version":    get(t, "/students/"+student)["ladders"].([]any)[0].(map[string]any)["practice"].(map[string]any)["version"],
		},
	)
	at := pagetest.Monday().Format(time.RFC3339)
	do("POST /ladders/{ladder}/entries", map[string]any{"entries": []any{
		map[string]any{"id": id(), "at": at, "kind": "assigned", "material": material},
		map[string]any{
			"id":    id(),
			"at":    at,
			"kind":  "setupChecked",
			"setup": map[string]any{"keyTop": 73, "elbow": 20, "leg": 35, "benchLow": 41, "benchHigh": 57, "lean": "level", "mats": []any{}},
		},
		map[string]any{"id": id(), "at": at, "kind": "note", "text": "x"},
	}})
	do("PUT /ladders/{ladder}/plan", map[string]any{"version": 0, "minutes": 40})
	do("POST /plans?day=2026-05-04", nil)

	// At home.
	named("{ladder}", other, "{student}", otherStudent)
	week := get(t, "/ladders/"+other+"/week")
	do("PUT /ladders/{ladder}/family", map[string]any{"email": "home@example.org"})
	do("PUT /ladders/{ladder}/week", map[string]any{"version": week["hand"].(map[string]any)["version"], "words": "Well done"})
	week = get(t, "/ladders/"+other+"/week")
	week = do("POST /ladders/{ladder}/week/publish", map[string]any{"version": week["hand"].(map[string]any)["version"], "plan": week["plan"]})
	token := strings.TrimPrefix(week["family"].(map[string]any)["link"].(string), "/home/")
	named("{ladder}", other, "{token}", token)
	page := get(t, "/family/"+token)
	item, on := "", ""
	for _, d := range page["days"].([]any) {
		x := d.(map[string]any)
		if parts, ok := x["items"].([]any); ok && len(parts) > 0 && item == "" && fmt.Sprint(x["date"]) <= "2026-05-04" {
			item, on = fmt.Sprint(parts[0].(map[string]any)["key"]), fmt.Sprint(x["date"])
		}
	}
	ticks := []any{
		map[string]any{"id": id(), "at": at, "kind": "ask", "text": "How fast?"},
		map[string]any{"id": id(), "at": at, "kind": "also", "text": "A tune of the harbour"},
	}
	require.NotEmpty(t, item, "%v", page["days"])
	{
		ticks = append(ticks, map[string]any{"id": id(), "at": at, "kind": "done", "day": on, "item": item})
	}
	do("POST /family/{token}/ticks", map[string]any{"ticks": ticks})
	do("PUT /family/{token}/wishes", map[string]any{"language": "de", "mail": "none", "remind": true})
	notes := list(t, "/notes")
	named("{note}", notes[0]["id"].(string), "{ladder}", other)
	do("PUT /notes/{note}", map[string]any{"answer": "Slowly."})
	do("POST /ladders/{ladder}/family/link", map[string]any{"days": 30})
	do("DELETE /ladders/{ladder}/family/link", nil)
	do(
		"PUT /ladders/{ladder}/reports/{report}",
		map[string]any{
			"purpose": "family",
			"length":  "short",
			"tone":    "warm",
			"from":    "2026-02-02",
			"to":      "2026-05-04",
			"edits":   []any{},
			"own":     "",
			"version": 0,
		},
	)
	do(
		"POST /ladders/{ladder}/reports/{report}/publish",
		map[string]any{"version": 1, "lines": get(t, "/ladders/"+other+"/reports/"+report)["lines"]},
	)
	do("DELETE /ladders/{ladder}/reports/{report}", nil)

	// The studio.
	named()
	do("PUT /told", map[string]any{"number": 99})
	do("PUT /learned", map[string]any{"use": false})
	do("PUT /way?version=1", get(t, "/way")["presets"].([]any)[0].(map[string]any)["way"])
	do(
		"PUT /words",
		map[string]any{
			"notes":    "letters-with-h",
			"steps":    "all-skips",
			"values":   "crotchets",
			"approach": "direction",
			"version":  get(t, "/words")["version"],
		},
	)
	do(
		"PUT /account/studio",
		map[string]any{"name": "Whole", "timezone": "UTC", "keepYears": 3, "language": "en", "firstDay": 1, "letterhead": ""},
	)
	colleague := id()
	hash, err := account.HashPassword("a rope, two gulls and fog")
	require.NoError(t, err)
	me, err := db.TeacherByEmail(context.Background(), demo.Email)
	require.NoError(t, err)
	link := store.OnceLink{
		Token:  strings.Repeat("a", 64),
		Kind:   store.InviteLink,
		Studio: me.StudioID,
		Email:  "c@example.org",
		Name:   "C",
		Role:   "teacher",
		Made:   pagetest.Monday(),
		Until:  pagetest.Monday().Add(time.Hour),
	}
	require.NoError(t, db.AddOnceLink(context.Background(), link))
	require.NoError(
		t,
		db.Accept(
			context.Background(),
			link.Token,
			store.Teacher{ID: colleague, StudioID: me.StudioID, Email: link.Email, Name: "C", PasswordHash: hash, Role: "teacher"},
		),
	)
	named("{person}", colleague)
	do("PUT /account/people/{person}", map[string]any{"role": "assistant"})
	do("DELETE /account/people/{person}", nil)
	do("POST /account/people", map[string]any{"email": "new@example.org", "name": "New", "role": "teacher"})
	const secret = "JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP"
	code, err := totp.GenerateCode(secret, pagetest.Monday())
	require.NoError(t, err)
	do("PUT /account/second", map[string]any{"secret": secret, "code": code, "password": demo.Password})
	do("POST /account/second/off", map[string]any{"password": demo.Password})
	require.NoError(
		t,
		db.AddPasskey(
			context.Background(),
			me.ID,
			store.Passkey{ID: strings.Repeat("b", 64), Name: "Tablet", Body: []byte("{}"), Made: pagetest.Monday()},
		),
	)
	named("{passkey}", strings.Repeat("b", 64))
	do("DELETE /account/passkeys/{passkey}", nil)
	named()
	do("DELETE /students/{student}/data", nil)
	do("PUT /students/{student}/data", nil)
	named("{ladder}", theirLadder)
	do("PUT /ladders/{ladder}/instrument", map[string]any{"instrument": "cello", "ladder": id()})
	do("PUT /account/password", map[string]any{"current": demo.Password, "password": "a rope, two gulls and fog"})

	spec, err := contract.GetSpec()
	require.NoError(t, err)
	var missing []string
	for _, path := range slices.Sorted(maps.Keys(spec.Paths.Map())) {
		for method := range spec.Paths.Value(path).Operations() {
			if name := method + " " + path; method != "GET" && !done[name] && alone[name] == "" {
				missing = append(missing, name)
			}
		}
	}
	require.Empty(t, missing, "calls that write and are not tried here")
}
