package people

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/answer"
	"patientladder/api/asked"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/civil"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/consent"
	"patientladder/core/student/person"
	"patientladder/core/wording"
	"patientladder/home/post"
	"patientladder/store"
)

// ListStudents returns all students in the order of their lessons in the week.
func (h *Handlers) ListStudents(ctx context.Context, _ contract.ListStudentsRequestObject) (contract.ListStudentsResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	all, err := h.Openable(ctx, "")
	if err != nil {
		return nil, err
	}
	out := make(contract.ListStudents200JSONResponse, len(all))
	for i, l := range all {
		out[i] = answer.Student(l, s.Today)
	}
	return out, nil
}

// AddStudent adds a student with a ladder and the lesson times, and puts the
// materials of a book on the ladder when one is named.
func (h *Handlers) AddStudent(ctx context.Context, r contract.AddStudentRequestObject) (contract.AddStudentResponseObject, error) {
	n := r.Body
	p := store.Person{
		ID:        n.Student,
		Name:      strings.TrimSpace(n.Name),
		Called:    strings.TrimSpace(n.Called),
		Born:      n.Born.Time,
		BornAbout: n.BornAbout,
		Since:     n.Since.Time,
	}
	slots := n.Slots
	if n.StartsAt != "" {
		slots = append(slots, contract.NewSlot{Id: n.Ladder, Weekday: n.Weekday, StartsAt: n.StartsAt, Minutes: n.Minutes, Every: 1})
	}
	times, err := asked.Slots(slots)
	if err != nil {
		return nil, err
	}
	s, l, err := app.AddStudent(ctx, h.Loader, p, app.Enrolment{
		Ladder: n.Ladder, Instrument: string(n.Instrument), Sure: n.Sure, Slots: times, Book: n.Source,
	})
	return contract.AddStudent201JSONResponse(answer.Student(l, s.Today)), err
}

