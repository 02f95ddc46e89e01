package wording

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/fit"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/next"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/review"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/core/planning/withfamily"
	"patientladder/core/reading/overrule"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/student/taste"
	"patientladder/core/way"
	"patientladder/core/wording/tongue"
)

func day(month time.Month, d int) time.Time {
	return time.Date(2026, month, d, 0, 0, 0, 0, time.UTC)
}

func names(t *testing.T) Names {
	skills, err := skill.Standard()
	require.NoError(t, err)
	return Names{Library: material.Library{
		"gulls": {ID: "gulls", Title: "Gulls on the Railing", Bars: 8}, "fog": {ID: "fog", Title: "Fog", Bars: 12, Instrument: "cello"},
		"tar": {ID: "tar", Title: "Tar"}, "net": {ID: "net", Title: "The Net"},
	}, Skills: skills}
}

func TestNumbersAndLists(t *testing.T) {
	require.Equal(t, "no lessons", Counted(0, "lesson"))
	require.Equal(t, "one lesson", Counted(1, "lesson"))
	require.Equal(t, "twelve lessons", Counted(12, "lesson"))
	require.Equal(t, "13 lessons", Counted(13, "lesson"))
	require.Equal(t, "two melodies", Counted(2, "melody"))
	require.Equal(t, "two days", Counted(2, "day"))
	require.Equal(t, []string{"none", "one", "twelve", "13"}, []string{Numbered(0), Numbered(1), Numbered(12), Numbered(13)})
	require.Equal(t, "1 spot, 3 spots", Figures(1, "spot")+", "+Figures(3, "spot"))
	require.Equal(
		t,
		[]string{"", "a", "a and b", "a, b and c"},
		[]string{List(nil), List([]string{"a"}), List([]string{"a", "b"}), List([]string{"a", "b", "c"})},
	)
	require.Equal(t, "Étude.", Sentence("étude"))
	require.Equal(t, "Ready?", Sentence("ready?"))
	require.Equal(t, "Done.", Sentence("done."))
	require.Empty(t, Sentence(""))
	require.Equal(t, []string{"2.1 (comfortable 1.5)", "1.92 (comfortable 1.88)"}, []string{over(2.1, 1.5), over(1.92, 1.88)})
	require.Equal(t, []string{"13 %", "12 %", "100 %"}, []string{Percent(0.125), Percent(0.1249), Percent(1)})
}

func TestARangeOfDaysIsSaidAsCoarselyAsItIs(t *testing.T) {
	today := day(time.May, 4)
	require.Equal(t, "8 May", Between(day(time.May, 8), day(time.May, 8), today))
	require.Equal(t, "8 May – 12 Jul", Between(day(time.May, 8), day(time.July, 12), today), "69 days away")
	require.Equal(t, "May – Jul", Between(day(time.May, 8), day(time.July, 13), today), "70 days away")
	require.Equal(t, "August", Between(day(time.August, 1), day(time.August, 30), today))
	require.Equal(t, "Nov – Feb 2027", Between(day(time.November, 2), day(time.February, 8).AddDate(1, 0, 0), today))
	require.Equal(t, "March 2027", Between(day(time.March, 2).AddDate(1, 0, 0), day(time.March, 9).AddDate(1, 0, 0), today))
}

func TestWhatIsDue(t *testing.T) {
	n := names(t)
	for want, s := range map[string]signs.Sign{
		"“Fog” is ready for a run":                                                           {Kind: signs.Run, Material: "fog"},
		"No new mark for “Fog” in three lessons":                                             {Kind: signs.Stuck, Material: "fog", Lessons: 3},
		"No working piece: choose the next one":                                              {Kind: signs.Choose},
		"Counting rests should come one lesson earlier for “Fog”":                            {Kind: signs.Late, Material: "fog", Skill: "rests", Lessons: 1},
		"A big jump to “Fog”: 3.2 (comfortable 2.0)":                                         {Kind: signs.Cliff, Material: "fog", Leap: 3.2, Reach: 2},
		"2 hard spots in “Fog”":                                                              {Kind: signs.Spot, Material: "fog", Count: 2},
		"Measure the bench and the feet":                                                     {Kind: signs.SetupDue},
		"Measure the bench and the feet again":                                               {Kind: signs.SetupDue, Measured: true},
		"“Fog” not played for seven weeks":                                                   {Kind: signs.Review, Material: "fog", Weeks: 7},
		"“Fog” not played for seven weeks, and 2 more":                                       {Kind: signs.Review, Material: "fog", Weeks: 7, Count: 2},
		"“Fog” takes longer than usual: 9 of 10 pieces like this are done within five weeks": {Kind: signs.Stuck, Material: "fog", Weeks: 5},
	} {
		require.Equal(t, want, n.Due(s))
	}
}

