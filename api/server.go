// Package api is the HTTP side: the contract's handlers on Gin, sign-in, and
// the page itself. A handler opens what a question needs, asks core, and translates.
//
//	openapi.yaml  the contract; contract/ is generated from it
//	server.go     the handlers put together
//	observe.go    names, measures and health of requests
//	budgets.go    how much heavy work there is at once
//	plain.go      characters and days that are refused
//	guard.go      headers, sizes, origin check, who is signed in
//	page.go       the built front end, compressed
//	reread.go     scores read again when the rules changed
//
//	open/         what handlers open: a studio, a student, what lies ahead, a score
//	answer/       facts of core as answers of the contract
//	problem/      errors as problem+json
//	admit/        heavy work within bounds
//	account/ lesson/ ladder/ technique/ library/ home/ people/ dates/ progress/   the handlers, by area
package api

import (
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"strings"
	"sync/atomic"
	"time"

	"github.com/alexedwards/scs/v2"
	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"patientladder/api/account"
	"patientladder/api/contract"
	"patientladder/api/dates"
	"patientladder/api/home"
	"patientladder/api/ladder"
	"patientladder/api/lesson"
	"patientladder/api/library"
	"patientladder/api/meeting"
	"patientladder/api/people"
	"patientladder/api/problem"
	"patientladder/api/progress"
	"patientladder/api/technique"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/clock"
	"patientladder/store"
)

// GCPercent is how far the heap of a server may grow between two collections:
// requests make much and keep little, and memory is cheaper than time.
const GCPercent = 400

// MemoryLimit is the memory at which a server collects whatever its GCPercent says. The program stays under half a gigabyte
// with it (docs/reliability.md).
const MemoryLimit = 400 << 20

// Config is what a server is made from.
type Config struct {
	Store *store.Store
	// Page holds the built front end with index.html at its root.
	Page fs.FS
	// Now is the clock. Default the machine's.
	Now clock.Clock
	// SecureCookies sends the session cookie only over HTTPS. Set it wherever
	// the page is not on loopback. Default false.
	SecureCookies bool
	// TrustedProxies are the networks of proxies whose word about the address of a client is taken, such as 127.0.0.1/32;
	// none by default, so that nobody makes up an address.
	TrustedProxies []string
	// URL is the address of the page as families reach it, without a slash at its
	// end; it stands before the links in messages.
	URL string
	// Mails says that a mail server takes the messages; without one they are kept
	// in the mailbox. Default false.
	Mails bool
	// Letters says that letters about accounts are taken; true with Mails. The demo writes them where it was started.
	Letters bool
	// Log receives one line for each failed request. Default slog.Default().
	Log *slog.Logger
}

// The handlers by area.
type (
	lessonHandlers    = lesson.Handlers
	ladderHandlers    = ladder.Handlers
	techniqueHandlers = technique.Handlers
	libraryHandlers   = library.Handlers
	homeHandlers      = home.Handlers
	peopleHandlers    = people.Handlers
	datesHandlers     = dates.Handlers
	progressHandlers  = progress.Handlers
	meetingHandlers   = meeting.Handlers
	accountHandlers   = account.Handlers
)

// Server answers the contract. Make it with New.
type Server struct {
	*lessonHandlers
	*ladderHandlers
	*techniqueHandlers
	*libraryHandlers
	*homeHandlers
	*peopleHandlers
	*datesHandlers
	*progressHandlers
	*meetingHandlers
	*accountHandlers

	desk     *open.Loader
	log      *slog.Logger
	sessions *scs.SessionManager
	budgets  budgets
	proxies  []string
	measures measures
	stopping atomic.Bool
	stop     func()
}

var _ contract.StrictServerInterface = (*Server)(nil)

