package wording

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/learning"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studioyear"
	"patientladder/core/planning/whatif"
	"patientladder/core/student/standing"
)

// term is a report with everything in it.
func term() progress.Report {
	r := progress.Report{
		Ahead: progress.Ahead{
			Working: []progress.Expected{{Material: "net", Low: day(5, 11), High: day(6, 1)}},
			Then:    "tar",
			Keep:    []string{"fog", "gulls"},
		},
	}
	r.Student.Library = material.Library{
		"gulls": {Strand: material.Method},
		"fog":   {Strand: material.Method},
		"tar":   {Strand: material.Technique},
		"net":   {Strand: material.Reading},
	}
	r.Student.Name, r.Student.Today = "Nell Farrow", day(5, 4)
	r.Span = progress.Span{From: day(2, 3), To: day(5, 4)}
	r.Lessons, r.Missed = make([]time.Time, 12), 2
	r.Cleared = []progress.Piece{
		{Material: "gulls", ClearEntry: "e1"},
		{Material: "fog", ClearEntry: "e2"},
		{Material: "tar", ClearEntry: "e3"},
		{Material: "net"},
	}
	r.Polished = r.Cleared[:1]
	r.Secure = []progress.Gain{{Skill: "ties", Entry: "e2"}, {Skill: "rests", Entry: "e2"}}
	r.Habits = []progress.Habit{{Text: "soft thumb", Entry: "e4"}}
	r.Review = progress.Review{Heard: 9, Learned: 5, Alive: 4}
	r.Practice = progress.Practice{Set: 42, Practised: 37, Joyful: 3, Fine: 2}
	r.Plans = []progress.Plan{{Target: whatif.Target{Name: "Recital", Day: day(4, 20), Material: "gulls"}, Ready: true, Over: true}}
	r.Stays = []progress.Stay{
		{
			Piece:  progress.Piece{Material: "net", Weeks: 9, State: standing.Working, BeginEntry: "e5"},
			Usual:  5,
			Why:    progress.GreatLeap,
			Number: 3.14,
		},
	}
	r.Written = progress.First(r.Span)
	r.Written.Length = progress.Full
	return r
}

// Each sentence of a report, in both tones, with the entries that it comes from.
func TestTheSentencesOfAReport(t *testing.T) {
	n := names(t)
	said := func(r progress.Report) (out []string) {
		for _, s := range n.Draft(r) {
			out = append(out, s.Text+" ["+strings.Join(s.Entries, " ")+"]")
		}
		return out
	}
	r := term()
	require.Equal(t, []string{
		"Nell and I have had twelve lessons together; two were missed. []",
		"Nell has learned two pieces: “Gulls on the Railing” and “Fog”. [e1 e2]",
		"Ready to be performed: “Gulls on the Railing”. [e1]",
		"What Nell can rely on now: holding a tie and counting rests. [e2]",
		"A habit by now: “soft thumb”. [e4]",
		"In technique, one exercise was cleared: “Tar”. [e3]",
		"In reading, one stage was cleared: “The Net”. []",
		"Four of five learned pieces are surely still there today. []",
		"At home, something was practised on 37 of 42 days that were set, and mostly with joy. []",
		"Recital, 20 April: “Gulls on the Railing” was ready to be performed. []",
		"“The Net” needs patience: it has had nine weeks, and such pieces usually take up to five weeks. [e5]",
		"In work: “The Net” (11 May – 1 Jun); then “Tar”. []",
		"Over the holidays: play “Fog” and “Gulls on the Railing” now and then, and keep “The Net” going, a few minutes at a time. []",
	}, said(r))
	r.Written.Tone, r.Written.Length = progress.Plain, progress.Short
	require.Equal(t, []string{
		"Nell had twelve lessons; two were missed. []",
		"Nell cleared two pieces: “Gulls on the Railing” and “Fog”. [e1 e2]",
		"Secure now: holding a tie and counting rests. [e2]",
		"“The Net” is taking longer than usual: nine weeks so far. [e5]",
		"In work: “The Net” (11 May – 1 Jun); then “Tar”. []",
		"Over the holidays: play “Fog” and “Gulls on the Railing” now and then, and keep “The Net” going, a few minutes at a time. []",
	}, said(r))
	r.Written.Purpose = progress.ForTeacher
	require.Contains(
		t,
		said(r),
		"What took longest is “The Net”: nine weeks so far, where up to five are usual; it asked for much more than usual (a jump of 3.1). [e5]",
	)
	var none progress.Report
	none.Student.Name, none.Written = "Ben Tarn", progress.First(progress.Span{})
	require.Equal(t, []string{"No lesson with Ben was entered in this time. []"}, said(none))
	none.Lessons = make([]time.Time, 1)
	require.Equal(t, "Ben and I have had one lesson together. []", said(none)[0])
	none.Ahead.Working = r.Ahead.Working
	require.Equal(t, "Over the holidays: keep “The Net” going, a few minutes at a time. []", said(none)[2])
	none.Ahead = progress.Ahead{Keep: []string{"fog"}}
	require.Equal(t, "Over the holidays: play “Fog” now and then. []", said(none)[1])
}

