package api_test

import (
	"encoding/base64"
	"encoding/binary"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/midi"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/demand"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/storetest"
)

func upload(name, data string, piece int) map[string]any {
	return map[string]any{"fileName": name, "score": base64.StdEncoding.EncodeToString([]byte(data)), "instrument": "piano", "piece": piece}
}

const threeTunes = "X:1\nT:Tar\nL:1/4\nM:4/4\nQ:1/4=80\nK:C\nCDEF|G4|CDEF|C4|\n\nX:2\nT:Rope\nL:1/4\nM:4/4\nK:G\n\"G\"GABc|d4|[DG]4|E>FG2|\n%%MIDI program 3\n\nX:3\nT:Sail\nM:3/4\nL:1/4\nK:F\nFGA|A2F|\n"

// add puts one piece of a file into the library and returns its id.
func (u user) add(name, data string, piece int) string {
	id := storetest.ID()
	body := upload(name, data, piece)
	body["id"], body["strand"] = id, "repertoire"
	status, got := u.call("POST", "/api/materials", body)
	require.Equal(u.t, http.StatusCreated, status, got)
	return id
}

func (u user) piece(id, query string) map[string]any {
	status, got := u.call("GET", "/api/materials/"+id+query, nil)
	require.Equal(u.t, http.StatusOK, status, got)
	return got
}

func (u user) overrule(id string, body map[string]any) {
	status, got := u.call("PUT", "/api/materials/"+id+"/overrulings", body)
	require.Equal(u.t, http.StatusNoContent, status, got)
}

// A file is looked into before anything is kept: its pieces, what was skipped, what is known already.
func TestAFileIsReadBeforeItIsKept(t *testing.T) {
	u := teacher(t)
	status, got := u.call("POST", "/api/scores/read", upload("tunes.abc", threeTunes, 0))
	require.Equal(t, http.StatusOK, status, got)
	require.Equal(t, "ABC", got["format"])
	pieces := items(t, got, "pieces")
	require.Len(t, pieces, 3)
	require.Equal(t, "Rope", pieces[1]["title"])
	require.Equal(t, "directives %%MIDI", items(t, pieces[1], "skipped")[0]["what"])
	id := u.add("tunes.abc", threeTunes, 1)
	require.Equal(t, "Rope", u.piece(id, "")["material"].(map[string]any)["title"])

	tunes, err := abc.Read([]byte(threeTunes))
	require.NoError(t, err)
	_, got = u.call("POST", "/api/scores/read", upload("again.musicxml", string(musicxml.Write(tunes[1], musicxml.Options{})), 0))
	require.Equal(t, id, items(t, got, "pieces")[0]["same"], "the same music from another program is known")
	_, got = u.call("POST", "/api/scores/read", upload("played.mid", string(midi.Write(tunes[0])), 0))
	require.Equal(t, "MIDI", got["format"])
	status, got = u.call("POST", "/api/scores/read", upload("bad.abc", "X:1\nK:C\n", 0))
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Equal(t, "“bad.abc” cannot be read: tune 1: the tune holds no notes.", got["detail"])
	status, got = u.call("POST", "/api/materials", func() map[string]any {
		b := upload("tunes.abc", threeTunes, 9)
		b["id"], b["strand"] = storetest.ID(), "method"
		return b
	}())
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, got["detail"], "three pieces")
}

