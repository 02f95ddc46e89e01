// Package account answers what is asked about accounts: signing in and out, passwords, the second factor, who belongs to a
// studio.
//
//	account.go  the account with its sessions
//	signin.go   signing in and out
//	password.go changing and recovering a password
//	second.go   the second factor
//	people.go   who belongs to a studio
package account

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/go-webauthn/webauthn/webauthn"

	"patientladder/account"
	"patientladder/api/admit"
	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/core/planning/brief"
	"patientladder/core/planning/studentplan"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
	"patientladder/store"
)

// Handlers answer the calls about accounts. Make them with New.
type Handlers struct {
	*open.Loader
	sessions *scs.SessionManager
	// hashing bounds how many passwords are hashed at once: each takes 64 MiB.
	hashing *admit.Budget
	// party is the page towards devices with passkeys; nil where there can be none.
	party *webauthn.WebAuthn
	// secure sends cookies only over HTTPS.
	secure bool
	// nobody is a hash to compare with when there is no such account, so that the time an answer takes tells nothing.
	nobody string
}

// New returns the handlers.
func New(d *open.Loader, sessions *scs.SessionManager, hashing *admit.Budget, secure bool) (*Handlers, error) {
	nobody, err := account.HashPassword(rand.Text())
	return &Handlers{Loader: d, sessions: sessions, hashing: hashing, party: party(d.URL), secure: secure, nobody: nobody}, err
}

// compare compares a password with a hash within the budget.
func (h *Handlers) compare(ctx context.Context, password, hash string) error {
	leave, err := h.hashing.Enter(ctx)
	if err != nil {
		return err
	}
	defer leave()
	return account.Compare(password, hash)
}

func (h *Handlers) hash(ctx context.Context, password string) (string, error) {
	leave, err := h.hashing.Enter(ctx)
	if err != nil {
		return "", err
	}
	defer leave()
	return account.HashPassword(password)
}

func triesOf(a store.Attempt) account.Tries {
	return account.Tries{All: a.Tries, Passed: a.Passed, Last: a.Last, Free: a.Free}
}

func attemptOf(t account.Tries) store.Attempt {
	return store.Attempt{Tries: t.All, Passed: t.Passed, Last: t.Last, Free: t.Free}
}

// try counts one more try of subjects in their order; the first that must wait is a problem that says how long. Those after
// it do not count such a try: so nobody slows down a whole account from one address.
func (h *Handlers) try(ctx context.Context, subjects ...account.Subject) error {
	now := h.Now()
	var wait time.Duration
	names := make([]string, len(subjects))
	for i, s := range subjects {
		names[i] = account.Hash(s.Name)
	}
	_, err := h.Store.Count(ctx, now, names, func(i int, a store.Attempt) (store.Attempt, bool) {
		var then account.Tries
		then, wait = subjects[i].Pace.Try(triesOf(a), now)
		return attemptOf(then), wait == 0
	})
	if err != nil || wait == 0 {
		return err
	}
	return tooMany(wait)
}

// guess is whose tries at links are counted.
func guess(ctx context.Context) account.Subject {
	return account.Subject{Name: "family from " + address(ctx), Pace: account.Links}
}

// Waits says as a problem how long the address of a request must wait because of links it tried that open nothing.
func (h *Handlers) Waits(ctx context.Context) error {
	a, err := h.Store.Tried(ctx, account.Hash(guess(ctx).Name))
	if err != nil {
		return err
	}
	if wait := account.Links.Wait(triesOf(a), h.Now()); wait > 0 {
		return tooMany(wait)
	}
	return nil
}

// OpensNothing counts a link that was tried and opens nothing: each once in an hour, because a page with an old link asks again
// and again and must not shut out the rest of the house.
func (h *Handlers) OpensNothing(ctx context.Context, token string) error {
	again := false
	now := h.Now()
	_, err := h.Store.Count(
		ctx,
		now,
		[]string{account.Hash("stale " + token + " from " + address(ctx))},
		func(_ int, a store.Attempt) (store.Attempt, bool) {
			again = triesOf(a).Stale(now)
			return store.Attempt{Tries: a.Tries + 1, Passed: a.Passed, Last: now, Free: now}, true
		},
	)
	if err != nil || again {
		return err
	}
	var wait *problem.Problem
	if err := h.try(ctx, guess(ctx)); !errors.As(err, &wait) {
		return err
	}
	return nil // this one was let through; the next waits
}

