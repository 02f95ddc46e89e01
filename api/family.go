package api

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/home/post"
	"patientladder/store"
)

// linkDays is for how long a link opens the page when nothing else is said: about a term.
const linkDays = 120

// errNoLink answers a link that was guessed, shut or has run out: nobody learns which.
var errNoLink = &problem{status: http.StatusNotFound, detail: "This link opens nothing, or nothing any more. Ask the teacher for a new one."}

// familyAs lets the rules for a signed-in teacher serve a family: reading its own studio only.
func familyAs(ctx context.Context, studio string) context.Context {
	return context.WithValue(ctx, whoKey{}, who{teacher: studentlog.Family, studio: studio})
}

// familyHome opens the ladder that a family's link is for.
func (s *Server) familyHome(ctx context.Context, token string) (store.Family, shelf, error) {
	f, err := s.store.FamilyByToken(ctx, token)
	if err != nil || token == "" {
		if err == nil || isNotFound(err) {
			err = errNoLink
		}
		return f, shelf{}, err
	}
	sh, err := s.shelf(familyAs(ctx, f.Studio), f.Ladder)
	if err == nil && sh.today.After(f.Expires) {
		err = errNoLink
	}
	return f, sh, err
}

// openLink returns how a family is reached, with a link that still opens: a new one where there is none.
func (s *Server) openLink(ctx context.Context, studio, ladder string, today time.Time) (store.Family, error) {
	f, err := s.store.Family(ctx, studio, ladder)
	if err != nil || f.Token != "" && f.Expires.After(today.AddDate(0, 0, weekplan.Days)) {
		return f, err
	}
	f.Token, f.Expires = newToken(), today.AddDate(0, 0, linkDays)
	return f, s.store.SetFamilyToken(ctx, f)
}

// newToken is 256 bits that nobody can guess.
func newToken() string {
	b := make([]byte, 32)
	rand.Read(b) // never fails (crypto/rand)
	return base64.RawURLEncoding.EncodeToString(b)
}

func familyPath(token string) string { return "/home/" + token }

// familyWay is how a family is reached; a link that has run out is none.
func familyWay(f store.Family, today time.Time) contract.FamilyWay {
	out := contract.FamilyWay{Email: f.Email}
	if f.Token != "" && !today.After(f.Expires) {
		out.Link, out.Expires = familyPath(f.Token), date(f.Expires)
	}
	return out
}

// SetFamily says where messages to a family go.
func (s *Server) SetFamily(ctx context.Context, r contract.SetFamilyRequestObject) (contract.SetFamilyResponseObject, error) {
	b, err := s.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	email := strings.TrimSpace(r.Body.Email)
	if email != "" {
		if err := post.Address(email); err != nil {
			return nil, invalid(capital(err.Error()) + ".")
		}
	}
	if err := s.store.SetFamilyEmail(ctx, b.studio.ID, r.Ladder, email); err != nil {
		return nil, err
	}
	f, err := s.store.Family(ctx, b.studio.ID, r.Ladder)
	return contract.SetFamily200JSONResponse(familyWay(f, b.today)), err
}

// MakeLink gives a family a new link.
func (s *Server) MakeLink(ctx context.Context, r contract.MakeLinkRequestObject) (contract.MakeLinkResponseObject, error) {
	b, err := s.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	f, err := s.store.Family(ctx, b.studio.ID, r.Ladder)
	if err != nil {
		return nil, err
	}
	f.Token, f.Expires = newToken(), b.today.AddDate(0, 0, r.Body.Days)
	return contract.MakeLink200JSONResponse(familyWay(f, b.today)), s.store.SetFamilyToken(ctx, f)
}

// RevokeLink shuts a family's link.
func (s *Server) RevokeLink(ctx context.Context, r contract.RevokeLinkRequestObject) (contract.RevokeLinkResponseObject, error) {
	b, err := s.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	return contract.RevokeLink204Response{}, s.store.SetFamilyToken(ctx, store.Family{Studio: b.studio.ID, Ladder: r.Ladder})
}

// ofLadder opens the day of a studio that has a ladder.
func (s *Server) ofLadder(ctx context.Context, id string) (book, error) {
	studio, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return book{}, err
	}
	if _, err := s.store.Ladder(ctx, studio.ID, id); err != nil {
		return book{}, err
	}
	b := book{studio: studio, now: s.now(), zone: zoneOf(studio)}
	b.today = b.day(b.now)
	return b, nil
}

// announcement is the message about a week, nil where there is no address.
func (s *Server) announcement(ctx context.Context, w weekly, f store.Family) (*store.Message, error) {
	if f.Email == "" {
		return nil, nil
	}
	me, err := s.store.Teacher(ctx, actor(ctx).teacher)
	if err != nil {
		return nil, err
	}
	first, _, _ := strings.Cut(w.ladder.Name, " ")
	body := fmt.Sprintf("The week of practice from %s is ready:\n%s\n\nThe link opens the page without an account; whoever has it can open it too. It works until %s.\n",
		w.kept.Start.Format("2 January"), s.url+familyPath(f.Token), f.Expires.Format("2 January 2006"))
	if words := w.kept.Hand.Words; words != "" {
		body += "\n" + words + "\n"
	}
	body += "\n" + me.Name + ", " + w.studio.Name + "\n"
	return &store.Message{
		ID: ulid.Make().String(), Ladder: w.ladder.ID, To: f.Email, Subject: fmt.Sprintf("%s: practice from %s", first, w.kept.Start.Format("2 January")), Body: body, MadeAt: w.now,
	}, nil
}

