package wording

// Moved is a change of the program that moves figures of studios that were there before it.
type Moved struct {
	// Number counts the changes from 1.
	Number int
	// Says is what moves and why.
	Says string
	// Everywhere says that it concerns every studio; else only those outside the zone UTC.
	Everywhere bool
}

// moves are all that there were, the oldest first. A change of a rule that moves a figure on a screen belongs here.
var moves = []Moved{
	{
		1,
		"Days are now those of your studio’s clock. They were those of Greenwich, and a lesson in which midnight struck there counted as two. So “stuck” may go away, and a piece may have had fewer lessons.",
		false,
	},
	{
		2,
		"A piece that is only assigned says nothing of its skills any more: they count as being learned from the first lesson that hears it. So jumps, “ready” and “to prepare” may stand higher for pieces that were assigned and not yet taught.",
		true,
	},
	{
		3,
		"Practice in a week that a cancelled lesson made longer is counted, and what was played first counts as practice. Pieces learned elsewhere and not heard here yet no longer count as learned pieces that fade. How many weeks a piece takes is said in whole weeks that hold as often as the word beside them says.",
		true,
	},
	{
		4,
		"A bass of long notes or leaps under chords is no “melody in the left hand” any more: such pieces ask for less. The share of review counts games too, so for the youngest it is lower. A piece that is ready for a run is neither stuck nor said to need patience.",
		true,
	},
	{
		5,
		"What a family ticks counts now. A learned piece that was played at home ages from that day, at half the weight of one that you heard, so fewer pieces are called unplayed. What came easily is not set again in the next week; what was hard comes first there and in the lesson. Each can be taken back on the week, and all of it switched off under Ways of teaching. A lesson hears four learned pieces at the most, unless most of it is for them, and the piece that is least secure has a quarter of its minutes.",
		true,
	},
}

// LastMove is the number of the newest; a studio that is new was there for all of them.
func LastMove() int { return moves[len(moves)-1].Number }

// MovedSince are the changes after the one that a studio was told of last, that concern it, the oldest first.
func MovedSince(told int, zone string) (out []Moved) {
	for _, m := range moves {
		if m.Number > told && (m.Everywhere || zone != "UTC") {
			out = append(out, m)
		}
	}
	return out
}
