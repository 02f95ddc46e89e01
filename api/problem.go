package api

import (
	"encoding/json"
	"errors"
	"net/http"

	"github.com/gin-gonic/gin"

	"patientladder/api/contract"
	"patientladder/store"
)

// problem is an error whose sentence is meant for the person at the screen.
type problem struct {
	status int
	detail string
	// retryAfter in seconds; 0 for none.
	retryAfter string
}

func (p *problem) Error() string { return p.detail }

func isNotFound(err error) bool { return errors.Is(err, store.ErrNotFound) }

func invalid(detail string) error {
	return &problem{status: http.StatusUnprocessableEntity, detail: detail}
}

// asProblem turns any error into one that can be shown. Unknown errors say nothing of the inside.
func asProblem(err error) *problem {
	var p *problem
	switch {
	case errors.As(err, &p):
		return p
	case errors.Is(err, store.ErrNotFound):
		return &problem{status: http.StatusNotFound, detail: "This does not exist in your studio."}
	case errors.Is(err, store.ErrConflict):
		return &problem{status: http.StatusConflict, detail: "This was changed elsewhere in the meantime; nothing was overwritten. Look at it again and repeat your change."}
	}
	return &problem{status: http.StatusInternalServerError, detail: "Something went wrong on the server; nothing was changed. Try again in a moment."}
}

// fail answers a request with a problem and logs what only the log should know;
// the path as the contract has it, because a family's link opens its page.
func (s *Server) fail(c *gin.Context, err error) {
	p := asProblem(err)
	if p.status >= http.StatusInternalServerError {
		s.log.Error("request failed", "method", c.Request.Method, "path", c.FullPath(), "err", err)
	}
	writeProblem(c.Writer, p)
	c.Abort()
}

func writeProblem(w http.ResponseWriter, p *problem) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.Header().Set("Cache-Control", "no-store")
	if p.retryAfter != "" {
		w.Header().Set("Retry-After", p.retryAfter)
	}
	w.WriteHeader(p.status)
	json.NewEncoder(w).Encode(contract.Problem{
		Type: "about:blank", Title: http.StatusText(p.status), Status: p.status, Detail: p.detail,
	}) // a client that hung up is not our error
}
