package api

import (
	"context"
	"errors"
	"net"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/store"
)

// Sign-in is throttled per account and per network address: after this many
// failures within the window, more tries are refused until it has passed.
const (
	failuresPerAccount = 5
	failuresPerAddress = 30
	failureWindow      = 15 * time.Minute
)

// HashPassword returns the Argon2id hash of a password, with the parameters
// that RFC 9106 names as its second recommended option (64 MiB, 3 passes).
func HashPassword(password string) (string, error) {
	return argon2id.CreateHash(password, &argon2id.Params{Memory: 64 << 10, Iterations: 3, Parallelism: 4, SaltLength: 16, KeyLength: 32})
}

// SignIn checks e-mail and password and begins a session.
func (s *Server) SignIn(ctx context.Context, r contract.SignInRequestObject) (contract.SignInResponseObject, error) {
	email := strings.ToLower(strings.TrimSpace(r.Body.Email))
	account, address := "account "+email, "address "+remoteAddress(ctx)
	now := s.desk.Now()
	if err := s.throttle(ctx, now, account, address); err != nil {
		return nil, err
	}
	teacher, err := s.desk.Store.TeacherByEmail(ctx, email)
	if err != nil && !errors.Is(err, store.ErrNotFound) {
		return nil, err
	}
	hash := teacher.PasswordHash
	if hash == "" {
		hash = s.nobody
	}
	if ok, err := argon2id.ComparePasswordAndHash(r.Body.Password, hash); err != nil || !ok || teacher.ID == "" {
		for _, subject := range []string{account, address} {
			if err := s.desk.Store.AddLoginFailure(ctx, subject, now); err != nil {
				return nil, err
			}
		}
		return nil, &problem.Problem{Status: http.StatusUnauthorized, Detail: "The e-mail address or the password is not right."}
	}
	if err := s.desk.Store.ForgetLoginFailures(ctx, account, now.Add(-failureWindow)); err != nil {
		return nil, err
	}
	if err := s.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	s.sessions.Put(ctx, "teacher", teacher.ID)
	s.sessions.Put(ctx, "studio", teacher.StudioID)
	me, err := s.me(ctx, open.Who{Teacher: teacher.ID, Studio: teacher.StudioID})
	return contract.SignIn200JSONResponse(me), err
}

func (s *Server) throttle(ctx context.Context, now time.Time, account, address string) error {
	for subject, most := range map[string]int{account: failuresPerAccount, address: failuresPerAddress} {
		n, err := s.desk.Store.LoginFailures(ctx, subject, now.Add(-failureWindow))
		if err != nil {
			return err
		}
		if n >= most {
			return &problem.Problem{
				Status: http.StatusTooManyRequests, RetryAfter: strconv.Itoa(int(failureWindow.Seconds())),
				Detail: "Too many tries. Wait a quarter of an hour, then try again.",
			}
		}
	}
	return nil
}

// remoteAddress is the network address of the request, without its port.
func remoteAddress(ctx context.Context) string {
	c, ok := ctx.(*gin.Context)
	if !ok {
		return ""
	}
	host, _, err := net.SplitHostPort(c.Request.RemoteAddr)
	if err != nil {
		return c.Request.RemoteAddr
	}
	return host
}

// GetSession says who is signed in.
func (s *Server) GetSession(ctx context.Context, _ contract.GetSessionRequestObject) (contract.GetSessionResponseObject, error) {
	me, err := s.me(ctx, open.Actor(ctx))
	return contract.GetSession200JSONResponse(me), err
}

// SignOut ends the session on the server.
func (s *Server) SignOut(ctx context.Context, _ contract.SignOutRequestObject) (contract.SignOutResponseObject, error) {
	return contract.SignOut204Response{}, s.sessions.Destroy(ctx)
}

func (s *Server) me(ctx context.Context, w open.Who) (contract.Me, error) {
	teacher, err := s.desk.Store.Teacher(ctx, w.Teacher)
	if err != nil {
		return contract.Me{}, err
	}
	studio, err := s.desk.Day(open.As(ctx, w))
	return contract.Me{Teacher: teacher.Name, Studio: studio.Tenant.Name, Timezone: studio.Tenant.Timezone, Today: answer.Date(studio.Today)}, err
}
