package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/clearing"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
)

// GetLesson returns what the lesson needs: the working pieces, method first, and
// those cleared today, with focus points, spots, runs, and today's entries for undoing.
func (s *Server) GetLesson(ctx context.Context, r contract.GetLessonRequestObject) (contract.GetLessonResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{near: true, lesson: true})
	if err != nil {
		return nil, err
	}
	sh := a.shelf
	log, err := s.store.Log(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	live := studentlog.Live(log)
	out := contract.Lesson{
		Student: student(sh.ladder, sh.today), Pieces: []contract.LessonPiece{}, Standard: []contract.StandardPoint{},
		Signs: signsOut(a.signs(sh.today)), Level: contract.LessonLevel(sh.way.Standard), Log: []contract.LogLine{},
	}
	for _, p := range clearing.Standard(sh.family, sh.way.Standard) {
		out.Standard = append(out.Standard, contract.StandardPoint{Id: p.ID, Name: p.Name})
	}
	for _, id := range sh.in(standing.Working, standing.Cleared, standing.Polished) {
		ms := sh.standing.Materials[id]
		if ms.State != standing.Working && !sh.day(ms.ClearedAt).Equal(sh.today) {
			continue
		}
		piece, err := s.lessonPiece(ctx, sh, id, live)
		if err != nil {
			return nil, err
		}
		out.Pieces = append(out.Pieces, piece)
	}
	out.Reviews = reviews(sh)
	out.Bites = a.bites()
	for _, e := range live {
		if e.Actor != studentlog.Family && sh.day(e.At).Equal(sh.today) {
			out.Log = append(out.Log, contract.LogLine{Id: e.ID, At: e.At, Kind: string(e.Kind), Text: s.describe(sh, e)})
		}
	}
	out.Usual = usualWords(live)
	out.Sentence = lessonSentence(out)
	return contract.GetLesson200JSONResponse(out), nil
}

// faultMarks say how a usual fault stands.
var faultMarks = map[studentlog.Mark]string{studentlog.None: "seen", studentlog.Part: "less", studentlog.Full: "gone"}

// gates say which hand may play at home.
var gates = map[studentlog.Gate]string{
	studentlog.Automatic: "hands by the way of teaching", studentlog.RightOnly: "right hand only until taught", studentlog.LeftOnly: "left hand only until taught",
	studentlog.Apart: "each hand by itself", studentlog.Together: "both hands",
}

func (s *Server) lessonPiece(ctx context.Context, sh shelf, id string, live []*studentlog.Entry) (contract.LessonPiece, error) {
	m, ms := sh.lib[id], sh.standing.Materials[id]
	p := contract.LessonPiece{
		Material: id, Title: m.Title, From: from(m), Strand: contract.Strand(m.Strand), State: contract.LessonPieceState(ms.State),
		Bars: m.Bars, BarLabels: []string{}, Points: []contract.FocusPoint{}, Spots: []contract.Spot{}, Runs: []contract.Run{},
		RunDue: ms.RunDue, Why: ms.Why, Lessons: ms.Lessons, Gate: contract.Gate(ms.Gate), Hand: sh.gated(id).Hand(), Exercise: m.Exercise, Faults: []contract.Fault{},
	}
	if e, err := exercise.Parse(m.Exercise, sh.player()); err == nil {
		p.Faults = faultsOf(e, func(id string) contract.Mark { return contract.Mark(ms.Marks[id]) })
	}
	if p.Gate == "" {
		p.Gate = contract.Automatic
	}
	for b := 1; b <= m.Bars; b++ {
		p.BarLabels = append(p.BarLabels, m.BarLabel(b))
	}
	history := map[string][]contract.Mark{}
	for _, e := range live {
		if e.Kind == studentlog.MarkGiven && e.Material == id {
			history[e.Focus] = append(history[e.Focus], contract.Mark(e.Mark))
		}
	}
	add := func(f contract.FocusPoint) {
		f.Mark = contract.Mark(ms.Marks[f.Id])
		f.History = append([]contract.Mark{}, history[f.Id]...)
		p.Points = append(p.Points, f)
	}
	for _, f := range m.FocusPoints {
		add(contract.FocusPoint{Id: f.ID, Text: f.Text})
	}
	for _, f := range sh.standing.Focus {
		// A habit no longer travels, but a mark given on this piece stays to be seen.
		if _, marked := ms.Marks[f.ID]; !f.Habit || marked {
			add(contract.FocusPoint{Id: f.ID, Text: f.Text, Own: true, Streak: f.Streak})
		}
	}
	for _, spot := range ms.Spots {
		p.Spots = append(p.Spots, contract.Spot{Id: spot.ID, From: spot.From, To: spot.To, Where: m.Span(spot.From, spot.To), Text: spot.Text, Mended: spot.Mended})
	}
	if mark, any := ms.SpotsMark(); any {
		p.SpotsMark = contract.Mark(mark)
	}
	for _, run := range ms.Runs {
		p.Runs = append(p.Runs, contract.Run{Id: run.ID, At: run.At, Met: append([]string{}, run.Met...), Cleared: run.Cleared, Why: run.Why})
	}
	o, err := s.read(ctx, sh.studio.ID, m)
	if err == nil && o != nil {
		p.Opening = o.Opening(sh.studio.Words.Key)
	}
	return p, err
}

