// Package account holds the rules of accounts, without a clock, a database or a network: which passwords are taken, how tries
// at a secret slow down, the second factor, and tokens.
//
//	password.go  which passwords are taken, and their hashes
//	throttle.go  tries that slow down
//	second.go    codes of an authenticator app, and recovery codes
//	token.go     secrets that are kept only as their hash
//	role.go      who may do what in a studio
package account

import "time"

// Tries is what is known of the tries of one subject at a secret.
type Tries struct {
	// All since the last quiet hour, Passed those that were let through.
	All, Passed int
	Last, Free  time.Time
}

// Pace is how a kind of subject slows down: Free tries go through at once, each further one doubles the wait from First up to Most.
type Pace struct {
	Free        int
	First, Most time.Duration
}

// The paces (defaults): somebody at one address trying one account; one address trying any; one account tried from anywhere;
// a device that signed in before; links that open something.
var (
	Pair    = Pace{5, time.Second, 15 * time.Minute}
	Address = Pace{30, time.Second, 15 * time.Minute}
	Account = Pace{100, time.Second, 15 * time.Minute}
	Device  = Pace{10, time.Second, 5 * time.Minute}
	Links   = Pace{20, time.Second, 15 * time.Minute}
	Letters = Pace{3, time.Minute, time.Hour}
)

// ever is since when somebody is free who need not wait: also for a server whose clock is a little behind.
var ever = time.Unix(0, 0).UTC()

// quiet is after how long without a try the counting begins anew (default).
const quiet = time.Hour

// Try counts one more try at a time. Wait is how long this subject must wait, 0 when the try may go on; a try that must wait
// is counted and makes the wait no longer.
func (p Pace) Try(t Tries, now time.Time) (then Tries, wait time.Duration) {
	// A clock that was put back far must lock nobody out.
	if !t.Last.IsZero() && now.Sub(t.Last) >= max(quiet, p.Most) || t.Last.Sub(now) > p.Most {
		t = Tries{}
	}
	t.All++
	if now.Before(t.Free) {
		t.Last = now
		return t, t.Free.Sub(now)
	}
	t.Passed++
	t.Last, t.Free = now, ever
	if after := p.after(t.Passed); after > 0 {
		t.Free = now.Add(after)
	}
	return t, 0
}

// after is the wait after so many tries that went through.
func (p Pace) after(passed int) time.Duration {
	if passed < p.Free {
		return 0
	}
	return min(p.Most, p.First<<min(passed-p.Free, 20))
}

// Subject is somebody or something whose tries are counted at a pace.
type Subject struct {
	Name string
	Pace Pace
}

// SignIn are whose tries are counted at a sign-in, the first that must wait before the others: a device on which the account
// signed in before (by what it keeps; empty for another one) by itself, so that no stranger slows its owner down; otherwise
// the address with the account, the address, and the account from anywhere.
func SignIn(email, address, device string) []Subject {
	if device != "" {
		return []Subject{{"device " + device, Device}}
	}
	return []Subject{{"sign-in " + email + " from " + address, Pair}, {"sign-in from " + address, Address}, {"sign-in " + email, Account}}
}

// Wait is how long somebody must still wait at a time. A wait longer than the longest comes from a clock that was put back
// and is none.
func (p Pace) Wait(t Tries, now time.Time) time.Duration {
	if wait := t.Free.Sub(now); wait > 0 && wait <= p.Most {
		return wait
	}
	return 0
}

// Back takes a try back that came well; it never waits because of it.
func (t Tries) Back(now time.Time) Tries {
	return Tries{All: max(1, t.All-1), Passed: max(0, t.Passed-1), Last: now, Free: ever}
}

// Stale says that the same was tried within the last hour: a page that asks again and again, and no new guess.
func (t Tries) Stale(now time.Time) bool { return t.All > 0 && now.Sub(t.Last) < quiet }
