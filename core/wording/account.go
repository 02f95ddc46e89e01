package wording

import (
	"fmt"
	"strings"
	"time"

	"patientladder/core/planning/brief"
)

// TooManyTries says how long to wait before the next try.
func TooManyTries(seconds int) string {
	wait := Counted(seconds, "second")
	if seconds > 90 {
		wait = Counted((seconds+59)/60, "minute")
	}
	return "Too many tries. Wait " + wait + ", then try again."
}

// SessionOpen says since when a session is open and when it was seen last.
func SessionOpen(began, seen, now time.Time) string {
	if began.IsZero() || began.Year() < 2000 {
		return "open"
	}
	words := "since " + Day(began)
	switch days := int(now.Sub(seen).Hours() / 24); {
	case days < 1:
		return words + ", used " + seen.Format("15:04")
	case days == 1:
		return words + ", used a day ago"
	default:
		return words + ", used " + Counted(days, "day") + " ago"
	}
}

// SessionsEnded says how many sessions ended.
func SessionsEnded(n int) string {
	switch n {
	case 0:
		return "No other device was signed in."
	case 1:
		return "One other device is signed out."
	}
	return Capital(Counted(n, "other device")) + " are signed out."
}

// Letter is a letter about an account.
type Letter struct{ Subject, Body string }

// ForgottenPassword is the letter with a link for a new password.
func ForgottenPassword(name, link string) Letter {
	return Letter{
		"A new password",
		fmt.Sprintf(
			"Hello %s,\n\nsomebody asked for a new password for your account, hopefully you. This link sets it, once, within thirty minutes:\n\n%s\n\nIf it was not you, do nothing: your password stays as it is.\n",
			name,
			link,
		),
	}
}

// PasswordChanged is the letter after a password was changed.
func PasswordChanged(name string) Letter {
	return Letter{
		"Your password was changed",
		fmt.Sprintf(
			"Hello %s,\n\nyour password was changed, and every other device is signed out.\n\nIf it was not you, ask for a new password on the sign-in page at once.\n",
			name,
		),
	}
}

// PasswordReset is the letter after a new password was set with a link: a code that was asked for and passkeys are gone with
// the old one, because whoever was at the account may have set them.
func PasswordReset(name string, second bool, passkeys int) Letter {
	gone := ""
	switch {
	case second && passkeys > 0:
		gone = " The code of an app is not asked for any more, and passkeys sign in no more: set both up again on the account page."
	case second:
		gone = " The code of an app is not asked for any more: set it up again on the account page."
	case passkeys > 0:
		gone = " Passkeys sign in no more: add them again on the account page."
	}
	return Letter{
		"Your password was changed",
		fmt.Sprintf(
			"Hello %s,\n\na new password was set with a link that was sent to this address, and every device is signed out.%s\n\nIf it was not you, ask for a new password on the sign-in page at once, and change the password of your mail.\n",
			name,
			gone,
		),
	}
}

// PasskeyDropped is the letter after a passkey was taken away.
func PasskeyDropped(name string) Letter {
	return Letter{
		"A passkey was taken away",
		fmt.Sprintf(
			"Hello %s,\n\na passkey of your account was taken away and signs in no more. If it was not you, change your password at once.\n",
			name,
		),
	}
}

// SecondChanged is the letter after the second factor was switched on or off.
func SecondChanged(name string, on bool) Letter {
	if on {
		return Letter{
			"A code is asked for now",
			fmt.Sprintf("Hello %s,\n\nfrom now on a code of your app is asked for when you sign in.\n", name),
		}
	}
	return Letter{
		"No code is asked for any more",
		fmt.Sprintf("Hello %s,\n\nyour password alone signs you in again. If it was not you, change your password at once.\n", name),
	}
}

// Invited is the letter with an invitation.
func Invited(name, by, studio, link string) Letter {
	return Letter{
		"Your account at " + studio,
		fmt.Sprintf("Hello %s,\n\n%s invites you to %s. Choose a password here, within three days:\n\n%s\n", name, by, studio, link),
	}
}

// done are what was done with accounts and data, by kind.
var done = map[string]string{
	"signed-in": "signed in", "signed-out": "signed out", "password-changed": "changed the password",
	"link-made":        "A link for a new password was made",
	"password-by-link": "set a new password by a link", "second-on": "switched the second factor on",
	"second-off":    "switched the second factor off",
	"recovery-code": "used a recovery code", "invited": "invited somebody", "joined": "joined", "role-set": "changed a role",
	"account-ended":    "ended an account",
	"student-exported": "took out everything about a student", "student-deleted": "deleted a student", "student-kept": "took a deletion back",
	"student-erased":  "A student was erased",
	"studio-exported": "took out the whole studio", "studio-set": "changed the studio", "passkey-added": "added a passkey",
	"passkey-dropped": "took a passkey away", "student-given": "handed a student over", "lesson-covered": "changed who covers a lesson",
}

// Done says one thing that was done: “4 May 15:30, Ines Calloway signed in.”
func Done(kind, detail, who string, at time.Time) string {
	words, known := done[kind]
	if !known {
		words = kind
	}
	if who != "" {
		words = who + " " + words
	}
	if detail != "" {
		words += " (" + detail + ")"
	}
	return at.Format("2 January 15:04") + ", " + words + "."
}

// ErasedAt says when everything about somebody goes: “On 5 May at 15:30 everything about Nell is deleted for good.”
func ErasedAt(at time.Time, first string) string {
	return fmt.Sprintf(
		"On %s at %s everything about %s is deleted for good: lessons, weeks, reports, messages and contacts. What stays are counts without a name.",
		Day(at),
		at.Format("15:04"),
		first,
	)
}

// Covered says who gives a lesson on a day.
func Covered(day time.Time, name string) string {
	return fmt.Sprintf("%s: %s", WeekdayAndDay(day), name)
}

// Load says how much somebody teaches: “12 students, 6 hours 30 minutes a week”.
func Load(l brief.Load) string {
	if l.Students == 0 {
		return ""
	}
	words := Figures(l.Students, "student")
	var time []string
	if h := l.Minutes / 60; h > 0 {
		time = append(time, Figures(h, "hour"))
	}
	if m := l.Minutes % 60; m > 0 {
		time = append(time, Figures(m, "minute"))
	}
	if len(time) > 0 {
		words += ", " + strings.Join(time, " ") + " a week"
	}
	return words
}

// Passkey says one passkey: “the phone, since 4 May, used 6 May”.
func Passkey(name string, made, used time.Time) string {
	words := name + ", since " + Day(made)
	if used.Year() > 2000 {
		words += ", used " + Day(used)
	}
	return words
}

// PasskeyAdded is the letter after a passkey was added.
func PasskeyAdded(name, device string) Letter {
	return Letter{
		"A passkey was added",
		fmt.Sprintf(
			"Hello %s,\n\na passkey (%s) signs you in from now on. If it was not you, take it away on the account page and change your password at once.\n",
			name,
			device,
		),
	}
}
