package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/demo"
	"patientladder/store/storetest"
)

// A teacher's own words for skills are asked once, and the next spreadsheet has them; nothing is remembered of a try.
func TestATeachersWordsAreRemembered(t *testing.T) {
	u := newcomer(t)
	body := map[string]any{
		"kind":       "csv",
		"source":     storetest.ID(),
		"title":      "Waves",
		"instrument": "piano",
		"fields":     []string{"title", "skills"},
		"try":        true,
	}
	body["data"] = []byte("title,skills\nFog,left hand\nKite,left hand\nGull,smile\n")
	words := func() (out []string) {
		_, got := u.call("POST", "/api/library/import", body)
		for _, w := range items(t, got, "words") {
			out = append(out, fmt.Sprint(w["word"], " ", w["skill"], " ", w["open"], " ", w["rows"]))
		}
		return append(out, fmt.Sprint(got["materials"], " right, ", len(items(t, got, "faults")), " faulty"))
	}
	open := []string{"left hand  true 2", "smile  true 1", "0 right, 3 faulty"}
	known := []string{"left hand left-hand false 2", "smile  false 1", "3 right, 0 faulty"}
	require.Equal(t, open, words())
	said := []map[string]any{{"word": "Left hand", "skill": "left-hand"}, {"word": "smile", "skill": ""}}
	body["words"] = said
	require.Equal(t, known, words())
	delete(body, "words")
	require.Equal(t, open, words(), "tried, and not kept")
	body["words"], body["try"] = said, false
	require.Equal(t, known, words())
	delete(body, "words")
	body["source"], body["title"], body["try"] = storetest.ID(), "More Waves", true
	require.Equal(t, known, words(), "remembered")
	other := newcomer(t)
	_, theirs := other.call("POST", "/api/library/import", body)
	require.Equal(t, true, items(t, theirs, "words")[0]["open"], "another studio's words are its own")
	body["words"] = []map[string]any{{"word": "Smïle", "skill": "steady-beat"}, {"word": "smile", "skill": "left-hand"}}
	body["data"], body["try"], body["source"] = []byte("title,skills\nFog,smïle\nKite,smile\n"), false, storetest.ID()
	accents := []string{"smïle steady-beat false 1", "smile left-hand false 1", "2 right, 0 faulty"}
	require.Equal(t, accents, words())
	delete(body, "words")
	body["source"], body["title"], body["try"] = storetest.ID(), "Last Waves", true
	require.Equal(t, accents, words(), "an accent makes another word")
	body["words"] = []map[string]any{{"word": "smile", "skill": "laughing"}}
	status, problem := u.call("POST", "/api/library/import", body)
	require.Equal(
		t,
		[]any{http.StatusUnprocessableEntity, "“smile” cannot mean the skill \"laughing\", which nobody knows."},
		[]any{status, problem["detail"]},
	)
}

