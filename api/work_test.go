package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

const tune = `<?xml version="1.0"?><score-partwise version="4.0"><work><work-title>Little Own Tune</work-title></work>
<part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">
<measure number="1"><attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time><clef><sign>G</sign></clef></attributes>
<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note><note><pitch><step>E</step><octave>4</octave></pitch><duration>1</duration></note>
<note><pitch><step>D</step><octave>4</octave></pitch><duration>1</duration></note><note><pitch><step>D</step><octave>4</octave></pitch><duration>1</duration></note></measure>
<measure number="2"><note><pitch><step>C</step><octave>4</octave></pitch><duration>4</duration></note></measure></part></score-partwise>`

// items digs a list of objects out of an answer.
func items(t *testing.T, from map[string]any, key string) []map[string]any {
	t.Helper()
	list, ok := from[key].([]any)
	require.True(t, ok, "%s in %v", key, from)
	out := make([]map[string]any, len(list))
	for i := range list {
		out[i] = list[i].(map[string]any)
	}
	return out
}

// newStudent adds a student of one's own with the piano book.
func newStudent(t *testing.T, u *user) string {
	var source string
	for _, m := range u.list("/api/materials?instrument=piano") {
		if m["title"] == "Gulls on the Railing" {
			source = m["source"].(string)
		}
	}
	body := map[string]any{
		"student": storetest.ID(), "ladder": storetest.ID(), "name": "Nell Farrow", "born": "2018-01-20", "instrument": "piano",
		"weekday": int(now.Weekday()), "startsAt": "11:15", "minutes": 30, "source": source,
	}
	for range 2 { // a repeated request adds nobody
		status, got := u.call("POST", "/api/students", body)
		require.Equal(t, http.StatusCreated, status, got)
		require.EqualValues(t, 8, got["age"])
	}
	return body["ladder"].(string)
}

func TestFromTheFirstPieceToTheNextRung(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	base := "/api/ladders/" + ladder
	_, next := u.call("GET", base+"/next?strand=method", nil)
	chosen := next["chosen"].(map[string]any)
	require.Equal(t, "Gulls on the Railing", chosen["title"])
	first := chosen["material"].(string)
	_, week := u.call("GET", base+"/week", nil)
	require.Contains(t, week["sentence"], "No piece in work yet")

	own := storetest.ID()
	status, got := u.append(
		ladder,
		entry{"kind": "assigned", "material": first},
		entry{"kind": "focusAdded", "focus": own, "text": "loose shoulders"},
	)
	require.Equal(t, http.StatusOK, status, got)
	_, lesson := u.call("GET", base+"/lesson", nil)
	piece := items(t, lesson, "pieces")[0]
	points := items(t, piece, "points")
	require.Len(t, points, 4, "three of the piece and one of the student's own")
	require.Equal(t, true, points[3]["own"])
	require.Equal(t, "the right hand, finger 1 on middle C", piece["opening"])

	mark := func(focus any, value string) {
		status, got := u.append(ladder, entry{"kind": "mark", "material": first, "focus": focus, "mark": value})
		require.Equal(t, http.StatusOK, status, got)
	}
	mark(points[0]["id"], "full")
	mark(points[1]["id"], "full")
	mark(points[2]["id"], "part")
	u.append(ladder, entry{"kind": "spotAdded", "material": first, "from": 2, "to": 3})

	// A run with one point missed: it stays and says why; the wrong tap is corrected.
	wrong := storetest.ID()
	u.append(ladder, entry{"id": wrong, "kind": "run", "material": first, "met": []string{"notes", "fingers", "tone", "flow"}})
	_, lesson = u.call("GET", base+"/lesson", nil)
	piece = items(t, lesson, "pieces")[0]
	require.Equal(t, "working", piece["state"])
	require.Equal(t, "It stays a working piece: the rhythm did not hold.", piece["why"])
	u.append(ladder, entry{"kind": "correction", "corrects": wrong})
	run := entry{"id": storetest.ID(), "kind": "run", "material": first, "met": []string{"notes", "fingers", "tone", "flow", "rhythm"}}
	for range 3 { // a double click, a repeated request
		status, _ := u.append(ladder, run)
		require.Equal(t, http.StatusOK, status)
	}
	_, lesson = u.call("GET", base+"/lesson", nil)
	piece = items(t, lesson, "pieces")[0]
	require.Equal(t, "cleared", piece["state"])
	require.Len(t, items(t, piece, "runs"), 1)
	// What was new in a piece is told as of then, once it is begun.
	_, read := u.call("GET", "/api/materials/"+first+"?ladder="+ladder, nil)
	require.Equal(t, true, read["begun"])
	require.Contains(t, read["sentence"], "; new when it was begun: ")

	_, view := u.call("GET", base, nil)
	rungs := items(t, items(t, view, "rails")[0], "rungs")
	require.Equal(t, "review", rungs[0]["layer"])
	_, next = u.call("GET", base+"/next?strand=method", nil)
	chosen = next["chosen"].(map[string]any)
	require.NotEqual(t, "Gulls on the Railing", chosen["title"])
	require.Equal(t, true, next["ease"], "after a cliff an easy one")
	require.NotEmpty(t, items(t, chosen["leap"].(map[string]any), "parts"))
}

