package dates

import (
	"context"
	"io"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/calendar"
	"patientladder/core/wording"
	"patientladder/home/ics"
)

// ListHolidays returns the days without lessons.
func (h *Handlers) ListHolidays(ctx context.Context, _ contract.ListHolidaysRequestObject) (contract.ListHolidaysResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Ladders(ctx)
	names := map[string]string{}
	for _, l := range ladders {
		names[l.StudentID] = l.Name
	}
	out := contract.ListHolidays200JSONResponse{}
	for _, x := range s.Holidays {
		line := holiday(x)
		line.Whose = names[x.Student]
		out = append(out, line)
	}
	return out, err
}

func holiday(x calendar.Holiday) contract.Holiday {
	return contract.Holiday{Id: x.ID, Name: x.Name, First: answer.Date(x.First), Last: answer.Date(x.Last), Student: x.Student}
}

// SetHoliday adds or changes one.
func (h *Handlers) SetHoliday(ctx context.Context, r contract.SetHolidayRequestObject) (contract.SetHolidayResponseObject, error) {
	studio := open.Actor(ctx).Studio
	x := calendar.Holiday{
		ID:      r.Holiday,
		Name:    strings.TrimSpace(r.Body.Name),
		First:   r.Body.First.Time,
		Last:    r.Body.Last.Time,
		Student: r.Body.Student,
	}
	if err := x.Check(); err != nil {
		return nil, refusal.Invalid(wording.HolidayNotDone(x, err))
	}
	if x.Student != "" {
		if _, _, err := h.Person(ctx, x.Student); err != nil {
			return nil, err
		}
	}
	return contract.SetHoliday204Response{}, h.Store.SetHoliday(ctx, studio, x)
}

// RemoveHoliday takes one away.
func (h *Handlers) RemoveHoliday(ctx context.Context, r contract.RemoveHolidayRequestObject) (contract.RemoveHolidayResponseObject, error) {
	return contract.RemoveHoliday204Response{}, h.Store.RemoveHoliday(ctx, open.Actor(ctx).Studio, r.Holiday)
}

// ImportHolidays takes the days off out of an iCalendar file; with try it only shows them.
func (h *Handlers) ImportHolidays(
	ctx context.Context,
	r contract.ImportHolidaysRequestObject,
) (contract.ImportHolidaysResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	data, err := io.ReadAll(r.Body)
	if err != nil {
		return nil, refusal.Because(err)
	}
	found, err := ics.Holidays(data, s.Today)
	if err != nil {
		return nil, refusal.Because(err)
	}
	out := contract.HolidaysFound{Holidays: []contract.Holiday{}, Skipped: append([]string{}, found.Skipped...)}
	var fresh []calendar.Holiday
	for _, x := range found.Holidays {
		if known, same := calendar.Same(s.Holidays, x); same {
			out.Skipped = append(out.Skipped, x.Name+": it is there already as "+wording.Quoted(known.Name))
			continue
		}
		x.ID = ulid.Make().String()
		fresh = append(fresh, x)
		out.Holidays = append(out.Holidays, holiday(x))
	}
	if !r.Params.Try {
		if err := h.Store.SetHolidays(ctx, s.Tenant.ID, fresh); err != nil {
			return nil, err
		}
	}
	out.Sentence = wording.HolidaysFound(len(out.Holidays), len(out.Skipped), r.Params.Try)
	return contract.ImportHolidays200JSONResponse(out), nil
}
