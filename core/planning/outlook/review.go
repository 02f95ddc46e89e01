package outlook

import (
	"patientladder/core/library/material"
	"patientladder/core/planning/review"
	"patientladder/core/planning/week"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
)

// Review chooses those of the learned pieces that a week keeps alive within so many
// minutes: what fades, and what refines the working pieces and those that are
// being planted for.
func (o *Outlook) Review(learned []string, minutes float64, p review.Policy, m memory.Params) []review.Chosen {
	st, lib := o.in.Standing, o.in.Library
	var wanted []material.Material
	for _, id := range st.In(standing.Working) {
		wanted = append(wanted, lib[id])
	}
	for _, n := range o.Needs {
		wanted = append(wanted, lib[n.For])
	}
	asked := review.Asked(wanted)
	curve := m.Curve()
	pieces := make([]review.Piece, 0, len(learned))
	for _, id := range learned {
		ms := st.Materials[id]
		piece, days := lib[id], ms.Unheard(o.in.Day)
		pieces = append(pieces, review.Piece{
			ID: id, Minutes: week.ReviewMinutes(piece), Recall: curve.Recall(ms.Memory, float64(days)), Days: days,
			Useful: asked.Useful(piece), Favourite: st.Favourite(id), Elsewhere: ms.Elsewhere(),
		})
	}
	return review.Pick(pieces, minutes, p)
}
