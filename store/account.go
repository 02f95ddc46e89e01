package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/store/rows"
)

// Attempt is what is known of the tries of one subject at a secret.
type Attempt struct {
	Tries, Passed int
	Last, Free    time.Time
}

// Count counts one more try of subjects, in their order, until next says that it goes no further. Each row is locked while
// it is counted, so that many tries at the same moment are all counted. It returns what stands then.
func (s *Store) Count(
	ctx context.Context,
	now time.Time,
	subjects []string,
	next func(i int, a Attempt) (then Attempt, further bool),
) ([]Attempt, error) {
	var out []Attempt
	further := true
	now = now.UTC()
	for i, subject := range subjects { // each by itself, and made before it is locked: so nobody waits for each other
		if err := s.q(ctx).MakeAttempt(ctx, rows.MakeAttemptParams{Subject: subject, LastAt: now, FreeAt: now}); err != nil {
			return nil, err
		}
		err := s.within(ctx, func(q *rows.Queries) error {
			r, err := q.LockAttempt(ctx, subject)
			if err != nil {
				return err
			}
			a := Attempt{Tries: int(r.Tries), Passed: int(r.Passed), Last: r.LastAt, Free: r.FreeAt}
			if a.Tries == 0 {
				a = Attempt{}
			}
			a, further = next(i, a)
			out = append(out[:i], a)
			return q.KeepAttempt(
				ctx,
				rows.KeepAttemptParams{Tries: int32(a.Tries), Passed: int32(a.Passed), LastAt: a.Last.UTC(), FreeAt: a.Free.UTC(), Subject: subject},
			)
		})
		if err != nil {
			return nil, err
		}
		if !further {
			break
		}
	}
	return out, nil
}

// Tried is what is known of the tries of a subject; nothing for one that never tried.
func (s *Store) Tried(ctx context.Context, subject string) (Attempt, error) {
	r, err := s.q(ctx).Attempt(ctx, subject)
	if errors.Is(err, sql.ErrNoRows) {
		return Attempt{}, nil
	}
	return Attempt{Tries: int(r.Tries), Passed: int(r.Passed), Last: r.LastAt, Free: r.FreeAt}, err
}

// Forget forgets the tries of a subject, and those of everybody that are older than a time.
func (s *Store) Forget(ctx context.Context, subject string, older time.Time) error {
	if err := s.q(ctx).ForgetAttempt(ctx, subject); err != nil {
		return err
	}
	return s.q(ctx).DropOldAttempts(ctx, older.UTC())
}

// KnowDevice remembers, by the hash of what it keeps, that somebody signed in on a device.
func (s *Store) KnowDevice(ctx context.Context, teacher, token string, now time.Time) error {
	return s.q(ctx).KnowDevice(ctx, rows.KnowDeviceParams{Token: token, TeacherID: teacher, SeenAt: now.UTC()})
}

// IsDeviceOf says whether somebody signed in on a device before.
func (s *Store) IsDeviceOf(ctx context.Context, teacher, token string) (bool, error) {
	n, err := s.q(ctx).IsDeviceOf(ctx, rows.IsDeviceOfParams{Token: token, TeacherID: teacher})
	return n > 0, err
}

// ForgetDevices forgets the devices of somebody but one.
func (s *Store) ForgetDevices(ctx context.Context, teacher, but string) error {
	return s.q(ctx).ForgetDevices(ctx, rows.ForgetDevicesParams{TeacherID: teacher, Token: but})
}

// SetPassword changes the hash of somebody's password. Links that would have changed it open nothing any more.
func (s *Store) SetPassword(ctx context.Context, teacher, hash string, now time.Time) error {
	return s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetPassword(ctx, rows.SetPasswordParams{PasswordHash: hash, ID: teacher}); err != nil {
			return err
		}
		return q.DropOnceLinks(ctx, rows.DropOnceLinksParams{TeacherID: text(teacher), UntilAt: now.UTC()})
	})
}