// ListMessages returns the mailbox.
func (s *Server) ListMessages(ctx context.Context, _ contract.ListMessagesRequestObject) (contract.ListMessagesResponseObject, error) {
	list, err := s.store.Messages(ctx, actor(ctx).studio)
	out := contract.ListMessages200JSONResponse{}
	for _, m := range list {
		state := contract.Waiting
		switch {
		case !m.SentAt.IsZero():
			state = contract.Sent
		case !s.mails:
			state = contract.Kept
		case m.Tries >= store.MostTries:
			state = contract.Failed
		}
		out = append(out, contract.Message{
			Id: m.ID, Ladder: m.Ladder, Student: m.Student, To: m.To, Subject: m.Subject, Body: m.Body, MadeAt: m.MadeAt, SentAt: m.SentAt, State: state, Failure: m.Failure,
		})
	}
	return out, err
}

// RetryMessage lets a message that was not sent be tried again.
func (s *Server) RetryMessage(ctx context.Context, r contract.RetryMessageRequestObject) (contract.RetryMessageResponseObject, error) {
	return contract.RetryMessage204Response{}, s.store.RetryMessage(ctx, actor(ctx).studio, r.Message, s.now())
}

// oldestTick is how many days later practice can still be reported.
const oldestTick = 14

// AddTicks takes what a family reports.
func (s *Server) AddTicks(ctx context.Context, r contract.AddTicksRequestObject) (contract.AddTicksResponseObject, error) {
	f, sh, err := s.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	weeks, err := s.store.PublishedWeeks(ctx, f.Studio, f.Ladder, sh.today.AddDate(0, 0, -oldestTick-weekplan.Days))
	if err != nil {
		return nil, err
	}
	entries := make([]studentlog.Entry, len(r.Body.Ticks))
	for i, t := range r.Body.Ticks {
		if entries[i], err = sh.tick(t, weeks, entries[:i]); err != nil {
			return nil, err
		}
	}
	added, err := s.store.Append(ctx, f.Studio, f.Ladder, entries)
	return contract.AddTicks200JSONResponse{Added: added}, err
}

// tick turns a report into an entry of the log, if it is about something that
// was set for a day that has come.
func (sh shelf) tick(t contract.FamilyTick, weeks []store.PracticeWeek, before []studentlog.Entry) (studentlog.Entry, error) {
	e := studentlog.Entry{ID: t.Id, At: t.At.UTC().Truncate(time.Millisecond), Actor: studentlog.Family}
	if e.At.After(sh.now.Add(clockAhead)) {
		return e, invalid("The clock of this device is ahead: the tick lies in the future.")
	}
	if t.Kind == contract.FamilyTickKindUndo {
		mine := slices.ContainsFunc(sh.standing.Home, func(h standing.Report) bool { return h.FromHome && h.ID == t.Undoes }) ||
			slices.ContainsFunc(before, func(b studentlog.Entry) bool { return b.ID == t.Undoes })
		if !mine {
			return e, invalid("Only what was ticked here can be taken back.")
		}
		e.Kind, e.Corrects = studentlog.Correction, t.Undoes
		return e, e.Validate()
	}
	day := t.Day.Time
	if day.After(sh.today) {
		return e, invalid(fmt.Sprintf("%s has not come yet: practice is ticked when it is done.", day.Format("Monday, 2 January")))
	}
	if sh.today.Sub(day) > oldestTick*24*time.Hour {
		return e, invalid(fmt.Sprintf("%s is too long ago to be ticked; tell the teacher in the lesson.", day.Format("Monday, 2 January")))
	}
	item, ok := set(weeks, day, t.Item)
	if !ok {
		return e, invalid(fmt.Sprintf("This was not set for %s. Open the page again.", day.Format("Monday, 2 January")))
	}
	if t.Kind == contract.FamilyTickKindFirst {
		e.Kind, e.Material, e.Sign = studentlog.Liking, item.Material, studentlog.PlayedFirst
		if _, known := sh.lib[item.Material]; !known {
			return e, invalid("Only a piece can be chosen to be played first.")
		}
		return e, nil
	}
	e.Kind, e.Day, e.Item, e.Times, e.Felt = studentlog.Practised, day.Format(time.DateOnly), t.Item, t.Times, studentlog.Feeling(t.Felt)
	if err := e.Validate(); err != nil {
		return e, invalid(capital(err.Error()) + ".")
	}
	return e, nil
}

// set finds an item among what was set for a day.
func set(weeks []store.PracticeWeek, day time.Time, key string) (weekplan.Item, bool) {
	for _, w := range weeks {
		for _, d := range w.Published.Days {
			if !d.Date.Equal(day) {
				continue
			}
			for _, it := range d.Items {
				if it.Key == key {
					return it, true
				}
			}
		}
	}
	return weekplan.Item{}, false
}