func TestTheSentencesOfADayAndOfAStudio(t *testing.T) {
	run, stuck, choose := signs.Sign{Kind: signs.Run}, signs.Sign{Kind: signs.Stuck}, signs.Sign{Kind: signs.Choose}
	pupil := func(name string, s ...signs.Sign) Pupil { return Pupil{First: name, Signs: s} }
	require.Equal(t, "No lessons today.", Today(nil, true))
	require.Equal(t, "No lessons on this day.", Today(nil, false))
	require.Equal(t, "One lesson today.", Today([]Pupil{pupil("Ada")}, true))
	require.Equal(t, "Five lessons today; Ada, Ben, Cy and 1 more are ready for a run; Eva is stuck; Ada needs a new piece.",
		Today([]Pupil{pupil("Ada", run, choose), pupil("Ben", run), pupil("Cy", run), pupil("Dot", run), pupil("Eva", stuck)}, true))
	require.Equal(t, "No students yet. Add the first one.", Studio(nil))
	require.Equal(t, "Two students; nothing needs attention.", Studio([]Pupil{pupil("Ada"), pupil("Ben")}))
	require.Equal(t, "Of three students: 1 is ready for a run, 2 are stuck, 1 has a late preview, 1 needs review.",
		Studio([]Pupil{pupil("Ada", run, stuck), pupil("Ben", stuck, signs.Sign{Kind: signs.Late}), {First: "Cy", Starved: true}}))
}

func TestHowReviewStands(t *testing.T) {
	require.Equal(t, "Nothing is learned yet, so there is nothing to review", Review(inweek.ReviewState{}))
	require.Equal(t, "Nothing is planned for the coming week", Review(inweek.ReviewState{Pieces: 3}))
	r := inweek.ReviewState{Pieces: 3, Planned: true, Share: 0.36, Aim: 0.4, Weeks: 6, Starved: 2}
	require.Equal(t, "Review: 36 % of the coming week (aim 40 %)", Review(r))
	r.Share = 0.2
	require.Equal(
		t,
		"Review: 20 % of the coming week (aim 40 %); two pieces not played for more than six weeks, and no room for them",
		Review(r),
	)
	for _, x := range []struct {
		held, of int
		says     string
	}{{1, 2, "two pieces not played for more than six weeks, one of them now in it"}, {2, 2, "two pieces not played for more than six weeks, now all in it"},
		{1, 1, "one piece not played for more than six weeks, now in it"}, {0, 1, "one piece not played for more than six weeks, and no room for it"}} {
		r.Held, r.Starved = x.held, x.of
		require.Equal(t, "Review: 20 % of the coming week (aim 40 %); "+x.says, Review(r))
	}
	r.Starved = 0
	require.Equal(t, "Review: 20 % of the coming week (aim 40 %); the learned pieces are too few or too short for more", Review(r))
	require.Equal(t, "62 % sure, played today", Picked(review.Reason{Recall: 0.62}))
	require.Equal(
		t,
		"learned elsewhere, and not heard here yet, a favourite",
		Picked(review.Reason{Recall: 0.62, Days: 110, Elsewhere: true, Favourite: true}),
	)
	require.Equal(
		t,
		"62 % sure after nine days, and it practises what is needed next, a favourite",
		Picked(review.Reason{Recall: 0.62, Days: 9, Refines: true, Favourite: true}),
	)
	require.Equal(
		t,
		"31 % sure after 50 days, not played for more than six weeks",
		Picked(review.Reason{Recall: 0.31, Days: 50, LeftWeeks: 6, Favourite: true}),
	)
}

func TestTheLadderInOneSentence(t *testing.T) {
	n := names(t)
	require.Equal(t, "The ladder is empty: put a first piece on it.", n.Ladder(ladder.Summary{Empty: true}, nil, false))
	require.Equal(t, "Nothing in work: choose the next piece.", n.Ladder(ladder.Summary{}, nil, false))
	require.Equal(
		t,
		"“Fog” is ready for a run; working on “Tar” and “The Net”; “Gulls on the Railing” is a big jump; prepare counting rests; little review lately.",
		n.Ladder(ladder.Summary{RunDue: []string{"fog"}, Working: []string{"tar", "net"}, Cliffs: []string{"gulls"}}, []string{"rests"}, true),
	)
}

func TestWhyThisRungIsNext(t *testing.T) {
	n := names(t)
	for want, r := range map[string]next.Reason{
		"Nothing is ahead on this strand: put a piece on it.":                                      {Kind: next.Nothing},
		"It is the first on this strand; a jump of 1.2, within the comfortable 2.0.":               {Kind: next.Beginning, Leap: 1.2, Reach: 2},
		"It is the first on this strand; a jump of 3.0, for a beginning is always a large one.":    {Kind: next.Beginning, Leap: 3, Reach: 2},
		"The last was a stretch (2.6); take an easy one: 0.8 (comfortable 2.0).":                   {Kind: next.Easy, Last: []float64{2.6}, Leap: 0.8, Reach: 2},
		"The last was a stretch (2.6); none of the next 5 is easy, and this is the smallest: 1.4.": {Kind: next.Smallest, Last: []float64{2.6}, Of: 5, Leap: 1.4},
		"A big jump: 3.0 (comfortable 2.0). Plan more weeks, or prepare its new skills first.":     {Kind: next.Stretch, Leap: 3, Reach: 2},
		"The last two were easy (0.4 and 0.6): there is room for 1.8.":                             {Kind: next.Room, Last: []float64{0.4, 0.6}, Leap: 1.8},
		"Nothing in it is a jump.":                                                                {Kind: next.Fits, Reach: 2},
		"A jump of 1.8, within the comfortable 2.0.":                                              {Kind: next.Fits, Leap: 1.8, Reach: 2},
		"“Fog” comes first in the order but is a jump of 3.1 now; it can follow.":                 {Kind: next.Passed, Material: "fog", Leap: 3.1},
		"“Fog” comes first in the order but first needs counting rests; it can follow.":           {Kind: next.Passed, Material: "fog", Leap: 3.1, Skills: []string{"rests"}},
		"Nothing in it is new.":                                                                   {Kind: next.New},
		"New in it: counting rests.":                                                              {Kind: next.New, Skills: []string{"rests"}},
		"Two new things at once: counting rests.":                                                 {Kind: next.TwoFirst, Skills: []string{"rests"}},
		"In this way of teaching reading begins after ten weeks of lessons: on 8 September 2026.": {Kind: next.Later, Weeks: 10, From: day(time.September, 8)},
	} {
		require.Equal(t, want, n.Next(r))
	}
	require.Equal(
		t,
		[]string{"Nothing in it is a jump.", "Nothing in it is new."},
		n.NextAll([]next.Reason{{Kind: next.Fits}, {Kind: next.New}}),
	)
}

