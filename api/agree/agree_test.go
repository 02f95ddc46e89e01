// Package agree_test asks every screen about each of two hundred students who live through their lessons by lot, and holds
// the answers beside each other: what two screens say of the same thing is the same.
package agree_test

import (
	"encoding/json"
	"net/http"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
	"patientladder/api/pagetest"
	"patientladder/demo"
)

// students is how many live through their lessons.
var students = 110

func init() {
	if os.Getenv("LADDER_LONG") != "" {
		students = 200
	}
}

var site pagetest.Site

func TestMain(m *testing.M) {
	os.Exit(pagetest.Main(m, demo.Options{Seed: 23, Students: students}, &site))
}

// get reads the answer to a question as the contract describes it.
func get[T any](t *testing.T, path string) (out T) {
	t.Helper()
	res, err := site.Client.Get(site.URL + "/api" + path)
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, http.StatusOK, res.StatusCode, path)
	require.NoError(t, json.NewDecoder(res.Body).Decode(&out))
	return out
}

func TestEveryScreenSaysTheSame(t *testing.T) {
	unusual()
	studio := get[contract.Overview](t, "/overview")
	require.Len(t, studio.Students, students+begun)
	today := map[string]contract.TodayLesson{}
	for _, l := range get[contract.Today](t, "/today").Lessons {
		today[l.Student.Ladder] = l
	}
	require.NotEmpty(t, today)
	counted := map[string]int{}
	for _, o := range studio.Students {
		at := "/ladders/" + o.Student.Ladder
		s := screens{
			name: o.Student.Name, studio: o, ladder: get[contract.LadderView](t, at), lesson: get[contract.Lesson](t, at+"/lesson"),
			plan: get[contract.LessonPlan](t, at+"/plan"), week: get[contract.Week](t, at+"/week"),
			technique: get[contract.Technique](t, at+"/technique"),
		}
		if l, ok := today[o.Student.Ladder]; ok {
			s.today = &l
		}
		s.agree(t, counted)
	}
	for _, what := range []string{"working", "bites", "reviews", "signs", "drills", "forecasts", "today", "late"} {
		require.Positive(t, counted[what], "there was something to compare: %s", what)
	}
}

// screens are the answers about one student.
type screens struct {
	name      string
	studio    contract.OverviewStudent
	today     *contract.TodayLesson
	ladder    contract.LadderView
	lesson    contract.Lesson
	plan      contract.LessonPlan
	week      contract.Week
	technique contract.Technique
}

func (s *screens) agree(t *testing.T, counted map[string]int) {
	t.Helper()
	require.Equal(t, s.week.Review, s.studio.Review, "%s: the share of review, studio and week", s.name)
	require.Equal(t, s.week.Review, s.ladder.Review, "%s: the share of review, ladder and week", s.name)
	// In a lesson that has begun the bites of today can still be given; for the other screens it is over.
	if !s.given() {
		require.Equal(t, s.lesson.Signs, s.studio.Signs, "%s: the signs, studio and lesson", s.name)
	}
	require.Equal(t, s.ladder.Targets, s.studio.Targets, "%s: the targets, studio and ladder", s.name)
	counted["signs"] += len(s.studio.Signs)
	if s.today != nil {
		counted["today"]++
		require.Equal(t, s.studio.Signs, s.today.Signs, "%s: the signs, today and studio", s.name)
	}
	s.working(t, counted)
	s.plantings(t, counted)
	s.minutes(t, counted)
}

// given says that today's lesson has begun.
func (s *screens) given() bool {
	return s.today != nil && s.today.Lesson.Became == contract.LessonDateBecameTaught
}

// What is worked at is the same everywhere, and how long it takes.
func (s *screens) working(t *testing.T, counted map[string]int) {
	t.Helper()
	rungs := map[string]contract.Rung{}
	var onLadder, inLesson, inStudio []string
	for _, rail := range s.ladder.Rails {
		for _, r := range rail.Rungs {
			rungs[r.Material] = r
			if r.Layer == contract.RungLayerWorking {
				onLadder = append(onLadder, r.Material)
			}
		}
	}
	for _, p := range s.lesson.Pieces {
		if p.State == contract.LessonPieceStateWorking {
			inLesson = append(inLesson, p.Material)
			require.Equal(t, rungs[p.Material].RunDue, p.RunDue, "%s: %s, a run is due", s.name, p.Title)
			require.Equal(t, rungs[p.Material].Points-rungs[p.Material].Full, s.open(p), "%s: %s, open points", s.name, p.Title)
		}
	}
	for _, p := range s.studio.Working {
		inStudio = append(inStudio, p.Material)
		r := rungs[p.Material]
		require.Equal(t, r.Full, p.Full, "%s: %s, points with a full mark", s.name, p.Title)
		require.Equal(t, r.Points, p.Points, "%s: %s", s.name, p.Title)
		require.Equal(t, r.Clears, p.Clears, "%s: %s, when it is done", s.name, p.Title)
		if r.Clears != (contract.Days{}) {
			counted["forecasts"]++
		}
	}
	require.ElementsMatch(t, onLadder, inLesson, "%s: at work, ladder and lesson", s.name)
	require.ElementsMatch(t, onLadder, inStudio, "%s: at work, ladder and studio", s.name)
	counted["working"] += len(onLadder)
	if s.today != nil {
		var brief []string
		for _, p := range s.today.Working {
			brief = append(brief, p.Material)
		}
		require.ElementsMatch(t, onLadder, brief, "%s: at work, ladder and today", s.name)
	}
	for _, x := range s.technique.Now {
		require.Contains(t, onLadder, x.Material, "%s: %s is at work", s.name, x.Title)
		counted["drills"]++
	}
	for _, x := range s.technique.Ahead {
		require.Equal(t, contract.RungLayerAhead, rungs[x.Material].Layer, "%s: %s stands ahead", s.name, x.Title)
	}
	for _, r := range s.lesson.Reviews {
		require.Equal(t, contract.RungLayerReview, rungs[r.Material].Layer, "%s: %s is learned", s.name, r.Title)
		require.Equal(t, rungs[r.Material].Recall, r.Recall, "%s: %s, how sure it is", s.name, r.Title)
		counted["reviews"]++
	}
	for _, d := range s.week.Days {
		for _, it := range d.Items {
			switch it.Kind {
			case contract.WeekItemKindReview:
				require.Equal(t, contract.RungLayerReview, rungs[it.Material].Layer, "%s: %s at home is learned", s.name, it.Title)
			case contract.WeekItemKindChunk,
				contract.WeekItemKindJoin,
				contract.WeekItemKindWhole,
				contract.WeekItemKindSpot,
				contract.WeekItemKindAgain,
				contract.WeekItemKindDrill:
				require.NotEqual(t, contract.RungLayerAhead, rungs[it.Material].Layer, "%s: %s at home was begun", s.name, it.Title)
			}
		}
	}
}

