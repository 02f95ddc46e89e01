package signs

// Cliff is a next rung beyond a comfortable leap.
const Cliff Kind = "cliff"

var cliff = Rule{
	Kind: Cliff, Weight: 3, One: "has a big jump ahead", Many: "have a big jump ahead", InStudio: true,
	Find: func(s Seen) (found []Sign) {
		for _, x := range s.Cliffs {
			x.Kind = Cliff
			found = append(found, x)
		}
		return found
	},
	Says: func(s Sign, t Speech) string {
		return "A big jump to " + t.Title(s.Material) + ": " + t.Over(s.Leap, s.Reach)
	},
}