func TestTheWeekHoldsTheLimitAndTheSpots(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	base := "/api/ladders/" + ladder
	tuneID := u.materialOf("Bell Buoy")
	u.append(ladder, entry{"kind": "assigned", "material": tuneID}, entry{"kind": "spotAdded", "material": tuneID, "from": 2, "to": 3})
	_, week := u.call("GET", base+"/week", nil)
	practice := week["practice"].(map[string]any)
	practice["minutes"] = 12
	practice["days"] = []bool{true, true, false, true, true, true, true}
	status, _ := u.call("PUT", base+"/practice", practice)
	require.Equal(t, http.StatusNoContent, status)
	status, problem := u.call("PUT", base+"/practice", practice)
	require.Equal(t, http.StatusConflict, status, "a stale form")
	require.Contains(t, problem["detail"], "changed elsewhere")

	_, week = u.call("GET", base+"/week", nil)
	spots, rests := 0, 0
	for _, d := range items(t, week, "days") {
		require.LessOrEqual(t, d["minutes"].(float64), 12.0)
		if d["rest"].(bool) {
			rests++
		}
		for _, it := range items(t, d, "items") {
			if it["kind"] == "spot" {
				spots++
				require.Equal(t, "bars 2–3", it["where"])
			}
		}
	}
	require.Equal(t, 1, rests)
	require.Positive(t, spots)
	require.Contains(t, fmt.Sprint(week["notYet"]), "the left hand, and both hands together")
	require.Contains(t, week["caution"], "Pain")
}

func TestAPieceOfOnesOwn(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	id := storetest.ID()
	for range 2 {
		status, got := u.call("POST", "/api/materials", scoreBody(id, "own.musicxml", tune))
		require.Equal(t, http.StatusCreated, status, got)
		require.Equal(t, "Little Own Tune", got["title"])
	}
	status, _ := u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	require.Equal(t, http.StatusNoContent, status)
	_, piece := u.call("GET", "/api/materials/"+id+"?ladder="+ladder, nil)
	require.Equal(t, true, piece["onLadder"])
	require.Equal(t, false, piece["begun"])
	require.Contains(t, piece["sentence"], "; new in it: ")
	var directions []string
	for _, m := range items(t, piece, "marks") {
		directions = append(directions, m["direction"].(string))
	}
	require.Equal(t, []string{"up", "down", "same", "down"}, directions)
	require.Positive(t, piece["leap"].(map[string]any)["size"])
	status, _ = u.call("DELETE", "/api/ladders/"+ladder+"/rungs/"+id, nil)
	require.Equal(t, http.StatusNoContent, status)
}

func TestBadScoresSayWhatAndWhereAndChangeNothing(t *testing.T) {
	u := teacher(t)
	before := len(u.list("/api/materials"))
	for says, file := range map[string]string{
		"does not begin like XML": "hello",
		"stops in the middle":     tune[:len(tune)-60],
		"entities":                `<!DOCTYPE s [<!ENTITY a "b">]><score-partwise>&a;</score-partwise>`,
		"part P1, bar 1":          strings.Replace(tune, "<octave>4</octave>", "<octave>44</octave>", 1),
	} {
		status, problem := u.call("POST", "/api/materials", scoreBody(storetest.ID(), "bad.musicxml", file))
		require.Equal(t, http.StatusUnprocessableEntity, status, says)
		require.Contains(t, problem["detail"], says)
		require.Contains(t, problem["detail"], "bad.musicxml")
	}
	status, problem := u.call("POST", "/api/materials", scoreBody(storetest.ID(), "huge.musicxml", strings.Repeat("x", 50<<20)))
	require.Equal(t, http.StatusRequestEntityTooLarge, status)
	require.Contains(t, problem["detail"], "12 MB at most")
	require.Len(t, u.list("/api/materials"), before)
}