// open counts what has no full mark yet: points, but for those that are a habit by now, faults that were seen, spots.
func (s *screens) open(p contract.LessonPiece) (n int) {
	for _, x := range p.Points {
		habit := slices.ContainsFunc(s.ladder.Habits, func(f contract.OwnFocus) bool { return f.Id == x.Id && f.Habit })
		if x.Mark != contract.MarkFull && !habit {
			n++
		}
	}
	for _, x := range p.Faults {
		if x.Mark != "" && x.Mark != contract.MarkFull {
			n++
		}
	}
	if p.SpotsMark != "" && p.SpotsMark != contract.MarkFull {
		n++
	}
	return n
}

// The bites of the lesson are the next ones of what the ladder plants, and what is late there is a sign.
func (s *screens) plantings(t *testing.T, counted map[string]int) {
	t.Helper()
	late := 0
	for _, p := range s.ladder.Plantings {
		if p.Late > 0 {
			late++
		}
	}
	for _, b := range s.lesson.Bites {
		if s.given() {
			break
		}
		i := slices.IndexFunc(s.ladder.Plantings, func(p contract.Planting) bool { return p.Skill == b.Skill })
		require.GreaterOrEqual(t, i, 0, "%s: the ladder plants %s for %s", s.name, b.Name, b.For)
		p := s.ladder.Plantings[i]
		require.Equal(t, []any{p.Of, p.ForTitle, p.Name}, []any{b.Of, b.For, b.Name}, "%s: %s", s.name, b.Name)
		require.GreaterOrEqual(t, b.Step, p.Done, "%s: %s was not done yet", s.name, b.Name)
		counted["bites"]++
	}
	said := slices.ContainsFunc(s.studio.Signs, func(x contract.Sign) bool { return x.Kind == contract.SignKindLate })
	require.Equal(t, late > 0, said, "%s: %d come too late", s.name, late)
	counted["late"] += late
}

// Minutes add up, and nobody is asked for more than there are.
func (s *screens) minutes(t *testing.T, counted map[string]int) {
	t.Helper()
	all, review, in := s.plan.Free, 0, map[string]bool{}
	for _, x := range s.plan.Segments {
		all += x.Minutes
		in[x.Id] = true
		if x.Kind == contract.PlanSegmentKindReview {
			review += x.Minutes
		}
	}
	require.Equal(t, s.plan.Minutes, all, "%s: the minutes of the lesson", s.name)
	require.Equal(t, s.plan.Review, review, "%s: its minutes for learned pieces", s.name)
	require.Equal(t, s.plan.Waits == "", len(s.plan.Left) == 0, "%s: %q waits", s.name, s.plan.Waits)
	for _, x := range append(s.plan.Left, s.plan.Others...) {
		require.False(t, in[x.Id], "%s: %s is in or out", s.name, x.Title)
	}
	share, week, games := 0.0, 0.0, 0.0
	for _, d := range s.week.Days {
		day := 0.0
		for _, it := range d.Items {
			day += it.Minutes
			if it.Kind == contract.WeekItemKindReview {
				share += it.Minutes
			}
			week += it.Minutes
			if it.Kind == contract.WeekItemKindGame {
				games += it.Minutes
			}
		}
		require.InDelta(t, d.Minutes, day, 1e-9, "%s: the minutes of %s", s.name, d.Date)
		require.LessOrEqual(t, day, float64(s.week.Minutes), "%s: %s", s.name, d.Date)
		for _, it := range s.week.LeftOut {
			if d.Rest {
				break
			}
			require.Greater(t, day+it.Minutes, float64(s.week.Minutes), "%s: %s would have fitted on %s", s.name, it.Title, d.Date)
		}
	}
	if week > games {
		require.InDelta(t, share/week, s.week.Review.Share, 5.1e-4, "%s: the share of review", s.name)
	}
}