// One finger, one demand, one border and the tempo are corrected; they hold in
// the answer, in the exports, and in another file of the same piece.
func TestCorrectionsHoldAndSurvive(t *testing.T) {
	u := teacher(t)
	id := u.add("tunes.abc", threeTunes, 0)
	u.overrule(id, map[string]any{"kind": "finger", "part": 0, "staff": 1, "bars": []int{1}, "at": "1", "pitch": 62, "finger": "3"})
	u.overrule(id, map[string]any{"kind": "demand", "skill": "vibrato", "weight": 1.5, "bars": []int{2}})
	u.overrule(id, map[string]any{"kind": "demand", "skill": "quarter-notes", "weight": 0})
	u.overrule(id, map[string]any{"kind": "border", "bars": []int{1}, "ends": true})
	u.overrule(id, map[string]any{"kind": "tempo", "tempo": 66})
	check := func() {
		t.Helper()
		p := u.piece(id, "")
		own := 0
		for _, f := range items(t, items(t, p, "lines")[0], "fingers") {
			if f["own"] == true {
				own++
				require.EqualValues(t, 3, f["finger"])
				require.EqualValues(t, 62, f["pitch"])
			}
		}
		require.Equal(t, 1, own)
		demands := map[string]map[string]any{}
		for _, d := range items(t, p, "demands") {
			demands[d["skill"].(string)] = d
		}
		require.Equal(t, "teacher", demands["vibrato"]["origin"])
		require.NotContains(t, demands, "quarter-notes")
		require.EqualValues(t, 1, items(t, p, "chunks")[0]["to"])
		require.EqualValues(t, 66, p["tempo"])
		require.Len(t, items(t, p, "overruled"), 5)
	}
	check()

	export := func(query string) *score.Score {
		res := u.raw("GET", "/api/materials/"+id+"/export?"+query, nil, nil)
		defer res.Body.Close()
		require.Equal(t, http.StatusOK, res.StatusCode)
		require.Contains(t, res.Header.Get("Content-Disposition"), "Tar.")
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		_, pieces, err := scorefile.Read(data)
		require.NoError(t, err)
		return pieces[0]
	}
	tunes, err := abc.Read([]byte(threeTunes))
	require.NoError(t, err)
	want := tunes[0].Sounding()
	for _, query := range []string{"format=musicxml", "format=musicxml&fingers=true&colours=true&chunks=true", "format=midi", "format=abc"} {
		got := export(query)
		require.Len(t, got.Sounding(), len(want), query)
		for i, n := range got.Sounding() {
			require.Equal(t, fmt.Sprint(want[i].Onset, want[i].Duration, want[i].MIDI), fmt.Sprint(n.Onset, n.Duration, n.MIDI), query)
		}
		require.InDelta(t, 66, got.Tempo, 0.01, query)
		if query != "format=midi" {
			require.Equal(t, "3", got.Notes[1].Fingering, query)
		}
	}
	require.Equal(
		t,
		"2",
		export("format=musicxml&fingers=true").Notes[0].Fingering,
		"proposed fingers on request, beside the one that was set",
	)

	// The same piece with a bar before it, from another program.
	longer := strings.Replace(threeTunes, "CDEF|G4|", "E4|CDEF|G4|", 1)
	status, got := u.call("PUT", "/api/materials/"+id+"/score", upload("tunes2.abc", longer, 0))
	require.Equal(t, http.StatusOK, status, got)
	require.EqualValues(t, 5, got["kept"])
	require.Empty(t, got["lost"])
	p := u.piece(id, "")
	require.EqualValues(t, 5, p["bars"])
	for _, f := range items(t, items(t, p, "lines")[0], "fingers") {
		if f["own"] == true {
			require.EqualValues(t, 2, f["bar"], "the finger went with its bar")
		}
	}
	status, got = u.call("PUT", "/api/materials/"+id+"/score", upload("tunes.abc", threeTunes, 0))
	require.Equal(t, http.StatusOK, status, got)
	check()

	u.overrule(id, map[string]any{"kind": "tempo", "remove": true, "key": "tempo"})
	require.EqualValues(t, 80, u.piece(id, "")["tempo"])
	for says, body := range map[string]map[string]any{
		"no such note":  {"kind": "finger", "staff": 1, "bars": []int{1}, "at": "1", "pitch": 63, "finger": "3"},
		"no skill":      {"kind": "demand", "skill": "juggling", "weight": 1},
		"has no bar 40": {"kind": "border", "bars": []int{40}, "ends": true},
	} {
		status, got := u.call("PUT", "/api/materials/"+id+"/overrulings", body)
		require.Equal(t, http.StatusUnprocessableEntity, status)
		require.Contains(t, got["detail"], says)
	}
}

