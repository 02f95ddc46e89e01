package agree_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
)

// publish shows a family the week of a ladder and returns its page.
func publish(t *testing.T, ladder string) (contract.Week, contract.FamilyPage) {
	t.Helper()
	w := get[contract.Week](t, "/ladders/"+ladder+"/week")
	if !w.Published || w.Changed || w.Family.Link == "" {
		body, err := json.Marshal(map[string]any{"version": w.Hand.Version, "plan": w.Plan})
		require.NoError(t, err)
		res, err := site.Client.Post(
			site.URL+"/api/ladders/"+ladder+"/week/publish?day="+w.Start.Format("2006-01-02"),
			"application/json",
			bytes.NewReader(body),
		)
		require.NoError(t, err)
		defer res.Body.Close()
		require.Equal(t, http.StatusOK, res.StatusCode)
		w = contract.Week{}
		require.NoError(t, json.NewDecoder(res.Body).Decode(&w))
	}
	return w, get[contract.FamilyPage](t, "/family/"+strings.TrimPrefix(w.Family.Link, "/home/")+"?week="+w.Start.Format("2006-01-02"))
}

// Whoever sits beside the child and reads no music is told of every thing to do which hand, where it begins, how often,
// how fast and by what it is good enough, where that can be known; what cannot is counted and printed. What was new on a day
// is played on the next, and the family's page is the teacher's week.
func TestNothingIsMissingAtHome(t *testing.T) {
	unusual()
	gaps, seen := map[string]int{}, map[string]int{}
	all := get[contract.Overview](t, "/overview").Students
	for i, o := range all {
		w, page := publish(t, o.Student.Ladder)
		if i%10 == 0 {
			alone(t, page, o.Student, all)
		}
		require.Len(t, page.Days, len(w.Days), o.Student.Name)
		for k, d := range page.Days {
			music := map[string]bool{}
			asked := len(d.Items) > 0 && (i+k)%3 == 0 // the notes of every third day, another one for each student
			if asked {
				music = heard(t, w, d)
			}
			i := k
			for k, it := range d.Items {
				name := fmt.Sprintf("%s, %s, %s %s", o.Student.Name, d.Date.Format("Monday"), it.Kind, it.Title)
				require.Equal(t, w.Days[i].Items[k].Key, it.Key, name)
				seen[string(it.Kind)]++
				if asked {
					complete(t, name, it, music, gaps)
				}
			}
			if i > 0 {
				again(t, o.Student.Name, page.Days[i-1], d)
			}
		}
	}
	for _, kind := range []string{"chunk", "join", "whole", "again", "review", "drill", "preview", "look"} {
		require.Positive(t, seen[kind], kind)
	}
	for _, gap := range slices.Sorted(maps.Keys(gaps)) {
		t.Logf("not known: %s, %d times", gap, gaps[gap])
	}
}

// heard is what sounds on a day; the notes of each thing are there.
func heard(t *testing.T, w contract.Week, d contract.FamilyDay) map[string]bool {
	t.Helper()
	scores := get[contract.FamilyScores](t, "/family"+strings.TrimPrefix(w.Family.Link, "/home")+"/days/"+d.Date.Format("2006-01-02")+"?week="+w.Start.Format("2006-01-02"))
	music, notes := map[string]bool{}, map[string]bool{}
	for _, m := range scores.Music {
		music[m.Key] = true
	}
	for _, x := range scores.Excerpts {
		notes[x.Key] = true
	}
	for _, it := range d.Items {
		require.True(t, it.Excerpt == "" || notes[it.Excerpt], "no notes of %s", it.Key)
	}
	return music
}

// alone: in no field of a family's page stands a name of another student, more of one's own than the first, or what the
// teacher noted for herself.
func alone(t *testing.T, page contract.FamilyPage, me contract.Student, all []contract.OverviewStudent) {
	t.Helper()
	require.Empty(t, page.Others, me.Name)
	data, err := json.Marshal(page)
	require.NoError(t, err)
	var fields []string
	var walk func(any)
	walk = func(x any) {
		switch x := x.(type) {
		case string:
			fields = append(fields, x)
		case []any:
			for _, y := range x {
				walk(y)
			}
		case map[string]any:
			for key, y := range x {
				if key != "texts" && key != "teacher" && key != "studio" {
					walk(y)
				}
			}
		}
	}
	var tree any
	require.NoError(t, json.Unmarshal(data, &tree))
	walk(tree)
	text := strings.Join(fields, "\n")
	for _, o := range all {
		require.NotContains(t, text, o.Student.Name, "%s: %s", me.Name, o.Student.Name)
	}
	_, family, _ := strings.Cut(me.Name, " ")
	if family != "" {
		require.NotContains(t, text, family, me.Name)
	}
	for _, e := range get[[]contract.Entry](t, "/ladders/"+me.Ladder+"/entries") {
		if e.Kind == contract.EntryKindNote && len(e.Text) > 12 {
			require.NotContains(t, text, e.Text, me.Name)
		}
	}
}

func complete(t *testing.T, name string, it contract.FamilyItem, music map[string]bool, gaps map[string]int) {
	t.Helper()
	c := it.Card
	require.NotEmpty(t, c.Kind, name)
	require.NotEmpty(t, c.Good, name)
	require.NotEmpty(t, c.End, name)
	require.NotEmpty(t, c.Child+c.Parent, name)
	require.LessOrEqual(t, len([]rune(c.Good)), 160, name)
	words := it.Kind == contract.FamilyItemKindGame || it.Kind == contract.FamilyItemKindPreview || it.Kind == contract.FamilyItemKindListen
	if !words {
		require.Positive(t, max(it.Times, len(c.Child)), name)
	}
	if !music[it.Music] { // no score: words, and the gap is said
		if !words {
			gaps["no score: "+string(it.Kind)]++
			require.NotEmpty(t, c.Gap, name)
		}
		return
	}
	if it.Kind == contract.FamilyItemKindListen || it.Kind == contract.FamilyItemKindGame {
		return
	}
	require.NotEmpty(t, c.Hands, name)
	for _, h := range c.Hands {
		require.NotEmpty(t, h.Start, name)
		require.NotEmpty(t, h.Touches, name)
		if h.Finger == "" {
			gaps["no finger"]++
		}
	}
	require.NotEmpty(t, it.Excerpt, "%s: no notes", name)
	if it.Kind != contract.FamilyItemKindLook && it.Kind != contract.FamilyItemKindHear {
		if it.Beats == 0 {
			gaps["no tempo"]++
		} else {
			require.NotEmpty(t, c.Tempo, name)
		}
	}
}

// again: what was new on a day of practice is played on the next one.
func again(t *testing.T, name string, before, day contract.FamilyDay) {
	t.Helper()
	if before.Rest || day.Rest {
		return
	}
	covered := func(it contract.FamilyItem) bool {
		return slices.ContainsFunc(day.Items, func(x contract.FamilyItem) bool {
			return x.Material == it.Material && (it.Hand == "" || x.Hand == it.Hand || x.Hand == "") && x.Start <= it.Start+1e-6 &&
				x.End >= it.End-1e-6
		})
	}
	played := func(material string) bool {
		return slices.ContainsFunc(day.Items, func(x contract.FamilyItem) bool { return x.Material == material })
	}
	for _, it := range before.Items {
		if it.Kind == contract.FamilyItemKindChunk && played(it.Material) {
			require.True(
				t,
				covered(it),
				"%s: %s %s on %s is not played on the day after",
				name,
				it.Title,
				it.Card.Where,
				before.Date.Format("Monday"),
			)
		}
	}
}