// A spreadsheet of forty pieces with three faulty rows: every row is named,
// nothing is half brought in; with the three left out it is a book with a cliff.
func TestASpreadsheetBecomesABook(t *testing.T) {
	u := teacher(t)
	data, err := os.ReadFile("../demo/tideway-album.csv")
	require.NoError(t, err)
	_, read := u.call("POST", "/api/library/table", map[string]any{"table": data})
	require.EqualValues(t, 40, read["rows"])
	var fields []string
	for _, c := range items(t, read, "columns") {
		fields = append(fields, c["field"].(string))
	}
	require.Equal(t, []string{"title", "unit", "page", "skills", "tags", "tempo", "bars", ""}, fields)

	source := storetest.ID()
	body := map[string]any{
		"kind":       "csv",
		"data":       data,
		"source":     source,
		"title":      "Tideway Album",
		"instrument": "piano",
		"fields":     fields,
		"try":        true,
	}
	_, tried := u.call("POST", "/api/library/import", body)
	require.EqualValues(t, 37, tried["materials"])
	var named []string
	for _, f := range items(t, tried, "faults") {
		named = append(named, fmt.Sprint(f["line"], " ", f["column"], " ", f["title"]))
	}
	require.Equal(t, []string{"14 Page Skipping Flat Stones", "29 Teaches Swallow Dive", "35 Piece "}, named)
	body["try"] = false
	status, problem := u.call("POST", "/api/library/import", body)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "Nothing was brought in. Line 14")
	status, _ = u.call("GET", "/api/library/books/"+source, nil)
	require.Equal(t, http.StatusNotFound, status, "nothing is half brought in")

	body["leaveOut"] = true
	status, got := u.call("POST", "/api/library/import", body)
	require.Equal(t, http.StatusOK, status, got)
	require.Equal(t, true, got["kept"])
	status, again := u.call("POST", "/api/library/import", body)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, again["detail"], "in the library already")

	_, book := u.call("GET", "/api/library/books/"+source+"?for=beginner", nil)
	require.Len(t, book["lines"], 37)
	require.Contains(t, book["sentence"], "the largest to “The Tall Ship”")
	_, typical := u.call("GET", "/api/library/books/"+source, nil)
	require.Contains(t, typical["player"], "a typical student")

	other := sourceOf(t, u, "piano", "Harbour Steps")
	_, both := u.call("GET", "/api/library/books/"+source+"/beside/"+other+"?for=beginner", nil)
	require.NotEmpty(t, both["shared"])
	require.Contains(t, both["sentence"], "skills in both")
	path := both["path"].(map[string]any)
	require.Contains(t, path["sentence"], "Crossing between them")
	a, b := 0.0, 0.0
	for i, l := range items(t, book, "lines")[1:] {
		_ = i
		a = max(a, l["leap"].(map[string]any)["size"].(float64))
	}
	for _, l := range items(t, both["b"].(map[string]any), "lines")[1:] {
		b = max(b, l["leap"].(map[string]any)["size"].(float64))
	}
	require.LessOrEqual(t, path["largest"], max(a, b))

	// Out as a table, it is read back; as JSON it goes into another studio.
	res := u.raw("GET", "/api/library/export?format=csv&source="+source, nil, nil)
	table, err := io.ReadAll(res.Body)
	res.Body.Close()
	require.NoError(t, err)
	require.Contains(t, res.Header.Get("Content-Disposition"), "Tideway Album.csv")
	_, back := u.call("POST", "/api/library/table", map[string]any{"table": table})
	require.EqualValues(t, 37, back["rows"])
	res = u.raw("GET", "/api/library/export?format=json&source="+source, nil, nil)
	file, err := io.ReadAll(res.Body)
	res.Body.Close()
	require.NoError(t, err)
	stranger := signedIn(t, strangerEmail, strangerPassword)
	status, got = stranger.call("POST", "/api/library/import", map[string]any{"kind": "json", "data": file})
	require.Equal(t, http.StatusOK, status, got)
	require.EqualValues(t, 37, got["materials"])
}

func sourceOf(t *testing.T, u *user, instrument, title string) string {
	_, lib := u.call("GET", "/api/library?instrument="+instrument, nil)
	for _, b := range items(t, lib, "books") {
		if strings.HasPrefix(b["title"].(string), title) {
			return b["id"].(string)
		}
	}
	t.Fatalf("no book %s", title)
	return ""
}