func TestWhatAnotherOrderWouldDo(t *testing.T) {
	n := names(t)
	for want, c := range map[string]whatif.Consequence{
		"“Fog” becomes a big jump: 3.0 (comfortable 2.0).":                                {Kind: whatif.LeapChanged, Material: "fog", Worse: true, Before: 1, After: 3, Reach: 2},
		"“Fog” is no longer a big jump: 1.0 instead of 3.0.":                              {Kind: whatif.LeapChanged, Material: "fog", Before: 3, After: 1, Reach: 2},
		"The preview of counting rests comes late: ready two lessons after “Fog” begins.": {Kind: whatif.PreviewChanged, Material: "fog", Worse: true, Skill: "rests", Late: 2},
		"Counting rests is ready in time for “Fog”.":                                      {Kind: whatif.PreviewChanged, Material: "fog", Skill: "rests"},
		"Recital: the chance of “Fog” goes from 80 % to 60 %.":                            {Kind: whatif.TargetChanged, Material: "fog", Target: "Recital", Before: 0.8, After: 0.6},
		"“Fog” begins about 9 June instead of 2 June.":                                    {Kind: whatif.DateChanged, Material: "fog", From: day(time.June, 2), To: day(time.June, 9)},
	} {
		require.Equal(t, want, n.Consequence(c))
	}
	require.Equal(
		t,
		"“Fog” stands there twice, at place 3.",
		n.Order(whatif.OrderError{Kind: whatif.Twice, Material: "fog", Place: 3}, "piano"),
	)
	require.Equal(
		t,
		"“Fog” is for cello, and this ladder is for piano.",
		n.Order(whatif.OrderError{Kind: whatif.OtherPlayer, Material: "fog"}, "piano"),
	)
	require.Equal(
		t,
		"“Fog” has been begun; its place is history.",
		n.Order(whatif.OrderError{Kind: whatif.BegunAlready, Material: "fog"}, "piano"),
	)
}

func TestTargetsAndForecasts(t *testing.T) {
	n := names(t)
	target := Target{
		Material:   "fog",
		Day:        day(time.July, 3),
		Sure:       0.8,
		Polish:     2,
		Latest:     day(time.May, 18),
		BeginsFrom: day(time.May, 11),
		To:         day(time.May, 25),
		Today:      day(time.May, 4),
	}
	require.Equal(
		t,
		"“Fog” is ready on 3 July with a chance of about 64 %; to be 80 % sure, begin it by 18 May.",
		n.Verdict(target, outlook.Verdict{Chance: 0.64, Possible: true}),
	)
	require.Equal(
		t,
		"“Fog” is ready on 3 July with a chance of about 20 %; even begun in the next lesson it would be 40 %: choose another piece or another day.",
		n.Verdict(target, outlook.Verdict{Chance: 0.2, Straight: 0.4}),
	)
	require.Equal(
		t,
		"“Fog” is ready on 3 July with a chance of about 80 %; it is in work and in time.",
		n.Verdict(target, outlook.Verdict{Chance: 0.8, Begun: true, Possible: true}),
	)
	require.Equal(
		t,
		"“Fog” is ready on 3 July with a chance of about 79 %; it is in work already.",
		n.Verdict(target, outlook.Verdict{Chance: 0.79, Begun: true, Possible: true}),
	)
	require.Equal(t, []string{
		"Nine lessons up to the day, of which the last two weeks are for polishing what is cleared.",
		"As the ladder stands it begins 11 May – 25 May, after one rung before it.",
		"Chances come from 256 simulated courses with what is known of this student and this studio: an estimate.",
		"If the lessons of two more weeks fall out: 51 %.",
	}, VerdictWhy(target, outlook.Verdict{Lessons: 9, Drops: make([]outlook.Drop, 1), WithoutTwo: 0.51}))
	require.Equal(t, 256, forecast.Draws)

	words, why := HowLong(forecast.Range{Median: 3.4, Low: 1.8, High: 6.2, Own: 4, Others: 0})
	require.Equal(t, "usually 1 to 7 weeks", words)
	require.Equal(
		t,
		"Four times of five between 1.8 and 6.2 weeks, as likely under as over 3.4: from four cleared pieces of this student and none of others. An estimate, by the jump, the length and the student.",
		why,
	)
	for _, x := range []struct {
		from, to int
		share    float64
		want     string
	}{{2, 5, 0.8, "usually 2 to 5 weeks"}, {2, 5, 0.85, "nearly always 2 to 5 weeks"}, {2, 3, 0.75, "often 2 to 3 weeks"}, {2, 2, 0.84, "usually 2 weeks"}, {1, 1, 0.9, "nearly always a week"}} {
		words, _ = HowLong(forecast.Range{Low: 1.5, High: 4.5, From: x.from, To: x.to, Share: x.share})
		require.Equal(t, x.want, words)
	}
	words, why = HowLong(forecast.Range{Median: 1, Low: 1, High: 1})
	require.Equal(t, "usually a week", words)
	require.Contains(t, why, "from what is usual, as nothing was cleared here yet")
	_, why = HowLong(forecast.Range{Low: 1, High: 2, Others: 12})
	require.Contains(t, why, "from twelve pieces that others cleared")
}

