package api_test

import (
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store/storetest"
)

// newStudent adds a student whose lesson is on the weekday of the clock, and returns the ladder.
func (u *user) newStudent(name, instrument string) string {
	ladder := storetest.ID()
	status, body := u.call("POST", "/api/students", map[string]any{
		"student": storetest.ID(), "ladder": ladder, "name": name, "born": "2015-01-01", "instrument": instrument,
		"weekday": int(now.Weekday()), "startsAt": "10:00", "minutes": 30,
	})
	require.Equal(u.t, http.StatusCreated, status, body)
	return ladder
}

func (u *user) technique(ladder string) map[string]any {
	status, body := u.call("GET", "/api/ladders/"+ladder+"/technique", nil)
	require.Equal(u.t, http.StatusOK, status, body)
	return body
}

// take puts an exercise on a ladder and begins it.
func (u *user) take(ladder, exercise string) string {
	status, body := u.call("POST", "/api/ladders/"+ladder+"/exercises", map[string]any{"exercise": exercise})
	require.Equal(u.t, http.StatusCreated, status, body)
	id := body["material"].(string)
	status, body = u.append(ladder, entry{"kind": "assigned", "material": id})
	require.Equal(u.t, http.StatusOK, status, body)
	return id
}

func first(list any) map[string]any { return list.([]any)[0].(map[string]any) }

// An exercise on a ladder is a material: it is worked at with its goals, its usual
// faults get marks, the lesson shows both, clearing it moves the staircase.
func TestAnExerciseIsTakenMarkedAndClimbed(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Nell Quay", "piano")
	began := u.technique(ladder)
	require.Empty(t, began["now"])
	next := first(began["proposed"])
	require.Equal(t, "five-finger/parallel/C/major-five-finger/-", next["exercise"])
	require.NotEmpty(t, next["reasons"])

	// Put ahead it stands on the ladder and is proposed no more; taken off it is proposed again.
	status, body := u.call("POST", "/api/ladders/"+ladder+"/exercises", map[string]any{"exercise": next["exercise"]})
	require.Equal(t, http.StatusCreated, status, body)
	put := u.technique(ladder)
	require.Equal(t, next["exercise"], first(put["ahead"])["exercise"])
	require.Len(t, put["proposed"], 1, "all else waits for it, but rhythm that is spoken")
	require.Equal(t, "rhythm-study/right/-/-/walk", first(put["proposed"])["exercise"])
	require.Equal(t, "Next for Nell: C major, five fingers, hands together, the same way.", put["sentence"])
	status, _ = u.call("DELETE", "/api/ladders/"+ladder+"/rungs/"+body["material"].(string), nil)
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, next["exercise"], first(u.technique(ladder)["proposed"])["exercise"])

	id := u.take(ladder, "scale/apart/Db/major/-")
	require.Equal(t, id, u.take(ladder, "scale/apart/Db/major/-"), "the same exercise is one material")
	now := first(u.technique(ladder)["now"])
	require.Equal(t, "D♭ major scale", now["title"])
	require.Len(t, now["goals"], 3)
	fault := first(now["faults"])["id"]
	require.Equal(t, "fault.elbow-swings", fault)
	status, body = u.append(ladder, entry{"kind": "mark", "material": id, "focus": fault, "mark": "none"})
	require.Equal(t, http.StatusOK, status, body)
	status, body = u.append(ladder, entry{"kind": "mark", "material": id, "focus": "fault.no-such", "mark": "none"})
	require.Equal(t, http.StatusUnprocessableEntity, status, body)
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	piece := first(lesson["pieces"])
	require.Equal(t, "scale/apart/Db/major/-", piece["exercise"])
	require.Equal(t, "none", first(piece["faults"])["mark"])
	require.Equal(t, "technique", piece["strand"])
	log := lesson["log"].([]any)
	require.Equal(t, "Fault: the elbow swings out for the thumb, seen", log[len(log)-1].(map[string]any)["text"])

	// It asks for what its notes and its step ask for.
	status, m := u.call("GET", "/api/materials/"+id, nil)
	require.Equal(t, http.StatusOK, status)
	demands := map[string]string{}
	for _, d := range m["demands"].([]any) {
		demands[d.(map[string]any)["skill"].(string)] = d.(map[string]any)["origin"].(string)
	}
	require.Equal(t, "teacher", demands["thumb-under"])
	require.Equal(t, true, m["hasScore"])
	res := u.raw("GET", "/api/materials/"+id+"/score", nil, nil)
	score, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Contains(t, string(score), "<fifths>-5</fifths>")

	// Only the right hand until the left was taught: the week says what is not yet.
	status, body = u.append(ladder, entry{"kind": "gate", "material": id, "gate": "right"})
	require.Equal(t, http.StatusOK, status, body)
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	require.Contains(t, strings.Join(texts(week["notYet"]), "; "), "D♭ major")

	status, body = u.append(ladder, entry{"kind": "cleared", "material": id})
	require.Equal(t, http.StatusOK, status, body)
	after := u.technique(ladder)
	for _, s := range after["stairs"].([]any) {
		if st := s.(map[string]any); st["type"] == "scale" {
			require.Equal(t, "scale/apart/C/major/-", st["next"].(map[string]any)["exercise"], "begun, so that it no longer waits")
			require.Len(t, first(st["steps"])["through"], 1)
		}
	}
	_, atlas := u.call("GET", "/api/technique/atlas?instrument=piano", nil)
	for _, r := range atlas["rows"].([]any) {
		if row := r.(map[string]any); row["ladder"] == ladder {
			cell := row["cells"].([]any)[7].(map[string]any) // by fifths from C
			require.Equal(t, "D♭", cell["key"])
			require.Equal(t, 1.0, cell["through"])
			require.Equal(t, "scale/memory/Db/major/-", cell["exercise"], "the second pass is from memory")
		}
	}
	for says, path := range map[string]string{
		"is not a key":                   "/api/exercise?instrument=piano&exercise=scale/apart/H/major/-",
		"no step":                        "/api/exercise?instrument=piano&exercise=scale/nine/C/major/-",
		"There is no instrument \"kazoo": "/api/exercise?instrument=kazoo",
		"There is no kind":               "/api/technique/atlas?instrument=piano&kind=blues",
	} {
		status, problem := u.call("GET", path, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status, path)
		require.Contains(t, problem["detail"], says)
	}
	status, body = u.call("POST", "/api/ladders/"+ladder+"/exercises", map[string]any{"exercise": "roll/open/-/-/out-and-back"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, body["detail"], "for the piano")
}