// Bad curricula get a clear message each, and nothing is changed.
func TestBadCurriculaChangeNothing(t *testing.T) {
	u := teacher(t)
	before := len(u.list("/api/materials"))
	curriculum := func(skills, materials string) string {
		return `{"format":"patient-ladder-curriculum","version":1,"skills":[` + skills + `],"sources":[{"id":"s","title":"S","instrument":"piano","materials":[` + materials + `]}]}`
	}
	piece := `{"id":"m1","title":"One","strand":"method","demands":[{"skill":"rests","weight":1}]}`
	for says, text := range map[string]string{
		"in a circle":       curriculum(`{"id":"x","name":"X","needs":["y"]},{"id":"y","name":"Y","needs":["x"]}`, piece),
		"which nobody":      curriculum("", strings.Replace(piece, "rests", "juggling", 1)),
		"stands there":      curriculum("", piece+","+piece),
		"is no curriculum":  `{"format":"x"}`,
		"is not a strand":   curriculum("", strings.Replace(piece, "method", "magic", 1)),
		"5000 is the most":  curriculum("", strings.Repeat(piece+",", 6000)+piece),
		"larger than 8 MB":  curriculum("", strings.Repeat(" ", 8<<20+100)),
		"nothing in it to ": `{"format":"patient-ladder-curriculum","version":1,"sources":[]}`,
	} {
		status, problem := u.call("POST", "/api/library/import", map[string]any{"kind": "json", "data": []byte(text)})
		require.Equal(t, http.StatusUnprocessableEntity, status, says)
		require.Contains(t, problem["detail"], says)
	}
	var million strings.Builder
	million.WriteString("title\n")
	for range 1_000_000 {
		million.WriteString("a piece\n")
	}
	status, problem := u.call("POST", "/api/library/table", map[string]any{"table": []byte(million.String())})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "more than 5000 rows")
	require.Len(t, u.list("/api/materials"), before)
}

// A skill of the studio's own can be asked for, planted and planned.
func TestASkillOfOnesOwn(t *testing.T) {
	u := teacher(t)
	text, err := json.Marshal(map[string]any{
		"format": "patient-ladder-curriculum", "version": 1,
		"skills": []any{
			map[string]any{
				"id":     "sea-legs",
				"name":   "plays standing up",
				"family": "body",
				"needs":  []string{"steady-beat"},
				"steps":  []string{"stand and sway"},
			},
		},
		"sources": []any{map[string]any{"id": "deck", "title": "Songs on Deck", "instrument": "ukulele", "materials": []any{
			map[string]any{
				"id":      "d1",
				"title":   "First Deck",
				"strand":  "method",
				"demands": []any{map[string]any{"skill": "steady-beat", "weight": 1}},
			},
			map[string]any{
				"id":      "d2",
				"title":   "Second Deck",
				"strand":  "method",
				"demands": []any{map[string]any{"skill": "sea-legs", "weight": 1}},
			},
		}}},
	})
	require.NoError(t, err)
	status, got := u.call("POST", "/api/library/import", map[string]any{"kind": "json", "data": text})
	require.Equal(t, http.StatusOK, status, got)
	require.EqualValues(t, 1, got["skills"])
	ladder := newStudent(t, u)
	status, got = u.append(ladder, entry{"kind": "stepDone", "skill": "sea-legs", "step": 1})
	require.Equal(t, http.StatusOK, status, got)
	found := false
	for _, s := range u.list("/api/skills") {
		found = found || s["id"] == "sea-legs"
	}
	require.True(t, found)
	_, book := u.call("GET", "/api/library/books/"+sourceOf(t, u, "ukulele", "Songs on Deck")+"?for=beginner", nil)
	require.Equal(t, []any{"plays standing up"}, items(t, book, "lines")[1]["enters"])
}

func TestFocusPointsAndTagsAreChanged(t *testing.T) {
	u := teacher(t)
	kite := u.materialOf("Kite String")
	_, piece := u.call("GET", "/api/materials/"+kite, nil)
	points := piece["focusPoints"].([]any)
	wanted := []any{"look at the sky", points[0]}
	status, got := u.call(
		"PATCH",
		"/api/materials/"+kite,
		map[string]any{"title": "Kite String", "composer": "", "tags": []string{"comic"}, "focusPoints": wanted},
	)
	require.Equal(t, http.StatusNoContent, status, got)
	_, piece = u.call("GET", "/api/materials/"+kite, nil)
	require.Equal(t, wanted, piece["focusPoints"])
	require.Equal(t, []any{"comic"}, piece["tags"])
	status, got = u.call("PATCH", "/api/materials/"+kite, map[string]any{"title": "Kite Strings", "composer": ""})
	require.Equal(t, http.StatusNoContent, status, got)
	_, piece = u.call("GET", "/api/materials/"+kite, nil)
	require.Equal(t, wanted, piece["focusPoints"], "what is not given stays")
	require.Equal(t, []any{"comic"}, piece["tags"])
}

