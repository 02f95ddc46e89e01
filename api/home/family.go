package home

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/athome"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/studentlog"
	"patientladder/core/wording/tongue"
	"patientladder/home/post"
	"patientladder/store"
)

// errNoLink answers a link that was guessed, shut or has run out: nobody learns which.
var errNoLink = &problem.Problem{
	Status: http.StatusNotFound,
	Guess:  true,
	Detail: "This link opens nothing, or nothing any more. Ask the teacher for a new one.",
}

// familyHome opens the ladder that a family's link is for.
func (h *Handlers) familyHome(ctx context.Context, token string) (store.Family, open.Student, error) {
	f, err := h.Store.FamilyByToken(ctx, token)
	if err != nil || token == "" {
		if err == nil || errors.Is(err, store.ErrNotFound) {
			err = errNoLink
		}
		return f, open.Student{}, err
	}
	sh, err := h.Student(open.As(ctx, open.Who{Teacher: studentlog.Family, Studio: f.Studio}), f.Ladder)
	if err != nil {
		return f, sh, err
	}
	// Whose data are to be deleted is deleted for the family at once; it opens again when that is taken back.
	going, err := h.Store.EraseAt(ctx, f.Studio, sh.Row.StudentID)
	if err == nil && (!going.IsZero() || !(athome.Link{Token: token, Expires: f.Expires}).Opens(sh.Today)) {
		err = errNoLink
	}
	return f, sh, err
}

// familyWay is how a family is reached; a link that has run out is none.
func (h *Handlers) familyWay(ctx context.Context, f store.Family, today time.Time) (contract.FamilyWay, error) {
	to, err := h.Recipients(ctx, f.Studio, f.Ladder, f)
	out := contract.FamilyWay{Email: f.Email, Recipients: append([]string{}, to...)}
	if f.Link().Opens(today) {
		out.Link, out.Expires = open.FamilyPath(f.Token), answer.Date(f.Expires)
	}
	return out, err
}

// SetFamily says where messages to a family go.
func (h *Handlers) SetFamily(ctx context.Context, r contract.SetFamilyRequestObject) (contract.SetFamilyResponseObject, error) {
	b, err := h.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	email := strings.TrimSpace(r.Body.Email)
	if email != "" {
		if err := post.Address(email); err != nil {
			return nil, refusal.Because(err)
		}
	}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.FamilyWay, error) {
		f, err := app.SetFamilyEmail(ctx, h.Loader, b.Tenant.ID, r.Ladder, email)
		if err != nil {
			return contract.FamilyWay{}, err
		}
		return h.familyWay(ctx, f, b.Today)
	})
	return contract.SetFamily200JSONResponse(out), err
}

// MakeLink gives a family a new link.
func (h *Handlers) MakeLink(ctx context.Context, r contract.MakeLinkRequestObject) (contract.MakeLinkResponseObject, error) {
	b, err := h.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	f, err := h.Store.Family(ctx, b.Tenant.ID, r.Ladder)
	if err != nil {
		return nil, err
	}
	f.Token, f.Expires = open.NewToken(), b.Today.AddDate(0, 0, r.Body.Days)
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.FamilyWay, error) {
		if err := h.Store.SetFamilyToken(ctx, f); err != nil {
			return contract.FamilyWay{}, err
		}
		return h.familyWay(ctx, f, b.Today)
	})
	return contract.MakeLink200JSONResponse(out), err
}

// RevokeLink shuts a family's link.
func (h *Handlers) RevokeLink(ctx context.Context, r contract.RevokeLinkRequestObject) (contract.RevokeLinkResponseObject, error) {
	b, err := h.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	return contract.RevokeLink204Response{}, h.Store.SetFamilyToken(ctx, store.Family{Studio: b.Tenant.ID, Ladder: r.Ladder})
}

// ofLadder opens the day of a studio that has a ladder.
func (h *Handlers) ofLadder(ctx context.Context, id string) (open.Studio, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return s, err
	}
	_, err = h.Ladder(ctx, id)
	return s, err
}

// ListMessages returns the mailbox.
func (h *Handlers) ListMessages(ctx context.Context, _ contract.ListMessagesRequestObject) (contract.ListMessagesResponseObject, error) {
	mine, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	list, err := h.Store.Messages(ctx, open.Actor(ctx).Studio)
	out := contract.ListMessages200JSONResponse{}
	for _, m := range list {
		if !slices.ContainsFunc(mine, func(l store.Ladder) bool { return l.ID == m.Ladder }) {
			continue // a colleague's family
		}
		out = append(out, contract.Message{
			Id: m.ID, Ladder: m.Ladder, Student: m.Student, To: m.To, Subject: m.Subject, Body: m.Body, MadeAt: m.MadeAt, SentAt: m.SentAt,
			State: states[m.Delivery(h.Mails)], Failure: m.Failure,
		})
	}
	return out, err
}

// states are how far messages are, as the contract says it.
var states = map[store.Delivery]contract.MessageState{
	store.Pending: contract.Waiting, store.Delivered: contract.Sent, store.ToCopy: contract.Kept, store.GivenUp: contract.Failed,
}

// RetryMessage lets a message that was not sent be tried again.
func (h *Handlers) RetryMessage(ctx context.Context, r contract.RetryMessageRequestObject) (contract.RetryMessageResponseObject, error) {
	return contract.RetryMessage204Response{}, h.Store.RetryMessage(ctx, open.Actor(ctx).Studio, r.Message, h.Now())
}

// AddTicks takes what a family reports.
func (h *Handlers) AddTicks(ctx context.Context, r contract.AddTicksRequestObject) (contract.AddTicksResponseObject, error) {
	f, s, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	list := make([]app.Told, len(r.Body.Ticks))
	for i, t := range r.Body.Ticks {
		switch kind := withfamily.NoteKind(t.Kind); kind {
		case withfamily.AlsoPlayed, withfamily.Question, withfamily.MoveLesson:
			list[i].Note = &withfamily.Note{ID: t.Id, Kind: kind, Text: t.Text, About: t.Lesson, At: t.At}
		default:
			list[i].Done = reportOf(t)
		}
	}
	added, err := app.Tell(ctx, h.Loader, f, s, list)
	return contract.AddTicks200JSONResponse{Added: added}, err
}

// SetWishes keeps how a family wishes to be spoken to and what it wishes to be sent.
func (h *Handlers) SetWishes(ctx context.Context, r contract.SetWishesRequestObject) (contract.SetWishesResponseObject, error) {
	f, _, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	if !tongue.Known(r.Body.Language) {
		return nil, refusal.Invalid("This language is not there.")
	}
	f.Language, f.Mail, f.Remind = r.Body.Language, withfamily.Mail(r.Body.Mail), r.Body.Remind
	return contract.SetWishes204Response{}, h.Store.SetWishes(ctx, f)
}

func reportOf(t contract.FamilyTick) admission.Report {
	r := admission.Report{
		ID: t.Id, At: t.At, Day: t.Day.Time, Item: t.Item, First: t.Kind == contract.FamilyTickKindFirst, Times: t.Times,
		Felt: studentlog.Feeling(t.Felt),
	}
	if t.Kind == contract.FamilyTickKindUndo {
		r.Undoes = t.Undoes
	}
	return r
}