func texts(list any) (out []string) {
	for _, x := range list.([]any) {
		out = append(out, x.(string))
	}
	return out
}

// A cycle is kept on the ladder: its key of the week is proposed, a missed lesson moves
// the rest and says so, a key that is through says that the next pass is from memory.
func TestACycleIsKept(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Osk Thole", "piano")
	day := func(weeks int) string { return now.AddDate(0, 0, 7*weeks).Format(time.DateOnly) }
	cycle := map[string]any{"type": "scale", "step": "apart", "kind": "major", "first": "B", "order": "fifths", "from": day(0)}
	status, body := u.append(ladder, entry{"kind": "cycle", "cycle": cycle})
	require.Equal(t, http.StatusOK, status, body)
	kept := u.technique(ladder)
	require.Equal(t, cycle, kept["cycleEntry"])
	require.Equal(t, "scale/apart/B/major/-", first(kept["proposed"])["exercise"], "though the staircase has other exercises first")
	require.Contains(t, first(kept["proposed"])["reasons"].([]any)[len(first(kept["proposed"])["reasons"].([]any))-1], "key of the week")
	require.Equal(t, day(12), kept["cycle"].(map[string]any)["end"])

	id := u.take(ladder, "scale/apart/B/major/-")
	status, _ = u.append(ladder, entry{"kind": "cleared", "material": id}, entry{"kind": "missed", "day": day(1)})
	require.Equal(t, http.StatusOK, status)
	slid := u.technique(ladder)["cycle"].(map[string]any)
	require.Equal(t, day(13), slid["end"])
	require.Contains(t, slid["sentence"], "A missed lesson moved the end by a week")
	require.Equal(t, "through", first(slid["weeks"])["state"])
	require.Equal(t, []any{day(1)}, slid["weeks"].([]any)[1].(map[string]any)["missed"])

	for says, bad := range map[string]map[string]any{
		"is not a key":         {"first": "H"},
		"no pass":              {"step": "ninth"},
		"no kind":              {"kind": "blues"},
		"not taken through":    {"type": "roll"},
		"needs a type, step, ": {"from": "Monday"},
	} {
		c := map[string]any{}
		for k, v := range cycle {
			c[k] = v
		}
		for k, v := range bad {
			c[k] = v
		}
		status, problem := u.append(ladder, entry{"kind": "cycle", "cycle": c})
		require.Equal(t, http.StatusUnprocessableEntity, status, bad)
		require.Contains(t, problem["detail"], says)
	}
	var holidays []string
	for year := range 4 {
		holiday := "/api/holidays/" + storetest.ID()
		holidays = append(holidays, holiday)
		status, body = u.call("PUT", holiday, map[string]any{"name": "Long leave", "first": day(52*year - 1), "last": day(52*year + 51)})
		require.Equal(t, http.StatusNoContent, status, body)
	}
	status, problem := u.call("GET", "/api/ladders/"+ladder+"/cycle?key=B&order=fifths", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "no lessons for this cycle")
	for _, h := range holidays {
		status, _ = u.call("DELETE", h, nil)
		require.Equal(t, http.StatusNoContent, status)
	}

	status, _ = u.append(
		ladder,
		entry{"kind": "cycle", "cycle": map[string]any{"type": "", "step": "", "kind": "", "first": "", "order": "fifths", "from": ""}},
	)
	require.Equal(t, http.StatusOK, status)
	require.NotContains(t, u.technique(ladder), "cycleEntry")
}

