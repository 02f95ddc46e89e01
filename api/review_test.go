package api_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"
)

// A hearing changes the memory of a piece, and with it the review of the week, which says why.
func TestAHearingChangesTheReviewOfTheWeek(t *testing.T) {
	u := teacher(t)
	ladder := u.ladderOf("Caspian")
	picked := func() (ids []string, why map[string]string) {
		_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
		why = map[string]string{}
		for _, r := range items(t, week, "reviews") {
			ids = append(ids, r["material"].(string))
			why[r["material"].(string)] = r["why"].(string)
		}
		return
	}
	recall := func(material string) float64 {
		_, view := u.call("GET", "/api/ladders/"+ladder, nil)
		for _, rail := range items(t, view, "rails") {
			for _, r := range items(t, rail, "rungs") {
				if r["material"] == material {
					return r["recall"].(float64)
				}
			}
		}
		t.Fatalf("%s is not on the ladder", material)
		return 0
	}
	before, why := picked()
	require.NotEmpty(t, before)
	first := before[0]
	require.Regexp(t, `^\d+ % sure after`, why[first])
	sure := recall(first)
	status, got := u.append(ladder, entry{"kind": "hearing", "material": first, "rating": 4})
	require.Equal(t, http.StatusOK, status, got)
	require.Greater(t, recall(first), sure)
	after, why := picked()
	require.NotEqual(t, before, after, "another piece is more pressing now")
	if w, still := why[first]; still {
		require.Contains(t, w, "100 % sure, played today")
	}
}

// Every rung that is not learned yet says how long it usually takes, as a range with its reason.
func TestARungSaysHowLong(t *testing.T) {
	u := teacher(t)
	for _, name := range []string{"Ivo", "Caspian", "Henrik"} {
		_, view := u.call("GET", "/api/ladders/"+u.ladderOf(name), nil)
		said, early := 0, 0
		for _, rail := range items(t, view, "rails") {
			for _, r := range items(t, rail, "rungs") {
				if r["layer"] == "review" {
					require.Nil(t, r["howLong"], "a learned piece needs no forecast")
					continue
				}
				f := r["howLong"].(map[string]any)
				said++
				require.GreaterOrEqual(t, f["low"], 1.0, "never under a lesson's interval")
				require.LessOrEqual(t, f["low"], f["median"])
				require.Less(t, f["median"], f["high"])
				if f["words"] == "too early to say" {
					early++
					require.Regexp(t, `^It is too far from what was cleared so far: anything from \d+ to \d+ weeks would be said.$`, f["why"], r["title"])
					continue
				}
				require.Regexp(t, `^(often|usually|nearly always) (a week|\d+( to \d+)? weeks)$`, f["words"])
				require.Contains(t, f["why"], "of this student and")
			}
		}
		require.Positive(t, said)
		require.LessOrEqual(t, early, said/4, name)
	}
}

// The share of review is one number: ladder, week and studio show the same for every student.
func TestTheShareOfReviewIsOneNumber(t *testing.T) {
	u := teacher(t)
	_, overview := u.call("GET", "/api/overview", nil)
	students := items(t, overview, "students")
	require.GreaterOrEqual(t, len(students), 8)
	planned := 0
	for _, o := range students {
		student := o["student"].(map[string]any)
		ladder := student["ladder"].(string)
		_, week := u.call("GET", "/api/ladders/"+ladder+"/week", nil)
		_, view := u.call("GET", "/api/ladders/"+ladder, nil)
		require.Equal(t, week["review"], o["review"], "%s: studio and week", student["name"])
		require.Equal(t, week["review"], view["review"], "%s: ladder and week", student["name"])
		// And it is what the days of the week add up to.
		review, games, all := 0.0, 0.0, 0.0
		for _, day := range items(t, week, "days") {
			for _, it := range itemsOf(day) {
				all += it["minutes"].(float64)
				switch it["kind"] {
				case "game":
					games += it["minutes"].(float64)
				case "review":
					review += it["minutes"].(float64)
				}
			}
		}
		share := 0.0
		if all > games { // of nothing but games nobody says a share
			share = review / all
			planned++
		}
		require.InDelta(t, share, week["review"].(map[string]any)["share"], 0.0005, "%s", student["name"])
	}
	require.GreaterOrEqual(t, planned, 8)
}
