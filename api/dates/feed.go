package dates

import (
	"context"
	"crypto/rand"
	"net/http"
	"strings"

	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/home/ics"
)

// feedDays is how long past lessons stay in the calendar.
const feedDays = 56

func feedPath(token string) string { return "/api/teacher/" + token + "/calendar" }

// GetFeedLink returns the link of the teacher's own calendar.
func (h *Handlers) GetFeedLink(ctx context.Context, _ contract.GetFeedLinkRequestObject) (contract.GetFeedLinkResponseObject, error) {
	token, err := h.Store.Feed(ctx, open.Actor(ctx).Studio)
	out := contract.FeedLink{}
	if token != "" {
		out.Link = feedPath(token)
	}
	return contract.GetFeedLink200JSONResponse(out), err
}

// MakeFeedLink makes a new one, and so shuts the old.
func (h *Handlers) MakeFeedLink(ctx context.Context, _ contract.MakeFeedLinkRequestObject) (contract.MakeFeedLinkResponseObject, error) {
	token := rand.Text() + rand.Text() // 260 bits
	return contract.MakeFeedLink200JSONResponse{Link: feedPath(token)}, h.Store.SetFeed(ctx, open.Actor(ctx).Studio, token)
}

// RevokeFeedLink shuts it.
func (h *Handlers) RevokeFeedLink(
	ctx context.Context,
	_ contract.RevokeFeedLinkRequestObject,
) (contract.RevokeFeedLinkResponseObject, error) {
	return contract.RevokeFeedLink204Response{}, h.Store.SetFeed(ctx, open.Actor(ctx).Studio, "")
}

// GetTeacherCalendar returns all lessons of the studio as a calendar to subscribe to.
func (h *Handlers) GetTeacherCalendar(
	ctx context.Context,
	r contract.GetTeacherCalendarRequestObject,
) (contract.GetTeacherCalendarResponseObject, error) {
	studio, err := h.Store.FeedStudio(ctx, r.Token)
	if err != nil {
		return nil, &problem.Problem{
			Status: http.StatusNotFound,
			Guess:  true,
			Detail: "This link opens nothing, or nothing any more. Make a new one in the calendar.",
		}
	}
	s, pupils, err := h.pupils(open.As(ctx, open.Who{Studio: studio}))
	if err != nil {
		return nil, err
	}
	feed := ics.Feed{Name: s.Tenant.Name, Zone: s.Zone, From: s.Today.AddDate(0, 0, -feedDays), Made: s.Now}
	for _, p := range pupils {
		feed.Students = append(feed.Students, ics.Student{ID: p.Ladder, Title: p.Name + ", " + p.Instrument, Lessons: p.Lessons})
	}
	text := ics.Write(feed)
	return contract.GetTeacherCalendar200TextcalendarResponse{Body: strings.NewReader(text), ContentLength: int64(len(text))}, nil
}
