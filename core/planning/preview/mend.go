package preview

// MendKind is a kind of mend.
type MendKind string

// The kinds of mends.
const (
	MoreBites  MendKind = "bites"      // one bite more in every lesson
	Move       MendKind = "move"       // the piece begins later
	Substitute MendKind = "substitute" // another piece comes first
)

// Mend is what could be done about skills that would not be ready in time.
type Mend struct {
	Kind MendKind
	// Late is the largest lateness that is left, in lessons; 0 when all is ready.
	Late int
	// Lessons by which the piece of a Move begins later.
	Lessons int
	// Material is the substitute.
	Material string
}

// Mends says what would help a need that is late. Rest are the rungs above its
// piece on the same strand, in order: the first that asks for none of the late
// skills could come before it.
func Mends(needs []Need, perLesson, which int, above []Rung) []Mend {
	plan := Schedule(needs, perLesson)
	late := plan.Outcomes[which].Late()
	if late == 0 {
		return nil
	}
	out := []Mend{{Kind: Move, Lessons: late}}
	if more := Schedule(needs, perLesson+1).Outcomes[which].Late(); more < late {
		out = append(out, Mend{Kind: MoreBites, Late: more})
	}
	missing := map[string]bool{}
	for _, o := range plan.Outcomes {
		if o.Late() > 0 {
			missing[o.Skill] = true
		}
	}
	for _, r := range above {
		asks := false
		for _, d := range r.Material.Demands {
			asks = asks || missing[d.Skill]
		}
		if !asks {
			return append(out, Mend{Kind: Substitute, Material: r.Material.ID})
		}
	}
	return out
}