// A piece without a score asks for what the teacher says, and may get a score later.
func TestAPieceWithoutAScore(t *testing.T) {
	u := teacher(t)
	id := u.materialOf("Sur le pont d’Avignon")
	u.overrule(id, map[string]any{"kind": "demand", "skill": "sings-and-plays", "weight": 0.8})
	asked := func() string { return fmt.Sprint(u.piece(id, "")["demands"]) }
	require.Contains(t, asked(), "sings-and-plays")
	u.overrule(id, map[string]any{"kind": "demand", "skill": "sings-and-plays", "weight": 0})
	require.NotContains(t, asked(), "sings-and-plays")
	status, got := u.call("PUT", "/api/materials/"+id+"/overrulings", map[string]any{"kind": "tempo", "tempo": 60})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, got["detail"], "has no score")
	res := u.raw("GET", "/api/materials/"+id+"/score", nil, nil)
	res.Body.Close()
	require.Equal(t, http.StatusNotFound, res.StatusCode)
	status, got = u.call("PUT", "/api/materials/"+id+"/score", upload("pont.abc", threeTunes, 2))
	require.Equal(t, http.StatusOK, status, got)
	p := u.piece(id, "")
	require.EqualValues(t, 2, p["bars"])
	require.Contains(t, p["material"].(map[string]any)["title"], "Sur le pont", "the title stays")
	status, _ = u.call("PATCH", "/api/materials/"+id, map[string]any{"title": "On the Bridge", "composer": "traditional"})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, "On the Bridge", u.piece(id, "")["material"].(map[string]any)["title"])
	status, _ = u.call("PATCH", "/api/materials/"+id, map[string]any{"title": "  ", "composer": ""})
	require.Equal(t, http.StatusUnprocessableEntity, status)
}

// The page gets everything that the issue of reading asks for.
func TestAPieceAsItIsRead(t *testing.T) {
	u := teacher(t)
	fog := u.materialOf("Fog")
	p := u.piece(fog, "?ladder="+u.ladderOf("Maren"))
	line := items(t, p, "lines")[0]
	require.NotEmpty(t, items(t, line, "positions"))
	require.NotEmpty(t, items(t, line, "fingers"))
	require.NotEmpty(t, items(t, p, "chunks"))
	require.NotEmpty(t, items(t, p, "sounds"))
	require.Len(t, items(t, p, "barTimes"), int(p["bars"].(float64)))
	require.NotEmpty(t, p["playing"])
	ready := items(t, p, "readyFor")
	require.NotEmpty(t, ready)
	for _, r := range ready {
		require.NotEmpty(t, r["words"])
	}
	res := u.raw("GET", "/api/materials/"+fog+"/score", nil, nil)
	defer res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode)
}

// A MusicXML file is given back as it came, to the byte, until the teacher sets a finger; another file is written as MusicXML.
func TestAScoreIsGivenBack(t *testing.T) {
	u := teacher(t)
	score := func(id string) string { return u.read("/api/materials/" + id + "/score") }
	xml := storetest.ID()
	status, body := u.call("POST", "/api/materials", scoreBody(xml, "x.musicxml", tune))
	require.Equal(t, http.StatusCreated, status, body)
	require.Equal(t, tune, score(xml))
	u.overrule(xml, map[string]any{"kind": "finger", "part": 0, "staff": 1, "bars": []int{1}, "at": "0", "pitch": 60, "finger": "2"})
	require.Equal(t, 1, strings.Count(score(xml), "<fingering>2</fingering>"))
	typed := u.add("tar.abc", "X:1\nT:Tar\nL:1/4\nM:4/4\nK:C\nCDEF|G4|\n", 0)
	require.Contains(t, score(typed), "<work-title>Tar</work-title>")
}

func TestATypedTuneIsEngraved(t *testing.T) {
	u := teacher(t)
	status, got := u.call("POST", "/api/scores/typed", map[string]any{"abc": "L:1/4\nK:G\nGABc|d4|"})
	require.Equal(t, http.StatusOK, status, got)
	s, err := musicxml.Read([]byte(got["musicxml"].(string)))
	require.NoError(t, err)
	require.Len(t, s.Sounding(), 5)
	status, got = u.call("POST", "/api/scores/typed", map[string]any{"abc": "K:G\n"})
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, got["detail"], "no notes")
}