func TestATempoLadderIsKeptAndEased(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Mirren Slip", "piano")
	id := u.take(ladder, "scale/faster/C/major/-")
	status, _ := u.append(
		ladder,
		entry{"kind": "climb", "material": id, "climb": map[string]any{"from": 60, "to": 96, "weeks": 5}},
		entry{"kind": "tempo", "material": id, "tempo": 66, "held": true},
	)
	require.Equal(t, http.StatusOK, status)
	climb := first(u.technique(ladder)["now"])["climb"].(map[string]any)
	require.Equal(t, []any{66.0, 72.0, 80.0, 88.0, 96.0}, climb["marks"])
	require.Equal(t, 72.0, climb["mark"])
	status, _ = u.append(ladder, entry{"kind": "tempo", "material": id, "tempo": 72, "held": false})
	require.Equal(t, http.StatusOK, status)
	climb = first(u.technique(ladder)["now"])["climb"].(map[string]any)
	require.Equal(t, 66.0, climb["mark"])
	require.Contains(t, climb["sentence"], "eased back once")
	status, problem := u.append(ladder, entry{"kind": "climb", "material": id, "climb": map[string]any{"from": 96, "to": 60, "weeks": 5}})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "ladder rises")
}

// A cello, a ukulele, and instruments that are data alone.
func TestExercisesOnStrings(t *testing.T) {
	u := teacher(t)
	get := func(query string) map[string]any {
		status, e := u.call("GET", "/api/exercise?"+query, nil)
		require.Equal(t, http.StatusOK, status, e)
		return e
	}
	// D major on the cello: the open strings A and D with 1 3 4, G and C with 1 2 4 (common practice
	// for first position: F sharp and C sharp are the third finger).
	cello := get("instrument=cello&exercise=string-scale/one/D/major/-")
	require.Len(t, cello["patterns"], 4)
	d := cello["patterns"].([]any)[1].(map[string]any)
	require.Equal(t, "D", d["name"])
	var fingers []any
	for _, s := range d["stops"].([]any) {
		fingers = append(fingers, s.(map[string]any)["finger"])
	}
	require.Equal(t, []any{0.0, 1.0, 3.0, 4.0}, fingers)
	roll := get("instrument=ukulele&exercise=roll/open/-/-/out-and-back")
	require.Len(t, roll["strings"], 4)
	require.Contains(
		t,
		roll["sentence"],
		"The thumb (p) has string 4, the index (i) has string 3, the middle finger (m) has string 2 and the ring finger (a) has string 1; no finger plays twice in a row",
	)
	for _, x := range u.list("/api/instruments") {
		if x["family"] == "none" {
			continue // without data of its own
		}
		e := get("instrument=" + x["id"].(string))
		require.NotEmpty(t, e["notes"])
		require.NotEmpty(t, e["choices"])
		for _, c := range e["choices"].([]any) {
			for _, o := range c.(map[string]any)["options"].([]any) {
				get("instrument=" + x["id"].(string) + "&exercise=" + o.(map[string]any)["id"].(string))
			}
		}
		res := u.raw("GET", "/api/exercise/sheet?instrument="+x["id"].(string), nil, nil)
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.Equal(t, http.StatusOK, res.StatusCode)
		require.True(t, strings.HasPrefix(string(data), "%PDF-"))
	}
}

