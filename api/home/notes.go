package home

import (
	"context"
	"strings"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording"
	"patientladder/store"
)

// ListNotes returns what families wrote, for the teacher.
func (h *Handlers) ListNotes(ctx context.Context, _ contract.ListNotesRequestObject) (contract.ListNotesResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	list, err := h.Store.StudioNotes(ctx, s.Tenant.ID, s.Now.AddDate(0, 0, -withfamily.NoteDays))
	if err != nil {
		return nil, err
	}
	mine, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	list = open.OfThese(list, mine)
	out := contract.ListNotes200JSONResponse{}
	for _, n := range withfamily.InTurn(list, func(n store.Note) withfamily.Note { return n.Note }) {
		x := contract.HomeNote{
			Id: n.ID, Kind: contract.HomeNoteKind(n.Kind), Text: n.Text, At: n.At, Said: wording.NoteFrom(n.Note, s.Today), Answer: n.Answer,
			Open: n.Open(), Ladder: n.Ladder,
			Name: n.Student,
		}
		if n.Kind == withfamily.MoveLesson {
			st, err := h.Student(ctx, n.Ladder)
			if err != nil {
				return nil, err
			}
			if l, there := st.Timetable().Find(n.About); there {
				x.Day, x.About = answer.Date(l.Day), wording.WeekdayAndDay(l.Day)+", "+wording.Clock(l.StartsAt)
			}
		}
		out = append(out, x)
	}
	return out, nil
}

// AnswerNote keeps what the teacher answers; the family reads it on its page, and a message says that it is there.
func (h *Handlers) AnswerNote(ctx context.Context, r contract.AnswerNoteRequestObject) (contract.AnswerNoteResponseObject, error) {
	return contract.AnswerNote204Response{}, app.Answer(ctx, h.Loader, r.Note, strings.TrimSpace(r.Body.Answer))
}
