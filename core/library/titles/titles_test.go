package titles

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var library = []Title{
	{"1", "Ode to Joy", "Ludwig van Beethoven"}, {"2", "Minuet in G", "Christian Petzold"}, {"3", "Minuet in G minor", "Christian Petzold"},
	{"4", "Für Elise", "Ludwig van Beethoven"},
	{"5", "Low Water", ""}, {"6", "Two Boats", ""}, {"7", "Two Goats", ""}, {"8", "Low Water", "another"},
}

func TestLinesOfAList(t *testing.T) {
	titles := func(text string) (out []string) {
		for _, e := range Read(text) {
			out = append(out, e.Title)
		}
		return out
	}
	require.Equal(t, []string{"Ode to Joy", "Low Water", "Two Boats", "3 Blind Mice", "Minuet in G"},
		titles("  1. Ode to Joy\r\n\n2) “Low Water”,\n - Two Boats\n3 Blind Mice\n (4) Minuet in G\n ... \n"))
	require.Empty(t, titles(" \n--\n"))
	require.Equal(
		t,
		[]string{"Ode to Joy", "Blind Mice", "Low Water"},
		titles("1 Ode to Joy\n2 Blind Mice\n5 Low Water"),
		"most lines are numbered",
	)
	require.Equal(
		t,
		[]string{"3 Blind Mice", "2 Boats", "Low Water"},
		titles("3 Blind Mice\n2 Boats\nLow Water"),
		"the numbers do not rise: they belong to the titles",
	)
}

// What stands around a title in a notebook is read, and not kept in the name.
func TestALineOfANotebook(t *testing.T) {
	for line, want := range map[string]Entry{
		"12. Low Water p. 6 - finished Feb":    {Title: "Low Water", Page: 6, Month: time.February},
		"Low Water (done in March 2026)":       {Title: "Low Water", Month: time.March, Year: 2026},
		"Low Water – cleared, page 12":         {Title: "Low Water", Page: 12},
		"2.3 Rope Ladder, pg 7":                {Title: "Rope Ladder", Unit: "Unit 2", Page: 7},
		"Unit 4: Gull Rock ✓":                  {Title: "Gull Rock", Unit: "Unit 4"},
		"Chapter IV - 2) Gull Rock":            {Title: "Gull Rock", Unit: "Chapter IV"},
		"Two Boats":                            {Title: "Two Boats"},
		"Work to be done":                      {Title: "Work to be done"},
		"The Done Thing - finished Marching":   {Title: "The Done Thing - finished Marching"},
		"3/4 Waltz (done Sept. 2025)":          {Title: "3/4 Waltz", Month: time.September, Year: 2025},
		"6/8 March":                            {Title: "6/8 March"},
		"Song - finished quickly":              {Title: "Song - finished quickly"},
		"Study in C, op. 6":                    {Title: "Study in C, op. 6"},
		"Waltz (page 3) - learned January 24x": {Title: "Waltz (page 3) - learned January 24x"},
	} {
		want.Line = 1
		require.Equal(t, []Entry{want}, Read(line), line)
	}
	today := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	when := func(e Entry) string {
		day, ok := e.When(today)
		if !ok {
			return ""
		}
		return day.Format(time.DateOnly)
	}
	require.Equal(t, []string{"2026-02-15", "2025-06-15", "2026-05-04", "2024-02-15", "2024-07-01", ""}, []string{
		when(Entry{Month: 2}), when(Entry{Month: 6}), when(Entry{Month: 5}), when(Entry{Month: 2, Year: 2024}), when(Entry{Year: 2024}),
		when(Entry{}),
	}, "the last such month, never one to come")
}

func TestWhatALineMeans(t *testing.T) {
	for line, want := range map[string]string{
		"ode to joy": "1 sure", "Ode To Joy (Beethoven)": "1 sure", "Beethoven: Ode to Joy": "1 sure", "Fur Elise": "4 sure",
		"FÜR ELISE":   "4 sure",
		"Minuet in G": "2 sure", "Minuet in g minor": "3 sure", "Minuet G": "2 doubtful", "Ode to Jyo": "1 doubtful",
		"Ode to the Joy": "1 doubtful",
		"Two Coats":      "6 doubtful", "Low Water": "5 doubtful", "Harbour Lights": "", "": "", "x": "",
	} {
		m := Find(line, library)
		got := m.Best.ID
		if got != "" && m.Sure {
			got += " sure"
		} else if got != "" {
			got += " doubtful"
		}
		require.Equal(t, want, got, "%s is %.2f like %q", line, m.Alike, m.Best.Title)
	}
}

// Worked examples of the edit distance with neighbours that change places: kitten and sitting are three
// edits apart (Levenshtein's distance as every textbook has it), "ca" and "ac" one.
func TestTheRatioOfTwoTexts(t *testing.T) {
	require.InDelta(t, 1-3.0/7, ratio("kitten", "sitting"), 1e-12)
	require.InDelta(t, 0.5, ratio("ca", "ac"), 1e-12)
	require.InDelta(t, 0, ratio("abc", "xyz"), 1e-12)
}

func TestATitleIsItself(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		title := rapid.StringMatching(`[A-Z][a-zäö]{2,8}( [A-Z][a-z]{2,8}){0,3}`).Draw(t, "title")
		other := rapid.StringMatching(`[0-9]{12}`).Draw(t, "other")
		m := Find(title, []Title{{"o", other, ""}, {"t", title, ""}})
		require.True(t, m.Sure)
		require.Equal(t, "t", m.Best.ID)
		require.Equal(t, 1.0, m.Alike)
	})
}

func TestASearchFindsWords(t *testing.T) {
	require.True(t, Holds("Für Elise, Ludwig van Beethoven", "elise fur"))
	require.True(t, Holds("Two Boats", ""))
	require.False(t, Holds("Two Boats", "two goats"))
}

// A title within other words is found as whole words, whatever its signs; not a part of a longer one, not a short word.
func TestTitlesThatATextNames(t *testing.T) {
	among := []Title{{"slack", "Slack Tide", ""}, {"tide", "Tide", ""}, {"up", "Up", ""}, {"fur", "Für die Möwe", ""}, {"rope", "Rope Ladder", ""}}
	named := func(text string) (ids []string) {
		for _, x := range Named(text, among) {
			ids = append(ids, x.ID)
		}
		return ids
	}
	require.Equal(t, []string{"slack"}, named("Her wrist hurts in ‘slack tide’, since Friday."))
	require.Equal(t, []string{"slack", "tide"}, named("Slack Tide, and Tide too"))
	require.Equal(t, []string{"fur"}, named("beim Stück „Fur die Mowe“ tut es weh"))
	require.Empty(t, named("she sat up, the tides and the ropeladder"))
	require.Equal(t, []string{"tide", "rope"}, named("rope ladder; tide"))
}