// Of many cleared scales one is reviewed at a time: the most faded; when it was heard today it stays
// the one of today. What a later step keeps alive is not reviewed.
func TestScalesAreReviewedOneAtATime(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Tove Lunt", "piano")
	ids := map[string]string{}
	for i, key := range []string{"C", "G", "D"} {
		status, body := u.call("POST", "/api/ladders/"+ladder+"/exercises", map[string]any{"exercise": "scale/apart/" + key + "/major/-"})
		require.Equal(t, http.StatusCreated, status)
		id := body["material"].(string)
		ids[key] = id
		status, body = u.append(ladder, entry{"kind": "cleared", "material": id, "at": now.AddDate(0, 0, -60+10*i).Format(time.RFC3339)})
		require.Equal(t, http.StatusOK, status, body)
	}
	reviews := func() (out []string) {
		_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
		for _, r := range lesson["reviews"].([]any) {
			out = append(out, r.(map[string]any)["material"].(string))
		}
		return out
	}
	require.Equal(t, []string{ids["C"]}, reviews())
	status, _ := u.append(ladder, entry{"kind": "hearing", "material": ids["C"], "rating": 3})
	require.Equal(t, http.StatusOK, status)
	require.Equal(t, []string{ids["C"]}, reviews(), "heard today: the others wait for another day")
	// C is taken up again on the next step, which keeps it alive; then G is the most faded.
	u.take(ladder, "scale/memory/C/major/-")
	require.Equal(t, []string{ids["G"]}, reviews())
	_, library := u.call("GET", "/api/library?instrument=piano", nil)
	require.NotContains(t, library["sentence"], "exercise")
	exercises := 0
	for _, m := range library["loose"].([]any) {
		if m.(map[string]any)["exercise"] != "" {
			exercises++
		}
	}
	require.GreaterOrEqual(t, exercises, 4)
	res := u.raw("GET", "/api/library/export?format=json", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.False(
		t,
		strings.Contains(string(data), "major scale: one octave, hands apart"),
		"exercises follow from the data and are not carried",
	)
}

// An exercise goes home like a piece: on the published week with its bars drawn, to be ticked; its goals
// are what the family listens for, and on the way so far it stands among what is learned.
func TestAnExerciseGoesHome(t *testing.T) {
	u, family := teacher(t), anyone(t)
	ladder := u.newStudent("Orla Spindrift", "piano")
	id := u.take(ladder, "five-finger/parallel/G/major-five-finger/-")
	_, token := u.published(ladder, "")
	status, page := family.call("GET", "/api/family/"+token, nil)
	require.Equal(t, http.StatusOK, status, page)
	found := 0
	for _, d := range daysOf(page) {
		for _, it := range itemsOf(d) {
			if strings.Contains(it["title"].(string), "G major, five fingers") {
				found++
			}
		}
	}
	require.Positive(t, found)
	res := u.raw("GET", "/api/ladders/"+ladder+"/week/sheet", nil, nil)
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.True(t, strings.HasPrefix(string(data), "%PDF-"))
	status, _ = u.append(ladder, entry{"kind": "cleared", "material": id})
	require.Equal(t, http.StatusOK, status)
	_, page = family.call("GET", "/api/family/"+token, nil)
	path := page["path"].([]any)
	require.Equal(t, "learned", path[len(path)-1].(map[string]any)["state"])
}

// A bite that was shown in the lesson is done again at home with its exercise; the lesson names it with
// the string and the key of the piece that needs it.
func TestBitesCarryTheirExercise(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Tobias")
	_, lesson := u.call("GET", "/api/ladders/"+ladder+"/lesson", nil)
	var skills []any
	var bite map[string]any
	for _, b := range items(t, lesson, "bites") {
		if skills = append(skills, b["skill"]); b["skill"] == "second-finger-bowed" {
			bite = b
		}
	}
	require.Equal(t, []any{"second-finger-bowed"}, skills)
	exercise := bite["exercise"].(map[string]any)
	require.Regexp(t, "^finger-pattern/[a-z]+/[A-G]b?/major/[1-4]$", exercise["id"])
	// The pattern on that string has a second finger: that is what the piece needs.
	_, e := u.call("GET", "/api/exercise?instrument=cello&exercise="+exercise["id"].(string), nil)
	fingers := map[float64]bool{}
	for _, n := range e["notes"].([]any) {
		fingers[n.(map[string]any)["finger"].(float64)] = true
	}
	require.True(t, fingers[2])
	require.False(t, fingers[3])
	heard, done := storetest.ID(), storetest.ID()
	status, body := u.append(ladder, entry{"id": heard, "kind": "hearing", "material": first(lesson["reviews"])["material"], "rating": 3},
		entry{"id": done, "kind": "stepDone", "skill": bite["skill"], "step": bite["step"]})
	require.Equal(t, http.StatusOK, status, body)
	_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
	words := ""
	for _, d := range daysOf(week) {
		for _, it := range itemsOf(d) {
			if it["kind"] == "preview" {
				words = it["words"].(string)
			}
		}
	}
	require.Contains(t, words, "string: pattern of")
	status, _ = u.append(ladder, entry{"kind": "correction", "corrects": heard}, entry{"kind": "correction", "corrects": done})
	require.Equal(t, http.StatusOK, status)
}

// The scales of a cello go through the keys that it can play; minor keys by the names that are written.
func TestACycleOnStringsAndInMinor(t *testing.T) {
	u := teacher(t)
	cello := u.newStudent("Brae Lowther", "cello")
	status, c := u.call("GET", "/api/ladders/"+cello+"/cycle?key=D&order=fifths", nil)
	require.Equal(t, http.StatusOK, status, c)
	require.Equal(t, "string-scale", c["type"])
	weeks := c["weeks"].([]any)
	require.Equal(t, "string-scale/one/D/major/-", first(weeks)["exercise"])
	require.GreaterOrEqual(t, len(weeks), 8)
	for _, w := range weeks {
		status, e := u.call("GET", "/api/exercise?instrument=cello&exercise="+w.(map[string]any)["exercise"].(string), nil)
		require.Equal(t, http.StatusOK, status, e)
	}
	piano := u.newStudent("Ren Ashby", "piano")
	_, minor := u.call("GET", "/api/ladders/"+piano+"/cycle?key=A&order=fifths&kind=harmonic-minor&step=together", nil)
	var keys []string
	for _, w := range minor["weeks"].([]any) {
		keys = append(keys, w.(map[string]any)["key"].(string))
	}
	require.Equal(t, "A E B F♯ C♯ G♯ E♭ B♭ F C G D", strings.Join(keys, " "))
	_, atlas := u.call("GET", "/api/technique/atlas?instrument=piano&kind=melodic-minor", nil)
	require.Equal(t, "melodic-minor", atlas["kind"])
	require.Len(t, atlas["keys"], 12)
	_, atlas = u.call("GET", "/api/technique/atlas?instrument=viola", nil)
	require.Equal(t, "Nobody plays this instrument here yet.", atlas["sentence"])
	// The ukulele takes nothing through the keys in a cycle; its atlas shows the scales on its frets.
	uke := u.newStudent("Kit Sorrel", "ukulele")
	status, problem := u.call("GET", "/api/ladders/"+uke+"/cycle?key=C&order=fifths", nil)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, problem["detail"], "not taken through the keys")
	require.Empty(t, u.technique(uke)["cycleTypes"])
	_, atlas = u.call("GET", "/api/technique/atlas?instrument=ukulele", nil)
	require.Equal(t, "fret-scale", atlas["type"])
}

// What a plan proposes is taken in one touch: the log names the exercise, and it comes onto the ladder with it.
func TestAnExerciseIsTakenByTheLog(t *testing.T) {
	u := teacher(t)
	ladder := u.newStudent("Nell Quay", "piano")
	status, body := u.append(ladder, entry{"kind": "assigned", "exercise": "scale/apart/Db/major/-"})
	require.Equal(t, http.StatusOK, status, body)
	now := first(u.technique(ladder)["now"])
	require.Equal(t, "scale/apart/Db/major/-", now["exercise"])
	require.Equal(t, now["material"], u.take(ladder, "scale/apart/Db/major/-"))
	status, body = u.append(
		ladder,
		entry{
			"kind":     "mark",
			"material": now["material"],
			"focus":    first(now["faults"])["id"],
			"mark":     "none",
			"exercise": "scale/apart/E/major/-",
		},
	)
	require.Equal(t, http.StatusOK, status, body)
	require.Len(t, u.technique(ladder)["now"], 1, "only what is assigned is taken")
}
