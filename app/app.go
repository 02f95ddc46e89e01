// Package app holds what can be done: one function a verb, each in one transaction, given what was asked for in core's types. It
// opens (app/open), asks core, writes through store, and refuses with a sentence (app/refusal). It knows no HTTP and no
// contract; the handlers of api translate and call it.
//
//	record.go    what happened in a lesson
//	fromhome.go  what a family reports
//	plan.go      the plan of a lesson
//	week.go      the week of practice
//	people.go    students, instruments, who teaches whom, deletion
//	library.go   pieces
//	ladder.go    the order of the rungs
//	way.go       what another way of teaching would change
//	learned.go   what the studio learns from its lessons
package app

import (
	"context"

	"patientladder/app/open"
	"patientladder/store"
)

// noted writes down who did something grave to what a studio keeps.
func noted(ctx context.Context, d *open.Loader, kind string) error {
	who := open.Actor(ctx)
	return d.Store.Audit(ctx, who.Studio, store.Audited{At: d.Now(), Kind: kind, Teacher: who.Teacher})
}
