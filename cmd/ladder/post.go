package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"time"

	"patientladder/app"
	"patientladder/clock"
	"patientladder/home/post"
	"patientladder/store"
)

const (
	// postEvery is how often the mailbox is looked at.
	postEvery = 5 * time.Second
	// postAgain is how long a message is held back after the first try; it doubles with every further one.
	postAgain = time.Minute
)

// deliver hands the messages of the mailbox to a mail server until the context ends.
func deliver(ctx context.Context, st *store.Store, to post.Sender) {
	tick := time.NewTicker(postEvery)
	defer tick.Stop()
	for {
		now := clock.Real()
		if err := errors.Join(letters(ctx, st, to, now), empty(ctx, st, to, now)); err != nil && ctx.Err() == nil {
			slog.Error("mailbox", "err", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// letterHolds is how long a letter about an account is tried: its link runs out.
const letterHolds = 30 * time.Minute

// letters sends every letter about an account that is due at a time.
func letters(ctx context.Context, st *store.Store, to post.Sender, now time.Time) error {
	if err := st.DropOldAccountLetters(ctx, now.Add(-letterHolds)); err != nil {
		return err
	}
	for {
		l, err := st.TakeAccountLetter(ctx, now, now.Add(postAgain))
		if errors.Is(err, store.ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		if err := to.Send(ctx, post.Letter{ID: l.ID, To: l.To, Subject: l.Subject, Body: l.Body, Date: l.Made}); err != nil {
			slog.Warn("a letter about an account was not taken", "err", err)
			continue // held back already
		}
		if err := st.DropAccountLetter(ctx, l.ID); err != nil {
			return err
		}
	}
}

// empty sends every message that is due at a time.
func empty(ctx context.Context, st *store.Store, to post.Sender, now time.Time) error {
	for {
		// It is held back before it is sent: a server that stops in between tries again later.
		m, err := st.TakeMessage(ctx, now, now.Add(postAgain))
		if errors.Is(err, store.ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		err = to.Send(ctx, post.Letter{ID: m.ID, To: m.To, Subject: m.Subject, Body: m.Body, Date: m.MadeAt})
		if err == nil {
			err = st.MessageSent(ctx, m, now)
		} else {
			err = st.MessageFailed(ctx, m, err.Error(), now.Add(postAgain<<min(m.Tries, 10)))
		}
		if err != nil {
			return err
		}
	}
}

// sweepEvery is how often data are looked for whose time has come.
const sweepEvery = 10 * time.Minute

// sweep erases the students whose time has come until the context ends.
func sweep(ctx context.Context, st *store.Store, now clock.Clock) {
	tick := time.NewTicker(sweepEvery)
	defer tick.Stop()
	for {
		if n, err := st.Sweep(ctx, now(), app.Regret); err != nil && ctx.Err() == nil {
			slog.Error("erasing", "err", err)
		} else if n > 0 {
			slog.Info("erased", "students", n)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// printed is a mail server for the demo: a letter about an account is written where the demo was started.
type printed struct{ out io.Writer }

// Send writes a letter.
func (p printed) Send(_ context.Context, l post.Letter) error {
	_, err := fmt.Fprintf(p.out, "\n  A letter to %s: %s\n\n%s\n", l.To, l.Subject, l.Body)
	return err
}

// printLetters writes the letters about accounts until the context ends.
func printLetters(ctx context.Context, st *store.Store, out io.Writer, now clock.Clock) {
	tick := time.NewTicker(time.Second)
	defer tick.Stop()
	for {
		if err := letters(ctx, st, printed{out}, now()); err != nil && ctx.Err() == nil {
			slog.Error("letters", "err", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