func TestPlantings(t *testing.T) {
	n := names(t)
	p := planting.Planting{Needed: day(time.June, 1), Ready: day(time.May, 18), PerLesson: 2}
	p.For, p.Skill, p.By, p.Of, p.Done, p.Slack = "fog", "rests", 4, 5, 2, 2
	require.Equal(
		t,
		"“Fog” needs counting rests and is expected to begin about 1 June, in four lessons. Three steps left, never two in one lesson and at most two bites in all: the last one comes on 18 May, with two lessons in hand.",
		n.Planting(p),
	)
	p.Slack, p.After = 0, []string{"ties"}
	require.Equal(
		t,
		"“Fog” needs counting rests and is expected to begin about 1 June, in four lessons. Three steps left, never two in one lesson and at most two bites in all, and after holding a tie, which it builds on: the last one comes on 18 May, just in time.",
		n.Planting(p),
	)
	p.Slack, p.After = -1, nil
	require.Contains(t, n.Planting(p), "the last one comes on 18 May, one lesson too late.")
	require.Equal(t, "Begin “Fog” two lessons later.", n.Mend(preview.Mend{Kind: preview.Move, Lessons: 2}, "fog"))
	require.Equal(t, "Take one bite more in every lesson.", n.Mend(preview.Mend{Kind: preview.MoreBites}, "fog"))
	require.Equal(
		t,
		"Take one bite more in every lesson: then it is one lesson late.",
		n.Mend(preview.Mend{Kind: preview.MoreBites, Late: 1}, "fog"),
	)
	require.Equal(
		t,
		"Play “Tar” first: it needs nothing that is late.",
		n.Mend(preview.Mend{Kind: preview.Substitute, Material: "tar"}, "fog"),
	)
}

func TestWhereAPieceStands(t *testing.T) {
	for want, w := range map[string]standing.Where{
		"It has no focus points yet.":              {Why: standing.NoPoints},
		"Every point is secure: a run is due.":     {Why: standing.RunIsDue},
		"1 of 3 points secure.":                    {Why: standing.PointsOpen, Full: 1, Points: 3},
		"0 of 1 point secure.":                     {Why: standing.PointsOpen, Points: 1},
		"Set aside since 4 May.":                   {Why: standing.Rests, PausedOn: civil.On(day(time.May, 4))},
		"The run met every point of the standard.": {Why: standing.RunMet},
		"Cleared by the teacher’s word.":           {Why: standing.TeachersWord},
		"All its sections are cleared.":            {Why: standing.AllSections},
		"Learned before.":                          {Why: standing.FromBefore},
		"Ready to be performed.":                   {Why: standing.ReadyToPlay},
	} {
		require.Equal(t, want, Standing(w, instrument.Keyboard))
	}
	missedRun := standing.Run{Missed: []string{"flow", "notes"}}
	said := Run(missedRun, instrument.Keyboard)
	require.Equal(
		t,
		said,
		Standing(standing.Where{Why: standing.RunMissed, Missed: []string{"notes", "flow"}}, instrument.Keyboard),
		"in the order of the standard",
	)
	require.Equal(t, "The run met every point of the standard.", Run(standing.Run{Cleared: true}, instrument.Keyboard))
}

func TestWhatALeapRestsOn(t *testing.T) {
	m := material.Material{DistinctBars: 12, Tempo: 96, Texture: material.OneLine}
	require.Equal(t, "12 different bars to learn; the longest cleared piece had 8", LeapPart(leap.Part{Kind: leap.OfLength, Best: 8}, m, 2))
	part := func(l leap.Level, e leap.Evidence) string {
		return LeapPart(leap.Part{Kind: leap.OfSkill, Level: l, Evidence: e}, m, 2)
	}
	require.Equal(t, "never met before", part(leap.New, leap.Evidence{}))
	require.Equal(t, "1 of 3 preview steps done", part(leap.Planted, leap.Evidence{StepsDone: 1, Steps: 3}))
	require.Equal(t, "was missing when it was asked for", part(leap.Learning, leap.Evidence{Missing: true, Working: 1}))
	require.Equal(t, "needed by a working piece", part(leap.Learning, leap.Evidence{Working: 1}))
	require.Equal(t, "needed by 1 cleared of the 2 that make it secure", part(leap.Learning, leap.Evidence{Cleared: 1}))
	require.Equal(t, "needed by 3 cleared pieces", part(leap.Secure, leap.Evidence{Cleared: 3}))
	require.Equal(t, "shown when it was asked for, but that has faded", part(leap.Rusty, leap.Evidence{Shown: true, Faded: true}))
	require.Equal(t, "the studio’s default, until 5 pieces are cleared", Reach(leap.Reach{}))
	require.Equal(t, "from the 9 steps cleared so far, of which seven of ten asked for no more, drawn towards the studio’s default", Reach(leap.Reach{From: 9}))
}

