package account

import (
	"context"
	"encoding/json"
	"net"
	"net/http"
	"net/url"
	"strings"
	"time"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/core/wording"
	"patientladder/store"
)

// challengeHolds is how long a device may take to sign (default).
const challengeHolds = 5 * time.Minute

var (
	errNoPasskeys = &problem.Problem{
		Status: http.StatusServiceUnavailable,
		Detail: "Passkeys need a page with a name and HTTPS; this server has none.",
	}
	errPasskey = &problem.Problem{
		Status: http.StatusUnauthorized,
		Detail: "The passkey was not accepted. Try again, or sign in with the password.",
	}
)

// party is the page towards devices; nil where it has no name of its own: a passkey belongs to one.
func party(address string) *webauthn.WebAuthn {
	u, err := url.Parse(address)
	if err != nil || u.Hostname() == "" || net.ParseIP(u.Hostname()) != nil || u.Scheme != "https" && u.Hostname() != "localhost" {
		return nil
	}
	w, err := webauthn.New(&webauthn.Config{
		RPID: u.Hostname(), RPDisplayName: issuer, RPOrigins: []string{u.Scheme + "://" + u.Host},
		AuthenticatorSelection: protocol.AuthenticatorSelection{
			ResidentKey:      protocol.ResidentKeyRequirementRequired,
			UserVerification: protocol.VerificationRequired,
		},
	})
	if err != nil {
		return nil
	}
	return w
}

// holder is somebody with passkeys.
type holder struct {
	store.Teacher
	keys []webauthn.Credential
}

// WebAuthnID, WebAuthnName, WebAuthnDisplayName and WebAuthnCredentials say who somebody is to a device.
func (h holder) WebAuthnID() []byte                         { return []byte(h.ID) }
func (h holder) WebAuthnName() string                       { return h.Email }
func (h holder) WebAuthnDisplayName() string                { return h.Name }
func (h holder) WebAuthnCredentials() []webauthn.Credential { return h.keys }

func (h *Handlers) holder(ctx context.Context, t store.Teacher) (holder, error) {
	list, err := h.Store.Passkeys(ctx, t.ID)
	out := holder{Teacher: t}
	for _, k := range list {
		var c webauthn.Credential
		if err := json.Unmarshal(k.Body, &c); err != nil {
			return out, err
		}
		out.keys = append(out.keys, c)
	}
	return out, err
}

// asked keeps what a device is asked to sign, and returns it with the secret under which the answer finds it.
func (h *Handlers) asked(ctx context.Context, options any, session *webauthn.SessionData) (contract.PasskeyAsked, error) {
	var out contract.PasskeyAsked
	data, err := json.Marshal(session)
	if err != nil {
		return out, err
	}
	secret, hash := account.Token()
	if err := h.Store.AddChallenge(ctx, hash, data, h.Now().Add(challengeHolds)); err != nil {
		return out, err
	}
	public, err := json.Marshal(options)
	if err != nil {
		return out, err
	}
	out.Challenge = secret
	return out, json.Unmarshal(public, &out.Options)
}

// signed is what a device was asked to sign. It is asked for once.
func (h *Handlers) signed(ctx context.Context, challenge string) (webauthn.SessionData, error) {
	var out webauthn.SessionData
	data, err := h.Store.TakeChallenge(ctx, account.Hash(challenge), h.Now())
	if err != nil {
		return out, errPasskey
	}
	return out, json.Unmarshal(data, &out)
}

// BeginPasskey asks the device of whoever is signed in, and gives the password once more, for a key. What the device makes
// is taken only with the challenge that is returned here.
func (h *Handlers) BeginPasskey(ctx context.Context, r contract.BeginPasskeyRequestObject) (contract.BeginPasskeyResponseObject, error) {
	if h.party == nil {
		return nil, errNoPasskeys
	}
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	if err := h.again(ctx, t, r.Body.Password); err != nil {
		return nil, err
	}
	who, err := h.holder(ctx, t)
	if err != nil {
		return nil, err
	}
	options, session, err := h.party.BeginRegistration(who, webauthn.WithExclusions(webauthn.Credentials(who.keys).CredentialDescriptors()))
	if err != nil {
		return nil, err
	}
	out, err := h.asked(ctx, options.Response, session)
	return contract.BeginPasskey200JSONResponse(out), err
}