// GetStudent returns who a student is.
func (h *Handlers) GetStudent(ctx context.Context, r contract.GetStudentRequestObject) (contract.GetStudentResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	p, private, err := h.Person(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Openable(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	out := contract.StudentPage{
		Student: p.ID, Name: p.Name, Called: p.Called, First: studentplan.Profile{Name: p.Name, Called: p.Called}.First(),
		Born: answer.Date(p.Born), BornAbout: p.BornAbout, Age: studentplan.Profile{Born: p.Born}.Age(s.Today), Notes: p.Notes,
		NotesElsewhere: private,
		Today:          answer.Date(s.Today), Contacts: []contract.Contact{}, Pauses: []contract.Pause{}, Ladders: []contract.StudentLadder{},
		Version: p.Version,
		State:   contract.StudentPageStateGone,
		NamedIn: append([]string{}, studentplan.NamedIn(s.AsKept(), studentplan.Profile{Name: p.Name, Called: p.Called})...),
	}
	switch at, err := h.Store.EraseAt(ctx, s.Tenant.ID, p.ID); {
	case err != nil:
		return nil, err
	case !at.IsZero():
		out.Erased = wording.ErasedAt(at.In(s.Zone), out.First)
	}
	if !p.Since.IsZero() {
		out.Since = answer.Date(p.Since)
	}
	if !p.Left.IsZero() {
		out.Left = answer.Date(p.Left)
	}
	for _, c := range p.Contacts {
		out.Contacts = append(
			out.Contacts,
			contract.Contact{Id: c.ID, Name: c.Name, Relation: c.Relation, Email: c.Email, Messages: c.Messages, Named: contract.Said(c.Named)},
		)
	}
	for _, x := range p.Pauses {
		pause := contract.Pause{Id: x.ID, First: answer.Date(x.First), Words: wording.Pause(x.First, x.Last, s.Today)}
		if !x.Last.IsZero() {
			pause.Last = answer.Date(x.Last)
		}
		out.Pauses = append(out.Pauses, pause)
	}
	if out.Colleagues, err = h.colleagues(ctx); err != nil {
		return nil, err
	}
	var lessons []wording.Taught
	for _, l := range ladders {
		x, err := h.For(s, l)
		if err != nil {
			return nil, err
		}
		line := studentLadder(x)
		if line.Covers, err = h.covers(ctx, x); err != nil {
			return nil, err
		}
		out.Ladders = append(out.Ladders, line)
		if line.State != contract.StudentLadderStateGone {
			out.State = contract.StudentPageState(line.State)
			lessons = append(lessons, wording.Taught{Instrument: l.Instrument, Lessons: line.Lessons})
		}
	}
	out.Sentence = wording.Person(out.First, lessons, p.Left, s.Today, out.State == contract.StudentPageStatePaused)
	return contract.GetStudent200JSONResponse(out), nil
}

func studentLadder(x open.Student) contract.StudentLadder {
	l := x.Row
	out := contract.StudentLadder{
		Ladder: l.ID, Instrument: contract.Instrument(l.Instrument), Lessons: wording.Slots(l.Lessons, x.Today),
		State:   contract.StudentLadderState(answer.State(x.Profile, x.Today)),
		Teacher: l.Teacher, Covers: []contract.Choice{}, Begun: l.Entries > 0, Slots: []contract.SlotLine{}, Past: []string{},
		Practice: contract.Practice{Days: l.PracticeDays[:], Minutes: l.PracticeMinutes, HandsApart: l.HandsApart, Version: l.Version},
	}
	if !l.Ended.IsZero() {
		out.Ended = answer.Date(l.Ended)
	}
	if next, ok := x.Timetable().Next(x.Today); ok {
		out.Next = fmt.Sprintf("%s, %s", wording.WeekdayAndDay(next.Day), wording.Clock(next.StartsAt))
	}
	for _, slot := range l.Lessons.Slots {
		if !slot.Until.IsZero() && slot.Until.Before(x.Today) {
			out.Past = append(out.Past, wording.SlotSpan(slot, x.Today))
			continue
		}
		line := contract.SlotLine{
			Id: slot.ID, Weekday: int(slot.Weekday), StartsAt: wording.Clock(slot.StartsAt), Minutes: slot.Minutes, Every: slot.Every,
			From: answer.Date(slot.From), Words: wording.SlotSpan(slot, x.Today),
		}
		if !slot.Until.IsZero() {
			line.Until = answer.Date(slot.Until)
		}
		out.Slots = append(out.Slots, line)
	}
	return out
}

// ChangeStudent changes what is given of who a student is.
func (h *Handlers) ChangeStudent(ctx context.Context, r contract.ChangeStudentRequestObject) (contract.ChangeStudentResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	if _, private, err := h.Person(ctx, r.Student); err != nil {
		return nil, err
	} else if private { // they are not shown to whoever saves this, and stay
		r.Body.Notes = nil
	}
	p, err := h.Store.Person(ctx, s.Tenant.ID, r.Student)
	if err != nil {
		return nil, err
	}
	if p, err = changedPerson(p, *r.Body); err != nil {
		return nil, refusal.Because(err)
	}
	if err := person.Check(p.Name, p.Born, p.Since, s.Today); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.ChangeStudent204Response{}, h.Store.SetPerson(ctx, s.Tenant.ID, p)
}

// changedPerson is a person with what is given of a change.
func changedPerson(p store.Person, x contract.PersonChange) (store.Person, error) {
	p.Version = x.Version
	for _, text := range []struct {
		to   *string
		from *string
	}{{&p.Name, x.Name}, {&p.Called, x.Called}} {
		if text.from != nil {
			*text.to = strings.TrimSpace(*text.from)
		}
	}
	if x.Born != nil {
		p.Born = x.Born.Time
	}
	if x.BornAbout != nil {
		p.BornAbout = *x.BornAbout
	}
	if x.Notes != nil {
		p.Notes = *x.Notes
	}
	if x.Since != nil {
		p.Since = time.Time{}
		if *x.Since != "" {
			day, err := civil.Parse(*x.Since)
			if err != nil {
				return p, err
			}
			p.Since = day.Date()
		}
	}
	if x.Contacts == nil {
		return p, nil
	}
	p.Contacts = nil
	for _, c := range x.Contacts {
		kept := store.Contact{
			ID: c.Id, Name: strings.TrimSpace(c.Name), Relation: strings.TrimSpace(c.Relation), Email: strings.TrimSpace(c.Email),
			Messages: c.Messages,
			Named:    consent.Said(c.Named),
		}
		if kept.Email != "" {
			if err := post.Address(kept.Email); err != nil {
				return p, err
			}
		}
		p.Contacts = append(p.Contacts, kept)
	}
	return p, nil
}

// AddInstrument adds an instrument to a student.
func (h *Handlers) AddInstrument(ctx context.Context, r contract.AddInstrumentRequestObject) (contract.AddInstrumentResponseObject, error) {
	slots, err := asked.Slots(r.Body.Slots)
	if err != nil {
		return nil, err
	}
	s, l, err := app.AddInstrument(ctx, h.Loader, r.Student, app.Enrolment{
		Ladder: r.Body.Ladder, Instrument: string(r.Body.Instrument), Sure: r.Body.Sure, Slots: slots, From: r.Body.From.Time,
	})
	return contract.AddInstrument201JSONResponse(answer.Student(l, s.Today)), err
}

// ChangeInstrument gives a ladder another instrument.
func (h *Handlers) ChangeInstrument(
	ctx context.Context,
	r contract.ChangeInstrumentRequestObject,
) (contract.ChangeInstrumentResponseObject, error) {
	s, l, err := app.ChangeInstrument(ctx, h.Loader, r.Ladder, app.Enrolment{
		Ladder: r.Body.Ladder, Instrument: string(r.Body.Instrument), Sure: r.Body.Sure,
	})
	return contract.ChangeInstrument200JSONResponse(answer.Student(l, s.Today)), err
}

// EndInstrument ends the lessons on an instrument.
func (h *Handlers) EndInstrument(ctx context.Context, r contract.EndInstrumentRequestObject) (contract.EndInstrumentResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	if err := person.CheckLeaving(r.Body.From.Time, s.Today); err != nil {
		return nil, refusal.Because(err)
	}
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	return contract.EndInstrument204Response{}, h.Store.SetEnded(ctx, s.Tenant.ID, r.Ladder, r.Body.From.Time)
}

// ResumeInstrument takes the lessons up again.
func (h *Handlers) ResumeInstrument(
	ctx context.Context,
	r contract.ResumeInstrumentRequestObject,
) (contract.ResumeInstrumentResponseObject, error) {
	studio := open.Actor(ctx).Studio
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	return contract.ResumeInstrument204Response{}, h.Store.SetEnded(ctx, studio, r.Ladder, time.Time{})
}
