package people

import (
	"context"
	"slices"
	"time"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/wording"
	"patientladder/store"
)

// colleagues are the teachers of the studio beside the owner, who needs no name here; none where there are none.
func (h *Handlers) colleagues(ctx context.Context) ([]contract.Choice, error) {
	list, err := h.Store.Teachers(ctx, open.Actor(ctx).Studio)
	list = slices.DeleteFunc(list, func(t store.Teacher) bool { return account.Role(t.Role) != account.Teacher })
	out := []contract.Choice{}
	for _, t := range list {
		out = append(out, contract.Choice{Id: t.ID, Name: t.Name})
	}
	return out, err
}

// covers are the days from today on on which a colleague gives the lesson.
func (h *Handlers) covers(ctx context.Context, x open.Student) ([]contract.Choice, error) {
	out := []contract.Choice{}
	list, err := h.Store.CoversOf(ctx, x.Tenant.ID, x.Ladder, x.Today)
	if err != nil || len(list) == 0 {
		return out, err
	}
	teachers, err := h.Store.Teachers(ctx, x.Tenant.ID)
	for _, c := range list {
		for _, t := range teachers {
			if t.ID == c.Teacher {
				out = append(out, contract.Choice{Id: c.Day.Format(time.DateOnly), Name: wording.Covered(c.Day, t.Name)})
			}
		}
	}
	return out, err
}

// GiveStudent hands a student on an instrument over to a colleague, for good or for a day. The owner and the student's own
// teacher may.
func (h *Handlers) GiveStudent(ctx context.Context, r contract.GiveStudentRequestObject) (contract.GiveStudentResponseObject, error) {
	return contract.GiveStudent204Response{}, app.GiveStudent(ctx, h.Loader, r.Ladder, r.Body.Teacher, r.Body.Day.Time)
}