// bites are the preview steps that are left for today's lesson: those done in
// it already count among the most that a lesson holds.
func (a ahead) bites() []contract.Bite {
	left := a.way.Bites
	for _, at := range a.standing.Planted {
		if a.day(at).Equal(a.today) {
			left--
		}
	}
	out := []contract.Bite{}
	if !a.lessons.Day(0).Equal(a.today) {
		left = a.way.Bites // looked at on another day: the next lesson's
	}
	for _, b := range a.Today() {
		if len(out) >= left {
			break
		}
		s, _ := a.skills.Get(b.Skill)
		bite := contract.Bite{Skill: b.Skill, Name: s.Name, Step: b.Step, Of: len(s.Steps), Text: s.Steps[b.Step-1]}
		for _, p := range a.plantings() {
			if p.Skill == b.Skill {
				bite.For, bite.Why = p.ForTitle, p.Why
				if e, ok := a.biteExercise(b.Skill, b.Step, p.For); ok {
					bite.Exercise = contract.Choice{Id: e.ID(), Name: e.Full(a.studio.Words)}
				}
			}
		}
		out = append(out, bite)
	}
	return out
}

// biteExercise is the exercise by which a bite plants a skill of a piece: on the string
// and in the key in which the piece will need it.
func (a ahead) biteExercise(skill string, bite int, piece string) (exercise.Exercise, bool) {
	return exercise.ForBite(a.player(), skill, bite, a.lib[piece].Notes)
}

// mostUsual is how many of the usual observations are offered.
const mostUsual = 4

// usualWords are the observations that were noted most often, and at least
// twice; of those noted as often the latest come first.
func usualWords(live []*studentlog.Entry) []string {
	count, last := map[string]int{}, map[string]int{}
	for i, e := range live {
		if e.Kind == studentlog.Note && len(e.Text) <= 60 {
			count[e.Text]++
			last[e.Text] = i
		}
	}
	words := []string{}
	for text, n := range count {
		if n > 1 {
			words = append(words, text)
		}
	}
	slices.SortFunc(words, func(a, b string) int { return cmp.Or(count[b]-count[a], last[b]-last[a]) })
	return words[:min(len(words), mostUsual)]
}

// mostReviews is how many learned pieces a lesson offers to be heard; those
// heard today stay in view beside them.
const mostReviews = 3

func reviews(sh shelf) []contract.ReviewPiece {
	out := []contract.ReviewPiece{}
	waiting := 0
	for _, id := range sh.learned() {
		ms := sh.standing.Materials[id]
		today := sh.day(ms.LastPlayed).Equal(sh.today)
		if sh.day(ms.ClearedAt).Equal(sh.today) || !today && waiting == mostReviews {
			continue
		}
		if !today {
			waiting++
		}
		out = append(out, contract.ReviewPiece{Material: id, Title: sh.lib[id].Title, LastPlayed: ms.LastPlayed, HeardToday: today, Rating: ms.LastRating, Recall: sh.recall(id)})
	}
	return out
}