// SetSecond begins or ends (an empty secret) the second factor of somebody, with the hashes of the recovery codes.
func (s *Store) SetSecond(ctx context.Context, teacher, secret string, step int64, codes []string) error {
	return s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetSecond(ctx, rows.SetSecondParams{SecondSecret: s.secret.close(secret), SecondStep: step, ID: teacher}); err != nil {
			return err
		}
		if err := q.DropRecoveryCodes(ctx, teacher); err != nil {
			return err
		}
		for _, c := range codes {
			if err := q.AddRecoveryCode(ctx, rows.AddRecoveryCodeParams{TeacherID: teacher, Code: c}); err != nil {
				return err
			}
		}
		return nil
	})
}

// UseSecond uses a step of the second factor; a step that was used, or an earlier one, is ErrNotFound.
func (s *Store) UseSecond(ctx context.Context, teacher string, step int64) error {
	return found(s.q(ctx).UseSecond(ctx, rows.UseSecondParams{SecondStep: step, ID: teacher, SecondStep_2: step}))
}

// UseRecoveryCode uses one, by its hash; one that is not there is ErrNotFound.
func (s *Store) UseRecoveryCode(ctx context.Context, teacher, code string) error {
	return found(s.q(ctx).UseRecoveryCode(ctx, rows.UseRecoveryCodeParams{TeacherID: teacher, Code: code}))
}

// RecoveryCodes is how many are left.
func (s *Store) RecoveryCodes(ctx context.Context, teacher string) (int, error) {
	n, err := s.q(ctx).CountRecoveryCodes(ctx, teacher)
	return int(n), err
}

// The kinds of links that open something once.
const (
	PasswordLink = "password"
	InviteLink   = "invite"
)

// OnceLink opens something once, until a time.
type OnceLink struct {
	// Token is the hash of what stands in the link.
	Token, Kind, Studio string
	// Teacher is whose password it is; empty for an invitation, which has e-mail, name and role.
	Teacher, Email, Name, Role string
	Made, Until                time.Time
}

// AddOnceLink keeps a link; one for the same person that was there before opens nothing any more.
func (s *Store) AddOnceLink(ctx context.Context, l OnceLink) error {
	return s.within(ctx, func(q *rows.Queries) error {
		if l.Teacher != "" {
			if err := q.DropOnceLinks(ctx, rows.DropOnceLinksParams{TeacherID: text(l.Teacher), UntilAt: l.Made.UTC()}); err != nil {
				return err
			}
		}
		return q.AddOnceLink(ctx, rows.AddOnceLinkParams{
			Token: l.Token, Kind: l.Kind, StudioID: l.Studio, TeacherID: text(l.Teacher), Email: l.Email, Name: l.Name, Role: l.Role,
			MadeAt: l.Made.UTC(), UntilAt: l.Until.UTC(),
		})
	})
}

// OnceLink is a link that still opens something at a time, by its hash; otherwise ErrNotFound.
func (s *Store) OnceLink(ctx context.Context, token, kind string, now time.Time) (OnceLink, error) {
	r, err := s.q(ctx).OnceLink(ctx, rows.OnceLinkParams{Token: token, Kind: kind, UntilAt: now.UTC()})
	return OnceLink{
			Token:   r.Token,
			Kind:    r.Kind,
			Studio:  r.StudioID,
			Teacher: r.TeacherID.String,
			Email:   r.Email,
			Name:    r.Name,
			Role:    r.Role,
			Made:    r.MadeAt,
			Until:   r.UntilAt,
		}, explain(
			err,
		)
}

// UseOnceLink takes a link away; one that somebody else used in between is ErrNotFound.
func (s *Store) UseOnceLink(ctx context.Context, token string) error {
	return found(s.q(ctx).UseOnceLink(ctx, token))
}

// AccountLetter is one about an account, to be sent.
type AccountLetter struct {
	ID, To, Subject, Body string
	Made                  time.Time
	Tries                 int
}

