package agree_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
	"patientladder/api/pagetest"
	"patientladder/store/storetest"
)

// mostTold is how many pieces a sentence of a report names.
const mostTold = 6

// begun is how many students of whom nothing is known are added.
const begun = 4

// unusual makes some of the lives unusual, once for all tests: holidays of the studio next week, every seventh student away
// for weeks, every fifth every other week from now on, every ninth with pieces of which only the title is known, one of them
// in work, and students of whom nothing is known.
var unusual = sync.OnceFunc(func() {
	day := func(days int) string { return pagetest.Monday().AddDate(0, 0, days).Format(time.DateOnly) }
	send("PUT", "/holidays/"+storetest.ID(), map[string]any{"name": "Regatta", "first": day(7), "last": day(13)})
	book := storetest.ID()
	send(
		"POST",
		"/library/import",
		map[string]any{
			"kind":       "list",
			"data":       []byte("1. The Cold Quay, p. 4\n2. Old Chain\n3. Nine Buoys\n"),
			"source":     book,
			"title":      "A torn notebook",
			"instrument": "piano",
		},
	)
	var titles []string
	var lib contract.LibraryView
	ask("/library?instrument=piano", &lib)
	for _, b := range lib.Books {
		if b.Id == book {
			var view contract.BookProfile
			ask("/library/books/"+book, &view)
			for _, l := range view.Lines {
				titles = append(titles, l.Material)
			}
		}
	}
	var all contract.Overview
	ask("/overview", &all)
	for i, o := range all.Students {
		at := "/ladders/" + o.Student.Ladder
		if i%7 == 3 {
			send("PUT", "/students/"+o.Student.Student+"/pauses/"+storetest.ID(), map[string]any{"first": day(1), "last": day(24)})
		}
		if s := o.Student; i%5 == 1 && s.Weekday >= 0 {
			send(
				"PUT",
				at+"/slots",
				map[string]any{
					"from":  day(0),
					"slots": []map[string]any{{"id": storetest.ID(), "weekday": s.Weekday, "startsAt": s.StartsAt, "minutes": s.Minutes, "every": 2}},
				},
			)
		}
		if i%9 == 4 && o.Student.Instrument == "piano" {
			for _, id := range titles {
				send("PUT", at+"/rungs/"+id, nil)
			}
			send(
				"POST",
				at+"/entries",
				map[string]any{
					"entries": []map[string]any{
						{"id": storetest.ID(), "at": pagetest.Monday().Add(-30 * time.Minute), "kind": "assigned", "material": titles[0]},
					},
				},
			)
		}
	}
	for i := range begun {
		send(
			"POST",
			"/students",
			map[string]any{
				"student":    storetest.ID(),
				"ladder":     storetest.ID(),
				"name":       "Nobody " + []string{"Quillon", "Ruskin", "Sedgely", "Thrifton"}[i],
				"born":       fmt.Sprintf("%d-03-01", 2020-4*i),
				"instrument": []string{"piano", "cello", "ukulele", "flute"}[i],
				"slots":      []map[string]any{{"id": storetest.ID(), "weekday": 2, "startsAt": "15:00", "minutes": 30, "every": 1 + i%2}},
			},
		)
	}
})

func send(method, path string, body any) {
	data, err := json.Marshal(body)
	if body == nil {
		data = nil
	}
	req, err2 := http.NewRequest(method, site.URL+"/api"+path, bytes.NewReader(data))
	if err != nil || err2 != nil {
		panic(fmt.Sprint(err, err2))
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := site.Client.Do(req)
	if err != nil {
		panic(err)
	}
	defer res.Body.Close()
	if res.StatusCode >= 300 {
		says, _ := io.ReadAll(res.Body)
		panic(fmt.Sprint(method, " ", path, ": ", res.Status, " ", string(says)))
	}
}

func ask(path string, into any) {
	res, err := site.Client.Get(site.URL + "/api" + path)
	if err != nil {
		panic(err)
	}
	defer res.Body.Close()
	if err := json.NewDecoder(res.Body).Decode(into); err != nil {
		panic(path + ": " + err.Error())
	}
}

// What was is told alike by the past lessons, by Progress, by the report and by the calendar, of the same days.
func TestWhatWasIsToldAlike(t *testing.T) {
	unusual()
	counted := map[string]int{}
	for _, o := range get[contract.Overview](t, "/overview").Students {
		name, at := o.Student.Name, "/ladders/"+o.Student.Ladder
		p := get[contract.Progress](t, at+"/progress")
		in := func(day string) bool {
			return day >= p.From.Format(time.DateOnly) && day <= p.To.Format(time.DateOnly)
		}
		var taught, told []string
		for _, l := range get[contract.Past](t, at+"/past").Lessons {
			if day := l.Day.Format(time.DateOnly); l.State == contract.PastLineStateTaught && in(day) {
				taught = append(taught, day)
			}
		}
		for _, d := range p.Lessons {
			told = append(told, d.Format(time.DateOnly))
		}
		require.ElementsMatch(t, taught, told, "%s: lessons, past and progress", name)
		counted["lessons"] += len(told)

		r := get[contract.Report](
			t,
			at+"/reports/"+storetest.ID()+"?"+url.Values{"from": {p.From.Format(time.DateOnly)}, "to": {p.To.Format(time.DateOnly)}}.Encode(),
		)
		said := map[string]string{}
		for _, s := range r.Sentences {
			said[s.Part] = s.Text
		}
		require.Equal(t, p.Days, r.Days, "%s: the span", name)
		require.Contains(t, said, "opening", name)
		if len(told) > 1 {
			require.Contains(t, p.Sentence, "essons: ", "%s: %q", name, p.Sentence)
			require.Contains(t, said["opening"], fmt.Sprint(lead(p.Sentence), " lessons"), "%s: lessons, progress and report", name)
		}
		cleared := map[string]bool{}
		for _, x := range p.Pieces {
			if x.To != "" && in(x.To) && x.Strand != contract.StrandTechnique && x.Strand != contract.StrandReading {
				cleared[x.Title] = true
			}
			require.LessOrEqual(t, x.From.Format(time.DateOnly), p.To.Format(time.DateOnly), "%s: %s", name, x.Title)
		}
		switch n := len(cleared); {
		case n == 0:
			require.Empty(t, said["cleared"], name)
		case n <= mostTold:
			for title := range cleared {
				require.Contains(t, said["cleared"], "“"+title+"”", "%s: cleared, progress and report", name)
			}
		default:
			require.Contains(t, said["cleared"], fmt.Sprintf(" and %d more.", n-mostTold), "%s: cleared, progress and report", name)
		}
		counted["cleared"] += len(cleared)
		for _, x := range o.Signs {
			if x.Kind == contract.SignKindRun {
				require.NotContains(t, said["care"], titleOf(o, x.Material), "%s: it is ready for a run", name)
				counted["runs"]++
			}
		}
	}
	require.Positive(t, counted["lessons"])
	require.Positive(t, counted["cleared"])
	require.Positive(t, counted["runs"])
}

func titleOf(o contract.OverviewStudent, material string) string {
	for _, w := range o.Working {
		if w.Material == material {
			return "“" + w.Title + "”"
		}
	}
	return material
}

// lead is the first word of a sentence in small letters.
func lead(sentence string) string {
	word, _, _ := bytes.Cut([]byte(sentence), []byte(" "))
	return string(bytes.ToLower(word))
}
