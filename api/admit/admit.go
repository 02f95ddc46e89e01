// Package admit keeps heavy work within bounds: of each kind so much at once, a short queue before it, and beyond that a
// clear answer when to come again, so that no stranger and no crowd fills the memory.
package admit

import (
	"context"
	"net/http"
	"strconv"
	"sync/atomic"
	"time"

	"patientladder/api/problem"
)

// Budget bounds one kind of work. Make it with New.
type Budget struct {
	slots    chan struct{}
	waiting  atomic.Int64
	queue    int64
	patience time.Duration
	// refused counts those that were turned away.
	refused atomic.Int64
}

// New returns a budget for so much work at once, with so many waiting, each for patience at the most.
func New(atOnce, queue int, patience time.Duration) *Budget {
	return &Budget{slots: make(chan struct{}, atOnce), queue: int64(queue), patience: patience}
}

// Enter waits for room and returns what gives it back; a full queue, or one that does not move, is a problem that says when
// to come again.
func (b *Budget) Enter(ctx context.Context) (leave func(), err error) {
	leave = func() { <-b.slots }
	select {
	case b.slots <- struct{}{}:
		return leave, nil
	default:
	}
	if b.waiting.Add(1) > b.queue {
		b.waiting.Add(-1)
		return nil, b.busy()
	}
	defer b.waiting.Add(-1)
	timer := time.NewTimer(b.patience)
	defer timer.Stop()
	select {
	case b.slots <- struct{}{}:
		return leave, nil
	case <-timer.C:
		return nil, b.busy()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

func (b *Budget) busy() error {
	b.refused.Add(1)
	after := max(1, int(b.patience.Seconds()))
	return &problem.Problem{
		Status: http.StatusServiceUnavailable, RetryAfter: strconv.Itoa(after),
		Detail: "The server is busy; nothing was changed. Try again in " + seconds(after) + ".",
	}
}

func seconds(n int) string {
	if n == 1 {
		return "a second"
	}
	return strconv.Itoa(n) + " seconds"
}

// State is how full a budget is.
type State struct{ Working, Waiting, Room, Refused int }

// State says how full it is.
func (b *Budget) State() State {
	return State{Working: len(b.slots), Waiting: int(b.waiting.Load()), Room: cap(b.slots), Refused: int(b.refused.Load())}
}
