package people

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/answer"
	"patientladder/api/asked"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/civil"
	"patientladder/core/planning/placing"
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
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	n := r.Body
	instrument, err := open.Taught(string(n.Instrument), n.Sure)
	if err != nil {
		return nil, err
	}
	p := store.Person{
		ID:        n.Student,
		Name:      strings.TrimSpace(n.Name),
		Called:    strings.TrimSpace(n.Called),
		Born:      n.Born.Time,
		BornAbout: n.BornAbout,
		Since:     n.Since.Time,
	}
	if err := person.Check(p.Name, p.Born, p.Since, b.Today); err != nil {
		return nil, refusal.Because(err)
	}
	slots := n.Slots
	if n.StartsAt != "" {
		slots = append(slots, contract.NewSlot{Id: n.Ladder, Weekday: n.Weekday, StartsAt: n.StartsAt, Minutes: n.Minutes, Every: 1})
	}
	l, err := newLadder(b, whose(ctx), n.Ladder, p, instrument, b.Today, slots)
	if err != nil {
		return nil, err
	}
	err = h.Store.Together(ctx, func(ctx context.Context) error {
		if err := h.Store.AddPerson(ctx, b.Tenant.ID, p, l); err != nil || n.Source == "" {
			return err
		}
		return h.Store.PlaceRungs(ctx, b.Tenant.ID, l.ID, placing.OfBook(b.Library, n.Source, l.Instrument))
	})
	return contract.AddStudent201JSONResponse(answer.Student(l, b.Today)), err
}

// newLadder is a student on an instrument with lesson times from a day on, who practises as new students do.
func newLadder(
	s open.Studio,
	of, id string,
	p store.Person,
	instrument string,
	from time.Time,
	slots []contract.NewSlot,
) (store.Ladder, error) {
	l := store.Ladder{
		ID:         id,
		Teacher:    of,
		StudentID:  p.ID,
		Name:       p.Name,
		Called:     p.Called,
		Born:       p.Born,
		Instrument: instrument,
		HandsApart: true,
	}
	list, err := asked.Slots(slots)
	if err != nil {
		return l, err
	}
	if l.Lessons, err = l.Lessons.SetSlots(from, list); err != nil {
		return l, refusal.Because(err)
	}
	l.PracticeDays, l.PracticeMinutes = studentplan.FirstPractice(l.Profile().Age(s.Today), l.Lessons.Slots)
	return l, nil
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
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	instrument, err := open.Taught(string(r.Body.Instrument), r.Body.Sure)
	if err != nil {
		return nil, err
	}
	p, _, err := h.Person(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	l, err := newLadder(s, whose(ctx), r.Body.Ladder, p, instrument, r.Body.From.Time, r.Body.Slots)
	if err != nil {
		return nil, err
	}
	return contract.AddInstrument201JSONResponse(answer.Student(l, s.Today)), h.Store.AddLadder(ctx, s.Tenant.ID, l)
}

// ChangeInstrument gives a ladder another instrument: the same ladder where nothing was recorded on it,
// else a new one with the same lesson times, and the old one ends today.
func (h *Handlers) ChangeInstrument(
	ctx context.Context,
	r contract.ChangeInstrumentRequestObject,
) (contract.ChangeInstrumentResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	instrument, err := open.Taught(string(r.Body.Instrument), r.Body.Sure)
	if err != nil {
		return nil, err
	}
	l, err := h.Ladder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	placed, err := h.Store.Rungs(ctx, s.Tenant.ID, l.ID)
	if err != nil {
		return nil, err
	}
	if l.Entries == 0 && len(placed) == 0 {
		l.Instrument = instrument
		return contract.ChangeInstrument200JSONResponse(answer.Student(l, s.Today)), h.Store.SetInstrument(ctx, s.Tenant.ID, l.ID, instrument)
	}
	next := l
	next.ID, next.Instrument, next.Entries, next.Own, next.Lessons = r.Body.Ladder, instrument, 0, nil, l.Lessons.CarriedOn(
		s.Today,
		r.Body.Ladder,
	)
	err = h.Store.Together(ctx, func(ctx context.Context) error {
		if err := h.Store.AddLadder(ctx, s.Tenant.ID, next); err != nil {
			return err
		}
		return h.Store.SetEnded(ctx, s.Tenant.ID, l.ID, s.Today)
	})
	return contract.ChangeInstrument200JSONResponse(answer.Student(next, s.Today)), err
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
