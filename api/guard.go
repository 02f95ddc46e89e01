package api

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"
	ginmiddleware "github.com/oapi-codegen/gin-middleware"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/core/notation/musicxml"
	"patientladder/core/planning/curriculum"
	"patientladder/store"
)

// secure sets the headers of every answer and refuses requests that another site made.
func secure(next http.Handler) http.Handler {
	protection := http.NewCrossOriginProtection()
	protection.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		problem.Write(w, &problem.Problem{Status: http.StatusForbidden, Detail: "The request came from another site and was refused."})
	}))
	checked := protection.Handler(next)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; "+
			"font-src 'self'; connect-src 'self'; manifest-src 'self'; worker-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "same-origin")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=()")
		checked.ServeHTTP(w, r)
	})
}

// needsNoSession says which calls are for everyone, or for whoever has a link.
func needsNoSession(r *http.Request) bool {
	switch r.URL.Path {
	case "/api/session":
		return r.Method == http.MethodPost
	case "/api/recovery", "/api/invitation", "/api/session/passkey":
		return true
	}
	return strings.HasPrefix(r.URL.Path, "/api/family/") || strings.HasPrefix(r.URL.Path, "/api/teacher/")
}

// clockHeader says with every answer what time it is on the server, so that a page whose device
// goes wrong lives in the studio's day all the same.
const clockHeader = "Ladder-Now"

func (s *Server) tellTime(c *gin.Context) {
	c.Header(clockHeader, s.desk.Now().UTC().Format(time.RFC3339Nano))
}

func (s *Server) mustBeSignedIn(c *gin.Context) {
	c.Header("Cache-Control", "no-store")
	teacher := s.sessions.GetString(c.Request.Context(), "teacher")
	studio := s.sessions.GetString(c.Request.Context(), "studio")
	if (teacher == "" || studio == "") && !needsNoSession(c.Request) {
		s.fail(c, &problem.Problem{Status: http.StatusUnauthorized, Detail: "Sign in first."})
		return
	}
	var role account.Role // none for whoever comes by a link, and for the program itself
	if teacher != "" {
		role = account.Role(
			cmp.Or(s.sessions.GetString(c.Request.Context(), "role"), string(account.Owner)),
		) // an older server began it: only owners were there
	}
	if !needsNoSession(c.Request) && !role.May(c.Request.Method, strings.TrimPrefix(c.Request.URL.Path, "/api")) {
		s.fail(
			c,
			&problem.Problem{Status: http.StatusForbidden, Detail: "An assistant sees and notes; this is for a teacher. Nothing was changed."},
		)
		return
	}
	c.Request = c.Request.WithContext(open.As(c.Request.Context(), open.Who{Teacher: teacher, Studio: studio, Role: role}))
}

// guesses slows down who opens links that do not exist: after some, the address must wait whatever it opens.
func (s *Server) guesses(c *gin.Context) {
	if path := c.Request.URL.Path; !strings.HasPrefix(path, "/api/family/") && !strings.HasPrefix(path, "/api/teacher/") {
		return
	}
	if err := s.Waits(c.Copy()); err != nil { // a copy, as handlers have (see kept)
		s.fail(c, err)
	}
}

// reaches refuses what is about a student of whom somebody sees nothing, whichever handler it is for: a colleague's.
func (s *Server) reaches(c *gin.Context) {
	ctx := c.Request.Context() // gin uses c again for the next request, while the database may still wait for the end of this one
	who := open.Actor(ctx)
	if who.Role.Owns() || who.Teacher == "" || needsNoSession(c.Request) {
		return
	}
	for _, id := range append(c.QueryArray("ladder"), c.Param("ladder")) {
		if id == "" {
			continue
		}
		if _, err := s.desk.Ladder(ctx, id); err != nil {
			s.fail(c, err)
			return
		}
	}
	if id := c.Param("student"); id != "" {
		if _, _, err := s.desk.Person(ctx, id); err != nil {
			s.fail(c, err)
		}
	}
}

// beginnings lets a sign-in begin a session, and nothing else.
func beginnings(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, _ := store.Beginning(r.Context())
		next.ServeHTTP(w, r.WithContext(ctx))
	})
}

// Requests are small but for a score, which arrives in base64 with a third on top.
var (
	scoreBody = int64(musicxml.DefaultLimits().Bytes)*4/3 + 64<<10
	otherBody = int64(1 << 20)
	// curriculumBody, too, has its file in base64.
	curriculumBody = int64(curriculum.MostBytes)*4/3 + 64<<10
)

// bodyLimit is how many bytes the body of a call may have.
func bodyLimit(path string) int64 {
	switch {
	case path == "/api/materials", path == "/api/scores/read", strings.HasSuffix(path, "/score"):
		return scoreBody
	case strings.HasPrefix(path, "/api/library/"):
		return curriculumBody
	}
	return otherBody
}

func (s *Server) limitBody(c *gin.Context) {
	limit := bodyLimit(c.Request.URL.Path)
	if c.Request.ContentLength > limit {
		s.fail(c, tooLarge(limit))
		return
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, limit)
}

func tooLarge(limit int64) error {
	detail := "The request is too large; nothing was changed."
	if limit == scoreBody {
		detail = fmt.Sprintf("The file is too large: a score may have %d MB at most. Nothing was changed.", musicxml.DefaultLimits().Bytes>>20)
	}
	if limit == curriculumBody {
		detail = fmt.Sprintf("The file is too large: a curriculum may have %d MB at most. Nothing was changed.", curriculum.MostBytes>>20)
	}
	return &problem.Problem{Status: http.StatusRequestEntityTooLarge, Detail: detail}
}

// validator checks each request against the contract before a handler sees it; it is made once for all servers of a program.
var validator = sync.OnceValues(func() (gin.HandlerFunc, error) {
	spec, err := contract.GetSpec()
	if err != nil {
		return nil, err
	}
	spec.Servers = openapi3.Servers{{URL: "/api"}}
	return ginmiddleware.OapiRequestValidatorWithOptions(spec, &ginmiddleware.Options{
		SilenceServersWarning: true,
		ErrorHandler: func(c *gin.Context, message string, status int) {
			p := &problem.Problem{Status: status, Detail: firstLine(message)}
			if strings.Contains(message, "request body too large") {
				errors.As(tooLarge(bodyLimit(c.Request.URL.Path)), &p)
			} else if status == http.StatusBadRequest {
				p.Status = http.StatusUnprocessableEntity
			}
			problem.Write(c.Writer, p)
		},
	}), nil
})

// firstLine keeps the sentence of a schema error and drops the schema that follows it.
func firstLine(s string) string {
	line, _, _ := strings.Cut(s, "\n")
	return strings.TrimPrefix(line, "error in openapi3filter.RequestError: ")
}