// A file with one bar wrong comes in, and says what was mended and where.
func TestAWrongBarIsMendedAndListed(t *testing.T) {
	u := teacher(t)
	id := storetest.ID()
	status, got := u.call("POST", "/api/materials", scoreBody(id, "long.musicxml", strings.Replace(tune, "<duration>4</duration>", "<duration>5</duration>", 1)))
	require.Equal(t, http.StatusCreated, status, got)
	_, piece := u.call("GET", "/api/materials/"+id, nil)
	require.Equal(t, []any{map[string]any{
		"what": "a voice that runs past its bar (the bar was taken as long as the voice)", "where": "bar 2", "count": 1.0, "mended": true,
	}}, piece["skipped"])
}

// Of two parts of a name the first is proposed and asked for; what the teacher says holds, and can be taken back.
func TestWhosePartIsAskedAndKept(t *testing.T) {
	u := teacher(t)
	id := storetest.ID()
	duet := "X:1\nT:Duet\nM:4/4\nL:1/4\nK:C\nV:1 name=\"Violin I\"\nV:2 name=\"Violin II\"\nV:1\nCDEF|G4|\nV:2\nE^FGA|B4|\n"
	body := scoreBody(id, "duet.abc", duet)
	body["instrument"] = "violin"
	status, got := u.call("POST", "/api/materials", body)
	require.Equal(t, http.StatusCreated, status, got)
	played := func() (asked any, out []any, signs bool) {
		_, piece := u.call("GET", "/api/materials/"+id, nil)
		for _, p := range items(t, piece, "parts") {
			out = append(out, p["played"])
		}
		for _, d := range items(t, piece, "demands") {
			signs = signs || d["skill"] == "accidentals"
		}
		return piece["askPart"], out, signs
	}
	asked, mine, signs := played()
	require.Equal(t, []any{true, []any{true, false}, false}, []any{asked, mine, signs})
	status, _ = u.call("PUT", "/api/materials/"+id+"/overrulings", map[string]any{"kind": "part", "part": 1})
	require.Less(t, status, 300)
	asked, mine, signs = played()
	require.Equal(t, []any{false, []any{false, true}, true}, []any{asked, mine, signs})
	status, problem := u.call("PUT", "/api/materials/"+id+"/overrulings", map[string]any{"kind": "part", "part": 7})
	require.Equal(t, http.StatusUnprocessableEntity, status, problem)
}

func TestEntriesThatCannotBeAreRefused(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	gulls, cello := u.materialOf("Gulls on the Railing"), u.materialOf("Open Water")
	for says, e := range map[string]entry{
		"has 8 bars":             {"kind": "spotAdded", "material": gulls, "from": 7, "to": 9},
		"does not have":          {"kind": "mark", "material": gulls, "focus": storetest.ID(), "mark": "full"},
		"clearing standard":      {"kind": "run", "material": gulls, "met": []string{"applause"}},
		"is for cello":           {"kind": "assigned", "material": cello},
		"not come yet":           {"kind": "note", "text": "x", "at": now.AddDate(0, 0, 3).Format(time.RFC3339)},
		"not a skill":            {"kind": "stepDone", "skill": "juggling", "step": 1},
		"does not exist":         {"kind": "assigned", "material": storetest.ID()},
		"first not after the la": {"kind": "spotAdded", "material": gulls, "from": 3, "to": 2},
	} {
		status, problem := u.append(ladder, entry{"kind": "note", "text": "comes before it"}, e)
		require.Contains(t, []int{404, 422}, status, says)
		require.Contains(t, problem["detail"], says)
	}
	require.Empty(t, u.list("/api/ladders/"+ladder+"/entries"), "all or none")
}