// The studio's words stand in every answer, and a student's own approach before the studio's.
func TestTheStudiosWords(t *testing.T) {
	u := signedIn(t, strangerEmail, strangerPassword)
	id := u.add("tunes.abc", strings.ReplaceAll(threeTunes, "FGA|", "B,2F|"), 2)
	set := func(notes, values string) {
		_, w := u.call("GET", "/api/words", nil)
		w["notes"], w["values"], w["approach"] = notes, values, "interval"
		status, got := u.call("PUT", "/api/words", w)
		require.Equal(t, http.StatusNoContent, status, got)
		w["version"] = 0
		status, _ = u.call("PUT", "/api/words", w)
		require.Equal(t, http.StatusConflict, status, "a stale form changes nothing")
	}
	set("letters-with-h", "quarter-notes")
	p := u.piece(id, "")
	require.Equal(t, "interval", p["approach"])
	require.Equal(t, "B3", items(t, items(t, p, "lines")[0], "notes")[0]["pitch"], "B flat is B")
	names := ""
	for _, d := range items(t, p, "demands") {
		names += d["name"].(string) + "; "
	}
	require.Contains(t, names, "half notes")
	set("solfege", "crotchets")
	require.Contains(t, fmt.Sprint(u.piece(id, "")["lines"]), "sib3")
	set("letters", "crotchets")

	owner := teacher(t)
	maren := owner.ladderOf("Maren")
	status, _ := owner.call("PUT", "/api/ladders/"+maren+"/approach", map[string]any{"approach": "position"})
	require.Equal(t, http.StatusNoContent, status)
	require.Equal(t, "position", owner.piece(owner.materialOf("Fog"), "?ladder="+maren)["approach"])
	_, week := owner.call("GET", "/api/ladders/"+maren+"/week", nil)
	require.NotEmpty(t, week["days"])
	owner.call("PUT", "/api/ladders/"+maren+"/approach", map[string]any{"approach": ""})
}

// The smallest chunks follow the age of the student for whom the piece is looked at.
func TestChunksFollowTheAge(t *testing.T) {
	u := teacher(t)
	id := u.add("tunes.abc", strings.Replace(threeTunes, "CDEF|G4|CDEF|C4|", "CDEF|GABc|cBAG|FEDC|CDEF|GABc|cBAG|FEDC|", 1), 0)
	leaves := func(query string) (list []string) {
		for _, c := range items(t, u.piece(id, query), "chunks") {
			if c["level"].(float64) == 0 {
				list = append(list, c["where"].(string))
			}
		}
		return
	}
	require.Len(t, leaves("?ladder="+u.ladderOf("Wren")), 8, "four years: about a bar")
	require.Len(t, leaves(""), 4)
	require.Equal(t, []string{"bars 1–4", "bars 5–8"}, leaves("?ladder="+u.ladderOf("Caspian")), "older: a phrase")
	p := u.piece(id, "?ladder="+u.ladderOf("Wren"))
	levels := map[float64]int{}
	for _, c := range items(t, p, "chunks") {
		levels[c["level"].(float64)]++
		require.NotEmpty(t, c["why"])
		require.Greater(t, c["end"], c["start"])
	}
	require.Equal(t, map[float64]int{0: 8, 1: 4, 2: 2, 3: 1}, levels, "two by two up to the whole")
	res := u.raw("GET", "/api/materials/"+id+"/export?format=musicxml&chunks=true&ladder="+u.ladderOf("Wren"), nil, nil)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	s, err := musicxml.Read(data)
	require.NoError(t, err)
	var marks []string
	for _, x := range s.Signs {
		if x.Kind == score.Rehearsal {
			marks = append(marks, fmt.Sprint(x.Text, "@", x.Bar))
		}
	}
	require.Equal(t, []string{"1@1", "2@2", "3@3", "4@4", "5@5", "6@6", "7@7", "8@8"}, marks)
}

// Nobody who is blocked stands before one who is ready, and each state has its reason.
func TestWhoIsReady(t *testing.T) {
	u := teacher(t)
	order := map[string]int{"ready": 0, "reach": 1, "blocked": 2, "begun": 3}
	seen := map[string]bool{}
	for _, m := range u.list("/api/materials") {
		id := m["id"].(string)
		last := 0
		for _, r := range items(t, u.piece(id, ""), "readyFor") {
			state := r["state"].(string)
			seen[state] = true
			require.GreaterOrEqual(t, order[state], last)
			last = order[state]
			switch state {
			case "ready":
				require.Contains(t, r["words"], "within")
			case "reach":
				require.Contains(t, r["words"], "a big jump")
			case "blocked":
				require.Contains(t, r["words"], "first: ")
			default:
				require.Regexp(t, "^has (begun|cleared) it$", r["words"])
			}
		}
	}
	require.Len(t, seen, 4, "the demo shows every state: %v", seen)
}

