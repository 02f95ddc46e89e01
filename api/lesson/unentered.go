package lesson

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/lookback"
	"patientladder/core/wording"
	"patientladder/store"
)

// ListNotEntered lists the lessons of the last weeks of which nothing was entered.
func (h *Handlers) ListNotEntered(
	ctx context.Context,
	_ contract.ListNotEnteredRequestObject,
) (contract.ListNotEnteredResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	here := open.ByLadder(opened)
	waits := lookback.AllUnentered(open.Plain(opened))
	out := contract.NotEntered{Sentence: wording.NotEntered(len(waits)), Lessons: []contract.LessonDate{}}
	for _, u := range waits {
		pupil := s.Pupils([]store.Ladder{here[u.Student.Ladder].Row})[0]
		out.Lessons = append(out.Lessons, answer.Became(agenda.Lesson{Pupil: pupil, Lesson: u.Lesson}, lookback.NotEntered))
	}
	return contract.ListNotEntered200JSONResponse(out), nil
}