// A snapshot is a cache: thrown away, it is rebuilt to the same bytes.
func TestASnapshotIsRebuiltToTheSameBytes(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Henrik")
	var studio string
	owner, err := db.TeacherByEmail(context.Background(), demo.Email)
	require.NoError(t, err)
	studio = owner.StudioID
	get := func() string {
		_, view := u.call("GET", "/api/ladders/"+ladder, nil)
		data, err := json.Marshal(view)
		require.NoError(t, err)
		return string(data)
	}
	folded := get()
	cached := get()
	require.Equal(t, folded, cached)
	require.NoError(t, db.DropSnapshot(context.Background(), studio, ladder))
	require.Equal(t, folded, get())
}

func TestTodayShowsTheLessonsOfTheDay(t *testing.T) {
	u := teacher(t)
	_, today := u.call("GET", "/api/today?day="+now.Format(time.DateOnly), nil)
	require.GreaterOrEqual(t, len(items(t, today, "lessons")), 5)
	require.Contains(t, today["sentence"], "lessons today")
	_, sunday := u.call("GET", "/api/today?day="+now.AddDate(0, 0, 6).Format(time.DateOnly), nil)
	require.Empty(t, items(t, sunday, "lessons"))
	require.Equal(t, "No lessons on this day.", sunday["sentence"])
}

func TestALessonOffersToHearWhatIsPlanned(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	titles := []string{"Gulls on the Railing", "Low Water", "Two Boats", "Rope Ladder", "Slow Ferry"}
	for i, title := range titles {
		at := now.AddDate(0, 0, -7*(len(titles)-i)).Format(time.RFC3339)
		status, got := u.append(ladder, entry{"kind": "cleared", "material": u.materialOf(title), "at": at})
		require.Equal(t, http.StatusOK, status, got)
	}
	offered := func() (out []string) {
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		for _, r := range items(t, lesson, "reviews") {
			out = append(out, fmt.Sprint(r["title"], " ", r["heardToday"]))
		}
		return out
	}
	planned := func() (out []string) {
		_, plan := u.call("GET", "/api/ladders/"+ladder+"/plan?day="+now.Format(time.DateOnly), nil)
		for _, s := range items(t, plan, "segments") {
			if s["kind"] == "review" {
				out = append(out, fmt.Sprint(s["title"], " false"))
			}
		}
		return out
	}
	first := planned()
	require.GreaterOrEqual(t, len(first), 2)
	require.Equal(t, first, offered()[:len(first)], "in the order of the plan")
	heard := strings.TrimSuffix(first[1], " false")
	u.append(ladder, entry{"kind": "hearing", "material": u.materialOf(heard), "rating": 4})
	now := offered()
	require.Contains(t, now, heard+" true", "heard today stays in view")
	require.NotContains(t, now, heard+" false")
}

func TestAStudentThatCannotBeIsRefused(t *testing.T) {
	u := teacher(t)
	good := func() map[string]any {
		return map[string]any{"student": storetest.ID(), "ladder": storetest.ID(), "name": "Nell", "born": "2018-01-20",
			"instrument": "piano", "weekday": int(now.Weekday()), "startsAt": "11:15", "minutes": 30}
	}
	before := len(u.list("/api/students"))
	for field, value := range map[string]any{
		"name": "   ", "born": "2040-01-01", "startsAt": "25:00", "minutes": 4, "weekday": 7, "instrument": "b3",
	} {
		body := good()
		body[field] = value
		status, problem := u.call("POST", "/api/students", body)
		require.Equal(t, http.StatusUnprocessableEntity, status, field)
		require.NotEmpty(t, problem["detail"])
	}
	require.Len(t, u.list("/api/students"), before)
}

func TestWhatWasPlayedStaysOnTheLadder(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	gulls, cello := u.materialOf("Gulls on the Railing"), u.materialOf("Open Water")
	u.append(ladder, entry{"kind": "assigned", "material": gulls})
	status, problem := u.call("DELETE", "/api/ladders/"+ladder+"/rungs/"+gulls, nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "played already")
	status, problem = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+cello, nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "is for cello")
	status, _ = u.call("PUT", "/api/ladders/"+ladder+"/rungs/"+storetest.ID(), nil)
	require.Equal(t, http.StatusNotFound, status)
}

