// Package api is the HTTP side: the contract's handlers on Gin, sign-in, and
// the page itself.
//
//	openapi.yaml  the contract; contract/ is generated from it
//	server.go     the handler put together
//	guard.go      headers, sizes, origin check, who is signed in
//	session.go    signing in and out
//	problem.go    errors as problem+json
//	book.go       what the handlers read for one studio
//	family.go     links and messages to families, and what comes back
//	familypage.go what a family sees
//	sheet.go feed.go balance.go
//	today.go ladder.go lesson.go entries.go week.go pieces.go students.go
//	words.go      conversions from core to the contract
//	page.go       the built front end, compressed
package api

import (
	"crypto/rand"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"patientladder/api/contract"
	"patientladder/core/library/skill"
	"patientladder/core/reading/demand"
	"patientladder/store"
)

// GCPercent is how far the heap of a server may grow between two collections:
// requests make much and keep little, and memory is cheaper than time.
const GCPercent = 400

// Config is what a server is made from.
type Config struct {
	Store *store.Store
	// Page holds the built front end with index.html at its root.
	Page fs.FS
	// Now is the clock. Default time.Now.
	Now func() time.Time
	// SecureCookies sends the session cookie only over HTTPS. Set it wherever
	// the page is not on loopback. Default false.
	SecureCookies bool
	// URL is the address of the page as families reach it, without a slash at its
	// end; it stands before the links in messages.
	URL string
	// Mails says that a mail server takes the messages; without one they are kept
	// in the mailbox. Default false.
	Mails bool
	// Log receives one line for each failed request. Default slog.Default().
	Log *slog.Logger
}

// Server answers the contract. Make it with New.
type Server struct {
	store    *store.Store
	now      func() time.Time
	log      *slog.Logger
	sessions *scs.SessionManager
	skills   skill.Catalogue
	demands  demand.Table
	stop     func()
	// nobody is a hash to compare with when there is no such account, so that
	// the time an answer takes tells nothing.
	nobody string
	url    string
	mails  bool
}

var _ contract.StrictServerInterface = (*Server)(nil)

// New returns the server and its handler. Close the server to stop its clean-up work.
func New(cfg Config) (*Server, http.Handler, error) {
	if cfg.Store == nil || cfg.Page == nil {
		return nil, nil, errors.New("api: a store and a page are needed")
	}
	s := &Server{store: cfg.Store, now: cfg.Now, log: cfg.Log, url: strings.TrimSuffix(cfg.URL, "/"), mails: cfg.Mails}
	if s.now == nil {
		s.now = time.Now
	}
	if s.log == nil {
		s.log = slog.Default()
	}
	var err error
	if s.skills, s.demands, err = demand.Shipped(); err != nil {
		return nil, nil, err
	}
	if s.nobody, err = HashPassword(rand.Text()); err != nil {
		return nil, nil, err
	}
	sessions := mysqlstore.New(cfg.Store.DB())
	s.stop = sessions.StopCleanup
	s.sessions = scs.New()
	s.sessions.Store = sessions
	s.sessions.Lifetime = 30 * 24 * time.Hour
	s.sessions.IdleTimeout = 7 * 24 * time.Hour
	s.sessions.HashTokenInStore = true
	s.sessions.Cookie.Name = "ladder_session"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteStrictMode
	s.sessions.Cookie.Secure = cfg.SecureCookies
	s.sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		s.log.Error("session", "err", err)
		writeProblem(w, &problem{status: http.StatusServiceUnavailable, detail: "The database does not answer; nothing was changed. Try again in a moment."})
	}

	page, err := newPage(cfg.Page)
	if err != nil {
		return nil, nil, err
	}
	handler, err := s.routes(page)
	return s, handler, err
}

// Close stops the clean-up of old sessions.
func (s *Server) Close() { s.stop() }

// kept gives a handler a context of its own: gin uses one again for the next request, while the
// database may still wait for the end of the one before.
func kept(next contract.StrictHandlerFunc, _ string) contract.StrictHandlerFunc {
	return func(c *gin.Context, request any) (any, error) { return next(c.Copy(), request) }
}

func (s *Server) routes(page *page) (http.Handler, error) {
	gin.SetMode(gin.ReleaseMode)
	e := gin.New()
	e.ContextWithFallback = true
	e.Use(gin.CustomRecovery(func(c *gin.Context, what any) {
		s.fail(c, fmt.Errorf("panic: %v", what))
	}))
	e.GET("/healthz", func(c *gin.Context) {
		if err := s.store.Ping(c.Request.Context()); err != nil {
			c.String(http.StatusServiceUnavailable, "the database does not answer\n")
			return
		}
		c.String(http.StatusOK, "ok\n")
	})
	validate, err := validator()
	if err != nil {
		return nil, err
	}
	group := e.Group("/api", gzip.Gzip(gzip.BestSpeed), s.limitBody, s.mustBeSignedIn, validate)
	strict := contract.NewStrictHandlerWithOptions(s, []contract.StrictMiddlewareFunc{kept}, contract.StrictGinServerOptions{
		RequestErrorHandlerFunc:  func(c *gin.Context, err error) { s.fail(c, invalid(err.Error())) },
		HandlerErrorFunc:         s.fail,
		ResponseErrorHandlerFunc: s.fail,
	})
	contract.RegisterHandlersWithOptions(group, strict, contract.GinServerOptions{
		ErrorHandler: func(c *gin.Context, err error, status int) { s.fail(c, invalid(err.Error())) },
	})
	e.NoRoute(page.serve)
	return secure(s.sessions.LoadAndSave(e)), nil
}
