package signs

// Stuck is a working piece without a new mark for too long, or in work for too long. One that is ready for a run is not stuck,
// however long it took.
const Stuck Kind = "stuck"

// stuck weighs most: who is stuck needs the teacher more than who is ready for a run.
var stuck = Rule{
	Kind: Stuck, Weight: 8, One: "is stuck", Many: "are stuck", OnToday: true, InStudio: true,
	Find: func(s Seen) (found []Sign) {
		for id, m := range s.working() {
			usual, long := s.Long[id]
			switch {
			case m.RunDue:
			case m.SinceMark >= s.Policy.StuckLessons:
				found = append(found, Sign{Kind: Stuck, Material: id, Lessons: m.SinceMark})
			case long:
				found = append(found, Sign{Kind: Stuck, Material: id, Weeks: ceil(usual)})
			}
		}
		return found
	},
	Says: func(s Sign, t Speech) string {
		if s.Lessons > 0 {
			return "No new mark for " + t.Title(s.Material) + " in " + t.Counted(s.Lessons, "lesson")
		}
		return t.Title(s.Material) + " takes longer than usual: 9 of 10 pieces like this are done within " + t.Counted(s.Weeks, "week")
	},
}
