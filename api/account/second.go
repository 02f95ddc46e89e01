package account

import (
	"context"
	"encoding/base64"
	"errors"
	"net/http"

	"github.com/skip2/go-qrcode"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/refusal"
	"patientladder/core/wording"
	"patientladder/store"
)

// issuer is how the program is named in an authenticator app.
const issuer = "Patient Ladder"

// second checks a code of the second factor or a recovery code, each of which works once.
func (h *Handlers) second(ctx context.Context, t store.Teacher, code string) error {
	wrong := &problem.Problem{Status: http.StatusUnauthorized, Detail: "The code is not right, or it was used already. Wait for the next one."}
	if step := account.StepOf(t.SecondSecret, code, t.SecondStep, h.Now()); step > 0 {
		if err := h.Store.UseSecond(ctx, t.ID, step); !errors.Is(err, store.ErrNotFound) {
			return err
		}
		return wrong
	}
	err := h.grave(
		ctx,
		t,
		"recovery-code",
		"",
		nil,
		func(ctx context.Context) error { return h.Store.UseRecoveryCode(ctx, t.ID, account.CodeHash(code)) },
	)
	if errors.Is(err, store.ErrNotFound) {
		return wrong
	}
	return err
}

// BeginSecond returns a new secret; nothing is kept until a code of it is given.
func (h *Handlers) BeginSecond(ctx context.Context, _ contract.BeginSecondRequestObject) (contract.BeginSecondResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	secret := account.NewSecret()
	uri := account.SecretURI(secret, t.Email, issuer)
	picture, err := qrcode.Encode(uri, qrcode.Medium, 320)
	return contract.BeginSecond200JSONResponse{
		Secret:  secret,
		Uri:     uri,
		Picture: "data:image/png;base64," + base64.StdEncoding.EncodeToString(picture),
	}, err
}

// SetSecond keeps a secret of which a code was given, and returns the recovery codes, which are shown once. It asks for the
// password: a device that was left alone must not shut its owner out.
func (h *Handlers) SetSecond(ctx context.Context, r contract.SetSecondRequestObject) (contract.SetSecondResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	if err := h.again(ctx, t, r.Body.Password); err != nil {
		return nil, err
	}
	guess := account.Subject{Name: "second of " + t.ID, Pace: account.Device}
	if err := h.try(ctx, guess); err != nil {
		return nil, err
	}
	step := account.StepOf(r.Body.Secret, r.Body.Code, 0, h.Now())
	if step == 0 {
		return nil, refusal.Invalid("The code is not one of this secret at this time. Is the clock of the phone right? Nothing was changed.")
	}
	codes := account.NewCodes()
	hashes := make([]string, len(codes))
	for i, c := range codes {
		hashes[i] = account.CodeHash(c)
	}
	if err := h.well(ctx, guess); err != nil {
		return nil, err
	}
	letter := wording.SecondChanged(t.Name, true)
	return contract.SetSecond200JSONResponse{Codes: codes}, h.grave(ctx, t, "second-on", "", &letter, func(ctx context.Context) error {
		return h.Store.SetSecond(ctx, t.ID, r.Body.Secret, step, hashes)
	})
}

// EndSecond lets a password be enough again.
func (h *Handlers) EndSecond(ctx context.Context, r contract.EndSecondRequestObject) (contract.EndSecondResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	if err := h.again(ctx, t, r.Body.Password); err != nil {
		return nil, err
	}
	letter := wording.SecondChanged(t.Name, false)
	return contract.EndSecond204Response{}, h.grave(
		ctx,
		t,
		"second-off",
		"",
		&letter,
		func(ctx context.Context) error { return h.Store.SetSecond(ctx, t.ID, "", 0, nil) },
	)
}