// AddPasskey keeps the key that a device made.
func (h *Handlers) AddPasskey(ctx context.Context, r contract.AddPasskeyRequestObject) (contract.AddPasskeyResponseObject, error) {
	if h.party == nil {
		return nil, errNoPasskeys
	}
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	who, err := h.holder(ctx, t)
	if err != nil {
		return nil, err
	}
	session, err := h.signed(ctx, r.Body.Challenge)
	if err != nil {
		return nil, err
	}
	data, err := json.Marshal(r.Body.Credential)
	if err != nil {
		return nil, err
	}
	parsed, err := protocol.ParseCredentialCreationResponseBytes(data)
	if err != nil {
		return nil, errPasskey
	}
	key, err := h.party.CreateCredential(who, session, parsed)
	if err != nil {
		return nil, errPasskey
	}
	body, err := json.Marshal(key)
	if err != nil {
		return nil, err
	}
	name := strings.TrimSpace(r.Body.Name)
	if name == "" {
		name = deviceName(ctx)
	}
	letter := wording.PasskeyAdded(t.Name, name)
	return contract.AddPasskey204Response{}, h.grave(ctx, t, "passkey-added", "", &letter, func(ctx context.Context) error {
		return h.Store.AddPasskey(ctx, t.ID, store.Passkey{ID: account.Hash(string(key.ID)), Name: name, Body: body, Made: h.Now()})
	})
}

// DropPasskey takes one of one's own keys away.
func (h *Handlers) DropPasskey(ctx context.Context, r contract.DropPasskeyRequestObject) (contract.DropPasskeyResponseObject, error) {
	t, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	letter := wording.PasskeyDropped(t.Name)
	return contract.DropPasskey204Response{}, h.grave(
		ctx,
		t,
		"passkey-dropped",
		"",
		&letter,
		func(ctx context.Context) error { return h.Store.DropPasskey(ctx, t.ID, r.Passkey) },
	)
}

// AskPasskey asks a device for a key that it has for this page, whoever it is.
func (h *Handlers) AskPasskey(ctx context.Context, _ contract.AskPasskeyRequestObject) (contract.AskPasskeyResponseObject, error) {
	if h.party == nil {
		return nil, errNoPasskeys
	}
	if err := h.try(ctx, account.Subject{Name: "passkeys from " + address(ctx), Pace: account.Address}); err != nil {
		return nil, err
	}
	options, session, err := h.party.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return nil, err
	}
	out, err := h.asked(ctx, options.Response, session)
	return contract.AskPasskey200JSONResponse(out), err
}

// SignInWithPasskey begins a session for whose key signed. The device has asked for a finger or a code of its own, so that no
// second factor is asked for.
func (h *Handlers) SignInWithPasskey(
	ctx context.Context,
	r contract.SignInWithPasskeyRequestObject,
) (contract.SignInWithPasskeyResponseObject, error) {
	if h.party == nil {
		return nil, errNoPasskeys
	}
	session, err := h.signed(ctx, r.Body.Challenge)
	if err != nil {
		return nil, err
	}
	data, err := json.Marshal(r.Body.Credential)
	if err != nil {
		return nil, err
	}
	parsed, err := protocol.ParseCredentialRequestResponseBytes(data)
	if err != nil {
		return nil, errPasskey
	}
	var who holder
	key, err := h.party.ValidateDiscoverableLogin(func(_, handle []byte) (webauthn.User, error) {
		t, err := h.Store.Teacher(ctx, string(handle))
		if err != nil {
			return nil, err
		}
		who, err = h.holder(ctx, t)
		return who, err
	}, session, parsed)
	if err != nil || key.Authenticator.CloneWarning {
		return nil, errPasskey
	}
	body, err := json.Marshal(key)
	if err != nil {
		return nil, err
	}
	if err := h.Store.UsePasskey(ctx, who.ID, store.Passkey{ID: account.Hash(string(key.ID)), Body: body, Used: h.Now()}); err != nil {
		return nil, err
	}
	if err := h.well(ctx, account.Subject{Name: "passkeys from " + address(ctx), Pace: account.Address}); err != nil {
		return nil, err
	}
	if err := h.begin(ctx, who.Teacher); err != nil {
		return nil, err
	}
	me, err := h.me(ctx, who.Teacher)
	return contract.SignInWithPasskey200JSONResponse(me), err
}
