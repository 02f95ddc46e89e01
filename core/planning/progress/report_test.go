package progress_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/progress"
)

func full() progress.Report {
	r := progress.Report{Ahead: progress.Ahead{Working: []progress.Expected{{Material: "gull"}}, Then: "mole", Keep: []string{"fog"}}}
	r.Student.Library = material.Library{
		"fog":   {Strand: material.Method},
		"drill": {Strand: material.Technique},
		"page":  {Strand: material.Reading},
	}
	r.Cleared = []progress.Piece{{Material: "fog"}, {Material: "drill"}, {Material: "page"}}
	r.Polished = r.Cleared[:1]
	r.Secure, r.Habits, r.Stays, r.Plans = make(
		[]progress.Gain,
		1,
	), make(
		[]progress.Habit,
		1,
	), make(
		[]progress.Stay,
		1,
	), make(
		[]progress.Plan,
		1,
	)
	r.Ear = make([]meeting.Climbed, 1)
	r.Review.Learned, r.Practice = 1, progress.Practice{Set: 6, Practised: 1}
	r.Written = progress.First(progress.Span{From: day(12), To: monday})
	return r
}

// What a report says, by whom it is for and how long, in order.
func TestThePartsOfAReport(t *testing.T) {
	for _, c := range []struct {
		purpose progress.Purpose
		length  progress.Length
		parts   string
	}{
		{progress.ForFamily, progress.Short, "opening cleared secure care next holidays"},
		{progress.ForFamily, progress.Full, "opening cleared polished secure habits technique reading ear review practice plans care next holidays"},
		{progress.ForExam, progress.Short, "opening cleared polished technique plans next"},
		{progress.ForExam, progress.Full, "opening cleared polished technique reading ear review plans stay next"},
		{progress.ForTeacher, progress.Short, "opening cleared secure technique reading ear review stay care next"},
		{progress.ForTeacher, progress.Full, "opening cleared polished secure technique reading ear review habits stay practice care next"},
	} {
		r := full()
		r.Written.Purpose, r.Written.Length = c.purpose, c.length
		var got []string
		for _, p := range r.Parts() {
			got = append(got, string(p))
		}
		require.Equal(t, strings.Fields(c.parts), got)
	}
	// Of nothing there is only the opening; practice of five days tells nothing.
	r := progress.Report{Written: progress.Written{Purpose: progress.ForFamily, Length: progress.Full}}
	r.Practice = progress.Practice{Set: 5}
	require.Equal(t, []progress.Part{progress.Opening}, r.Parts())
	r.Ahead.Then = "mole"
	require.Equal(t, []progress.Part{progress.Opening, progress.Then}, r.Parts(), "nothing to keep over the holidays")
	r = full()
	require.Equal(t, []string{"fog"}, ids(r.Pieces()))
	require.Equal(t, []string{"drill"}, ids(r.Drills()))
	require.Equal(t, []string{"page"}, ids(r.ReadingStages()))
}

// A changed sentence stays when the facts grow, and says that they did; a sentence that was left out stays out; one whose
// facts are gone stays where it was.
func TestEditsSurviveNewFacts(t *testing.T) {
	w := progress.First(progress.Span{})
	drafted := []progress.Sentence{
		{Part: progress.Opening, Text: "Ten lessons."},
		{Part: progress.Cleared, Text: "One piece.", Entries: []string{"e1"}},
		{Part: progress.Then, Text: "Next: Gull."},
	}
	require.Equal(t, []progress.Sentence{
		{Part: progress.Opening, Text: "Ten lessons.", Drafted: "Ten lessons."},
		{Part: progress.Cleared, Text: "One piece.", Drafted: "One piece.", Entries: []string{"e1"}},
		{Part: progress.Then, Text: "Next: Gull.", Drafted: "Next: Gull."}}, w.Edited(drafted))
	w.Edits = map[progress.Part]progress.Edit{
		progress.Cleared: {Text: "Fog shines.", Was: "One piece."}, progress.Then: {Text: "", Was: "Next: Gull."},
		progress.Secure: {Text: "Ties sit.", Was: "Secure now: ties."},
	}
	drafted[1].Text = "Two pieces."
	require.Equal(t, []progress.Sentence{
		{Part: progress.Opening, Text: "Ten lessons.", Drafted: "Ten lessons."},
		{Part: progress.Cleared, Text: "Fog shines.", Drafted: "Two pieces.", Entries: []string{"e1"}, Edited: true, Newer: true},
		{Part: progress.Secure, Text: "Ties sit.", Edited: true, Newer: true},
		{Part: progress.Then, Text: "", Drafted: "Next: Gull.", Edited: true},
	}, w.Edited(drafted))
}

func TestWhatIsWrongWithAReport(t *testing.T) {
	good := progress.First(progress.Span{From: day(12), To: monday})
	require.NoError(t, good.Check(monday))
	for says, change := range map[string]func(*progress.Written){
		`a report is for the family, an exam or a new teacher, not "boss"`: func(w *progress.Written) { w.Purpose = "boss" },
		`a report is short or full, not "epic"`:                            func(w *progress.Written) { w.Length = "epic" },
		`a report speaks warmly or plainly, not "cold"`:                    func(w *progress.Written) { w.Tone = "cold" },
		"your own words are longer than 2000 letters":                      func(w *progress.Written) { w.Own = strings.Repeat("é", 2001) },
		`a report of this kind has no sentence "stay"`: func(w *progress.Written) {
			w.Edits = map[progress.Part]progress.Edit{progress.Stayed: {}}
		},
		"a sentence is longer than 600 letters": func(w *progress.Written) {
			w.Edits = map[progress.Part]progress.Edit{progress.Opening: {Text: strings.Repeat("é", 601)}}
		},
		"the span ends before it begins: from 4 May 2026 to 9 February 2026": func(w *progress.Written) {
			w.Span.From, w.Span.To = w.Span.To, w.Span.From
		},
	} {
		w := good
		change(&w)
		require.EqualError(t, w.Check(monday), says)
	}
}

// Pieces that were in work at one time stand beside each other, in as few lanes as can be.
func TestLanes(t *testing.T) {
	lib := material.Library{
		"a":   {Strand: material.Method},
		"b":   {Strand: material.Method},
		"c":   {Strand: material.Method},
		"d":   {Strand: material.Ear},
		"old": {Strand: material.Ear},
	}
	pieces := []progress.Piece{
		{Material: "old", To: day(30)}, {Material: "a", From: day(10), To: day(5)}, {Material: "b", From: day(8)}, {Material: "d", From: day(7)},
		{Material: "c", From: day(5)},
	}
	lane, width := progress.Lanes(pieces, lib, monday)
	require.Equal(t, map[string]int{"a": 0, "b": 1, "c": 0, "d": 0}, lane, "c begins on the day on which a is cleared")
	require.Equal(t, map[material.Strand]int{material.Method: 2, material.Ear: 1}, width)
}