// What needs care is said so that a family can do something about it, and blames nobody.
func TestCareInAReport(t *testing.T) {
	n := names(t)
	care := func(change func(*progress.Report)) (teacher, family string) {
		r := progress.Report{Written: progress.First(progress.Span{})}
		change(&r)
		return n.Care(r).Text, n.Report(progress.NeedsCare, r).Text
	}
	for _, c := range []struct {
		change          func(*progress.Report)
		teacher, family string
	}{
		{func(*progress.Report) {}, "Nothing stands out.", ""},
		{func(r *progress.Report) { r.Lessons, r.Missed = make([]time.Time, 4), 4 }, "Four of eight lessons were missed.", "Regular lessons would help most now."},
		{func(r *progress.Report) { r.Practice = progress.Practice{Set: 20, Practised: 3} }, "Practised on three of 20 days that were set.", "Short and often helps more than long and rare: five minutes on most days would carry the lessons further."},
		{func(r *progress.Report) { r.Review = progress.Review{Learned: 6, Alive: 1} }, "Only one of six learned pieces is surely still there: hear them in the lesson.", "Learned pieces fade when they rest: one of them each day keeps them all."},
		{func(r *progress.Report) { r.Review = progress.Review{Learned: 6} }, "None of six learned pieces is surely still there: hear them in the lesson.", "Learned pieces fade when they rest: one of them each day keeps them all."},
	} {
		teacher, family := care(c.change)
		require.Equal(t, []string{c.teacher, c.family}, []string{teacher, family})
	}
}

