package people

import (
	"context"
	"net/http"
	"slices"
	"time"

	"patientladder/account"
	"patientladder/api/contract"
	"patientladder/api/problem"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/wording"
	"patientladder/store"
)

// whose is whose student somebody new is: a teacher's own, the owner's otherwise.
func whose(ctx context.Context) string {
	if who := open.Actor(ctx); who.Role == account.Teacher {
		return who.Teacher
	}
	return ""
}

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
	who := open.Actor(ctx)
	l, err := h.Ladder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	if !who.Role.Owns() && l.Teacher != who.Teacher {
		return nil, &problem.Problem{Status: http.StatusForbidden, Detail: "Only the student’s own teacher or the owner hands a student over."}
	}
	to := r.Body.Teacher
	if to != "" {
		list, err := h.Store.Teachers(ctx, who.Studio)
		if err != nil {
			return nil, err
		}
		if !slices.ContainsFunc(list, func(t store.Teacher) bool { return t.ID == to && account.Role(t.Role).Publishes() }) {
			return nil, refusal.Invalid("Nobody of this studio who teaches was named. Nothing was changed.")
		}
	}
	return contract.GiveStudent204Response{}, h.Store.Together(ctx, func(ctx context.Context) (err error) {
		kind := "student-given"
		if day := r.Body.Day.Time; !day.IsZero() {
			kind, err = "lesson-covered", h.Store.Cover(ctx, who.Studio, l.ID, day, to)
		} else {
			err = h.Store.Give(ctx, who.Studio, l.ID, to)
		}
		if err != nil {
			return err
		}
		return h.Store.Audit(ctx, who.Studio, store.Audited{At: h.Now(), Kind: kind, Teacher: who.Teacher})
	})
}