// Taking back an assignment takes the piece out of work; taking that back in
// turn brings it in again.
func TestTakingBackAnAssignment(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	assigned, correction := storetest.ID(), storetest.ID()
	working := func() int {
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		return len(items(t, lesson, "pieces"))
	}
	u.append(ladder, entry{"id": assigned, "kind": "assigned", "material": u.materialOf("Low Water")})
	require.Equal(t, 1, working())
	u.append(ladder, entry{"id": correction, "kind": "correction", "corrects": assigned})
	require.Zero(t, working())
	u.append(ladder, entry{"kind": "correction", "corrects": correction})
	require.Equal(t, 1, working())
}

// Today is the studio's own day: in the afternoon in Greenwich it is the next morning in Auckland.
func TestTodayIsTheStudiosOwnDay(t *testing.T) {
	hash, err := account.HashPassword("far from here")
	require.NoError(t, err)
	require.NoError(t, db.AddStudio(context.Background(), store.Studio{ID: storetest.ID(), Name: "South", Timezone: "Pacific/Auckland"},
		store.Teacher{ID: storetest.ID(), Email: "south@example.org", Name: "S", PasswordHash: hash}))
	u := signedIn(t, "south@example.org", "far from here")
	there := clock.Day(now, "Pacific/Auckland")
	_, today := u.call("GET", "/api/today", nil)
	require.Equal(t, there.Format(time.DateOnly), today["day"])

	body := map[string]any{
		"student":    storetest.ID(),
		"ladder":     storetest.ID(),
		"name":       "Tui",
		"born":       there.AddDate(-10, 0, 0).Format(time.DateOnly),
		"instrument": "cello",
		"weekday":    int(there.Weekday()),
		"startsAt":   "09:00",
		"minutes":    30,
	}
	status, got := u.call("POST", "/api/students", body)
	require.Equal(t, http.StatusCreated, status)
	require.EqualValues(t, 10, got["age"], "it is the birthday there")
	_, today = u.call("GET", "/api/today", nil)
	require.Equal(t, "One lesson today; Tui needs a new piece.", today["sentence"])
	// What happens now belongs to that day's lesson.
	ladder := body["ladder"].(string)
	u.append(ladder, entry{"kind": "note", "text": "sang on the way in"})
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	require.Len(t, items(t, lesson, "log"), 1)
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Equal(t, there.AddDate(0, 0, 1).Format(time.DateOnly), week["start"], "the week begins on the day after the lesson")
}

// The log gives back every kind of entry as it was written.
func TestEveryKindOfEntryComesBack(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	gulls := u.materialOf("Gulls on the Railing")
	own, spot, wrong := storetest.ID(), storetest.ID(), storetest.ID()
	sent := []entry{
		{"kind": "assigned", "material": gulls},
		{"kind": "focusAdded", "focus": own, "text": "heavy elbows"},
		{"kind": "mark", "material": gulls, "focus": own, "mark": "none"},
		{"id": spot, "kind": "spotAdded", "material": gulls, "from": 2, "to": 4, "text": "late thumb"},
		{"kind": "spotMended", "material": gulls, "spot": spot},
		{"kind": "run", "material": gulls, "met": []any{"notes", "flow"}},
		{"kind": "cleared", "material": gulls},
		{"kind": "polished", "material": gulls},
		{"kind": "hearing", "material": gulls, "rating": 3.0},
		{"kind": "stepDone", "skill": "rests", "step": 1.0},
		{"kind": "probe", "skill": "ties", "shown": true},
		{"kind": "practised", "minutes": 12.0},
		{"kind": "setupChecked"},
		{"id": wrong, "kind": "note", "text": "x"},
		{"kind": "correction", "corrects": wrong},
	}
	status, got := u.append(ladder, sent...)
	require.Equal(t, http.StatusOK, status, got)
	log := u.list("/api/ladders/" + ladder + "/entries")
	require.Len(t, log, len(sent))
	for i, e := range sent {
		for field, value := range e {
			if field != "from" && field != "to" {
				require.Equal(t, value, log[i][field], "%s: %s", e["kind"], field)
			}
		}
	}
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	var said []string
	for _, l := range items(t, lesson, "log") {
		said = append(said, l["text"].(string))
	}
	require.Contains(t, said, "Heavy elbows: none")
	require.Contains(t, said, "Hard spot at bars 2–4")
	require.Contains(t, said, "Run of “Gulls on the Railing”: it stays")
	require.NotContains(t, said, "x")
}

