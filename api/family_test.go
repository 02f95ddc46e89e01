package api_test

import (
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// home is a family's phone at a newcomer's studio on Monday, 4 May 2026, with a week that begins on that day.
type homePhone struct {
	*user
	t      *testing.T
	token  string
	ladder string
}

// athome publishes a week of a student who works at a tune, and returns the teacher and the phone.
func athome(t *testing.T, email string) (u *user, student string, phone homePhone) {
	u, student, ladder := settled(t, slotOn(0, "15:30", 30, 1)) // Sundays
	id := u.add("tar.abc", "X:1\nT:Tar\nL:1/4\nM:4/4\nQ:1/4=80\nK:C\nCDEF|G4|EFGE|D4|CDEF|G4|EDCE|C4|\n", 0)
	_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	status, body := u.call(
		"POST",
		"/api/ladders/"+ladder+"/entries",
		map[string]any{"entries": []entry{{"id": storetest.ID(), "at": "2026-05-03T15:30:00Z", "kind": "assigned", "material": id}}},
	)
	require.Equal(t, http.StatusOK, status, body)
	if email != "" {
		status, body = u.call("PUT", "/api/ladders/"+ladder+"/family", map[string]any{"email": email})
		require.Equal(t, http.StatusOK, status, body)
	}
	return u, student, u.publishFor(t, ladder)
}

func (u *user) publishFor(t *testing.T, ladder string) homePhone {
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week?day=2026-05-04", nil)
	status, week := u.call(
		"POST",
		"/api/ladders/"+ladder+"/week/publish?day=2026-05-04",
		map[string]any{"version": version(week), "plan": week["plan"]},
	)
	require.Equal(t, http.StatusOK, status, week)
	out := anyone(t)
	out.url = u.url
	return homePhone{out, t, strings.TrimPrefix(week["family"].(map[string]any)["link"].(string), "/home/"), ladder}
}

func (h homePhone) page() map[string]any {
	status, page := h.call("GET", "/api/family/"+h.token, nil)
	require.Equal(h.t, http.StatusOK, status, page)
	return page
}

func (h homePhone) send(ticks ...map[string]any) (int, map[string]any) {
	for _, x := range ticks {
		if x["id"] == nil {
			x["id"] = storetest.ID()
		}
		if x["at"] == nil {
			x["at"] = "2026-05-04T15:00:00Z"
		}
	}
	return h.call("POST", "/api/family/"+h.token+"/ticks", map[string]any{"ticks": ticks})
}

// The first thing to do says which hand, which finger and which key, shows it, says how fast and by what it is good enough.
func TestAThingToDoSaysHow(t *testing.T) {
	_, _, phone := athome(t, "")
	page := phone.page()
	item := first(first(page["days"])["items"])
	card := item["card"].(map[string]any)
	hand := first(card["hands"])
	require.Equal(
		t,
		[]any{"look", "Tar", "Look and say", "Right hand", "finger 1", "middle C", "the white key just left of two black keys"},
		[]any{
			item["kind"], item["title"], card["kind"], hand["hand"], hand["finger"], hand["key"], hand["geo"]},
	)
	require.Equal(t, "Right hand: finger 1 on middle C", hand["start"])
	require.Equal(t, "the pointing reaches the end without getting lost", card["good"])
	chunk := items(t, first(page["days"]), "items")[1]
	card = chunk["card"].(map[string]any)
	require.Equal(
		t,
		[]any{"chunk", "bars 1–2", "Slowly, like strolling (48)", 48.0, "Find the place first, then play it slowly."},
		[]any{chunk["kind"], card["where"], card["tempo"], chunk["beats"], card["child"]},
	)
	require.Equal(t, "Ask for the hand, the finger and the first note before it sounds.", card["parent"])
	var lit []string
	for _, x := range items(t, first(card["hands"]), "touches") {
		lit = append(lit, fmt.Sprint(x["name"], " ", x["finger"], " ", x["first"]))
	}
	require.Equal(t, []string{"C 1 true", "D 2 false", "E 3 false", "F 4 false", "G 5 false"}, lit)
	require.NotEmpty(t, chunk["excerpt"])
	keys := map[any]bool{}
	_, scores := phone.call("GET", "/api/family/"+phone.token+"/days/"+first(page["days"])["date"].(string), nil)
	for _, x := range items(t, scores, "excerpts") {
		require.False(t, keys[x["key"]], "each once")
		require.NotZero(t, x["width"])
		keys[x["key"]] = true
	}
	require.True(t, keys[chunk["excerpt"]])
}

// A page that a phone has is not sent again until something of it is new; the notes of a day come by themselves, and those of a day
// on which nothing is set are none.
func TestAPageIsSentOnce(t *testing.T) {
	_, _, phone := athome(t, "")
	page := "/api/family/" + phone.token
	day := page + "/days/2026-05-04"
	for _, path := range []string{page, day} {
		res := phone.raw("GET", path, nil, http.Header{"Accept-Encoding": {"gzip"}})
		name := res.Header.Get("ETag")
		require.Equal(t, []any{200, "gzip", "private, no-cache"}, []any{res.StatusCode, res.Header.Get("Content-Encoding"), res.Header.Get("Cache-Control")})
		body, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.Len(t, body, int(res.ContentLength))
		again := phone.raw("GET", path, nil, http.Header{"Accept-Encoding": {"gzip"}, "If-None-Match": {`W/"other", ` + name}})
		require.Equal(t, []any{304, name, "", ""}, []any{again.StatusCode, again.Header.Get("ETag"), again.Header.Get("Content-Encoding"), again.Header.Get("Content-Type")})
		body, err = io.ReadAll(again.Body)
		require.NoError(t, err)
		require.Empty(t, body)
	}
	name := phone.raw("GET", page, nil, nil).Header.Get("ETag")
	status, _ := phone.send(map[string]any{"kind": "also", "text": "Tar"})
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, 200, phone.raw("GET", page, nil, http.Header{"If-None-Match": {name}}).StatusCode, "what was written is new")

	_, scores := phone.call("GET", day, nil)
	require.Len(t, scores["music"], 1)
	_, scores = phone.call("GET", page+"/days/2026-05-31", nil)
	require.Equal(t, map[string]any{"music": []any{}, "excerpts": []any{}}, scores)
	status, _ = phone.call("GET", "/api/family/nobody/days/2026-05-04", nil)
	require.Equal(t, http.StatusNotFound, status)
}