// A piece is listened for by what was said with it, else by what is usual for its instrument; without a title it takes that of its file.
func TestANewPieceHasATitleAndFocusPoints(t *testing.T) {
	u := teacher(t)
	add := func(change func(map[string]any)) []any {
		body := scoreBody(storetest.ID(), "Low tide.musicxml", tune)
		change(body)
		status, got := u.call("POST", "/api/materials", body)
		require.Equal(t, http.StatusCreated, status, got)
		_, piece := u.call("GET", "/api/materials/"+body["id"].(string), nil)
		return append([]any{piece["material"].(map[string]any)["title"]}, piece["focusPoints"].([]any)...)
	}
	require.Equal(
		t,
		[]any{"Little Own Tune", "steady pulse", "loose wrist", "listen to the ends of the phrases"},
		add(func(map[string]any) {}),
	)
	require.Equal(
		t,
		[]any{"Ebb", "count aloud"},
		add(func(b map[string]any) { b["title"], b["focusPoints"] = "Ebb", []string{" count aloud "} }),
	)
	status, got := u.call("POST", "/api/materials", map[string]any{"id": storetest.ID(), "strand": "repertoire", "instrument": "piano"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "A piece without a score needs a title.", got["detail"])
}

// What a book takes for granted is a page to tick, with the book before it; of a book of which nothing is known it says so.
func TestWhatABookTakesForGrantedOnPaper(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	entries := u.meeting(u.newStudent("Ask Vik", "piano"), "")["placement"].(map[string]any)["entries"].([]any)
	require.NotEmpty(t, entries)
	book := entries[0].(map[string]any)["book"].(string)
	require.Regexp(t, "^%PDF-", u.read("/api/library/books/"+book+"/checks"))
	status, body := u.call("GET", "/api/library/books/"+storetest.ID()+"/checks", nil)
	require.Equal(t, http.StatusNotFound, status, body)
}

// The list of what a book takes for granted can be written anew, and comes back as it was proposed; the meeting holds a
// student against it.
func TestWhatABookTakesForGrantedIsWritten(t *testing.T) {
	u := signedIn(t, demo.Email, demo.Password)
	ladder := u.newStudent("Ask Vik", "cello")
	entry := func() map[string]any {
		return u.meeting(ladder, "")["placement"].(map[string]any)["entries"].([]any)[0].(map[string]any)
	}
	path := "/api/library/books/" + entry()["book"].(string) + "/requirements"
	read := func() map[string]any {
		status, body := u.call("GET", path, nil)
		require.Equal(t, http.StatusOK, status, body)
		return body
	}
	before := read()
	require.Equal(t, false, before["own"])
	status, body := u.call("PUT", path, map[string]any{"skills": []string{"steady-beat", "echo-rhythm", "steady-beat"}})
	require.Equal(t, http.StatusNoContent, status, body)
	own := read()
	require.Equal(t, true, own["own"])
	require.Equal(t, "steady-beat", own["skills"].([]any)[0].(map[string]any)["skill"])
	require.Len(t, own["skills"], 2)
	require.Equal(t, "It takes two skills for granted; nothing was asked yet.", entry()["needs"])
	for range 2 {
		u.append(ladder, map[string]any{"kind": "probe", "skill": "steady-beat", "outcome": "no"})
	}
	require.Equal(t, "It takes two skills for granted: 0 there, 1 not known yet, missing: keeping a steady beat.", entry()["needs"])
	status, body = u.call("PUT", path, map[string]any{"skills": []string{"juggling"}})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	require.Equal(t, "There is no skill “juggling”. Nothing was changed.", body["detail"])
	status, body = u.call("DELETE", path, nil)
	require.Equal(t, http.StatusNoContent, status, body)
	require.Equal(t, before, read())
	status, body = u.call("PUT", "/api/library/books/"+storetest.ID()+"/requirements", map[string]any{"skills": []string{}})
	require.Equal(t, http.StatusNotFound, status, body)
}
