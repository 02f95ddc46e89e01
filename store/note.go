package store

import (
	"context"
	"database/sql"
	"time"

	"patientladder/core/planning/withfamily"
	"patientladder/store/rows"
)

// Note is what a family wrote to the teacher.
type Note struct {
	withfamily.Note
	Ladder string
	// Student and Instrument are whom it is about; only read.
	Student, Instrument string
}

// AddNotes keeps notes of a ladder; one that is there already counts once. It returns how many are new.
func (s *Store) AddNotes(ctx context.Context, studio, ladder string, notes []withfamily.Note) (added int, err error) {
	err = s.within(ctx, func(q *rows.Queries) error {
		added = 0
		for _, n := range notes {
			count, err := q.AddFamilyNote(ctx, rows.AddFamilyNoteParams{
				StudioID: studio, ID: n.ID, LadderID: ladder, Kind: string(n.Kind), Text: n.Text, About: n.About, Day: n.Day, At: n.At,
			})
			if err != nil {
				return err
			}
			added += int(count)
		}
		return nil
	})
	return added, explain(err)
}

// Notes are those of a ladder since a time, in order.
func (s *Store) Notes(ctx context.Context, studio, ladder string, since time.Time) ([]withfamily.Note, error) {
	list, err := s.q(ctx).FamilyNotes(ctx, rows.FamilyNotesParams{StudioID: studio, LadderID: ladder, At: since})
	var out []withfamily.Note
	for _, r := range list {
		out = append(out, noteOf(r.ID, r.Kind, r.Text, r.About, r.Day, r.At, r.Answer, r.AnsweredAt))
	}
	return out, err
}

// Note is one of a studio, or ErrNotFound.
func (s *Store) Note(ctx context.Context, studio, id string) (Note, error) {
	r, err := s.q(ctx).FamilyNote(ctx, rows.FamilyNoteParams{StudioID: studio, ID: id})
	return Note{Note: noteOf(r.ID, r.Kind, r.Text, r.About, r.Day, r.At, r.Answer, r.AnsweredAt), Ladder: r.LadderID}, explain(err)
}

// StudioNotes are those of a whole studio since a time, in order.
func (s *Store) StudioNotes(ctx context.Context, studio string, since time.Time) ([]Note, error) {
	list, err := s.q(ctx).StudioNotes(ctx, rows.StudioNotesParams{StudioID: studio, At: since})
	var out []Note
	for _, r := range list {
		out = append(out, Note{noteOf(r.ID, r.Kind, r.Text, r.About, r.Day, r.At, r.Answer, r.AnsweredAt), r.LadderID, r.Name, r.Instrument})
	}
	return out, err
}

func noteOf(id, kind, text, about string, day, at time.Time, answer string, answered sql.NullTime) withfamily.Note {
	return withfamily.Note{
		ID:         id,
		Kind:       withfamily.NoteKind(kind),
		Text:       text,
		About:      about,
		Day:        day,
		At:         at,
		Answer:     answer,
		AnsweredAt: answered.Time,
	}
}

// AnswerNote keeps what the teacher answers, and messages with it; ErrNotFound where there is no such note.
func (s *Store) AnswerNote(ctx context.Context, studio, id, answer string, at time.Time, messages []Message) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.AnswerFamilyNote(ctx, rows.AnswerFamilyNoteParams{Answer: answer, AnsweredAt: sql.NullTime{Time: at, Valid: true}, StudioID: studio, ID: id})); err != nil {
			return err
		}
		return s.addMessages(ctx, q, studio, messages)
	}))
}

// SetWishes keeps how a family wishes to be spoken to and what it wishes to be sent; what waits and is not wished
// any more goes.
func (s *Store) SetWishes(ctx context.Context, f Family) error {
	return s.family(ctx, f.Studio, f.Ladder, func(q *rows.Queries) error {
		err := q.SetFamilyWishes(
			ctx,
			rows.SetFamilyWishesParams{Language: f.Language, Mail: string(f.Mail), Remind: f.Remind, StudioID: f.Studio, LadderID: f.Ladder},
		)
		for _, gone := range []struct {
			is   bool
			kind About
		}{{f.Mail == withfamily.NoMail, AboutWeek}, {!f.Remind || f.Mail == withfamily.NoMail, AboutRemind}} {
			if err == nil && gone.is {
				err = q.DropWaiting(ctx, rows.DropWaitingParams{StudioID: f.Studio, LadderID: f.Ladder, Kind: string(gone.kind), NotBefore: longAgo})
			}
		}
		return err
	})
}

// DropReminder takes back the reminder of a day on which something was practised.
func (s *Store) DropReminder(ctx context.Context, studio, ladder string, day time.Time) error {
	return s.q(ctx).DropReminder(ctx, rows.DropReminderParams{StudioID: studio, LadderID: ladder, Day: sql.NullTime{Time: day, Valid: true}})
}

// Other is another ladder that the same family reads.
type Other struct {
	Ladder, Name, Instrument, Token string
}

// Others are the other ladders of the same family whose links open on a day: of the same student, and of
// those for whom somebody is written to at the same address.
func (s *Store) Others(ctx context.Context, studio, ladder string, day time.Time) ([]Other, error) {
	list, err := s.q(ctx).
		OthersOfFamily(ctx, rows.OthersOfFamilyParams{StudioID: studio, LadderID: ladder, Day: sql.NullTime{Time: day, Valid: true}})
	var out []Other
	for _, r := range list {
		if err := s.opened(&r.Token); err != nil {
			return nil, err
		}
		out = append(out, Other{r.LadderID, r.Name, r.Instrument, r.Token})
	}
	return out, err
}
