package account

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/oklog/ulid/v2"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/store"
)

const (
	deviceCookie = "ladder_device"
	// deviceHolds is how long a device is known by what it keeps (default).
	deviceHolds = 365 * 24 * time.Hour
)

// device is what the device of a request keeps from an earlier sign-in; empty for none.
func device(ctx context.Context) string {
	if c, ok := ctx.(*gin.Context); ok {
		if cookie, err := c.Request.Cookie(deviceCookie); err == nil && len(cookie.Value) <= 100 {
			return cookie.Value
		}
	}
	return ""
}

// known is what the device of a request keeps, where this account signed in on it before; empty otherwise.
func (h *Handlers) known(ctx context.Context, teacher store.Teacher) (string, error) {
	token := device(ctx)
	if token == "" || teacher.ID == "" {
		return "", nil
	}
	if is, err := h.Store.IsDeviceOf(ctx, teacher.ID, account.Hash(token)); err != nil || !is {
		return "", err
	}
	return token, nil
}

// SignIn checks e-mail and password, and the second factor where there is one, and begins a session.
func (h *Handlers) SignIn(ctx context.Context, r contract.SignInRequestObject) (contract.SignInResponseObject, error) {
	email := lower(r.Body.Email)
	teacher, err := h.Store.TeacherByEmail(ctx, email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	known, err := h.known(ctx, teacher)
	if err != nil {
		return nil, err
	}
	tries := account.SignIn(email, address(ctx), known)
	if err := h.try(ctx, tries...); err != nil {
		return nil, err
	}
	hash := teacher.PasswordHash
	if hash == "" {
		hash = h.nobody
	}
	switch err := h.compare(ctx, r.Body.Password, hash); {
	case errors.Is(err, account.ErrWrong), err == nil && teacher.ID == "":
		return nil, &problem.Problem{Status: http.StatusUnauthorized, Detail: "The e-mail address or the password is not right."}
	case err != nil:
		return nil, err
	}
	if teacher.SecondSecret != "" {
		if r.Body.Code == "" {
			return contract.SignIn202Response{}, h.well(ctx, append([]account.Subject{{Name: "none"}}, tries...)...)
		}
		if err := h.second(ctx, teacher, r.Body.Code); err != nil {
			return nil, err
		}
	}
	if err := h.well(ctx, tries...); err != nil {
		return nil, err
	}
	if known == "" {
		known, _ = account.Token()
	}
	if err := h.Store.KnowDevice(ctx, teacher.ID, account.Hash(known), h.Now()); err != nil {
		return nil, err
	}
	if err := h.begin(ctx, teacher); err != nil {
		return nil, err
	}
	me, err := h.me(ctx, teacher)
	cookie := http.Cookie{
		Name:     deviceCookie,
		Value:    known,
		Path:     "/api",
		MaxAge:   int(deviceHolds.Seconds()),
		HttpOnly: true,
		Secure:   h.secure,
		SameSite: http.SameSiteStrictMode,
	}
	return contract.SignIn200JSONResponse{Body: me, Headers: contract.SignIn200ResponseHeaders{SetCookie: cookie.String()}}, err
}

// begin begins a session under a new token.
func (h *Handlers) begin(ctx context.Context, t store.Teacher) error {
	if err := h.sessions.RenewToken(ctx); err != nil {
		return err
	}
	h.sessions.Put(ctx, "teacher", t.ID)
	h.sessions.Put(ctx, "studio", t.StudioID)
	h.sessions.Put(ctx, "role", t.Role)
	if b := store.BeginOf(ctx); b != nil {
		b.ID, b.Teacher, b.Device = ulid.Make().String(), t.ID, deviceName(ctx)
	}
	return h.audit(ctx, t.StudioID, t.ID, "signed-in", "")
}

// deviceName is what a device says of itself, short: “Firefox, Android”.
func deviceName(ctx context.Context) string {
	c, ok := ctx.(*gin.Context)
	if !ok {
		return ""
	}
	return account.DeviceName(c.Request.UserAgent())
}

// GetSession says who is signed in.
func (h *Handlers) GetSession(ctx context.Context, _ contract.GetSessionRequestObject) (contract.GetSessionResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	me, err := h.me(ctx, t)
	return contract.GetSession200JSONResponse(me), err
}

// SignOut ends the session on the server.
func (h *Handlers) SignOut(ctx context.Context, _ contract.SignOutRequestObject) (contract.SignOutResponseObject, error) {
	who := open.Actor(ctx)
	if err := h.audit(ctx, who.Studio, who.Teacher, "signed-out", ""); err != nil {
		return nil, err
	}
	return contract.SignOut204Response{}, h.sessions.Destroy(ctx)
}