// AddAccountLetter puts a letter with those that are sent.
func (s *Store) AddAccountLetter(ctx context.Context, l AccountLetter) error {
	return s.q(ctx).
		AddAccountLetter(ctx, rows.AddAccountLetterParams{ID: l.ID, Recipient: l.To, Subject: l.Subject, Body: l.Body, MadeAt: l.Made.UTC(), NotBefore: l.Made.UTC()})
}

// mostLetterTries is how often a letter about an account is tried; its link has run out by then.
const mostLetterTries = 6

// TakeAccountLetter takes a letter that is due and holds it back until again, so that a server that stops in between tries
// once more; none is ErrNotFound.
func (s *Store) TakeAccountLetter(ctx context.Context, now, again time.Time) (AccountLetter, error) {
	var l AccountLetter
	err := s.within(ctx, func(q *rows.Queries) error {
		r, err := q.DueAccountLetter(ctx, rows.DueAccountLetterParams{NotBefore: now.UTC(), Tries: mostLetterTries})
		if err != nil {
			return err
		}
		l = AccountLetter{ID: r.ID, To: r.Recipient, Subject: r.Subject, Body: r.Body, Made: r.MadeAt, Tries: int(r.Tries)}
		return q.HoldAccountLetter(ctx, rows.HoldAccountLetterParams{NotBefore: again.UTC(), ID: r.ID})
	})
	return l, explain(err)
}

// DropAccountLetter takes a letter away that was sent.
func (s *Store) DropAccountLetter(ctx context.Context, id string) error {
	return s.q(ctx).DropAccountLetter(ctx, id)
}

// DropOldAccountLetters takes those away that were made before a time and could not be sent.
func (s *Store) DropOldAccountLetters(ctx context.Context, before time.Time) error {
	return s.q(ctx).DropOldAccountLetters(ctx, before.UTC())
}

// Audited is something that was done with an account or with data.
type Audited struct {
	// ID is given when it is kept.
	ID           string
	At           time.Time
	Kind, Detail string
	// Teacher is who did it, by id, and Name; empty where nobody was signed in.
	Teacher, Name string
}

// Audit keeps that something was done in a studio.
func (s *Store) Audit(ctx context.Context, studio string, a Audited) error {
	return s.q(ctx).
		AddAudit(ctx, rows.AddAuditParams{ID: ulid.Make().String(), StudioID: studio, TeacherID: text(a.Teacher), At: a.At.UTC(), Kind: a.Kind, Detail: a.Detail})
}

// AuditOf is what was done last in a studio, the latest first.
func (s *Store) AuditOf(ctx context.Context, studio string) ([]Audited, error) {
	list, err := s.q(ctx).AuditOf(ctx, studio)
	out := make([]Audited, len(list))
	for i, r := range list {
		out[i] = Audited{ID: r.ID, At: r.At, Kind: r.Kind, Detail: r.Detail, Teacher: r.TeacherID.String, Name: r.Name}
	}
	return out, err
}

// Teachers are the accounts of a studio, by name.
func (s *Store) Teachers(ctx context.Context, studio string) ([]Teacher, error) {
	list, err := s.q(ctx).Teachers(ctx, studio)
	out := make([]Teacher, len(list))
	for i, r := range list {
		if out[i], err = s.teacherOf(r, err); err != nil {
			return nil, err
		}
	}
	return out, err
}

// teacherOf is an account as it was read, or the error of reading it.
func (s *Store) teacherOf(r rows.Teacher, err error) (Teacher, error) {
	if err != nil {
		return Teacher{}, explain(err)
	}
	err = s.opened(&r.SecondSecret)
	return Teacher{
		ID:           r.ID,
		StudioID:     r.StudioID,
		Email:        r.Email,
		Name:         r.Name,
		PasswordHash: r.PasswordHash,
		Role:         r.Role,
		SecondSecret: r.SecondSecret,
		SecondStep:   r.SecondStep,
	}, err
}

