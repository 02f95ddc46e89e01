package api

import (
	"bytes"
	"errors"
	"io"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"patientladder/api/admit"
	"patientladder/app/refusal"
)

// budgets bound the heavy kinds of work. A hash takes 64 MiB, a score that is read up to some hundred, the pages of a whole
// studio some tens each; together they stay under half a gigabyte on a machine of two cores (docs/reliability.md).
type budgets struct{ hashing, bodies, reading, piece, studio, usual, export *admit.Budget }

func newBudgets() budgets {
	return budgets{
		hashing: admit.New(2, 16, 5*time.Second),
		bodies:  admit.New(6, 32, time.Minute),
		reading: admit.New(1, 8, 10*time.Second),
		piece:   admit.New(2, 32, 10*time.Second),
		usual:   admit.New(24, 256, 10*time.Second),
		studio:  admit.New(4, 64, 10*time.Second),
		export:  admit.New(1, 4, 10*time.Second),
	}
}

// of is the budget of a call; nil for one without a session, so that a stranger fills no queue. Hashing is bounded where it is done.
func (b budgets) of(method, path string) *admit.Budget {
	path = strings.TrimPrefix(path, "/api")
	switch {
	case strings.HasSuffix(path, "/export"), method == http.MethodGet && strings.HasSuffix(path, "/data"), strings.HasSuffix(path, "/checks"):
		return b.export
	case method == http.MethodPost && (path == "/materials" || strings.HasPrefix(path, "/scores/") || strings.HasPrefix(path, "/library/")),
		method == http.MethodPut && strings.HasSuffix(path, "/score"):
		return b.reading
	case method == http.MethodGet && (path == "/overview" || path == "/studio-year" || path == "/learned" || path == "/today" || path == "/calendar" || path == "/reports" || strings.HasPrefix(path, "/programme")):
		return b.studio
	case method == http.MethodGet && strings.HasPrefix(path, "/materials/"):
		return b.piece
	case path == "/session",
		strings.HasPrefix(path, "/session/"),
		path == "/recovery",
		path == "/invitation",
		strings.HasPrefix(path, "/family/"),
		strings.HasPrefix(path, "/teacher/"):
		return nil
	}
	return b.usual
}

// admitted holds heavy work back until there is room. It stands after the sign-in, so that a stranger fills no queue.
func (s *Server) admitted(c *gin.Context) {
	b := s.budgets.of(c.Request.Method, c.Request.URL.Path)
	if b == nil {
		return
	}
	if b == s.budgets.reading { // a file arrives before it takes the room of those that are read: a slow connection holds up nobody
		done, err := s.budgets.bodies.Enter(c.Request.Context())
		if err != nil {
			s.fail(c, err)
			return
		}
		defer done()
		body, err := io.ReadAll(c.Request.Body)
		var large *http.MaxBytesError
		switch {
		case errors.As(err, &large):
			s.fail(c, tooLarge(large.Limit))
			return
		case err != nil:
			s.fail(c, refusal.Invalid("The file did not arrive whole; nothing was changed."))
			return
		}
		c.Request.Body = io.NopCloser(bytes.NewReader(body))
	}
	leave, err := b.Enter(c.Request.Context())
	if err != nil {
		s.fail(c, err)
		return
	}
	defer leave()
	c.Next()
}