// What is written from home arrives once, from however many phones, and the teacher's answer comes back.
func TestWhatAFamilyWrites(t *testing.T) {
	u, _, phone := athome(t, "family@harbour.example")
	lesson := first(phone.page()["lessons"])
	require.Equal(t, "Sunday 10 May, 15:30", lesson["name"])
	also := map[string]any{"kind": "also", "text": " Tar "}
	ask := map[string]any{"kind": "ask", "text": "Which hand first?", "at": "2026-05-04T15:10:00Z"}
	move := map[string]any{"kind": "reschedule", "text": "Friday after four?", "lesson": lesson["lesson"], "at": "2026-05-04T15:20:00Z"}
	status, got := phone.send(also, ask, move)
	require.Equal(t, http.StatusOK, status, got)
	require.Equal(t, 4.0, got["added"], "three notes, and one of them counts as taste")
	_, got = phone.send(also, ask, move)
	require.Equal(t, 0.0, got["added"], "sent again after a lost answer")

	_, today := u.call("GET", "/api/today", nil)
	require.Equal(t, 2.0, today["asked"])
	var list []string
	for _, n := range u.list("/api/notes") {
		list = append(list, fmt.Sprint(n["name"], " ", n["kind"], " ", n["text"], " ", n["said"], " ", n["about"], " ", n["open"]))
	}
	require.Equal(t, []string{
		"Nell Farrow ask Which hand first? Asked today  true", "Nell Farrow reschedule Friday after four? Asked today Sunday, 10 May, 15:30 true",
		"Nell Farrow also Tar Also played, today  false",
	}, list)
	require.Equal(t, 1, strings.Count(u.read("/api/ladders/"+phone.ladder+"/entries"), `"unasked"`))
	_, lessonPage := u.call("GET", "/api/ladders/"+phone.ladder+"/lesson", nil)
	require.Contains(t, fmt.Sprint(lessonPage["last"]), "From home: Asks: “Which hand first?”")

	before := len(u.list("/api/messages"))
	status, got = u.call("PUT", "/api/notes/"+ask["id"].(string), map[string]any{"answer": " The right one. "})
	require.Equal(t, http.StatusNoContent, status, got)
	status, _ = u.call("PUT", "/api/notes/"+ask["id"].(string), map[string]any{"answer": "The right one."})
	require.Equal(t, http.StatusNoContent, status, "the same answer once more")
	require.Len(t, u.list("/api/messages"), before+1, "one message that it is there")
	require.NotContains(t, u.list("/api/messages")[0]["body"], "right one", "the message holds the link alone")
	status, _ = u.call("PUT", "/api/notes/"+move["id"].(string), map[string]any{"answer": ""})
	require.Equal(t, http.StatusNoContent, status)
	_, today = u.call("GET", "/api/today", nil)
	require.Equal(t, 0.0, today["asked"])
	var notes []string
	for _, n := range items(t, phone.page(), "notes") {
		notes = append(notes, fmt.Sprint(n["kind"], ": ", n["said"], " ", n["answer"]))
	}
	require.Equal(t, []string{"reschedule: Asked on 4 May. ", "ask: Asked on 4 May. The right one.", "also: Asked on 4 May. "}, notes)
}