func TestWhatCouldComeNext(t *testing.T) {
	for want, r := range map[string]fit.Reason{
		"92 % of what it needs is there":                             {Kind: fit.Known, Share: 0.92},
		"a jump of 0.8, the easy one that is wanted after a stretch": {Kind: fit.EasyWanted, Leap: 0.8, Reach: 2},
		"a jump of 1.8, where an easy one under 1.0 is wanted":       {Kind: fit.NotEasy, Leap: 1.8, Reach: 2},
		"a big jump: 3.0 (comfortable 2.0)":                          {Kind: fit.Beyond, Leap: 3, Reach: 2},
		"a small jump: 0.2":                                          {Kind: fit.Plateau, Leap: 0.2, Reach: 2},
		"a jump of 1.8, within the comfortable 2.0":                  {Kind: fit.Within, Leap: 1.8, Reach: 2},
		"nothing is in work on its strand":                           {Kind: fit.IdleStrand},
		"likes what is slow (played first once, liked 3 times)": {Kind: fit.Liked, Liking: taste.Liking{Tag: "slow", Score: 1,
			By: map[studentlog.Reaction]int{studentlog.Liked: 3, studentlog.PlayedFirst: 1}}},
		"does not take to what is fast (not liked 2 times)": {Kind: fit.Liked, Liking: taste.Liking{Tag: "fast", Score: -1, By: map[studentlog.Reaction]int{studentlog.Disliked: 2}}},
	} {
		require.Equal(t, want, Fit(r))
	}
	require.Equal(t, "had, and never chosen", Liking(taste.Liking{}))
	require.Equal(
		t,
		[]string{"asked for", "liked two times"},
		SignsOfLiking(map[studentlog.Reaction]int{studentlog.Liked: 2, studentlog.AskedFor: 1}),
	)
}

func TestThePlanOfALesson(t *testing.T) {
	n := names(t)
	require.Equal(
		t,
		Segment{Title: "A run of “Fog”", Words: []string{}, Why: "every point is secure: the run is due; it had to wait last time"},
		n.Segment(
			lessonplan.Segment{
				Kind:     lessonplan.Run,
				Material: "fog",
				Why:      []lessonplan.Reason{{Kind: lessonplan.RunDue}, {Kind: lessonplan.WaitedBefore}},
			},
		),
	)
	for want, r := range map[string]lessonplan.Reason{
		"in work; 2 of 3 points secure":                              {Kind: lessonplan.InWork, Count: 2, Of: 3},
		"one hard spot is open":                                      {Kind: lessonplan.OpenSpots, Count: 1},
		"two hard spots are open":                                    {Kind: lessonplan.OpenSpots, Count: 2},
		"“Fog” will need it; three lessons in hand":                  {Kind: lessonplan.Planting, Material: "fog", Count: 3},
		"“Fog” will need it, and it is ready just in time":           {Kind: lessonplan.Planting, Material: "fog"},
		"“Fog” will need it, and it is late already":                 {Kind: lessonplan.Planting, Material: "fog", Count: -1},
		"nothing is in work on this strand; nothing in it is a jump": {Kind: lessonplan.Idle, Proposal: &next.Reason{Kind: next.Fits}},
		"62 % sure, played today":                                    {Kind: lessonplan.Fading, Review: &review.Reason{Recall: 0.62}},
		"one of four ways, and not done yet":                         {Kind: lessonplan.OneOfSeveral, Of: 4},
		"done once; the other ways were not done less":               {Kind: lessonplan.InTurn, Count: 1},
		"done three times; the other ways were not done less":        {Kind: lessonplan.InTurn, Count: 3},
	} {
		require.Equal(t, want, n.Segment(lessonplan.Segment{Kind: lessonplan.Run, Material: "fog", Why: []lessonplan.Reason{r}}).Why)
	}
	for want, w := range map[string]lessonplan.Waiting{
		"left out by hand": {Kind: lessonplan.ByHand}, "one new thing at a time": {Kind: lessonplan.OneNew},
		"the next lesson is 14 days away, and a new exercise is better not left alone over a break": {Kind: lessonplan.FarLesson, Count: 14},
		"review has its 9 minutes already":                     {Kind: lessonplan.ReviewFull, Count: 9},
		"it needs 4 minutes, and what was chosen matters more": {Kind: lessonplan.NoRoom, Count: 4},
		"what was chosen matters more":                         {Kind: lessonplan.WorthLess},
	} {
		require.Equal(t, want, Waiting(w))
	}
	require.Equal(t, "There is no lesson on that day.", DayPlanned(0, 0))
	require.Equal(t, "Three lessons planned; nothing has to wait.", DayPlanned(3, 0))
	require.Equal(t, "Three lessons planned; one is too full, and says what is left for next week.", DayPlanned(3, 1))
	require.Equal(t, "Three lessons planned; two are too full, and say what is left for next week.", DayPlanned(3, 2))
}

