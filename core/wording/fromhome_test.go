package wording

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording/tongue"
)

// What home showed is named with its bars; a piece that came out alike as a whole is named once.
func TestWhatHomeShowedInWords(t *testing.T) {
	n := names(t)
	thing := func(material string, from, to int, o fromhome.Outcome, hard, days int) fromhome.Thing {
		return fromhome.Thing{
			Item:    week.Item{Material: material, Title: "as it was called", Bars: week.Bars{From: from, To: to}},
			Hard:    hard,
			Days:    days,
			Outcome: o,
		}
	}
	for want, things := range map[string][]fromhome.Thing{
		"": {thing("fog", 1, 2, fromhome.Going, 0, 2)},
		"hard: “Fog” bars 7–8, on two of four days":               {thing("fog", 7, 8, fromhome.Hard, 2, 4), thing("fog", 1, 2, fromhome.Easy, 0, 2)},
		"hard: “Fog”, on two of four days; “The Net” not touched": {thing("fog", 7, 8, fromhome.Hard, 2, 4), thing("net", 1, 2, fromhome.Left, 0, 3), thing("net", 3, 4, fromhome.Left, 0, 3)},
		"“The Net” bar 3 not touched; easy: “Fog”":                {thing("net", 3, 3, fromhome.Left, 0, 3), thing("net", 1, 2, fromhome.Going, 0, 3), thing("fog", 1, 2, fromhome.Easy, 0, 2)},
		"played less than was set: “Fog” bars 1–2, “Fog” bars 3–4 and 1 more": {
			thing("fog", 1, 2, fromhome.Short, 0, 2), thing("fog", 3, 4, fromhome.Short, 0, 2), thing("fog", 5, 6, fromhome.Short, 0, 2), thing("fog", 7, 8, fromhome.Going, 0, 2)},
		"“as it was called” not touched": {thing("gone", 1, 2, fromhome.Left, 0, 2)},
	} {
		require.Equal(t, want, n.Showed(things))
	}
}

// Each step is named with what comes of it.
func TestWhatComesOfWhatHomeShowed(t *testing.T) {
	n := names(t)
	fog := func(from, to int, hand string, o fromhome.Outcome) fromhome.Thing {
		return fromhome.Thing{Item: week.Item{Material: "fog", Bars: week.Bars{From: from, To: to}, Hand: hand}, Hard: 2, Short: 2, Days: 3, Outcome: o}
	}
	for _, c := range []struct {
		of     inweek.AfterHome
		showed string
		then   string
	}{
		{
			inweek.AfterHome{Thing: fog(7, 8, "left hand", fromhome.Hard), Effect: inweek.InHalves},
			"“Fog” bars 7–8, left hand: hard on two of three days", "first, in halves, a mark of the metronome slower",
		},
		{
			inweek.AfterHome{Thing: fog(7, 7, "", fromhome.Short), Effect: inweek.OneMarkSlower},
			"“Fog” bar 7: far fewer times than were set, on two of three days", "first, a mark of the metronome slower",
		},
		{
			inweek.AfterHome{Thing: fog(1, 2, "", fromhome.Easy), Effect: inweek.LeftOutOfWeek},
			"“Fog” bars 1–2: went well on all three days", "not set again",
		},
		{
			inweek.AfterHome{Thing: fog(1, 2, "", fromhome.Easy), Effect: inweek.LeftOutOfWeek, Aside: true},
			"“Fog” bars 1–2: went well on all three days", "does not count this week",
		},
	} {
		require.Equal(t, c.showed, n.HomeShowed(c.of.Thing))
		require.Equal(t, c.then, AfterHome(c.of))
	}
	once := fog(1, 2, "", fromhome.Easy)
	once.Days = 1
	require.Equal(t, "“Fog” bars 1–2: went well on its day", n.HomeShowed(once))
	require.Equal(t, "bars 3–4 hard at home: hear it first",
		n.reason(lessonplan.Reason{Kind: lessonplan.HardAtHome, Material: "fog", Count: 3, Of: 4}, lessonplan.Segment{}))
	require.Equal(t, "hard at home: hear it first", n.reason(lessonplan.Reason{Kind: lessonplan.HardAtHome, Material: "fog"}, lessonplan.Segment{}))
	whole := n.Library["fog"].Bars
	require.Equal(t, "hard at home: hear it first",
		n.reason(lessonplan.Reason{Kind: lessonplan.HardAtHome, Material: "fog", Count: 1, Of: whole}, lessonplan.Segment{}), "all of its %d bars", whole)
	require.Equal(t, "not touched at home: ask about it", n.reason(lessonplan.Reason{Kind: lessonplan.LeftAtHome}, lessonplan.Segment{}))

	h := withfamily.Home{Days: 6, Practised: 5, Fine: 25, Joyful: 2, Hard: 3, First: []string{"fog", "net", "gone"}}
	require.Equal(t, "Practised on five of six days; joyful 2 times, fine 25 times and hard 3 times; played “Fog”, “The Net” and 1 more first", n.Home(h))
	h.Shown = []fromhome.Thing{fog(7, 8, "", fromhome.Hard), fog(1, 2, "", fromhome.Going)}
	require.Equal(t, "Practised on five of six days; hard: “Fog” bars 7–8, on two of three days; joyful 2 times; played “Fog”, “The Net” and 1 more first", n.Home(h))
}

// What may be about pain stands before everything else, with the caution, for the teacher and for the family.
func TestPainStandsFirst(t *testing.T) {
	n := names(t)
	note := withfamily.Note{Kind: withfamily.Question, Text: "Her wrist hurts", Day: time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)}
	caution := "Pain, tingling or numbness means stop and rest; if it stays, see a doctor or physiotherapist. Short and often is better than long and rare."
	require.Equal(t, "Pain? “Her wrist hurts”. "+caution+" Practised on two of six days; also played “A waltz”",
		n.Home(withfamily.Home{Days: 6, Practised: 2, Hurts: []string{"Her wrist hurts"}, Also: []string{"A waltz"}}))
	require.Equal(t, "Written today. "+caution, NoteFrom(note, note.Day))
	require.Contains(t, NoteSaid(tongue.Of("de"), note, "Ines"), "zum Arzt oder zur Physiotherapie gehen")
	note.AnsweredAt = note.Day.Add(time.Hour)
	require.NotContains(t, NoteSaid(tongue.Of("en"), note, "Ines"), "doctor")
}