// What cannot be is refused in plain words; nothing is kept of it.
func TestWhatAFamilyCannotWrite(t *testing.T) {
	u, _, phone := athome(t, "")
	for says, wrong := range map[string]map[string]any{
		"at most 1000 letters":               {"kind": "ask", "text": strings.Repeat("x", 10_000)},
		"Nothing is written":                 {"kind": "also", "text": " \n "},
		"not among those to come":            {"kind": "reschedule", "text": "x", "lesson": "2026-05-03-nothing"},
		"practice is ticked when it is done": {"kind": "done", "day": "2026-05-05", "item": "x"},
	} {
		status, got := phone.send(wrong)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, got["detail"], says)
	}
	require.Empty(t, u.list("/api/notes"))
	script := map[string]any{"kind": "ask", "text": `<script>alert("x")</script>` + "\x00\u202e"}
	status, got := phone.send(script)
	require.Equal(t, http.StatusOK, status, got)
	require.Equal(t, `<script>alert("x")</script>`+"\u202e", u.list("/api/notes")[0]["text"], "kept as text")
	// Another studio's teacher finds nothing of it.
	stranger := newcomer(t)
	require.Empty(t, stranger.list("/api/notes"))
	status, _ = stranger.call("PUT", "/api/notes/"+script["id"].(string), map[string]any{"answer": "x"})
	require.Equal(t, http.StatusNotFound, status)
}

// A studio that speaks German to its families does so until one of them chooses otherwise; its letterhead ends its letters.
func TestTheLanguageOfAStudio(t *testing.T) {
	u, _, phone := athome(t, "family@harbour.example")
	require.Equal(t, "en", phone.page()["language"])
	status, body := u.call(
		"PUT",
		"/api/account/studio",
		map[string]any{"name": "Am Kai", "timezone": "UTC", "keepYears": 2, "language": "de", "firstDay": 1, "letterhead": "Kai 4\nGullhaven"},
	)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, "de", phone.page()["language"])
	u.publishFor(t, phone.ladder)
	letter := u.list("/api/messages")[0]
	require.Equal(t, "Nell: Üben ab 4. Mai", letter["subject"])
	require.Contains(t, letter["body"], ", Am Kai\nKai 4\nGullhaven\n\n")
	status, body = phone.call("PUT", "/api/family/"+phone.token+"/wishes", map[string]any{"language": "en", "mail": "week", "remind": false})
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, "en", phone.page()["language"])
}

// The second language from end to end: the page, its cards, what is held back, and the message.
func TestTheSecondLanguage(t *testing.T) {
	u, _, phone := athome(t, "family@harbour.example")
	status, got := phone.call("PUT", "/api/family/"+phone.token+"/wishes", map[string]any{"language": "de", "mail": "week", "remind": false})
	require.Equal(t, http.StatusNoContent, status, got)
	page := phone.page()
	require.Equal(
		t,
		[]any{"de", "de-DE", "Heute: 3 Aufgaben, etwa 7 Min.", "Anhören"},
		[]any{page["language"], page["locale"], page["sentence"], page["texts"].(map[string]any)["hear"]},
	)
	require.Equal(t, []any{"„Tar“: im vollen Tempo spielen"}, page["notYet"])
	item := items(t, first(page["days"]), "items")[1]
	card := item["card"].(map[string]any)
	require.Equal(
		t,
		[]any{"Kurzer Abschnitt", "Takte 1–2", "Langsam, wie Schlendern (48)", "Finde zuerst den Platz, dann spiel langsam."},
		[]any{card["kind"], card["where"], card["tempo"], card["child"]},
	)
	require.Equal(t, "Rechte Hand: Finger 1 auf C in der Mitte", first(card["hands"])["start"])
	u.publishFor(t, phone.ladder)
	require.Equal(t, "Nell: Üben ab 4. Mai", u.list("/api/messages")[0]["subject"])
	require.Contains(t, u.list("/api/messages")[0]["body"], "Die Übewoche ab 4. Mai ist fertig:")
	require.Contains(t, strings.ReplaceAll(phone.read("/api/family/"+phone.token+"/calendar"), "\r\n ", ""), "Kurzer Abschnitt: Tar")
	require.Regexp(t, "^%PDF-", phone.read("/api/family/"+phone.token+"/sheet"))
	_, week := u.call("GET", "/api/ladders/"+phone.ladder+"/week?day=2026-05-04", nil)
	require.Equal(t, []any{"“Tar”: playing it up to speed"}, week["notYet"], "the teacher reads English")
	status, got = phone.call("PUT", "/api/family/"+phone.token+"/wishes", map[string]any{"language": "xx", "mail": "week", "remind": false})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "This language is not there.", got["detail"])
}