func TestTheLadderSaysWhatEachNumberRestsOn(t *testing.T) {
	u := teacher(t)
	_, view := u.call("GET", "/api/ladders/"+u.ladderOf("Caspian"), nil)
	require.NotEmpty(t, view["reachWhy"])
	rungs := 0
	for _, rail := range items(t, view, "rails") {
		for _, r := range items(t, rail, "rungs") {
			rungs++
			l := r["leap"].(map[string]any)
			sum := 0.0
			for _, p := range items(t, l, "parts") {
				sum += p["amount"].(float64)
				require.NotEmpty(t, p["why"], "%s: %s", r["title"], p["name"])
				require.NotEmpty(t, p["where"])
			}
			require.InDelta(t, l["size"], sum, 1e-9, "the parts of %s make the whole", r["title"])
		}
	}
	require.Greater(t, rungs, 20)
}

// A compressed score is taken in too, and given back unpacked for engraving.
func TestACompressedScore(t *testing.T) {
	u := teacher(t)
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	f, err := w.Create("song.xml")
	require.NoError(t, err)
	_, err = f.Write([]byte(tune))
	require.NoError(t, err)
	require.NoError(t, w.Close())
	id := storetest.ID()
	status, got := u.call("POST", "/api/materials", scoreBody(id, "song.mxl", b.String()))
	require.Equal(t, http.StatusCreated, status, got)
	res := u.raw("GET", "/api/materials/"+id+"/score", nil, nil)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Equal(t, tune, string(data))

	status, problem := u.call("POST", "/api/materials", scoreBody(storetest.ID(), "cut.mxl", b.String()[:b.Len()-20]))
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "“cut.mxl” cannot be read: the compressed score is damaged")
}

// A bite is offered for what comes soonest; done, its skill waits a week.
func TestBitesWaitAWeek(t *testing.T) {
	u := teacher(t)
	ladder := newStudent(t, u)
	bites := func() (out []string) {
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		for _, b := range items(t, lesson, "bites") {
			require.NotEmpty(t, b["for"])
			out = append(out, fmt.Sprint(b["skill"], " ", b["step"]))
		}
		return out
	}
	first := bites()
	require.Len(t, first, 2)
	skill, _, _ := strings.Cut(first[0], " ")
	status, got := u.append(ladder, entry{"kind": "stepDone", "skill": skill, "step": 1})
	require.Equal(t, http.StatusOK, status, got)
	require.NotContains(t, fmt.Sprint(bites()), skill+" ")
	// Had it been eight days ago, the next step would be due.
	other := newStudent(t, u)
	u.append(other, entry{"kind": "stepDone", "skill": skill, "step": 1, "at": now.AddDate(0, 0, -8).Format(time.RFC3339)})
	ladder = other
	_, view := u.call("GET", "/api/ladders/"+other, nil)
	for _, p := range items(t, view, "plantings") {
		if p["skill"] == skill {
			step := p["steps"].([]any)[0].(map[string]any)
			require.EqualValues(t, 2, step["step"])
			return
		}
	}
	t.Fatal("the second step is not planned")
}

// What a piece is like is proposed from its notes, and kept by the teacher.
func TestMoodsAreProposedAndKept(t *testing.T) {
	u := teacher(t)
	id := storetest.ID()
	hop := "X:1\nT:Hop\nM:4/4\nL:1/8\nQ:1/4=120\nK:C\n!mf!.C.E.G.E .C.E.G.E|.D.F.A.F .D.F.A.F|\n"
	status, got := u.call("POST", "/api/materials", scoreBody(id, "hop.abc", hop))
	require.Equal(t, http.StatusCreated, status, got)
	proposed := func() (out []any) {
		_, piece := u.call("GET", "/api/materials/"+id, nil)
		for _, p := range items(t, piece, "proposed") {
			out = append(out, p["tag"])
		}
		return out
	}
	require.Equal(t, []any{"lively", "comic"}, proposed())
	status, _ = u.call("PATCH", "/api/materials/"+id, map[string]any{"title": "Hop", "composer": "", "tags": []string{"comic"}})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, []any{"lively"}, proposed())
}