func tooMany(wait time.Duration) error {
	seconds := int(math.Ceil(wait.Seconds()))
	return &problem.Problem{Status: http.StatusTooManyRequests, RetryAfter: strconv.Itoa(seconds), Detail: wording.TooManyTries(seconds)}
}

// well forgets the tries of the first subject and takes this one back from the others, after a try that came well.
func (h *Handlers) well(ctx context.Context, subjects ...account.Subject) error {
	now := h.Now()
	if err := h.Store.Forget(ctx, account.Hash(subjects[0].Name), now.Add(-24*time.Hour)); err != nil {
		return err
	}
	names := make([]string, 0, len(subjects))
	for _, s := range subjects[1:] {
		names = append(names, account.Hash(s.Name))
	}
	_, err := h.Store.Count(ctx, now, names, func(_ int, a store.Attempt) (store.Attempt, bool) {
		return attemptOf(triesOf(a).Back(now)), true
	})
	return err
}

// address is what stands for the network address of a request where tries are counted.
func address(ctx context.Context) string {
	if c, ok := ctx.(*gin.Context); ok {
		return account.Network(c.ClientIP())
	}
	return ""
}

// here is under which token the session of a request is kept; scs keeps it the same way.
func (h *Handlers) here(ctx context.Context) string {
	token := h.sessions.Token(ctx)
	if token == "" {
		return ""
	}
	sum := sha256.Sum256([]byte(token))
	return base64.RawURLEncoding.EncodeToString(sum[:])
}

func (h *Handlers) audit(ctx context.Context, studio, teacher, kind, detail string) error {
	return h.Store.Audit(ctx, studio, store.Audited{At: h.Now(), Kind: kind, Detail: detail, Teacher: teacher})
}

// grave does something grave to an account and notes it, with a letter (nil for none): all of it or nothing.
func (h *Handlers) grave(
	ctx context.Context,
	t store.Teacher,
	kind, detail string,
	letter *wording.Letter,
	do func(ctx context.Context) error,
) error {
	return h.Store.Together(ctx, func(ctx context.Context) error {
		if err := do(ctx); err != nil {
			return err
		}
		if letter != nil {
			if err := h.tell(ctx, t, *letter); err != nil {
				return err
			}
		}
		return h.audit(ctx, t.StudioID, t.ID, kind, detail)
	})
}

// mine is the account of whoever is signed in.
func (h *Handlers) mine(ctx context.Context) (store.Teacher, error) {
	return h.Store.Teacher(ctx, open.Actor(ctx).Teacher)
}

// GetAccount returns one's own account.
func (h *Handlers) GetAccount(ctx context.Context, _ contract.GetAccountRequestObject) (contract.GetAccountResponseObject, error) {
	me, err := h.mine(ctx)
	if err != nil {
		return nil, err
	}
	day, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	sessions, err := h.Store.SessionsOf(ctx, me.ID)
	if err != nil {
		return nil, err
	}
	codes, err := h.Store.RecoveryCodes(ctx, me.ID)
	if err != nil {
		return nil, err
	}
	out := contract.GetAccount200JSONResponse{
		Email: me.Email, Name: me.Name, Role: contract.Role(me.Role), Second: me.SecondSecret != "", Codes: codes, Mails: h.Letters,
		Studio: contract.StudioSettings{
			Name:       day.Tenant.Name,
			Timezone:   day.Tenant.Timezone,
			KeepYears:  day.Tenant.KeepYears,
			Language:   tongue.Of(day.Tenant.Language).ID,
			FirstDay:   int(day.Tenant.FirstDay),
			Letterhead: day.Tenant.Letterhead,
			QuietFrom:  &day.Tenant.Quiet.From,
			QuietTo:    &day.Tenant.Quiet.To,
			Languages:  languages(),
		},
		Passkeys: []contract.Choice{}, MayPasskey: h.party != nil, Sessions: []contract.OpenSession{}, People: []contract.Person{},
		Done: []contract.Choice{},
	}
	keys, err := h.Store.Passkeys(ctx, me.ID)
	if err != nil {
		return nil, err
	}
	for _, k := range keys {
		out.Passkeys = append(out.Passkeys, contract.Choice{Id: k.ID, Name: wording.Passkey(k.Name, k.Made.In(day.Zone), k.Used.In(day.Zone))})
	}
	here := h.here(ctx)
	for _, s := range sessions {
		out.Sessions = append(
			out.Sessions,
			contract.OpenSession{
				Id:     s.ID,
				Device: s.Device,
				Words:  wording.SessionOpen(s.Began.In(day.Zone), s.Seen.In(day.Zone), h.Now().In(day.Zone)),
				Here:   s.Token == here,
			},
		)
	}
	if !account.Role(me.Role).Owns() {
		return out, nil
	}
	people, err := h.Store.Teachers(ctx, me.StudioID)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Store.Ladders(ctx, me.StudioID)
	if err != nil {
		return nil, err
	}
	for _, p := range people {
		var taught []studentplan.Profile
		for _, l := range ladders {
			if account.Role(p.Role).Keeps(p.ID, l.Teacher) {
				taught = append(taught, l.Profile())
			}
		}
		out.People = append(
			out.People,
			contract.Person{
				Load:  wording.Load(brief.LoadOf(taught, day.Today)),
				Id:    p.ID,
				Name:  p.Name,
				Email: p.Email,
				Role:  contract.Role(p.Role),
				Here:  p.ID == me.ID,
			},
		)
	}
	done, err := h.Store.AuditOf(ctx, me.StudioID)
	for _, a := range done {
		out.Done = append(out.Done, contract.Choice{Id: a.ID, Name: wording.Done(a.Kind, a.Detail, a.Name, a.At.In(day.Zone))})
	}
	return out, err
}

