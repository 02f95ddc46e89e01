// Package refusal holds the errors whose sentences are meant for the person at the screen, whatever brings them there.
package refusal

import (
	"patientladder/core/wording"
)

// Kind is why something is not done.
type Kind string

// The kinds.
const (
	Mistake Kind = "mistake" // in what was sent
	Missing Kind = "missing" // it is not there
	Denied  Kind = "denied"  // it is not for whoever asks
	Changed Kind = "changed" // it is otherwise than it was shown
)

// Refusal is an error with a sentence.
type Refusal struct {
	Kind   Kind
	Detail string
}

func (r *Refusal) Error() string { return r.Detail }

// Invalid is a mistake in what was sent.
func Invalid(detail string) error { return &Refusal{Mistake, detail} }

// NotFound is something that is not there.
func NotFound(detail string) error { return &Refusal{Missing, detail} }

// NoMaterial is a material that is not there.
var NoMaterial = NotFound("This does not exist in your studio.")

// Because is a mistake in what was sent, as a rule of core says it.
func Because(err error) error {
	if says := wording.NotDone(err); says != "" {
		return Invalid(says)
	}
	return Invalid(wording.Sentence(err.Error()))
}

// Deny refuses what is not for whoever asks, with the sentence why.
func Deny(detail string) error { return &Refusal{Denied, detail} }

// Otherwise refuses what is otherwise by now than it was shown.
func Otherwise(detail string) error { return &Refusal{Changed, detail} }