func TestWhatAnotherWeekHasOtherwise(t *testing.T) {
	n := names(t)
	item := func(title string, from, to int) week.Item {
		i := week.Item{Material: "fog", Title: title}
		i.Bars.From, i.Bars.To = from, to
		return i
	}
	monday, friday := day(time.May, 4), day(time.May, 8)
	require.Equal(
		t,
		[]string{
			"New: “Fog”, bars 3–4, on Monday and Friday",
			"Gone: “Fog”, on Friday before",
			"Moved: “Fog”, bar 5, now on Monday",
			"Different: “Fog”",
		},
		n.WeekChanges([]week.Change{
			{Kind: week.Added, Item: item("Fog", 3, 4), Days: []time.Time{monday, friday}},
			{Kind: week.Removed, Item: item("Fog", 0, 0), Days: []time.Time{friday}},
			{Kind: week.Moved, Item: item("Fog", 5, 5), Days: []time.Time{monday}}, {Item: item("Fog", 0, 0)},
		}),
	)
	require.Equal(t, "and 2 more", n.WeekChanges(make([]week.Change, 8))[6])
	require.Contains(t, WeekChanged(true), "Nothing was published.")
	require.NotEqual(t, WeekChanged(true), WeekChanged(false))
}

func TestWhatComesFromHomeAndWhatAFamilyReads(t *testing.T) {
	n := names(t)
	require.Equal(t, "Nothing was reported from home", n.Home(withfamily.Home{Days: 5}))
	require.Equal(
		t,
		"Practised on three of five days; joyful 2 times and hard 1 time; played “Fog” first",
		n.Home(withfamily.Home{Practised: 3, Days: 5, Joyful: 2, Hard: 1, First: []string{"fog"}}),
	)
	require.Equal(
		t,
		"Also played “A sea song”; asks: “Which hand?”; asks to move a lesson: “Friday?”",
		n.Home(
			withfamily.Home{
				Days:  5,
				Also:  []string{"A sea song"},
				Asked: []withfamily.Note{{Kind: withfamily.Question, Text: "Which hand?"}, {Kind: withfamily.MoveLesson, Text: "Friday?"}},
			},
		),
	)
	require.Equal(
		t,
		"Practised on five of five days and on one more",
		n.Home(withfamily.Home{Practised: 5, Days: 5, More: 1}),
		"more than was set",
	)
	require.Equal(t, "Practised on two days; hard 1 time", n.Home(withfamily.Home{More: 2, Hard: 1}), "before anything was set")
	en, de := tongue.Of("en"), tongue.Of("de")
	lesson := day(time.May, 11)
	require.Equal(
		t,
		[]string{"Heute wird nicht geübt. Der nächste Unterricht ist am Montag.", "gelernt im Mai 2026"},
		[]string{AtHome(de, withfamily.AtHome{Kind: withfamily.Rest, NextLesson: lesson}), Path(de, withfamily.PathStep{Learned: lesson})},
	)
	for want, d := range map[string]withfamily.AtHome{
		"Nothing is set yet. The next lesson is on Monday.": {Kind: withfamily.NothingSet, NextLesson: lesson},
		"Today: 2 things, about 9 min.":                     {Kind: withfamily.Practice, Things: 2, Minutes: 8.5, Left: 2, LeftMinutes: 8.5, NextLesson: lesson},
		"Today: 2 of 3 things to go, about 5 min.":          {Kind: withfamily.Practice, Things: 3, Minutes: 8.5, Left: 2, LeftMinutes: 4.5},
		"Today: one thing to go, about 2 min.":              {Kind: withfamily.Practice, Things: 3, Minutes: 8.5, Left: 1, LeftMinutes: 2},
		"Today: one thing, about 2 min.":                    {Kind: withfamily.Practice, Things: 1, Minutes: 2, Left: 1, LeftMinutes: 2},
		"Today is done.":                                    {Kind: withfamily.Practice, Things: 3, Minutes: 8.5},
		"Lesson today, no practice.":                        {Kind: withfamily.LessonDay, NextLesson: lesson},
		"No practice today. The next lesson is on Monday.":  {Kind: withfamily.Rest, NextLesson: lesson},
		"The new week begins on Friday.":                    {Kind: withfamily.LiesAhead, NextLesson: lesson, Begins: day(time.May, 8)},
		"This week is over. The next lesson is on Monday.":  {Kind: withfamily.Over, NextLesson: lesson},
	} {
		require.Equal(t, want, AtHome(en, d))
	}
	require.Equal(t, "learned in May 2026", Path(en, withfamily.PathStep{Learned: lesson}))
	require.Equal(t, "1 of 3 points secure", Path(en, withfamily.PathStep{Full: 1, Points: 3}))
	require.Equal(t, "just begun", Path(en, withfamily.PathStep{}))
	words, why := Balance(
		enjoyment.Balance{Kind: enjoyment.Quiet, From: enjoyment.Evidence{Practised: 20, Set: 28, Hard: 6, Fine: 1, Disliked: 2}},
	)
	require.Equal(
		t,
		"Practises, and does not seem to enjoy it: the quiet one to notice. Talk with the family, and look at the pieces together.",
		words,
	)
	require.Equal(
		t,
		"Practised on 20 of 28 days that were set; felt joyful 0 times, fine 1 time, hard 6 times; signs of liking: 0, of the opposite: 2, in eight weeks.",
		why,
	)
}

