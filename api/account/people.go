package account

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/refusal"
	"patientladder/core/wording"
	"patientladder/home/post"
	"patientladder/store"
)

// invitationHolds is how long an invitation opens something (default).
const invitationHolds = 3 * 24 * time.Hour

// invitationPath is where the page takes an invitation.
const invitationPath = "/invitation"

// owner is the account of whoever is signed in, if it owns the studio.
func (h *Handlers) owner(ctx context.Context) (store.Teacher, error) {
	t, err := h.mine(ctx)
	if err == nil && !account.Role(t.Role).Owns() {
		err = &problem.Problem{Status: http.StatusForbidden, Detail: "Only the owner of the studio may do this."}
	}
	return t, err
}

// Invite makes a link with which somebody gets an account in the studio.
func (h *Handlers) Invite(ctx context.Context, r contract.InviteRequestObject) (contract.InviteResponseObject, error) {
	me, err := h.owner(ctx)
	if err != nil {
		return nil, err
	}
	email, name := lower(r.Body.Email), strings.TrimSpace(r.Body.Name)
	if err := post.Address(email); err != nil {
		return nil, refusal.Because(err)
	}
	if name == "" {
		return nil, refusal.Invalid("The name is missing.")
	}
	if err := h.try(ctx, account.Subject{Name: "invitations of " + me.StudioID, Pace: account.Links}); err != nil {
		return nil, err
	}
	secret, hash := account.Token()
	now := h.Now()
	studio, err := h.Store.Studio(ctx, me.StudioID)
	if err != nil {
		return nil, err
	}
	link := h.link(invitationPath, secret)
	words := "The link holds for three days and is shown only now. Give it to " + name + " yourself."
	if h.Letters {
		words = "A letter is on its way. The link holds for three days and is shown only now."
	}
	return contract.Invite200JSONResponse{
			Words: words,
			Link:  link,
		}, h.grave(
			ctx,
			me,
			"invited",
			string(r.Body.Role),
			nil,
			func(ctx context.Context) error {
				if err := h.Store.AddOnceLink(ctx, store.OnceLink{Token: hash, Kind: store.InviteLink, Studio: me.StudioID, Email: email, Name: name, Role: string(r.Body.Role), Made: now, Until: now.Add(invitationHolds)}); err != nil {
					return err
				}
				return h.tell(ctx, store.Teacher{Email: email}, wording.Invited(name, me.Name, studio.Name, link))
			},
		)
}

// AcceptInvitation makes the account that somebody was invited to.
func (h *Handlers) AcceptInvitation(
	ctx context.Context,
	r contract.AcceptInvitationRequestObject,
) (contract.AcceptInvitationResponseObject, error) {
	l, err := h.opened(ctx, r.Body.Token, store.InviteLink)
	if err != nil {
		return nil, err
	}
	studio, err := h.Store.Studio(ctx, l.Studio)
	if err != nil {
		return nil, err
	}
	if err := account.Check(r.Body.Password, l.Email, l.Name, studio.Name); err != nil {
		return nil, refusal.Invalid(err.Error())
	}
	hash, err := h.hash(ctx, r.Body.Password)
	if err != nil {
		return nil, err
	}
	t := store.Teacher{ID: ulid.Make().String(), StudioID: l.Studio, Email: l.Email, Name: l.Name, PasswordHash: hash, Role: l.Role}
	err = h.grave(ctx, t, "joined", t.Role, nil, func(ctx context.Context) error { return h.Store.Accept(ctx, l.Token, t) })
	switch {
	case errors.Is(err, store.ErrNotFound):
		return nil, errLink
	case errors.Is(err, store.ErrConflict):
		return nil, refusal.Invalid("This address has an account already, and an address can have one only. Ask for an invitation to another.")
	case err != nil:
		return nil, err
	}
	return contract.AcceptInvitation204Response{}, nil
}

// SetRole makes somebody something else in the studio; one owner stays.
func (h *Handlers) SetRole(ctx context.Context, r contract.SetRoleRequestObject) (contract.SetRoleResponseObject, error) {
	me, err := h.owner(ctx)
	if err != nil {
		return nil, err
	}
	if r.Person == me.ID {
		return nil, refusal.Invalid("Nobody takes the studio from oneself. Let another owner do it.")
	}
	return contract.SetRole204Response{}, h.grave(ctx, me, "role-set", string(r.Body.Role), nil, func(ctx context.Context) error {
		return h.Store.SetRole(ctx, me.StudioID, r.Person, string(r.Body.Role))
	})
}

// EndAccount lets somebody leave the studio; the sessions end, what was written stays.
func (h *Handlers) EndAccount(ctx context.Context, r contract.EndAccountRequestObject) (contract.EndAccountResponseObject, error) {
	me, err := h.owner(ctx)
	if err != nil {
		return nil, err
	}
	if r.Person == me.ID {
		return nil, refusal.Invalid("Nobody takes the studio from oneself. Let another owner do it.")
	}
	return contract.EndAccount204Response{}, h.grave(ctx, me, "account-ended", "", nil, func(ctx context.Context) error {
		return h.Store.EndAccount(ctx, me.StudioID, r.Person, h.Now())
	})
}