func TestProgressInWords(t *testing.T) {
	n := names(t)
	r := term()
	require.Equal(t, "Twelve lessons: two pieces, one reading stage and one exercise cleared, two skills secure.", n.Progress(r))
	require.Equal(
		t,
		[]string{
			"Two pieces cleared: “Gulls on the Railing” and “Fog”.", "Secure now: holding a tie and counting rests.",
			"A habit by now: “soft thumb”.",
			"One exercise of technique cleared: “Tar”.", "Practised on 37 of 42 days that were set.", "Four of five learned pieces are still surely there."},
		[]string{
			n.Grown(progress.PiecesCleared, r).Text,
			n.Grown(progress.SkillsSecure, r).Text,
			n.Grown(progress.HabitsFormed, r).Text,
			n.Grown(progress.KeysPlayed, r).Text,
			n.Grown(progress.PractisedWell, r).Text,
			n.Grown(progress.KeptAlive, r).Text,
		},
	)
	require.Equal(t, "“The Net” has had nine weeks; nine of ten such pieces take up to five weeks.", n.Care(r).Text)
	r.Span.To = day(4, 1)
	require.Empty(t, n.NextAhead(r).Text, "what came next is behind")
	require.Equal(t, "Nine hearings; four of five learned pieces surely there.", Kept(r.Review))
	require.Equal(t, "Nothing is learned yet.", Kept(progress.Review{}))
	require.Equal(t, "Six pieces learned elsewhere, not heard here yet.", Kept(progress.Review{Unheard: 6}))
	require.Equal(
		t,
		"One hearing; two of three learned pieces surely there. One piece learned elsewhere, not heard here yet.",
		Kept(progress.Review{Heard: 1, Alive: 2, Learned: 3, Unheard: 1}),
	)
	require.Equal(
		t,
		[]string{"No week was published in this time.", "Practised on two of three days that were set, 40 minutes in all as reported."},
		[]string{Practised(progress.Practice{}), Practised(progress.Practice{Set: 3, Practised: 2, Minutes: 40})},
	)
	stay := func(why progress.StayWhy, number float64, of int, open bool) string {
		s := progress.Stay{Piece: progress.Piece{Material: "fog", Weeks: 6, To: day(4, 1)}, Why: why, Number: number, Of: of}
		if open {
			s.To = time.Time{}
		}
		return n.Stay(s)
	}
	require.Equal(
		t,
		[]string{
			"“Fog”: six weeks.",
			"“Fog”: six weeks so far; two lessons were missed meanwhile.",
			"“Fog”: six weeks, not counting 14 days in which it was put away.",
			"“Fog”: six weeks; practised on one of twelve days that were set.",
		},
		[]string{
			stay(progress.NotSeen, 0, 0, false),
			stay(progress.Missed, 2, 0, true),
			stay(progress.LongRest, 14, 0, false),
			stay(progress.Unpractised, 1, 12, false),
		},
	)
	pace := func(held, of int) string {
		return Pace(progress.Pace{Held: held, Ranges: make([]progress.Range, of)})
	}
	require.Equal(
		t,
		[]string{
			"No range was said yet that could be held against what came.",
			"The one range that was said held.",
			"The one range that was said did not hold.",
			"17 of the last 20 ranges held.",
		},
		[]string{pace(0, 0), pace(1, 1), pace(0, 1), pace(17, 20)},
	)
	require.Equal(
		t,
		"“Fog”: 1 to 5 weeks expected, 3 taken.",
		n.RangeLine(progress.Range{Piece: progress.Piece{Material: "fog"}, Low: 1, High: 5, Took: 3}),
	)
	planted := func(done int, open, paid bool) string {
		return n.Planted(progress.Planting{Skill: "ties", Done: done, Steps: 2, For: "fog", Open: open, Paid: paid})
	}
	require.Equal(
		t,
		[]string{
			"Holding a tie: planted in time before “Fog” needed it, which took no longer than expected.",
			"Holding a tie: 1 of 2 steps done before “Fog” needed it, which is in work.",
			"Holding a tie: planted in time before “Fog” needed it.",
		},
		[]string{planted(2, false, true), planted(1, true, false), planted(2, false, false)},
	)
	plan := func(p progress.Plan) string {
		p.Target = whatif.Target{Day: day(6, 1), Material: "fog"}
		return n.PlanCame(p)
	}
	require.Equal(
		t,
		[]string{"Date, 1 June: “Fog” was cleared.", "Date, 1 June: “Fog” was not ready.", "Date, 1 June: “Fog” is meant for it."},
		[]string{plan(progress.Plan{Cleared: true, Over: true}), plan(progress.Plan{Over: true}), plan(progress.Plan{})},
	)
	require.Equal(t, []string{"4 May 2026", "3 February – 4 May 2026", "3 May 2025 – 4 May 2026"}, []string{
		SpanDays(
			progress.Span{From: day(5, 4), To: day(5, 4)},
		), SpanDays(progress.Span{From: day(2, 3), To: day(5, 4)}), SpanDays(progress.Span{From: day(5, 3).AddDate(-1, 0, 0), To: day(5, 4)})})
	many := make([]progress.Piece, 8)
	for i := range many {
		many[i].Material = "fog"
	}
	require.Equal(t, strings.Repeat("“Fog”, ", 5)+"“Fog” and 2 more", n.pieces(many))
	require.Equal(t, []string{"under a week", "one week", "nine weeks"}, []string{Weeks(0.4), Weeks(1.2), Weeks(8.6)})
}