func TestTechniqueInOneSentence(t *testing.T) {
	scale := TitledStep{"D major scale", "one octave"}
	require.Equal(t, "Ada is on D major scale: one octave.", Technique{First: "Ada", Now: []TitledStep{scale}}.Sentence())
	require.Equal(
		t,
		"Ada has two exercises; begin with D major scale.",
		Technique{First: "Ada", Now: []TitledStep{scale, {"Trill", "slow"}}}.Sentence(),
	)
	require.Equal(t, "Next for Ada: D major scale, one octave.", Technique{First: "Ada", Next: &scale}.Sentence())
	require.Equal(t, "Ada has passed every staircase there is.", Technique{First: "Ada"}.Sentence())
	require.Equal(t, "Harmonic minor", Kind("harmonic-minor"))
	require.Equal(t, "Minor", Kind("minor-broken-chord"))
	require.Equal(t, "66 this week; 96 in five weeks.", Climb(&standing.Climb{To: 96, Marks: []int{66, 72, 80, 88, 96}}))
	require.Equal(
		t,
		"96 this week, and that is the goal; eased back once.",
		Climb(&standing.Climb{To: 96, Marks: []int{66, 72, 80, 88, 96}, At: 4, Eased: 1}),
	)
	require.Equal(t, "96 is reached.", Climb(&standing.Climb{To: 96, Marks: []int{66, 96}, At: 2}))
	require.Equal(t, "Nobody plays this instrument here yet.", Atlas(0, 0, 0))
	require.Equal(t, "Nobody has begun a scale yet.", Atlas(5, 0, 0))
	require.Equal(t, "Two students of 5 have begun; nine keys in all have passed once.", Atlas(5, 2, 9))
}

func TestEverySwitchHasWords(t *testing.T) {
	other := way.Presets()[0].Way
	for _, p := range way.Presets() {
		if p.Key == "dated" {
			other = p.Way
		}
	}
	var keys []string
	for _, s := range Switches(way.Default(), other) {
		keys = append(keys, s.Key)
		require.NotEqual(t, s.From, s.To, s.Key)
	}
	require.ElementsMatch(t, way.Default().Differs(other), keys)
	require.Equal(t, Switch{Key: "reviewShare", Name: "Review", From: "45 % of practice", To: "30 % of practice",
		Means: "This share of practice is meant for learned pieces; working pieces get the rest."}, Switches(way.Default(), other)[0])
	require.Len(t, switches, len(way.Bounds())+9, "those with bounds, five choices, three yes, and how pieces are read")
}

func TestAPieceInOneSentence(t *testing.T) {
	n := names(t)
	skill := func(ids ...string) (out []leap.Part) {
		for _, id := range ids {
			out = append(out, leap.Part{Kind: leap.OfSkill, Skill: id})
		}
		return out
	}
	ready := func(kind proposing.Readiness, list ...string) (out []proposing.Ready) {
		for _, name := range list {
			out = append(out, proposing.Ready{Called: name, Kind: kind})
		}
		return out
	}
	require.Equal(t, "It has no score; what it needs was set by hand.", n.Piece(Piece{Bars: 8}))
	require.Equal(t, "Eight bars; nothing in it is new.", n.Piece(Piece{HasScore: true, Bars: 8, Distinct: 8, ForSomebody: true}))
	require.Equal(
		t,
		"8 bars, six patterns; nothing in it was new.",
		n.Piece(Piece{HasScore: true, Bars: 8, Distinct: 6, ForSomebody: true, Begun: true}),
	)
	require.Equal(
		t,
		"8 bars, six patterns; new in it: counting rests, minims.",
		n.Piece(Piece{HasScore: true, Bars: 8, Distinct: 6, ForSomebody: true, Fresh: skill("rests", "minims")}),
	)
	require.Equal(
		t,
		"One bar; new when it was begun: a, b, c and 2 more.",
		n.Piece(Piece{HasScore: true, Bars: 1, Distinct: 1, ForSomebody: true, Begun: true, Fresh: skill("a", "b", "c", "d", "e")}),
	)
	of := func(list ...proposing.Ready) string {
		return n.Piece(Piece{HasScore: true, Bars: 8, Distinct: 8, Ready: list})
	}
	require.Equal(t, "Eight bars.", of(ready(proposing.HasBegun, "Ada")...), "everybody has it")
	require.Equal(t, "Eight bars; nobody else is ready for it yet.", of(ready(proposing.Blocked, "Ada")...))
	require.Equal(t, "Eight bars; Ada is ready for it.", of(ready(proposing.ReadyNow, "Ada")...))
	require.Equal(t, "Eight bars; Ada, Ben, Cy and Dot are ready for it.", of(ready(proposing.ReadyNow, "Ada", "Ben", "Cy", "Dot")...))
	require.Equal(
		t,
		"Eight bars; Ada, Ben, Cy and 2 more are ready for it.",
		of(ready(proposing.ReadyNow, "Ada", "Ben", "Cy", "Dot", "Eva")...),
	)
}

