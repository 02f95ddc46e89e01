package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// pieceOf is one piece of a curriculum file.
func pieceOf(n int) string {
	return fmt.Sprintf(
		`{"id":"%s","title":"Piece %d","strand":"method","demands":[{"skill":"rests","weight":1}]}`,
		strings.Repeat(fmt.Sprint(n), 26),
		n,
	)
}

// What is in the library already is named, three at most, and nothing comes in twice.
func TestABookThatIsThereAlready(t *testing.T) {
	u := newcomer(t)
	book := func(pieces ...string) map[string]any {
		return map[string]any{
			"kind": "json",
			"data": []byte(
				`{"format":"patient-ladder-curriculum","version":1,"skills":[],"sources":[{"id":"` + storetest.ID() + `","title":"S","instrument":"piano","materials":[` + strings.Join(
					pieces,
					",",
				) + `]}]}`,
			),
		}
	}
	all := []string{pieceOf(1), pieceOf(2), pieceOf(3), pieceOf(4)}
	status, got := u.call("POST", "/api/library/import", book(all...))
	require.Equal(t, http.StatusOK, status, got)
	require.Equal(t, []any{4.0, true}, []any{got["materials"], got["kept"]})
	for n, says := range map[int]string{
		1: "“Piece 1” is in the library already",
		2: "“Piece 1” and “Piece 2” are in the library already",
		3: "“Piece 1”, “Piece 2” and “Piece 3” are in the library already",
		4: "“Piece 1”, “Piece 2”, “Piece 3” and 1 more are in the library already",
	} {
		body := book(all[:n]...)
		body["try"] = true
		status, got := u.call("POST", "/api/library/import", body)
		require.Equal(t, http.StatusOK, status, n)
		require.Equal(t, []any{says}, got["problems"])
		require.NotEqual(t, true, got["kept"])
	}
	require.Len(t, u.list("/api/materials"), 4)
}

// The whole library goes out with the pieces of no book, by instrument and without exercises; a table is of one book.
func TestTheWholeLibraryGoesOut(t *testing.T) {
	u := newcomer(t)
	u.titled("ukulele", "Hum")
	u.titled("piano", "Fog", "Rain")
	ladder := u.newStudent("Runa Kelp", "cello")
	u.take(ladder, first(u.technique(ladder)["proposed"])["exercise"].(string))
	var file struct {
		Sources []struct {
			Title, Instrument string
			Materials         []struct{ Title string }
		}
	}
	require.NoError(t, json.Unmarshal([]byte(u.read("/api/library/export?format=json")), &file))
	var got []string
	for _, s := range file.Sources {
		for _, m := range s.Materials {
			got = append(got, s.Instrument+" "+s.Title+": "+m.Title)
		}
	}
	require.Equal(t, []string{"piano : Fog", "piano : Rain", "ukulele : Hum"}, got)
	status, problem := u.call("GET", "/api/library/export?format=csv", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "Choose the book that the table is for.", problem["detail"])
}

// Each address takes as much as its files need, and no more.
func TestHowMuchAnAddressTakes(t *testing.T) {
	u := teacher(t)
	id := storetest.ID()
	send := func(path string, megabytes int) (int, any) {
		method := "POST"
		if strings.HasSuffix(path, "/score") {
			method = "PUT"
		}
		status, got := u.call(method, path, text(strings.Repeat(" ", megabytes<<20)))
		return status, got["detail"]
	}
	for path, most := range map[string]int{"/api/materials": 15, "/api/scores/read": 15, "/api/materials/" + id + "/score": 15, "/api/library/import": 10, "/api/students": 0} {
		status, said := send(path, most)
		require.NotEqual(t, http.StatusRequestEntityTooLarge, status, "%s %v", path, said)
		status, said = send(path, most+2)
		require.Equal(t, http.StatusRequestEntityTooLarge, status, path)
		require.Equal(t, map[int]string{
			15: "The file is too large: a score may have 12 MB at most. Nothing was changed.",
			10: "The file is too large: a curriculum may have 8 MB at most. Nothing was changed.",
			0:  "The request is too large; nothing was changed.",
		}[most], said)
	}
}

// What the page ships with is kept by the browser: for good where its name changes with it, else for an hour.
func TestHowLongAFileIsKept(t *testing.T) {
	u := anyone(t)
	for path, kept := range map[string]string{"/assets/app-12.js": "public, max-age=31536000, immutable", "/": "no-cache"} {
		res := u.raw("GET", path, nil, http.Header{"Accept-Encoding": {"identity"}})
		body, err := io.ReadAll(res.Body)
		res.Body.Close()
		require.NoError(t, err)
		require.Equal(t, []any{kept, ""}, []any{res.Header.Get("Cache-Control"), res.Header.Get("Content-Encoding")}, path)
		require.Equal(t, path == "/assets/app-12.js", strings.HasPrefix(string(body), "let a"))
	}
}

// What a teacher writes about a piece is kept; an empty title is refused, and a field that is left out stays.
func TestAPieceIsChangedByHand(t *testing.T) {
	u := newcomer(t)
	id := u.add("tunes.abc", threeTunes, 1)
	change := func(body map[string]any) (int, map[string]any) { return u.call("PATCH", "/api/materials/"+id, body) }
	status, got := change(map[string]any{"title": "  Old Rope ", "composer": " Anon. ", "tags": []string{"quiet"}})
	require.Equal(t, http.StatusNoContent, status, got)
	p := u.piece(id, "")
	require.Equal(
		t,
		[]any{"Old Rope", "Anon.", []any{"quiet"}},
		[]any{p["material"].(map[string]any)["title"], p["material"].(map[string]any)["composer"], p["tags"]},
	)
	status, got = change(map[string]any{"title": "  ", "composer": "", "tags": []string{}})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "A piece needs a title.", got["detail"])
	status, got = change(map[string]any{"title": "Rope", "composer": "", "focusPoints": []string{"steady pulse"}})
	require.Equal(t, http.StatusNoContent, status, got)
	p = u.piece(id, "")
	require.Equal(t, []any{"Rope", []any{"quiet"}}, []any{p["material"].(map[string]any)["title"], p["tags"]})
	require.Equal(t, []any{"steady pulse"}, p["focusPoints"])
	// A written file has the title that the teacher gave.
	require.Contains(t, u.read("/api/materials/"+id+"/export?format=abc"), "T:Rope\n")
}