// EndSession ends one of one's own sessions.
func (h *Handlers) EndSession(ctx context.Context, r contract.EndSessionRequestObject) (contract.EndSessionResponseObject, error) {
	return contract.EndSession204Response{}, h.Store.EndSession(ctx, open.Actor(ctx).Teacher, r.Session)
}

// EndOtherSessions ends all of one's own sessions but this one.
func (h *Handlers) EndOtherSessions(
	ctx context.Context,
	_ contract.EndOtherSessionsRequestObject,
) (contract.EndOtherSessionsResponseObject, error) {
	n, err := h.Store.EndSessions(ctx, open.Actor(ctx).Teacher, h.here(ctx))
	return contract.EndOtherSessions200JSONResponse{Words: wording.SessionsEnded(n)}, err
}

// link is an address of the page that opens something; what opens it stands behind the #, which no server is sent.
func (h *Handlers) link(path, secret string) string { return h.URL + path + "#" + secret }

func lower(email string) string { return strings.ToLower(strings.TrimSpace(email)) }

// me says who somebody is, where and when.
func (h *Handlers) me(ctx context.Context, t store.Teacher) (contract.Me, error) {
	ctx = open.As(ctx, open.Who{Teacher: t.ID, Studio: t.StudioID, Role: account.Role(t.Role)})
	studio, err := h.Day(ctx)
	if err != nil {
		return contract.Me{}, err
	}
	going, err := h.going(ctx, studio)
	return contract.Me{
		Id:       t.ID,
		Teacher:  t.Name,
		Studio:   studio.Tenant.Name,
		Timezone: studio.Tenant.Timezone,
		Today:    answer.Date(studio.Today),
		FirstDay: int(studio.Tenant.FirstDay),
		Role:     contract.Role(t.Role),
		Going:    going,
	}, err
}

// languages are those in which families can be spoken to.
func languages() []contract.Choice {
	out := []contract.Choice{}
	for _, t := range tongue.All() {
		out = append(out, contract.Choice{Id: t.ID, Name: t.Name()})
	}
	return out
}

// going are those of one's own students who are to be deleted.
func (h *Handlers) going(ctx context.Context, s open.Studio) ([]contract.Going, error) {
	list, err := h.Store.Going(ctx, s.Tenant.ID)
	if err != nil || len(list) == 0 {
		return nil, err
	}
	mine, err := h.Ladders(ctx)
	out := []contract.Going{}
	for _, g := range list {
		if slices.ContainsFunc(mine, func(l store.Ladder) bool { return l.ID == g.Ladder }) {
			first := studentplan.Profile{Name: g.Name, Called: g.Called}.First()
			out = append(out, contract.Going{Ladder: g.Ladder, Student: g.Student, Words: wording.ErasedAt(g.At.In(s.Zone), first)})
		}
	}
	return out, err
}
