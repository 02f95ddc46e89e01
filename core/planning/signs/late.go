package signs

// Late is a preview that will not be ready in time.
const Late Kind = "late"

var late = Rule{
	Kind: Late, Weight: 5, One: "has a late preview", Many: "have a late preview", InStudio: true,
	Find: func(s Seen) []Sign {
		if s.Late == nil {
			return nil
		}
		x := *s.Late
		x.Kind = Late
		return []Sign{x}
	},
	Says: func(s Sign, t Speech) string {
		return t.SkillFirst(s.Skill) + " should come " + t.Counted(s.Lessons, "lesson") + " earlier for " + t.Title(s.Material)
	},
}
