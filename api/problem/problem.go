// Package problem holds the errors whose sentences are meant for the person at the screen, as
// application/problem+json (RFC 9457).
package problem

import (
	"encoding/json"
	"errors"
	"net/http"

	"patientladder/api/contract"
	"patientladder/app/refusal"
	"patientladder/store"
)

// Problem is an error with a sentence.
type Problem struct {
	Status int
	Detail string
	// RetryAfter in seconds; empty for none.
	RetryAfter string
	// Guess says that a link was tried that opens nothing.
	Guess bool
}

func (p *Problem) Error() string { return p.Detail }

// statuses are those of what a verb refuses.
var statuses = map[refusal.Kind]int{
	refusal.Mistake: http.StatusUnprocessableEntity, refusal.Missing: http.StatusNotFound, refusal.Denied: http.StatusForbidden,
	refusal.Changed: http.StatusConflict,
}

// Of turns any error into one that can be shown. Unknown errors say nothing of the inside.
func Of(err error) *Problem {
	var p *Problem
	var r *refusal.Refusal
	switch {
	case errors.As(err, &p):
		return p
	case errors.As(err, &r):
		return &Problem{Status: statuses[r.Kind], Detail: r.Detail}
	case errors.Is(err, store.ErrNotFound):
		return &Problem{Status: http.StatusNotFound, Detail: "This does not exist in your studio."}
	case errors.Is(err, store.ErrConflict):
		return &Problem{
			Status: http.StatusConflict,
			Detail: "This was changed elsewhere in the meantime; nothing was overwritten. Look at it again and repeat your change.",
		}
	}
	return &Problem{
		Status: http.StatusInternalServerError,
		Detail: "Something went wrong on the server; nothing was changed. Try again in a moment.",
	}
}

// Write answers with a problem.
func Write(w http.ResponseWriter, p *Problem) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.Header().Set("Cache-Control", "no-store")
	if p.RetryAfter != "" {
		w.Header().Set("Retry-After", p.RetryAfter)
	}
	w.WriteHeader(p.Status)
	json.NewEncoder(w).Encode(contract.Problem{
		Type: "about:blank", Title: http.StatusText(p.Status), Status: p.Status, Detail: p.Detail,
	}) // a client that hung up is not our error
}
