package account

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/wording"
	"patientladder/store"
)

// linkHolds is how long a link for a new password opens something (default).
const linkHolds = 30 * time.Minute

// newPasswordPath is where the page asks for a new password.
const newPasswordPath = "/new-password"

var (
	errLink = refusal.NotFound("This link opens nothing any more. Ask for a new one.")
	// errNoMail is what is said where the server sends no mail.
	errNoMail = &problem.Problem{
		Status: http.StatusServiceUnavailable,
		Detail: "This server sends no mail. Whoever runs it can make a link for a new password with “ladder account reset”.",
	}
)

// again compares the password of whoever is signed in, who gives it once more before something grave.
func (h *Handlers) again(ctx context.Context, t store.Teacher, password string) error {
	subjects := []account.Subject{{Name: "password of " + t.ID, Pace: account.Device}}
	if err := h.try(ctx, subjects...); err != nil {
		return err
	}
	if err := h.compare(ctx, password, t.PasswordHash); errors.Is(err, account.ErrWrong) {
		return &problem.Problem{Status: http.StatusForbidden, Detail: "Your password is not right; nothing was changed."}
	} else if err != nil {
		return err
	}
	return h.well(ctx, subjects...)
}

// fresh is the hash of a new password for an account, which is strong enough.
func (h *Handlers) fresh(ctx context.Context, t store.Teacher, password string) (string, error) {
	studio, err := h.Store.Studio(ctx, t.StudioID)
	if err != nil {
		return "", err
	}
	if err := account.Check(password, t.Email, t.Name, studio.Name); err != nil {
		return "", refusal.Invalid(err.Error())
	}
	return h.hash(ctx, password)
}

// ChangePassword changes one's own password and ends every other session.
func (h *Handlers) ChangePassword(
	ctx context.Context,
	r contract.ChangePasswordRequestObject,
) (contract.ChangePasswordResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	if err := h.again(ctx, t, r.Body.Current); err != nil {
		return nil, err
	}
	hash, err := h.fresh(ctx, t, r.Body.Password)
	if err != nil {
		return nil, err
	}
	here, but := h.here(ctx), ""
	if token := device(ctx); token != "" {
		but = account.Hash(token)
	}
	n, letter := 0, wording.PasswordChanged(t.Name)
	err = h.grave(ctx, t, "password-changed", "", &letter, func(ctx context.Context) (err error) {
		if err := h.Store.SetPassword(ctx, t.ID, hash, h.Now()); err != nil {
			return err
		}
		if n, err = h.Store.EndSessions(ctx, t.ID, here); err != nil {
			return err
		}
		return h.Store.ForgetDevices(ctx, t.ID, but)
	})
	return contract.ChangePassword200JSONResponse{Words: "Your new password holds. " + wording.SessionsEnded(n)}, err
}

// tell sends somebody a letter about the account, where the server sends mail.
func (h *Handlers) tell(ctx context.Context, t store.Teacher, l wording.Letter) error {
	if !h.Letters {
		return nil
	}
	return h.Store.AddAccountLetter(
		ctx,
		store.AccountLetter{ID: ulid.Make().String(), To: t.Email, Subject: l.Subject, Body: l.Body, Made: h.Now()},
	)
}

// AskForPassword sends a link for a new password; whether there is such an account is not said.
func (h *Handlers) AskForPassword(
	ctx context.Context,
	r contract.AskForPasswordRequestObject,
) (contract.AskForPasswordResponseObject, error) {
	if !h.Letters {
		return nil, errNoMail
	}
	email := lower(r.Body.Email)
	if err := h.try(ctx, account.Subject{Name: "letter to " + email, Pace: account.Letters}, account.Subject{Name: "letters from " + address(ctx), Pace: account.Links}); err != nil {
		return nil, err
	}
	told := contract.AskForPassword202JSONResponse{
		Words: "If there is an account of that address, a letter is on its way. Its link holds for thirty minutes.",
	}
	t, err := h.Store.TeacherByEmail(ctx, email)
	if errors.Is(err, store.ErrNotFound) {
		return told, nil
	}
	if err != nil {
		return nil, err
	}
	return told, h.Store.Together(ctx, func(ctx context.Context) error {
		link, err := NewLink(ctx, h.Store, t, h.Now(), h.URL)
		if err != nil {
			return err
		}
		return h.tell(ctx, t, wording.ForgottenPassword(t.Name, link))
	})
}

// NewLink makes a link with which somebody sets a new password, once, within thirty minutes; url is the address of the page.
func NewLink(ctx context.Context, st *store.Store, t store.Teacher, now time.Time, url string) (string, error) {
	secret, hash := account.Token()
	err := st.AddOnceLink(
		ctx,
		store.OnceLink{
			Token:   hash,
			Kind:    store.PasswordLink,
			Studio:  t.StudioID,
			Teacher: t.ID,
			Email:   t.Email,
			Made:    now,
			Until:   now.Add(linkHolds),
		},
	)
	if err != nil {
		return "", err
	}
	return url + newPasswordPath + "#" + secret, st.Audit(ctx, t.StudioID, store.Audited{At: now, Kind: "link-made"})
}

// opened is the link that a token opens; guesses slow down.
func (h *Handlers) opened(ctx context.Context, token, kind string) (store.OnceLink, error) {
	guess := account.Subject{Name: "link from " + address(ctx), Pace: account.Links}
	if err := h.try(ctx, guess); err != nil {
		return store.OnceLink{}, err
	}
	l, err := h.Store.OnceLink(ctx, account.Hash(token), kind, h.Now())
	if errors.Is(err, store.ErrNotFound) {
		return l, errLink
	}
	if err != nil {
		return l, err
	}
	return l, h.well(ctx, guess)
}

// SetPasswordByLink sets the password of whoever was sent a link, and ends every session.
func (h *Handlers) SetPasswordByLink(
	ctx context.Context,
	r contract.SetPasswordByLinkRequestObject,
) (contract.SetPasswordByLinkResponseObject, error) {
	l, err := h.opened(ctx, r.Body.Token, store.PasswordLink)
	if err != nil {
		return nil, err
	}
	t, err := h.Store.Teacher(ctx, l.Teacher)
	if err != nil {
		return nil, err
	}
	hash, err := h.fresh(ctx, t, r.Body.Password)
	if err != nil {
		return nil, err
	}
	keys, err := h.Store.Passkeys(ctx, t.ID)
	if err != nil {
		return nil, err
	}
	letter := wording.PasswordReset(t.Name, t.SecondSecret != "", len(keys))
	return contract.SetPasswordByLink204Response{}, h.grave(
		open.As(ctx, open.Who{}),
		t,
		"password-by-link",
		"",
		&letter,
		func(ctx context.Context) error {
			if err := h.Store.SetPassword(ctx, t.ID, hash, h.Now()); err != nil { // the link goes with it
				return err
			}
			// Whoever was at the account may have left a way in, or shut the owner out.
			if err := h.Store.SetSecond(ctx, t.ID, "", 0, nil); err != nil {
				return err
			}
			if err := h.Store.DropPasskeys(ctx, t.ID); err != nil {
				return err
			}
			if _, err := h.Store.EndSessions(ctx, t.ID, ""); err != nil {
				return err
			}
			return h.Store.ForgetDevices(ctx, t.ID, "")
		},
	)
}