func TestTheStudiosYearInWords(t *testing.T) {
	n := names(t)
	require.Equal(
		t,
		[]string{"No students yet.", "Eight students, two new within the year, one left; one to talk to.", "One student."},
		[]string{StudioYear(studioyear.Year{}),
			StudioYear(studioyear.Year{Now: 8, Joined: 2, Went: 1, Talk: make([]studioyear.Risk, 1)}), StudioYear(studioyear.Year{Now: 1})},
	)
	require.Equal(t, "“Fog” takes 2.3 times as long as expected.", n.Stall(studioyear.Stall{Material: "fog", Ratio: 2.31}))
	require.Equal(
		t,
		[]string{"six weeks so far", "two weeks"},
		[]string{HadPiece(studioyear.Had{Weeks: 6, Open: true}), HadPiece(studioyear.Had{Weeks: 2})},
	)
	require.Equal(
		t,
		"Holding a tie, on the piano: only in “Fog”.",
		n.OnlyIn(studioyear.Once{Skill: "ties", Instrument: "piano", Material: "fog"}),
	)
	y := studioyear.Year{Planted: studioyear.Against{N: 5, Took: 2, Expected: 2.9}, Unplanted: studioyear.Against{N: 4, Took: 4, Expected: 3}}
	require.Equal(t, "Too early to say: of each kind at least five pieces must be cleared.", PreviewsPaid(y))
	y.Unplanted.N = 6
	require.Equal(
		t,
		"Planted before: 2.0 weeks where 2.9 were expected (five pieces). Not planted: 4.0 weeks where 3.0 were expected (six pieces). The pieces differ, so this is a hint and no proof.",
		PreviewsPaid(y),
	)
	require.Equal(t, "No piece was cleared within a year.", YearPace(y))
	y.Pace = studioyear.Pace{Pieces: 9, Weeks: 3.1}
	require.Equal(t, "Half of nine pieces took three weeks or less.", YearPace(y))
	y.Before = studioyear.Pace{Pieces: 6, Weeks: 1}
	require.Equal(t, "Half of nine pieces took three weeks or less; the year before, half of six pieces took one week or less.", YearPace(y))
	require.Equal(t, "Friday: 2 lessons, 68 minutes", WeekdayLoad(time.Friday, studioyear.Load{Lessons: 1.5, Minutes: 67.5}))
	var reasons []string
	for _, r := range []studioyear.Reason{{Why: studioyear.Gone, N: 6}, {Why: studioyear.Missed, N: 3, Of: 8}, {Why: studioyear.Stuck, N: 9, Material: "fog"}, {Why: studioyear.Unplayed, N: 4, Of: 42}, {Why: studioyear.Joyless}} {
		reasons = append(reasons, n.Risk(r))
	}
	require.Equal(
		t,
		[]string{
			"No lesson was entered for six weeks.",
			"Three of the last eight lessons were missed.",
			"“Fog” has had nine weeks.",
			"Practised on four of 42 days that were set.",
			"Little of what came from home was joyful.",
		},
		reasons,
	)
	require.Equal(
		t,
		[]string{"A reason to ask, no more.", "Known from the lessons alone: little came from home."},
		[]string{Doubt(studioyear.Risk{}), Doubt(studioyear.Risk{Thin: true})},
	)
}

func TestWhatWasLearnedInWords(t *testing.T) {
	n := names(t)
	w := func(factor, low, high float64) string {
		return n.LearnedWeight(learning.Weight{Skill: "ties", Factor: factor, Low: low, High: high})
	}
	require.Equal(
		t,
		[]string{
			"Holding a tie asks for 40 % more than the table says.",
			"Holding a tie asks for 30 % less than the table says.",
			"Holding a tie: too early to say that it differs from the table.",
		},
		[]string{w(1.4, 1.1, 1.7), w(0.7, 0.5, 0.9), w(1.4, 0.9, 1.9)},
	)
	require.Equal(
		t,
		"From nine pieces; four times of five between 1.1 and 1.7 times the table’s weight.",
		LearnedFrom(learning.Weight{Pieces: 9, Low: 1.1, High: 1.7}),
	)
	require.Equal(t, []string{"The table’s weights and the published memory are used.", "What was learned here is used since 4 May 2026."},
		[]string{Learned(learning.Used{}), Learned(learning.Used{Scale: 2, At: day(5, 4)})})
	tried := func(v learning.Verdict) string { return TriedWeights(v) }
	require.Equal(
		t,
		[]string{
			"Weights of skills: too little to learn from yet.",
			"Weights of skills: tested on 30 pieces not used for learning, this predicts better than the table.",
			"Weights of skills: tested on 30 pieces not used for learning, this predicts not clearly better than the table yet.",
			"Weights of skills: tested on 30 pieces not used for learning, this predicts no better than the table.",
		},
		[]string{
			tried(learning.Verdict{}),
			tried(learning.Verdict{Tests: 30, Gain: 1, Better: true}),
			tried(learning.Verdict{Tests: 30, Gain: 1}),
			tried(learning.Verdict{Tests: 30, Gain: -1}),
		},
	)
	fade := func(scale float64, heard int) string {
		return Faded(learning.Fade{Scale: scale, Low: scale / 2, High: scale * 1.5, Heard: heard})
	}
	require.Equal(
		t,
		[]string{
			"No learned piece was rated yet.",
			"Learned pieces stay as long as the published memory says (0.5 to 1.5 times), from 40 hearings.",
			"Learned pieces stay 2.0 times as long as the published memory says (1.0 to 3.0), from 40 hearings.",
			"Learned pieces fade in 60 % of the time that the published memory says (30 to 90 %), from 40 hearings.",
		},
		[]string{fade(1, 0), fade(1, 40), fade(2, 40), fade(0.6, 40)},
	)
	require.Equal(
		t,
		[]string{
			"",
			"Of 20 pieces that were learned here one fades now; none would.",
			"Of 20 pieces that were learned here nine fade now; 13 would.",
		},
		[]string{FadeMoves(3, 3, 20), FadeMoves(1, 0, 20), FadeMoves(9, 13, 20)},
	)
	require.Equal(
		t,
		"“Fog” for Nell: a jump of 2.6 instead of 2.1.",
		n.Moved(learning.Move{Name: "Nell", Material: "fog", Before: 2.1, After: 2.6}),
	)
}