// What a student has met in cleared pieces is no longer explained.
func TestGuideNotesAreForWhatIsNotKnown(t *testing.T) {
	u := teacher(t)
	id := u.add("tunes.abc", threeTunes, 0)
	guided := func(query string) (list []string) {
		for _, g := range items(t, items(t, u.piece(id, query), "lines")[0], "guides") {
			list = append(list, g["words"].(string))
		}
		return
	}
	require.Equal(t, []string{"D is a second above middle C", "E is a third above middle C", "F is a second below G"}, guided(""))
	require.Empty(t, guided("?ladder="+u.ladderOf("Caspian")), "he has played them all")
}

// After an update of the rules the scores are read again; what teachers set holds.
func TestScoresAreReadAgainByNewRules(t *testing.T) {
	u := teacher(t)
	id := u.add("tunes.abc", threeTunes, 0)
	u.overrule(id, map[string]any{"kind": "demand", "skill": "vibrato", "weight": 1})
	u.overrule(id, map[string]any{"kind": "tempo", "tempo": 66})
	want := u.piece(id, "")["demands"]
	owner, err := db.TeacherByEmail(t.Context(), demo.Email)
	require.NoError(t, err)
	lib, err := db.Library(t.Context(), owner.StudioID)
	require.NoError(t, err)
	old := lib[id]
	require.Equal(t, demand.RulesVersion, old.Rules)
	old.Rules, old.Demands, old.Notes, old.Music, old.Composer = 0, nil, nil, "", ""
	require.NoError(t, db.SaveReading(t.Context(), owner.StudioID, store.Reading{Material: old}))
	require.NotEqual(t, want, u.piece(id, "")["demands"])
	n, err := api.Reread(t.Context(), db)
	require.NoError(t, err)
	require.Equal(t, 1, n, "only what is out of date")
	require.Equal(t, want, u.piece(id, "")["demands"])
	require.EqualValues(t, 66, u.piece(id, "")["tempo"])
	n, err = api.Reread(t.Context(), db)
	require.NoError(t, err)
	require.Zero(t, n)
}

// manyNotes is a MIDI file (SMF 1.0) of so many semiquavers, one after the other.
func manyNotes(n int) []byte {
	var track []byte
	for i := range n {
		key := byte(60 + i%12)
		track = append(track, 0, 0x90, key, 80, 24, 0x80, key, 0)
	}
	track = append(track, 0, 0xFF, 0x2F, 0)
	out := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk")
	out = binary.BigEndian.AppendUint32(out, uint32(len(track)))
	return append(out, track...)
}

// A file of a hundred thousand notes is read and refused in a sentence, wherever it could come in; nothing is kept.
func TestAPieceHasItsBounds(t *testing.T) {
	u := newcomer(t)
	large, small := manyNotes(100_000), manyNotes(400)
	body := func(data []byte) map[string]any {
		return map[string]any{
			"id":         storetest.ID(),
			"strand":     "repertoire",
			"instrument": "piano",
			"fileName":   "long.mid",
			"score":      base64.StdEncoding.EncodeToString(data),
		}
	}
	status, got := u.call("POST", "/api/materials", body(large))
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Regexp(
		t,
		`^“long\.mid” cannot be read: it has \d+ notes and rests; a piece may have 24000 at most\. Bring its movements one by one\.$`,
		got["detail"],
	)
	require.Empty(t, u.list("/api/materials"))
	fits := body(small)
	status, got = u.call("POST", "/api/materials", fits)
	require.Equal(t, http.StatusCreated, status, got)
	status, got = u.call(
		"PUT",
		"/api/materials/"+fits["id"].(string)+"/score",
		map[string]any{"fileName": "long.mid", "score": base64.StdEncoding.EncodeToString(large), "instrument": "piano", "piece": 0},
	)
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, got["detail"], "24000 at most")
	// Many bars with few notes are bounded as well.
	bars := "X:1\nL:1/4\nM:1/4\nK:C\n" + strings.Repeat("C|", 5_000)
	status, got = u.call("POST", "/api/materials", body([]byte(bars)))
	require.Equal(t, http.StatusUnprocessableEntity, status)
	require.Contains(t, got["detail"], "it has 5000 bars; a piece may have 4096 at most")
}