func TestABookInOneSentence(t *testing.T) {
	line := func(title string, size float64, jump bool) curriculum.Line {
		return curriculum.Line{Material: material.Material{Title: title}, Leap: leap.Leap{Size: size}, Cliff: jump}
	}
	require.Equal(t, "There is nothing in it yet.", Book(curriculum.Gradation{}))
	require.Equal(
		t,
		"Two pieces, no skills; no big jump after the beginning.",
		Book(curriculum.Gradation{Lines: []curriculum.Line{line("Fog", 3, true), line("Tar", 1, false)}}),
	)
	require.Equal(t, "Four pieces, one skill; two big jumps, the largest to “Net” (2.5); one skill never repeated.", Book(curriculum.Gradation{
		Lines:  []curriculum.Line{line("Fog", 3, true), line("Tar", 2, true), line("Net", 2.5, true), line("Oar", 1, false)},
		Skills: make([]curriculum.Use, 1), Once: []string{"rests"},
	}))
	require.Equal(t, "No book for piano yet; three pieces without one.", Library("piano", 0, 0, 3))
	require.Equal(t, "One book for piano with 25 pieces, and two pieces without a book.", Library("piano", 1, 25, 2))
	require.Equal(t, "a typical student, who brings what a typical one of four students has learned elsewhere", TypicalPlayer(4))
}

func TestWhatIsSaidOfAPieceAsItIsRead(t *testing.T) {
	require.Equal(
		t,
		[]string{"50 to 89 seconds", "1:20 to 1:30 minutes", "2:00 to 61:01 minutes"},
		[]string{PlayingTime(50, 89), PlayingTime(80, 90), PlayingTime(120, 3661)},
	)
	n := names(t)
	m := material.Material{Bars: 8}
	for want, o := range map[string]overrule.Overruling{
		"no finger at a note in bar 3":      {Kind: overrule.Finger, Bars: []int{3}},
		"finger 3 at a note in bar 3":       {Kind: overrule.Finger, Finger: "3", Bars: []int{3}},
		"counting rests: not asked for":     {Kind: overrule.Demand, Skill: "rests"},
		"counting rests: weight 1.5, bar 2": {Kind: overrule.Demand, Skill: "rests", Weight: 1.5, Bars: []int{2}},
		"a chunk ends after bar 4":          {Kind: overrule.Border, Ends: true, Bars: []int{4}},
		"no chunk ends after bar 4":         {Kind: overrule.Border, Bars: []int{4}},
		"tempo: crotchet 66":                {Kind: overrule.Tempo, QuartersAMinute: 66},
	} {
		require.Equal(t, want, strings.ToLower(n.Overruled(o, m)))
	}
}

func TestNothingWasBroughtIn(t *testing.T) {
	require.Equal(t, "Nothing was brought in. Line 2: no title.", NotImported([]string{"line 2: no title"}))
	require.Equal(t, "Nothing was brought in. A; b; c.", NotImported([]string{"a", "b", "c"}))
	require.Equal(t, "Nothing was brought in. A; b; c, and 2 more.", NotImported([]string{"a", "b", "c", "d", "e"}))
}

func TestWhatIsInTheLibraryAlready(t *testing.T) {
	require.Equal(t, "“A” is in the library already", InLibrary([]string{"A"}))
	require.Equal(t, "“A”, “B” and “C” are in the library already", InLibrary([]string{"A", "B", "C"}))
	require.Equal(t, "“A”, “B”, “C” and 2 more are in the library already", InLibrary([]string{"A", "B", "C", "D", "E"}))
}

func TestTwoBooksBesideEachOther(t *testing.T) {
	two := make([]curriculum.Both, 2)
	say := func(tau float64) string {
		return Compared(curriculum.Comparison{Shared: two, OnlyA: two[:1], Agreement: tau}, "Harbour", "Tide")
	}
	begins := "Two skills in both, 1 skill only in “Harbour”, 0 skills only in “Tide”"
	for tau, ends := range map[float64]string{
		1: "; they come in nearly the same order.", 0.8: "; they come in much the same order.", 0.4: "; they come in quite another order.",
		-0.2: "; they come nearly the other way round.",
	} {
		require.Equal(t, begins+ends, say(tau), "%g", tau)
	}
	require.Equal(
		t,
		"One skill in both, 0 skills only in “Harbour”, 2 skills only in “Tide”.",
		Compared(curriculum.Comparison{Shared: two[:1], OnlyB: two}, "Harbour", "Tide"),
	)
}

func TestALetterToAFamily(t *testing.T) {
	p := LetterParts{
		Says:  "The week is ready:",
		Page:  "https://x/home/k",
		From:  "Ines, Harbour",
		Until: time.Date(2026, 9, 1, 0, 0, 0, 0, time.UTC),
		Stop:  "https://x/home/k#messages",
	}
	en := tongue.Of(tongue.English)
	begins, ends := "The week is ready:\nhttps://x/home/k\n\n"+en.Say(
		"mail.link",
		"date",
		"1 September 2026",
	)+"\n", "\n"+en.Say(
		"mail.stop",
	)+"\nhttps://x/home/k#messages\n"
	require.Equal(t, begins+"\nInes, Harbour\n"+ends, FamilyLetter(en, p))
	p.Words, p.Under = "Well done.", "Quay 4\nGullhaven"
	require.Equal(t, begins+"\nWell done.\n\nInes, Harbour\nQuay 4\nGullhaven\n"+ends, FamilyLetter(en, p))
}
