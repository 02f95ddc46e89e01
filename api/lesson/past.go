package lesson

import (
	"context"
	"slices"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/lookback"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/wording"
	"patientladder/store"
)

// past opens the lessons that were with what they are made from.
func (h *Handlers) past(
	ctx context.Context,
	ladder string,
) (s open.Student, log []studentlog.Entry, live []*studentlog.Entry, past []lookback.PastLesson, err error) {
	if s, err = h.Student(ctx, ladder); err != nil {
		return s, nil, nil, nil, err
	}
	if log, err = h.Log(ctx, s); err != nil {
		return s, nil, nil, nil, err
	}
	live = studentlog.Live(log)
	return s, log, live, lookback.Past(s.Student, live), nil
}

// GetPast returns the lessons that were, the latest first.
func (h *Handlers) GetPast(ctx context.Context, r contract.GetPastRequestObject) (contract.GetPastResponseObject, error) {
	s, _, _, past, err := h.past(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	n := s.Of().Names()
	found := lookback.Matching(s.Student, past, r.Params.Search, func(e *studentlog.Entry) string { return n.Entry(e, s.Student) })
	out := contract.Past{
		Student:  answer.Student(s.Row, s.Today),
		Lessons:  []contract.PastLine{},
		Sentence: wording.Past(past, len(found), r.Params.Search != ""),
	}
	for _, p := range found {
		line := contract.PastLine{
			Day:    answer.Date(p.Day),
			State:  contract.PastLineState(p.State),
			Words:  n.PastLesson(p),
			Pieces: []string{},
			Notes:  append([]string{}, p.Notes...),
		}
		for _, id := range p.Pieces {
			line.Pieces = append(line.Pieces, s.Library[id].Title)
		}
		for _, text := range p.WentWell {
			line.Notes = append(line.Notes, wording.WentWell(text))
		}
		for _, text := range p.Bring {
			line.Notes = append(line.Notes, wording.ToBring(text))
		}
		out.Lessons = append(out.Lessons, line)
	}
	return contract.GetPast200JSONResponse(out), nil
}

// GetPastLesson returns one lesson entry by entry.
func (h *Handlers) GetPastLesson(ctx context.Context, r contract.GetPastLessonRequestObject) (contract.GetPastLessonResponseObject, error) {
	s, log, live, past, err := h.past(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	n, day := s.Of().Names(), r.Day.Time
	out := contract.PastDay{
		Student: answer.Student(s.Row, s.Today), Day: answer.Date(day), Words: wording.NothingEntered, Entries: []contract.PastEntry{},
		Pieces: []contract.PastPiece{}, Set: []string{}, Begin: []contract.Choice{},
		Taken: logLines(s, lookback.TakenBackOn(s.Student, log, live, day)), At: lookback.EntryTime(s.Student, live, day).UTC(),
	}
	if i := slices.IndexFunc(past, func(p lookback.PastLesson) bool { return p.Day.Equal(day) }); i >= 0 {
		out.Words = n.PastLesson(past[i])
		for _, e := range past[i].Entries {
			out.Entries = append(
				out.Entries,
				contract.PastEntry{Entry: entryOut(*e), Text: n.Entry(e, s.Student), Title: s.Library[e.Material].Title},
			)
		}
	}
	if err := h.forgotten(ctx, s, day, &out); err != nil {
		return nil, err
	}
	before, after := lookback.Around(past, day)
	out.Last, out.Next = dayOrNone(before), dayOrNone(after)
	working := s.In(standing.Working)
	for _, id := range lookback.Had(s.Student, day) {
		piece := contract.PastPiece{Material: id, Title: s.Library[id].Title, Points: []contract.Choice{}, Working: slices.Contains(working, id)}
		for _, f := range s.PointsOf(id) {
			piece.Points = append(piece.Points, contract.Choice{Id: f.ID, Name: f.Text})
		}
		out.Pieces = append(out.Pieces, piece)
	}
	return contract.GetPastLesson200JSONResponse(out), nil
}

// forgotten adds what helps to enter a lesson afterwards: the lesson itself, what was set for it, and what could be begun.
func (h *Handlers) forgotten(ctx context.Context, s open.Student, day time.Time, out *contract.PastDay) error {
	published, err := h.Store.PublishedWeeks(ctx, s.Tenant.ID, s.Ladder, week.Reaching(day, week.Days))
	if err != nil {
		return err
	}
	for _, id := range withfamily.WasSet(open.SetWeeks(s.Student, published), day) {
		out.Set = append(out.Set, s.Library[id].Title)
	}
	placed, err := h.Store.Rungs(ctx, s.Tenant.ID, s.Ladder)
	if err != nil {
		return err
	}
	for _, id := range proposing.CouldBegin(s.Student, placed) {
		out.Begin = append(out.Begin, contract.Choice{Id: id, Name: s.Library[id].Title})
	}
	if l, ok := lookback.LessonOn(s.Student, day); ok {
		out.Lesson = answer.Became(agenda.Lesson{Pupil: s.Of().Pupils([]store.Ladder{s.Row})[0], Lesson: l}, lookback.BecameOf(s.Student, l))
	}
	return nil
}

func dayOrNone(day time.Time) string {
	if day.IsZero() {
		return ""
	}
	return day.Format(time.DateOnly)
}

// lastTime is what a lesson opens with: the last one, and what came from home since.
func lastTime(s open.Student, live []*studentlog.Entry, home string) contract.LastTime {
	last, ok := lookback.LastTimeOf(s.Student, live, s.Today)
	if !ok {
		return contract.LastTime{}
	}
	return contract.LastTime{
		Day: answer.Date(last.Day), Words: wording.LastTimeDay(last.Day, s.Today), Lines: s.Of().Names().LastTime(last, home),
		Bring: append([]string{}, last.Bring...),
	}
}

// takenBack are today's entries that were taken back, the last one first, each with the taking back, so that
// that can be taken back as well.
func takenBack(s open.Student, log []studentlog.Entry, live []*studentlog.Entry) []contract.LogLine {
	return logLines(s, lookback.TakenBackToday(s.Student, log, live))
}

// logLines are entries that were taken back, each under the id of its correction.
func logLines(s open.Student, taken []studentlog.Taken) []contract.LogLine {
	out := []contract.LogLine{}
	n := s.Of().Names()
	for _, t := range taken {
		out = append(out, contract.LogLine{Id: t.By.ID, At: t.By.At, Kind: string(t.Entry.Kind), Text: n.Entry(t.Entry, s.Student)})
	}
	return out
}