// Accept makes the account that a link invites to and takes the link away; one that is gone is ErrNotFound, an address that
// has an account ErrConflict.
func (s *Store) Accept(ctx context.Context, token string, t Teacher) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.UseOnceLink(ctx, token)); err != nil {
			return err
		}
		return q.AddTeacher(
			ctx,
			rows.AddTeacherParams{ID: t.ID, StudioID: t.StudioID, Email: t.Email, Name: t.Name, PasswordHash: t.PasswordHash, Role: t.Role},
		)
	}))
}

// SetRole changes what somebody is in a studio, and ends the sessions, which know the role; somebody who is not there is
// ErrNotFound.
func (s *Store) SetRole(ctx context.Context, studio, teacher, role string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.TeacherInStudio(ctx, rows.TeacherInStudioParams{StudioID: studio, ID: teacher})); err != nil {
			return err
		}
		if _, err := q.SetRole(ctx, rows.SetRoleParams{Role: role, StudioID: studio, ID: teacher}); err != nil {
			return err
		}
		_, err := q.EndOtherSessions(ctx, rows.EndOtherSessionsParams{TeacherID: text(teacher)})
		return err
	}))
}

// EndAccount lets somebody leave: the address is free again, nothing signs in, the sessions end.
func (s *Store) EndAccount(ctx context.Context, studio, teacher string, now time.Time) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.EndAccount(ctx, rows.EndAccountParams{LeftAt: moment(now), StudioID: studio, ID: teacher})); err != nil {
			return err
		}
		if err := q.ForgetDevices(ctx, rows.ForgetDevicesParams{TeacherID: teacher}); err != nil {
			return err
		}
		if err := q.DropPasskeys(ctx, teacher); err != nil {
			return err
		}
		if err := q.GiveBack(ctx, rows.GiveBackParams{StudioID: studio, TeacherID: text(teacher)}); err != nil { // the students are the owner's again
			return err
		}
		_, err := q.EndOtherSessions(ctx, rows.EndOtherSessionsParams{TeacherID: text(teacher)})
		return err
	}))
}

// Give hands a student on an instrument over to a teacher; empty for the owner.
func (s *Store) Give(ctx context.Context, studio, ladder, teacher string) error {
	return s.q(ctx).GiveLadder(ctx, rows.GiveLadderParams{TeacherID: text(teacher), StudioID: studio, ID: ladder})
}

// Cover lets a teacher give a colleague's lessons on a day; empty for nobody.
func (s *Store) Cover(ctx context.Context, studio, ladder string, day time.Time, teacher string) error {
	if teacher == "" {
		return s.q(ctx).DropCover(ctx, rows.DropCoverParams{StudioID: studio, LadderID: ladder, Day: day})
	}
	return s.q(ctx).SetCover(ctx, rows.SetCoverParams{StudioID: studio, LadderID: ladder, Day: day, TeacherID: teacher})
}

// CoveredBy are the ladders that a teacher covers on a day.
func (s *Store) CoveredBy(ctx context.Context, studio, teacher string, day time.Time) (map[string]bool, error) {
	list, err := s.q(ctx).CoveredBy(ctx, rows.CoveredByParams{StudioID: studio, TeacherID: teacher, Day: day})
	out := map[string]bool{}
	for _, id := range list {
		out[id] = true
	}
	return out, err
}

// Covered is who covers a day.
type Covered struct {
	Day     time.Time
	Teacher string
}

// CoversOf are the days from one on on which somebody else gives the lessons of a ladder.
func (s *Store) CoversOf(ctx context.Context, studio, ladder string, from time.Time) ([]Covered, error) {
	list, err := s.q(ctx).CoversOf(ctx, rows.CoversOfParams{StudioID: studio, LadderID: ladder, Day: from})
	out := make([]Covered, len(list))
	for i, r := range list {
		out[i] = Covered{r.Day, r.TeacherID}
	}
	return out, err
}