// What is sent is seen before; a family that wishes one message on Monday, a reminder or nothing gets that.
func TestWhatAFamilyIsSent(t *testing.T) {
	u, _, phone := athome(t, "family@harbour.example")
	wish := func(mail string, remind bool) {
		status, got := phone.call("PUT", "/api/family/"+phone.token+"/wishes", map[string]any{"language": "en", "mail": mail, "remind": remind})
		require.Equal(t, http.StatusNoContent, status, got)
	}
	preview := func() (out []string) {
		_, week := u.call("GET", "/api/ladders/"+phone.ladder+"/week?day=2026-05-04", nil)
		for _, m := range items(t, week, "messages") {
			out = append(out, fmt.Sprint(m["to"], ": ", m["subject"], ", ", m["when"]))
		}
		return out
	}
	waiting := func() (out []string) {
		for _, m := range u.list("/api/messages") {
			out = append(out, m["subject"].(string))
		}
		return out
	}
	require.Equal(t, []string{"family@harbour.example: Nell: practice from 4 May, at once"}, preview())
	require.Equal(t, []string{"Nell: practice from 4 May"}, waiting())
	wish("digest", true)
	require.Equal(t, []string{
		"family@harbour.example: Nell: practice from 4 May, Monday 11 May, 07:00",
		"family@harbour.example: Nell: practice today, Tuesday 5 May, 15:00",
		"family@harbour.example: Nell: practice today, Wednesday 6 May, 15:00",
		"family@harbour.example: Nell: practice today, Thursday 7 May, 15:00",
		"family@harbour.example: Nell: practice today, Friday 8 May, 15:00",
		"family@harbour.example: Nell: practice today, Saturday 9 May, 15:00",
	}, preview())
	u.publishFor(t, phone.ladder)
	u.publishFor(t, phone.ladder)
	require.Len(t, waiting(), 7, "what waits of the same kind is overtaken; what could go at once stays")
	wish("none", false)
	require.Empty(t, waiting(), "what is not wished any more goes")
	require.Empty(t, preview())
	u.publishFor(t, phone.ladder)
	require.Empty(t, waiting())
}

// Brothers and sisters for whom the same person is written to find each other's page; nobody else does.
func TestBrothersAndSisters(t *testing.T) {
	u, _, phone := athome(t, "")
	require.Empty(t, phone.page()["others"])
	require.Equal(t, false, phone.page()["mailed"], "nobody is written to: there is nothing to wish for")
	agree := func(student, name, email string) {
		status, got := u.call(
			"PATCH",
			"/api/students/"+student,
			map[string]any{"name": name, "called": "", "born": "2017-02-03", "bornAbout": false, "notes": "", "version": 1,
				"contacts": []any{map[string]any{"id": storetest.ID(), "name": "Jo", "relation": "parent", "email": email, "messages": true}}},
		)
		require.Equal(t, http.StatusNoContent, status, got)
	}
	other := u.newStudent("Ada Farrow", "cello")
	third := u.newStudent("Bo Quay", "piano")
	for _, s := range u.list("/api/students") {
		agree(
			s["student"].(string),
			s["name"].(string),
			map[string]string{"Nell Farrow": "jo@harbour.example", "Ada Farrow": "jo@harbour.example", "Bo Quay": "kim@harbour.example"}[s["name"].(string)],
		)
	}
	require.Empty(t, phone.page()["others"], "there is no page yet")
	require.Equal(t, true, phone.page()["mailed"])
	sister := u.publishFor(t, other)
	u.publishFor(t, third)
	require.Equal(t, []any{map[string]any{"name": "Ada, cello", "link": "/home/" + sister.token}}, phone.page()["others"])
	require.Equal(t, []any{map[string]any{"name": "Nell, piano", "link": "/home/" + phone.token}}, sister.page()["others"])
}