func lessonSentence(l contract.Lesson) string {
	if len(l.Pieces) == 0 {
		return "Nothing is being worked at: choose the next rung on the ladder."
	}
	var due []string
	for _, p := range l.Pieces {
		if p.RunDue {
			due = append(due, "“"+p.Title+"”")
		}
	}
	switch len(due) {
	case 0:
	case 1:
		return due[0] + " is ready for a run."
	default:
		return joined(due) + " are ready for a run."
	}
	for _, s := range l.Signs {
		if s.Kind == contract.SignKindStuck {
			return s.Text + "."
		}
	}
	working := 0
	for _, p := range l.Pieces {
		if p.State == contract.LessonPieceStateWorking {
			working++
		}
	}
	if working == 0 {
		return "Cleared today. The next rung is proposed below."
	}
	return capital(counted(working, "working piece")) + "; hear one focus point at a time."
}

// describe says an entry in words, for the list that undo works on.
func (s *Server) describe(sh shelf, e *studentlog.Entry) string {
	m := sh.lib[e.Material]
	focus := func() string {
		if x, err := exercise.Parse(m.Exercise, sh.player()); err == nil {
			for _, f := range x.Type.Faults {
				if material.Fault+f.ID == e.Focus {
					return f.Text
				}
			}
		}
		for _, p := range m.FocusPoints {
			if p.ID == e.Focus {
				return p.Text
			}
		}
		for _, f := range sh.standing.Focus {
			if f.ID == e.Focus {
				return f.Text
			}
		}
		return "a focus point"
	}
	switch e.Kind {
	case studentlog.Assigned:
		return fmt.Sprintf("“%s” is now a working piece", m.Title)
	case studentlog.MarkGiven:
		if strings.HasPrefix(e.Focus, material.Fault) {
			return fmt.Sprintf("Fault: %s, %s", focus(), faultMarks[e.Mark])
		}
		return fmt.Sprintf("%s: %s", capital(focus()), e.Mark)
	case studentlog.CycleKept:
		if e.Cycle.First == "" {
			return "The cycle of keys is ended"
		}
		return fmt.Sprintf("A cycle of keys from %s begins", sh.studio.Words.Key(e.Cycle.First))
	case studentlog.LessonMissed:
		return "No lesson on " + e.Day
	case studentlog.ClimbBegun:
		if e.Climb.Weeks == 0 {
			return "The tempo ladder is put away"
		}
		return fmt.Sprintf("“%s” climbs from %d to %d in %s", m.Title, e.Climb.From, e.Climb.To, counted(e.Climb.Weeks, "week"))
	case studentlog.TempoPlayed:
		if e.Held {
			return fmt.Sprintf("“%s” held at %d", m.Title, e.Tempo)
		}
		return fmt.Sprintf("“%s” did not hold at %d", m.Title, e.Tempo)
	case studentlog.SpotAdded:
		return fmt.Sprintf("Spot at %s", m.Span(e.From, e.To))
	case studentlog.SpotMended:
		return "A spot is mended"
	case studentlog.RunTried:
		if v := clearing.Judge(clearing.Standard(sh.family, clearing.Level(e.Standard)), e.Met); !v.Cleared {
			return fmt.Sprintf("Run of “%s”: it stays", m.Title)
		}
		return fmt.Sprintf("Run of “%s”: cleared", m.Title)
	case studentlog.Cleared:
		return fmt.Sprintf("“%s” cleared", m.Title)
	case studentlog.Polished:
		return fmt.Sprintf("“%s” polished", m.Title)
	case studentlog.Hearing:
		return fmt.Sprintf("“%s” heard: %d of 4", m.Title, e.Rating)
	case studentlog.StepDone:
		return fmt.Sprintf("Preview step %d: %s", e.Step, sh.skills.Name(e.Skill))
	case studentlog.FocusAdded:
		return "Own focus point: " + e.Text
	case studentlog.Paused:
		return fmt.Sprintf("“%s” rests", m.Title)
	case studentlog.Resumed:
		return fmt.Sprintf("“%s” is taken up again", m.Title)
	case studentlog.GateSet:
		return fmt.Sprintf("“%s” at home: %s", m.Title, gates[e.Gate])
	case studentlog.Practised:
		return "Practised at home"
	case studentlog.Liking:
		return fmt.Sprintf("“%s”: %s", m.Title, likings[e.Sign])
	case studentlog.SetupChecked:
		return "Bench, feet and hands looked at"
	case studentlog.Activity:
		return "Done: " + lessonplan.Name(e.Goal)
	case studentlog.WentWell:
		return "Went well: " + e.Text
	case studentlog.Note:
		return e.Text
	}
	return string(e.Kind)
}