// An exercise that is taken twice stands on the ladder once, and so does the key that was known before.
func TestAnExerciseStandsOnce(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "15:00", 30, 1))
	exercise := first(u.technique(ladder)["proposed"])["exercise"].(string)
	a := u.take(ladder, exercise)
	require.Equal(t, a, u.take(ladder, exercise))
	require.Len(t, u.onLadder(ladder), 1)
	body := none()
	body["keys"] = []any{map[string]any{"exercise": exercise, "when": "this-term"}, map[string]any{"exercise": exercise, "when": "this-term"}}
	status, effect := u.call("POST", "/api/ladders/"+ladder+"/known?try=true", body)
	require.Equal(t, http.StatusOK, status, effect)
	require.Len(t, u.list("/api/materials"), 1)
	status, problem := u.call("PUT", "/api/ladders/"+ladder+"/books/"+storetest.ID(), nil)
	require.GreaterOrEqual(t, status, 404, problem)
}

// The first steps of a studio are ticked one by one as they are done.
func TestTheFirstStepsAreTicked(t *testing.T) {
	u := newcomer(t)
	done := func() (out []string) {
		_, today := u.call("GET", "/api/today", nil)
		for _, f := range today["first"].([]any) {
			if x := f.(map[string]any); x["done"] == true {
				out = append(out, x["step"].(string))
			}
		}
		return out
	}
	require.Empty(t, done())
	ladder := u.newStudent("Runa Kelp", "piano")
	require.Equal(t, []string{"student"}, done())
	_, way := u.call("GET", "/api/way", nil)
	status, got := u.call("PUT", "/api/way?version=1", way["way"])
	require.Equal(t, http.StatusNoContent, status, got)
	require.Equal(t, []string{"way", "student"}, done())
	id := u.titled("piano", "Fog")[0]
	_, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	require.Equal(t, []string{"way", "student", "pieces"}, done())
}

// A calendar's day says what to play, where, with which hand and how often.
func TestTheWordsOfADayInTheCalendar(t *testing.T) {
	u := teacher(t)
	week, token := u.published(u.ladderOf("Tobias"), "")
	text := strings.ReplaceAll(u.read("/api/family/"+token+"/calendar"), "\r\n ", "")
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			line := it["title"].(string)
			if it["hand"] != "" && it["hand"] != nil {
				line = ", " + it["hand"].(string) + " only"
				if n := it["times"].(float64); n > 1 {
					line += fmt.Sprintf(", %v ×", n)
				}
			}
			require.Contains(t, text, strings.ReplaceAll(line, ",", `\,`))
		}
	}
	require.NotContains(t, text, "1 ×")
}

// A letter wrong in an instrument is asked about once; pressed again it is taken as it is written, and a list has the usual ones.
func TestALetterWrongInAnInstrumentIsAskedAbout(t *testing.T) {
	u := newcomer(t)
	body := map[string]any{
		"student":    storetest.ID(),
		"ladder":     storetest.ID(),
		"name":       "Nell Farrow",
		"born":       "2016-02-03",
		"instrument": "Pinao",
	}
	status, refused := u.call("POST", "/api/students", body)
	require.Equal(
		t,
		[]any{http.StatusUnprocessableEntity, "Do you mean the piano? If “pinao” is right, press the button once more."},
		[]any{status, refused["detail"]},
	)
	require.Empty(t, u.list("/api/students"))
	body["sure"] = true
	status, added := u.call("POST", "/api/students", body)
	require.Equal(t, http.StatusCreated, status, added)
	require.Equal(t, "pinao", added["instrument"])
}

// What cannot be is refused in a clear sentence, and nothing is kept: a lesson in 1990, a run without answers, a week that is
// none, a calendar of ten thousand days off.
func TestWhatCannotBeIsRefusedInASentence(t *testing.T) {
	u, _, ladder := settled(t, slotOn(1, "18:00", 30, 1))
	id := u.titled("piano", "Low Water")[0]
	refuse := func(want string, status int, got map[string]any) {
		t.Helper()
		require.Equal(t, []any{http.StatusUnprocessableEntity, want}, []any{status, got["detail"]})
	}
	status, got := u.append(ladder, entry{"kind": "note", "text": "x", "at": "1990-05-04T15:00:00Z"})
	refuse(
		"4 May 1990 is too long ago for a lesson with Nell. Check the date; what was learned before goes under “Known before”.",
		status,
		got,
	)
	status, got = u.append(ladder, entry{"kind": "assigned", "material": id}, entry{"kind": "run", "material": id, "met": []string{"smile"}})
	refuse("\"smile\" is not a point of the clearing standard.", status, got)
	status, got = u.call(
		"POST",
		"/api/library/import",
		map[string]any{
			"kind":       "list",
			"data":       []byte(" \n - \n"),
			"source":     storetest.ID(),
			"title":      "None",
			"instrument": "piano",
			"strand":     "method",
		},
	)
	refuse("There is no title in the list.", status, got)
	require.Empty(t, u.list("/api/ladders/"+ladder+"/entries"))
}