func TestWhatWasAchievedInWords(t *testing.T) {
	require.Equal(t, []string{"", "0:48", "3:05"}, []string{Lasting(0), Lasting(48), Lasting(185)})
	require.Equal(
		t,
		[]string{"before", "4 May 2026"},
		[]string{WhenLearned(progress.Learned{Before: true}), WhenLearned(progress.Learned{Day: day(5, 4)})},
	)
	require.Equal(
		t,
		[]string{"has learned all twelve pieces of", "has climbed all three steps of"},
		[]string{CertificateSays(progress.Certificate{Count: 12}), CertificateSays(progress.Certificate{Count: 3, Staircase: true})},
	)
	require.Equal(
		t,
		[]string{
			"No piece is chosen yet.",
			"Six pieces, about seven minutes with the time between.",
			"Two pieces, about one minute with the time between; of two the time is not known.",
		},
		[]string{ProgrammeLasts(0, 0, 0), ProgrammeLasts(430, 0, 6), ProgrammeLasts(60, 2, 2)},
	)
	require.Equal(t, []string{"Fog", "Fog, A. Nonym"}, []string{Titled("Fog", ""), Titled("Fog", "A. Nonym")})
	queue := func(states ...progress.State) string {
		var list []progress.Queued
		for _, s := range states {
			list = append(list, progress.Queued{State: s})
		}
		return ReportQueue(list)
	}
	require.Equal(
		t,
		[]string{
			"No student has had a lesson yet.",
			"Every report of this term is published.",
			"Two of three reports of this term still to publish.",
		},
		[]string{queue(), queue(progress.Sent), queue(progress.NoReport, progress.Draft, progress.Sent)},
	)
	require.Equal(
		t,
		[]string{"Report: Nell, piano", "Report for an exam: Nell, piano", "Report for a new teacher: Nell, piano"},
		[]string{
			ReportTitle(progress.ForFamily, "Nell", "piano"),
			ReportTitle(progress.ForExam, "Nell", "piano"),
			ReportTitle(progress.ForTeacher, "Nell", "piano"),
		},
	)
}

func TestAReportNamesWhatCameByEar(t *testing.T) {
	r := progress.Report{}
	r.Ear = []meeting.Climbed{{Stair: "match", Entries: []string{"a", "b"}}, {Stair: "echo-bar", Entries: []string{"c"}}}
	require.Equal(
		t,
		Line{"By ear and in rhythm, two steps came: match a tone and echo one bar.", []string{"a", "b", "c"}},
		Names{}.Report(progress.Ear, r),
	)
	r.Ear = r.Ear[:1]
	require.Equal(t, "By ear and in rhythm, one step came: match a tone.", Names{}.Report(progress.Ear, r).Text)
}
