package progress

import (
	"context"
	"time"

	"patientladder/api/contract"
	"patientladder/core/planning/studioyear"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
)

// GetStudioYear looks back at the whole studio.
func (h *Handlers) GetStudioYear(ctx context.Context, _ contract.GetStudioYearRequestObject) (contract.GetStudioYearResponseObject, error) {
	s, horizon, err := h.Shared(ctx)
	if err != nil {
		return nil, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	in := studioyear.Input{Model: horizon.Model, Today: s.Today}
	for _, x := range opened {
		in.Students = append(in.Students, x.Student)
	}
	ladders, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	for _, l := range ladders {
		if p := l.Profile(); p.Gone(s.Today) {
			in.Gone = append(in.Gone, p)
		}
	}
	if in.Weeks, err = h.Store.StudioWeeks(ctx, s.Tenant.ID, week.Reaching(s.Today, standing.HomeDays)); err != nil {
		return nil, err
	}
	y, n := studioyear.Of(in), s.Names()
	out := contract.StudioYear{
		Sentence: wording.StudioYear(y), Talk: []contract.TalkTo{}, Stalls: []contract.StalledPiece{}, Once: []contract.SkillOnce{},
		Load:     []contract.DayLoad{},
		Previews: wording.PreviewsPaid(y), Pace: wording.YearPace(y),
	}
	for _, r := range y.Talk {
		x := contract.TalkTo{Ladder: r.Ladder, Name: r.Name, Reasons: []string{}, Doubt: wording.Doubt(r)}
		for _, why := range r.Reasons {
			x.Reasons = append(x.Reasons, n.Risk(why))
		}
		out.Talk = append(out.Talk, x)
	}
	for _, st := range y.Stalls {
		x := contract.StalledPiece{
			Material: st.Material,
			Title:    s.Library[st.Material].Title,
			Ratio:    st.Ratio,
			Words:    n.Stall(st),
			Had:      []contract.HadPiece{},
		}
		for _, had := range st.Had {
			x.Had = append(x.Had, contract.HadPiece{Ladder: had.Ladder, Name: had.Name, Words: wording.HadPiece(had)})
		}
		out.Stalls = append(out.Stalls, x)
	}
	for _, o := range y.Once {
		out.Once = append(out.Once, contract.SkillOnce{Material: o.Material, Words: n.OnlyIn(o)})
	}
	for i := range 7 {
		d := time.Weekday((i + 1) % 7)
		out.Load = append(
			out.Load,
			contract.DayLoad{
				Weekday: int(d),
				Name:    d.String(),
				Lessons: y.Days[d].Lessons,
				Minutes: y.Days[d].Minutes,
				Words:   wording.WeekdayLoad(d, y.Days[d]),
			},
		)
	}
	return contract.GetStudioYear200JSONResponse(out), nil
}