// New returns the server and its handler. Close the server to stop its clean-up work.
func New(cfg Config) (*Server, http.Handler, error) {
	if cfg.Store == nil || cfg.Page == nil {
		return nil, nil, errors.New("api: a store and a page are needed")
	}
	if cfg.Now == nil {
		cfg.Now = clock.Real
	}
	if cfg.Log == nil {
		cfg.Log = slog.Default()
	}
	desk, err := open.New(cfg.Store, cfg.Now, strings.TrimSuffix(cfg.URL, "/"), cfg.Mails)
	if err != nil {
		return nil, nil, err
	}
	desk.Letters = cfg.Mails || cfg.Letters
	s := &Server{
		lessonHandlers: &lessonHandlers{Loader: desk}, ladderHandlers: &ladderHandlers{Loader: desk},
		techniqueHandlers: &techniqueHandlers{Loader: desk},
		libraryHandlers: &libraryHandlers{
			Loader: desk,
		}, homeHandlers: &homeHandlers{Loader: desk}, peopleHandlers: &peopleHandlers{Loader: desk},
		datesHandlers:    &datesHandlers{Loader: desk},
		progressHandlers: &progressHandlers{Loader: desk}, meetingHandlers: &meetingHandlers{Loader: desk},
		desk: desk, log: cfg.Log, budgets: newBudgets(), proxies: cfg.TrustedProxies,
	}
	s.measures = newMeasures(cfg.Store, s.budgets)
	sessions := cfg.Store.Sessions(cfg.Now)
	s.stop = sessions.Close
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
		problem.Write(
			w,
			&problem.Problem{
				Status: http.StatusServiceUnavailable,
				Detail: "The database does not answer; nothing was changed. Try again in a moment.",
			},
		)
	}

	if s.accountHandlers, err = account.New(desk, s.sessions, s.budgets.hashing, cfg.SecureCookies); err != nil {
		s.stop()
		return nil, nil, err
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

// fail answers a request with a problem and logs what only the log should know;
// the path as the contract has it, because a family's link opens its page.
func (s *Server) fail(c *gin.Context, err error) {
	p := problem.Of(err)
	if p.Status >= http.StatusInternalServerError {
		s.log.Error("request failed", "id", c.GetString(requestKey), "method", c.Request.Method, "path", c.FullPath(), "err", err)
	}
	if p.Guess {
		if err := s.OpensNothing(c.Copy(), c.Param("token")); err != nil {
			s.log.Warn("a link that opens nothing", "id", c.GetString(requestKey), "err", err)
		}
	}
	problem.Write(c.Writer, p)
	c.Abort()
}

func (s *Server) routes(page *page) (http.Handler, error) {
	gin.SetMode(gin.ReleaseMode)
	e := gin.New()
	e.ContextWithFallback = true
	if err := e.SetTrustedProxies(s.proxies); err != nil {
		return nil, fmt.Errorf("the proxies that are trusted: %w", err)
	}
	e.Use(gin.CustomRecovery(func(c *gin.Context, what any) {
		s.fail(c, fmt.Errorf("panic: %v", what))
	}))
	e.Use(s.observe)
	s.health(e)
	validate, err := validator()
	if err != nil {
		return nil, err
	}
	group := e.Group(
		"/api",
		s.tellTime,
		s.unchanged,
		gzip.Gzip(gzip.BestSpeed),
		s.limitBody,
		s.guesses,
		s.mustBeSignedIn,
		s.reaches,
		s.admitted,
		s.plain,
		validate,
	)
	strict := contract.NewStrictHandlerWithOptions(s, []contract.StrictMiddlewareFunc{kept}, contract.StrictGinServerOptions{
		RequestErrorHandlerFunc:  func(c *gin.Context, err error) { s.fail(c, refusal.Invalid(err.Error())) },
		HandlerErrorFunc:         s.fail,
		ResponseErrorHandlerFunc: s.fail,
	})
	contract.RegisterHandlersWithOptions(group, strict, contract.GinServerOptions{
		ErrorHandler: func(c *gin.Context, err error, status int) { s.fail(c, refusal.Invalid(err.Error())) },
	})
	e.NoRoute(page.serve)
	return secure(beginnings(s.sessions.LoadAndSave(e))), nil
}
